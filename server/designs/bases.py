"""What jobs were computed from, told from their documents without computing them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any, Literal, cast

from .models import Design, Revision

Document = Mapping[str, Any]


def bases_of(designs: Sequence[Design]) -> dict[int, Document]:
    """By head: a document's other parts are large, and not needed."""
    heads = Revision.objects.filter(pk__in=[one.head_id for one in designs])
    return dict(heads.values_list("pk", "document__basis"))


def boards_of(basis: Document | None) -> Iterable[Document]:
    """Of a basis of either version; of one that is none, nothing."""
    if not isinstance(basis, Mapping):
        return ()
    return cast("Iterable[Document]", basis["boards"].values() if "boards" in basis else (basis,))


def is_of(basis: Document | None, what: Literal["stock", "machine"], number: int) -> bool:
    """Whether a board of it is the rack's, or on the workshop's machine, of that number."""
    return any(one.get(what, {}).get("id", "") == str(number) for one in boards_of(basis))
