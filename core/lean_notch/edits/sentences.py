"""Edits in words, as the history tells them: the job before, the edits and the job after in; one sentence out.

Lengths are written "<number> mm", so that an edge can show them in another unit.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ..design import Dimension, Joint, Part, Placement, ShapeStep
from ..documents import codec
from ..ground.errors import NotchError
from ..ground.wording import capital
from ..job import Job
from ..lengths.length import Amount, Length
from ..lengths.said import say_mm
from ..making import title_of
from ..steps import Step
from . import tree
from .edit import Edit

MOST_TOLD = 3
_BASIS = {
    "readings": "the readings", "kerf": "the kerf", "clearance": "the clearance", "into": "the clearance in another board", "tool": "the tool", "sheet": "the sheet",
    "stock": "the board", "machine": "the machine", "entry": "the kerf, from the notebook,",
}  # fmt: skip


def sentence(before: Job, edits: Sequence[Edit], after: Job) -> str:
    """What `edits` did, at most a few of them one by one."""
    told = list(dict.fromkeys(_told(before, edit, after) for edit in edits))
    moved = _moved(before, edits, after)
    if moved:
        told = [moved]
    shown = told[:MOST_TOLD]
    more = f", and {len(told) - MOST_TOLD} more" if len(told) > MOST_TOLD else ""
    text = ", ".join(shown) + more
    return capital(text)


def _told(before: Job, edit: Edit, after: Job) -> str:
    if edit.verb == "drop":
        return f"removed {_name(before, edit.steps)}"
    if edit.verb == "move":
        behind = f"after {_name(before, (*edit.steps[:-1], edit.after))}" if edit.after else "to the front"
        return f"moved {_name(before, edit.steps)} {behind}"
    if edit.verb == "rename":
        return f"renamed {_name(before, edit.steps)} to {edit.to}"
    if edit.verb == "switch":
        return f"switched {_name(before, edit.steps)} {'on' if edit.value is True else 'off'}"
    return _put(before, edit, after)


def _put(before: Job, edit: Edit, after: Job) -> str:
    head, *rest = edit.steps
    if edit.path == "name":
        return f"renamed the job to {after.design.name}"
    if edit.path == "sets":
        return f"made {after.sets} set{'s' * (after.sets > 1)} of it"
    if head == "answers":
        answer = after.design.origin.answer(rest[0]) if after.design.origin else None
        return f"set {_words(rest[0])} to {_typed(answer.length) if answer and answer.text else 'nothing'}"
    if head == "basis":
        what = _BASIS.get(rest[1], rest[1]) if len(rest) > 1 else "the basis"
        return f"changed {what}{_of_board(after, rest[0])}{_basis_figures(before, after, rest)}"
    if head == "layout":
        return f"changed the {_words(rest[-1]) if len(rest) > 1 else 'layout'}{_of_board(after, rest[0])}"
    old, new = tree.get(before.design, edit.steps), tree.get(after.design, edit.steps)
    if head == "parts" and rest[1:] == ["board"]:
        old, new = (
            next((b.title for b in job.design.boards if b.id == one), one) for job, one in ((before, old), (after, new))
        )
    if _is_entry(new):
        return f"{'changed' if old is not None else 'added'} {_name(after, edit.steps)}"
    if new in (None, "") and old not in (None, ""):
        return f"cleared {_field(after, edit.steps)}"
    return f"changed {_field(after, edit.steps)}{_change(old, new)}"


def _basis_figures(before: Job, after: Job, rest: Sequence[str]) -> str:
    old, new = dict(before.basis.boards).get(rest[0]), dict(after.basis.boards).get(rest[0])
    if old is None or new is None or len(rest) < 2:
        return ""
    pairs: Mapping[str, tuple[Any, Any]] = {
        "readings": (say_mm(old.thickness), say_mm(new.thickness)), "kerf": (say_mm(old.kerf), say_mm(new.kerf)),
        "clearance": (say_mm(old.clearance), say_mm(new.clearance)), "stock": (old.stock.name, new.stock.name),
        "machine": (old.machine.name, new.machine.name), "entry": (say_mm(old.kerf), say_mm(new.kerf)),
        "tool": (old.machine.tool or "none", new.machine.tool or "none"),
    }  # fmt: skip
    was, now = pairs.get(rest[1], ("", ""))
    return f" from {was} to {now}" if was != now else ""


def _of_board(job: Job, board: str) -> str:
    """Which board, where there are several."""
    title = next((one.title for one in job.design.boards if one.id == board), board)
    return f" of {title}" if len(job.design.boards) > 1 else ""


def _moved(before: Job, edits: Sequence[Edit], after: Job) -> str:
    """A place that was changed by plain figures: "moved hole 1 of Front by 2 mm"."""
    if not edits or any(edit.verb != "put" or edit.steps[-1] not in ("x", "y") for edit in edits):
        return ""
    owners = {edit.steps[:-1] for edit in edits}
    if len(owners) != 1:
        return ""
    [owner] = owners
    old, new = tree.get(before.design, owner), tree.get(after.design, owner)
    if not isinstance(old, ShapeStep) or not isinstance(new, ShapeStep):
        return ""
    try:
        dx, dy = new.x.mm() - old.x.mm(), new.y.mm() - old.y.mm()
    except NotchError:
        return ""
    ways = [f"{say_mm(abs(dx))} to the {'right' if dx > 0 else 'left'}"] if dx else []
    ways += [f"{say_mm(abs(dy))} {'up' if dy > 0 else 'down'}"] if dy else []
    return f"moved {_name(after, owner)} by {' and '.join(ways)}" if ways else ""


def _is_entry(value: object) -> bool:
    return value is not None and codec.key_of(value) is not None


def _name(job: Job, steps: Sequence[str]) -> str:
    """An entry in words: "hole 1 of Front", "the joint “Front meets base”"."""
    value = tree.get(job.design, steps)
    if isinstance(value, Step):
        part = tree.get(job.design, steps[:2])
        return f"{title_of(value)} of {part.title}"
    if isinstance(value, Part):
        return value.title
    if isinstance(value, Joint):
        return f"the joint “{value.title}”"
    if isinstance(value, Placement):
        part = job.design.part(value.part)
        return f"the placement {value.id} of {part.title if part else value.part}"
    if isinstance(value, Dimension):
        return f"the length {value.title}"
    title = getattr(value, "title", "")
    return f"the board {title}" if title else _words(steps[-1])


def _field(job: Job, steps: Sequence[str]) -> str:
    """A field in words, with what it belongs to: "the diameter of hole 1 of Front"."""
    owner = next(
        (steps[:i] for i in range(len(steps) - 1, 0, -1) if _is_entry(tree.get(job.design, steps[:i]))), ()
    )  # fmt: skip
    title = _words(steps[-1])
    holder = tree.get(job.design, steps[:-1])
    if holder is not None and not isinstance(holder, tuple):
        for field in codec.fields_of(type(holder)):
            if field.name == steps[-1] and field.title:
                title = field.title.text[:1].lower() + field.title.text[1:]
    return f"the {title} of {_name(job, owner)}" if owner else f"the {title}"


def _change(old: object, new: object) -> str:
    if isinstance(new, Length):
        return f" from {_typed(old)} to {_typed(new)}" if isinstance(old, Length) else f" to {_typed(new)}"
    if isinstance(new, Amount):
        return f" from {old.text} to {new.text}" if isinstance(old, Amount) else f" to {new.text}"
    if isinstance(new, bool):
        return " to yes" if new else " to no"
    if isinstance(new, str | int | float) and new != "":
        return f" from {old} to {new}" if old not in (None, "") else f" to {new}"
    return ""


def _typed(length: Length) -> str:
    """As it was typed, a bare number with its unit."""
    bare = length.text.replace(".", "").replace("/", "").replace(" ", "").isdigit()
    return f"{length.text} {length.unit}" if bare else length.text


def _words(name: str) -> str:
    return name.replace("-", " ").replace("_", " ")
