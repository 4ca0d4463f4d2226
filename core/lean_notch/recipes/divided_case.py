"""Divided case: a case with columns and rows as track lists, its walls crossed and tabbed into the sides; and the same walls
loose, for a case that there is already."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Literal, cast

from ..design import MAIN, BoardNeed, Design, Dimension
from ..geometry import Point
from ..ground.errors import MissingInput, OutOfRange
from ..lengths.length import Length
from ..lengths.said import say_mm
from ..lengths.units import Unit
from .box import Assembly, Shell, shell, sizes
from .dividers import Plan, Walls, lengths, read_plan, walls
from .picture import Clear, Handle, Names, Shape, SizeLine, View, Views
from .recipe import Recipe, Setting, Values
from .tracks import Tracks, read_tracks, taken_by

DIVIDERS = BoardNeed("dividers", "Divider board")


def _read(values: Values) -> tuple[Plan, tuple[Unit, Unit]]:
    columns, rows = cast(Length, values["columns"]), cast(Length, values["rows"])
    plan = read_plan(read_tracks(columns.text, "columns"), read_tracks(rows.text, "rows"), str(values["without"]))
    return plan, (columns.unit, rows.unit)


def _inside(made: Assembly, values: Values, plan: Plan, thick: str, *, outside: bool) -> None:
    """Width and depth: as they are given, or as the tracks take where none of them is a share."""
    for side, tracks, name, what in (("width", plan.columns, "col", "columns"), ("depth", plan.rows, "row", "rows")):
        given = cast(Length, values[side])
        if tracks.flexible and not given.text.strip():
            raise MissingInput(
                f"The {side} is empty, and the {what} share what is left of it.", fix=f"Type the {side}, or give each of the {what} a size.",
                field=side,
            )  # fmt: skip
        if tracks.flexible:
            made.dimensions.append(Dimension(side, side, given, chosen=True))
            if outside:
                sizes(made, inside=values["sizes"] == "inside", floor="", top="", sides=(side,))
            else:
                made.follows(f"inside_{side}", f"inside {side}", f"{side} - gap", positive=True)
            continue
        taken = taken_by([f"{name}_{i}" for i in range(1, len(tracks.all) + 1)], tracks.walls, thick)
        made.follows(f"inside_{side}", f"inside {side}", taken, positive=True)
        if outside:
            made.follows(f"outside_{side}", f"outside {side}", f"inside_{side} + 2*thickness")
    made.dimensions.append(Dimension("height", "height", cast(Length, values["height"]), chosen=True))


def _make(name: str, values: Values) -> Design:
    plan, units = _read(values)
    made = Assembly()
    own_board = values["board"] == "another board"
    thick, board = ("dividers.thickness", DIVIDERS.id) if own_board else ("thickness", MAIN.id)
    how = Shell(values["base"] == "a base", feet=False, hand_holes=False, lid="open")
    _inside(made, values, plan, thick, outside=True)
    sizes(made, inside=values["sizes"] == "inside", floor=how.floor, top=how.top, sides=("height",))
    lengths(made, plan, units, thick, "thickness")
    lower = cast(Length, values["lower"])
    if lower.text.strip():
        made.dimensions.append(Dimension("lower", "walls end below the rim by", lower, chosen=True))
    made.follows(
        "divider_height",
        "height of the dividers",
        "inside_height - lower" if lower.text.strip() else "inside_height",
        positive=True,
    )
    shell(made, how, cast(Length, values["finger"]))
    # Walls of another board are worked out with that one: the sides' is named.
    side = f"{MAIN.id}.thickness" if own_board else "thickness"
    walls(made, plan, Walls("divider_height", side if how.base else "0", board, thick, side, held=True))
    return made.design(name, (MAIN, DIVIDERS) if own_board else (MAIN,))


def _make_set(name: str, values: Values) -> Design:
    plan, units = _read(values)
    made = Assembly()
    made.dimensions.append(Dimension("gap", "gap in all", cast(Length, values["gap"]), chosen=True))
    _inside(made, values, plan, "thickness", outside=False)
    lengths(made, plan, units, "thickness", "0")
    walls(made, plan, Walls("height", "0", MAIN.id, "thickness", "0", held=False))
    if not made.parts:
        raise OutOfRange(
            "No divider is left: there is one compartment.", fix="Give two columns or rows, such as 1fr 1fr, and leave a wall.",
            field="columns",
        )  # fmt: skip
    return made.design(name, (MAIN,))


def _draw(names: Names, words: Mapping[str, str]) -> Views:
    return (_plan_view(names, words, names["thickness"], outside=True),)


def _draw_set(names: Names, words: Mapping[str, str]) -> Views:
    return (_plan_view(names, words, 0.0, outside=False),)


def _plan_view(names: Names, words: Mapping[str, str], start: float, *, outside: bool) -> View:
    """From above, the outer lower left corner at the origin."""
    columns, rows = read_tracks(words["columns"], "columns"), read_tracks(words["rows"], "rows")
    plan = read_plan(columns, rows, words["without"])
    wide, deep = names["inside_width"], names["inside_depth"]
    xs, ys = _spans(names, columns, "col", start, wide), _spans(names, rows, "row", start, deep)
    shapes = [Shape("board", (0.0, 0.0, wide + 2 * start, deep + 2 * start))] if outside else []
    shapes.append(Shape("clear", (start, start, start + wide, start + deep)))
    shapes += _pieces(plan, xs, ys, _wall(names))
    return View(
        "From above", tuple(shapes),
        (*_track_lines(names, columns, xs, "col", "columns", deep + 2 * start), *_track_lines(names, rows, ys, "row", "rows", 0.0),
         *_whole(names, words, columns, rows, start, outside=outside)),
        (*_handles(columns, xs, "columns", start + deep), *_handles(rows, ys, "rows", start)),
        tuple(_clears(plan, xs, ys)), tuple(_says(names, words, columns, rows)),
    )  # fmt: skip


Spans = tuple[tuple[float, float], ...]


def _spans(names: Names, tracks: Tracks, name: str, start: float, whole: float) -> Spans:
    """From where to where each place goes, an empty rest among them."""
    begins = [start, *(names[f"{name}_wall_{i}"] + _wall(names) for i in range(1, tracks.walls + 1))]
    ends = [names[f"{name}_wall_{i}"] for i in range(1, tracks.walls + 1)]
    return tuple(zip(begins, [*ends, start + whole], strict=True))


def _wall(names: Names) -> float:
    return names.get("dividers.thickness", names["thickness"])


def _pieces(plan: Plan, xs: Spans, ys: Spans, thick: float) -> Iterator[Shape]:
    for wall in range(1, plan.column_walls + 1):
        x = xs[wall - 1][1]
        for row in range(1, plan.along + 1):
            kind: Literal["wall", "gone"] = "wall" if plan.column(wall, row) else "gone"
            yield Shape(kind, (x, ys[row - 1][0], x + thick, ys[row - 1][1]), piece=f"c{wall}r{row}")
    for wall in range(1, plan.row_walls + 1):
        y = ys[wall - 1][1]
        for column in range(1, plan.across + 1):
            kind = "wall" if plan.row(wall, column) else "gone"
            yield Shape(kind, (xs[column - 1][0], y, xs[column - 1][1], y + thick), piece=f"r{wall}c{column}")
    for wall in range(1, plan.column_walls + 1):
        for row in range(1, plan.row_walls + 1):
            beside = (plan.column(wall, row), plan.column(wall, row + 1), plan.row(row, wall), plan.row(row, wall + 1))
            x, y = xs[wall - 1][1], ys[row - 1][1]
            if any(beside):
                yield Shape("wall", (x, y, x + thick, y + thick))


def _track_lines(
    names: Names, tracks: Tracks, spans: Spans, name: str, setting: str, beside: float
) -> Iterator[SizeLine]:
    for i, (track, (low, high)) in enumerate(zip(tracks.all, spans, strict=False), 1):
        ends = ((low, beside), (high, beside)) if name == "col" else ((beside, low), (beside, high))
        says = "" if track.share is None else track.text
        yield SizeLine(says, names[f"{name}_{i}"], *ends, "above" if name == "col" else "left", 0, setting, track.text)


def _whole(
    names: Names, words: Mapping[str, str], columns: Tracks, rows: Tracks, start: float, *, outside: bool
) -> Iterator[SizeLine]:  # fmt: skip
    for setting, tracks, side in (("width", columns, "below"), ("depth", rows, "right")):
        inner = names[f"inside_{setting}"]
        whole = inner + 2 * start
        chosen = words.get("sizes", "inside") if tracks.flexible else ""
        for says, low, high, row in (
            (("inside", start, start + inner, 0), ("outside", 0.0, whole, 1)) if outside else (("", 0.0, inner, 0),)
        ):
            ends: tuple[Point, Point] = (
                ((low, 0.0), (high, 0.0)) if setting == "width" else ((whole, low), (whole, high))
            )
            mine = setting if chosen and (says == chosen or (not outside and tracks.flexible)) else ""
            yield SizeLine(says, high - low, *ends, cast(Literal["below", "right"], side), row, mine if outside else "")


def _handles(tracks: Tracks, spans: Spans, setting: str, beside: float) -> Iterator[Handle]:
    """At each wall: it makes the track before it wider."""
    for i in range(tracks.walls):
        at = spans[i][1]
        yield Handle(
            setting, (at, beside) if setting == "columns" else (beside, at), "x" if setting == "columns" else "y", i
        )


def _clears(plan: Plan, xs: Spans, ys: Spans) -> Iterator[Clear]:
    """Each compartment's clear size: places without a wall between them are one, where they make a rectangle."""
    left = {(c, r) for c in range(1, plan.across + 1) for r in range(1, plan.along + 1)}
    while left:
        some = {min(left)}
        edge = list(some)
        while edge:
            c, r = edge.pop()
            for there, walled in (
                ((c + 1, r), plan.column(c, r)), ((c - 1, r), plan.column(c - 1, r)),
                ((c, r + 1), plan.row(r, c)), ((c, r - 1), plan.row(r - 1, c)),
            ):  # fmt: skip
                if not walled and there in left and there not in some:
                    some.add(there)
                    edge.append(there)
        left -= some
        columns, rows = {c for c, _ in some}, {r for _, r in some}
        if len(columns) * len(rows) != len(some):
            continue  # it is no rectangle: it has no one size
        low, high = (xs[min(columns) - 1][0], ys[min(rows) - 1][0]), (xs[max(columns) - 1][1], ys[max(rows) - 1][1])
        yield Clear((high[0] - low[0], high[1] - low[1]), ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2))


