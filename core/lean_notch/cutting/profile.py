"""The hand-over profile: what the receiver of a file wants. In and out: plain documents.

It maps each operation to a layer, says what is left out, and how the drawing lies. No number of the job is in it.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import asdict, dataclass, field
from typing import Any, Literal, cast, get_args

from ..documents.plain import choice, mapping, mm, sequence, text
from ..ground.errors import BadDocument, OutOfRange
from ..ground.operations import OPERATIONS, Operation
from ..lengths.said import say_mm
from ..lengths.units import Unit

Split = Literal["sheet", "part", "operation"]
SPLITS: tuple[Split, ...] = ("sheet", "part", "operation")
Origin = Literal["plain", "lower left", "upper left", "lower right", "upper right", "centre"]
ORIGINS: tuple[Origin, ...] = ("plain", "lower left", "upper left", "lower right", "upper right", "centre")
"""Where coordinates are 0; plain is the corner from which both run into the sheet: SVG's upper left, DXF's lower left."""
Area = Literal["outline", "filled", "hatch"]
AREAS: tuple[Area, ...] = ("outline", "filled", "hatch")
FileFormat = Literal["svg", "dxf", "dxf-r12", "pdf"]


@dataclass(frozen=True)
class Layer:
    """Where an operation goes in a file; `colour` is "#rrggbb". Those not included are left out."""

    name: str
    colour: str
    include: bool = True


# A set that colour-blind people can tell apart. Okabe and Ito, 2002.
_COLOURS: dict[Operation, str] = {
    "cut": "#000000",
    "score": "#E69F00",
    "engrave": "#CC79A7",
    "pocket": "#009E73",
    "fold": "#0072B2",
    "reference": "#808080",
}


def _plain_layers() -> dict[Operation, Layer]:
    return {operation: Layer(operation.upper(), _COLOURS[operation]) for operation in OPERATIONS}


@dataclass(frozen=True)
class Profile:
    """How files are written for one receiver, who likes them as `format`. `order` is that of the layers, and of the work within a sheet.

    `engrave` says how areas are drawn; hatch lines are `hatch_mm` apart. `lead_in_mm` is 0 for closed outlines only.
    """

    name: str = "Plain"
    format: FileFormat = "svg"
    layers: Mapping[Operation, Layer] = field(default_factory=_plain_layers)
    order: tuple[Operation, ...] = tuple(OPERATIONS)
    split: Split = "sheet"
    unit: Unit = "mm"
    origin: Origin = "plain"
    y_down: bool = False
    stroke_mm: float = 0.1
    reference_square: bool = False
    labels: bool = False
    engrave: Area = "outline"
    hatch_mm: float = 0.2
    lead_in_mm: float = 0.0

    def __post_init__(self) -> None:
        for key, value, low, high in (
            ("stroke_mm", self.stroke_mm, 0.01, 5.0),
            ("hatch_mm", self.hatch_mm, 0.02, 10.0),
            ("lead_in_mm", self.lead_in_mm, 0.0, 20.0),
        ):
            if not low <= value <= high:
                raise OutOfRange(
                    f"The profile's {key[:-3].replace('_', '-')} is {say_mm(value)}.",
                    fix=f"Give {say_mm(low)} to {say_mm(high)}.",
                    field=key,
                )
        names = [plain_name(layer.name) for layer in self.layers.values()]
        if len(set(names)) < len(names):
            raise BadDocument("Two operations share a layer.", fix="Give each layer a name of its own.", field="layers")

    def __hash__(self) -> int:
        return hash((self.name, tuple(self.layers.items()), self.order, self.split, self.unit, self.origin))

    def operation_of(self, layer: str) -> Operation | None:
        """The operation whose layer a reader found, however its format writes names, and whatever depth is behind it."""
        return self._told(layer)[0]

    def depth_of(self, layer: str) -> float | None:
        """The depth in mm behind a layer's name, None for none."""
        return self._told(layer)[1]

    def _told(self, layer: str) -> tuple[Operation | None, float | None]:
        plain = plain_name(layer)
        for operation, known in self.layers.items():
            name = plain_name(known.name)
            if plain == name:
                return operation, None
            deep = re.fullmatch(re.escape(name) + r"-(\d+(?:-\d+)?)mm", plain)
            if deep:
                return operation, float(deep[1].replace("-", "."))
        return None, None


