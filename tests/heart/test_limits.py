"""Limits where they are added up: just inside is right, just outside is found."""

from __future__ import annotations

import math
from dataclasses import replace
from types import SimpleNamespace

import pytest
import shapely
from conftest import edited, make_basis, make_job
from joined import crossed, job, on_wall, panel
from lean_notch.basis.machine import KerfFound
from lean_notch.cutting.starts import Waste
from lean_notch.edits import Edit
from lean_notch.edits.merge import independent
from lean_notch.formats.read_file import ReadPath
from lean_notch.geometry import Contour, Motion, Region, Segment, Vertex, rectangle
from lean_notch.geometry.boolean import difference
from lean_notch.geometry.space import frame
from lean_notch.ground.errors import ThicknessTooLarge
from lean_notch.job import compute
from lean_notch.joints import FACE
from lean_notch.joints.mate import Seat
from lean_notch.making.wanted import check_depths
from lean_notch.proof import as_cut
from lean_notch.proof.compare import CORNER_MM, EDGE_MM, Comparison, Deviation
from lean_notch.proof.contacts import Gauge
from lean_notch.proof.interference import _blocks
from lean_notch.proof.joints_as_cut import JointsAsCut
from lean_notch.proof.marks import ASTRAY_MM, compare_marks
from lean_notch.told.what_breaks import broken
from plates import disc, plate
from shapes import polygon

HAIR = 1e-4


def as_measured(result, off, within=0.0):
    """The verdict on a result's one joint, every piece smaller by `off` all round, with a kerf that is sure `within` mm."""
    board = result.job.basis.of("main")
    machine = replace(board.machine, found=KerfFound("slats", "Poplar ply", 3.06, "2026-03-01", within))
    basis = result.job.basis.with_board("main", replace(board, machine=machine))
    gauges = {
        part.id: [Gauge(shapely.buffer(polygon(part.region), -off, join_style="mitre", mitre_limit=10))]
        for part in result.build.parts
    }
    measured = JointsAsCut(result.build, basis, gauges)
    [joint] = measured.proofs
    assert joint.ok == (not [one for one in measured.findings if one.code == "off-fit"])
    return joint.ok


@pytest.mark.parametrize("within", [0.0, 0.01])
@pytest.mark.parametrize("sign", [1, -1])
def test_two_boards_may_be_off_by_two_edges_and_what_their_kerfs_are_unsure_by(within, sign):
    """A tab of one board in a slot of the other: both are off at both sides, 4 x `off` together. Edges may be off by EDGE_MM each."""
    result = compute(on_wall({"kind": "tab-and-slot"}))
    allowed = (2 * EDGE_MM + 2 * within) / 4
    assert as_measured(result, sign * (allowed - HAIR), within)
    assert not as_measured(result, sign * (allowed + HAIR), within)


@pytest.mark.parametrize("within", [0.0, 0.01])
def test_a_slot_for_a_boards_thickness_is_off_at_its_two_sides(within):
    """Halves that cross: each slot takes the other's thickness, which no beam cuts; both sides of one slot are unsure alike."""
    result = compute(crossed())
    allowed = (2 * EDGE_MM + 2 * within) / 2
    assert as_measured(result, allowed - HAIR, within)
    assert not as_measured(result, allowed + HAIR, within)


@pytest.mark.parametrize("unsure", [0.0, 0.02])
def test_a_piece_may_be_off_by_an_edge_and_half_as_much_again_at_a_corner(unsure):
    def ok(edge=0.0, corner=0.0, extra=0.0):
        each = (Deviation(one, (0, 0)) for one in (edge, corner, 0.0, extra))
        return Comparison(*each, larger=True).ok(unsure)

    edge, corner = EDGE_MM + unsure, CORNER_MM + 1.5 * unsure
    assert ok(edge - HAIR, corner - HAIR, edge - HAIR)
    assert not ok(edge=edge + HAIR)
    assert not ok(corner=corner + HAIR)
    assert not ok(extra=edge + HAIR)


@pytest.mark.parametrize(("over", "refused"), [(2.0, False), (5.0, True), (12.0, True)])
def test_an_edge_is_joined_once_in_any_place_but_for_a_corner(over, refused):
    """Two boards of 50 stand side by side on one edge of a third, and stand in each other by `over`; a corner is as long as the board
    is thick, 3.06."""
    parts = [panel("floor", 100 - over, 60), panel("left", 50, 40), panel("right", 50, 40)]
    left, right = ({"kind": "numbers", "turn_x": 90, "x": x, "z": -3.06} for x in (0, 50 - over))
    poses = {"floor": {"kind": "axes", "u": "+x", "v": "+y"}, "left": left, "right": right}
    joints = [(name, "floor", "blank.bottom", name, "blank.bottom", {"kind": "finger"}) for name in ("left", "right")]
    found = compute(job(parts, poses, joints)).build.findings
    assert [one.code for one in found if "joins already over" in one.why] == ["no-edge"] * refused


@pytest.mark.parametrize(("start", "meets"), [(20.0, False), (5.0, True)])
def test_notches_of_opposite_sides_may_pass_each_other(start, meets):
    """Of a part 10 wide: 6 from the left and 6 from the right are 12 only where both run."""
    design = make_job().design
    part = design.parts[0]
    notches = [
        SimpleNamespace(edge="blank.left", start=0.0, end=10.0, depth=6.0),
        SimpleNamespace(edge="blank.right", start=start, end=start + 10, depth=6.0),
    ]
    given = design, part, SimpleNamespace(size=(10.0, 40.0)), SimpleNamespace(notches=notches)
    if meets:
        with pytest.raises(ThicknessTooLarge, match=r"take 12 mm of its 10 mm"):
            check_depths(*given)
    else:
        check_depths(*given)


