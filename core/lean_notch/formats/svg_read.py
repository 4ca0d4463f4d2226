"""SVG in, paths out. Shares nothing with the writer; arcs after the SVG specification's own appendix.

Reads groups, transforms, style sheets, nested drawings and copies, and every basic shape. Whatever is no outline is
named as unread or returned as text rather than guessed at; what would make another program draw the file otherwise than it
is read here is named as unheeded. Nothing outside the file is ever fetched.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any

from ..geometry import Cubic, Point, Segment
from ..ground.errors import UnreadableFile
from ..ground.limits import MOST_DRAWING_BYTES
from ..ground.remembered import Remembered, Same, remembered
from ..lengths.units import MM_PER_PT, MM_PER_PX, MM_PER_UNIT
from .curves import Affine, ellipse_pieces, from_quadratic, mapped
from .read_file import ReadFile, ReadPath, ReadText, Room, check_elements

_PER_UNIT = {**MM_PER_UNIT, "px": MM_PER_PX, "pt": MM_PER_PT, "pc": 12 * MM_PER_PT, "q": 0.25}
"""Millimetres per unit. W3C CSS Values and Units 3, absolute lengths."""

_SILENT = {"title", "desc", "metadata", "defs", "style", "symbol", "clippath", "mask", "pattern", "marker", "script"}
_INHERITED = (
    "fill",
    "stroke",
    "stroke-width",
    "visibility",
    "stroke-opacity",
    "fill-opacity",
    "color",
    "stroke-dasharray",
)
_OWN = ("display", "opacity", "clip-path", "mask", "filter", "transform-origin")
"""Attributes that hold for an element and all in it, and that what is in it does not inherit. W3C SVG 2, 6.7."""

_IN_CSS_ONLY = {
    **dict.fromkeys(("transform", "translate", "rotate", "scale", "zoom", "offset-path", "offset"), "a transform in CSS"),
    **dict.fromkeys(("x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "d"), "a shape's size in CSS"),
}  # fmt: skip
"""Properties that are read from an element's attributes only. W3C SVG 2, 8.5 and 9; CSS Transforms 2."""

_NOT_DONE = {
    "clip-path": "a clip path", "mask": "a mask", "filter": "a filter", "stroke-dasharray": "dashed lines",
    "transform-origin": "a transform with an origin of its own", "marker": "markers", "marker-start": "markers",
    "marker-mid": "markers", "marker-end": "markers",
}  # fmt: skip
_ATTRIBUTES = frozenset((*_INHERITED, *_OWN, *_NOT_DONE))
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
    if _tag(root) != "svg":
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
        box = [_number(value) for value in re.split(r"[\s,]+", root.get("viewBox", "").strip()) if value]
        if box and (len(box) != 4 or box[2] <= 0 or box[3] <= 0):
            raise UnreadableFile("The SVG's viewBox is broken.", fix="Export it with a viewBox and a size in mm.")
        width, unit = _size(root.get("width", ""))
        height, other = _size(root.get("height", ""))
        named = unit if unit == other else ""
        if not box:
            if width is None or height is None:
                raise UnreadableFile("The SVG has no size.", fix="Export it with a viewBox and a size in mm.")
            per = _PER_UNIT.get(unit, MM_PER_PX)
            # Without a viewBox a drawing's units are px, whatever its size is said in.
            affine = Affine(MM_PER_PX, 0, 0, -MM_PER_PX, 0, height * _PER_UNIT.get(other, MM_PER_PX))
            sure = named not in ("", "px")
            return cls(
                width * per, height * _PER_UNIT.get(other, MM_PER_PX), affine, "px", "" if sure else "96 px an inch"
            )
        if width is None or height is None:
            width, height, named = box[2], box[3], ""
        x = width * _PER_UNIT.get(unit, MM_PER_PX) / box[2]
        y = height * _PER_UNIT.get(other, MM_PER_PX) / box[3]
        stretched = abs(x - y) > 1e-6 * x
        if stretched and root.get("preserveAspectRatio", "") != "none":
            x = y = min(x, y)
        affine = Affine(x, 0, 0, -y, -box[0] * x, (box[1] + box[3]) * y)
        assumed = "" if named not in ("", "px") else "96 px an inch"
        return cls(box[2] * x, box[3] * y, affine, named, assumed, stretched)


def _tag(element: Any) -> str:
    return element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""


