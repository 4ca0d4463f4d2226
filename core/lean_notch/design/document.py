"""The design: named dimensions, parts as ordered features, joints between parts, and where parts stand.

Lengths are kept as typed (`Length`), so that `width/3`, `1/8 in` and `width + 2*thickness` follow the basis.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Any, Literal, cast

from ..documents import choice, entry, length, length_out, mapping, sequence, text, whole
from ..errors import BadDocument, CircularLengths, NotchError
from ..units import MM_PER_UNIT, Length
from .marks import CornerCut, Mark, corner_to_json, corners_from_json, mark_to_json, marks_from_json

VERSION = 1
"""Of the document. `design_from_json` reads this one; older ones will be migrated there."""

MOST_PARTS = 500
MOST_JOINTS = 2000

Side = Literal["bottom", "right", "top", "left"]
SIDES: tuple[Side, ...] = ("bottom", "right", "top", "left")
AXES = ("+x", "-x", "+y", "-y", "+z", "-z")


@dataclass(frozen=True)
class Dimension:
    """A named length. `chosen` ones are set by the maker; the others follow from them."""

    name: str
    title: str
    length: Length
    chosen: bool = False


@dataclass(frozen=True)
class Panel:
    """A rectangle from (0, 0) to (width, height), before joints."""

    width: Length
    height: Length


@dataclass(frozen=True)
class Hole:
    """A round hole, its centre measured from the panel's lower left corner."""

    x: Length
    y: Length
    diameter: Length


@dataclass(frozen=True)
class Pose:
    """Where a panel stands when assembled: its lower left corner, and the directions of its width and height.

    The material lies behind the face that shows width to the right and height up, away from the viewer.
    """

    origin: tuple[Length, Length, Length]
    u: str
    v: str


@dataclass(frozen=True)
class Part:
    """One kind of part: a panel first, then what is taken from it."""

    id: str
    title: str
    panel: Panel
    pose: Pose
    holes: tuple[Hole, ...] = ()
    quantity: int = 1
    marks: tuple[Mark, ...] = ()
    corners: tuple[CornerCut, ...] = ()


Relief = Literal["auto", "dogbone", "t-bone", "none"]
RELIEFS: tuple[Relief, ...] = ("auto", "dogbone", "t-bone", "none")


@dataclass(frozen=True)
class EdgeRef:
    part: str
    side: Side


@dataclass(frozen=True)
class FingerJoint:
    """Two panel edges that meet at 90 degrees. `first` has a finger at both ends.

    `finger` is the wanted width of one finger; None leaves it to the thickness of the board.
    """

    id: str
    title: str
    first: EdgeRef
    second: EdgeRef
    finger: Length | None = None


@dataclass(frozen=True)
class Design:
    """`recipe` names where the parts came from and with which settings, so that they can be asked for anew.

    `relief` is cut into the inside corners that take a square mate; `auto` is a dogbone where a router cuts.
    """

    name: str
    dimensions: tuple[Dimension, ...]
    parts: tuple[Part, ...]
    joints: tuple[FingerJoint, ...]
    recipe: str = ""
    settings: tuple[tuple[str, Length | str], ...] = ()
    relief: Relief = "auto"

    def evaluate(self, names: Mapping[str, float]) -> dict[str, float]:
        """All named lengths in mm, `names` of the basis included. Raises NotchError at the dimension's name."""
        known = dict(names)
        pending = {dimension.name: dimension for dimension in self.dimensions}
        while pending:
            ready = [d for d in pending.values() if not _names_in(d.length) & pending.keys()]
            if not ready:
                first, *others = pending
                raise CircularLengths(
                    f"{first} depends on itself{', by way of ' if others else ''}{' and '.join(others)}.",
                    fix=f"Give {first} as a plain length.",
                    field=self.chosen_behind(Length(first)) or first,
                )
            # What can be evaluated goes first, so that an error can list every name there is.
            sound = [d for d in ready if _names_in(d.length) <= known.keys() | MM_PER_UNIT.keys()]
            for dimension in sound or ready:
                try:
                    known[dimension.name] = dimension.length.mm(known)
                except NotchError as error:
                    raise error.at(self.chosen_behind(Length(dimension.name))) from None
                del pending[dimension.name]
        return known

    def chosen_behind(self, typed: Length) -> str:
        """The chosen dimension that a length goes back to, or "" if none: where to mend it."""
        by_name = {dimension.name: dimension for dimension in self.dimensions}
        queue, seen = sorted(_names_in(typed)), set[str]()
        for name in queue:
            dimension = by_name.get(name)
            if dimension and dimension.chosen:
                return name
            if dimension and name not in seen:
                seen.add(name)
                queue += sorted(_names_in(dimension.length))
        return ""


