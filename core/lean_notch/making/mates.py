"""Which member of which part meets which: in, a design's joints and where its parts stand; out, mates.

Corners where three panels meet are settled here, for any kind of joint: each belongs to one.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import partial

from ..basis import Basis, BoardBasis
from ..design import Design, Joint, Part
from ..design import Member as JointMember
from ..ground.errors import NotchError, PanelsDoNotMeet
from ..ground.findings import Finding, Place
from ..ground.remembered import Remembered, by_value, remembered
from ..joints import FACE, KINDS, Mate, Seat
from ..joints.mate import Asked, End, Meeting, Strip
from ..joints.meeting import NotMeeting, block_along
from ..lengths.said import say_mm
from .stand import Lengths, NoEdge, Outlined, Standing

_TOUCH_MM = 1e-6


@dataclass(frozen=True)
class Site:
    """What joints are made at: where parts stand, what they are before joints, and the lengths by board."""

    design: Design
    standings: Mapping[str, Standing]
    parts: Mapping[str, Outlined]
    names: Lengths
    basis: Basis


@dataclass(frozen=True, eq=False)
class _Met:
    """A joint whose members meet."""

    joint: Joint
    first: Seat
    second: Seat
    meeting: Meeting

    @property
    def placements(self) -> tuple[str, str]:
        return (self.first.placement, self.second.placement)


def make_mates(site: Site) -> tuple[tuple[Mate, ...], tuple[Finding, ...]]:
    """A mate for each joint that can be made; and why the others cannot.

    Raises NotchError at the field that a joint's size goes back to.
    """
    met, lost = _meet_all(site)
    corners = _corners(tuple([one.placements for one in met if one.meeting.shares_bar]))
    mates, late = [], []
    for one in met:
        thirds = corners.get(frozenset(one.placements), ()) if one.meeting.shares_bar else ()
        boards = [_part(site, seat.part).board for seat in (one.first, one.second)]
        names = site.names[boards[0]]
        given = (
            one, *boards, site.basis.between(*boards), site.basis.between(*reversed(boards)),
            tuple([names.get(name) for name in one.joint.how.names]), tuple(thirds),
            *(one for third, _ in thirds for one in _stood(site, third)),
        )  # fmt: skip
        try:
            mates.append(_MADE(given, partial(_settled, one, thirds, site)))
        except NotMeeting as error:
            late.append(_finding(one.joint, error))
    return tuple(mates), (*lost, *late)


def _settled(one: _Met, thirds: _Thirds, site: Site) -> Mate:
    return _make(one, _without_corners(one, thirds, site), site)


def _meet_all(site: Site) -> tuple[list[_Met], list[Finding]]:
    met: list[_Met] = []
    taken: _Taken = defaultdict(list)
    lost = []
    for joint in site.design.joints:
        try:
            known = _met_before(site, joint)
            if known:
                _refuse_twice(known, taken)
                met.append(known)
                continue
            first, second = (seat_of(site, joint, member, end) for member, end in _ends(joint))
            if first.placement == second.placement:
                raise NoEdge(
                    f"“{joint.title}” joins {first.title} with itself.", fix="Choose another part for one member.",
                    field=f"joints/{joint.id}/second/placement",
                )  # fmt: skip
            one = _MET.keep(_sides(site, joint), _meet(joint, first, second))
            _refuse_twice(one, taken)
            met.append(one)
        except NotchError as error:
            lost.append(_finding(joint, error, _somewhere(site, joint)))
    return met, lost


# An edit seldom changes many joints: the others are at hand.
_MET: Remembered[_Met] = Remembered()
_MADE: Remembered[Mate] = Remembered()


def _sides(site: Site, joint: Joint) -> tuple[object, ...]:
    """All that decides whether and where its members meet."""
    return (joint, *_stood(site, joint.first.placement), *_stood(site, joint.second.placement))


def _stood(site: Site, placement: str) -> tuple[object, ...]:
    standing = site.standings[placement]
    part = _part(site, standing.part)
    return (standing, site.parts[part.id], part.title, site.basis.of(part.board))


def _met_before(site: Site, joint: Joint) -> _Met | None:
    there = joint.first.placement in site.standings and joint.second.placement in site.standings
    return _MET.find(_sides(site, joint)) if there else None


def _meet(joint: Joint, first: Seat, second: Seat) -> _Met:
    return _Met(joint, first, second, KINDS[type(joint.how)].meet(first, second))


_Thirds = Sequence[tuple[str, str]]
_Taken = dict[tuple[str, str], list[tuple[str, Strip, float]]]
"""By placement and edge: the titles of joints there, and where they run."""


def _somewhere(site: Site, joint: Joint) -> Place | None:
    """Where a joint is, as far as one of its members tells: the middle of its edge, or of its face."""
    for member, end in _ends(joint):
        with suppress(NotchError):
            seat = seat_of(site, joint, member, end)
            left, low, right, high = seat.outline.box
            (x0, y0), (x1, y1) = seat.edges.get(member.edge, ((left, low), (right, high)))
            return seat.frame.at(((x0 + x1) / 2, (y0 + y1) / 2))
    return None


def _ends(joint: Joint) -> tuple[tuple[JointMember, str], ...]:
    return ((joint.first, "first"), (joint.second, "second"))


def _finding(joint: Joint, error: NotchError, somewhere: Place | None = None) -> Finding:
    why = error.why if joint.title in error.why else f"“{joint.title}”: {error.why}"
    place = error.place if isinstance(error, NotMeeting) else somewhere
    amount = error.amount if isinstance(error, NotMeeting) else 0.0
    return Finding(
        error.code, "stop", why, error.fix, amount=amount, field=error.field or f"joints/{joint.id}", space=place,
        joint=joint.id, placement=joint.first.placement,
    )  # fmt: skip


def seat_of(site: Site, joint: Joint, member: JointMember, end: str) -> Seat:
    """The member as it stands. Raises NoEdge at the member."""
    path = f"joints/{joint.id}/{end}"
    standing = site.standings.get(member.placement)
    part = site.design.part(standing.part) if standing else None
    if part is None or standing is None:
        raise NoEdge(
            f"“{joint.title}” joins “{member.placement}”, which does not stand anywhere.",
            fix="Remove the joint, or place the part again.", field=f"{path}/placement",
        )  # fmt: skip
    edges = site.parts[part.id].edges
    if member.edge not in edges and member.edge != FACE:
        raise NoEdge(
            f"“{joint.title}” joins the edge {member.edge} of {part.title}, which cannot be joined.",
            fix=f"Edges of {part.title} that can: {', '.join(edges) or 'none, since it has no straight one'}.",
            field=f"{path}/edge",
        )  # fmt: skip
    return _seat(site, member.placement, member.edge)


def _refuse_twice(one: _Met, taken: _Taken) -> None:
    """An edge may be joined once in any place. Those that `one` takes are added."""
    length = one.meeting.length
    mine = [(one.first, one.meeting.first), (one.second, one.meeting.second)]
    for seat, strip in mine:
        for title, theirs, far in taken[seat.placement, strip.edge] if strip.edge != FACE else ():
            a, _ = strip.flat(theirs.point(0.0, 0.0))
            b, _ = strip.flat(theirs.point(far, 0.0))
            both = min(length, max(a, b)) - max(0.0, min(a, b))
            if both > max(seat.thickness, 1.0) + _TOUCH_MM:  # corners are shared, and settled later
                raise NoEdge(
                    f"“{one.joint.title}” joins {seat.named} of {seat.title}, which “{title}” joins already over "
                    f"{say_mm(both)}.",
                    fix="Remove one of the two joints, or choose another edge.", field=f"joints/{one.joint.id}",
                )  # fmt: skip
    for seat, strip in mine:
        taken[seat.placement, strip.edge].append((one.joint.title, strip, length))


_Owners = Mapping[frozenset[str], Sequence[tuple[str, str]]]
"""For two placements that are joined: the third ones at their corners, and which of the three has each corner."""


@by_value(64)
def _corners(pairs: tuple[tuple[str, str], ...]) -> _Owners:
    """In, the placements that joints along a bar join, the first one's first. Of three panels joined to one another along edges, the corner is the one's that is first in most of those joints,
    and of several such the one's that comes first in the list of joints. So firsts in a circle are settled as well."""
    beside: dict[str, set[str]] = defaultdict(set)
    firsts: dict[frozenset[str], str] = {}
    rank: dict[str, int] = {}
    for a, b in pairs:
        beside[a].add(b)
        beside[b].add(a)
        firsts.setdefault(frozenset((a, b)), a)
        for name in (a, b):
            rank.setdefault(name, len(rank))
    owners: dict[frozenset[str], list[tuple[str, str]]] = {}
    for pair in firsts:
        a, b = pair
        for c in sorted(beside[a] & beside[b]):
            three = [firsts[frozenset(two)] for two in ((a, b), (b, c), (a, c))]
            owner = min((a, b, c), key=lambda name: (-three.count(name), rank[name]))
            owners.setdefault(pair, []).append((c, owner))
    return owners