def _size(text: str) -> tuple[float | None, str]:
    """A size and its unit, "" for none; no size where it is left out or a share of the window."""
    match = re.fullmatch(r"\s*([\d.]+(?:e[-+]?\d+)?)\s*([a-zA-Z]*)\s*", text)
    if not match:
        if text.strip() and not text.strip().endswith("%"):
            raise UnreadableFile(f"The SVG's size is “{text[:20]}”.", fix="Export it with width and height in mm.")
        return None, ""
    unit = match[2].lower()
    if unit and unit not in _PER_UNIT:
        raise UnreadableFile(f"The SVG's size is “{text[:20]}”.", fix="Export it with width and height in mm.")
    value = float(match[1])
    if not 0 < value < 1e7:
        raise UnreadableFile(f"The SVG's size is “{text[:20]}”.", fix="Export it with a size of more than 0 mm.")
    return value, unit


def _number(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        raise UnreadableFile(f"“{text[:20]}” is no number.", fix="Export the file again.") from None
    if not math.isfinite(value):
        raise UnreadableFile(f"“{text[:20]}” is no number.", fix="Export the file again.")
    return value


def _length(text: str | None, default: float = 0.0) -> float:
    """A length inside the drawing, in its units (px)."""
    match = re.fullmatch(r"\s*([-+]?[\d.]+(?:[eE][-+]?\d+)?)\s*([a-zA-Z]*)\s*", text or "")
    if not match:
        if text and not text.strip().endswith("%") and text.strip() != "auto":
            raise UnreadableFile(f"“{text[:20]}” is not a length.", fix="Export the file again.")
        return default
    return _number(match[1]) * _PER_UNIT.get(match[2].lower(), MM_PER_PX) / MM_PER_PX


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
        self._rules = _style_rules(root, self.unheeded)

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
            if _tag(element) in _ANIMATED:
                self.unheeded.add("an animation")
            elif _tag(element) == "script":
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
            target = self._target(element) if _tag(element) == "use" else None
            if target is not None:
                known += self._count(target, depth + 1)
            self._counts[element] = known
        return known

    def children(self, element: Any, state: _State) -> None:
        for child in element:
            self._element(child, state)

    def _element(self, element: Any, state: _State) -> None:
        tag = _tag(element)
        if not tag or tag.lower() in _SILENT:
            return
        style = self._style(element, state)
        if not self._shown(element, style):
            return
        affine = state.affine.after(_transform(element.get("transform", "")))
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
                ReadText(state.layer, words, affine.point((_length(element.get("x")), _length(element.get("y")))))
            )
        elif shapes := _SHAPES.get(tag):
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
        fill = _colour(style, "fill", "black")
        stroke = _colour(style, "stroke", "none")
        width = _length(style.get("stroke-width", "1"), 1.0) * state.affine.scale if stroke else 0.0
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
        self.children(element, replace(state, affine=affine.after(_nested(element))))
        if element.get("preserveAspectRatio"):
            self.unheeded.add("a drawing within the drawing with an alignment of its own")
        sides = [element.get(name) or "" for name in ("width", "height")]
        if state.style.get("overflow", element.get("overflow", "hidden")) == "visible" or not all(sides):
            return
        x, y = (_length(element.get(name)) for name in "xy")
        width, height = (_length(side) for side in sides)
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
        if _tag(element) in _SHAPES and style.get("visibility") in ("hidden", "collapse"):
            self.unheeded.add(f"hidden lines (visibility: {style['visibility']})")
            return False
        if style.get("opacity", "1").strip("0.% ") == "":
            self.unheeded.add("lines that cannot be seen (opacity: 0)")
        for name, what in _NOT_DONE.items():
            if style.get(name, "none") not in ("none", "0", ""):
                self.unheeded.add(what)
        return True

    def _use(self, element: Any, state: _State) -> None:
        target = self._target(element)
        if target is None:
            self.unread.add("<use> of something that is not in the file")
            return
        moved = state.affine.after(Affine(e=_length(element.get("x")), f=_length(element.get("y"))))
        inside = replace(state, affine=moved)
        if _tag(target) in ("symbol", "svg") and (element.get("width") or element.get("height")):
            self.unheeded.add("a copy of another size")
        if _tag(target) == "symbol":
            self.children(target, replace(inside, affine=moved.after(_nested(target))))
        else:
            self._element(target, inside)

    def _target(self, element: Any) -> Any:
        """What a copy is of; None if that is not in the file."""
        link = element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or ""
        return self._by_id.get(link[1:]) if link.startswith("#") else None

    def _style(self, element: Any, state: _State) -> dict[str, str]:
        """Inherited, then the element's attributes, then the style sheet, then its own style. W3C CSS Cascade."""
        style = {name: value for name, value in state.style.items() if name not in _OWN}
        style |= {name: value.strip() for name, value in element.attrib.items() if name in _ATTRIBUTES and value}
        ruled = {**self._rules.get(element, {}), **_declared(element.get("style", ""))}
        for name, value in ruled.items():
            if name in _IN_CSS_ONLY and value not in ("none", "auto"):
                self.unheeded.add(_IN_CSS_ONLY[name])
            if "var(" in value or "!important" in value:
                self.unheeded.add("a style with variables or priorities")
        return style | {name: value for name, value in ruled.items() if value != "inherit"}