def _names_in(typed: Length) -> set[str]:
    return set(re.findall(r"[A-Za-z_]\w*", typed.text))


def design_to_json(design: Design) -> dict[str, Any]:
    """The document that `design_from_json` reads."""
    return {
        "lean_notch_design": VERSION,
        "name": design.name,
        "recipe": design.recipe,
        "settings": {name: asdict(value) if isinstance(value, Length) else value for name, value in design.settings},
        "relief": design.relief,
        "dimensions": [
            {"name": d.name, "title": d.title, "length": length_out(d.length), "chosen": d.chosen}
            for d in design.dimensions
        ],
        "parts": [
            {
                "id": part.id,
                "title": part.title,
                "quantity": part.quantity,
                "panel": {"width": length_out(part.panel.width), "height": length_out(part.panel.height)},
                "holes": [
                    {"x": length_out(h.x), "y": length_out(h.y), "diameter": length_out(h.diameter)} for h in part.holes
                ],
                "marks": [mark_to_json(mark) for mark in part.marks],
                "corners": [corner_to_json(corner) for corner in part.corners],
                "pose": {
                    "origin": [length_out(value) for value in part.pose.origin],
                    "u": part.pose.u,
                    "v": part.pose.v,
                },
            }
            for part in design.parts
        ],
        "joints": [
            {
                "id": joint.id,
                "title": joint.title,
                "first": {"part": joint.first.part, "side": joint.first.side},
                "second": {"part": joint.second.part, "side": joint.second.side},
                "finger": length_out(joint.finger) if joint.finger else None,
            }
            for joint in design.joints
        ],
    }


def design_from_json(document: object) -> Design:
    """A Design from its document. Raises BadDocument at the entry that is wrong."""
    top = mapping(document, "design")
    if top.get("lean_notch_design") != VERSION:
        raise BadDocument(
            f"The document is no Lean Notch design of version {VERSION}.",
            fix="Make one with `lean-notch recipe … --out FILE`, or open the file in the version that wrote it.",
            field="lean_notch_design",
        )
    parts = tuple(_part(p, f"parts[{i}]") for i, p in enumerate(sequence(entry(top, "parts"), "parts", MOST_PARTS)))
    ids = [part.id for part in parts]
    if len(set(ids)) < len(ids):
        raise BadDocument("Two parts share an id.", fix="Give each part an id of its own.", field="parts")
    settings = mapping(top.get("settings", {}), "settings")
    return Design(
        name=text(entry(top, "name"), "name"),
        recipe=text(top.get("recipe", ""), "recipe", required=False),
        settings=tuple((name, _setting(value, f"settings.{name}")) for name, value in settings.items()),
        dimensions=tuple(
            _dimension(d, f"dimensions[{i}]")
            for i, d in enumerate(sequence(top.get("dimensions", ()), "dimensions", MOST_PARTS))
        ),
        parts=parts,
        relief=cast(Relief, choice(top.get("relief", "auto"), RELIEFS, "relief")),
        joints=tuple(
            _joint(j, f"joints[{i}]", ids) for i, j in enumerate(sequence(top.get("joints", ()), "joints", MOST_JOINTS))
        ),
    )