def _without_corners(one: _Met, thirds: _Thirds, site: Site) -> Meeting:
    """The shared edge without the corner blocks that are not the first member's own; of those it says how long they are."""
    meeting, (a, b) = one.meeting, one.placements
    low, high, ends, own = 0.0, meeting.length, [End(), End()], [0.0, 0.0]
    for third, owner in thirds:
        start, end = block_along(meeting, one.first, one.second, _seat(site, third))
        if owner == a:
            if start <= _TOUCH_MM:
                own[0] = max(own[0], end)
            elif end >= meeting.length - _TOUCH_MM:
                own[1] = max(own[1], meeting.length - start)
            continue
        whose = "second" if owner == b else "third"
        if start <= _TOUCH_MM and end > low:
            low, ends[0] = end, End(whose, end)  # type: ignore[arg-type]
        elif end >= meeting.length - _TOUCH_MM and start < high:
            high, ends[1] = start, End(whose, meeting.length - start)  # type: ignore[arg-type]
    meeting = replace(meeting, own=(own[0], own[1]))
    if (low, high) == (0.0, meeting.length):
        return meeting
    if high <= low:
        raise PanelsDoNotMeet(
            f"“{one.joint.title}” has nothing left between its corners, {say_mm(meeting.length)} apart.",
            fix="Make the panels larger, or use a thinner board.", field=_size_field(one, site),
        )  # fmt: skip
    return meeting.trimmed(low, high, (ends[0], ends[1]))


