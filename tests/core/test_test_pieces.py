"""Test pieces go the way of any job, and the practice machine measures what they should."""

import itertools
import math
from dataclasses import replace

import pytest
from conftest import make_board
from lean_notch.basis import KeepOut, KerfFound, Machine, Tool
from lean_notch.basis.comb import FEELS, read_comb
from lean_notch.basis.kerf import kerf_of_plug, kerf_of_slats
from lean_notch.basis.notebook import WAYS
from lean_notch.design import Lettering
from lean_notch.ground.errors import NotchError, UnreadableFile
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_job
from lean_notch.hand_over.reading import read_any
from lean_notch.job import compute, refuse_without_place
from lean_notch.practice import Practice, practised
from lean_notch.test_pieces import INSTRUCTIONS, TEST_PIECES, as_given, kerf_note, piece_job, recipe_of

BASIS = make_board()
LASER = BASIS.machine
ROUTER = Machine(
    "Barn router", "router", 1250, 1250, 6.0, tools=(Tool("six", 6.0, 22.0), Tool("eight", 8.0, 22.0)), tool="six",
    keep_outs=(KeepOut("clamp", 0, 0, 60, 60),),
)  # fmt: skip


def file_of(way, machine=LASER, kind="svg", **given):
    job = piece_job(way, given, BASIS.stock, machine)
    return job, write_files(compute(job), kind)[0]


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("machine", [LASER, ROUTER], ids=["laser", "router"])
def test_every_test_piece_is_proved_like_any_job(way, machine):
    job = piece_job(way, {}, BASIS.stock, machine)
    result = compute(job)
    proof = prove_job(result)
    # A round tool leaves the slots' corners round; the comb's are deep enough for the fit to be felt along the flanks.
    assert {finding.code for finding in proof.findings} <= {"corner-unreached", "kerf-doubt"}
    assert proof.fits
    assert len(result.layout.sheets) == 1
    assert INSTRUCTIONS[way]
    assert recipe_of(job.design) == way == TEST_PIECES[way].name


def written(job):
    steps = [step for part in job.design.parts for step in part.steps]
    return [step.shape.text for step in steps if isinstance(step.shape, Lettering)]


@pytest.mark.parametrize("way", WAYS)
def test_board_thickness_and_machine_are_written_on_the_piece(way):
    job, file = file_of(way)
    words = written(job)
    assert "Poplar ply" in " ".join(words)
    assert "3.06 mm" in " ".join(words)
    assert "Shed laser" in " ".join(words)
    drawn = read_any(file.data, file.name)
    assert {path.layer for path in drawn.paths} == {"cut", "score"}
    assert file.name.endswith("_poplar-ply_3.06mm_sheet-1.svg")


def test_letters_that_no_lettering_has_become_plain_ones():
    board = replace(BASIS.stock, name="Étuis 木")
    job = piece_job("slats", {}, board, LASER)
    compute(job)
    assert "Etuis" in written(job)


def test_test_pieces_are_small():
    areas = {way: compute(piece_job(way, {}, BASIS.stock, LASER)).layout for way in WAYS}
    for way, layout in areas.items():
        high = max(p.motion.y for p in layout.placed)
        assert high < 60, way  # one row along the sheet's edge


def test_the_beam_runs_on_the_line_of_slats_and_plug_and_the_comb_is_compensated():
    """Drawn sizes by hand: 100 / 10 for a slat; a comb's key of 12 is drawn a kerf wider."""

    def widths(way):
        _, file = file_of(way)
        boxes = [[s.box for s in path.segments] for path in read_any(file.data, file.name).paths if path.layer == "cut"]
        return sorted(round(max(b[2] for b in box) - min(b[0] for b in box), 4) for box in boxes)

    assert widths("slats") == [10.0] * 10
    assert widths("plug") == [20.0, 40.0]
    assert widths("comb")[:12] == [12.14] * 12


@pytest.mark.parametrize(
    ("way", "given", "field"), [("plug", {"size": "11"}, "size"), ("slats", {"pieces": "13"}, "pieces")]
)
def test_pieces_that_the_tool_would_eat_are_refused(way, given, field):
    with pytest.raises(NotchError, match="leave little to measure beside cuts 6 mm wide") as caught:
        piece_job(way, given, BASIS.stock, ROUTER)
    assert caught.value.field == field


def test_a_plug_that_a_wider_tool_has_eaten_is_no_plug():
    _, file = file_of("plug", LASER, size="3")
    with pytest.raises(UnreadableFile):
        Practice(1, 12, tool=6.0).cut(file.data, file.name)


def test_slats_lie_further_apart_than_any_tool_is_wide():
    layout = compute(piece_job("slats", {}, BASIS.stock, ROUTER)).layout
    xs = sorted(p.motion.x for p in layout.placed)
    assert min(b - a for a, b in itertools.pairwise(xs)) >= 30 + 2 * 8
    assert min(math.hypot(p.motion.x - 60, p.motion.y - 60) for p in layout.placed) > 0
    assert all(p.motion.x >= 60 or p.motion.y >= 60 for p in layout.placed)  # clear of the clamp


