"""Boards: what a job needs to know of one, and what the rack knows of its stock besides, off-cuts and notes."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, fields, replace
from typing import Any, Literal, Self, cast

from ..documents.plain import choice, entry, mapping, mm, sequence, text, whole
from ..geometry import Contour, Point, Vertex
from ..ground.errors import BadDocument, BadGeometry, OutOfRange
from ..ground.limits import MOST_CORNERS, MOST_OFFCUTS, MOST_READINGS, MOST_SIZES
from ..lengths.length import positive_mm
from .never import MADE_OF, PVC, UNKNOWN, Rule, made_of_from_json, rule_from_json
from .readings import Readings, check_slips

LARGEST_SHEET_MM = 20_000.0


@dataclass(frozen=True)
class Kind:
    """`brittle` boards crack under a press fit; ones that squeeze give way by `squeeze`, a share of their thickness; less than
    `web` mm between two cuts burns, breaks or tears; `density` is in kg/m³; `laser` and `router` say where it is never cut. All
    are common practice, densities rounded: a start that the workshop replaces by its own."""

    brittle: bool = False
    squeeze: float = 0.0
    web: float = 1.5
    density: float = 700.0
    laser: Rule | None = None
    router: Rule | None = None


KINDS: Mapping[str, Kind] = {
    "plywood": Kind(density=600.0),
    "MDF": Kind(density=750.0),
    "solid wood": Kind(web=2.0, density=600.0),
    "acrylic": Kind(brittle=True, web=2.0, density=1190.0),
    "corrugated board": Kind(squeeze=0.10, web=3.0, density=130.0),
    "card": Kind(squeeze=0.05, web=1.0),
    "cloth": Kind(squeeze=0.20, web=3.0, density=300.0),
    "leather": Kind(squeeze=0.10, web=2.0, density=900.0),
    "aluminium": Kind(density=2700.0),
    "composite": Kind(brittle=True, density=1800.0),
    "PVC and other chlorinated plastic": Kind(web=2.0, density=1400.0, laser=PVC),
    "plastic of unknown kind": Kind(web=2.0, density=1200.0, laser=UNKNOWN),
    "coated or imitation leather": Kind(squeeze=0.10, web=2.0, density=900.0, laser=UNKNOWN),
}
STOCK_KINDS = tuple(KINDS)

Direction = Literal["none", "along the width", "along the height"]
DIRECTIONS: tuple[Direction, ...] = ("none", "along the width", "along the height")


LEAST_HOLE_MM = 1.0
LEAST_TEXT_MM = 2.0
"""Smaller holes close up or burn out, smaller capitals cannot be read. Common practice."""


@dataclass(frozen=True)
class Limits:
    """The least that a workshop cuts of a board, in mm: the web between two cuts, a hole across, the height of capitals; and on
    which machines it cuts it never. None: as is usual for its kind. `density` is in kg/m³."""

    web: float | None = None
    hole: float | None = None
    text: float | None = None
    density: float | None = None
    laser: Rule | None = None
    router: Rule | None = None

    def __post_init__(self) -> None:
        for name, most in (("web", 100), ("hole", 100), ("text", 100), ("density", 25_000)):
            value = getattr(self, name)
            if value is not None and not (math.isfinite(value) and 0 <= value <= most):
                raise OutOfRange(
                    f"The {name} limit is {value:g}.", fix=f"Give 0 to {most}, or leave it empty.",
                    field=f"stock.limits.{name}",
                )  # fmt: skip

    def over(self, usual: Limits) -> Limits:
        """Its own, and the `usual` ones where it has none.

        >>> Limits(hole=2.0).over(Limits(hole=1.5, web=4.0))
        Limits(web=4.0, hole=2.0, text=None, density=None, laser=None, router=None)
        """
        kept = {name: value for name, value in vars(self).items() if value is not None}
        return replace(usual, **kept)

    def of(self, kind: Kind) -> Limits:
        """All of them, for a board of that kind.

        >>> Limits(hole=2.0).of(KINDS["cloth"])
        Limits(web=3.0, hole=2.0, text=2.0, density=300.0, laser=None, router=None)
        """
        return self.over(Limits(kind.web, LEAST_HOLE_MM, LEAST_TEXT_MM, kind.density, kind.laser, kind.router))


@dataclass(frozen=True)
class SheetSize:
    """`count` sheets of one size are at hand; None: as many as a job needs."""

    width: float
    height: float
    count: int | None = None


@dataclass(frozen=True)
class OffCut:
    """What is left of a sheet: its corners in mm, counter-clockwise from anywhere."""

    name: str
    outline: tuple[Point, ...]
    note: str = ""

    @property
    def area(self) -> float:
        return _contour(self.outline).area


@dataclass(frozen=True)
class Board:
    """What a job needs to know of a board.

    It is laid out on sheets of `sheet_width` x `sheet_height`, `sheets` of which there are (None: enough);
    `other_sheets` are at hand as well. `direction` is that of grain or corrugation. `price` is that of one sheet.
    `id` is the rack's own number for it and `measured` when its readings were taken (ISO 8601); both are empty for a
    board that lies on no rack. `made_of` is what a composite was asked.
    """

    name: str
    kind: str
    nominal: float
    readings: Readings
    sheet_width: float
    sheet_height: float
    sheets: int | None = None
    other_sheets: tuple[SheetSize, ...] = ()
    direction: Direction = "none"
    price: float | None = None
    id: str = ""
    measured: str = ""
    limits: Limits = Limits()
    made_of: str = ""

    def __post_init__(self) -> None:
        positive_mm(self.nominal, "stock.nominal", "The thickness it is sold as", 200)
        positive_mm(self.sheet_width, "stock.sheet_width", "The sheet's width", LARGEST_SHEET_MM)
        positive_mm(self.sheet_height, "stock.sheet_height", "The sheet's height", LARGEST_SHEET_MM)
        for i, size in enumerate(self.other_sheets):
            positive_mm(size.width, f"stock.other_sheets[{i}]", "The sheet's width", LARGEST_SHEET_MM)
            positive_mm(size.height, f"stock.other_sheets[{i}]", "The sheet's height", LARGEST_SHEET_MM)
        if self.price is not None and not (math.isfinite(self.price) and 0 <= self.price <= 1e6):
            raise OutOfRange(f"The price is {self.price:g}.", fix="Give 0 or more, or none.", field="stock.price")

    @property
    def traits(self) -> Kind:
        kind = KINDS[self.kind]
        return replace(kind, laser=MADE_OF[self.made_of]) if self.made_of else kind

    def never_on(self, machine: str) -> str:
        """Why it is never cut on that kind of machine, "" where it may be."""
        rule = self._rule(machine)
        return rule.reason if rule and rule.never else ""

    def overruled_on(self, machine: str) -> str:
        """Why it may be cut on that kind of machine all the same, "" where nobody had to say so."""
        rule = self._rule(machine)
        return rule.reason if rule and not rule.never else ""

    def _rule(self, machine: str) -> Rule | None:
        return cast("Rule | None", getattr(self.limits.of(self.traits), machine))

    @property
    def least(self) -> tuple[float, float, float]:
        """The least web, hole and height of capitals, in mm."""
        limits = self.limits.of(self.traits)
        return cast(tuple[float, float, float], (limits.web, limits.hole, limits.text))

    @property
    def density(self) -> float:
        """In kg/m³."""
        return cast(float, self.limits.of(self.traits).density)

    @property
    def sizes(self) -> tuple[SheetSize, ...]:
        """All sizes of sheets at hand, the one that jobs are laid out on first."""
        return (SheetSize(self.sheet_width, self.sheet_height, self.sheets), *self.other_sheets)

    def cut_from(self, size: int) -> Self:
        """This board with another of its `sizes` to lay jobs out on. Raises OutOfRange at "sheet"."""
        sizes = self.sizes
        if not 0 <= size < len(sizes):
            raise OutOfRange(
                f"{self.name} has no sheet size number {size + 1}.", fix=f"Choose 1 to {len(sizes)}.", field="sheet"
            )
        one = sizes[size]
        others = (*sizes[:size], *sizes[size + 1 :])
        return replace(self, sheet_width=one.width, sheet_height=one.height, sheets=one.count, other_sheets=others)


@dataclass(frozen=True)
class Stock(Board):
    """A board on the rack, with its off-cuts and what is to be known of it."""

    offcuts: tuple[OffCut, ...] = ()
    note: str = ""

    @property
    def board(self) -> Board:
        """What a job takes of it."""
        return Board(**{one.name: getattr(self, one.name) for one in fields(Board)})


def stock_from_json(document: object) -> Stock:
    """A Stock from its document. Raises NotchError at the field, as `board_from_json` does."""
    board, stock = board_from_json(document), mapping(document, "stock")
    offcuts = sequence(stock.get("offcuts", ()), "stock.offcuts", MOST_OFFCUTS)
    return Stock(
        **{one.name: getattr(board, one.name) for one in fields(Board)},
        offcuts=tuple(_offcut(one, f"stock.offcuts[{i}]") for i, one in enumerate(offcuts)),
        note=text(stock.get("note", ""), "stock.note", 1000, required=False),
    )


def board_from_json(document: object) -> Board:
    """A Board from its document, or from that of the stock it was taken from; lengths may be numbers (mm) or texts ("1/8 in"). Raises NotchError at the field.

    A reading many times off what the board is sold as is refused as a slip.
    """
    stock = mapping(document, "stock")
    given = sequence(entry(stock, "readings", "stock"), "readings", MOST_READINGS)
    readings = [mm(value, f"readings[{i}]") for i, value in enumerate(given)]
    nominal = mm(entry(stock, "nominal", "stock"), "stock.nominal")
    if nominal > 0 and all(value > 0 for value in readings):
        check_slips(readings, "the board", "readings", nominal)
    others = sequence(stock.get("other_sheets", ()), "stock.other_sheets", MOST_SIZES)
    return Board(
        name=text(entry(stock, "name", "stock"), "stock.name"),
        kind=choice(stock.get("kind", "plywood"), STOCK_KINDS, "stock.kind"),
        nominal=nominal,
        readings=Readings(tuple(readings)),
        sheet_width=mm(entry(stock, "sheet_width", "stock"), "stock.sheet_width"),
        sheet_height=mm(entry(stock, "sheet_height", "stock"), "stock.sheet_height"),
        sheets=_count(stock.get("sheets"), "stock.sheets"),
        other_sheets=tuple(_size(one, f"stock.other_sheets[{i}]") for i, one in enumerate(others)),
        direction=cast(Direction, choice(stock.get("direction", "none"), DIRECTIONS, "stock.direction")),
        price=_price(stock.get("price")),
        id=text(stock.get("id", ""), "stock.id", 40, required=False),
        measured=text(stock.get("measured", ""), "stock.measured", 40, required=False),
        limits=limits_from_json(stock.get("limits", {})),
        made_of=made_of_from_json(stock.get("made_of"), str(stock.get("kind"))),
    )


def stock_to_json(stock: Board) -> dict[str, Any]:
    """The document that `stock_from_json` or `board_from_json` reads, all lengths in mm."""
    document = asdict(stock)
    document["readings"] = list(stock.readings.values_mm)
    return document


def limits_from_json(document: object) -> Limits:
    """Raises NotchError at "stock.limits" or one of its fields."""
    given = mapping(document, "stock.limits")
    lengths = {
        name: None if given.get(name) in (None, "") else mm(given[name], f"stock.limits.{name}")
        for name in ("web", "hole", "text")
    }
    density = given.get("density")
    return Limits(
        **lengths,
        density=None if density in (None, "") else _number(density, "stock.limits.density", "number"),
        laser=rule_from_json(given.get("laser"), "stock.limits.laser"),
        router=rule_from_json(given.get("router"), "stock.limits.router"),
    )


def _number(value: object, field: str, what: str) -> float:
    try:
        return float(str(value).replace(",", "."))
    except ValueError:
        raise BadDocument(f"“{value}” is not a {what}.", fix="Give a number, or leave it empty.", field=field) from None


def _count(value: object, field: str) -> int | None:
    return None if value in (None, "") else whole(value, field, 1, 100_000)


def _price(value: object) -> float | None:
    return None if value in (None, "") else _number(value, "stock.price", "price")


def _size(value: object, field: str) -> SheetSize:
    size = mapping(value, field)
    width, height = (mm(entry(size, name, field), field) for name in ("width", "height"))
    return SheetSize(width, height, _count(size.get("count"), field))


def _offcut(value: object, field: str) -> OffCut:
    given = mapping(value, field)
    corners: list[Point] = []
    for one in sequence(entry(given, "outline", field), field, MOST_CORNERS):
        pair = sequence(one, field, 2)
        if len(pair) != 2:
            raise BadDocument(f"Corner {len(corners) + 1} has no x and y.", fix="Give two lengths.", field=field)
        corners.append((mm(pair[0], field), mm(pair[1], field)))
    if any(not abs(value) <= LARGEST_SHEET_MM for corner in corners for value in corner):
        raise OutOfRange("A corner lies beyond 20 m.", fix="Check the unit.", field=field)
    return OffCut(
        text(entry(given, "name", field), field), _upright(corners, field),
        text(given.get("note", ""), field, 1000, required=False),
    )  # fmt: skip


def _upright(corners: list[Point], field: str) -> tuple[Point, ...]:
    """The corners counter-clockwise. Raises BadGeometry if they go round nothing or their edges cross."""
    if len(corners) < 3:
        raise BadGeometry("An off-cut has three corners or more.", fix="Type the corners one by one.", field=field)
    try:
        around = _contour(tuple(corners))
    except BadGeometry as error:
        raise error.at(field) from None
    if abs(around.area) < 1:
        raise BadGeometry("The off-cut's corners go round nothing.", fix="Type them in order, once round.", field=field)
    edges = list(zip(corners, corners[1:] + corners[:1], strict=True))
    for i, (a, b) in enumerate(edges):
        for j in range(i + 2, len(edges) - (i == 0)):
            if _cross(a, b, *edges[j]):
                raise BadGeometry(
                    f"The off-cut's edges {i + 1} and {j + 1} cross.", fix="Type its corners in order.", field=field
                )
    return tuple(corners if around.area > 0 else reversed(corners))


def _cross(a: Point, b: Point, c: Point, d: Point) -> bool:
    def left(p: Point, q: Point, r: Point) -> float:
        return (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])

    return left(a, b, c) * left(a, b, d) <= 0 and left(c, d, a) * left(c, d, b) <= 0


def _contour(corners: tuple[Point, ...]) -> Contour:
    return Contour(tuple(Vertex(*corner) for corner in corners))
