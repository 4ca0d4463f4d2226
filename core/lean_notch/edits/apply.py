"""Edits applied: a job and edits in, the changed job out; or an error at the path of the edit, and nothing changed.

Paths begin with what they are of: `name`, `relief`, `sets`, `answers/…` (a recipe's), `dimensions/…`, `boards/…`,
`parts/…`, `placements/…`, `joints/…`, `basis/<board>/…`, `layout/<board>/…`.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import asdict, replace
from typing import Any, Protocol

from ..basis import Machine, Stock
from ..basis.notebook import Entry
from ..design import Against, Design, Member, OtherPart, Part, Placement, ShapeStep, dangling
from ..documents import codec
from ..documents.plain import in_unit, mapping, whole
from ..ground.errors import BadDocument, MissingInput, NotchError, PartTooLarge
from ..ground.limits import MOST_SETS
from ..job import Job, Result, settings_from_json, with_layout
from ..lengths.length import Amount, Length
from ..lengths.units import Unit
from . import tree
from .basis import drop_board_basis, put_basis
from .edit import Edit
from .recipe import put_answer

LISTS = ("boards", "dimensions", "parts", "placements", "joints")
"""The design's own lists, in the order in which they depend on one another."""


class Workshop(Protocol):
    """What the workshop has, by its numbers. Each raises NotchError for a number that it does not have."""

    def stock(self, number: int) -> Stock: ...

    def machine(self, number: int) -> Machine: ...

    def entry(self, number: int) -> Entry: ...

    def entries(self, machine: str) -> Sequence[Entry]: ...


class _NoWorkshop:
    def stock(self, number: int) -> Stock:
        raise _no_rack(f"stock {number}")

    def machine(self, number: int) -> Machine:
        raise _no_rack(f"machine {number}")

    def entry(self, number: int) -> Entry:
        raise _no_rack(f"entry {number}")

    def entries(self, machine: str) -> Sequence[Entry]:  # noqa: ARG002
        return ()


def _no_rack(what: str) -> MissingInput:
    return MissingInput(f"There is no workshop here to take {what} from.", fix="Give its document instead.")


NO_WORKSHOP: Workshop = _NoWorkshop()


def edit_job(job: Job, edits: Iterable[Edit], unit: Unit = "mm", workshop: Workshop = NO_WORKSHOP) -> Job:
    """`job` with `edits` made one after the other; bare numbers count in `unit`. Raises NotchError at an edit's path."""
    for edit in edits:
        job = _in_order(_HANDLERS[edit.verb](job, edit, unit, workshop))
    return job


def _in_order(job: Job) -> Job:
    """What was measured and how boards are laid out, in the order of the design's boards: so the same job is written the same way."""
    place = {board.id: i for i, board in enumerate(job.design.boards)}
    boards = tuple(sorted(job.basis.boards, key=lambda one: place.get(one[0], len(place))))
    layouts = tuple(sorted(job.layouts, key=lambda one: place.get(one[0], len(place))))
    if boards == job.basis.boards and layouts == job.layouts:
        return job
    return replace(job, basis=replace(job.basis, boards=boards), layouts=layouts)


def refuse_own_failures(edits: Sequence[Edit], before: Result | None, after: Result) -> None:
    """Raises the error of a step that fails since `edits` changed it, and PartTooLarge of a part that an edit of the design made too
    large for its sheet; `before` is the job without them, if it could be computed.

    What fails because something else was changed is a finding: the maker may want to change that first.
    """
    failed = before.build.failed if before else frozenset()
    for part in after.build.parts:
        if part.failed is None:
            continue
        path = f"parts/{part.id}/steps/{part.failed.step}"
        own = any(_within(edit.path, path) or _within(path, edit.path) for edit in edits)
        if path not in failed and own:
            raise part.failed.error
    if any(edit.steps[0] in ("basis", "layout") for edit in edits):
        return
    known = {one.part for one in before.layout.left} if before else set()
    for one in after.layout.left:
        if isinstance(one.error, PartTooLarge) and one.part not in known:
            raise one.error


def _within(path: str, around: str) -> bool:
    return path == around or path.startswith(f"{around}/")


