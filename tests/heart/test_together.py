"""Parts put together before they are cut: what stands in the way at three thicknesses, gaps, and joints that are proposed."""

import json

import pytest
from conftest import edited, make_basis
from joined import FLAT, UPRIGHT, corner, crossed, halved, job, made, on_wall, panel, without_joints
from lean_notch.cli.main import main
from lean_notch.design import design_to_json
from lean_notch.edits import Edit
from lean_notch.job import compute
from lean_notch.making import build, proposals, site_of
from lean_notch.proof.assembly import CLASH_MM
from lean_notch.proof.interference import LEVELS, _allowed, gaps, interference

T = 3.06
UNEVEN = (2.95, 3.0, 3.06, 3.2)


def found(result, level):
    return interference(result.build, result.job.basis, level).findings


@pytest.mark.parametrize(
    "name", ["open-tray", "case", "divided-case", "divider-set", "rack", "framed-stand", "crossed-figure"]
)
def test_nothing_stands_in_the_way_in_any_recipe(name):
    result = made(name)
    assert [found(result, level) for level in LEVELS] == [(), (), ()]


@pytest.mark.parametrize("one", [corner(60), corner(120), crossed(45), on_wall({"kind": "pegs"})])
def test_nothing_stands_in_the_way_at_a_slant(one):
    assert found(compute(one), "mean") == ()


def test_boards_that_are_thicker_somewhere_stand_in_the_way_there_by_as_much():
    """By hand: of boards of 2.95 to 3.2, 3.0525 in the middle, the thickest reach 0.1475 further."""
    result = made("case", basis=make_basis(readings=UNEVEN, sheet=(1200, 1200)))
    assert found(result, "mean") == ()
    assert found(result, "thin") == ()
    thick = found(result, "thick")
    assert {one.severity for one in thick} == {"look"}
    assert all("where the boards are thickest" in one.why for one in thick)
    assert max(one.amount for one in thick) == pytest.approx(0.1475, abs=0.02)


def test_a_part_that_was_moved_into_another_is_told_with_its_depth_and_what_to_do():
    moved = edited(made("divided-case").job, Edit("put", "placements/base/pose/z", "thickness + 5"))
    whys = [one for one in found(compute(moved), "mean") if not one.joint]
    assert any("stand in each other by" in one.why and one.severity == "stop" for one in whys)
    assert all(one.fix.startswith("Join them, or move one by") and one.space for one in whys)


def test_a_press_fit_may_share_what_it_asks_for_and_no_more():
    tight = crossed(basis=make_basis(clearance=-0.04, sheet=(900, 900)))
    assert found(compute(tight), "mean") == ()
    # The slot is made narrower by hand than the fit asks for: a strip is added to its wall.
    strip = {
        "kind": "shape",
        "id": "strip",
        "does": "add",
        "x": 47,
        "y": 20,
        "shape": {"kind": "rectangle", "width": 1.6, "height": 20},
    }
    assert (
        found(compute(crossed(first=panel("a", 100, 40, strip))), "mean") == ()
    )  # joints come last: the slot takes it away again


@pytest.mark.parametrize(
    "one", [on_wall({"kind": "groove"}), on_wall({"kind": "tab-and-slot", "deep": "1"}), halved(), halved("back")]
)
def test_what_sits_in_a_pocket_stands_in_nobody_s_way(one):
    assert [found(compute(one), level) for level in LEVELS] == [(), (), ()]
    bare = without_joints(one)
    assert all(not finding.joint for finding in found(compute(bare), "mean"))


def test_halves_may_be_tighter_by_what_their_boards_are_thicker_and_no_tighter_where_they_are_thin():
    """By hand: both boards are 0.1475 thicker at their thickest than on average, 0.1025 thinner at their thinnest."""
    basis = make_basis(readings=UNEVEN, sheet=(900, 900))
    built = compute(halved(basis=basis)).build
    assert _allowed(built.mates, "thick", built, basis) == pytest.approx(CLASH_MM + 2 * 0.1475)
    assert _allowed(built.mates, "thin", built, basis) == CLASH_MM


def test_halves_that_give_nothing_away_share_their_whole_thickness():
    [both] = found(compute(without_joints(halved())), "mean")
    assert both.severity == "stop"
    assert both.amount == pytest.approx(T, abs=1e-6)


