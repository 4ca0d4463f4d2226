"""Joints of every kind and every recipe as solids, against a solid-boolean library (Manifold, by its Python package)."""

import manifold3d
import numpy as np
import pytest
import shapely
from conftest import edited, make_basis
from joined import corner, crossed, halved, made, on_wall
from lean_notch.edits import Edit
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.making import blocks, faces, slices
from lean_notch.proof.interference import bodies, interference
from solids import common, flat, solid, solids

SHARED_MM3 = 1e-3
NO_GAP = {"readings": (3.0,), "kerf": 0.0, "clearance": 0.0, "sheet": (1200, 1200)}


def worst(result):
    shapes = {part.id: flat(part.region) for part in result.build.parts}
    return max(common(solids(result.build, shapes)).values(), default=0.0)


@pytest.mark.parametrize(("name", "given"), [
    ("case", {}), ("case", {"lid": "closed all round"}), ("case", {"feet": "16", "hand_hole": "70"}), ("divided-case", {}),
    ("divided-case", {"without": "c2r1 r1c3"}), ("divider-set", {}), ("rack", {"rails": "3"}), ("framed-stand", {}),
    ("framed-stand", {"held": "loose"}), ("crossed-figure", {}),
])  # fmt: skip
def test_with_no_clearance_no_two_parts_of_a_recipe_share_material(name, given):
    """A beam of no width and boards of just one thickness: all that is left is rounding."""
    assert worst(made(name, given, make_basis(**NO_GAP))) < SHARED_MM3


@pytest.mark.parametrize("angle", [45, 60, 75, 105, 120, 135])
def test_at_a_slant_neither_fingers_nor_slots_share_material(angle):
    basis = make_basis(**NO_GAP)
    for one in (corner(angle, basis=basis), crossed(angle, basis=basis), crossed(angle, {"ease": "1.5"}, basis=basis)):
        assert worst(compute(one)) < SHARED_MM3
    for turn in (20, -20, 35):
        pose = {"kind": "numbers", "x": 140, "y": 0, "z": 40, "turn_z": 180, "turn_x": turn}
        leaning = compute(on_wall({"kind": "tab-and-slot"}, pose, basis))
        if not leaning.build.lost:
            assert worst(leaning) < SHARED_MM3


@pytest.mark.parametrize("angle", [60, 75, 90])
def test_fingers_fill_the_bar_but_for_the_wedge_that_is_said(angle):
    """What is missing of the two boards' common bar is the wedges of the fingers' tips: half of t x t cot for each mm of finger."""
    result = compute(corner(angle, {"count": 5}, make_basis(**NO_GAP)))
    [mate] = result.build.mates
    turn, t = np.radians(angle), 3.0
    plain = {part.id: shapely.box(0, 0, *part.size) for part in result.build.parts}
    shapes = {part.id: flat(part.region) for part in result.build.parts}
    standing = {one.part: one.frame for one in result.build.standings}
    bar = solid(plain["a"], standing["a"], t) ^ solid(plain["b"], standing["b"], t)
    assert bar.volume() == pytest.approx(t * t / np.sin(turn) * 100, rel=1e-9)
    both = solid(shapes["a"], standing["a"], t) + solid(shapes["b"], standing["b"], t)
    missing = bar.volume() - (bar ^ both).volume()
    wedge = t * abs(t / np.tan(turn)) / 2 * 100
    # Where a board leans in, its square sockets are deeper than the bar too.
    assert missing == pytest.approx(0 if angle == 90 else wedge, rel=0.02, abs=1e-6)
    assert mate.findings == () or mate.findings[0].amount == pytest.approx(abs(t / np.tan(turn)))