def _says(names: Names, words: Mapping[str, str], columns: Tracks, rows: Tracks) -> Iterator[str]:
    for side, tracks, what in (("width", columns, "columns"), ("depth", rows, "rows")):
        if not tracks.flexible and words.get(side, "").strip():
            yield f"The {what} take {say_mm(names[f'inside_{side}'])}: the {side} that was given does not count."


_TRACKS = (
    Setting(
        "columns",
        "Columns",
        "tracks",
        "52 1fr 1fr 40",
        "clear sizes from left to right; 1fr is a share of what is left",
    ),
    Setting("rows", "Rows", "tracks", "1fr 30", "clear sizes from front to back"),
    Setting("width", "Width", "length", "200", "left to right; empty where every column has a size", optional=True),
    Setting("depth", "Depth", "length", "120", "front to back; empty where every row has a size", optional=True),
)
_WITHOUT = Setting(
    "without", "Without", "words", "", "pieces of wall that are taken out: c2r1 is column wall 2 along row 1"
)

DIVIDED_CASE = Recipe(
    name="divided-case",
    title="Divided case",
    about="A case with columns and rows of compartments, the walls crossed half into each other and tabbed into the sides.",
    settings=(
        *_TRACKS,
        Setting("height", "Height", "length", "50", "bottom to top"),
        Setting(
            "sizes",
            "Sizes are",
            "choice",
            "inside",
            "Inside: the contents must fit. Outside: the case must fit somewhere.",
            ("inside", "outside"),
        ),
        Setting("base", "It has", "choice", "a base", "", ("a base", "no base")),
        Setting("lower", "Walls end below the rim by", "length", "", "Leave empty: level with the rim", optional=True),
        Setting("board", "Walls are cut from", "choice", "the same board", "", ("the same board", "another board")),
        Setting("finger", "Finger width", "length", "", "Leave empty for 3 × thickness", optional=True),
        _WITHOUT,
    ),
    make=_make,
    draw=_draw,
    sentence="The case is {height} tall; its sizes are {sizes}. It has {base}. Its walls are cut from {board} and end {lower} below the rim. "
    "Fingers {finger} wide hold the corners.",
)
DIVIDER_SET = Recipe(
    name="divider-set",
    title="Divider set",
    about="Loose walls, crossed half into each other, for a case or a drawer that there is already.",
    settings=(
        *_TRACKS,
        Setting("height", "Height", "length", "45", "of the walls"),
        Setting("gap", "Gap in all", "length", "0.6", "so that the set goes in: half of it at either end"),
        _WITHOUT,
    ),
    make=_make_set,
    draw=_draw_set,
    sentence="The walls are {height} tall. The case is {width} wide and {depth} deep inside; the set has a gap of {gap} in all.",
)
