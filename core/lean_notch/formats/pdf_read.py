"""PDF in, paths out: the outlines of a page, layer by layer. Shares nothing with the writer.

After ISO 32000-1: user space is 1/72 in (8.3.2.3), paths (8.5), optional content (8.11). The library only unpacks the file and
tells its operators apart. Text, images and forms are named as unread; what would make another program draw the page otherwise
than it is read here is named as unheeded.
"""

from __future__ import annotations

import zlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from io import BytesIO
from typing import Any

from ..geometry import Cubic, Point, Segment
from ..ground.errors import UnreadableFile
from ..ground.limits import MOST_DRAWING_BYTES, MOST_OPERATORS
from ..lengths.units import MM_PER_PT
from .curves import Affine, mapped
from .read_file import ReadFile, ReadPath, Room

_ANOTHER = "Export it again, or use the SVG or DXF of the same drawing."


def read_pdf(data: bytes) -> ReadFile:
    """The outlines of a PDF's first page. Raises UnreadableFile if it is no PDF, locked, or wants to be more than it is."""
    import pikepdf

    if len(data) > MOST_DRAWING_BYTES:
        raise UnreadableFile(f"The file has {len(data)} bytes.", fix="Split it; 50 MB is the most that is read.")
    try:
        with pikepdf.open(BytesIO(data)) as pdf:
            return _read(pdf)
    except pikepdf.PasswordError:
        raise UnreadableFile("The PDF is locked with a password.", fix="Save it without one.") from None
    except (pikepdf.PdfError, ValueError, KeyError, IndexError, TypeError, AttributeError, RuntimeError) as error:
        raise UnreadableFile(f"The file cannot be read as PDF: {error}", fix=_ANOTHER) from None


def _read(pdf: Any) -> ReadFile:
    page = pdf.pages[0]
    box = [float(value) for value in page.mediabox]
    left, low, right, high = min(box[0], box[2]), min(box[1], box[3]), max(box[0], box[2]), max(box[1], box[3])
    if right - left <= 0 or high - low <= 0:
        raise UnreadableFile("The PDF's page has no size.", fix=_ANOTHER)
    names, off = _layers(pdf, page)
    reader = _Reader(Affine(MM_PER_PT, 0, 0, MM_PER_PT, -left * MM_PER_PT, -low * MM_PER_PT), names, off)
    if len(pdf.pages) > 1:
        reader.unread.add(f"{len(pdf.pages) - 1} more pages")
    if "/Annots" in page and len(page.Annots):
        reader.unread.add("annotations")
    if int(page.get("/Rotate", 0)) % 360:
        reader.unheeded.add("a page that is turned")
    if float(page.get("/UserUnit", 1)) != 1:
        reader.unheeded.add("a page with a unit of its own")
    if any(abs(a - float(b)) > 1e-6 for a, b in zip((left, low, right, high), page.cropbox, strict=True)):
        reader.unheeded.add("a page that is cropped")
    reader.page(pdf, page)
    return ReadFile(
        tuple(reader.paths), (right - left) * MM_PER_PT, (high - low) * MM_PER_PT, tuple(sorted(reader.unread)), "pt",
        hidden=tuple(sorted(reader.hidden)), unheeded=tuple(sorted(reader.unheeded)),
    )  # fmt: skip


def _layers(pdf: Any, page: Any) -> tuple[dict[str, str], set[str]]:
    """The names of optional content by the words that the page uses for it, lower case; and which are switched off."""
    names, off = {}, set()
    properties = page.get("/Resources", {}).get("/Properties", {})
    hidden = pdf.Root.get("/OCProperties", {}).get("/D", {}).get("/OFF", [])
    numbers = {one.objgen for one in hidden}
    for word, group in dict(properties).items():
        names[word] = str(group.get("/Name", "")).lower()
        if group.objgen in numbers and group.objgen != (0, 0):
            off.add(names[word])
    return names, off


@dataclass(frozen=True)
class _State:
    affine: Affine
    width: float = 1.0
    stroke: str = "#000000"
    fill: str = "#000000"


@dataclass
class _Path:
    """The path that is being drawn: each way with whether it is closed."""

    ways: list[tuple[list[Segment | Cubic], bool]] = field(default_factory=list)
    pieces: list[Segment | Cubic] = field(default_factory=list)
    start: Point = (0.0, 0.0)
    here: Point = (0.0, 0.0)

    def end(self, *, closed: bool) -> None:
        if closed and self.here != self.start:
            self.pieces.append(Segment(self.here, self.start, 0.0))
        if self.pieces:
            self.ways.append((self.pieces, closed))
        self.pieces, self.here = [], self.start


