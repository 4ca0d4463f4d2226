"""SVG in, paths out. Shares nothing with the writer; arcs after the SVG specification's own appendix.

Reads groups, transforms, style sheets, nested drawings and copies, and every basic shape. Whatever is no outline is
named as unread or returned as text rather than guessed at; what would make another program draw the file otherwise than it
is read here is named as unheeded. Nothing outside the file is ever fetched.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from ..geometry import Cubic, Point, Segment
from ..ground.errors import UnreadableFile
from ..ground.limits import MOST_DRAWING_BYTES
from ..ground.remembered import Remembered, Same
from ..lengths.units import MM_PER_PX
from .curves import Affine, mapped
from .read_file import ReadFile, ReadPath, ReadText, Room, check_elements
from .svg_numbers import PER_UNIT, length_in, nested_in, number_in, size_of, tag_of, transform_in
from .svg_shapes import SHAPES
from .svg_style import ATTRIBUTES, IN_CSS_ONLY, NOT_DONE, OWN, colour_of, declared, style_rules

_SILENT = {"title", "desc", "metadata", "defs", "style", "symbol", "clippath", "mask", "pattern", "marker", "script"}


_ANIMATED = {"animate", "animateTransform", "animateMotion", "animateColor", "set"}
_CONDITIONS = ("systemLanguage", "requiredExtensions", "requiredFeatures")
DEEPEST = 100


def read_svg(data: bytes) -> ReadFile:
    """The outlines of an SVG file. Raises UnreadableFile if it is no SVG, too large, or wants to be more than it is."""
    from lxml import etree

    if len(data) > MOST_DRAWING_BYTES:
        raise UnreadableFile(f"The file has {len(data)} bytes.", fix="Split it; 50 MB is the most that is read.")
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        root = etree.fromstring(data, parser)
    except etree.XMLSyntaxError as error:
        raise UnreadableFile(f"The file is no valid XML: {error.msg}.", fix="Export it again.") from None
    if tag_of(root) != "svg":
        raise UnreadableFile("The file is no SVG.", fix="Choose a file whose first element is <svg>.")
    page = _Page.of(root)
    reader = _Reader(root, page)
    reader.drawing(root, page)
    return ReadFile(
        tuple(reader.paths),
        page.width,
        page.height,
        tuple(sorted(reader.unread)),
        page.unit,
        page.assumed,
        tuple(reader.texts),
        tuple(reader.points),
        unheeded=tuple(sorted(reader.unheeded)),
        corner=page.corner,
    )


@dataclass(frozen=True)
class _Page:
    """The drawing's size in mm, and the map from its units to mm with y up."""

    width: float
    height: float
    affine: Affine
    unit: str
    assumed: str
    stretched: bool = False
    """Whether the page has another shape than its viewBox, so that it depends on the program where the drawing lies on it."""

    @property
    def corner(self) -> Point:
        """The page's lower left in the drawing's own numbers, y down, in mm."""
        return (-self.affine.e, self.affine.f)

    @classmethod
    def of(cls, root: Any) -> _Page:
        box = [number_in(value) for value in re.split(r"[\s,]+", root.get("viewBox", "").strip()) if value]
        if box and (len(box) != 4 or box[2] <= 0 or box[3] <= 0):
            raise UnreadableFile("The SVG's viewBox is broken.", fix="Export it with a viewBox and a size in mm.")
        width, unit = size_of(root.get("width", ""))
        height, other = size_of(root.get("height", ""))
        named = unit if unit == other else ""
        if not box:
            if width is None or height is None:
                raise UnreadableFile("The SVG has no size.", fix="Export it with a viewBox and a size in mm.")
            per = PER_UNIT.get(unit, MM_PER_PX)
            # Without a viewBox a drawing's units are px, whatever its size is said in.
            affine = Affine(MM_PER_PX, 0, 0, -MM_PER_PX, 0, height * PER_UNIT.get(other, MM_PER_PX))
            sure = named not in ("", "px")
            return cls(
                width * per, height * PER_UNIT.get(other, MM_PER_PX), affine, "px", "" if sure else "96 px an inch"
            )
        if width is None or height is None:
            width, height, named = box[2], box[3], ""
        x = width * PER_UNIT.get(unit, MM_PER_PX) / box[2]
        y = height * PER_UNIT.get(other, MM_PER_PX) / box[3]
        stretched = abs(x - y) > 1e-6 * x
        if stretched and root.get("preserveAspectRatio", "") != "none":
            x = y = min(x, y)
        affine = Affine(x, 0, 0, -y, -box[0] * x, (box[1] + box[3]) * y)
        assumed = "" if named not in ("", "px") else "96 px an inch"
        return cls(box[2] * x, box[3] * y, affine, named, assumed, stretched)


