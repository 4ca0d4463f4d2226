"""The edits that lead from one job to another: what an inverse is made of."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from dataclasses import asdict, replace
from typing import Any, TypeVar

from ..basis import board_basis_to_json
from ..design import Design
from ..documents import codec
from ..documents.codec import join
from ..job import Job
from .edit import Edit, put
from .tree import is_list, is_typed, keys_of

T = TypeVar("T")


def edits_between(before: Job, after: Job) -> tuple[Edit, ...]:
    """Edits with which `edit_job` makes `after` of `before`.

    What goes, goes first, and what names others before what it names; boards come first and go last, since parts are of
    them.
    """
    old, new = before.design, after.design
    found = [put(f"boards/{one.id}", codec.write(one)) for one in new.boards if one.id not in keys_of(old.boards)]
    parts = _gone(old.parts, new.parts)
    # A part goes with its placements, and they with their joints: what stays of those is put again.
    placements = _gone(old.placements, new.placements) | {one.id for one in old.placements if one.part in parts}
    joints = _gone(old.joints, new.joints) | {
        one.id for one in old.joints if {one.first.placement, one.second.placement} & placements
    }
    found += [Edit("drop", f"joints/{one.id}") for one in old.joints if one.id in joints]
    found += [Edit("drop", f"placements/{one.id}") for one in old.placements if one.id in placements]
    found += [Edit("drop", f"parts/{one.id}") for one in old.parts if one.id in parts]
    old = replace(
        old, joints=_without(old.joints, joints), placements=_without(old.placements, placements),
        parts=_without(old.parts, parts),
    )  # fmt: skip
    found += _design(old, new)
    found += [
        put(f"basis/{board}", board_basis_to_json(one))
        for board, one in after.basis.boards
        if dict(before.basis.boards).get(board) != one
    ]
    settings = dict(before.layouts)
    found += [put(f"layout/{board}", asdict(one)) for board, one in after.layouts if settings.get(board) != one]
    kept = dict(after.layouts)
    found += [put(f"layout/{board}", None) for board in settings if board not in kept and board in keys_of(new.boards)]
    if before.sets != after.sets:
        found.append(put("sets", after.sets))
    return tuple(found)


def _gone(old: tuple[Any, ...], new: tuple[Any, ...]) -> set[str]:
    return set(keys_of(old)) - set(keys_of(new))


def _without(entries: tuple[T, ...], gone: set[str]) -> tuple[T, ...]:
    return tuple(one for one in entries if codec.key_of(one) not in gone)


def _design(old: Design, new: Design) -> Iterator[Edit]:
    for field in codec.fields_of(Design):
        a, b = getattr(old, field.name), getattr(new, field.name)
        if a == b or field.name in ("dimensions", "boards"):
            continue
        if is_list(field):
            yield from _entries(a, b, field.name)
        else:
            yield put(field.name, codec.write(b))
    # An answer's own dimension is answered by an edit of its length, and one in use cannot go: so the list is put whole.
    if old.dimensions != new.dimensions:
        yield put("dimensions", codec.write(new.dimensions))
    if old.boards != new.boards:
        known = (*old.boards, *(one for one in new.boards if one.id not in keys_of(old.boards)))
        yield from _entries(known, new.boards, "boards")


def _fields(before: Any, after: Any, path: str) -> Iterator[Edit]:
    for field in codec.fields_of(type(before)):
        old, new, here = getattr(before, field.name), getattr(after, field.name), join(path, field.name)
        if old == new:
            continue
        if is_list(field):
            yield from _entries(old, new, here)
        elif dataclasses.is_dataclass(old) and type(old) is type(new) and not is_typed(old):
            yield from _fields(old, new, here)
        else:
            yield put(here, codec.write(new))


def _entries(old: tuple[Any, ...], new: tuple[Any, ...], path: str) -> Iterator[Edit]:
    olds, news = dict(zip(keys_of(old), old, strict=True)), dict(zip(keys_of(new), new, strict=True))
    yield from (Edit("drop", join(path, key)) for key in olds if key not in news)
    order, before = [key for key in olds if key in news], ""
    for key, one in news.items():
        here = join(path, key)
        if key not in olds:
            yield put(here, codec.write(one), before)
            order.insert(order.index(before) + 1 if before in order else 0, key)
        elif type(olds[key]) is not type(one):
            yield put(here, codec.write(one))
        else:
            yield from _fields(olds[key], one, here)
        before = key
    for i, key in enumerate(news):
        if order[i] != key:
            order.remove(key)
            order.insert(i, key)
            yield Edit("move", join(path, key), after=order[i - 1] if i else "")
