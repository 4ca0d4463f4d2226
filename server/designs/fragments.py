"""A job as shown, in pieces of JSON: what did not change since a window was answered is neither written nor sent again."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from lean_notch.ground.remembered import Remembered, characters

MAPPINGS = ("ledger",)
"""Fields whose entries stand under their names; the others are lists of things that say theirs."""

MOST_WEIGHT = 500_000
"""About 25 million characters."""


@dataclass(frozen=True)
class Whole:
    """`about` says where the job stands in its history; all else follows from the job. `plain` are fields, `lists` fields whose
    entries are told apart by name. All of it is JSON."""

    about: Mapping[str, str]
    plain: Mapping[str, str]
    lists: Mapping[str, Mapping[str, str]]

    @property
    def weight(self) -> int:
        lists = self.lists.values()
        return sum(map(characters, self.plain.values())) + sum(sum(map(characters, some.values())) for some in lists)

    def text(self) -> str:
        """All of it."""
        lists = {
            name: _object(some) if name in MAPPINGS else f"[{','.join(some.values())}]"
            for name, some in self.lists.items()
        }
        return _object({**self.about, **self.plain, **lists})

    def since(self, before: Whole, revision: int) -> str:
        """What whoever holds `before`, the job's revision of that number, has to be told."""
        plain = {name: one for name, one in self.plain.items() if before.plain.get(name) != one}
        lists = {name: _changes(some, before.lists[name]) for name, some in self.lists.items()}
        return _object(
            {
                "since": json.dumps(revision), "plain": _object({**self.about, **plain}),
                "lists": _object({name: change for name, change in lists.items() if change}),
            }
        )  # fmt: skip


def _changes(after: Mapping[str, str], before: Mapping[str, str]) -> str:
    """Entries that are new or other, and the order where that changed; "" if nothing did."""
    changed = {name: one for name, one in after.items() if before.get(name) != one}
    same_order = list(after) == list(before)
    if same_order and not changed:
        return ""
    order = "null" if same_order else json.dumps(list(after))
    return _object({"order": order, "changed": _object(changed)})


def _object(fields: Mapping[str, str]) -> str:
    return "{" + ",".join([f"{json.dumps(name)}:{one}" for name, one in fields.items()]) + "}"


_PIECES: Remembered[str] = Remembered(16_384, characters, MOST_WEIGHT, shared="shown")
_SHOWN: Remembered[Whole] = Remembered(64, lambda whole: whole.weight, MOST_WEIGHT)


def piece(given: tuple[object, ...], make: Callable[[], Any], of: str = "") -> str:
    """The JSON of what `make` gives, kept for as long as all of `given` is the same; `of` is the part that it is of."""
    return _PIECES(given, lambda: _text(make()), of)


def _text(value: Any) -> str:
    return value.model_dump_json() if hasattr(value, "model_dump_json") else json.dumps(value)


def keep_shown(revision: tuple[object, ...], whole: Whole) -> None:
    _SHOWN.keep(revision, whole)


def shown_of(revision: tuple[object, ...]) -> Whole | None:
    return _SHOWN.find(revision)
