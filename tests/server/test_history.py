"""Histories, windows, broken jobs, kept files and packed jobs over HTTP."""

import json
import threading
from datetime import timedelta

import pytest
from client import edit, get, post
from designs import actions, files_of_jobs
from designs.models import Design, KeptFile, Revision
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import OperationalError
from django.utils import timezone
from lean_notch.edits import Edit
from lean_notch.ground.remembered import forget_all

SVG = b'<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="20mm" viewBox="0 0 20 20"><g id="cut"><path d="M0 0h20v20h-20z"/></g></svg>'


@pytest.fixture(autouse=True)
def own_folder(tmp_path, monkeypatch):
    monkeypatch.setattr(settings, "DATA_DIR", tmp_path)


def width(design):
    return next(row["value"] for row in design["ledger"]["job"] if row["key"] == "width")


def history(client, design):
    return get(client, f"/designs/{design['id']}/history").json()


def go(client, design, revision):
    return post(client, f"/designs/{design['id']}/go", {"revision": revision, "seen": design["moves"]})


def test_the_history_reads_as_sentences_and_leads_to_any_revision(wren, tray):
    second = edit(wren, tray, width="160").json()
    third = edit(wren, second, kerf="0.2", name="Box").json()
    rows = history(wren, third)
    assert [(row["number"], row["sentence"]) for row in rows] == [
        (3, "Changed the kerf from 0.14 mm to 0.2 mm, renamed the job to Box"), (2, "Set width to 160 mm"),
        (1, "Started from open tray"),
    ]  # fmt: skip
    assert [(row["shown"], row["before"], row["by"]) for row in rows] == [
        (True, True, "Wren"), (False, True, "Wren"), (False, True, "Wren"),
    ]  # fmt: skip
    first = go(wren, third, 1).json()
    assert (first["revision"], first["name"], width(first)) == (1, "Tray", 150)
    assert [row["before"] for row in history(wren, first)] == [False, False, True]
    assert go(wren, first, 3).json()["name"] == "Box"
    assert go(wren, first, 3).status_code == 409
    assert go(wren, get(wren, f"/designs/{tray['id']}").json(), 9).json()["code"] == "nothing-there"


def test_several_edits_are_one_revision(wren, tray):
    after = edit(wren, tray, width="160", depth="90", margin="6").json()
    assert after["revision"] == 2
    back = post(wren, f"/designs/{tray['id']}/undo", {"seen": after["moves"]}).json()
    assert width(back) == 150


def test_an_edit_of_the_middle_of_several_that_is_wrong_saves_none_of_them(wren, tray):
    refused = edit(wren, tray, width="160", depth="x", height="50")
    assert (refused.status_code, refused.json()["field"]) == (422, "answers/depth")
    assert Revision.objects.count() == 1


def test_windows_that_were_away_for_long_are_merged_or_told_what_happened(wren, tray):
    now = tray
    for i in range(4):
        now = edit(wren, now, width=str(160 + i)).json()
    assert edit(wren, tray, kerf="0.2").json()["revision"] == 6
    told = edit(wren, tray, width="99").json()
    assert "5 times" in told["why"]
    assert [one["number"] for one in told["theirs"]] == [2, 3, 4, 5, 6]
    assert told["theirs"][3]["sentence"] == "Set width to 163 mm"


def test_the_same_edit_sent_again_is_answered_as_if_the_first_answer_had_come(wren, tray):
    """A window whose connection broke cannot know whether its edit was saved: it sends it again."""
    first = edit(wren, tray, width="160").json()
    again = edit(wren, tray, width="160")
    assert again.status_code == 200, again.json()
    assert (again.json()["revision"], again.json()["moves"]) == (first["revision"], first["moves"])


def test_a_window_that_does_not_say_its_revision_is_not_merged(wren, tray):
    edit(wren, tray, width="160")
    body = {"edits": [{"verb": "put", "path": "basis/main/kerf", "value": "0.2"}], "seen": tray["moves"]}
    assert post(wren, f"/designs/{tray['id']}/edits", body).status_code == 409


