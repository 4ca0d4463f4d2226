"""The command line of steps, limits and recipes, as somebody types it."""

import json

import pytest
from lean_notch.basis import board_basis_to_json
from lean_notch.cli.main import main
from lean_notch.design import design_to_json
from lean_notch.job import job_to_json
from plates import disc, plate


@pytest.fixture
def run(capsys, tmp_path):
    def run(*arguments):
        status = main([str(one) for one in arguments])
        said = capsys.readouterr()
        return status, said.out, said.err

    run.folder = tmp_path
    return run


def written(folder, name, document):
    (folder / name).write_text(json.dumps(document))
    return folder / name


def test_all_recipes_are_listed_with_their_settings(run):
    status, out, _ = run("recipes")
    assert status == 0
    assert all(f"{name}: " in out for name in ("open-tray", "tag", "panel", "angle-gauge"))
    document = json.loads(run("recipes", "--json")[1])
    settings = {one["name"]: [setting["name"] for setting in one["settings"]] for one in document}
    assert {"width", "height", "radius"} <= set(settings["tag"])
    assert "depth" in settings["angle-gauge"]


def test_a_radius_too_large_is_refused_with_the_largest(run):
    status, _, err = run("recipe", "tag", "--set", "width=80", "--set", "height=30", "--set", "radius=20")
    assert status == 2
    assert "radius-too-large at radius" in err
    assert "at most 15 mm" in err
    assert run("recipe", "tag", "--set", "width=80", "--set", "height=30", "--set", "radius=15")[0] == 0


def test_steps_are_sentences_with_what_they_follow(run):
    design = run.folder / "tag.json"
    assert run("recipe", "tag", "--out", design)[0] == 0
    status, out, _ = run("steps", design, "tag")
    assert status == 0
    assert "hole: Cut a hole Ø hole, margin from the left edge of plate" in out
    assert "(follows hole, margin, blank)" in out
    rows = json.loads(run("steps", design, "tag", "--json")[1])
    assert [row["id"] for row in rows] == ["blank", "hole", "text"]
    assert rows[2]["depends_on"]["steps"] == ["hole", "blank"]
    assert run("steps", design, "none")[0] == 2


def test_limits_are_findings_with_a_status(run):
    """2.5 mm between two holes: to be looked at in cloth, nothing in plywood; less than the beam is a stop."""
    job = plate(disc("a", 8, x=40, y=30), disc("b", 8, x=50.5, y=30))
    design = written(run.folder, "design.json", design_to_json(job.design))
    basis = board_basis_to_json(job.basis.of("main"))
    plain = written(run.folder, "basis.json", basis)
    status, out, _ = run("limits", design, "--basis", plain)
    assert (status, json.loads(out)) == (0, {"sound": True, "findings": []})
    cloth = written(run.folder, "cloth.json", {**basis, "stock": {**basis["stock"], "kind": "cloth"}})
    status, out, err = run("limits", design, "--basis", cloth)
    assert status == 0
    assert "look: web-thin at 45.25, 30.00 of plate: A web of 2.5 mm" in err
    assert "Move b 0.5 mm to the right" in err
    document = json.loads(out)
    assert document["findings"][0]["mend"]["path"] == "parts/plate/steps/b/x"
    touching = plate(disc("a", 8, x=40, y=30), disc("b", 8, x=48.05, y=30))
    assert run("limits", written(run.folder, "stop.json", design_to_json(touching.design)), "--basis", plain)[0] == 1


def test_edits_stand_in_a_file_beside_the_job(run):
    job = written(run.folder, "job.json", job_to_json(plate(disc("h", 8, x=40, y=30))))
    edits = written(
        run.folder, "edits.json", [{"verb": "put", "path": "parts/plate/steps/h/x", "value": "max(20; 45)"}]
    )
    status, out, _ = run("edit", job, edits, "--out", run.folder / "after.json")
    assert (status, out) == (0, "Moved h of Plate by 5 mm to the right\n")
    written(run.folder, "edits.json", [{"verb": "put", "path": "parts/plate/steps/h/x", "value": "max(20"}])
    status, _, err = run("edit", job, edits)
    assert status == 2
    assert "at parts/plate/steps/h/x" in err