class _Reader:
    def __init__(self, affine: Affine, names: Mapping[str, str], off: set[str]) -> None:
        self.names, self.off = names, off
        self.paths: list[ReadPath] = []
        self.unread: set[str] = set()
        self.unheeded: set[str] = set()
        self.hidden: set[str] = set()
        self.room = Room()
        self.state = _State(affine)
        self.kept: list[_State] = []
        self.path = _Path()
        self.marked: list[str | None] = []
        """Layers of the marked content that is open; None for what is no layer."""

    def page(self, pdf: Any, page: Any) -> None:
        import pikepdf

        content = b"\n".join(_unpacked(one) for one in _streams(page))
        states = page.get("/Resources", {}).get("/ExtGState", {})
        instructions = pikepdf.parse_content_stream(pdf.make_stream(content))
        if len(instructions) > MOST_OPERATORS:
            raise UnreadableFile("The PDF has more to draw than is read at once.", fix="Split it into several files.")
        for instruction in instructions:
            operands, word = instruction.operands, str(instruction.operator)
            if word == "gs":
                self._look(states.get(str(operands[0]), {}))
            elif (does := _DOES.get(word)) is not None:
                does(self, *operands)
            elif word in _STROKES:
                self._paint(*_STROKES[word])
            elif word in _UNREAD:
                self.unread.add(_UNREAD[word])
            elif word in _UNHEEDED:
                self.unheeded.add(_UNHEEDED[word])
            elif word not in _IDLE:
                self.unheeded.add(f"an operator that is not known here ({word[:10]})")

    @property
    def layer(self) -> str:
        return next((one for one in reversed(self.marked) if one is not None), "")

    def _look(self, state: Mapping[str, Any]) -> None:
        for name, value in dict(state).items():
            if name in ("/CA", "/ca") and float(value) <= 0:
                self.unheeded.add("lines that cannot be seen (opacity 0)")
            elif name == "/LW":
                self.state = replace(self.state, width=float(value))
            elif (name == "/D" and len(value[0])) or (name == "/SMask" and str(value) != "/None"):
                self.unheeded.add("dashed lines" if name == "/D" else "a mask")

    def _paint(self, stroke: bool, fill: bool, close: bool) -> None:
        path, state, layer = self.path, self.state, self.layer
        path.end(closed=close)
        if layer in self.off:
            self.hidden.update([layer] if path.ways else [])
        elif not stroke and not fill:
            self.unheeded.update(["lines that are not drawn"] if path.ways else [])
        else:
            width = state.width * state.affine.scale if stroke else 0.0
            for pieces, closed in path.ways:
                if fill and pieces[-1].end != pieces[0].start:
                    pieces = [*pieces, Segment(pieces[-1].end, pieces[0].start, 0.0)]
                segments, curved = mapped(pieces, state.affine, self.room)
                if segments:
                    self.paths.append(
                        ReadPath(
                            layer, "", segments, closed or fill, round(width, 6), fill, curved, state.stroke if stroke else state.fill
                        )
                    )  # fmt: skip
        self.path = _Path()

    def save(self) -> None:
        self.kept.append(self.state)

    def restore(self) -> None:
        self.state = self.kept.pop()

    def transform(self, *numbers: Any) -> None:
        self.state = replace(self.state, affine=self.state.affine.after(Affine(*map(float, numbers))))

    def wide(self, width: Any) -> None:
        self.state = replace(self.state, width=float(width))

    def dashed(self, dashes: Any, _: Any) -> None:
        if any(float(one) for one in dashes):
            self.unheeded.add("dashed lines")

    def begin(self, tag: Any, properties: Any = None) -> None:
        named = str(tag) == "/OC" and properties is not None
        self.marked.append(self.names.get(str(properties), "") if named else None)

    def finish(self) -> None:
        self.marked.pop()

    def move(self, x: Any, y: Any) -> None:
        self.path.end(closed=False)
        self.path.start = self.path.here = (float(x), float(y))

    def line(self, x: Any, y: Any) -> None:
        end = (float(x), float(y))
        self.path.pieces.append(Segment(self.path.here, end, 0.0))
        self.path.here = end

    def curve(self, *numbers: Any) -> None:
        a, b, c, d, e, f = map(float, numbers)
        self.path.pieces.append(Cubic(self.path.here, (a, b), (c, d), (e, f)))
        self.path.here = (e, f)

    def curve_from_here(self, *numbers: Any) -> None:
        self.curve(*self.path.here, *numbers)

    def curve_to_end(self, a: Any, b: Any, c: Any, d: Any) -> None:
        self.curve(a, b, c, d, c, d)

    def close(self) -> None:
        self.path.end(closed=True)

    def rectangle(self, x: Any, y: Any, width: Any, height: Any) -> None:
        left, low, w, h = float(x), float(y), float(width), float(height)
        self.move(left, low)
        for place in ((left + w, low), (left + w, low + h), (left, low + h)):
            self.line(*place)
        self.close()

    def stroke_colour(self, *parts: Any) -> None:
        self.state = replace(self.state, stroke=_colour(parts))

    def fill_colour(self, *parts: Any) -> None:
        self.state = replace(self.state, fill=_colour(parts))


