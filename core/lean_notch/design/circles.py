"""Named lengths that go in a circle: in, their texts by name; out, the circle, name by name."""

from __future__ import annotations

from collections.abc import Mapping

from ..lengths.length import names_in


def circle_in(lengths: Mapping[str, str]) -> tuple[str, ...]:
    """One circle among named lengths (text by name), spelled out from the first name back to it; empty if there is none.

    >>> circle_in({"a": "b + 1", "b": "c*2", "c": "a", "d": "a"})
    ('a', 'b', 'c', 'a')
    """
    done: set[str] = set()
    for start in lengths:
        path: list[str] = []
        found = _follow(start, lengths, path, done)
        if found:
            return found
    return ()


def _follow(name: str, lengths: Mapping[str, str], path: list[str], done: set[str]) -> tuple[str, ...]:
    if name in path:
        return (*path[path.index(name) :], name)
    if name in done or name not in lengths:
        return ()
    path.append(name)
    for other in names_in(lengths[name]):
        found = _follow(other, lengths, path, done)
        if found:
            return found
    path.pop()
    done.add(name)
    return ()
