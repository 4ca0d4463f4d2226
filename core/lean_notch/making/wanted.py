"""What joints want of each part, from all its mates; out too: placements that want it different, and notches that would meet."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence

from ..design import Design, Part
from ..geometry import Region
from ..ground.errors import ThicknessTooLarge
from ..ground.findings import Finding, Place
from ..joints import Change, Mate
from ..lengths.said import say_mm
from .before_joints import field_of
from .part import Asked
from .stand import Outlined, Standing

Changes = tuple[tuple[Mate, Change], ...]
"""What joints do to a part where it stands, and the mates that they are of."""


SAME_MM = 1e-6
"""Placements whose joints differ by less want the same part."""


def changes_of(mates: Sequence[Mate]) -> dict[str, Changes]:
    """By the placement that joints name."""
    found: dict[str, list[tuple[Mate, Change]]] = defaultdict(list)
    for mate in mates:
        for change in mate.members:
            found[change.placement].append((mate, change))
    return {name: tuple(some) for name, some in found.items()}


def asked_of(changes: Changes) -> Asked:
    """What they want of the part together."""
    notches = sorted(notch for _, change in changes for notch in change.notches)
    return Asked(
        tuple(notches), tuple([cut for _, change in changes for cut in change.cuts]),
        tuple([add for _, change in changes for add in change.adds]),
        tuple([pocket for _, change in changes for pocket in change.pockets]),
    )  # fmt: skip


def differing(
    part: Part, placements: Sequence[str], changes: Mapping[str, Changes], standings: Mapping[str, Standing]
) -> list[Finding]:
    """Placements whose joints want another part than those of the first one do."""
    if len(placements) < 2:
        return []
    first = asked_of(changes.get(placements[0], ()))
    other = next((one for one in placements[1:] if not _same(first, asked_of(changes.get(one, ())))), None)
    if other is None:
        return []
    return [
        Finding(
            "placements-differ", "stop",
            f"The joints of {part.title}, copy 1 and of copy {placements.index(other) + 1} want it different; it is made as copy 1 wants "
            "it.",
            f"Make copy {placements.index(other) + 1} a part of its own, or join both alike.", part.id, field=f"placements/{other}",
            placement=other, space=_middle_of(standings.get(other)),
        )
    ]  # fmt: skip


def _middle_of(standing: Standing | None) -> Place | None:
    return standing.frame.at((standing.width / 2, standing.height / 2), standing.thickness / 2) if standing else None


def _same(a: Asked, b: Asked) -> bool:
    return a == b or all(_alike(one, other) for one, other in zip(_numbers(a), _numbers(b), strict=True))


_Row = tuple[str, tuple[float, ...]]


def _numbers(asked: Asked) -> tuple[list[_Row], ...]:
    """What is wanted, kind by kind, as rows of a name and numbers."""
    notches: list[_Row] = [(edge, tuple(numbers)) for edge, *numbers in asked.notches]
    cuts, adds = ([("", _area(one)) for one in some] for some in (asked.cuts, asked.adds))
    pockets = [(str(one.back), (*_area(one.region), one.depth)) for one in asked.pockets]
    return notches, cuts, adds, pockets


def _area(region: Region) -> tuple[float, ...]:
    return (*region.box, region.area)


def _alike(rows: list[_Row], others: list[_Row]) -> bool:
    if len(rows) != len(others):
        return False
    left = sorted(others)
    for name, numbers in sorted(rows):
        # In order nearly always; where two begin at one place a hair may have changed their order.
        at = next((i for i, one in enumerate(left) if one[0] == name and _close(one[1], numbers)), None)
        if at is None:
            return False
        del left[at]
    return True


def _close(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    return all(abs(x - y) < SAME_MM for x, y in zip(a, b, strict=True))


_OPPOSITE = (("left", "right", 0, "shape/width"), ("bottom", "top", 1, "shape/height"))


def check_depths(design: Design, part: Part, outlined: Outlined, asked: Asked) -> None:
    """Notches from opposite sides must not meet where both run."""
    if part.blank is None:
        return
    for low, high, axis, path in _OPPOSITE:
        some, others = (
            [one for one in asked.notches if one.edge.endswith(f".{side}") and one.depth > 0] for side in (low, high)
        )
        alone = max((one.depth for one in (*some, *others)), default=0.0)
        both = max(
            (a.depth + b.depth for a in some for b in others if a.start < b.end and b.start < a.end), default=0.0
        )
        depth, length = max(alone, both), outlined.size[axis]
        if depth and depth >= length:
            raise ThicknessTooLarge(
                f"The boards that meet {part.title} take {say_mm(depth)} of its {say_mm(length)}.",
                fix=f"Make {part.title} larger than {say_mm(depth)} there, or use a thinner board.",
                field=field_of(design, part, path),
            )