@pytest.mark.django_db(transaction=True)
def test_while_one_job_is_computed_nobody_waits_for_the_database(wren, tray, sign_in, monkeypatch):
    """A heavy edit is computed before its transaction: another maker's edit goes through meanwhile."""
    begun, done = threading.Event(), threading.Event()
    computed = actions.computed

    def slowly(job):
        if job.design.name == "Slow":
            begun.set()
            assert done.wait(20)
        return computed(job)

    monkeypatch.setattr(actions, "computed", slowly)
    answers = []
    slow = threading.Thread(target=lambda: answers.append(edit(wren, tray, name="Slow")))
    slow.start()
    assert begun.wait(20)
    quick = edit(wren, tray, kerf="0.2")
    done.set()
    slow.join(20)
    assert quick.status_code == 200
    assert answers[0].status_code == 200, answers[0].json()
    kept = get(wren, f"/designs/{tray['id']}").json()
    assert (kept["name"], kept["boards"][0]["basis"]["machine"]["kerf"], kept["revision"]) == ("Slow", 0.2, 3)


def test_a_locked_database_is_a_503_that_says_what_to_do(wren, tray, monkeypatch):
    def locked(*_, **__):
        raise OperationalError("database is locked")

    monkeypatch.setattr(actions, "_save", locked)
    answer = edit(wren, tray, width="160")
    assert (answer.status_code, answer.json()["code"]) == (503, "busy")
    assert answer.json()["fix"]


def spoil(shown, **changes):
    """A stored document as some other version might have left it."""
    head = Design.objects.get(id=shown["id"]).head
    head.document = {**head.document, **changes}
    head.picture = None
    head.saved -= timedelta(days=400)  # nothing that was remembered of it counts
    head.save()


def test_a_job_that_cannot_be_read_hides_no_other_and_leads_to_its_history(wren, tray, stock, machine):
    post(wren, "/designs", {"name": "Good", "recipe": "open-tray", "stock": stock.id, "machine": machine.id})
    later = edit(wren, tray, width="160").json()
    spoil(tray, design={"lean_notch_design": 99})
    cards = {card["name"]: card for card in get(wren, "/designs").json()}
    assert cards["Good"]["problem"] is None
    assert cards["Tray"]["problem"]["field"] == "lean_notch_design"
    broken = get(wren, f"/designs/{tray['id']}").json()
    assert (broken["problem"]["code"], broken["parts"], broken["boards"]) == ("bad-document", [], [])
    assert go(wren, later, 1).json()["problem"] is None


def test_a_job_that_no_longer_builds_is_shown_with_its_fields_and_is_mended_by_an_edit(wren, tray):
    document = Design.objects.get(id=tray["id"]).head.document
    answers = [
        {**one, "text": "2"} if one["name"] == "width" else one for one in document["design"]["origin"]["answers"]
    ]
    dimensions = [{**one, "length": "2"} if one["name"] == "width" else one for one in document["design"]["dimensions"]]
    origin = {**document["design"]["origin"], "answers": answers}
    spoil(tray, design={**document["design"], "origin": origin, "dimensions": dimensions})
    broken = get(wren, f"/designs/{tray['id']}").json()
    assert broken["problem"]["field"] == "answers/width"
    assert {one["name"] for one in broken["lengths"] if one["source"] == "chosen"} == {"width", "depth", "height"}
    assert get(wren, f"/designs/{tray['id']}/proof").status_code == 422
    assert get(wren, "/designs").json()[0]["problem"]["code"] == "finger-too-wide"
    mended = edit(wren, broken, width="120").json()
    assert (mended["problem"], width(mended)) == (None, 120)


def test_the_first_page_draws_what_was_kept_and_computes_nothing(wren, tray, monkeypatch):
    from designs import pictures

    monkeypatch.setattr(pictures, "computed", lambda _: pytest.fail("computed"))
    [card] = get(wren, "/designs").json()
    assert len(card["panels"]) == 5
    Revision.objects.update(picture=None)
    monkeypatch.undo()
    assert len(get(wren, "/designs").json()[0]["panels"]) == 5
    assert Revision.objects.get().picture["panels"]