def _put(job: Job, edit: Edit, unit: Unit, workshop: Workshop) -> Job:
    head, *rest = edit.steps
    design = job.design
    if head == "answers":
        return replace(job, design=put_answer(design, _one(rest, edit), edit.value, unit))
    if head == "dimensions" and rest[1:] == ["length"] and design.origin and design.origin.answer(rest[0]):
        return replace(job, design=put_answer(design, rest[0], edit.value, unit))
    if head == "sets" and not rest:
        return replace(job, sets=whole(edit.value, "sets", 1, MOST_SETS))
    if head == "basis" and rest:
        return replace(job, basis=put_basis(job.basis, rest, edit.value, unit, workshop, edit.path))
    if head == "layout" and len(rest) in (1, 2):
        return _put_layout(job, rest, edit.value, unit)
    _check_head(edit, design)
    changed = replace(job, design=tree.put(design, edit.steps, edit.value, unit, edit.after))
    _refuse_dangling(design, changed.design)
    if head == "boards" and len(rest) == 1 and all(name != rest[0] for name, _ in job.basis.boards):
        # A new board is as the first one until it is said which it is.
        first = job.basis.of(design.boards[0].id)
        changed = replace(changed, basis=job.basis.with_board(rest[0], first))
    return changed


def _refuse_dangling(before: Design, after: Design) -> None:
    """Raises BadDocument for a board, part or placement that an edit names and that is not there."""
    known = {path for path, _, _ in dangling(before)}
    for path, name, what in dangling(after):
        if path not in known and not path.endswith("/shape/part"):
            raise BadDocument(
                f"There is no {what} “{name}” in this job.", fix=f"Choose a {what} that there is.", field=path
            )


def _one(rest: Sequence[str], edit: Edit) -> str:
    if len(rest) != 1:
        raise tree.NoSuchPath(f"There is no “{edit.path}”.", fix="Write answers/NAME.", field=edit.path)
    return rest[0]


def _put_layout(job: Job, rest: Sequence[str], value: Any, unit: Unit) -> Job:
    path = f"layout/{rest[0]}"
    _check_board(job, rest[0], path)
    board = job.sheets_of(rest[0])
    before = asdict(job.chosen(board))
    if len(rest) == 1 and value is None:  # as usual for its machine
        return replace(job, layouts=tuple(one for one in job.layouts if one[0] != board))
    if len(rest) == 1:
        return with_layout(job, board, settings_from_json({**before, **mapping(value, path)}, path))
    if rest[1] not in before:
        raise tree.NoSuchPath(
            f"There is no “{path}/{rest[1]}”.", fix=f"Use: {', '.join(before)}.", field=f"{path}/{rest[1]}"
        )
    return with_layout(job, board, settings_from_json({**before, rest[1]: in_unit(value, unit)}, path))


def _check_board(job: Job, board: str, path: str) -> None:
    known = [one.id for one in job.design.boards]
    if board not in known:
        raise tree.NoSuchPath(f"This job has no board “{board}”.", fix=f"Use: {', '.join(known)}.", field=path)


def _check_head(edit: Edit, design: Design) -> None:
    names = [field.name for field in codec.fields_of(Design)]
    if edit.steps[0] not in names:
        raise tree.NoSuchPath(
            f"There is no “{edit.steps[0]}” in a job.",
            fix=f"Paths begin with: {', '.join((*names, 'answers', 'basis', 'layout', 'sets'))}.", field=edit.path,
        )  # fmt: skip
    if edit.steps[0] == "dimensions" and len(edit.steps) == 2:
        board = next((board.id for board in design.boards if board.id == edit.steps[1]), None)
        if board:
            raise BadDocument(f"“{board}” is the name of a board.", fix="Choose another name.", field=edit.path)


