"""Where parts stand, in words: in, a build; out, of a placement how high it stands, what is nearest and how far that is."""

from __future__ import annotations

from collections.abc import Iterator

from .build import Build, Standing
from .units import say_mm

TOUCH_MM = 1e-6

ALMOST_MM = 2.0
"""Parts that miss each other by less were likely meant to meet. Common practice."""

_WAYS = (("to the left of", "to the right of"), ("in front of", "behind"), ("below", "above"))


def where_it_stands(build: Build, placement: str) -> tuple[str, ...]:
    """Boxes round boards are looked at; lengths are "<number> mm"."""
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
    """What it touches; what it almost touches; else what is nearest."""
    gaps = sorted(
        ((_gap(own, one), one.placement) for one in others if one.placement in build.called), key=lambda one: one[0][0]
    )
    touching = [build.called[name] for (gap, _), name in gaps if gap <= TOUCH_MM]
    almost = [(gap, name) for gap, name in gaps if TOUCH_MM < gap[0] < ALMOST_MM]
    if touching:
        yield f"It meets {_listed(touching)}."
    for (gap, way), name in almost:
        yield f"It almost meets {build.called[name]}: {say_mm(gap, 3)} {way} it."
    if gaps and not touching and not almost:
        (gap, way), name = gaps[0]
        yield f"Nearest is {build.called[name]}; this one stands {say_mm(gap, 2)} {way} it."


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
