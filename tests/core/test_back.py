"""Work on the back: a file of its own, turned over about a named edge, which the job sheet says and no proof claims."""

import json
import re

import pytest
from lean_notch.cli import main
from lean_notch.cutting import PLAIN
from lean_notch.edits import Edit, edit_job
from lean_notch.errors import NotchError
from lean_notch.files import write_files
from lean_notch.formats.paper_html import write_html
from lean_notch.job import compute, job_to_json
from lean_notch.job_sheet import job_sheet
from lean_notch.proving import prove_job
from lean_notch.reading import read_outlines
from plates import disc, plate

MARK = disc("ring", 10, "mark", x=20, y=30, operation="score", face="back")


def marks_of(data):
    boxes = []
    for path in read_outlines(data, "svg").paths:
        places = [segment.start for segment in path.segments]
        xs, ys = [p[0] for p in places], [p[1] for p in places]
        boxes.append(((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2))
    return boxes


@pytest.mark.parametrize("about", ["left", "bottom"])
def test_the_back_lies_where_the_turned_sheet_has_it(about):
    """Seen from the back the mark is 20 from the part's left; the sheet's other face is its mirror image."""
    job = edit_job(plate(MARK, disc("h", 8, x=90, y=30)), [Edit("put", "layout/main/turned_about", about)])
    result = compute(job)
    front, back = write_files(result, "svg")
    assert (front.back, back.back) == (False, True)
    assert f"back-turned-about-its-{about}-edge" in back.name
    [placed] = result.layout.placed
    assert placed.motion.angle == 0
    sheet = result.layout.sheet(1).area
    x, y = placed.motion.point((100 - 20, 30))  # through the front it lies 20 from the right
    wanted = (sheet.width - x, y) if about == "left" else (x, sheet.height - y)
    assert marks_of(back.data) == [pytest.approx(wanted, abs=0.01)]
    assert len(marks_of(front.data)) == 2  # the hole and the outline, no mark


def test_it_is_said_that_the_back_is_not_proved_and_which_face_is_up():
    result = compute(plate(MARK))
    proof = prove_job(result)
    [unseen] = [one for one in proof.findings if one.code == "on-the-back"]
    assert (unseen.severity, proof.fits) == ("unseen", False)
    assert "in a file of their own that is not proved" in unseen.why
    sheet = re.sub(r"\s+", " ", write_html(job_sheet(result)))
    assert "turned over about its left edge, the face down" in sheet
    assert len(write_files(compute(plate()), "svg")) == 1


def test_a_file_a_part_has_no_back_and_says_so():
    from dataclasses import replace

    result = compute(plate(MARK), replace(PLAIN, split="part"))
    assert len(write_files(result, "svg")) == 1
    assert "and in no file" in next(one.why for one in result.plan.findings if one.code == "on-the-back")


def test_only_an_edge_can_be_turned_about():
    with pytest.raises(NotchError) as error:
        edit_job(plate(), [Edit("put", "layout/main/turned_about", "corner")])
    assert error.value.field == "layout/main/turned_about"


def test_the_command_line_proves_the_fronts(tmp_path, capsys):
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(plate(MARK))))
    assert main(["export", str(tmp_path / "job.json"), "--out", str(tmp_path / "out")]) == 0
    files = sorted(str(one) for one in (tmp_path / "out").glob("*.svg"))
    assert len(files) == 2
    capsys.readouterr()
    assert main(["prove", *files]) == 4
    assert "the back of a sheet; it is not proved" in capsys.readouterr().err
