"""What pockets leave of a board: in, a part and its board's readings; out, findings where one goes through, or where those of both faces
meet or leave next to nothing, at the board's thinnest."""

from __future__ import annotations

from collections.abc import Iterator

from ..basis import BoardBasis
from ..geometry import Region
from ..geometry.contour import join_boxes
from ..ground.findings import Finding
from ..ground.wording import capital
from ..lengths.said import say_mm
from ..making import FlatMark, FlatPart

LEAST_SKIN_MM = 0.5
"""Less than that between two pockets breaks through when it is touched. Common practice."""


def skins(part: FlatPart, basis: BoardBasis) -> Iterator[Finding]:
    pockets = [mark for mark in part.marks if mark.depth > 0]
    thin = basis.stock.readings.thin
    yield from (_through(part, one, thin) for one in pockets if one.depth >= thin)
    for front in pockets:
        for back in pockets:
            left = thin - front.depth - back.depth
            if front.back or not back.back or left >= LEAST_SKIN_MM:
                continue
            if met := _met(front, back):
                yield _finding(part, front, back, left, thin, met)


def _through(part: FlatPart, pocket: FlatMark, thin: float) -> Finding:
    """Deeper than the mean it is refused as it is typed; between the thinnest reading and the mean it goes through in places."""
    box = join_boxes([region.box for region in pocket.regions])
    return Finding(
        "pocket-through", "stop",
        f"{capital(pocket.title)}, {say_mm(pocket.depth)} deep, goes through the board where it is thinnest, {say_mm(thin, 2)}.",
        f"Make it less than {say_mm(thin, 2)} deep, or cut it through.", part.id,
        place=((box[0] + box[2]) / 2, (box[1] + box[3]) / 2), amount=pocket.depth - thin, field=f"{pocket.field}/depth",
    )  # fmt: skip


def _finding(part: FlatPart, front: FlatMark, back: FlatMark, left: float, thin: float, met: Region) -> Finding:
    box = met.box
    of = f"{capital(front.title)}, {say_mm(front.depth)} deep, and {back.title}, {say_mm(back.depth)} from the back"
    through = left <= 0
    rest = "meet through the board" if through else f"leave {say_mm(left, 2)} between them"
    return Finding(
        "pockets-meet", "stop" if through else "look", f"{of}, {rest} where it is thinnest, {say_mm(thin, 2)}.",
        f"Make them less deep, together less than {say_mm(max(thin - LEAST_SKIN_MM, 0.0), 2)}, or move one.", part.id,
        place=((box[0] + box[2]) / 2, (box[1] + box[3]) / 2), amount=-left, field=f"{back.field}/depth",
    )  # fmt: skip


def _met(front: FlatMark, back: FlatMark) -> Region | None:
    from ..geometry.boolean import intersection

    return next(iter(intersection(front.regions, back.regions)), None)