def _setting(value: object, field: str) -> Length | str:
    return length(value, field) if isinstance(value, Mapping) else text(value, field, required=False)


def _dimension(value: object, field: str) -> Dimension:
    document = mapping(value, field)
    name = text(entry(document, "name", field), f"{field}.name")
    if not re.fullmatch(r"[A-Za-z_]\w*", name):
        raise BadDocument(f"“{name}” is no name.", fix="Use letters, digits and _.", field=f"{field}.name")
    return Dimension(
        name=name,
        title=text(document.get("title", name), f"{field}.title"),
        length=length(entry(document, "length", field), name),
        chosen=bool(document.get("chosen", False)),
    )


def _part(value: object, field: str) -> Part:
    document = mapping(value, field)
    panel = mapping(entry(document, "panel", field), f"{field}.panel")
    pose = mapping(entry(document, "pose", field), f"{field}.pose")
    origin = sequence(entry(pose, "origin", f"{field}.pose"), f"{field}.pose.origin", 3)
    if len(origin) != 3:
        raise BadDocument(
            "A pose's origin has not three lengths.", fix="Give x, y and z.", field=f"{field}.pose.origin"
        )
    x, y, z = (length(value, f"{field}.pose.origin") for value in origin)
    u = choice(entry(pose, "u", f"{field}.pose"), AXES, f"{field}.pose.u")
    v = choice(entry(pose, "v", f"{field}.pose"), AXES, f"{field}.pose.v")
    if u[1] == v[1]:
        raise BadDocument("A pose's u and v lie on one axis.", fix="Choose two axes.", field=f"{field}.pose.v")
    part_id = text(entry(document, "id", field), f"{field}.id", 40)
    if not re.fullmatch(r"[A-Za-z0-9][\w-]*", part_id):
        raise BadDocument(f"“{part_id}” is no id.", fix="Use letters, digits, - and _.", field=f"{field}.id")
    return Part(
        id=part_id,
        title=text(document.get("title", part_id), f"{field}.title"),
        panel=Panel(
            width=length(entry(panel, "width", f"{field}.panel"), f"{field}.panel.width"),
            height=length(entry(panel, "height", f"{field}.panel"), f"{field}.panel.height"),
        ),
        pose=Pose((x, y, z), u, v),
        holes=tuple(
            _hole(hole, f"{field}.holes[{i}]")
            for i, hole in enumerate(sequence(document.get("holes", ()), f"{field}.holes", 10_000))
        ),
        quantity=whole(document.get("quantity", 1), f"{field}.quantity", 1, 1000),
        marks=marks_from_json(document.get("marks", ()), part_id),
        corners=corners_from_json(document.get("corners", ()), part_id),
    )


def _hole(value: object, field: str) -> Hole:
    document = mapping(value, field)
    x, y, diameter = (length(entry(document, key, field), f"{field}.{key}") for key in ("x", "y", "diameter"))
    return Hole(x, y, diameter)


def _joint(value: object, field: str, ids: list[str]) -> FingerJoint:
    document = mapping(value, field)
    finger = document.get("finger")
    return FingerJoint(
        id=text(entry(document, "id", field), f"{field}.id", 40),
        title=text(document.get("title", entry(document, "id", field)), f"{field}.title"),
        first=_edge(entry(document, "first", field), f"{field}.first", ids),
        second=_edge(entry(document, "second", field), f"{field}.second", ids),
        finger=None if finger in (None, "") else length(finger, f"{field}.finger"),
    )


def _edge(value: object, field: str, ids: list[str]) -> EdgeRef:
    document = mapping(value, field)
    return EdgeRef(
        part=choice(entry(document, "part", field), ids, f"{field}.part"),
        side=cast(Side, choice(entry(document, "side", field), SIDES, f"{field}.side")),
    )
