"""What a reader finds in a file: closed or open paths per layer, in mm with y up, whatever the format was."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Segment


@dataclass(frozen=True)
class ReadPath:
    """`layer` is the DXF layer or the SVG group's id, lower case; `name` the element's id, if it has one."""

    layer: str
    name: str
    segments: tuple[Segment, ...]
    closed: bool


@dataclass(frozen=True)
class ReadFile:
    """`width` and `height` are the page's in mm where the format has a page, else None.

    `unread` lists what was found and is no outline (text, images, …), each kind once.
    """

    paths: tuple[ReadPath, ...]
    width: float | None = None
    height: float | None = None
    unread: tuple[str, ...] = ()
