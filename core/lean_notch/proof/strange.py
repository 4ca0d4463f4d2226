"""What a file holds besides its parts: lines of no known operation, what is no line, and marks that run onto another part."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from ..cutting import Profile, SheetPlan
from ..formats.read_file import ReadFile
from ..geometry import Box, Point
from ..ground.findings import Finding
from ..making import Build
from ..nesting import Placed
from .compare import EDGE_MM

if TYPE_CHECKING:
    import shapely

from .faults import bad, unseen


def strange_things(
    sheet: int, file: ReadFile, profile: Profile, pieces: Sequence[shapely.Geometry], *, back: bool = False
) -> Iterator[Finding]:  # fmt: skip
    """Lines of no known operation, what is no line, and what another program may draw otherwise: a machine may cut it, or not."""
    import shapely

    tree = shapely.STRtree(pieces)

    def not_read(why: str, fix: str, place: Point | None = None) -> Finding:
        return unseen("not-looked-at", why, fix, sheet, place, back=back)

    for path in file.paths:
        if profile.operation_of(path.layer):
            continue
        line = shapely.LineString([*(s.start for s in path.segments), path.segments[-1].end])
        what = f"A path on the layer “{path.layer}”, which the hand-over profile does not know,"
        hit = tree.query(line, predicate="intersects")
        if len(hit):
            spot = shapely.intersection(pieces[int(hit[0])], line).representative_point()
            yield bad(
                sheet, "unknown-layer", f"{what} runs over a part: it may be cut.", "Delete it, or name its layer",
                (spot.x, spot.y),
            )  # fmt: skip
        else:
            yield not_read(
                f"{what} was not looked at.", "Remove it if the machine should not see it.", path.segments[0].start
            )
    for text in file.texts:
        yield not_read(
            f"The text “{text.text[:40]}” is still text, and was not looked at.", "Turn it into outlines, or remove it.",
            text.place,
        )  # fmt: skip
    for layer in file.hidden:
        yield not_read(
            f"The layer “{layer}” is switched off or frozen: what is on it was not looked at.",
            "Switch it on, or delete it.",
        )
    for kind in file.unread:
        yield not_read(
            f"The file also holds {kind}, which was not looked at.", "Remove it if the machine should not see it."
        )
    for what in file.unheeded:
        yield not_read(
            f"The file has {what}: another program may draw it otherwise than it was read here.",
            "Apply it to the lines and take it away, or export the file again.",
        )


def on_others(
    sheet: int, plan: SheetPlan, build: Build, placed: Sequence[Placed], pieces: Sequence[shapely.Geometry]
) -> Iterator[Finding]:  # fmt: skip
    """Marks of one part that run onto another one beside it."""
    import shapely

    marks = [path for path in plan.paths if path.operation not in ("cut", "reference")]
    if not pieces or not marks:
        return
    own = {(one.part, one.copy): one.motion.region(build.part(one.part).region).box for one in placed}
    said = set[str]()
    tree = shapely.STRtree(pieces)
    for path in marks:
        box = own.get((path.part, path.copy))
        if box is None or path.part in said or lies_within(path.shape.box, box):
            continue
        line = shapely.LineString([*(s.start for s in path.shape.segments), path.shape.segments[-1].end])
        for hit in tree.query(line, predicate="intersects").tolist():
            spot = shapely.intersection(pieces[hit], line).representative_point()
            if not lies_within((spot.x, spot.y, spot.x, spot.y), box):
                said.add(path.part)
                yield bad(
                    sheet, "mark-on-other", f"{path.title} runs onto the part beside it.", "Move it onto its own part",
                    (spot.x, spot.y),
                )  # fmt: skip
                break


def lies_within(box: Box, around: Box) -> bool:
    return (
        box[0] >= around[0] - EDGE_MM and box[1] >= around[1] - EDGE_MM
        and box[2] <= around[2] + EDGE_MM and box[3] <= around[3] + EDGE_MM
    )  # fmt: skip
