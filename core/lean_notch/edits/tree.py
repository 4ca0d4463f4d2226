"""Values by path: what the verbs do to a frozen value, entry by entry and field by field, whatever its type.

`parts/front/steps/hole-1/x` goes through fields by their names and through lists by their entries' keys.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Any, get_args, get_origin

from ..documents import codec
from ..documents.codec import Field, join
from ..documents.rules import Many
from ..ground.errors import NotchError
from ..ground.limits import MOST_ENTRIES
from ..lengths.length import Amount, Length
from ..lengths.units import Unit


class NoSuchPath(NotchError):
    """An edit names something that is not there."""

    code = "no-such-path"


def put(value: Any, steps: Sequence[str], raw: Any, unit: Unit, after: str | None, path: str = "") -> Any:
    """`value` with what `raw` describes at the path; a keyed entry that is not there yet is added."""
    name, *rest = steps
    field = _field(value, name, path)
    here, old = join(path, name), getattr(value, name)
    if not rest:
        return replace(value, **{name: codec.read(field.whole_hint, codec.in_unit(field.whole_hint, raw, unit), here)})
    if is_list(field):
        return replace(value, **{name: _put_entry(old, field, rest, raw, unit, after, here)})
    if not dataclasses.is_dataclass(old) or is_typed(old):
        raise _missing(here, rest[0], ())
    return replace(value, **{name: put(old, rest, raw, unit, after, here)})


def _put_entry(
    entries: tuple[Any, ...], field: Field, steps: Sequence[str], raw: Any, unit: Unit, after: str | None, path: str
) -> tuple[Any, ...]:
    key, *rest = steps
    found = _index(entries, key)
    here = join(path, key)
    if rest:
        if found is None:
            raise _missing(path, key, keys_of(entries))
        changed = put(entries[found], rest, raw, unit, after, here)
        return (*entries[:found], changed, *entries[found + 1 :])
    hint, many = get_args(field.hint)[0], field.many or Many(MOST_ENTRIES)
    named = {**raw, _key_name(hint): key} if isinstance(raw, dict) else raw
    entry = codec.read(hint, codec.in_unit(hint, named, unit), here)
    if found is not None:
        return (*entries[:found], entry, *entries[found + 1 :])
    if len(entries) >= many.most:
        raise NoSuchPath(f"There are {len(entries)} already.", fix=f"At most {many.most} are allowed.", field=here)
    at = len(entries) if after is None else _place(entries, after, path)
    return (*entries[:at], entry, *entries[at:])


def drop(value: Any, steps: Sequence[str], path: str = "") -> Any:
    """`value` without the entry at the path."""

    def without(entries: tuple[Any, ...], found: int) -> tuple[Any, ...]:
        return (*entries[:found], *entries[found + 1 :])

    return _change_list(value, steps, without, path)


def move(value: Any, steps: Sequence[str], after: str, path: str = "") -> Any:
    """`value` with the entry at the path behind the one called `after`, or first for ""."""

    def moved(entries: tuple[Any, ...], found: int) -> tuple[Any, ...]:
        rest = (*entries[:found], *entries[found + 1 :])
        at = _place(rest, after, "/".join(steps[:-1]))
        return (*rest[:at], entries[found], *rest[at:])

    return _change_list(value, steps, moved, path)


def rekey(value: Any, steps: Sequence[str], to: str, path: str = "") -> Any:
    """`value` with another name for the entry at the path; what names it is not looked at."""

    def named(entries: tuple[Any, ...], found: int) -> tuple[Any, ...]:
        if _index(entries, to) is not None:
            raise NoSuchPath(f"“{to}” is there already.", fix="Choose another name.", field="/".join(steps))
        entry = entries[found]
        name = type(entry).KEY
        field = next(one for one in codec.fields_of(type(entry)) if one.name == name)
        changed = replace(entry, **{name: codec.read(field.whole_hint, to, "/".join(steps))})
        return (*entries[:found], changed, *entries[found + 1 :])

    return _change_list(value, steps, named, path)


_Lists = Callable[[tuple[Any, ...], int], tuple[Any, ...]]


def _change_list(value: Any, steps: Sequence[str], change: _Lists, path: str) -> Any:
    name, *rest = steps
    field = _field(value, name, path)
    here, old = join(path, name), getattr(value, name)
    if not rest or not is_list(field):
        if rest and dataclasses.is_dataclass(old):
            return replace(value, **{name: _change_list(old, rest, change, here)})
        raise NoSuchPath(f"“{here}” is not an entry of a list.", fix="Name an entry.", field=here)
    key, *deeper = rest
    found = _index(old, key)
    if found is None:
        raise _missing(here, key, keys_of(old))
    if not deeper:
        return replace(value, **{name: change(old, found)})
    changed = _change_list(old[found], deeper, change, join(here, key))
    return replace(value, **{name: (*old[:found], changed, *old[found + 1 :])})


def get(value: Any, steps: Sequence[str]) -> Any:
    """What is at the path, None if nothing is."""
    for step in steps:
        if isinstance(value, tuple):
            found = _index(value, step)
            value = None if found is None else value[found]
        else:
            value = getattr(value, step, None) if dataclasses.is_dataclass(value) else None
        if value is None:
            return None
    return value


def leaves(value: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Every field that holds no other, by its path; of a keyed list also "<path>/#order", its keys."""
    for field in codec.fields_of(type(value)):
        one, here = getattr(value, field.name), join(path, field.name)
        if is_list(field):
            yield f"{here}/#order", keys_of(one)
            for entry in one:
                yield from _of_entry(entry, join(here, keys_of((entry,))[0]))
        elif dataclasses.is_dataclass(one) and not is_typed(one):
            yield f"{here}/kind", getattr(type(one), "kind", "")
            yield from leaves(one, here)
        else:
            yield here, one


def _of_entry(entry: Any, path: str) -> Iterator[tuple[str, Any]]:
    yield f"{path}/kind", getattr(type(entry), "kind", "")
    yield from leaves(entry, path)


def is_typed(value: Any) -> bool:
    """Whether a value is a number as it was typed, which goes as a whole."""
    return isinstance(value, Length | Amount)


def _field(value: Any, name: str, path: str) -> Field:
    fields = codec.fields_of(type(value))
    found = next((one for one in fields if one.name == name), None)
    if found is None:
        raise _missing(path, name, [one.name for one in fields])
    return found


def is_list(field: Field) -> bool:
    """Whether a field is a list whose entries go by their keys."""
    args = get_args(field.hint)
    whole = get_origin(field.hint) is tuple and len(args) == 2 and args[1] is Ellipsis
    return whole and hasattr(codec.some_class(args[0]), "KEY")


def _key_name(hint: Any) -> str:
    return str(codec.some_class(hint).KEY)


def keys_of(entries: Sequence[Any]) -> tuple[str, ...]:
    """What the entries of a list go by, in their order."""
    return tuple(codec.key_of(entry) or "" for entry in entries)


def _index(entries: Sequence[Any], key: str) -> int | None:
    return next((i for i, entry in enumerate(entries) if codec.key_of(entry) == key), None)


def _place(entries: Sequence[Any], after: str, path: str) -> int:
    if not after:
        return 0
    found = _index(entries, after)
    if found is None:
        raise _missing(path, after, keys_of(entries))
    return found + 1


def _missing(path: str, name: str, known: Sequence[str]) -> NoSuchPath:
    what = ", ".join(known[:20]) or "nothing yet"
    return NoSuchPath(
        f"There is no “{join(path, name)}” in this job.", fix=f"There {'is' if len(known) < 2 else 'are'}: {what}.",
        field=join(path, name),
    )  # fmt: skip
