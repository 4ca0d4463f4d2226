"""Drawing on parts, profiles, job sheets and checks over HTTP."""

import pytest
from client import edit, get, post, put
from lean_notch.lettering import FONTS

HOLE = {"kind": "shape", "shape": {"kind": "disc", "diameter": "6"}, "does": "cut", "x": "1 in", "y": "20"}


def put_step(document, name="hole"):
    return {"verb": "put", "path": f"parts/front/steps/{name}", "value": document}


def step(design, name):
    front = next(part for part in design["parts"] if part["id"] == "front")
    return next(step for step in front["steps"] if step["id"] == name)


def test_what_is_drawn_comes_back_with_its_units(wren, tray):
    drawn = edit(wren, tray, put_step(HOLE)).json()
    known = step(drawn, "hole")["document"]
    assert (known["x"], known["y"]) == ({"text": "1 in", "unit": "mm"}, {"text": "20", "unit": "mm"})
    inches = edit(wren, drawn, put_step(known, "again"), unit="in").json()
    assert step(inches, "again")["document"] == {**known, "id": "again"}
    small = {**HOLE, "shape": {"kind": "disc", "diameter": "0.25"}, "x": "1", "y": "1"}
    typed = edit(wren, inches, put_step(small, "small"), unit="in").json()
    assert step(typed, "small")["document"]["shape"]["diameter"] == {"text": "0.25", "unit": "in"}


def test_a_step_that_fails_as_it_is_made_is_refused_at_its_field_and_nothing_is_lost(wren, tray):
    refused = edit(wren, tray, put_step({**HOLE, "shape": {"kind": "disc", "diameter": "0"}}))
    assert refused.status_code == 422
    assert refused.json()["field"] == "parts/front/steps/hole/shape/diameter"
    assert get(wren, f"/designs/{tray['id']}").json()["moves"] == tray["moves"]


def test_a_step_that_fails_since_something_else_changed_is_shown_where_it_is(wren, tray):
    """The part shows its last good state, the job stays open to be mended, and nothing is called a fit."""
    drawn = edit(wren, tray, put_step({**HOLE, "x": "145"})).json()
    narrower = edit(wren, drawn, width="60")
    assert narrower.status_code == 200
    problem = step(narrower.json(), "hole")["problem"]
    assert "lies beside Front" in problem["why"]
    assert [one["field"] for one in narrower.json()["findings"] if one["severity"] == "stop"] == [
        "parts/front/steps/hole"
    ]
    assert not get(wren, f"/designs/{tray['id']}/proof").json()["fits"]
    mended = edit(wren, narrower.json(), {"verb": "put", "path": "parts/front/steps/hole/x", "value": "30"}).json()
    assert step(mended, "hole")["problem"] is None
    assert {one["severity"] for one in mended["findings"]} == {"look"}


@pytest.mark.parametrize(
    "document",
    [{}, [], "hole", {"kind": "blob"}, {**HOLE, "does": "melt"}, {**HOLE, "pattern": {"kind": "grid", "columns": "many"}},
     {**HOLE, "on": "false"}, {**HOLE, "colour": "red"}, {**HOLE, "shape": {"kind": "disc", "diameter": "٣"}}, {**HOLE, "title": "a\0b"}],
)  # fmt: skip
def test_malformed_steps_are_answered_like_any_problem(wren, tray, document):
    answer = edit(wren, tray, put_step(document))
    assert answer.status_code == 422
    assert answer.json()["fix"]


def test_relief_and_corners_are_edits_too(wren, tray):
    corner = {"kind": "corner", "corners": ["blank.top-left"], "size": "2"}
    done = edit(wren, tray, put_step(corner, "soft"), relief="dogbone").json()
    assert done["relief"] == "dogbone"
    assert step(done, "soft")["document"]["corners"] == ["blank.top-left"]
    assert "A" in done["parts"][0]["path"]


def test_the_choices_describe_what_there_is_to_fill_in(wren):
    fields = get(wren, "/choices").json()["fields"]
    fonts = next(one for one in fields["shape/lettering"] if one["name"] == "font")
    assert fonts["choices"] == [*FONTS, "single stroke"]
    assert [one["name"] for one in fields["shape/disc"]] == ["diameter"]
    assert list(get(wren, "/choices").json()["operations"]) == [
        "engrave",
        "score",
        "fold",
        "pocket",
        "cut",
        "reference",
    ]


def test_profiles_are_kept_and_used_for_files(wren, tray):
    added = post(wren, "/profiles", {"name": "Mill Lane", "unit": "in", "split": "part"})
    assert added.status_code == 201
    profile = added.json()["document"]
    assert profile["layers"]["cut"]["name"] == "CUT"
    files = post(wren, f"/designs/{tray['id']}/exports", {"format": "dxf", "profile": profile}).json()
    assert len(files) == 5
    changed = put(wren, f"/profiles/{added.json()['id']}", {**profile, "split": "sheet"}).json()
    assert changed["document"]["split"] == "sheet"
    assert [one["document"]["name"] for one in get(wren, "/profiles").json()] == ["Mill Lane"]


def test_a_broken_profile_is_refused_at_its_field(wren):
    refused = post(wren, "/profiles", {"name": "x", "stroke_mm": "0"})
    assert (refused.status_code, refused.json()["field"]) == (422, "stroke_mm")


def test_the_proof_tells_the_times(wren, tray):
    proof = get(wren, f"/designs/{tray['id']}/proof").json()
    [sheet] = proof["times"]
    assert sheet["seconds"] > 60
    assert sheet["travel"] <= sheet["travel_unordered"]
    assert proof["own_speeds"] is False


def test_a_job_sheet_is_a_page_for_its_owner_only(wren, tray, sign_in):
    page = get(wren, f"/designs/{tray['id']}/job-sheet")
    assert page["Content-Type"].startswith("text/html")
    assert b"Poplar ply" in page.content
    assert b"Previous settings" not in page.content
    number = tray["boards"][0]["basis"]["machine"]["id"]
    was = {"stock": "Poplar ply", "kind": "plywood", "thickness": "3.06", "power": "62", "speed": "12"}
    post(wren, f"/machines/{number}/settings", was)
    assert "62 % · 12 mm/s" in get(wren, f"/designs/{tray['id']}/job-sheet").content.decode()
    assert get(sign_in("Teal"), f"/designs/{tray['id']}/job-sheet").status_code == 404


def upload(client, name, data):
    from django.core.files.uploadedfile import SimpleUploadedFile

    return client.post("/api/check", {"file": SimpleUploadedFile(name, data)})


def test_a_drawing_from_elsewhere_is_checked_and_not_kept(wren):
    data = (
        b'<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9"><path d="M1 1h7v7"/></svg>'
    )
    report = upload(wren, "flap.svg", data).json()
    assert report["name"] == "flap.svg"
    assert report["box"] == [1, 1, 8, 8]
    assert {finding["code"] for finding in report["findings"]} == {"loose-end", "filled"}
    assert len(report["lines"]) == 1


@pytest.mark.parametrize(
    ("name", "data"), [("a.svg", b"no"), ("a.dxf", b"no"), ("a.png", b"\x89PNG"), ("a.pdf", b"%PDF-1.7")]
)
def test_what_is_no_drawing_is_refused(wren, name, data):
    refused = upload(wren, name, data)
    assert refused.status_code == 422
    assert refused.json()["fix"]


def test_checking_wants_a_maker(client):
    assert client.post("/api/check").status_code in (401, 403)