def _drop(job: Job, edit: Edit, unit: Unit, workshop: Workshop) -> Job:  # noqa: ARG001
    design, path = job.design, edit.path
    head, *rest = edit.steps
    if head not in LISTS:
        raise tree.NoSuchPath(f"“{path}” cannot be removed.", fix=f"Remove entries of: {', '.join(LISTS)}.", field=path)
    changed = tree.drop(design, edit.steps)
    if len(rest) != 1:
        return replace(job, design=changed)
    name = rest[0]
    if head == "boards":
        _refuse_use(
            [part.title for part in design.parts if part.board == name], name, path, "Give them another board first."
        )
        if not changed.boards:
            raise BadDocument("A job needs one board.", fix="Add another board first.", field=path)
        layouts = tuple(one for one in job.layouts if one[0] != name)
        return replace(job, design=changed, basis=drop_board_basis(job.basis, name), layouts=layouts)
    if head == "dimensions":
        _refuse_use(
            [where for where, typed in all_lengths(changed) if _names(typed, name)], name, path, "Change those first."
        )
    gone = {one.id for one in design.placements if one.part == name} if head == "parts" else {name} & _ids(design, head)
    if head in ("parts", "placements"):
        leaning = [
            one.id for one in design.placements
            if isinstance(one.pose, Against) and one.pose.placement in gone and one.id not in gone
        ]  # fmt: skip
        _refuse_use(leaning, name, path, "Give them another pose first.")
        changed = replace(
            changed,
            placements=tuple(one for one in changed.placements if one.id not in gone),
            joints=tuple(j for j in changed.joints if not {j.first.placement, j.second.placement} & gone),
        )
    return replace(job, design=changed)


def _ids(design: Design, head: str) -> set[str]:
    return {one.id for one in design.placements} if head == "placements" else set()


def _refuse_use(users: Sequence[str], name: str, path: str, fix: str) -> None:
    if users:
        shown = ", ".join(users[:3]) + (f" and {len(users) - 3} more" if len(users) > 3 else "")
        raise BadDocument(f"“{name}” is used by {shown}.", fix=fix, field=path)


def _move(job: Job, edit: Edit, unit: Unit, workshop: Workshop) -> Job:  # noqa: ARG001
    _check_head(edit, job.design)
    return replace(job, design=tree.move(job.design, edit.steps, edit.after or ""))


def _switch(job: Job, edit: Edit, unit: Unit, workshop: Workshop) -> Job:  # noqa: ARG001
    steps = edit.steps
    if len(steps) != 4 or (steps[0], steps[2]) != ("parts", "steps"):
        raise tree.NoSuchPath(f"“{edit.path}” is not a step.", fix="Switch parts/PART/steps/STEP.", field=edit.path)
    if tree.get(job.design, steps) is None:
        raise tree.NoSuchPath(
            f"There is no “{edit.path}” in this job.", fix="Name a step that there is.", field=edit.path
        )
    return replace(job, design=tree.put(job.design, (*steps, "on"), edit.value, unit, None))


def _rename(job: Job, edit: Edit, unit: Unit, workshop: Workshop) -> Job:  # noqa: ARG001
    head, *rest = edit.steps
    if head not in LISTS or len(rest) not in (1, 3):
        raise tree.NoSuchPath(f"“{edit.path}” has no name to change.", fix="Put its title instead.", field=edit.path)
    old, design = rest[-1], job.design
    if head == "dimensions" and design.origin and design.origin.answer(old):
        raise BadDocument(f"“{old}” belongs to the recipe.", fix="Add a dimension of your own.", field=edit.path)
    changed = tree.rekey(design, edit.steps, edit.to)
    if len(rest) == 3:
        return replace(job, design=_step_renamed(changed, rest[0], old, edit.to))
    if head == "boards":
        boards = tuple(
            (edit.to if name == old else name, one.into_renamed(old, edit.to)) for name, one in job.basis.boards
        )
        layouts = tuple((edit.to if name == old else name, one) for name, one in job.layouts)
        parts = tuple(replace(part, board=edit.to) if part.board == old else part for part in changed.parts)
        changed = _texts(
            replace(changed, parts=parts), lambda text: re.sub(rf"\b{old}\.(?=[a-z])", f"{edit.to}.", text)
        )
        return replace(job, design=changed, basis=replace(job.basis, boards=boards), layouts=layouts)
    if head == "dimensions":
        _check_head(Edit("put", f"dimensions/{edit.to}"), design)
        pattern = re.compile(rf"(?<![\w.]){re.escape(old)}(?![\w.])", re.ASCII)
        return replace(job, design=_texts(changed, lambda text: pattern.sub(edit.to, text)))
    if head == "parts":
        changed = _part_renamed(changed, old, edit.to)
    if head == "placements":
        changed = _placement_renamed(changed, old, edit.to)
    return replace(job, design=changed)


