"""Reading SVG and DXF from anywhere, and the outlines of files that a job keeps: bytes in, paths or regions out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache

from .build import Outlines
from .design import Imported
from .errors import UnreadableFile
from .files import FileFormat
from .formats.read_file import ReadFile
from .geometry import Box, Contour, Region, Ring, Vertex
from .geometry.region import turned
from .limits import check_part_work


def read_outlines(data: bytes, file_format: FileFormat) -> ReadFile:
    """What a file of that format holds. Raises UnreadableFile."""
    if file_format == "svg":
        from .formats.svg_read import read_svg

        return read_svg(data)
    if file_format == "pdf":
        from .formats.pdf_read import read_pdf

        return read_pdf(data)
    from .formats.dxf_read import read_dxf

    return read_dxf(data)


def read_any(data: bytes, name: str) -> ReadFile:
    """What an SVG or DXF from anywhere holds, told by its content. Raises UnreadableFile."""
    start = data[:4096].lstrip(b"\xef\xbb\xbf \r\n\t")
    if start.startswith(b"%PDF"):
        raise UnreadableFile("PDF from elsewhere is not read.", fix="Use the SVG or DXF of the same drawing.")
    if start.startswith(b"<"):
        return read_outlines(data, "svg")
    if name.lower().endswith(".dxf") or start[:1].isdigit():
        return read_outlines(data, "dxf")
    raise UnreadableFile(f"{name} is neither SVG nor DXF.", fix="Choose a file that ends in .svg or .dxf.")


Files = Callable[[str], bytes]
"""The bytes of a file that a job keeps, by the SHA-256 of its content. Raises NotchError if it is not there."""


def outlines_of(files: Files) -> Outlines:
    """What parts are made with, from `files`."""

    def outlines(wanted: Imported) -> Sequence[Region]:
        return _outlines(files, wanted.file, wanted.layers)

    return outlines


@lru_cache(maxsize=64)
def _outlines(files: Files, name: str, layers: tuple[str, ...]) -> tuple[Region, ...]:
    """Closed outlines with the holes in them: by how often a line is crossed on the way out (even-odd)."""
    from .geometry.boolean import filled
    from .geometry.linking import lies_within, nested

    file = read_any(files(name), name)
    wanted = {layer.lower() for layer in layers}
    paths = [path for path in file.paths if not wanted or path.layer in wanted]
    rings: list[Ring] = [
        Contour(tuple(Vertex(*segment.start, segment.bulge) for segment in path.segments))
        for path in paths
        if path.closed and len(path.segments) > 1
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
    return tuple(nested(nests))


def _box_in(inner: Box, outer: Box) -> bool:
    return inner[0] >= outer[0] and inner[1] >= outer[1] and inner[2] <= outer[2] and inner[3] <= outer[3]