def upload(client, path, data, name="badge.svg"):
    return client.post(f"/api{path}", {"file": SimpleUploadedFile(name, data)})


def use(name):
    shape = {"kind": "imported", "file": name}
    step = {"kind": "shape", "does": "cut", "shape": shape, "x": "60", "y": "20"}
    return {"verb": "put", "path": "parts/front/steps/badge", "value": step}


def test_a_file_is_kept_by_its_content_while_a_revision_uses_it(wren, tray):
    kept = upload(wren, "/files", SVG).json()
    assert (kept["title"], kept["size"], kept["layers"]) == ("badge.svg", len(SVG), ["cut"])
    assert upload(wren, "/files", SVG, "again.svg").json()["name"] == kept["name"]
    used = edit(wren, tray, use(kept["name"])).json()
    assert used["parts"][0]["steps"][-1]["problem"] is None
    other = upload(wren, "/files", SVG.replace(b"20", b"21")).json()["name"]
    KeptFile.objects.update(added=timezone.now() - timedelta(days=9))
    assert files_of_jobs.forget_unused() == 1
    assert set(KeptFile.objects.values_list("name", flat=True)) == {kept["name"]}
    assert not (settings.DATA_DIR / "files" / other).exists()
    assert get(wren, f"/designs/{tray['id']}/proof").json()["fits"]


def test_a_proof_that_was_kept_is_not_told_of_a_job_whose_file_is_gone(wren, tray):
    """It was of the job with that file in it: without, the step fails."""
    name = upload(wren, "/files", SVG).json()["name"]
    edit(wren, tray, use(name))
    assert get(wren, f"/designs/{tray['id']}/proof").json()["fits"]
    (settings.DATA_DIR / "files" / name).unlink()
    forget_all()
    assert not get(wren, f"/designs/{tray['id']}/proof").json().get("fits")


@pytest.mark.django_db(transaction=True)
def test_a_file_that_is_not_kept_is_refused_at_its_step(wren, tray):
    refused = edit(wren, tray, use("0" * 64))
    assert (refused.status_code, refused.json()["field"]) == (422, "parts/front/steps/badge/shape/file")
    assert edit(wren, tray, use("../../etc/passwd")).status_code == 422
    assert upload(wren, "/files", b"no drawing").status_code == 422
    assert upload(wren, "/files", b"<svg " + b" " * 21_000_000).status_code in (400, 422)


def test_a_job_is_packed_and_becomes_another_makers(wren, tray, sign_in):
    name = upload(wren, "/files", SVG).json()["name"]
    edit(wren, tray, use(name))
    packed = get(wren, f"/designs/{tray['id']}/packed")
    assert packed["Content-Disposition"] == 'attachment; filename="tray.lean-notch.zip"'
    heron = sign_in("Heron")
    copy = upload(heron, "/designs/packed", packed.content, "tray.zip").json()
    assert copy["parts"][0]["path"] == get(wren, f"/designs/{tray['id']}").json()["parts"][0]["path"]
    assert copy["boards"][0]["basis"]["stock"]["id"] == ""
    assert get(heron, f"/designs/{tray['id']}/packed").status_code == 404
    assert upload(heron, "/designs/packed", b"PK\x03\x04 and nothing more").status_code == 422


def test_an_empty_job_says_that_there_is_nothing_yet(wren, stock, machine):
    empty = post(wren, "/designs", {"name": "Sign", "stock": stock.id, "machine": machine.id}).json()
    assert (empty["parts"], empty["sheets"], empty["recipe"]) == ([], [], "")
    assert [stop["state"] for stop in empty["route"]][-2:] == ["open", "open"]
    assert not get(wren, f"/designs/{empty['id']}/proof").json()["fits"]
    assert post(wren, f"/designs/{empty['id']}/exports", {"format": "svg"}).json() == []
    part = {
        "title": "Board",
        "loose": 2,
        "steps": [{"kind": "shape", "id": "blank", "shape": {"kind": "disc", "diameter": "80"}}],
    }
    filled = edit(wren, empty, {"verb": "put", "path": "parts/board", "value": part}).json()
    assert filled["parts"][0]["quantity"] == 2
    assert get(wren, f"/designs/{empty['id']}/proof").json()["fits"]


