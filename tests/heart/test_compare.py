"""The comparison of a finished piece with its nominal outline: what it must see, and what it must let pass."""

import math
from concurrent.futures import ThreadPoolExecutor

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.formats.read_file import ReadPath
from lean_notch.geometry import Circle, Contour, Region, Vertex, rectangle
from lean_notch.geometry.inside import inside
from lean_notch.geometry.offset import offset
from lean_notch.making.outline import Notch, outline
from lean_notch.proof import as_cut
from lean_notch.proof.compare import compare, nominal_polygon
from lean_notch.proof.contacts import Gauge

KERF = 0.2
PLATE = Region(outline(40, 20, {"bottom": [Notch(10, 20, 3)], "left": [Notch(0, 8, 3)]}), (Circle(30, 12, 3),))


def finished(shape: Region, kerf: float = KERF) -> shapely.Polygon:
    """What a right path for `shape` leaves."""
    [path] = offset(shape, kerf / 2)
    [piece] = as_cut([ReadPath("cut", "", ring.segments, True) for ring in path.rings], kerf)
    return piece.finished


def test_a_right_piece_passes():
    compared = compare(finished(PLATE), PLATE, KERF)
    assert compared.ok()
    assert compared.edge.amount < 1e-3
    # Inside corners of 90 degrees keep (sqrt 2 - 1) kerf / 2. Closed form.
    assert compared.inside_corner.amount == pytest.approx((math.sqrt(2) - 1) * KERF / 2, abs=1e-3)


def test_the_nominal_itself_passes():
    assert compare(nominal_polygon(PLATE), PLATE, KERF).ok()


@pytest.mark.parametrize(("grown", "larger"), [(0.02, True), (-0.02, False)])
def test_a_piece_that_is_too_large_or_too_small_is_told_apart(grown, larger):
    shape = finished(PLATE).buffer(grown, join_style="mitre")
    compared = compare(shape, PLATE, KERF)
    assert not compared.ok()
    assert compared.larger is larger
    assert compared.edge.amount == pytest.approx(0.02, abs=1e-3)


@pytest.mark.parametrize(("moved", "passes"), [(0.004, True), (0.006, False)])
def test_five_thousandths_are_the_limit(moved, passes):
    shape = shapely.transform(finished(PLATE), lambda xy: np.add(xy, (moved, 0)))
    assert compare(shape, PLATE, KERF).ok() is passes


@pytest.mark.parametrize(("radius", "chords"), [(100.0, 128), (60.0, 96)])
def test_a_disc_of_chords_is_as_far_off_as_its_chords_are(radius, chords):
    """A polygon in a circle is off by r (1 - cos(pi / n)) in the middle of each chord. Closed form."""
    true = radius * (1 - math.cos(math.pi / chords))
    disc = Region(Circle(0, 0, radius))
    turns = np.arange(chords) * 2 * math.pi / chords
    polygon = shapely.Polygon(radius * np.column_stack([np.cos(turns), np.sin(turns)]))
    compared = compare(polygon, disc, KERF)
    assert not compared.ok()
    assert max(compared.edge.amount, compared.extra.amount) == pytest.approx(true, rel=0.02)


@pytest.mark.parametrize(("cut", "passes"), [(0.013, True), (0.015, False)])
def test_a_corner_may_be_a_hundredth_from_sharp_as_before(cut, passes):
    """A chamfer that takes `cut` off either side leaves the corner cut / sqrt 2 away."""
    corner = shapely.Polygon([(0, 0), (40, 0), (40, 20), (cut, 20), (0, 20 - cut)])
    assert compare(corner, Region(rectangle(0, 0, 40, 20)), KERF).ok() is passes


def test_a_nick_between_the_places_that_are_sampled_is_still_seen():
    nick = shapely.box(25.3, 19.5, 25.4, 20.5)
    compared = compare(finished(PLATE).difference(nick), PLATE, KERF)
    assert not compared.ok()
    assert compared.extra.amount == pytest.approx(0.5, abs=0.01)
    assert compared.extra.place[0] == pytest.approx(25.35, abs=0.06)


def test_a_spur_is_seen():
    spur = shapely.box(25, 19.9, 25.05, 20.3)
    assert not compare(finished(PLATE).union(spur), PLATE, KERF).ok()


def test_a_missing_hole_is_seen():
    plate = finished(PLATE)
    assert not compare(shapely.Polygon(plate.exterior), PLATE, KERF).ok()


def test_a_hole_too_many_is_seen():
    plate = finished(PLATE)
    extra = plate.difference(shapely.Point(20, 15).buffer(0.3))
    assert not compare(extra, PLATE, KERF).ok()


def test_a_blunted_corner_is_seen_beyond_a_hundredth():
    def blunted(by: float) -> shapely.Polygon:
        return finished(PLATE).difference(shapely.Polygon([(40 - by, 20), (40, 20 - by), (41, 21)]))

    # A cut of `by` along both edges takes by / sqrt 2 off the corner. Closed form.
    assert compare(blunted(0.012), PLATE, KERF).ok()
    assert not compare(blunted(0.02), PLATE, KERF).ok()


def test_a_fillet_larger_than_the_beam_makes_is_seen():
    corner = shapely.Polygon([(10, 3), (10.3, 3), (10, 2.7)])  # fills an inside corner of the notch
    assert not compare(finished(PLATE).union(corner), PLATE, KERF).ok()


@settings(max_examples=40)
@given(st.floats(35, 145), st.floats(0.05, 0.3))
def test_any_corner_angle_passes_when_cut_right(degrees, kerf):
    """A wedge of any angle, and the notch of the same angle, as one outline."""
    a = math.radians(degrees)
    wedge = Contour((Vertex(0, 0), Vertex(30, 0), Vertex(30, 20), Vertex(30 * math.cos(a) / 2, 30 * math.sin(a) / 2)))
    region = Region(wedge)
    if not shapely.Polygon([v.point for v in wedge.vertices]).is_valid:
        return
    assert compare(finished(region, kerf), region, kerf).ok()


@settings(max_examples=40)
@given(st.floats(0.5, 20), st.floats(0.02, 0.4))
def test_any_hole_passes_when_cut_right(radius, kerf):
    region = Region(rectangle(-25, -25, 50, 50), (Circle(0, 0, radius, hole=True),))
    compared = compare(finished(region, kerf), region, kerf)
    assert compared.edge.amount < 1e-3
    assert compared.ok()


def test_a_shape_can_be_asked_by_several_threads_at_once():
    """What is asked is never prepared: two threads that share a prepared shape end the process, sooner or later."""
    shape = shapely.Point(0, 0).buffer(50, quad_segs=2000)
    places = np.random.default_rng(1).uniform(-60, 60, (500, 2))
    wanted = np.hypot(*places.T) < 50
    with ThreadPoolExecutor(4) as threads:
        answers = list(threads.map(lambda _: inside(shape, places), range(40)))
    assert not shapely.is_prepared(shape)
    assert all((answer == wanted).mean() > 0.99 for answer in answers)
    Gauge(shape).lay([((0.0, 0.0), (1.0, 0.0))])
    assert not shapely.is_prepared(shape)