def _part_renamed(design: Design, old: str, to: str) -> Design:
    def step(one: Any) -> Any:
        made_of = isinstance(one, ShapeStep) and isinstance(one.shape, OtherPart) and one.shape.part == old
        return replace(one, shape=OtherPart(to)) if made_of else one

    return replace(
        design,
        placements=tuple(replace(one, part=to) if one.part == old else one for one in design.placements),
        parts=tuple(replace(part, steps=tuple(map(step, part.steps))) for part in design.parts),
    )


def _placement_renamed(design: Design, old: str, to: str) -> Design:
    def member(one: Member) -> Member:
        return replace(one, placement=to) if one.placement == old else one

    def placement(one: Placement) -> Placement:
        pose = one.pose
        return (
            replace(one, pose=replace(pose, placement=to))
            if isinstance(pose, Against) and pose.placement == old
            else one
        )

    joints = tuple(replace(joint, first=member(joint.first), second=member(joint.second)) for joint in design.joints)
    return replace(design, joints=joints, placements=tuple(map(placement, design.placements)))


def _step_renamed(design: Design, part_id: str, old: str, to: str) -> Design:
    """Edges, corners and what places are measured from are called after their step."""

    def name(one: str) -> str:
        # What comes first is the step, behind the sort where there is one: an edge of another may be called the same.
        return re.sub(rf"^((?:\w+:)?){re.escape(old)}(?=\.|$)", rf"\g<1>{to}", one)

    def member(one: Member) -> Member:
        return replace(one, edge=name(one.edge)) if one.placement in placements else one

    def part(one: Part) -> Part:
        return replace(one, steps=tuple(step.renamed(name) for step in one.steps)) if one.id == part_id else one

    def placement(one: Placement) -> Placement:
        pose = one.pose
        if not isinstance(pose, Against):
            return one
        own = name(pose.edge) if one.id in placements else pose.edge
        other = name(pose.other_edge) if pose.placement in placements else pose.other_edge
        return replace(one, pose=replace(pose, edge=own, other_edge=other))

    placements = {one.id for one in design.placements_of(part_id)}
    joints = tuple(replace(joint, first=member(joint.first), second=member(joint.second)) for joint in design.joints)
    return replace(
        design, joints=joints, parts=tuple(map(part, design.parts)), placements=tuple(map(placement, design.placements))
    )  # fmt: skip


def all_lengths(design: Design) -> Iterator[tuple[str, Length | Amount]]:
    """Every length and plain number of a design as typed, by its path."""
    return ((path, leaf) for path, leaf in tree.leaves(design) if isinstance(leaf, Length | Amount))


def number_in(design: Design, path: str, names: Mapping[str, Mapping[str, float]]) -> float:
    """What the number at a path comes to, lengths in mm; `names` are all lengths by board. Raises NotchError, and NoSuchPath where
    none is."""
    head, *rest = steps = path.split("/")
    if head == "answers" and len(rest) == 1:
        head, steps = "dimensions", ["dimensions", rest[0], "length"]
    part = design.part(rest[0]) if head == "parts" and rest else None
    known = names[part.board if part and part.board in names else design.boards[0].id]
    value = tree.get(design, steps)
    if isinstance(value, Length):
        return value.mm(known)
    if isinstance(value, Amount):
        return value.value(known)
    raise tree.NoSuchPath(f"There is no number at “{path}”.", fix="Name a length, an angle or a count.", field=path)


def _names(typed: Length | Amount, name: str) -> bool:
    from ..lengths.length import names_in

    return name in names_in(typed.text)


def _texts(design: Design, change: Callable[[str], str]) -> Design:
    """`design` with the text of every length changed."""
    changed: Mapping[str, str] = {path: change(typed.text) for path, typed in all_lengths(design)}
    for path, typed in list(all_lengths(design)):
        if changed[path] != typed.text:
            new = {"text": changed[path], "unit": typed.unit} if isinstance(typed, Length) else changed[path]
            design = tree.put(design, path.split("/"), new, "mm", None)
    return design


_HANDLERS: Mapping[str, Callable[[Job, Edit, Unit, Workshop], Job]] = {
    "put": _put, "drop": _drop, "move": _move, "rename": _rename, "switch": _switch,
}  # fmt: skip

__all__ = [
    "LISTS",
    "NO_WORKSHOP",
    "NotchError",
    "Workshop",
    "all_lengths",
    "edit_job",
    "number_in",
    "refuse_own_failures",
]
