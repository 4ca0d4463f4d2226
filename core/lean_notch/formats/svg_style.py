"""What an SVG file's attributes and style sheets say of how a line is drawn. W3C SVG 2, 6 and CSS Cascade."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from .svg_numbers import length_in, tag_of

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


OWN = ("display", "opacity", "clip-path", "mask", "filter", "transform-origin")
"""Attributes that hold for an element and all in it, and that what is in it does not inherit. W3C SVG 2, 6.7."""


IN_CSS_ONLY = {
    **dict.fromkeys(("transform", "translate", "rotate", "scale", "zoom", "offset-path", "offset"), "a transform in CSS"),
    **dict.fromkeys(("x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "d"), "a shape's size in CSS"),
}  # fmt: skip
"""Properties that are read from an element's attributes only. W3C SVG 2, 8.5 and 9; CSS Transforms 2."""


NOT_DONE = {
    "clip-path": "a clip path", "mask": "a mask", "filter": "a filter", "stroke-dasharray": "dashed lines",
    "transform-origin": "a transform with an origin of its own", "marker": "markers", "marker-start": "markers",
    "marker-mid": "markers", "marker-end": "markers",
}  # fmt: skip


ATTRIBUTES = frozenset((*_INHERITED, *OWN, *NOT_DONE))


def colour_of(style: Mapping[str, str], what: str, usual: str) -> str:
    """ "#rrggbb" of a fill or a stroke, "" for none, "?" where there is one that is no plain colour."""
    import tinycss2.color3

    value = style.get(what, usual)
    if value in ("none", "transparent") or length_in(style.get(f"{what}-opacity", "1"), 1) <= 0:
        return ""
    if value.startswith("#") and len(value) == 7:
        return value.lower()
    found = tinycss2.color3.parse_color(style.get("color", "black") if value.lower() == "currentcolor" else value)
    if found is None or isinstance(found, str):
        return "?"
    return "" if found.alpha == 0 else "#" + "".join(f"{round(255 * part):02x}" for part in found[:3])


def declared(text: str) -> dict[str, str]:
    parts = (one.partition(":") for one in text.split(";"))
    return {name.strip().lower(): value.strip() for name, _, value in parts if value.strip()}


def style_rules(root: Any, unheeded: set[str]) -> dict[Any, dict[str, str]]:
    """What the drawing's own style sheets say of each element; rules that are not followed are told to `unheeded`."""
    sheets = [element.text or "" for element in root.iter() if tag_of(element) == "style"]
    if not any(sheet.strip() for sheet in sheets):
        return {}
    import cssselect2
    import tinycss2

    matcher = cssselect2.Matcher()
    for rule in tinycss2.parse_stylesheet("\n".join(sheets), skip_comments=True, skip_whitespace=True):
        if rule.type != "qualified-rule":
            unheeded.add("style rules that hold on a condition")
            continue
        said = declared(tinycss2.serialize(rule.content))
        try:
            for selector in cssselect2.compile_selector_list(rule.prelude):
                matcher.add_selector(selector, said)
        except cssselect2.SelectorError:
            unheeded.add("style rules for elements that are not found")
    rules: dict[Any, dict[str, str]] = {}
    for element in cssselect2.ElementWrapper.from_xml_root(root).iter_subtree():
        for match in matcher.match(element):
            rules.setdefault(element.etree_element, {}).update(match[-1])
    return rules
