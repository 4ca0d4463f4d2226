"""What an edit is. In and out: its plain document, {"verb": "put", "path": "parts/front/steps/hole-1/x", "value": "12"}.

- put: a value at a path; an entry of a list that is not there yet is added, `after` another one or at the end.
- drop: takes an entry out of its list, with what cannot be without it.
- move: puts an entry behind the one called `after`, or first where that is "".
- rename: gives an entry the name `to`, everywhere it is named.
- switch: a step on or off, `value` true or false.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, cast, get_args

from ..documents.plain import choice, entry, mapping, sequence, text
from ..ground.errors import BadDocument
from ..ground.limits import MOST_EDITS

Verb = Literal["put", "drop", "move", "rename", "switch"]
LONGEST_PATH = 400


@dataclass(frozen=True)
class Edit:
    """One act. `value` is a plain document; lengths in it may be texts."""

    verb: Verb
    path: str
    value: Any = None
    after: str | None = None
    to: str = ""

    @property
    def steps(self) -> tuple[str, ...]:
        return tuple(self.path.split("/"))


def put(path: str, value: object, after: str | None = None) -> Edit:
    return Edit("put", path, value, after)


def edits_from_json(documents: object) -> tuple[Edit, ...]:
    """Edits from their documents. Raises BadDocument at "edits/3/verb"."""
    given = sequence(documents, "edits", MOST_EDITS)
    return tuple(_edit(one, f"edits/{i}") for i, one in enumerate(given))


def _edit(document: object, path: str) -> Edit:
    given = mapping(document, path)
    verb = cast(Verb, choice(entry(given, "verb", path), get_args(Verb), f"{path}/verb"))
    where = text(entry(given, "path", path), f"{path}/path", LONGEST_PATH)
    if any(not step for step in where.split("/")):
        raise BadDocument(f"“{where}” is not a path.", fix="Write names with / between them.", field=f"{path}/path")
    after = given.get("after")
    unknown = set(given) - {"verb", "path", "value", "after", "to"}
    if unknown:
        raise BadDocument(f"“{sorted(unknown)[0]}” is not part of an edit.", fix="Leave it out.", field=path)
    return Edit(
        verb, where, given.get("value"), None if after is None else text(after, f"{path}/after", 100, required=False),
        text(given.get("to", ""), f"{path}/to", 100, required=verb == "rename"),
    )  # fmt: skip


def edits_to_json(edits: Sequence[Edit]) -> list[dict[str, Any]]:
    """The documents that `edits_from_json` reads."""
    return [_document(edit) for edit in edits]


def _document(edit: Edit) -> dict[str, Any]:
    optional: Mapping[str, Any] = {"value": edit.value, "after": edit.after, "to": edit.to or None}
    return {"verb": edit.verb, "path": edit.path, **{k: v for k, v in optional.items() if v is not None}}
