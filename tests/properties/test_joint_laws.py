"""Laws of joints, for any tray: what both members have adds up, and nothing is lost or shared."""

from itertools import combinations, pairwise

import pytest
from conftest import make_basis, make_job
from hypothesis import assume, given
from hypothesis import strategies as st
from lean_notch.ground.errors import NotchError
from lean_notch.joints.finger_division import divide_edge
from lean_notch.making import Build, build

lengths = st.floats(18, 900)
thicknesses = st.floats(0.5, 4)
clearances = st.floats(-0.05, 0.4)


@given(lengths, thicknesses, clearances)
def test_both_members_and_the_gaps_add_up_to_the_edge(length, thickness, clearance):
    division = divide_edge(length, thickness, clearance)
    kept = sorted([*division.first_keeps, *division.second_keeps])
    gaps = sum(after[0] - before[1] for before, after in pairwise(kept))
    assert sum(end - start for start, end in kept) + gaps == pytest.approx(length, abs=1e-9)
    assert gaps == pytest.approx((division.count - 1) * clearance / 2, abs=1e-9)
    assert kept[0][0] == 0
    assert kept[-1][1] == length


@given(lengths, thicknesses, clearances)
def test_every_inner_socket_is_wider_than_its_finger_by_the_clearance(length, thickness, clearance):
    division = divide_edge(length, thickness, clearance)
    for fingers, sockets in (
        (division.second_keeps, division.first_gives),
        (division.first_keeps[1:-1], division.second_gives[1:-1]),
    ):
        for finger, socket in zip(fingers, sockets, strict=True):
            assert (socket[1] - socket[0]) - (finger[1] - finger[0]) == pytest.approx(clearance, abs=1e-9)
            assert finger[0] - socket[0] == pytest.approx(clearance / 2, abs=1e-9)


@given(lengths, thicknesses, clearances)
def test_a_member_gives_exactly_what_it_does_not_keep(length, thickness, clearance):
    division = divide_edge(length, thickness, clearance)
    for keeps, gives in (
        (division.first_keeps, division.first_gives),
        (division.second_keeps, division.second_gives),
    ):
        pieces = sorted([*keeps, *gives])
        assert all(before[1] == pytest.approx(after[0], abs=1e-9) for before, after in pairwise(pieces))


sizes = st.floats(25, 400)


def any_tray(width: float, depth: float, height: float, sizes_are: str, thickness: float, clearance: float) -> Build:
    job = make_job(
        make_basis(readings=(thickness,), clearance=clearance),
        width=repr(width), depth=repr(depth), height=repr(height), sizes=sizes_are,
    )  # fmt: skip
    try:
        return build(job.design, job.basis)
    except NotchError:
        assume(False)
        raise


@given(sizes, sizes, sizes, st.sampled_from(["inside", "outside"]), thicknesses)
def test_outside_is_inside_and_the_walls(width, depth, height, sizes_are, thickness):
    names = any_tray(width, depth, height, sizes_are, thickness, 0).names
    for side, walls in (("width", 2), ("depth", 2), ("height", 1)):
        assert names[f"outside_{side}"] == pytest.approx(names[f"inside_{side}"] + walls * thickness, abs=1e-9)
        assert names[f"{sizes_are}_{side}"] == pytest.approx(names[side], abs=1e-9)


@given(sizes, sizes, sizes, thicknesses)
def test_without_clearance_the_panels_fill_the_shell_exactly(width, depth, height, thickness):
    """Closed form: five panels are the outer box less the inner one; no gap, no overlap, corners included."""
    built = any_tray(width, depth, height, "inside", thickness, 0)
    w, d, h = (built.names[f"outside_{side}"] for side in ("width", "depth", "height"))
    shell = w * d * h - width * depth * height
    assert sum(part.region.area for part in built.parts) * thickness == pytest.approx(shell, rel=1e-9)


@given(sizes, sizes, sizes, thicknesses, st.floats(0, 0.3))
def test_no_two_panels_share_any_space(width, depth, height, thickness, clearance):
    """Each pair of neighbours is cut by the plane half-way through each board: their sections may not overlap."""
    built = any_tray(width, depth, height, "inside", thickness, clearance)
    standing = [(built.part(one.part), one) for one in built.standings]
    for first, second in combinations(standing, 2):
        assert shared_volume(first, second) <= 1e-6


def shared_volume(first, second) -> float:
    """Of two panels that stand square to each other: both are as thick as the other's notch is deep, so it is enough
    to compare, along the line where they meet, which of them has material half-way into both."""
    normals = [next(i for i in range(3) if standing.n[i]) for _, standing in (first, second)]
    if normals[0] == normals[1]:
        return 0.0
    axis = 3 - sum(normals)
    mine, theirs = stretches(first, second, axis), stretches(second, first, axis)
    return sum(max(0.0, min(a[1], b[1]) - max(a[0], b[0])) for a in mine for b in theirs)


def stretches(part, other, axis):
    """Where `part` has material along `axis`, half-way into `other`'s board."""
    import shapely

    (flat, standing), (_, beside) = part, other
    box = beside.box
    normal = next(i for i in range(3) if beside.n[i])
    level = (box[0][normal] + box[1][normal]) / 2
    along, across = (standing.u, standing.v) if standing.u[axis] else (standing.v, standing.u)
    at = (level - standing.origin[normal]) / across[normal]
    reach = standing.width if standing.u[axis] else standing.height
    line = [(0, at), (reach, at)] if standing.u[axis] else [(at, 0), (at, reach)]
    outline = shapely.Polygon([vertex.point for vertex in flat.region.outer.vertices])
    found = []
    for piece in shapely.get_parts(shapely.intersection(outline, shapely.LineString(line))):
        if piece.length > 1e-9:
            ends = sorted(standing.origin[axis] + along[axis] * xy[0 if standing.u[axis] else 1] for xy in piece.coords)
            found.append((ends[0], ends[-1]))
    return found
