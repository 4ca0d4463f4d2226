"""Drawing on parts, profiles, job sheets and checks over HTTP."""

import pytest
from client import edit, get, post, put
from designs.models import Revision
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
    assert proof["times_rest_on"] == "at default speeds for such a machine, in one pass, areas in lines 0.1 mm apart"


def test_a_job_sheet_is_a_page_for_its_owner_only(wren, tray, sign_in):
    page = get(wren, f"/designs/{tray['id']}/job-sheet")
    assert page["Content-Type"].startswith("text/html")
    assert b"Poplar ply" in page.content
    assert "None is known to cut Poplar ply" in page.content.decode()
    number = tray["boards"][0]["basis"]["machine"]["id"]
    was = {"stock": "Poplar ply", "kind": "plywood", "thickness": "3.06", "power": "62", "speed": "12"}
    post(wren, f"/machines/{number}/settings", was)
    assert "62 % · 12 mm/s" in get(wren, f"/designs/{tray['id']}/job-sheet").content.decode()
    assert get(sign_in("Teal"), f"/designs/{tray['id']}/job-sheet").status_code == 404


def test_a_job_sheet_names_its_maker_revision_and_files(wren, tray):
    address = f"/designs/{tray['id']}/job-sheet"
    assert "No file of this revision was handed over yet." in get(wren, address).content.decode()
    get(wren, f"/designs/{tray['id']}/proof")
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    page = get(wren, address).content.decode()
    assert f"File: {made['file_name']}" in page
    assert "revision 1 · Wren · " in page
    assert "Fits, if the kerf is 0.14 mm (typed in, not measured): the plan was proved" in page


def test_files_of_one_name_for_two_receivers_are_both_named(wren, tray):
    """The wrong page: of four files that were handed over it named two, since those of both receivers are called alike."""
    for name in ("Plain", "Club laser"):
        post(wren, f"/designs/{tray['id']}/exports", {"format": "svg", "profile": {"name": name}})
    page = get(wren, f"/designs/{tray['id']}/job-sheet").content.decode()
    assert ", for Plain (" in page
    assert ", for Club laser (" in page


def test_papers_come_as_pdf_and_a_page_that_is_too_small_is_said_before_the_work(wren, tray):
    import base64

    sheet = get(wren, f"/designs/{tray['id']}/job-sheet?form=pdf&paper=A5")
    assert (sheet["Content-Type"], sheet.content[:5]) == ("application/pdf", b"%PDF-")
    paper = get(wren, f"/designs/{tray['id']}/proof-paper").json()
    assert (paper["name"], base64.b64decode(paper["data"])[:5]) == ("tray_revision-1_proof.pdf", b"%PDF-")
    for what in ("job-sheet", "proof-paper"):
        refused = get(wren, f"/designs/{tray['id']}/{what}?paper=100x150")
        assert (refused.status_code, refused.json()["field"]) == (422, "paper")


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


def in_files(wren, tray, **profile):
    return post(wren, f"/designs/{tray['id']}/in-files", {"format": profile.get("format", "svg"), "profile": profile})


def test_the_picture_of_a_file_is_what_is_written(wren, tray):
    """Every path of the written SVG, and nothing else, in its order."""
    import re

    from designs.models import Export

    post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"})
    written = bytes(Export.objects.get().data).decode()
    answer = in_files(wren, tray).json()
    [file] = answer["files"]
    assert file["name"] == "tray_poplar-ply_3.06mm_sheet-1.svg"
    assert (file["width"], file["height"], file["origin"], file["y_down"]) == (600, 400, [0, 400], True)
    [work] = file["works"]
    assert (work["operation"], work["paths"], work["openings"]) == ("cut", 5, 0)
    assert work["data"].count("M") == len(re.findall(r"<path |<circle ", written))
    titles = re.findall(r"<title>([^<]+)</title>", written)[2:]  # the drawing's own and the layer's come first
    order = [one["title"] for one in sorted(file["outlines"], key=lambda one: one["turn"])]
    assert [title.rsplit(" ", 1)[0] for title in titles] == order


def test_a_receiver_who_wants_a_file_a_part_gets_five(wren, tray):
    files = in_files(wren, tray, split="part", format="dxf").json()["files"]
    assert len(files) == 5
    assert all(file["name"].endswith(".dxf") and not file["y_down"] for file in files)
    assert {round(file["width"], 1) for file in files} == {156.3, 106.3}  # with half a kerf on either side


def test_a_profile_with_nothing_in_it_makes_a_file_with_nothing_in_it(wren, tray):
    names = ("cut", "score", "engrave", "pocket", "fold", "reference")
    layers = {name: {"name": name.upper(), "colour": "#000000", "include": False} for name in names}
    [file] = in_files(wren, tray, layers=layers).json()["files"]
    assert (file["works"], file["outlines"]) == ([], [])


def test_a_layer_that_cannot_be_is_said_at_its_place(wren, tray):
    layers = {"cut": {"name": "!", "colour": "#000000"}}
    answer = in_files(wren, tray, layers=layers)
    assert (answer.status_code, answer.json()["field"]) == (422, "layers.cut.name")


