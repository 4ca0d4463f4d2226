"""Boards that are never cut on a kind of machine: in, what is written down of a board; out, the reason, or a refusal."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..documents.plain import choice, mapping, text
from ..ground.errors import BadDocument, MissingInput, NotchError

if TYPE_CHECKING:
    from .machine import Machine
    from .stock import Board


class NeverOnMachine(NotchError):
    code = "never-on-machine"


@dataclass(frozen=True)
class Rule:
    """Whether a board is `never` cut on a kind of machine, or may be although others of its kind are not; and why."""

    never: bool
    reason: str


CHLORINE = "in the beam it gives off hydrogen chloride, which is poisonous and eats the machine"
"""Common practice, as are all reasons here."""
PVC = Rule(True, CHLORINE)
UNKNOWN = Rule(True, f"it may hold chlorine, and then {CHLORINE}")
FIBRES = Rule(True, "its resin burns to poisonous smoke, and its fibres stay in the lungs")

MADE_OF: Mapping[str, Rule | None] = {
    "paper and resin": None,
    "wood and resin": None,
    "aluminium and plastic": None,
    "glass or carbon fibres in resin": FIBRES,
    "with PVC or another chlorinated plastic": PVC,
    "not known": UNKNOWN,
}
"""What a composite is asked to be made of, and what that says of a laser."""


def rule_from_json(document: object, field: str) -> Rule | None:
    """None for a board that is as usual for its kind. Raises NotchError at the field."""
    if document is None:
        return None
    given = mapping(document, field)
    if not isinstance(given.get("never"), bool):
        raise BadDocument(
            f"“never” is {given.get('never')!r}.", fix="Give true, or false to overrule what is usual.", field=field
        )
    why = str(given.get("reason", ""))
    if not why.strip():
        raise MissingInput("The reason is missing.", fix="Say why: it is shown wherever it matters.", field=field)
    return Rule(given["never"], text(why, field, 200))


def made_of_from_json(document: object, kind: str) -> str:
    """ "" for what is no composite, and for one that nobody was asked about. Raises NotchError at "made_of"."""
    if kind != "composite" or document in (None, ""):
        return ""
    return choice(document, tuple(MADE_OF), "made_of")


def ask_made_of(stock: Board) -> None:
    """Raises MissingInput at "made_of" for a composite of which that is not known."""
    if stock.kind == "composite" and not stock.made_of:
        raise MissingInput(
            "What the composite is made of is missing: some are never cut on a laser.",
            fix=f"Choose one of: {', '.join(MADE_OF)}.",
            field="made_of",
        )


def say_never(stock: Board, machine: Machine) -> str:
    """That this machine never cuts a board, and why; "" where it may."""
    reason = stock.never_on(machine.kind)
    return f"{stock.name} is never cut on a {machine.kind}: {reason}." if reason else ""


def refuse_never(stock: Board, machine: Machine, field: str) -> None:
    """Raises NeverOnMachine at `field` for a board that this machine never cuts."""
    if why := say_never(stock, machine):
        raise NeverOnMachine(
            why,
            fix="Choose another machine or board. Whoever knows what it is may overrule that at the board on the rack, with "
            "the reason.",
            field=field,
        )  # fmt: skip
