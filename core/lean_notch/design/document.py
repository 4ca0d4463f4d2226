"""The design: the boards it needs, named lengths, parts as ordered steps, where they stand, and what joins them.

Lengths are kept as typed (`Length`), so that `width/3`, `1/8 in` and `width + 2*thickness` follow the basis.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, ClassVar, Literal, get_args

from ..documents.as_typed import Typed
from ..documents.rules import Many, Name, Title, Whole, Words
from ..ground.errors import BadDocument, CircularLengths, NotchError
from ..ground.limits import MOST_BOARDS, MOST_JOINTS, MOST_PARTS, MOST_PLACEMENTS, MOST_STEPS
from ..ground.remembered import by_value
from ..joints import Finger, How
from ..lengths.arithmetic import FUNCTIONS
from ..lengths.length import Length, names_in
from ..lengths.units import MM_PER_UNIT, Unit
from ..steps import ZERO, Degrees, Id, OtherPart, Rectangle, ShapeStep, Step
from .circles import circle_in

Side = Literal["bottom", "right", "top", "left"]
SIDES: tuple[Side, ...] = get_args(Side)
Axis = Literal["+x", "-x", "+y", "-y", "+z", "-z"]
Relief = Literal["auto", "dogbone", "t-bone", "none"]
RELIEFS: tuple[Relief, ...] = get_args(Relief)

OF_THE_BASIS = ("thickness", "clearance", "kerf")
"""Names that a dimension may not have: two are measured or chosen with the board, and the kerf belongs to the cut plan."""

Label = Annotated[str, Words(120), Title("Name")]


@dataclass(frozen=True)
class BoardNeed:
    """A board that the design needs; the basis says which one it is. `id` can stand in arithmetic: `dividers.thickness`."""

    id: Annotated[str, Name(dashes=False)]
    title: Label
    KEY: ClassVar[str] = "id"


MAIN = BoardNeed("main", "Board")


@dataclass(frozen=True)
class Dimension:
    """A named length. `chosen` ones are set by the maker; the others follow from them. `positive` ones must come to more than 0,
    as chosen ones must."""

    name: Annotated[str, Name(dashes=False)]
    title: Label
    length: Annotated[Length, Title("Length")]
    chosen: bool = False
    positive: bool = False
    KEY: ClassVar[str] = "name"

    @cached_property
    def names(self) -> tuple[str, ...]:
        """The names that it uses, units among them."""
        return names_in(self.length.text)

    def __post_init__(self) -> None:
        if self.name in OF_THE_BASIS or self.name.lower() in MM_PER_UNIT or self.name in FUNCTIONS:
            what = "a unit" if self.name.lower() in MM_PER_UNIT else "a name of the basis"
            what = "a function of arithmetic" if self.name in FUNCTIONS else what
            raise BadDocument(f"“{self.name}” is {what}.", fix="Choose another name.", field="name")


@dataclass(frozen=True)
class Part:
    """One kind of part, of one board, as its steps make it. `loose` copies are cut beside those that stand somewhere."""

    id: Id
    title: Label
    steps: Annotated[tuple[Step, ...], Many(MOST_STEPS)]
    board: Annotated[str, Name(dashes=False), Title("Board")] = MAIN.id
    loose: Annotated[int, Whole(0, 1000), Title("Loose copies")] = 0
    KEY: ClassVar[str] = "id"

    @cached_property
    def blank(self) -> ShapeStep | None:
        """The plain rectangle from the origin that the part starts from, if it does: its edges can be joined."""
        first = next((step for step in self.steps if step.on), None)
        if not isinstance(first, ShapeStep) or not isinstance(first.shape, Rectangle) or first.does != "add":
            return None
        plain = ShapeStep(first.id, Rectangle(first.shape.width, first.shape.height), title=first.title)
        return first if first == plain else None

    def step(self, step_id: str) -> Step | None:
        return next((step for step in self.steps if step.id == step_id), None)

    @cached_property
    def names(self) -> tuple[str, ...]:
        """The names that its lengths use, units among them, and its board's thickness."""
        return tuple(dict.fromkeys(("thickness", *(name for step in self.steps for name in step.names))))

    @cached_property
    def made_of_others(self) -> bool:
        """Whether a step takes another part: then it follows that one too."""
        return any(isinstance(step, ShapeStep) and isinstance(step.shape, OtherPart) for step in self.steps)


@dataclass(frozen=True)
class AlongAxes(Typed):
    """Where a part's origin stands, and which way its x (`u`) and its y (`v`) run.

    The material lies behind the face that shows x to the right and y up, away from the viewer.
    """

    x: Annotated[Length, Title("Right (x)")] = ZERO
    y: Annotated[Length, Title("Back (y)")] = ZERO
    z: Annotated[Length, Title("Up (z)")] = ZERO
    u: Annotated[Axis, Title("Its width runs along")] = "+x"
    v: Annotated[Axis, Title("Its height runs along")] = "+z"
    kind: ClassVar[str] = "axes"

    def __post_init__(self) -> None:
        if self.u[1] == self.v[1]:
            raise BadDocument("A pose's u and v lie on one axis.", fix="Choose two axes.", field="v")