@pytest.mark.parametrize(
    ("way", "given", "field"),
    [
        ("slats", {"pieces": "1"}, "pieces"), ("slats", {"pieces": "2,5"}, "pieces"), ("slats", {"length": "0"}, "length"),
        ("slats", {"pieces": "80"}, "pieces"), ("slats", {"width": "3"}, "width"), ("plug", {"size": "-2"}, "size"),
        ("comb", {"step": "0.001"}, "step"), ("comb", {"pairs": "1"}, "pairs"), ("comb", {"first": "9"}, "first"),
        ("comb", {"step": "0.4"}, "first"), ("comb", {"key": "x"}, "key"), ("plug", {"size": "500"}, "parts/frame/steps/blank/shape/width"),
    ],
)  # fmt: skip
def test_a_test_piece_that_cannot_be_is_refused_at_its_setting(way, given, field):
    with pytest.raises(NotchError) as caught:
        refuse_without_place(compute(piece_job(way, given, BASIS.stock, LASER)))
    assert caught.value.field == field
    assert caught.value.fix


# Practice


@pytest.mark.parametrize("kind", ["svg", "dxf", "dxf-r12"])
def test_a_practice_machine_tells_the_same_of_any_format(kind):
    job, file = file_of("slats", kind=kind)
    cut = Practice(11).cut(file.data, file.name)
    given = as_given(job.design)
    found = kerf_of_slats(given.length, given.pieces, cut.row)
    assert found.value == pytest.approx(Practice(11).truth.kerf, abs=0.01)


def test_a_seed_is_one_machine_and_another_seed_another():
    _, file = file_of("slats")
    assert Practice(1).cut(file.data, "a") == Practice(1).cut(file.data, "a")
    rows = {Practice(seed).cut(file.data, "a").row for seed in range(5)}
    assert len(rows) == 5
    assert "kerf" not in repr(Practice(1))


def test_calipers_show_two_decimals_and_a_board_that_varies():
    _, file = file_of("plug")
    cut = Practice(4, nominal=12).cut(file.data, "a")
    values = [*cut.thickness, *cut.hole, *cut.plug]
    assert all(round(value, 2) == value for value in values)
    assert len(cut.thickness) == 5
    assert 11.2 < min(cut.thickness) < max(cut.thickness) < 12.7
    assert len(set(cut.thickness)) > 1


def test_a_routers_cut_is_as_wide_as_its_tool_about():
    job, file = file_of("slats", ROUTER)
    given, practice = as_given(job.design), Practice(8, 12, tool=6.0)
    assert abs(practice.truth.kerf - 6.0) < 0.13
    found = kerf_of_slats(given.length, given.pieces, practice.cut(file.data, file.name).row)
    assert found.value == pytest.approx(practice.truth.kerf, abs=0.02)
    _, plug = file_of("plug", ROUTER)
    cut = practice.cut(plug.data, plug.name)
    assert kerf_of_plug(cut.hole, cut.plug).value == pytest.approx(practice.truth.kerf, abs=0.03)


def test_a_practised_comb_is_cut_for_the_kerf_that_slats_told_first():
    """However far off the workshop's own kerf is, what is felt is clearance alone."""
    practice = Practice(21)
    far = replace(LASER, kerf=0.4)
    round_ = practised(practice, piece_job("comb", {"pairs": "20", "first": "-0.3"}, BASIS.stock, far))
    assert round_.kerf == pytest.approx(practice.truth.kerf, abs=0.01)
    read = read_comb(
        as_given(piece_job("comb", {"pairs": "20", "first": "-0.3"}, BASIS.stock, far).design).clearances,
        round_.cut.answers,
    )
    for limit, true in zip(read.scale.limits[:4], practice.truth.limits, strict=True):
        assert limit == pytest.approx(true, abs=0.04)
    assert practised(practice, piece_job("slats", {}, BASIS.stock, far)).kerf is None


def test_a_comb_says_which_kerf_it_is_compensated_for():
    typed = piece_job("comb", {}, BASIS.stock, replace(LASER, found=None))
    assert "nobody found on this board" in kerf_note(typed)
    found = replace(LASER, kerf=0.15, found=KerfFound("slats", "Poplar ply", 3.06, "2026-11-02T10:00", 0.002))
    assert kerf_note(piece_job("comb", {}, BASIS.stock, found)) == (
        "Compensated for a kerf of 0.15 mm ± 0.002 mm, found by a row of slats on 2026-11-02."
    )
    assert kerf_note(piece_job("slats", {}, BASIS.stock, LASER)) == ""


def test_a_comb_cut_with_the_wrong_kerf_feels_off_by_twice_that():
    """By hand: a kerf 0.1 wider than compensated takes 0.1 from the key and gives 0.1 to the slot."""
    practice = Practice(21)
    right, wrong = (
        practice.cut(file.data, file.name).answers
        for _, file in (
            file_of("comb", replace(LASER, kerf=practice.truth.kerf + off), pairs="20", first="-0.3")
            for off in (0.0, -0.1)
        )
    )
    first = [answers.index("falls apart") for answers in (right, wrong)]
    assert first[0] - first[1] == pytest.approx(0.2 / 0.04, abs=1)
    for answers in (right, wrong):
        assert list(answers) == sorted(answers, key=FEELS.index)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"<svg xmlns='http://www.w3.org/2000/svg' width='9mm' height='9mm' viewBox='0 0 9 9'/>", "no closed outline"),
        (b"not a file", "neither SVG nor DXF"),
    ],
)
def test_what_is_no_test_piece_is_refused(data, words):
    with pytest.raises(UnreadableFile, match=words):
        Practice(1).cut(data, "piece.svg" if data.startswith(b"<") else "piece")


def test_any_other_job_is_no_test_piece(job):
    file = write_files(compute(job), "svg")[0]
    with pytest.raises(UnreadableFile, match="neither slats, nor plug and hole, nor comb"):
        Practice(1).cut(file.data, file.name)