_SHAPE_TAGS = frozenset(("path", "circle", "ellipse", "rect", "line", "polyline", "polygon"))
_GEOMETRY = frozenset(("x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "x1", "y1", "x2", "y2", "points", "d"))


def _holds_shapes(element: Any) -> bool:
    return any(_tag(one) in _SHAPE_TAGS or _tag(one) == "use" for one in element.iter())


def _colour(style: Mapping[str, str], what: str, usual: str) -> str:
    """ "#rrggbb" of a fill or a stroke, "" for none, "?" where there is one that is no plain colour."""
    import tinycss2.color3

    value = style.get(what, usual)
    if value in ("none", "transparent") or _length(style.get(f"{what}-opacity", "1"), 1) <= 0:
        return ""
    if value.startswith("#") and len(value) == 7:
        return value.lower()
    found = tinycss2.color3.parse_color(style.get("color", "black") if value.lower() == "currentcolor" else value)
    if found is None or isinstance(found, str):
        return "?"
    return "" if found.alpha == 0 else "#" + "".join(f"{round(255 * part):02x}" for part in found[:3])


def _nested(element: Any) -> Affine:
    """Where a nested drawing or symbol puts its units."""
    shift = Affine(e=_length(element.get("x")), f=_length(element.get("y")))
    box = [_number(value) for value in re.split(r"[\s,]+", element.get("viewBox", "").strip()) if value]
    if len(box) != 4 or box[2] <= 0 or box[3] <= 0:
        return shift
    width, height = _length(element.get("width"), box[2]), _length(element.get("height"), box[3])
    scale = min(width / box[2], height / box[3])
    middle = Affine(scale, 0, 0, scale, (width - box[2] * scale) / 2, (height - box[3] * scale) / 2)
    return shift.after(middle).after(Affine(e=-box[0], f=-box[1]))


def _declared(text: str) -> dict[str, str]:
    parts = (one.partition(":") for one in text.split(";"))
    return {name.strip().lower(): value.strip() for name, _, value in parts if value.strip()}


def _style_rules(root: Any, unheeded: set[str]) -> dict[Any, dict[str, str]]:
    """What the drawing's own style sheets say of each element; rules that are not followed are told to `unheeded`."""
    sheets = [element.text or "" for element in root.iter() if _tag(element) == "style"]
    if not any(sheet.strip() for sheet in sheets):
        return {}
    import cssselect2
    import tinycss2

    matcher = cssselect2.Matcher()
    for rule in tinycss2.parse_stylesheet("\n".join(sheets), skip_comments=True, skip_whitespace=True):
        if rule.type != "qualified-rule":
            unheeded.add("style rules that hold on a condition")
            continue
        declared = _declared(tinycss2.serialize(rule.content))
        try:
            for selector in cssselect2.compile_selector_list(rule.prelude):
                matcher.add_selector(selector, declared)
        except cssselect2.SelectorError:
            unheeded.add("style rules for elements that are not found")
    rules: dict[Any, dict[str, str]] = {}
    for element in cssselect2.ElementWrapper.from_xml_root(root).iter_subtree():
        for match in matcher.match(element):
            rules.setdefault(element.etree_element, {}).update(match[-1])
    return rules


_TRANSFORM = re.compile(r"([a-zA-Z]+)\s*\(([^)]*)\)")


def _transform(text: str) -> Affine:
    """W3C SVG 2, 8.5: the transforms of a list apply from the last to the first."""
    whole = Affine()
    for name, arguments in _TRANSFORM.findall(text):
        v = [_number(value) for value in re.split(r"[\s,]+", arguments.strip()) if value]
        try:
            whole = whole.after(_ONE[name](*v))
        except (KeyError, TypeError):
            raise UnreadableFile(
                f"A transform says “{name}({arguments[:20]})”.", fix="Export the file again."
            ) from None
    return whole


def _rotate(degrees: float, x: float = 0.0, y: float = 0.0) -> Affine:
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return Affine(e=x, f=y).after(Affine(cos, sin, -sin, cos)).after(Affine(e=-x, f=-y))


_ONE: dict[str, Callable[..., Affine]] = {
    "matrix": Affine,
    "translate": lambda x, y=0.0: Affine(e=x, f=y),
    "scale": lambda x, y=None: Affine(x, 0, 0, x if y is None else y),
    "rotate": _rotate,
    "skewX": lambda degrees: Affine(c=math.tan(math.radians(degrees))),
    "skewY": lambda degrees: Affine(b=math.tan(math.radians(degrees))),
}

_Pieces = Iterator[tuple[Sequence[Segment | Cubic], bool]]
_QUARTER = math.tan(math.pi / 8)


def _circle(element: Any) -> _Pieces:
    r = _length(element.get("r"))
    return _ellipse_at(_length(element.get("cx")), _length(element.get("cy")), r, r)


def _ellipse(element: Any) -> _Pieces:
    return _ellipse_at(*(_length(element.get(name)) for name in ("cx", "cy", "rx", "ry")))


def _ellipse_at(x: float, y: float, rx: float, ry: float) -> _Pieces:
    if rx <= 0 or ry <= 0:
        return
    # From 3 o'clock in the direction of growing angles, as W3C SVG 2, 10.3 has it.
    points = [(x + rx, y), (x, y + ry), (x - rx, y), (x, y - ry)]
    pieces: list[Segment | Cubic] = []
    for i, start in enumerate(points):
        pieces += ellipse_pieces(start, points[(i + 1) % 4], rx, ry, 0.0, False, True)
    yield pieces, True


def _rect(element: Any) -> _Pieces:
    x, y, w, h = (_length(element.get(name)) for name in ("x", "y", "width", "height"))
    if w <= 0 or h <= 0:
        return
    rx, ry = _length(element.get("rx"), -1.0), _length(element.get("ry"), -1.0)
    rx, ry = (ry if rx < 0 else rx), (rx if ry < 0 else ry)
    rx, ry = min(max(rx, 0.0), w / 2), min(max(ry, 0.0), h / 2)
    corners: list[Point] = [
        (x + rx, y), (x + w - rx, y), (x + w, y + ry), (x + w, y + h - ry),
        (x + w - rx, y + h), (x + rx, y + h), (x, y + h - ry), (x, y + ry),
    ]  # fmt: skip
    pieces: list[Segment | Cubic] = []
    for i, start in enumerate(corners):
        end = corners[(i + 1) % 8]
        if start != end:
            pieces += ellipse_pieces(start, end, rx, ry, 0.0, False, True) if i % 2 else [Segment(start, end, 0.0)]
    yield pieces, True


def _line(element: Any) -> _Pieces:
    a, b = ((_length(element.get(f"x{i}")), _length(element.get(f"y{i}"))) for i in (1, 2))
    yield [Segment(a, b, 0.0)], False


def _points(element: Any) -> list[Point]:
    numbers = [_number(value) for value in re.split(r"[\s,]+", element.get("points", "").strip()) if value]
    return list(zip(numbers[::2], numbers[1::2], strict=False))


def _polyline(element: Any) -> _Pieces:
    points = _points(element)
    yield [Segment(a, b, 0.0) for a, b in pairwise(points)], False


def _polygon(element: Any) -> _Pieces:
    points = _points(element)
    yield [Segment(a, b, 0.0) for a, b in zip(points, [*points[1:], *points[:1]], strict=True)], True


def _path_element(element: Any) -> _Pieces:
    return iter(_subpaths_of(element.get("d", "")))


_SHAPES = {
    "path": _path_element,
    "circle": _circle,
    "ellipse": _ellipse,
    "rect": _rect,
    "line": _line,
    "polyline": _polyline,
    "polygon": _polygon,
}


# What was read of a path's text holds for the same text: a job's file is read back after every edit.
@remembered(2048, lambda read: sum(len(pieces) for pieces, _ in read), 100_000)
def _subpaths_of(text: str) -> tuple[tuple[tuple[Segment | Cubic, ...], bool], ...]:
    return tuple((tuple(pieces), closed) for pieces, closed in _subpaths(text))


_MAPPED: Remembered[tuple[tuple[Segment, ...], bool]] = Remembered(2048, lambda read: len(read[0]), 100_000)

_LETTER = re.compile(r"([A-DF-Za-df-z])")  # e belongs to numbers
_NUMBER = re.compile(r"\s*,?\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)")
_ARGUMENTS = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2, "A": 7, "Z": 0}
_NEXT = {"M": "L", "m": "l"}


def _commands(d: str) -> Iterator[tuple[str, list[float]]]:
    before, *rest = _LETTER.split(d)
    if before.strip():
        raise UnreadableFile("A path has numbers without a command.", fix="Export the file again.")
    for command, arguments in zip(rest[::2], rest[1::2], strict=True):
        count = _ARGUMENTS.get(command.upper())
        if count is None:
            raise UnreadableFile(f"A path holds “{command}”.", fix="Export the file again.")
        try:
            numbers = list(map(float, arguments.replace(",", " ").split()))
        except ValueError:
            numbers = _squeezed(arguments, arcs=count == 7)
        if count == 7 and (len(numbers) % 7 or any(flag not in (0, 1) for at in (3, 4) for flag in numbers[at::7])):
            numbers = _squeezed(arguments, arcs=True)
        if count == 0 and not numbers:
            yield "Z", []
        elif not numbers or not count or len(numbers) % count:
            raise UnreadableFile(f"A path's {command} lacks numbers or has too many.", fix="Export the file again.")
        elif not all(map(math.isfinite, numbers)):
            raise UnreadableFile("A path's number is too large.", fix="Export the file again.")
        else:
            for at in range(0, len(numbers), count):
                yield (command if at == 0 else _NEXT.get(command, command)), numbers[at : at + count]


def _squeezed(text: str, *, arcs: bool) -> list[float]:
    """Numbers with nothing between them but a sign or a point; an arc's two flags need not even that.

    W3C SVG 2, 9.3.9.
    """
    numbers: list[float] = []
    at, text = 0, text.rstrip()
    while at < len(text):
        flag = re.compile(r"\s*,?\s*([01])").match(text, at) if arcs and len(numbers) % 7 in (3, 4) else None
        match = flag or _NUMBER.match(text, at)
        if not match:
            raise UnreadableFile(f"A path holds “{text[at : at + 10]}”.", fix="Export the file again.")
        numbers.append(float(match[1]))
        at = match.end()
    return numbers


def _subpaths(d: str) -> _Pieces:
    here = start = (0.0, 0.0)
    pieces: list[Segment | Cubic] = []
    before: tuple[str, Point] = ("", here)  # the last command and its last control point
    for command, v in _commands(d):
        kind = command.upper()
        if kind == "Z":
            if here != start:
                pieces.append(Segment(here, start, 0.0))
            if pieces:
                yield pieces, True
            pieces, here, before = [], start, ("Z", start)
            continue
        ox, oy = here if command.islower() else (0.0, 0.0)
        if kind == "M":
            if pieces:
                yield pieces, False
            pieces, here = [], (v[0] + ox, v[1] + oy)
            start, before = here, ("M", here)
            continue
        if kind in "HV":
            end = (v[0] + ox, here[1]) if kind == "H" else (here[0], v[0] + oy)
        else:
            end = (v[-2] + ox, v[-1] + oy)
        control = end
        if kind in "LHV":
            pieces.append(Segment(here, end, 0.0))
        elif kind == "A":
            pieces += ellipse_pieces(here, end, v[0], v[1], v[2], bool(v[3]), bool(v[4]))
        elif kind in "CS":
            first = (v[0] + ox, v[1] + oy) if kind == "C" else _reflected(here, before, "CS")
            control = (v[-4] + ox, v[-3] + oy)
            pieces.append(Cubic(here, first, control, end))
        else:
            control = (v[0] + ox, v[1] + oy) if kind == "Q" else _reflected(here, before, "QT")
            pieces.append(from_quadratic(here, control, end))
        here, before = end, (kind, control)
    if pieces:
        yield pieces, False


def _reflected(here: Point, before: tuple[str, Point], kinds: str) -> Point:
    kind, control = before
    return (2 * here[0] - control[0], 2 * here[1] - control[1]) if kind and kind in kinds else here