def _too_deep() -> UnreadableFile:
    return UnreadableFile(
        "The drawing is nested too deeply, or a copy in it holds itself.",
        fix="Ungroup it, take the copies apart, and export it again.",
    )


@dataclass(frozen=True)
class _State:
    """What an element inherits."""

    affine: Affine
    layer: str = ""
    style: Mapping[str, str] = field(default_factory=dict)
    depth: int = 0


class _Reader:
    def __init__(self, root: Any, page: _Page) -> None:
        self.page = page
        self.paths: list[ReadPath] = []
        self.texts: list[ReadText] = []
        self.points: list[Point] = []
        self.unread: set[str] = set()
        self.unheeded: set[str] = set()
        self._by_id = {element.get("id"): element for element in root.iter() if element.get("id")}
        self._counts: dict[Any, int] = {}
        self.room = Room()
        check_elements(self._count(root))
        self._rules = style_rules(root, self.unheeded)

    def drawing(self, root: Any, page: _Page) -> None:
        """All that is in the file."""
        if page.stretched:
            self.unheeded.add("a page of another shape than its viewBox")
        if root.get("transform"):
            self.unheeded.add("a transform on the whole drawing")
        before = root.getprevious()
        while before is not None:
            if getattr(before, "target", "") == "xml-stylesheet":
                self.unheeded.add("a style sheet outside the file")
            before = before.getprevious()
        for element in root.iter():
            if tag_of(element) in _ANIMATED:
                self.unheeded.add("an animation")
            elif tag_of(element) == "script":
                self.unheeded.add("a script")
        state = _State(page.affine)
        style = self._style(root, state)
        if self._shown(root, style):
            self.children(root, replace(state, style=style))

    def _count(self, element: Any, depth: int = 0) -> int:
        """How many elements there are in one, copies and all, without making any."""
        if depth > DEEPEST:
            raise _too_deep()
        known = self._counts.get(element)
        if known is None:
            known = 1 + sum(self._count(child, depth + 1) for child in element)
            target = self._target(element) if tag_of(element) == "use" else None
            if target is not None:
                known += self._count(target, depth + 1)
            self._counts[element] = known
        return known

    def children(self, element: Any, state: _State) -> None:
        for child in element:
            self._element(child, state)

    def _element(self, element: Any, state: _State) -> None:
        tag = tag_of(element)
        if not tag or tag.lower() in _SILENT:
            return
        style = self._style(element, state)
        if not self._shown(element, style):
            return
        affine = state.affine.after(transform_in(element.get("transform", "")))
        here = replace(state, affine=affine, style=style, depth=state.depth + 1)
        if any(element.get(name) is not None for name in _CONDITIONS) or tag == "switch":
            self.unheeded.add("parts that are drawn on a condition")
        if tag in ("g", "a", "switch"):
            self.children(element, replace(here, layer=state.layer or element.get("id", "").lower()))
        elif tag == "svg":
            self._nested(element, here, affine)
        elif tag == "use":
            self._use(element, here)
        elif tag in ("text", "flowRoot"):
            words = " ".join("".join(element.itertext()).split())
            self.texts.append(
                ReadText(state.layer, words, affine.point((length_in(element.get("x")), length_in(element.get("y")))))
            )
        elif shapes := SHAPES.get(tag):
            if any(value.rstrip().endswith("%") for name, value in element.attrib.items() if name in _GEOMETRY):
                self.unheeded.add("sizes in percent")
            for pieces, closed in shapes(element):
                self._path(element, tuple(pieces), closed, here)
        else:
            self.unread.add(f"<{tag}>")

    def _path(self, element: Any, pieces: tuple[Segment | Cubic, ...], closed: bool, state: _State) -> None:
        known = _MAPPED.find((Same(pieces), *state.affine))
        if known:
            self.room.take(len(known[0]))
            segments, curved = known
        else:
            segments, curved = mapped(pieces, state.affine, self.room)
            _MAPPED.keep((Same(pieces), *state.affine), (segments, curved))
        if not segments:
            return
        style = state.style
        fill = colour_of(style, "fill", "black")
        stroke = colour_of(style, "stroke", "none")
        width = length_in(style.get("stroke-width", "1"), 1.0) * state.affine.scale if stroke else 0.0
        stroke = stroke if width else ""
        if not stroke and (not fill or len(segments) < 2):
            self.unheeded.add("lines that are not drawn (no stroke, or one that cannot be seen)")
        colour = stroke or fill
        self.paths.append(
            ReadPath(
                state.layer, element.get("id", ""), segments, closed, round(width, 6), bool(fill), curved,
                colour if colour.startswith("#") else "",
            )
        )  # fmt: skip

    def _nested(self, element: Any, state: _State, affine: Affine) -> None:
        """A drawing within the drawing: it is cut off at its edges, unless it says otherwise. W3C SVG 2, 8.2 and UA style sheet."""
        first = len(self.paths)
        self.children(element, replace(state, affine=affine.after(nested_in(element))))
        if element.get("preserveAspectRatio"):
            self.unheeded.add("a drawing within the drawing with an alignment of its own")
        sides = [element.get(name) or "" for name in ("width", "height")]
        if state.style.get("overflow", element.get("overflow", "hidden")) == "visible" or not all(sides):
            return
        x, y = (length_in(element.get(name)) for name in "xy")
        width, height = (length_in(side) for side in sides)
        corners = [affine.point(p) for p in ((x, y), (x + width, y), (x + width, y + height), (x, y + height))]
        low, high = ([pick(one[k] for one in corners) for k in (0, 1)] for pick in (min, max))
        for path in self.paths[first:]:
            ends = [place for segment in path.segments for place in (segment.start, segment.end)]
            if any(place[k] < low[k] - 0.001 or place[k] > high[k] + 0.001 for place in ends for k in (0, 1)):
                self.unheeded.add("a drawing within the drawing that is cut off at its edges")
                return

    def _shown(self, element: Any, style: Mapping[str, str]) -> bool:
        """Whether an element, or anything in it, is drawn; what is told of it otherwise than it is read is named."""
        if not _holds_shapes(element):
            return True
        if style.get("display") == "none":
            self.unheeded.add("hidden lines (display: none)")
            return False
        if tag_of(element) in SHAPES and style.get("visibility") in ("hidden", "collapse"):
            self.unheeded.add(f"hidden lines (visibility: {style['visibility']})")
            return False
        if style.get("opacity", "1").strip("0.% ") == "":
            self.unheeded.add("lines that cannot be seen (opacity: 0)")
        for name, what in NOT_DONE.items():
            if style.get(name, "none") not in ("none", "0", ""):
                self.unheeded.add(what)
        return True

    def _use(self, element: Any, state: _State) -> None:
        target = self._target(element)
        if target is None:
            self.unread.add("<use> of something that is not in the file")
            return
        moved = state.affine.after(Affine(e=length_in(element.get("x")), f=length_in(element.get("y"))))
        inside = replace(state, affine=moved)
        if tag_of(target) in ("symbol", "svg") and (element.get("width") or element.get("height")):
            self.unheeded.add("a copy of another size")
        if tag_of(target) == "symbol":
            self.children(target, replace(inside, affine=moved.after(nested_in(target))))
        else:
            self._element(target, inside)

    def _target(self, element: Any) -> Any:
        """What a copy is of; None if that is not in the file."""
        link = element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or ""
        return self._by_id.get(link[1:]) if link.startswith("#") else None

    def _style(self, element: Any, state: _State) -> dict[str, str]:
        """Inherited, then the element's attributes, then the style sheet, then its own style. W3C CSS Cascade."""
        style = {name: value for name, value in state.style.items() if name not in OWN}
        style |= {name: value.strip() for name, value in element.attrib.items() if name in ATTRIBUTES and value}
        ruled = {**self._rules.get(element, {}), **declared(element.get("style", ""))}
        for name, value in ruled.items():
            if name in IN_CSS_ONLY and value not in ("none", "auto"):
                self.unheeded.add(IN_CSS_ONLY[name])
            if "var(" in value or "!important" in value:
                self.unheeded.add("a style with variables or priorities")
        return style | {name: value for name, value in ruled.items() if value != "inherit"}


_SHAPE_TAGS = frozenset(("path", "circle", "ellipse", "rect", "line", "polyline", "polygon"))
_GEOMETRY = frozenset(("x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "x1", "y1", "x2", "y2", "points", "d"))


def _holds_shapes(element: Any) -> bool:
    return any(tag_of(one) in _SHAPE_TAGS or tag_of(one) == "use" for one in element.iter())


_MAPPED: Remembered[tuple[tuple[Segment, ...], bool]] = Remembered(2048, lambda read: len(read[0]), 100_000)