@pytest.mark.parametrize(("beside", "taken"), [(0.49, True), (0.3, True), (0.51, False)])
def test_a_lead_takes_what_lies_within_half_the_kerf_of_it(beside, taken):
    """It runs along a finished square of 9.8, `beside` kerfs from its edge and outside the path."""
    kerf, square = 0.2, rectangle(0, 0, 10, 10)
    y = 0.1 - beside * kerf
    lead = ReadPath("cut", "", (Segment((2.0, y), (8.0, y), 0.0),), False)
    [piece] = as_cut([ReadPath("cut", "", square.segments, True)], kerf, [lead])
    assert (piece.finished.area < 9.8**2 - 1e-4) == taken


@pytest.mark.parametrize(("off", "found"), [(ASTRAY_MM - HAIR, 0), (ASTRAY_MM + HAIR, 1)])
def test_a_mark_may_be_astray_by_less_than_a_line_is_wide(off, found):
    """A scored line is 0.1 to 0.2 wide: common practice. 0.02 is less than either."""
    assert ASTRAY_MM == 0.02
    kind = ("score", 0.0)
    line = [(Segment((0.0, 0.0), (30.0, 0.0), 0.0),)]
    assert len(list(compare_marks({kind: line}, {kind: [(Segment((0.0, off), (30.0, off), 0.0),)]}))) == found


def test_two_bows_that_lie_close_are_two():
    """Segments of circles on one chord of 20, 2 and 2.002 high: what lies between is (Archimedes) about 2/3 of 20 x 0.002."""

    def bow(height):
        return Region(Contour((Vertex(0.0, 0.0), Vertex(20.0, 0.0, height / 10))))

    between = difference([bow(2.002)], [bow(2.0)])
    assert sum(region.area for region in between) == pytest.approx(2 / 3 * 20 * 0.002, rel=0.05)


@pytest.mark.parametrize(("beside", "clear"), [(0.49, False), (0.3, False), (0.51, True)])
def test_a_beam_on_its_way_keeps_half_its_kerf_from_every_part(beside, clear):
    kerf = 0.2
    waste = Waste([Motion(x=10, y=10).region(Region(rectangle(0, 0, 20, 20)))], kerf, 100, 100)
    y = 10 - beside * kerf
    assert waste.clear((12.0, y), (28.0, y)) == clear


def test_what_comes_after_something_reads_it():
    """A step is put after another one that somebody else takes away meanwhile."""
    before = edited(make_job(), *(Edit("put", f"parts/front/steps/{one['id']}", one) for one in map(hole, ("a", "b"))))
    mine = [Edit("put", "parts/front/steps/c", hole("c"), after="b")]
    for theirs, apart in (([Edit("drop", "parts/front/steps/b")], False), ([Edit("put", "name", "Other")], True)):
        assert independent(before, mine, edited(before, *mine), theirs, edited(before, *theirs)) == apart


def hole(name):
    return {"kind": "shape", "id": name, "does": "cut", "x": 20 + 10 * ord(name) - 970, "y": 20, "shape": {"kind": "disc", "diameter": "4"}}  # fmt: skip


def test_two_boards_without_a_joint_may_only_touch():
    """A board is pushed through another's face by a little more than boards vary, 0.05; what was in the way already is told again
    once it is more than a hair worse."""

    def pushed(by):
        poses = {
            "wall": {"kind": "axes", "u": "+x", "v": "+z"},
            "shelf": {"kind": "numbers", "x": 140, "y": by, "z": 40, "turn_z": 180},
        }
        return compute(job([panel("wall", 160, 90), panel("shelf", 120, 50)], poses, [], make_basis(sheet=(900, 900))))

    assert broken(pushed(0.0), pushed(0.04)) == ()
    assert len(broken(pushed(0.0), pushed(0.08))) == 1
    assert len(broken(pushed(0.5), pushed(0.52))) == 1
    assert broken(pushed(0.5), pushed(0.503)) == ()


def test_slots_of_boards_that_cross_open_at_an_edge():
    """Each is a notch of the edge that it opens at, so that the outline stays one; T and 0.02 wide, to half of the 40 that both are high."""
    [mate] = compute(crossed()).build.mates
    for change in mate.members:
        [notch] = change.notches
        assert (notch.end - notch.start, notch.depth) == (pytest.approx(3.08), pytest.approx(20))
        assert change.cuts == ()


def test_round_parts_are_compared_within_two_thousandths():
    """Chords of a circle take 2/3 of their sagitta off it, all round."""
    result = compute(plate(blank={**disc("blank", 100, does="add"), "x": 60, "y": 60}))
    [(_, _, gauge)] = _blocks(result.build.parts[0], 3.0)
    off = math.pi * 50**2 - gauge.piece.area
    assert 0 < off <= 2 / 3 * 0.002 * 2 * math.pi * 50 * 1.01


@pytest.mark.parametrize(
    ("corners", "plain"),
    [
        ([(0, 0), (30, 0), (30, 20), (0, 20)], True),
        ([(0, 0), (30, 0), (25, 20), (0, 20)], False),
        ([(15, 0), (30, 10), (15, 20), (0, 10)], False),
        ([(0, 0), (30, 0), (30, 20)], False),
    ],
)
def test_a_boards_outline_is_its_box_only_where_every_corner_is_the_boxs(corners, plain):
    outline = Region(Contour(tuple(Vertex(float(x), float(y)) for x, y in corners)))
    seat = Seat("one", "one", "One", FACE, frame((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)), None, {}, outline)
    assert seat.plain == (outline.box if plain else None)
