"""Drawing on parts, profiles, job sheets and checks over HTTP."""

import pytest
from client import get, post, put
from lean_notch.lettering import FONTS

CIRCLE = {"id": "c", "kind": "circle", "operation": "cut", "lengths": {"x": "1 in", "y": "20", "diameter": "6"}}


def edit(client, design, parts, unit="mm", **changes):
    body = {"changes": changes, "parts": parts, "unit": unit, "seen": design["moves"]}
    return post(client, f"/designs/{design['id']}/edits", body)


def test_what_is_drawn_comes_back_with_its_units(wren, tray):
    drawn = edit(wren, tray, {"front": {"marks": [CIRCLE]}}).json()
    [mark] = next(part for part in drawn["parts"] if part["id"] == "front")["marks"]
    assert mark["document"]["lengths"]["x"] == {"text": "1 in", "unit": "mm"}
    inches = edit(wren, drawn, {"front": {"marks": [{**mark["document"], "id": "d"}]}}, "in").json()
    [kept] = next(part for part in inches["parts"] if part["id"] == "front")["marks"]
    assert kept["document"]["lengths"] == mark["document"]["lengths"]
    typed = edit(
        wren, inches, {"front": {"marks": [{**CIRCLE, "lengths": {"x": "1", "y": "1", "diameter": "0.25"}}]}}, "in"
    ).json()
    [mark] = next(part for part in typed["parts"] if part["id"] == "front")["marks"]
    assert mark["document"]["lengths"]["diameter"] == {"text": "0.25", "unit": "in"}


def test_a_mark_that_cannot_be_is_refused_at_its_field_and_nothing_is_lost(wren, tray):
    refused = edit(wren, tray, {"front": {"marks": [{**CIRCLE, "lengths": {"x": "1", "y": "1", "diameter": "99"}}]}})
    assert refused.status_code == 422
    assert refused.json()["field"] == "front.marks[0]"
    assert get(wren, f"/designs/{tray['id']}").json()["moves"] == tray["moves"]


@pytest.mark.parametrize(
    "mark",
    [{}, {"id": "x"}, {**CIRCLE, "kind": "blob"}, {**CIRCLE, "operation": "melt"}, {**CIRCLE, "columns": "many"}],
)
def test_malformed_marks_are_answered_like_any_problem(wren, tray, mark):
    answer = edit(wren, tray, {"front": {"marks": [mark]}})
    assert answer.status_code == 422
    assert answer.json()["fix"]


def test_relief_and_corners_are_edits_too(wren, tray):
    corners = [{"corner": "top-left", "shape": "round", "size": "2"}]
    done = edit(wren, tray, {"front": {"corners": corners}}, relief="dogbone").json()
    assert done["relief"] == "dogbone"
    front = next(part for part in done["parts"] if part["id"] == "front")
    assert front["corners"] == [{"corner": "top-left", "shape": "round", "size": {"text": "2", "unit": "mm"}}]
    assert "A" in front["path"]


def test_the_choices_name_fonts_operations_and_questions(wren):
    choices = get(wren, "/choices").json()
    assert choices["fonts"] == [*FONTS, "single stroke"]
    assert choices["mark_lengths"]["circle"] == ["x", "y", "diameter"]
    assert list(choices["operations"]) == ["engrave", "score", "fold", "pocket", "cut", "reference"]


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
    assert b"was set to" not in page.content
    number = tray["basis"]["machine"]["id"]
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
