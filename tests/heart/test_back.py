"""Work on the back: a file of its own, turned over about a named edge, which the job sheet says; proved like the front."""

import cmath
import json
import math
import random
import re
from dataclasses import replace

import pytest
import shapely
from lean_notch.cli.main import main
from lean_notch.cutting import PLAIN, estimate
from lean_notch.edits import Edit, edit_job
from lean_notch.formats.file_kinds import FORMATS
from lean_notch.formats.paper_html import write_html
from lean_notch.geometry.flatten import flatten
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.contents import in_files
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.job_sheet import job_sheet
from lean_notch.hand_over.proving import prove_files, prove_job
from lean_notch.job import compute, job_to_json
from plates import disc, plate, rectangle

MARK = disc("ring", 10, "mark", x=20, y=30, operation="score", face="back")


def marks_of(data):
    boxes = []
    for path in FORMATS["svg"].read(data).paths:
        places = [segment.start for segment in path.segments]
        xs, ys = [p[0] for p in places], [p[1] for p in places]
        boxes.append(((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2))
    return boxes


@pytest.mark.parametrize("about", ["left", "bottom"])
def test_the_back_lies_where_the_turned_sheet_has_it(about):
    """Seen from the back the mark is 20 from the part's left; the sheet's other face is its mirror image."""
    job = edit_job(plate(MARK, disc("h", 8, x=90, y=30)), [Edit("put", "layout/main/turned_about", about)])
    result = compute(job)
    back, front = write_files(result, "svg")
    assert (front.back, back.back) == (False, True)
    assert f"back-turned-about-its-{about}-edge" in back.name
    [placed] = result.layout.placed
    assert placed.motion.angle == 0
    sheet = result.layout.sheet(1).area
    x, y = placed.motion.point((100 - 20, 30))  # through the front it lies 20 from the right
    wanted = (sheet.width - x, y) if about == "left" else (x, sheet.height - y)
    assert marks_of(back.data)[0] == pytest.approx(wanted, abs=0.01)
    assert len(marks_of(front.data)) == 2  # the hole and the outline, no mark


@pytest.mark.parametrize("about", ["left", "bottom"])
def test_the_back_is_proved_like_the_front(about):
    job = edit_job(plate(MARK), [Edit("put", "layout/main/turned_about", about)])
    result = compute(job)
    back, front = write_files(result, "svg")
    assert prove_job(result).fits
    found = prove_files(result, [front, back], "svg")
    assert [one.said.verdict for one in found.files] == ["fits", "fits"]
    moved = replace(back, data=back.data.replace(b'<g id="score"', b'<g transform="translate(0.3 0)" id="score"'))
    spoiled = prove_files(result, [front, moved], "svg")
    assert [one.said.verdict for one in spoiled.files] == ["fits", "does-not-fit"]
    assert [(one.code, one.back) for one in spoiled.proof.findings] == [("marks-astray", True)]


def test_the_back_shows_where_the_sheet_lies():
    """The edge of the sheet, on a layer that is not cut; a file that lost it, or has it elsewhere, is no proof of where the back is."""
    result = compute(plate(MARK))
    back, front = write_files(result, "svg")
    sheet = result.layout.sheet(1).area
    lines = [path for path in FORMATS["svg"].read(back.data).paths if PLAIN.operation_of(path.layer) == "reference"]
    edge = max(lines, key=lambda path: sum(segment.length for segment in path.segments))
    assert {segment.start for segment in edge.segments} == {
        (0, 0), (sheet.width, 0), (sheet.width, sheet.height), (0, sheet.height)
    }  # fmt: skip
    for spoiled in (
        re.sub(rb'<g id="reference".*?</g>', b"", back.data, flags=re.DOTALL),
        back.data.replace(b'<g id="reference"', b'<g transform="translate(2 0)" id="reference"'),
    ):
        found = prove_files(result, [front, replace(back, data=spoiled)], "svg")
        assert spoiled != back.data
        assert found.files[1].said.verdict == "does-not-fit"


@pytest.mark.parametrize("file_format", ["dxf", "dxf-r12", "pdf"])
@pytest.mark.parametrize("origin", ["plain", "centre"])
def test_the_edge_is_found_in_every_format_and_missed_where_it_is_gone(file_format, origin):
    profile = replace(PLAIN, origin=origin)
    result = compute(plate(MARK), profile)
    back, front = write_files(result, file_format)
    assert [one.said.verdict for one in prove_files(result, [front, back], file_format).files] == ["fits", "fits"]
    # Of the same job without the edge of its sheet: what is scored lies right, and nothing shows where.
    bare = replace(result)
    marks = [replace(one, back=tuple(p for p in one.back if p.operation != "reference")) for one in result.plan.sheets]
    vars(bare)["plan"] = replace(result.plan, sheets=tuple(marks))
    [without] = [one for one in write_files(bare, file_format) if one.back]
    found = prove_files(result, [front, replace(back, data=without.data)], file_format)
    assert found.files[1].said.verdict == "does-not-fit"
    assert "edge-missing" in [one.code for one in found.proof.findings]


def test_a_file_an_operation_shows_it_too_and_a_profile_without_reference_lines_is_told():
    split = compute(
        plate(MARK, disc("pit", 8, "mark", x=60, y=30, operation="engrave", face="back")),
        replace(PLAIN, split="operation"),
    )
    files = write_files(split, "svg")
    assert all(b"edge of the sheet" in one.data or b"sheet-edge-1" in one.data for one in files if one.back)
    assert {one.said.verdict for one in prove_files(split, files, "svg").files} == {"fits"}
    layers = {**PLAIN.layers, "reference": replace(PLAIN.layers["reference"], include=False)}
    bare = compute(plate(MARK), replace(PLAIN, layers=layers))
    assert "does not show the edge of the sheet" in next(
        one.why for one in bare.plan.findings if one.code == "back-not-registered"
    )


def _seeded(face, seed):
    """Forty plates with a ring, a pocket and a text each, at places that `seed` gives."""
    of = random.Random(seed)
    parts = []
    for number in range(40):
        width, height = of.uniform(80, 140), of.uniform(50, 90)
        steps = [rectangle("blank", width, height)]
        if of.random() < 0.5:  # one whose left edge is not at zero
            steps.append(rectangle("ear", 20, 20, x=-10, y=20))
        for name, does in (
            ("ring", {"operation": "score"}),
            ("pit", {"operation": "pocket", "depth": of.uniform(0.5, 2)}),
        ):
            steps.append(
                disc(name, of.uniform(5, 9), "mark", x=of.uniform(15, 60), y=of.uniform(10, 40), face=face, **does)
            )
        text = {"kind": "lettering", "text": of.choice(["Mühle", "R 12", "left", "ßä"]), "height": of.choice([4.5, 7])}
        steps.append({"kind": "shape", "id": "name", "does": "mark", "operation": "engrave", "shape": text,
                      "x": of.uniform(15, 40), "y": of.uniform(10, 40), "face": face})  # fmt: skip
        parts.append({"id": f"p{number}", "title": f"P {number}", "loose": 1, "steps": steps})
    return plate(parts=parts)


@pytest.mark.parametrize("seed", [0, *(pytest.param(seed, marks=pytest.mark.rare) for seed in (1, 2, 3, 4))])
def test_200_seeded_backs_lie_where_an_own_mirror_puts_them(seed):
    """By arithmetic of its own: what is drawn on the front, at the same places, is mirrored within its part as the part lies on the
    sheet, and with the sheet, about both edges."""
    front, back = compute(_seeded("front", seed)), _seeded("back", seed)
    asked = {path.id: (path, one.number) for one in front.plan.sheets for path in one.paths if path.operation != "cut"}
    lies = {one.part: one for one in front.layout.placed}
    for about in ("left", "bottom"):
        result = compute(edit_job(back, [Edit("put", "layout/main/turned_about", about)]))
        assert result.layout.placed == front.layout.placed
        looked_at = 0
        for sheet in result.plan.sheets:
            for path in sheet.back:
                if path.operation == "reference":
                    continue
                wanted, number = asked[path.id]
                assert (number, path.operation, path.depth) == (sheet.number, wanted.operation, wanted.depth)
                placed = lies[path.part]
                left, _, right, _ = front.build.part(path.part).region.box
                turn, zero = cmath.rect(1, math.radians(placed.motion.angle)), complex(*placed.motion.point((0, 0)))
                places = []
                for x, y in outline(wanted):
                    own = (complex(x, y) - zero) / turn
                    seen = complex(left + right - own.real, own.imag) * turn + zero
                    places.append(
                        (sheet.width - seen.real, seen.imag)
                        if about == "left"
                        else (seen.real, sheet.height - seen.imag)
                    )
                drawn = outline(path)
                far = max(
                    shapely.distance(shapely.points(one), shapely.linearrings(other)).max()
                    for one, other in ((places, drawn), (drawn, places))
                )
                assert far < 0.001, path.id
                looked_at += 1
        assert looked_at == len(asked) > 200


def outline(path):
    return flatten(path.shape.segments, 2e-4)


def test_a_back_that_is_missing_is_not_said_to_fit():
    result = compute(plate(MARK))
    _, front = write_files(result, "svg")
    found = prove_files(result, [front], "svg").proof
    assert [one.code for one in found.findings] == ["back-not-given"]
    assert found.verdict == "as-far-as-seen"


def test_a_sheet_larger_than_the_bed_has_no_known_place_once_it_is_turned():
    """The wrong design: the mark would land 250 mm off, since the sheet's far edge is not where the file has it."""
    job = plate(MARK, sheet=(600, 400))
    board = job.basis.of("main")
    wider = replace(board, stock=replace(board.stock, sheet_width=850))
    result = compute(replace(job, basis=job.basis.with_board("main", wider)))
    found = prove_files(result, write_files(result, "svg"), "svg")
    assert [one.said.verdict for one in found.files] == ["as-far-as-seen", "fits"]
    assert "850 mm wide, the bed takes 600 mm" in found.files[0].findings[-1].why


def test_the_job_sheet_says_which_face_is_up():
    result = compute(plate(MARK))
    sheet = re.sub(r"\s+", " ", write_html(job_sheet(result)))
    assert "first lies face down, turned over about its left edge" in sheet
    assert "while it is whole; then it is turned face up, to the same corner, and cut" in sheet
    assert len(write_files(compute(plate()), "svg")) == 1


def test_a_file_a_part_has_no_back_and_says_so():
    result = compute(plate(MARK), replace(PLAIN, split="part"))
    assert len(write_files(result, "svg")) == 1
    assert "and in no file" in next(one.why for one in result.plan.findings if one.code == "on-the-back")


def test_only_an_edge_can_be_turned_about():
    with pytest.raises(NotchError) as error:
        edit_job(plate(), [Edit("put", "layout/main/turned_about", "corner")])
    assert error.value.field == "layout/main/turned_about"


def test_the_command_line_proves_both_faces(tmp_path, capsys):
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(plate(MARK))))
    assert main(["export", str(tmp_path / "job.json"), "--out", str(tmp_path / "out")]) == 0
    files = sorted(str(one) for one in (tmp_path / "out").glob("*.svg"))
    assert len(files) == 2
    capsys.readouterr()
    assert main(["prove", *files]) == 0
    assert main(["prove", next(one for one in files if "back" not in one)]) == 4
    assert "not looked at: The back of sheet 1" in capsys.readouterr().err


