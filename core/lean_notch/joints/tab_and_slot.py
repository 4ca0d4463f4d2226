"""Tab and slot: tabs along an edge of one part stand through slots in the face of another, or in pockets of it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import partial
from typing import Annotated, ClassVar

from ..documents.as_typed import Typed
from ..documents.rules import Title, Whole
from ..geometry import Box, Region, loops
from ..geometry.space import dot
from ..ground.errors import OutOfRange
from ..ground.findings import Finding
from ..lengths.figures import Figure
from ..lengths.length import Length
from ..lengths.said import say_mm
from .mate import (
    Asked,
    At,
    Caliper,
    Change,
    Contact,
    Interval,
    Mate,
    Meeting,
    Notch,
    Pocket,
    Seat,
    SharpCorner,
    box_round,
    counter_clockwise,
    no_corners,
    on_edge_at,
)
from .meeting import NotMeeting, edge_on_face
from .tabs import Tabs, spread_tabs

_COARSE_MM = 0.01


LOCK_RAMP = 1.5
"""A locking shoulder is that many times as long as it is proud, so that it rides in; behind it stands square. From memory."""


@dataclass(frozen=True)
class TabAndSlot(Typed):
    """The first member's edge has tabs, the second's face has slots for them. What is None follows from the thickness.

    With `inset` the outermost tabs stand that far from the ends of the edge; a single one from where the edge begins. `deep` ends
    the slots within the board, as pockets. `lock` gives each tab shoulders that snap in behind the far face, that much proud.
    """

    count: Annotated[int | None, Whole(1, 200), Title("Tabs", "empty: by length")] = None
    width: Annotated[Length | None, Title("Tab width", "empty: 5 × thickness")] = None
    inset: Annotated[Length | None, Title("First tab from the end", "empty: spread evenly")] = None
    deep: Annotated[Length | None, Title("Into the face", "empty: through")] = None
    lock: Annotated[Length | None, Title("Locking shoulder", "empty: none")] = None
    kind: ClassVar[str] = "tab-and-slot"


class TabAndSlotJoint:
    how = TabAndSlot
    title = "tab and slot"
    ends: tuple[At, At] = ("edge", "face")

    def meet(self, first: Seat, second: Seat) -> Meeting:
        return edge_on_face(first, second)

    def make(self, asked: Asked) -> Mate:
        how, lengths = asked.how, asked.lengths
        tabs = spread_tabs(
            asked.meeting.length, asked.first.thickness, asked.second.thickness, asked.into_second, how.count,
            lengths.get("width"), lengths.get("inset"),
        )  # fmt: skip
        return tabs_through(
            asked, tabs, TabAndSlot.kind, lengths.get("deep"), lengths.get("lock"), _figures(asked, tabs)
        )


def tabs_through(
    asked: Asked, tabs: Tabs, kind: str, deep: float | None, lock: float | None, figures: tuple[Figure, ...]
) -> Mate:
    """The joint that some tabs make. Raises NotchError at "deep" or "lock", NotMeeting where a slot leaves the face."""
    first, second, meeting, clearance = asked.first, asked.second, asked.meeting, asked.into_second
    square = meeting.angle == 90.0
    if deep is not None:
        meeting = _blind(asked, deep)
    gap = across(asked)
    slots = tuple(slot_of(asked, span) for span in tabs.spans)
    refuse_beyond(slots, second, asked.title)
    notches = tuple(sorted(_tabs(asked, meeting, tabs)))
    shoulders = _shoulders(asked, meeting, tabs, lock) if lock is not None else ()
    slits = _slits(asked, meeting, tabs, lock) if lock is not None else ()
    pocketed = deep is not None
    back = from_behind(asked)
    sharp = partial(_sharp, meeting, tabs, clearance, gap)
    where = "face" if square else f"face at {meeting.angle:.4g}°"
    return Mate(
        asked.id, asked.title, kind,
        f"tabs in pockets {say_mm(deep)} deep" if deep is not None else f"tabs through a {where}" + (" at 90°" if square else ""),
        "tab", "slot",
        Change(
            first.placement, first.part, meeting.first, notches, slits, shoulders, zones=_roots(asked, meeting, tabs),
            corners=partial(_root_corners, meeting, tabs, clearance),
        ),
        Change(
            second.placement, second.part, None, cuts=() if pocketed else slots,
            pockets=tuple(Pocket(slot, deep, back) for slot in slots) if deep is not None else (),
            zones=tuple(slot.box for slot in slots), corners=no_corners if pocketed else sharp,
        ),
        tuple(_contacts(asked, meeting, tabs, gap, pocketed=pocketed, locked=lock is not None)), meeting, figures,
        tuple(_said(asked, meeting, deep, lock)), (first.stretch.inward,),
    )  # fmt: skip


def from_behind(asked: Asked) -> bool:
    """Whether the first member comes to the back of the second one's board."""
    return dot(asked.first.stretch.inward, asked.second.frame.n) < 0


