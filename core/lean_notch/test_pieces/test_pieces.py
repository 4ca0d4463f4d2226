"""Test pieces: in, a way to find a kerf or a fit, a board and a machine; out, a Job as any other.

Slats and plug are cut with the beam on the line (a kerf of 0), so that all that is missing is the kerf. The comb is cut
with the kerf compensated: what its slots have more than its keys is clearance.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import cast

from ..basis import Basis, Board, BoardBasis, Machine, Stock
from ..basis.comb import comb_clearances
from ..basis.never import refuse_never
from ..basis.notebook import WAY_TITLES, Way
from ..design import MAIN, Design, Part, Rectangle, ShapeStep
from ..documents.plain import whole
from ..ground.errors import NotchError, OutOfRange
from ..job import ChosenLayout, Job
from ..lengths.length import Length, positive_mm
from ..lengths.said import say_mm, say_within
from ..recipes import Recipe, Setting
from ..recipes.recipe import Values
from .labels import labelled

ROUTER_SIZES: Mapping[Way, Mapping[str, str]] = {
    "slats": {"length": "150", "pieces": "5", "depth": "60"},
    "plug": {"size": "40"},
    "comb": {"key": "20", "wall": "12", "beyond": "6"},
}
"""A router's cuts are wide, and thin slats fly off."""

LONGEST_MM = 1000.0
LEAST_KERFS = 2.0
"""A piece is drawn that many kerfs wide at least: half of it is then left to hold between the jaws."""


def _mm(values: Values, name: str, what: str) -> float:
    return positive_mm(_plain_mm(values, name), name, what, LONGEST_MM)


def _plain_mm(values: Mapping[str, Length | str], name: str) -> float:
    try:
        return cast(Length, values[name]).mm({})
    except NotchError as error:
        raise error.at(name) from None


def _count(values: Values, name: str, most: int) -> int:
    return whole(values[name], name, 2, most)


def _length(mm: float) -> Length:
    return Length(f"{mm:.6f}".rstrip("0").rstrip("."))


def _part(part_id: str, title: str, width: float, height: Length, cuts: Sequence[ShapeStep] = ()) -> Part:
    """A loose part: test pieces stand nowhere."""
    return Part(part_id, title, (ShapeStep("blank", Rectangle(_length(width), height)), *cuts), loose=1)


def _slats(name: str, values: Values) -> Design:
    length, depth = _mm(values, "length", "The row's length"), _mm(values, "depth", "A slat's length")
    pieces = _count(values, "pieces", 200)
    width = length / pieces
    if width < 2:
        raise OutOfRange(
            f"{pieces} slats of {say_mm(length)} are {say_mm(width)} wide.",
            fix="Use fewer, or a longer row.",
            field="pieces",
        )
    slats = [_part(f"slat-{i}", f"Slat {i}", width, _length(depth)) for i in range(1, pieces + 1)]
    return Design(name, tuple(slats))


def _plug(name: str, values: Values) -> Design:
    size = _mm(values, "size", "The plug's size")
    edge = max(size / 2, 8.0)
    hole = ShapeStep(
        "hole", Rectangle(_length(size), _length(size), _length(size / 10)), "cut", x=_length(edge), y=_length(edge)
    )  # fmt: skip
    whole_size = size + 2 * edge
    return Design(name, (_part("frame", "Frame", whole_size, _length(whole_size), [hole]),))


def _comb(name: str, values: Values) -> Design:
    key, wall = _mm(values, "key", "The key's width"), _mm(values, "wall", "The wall's width")
    clearances = clearances_of(values)
    beyond = _mm(values, "beyond", "What the slots are deeper")
    deep = Length(f"thickness + {beyond}")
    pitch = key + wall
    slots = []
    for i, clearance in enumerate(clearances):
        if key + clearance <= 0 or clearance >= wall / 2:
            raise OutOfRange(f"A slot of {say_mm(key + clearance)} is no slot.", fix="Start elsewhere.", field="first")
        slot = Rectangle(_length(key + clearance), deep)
        slots.append(ShapeStep(f"slot-{i + 1}", slot, "cut", x=_length(wall + i * pitch - clearance / 2)))
    keys = [_part(f"key-{i}", f"Key {i}", key, _length(max(key * 1.5, 18.0))) for i in range(1, len(clearances) + 1)]
    comb = _part("comb", "Comb", len(clearances) * pitch + wall, Length(f"thickness + {beyond + 12}"), slots)
    return Design(name, (comb, *keys))


def clearances_of(values: Mapping[str, Length | str]) -> tuple[float, ...]:
    """The clearance of each pair of a comb made with these settings, rising."""
    first, step = (_plain_mm(values, name) for name in ("first", "step"))
    return comb_clearances(first, step, _count(values, "pairs", 40))


