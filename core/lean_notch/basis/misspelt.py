"""A basis as somebody wrote it by hand: in, its document; out, nothing, or an error at an entry that no basis has."""

from __future__ import annotations

import difflib
from collections.abc import Mapping

from ..documents.plain import mapping
from ..ground.errors import BadDocument
from .basis import board_basis_from_json, board_basis_to_json


def check_entries(document: object) -> None:
    """Raises BadDocument at an entry that a document written by hand has and a basis does not know, a slip in its name for instance:
    it would be passed over, and something usual taken in its place."""
    top = mapping(document, "basis")
    boards = top.get("boards", {}) if "lean_notch_basis" in top else {"": top}
    for one in mapping(boards, "boards").values():
        known = board_basis_to_json(board_basis_from_json(one))
        stock = {"offcuts": [], "note": ""}  # what a rack keeps of a board, and a job does not
        _check_known(one, {"into": {}, **known, "stock": {**stock, **known["stock"]}}, "")


_OWN_NAMES = ("into",)


def _check_known(given: object, known: object, path: str) -> None:
    if isinstance(given, Mapping) and isinstance(known, Mapping):
        for name, value in given.items():
            field = f"{path}.{name}" if path else str(name)
            if name not in known:
                near = difflib.get_close_matches(str(name), known, 1)
                fix = f"Did you mean “{near[0]}”?" if near else f"Use: {', '.join(sorted(known))}."
                raise BadDocument(f"“{field}” is not known.", fix=fix, field=field)
            if name not in _OWN_NAMES:
                _check_known(value, known[name], field)
    elif isinstance(given, list) and isinstance(known, list | tuple):
        for number, (one, other) in enumerate(zip(given, known, strict=False)):
            _check_known(one, other, f"{path}[{number}]")