def _blind(asked: Asked, deep: float) -> Meeting:
    thick = asked.second.thickness
    if asked.meeting.angle != 90.0:
        raise OutOfRange(
            "A slanting board does not sit square on the floor of a pocket.",
            fix="Go through, or turn it to 90°.",
            field="deep",
        )
    if not 0 < deep < thick:
        raise OutOfRange(
            f"A pocket of {say_mm(deep)} goes through a board of {say_mm(thick)}." if deep > 0 else "A pocket has a depth.",
            fix=f"Stay above {say_mm(thick)}, or leave it empty to go through." if deep > 0 else "Give more than 0 mm.", field="deep",
        )  # fmt: skip
    first = replace(asked.meeting.first, low=-deep, tip=-deep)
    return replace(asked.meeting, first=first)


def _said(asked: Asked, meeting: Meeting, deep: float | None, lock: float | None) -> Iterator[Finding]:
    field = f"joints/{asked.id}/how"
    if lock is not None:
        yield Finding(
            "lock-not-measured", "unseen", f"How “{asked.title}” snaps in is not measured: only how thick its board is in the slots.",
            "Cut a trial pair of it.", joint=asked.id, placement=asked.first.placement, field=field, space=meeting.start,
        )  # fmt: skip
    if deep is not None:
        yield depth_not_swept(asked, field)
    if meeting.angle != 90.0:
        wedge = asked.first.thickness / math.tan(math.radians(meeting.angle))
        yield Finding(
            "wedge", "look",
            f"“{asked.title}” leans at {meeting.angle:.4g}°: square cuts leave a wedge of {say_mm(wedge, 2)} under the edge and at the "
            "tips of its tabs.",
            "Bevel the edge, or fill it.", amount=wedge, joint=asked.id, placement=asked.first.placement, field=field,
            space=meeting.start,
        )  # fmt: skip


def depth_not_swept(asked: Asked, field: str) -> Finding:
    """What a proof cannot say of a joint with pockets."""
    return Finding(
        "depth-not-swept", "unseen",
        f"“{asked.title}” sits in a pocket: its depth is not swept, and nothing of it is measured as cut.",
        "Cut a trial pair of it, and measure how deep the tool goes.", joint=asked.id, placement=asked.second.placement,
        field=field, space=asked.meeting.start,
    )  # fmt: skip


def _tabs(asked: Asked, meeting: Meeting, tabs: Tabs) -> Iterator[Notch]:
    line, strip, clearance = asked.first.line, meeting.first, asked.into_second
    for start, end in tabs.spans:
        # Half of the clearance is the tab's, half the slot's.
        ends = sorted(on_edge_at(line, strip, at) for at in (start + clearance / 4, end - clearance / 4))
        yield Notch(asked.first.named, ends[0], ends[1], strip.low)


def _roots(asked: Asked, meeting: Meeting, tabs: Tabs) -> tuple[Box, ...]:
    """Tabs, and what of their part holds them."""
    strip, held = meeting.first, asked.first.thickness / 2
    return tuple(
        box_round([strip.point(at, depth) for at in span for depth in (strip.low, held)]) for span in tabs.spans
    )