SLATS = Recipe(
    "slats", "Row of slats", "A known length cut into slats: pushed together, the row is short by a kerf for each.",
    (
        Setting("length", "Length of the row", "length", "100", "as drawn; more of it shows the kerf better"),
        Setting("pieces", "Slats", "count", "10"),
        Setting("depth", "Length of a slat", "length", "30"),
    ),
    _slats,
)  # fmt: skip
PLUG = Recipe(
    "plug", "Plug and hole", "One cut: the plug is smaller by a kerf than drawn, and its hole larger by one.",
    (Setting("size", "Size of the plug", "length", "20", "across its flats, as drawn"),),
    _plug,
)  # fmt: skip
COMB = Recipe(
    "comb", "Fit comb", "Keys, and slots that are wider step by step: feel which pair falls apart, slides, holds.",
    (
        Setting("first", "First clearance", "length", "-0.1", "of pair 1, the tightest"),
        Setting("step", "Step", "length", "0.04", "0.025 is one step of feel"),
        Setting("pairs", "Pairs", "count", "12"),
        Setting("key", "Width of a key", "length", "12"),
        Setting("wall", "Wall between slots", "length", "6"),
        Setting("beyond", "Slots deeper than the board", "length", "2", "a round tool leaves their corners round"),
    ),
    _comb,
)  # fmt: skip
TEST_PIECES: Mapping[Way, Recipe] = {"slats": SLATS, "plug": PLUG, "comb": COMB}

INSTRUCTIONS: Mapping[Way, tuple[str, ...]] = {
    "slats": (
        "Cut the file as it is: the cut runs on the line, nothing is compensated.",
        "Keep the slats in the order of their numbers, the same side up, and push them together on something flat.",
        "Measure the row from end to end with a caliper, five times, pushing together anew each time.",
    ),
    "plug": (
        "Cut the file as it is: the cut runs on the line, nothing is compensated. Mark which plug came from which side up.",
        "Measure the hole across its flats, in both directions, with the inner jaws.",
        "Measure the plug across its flats, in both directions.",
    ),
    "comb": (
        "Find the kerf first: the comb is cut with it compensated.",
        "Push each key into the slot of its own number, crosswise as in a joint, beginning with the highest number.",
        "Write down how each feels: falls apart, slides, holds, needs a mallet, or will not go.",
    ),
}


@dataclass(frozen=True)
class AsGiven:
    """The numbers of a test piece that its result is computed with: a row's length and slats, or a comb's clearances."""

    length: float = 0.0
    pieces: int = 0
    clearances: tuple[float, ...] = ()


def recipe_of(design: Design) -> str:
    """Which test piece a design is, "" for none."""
    return design.origin.recipe if design.origin else ""


def _values(design: Design) -> dict[str, Length | str]:
    recipe = TEST_PIECES[cast(Way, recipe_of(design))]
    kinds = {setting.name: setting.kind for setting in recipe.settings}
    answers = design.origin.answers if design.origin else ()
    return {one.name: one.length if kinds[one.name] == "length" else one.text for one in answers}


def as_given(design: Design) -> AsGiven:
    """Read from the test piece's own design."""
    values = _values(design)
    if recipe_of(design) == "slats":
        return AsGiven(_mm(values, "length", "The row's length"), _count(values, "pieces", 200))
    return AsGiven(clearances=clearances_of(values)) if recipe_of(design) == "comb" else AsGiven()


def kerf_note(job: Job) -> str:
    """Which kerf a comb is compensated for, and how sure that is; "" for a piece that is cut on its lines."""
    if recipe_of(job.design) != "comb":
        return ""
    machine = job.basis.of(MAIN.id).machine
    if machine.found is None:
        return (
            f"Compensated for a kerf of {say_mm(machine.kerf)} that nobody found on this board: find it first, or the comb "
            "mixes kerf and clearance up."
        )
    found = machine.found
    return (
        f"Compensated for a kerf of {say_mm(machine.kerf, 4)} {say_within(found.within)}, found by a {WAY_TITLES[found.way]} on "
        f"{found.date[:10]}."
    )


def _check_left(way: Way, design: Design, machine: Machine) -> None:
    """Something must be left to be measured. Raises OutOfRange at the setting."""
    values = _values(design)
    if way == "plug":
        field, size = "size", _mm(values, "size", "The plug's size")
    else:
        given = as_given(design)
        field, size = "pieces", given.length / given.pieces
    if size < LEAST_KERFS * machine.kerf:
        raise OutOfRange(
            f"Pieces of {say_mm(size)} leave little to measure beside cuts {say_mm(machine.kerf)} wide.",
            fix=f"Make them {say_mm(LEAST_KERFS * machine.kerf)} or more.",
            field=field,
        )


def piece_job(way: Way, given: Mapping[str, object], stock: Board, machine: Machine) -> Job:
    """The job that cuts a test piece of `stock` on `machine`, labelled; what is not given suits the machine's kind.

    Raises NotchError at the setting, NeverOnMachine at "machine".
    """
    refuse_never(stock, machine, "machine")
    stock = stock.board if isinstance(stock, Stock) else stock
    recipe = TEST_PIECES[way]
    sizes = ROUTER_SIZES[way] if machine.kind == "router" else {}
    design = recipe.design(recipe.title, {**sizes, **given})
    if way != "comb":
        _check_left(way, design, machine)
        machine = replace(machine, kerf=0.0, found=None, tool="")
    # Far enough apart for any tool, whatever kerf the job itself counts with.
    widest = max([machine.kerf, *(tool.diameter for tool in machine.tools)])
    apart = max(2.0, 2 * widest) if machine.kind == "laser" else max(14.0, 2 * widest)
    return Job(
        labelled(design, stock, machine),
        Basis(((MAIN.id, BoardBasis(stock, machine, 0.0)),)),
        ((MAIN.id, ChosenLayout(margin=5.0, spacing=apart, quarter_turns=False)),),
    )
