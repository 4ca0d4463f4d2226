"""Shapes against closed forms, and lengths against a numerical library."""

import itertools
import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.geometry import loops
from plates import disc, made, rectangle
from scipy.integrate import quad
from scipy.special import ellipe

sizes = st.floats(5, 90).map(lambda value: round(value, 3))


def shape(kind, does="keep", x=50, y=30, **values):
    return {"kind": "shape", "id": "it", "does": does, "x": x, "y": y, "shape": {"kind": kind, **values}}


def alone(step):
    """A part that is only that shape."""
    return made(rectangle("ground", 400, 400, x=-150, y=-150), step)


@settings(max_examples=20, deadline=None)
@given(st.integers(3, 40), sizes)
def test_a_regular_polygon(sides, across):
    """Area n/2 r² sin(2π/n), edge 2 r sin(π/n); over its flats the inradius is half of what is typed. Common practice."""
    part = alone(shape("polygon", sides=sides, across=across))
    radius = across / 2
    assert part.region.area == pytest.approx(sides / 2 * radius**2 * math.sin(2 * math.pi / sides), rel=1e-9)
    assert part.region.length == pytest.approx(2 * sides * radius * math.sin(math.pi / sides), rel=1e-9)
    flats = alone(shape("polygon", sides=sides, across=across, measured="flats"))
    assert flats.region.area == pytest.approx(sides * radius**2 * math.tan(math.pi / sides), rel=1e-9)
    low = min(y for _, y in (vertex.point for vertex in flats.region.outer.vertices))
    assert low == pytest.approx(30 - radius, abs=1e-9)  # a side lies at the bottom


@settings(max_examples=15, deadline=None)
@given(sizes, sizes)
def test_an_ellipse(width, height):
    """Area π a b; length by the complete elliptic integral of the second kind, as SciPy computes it. The arcs that stand for
    the curve leave it by a micrometre at most."""
    part = alone(shape("ellipse", width=width, height=height))
    a, b = sorted((width / 2, height / 2), reverse=True)
    length = 4 * a * ellipe(1 - (b / a) ** 2)
    assert part.region.area == pytest.approx(math.pi * a * b, abs=1e-3 * length)
    assert part.region.length == pytest.approx(length, rel=1e-4)
    assert part.box == pytest.approx((50 - width / 2, 30 - height / 2, 50 + width / 2, 30 + height / 2), abs=2e-3)


def test_an_ellipses_quarter_by_quadrature():
    part = alone(shape("ellipse", width=80, height=30))
    length, _ = quad(lambda t: math.hypot(40 * math.sin(t), 15 * math.cos(t)), 0, 2 * math.pi)
    assert part.region.length == pytest.approx(length, rel=1e-5)


@settings(max_examples=15, deadline=None)
@given(sizes, sizes)
def test_a_ring_and_a_slot(long, wide):
    outside, inside = max(long, wide) + 1, min(long, wide)
    ring = alone(shape("ring", diameter=outside, inside=inside))
    assert ring.region.area == pytest.approx(math.pi / 4 * (outside**2 - inside**2), rel=1e-9)
    slot = alone(shape("slot", length=outside, width=inside))
    straight = outside - inside
    assert slot.region.area == pytest.approx(straight * inside + math.pi / 4 * inside**2, rel=1e-9)
    assert slot.region.length == pytest.approx(2 * straight + math.pi * inside, rel=1e-9)


@settings(max_examples=15, deadline=None)
@given(st.floats(1, 18), st.floats(20, 60))
def test_a_circular_segment(height, diameter):
    """What a straight edge cuts off a circle: r² acos(1 - h/r) - (r - h) sqrt(2 r h - h²). Common practice."""
    radius, h = diameter / 2, min(height, diameter / 2 - 0.5)
    part = made(disc("bite", diameter, x=50, y=60 + radius - h))
    segment = radius**2 * math.acos(1 - h / radius) - (radius - h) * math.sqrt(2 * radius * h - h * h)
    assert 6000 - part.region.area == pytest.approx(segment, rel=1e-7)


@settings(max_examples=15, deadline=None)
@given(st.floats(2, 20), st.integers(2, 6), st.floats(24, 60))
def test_mirrored_and_repeated_areas_are_conserved(diameter, columns, apart):
    hole = disc("h", diameter, x=20, y=30)
    both = made(hole, {"kind": "mirror", "id": "m", "x": 100, "angle": 90})
    one = 6000 - math.pi / 4 * diameter**2
    assert both.region.area == pytest.approx(2 * one, rel=1e-9)
    pattern = {"kind": "grid", "columns": columns, "rows": 1, "dx": 100 + apart, "dy": 0}
    repeated = made(hole, {"kind": "repeat", "id": "r", "pattern": pattern})
    assert repeated.region.area == pytest.approx(one, rel=1e-9)  # apart, the largest piece is the part
    touching = made(hole, {"kind": "repeat", "id": "r", "pattern": {**pattern, "dx": 100}})
    assert touching.region.area == pytest.approx(columns * one, rel=1e-9)


@settings(max_examples=20, deadline=None)
@given(st.integers(2, 9), st.floats(2, 9), st.one_of(st.none(), st.floats(0.5, 6)))
def test_gaps_of_what_is_spread_evenly_by_a_geometry_library(count, diameter, margin):
    """Neighbours are equally far apart, and so are the ends unless a margin is given; measured by GEOS."""
    pattern = {"kind": "spread", "count": count, **({} if margin is None else {"margin": margin})}
    part = made(disc("h", diameter, y=30, pattern=pattern))
    plate, holes = loops(part.region, 1e-4)
    shapes = sorted((shapely.Polygon(hole) for hole in holes), key=lambda one: one.bounds[0])
    gaps = [a.distance(b) for a, b in itertools.pairwise(shapes)]
    ends = [shapes[0].bounds[0], 100 - shapes[-1].bounds[2]]
    assert max(gaps) - min(gaps) < 2e-3
    wanted = [gaps[0]] * 2 if margin is None else [margin] * 2
    assert ends == pytest.approx(wanted, abs=2e-3)
    assert len(plate) >= 4