def _shoulders(asked: Asked, meeting: Meeting, tabs: Tabs, lock: float) -> tuple[Region, ...]:
    """What of each tab stands out beyond the far face: wider by `lock` on either side, where it has snapped in."""
    if asked.how.deep is not None:
        raise OutOfRange(
            "Shoulders snap in behind the far face; in a pocket they would stand in its floor.",
            fix="Go through, or leave the shoulder empty.", field="lock",
        )  # fmt: skip
    if not 0 < lock < min(tabs.width / 4, tabs.pitch - tabs.width) or meeting.angle != 90.0:
        raise OutOfRange(
            f"A shoulder of {say_mm(lock)} does not go with tabs of {say_mm(tabs.width)}." if meeting.angle == 90.0
            else "A board that leans does not snap in.",
            fix=f"Use at most {say_mm(tabs.width / 4)}, or wider tabs." if meeting.angle == 90.0 else "Leave the shoulder empty.",
            field="lock",
        )  # fmt: skip
    strip, inset = meeting.first, asked.into_second / 4
    out, long = strip.low, LOCK_RAMP * lock
    found = []
    for start, end in tabs.spans:
        a, b = start + inset, end - inset
        places = (
            (a - lock, out),
            (a, out - long),
            (b, out - long),
            (b + lock, out),
            (b, out),
            (b, out / 2),
            (a, out / 2),
            (a, out),
        )
        found.append(counter_clockwise([strip.point(*place) for place in places]))
    return tuple(found)


def _slits(asked: Asked, meeting: Meeting, tabs: Tabs, lock: float) -> tuple[Region, ...]:
    """A slit up the middle of each tab, into its board, so that its halves give way by a shoulder each."""
    strip = meeting.first
    tip, root = strip.low - LOCK_RAMP * lock - 1.0, 2 * asked.first.thickness
    found = []
    for start, end in tabs.spans:
        middle = (start + end) / 2
        places = ((middle - lock, tip), (middle + lock, tip), (middle + lock, root), (middle - lock, root))
        found.append(counter_clockwise([strip.point(*place) for place in places]))
    return tuple(found)


def across(asked: Asked) -> float:
    """The clearance across a slot, in the plane of its face."""
    angle = asked.meeting.angle
    return asked.into_second if angle == 90.0 else asked.into_second / math.sin(math.radians(angle))


def slot_of(asked: Asked, span: Interval) -> Region:
    """What takes a tab of the first member, in the second."""
    strip, (start, end) = asked.meeting.second, span
    along, beside = (
        asked.into_second / 4,
        across(asked) / 2,
    )  # across, all of it is the slot's: the board stays as it is
    low, high = strip.low - beside, strip.high + beside
    return counter_clockwise(
        [strip.point(at, depth) for at, depth in ((start - along, low), (end + along, low), (end + along, high), (start - along, high))]
    )  # fmt: skip


def refuse_beyond(slots: tuple[Region, ...], second: Seat, title: str) -> None:
    plain = second.plain
    if plain and all(_within(slot.box, plain) for slot in slots):
        return
    import shapely

    face = shapely.Polygon(*loops(second.outline, _COARSE_MM))
    for slot in slots:
        shape = shapely.Polygon(*loops(slot, _COARSE_MM))
        if not face.contains(shape):
            beyond = shape.difference(face)
            spot = (beyond if not beyond.is_empty else shape).representative_point()
            amount = max((shapely.Point(p).distance(face) for p in shape.exterior.coords), default=0.0)
            raise NotMeeting(
                f"A slot of “{title}” leaves the face of {second.title} by {say_mm(amount)}.",
                fix=f"Move the edge {say_mm(amount)} and more onto the face, or use fewer or narrower tabs.",
                place=second.frame.at((spot.x, spot.y)), amount=amount,
            )  # fmt: skip


def _within(box: Box, around: Box) -> bool:
    return box[0] > around[0] and box[1] > around[1] and box[2] < around[2] and box[3] < around[3]


def _sharp(meeting: Meeting, tabs: Tabs, clearance: float, gap: float) -> tuple[SharpCorner, ...]:
    found = []
    strip = meeting.second
    along, inward = strip.along, strip.inward
    for start, end in tabs.spans:
        for at, way in ((start - clearance / 4, 1.0), (end + clearance / 4, -1.0)):
            for depth, rise in ((strip.low - gap / 2, 1.0), (strip.high + gap / 2, -1.0)):
                found.append(
                    SharpCorner(
                        strip.point(at, depth), (rise * inward[0], rise * inward[1]), (way * along[0], way * along[1]),
                        tabs.pitch - tabs.width, tabs.width,
                        strip.point(at + way * clearance / 4, depth + rise * gap / 2),
                        strip.high - strip.low + gap,
                    )
                )  # fmt: skip
    return tuple(found)


