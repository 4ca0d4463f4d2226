"""Where parts stand, in words: in, a build; out, of a placement how high it stands, what is nearest and how far that is."""

from __future__ import annotations

from collections.abc import Iterator

from ..acts.standing_against import SAME_MM, lies_in
from ..geometry import Region, loops
from ..ground.remembered import remembered
from ..lengths.said import say_mm
from ..making import Build, Standing

TOUCH_MM = 1e-6

ALMOST_MM = 2.0
"""Parts that miss each other by less were likely meant to meet. Common practice."""

_WAYS = (("to the left of", "to the right of"), ("in front of", "behind"), ("below", "above"))


def where_it_stands(build: Build, placement: str) -> tuple[str, ...]:
    """Boxes round boards are looked at, and it is said where a board does not fill its own; lengths are "<number> mm"."""
    own = build.standing.get(placement)
    if own is None:
        return ()
    others = [one for one in build.standings if one.placement != placement]
    return (_height(own, others), *_nearest(build, own, others))


def _height(own: Standing, others: list[Standing]) -> str:
    (_, _, low), (_, _, high) = own.box
    ground = min((one.box[0][2] for one in others), default=low)
    tall = f"{say_mm(high - low, 2)} high"
    if not others:
        return f"It is {tall} as it stands."
    if low < ground - TOUCH_MM:
        return f"It is {tall} and reaches {say_mm(ground - low, 2)} below everything else."
    if low > ground + TOUCH_MM:
        return f"It is {tall} and begins {say_mm(low - ground, 2)} above the lowest part."
    return f"It is {tall} and stands level with the lowest part."


def _nearest(build: Build, own: Standing, others: list[Standing]) -> Iterator[str]:
    """What it lies in, what it touches, what it almost touches; else what is nearest."""
    there = [one for one in others if one.placement in build.called]
    inside = [one for one in there if lies_in(own.box, own.thickness, one)]
    if inside:
        yield f"It lies in {_listed([build.called[one.placement] for one in inside])}: move one of them."
    gaps = sorted(((_gap(own, one), one) for one in there if one not in inside), key=lambda one: one[0][0])
    touching = [one for (gap, _), one in gaps if gap <= TOUCH_MM]
    almost = [(gap, one) for gap, one in gaps if TOUCH_MM < gap[0] < ALMOST_MM]
    for exact, lead in ((True, "It meets"), (False, "By outer sizes alone it meets")):
        some = [build.called[one.placement] for one in touching if _is_its_box(build, own, one) == exact]
        if some:
            yield f"{lead} {_listed(some)}."
    for (gap, way), one in almost:
        lead = "It" if _is_its_box(build, own, one) else "By outer sizes alone it"
        yield f"{lead} almost meets {build.called[one.placement]}: {say_mm(gap, 3)} {way} it."
    if gaps and not inside and not touching and not almost:
        (gap, way), one = gaps[0]
        yield f"Nearest is {build.called[one.placement]}; this one stands {say_mm(gap, 2)} {way} it."


def _is_its_box(build: Build, *boards: Standing) -> bool:
    """Whether boards fill the boxes that are compared: square to the room, and rectangles as drawn."""
    return all(_is_square(one) and _is_rectangle(build, one) for one in boards)


def _is_square(one: Standing) -> bool:
    return all(max(map(abs, way)) > 1 - 1e-9 for way in (one.u, one.v))


def _is_rectangle(build: Build, board: Standing) -> bool:
    """Whether its outline is a rectangle but for what joints take at its edges, which is no deeper than the thickest board. Of a strip that is
    no wider than both, nothing is known."""
    deep = max(one.thickness for one in build.standings) + SAME_MM
    if min(board.width, board.height) <= 2 * deep:
        return False
    return _covers(build.part(board.part).region, board.width, board.height, deep)


@remembered(1024)
def _covers(region: Region, width: float, height: float, deep: float) -> bool:
    """Whether an outline goes round a board of that size but for the outermost `deep`."""
    import shapely

    outline = shapely.Polygon(loops(region, _CHORD_MM)[0])
    return bool(outline.covers(shapely.box(deep, deep, width - deep, height - deep)))


_CHORD_MM = 0.05


def _gap(own: Standing, other: Standing) -> tuple[float, str]:
    """How far two boxes are apart, 0 where they touch or share room, and which way the first lies of the second."""
    apart, way = 0.0, ""
    for axis, (before, after) in enumerate(_WAYS):
        low, high = own.box[0][axis], own.box[1][axis]
        bottom, top = other.box[0][axis], other.box[1][axis]
        for gap, words in ((bottom - high, before), (low - top, after)):
            if gap > apart:
                apart, way = gap, words
    return apart, way


MOST_LISTED = 4


def _listed(names: list[str]) -> str:
    shown = (
        names[:MOST_LISTED]
        if len(names) <= MOST_LISTED
        else [*names[: MOST_LISTED - 1], f"{len(names) - MOST_LISTED + 1} more"]
    )
    return shown[0] if len(shown) == 1 else f"{', '.join(shown[:-1])} and {shown[-1]}"
