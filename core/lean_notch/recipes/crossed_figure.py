"""Crossed figure: two outlines slotted through each other, the depths from the heights where they cross."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from ..design import MAIN, ByNumbers, Design, Node, Outline, Part, Placement, ShapeStep
from ..joints import CrossLap
from ..lengths.length import Length
from .box import Assembly
from .plates import named
from .recipe import Recipe, Setting, Values

Place = tuple[float, float]
_UPRIGHT: Mapping[str, tuple[Place, ...]] = {
    # Half outlines, from the bottom up, as shares of half the width and of the height: the other half is its mirror image.
    "reed": (
        (1, 0),
        (1, 0.08),
        (0.18, 0.1),
        (0.16, 0.3),
        (0.7, 0.42),
        (0.14, 0.46),
        (0.14, 0.62),
        (0.3, 0.64),
        (0.3, 0.92),
        (0.1, 1),
    ),
    "tree": (
        (0.5, 0),
        (0.5, 0.07),
        (0.16, 0.1),
        (0.16, 0.2),
        (1, 0.22),
        (0.45, 0.48),
        (0.75, 0.5),
        (0.3, 0.74),
        (0.5, 0.76),
        (0.06, 1),
    ),
    "drop": ((0.6, 0), (0.9, 0.14), (1, 0.3), (0.86, 0.5), (0.52, 0.74), (0.06, 1)),
}
_BODY: tuple[Place, ...] = (
    (0, 0.42), (0.04, 0.2), (0.14, 0.1), (0.3, 0.06), (0.36, 0.3), (0.98, 0.42), (1, 0.58), (0.36, 0.72), (0.28, 0.98), (0.14, 0.96),
    (0.03, 0.76),
)  # fmt: skip
_WING: tuple[Place, ...] = (
    # One side of both pairs, from the front back, as shares of the length and of half the span.
    (0.08, 0.1), (0.14, 0.2), (0.18, 0.62), (0.24, 0.96), (0.31, 1), (0.36, 0.9), (0.37, 0.5), (0.36, 0.2), (0.4, 0.2), (0.46, 0.5),
    (0.52, 0.86), (0.6, 0.9), (0.64, 0.78), (0.62, 0.4), (0.54, 0.1),
)  # fmt: skip
FIGURES = (*_UPRIGHT, "dragonfly")
LENGTHS = {"width": "width", "height": "height", "span": "width of the second"}


def _outline(places: list[Place], width: str, height: str) -> Outline:
    nodes = [
        Node(f"n{i}", Length(f"{x:.6g}*{width}"), Length(f"{y:.6g}*{height}")) for i, (x, y) in enumerate(places, 1)
    ]
    return Outline(tuple(nodes))


def _make(name: str, values: Values) -> Design:
    figure = str(values["figure"])
    made = Assembly()
    made.dimensions += named(values, LENGTHS)
    return _dragonfly(name, made) if figure == "dragonfly" else _upright(name, made, figure)


def _upright(name: str, made: Assembly, figure: str) -> Design:
    """Both stand on one base line, crossed in their middle: the first from left to right, the second from front to back."""
    half = _UPRIGHT[figure]
    right = [(0.5 + x / 2, y) for x, y in half]
    whole = [(1 - x, y) for x, y in right] + right[::-1]
    for part, title, width in (("first", "First half", "width"), ("second", "Second half", "span")):
        step = ShapeStep("outline", _outline(whole[::-1], width, "height"))
        made.parts.append(Part(part, title, (step,)))
    half_board = Length("0 - thickness/2")
    made.placements += [
        Placement("first", "first", ByNumbers(Length("0 - width/2"), half_board, Length("0"), turn_x=90)),
        Placement("second", "second", ByNumbers(Length("thickness/2"), Length("0 - span/2"), Length("0"), turn_x=90, turn_z=90)),
    ]  # fmt: skip
    made.joint("first", "face", "second", "face", CrossLap())
    return made.design(name, (MAIN,))


def _dragonfly(name: str, made: Assembly) -> Design:
    """The body stands up, its head to the left; the wings lie level at half its height. Their slot opens to the tail, the body's to
    the head."""
    body = ShapeStep("outline", _outline(list(_BODY), "width", "height"))
    side = [(x, 0.5 + y / 2) for x, y in _WING]
    wings = ShapeStep("outline", _outline([(x, 1 - y) for x, y in side] + side[::-1], "width", "span"))
    made.parts += [Part("body", "Body", (body,)), Part("wings", "Wings", (wings,))]
    half: Literal["0 - thickness/2"] = "0 - thickness/2"
    made.placements += [
        Placement("body", "body", ByNumbers(Length("0"), Length(half), Length("0"), turn_x=90)),
        Placement("wings", "wings", ByNumbers(Length("0"), Length("0 - span/2"), Length("height/2 + thickness/2"))),
    ]
    made.joint("wings", "face", "body", "face", CrossLap())
    return made.design(name, (MAIN,))


CROSSED_FIGURE = Recipe(
    name="crossed-figure",
    title="Crossed figure",
    about="Two outlines slotted through each other: a tree, a reed, a drop, a dragonfly.",
    settings=(
        Setting("figure", "The figure is a", "choice", "dragonfly", "", FIGURES),
        Setting("width", "Width", "length", "150", "of the first, or of the dragonfly from head to tail"),
        Setting("height", "Height", "length", "34", "of both, or of the dragonfly’s body"),
        Setting("span", "Width of the second", "length", "170", "or of the dragonfly over its wings"),
    ),
    make=_make,
    sentence="It is a {figure}: {width} wide, {height} high; the second one is {span} wide.",
)  # fmt: skip
