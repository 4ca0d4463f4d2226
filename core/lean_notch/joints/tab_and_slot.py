"""Tab and slot: tabs along an edge of one part stand through slots in the face of another, at 90 degrees."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from typing import Annotated, ClassVar, Literal

from ..codec import Title, Whole
from ..errors import FingerTooNarrow, FingerTooWide
from ..figures import Figure
from ..geometry import Contour, Region, Vertex, loops
from ..typed import Typed
from ..units import Length, say_mm
from .finger import narrowest_finger
from .mate import Asked, Caliper, Change, Contact, Mate, Meeting, Notch, Seat, SharpCorner, on_edge_at
from .meeting import NotMeeting, edge_on_face

_COARSE_MM = 0.01

TAB_PER_THICKNESS = 5.0
TABS_APART = 4.0
"""Tabs about five times as wide as their board is thick, four of their widths from one to the next. Common practice."""


@dataclass(frozen=True)
class TabAndSlot(Typed):
    """The first member's edge has tabs, the second's face has slots for them. What is None follows from the thickness."""

    count: Annotated[int | None, Whole(1, 200), Title("Tabs", "empty: by length")] = None
    width: Annotated[Length | None, Title("Tab width", "empty: 5 × thickness")] = None
    kind: ClassVar[str] = "tab-and-slot"


@dataclass(frozen=True)
class Tabs:
    """`count` tabs of `width`, spread evenly over an edge: one in the middle of each `pitch`."""

    count: int
    width: float
    pitch: float

    @property
    def spans(self) -> tuple[tuple[float, float], ...]:
        """From where to where each goes, finished size before clearance."""
        middles = ((i + 0.5) * self.pitch for i in range(self.count))
        return tuple((middle - self.width / 2, middle + self.width / 2) for middle in middles)


def spread_tabs(
    length: float,
    thickness: float,
    through: float,
    clearance: float,
    count: int | None = None,
    width: float | None = None,
) -> Tabs:
    """Tabs of a board of `thickness` along an edge of `length`, through a board `through` mm thick, all in mm.

    Raises FingerTooNarrow at "width", FingerTooWide at "width", "count" or "size".

    >>> spread_tabs(120, 3, 3, 0.02)
    Tabs(count=2, width=15.0, pitch=60.0)
    """
    least = narrowest_finger(thickness, clearance)
    if width is not None and width < least:
        raise FingerTooNarrow(
            f"Tabs of {say_mm(width)} are narrower than their board is thick, {say_mm(thickness)}.",
            fix=f"Use tabs of at least {say_mm(least)}.", field="width",
        )  # fmt: skip
    made = max(least, min(TAB_PER_THICKNESS * thickness, length / 3)) if width is None else width
    many = max(1, round(length / (TABS_APART * made))) if count is None else count
    web = max(thickness, through)  # between slots, and half of it at either end
    if many * (made + abs(clearance) + web) > length * (1 + 1e-12):
        most = int(length / (made + abs(clearance) + web))
        raise FingerTooWide(
            f"{many} tab{'s' * (many > 1)} of {say_mm(made)} with {say_mm(web)} between their slots do not go into "
            f"{say_mm(length)}.",
            fix=f"Use at most {most} tab{'s' * (most > 1)} of that width, or narrower ones." if most
            else f"Use tabs of at most {say_mm(length - web - abs(clearance))}, or a longer edge.",
            field="count" if count is not None and count > 1 else "width" if width is not None else "size",
        )  # fmt: skip
    return Tabs(many, made, length / many)


class TabAndSlotJoint:
    how = TabAndSlot
    title = "tab and slot"
    second: Literal["edge", "face"] = "face"

    def meet(self, first: Seat, second: Seat) -> Meeting:
        return edge_on_face(first, second)

    def make(self, asked: Asked) -> Mate:
        first, second, meeting, how = asked.first, asked.second, asked.meeting, asked.how
        clearance = first.board.clearance
        tabs = spread_tabs(
            meeting.length, first.thickness, second.thickness, clearance, how.count, asked.lengths.get("width")
        )  # fmt: skip
        slots = tuple(_slot(meeting, span, first.thickness, clearance) for span in tabs.spans)
        _refuse_beyond(slots, second, asked.title)
        return Mate(
            asked.id, asked.title, TabAndSlot.kind, "tabs through a face at 90°", "tab", "slot",
            Change(first.placement, first.part, meeting.first, tuple(sorted(_tabs(asked, tabs)))),
            Change(second.placement, second.part, None, (), slots, partial(_sharp, meeting, tabs, first.thickness, clearance)),
            tuple(_contacts(asked, tabs, clearance)), meeting, _figures(asked, tabs),
        )  # fmt: skip


def _tabs(asked: Asked, tabs: Tabs) -> Iterator[Notch]:
    line, strip, clearance = asked.first.line, asked.meeting.first, asked.first.board.clearance
    for start, end in tabs.spans:
        # Half of the clearance is the tab's, half the slot's.
        ends = sorted(on_edge_at(line, strip, at) for at in (start + clearance / 4, end - clearance / 4))
        yield Notch(asked.first.named, ends[0], ends[1], -asked.second.thickness)


def _slot(meeting: Meeting, span: tuple[float, float], thickness: float, clearance: float) -> Region:
    strip, (start, end) = meeting.second, span
    along, across = clearance / 4, clearance / 2  # across, all of it is the slot's: the board stays as it is
    corners = [
        strip.point(at, depth)
        for at, depth in (
            (start - along, -across), (end + along, -across), (end + along, thickness + across), (start - along, thickness + across),
        )
    ]  # fmt: skip
    ring = Contour(tuple(Vertex(*corner) for corner in corners))
    return Region(ring if ring.area > 0 else Contour(tuple(reversed(ring.vertices))))


def _refuse_beyond(slots: tuple[Region, ...], second: Seat, title: str) -> None:
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


def _sharp(meeting: Meeting, tabs: Tabs, thickness: float, clearance: float) -> tuple[SharpCorner, ...]:
    found = []
    strip = meeting.second
    along, inward = strip.along, strip.inward
    for start, end in tabs.spans:
        for at, way in ((start - clearance / 4, 1.0), (end + clearance / 4, -1.0)):
            for depth, rise in ((-clearance / 2, 1.0), (thickness + clearance / 2, -1.0)):
                found.append(
                    SharpCorner(
                        strip.point(at, depth), (rise * inward[0], rise * inward[1]), (way * along[0], way * along[1]),
                        tabs.pitch - tabs.width, tabs.width,
                        strip.point(at + way * clearance / 2, depth + rise * clearance / 2),
                    )
                )  # fmt: skip
    return tuple(found)


def _contacts(asked: Asked, tabs: Tabs, clearance: float) -> Iterator[Contact]:
    mine, theirs = asked.meeting.first, asked.meeting.second
    first, second, long = asked.first, asked.second, asked.second.thickness
    thickness, reach = first.thickness, tabs.pitch / 2
    for start, end in tabs.spans:
        middle = (start + end) / 2
        quarters = (start + tabs.width / 4, end - tabs.width / 4)
        low, high = middle - reach, middle + reach
        yield Contact(
            first.part, Caliper(first.part, mine, tuple((low, -s * long, high, -s * long) for s in (0.5, 0.95))),
            Caliper(second.part, theirs, tuple((low, s * thickness, high, s * thickness) for s in (0.3, 0.7))),
            tabs.width - clearance / 2, clearance, long, second.part,
            Caliper(first.part, mine, ((middle, 0.0, middle, -1.5 * long),)),
        )  # fmt: skip
        yield Contact(
            first.part, None,
            Caliper(second.part, theirs, tuple((at, -0.5 * thickness, at, 1.5 * thickness) for at in quarters)),
            thickness, clearance, long, second.part,
        )  # fmt: skip


def _figures(asked: Asked, tabs: Tabs) -> tuple[Figure, ...]:
    wanted: Length | None = asked.how.width
    count = asked.how.count
    path = f"joints/{asked.id}/how"
    return (
        Figure("tabs", "tabs", tabs.count, "chosen" if count else "computed", "" if count else "by the edge's length",
               kind="count", field=f"{path}/count", typed=str(count) if count else ""),
        Figure("wanted", "tab width wanted", asked.lengths.get("width"), "chosen",
               "", kind="length" if wanted else "word", word="by thickness", field=f"{path}/width",
               typed=wanted.text if wanted else "", unit=wanted.unit if wanted else "mm"),
        Figure("pitch", "from tab to tab", tabs.pitch, "computed", f"edge {say_mm(asked.meeting.length)} / {tabs.count} tabs"),
    )  # fmt: skip
