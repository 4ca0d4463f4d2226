"""DXF in, paths out, read by a library that our writer does not use."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from io import StringIO
from typing import Any, NamedTuple

from ..geometry import Cubic, Point, Segment
from ..ground.errors import UnreadableFile
from ..ground.limits import MOST_DRAWING_BYTES
from .curves import Affine, from_quadratic, mapped, turn_pieces
from .dxf_flat import read_flat
from .read_file import ReadFile, ReadPath, ReadText, Room, check_elements

_MM_PER_INSUNIT = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}
_UNIT_NAMES = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}
"""DXF Reference, HEADER, $INSUNITS: 1 in, 2 ft, 4 mm, 5 cm, 6 m."""

DEEPEST = 16
_FLAT = ("LWPOLYLINE", "POLYLINE", "CIRCLE", "ARC")
"""Drawn in a plane of their own, which may be seen from behind. DXF Reference, object coordinate systems."""

_STRAIGHT = 1e-9
_TEXTS = ("TEXT", "MTEXT", "ATTRIB", "ATTDEF")


def read_dxf(data: bytes) -> ReadFile:
    """The outlines of a DXF file. Raises UnreadableFile if it is no DXF.

    A file that does not say its unit is read as mm, and says so in `assumed`.
    """
    if len(data) > MOST_DRAWING_BYTES:
        raise UnreadableFile(f"The file has {len(data)} bytes.", fix="Split it; 50 MB is the most that is read.")
    # Line ends as any system writes them: the general reader knows one kind.
    text = data.decode("utf-8-sig", "replace").replace("\r\n", "\n").replace("\r", "\n")
    if flat := read_flat(text, _MM_PER_INSUNIT, _UNIT_NAMES):
        return flat
    import ezdxf.filemanagement  # what it needs is large: only for what the quick reader leaves to it
    from ezdxf.lldxf.const import DXFError

    try:
        drawing = ezdxf.filemanagement.read(StringIO(text))
        unit = drawing.header.get("$INSUNITS", 0)
        check_elements(_counted(drawing))
        reader = _Reader(_MM_PER_INSUNIT.get(unit, 1.0), _layers(drawing), _dashed(drawing))
        for entity in drawing.modelspace():
            reader.entity(entity)
        if any(len(layout) for layout in drawing.layouts if not layout.is_modelspace):
            reader.unheeded.add("a drawing on a sheet of paper beside the model")
    except (DXFError, ValueError, KeyError, IndexError, TypeError, AttributeError) as error:
        raise UnreadableFile(f"The file cannot be read as DXF: {error}", fix="Export it again.") from None
    named = _UNIT_NAMES.get(unit, "")
    return ReadFile(
        tuple(reader.paths),
        unread=tuple(sorted(reader.unread)),
        unit=named,
        assumed="" if named else "mm",
        texts=tuple(reader.texts),
        points=tuple(reader.points),
        hidden=tuple(sorted(reader.hidden)),
        unheeded=tuple(sorted(reader.unheeded)),
    )


class _Layer(NamedTuple):
    """What a layer's entry says for all that lies on it. DXF Reference, LAYER: 62 colour, below 0 if it is off; 70 flag 1 frozen;
    290 whether it is plotted; 6 linetype; 420 true colour."""

    shown: bool = True
    plotted: bool = True
    linetype: str = "continuous"
    colour: str = "7"


def _layers(drawing: Any) -> dict[str, _Layer]:
    return {
        layer.dxf.name.lower(): _Layer(
            not (layer.is_off() or layer.is_frozen()), bool(layer.dxf.get("plot", 1)), layer.dxf.linetype.lower(),
            _colour(layer.dxf) or str(abs(layer.dxf.color)),
        )
        for layer in drawing.layers
    }  # fmt: skip


def _dashed(drawing: Any) -> set[str]:
    """The names of linetypes that leave gaps. DXF Reference, LTYPE: 73 is how many dashes and gaps there are."""
    return {
        linetype.dxf.name.lower()
        for linetype in drawing.linetypes
        if any(tag.code == 49 and tag.value <= 0 for tag in linetype.pattern_tags.tags)
    }


def _colour(dxf: Any) -> str:
    return f"#{dxf.true_color:06x}" if dxf.hasattr("true_color") else ""


def _counted(drawing: Any) -> int:
    """How many entities the drawing has, blocks unfolded, without unfolding any."""
    known: dict[str, int] = {}

    def count(entities: Any, depth: int) -> int:
        if depth > DEEPEST:
            raise UnreadableFile(
                "Blocks hold each other too deeply.", fix="Explode them and export the file again."
            )  # fmt: skip
        total = 0
        for entity in entities:
            total += 1
            if entity.dxftype() != "INSERT":
                continue
            name = entity.dxf.name
            if name not in known:
                block = drawing.blocks.get(name)
                known[name] = count(block, depth + 1) if block is not None else 0
            total += known[name] * max(entity.mcount, 1)
        return total

    return count(drawing.modelspace(), 0)


class _Reader:
    def __init__(self, scale: float, layers: Mapping[str, _Layer], dashed: set[str]) -> None:
        self.scale, self.layers, self.dashed = scale, layers, dashed
        self.unheeded: set[str] = set()
        self.hidden: set[str] = set()
        self.paths: list[ReadPath] = []
        self.texts: list[ReadText] = []
        self.points: list[Point] = []
        self.unread: set[str] = set()
        self.room = Room()

    def entity(self, entity: Any) -> None:
        kind, layer = entity.dxftype(), entity.dxf.layer.lower()
        known = self.layers.get(layer, _Layer())
        if not known.shown:
            self.hidden.add(layer)
            return
        self._look(entity, layer, known)
        if kind == "INSERT":
            for copy in entity.multi_insert() if entity.mcount > 1 else (entity,):
                for one in copy.virtual_entities():
                    self.entity(one)
        elif kind in _TEXTS:
            words = entity.plain_text() if hasattr(entity, "plain_text") else entity.dxf.text
            place = entity.dxf.insert
            self.texts.append(ReadText(layer, words, (place.x * self.scale, place.y * self.scale)))
        elif kind == "POINT":
            place = entity.dxf.location
            self.points.append((place.x * self.scale, place.y * self.scale))
        elif kind in ("HATCH", "MPOLYGON", "SOLID"):
            self._filled(entity, kind, layer)
        else:
            pieces, closed = _outline(entity)
            segments, curved = mapped(pieces, _to_world(entity, self.scale), self.room)
            if segments:
                self.paths.append(
                    ReadPath(layer, "", segments, closed, curved=curved, colour=_colour_of(entity, known))
                )
            elif not pieces:
                self.unread.add(kind)

    def _look(self, entity: Any, layer: str, known: _Layer) -> None:
        """What of an entity another program would not draw, or draw otherwise. DXF Reference, common group codes: 60 invisible, 6
        linetype, 210 extrusion."""
        dxf = entity.dxf
        if dxf.get("invisible", 0):
            self.unheeded.add("invisible lines")
        if not known.plotted:
            self.unheeded.add(f"a layer that is not to be plotted (“{layer}”)")
        linetype = dxf.get("linetype", "bylayer").lower()
        if (known.linetype if linetype == "bylayer" else linetype) in self.dashed:
            self.unheeded.add("dashed lines")
        tilt = dxf.get("extrusion", (0, 0, 1)) if dxf.is_supported("extrusion") else (0, 0, 1)
        if max(abs(tilt[0]), abs(tilt[1])) > _STRAIGHT or tilt[2] == 0:
            self.unheeded.add("lines in a plane that is tilted")

    def _filled(self, entity: Any, kind: str, layer: str) -> None:
        from ezdxf import path

        if kind == "SOLID":
            self.unread.add(kind)
            return
        for outline in path.from_hatch(entity):
            pieces = list(_path_pieces(outline))
            segments, curved = mapped(pieces, Affine(self.scale, 0, 0, self.scale), self.room)
            if segments:
                colour = _colour_of(entity, self.layers.get(layer, _Layer()))
                self.paths.append(ReadPath(layer, "", segments, True, filled=True, curved=curved, colour=colour))


def _colour_of(entity: Any, layer: _Layer) -> str:
    """DXF Reference, common group codes: 420 true colour, else 62, where 256 is the layer's and 0 the block's."""
    number = entity.dxf.get("color", 256)
    return _colour(entity.dxf) or (layer.colour if number == 256 else str(abs(number)))


def _to_world(entity: Any, scale: float) -> Affine:
    """From an entity's own coordinates to mm. An extrusion of -1 looks at it from behind."""
    behind = entity.dxftype() in _FLAT and entity.dxf.get("extrusion", (0, 0, 1))[2] < 0
    return Affine(-scale if behind else scale, 0, 0, scale)


