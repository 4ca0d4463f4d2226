"""Edits of what was measured and chosen: a basis, a path below `basis/` and a value in, the changed basis out."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING, Any

from ..basis import (
    Basis,
    BoardBasis,
    board_basis_from_json,
    board_basis_to_json,
    board_from_json,
    machine_from_json,
)
from ..basis.equip import equipped, with_fits, with_kerf
from ..basis.never import refuse_never
from ..documents.plain import in_unit, mapping, sequence, text, whole
from ..ground.errors import BadDocument, NotchError
from ..lengths.units import Unit
from .tree import NoSuchPath

if TYPE_CHECKING:
    from .apply import Workshop


def put_basis(basis: Basis, steps: Sequence[str], value: Any, unit: Unit, workshop: Workshop, path: str) -> Basis:
    """`basis` with `value` at `<board>/<what>`, or with a whole board's basis at `<board>`. Raises NotchError at the path."""
    board, *rest = steps
    if not any(name == board for name, _ in basis.boards):
        known = ", ".join(name for name, _ in basis.boards)
        raise NoSuchPath(f"This job has no board “{board}”.", fix=f"Use: {known}.", field=path)
    before = basis.of(board)
    try:
        if not rest:
            return basis.with_board(board, _chosen(before, board_basis_from_json(value), path))
        if len(rest) == 2 and rest[0] == "into":  # of this board in one other
            rest, value = ["into"], {**dict(before.into), rest[1]: in_unit(value, unit)}
        if len(rest) != 1 or rest[0] not in _PUT:
            raise NoSuchPath(f"There is no “{path}”.", fix=f"Use: {', '.join(_PUT)}.", field=path)
        return basis.with_board(board, _chosen(before, _PUT[rest[0]](before, value, unit, workshop), path))
    except NotchError as error:
        if not error.field.startswith("basis/"):
            error.field = _at(board, error.field, path)
        raise


def _chosen(before: BoardBasis, after: BoardBasis, path: str) -> BoardBasis:
    """Raises NeverOnMachine where a board is brought to a machine that never cuts it; one that stands there stays, and is told of."""
    if _pair(before) != _pair(after):
        refuse_never(after.stock, after.machine, path)
    return after


def _pair(basis: BoardBasis) -> tuple[str, ...]:
    stock, machine = basis.stock, basis.machine
    return (stock.id or stock.name, stock.kind, stock.made_of, machine.id or machine.name, machine.kind)


def _at(board: str, field: str, path: str) -> str:
    """The path of a field that a board's own document names: "readings[2]" is basis/main/readings/2."""
    head = field.replace("[", "/").replace("]", "")
    for known in _PUT:
        if head == known or head.startswith(f"{known}/"):
            return f"basis/{board}/{head}"
    return f"{path}/{head}" if head else path


def drop_board_basis(basis: Basis, board: str) -> Basis:
    """`basis` without that board."""
    return Basis(tuple((name, one.into_renamed(board, "")) for name, one in basis.boards if name != board))


def _number(value: Any, what: str) -> int:
    """A number of the workshop's: a text that looks like one is a slip."""
    if type(value) is not int or not 0 <= value < 2**53:
        raise BadDocument(f"“{what}” is {value!r}.", fix="Give the workshop's number of it.", field=what)
    return value


def _stock(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    if isinstance(value, Mapping):
        return replace(before, stock=board_from_json(value))
    stock = workshop.stock(_number(value, "stock"))
    return equipped(stock, before.machine, workshop.entries(before.machine.id), before)


def _machine(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    if isinstance(value, Mapping):
        return replace(before, machine=machine_from_json(value))
    machine = workshop.machine(_number(value, "machine"))
    return equipped(before.stock, machine, workshop.entries(machine.id), before)


def _entry(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    found = workshop.entry(_number(value, "entry"))
    after = before
    if found.kerf is not None:
        after = replace(after, machine=with_kerf(after.machine, found))
    return with_fits(after, found.fits) if found.fits is not None else after


def _readings(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    readings = [in_unit(one, unit) for one in sequence(value, "readings", 100)]
    return _changed(before, "stock", {"readings": readings, "measured": ""})


def _kerf(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    return _changed(before, "machine", {"kerf": in_unit(value, unit), "found": None})


def _clearance(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    return board_basis_from_json({**board_basis_to_json(before), "clearance": in_unit(value, unit)})


def _into(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    given = {name: in_unit(one, unit) for name, one in mapping(value, "into").items()}
    return board_basis_from_json({**board_basis_to_json(before), "into": given})


def _tool(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    return replace(before, machine=before.machine.with_tool(text(value, "tool", required=False)))


def _sheet(before: BoardBasis, value: Any, unit: Unit, workshop: Workshop) -> BoardBasis:  # noqa: ARG001
    return replace(before, stock=before.stock.cut_from(whole(value, "sheet", 0, 1000)))


def _changed(before: BoardBasis, what: str, values: Mapping[str, Any]) -> BoardBasis:
    document = board_basis_to_json(before)
    return board_basis_from_json({**document, what: {**mapping(document[what], what), **values}})


_PUT: Mapping[str, Callable[[BoardBasis, Any, Unit, Workshop], BoardBasis]] = {
    "stock": _stock, "machine": _machine, "entry": _entry, "readings": _readings, "kerf": _kerf,
    "clearance": _clearance, "into": _into, "tool": _tool, "sheet": _sheet,
}  # fmt: skip
