"""Rack: uprights and rails in sheet goods that cross, each slotted for the other, on one base line."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..design import MAIN, Design, Dimension, Rectangle, ShapeStep
from ..documents.rules import AmountRule
from ..ground.errors import NotchError
from ..joints import CrossLap
from ..lengths.length import Length
from .box import Assembly
from .picture import Handle, Names, Shape, SizeLine, View, Views
from .plates import named
from .recipe import Recipe, Setting, Values

LENGTHS = {
    "width": "width", "depth": "depth", "height": "height of the uprights", "rail": "height of the rails", "overhang": "overhang at the ends",
}  # fmt: skip
_SHARE = AmountRule(0.05, 0.95)


def _make(name: str, values: Values) -> Design:
    """Uprights stand across, from front to back, spread evenly over the width; rails run along it, from left to right."""
    made = Assembly()
    uprights, rails = (int(str(values[key])) for key in ("uprights", "rails"))
    made.dimensions += named(values, LENGTHS)
    for many, along, step in ((uprights, "width", "upright"), (rails, "depth", "rail")):
        room = f"{along} - 2*overhang - thickness"
        made.follows(f"{step}_pitch", f"from {step} to {step}", f"({room})/{max(1, many - 1)}", positive=True)
    arch = ShapeStep(
        "arch",
        Rectangle(Length("depth - 2*foot"), Length("arch")),
        "cut",
        x=Length("foot"),
        title="arch between the feet",
    )
    made.follows("foot", "width of a foot", "overhang + 3*thickness")
    made.dimensions.append(Dimension("arch", "height of the arches", Length("height/12"), chosen=False))
    with_arch = (arch,) if rails == 2 else ()  # a rail in the middle stands where the arch would be
    made.panel("upright", "Upright", "depth", "height", *with_arch)
    made.panel("rail", "Rail", "width", "rail")
    for i in range(uprights):
        middle = "width/2 - thickness/2" if uprights == 1 else f"overhang + {i}*upright_pitch"
        made.stands("upright", (f"{middle} + thickness", "0", "0"), "+y", name=f"upright-{i + 1}")
    for i in range(rails):
        middle = "depth/2 - thickness/2" if rails == 1 else f"overhang + {i}*rail_pitch"
        made.stands("rail", ("0", middle, "0"), "+x", name=f"rail-{i + 1}")
    how = CrossLap(_share(values))
    for i in range(uprights):
        for j in range(rails):
            made.joint(f"rail-{j + 1}", "face", f"upright-{i + 1}", "face", how)
    return made.design(name, (MAIN,))


def _share(values: Values):  # type: ignore[no-untyped-def]
    try:
        return _SHARE.read(str(values["share"]), "share")
    except NotchError as error:
        raise error.at("share") from None


def _draw(names: Names, words: Mapping[str, str]) -> Views:
    """From the front and from the side."""
    t, uprights, rails = names["thickness"], int(words["uprights"]), int(words["rails"])
    front = View(
        "From the front",
        (*_row("face", names["height"], names["width"], uprights, "upright", names), Shape("face", (0.0, 0.0, names["width"], names["rail"]))),
        (
            SizeLine("", names["width"], (0.0, 0.0), (names["width"], 0.0), "below", 0, "width"),
            SizeLine("rails", names["rail"], (names["width"], 0.0), (names["width"], names["rail"]), "right", 0, "rail"),
            SizeLine("uprights", names["height"], (names["width"], 0.0), (names["width"], names["height"]), "right", 1, "height"),
        ),
        (Handle("width", (names["width"], names["rail"] / 2), "x"), Handle("height", (names["width"] / 2, names["height"]), "y")),
    )  # fmt: skip
    side = View(
        "From the side",
        (Shape("face", (0.0, 0.0, names["depth"], names["height"])), *_row("hidden", names["rail"], names["depth"], rails, "rail", names)),
        (SizeLine("", names["depth"], (0.0, 0.0), (names["depth"], 0.0), "below", 0, "depth"),),
        (Handle("depth", (names["depth"], t), "x"),),
    )  # fmt: skip
    return front, side


def _row(kind: str, height: float, width: float, many: int, step: str, names: Names) -> Iterator[Shape]:
    t = names["thickness"]
    for i in range(many):
        x = width / 2 - t / 2 if many == 1 else names["overhang"] + i * names[f"{step}_pitch"]
        yield Shape(kind, (x, 0.0, x + t, height))  # type: ignore[arg-type]


RACK = Recipe(
    name="rack",
    title="Rack",
    about="Uprights and rails in sheet goods that cross, each slotted for the other: for boots, tools or boards.",
    settings=(
        Setting("width", "Width", "length", "480", "left to right"),
        Setting("depth", "Depth", "length", "220", "front to back"),
        Setting("height", "Height of the uprights", "length", "200"),
        Setting("rail", "Height of the rails", "length", "110"),
        Setting("uprights", "Uprights", "count", "6"),
        Setting("rails", "Rails", "count", "2"),
        Setting("overhang", "Overhang", "length", "30", "of rails and uprights beyond the outermost crossing"),
        Setting("share", "The rails’ slots take", "words", "0.5", "a share of the height where they cross, 0.05 to 0.95"),
    ),
    make=_make,
    draw=_draw,
    sentence="{uprights} uprights cross {rails} rails, which stand out {overhang} at the ends. The rails’ slots take {share} of the height where they cross.",
)  # fmt: skip