def _outline(entity: Any) -> tuple[Sequence[Segment | Cubic], bool]:
    kind, dxf = entity.dxftype(), entity.dxf
    if kind == "LWPOLYLINE":
        return _polyline([(x, y, b) for x, y, b in entity.get_points("xyb")], entity.closed)
    if kind == "POLYLINE" and entity.is_2d_polyline:
        corners = [(v.dxf.location.x, v.dxf.location.y, v.dxf.get("bulge", 0.0)) for v in entity.vertices]
        return _polyline(corners, entity.is_closed)
    if kind == "LINE":
        return [Segment((dxf.start.x, dxf.start.y), (dxf.end.x, dxf.end.y), 0.0)], False
    if kind == "CIRCLE":
        return turn_pieces((dxf.center.x, dxf.center.y), dxf.radius, 0.0, 2 * math.pi), True
    if kind == "ARC":
        sweep = math.radians((dxf.end_angle - dxf.start_angle) % 360)
        return turn_pieces((dxf.center.x, dxf.center.y), dxf.radius, math.radians(dxf.start_angle), sweep), False
    if kind in ("SPLINE", "ELLIPSE", "HELIX"):
        from ezdxf import path

        outline = path.make_path(entity)
        return list(_path_pieces(outline)), outline.is_closed
    return [], False


def _path_pieces(outline: Any) -> Iterator[Segment | Cubic]:
    from ezdxf.path import Command

    here = outline.start
    for command in outline.commands():
        end = command.end
        a, d = (here.x, here.y), (end.x, end.y)
        if command.type == Command.LINE_TO:
            if a != d:
                yield Segment(a, d, 0.0)
        elif command.type == Command.CURVE3_TO:
            c = command.ctrl
            yield from_quadratic(a, (c.x, c.y), d)
        elif command.type == Command.CURVE4_TO:
            yield Cubic(a, (command.ctrl1.x, command.ctrl1.y), (command.ctrl2.x, command.ctrl2.y), d)
        here = end


def _polyline(corners: list[tuple[float, float, float]], closed: bool) -> tuple[list[Segment | Cubic], bool]:
    ends: Iterable[tuple[float, float, float]] = [*corners[1:], *corners[:1]] if closed else corners[1:]
    return [Segment((x, y), (u, v), bulge) for (x, y, bulge), (u, v, _) in zip(corners, ends, strict=False)], closed
