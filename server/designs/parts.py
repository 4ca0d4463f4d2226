"""Flat parts and their steps as the page shows them: a part as built and as designed in; what is drawn, said and measured from out."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial

from ground.problems import Problem
from lean_notch.design import Outline, Part, ShapeStep, Step, uses
from lean_notch.design.sentence import sentence
from lean_notch.documents import codec
from lean_notch.documents.as_typed import number_at
from lean_notch.formats.svg_path import path_data
from lean_notch.geometry import Region, Ring, flatten
from lean_notch.ground.errors import NotchError
from lean_notch.ground.operations import Operation
from lean_notch.ground.remembered import Same, by_value, remembered
from lean_notch.lengths.length import Length
from lean_notch.making import FlatMark, FlatPart, faces, is_sunk, slices, title_of
from lean_notch.making.name_room import name_rooms
from lean_notch.making.sizes import sizes_of
from lean_notch.steps.place import Named, box_of
from lean_notch.steps.words import Titles, of_words

from . import schemas as out
from .fragments import piece

DRAWN_CHORD_MM = 0.05
"""Fine enough for a drawing of the assembled object."""

MOST_TO_MEASURE_FROM = 120
"""Edges and corners of one step that a place can be measured from on the page; of an imported outline there may be thousands."""


def part_json(part: FlatPart, designed: Part, names: Mapping[str, float], titles: Titles) -> str:
    """JSON of PartOut: an edit changes few of a part's steps, and the others are written already. `names` are all lengths in mm,
    `titles` what steps and parts are called in sentences."""
    marks = {mark.id: mark for mark in (*part.openings, *part.marks)}
    drawn, openings = {one.step: one for one in part.named}, {mark.id for mark in part.openings}
    lines: dict[str, list[float]] = {}
    for one in part.measured:
        lines.setdefault(one.step, []).extend((*one.start, *one.end))
    first = next((step.id for step in designed.steps if step.on), "")
    steps = []
    for step in designed.steps:
        failed = part.failed if part.failed and part.failed.step == step.id else None
        mark, follows = marks.get(step.id), uses(step)
        given = (
            step, step.id == first, Same(mark and mark.regions), Same(mark and mark.traces), step.id in openings, failed, drawn.get(step.id), tuple(lines.get(step.id, ())),
            tuple([names.get(name) for name in step.names]),
            tuple([titles.get(one, one) for one in (*follows.steps, *follows.parts)]),
        )  # fmt: skip
        steps.append(piece(given, partial(_step, step, mark, part, names, titles, step.id == first)))
    whole = out.PartOut(
        id=part.id, title=part.title, board=part.board, quantity=part.quantity, loose=designed.loose,
        path=path_of(part.region), outline=_outline(part.region), holes=_holes(part.region), sunk=_sunk(part, designed), solid=_solid(part), box=part.box, rooms=name_rooms(part), thickness=part.thickness, steps=[],
        corners=[name for name, _ in part.corners], edges=[name for name, _ in part.edges],
        sides={name: (edge.start[0], edge.start[1], edge.end[0], edge.end[1]) for name, edge in part.edges},
        points=[point for one in part.named for point in _points(one, titles)],
        lines=[line for one in part.named for line in _lines(one, titles)],
    )  # fmt: skip
    text = whole.model_dump_json()
    return text.replace('"steps":[]', f'"steps":[{",".join(steps)}]', 1)


def _points(one: Named, titles: Titles) -> list[out.PointOnPart]:
    few = len(one.corners) <= MOST_TO_MEASURE_FROM
    found = [(name, place) for name, place in one.points if name.startswith("centre:")]
    found += [(f"corner:{name}", place) for name, place in one.corners if few]
    found += [(f"middle:{name}", edge.at(0.5)) for name, edge in one.edges if few and edge.bulge == 0]
    if not one.edges:
        found += [(name, place) for name, place in one.points if name.startswith("side:")]
    return [
        out.PointOnPart.model_construct(name=name, says=of_words(name, titles), step=one.step, at=place)
        for name, place in found
    ]


def _lines(one: Named, titles: Titles) -> list[out.EdgeOnPart]:
    if len(one.edges) > MOST_TO_MEASURE_FROM:
        return []
    return [
        out.EdgeOnPart.model_construct(
            name=f"edge:{name}", says=of_words(f"edge:{name}", titles), step=one.step, ends=(*edge.start, *edge.end)
        )
        for name, edge in one.edges
        if edge.bulge == 0
    ]


def _step(
    step: Step, mark: FlatMark | None, part: FlatPart, names: Mapping[str, float], titles: Titles, first: bool
) -> out.StepOut:  # fmt: skip
    failed = part.failed if part.failed and part.failed.step == step.id else None
    cuts = isinstance(step, ShapeStep) and step.does != "mark"
    operation: Operation = step.operation if isinstance(step, ShapeStep) and not cuts else "cut"
    return out.StepOut(
        id=step.id, title=title_of(step), on=step.on, document=codec.write(step, units=True), operation=operation,
        path=_mark_path(mark) if mark else "", box=_box(part, step.id), opening=mark in part.openings, back=bool(mark and mark.back),
        sizes=sizes_of(step, part, names), nodes=_nodes(step, part), sentence=_words(step, names, titles, first), follows=uses(step),
        notes=[note for of, note in part.notes if of == step.id],
        problem=Problem(**failed.error.as_json()) if failed else None,
    )  # fmt: skip


def _nodes(step: Step, part: FlatPart) -> list[out.NodeOut]:
    drawn = next((one for one in part.named if one.step == step.id), None)
    if drawn is None or not (isinstance(step, ShapeStep) and isinstance(step.shape, Outline)):
        return []
    return [
        out.NodeOut.model_construct(id=name.rpartition(".")[2], at=place, middle=edge.at(0.5))
        for (name, place), (_, edge) in zip(drawn.corners, drawn.edges, strict=True)
    ]


def _box(part: FlatPart, step: str) -> tuple[float, float, float, float] | None:
    drawn = next((one for one in part.named if one.step == step), None)
    return box_of(drawn) if drawn else None


def _words(step: Step, names: Mapping[str, float], titles: Titles, first: bool) -> list[out.WordsOut]:
    found = []
    for one in sentence(step, titles, first=first):
        if one.typed is None:
            found.append(out.WordsOut.model_construct(text=one.text))
            continue
        try:
            value = number_at(step, one.path, names)
        except NotchError:
            value = None
        unit = one.typed.unit if isinstance(one.typed, Length) else None
        found.append(out.WordsOut.model_construct(text="", path=one.path, typed=one.typed.text, unit=unit, value=value))
    return found


@by_value(1024)
def _mark_path(mark: FlatMark) -> str:
    return "".join(path_data(shape) for region in mark.regions for shape in region.rings) + "".join(
        path_data(trace) for trace in mark.traces
    )


# An edit seldom changes every part: the others are drawn already.
@by_value(1024)
def _outline(region: Region) -> list[tuple[float, float]]:
    return [(round(x, 3), round(y, 3)) for x, y in flatten(region.outer.segments, DRAWN_CHORD_MM)]


def _sunk(part: FlatPart, designed: Part) -> str:
    """Pockets on the front that no step of the part made."""
    steps = {step.id for step in designed.steps}
    sunk = (mark for mark in part.marks if mark.operation == "pocket" and mark.id not in steps and not mark.back)
    return "".join(path_of(region) for mark in sunk for region in mark.regions)


@by_value(1024)
def _holes(region: Region) -> list[list[tuple[float, float]]]:
    return [[(round(x, 3), round(y, 3)) for x, y in flatten(hole.segments, DRAWN_CHORD_MM)] for hole in region.holes]


def _solid(part: FlatPart) -> out.SunkOut | None:
    return _blocks(part) if is_sunk(part) else None


@remembered(256)
def _blocks(part: FlatPart) -> out.SunkOut:
    return out.SunkOut(
        slices=[_slice(one.region, one.low, one.high) for one in slices(part, part.thickness)],
        faces=[_slice(one.region, one.depth, one.depth) for one in faces(part, part.thickness)],
    )


def _slice(region: Region, low: float, high: float) -> out.SliceOut:
    return out.SliceOut.model_construct(low=low, high=high, rings=[_outline(region), *_holes(region)])


@by_value(1024)
def path_of(region: Region) -> str:
    return "".join(map(_ring_path, region.rings))


# A hole that moves leaves the other rings of a part as they are.
@by_value(8192)
def _ring_path(ring: Ring) -> str:
    return path_data(ring)