def test_the_back_is_done_first_and_counted_in_time_and_work():
    """The wrong order: the parts were loose when their backs were to be done; and no time was told for it."""
    marked, bare = compute(plate(MARK)), compute(plate())
    assert [one.back for one in write_files(marked, "svg")] == [True, False]
    sheet, without = marked.plan.sheets[0], bare.plan.sheets[0]
    basis = marked.job.basis.of("main")
    time = estimate(sheet, basis)
    assert time.by_operation["score"] > 0
    assert time.by_operation["cut"] == estimate(without, basis).by_operation["cut"]
    first, second = in_files(marked, "svg")
    assert [work.operation for work in first.works] == ["score", "reference"]
    assert [work.operation for work in second.works] == ["cut"]
    # 20 mm of travel more or less: each file is begun by itself.
    assert first.seconds + second.seconds == pytest.approx(time.total, rel=0.05)


def test_names_of_the_front_mean_the_same_place_on_the_back():
    """The wrong place: "at the centre of hole, on the back" lay as far on the other side of the part as the hole was from its
    middle. By an own mirror: x of the front is width less x of the back."""
    hole = disc("hole", 12, x=30, y=25)

    def placed(**values):
        [part] = compute(plate(hole, disc("ring", 6, "mark", operation="score", face="back", **values))).build.parts
        [mark] = part.marks
        left, low, right, high = mark.regions[0].box if mark.regions else mark.traces[0].box
        return ((left + right) / 2, (low + high) / 2), part.box[2]

    (x, y), width = placed(x=0, y=0, from_x="centre:hole", from_y="centre:hole", anchor="centre")
    assert (x, y) == pytest.approx((30, 25))
    # To the right as the back is looked at is to the left of the front.
    assert placed(x=8, y=0, from_x="centre:hole", from_y="centre:hole", anchor="centre")[0] == pytest.approx((22, 25))
    # Inwards from the front's left edge stays inwards from it; from the zero it counts from the left as the back is looked at.
    assert placed(x=15, y=25, from_x="edge:blank.left", anchor="centre")[0] == pytest.approx((15, 25))
    assert placed(x=15, y=25, anchor="centre")[0] == pytest.approx((width - 15, 25))


def test_a_cut_from_the_back_lies_where_the_back_has_it():
    [part] = compute(plate(disc("hole", 12, x=30, y=25, face="back"))).build.parts
    left, _, right, _ = part.region.holes[0].box
    assert (left + right) / 2 == pytest.approx(part.box[2] - 30)