def _root_corners(meeting: Meeting, tabs: Tabs, clearance: float) -> tuple[SharpCorner, ...]:
    """Where tabs stand on their edge: the square rim of the slot goes home there."""
    strip, long, found = meeting.first, -meeting.first.low, []
    out = (-strip.inward[0], -strip.inward[1])
    for start, end in tabs.spans:
        for at, way in ((start + clearance / 4, -1.0), (end - clearance / 4, 1.0)):
            home = strip.point(at + way * clearance / 2, 0.0)
            along = (way * strip.along[0], way * strip.along[1])
            found.append(SharpCorner(strip.point(at, 0.0), along, out, tabs.width, long, home))
    return tuple(found)


def _contacts(
    asked: Asked, meeting: Meeting, tabs: Tabs, gap: float, *, pocketed: bool, locked: bool
) -> Iterator[Contact]:  # fmt: skip
    """Of each tab along its edge, and of the board across it. A locking tab is slit: it has no one width."""
    mine, theirs, clearance = meeting.first, meeting.second, asked.into_second
    first, second, long = asked.first, asked.second, -meeting.first.low
    low_side, wide, reach = theirs.low, theirs.high - theirs.low, tabs.pitch / 2
    square = meeting.angle == 90.0
    for start, end in tabs.spans:
        middle = (start + end) / 2
        # In the middle too: there no relief reaches, of whatever leaves something to bear on.
        quarters = (start + tabs.width / 4, middle, end - tabs.width / 4)
        low, high = middle - reach, middle + reach
        along = Contact(
            first.part, Caliper(first.part, mine, tuple((low, -s * long, high, -s * long) for s in (0.5, 0.95))),
            Caliper(second.part, theirs, tuple((low, low_side + s * wide, high, low_side + s * wide) for s in (0.3, 0.5, 0.7))),
            tabs.width - clearance / 2, clearance, long, second.part,
            Caliper(first.part, mine, ((middle, 0.0, middle, -1.5 * long),)) if square else None, in_pocket=pocketed,
        )  # fmt: skip
        if not locked:
            yield along
        yield Contact(
            first.part, None,
            Caliper(
                second.part, theirs, tuple((at, low_side - 0.5 * wide, at, low_side + 1.5 * wide) for at in quarters)
            ),
            wide, gap, long, second.part, in_pocket=pocketed,
        )  # fmt: skip


def _figures(asked: Asked, tabs: Tabs) -> tuple[Figure, ...]:
    count, path = asked.how.count, f"joints/{asked.id}/how"
    return (
        Figure("tabs", "tabs", tabs.count, "chosen" if count else "computed", "" if count else "by the edge's length",
               kind="count", field=f"{path}/count", typed=str(count) if count else ""),
        asked_for(asked, "width", "tab width wanted", "by thickness"),
        asked_for(asked, "inset", "first tab from the end", "spread evenly"),
        Figure("pitch", "from tab to tab", tabs.pitch, "computed", f"edge {say_mm(asked.meeting.length)} / {tabs.count} tabs"
               if asked.how.inset is None else f"between the outer tabs / {max(1, tabs.count - 1)}"),
        asked_for(asked, "deep", "into the face", "through"),
        asked_for(asked, "lock", "locking shoulder", "none"),
    )  # fmt: skip


def asked_for(asked: Asked, name: str, title: str, without: str) -> Figure:
    """The row of a length that may be left empty."""
    typed: Length | None = getattr(asked.how, name)
    return Figure(
        name if name != "width" else "wanted", title, asked.lengths.get(name), "chosen", "",
        kind="length" if typed else "word", word=without, field=f"joints/{asked.id}/how/{name}",
        typed=typed.text if typed else "", unit=typed.unit if typed else "mm",
    )  # fmt: skip
