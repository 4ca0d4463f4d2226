"""Do two edits get in each other's way? What each writes is what differs after it; what it reads are the names it uses.

In: the job that both started from, and both lists of edits; out: whether they can be made in either order.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from ..basis import board_basis_to_json
from ..design import step_of
from ..ground.errors import NotchError
from ..job import Job
from ..lengths.length import Amount, Length, names_in
from ..recipes import RECIPES
from . import tree
from .edit import Edit


def independent(before: Job, mine: Sequence[Edit], after_mine: Job, theirs: Sequence[Edit], after_theirs: Job) -> bool:
    """Whether neither reads or writes what the other writes."""
    state, state_mine, state_theirs = _state(before), _state(after_mine), _state(after_theirs)
    write_mine = _writes(state, state_mine) | _targets(mine)
    write_theirs = _writes(state, state_theirs) | _targets(theirs)
    if _listed_anew(mine, write_mine) & _shorter(state, state_theirs) or _listed_anew(theirs, write_theirs) & _shorter(
        state, state_mine
    ):
        return False
    for edits, after, writes in ((mine, after_mine, write_theirs), (theirs, after_theirs, write_mine)):
        if _meet(_come_and_go(edits, before, after), writes):
            return False
    read_mine, read_theirs = _reads(mine, after_mine, write_mine), _reads(theirs, after_theirs, write_theirs)
    return not (_meet(write_mine, write_theirs | read_theirs) or _meet(write_theirs, read_mine))


def _come_and_go(edits: Sequence[Edit], before: Job, after: Job) -> set[str]:
    """Entries that a recipe makes only before or only after an answer: whether they stay depends on what was done to them by hand."""
    recipe = RECIPES.get(before.design.origin.recipe) if before.design.origin else None
    if recipe is None or not any(edit.steps[0] in ("answers", "dimensions") for edit in edits):
        return set()
    try:
        old, new = recipe.again(before.design), recipe.again(after.design)
    except NotchError:
        return {"parts", "placements", "joints"}
    return {
        f"{name}/{key}"
        for name in ("parts", "placements", "joints", "dimensions")
        for key in set(tree.keys_of(getattr(old, name))) ^ set(tree.keys_of(getattr(new, name)))
    }


def _listed_anew(edits: Sequence[Edit], writes: set[str]) -> set[str]:
    """Lists that a recipe's answer makes anew: what is in them by hand is kept in an order that follows from all their entries."""
    if not any(edit.steps[0] == "answers" for edit in edits):
        return set()
    return {path for path in writes if path.endswith("/#order")}


def _shorter(before: Mapping[str, Any], after: Mapping[str, Any]) -> set[str]:
    """Lists that something was taken out of."""
    return {path for path, old in before.items() if path.endswith("/#order") and set(old) - set(after.get(path) or ())}


def _state(job: Job) -> dict[str, Any]:
    """Every leaf of a job by its path."""
    found = dict(tree.leaves(job.design))
    for board, one in job.basis.boards:
        document = board_basis_to_json(one)
        for name in ("clearance", "fits"):
            found[f"basis/{board}/{name}"] = document[name]
        found |= {f"basis/{board}/into/{other}": value for other, value in one.into}
        for what in ("stock", "machine"):
            found |= {f"basis/{board}/{what}/{name}": value for name, value in document[what].items()}
    for board, settings in job.layouts:
        found |= {f"layout/{board}/{name}": value for name, value in vars(settings).items()}
    found["sets"] = job.sets
    return found


def _writes(before: Mapping[str, Any], after: Mapping[str, Any]) -> set[str]:
    """The paths that differ; of an order only if it is not just that something is gone."""
    found = set()
    for path in before.keys() | after.keys():
        old, new = before.get(path), after.get(path)
        if old == new and (path in before) == (path in after):
            continue
        if path.endswith("/#order") and old is not None and new is not None:
            if tuple(key for key in old if key in new) == new:
                found |= {path.replace("#order", key) for key in old if key not in new}
                continue
            found |= {path.replace("#order", key) for key in set(old) ^ set(new)}
        found.add(path)
    return found


def _targets(edits: Iterable[Edit]) -> set[str]:
    """What edits put, also where that is what was there before: an answer is the recipe's, and its dimension's."""
    edits = tuple(edits)
    found = {edit.path for edit in edits if edit.verb in ("put", "switch")}
    found |= {"/".join((*edit.steps[:-1], "#order")) for edit in edits if edit.verb == "move"}
    answers = {path.removeprefix("answers/") for path in found if path.startswith("answers/")}
    return found | {f"origin/answers/{name}" for name in answers} | {f"dimensions/{name}/length" for name in answers}


def _reads(edits: Iterable[Edit], after: Job, writes: set[str]) -> set[str]:
    """What the written lengths name, the entries that edits and what they wrote lie in, and anchors in lists."""
    found: set[str] = set()
    state = dict(tree.leaves(after.design))
    boards = {board.id for board in after.design.boards}
    for path in writes:
        leaf = state.get(path)
        if isinstance(leaf, Length | Amount):
            for name in names_in(leaf.text):
                board, _, what = name.partition(".")
                found.add(f"basis/{board}" if what and board in boards else f"dimensions/{name}")
        if isinstance(leaf, str) and path.rsplit("/", 1)[-1] in ("part", "placement", "board"):
            found.add(f"{path.rsplit('/', 1)[-1]}s/{leaf}")
        if isinstance(leaf, str) and leaf and path.rsplit("/", 1)[-1] in _MEASURED and path.startswith("parts/"):
            found.add(f"parts/{path.split('/')[1]}/steps/{step_of(leaf)}")
        if path.endswith(("/edge", "/other_edge")) and isinstance(leaf, str):
            own = path.startswith("placements/") and path.endswith("/edge")
            member = path.split("/")[1] if own else state.get(f"{path.rpartition('/')[0]}/placement")
            part = next((one.part for one in after.design.placements if one.id == member), "")
            found.add(f"parts/{part}/steps/{leaf.rpartition('.')[0]}")
    for edit in edits:
        found.add(edit.path)
        if edit.steps[0] in ("basis", "layout"):
            found |= {f"boards/{name}" for name in edit.steps[1:] if name in boards}
        if edit.steps[0] == "boards":  # a new one begins as the first one is
            found.add(f"basis/{after.design.boards[0].id}")
        if edit.after:
            found.add("/".join((*edit.steps[:-1], edit.after)))
    return found


_MEASURED = ("from_x", "to_x", "from_y", "to_y", "start", "end")
"""Fields of a step that name another one."""


def _meet(writes: set[str], others: set[str]) -> bool:
    """Whether a path of one lies on, in or around a path of the other."""
    if writes & others:
        return True
    around = {prefix for path in others for prefix in _prefixes(path)}
    return any(path in around for path in writes) or any(
        prefix in others for path in writes for prefix in _prefixes(path)
    )


def _prefixes(path: str) -> Iterable[str]:
    steps = path.split("/")
    return ("/".join(steps[:i]) for i in range(1, len(steps)))
