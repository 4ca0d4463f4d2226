"""Reading SVG and DXF from anywhere, and the outlines of files that a job keeps: bytes in, paths or regions out."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Sequence

from ..design import Imported
from ..formats.file_kinds import FORMATS
from ..formats.read_file import ReadFile, ReadPath
from ..geometry import Box, Contour, Ring, Vertex
from ..geometry.region import turned
from ..ground.elsewhere import about_to_take
from ..ground.errors import UnreadableFile
from ..ground.limits import check_part_work
from ..ground.remembered import by_value
from ..ground.wording import counted
from ..lengths.units import MM_PER_PX
from ..making import Brought, Outlines
from ..steps import FILE_UNITS


def read_any(data: bytes, name: str) -> ReadFile:
    """What an SVG or DXF from anywhere holds, told by its content. Raises UnreadableFile."""
    start = _start(data)
    if start.startswith(b"%PDF"):
        raise UnreadableFile("PDF from elsewhere is not read.", fix="Use the SVG or DXF of the same drawing.")
    if start.startswith(b"<"):
        return FORMATS["svg"].read(data)
    if name.lower().endswith(".dxf") or start[:1].isdigit():
        return FORMATS["dxf"].read(data)
    raise UnreadableFile(f"{name} is neither SVG nor DXF.", fix="Choose a file that ends in .svg or .dxf.")


def _start(data: bytes) -> bytes:
    """How a text begins, whatever its encoding and without its byte order mark."""
    some = data[:4096]
    if some.startswith((b"\xff\xfe", b"\xfe\xff")):
        some = some.decode("utf-16", "replace").encode()
    return some.lstrip(b"\xef\xbb\xbf \r\n\t")


_CURVES = re.compile(rb"[\d\s\"'][CcSsQqTt][\s\d.+-]|SPLINE|ELLIPSE")
_COPIES = (b"<use", b"INSERT", b"<symbol", b"<pattern")
_BYTE_S, _CURVED_BYTE_S = 3e-6, 1e-4


def reading_seconds(data: bytes) -> float:
    """Of processor time to read a drawing: one with curves takes more, and one that repeats things may unfold to anything.

    >>> reading_seconds(b"<path d='M0 0C1 1 2 2 3 3'/>") > 20 * reading_seconds(b"<path d='M0 0L1 1L2 2L3 3Z'/>")
    True
    """
    if any(word in data for word in _COPIES):
        return 10.0
    return (_CURVED_BYTE_S if _CURVES.search(data) else _BYTE_S) * len(data)


Files = Callable[[str], bytes]
"""The bytes of a file that a job keeps, by the SHA-256 of its content. Raises NotchError if it is not there."""


def outlines_of(files: Files) -> Outlines:
    """What parts are made with, from `files`."""

    def outlines(wanted: Imported) -> Brought:
        return _outlines(files, wanted.file, wanted.layers, wanted.unit, sized=wanted.width is not None)

    return outlines


@by_value(64)
def _outlines(files: Files, name: str, layers: tuple[str, ...], unit: str, *, sized: bool) -> Brought:
    """Closed outlines with the holes in them: by how often a line is crossed on the way out (even-odd)."""
    from ..geometry.boolean import filled
    from ..geometry.linking import lies_within, nested
    from ..geometry.transform import scaled

    data = files(name)
    about_to_take(reading_seconds(data))
    file = read_any(data, name)
    if unit and not file.assumed:
        raise UnreadableFile(
            f"The file says that it is in {file.unit}.", fix="Leave its unit empty; type how wide it is if that is wrong.",
            field="shape/unit",
        )  # fmt: skip
    factor = FILE_UNITS[unit] / (1.0 if file.assumed == "mm" else MM_PER_PX) if unit else 1.0
    wanted = {layer.lower() for layer in layers}
    paths = [path for path in file.paths if not wanted or path.layer in wanted]
    closed = [path for path in paths if path.goes_round and len(path.segments) > 1]
    rings: list[Ring] = [
        scaled(Contour(tuple(Vertex(*segment.start, segment.bulge) for segment in path.segments)), factor)
        for path in closed
    ]
    if not rings:
        there = ", ".join(sorted({path.layer for path in file.paths if path.layer})) or "none"
        raise UnreadableFile(
            f"The file has no closed outline{f' on {chr(44).join(layers)}' if layers else ''}; {len(paths)} are open.",
            fix=f"Join the ends of its outlines, or choose another layer: {there}.",
        )
    check_part_work(sum(len(ring.segments) for ring in rings), 0, "The file", "shape/file")
    solid = sorted((region.outer for ring in rings for region in filled([ring])), key=lambda ring: -abs(ring.area))
    nests = []
    for i, ring in enumerate(solid):
        around = sum(_box_in(ring.box, other.box) and lies_within(ring, other) for other in solid[:i])
        turned_ring = turned(ring, -1 if around % 2 else 1)
        nests.append((turned_ring, turned_ring.area))
    left = _left(file, [path for path in paths if path not in closed], wanted)
    return Brought(tuple(nested(nests)), len(closed), left, "" if unit or sized else file.assumed)


MOST_NAMED = 6


def _left(file: ReadFile, others: Sequence[ReadPath], wanted: set[str]) -> tuple[str, ...]:
    """What a file holds and a part does not get, in words."""
    open_ones = Counter(path.layer for path in others)
    said = [
        f"{counted(count, 'open line')}" + (f" on “{layer}”" if layer else "")
        for layer, count in sorted(open_ones.items())
    ]
    said += [f"the text “{text.text[:30]}”" for text in file.texts if not wanted or text.layer in wanted]
    said += [f"what is on “{layer}”, which is switched off" for layer in file.hidden if not wanted or layer in wanted]
    said += [f"{counted(len(file.points), 'stray point')}"] if file.points else []
    said += [*file.unread, *(f"{what}, which is not applied" for what in file.unheeded)]
    return (*said[:MOST_NAMED], f"{len(said) - MOST_NAMED} more") if len(said) > MOST_NAMED else tuple(said)


def _box_in(inner: Box, outer: Box) -> bool:
    return inner[0] >= outer[0] and inner[1] >= outer[1] and inner[2] <= outer[2] and inner[3] <= outer[3]