def depth_word(depth: float) -> str:
    """A depth as layers are called after it.

    >>> depth_word(4.5), depth_word(2.68730125)
    ('4.5', '2.6873')
    """
    return f"{depth:.6g}"


def layer_id(name: str) -> str:
    """A layer's name as an id: lower case, no spaces.

    >>> layer_id("POCKET 4.5MM")
    'pocket-4.5mm'
    """
    return re.sub(r"[^\w.-]+", "-", name.lower()).strip("-") or "layer"


def dxf_layer(name: str) -> str:
    """A layer's name as DXF takes it: capitals, digits, - and _ only.

    >>> dxf_layer("Pocket 4.5mm")
    'POCKET_4_5MM'
    """
    return "".join(c if c.isalnum() or c in "-_" else "_" for c in name.upper())


def plain_name(name: str) -> str:
    """What is the same of a layer's name in every format.

    >>> plain_name("Pocket 4.5mm"), plain_name("POCKET_4_5MM"), plain_name("pocket-4.5mm")
    ('pocket-4-5mm', 'pocket-4-5mm', 'pocket-4-5mm')
    """
    return re.sub(r"[\W_]+", "-", name.casefold()).strip("-")


PLAIN = Profile()


def profile_to_json(profile: Profile) -> dict[str, Any]:
    """The document that `profile_from_json` reads."""
    document = asdict(profile)
    document["layers"] = {operation: asdict(layer) for operation, layer in profile.layers.items()}
    document["order"] = list(profile.order)
    return document


def profile_from_json(document: object) -> Profile:
    """A Profile from its document; what is not given is plain. Raises BadDocument at the entry that is wrong."""
    top = mapping(document, "profile")
    layers = _plain_layers()
    for key, value in mapping(top.get("layers", {}), "layers").items():
        operation = cast(Operation, choice(key, tuple(OPERATIONS), "layers"))
        layers[operation] = _layer(value, f"layers.{operation}", layers[operation])
    order = [
        cast(Operation, choice(one, tuple(OPERATIONS), "order")) for one in sequence(top.get("order", ()), "order", 6)
    ]
    if len(set(order)) < len(order):
        raise BadDocument("An operation is in the order twice.", fix="Name each once.", field="order")
    return Profile(
        name=text(top.get("name", "Plain"), "name", 80),
        format=cast(FileFormat, choice(top.get("format", "svg"), get_args(FileFormat), "format")),
        layers=layers,
        order=(*order, *(one for one in OPERATIONS if one not in order)),
        split=cast(Split, choice(top.get("split", "sheet"), SPLITS, "split")),
        unit=cast(Unit, choice(top.get("unit", "mm"), ("mm", "in"), "unit")),
        origin=cast(Origin, choice(top.get("origin", "plain"), ORIGINS, "origin")),
        engrave=cast(Area, choice(top.get("engrave", "outline"), AREAS, "engrave")),
        y_down=bool(top.get("y_down", False)),
        reference_square=bool(top.get("reference_square", False)),
        labels=bool(top.get("labels", False)),
        stroke_mm=mm(top.get("stroke_mm", PLAIN.stroke_mm), "stroke_mm"),
        hatch_mm=mm(top.get("hatch_mm", PLAIN.hatch_mm), "hatch_mm"),
        lead_in_mm=mm(top.get("lead_in_mm", PLAIN.lead_in_mm), "lead_in_mm"),
    )


def _layer(value: object, place: str, plain: Layer) -> Layer:
    document = mapping(value, place)
    name = text(document.get("name", plain.name), f"{place}.name", 40)
    if not re.fullmatch(r"[A-Za-z0-9][\w .-]*", name):
        raise BadDocument(
            f"“{name}” is no layer name.", fix="Use letters, digits, spaces, - and _.", field=f"{place}.name"
        )
    colour = text(document.get("colour", plain.colour), f"{place}.colour", 7)
    if not re.fullmatch(r"#[0-9A-Fa-f]{6}", colour):
        raise BadDocument(f"“{colour}” is no colour.", fix="Write it as #rrggbb.", field=f"{place}.colour")
    return Layer(name, colour, bool(document.get("include", plain.include)))