@pytest.mark.parametrize("one", [
    on_wall({"kind": "groove"}, basis=make_basis(**NO_GAP)), on_wall({"kind": "groove", "stop": "9"}, basis=make_basis(**NO_GAP)),
    on_wall({"kind": "tab-and-slot", "deep": "1"}, basis=make_basis(**NO_GAP)), halved(basis=make_basis(**NO_GAP)),
    halved("back", basis=make_basis(**NO_GAP)),
])  # fmt: skip
def test_what_is_sunk_is_off_the_solid_and_its_members_share_nothing(one):
    """Volumes by closed form: area times thickness less each pocket's area times its depth."""
    built = compute(one).build
    whole = {}
    for standing in built.standings:
        part = built.part(standing.part)
        sliced, overlapping = (
            [solid(flat(piece.region), standing.frame.behind(piece.low), piece.high - piece.low) for piece in cut(part, 3.0)]
            for cut in (slices, blocks)
        )  # fmt: skip
        less = sum(mark.depth * flat_area(part, mark) for mark in part.marks)
        wanted = part.region.area * 3.0 - less
        assert sum(piece.volume() for piece in sliced) == pytest.approx(wanted, rel=1e-9)
        whole[standing.placement] = manifold3d.Manifold.batch_boolean(overlapping, manifold3d.OpType.Add)
        assert whole[standing.placement].volume() == pytest.approx(wanted, rel=1e-6)
        # The faces to the front have together the board's area, and so have those to the back.
        assert sum(face.region.area for face in faces(part, 3.0)) == pytest.approx(2 * part.region.area, rel=1e-9)
    first, second = whole.values()
    assert (first ^ second).volume() < SHARED_MM3


def flat_area(part, mark):
    return sum(flat(region).intersection(flat(part.region)).area for region in mark.regions)


@pytest.mark.parametrize("kerf", [0.05, 0.2])
@pytest.mark.parametrize("name", ["divided-case", "rack", "framed-stand"])
def test_as_cut_solids_share_no_more_than_the_press_fit_asks_for(name, kerf):
    """The file cut by a beam of the real width, the pieces stood up; a press of 0.03 mm on every joint."""
    result = made(name, basis=make_basis(readings=(3.0,), kerf=kerf, clearance=-0.03, sheet=(1200, 1200)))
    proof = prove_job(result)
    assert all(mate.ok for mate in proof.mates)
    pieces = {}
    for sheet, shapes in proof.pieces.items():
        for one in result.layout.on_sheet(sheet):
            middle = flat(one.motion.region(result.build.part(one.part).region))
            piece = max(shapes, key=lambda shape, m=middle: shape.intersection(m).area)
            pieces[one.part] = shapely.transform(
                piece, lambda xy, m=one.motion: np.array([m.back((x, y)) for x, y in xy])
            )
    # Per contact: 0.03 mm over its two flanks; besides, what a round beam leaves in each corner, r²(1 - pi/4), through a board.
    touching = common(solids(result.build, pieces))
    joints = {}
    for mate in result.build.mates:
        pair = tuple(sorted(change.placement for change in mate.members))
        flank = sum(0.03 * one.depth * max(one.width, 3.0) for one in mate.contacts)
        corners = sum(len(change.sharp) for change in mate.members) * (kerf / 2) ** 2 * 3.0
        joints[pair] = joints.get(pair, 0.0) + flank + corners
    for pair, volume in touching.items():
        assert volume <= joints.get(pair, 0.0) + SHARED_MM3, pair


def test_what_we_call_interference_the_library_finds_too():
    """A base moved into its walls: both say so, of the same pairs."""
    moved = compute(edited(made("divided-case").job, Edit("put", "placements/base/pose/z", "thickness + 5")))
    stood = {one.placement: solid(one.shape, one.frame, one.thickness) for one in bodies(moved.build, moved.job.basis)}
    theirs = {pair for pair, volume in common(stood).items() if volume > 5}
    ours = {one.placement for one in interference(moved.build, moved.job.basis).findings}
    assert theirs
    assert ours <= {name for pair in theirs for name in pair}
    assert all("base" in pair for pair in theirs)
