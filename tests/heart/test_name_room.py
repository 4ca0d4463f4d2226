"""Where a name goes on a part. Outside check: shapely says whether the place is board and bears no mark."""

import pytest
import shapely
from conftest import make_job
from lean_notch.geometry import loops
from lean_notch.job import compute
from lean_notch.making.name_room import CELLS, name_rooms
from plates import disc, made, rectangle
from right_jobs import random_job

UNEVEN = 0.02
"""Of a room's area: small notches that lie between two lines of the raster."""


def board_of(part):
    return shapely.Polygon(*loops(part.region, 0.01))


@pytest.mark.parametrize("seed", [0, 3, 6, 9, 12, 15, 18, 21])
def test_a_room_is_board(seed):
    for part in compute(random_job(seed)).build.parts:
        for room in name_rooms(part):
            assert room is not None, part.title
            box = shapely.box(*room)
            assert box.difference(board_of(part)).area <= UNEVEN * box.area, (part.title, room)


def test_a_plain_plate_has_all_but_its_rim_and_a_tall_one_more_when_it_lies_on_its_side():
    level, turned = name_rooms(made())
    assert shapely.box(*level).area > 0.75 * 100 * 60
    assert level == turned
    tall = made(blank=rectangle("blank", 20, 100))
    (a, b, c, d), (e, f, g, h) = name_rooms(tall)
    assert (g - e) * (h - f) >= (c - a) * (d - b)


def test_holes_and_what_is_engraved_are_kept_clear():
    plate = made(
        disc("hole", 20, x=50, y=30),
        {
            "kind": "shape",
            "id": "word",
            "does": "mark",
            "operation": "engrave",
            "x": 5,
            "y": 45,
            "shape": {"kind": "lettering", "text": "REEDMERE", "height": 8, "font": "sans"},
        },
    )
    left, low, right, high = name_rooms(plate)[0]
    room = shapely.box(left, low, right, high)
    assert not room.intersects(shapely.Point(50, 30).buffer(9.9))
    step = 100 / CELLS
    for mark in plate.marks:
        for region in mark.regions:
            assert room.intersection(shapely.box(*region.box)).area < step, mark.title


def test_a_ring_holds_its_name_in_the_ring_or_nowhere():
    part = made(disc("hole", 54, x=50, y=30), blank=disc("blank", 60, "add", x=50, y=30))
    for room in name_rooms(part):
        assert room is None or shapely.box(*room).difference(board_of(part)).area < 0.2 * shapely.box(*room).area


def test_a_tray_is_answered_in_no_time_and_the_same_again():
    part = compute(make_job()).build.parts[0]
    assert name_rooms(part) is name_rooms(part)


def test_on_paper_what_has_no_room_for_its_name_has_a_number_and_stands_below():
    from lean_notch.formats.paper import Drawing, Label, Paper, page_size
    from lean_notch.formats.paper_html import write_html

    labels = (
        Label("Front", (100, 50), (20, 20, 180, 80)), Label("A name that is long", (300, 50), (290, 40, 310, 60)),
        Label("Spar 1", (400, 50), None), Label("7", (500, 50), None),
    )  # fmt: skip
    page = write_html(Paper("x", "", (Drawing(600, 400, (), labels),)), page_size("A4"))
    drawing, _, below = page.partition("</svg>")
    assert [text in drawing for text in (">Front<", ">1<", ">2<", ">7<", "A name")] == [True, True, True, True, False]
    assert "<figcaption>1 A name that is long, 2 Spar 1</figcaption>" in below
