"""What a proof did not look at: files that were not given, and joints and placements whose parts are in none of them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from ..cutting import CutPath, Profile, SheetPlan
from ..ground.findings import Finding
from ..ground.operations import OPERATIONS
from ..making import Build
from ..nesting import Layout
from .contacts import Gauge
from .faults import DONE, some, unseen
from .proof import Face, Given


def not_given(
    sheets: Mapping[int, Given], build: Build, layout: Layout, plans: Mapping[int, SheetPlan], profile: Profile, titles: Mapping[int, str]
) -> Iterator[Finding]:  # fmt: skip
    """Faces of sheets without a file, and operations that are in none."""
    for sheet in layout.sheets:
        given, plan = sheets.get(sheet.number, Given()), plans[sheet.number]
        if given.front is None:
            lying = dict.fromkeys(build.part(one.part).title for one in layout.on_sheet(sheet.number))
            named = f"The file of {titles[sheet.number]}" if titles else f"Sheet {sheet.number}"
            yield unseen(
                "sheet-not-given", f"{named} is not among the files: {some(list(lying))} not looked at.",
                f"Prove the files of all {'parts' if titles else 'sheets'} together.", sheet=sheet.number,
            )  # fmt: skip
        else:
            yield from _operations_not_given(sheet.number, plan.paths, given.front)
        if plan.back and given.back is None:
            yield unseen(
                "back-not-given", f"The back of sheet {sheet.number} is not among the files, and was not looked at.",
                "Prove the files of both faces together.", sheet=sheet.number, back=True,
            )  # fmt: skip
        elif plan.back and given.back:
            yield from _operations_not_given(sheet.number, plan.back, given.back, back=True)
    wanted = {mark.operation for part in build.parts for mark in part.marks}
    wanted |= {"cut"} if build.parts else set()
    for operation in OPERATIONS:
        if operation in wanted and operation != "reference" and not profile.layers[operation].include:
            yield unseen(
                "operation-not-given", f"What is to be {DONE[operation]} is in none of the files, and was not looked at.",
                "Include its layer in the hand-over profile, or prove the files of all operations together.",
            )  # fmt: skip


def _operations_not_given(sheet: int, paths: Sequence[CutPath], face: Face, *, back: bool = False) -> Iterator[Finding]:
    """Of a face that some files are of: what its other files would hold."""
    missing = {path.operation for path in paths} - {"reference"} - face.operations
    where = f"the back of sheet {sheet}" if back else f"sheet {sheet}"
    for operation in sorted(missing):
        yield unseen(
            "operation-not-given", f"What is to be {DONE[operation]} on {where} is in none of the files, and was not looked at.",
            "Prove the files of all operations together.", sheet=sheet, back=back,
        )  # fmt: skip


def not_measured(
    build: Build, gauges: Mapping[str, Sequence[Gauge]], findings: Sequence[Finding], proved: set[str]
) -> Iterator[Finding]:  # fmt: skip
    """Joints and placements whose parts are in none of the files."""
    measured = {part for part, some_of_it in gauges.items() if some_of_it}
    missing = {one.part for one in findings if one.code in ("part-missing", "part-in-pieces")}
    joints = [mate.title for mate in build.mates if mate.id not in proved]
    places = [one.placement for one in build.standings if one.part not in measured and one.part not in missing]
    if joints:
        yield unseen(
            "joints-not-measured", f"{some(joints)} not measured: a part is in none of the files, or there is nothing to measure.",
            "Prove the files of all sheets together; what has no contact has to be looked at by hand.",
        )  # fmt: skip
    if places:
        yield unseen(
            "placements-not-measured", f"{some(places)} not stood up: their parts are in none of the files.",
            "Prove the files of all sheets together.",
        )  # fmt: skip