def _colour(parts: tuple[Any, ...]) -> str:
    """Of grey (1 part) or red, green and blue (3)."""
    shares = [float(one) for one in parts] * (3 if len(parts) == 1 else 1)
    return "#" + "".join(f"{round(255 * min(max(share, 0.0), 1.0)):02x}" for share in shares)


_DOES: dict[str, Callable[..., None]] = {
    "q": _Reader.save, "Q": _Reader.restore, "cm": _Reader.transform, "w": _Reader.wide, "d": _Reader.dashed,
    "BDC": _Reader.begin, "BMC": _Reader.begin, "EMC": _Reader.finish, "m": _Reader.move, "l": _Reader.line, "c": _Reader.curve,
    "v": _Reader.curve_from_here, "y": _Reader.curve_to_end, "h": _Reader.close, "re": _Reader.rectangle,
    "RG": _Reader.stroke_colour, "G": _Reader.stroke_colour, "rg": _Reader.fill_colour, "g": _Reader.fill_colour,
}  # fmt: skip
_STROKES = {
    "S": (True, False, False), "s": (True, False, True), "f": (False, True, False), "F": (False, True, False),
    "f*": (False, True, False), "B": (True, True, False), "B*": (True, True, False), "b": (True, True, True),
    "b*": (True, True, True), "n": (False, False, False),
}  # fmt: skip
"""Whether an operator draws the line, fills the area, and closes the path before. ISO 32000-1, table 60."""

_UNREAD = {"BT": "text", "Do": "an image or a form", "sh": "a shading", "BI": "an image", "INLINE IMAGE": "an image"}
_UNHEEDED = {
    "W": "a clip path", "W*": "a clip path", "K": "a colour for print", "k": "a colour for print",
    **dict.fromkeys(("CS", "cs", "SC", "SCN", "sc", "scn"), "a colour of another kind"),
}  # fmt: skip
_IDLE = frozenset(
    [
        "j",
        "J",
        "M",
        "ri",
        "i",
        "MP",
        "DP",
        "BX",
        "EX",
        "ET",
        "Tc",
        "Tw",
        "Tz",
        "TL",
        "Tf",
        "Tr",
        "Ts",
        "Td",
        "TD",
        "Tm",
        "T*",
        "Tj",
        "TJ",
        "'",
        '"',
        "d0",
        "d1",
        "ID",
        "EI",
    ]
)
"""What draws nothing, or belongs to text that is named already."""


def _streams(page: Any) -> list[Any]:
    import pikepdf

    contents = page.get("/Contents")
    if contents is None:
        return []
    return list(contents) if isinstance(contents, pikepdf.Array) else [contents]


def _unpacked(stream: Any) -> bytes:
    """What a stream holds, unpacked no further than there is room for."""
    raw = bytes(stream.read_raw_bytes())
    packed = str(stream.get("/Filter", ""))
    if not packed:
        return raw
    if packed != "/FlateDecode" or "/DecodeParms" in stream:
        raise UnreadableFile("The PDF's page is packed in a way that is not read here.", fix=_ANOTHER)
    unpacker = zlib.decompressobj()
    try:
        data = unpacker.decompress(raw, MOST_DRAWING_BYTES)
    except zlib.error:
        raise UnreadableFile("The PDF's page is damaged.", fix=_ANOTHER) from None
    if unpacker.unconsumed_tail:
        raise UnreadableFile("The PDF's page is larger than is read.", fix="Split it into several files.")
    return data
