"""What follows what in a design: in, the design; out, the names that each step and each named length uses, and who uses them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ..lengths.arithmetic import FUNCTIONS
from ..lengths.length import names_in
from ..lengths.units import MM_PER_UNIT
from ..steps import Imported, Lettering, OtherPart, ShapeStep, Step
from .document import Design


@dataclass(frozen=True)
class Uses:
    """What a step follows: named lengths (its board's thickness and clearance among them), earlier steps of its part, other parts
    and kept files."""

    names: tuple[str, ...] = ()
    steps: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    files: tuple[str, ...] = ()


def uses(step: Step) -> Uses:
    """
    >>> from ..steps import Disc
    >>> from ..lengths.length import Length
    >>> uses(ShapeStep("hole", Disc(Length("2*thickness")), "cut", from_x="edge:blank.right"))
    Uses(names=('thickness',), steps=('blank',), parts=(), files=())
    """
    parts: tuple[str, ...] = ()
    files: tuple[str, ...] = ()
    if isinstance(step, ShapeStep):
        parts = (step.shape.part,) if isinstance(step.shape, OtherPart) else ()
        files = (step.shape.file,) if isinstance(step.shape, Imported) else ()
    names = _plain(step.names)
    if isinstance(step, ShapeStep) and isinstance(step.shape, Lettering) and step.does == "cut":
        names = tuple(dict.fromkeys((*names, "thickness")))  # bridges are at least as wide as the board is thick
    return Uses(names, tuple(dict.fromkeys(map(step_of, step.follows()))), parts, files)


def step_of(of: str) -> str:
    """The step that made what a place is measured from.

    >>> step_of("edge:blank.right"), step_of("centre:hole-1"), step_of("corner:fold.blank.top-left")
    ('blank', 'hole-1', 'fold')
    """
    name = of.partition(":")[2]
    return name.partition(".")[0]


def _plain(names: Iterable[str]) -> tuple[str, ...]:
    """Without the units among them."""
    return tuple(name for name in names if name.lower() not in MM_PER_UNIT and name not in FUNCTIONS)


@dataclass(frozen=True)
class Users:
    """Who follows a named length, by paths: what says it itself, and what follows only by way of others."""

    direct: tuple[str, ...]
    by_way: tuple[str, ...]


def users(design: Design) -> Mapping[str, Users]:
    """By name, for every name that anything of the design uses and every named length that it has."""
    by_name: dict[str, list[str]] = {dimension.name: [] for dimension in design.dimensions}
    for part in design.parts:
        for step in part.steps:
            for name in uses(step).names:
                by_name.setdefault(name, []).append(f"parts/{part.id}/steps/{step.id}")
    above: dict[str, list[str]] = {}
    for dimension in design.dimensions:
        for name in _plain(names_in(dimension.length.text)):
            by_name.setdefault(name, []).append(f"dimensions/{dimension.name}")
            above.setdefault(name, []).append(dimension.name)
    for placement in design.placements:
        for name in _plain(placement.pose.names):
            by_name.setdefault(name, []).append(f"placements/{placement.id}")
    for joint in design.joints:
        for name in _plain(joint.how.names):
            by_name.setdefault(name, []).append(f"joints/{joint.id}")
    return {name: Users(tuple(direct), _by_way(name, direct, by_name, above)) for name, direct in by_name.items()}


def _by_way(
    name: str, direct: list[str], by_name: Mapping[str, list[str]], above: Mapping[str, list[str]]
) -> tuple[str, ...]:
    found: dict[str, None] = {}
    queue, seen = list(above.get(name, ())), {name}
    while queue:
        one = queue.pop()
        if one in seen:
            continue
        seen.add(one)
        found.update(dict.fromkeys(by_name.get(one, ())))
        queue += above.get(one, ())
    return tuple(path for path in found if path not in direct)