def test_a_setting_that_came_out_well_is_offered_with_the_file(wren, tray):
    number = tray["boards"][0]["basis"]["machine"]["id"]
    was = {"stock": "Poplar ply", "kind": "plywood", "thickness": "3.06", "power": "62", "speed": "12"}
    post(wren, f"/machines/{number}/settings", was | {"speed": "16", "result": "not through"})
    [work] = in_files(wren, tray).json()["files"][0]["works"]
    assert (work["setting"], work["setting_not_used"]) == ("62 % · 16 mm/s", "not through")
    before = work["seconds"]
    post(wren, f"/machines/{number}/settings", was)
    answer = in_files(wren, tray).json()
    [work] = answer["files"][0]["works"]
    assert (work["setting"], work["setting_result"], work["setting_not_used"]) == ("62 % · 12 mm/s", "clean", "")
    assert 1.1 * before < work["seconds"] < 1.3 * before, "12 mm/s where the usual is 15"
    said = "at what was set before (cut), else at default speeds for such a machine, in one pass, areas in lines 0.1 mm apart"
    proof = get(wren, f"/designs/{tray['id']}/proof").json()
    assert (answer["times_rest_on"], proof["times_rest_on"]) == (said, said)
    assert proof["times"][0]["seconds"] == pytest.approx(answer["files"][0]["seconds"])
    assert "as it is" in get(wren, f"/designs/{tray['id']}/job-sheet").content.decode()


def test_how_a_file_came_out_is_kept_with_it(wren, tray, sign_in):
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg", "profile": {"name": "Shed laser"}}).json()
    assert (made["receiver"], made["outcome"]) == ("Shed laser", "")
    address = f"/api/exports/{made['id']}"
    told = wren.patch(address, {"outcome": "not through"}, content_type="application/json")
    assert told.json()["outcome"] == "not through"
    assert get(wren, f"/designs/{tray['id']}/exports").json()[0]["outcome"] == "not through"
    assert wren.patch(address, {"outcome": "fine"}, content_type="application/json").status_code == 422
    assert sign_in("Teal").patch(address, {"outcome": "burnt"}, content_type="application/json").status_code == 404


def test_a_profile_belongs_to_a_machine_or_to_nobody(wren, machine):
    made = post(wren, "/profiles", {"name": "Shed laser", "machine": machine.id}).json()
    assert (made["machine"], made["document"]["format"]) == (machine.id, "svg")
    assert post(wren, "/profiles", {"name": "x", "machine": 10**6}).status_code == 404


def tried(wren, tray, path, value, unit="mm"):
    edits = [{"verb": "put", "path": path, "value": value}]
    return post(wren, f"/designs/{tray['id']}/tried", {"edits": edits, "unit": unit}).json()


def test_an_edit_that_is_tried_tells_what_it_would_do_and_keeps_nothing(wren, tray):
    width = "parts/base/steps/blank/shape/width"
    found = tried(wren, tray, width, "outside_width + 10")
    assert found["values"] == {width: pytest.approx(166.12)}
    assert [(one["about"], one["key"]) for one in found["changes"]] == [("Base", "width")]
    assert get(wren, f"/designs/{tray['id']}").json()["revision"] == tray["revision"]
    assert tried(wren, tray, width, "6", "in")["values"] == {width: pytest.approx(152.4)}
    for text, code in (("nothing", "unknown-name"), ("2", "finger-too-wide"), ("1/0", None)):
        problem = tried(wren, tray, width, text)["problem"]
        assert problem
        assert code is None or problem["code"] == code or problem["why"]


def test_sizes_stand_where_the_step_is(wren, tray):
    """156.12 wide from the left edge of the blank to its right; its places are 0, and not shown."""
    front = next(part for part in tray["parts"] if part["id"] == "front")
    sizes = {one["path"]: one for one in front["steps"][0]["sizes"]}
    assert set(sizes) == {"shape/width", "shape/height"}
    wide = sizes["shape/width"]
    assert (wide["value"], wide["text"], wide["start"], wide["end"]) == (
        pytest.approx(156.12),
        "outside_width",
        [0, 0],
        [pytest.approx(156.12), 0],
    )


def test_other_readings_tell_what_they_would_do_to_the_jobs_of_a_board(wren, tray, stock, sign_in):
    Revision.objects.update(picture=None)  # they are told from the documents

    def jobs(client, *readings, unit="mm"):
        return post(client, f"/designs/on-board/{stock.id}", {"readings": list(readings), "unit": unit})

    [job] = jobs(wren, "3.20", "3.22").json()["jobs"]
    assert (job["name"], job["handed"], job["gap"]) == ("Tray", False, None)
    changed = {one["title"]: (one["before"], one["after"]) for one in job["changes"]}
    assert changed["outside width"] == (pytest.approx(156.12), pytest.approx(150 + 2 * 3.21))
    # A file does not follow: its slots of 3.06 + 0.02 hold a board of 3.21 no more.
    post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"})
    [job] = jobs(wren, "3.20", "3.22").json()["jobs"]
    assert (job["handed"], job["gap"]) == (True, pytest.approx(3.08 - 3.21))
    assert job["fits"]
    assert jobs(sign_in("Teal"), "3.2").json()["jobs"] == []
    assert [jobs(wren, *some).status_code for some in (("0",), ("x",), ("3", "9"))] == [422, 422, 422]
    assert jobs(wren, "0.12", unit="in").json()["jobs"]


def test_a_name_in_another_script_stays_in_the_name_of_the_file(wren, tray):
    """The lost names: Arabic, Hebrew, Chinese jobs were all called “job”. By the header that RFC 6266 has for them."""
    from urllib.parse import unquote

    edited = post(
        wren,
        f"/designs/{tray['id']}/edits",
        {"seen": tray["moves"], "edits": [{"verb": "put", "path": "name", "value": "صينية"}]},
    )
    assert edited.status_code == 200, edited.content
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    assert made["file_name"].startswith("صينية_poplar-ply")
    header = wren.get(f"/api/exports/{made['id']}/file")["Content-Disposition"]
    assert unquote(header.partition("filename*=utf-8''")[2]) == made["file_name"]
