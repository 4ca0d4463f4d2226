"""What jobs were computed from, told from their documents without computing them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any, Literal, cast

from lean_notch.design import MAIN

from .models import Design, Revision

Document = Mapping[str, Any]


def bases_of(designs: Sequence[Design]) -> dict[int, Document]:
    """By head: a document's other parts are large, and not needed."""
    heads = Revision.objects.filter(pk__in=[one.head_id for one in designs])
    return dict(heads.values_list("pk", "document__basis"))


def named_boards_of(basis: Document | None) -> Iterable[tuple[str, Document]]:
    """Of a basis of either version, by their ids; of one that is none, nothing."""
    if not isinstance(basis, Mapping):
        return ()
    return cast("Iterable[tuple[str, Document]]", basis["boards"].items() if "boards" in basis else ((MAIN.id, basis),))


def boards_of(basis: Document | None) -> Iterable[Document]:
    return (one for _, one in named_boards_of(basis))


def is_of(basis: Document | None, what: Literal["stock", "machine"], number: int) -> bool:
    """Whether a board of it is the rack's, or on the workshop's machine, of that number."""
    return any(one.get(what, {}).get("id", "") == str(number) for one in boards_of(basis))