@pytest.mark.parametrize(("deep", "shared"), [("1.5", None), ("1", 0.5), ("0.4", 1.1)])
def test_a_pocket_drawn_by_hand_takes_in_what_it_is_deep_for(deep, shared):
    """A shelf stands 1.5 mm in its wall, in a pocket that is as deep, or not."""
    pocket = {
        "kind": "shape", "id": "seat", "does": "mark", "operation": "pocket", "depth": deep, "x": 19, "y": 36.87,
        "shape": {"kind": "rectangle", "width": 122, "height": 3.2},
    }  # fmt: skip
    pose = {"kind": "numbers", "x": 140, "y": 1.5, "z": 40, "turn_z": 180}
    one = job([panel("wall", 160, 90, pocket), panel("shelf", 120, 50)], {"wall": UPRIGHT, "shelf": pose}, [])
    amounts = [finding.amount for finding in found(compute(one), "mean")]
    assert amounts == ([] if shared is None else [pytest.approx(shared, abs=0.03)])


def test_gaps_follow_the_readings_of_what_goes_in():
    """By hand: a slot for 3.06 with 0.02 holds boards of 3.02 to 3.10 with 0.06 to -0.02; fingers have 0.02 throughout."""
    [gap] = gaps(compute(crossed()).build, make_basis())
    assert (gap.thin, gap.mean, gap.thick) == pytest.approx((0.06, 0.02, -0.02))
    [finger] = gaps(compute(corner()).build, make_basis())
    assert (finger.thin, finger.mean, finger.thick, finger.measured) == (0.02, 0.02, 0.02, False)


def offers(one):
    return proposals(site_of(one.design, one.basis))


@pytest.mark.parametrize(("one", "kind", "length"), [
    (corner(), "finger", 100), (corner(60), "finger", 100), (crossed(), "cross-lap", 40), (crossed(60), "cross-lap", 40),
    (on_wall({"kind": "tab-and-slot"}), "tab-and-slot", 120),
])  # fmt: skip
def test_what_meets_is_proposed_and_made_as_proposed(one, kind, length):
    bare = without_joints(one)
    [offer] = offers(bare)
    assert kind in offer.kinds
    assert offer.length == pytest.approx(length)
    value = {"title": offer.title, "first": vars(offer.first), "second": vars(offer.second), "how": {"kind": kind}}
    joined = edited(bare, Edit("put", "joints/offered", value))
    assert not compute(joined).build.lost
    assert offers(joined) == ()


def test_every_joint_of_a_recipe_would_be_proposed_too():
    bare = without_joints(made("rack").job)
    assert [one.kinds for one in offers(bare)] == [("cross-lap",)] * 12
    assert {one.kinds[0] for one in offers(without_joints(made("open-tray").job))} == {"finger"}


@pytest.mark.parametrize("off", [-0.4, 0.3])
def test_what_almost_meets_is_told_with_the_number_that_closes_it(off):
    """A shelf stands `off` before the wall, or in it: by its place, since its lower edge cannot be made longer there."""
    pose = {"kind": "numbers", "x": 140, "y": off, "z": 40, "turn_z": 180}
    bare = without_joints(on_wall({"kind": "tab-and-slot"}, pose))
    offer = offers(bare)[0]
    assert offer.off == pytest.approx(abs(off))
    assert offer.says == f"Shelf moves by {abs(off):g} mm"
    closed = edited(bare, Edit("put", offer.closes.path, offer.closes.value))
    assert offers(closed)[0].off == 0


def test_a_part_that_is_too_short_is_made_longer_at_that_edge():
    """A bar between two walls 100 apart is 99.6 long: its right end is 0.4 short."""
    bar = job(
        [panel("bar", 99.6, 30), panel("wall", 80, 60)],
        {"bar": FLAT, "wall": {"kind": "axes", "u": "+y", "v": "+z", "x": 100 + T, "y": -20, "z": -20}}, [],
    )  # fmt: skip
    offer = offers(bar)[0]
    assert (offer.off, offer.closes.path) == (pytest.approx(0.4), "parts/bar/steps/blank/shape/width")
    assert offer.says == "Bar becomes 100 mm wide"
    assert offers(edited(bar, Edit("put", offer.closes.path, offer.closes.value)))[0].off == 0