def test_a_board_archived_under_a_job_is_still_read_and_asked_about_before(wren, tray, stock, machine, sign_in):
    Revision.objects.update(picture=None)  # whose picture was not made yet
    for thing in (f"/stocks/{stock.id}", f"/machines/{machine.id}"):
        assert get(wren, f"{thing}/jobs").json() == {"own": ["Tray"], "others": 0}
        assert get(sign_in("Heron"), f"{thing}/jobs").json() == {"own": [], "others": 1}
        assert wren.delete(f"/api{thing}").status_code == 204
    assert [one["document"]["name"] for one in get(wren, "/stocks/archived").json()] == ["Poplar ply"]
    assert [one["document"]["name"] for one in get(wren, "/machines/archived").json()] == ["Shed laser"]
    assert get(wren, f"/notebook?machine={machine.id}&stock={stock.id}").status_code == 200
    assert get(wren, f"/machines/{machine.id}/settings?stock={stock.id}").status_code == 200
    assert get(wren, f"/designs/{tray['id']}/news").json() == []
    assert edit(wren, tray, width="160").status_code == 200


@pytest.mark.parametrize(
    "value", ["²", "١٢٣", "\ud800", "a\0b", "1e999", "x" * 300, None, [], {}, True, 10**400, "__import__('os')"]
)
def test_odd_values_are_answered_with_what_to_do(wren, tray, value):
    for path in ("answers/width", "name", "sets", "basis/main/kerf", "parts/front/title", "basis/main/sheet", "relief"):
        body = json.dumps({"edits": [{"verb": "put", "path": path, "value": value}], "seen": 1, "revision": 1})
        answer = wren.post(f"/api/designs/{tray['id']}/edits", body, content_type="application/json")
        assert answer.status_code in (200, 422), (path, answer.content)
        if answer.status_code == 422:
            assert answer.json()["fix"]
    for name in ("²", "\ud800"):
        body = json.dumps({"name": name, "password": "x"})
        assert wren.post("/api/session", body, content_type="application/json").status_code == 422


def test_edits_know_no_other_way_round(wren, tray):
    """Edit lists are refused whole when a later one meets something that an earlier one removed."""
    gone = [{"verb": "drop", "path": "parts/front"}, {"verb": "put", "path": "parts/front/title", "value": "Face"}]
    assert edit(wren, tray, *gone).json()["code"] == "no-such-path"
    assert Edit("put", "a/b/c").steps == ("a", "b", "c")


def test_a_file_is_the_makers_who_brought_it_and_keeps_the_name_that_each_gave(wren, sign_in, stock, machine):
    """Whoever knew a file's SHA-256 could use it; whoever sent the same bytes was told what the other maker calls them."""
    heron, files = sign_in("Heron"), {}
    jobs = {}
    for client, title in ((wren, "secret order.svg"), (heron, "mine.svg")):
        jobs[client] = post(client, "/designs", {"name": "Plate", "stock": stock.id, "machine": machine.id}).json()
        files[client] = title
    kept = upload(wren, "/files", SVG, files[wren]).json()
    step = {"kind": "shape", "id": "blank", "shape": {"kind": "imported", "file": kept["name"]}}
    edits = [{"verb": "put", "path": "parts/one", "value": {"title": "One", "steps": [step]}}]
    refused = edit(heron, jobs[heron], *edits)
    assert (refused.status_code, refused.json()["field"]) == (422, "parts/one/steps/blank/shape/file")
    tried = post(heron, f"/designs/{jobs[heron]['id']}/tried", {"edits": edits}).json()
    assert tried["problem"]["code"] == refused.json()["code"]
    assert tried["paths"] == {}
    assert edit(wren, jobs[wren], *edits).status_code == 200
    again = upload(heron, "/files", SVG, files[heron]).json()
    assert (again["name"], again["title"]) == (kept["name"], "mine.svg")
    assert edit(heron, jobs[heron], *edits).status_code == 200