@dataclass(frozen=True)
class ByNumbers(Typed):
    """Where a part's origin stands, and how the part is turned: it lies flat, face up, and is turned about the x, then the
    y, then the z axis of the room, counter-clockwise as seen from the axis' tip."""

    x: Annotated[Length, Title("Right (x)")] = ZERO
    y: Annotated[Length, Title("Back (y)")] = ZERO
    z: Annotated[Length, Title("Up (z)")] = ZERO
    turn_x: Annotated[Degrees, Title("Turned about x")] = 0.0
    turn_y: Annotated[Degrees, Title("Turned about y")] = 0.0
    turn_z: Annotated[Degrees, Title("Turned about z")] = 0.0
    kind: ClassVar[str] = "numbers"


@dataclass(frozen=True)
class Against(Typed):
    """One of the part's edges against an edge of a part that stands already, the two running opposite ways.

    `along` moves it along that edge, from where the edges begin together or, `centred`, from middle on middle; `into` away from it
    over the other's face, `below` under that face. At 180 degrees the part goes on flat beyond the edge; at 90 it stands square
    behind the other's face, at −90 before it.
    """

    edge: Annotated[str, Words(90), Title("Edge")]
    placement: Annotated[Id, Title("Against")]
    other_edge: Annotated[str, Words(90), Title("Its edge")]
    angle: Annotated[Degrees, Title("Angle")] = 90.0
    along: Annotated[Length, Title("Along the edge")] = ZERO
    into: Annotated[Length, Title("In from the edge")] = ZERO
    below: Annotated[Length, Title("Below the face")] = ZERO
    centred: Annotated[bool, Title("Centred on that edge")] = False
    kind: ClassVar[str] = "against"


Pose = AlongAxes | ByNumbers | Against


@dataclass(frozen=True)
class Placement:
    """One place where a part stands when assembled; `mirrored` ones are turned over: their material lies before the face."""

    id: Id
    part: Annotated[Id, Title("Part")]
    pose: Pose = AlongAxes()
    mirrored: Annotated[bool, Title("Turned over")] = False
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class Member:
    """One side of a joint: an edge of a part where it stands, called after the step that made it, or its whole "face"."""

    placement: Annotated[Id, Title("Placement")]
    edge: Annotated[str, Words(90), Title("Edge")]


@dataclass(frozen=True)
class Joint:
    """How two members meet."""

    id: Id
    title: Label
    first: Member
    second: Member
    how: How = Finger()
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class Answer:
    """What a recipe was answered: a length, or a choice or count as text."""

    name: Annotated[str, Name(dashes=False)]
    text: Annotated[str, Words(200, required=False)] = ""
    unit: Unit = "mm"
    KEY: ClassVar[str] = "name"

    @property
    def length(self) -> Length:
        return Length(self.text, self.unit)


@dataclass(frozen=True)
class Origin:
    """The recipe that a design started from, and its answers: the same answers make the same design again."""

    recipe: Annotated[str, Name(60)]
    answers: Annotated[tuple[Answer, ...], Many(50)] = ()

    def answer(self, name: str) -> Answer | None:
        return next((one for one in self.answers if one.name == name), None)


def copies_called(placed: Iterable[tuple[str, str, str]]) -> dict[str, str]:
    """Of placements, their parts and those parts' titles: names, numbered where a part stands more than once.

    >>> copies_called([("a", "base", "Base"), ("b", "side", "Side"), ("c", "side", "Side")])
    {'a': 'Base', 'b': 'Side, copy 1', 'c': 'Side, copy 2'}
    """
    given = list(placed)
    count, seen, named = Counter(part for _, part, _ in given), Counter[str](), {}
    for placement, part, title in given:
        seen[part] += 1
        named[placement] = f"{title}, copy {seen[part]}" if count[part] > 1 else title
    return named