def _seat(site: Site, placement: str, named: str = FACE) -> Seat:
    standing = site.standings[placement]
    part = _part(site, standing.part)
    outlined, board = site.parts[part.id], site.basis.of(part.board)

    return _seat_of(placement, named, standing, outlined, part.title, board)


@remembered(16_384)
def _seat_of(
    placement: str, named: str, standing: Standing, outlined: Outlined, title: str, board: BoardBasis
) -> Seat:  # fmt: skip
    return Seat(placement, standing.part, title, named, standing.frame, board, outlined.edges, outlined.region)


def plain_seat(site: Site, placement: str) -> Seat:
    """A part as it stands, before joints, with the edges that can be joined."""
    return _seat(site, placement)


def _part(site: Site, part_id: str) -> Part:
    part = site.design.part(part_id)
    assert part, "what stands is a part of the design"
    return part


def _make(one: _Met, meeting: Meeting, site: Site) -> Mate:
    joint, own = one.joint, _part(site, one.first.part)
    path = f"joints/{joint.id}/how"
    try:
        lengths = joint.how.mm(site.names[own.board])
    except NotchError as error:
        error.field = _typed_field(one, f"{path}/{error.field}", site)
        raise
    try:
        first, second = own.board, _part(site, one.second.part).board
        asked = Asked(
            joint.id, joint.title, joint.how, lengths, one.first, one.second, meeting,
            site.basis.between(first, second), site.basis.between(second, first),
        )  # fmt: skip
        mate = KINDS[type(joint.how)].make(asked)
    except NotMeeting:
        raise
    except NotchError as error:
        if error.field == "size":
            error.field = _size_field(one, site)
        elif error.field == "clearance":
            error.field = f"basis/{own.board}/clearance"
        else:
            error.field = _typed_field(one, f"{path}/{error.field}" if error.field else f"joints/{joint.id}", site)
        raise
    return mate


def _typed_field(one: _Met, field: str, site: Site) -> str:
    """Where a length of a joint was typed: as the recipe's answer that says the same, or at the joint."""
    name = field.rpartition("/")[2]
    typed = dict(one.joint.how.lengths).get(name)
    origin = site.design.origin
    for answer in origin.answers if origin and typed else ():
        if answer.length == typed and answer.name == type(one.joint.how).kind:
            return f"answers/{answer.name}"
    return field


def _size_field(one: _Met, site: Site) -> str:
    """The path of what decides how long the first member's edge is."""
    part = _part(site, one.first.part)
    blank = part.blank
    if blank is None or one.first.named.rpartition(".")[0] != blank.id:
        return f"joints/{one.joint.id}"
    size = "width" if one.first.named.endswith((".bottom", ".top")) else "height"
    return site.design.input_behind(getattr(blank.shape, size)) or f"parts/{part.id}/steps/{blank.id}/shape/{size}"
