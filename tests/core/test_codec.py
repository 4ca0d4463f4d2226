"""Documents from the values' own types: limits, kinds, keys, and errors at the path of what is wrong."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import pytest
from lean_notch.design.describe import field_infos
from lean_notch.documents.codec import fields_of, in_unit, read, write
from lean_notch.documents.rules import Many, Mm, Name, Number, Title, Whole, Words
from lean_notch.ground.errors import NotchError
from lean_notch.lengths.length import Length


@dataclass(frozen=True)
class Round:
    diameter: Annotated[Length, Title("Diameter")]
    kind: ClassVar[str] = "round"


@dataclass(frozen=True)
class Square:
    side: Length
    kind: ClassVar[str] = "square"


@dataclass(frozen=True)
class Peg:
    id: Annotated[str, Name(10)]
    shape: Round | Square
    count: Annotated[int, Whole(1, 9)] = 1
    turn: Annotated[float, Number(-360, 360, "°")] = 0.0
    depth: Annotated[float, Mm(0, 50)] | None = None
    note: Annotated[str, Words(20, required=False)] = ""
    loose: bool = False
    face: Literal["front", "back"] = "front"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class Rack:
    pegs: Annotated[tuple[Peg, ...], Many(3)] = ()


PEG = {"id": "a", "shape": {"kind": "round", "diameter": "1/4 in"}}


def test_what_was_written_is_read_and_defaults_are_left_out():
    rack = Rack(
        (Peg("a", Round(Length("8"))), Peg("b", Square(Length("1/4", "in")), 2, 45.0, 3.5, "oak", True, "back"))
    )
    document = write(rack)
    assert read(Rack, document) == rack
    assert document["pegs"][0] == {"id": "a", "shape": {"kind": "round", "diameter": "8"}}
    assert write(rack, units=True)["pegs"][0]["shape"]["diameter"] == {"text": "8", "unit": "mm"}


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"id": "a/b"}, "pegs/a/b/id"), ({"id": "x" * 11}, f"pegs/{'x' * 11}/id"), ({"id": 7}, "pegs/0/id"),
        ({"shape": {"kind": "oval"}}, "pegs/a/shape/kind"), ({"shape": {}}, "pegs/a/shape/kind"),
        ({"shape": {"kind": "round"}}, "pegs/a/shape/diameter"), ({"shape": {"kind": ["round"]}}, "pegs/a/shape/kind"),
        ({"count": 0}, "pegs/a/count"), ({"count": 10}, "pegs/a/count"), ({"count": True}, "pegs/a/count"),
        ({"count": "٣"}, "pegs/a/count"), ({"count": "²"}, "pegs/a/count"), ({"count": "9" * 5000}, "pegs/a/count"),
        ({"turn": "much"}, "pegs/a/turn"), ({"turn": 361}, "pegs/a/turn"), ({"turn": float("nan")}, "pegs/a/turn"),
        ({"turn": "١٢"}, "pegs/a/turn"), ({"turn": True}, "pegs/a/turn"),
        ({"depth": "51"}, "pegs/a/depth"), ({"depth": "3 in"}, "pegs/a/depth"), ({"depth": "deep"}, "pegs/a/depth"),
        ({"note": "a\0b"}, "pegs/a/note"), ({"note": "\ud800"}, "pegs/a/note"), ({"note": "x" * 21}, "pegs/a/note"),
        ({"loose": "false"}, "pegs/a/loose"), ({"loose": 0}, "pegs/a/loose"), ({"face": "top"}, "pegs/a/face"),
        ({"face": ["front"]}, "pegs/a/face"), ({"colour": "red"}, "pegs/a/colour"), ({"shape": None}, "pegs/a/shape"),
    ],
)  # fmt: skip
def test_what_is_wrong_is_said_at_its_path(change, path):
    with pytest.raises(NotchError) as caught:
        read(Rack, {"pegs": [{**PEG, **change}]})
    assert caught.value.field == path
    assert caught.value.fix


@pytest.mark.parametrize("pegs", ["none", {"a": PEG}, [PEG] * 2, [{**PEG, "id": one} for one in "abcd"], [7], 5])
def test_lists_are_lists_of_so_many_each_of_its_own_name(pegs):
    with pytest.raises(NotchError):
        read(Rack, {"pegs": pegs})


def test_bare_numbers_count_in_the_unit_that_is_said():
    document = {"pegs": [{**PEG, "depth": "1", "shape": {"kind": "square", "side": "2"}}]}
    [peg] = read(Rack, in_unit(Rack, document, "in")).pegs
    assert (peg.depth, peg.shape.side) == (pytest.approx(25.4), Length("2", "in"))
    assert in_unit(Rack, document, "mm") == document


def test_every_kind_of_step_shape_and_pattern_describes_its_fields():
    infos = field_infos()
    assert {"step/shape", "step/corner", "step/bend", "shape/disc", "shape/outline", "pattern/around"} <= infos.keys()
    assert all(info.title for some in infos.values() for info in some)
    assert [info.kind for info in infos["shape/disc"]] == ["length"]
    assert {info.name: info.choices for info in infos["step/shape"]}["does"] == ("add", "cut", "keep", "mark")
    assert [field.name for field in fields_of(Rack)] == ["pegs"]