@dataclass(frozen=True)
class Design:
    """`relief` is cut into the inside corners that take a square mate; `auto` is a dogbone where a router cuts."""

    name: Annotated[str, Words(80), Title("Name")]
    parts: Annotated[tuple[Part, ...], Many(MOST_PARTS)] = ()
    placements: Annotated[tuple[Placement, ...], Many(MOST_PLACEMENTS)] = ()
    joints: Annotated[tuple[Joint, ...], Many(MOST_JOINTS)] = ()
    dimensions: Annotated[tuple[Dimension, ...], Many(MOST_PARTS)] = ()
    boards: Annotated[tuple[BoardNeed, ...], Many(MOST_BOARDS, 1)] = (MAIN,)
    relief: Annotated[Relief, Title("Inside-corner relief")] = "auto"
    origin: Origin | None = None

    def part(self, part_id: str) -> Part | None:
        return self._parts.get(part_id)

    @cached_property
    def _parts(self) -> dict[str, Part]:
        return {part.id: part for part in self.parts}

    def placement(self, placement_id: str) -> Placement | None:
        return self._by_id.get(placement_id)

    @cached_property
    def _by_id(self) -> dict[str, Placement]:
        return {one.id: one for one in self.placements}

    def placements_of(self, part_id: str) -> tuple[Placement, ...]:
        return self._placements.get(part_id, ())

    @cached_property
    def _placements(self) -> dict[str, tuple[Placement, ...]]:
        found: dict[str, tuple[Placement, ...]] = {}
        for one in self.placements:
            found[one.part] = (*found.get(one.part, ()), one)
        return found

    @cached_property
    def called(self) -> dict[str, str]:
        """What people call each placement."""
        titles = {part.id: part.title for part in self.parts}
        return copies_called((one.id, one.part, titles.get(one.part, one.part)) for one in self.placements)

    def quantity(self, part: Part) -> int:
        """How many of a part one set takes: those that stand, and the loose ones."""
        return part.loose + len(self.placements_of(part.id))

    def evaluate(self, names: Mapping[str, float]) -> dict[str, float]:
        """All named lengths in mm, `names` of the basis included. Raises NotchError at the dimension's input."""
        known = dict(names)
        turns, circle = _in_turn(tuple([(d.name, d.length.text) for d in self.dimensions]), frozenset(known))
        for number in turns:
            dimension = self.dimensions[number]
            try:
                known[dimension.name] = dimension.length.mm(known)
            except NotchError as error:
                raise error.at(self.input_behind(Length(dimension.name))) from None
        if circle:
            texts = {dimension.name: dimension.length.text for dimension in self.dimensions}
            turning = circle_in({name: texts[name] for name in circle})
            raise CircularLengths(
                f"{turning[0]} depends on itself: {', '.join(f'{name} = {texts[name]}' for name in turning[:-1])}.",
                fix=f"Give one of them as a plain length, {turning[0]} for instance.",
                field=self.input_behind(Length(turning[0])),
            )
        return known

    def input_of(self, name: str) -> str:
        """The path of what the maker types to set a chosen dimension: a recipe's answer, else the dimension itself."""
        return f"answers/{name}" if self.origin and self.origin.answer(name) else f"dimensions/{name}/length"

    def input_behind(self, typed: Length) -> str:
        """The path of the chosen dimension that a length goes back to, or of the first one if none is; "" without any."""
        by_name = {dimension.name: dimension for dimension in self.dimensions}
        queue = sorted(names_in(typed.text))
        seen, first = set[str](), ""
        for name in queue:
            dimension = by_name.get(name)
            if dimension and dimension.chosen:
                return self.input_of(name)
            if dimension and name not in seen:
                first = first or self.input_of(name)
                seen.add(name)
                queue += sorted(names_in(dimension.length.text))
        return first


@by_value(64)
def _in_turn(lengths: tuple[tuple[str, str], ...], given: frozenset[str]) -> tuple[tuple[int, ...], tuple[str, ...]]:
    """The numbers of lengths (name and text), each after those that it uses; and the names of those that go in a circle.

    What can be evaluated goes first, so that an error can list every name there is.
    """
    known = set(given) | MM_PER_UNIT.keys()
    pending = {name: (number, set(names_in(text))) for number, (name, text) in enumerate(lengths)}
    turns: list[int] = []
    while pending:
        ready = [name for name, (_, used) in pending.items() if not pending.keys() & used]
        if not ready:
            return tuple(turns), tuple(pending)
        sound = [name for name in ready if pending[name][1] <= known]
        for name in sound or ready:
            turns.append(pending.pop(name)[0])
            known.add(name)
    return tuple(turns), ()


def dangling(design: Design) -> Iterator[tuple[str, str, str]]:
    """Path, name and kind of what is named and is not there."""
    return ((path, name, what) for path, name, known, what in _references(design) if name not in known)


def _references(design: Design) -> Iterator[tuple[str, str, set[str], str]]:
    boards = {board.id for board in design.boards}
    parts = {part.id for part in design.parts}
    placements = {one.id for one in design.placements}
    for part in design.parts:
        yield f"parts/{part.id}/board", part.board, boards, "board"
        for step in part.steps:
            if isinstance(step, ShapeStep) and isinstance(step.shape, OtherPart):
                yield f"parts/{part.id}/steps/{step.id}/shape/part", step.shape.part, parts - {part.id}, "other part"
    for one in design.placements:
        yield f"placements/{one.id}/part", one.part, parts, "part"
        if isinstance(one.pose, Against):
            yield f"placements/{one.id}/pose/placement", one.pose.placement, placements, "placement"
    for joint in design.joints:
        for end, member in (("first", joint.first), ("second", joint.second)):
            yield f"joints/{joint.id}/{end}/placement", member.placement, placements, "placement"