def test_parts_far_apart_or_flat_on_each_other_are_not_proposed():
    apart = job([panel("a", 100, 40), panel("b", 50, 40)], {"a": FLAT, "b": {**UPRIGHT, "z": 30}}, [])
    stacked = job([panel("a", 100, 40), panel("b", 50, 40)], {"a": FLAT, "b": {**FLAT, "z": T}}, [])
    assert offers(apart) == offers(stacked) == ()


@pytest.fixture
def files(tmp_path):
    from lean_notch.basis import basis_to_json

    def write(one):
        (tmp_path / "design.json").write_text(json.dumps(design_to_json(one.design)))
        (tmp_path / "basis.json").write_text(json.dumps(basis_to_json(one.basis)))
        return [str(tmp_path / "design.json"), "--basis", str(tmp_path / "basis.json")]

    return write


def test_joints_are_told_on_the_command_line(files, capsys):
    where = files(made("divided-case").job)
    assert main(["joints", *where, "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)
    assert {row["kind"] for row in rows} == {"finger", "tab-and-slot", "cross-lap"}
    assert all(row["made"] and row["contacts"] and row["verdict"] for row in rows)
    assert main(["joints", *files(crossed(25))]) == 1
    assert "cannot be made" in capsys.readouterr().out


def test_assemble_tells_what_interferes_and_writes_solids(files, capsys, tmp_path):
    """The file's volume, by the divergence theorem, is that of the parts: area times thickness."""
    import numpy as np

    result = made("divided-case")
    stl = tmp_path / "case.stl"
    assert main(["assemble", *files(result.job), "--stl", str(stl)]) == 0
    assert json.loads(capsys.readouterr().out)["verdict"] == "clear"
    rows = np.frombuffer(stl.read_bytes()[84:], np.dtype([("n", "<f4", 3), ("v", "<f4", (3, 3)), ("more", "<u2")]))
    a, b, c = (rows["v"][:, i].astype(float) for i in range(3))
    volume = (a * np.cross(b, c)).sum() / 6
    wanted = sum(part.region.area * part.quantity for part in result.build.parts) * T
    assert volume == pytest.approx(wanted, rel=1e-4)
    moved = edited(result.job, Edit("put", "placements/base/pose/z", "thickness + 5"))
    assert main(["assemble", *files(moved)]) == 1
    assert main(["assemble", *files(on_wall({"kind": "groove"}))]) == 4


def test_a_build_of_many_walls_is_made_again_where_it_changed():
    """12 x 8 places: 23 parts with 121 mates."""
    given = {"columns": "repeat(12, 1fr)", "rows": "repeat(8, 1fr)", "width": "420", "depth": "300"}
    result = made("divided-case", given)
    assert sum(part.quantity for part in result.build.parts) == 23
    assert len(result.build.mates) == 121
    assert build(result.job.design, result.job.basis).mates == result.build.mates


def test_what_stands_nowhere_or_is_unfinished_is_not_called_clear(files, capsys):
    """A part that is only cut, a placement against one that there is not, and a part that got stuck at a step."""
    loose = made("tag")
    astray = edited(made("case").job, Edit("put", "placements/lid/pose", {
        "kind": "against", "edge": "blank.left", "placement": "front", "other_edge": "blank.top.no", "angle": 90,
    }))  # fmt: skip
    stuck = {"kind": "corner", "id": "round", "corners": ["blank.nowhere"], "size": 5}
    failed = edited(made("case").job, Edit("put", "parts/front/steps/round", stuck))
    for one in (loose.job, astray, failed):
        [said] = [finding for finding in found(compute(one), "mean") if finding.severity == "unseen"]
        assert said.code == "placements-not-measured"
        assert main(["assemble", *files(one)]) in (1, 4)
        assert json.loads(capsys.readouterr().out)["verdict"] != "clear"


def test_joints_that_run_into_each_other_are_no_sound_joints(files, capsys):
    shelves = {"low": 40, "high": 42}
    poses = {name: {"kind": "numbers", "x": 140, "z": z, "turn_z": 180} for name, z in shelves.items()}
    one = job(
        [panel("wall", 160, 90), *(panel(name, 120, 50) for name in shelves)], {"wall": UPRIGHT, **poses},
        [(name, name, "blank.bottom", "wall", "face", {"kind": "tab-and-slot"}) for name in shelves],
    )  # fmt: skip
    assert main(["joints", *files(one)]) == 1
    assert "run into each other" in capsys.readouterr().out
