"""What is known of a revision's proof is told everywhere alike, and never of another revision or release."""

import re
from datetime import datetime
from hashlib import sha256

import pytest
from client import edit, post
from designs.models import Export
from results import release


@pytest.fixture
def proved(wren, tray):
    """The tray, once its proof was asked for."""
    answer = wren.get(f"/api/designs/{tray['id']}/proof")
    assert answer.status_code == 200, answer.content
    return answer.json()


def card(wren):
    [found] = wren.get("/api/designs").json()
    return found


def test_a_list_tells_a_proof_that_was_made_and_none_that_was_not(wren, tray):
    assert (card(wren)["proof"], card(wren)["proved_before"]) == (None, False)
    found = wren.get(f"/api/designs/{tray['id']}/proof").json()
    told = card(wren)["proof"]
    assert (told["verdict"], told["sentence"]) == (found["verdict"], found["sentence"])
    assert datetime.fromisoformat(told["at"]) == datetime.fromisoformat(found["at"])
    assert (found["revision"], found["moves"]) == (tray["revision"], tray["moves"])


def test_the_proof_of_one_revision_is_not_told_of_the_next(wren, tray, proved):
    later = edit(wren, tray, width="160").json()
    assert (card(wren)["proof"], card(wren)["proved_before"]) == (None, True)
    post(wren, f"/designs/{tray['id']}/undo", {"seen": later["moves"]})
    assert datetime.fromisoformat(card(wren)["proof"]["at"]) == datetime.fromisoformat(proved["at"])


def test_what_another_release_proved_is_not_told(wren, tray, proved, monkeypatch):
    monkeypatch.setattr(release, "core", lambda: "of tomorrow")
    assert (card(wren)["proof"], card(wren)["proved_before"]) == (None, False)
    assert "Not proved." in wren.get(f"/api/designs/{tray['id']}/job-sheet").content.decode()


def test_a_verdict_on_a_typed_kerf_says_what_it_rests_on(wren, tray, proved):
    """Nobody measured the kerf of this machine: that is said with the verdict, not left to the route."""
    assert proved["verdict"] == "fits"
    assert "kerf" in proved["provided"]
    assert proved["provided"] in card(wren)["proof"]["sentence"]


NO_CUTS = {"layers": {"cut": {"name": "CUT", "colour": "#000000", "include": False}}}


@pytest.mark.parametrize(
    ("joint", "profile", "mark"),
    [("", {}, ""), ("front-left", {}, "_does-not-fit"), ("", NO_CUTS, "_not-all-proved")],
)
@pytest.mark.parametrize("file_format", ["svg", "dxf", "pdf"])
def test_a_files_own_proof_is_in_its_name_and_in_the_list(wren, tray, joint, profile, mark, file_format):
    """Nothing was proved before: each file is read back when it is saved."""
    if joint:
        edited = [{"verb": "drop", "path": f"joints/{joint}"}]
        post(wren, f"/designs/{tray['id']}/edits", {"edits": edited, "seen": 1, "revision": 1})
    answer = post(wren, f"/designs/{tray['id']}/exports", {"format": file_format, "profile": profile})
    [made] = answer.json()
    assert made["file_name"] == f"tray_poplar-ply_3.06mm_sheet-1{mark}.{file_format}"
    assert made["proof"]["verdict"] == {"": "fits", "_does-not-fit": "does-not-fit"}.get(mark, "as-far-as-seen")
    assert bool(made["proof"]["stops"]) == (mark == "_does-not-fit")
    assert bool(made["proof"]["unseen"]) == (mark == "_not-all-proved")
    got = wren.get(f"/api/exports/{made['id']}/file")
    assert made["file_name"] in got["Content-Disposition"]
    assert sha256(got.content).hexdigest() == made["sha256"]
    sheet = wren.get(f"/api/designs/{tray['id']}/job-sheet").content.decode()
    assert f"{made['file_name']} ({made['proof']['sentence']})" in sheet
    assert wren.get(f"/api/exports/{made['id']}/today").json() == {"known": True, "differs": []}


def test_bytes_that_changed_since_are_refused_by_their_hash(wren, tray):
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    export = Export.objects.get()
    export.data = bytes(export.data).replace(b"0.1", b"0.2", 1)
    export.save()
    said = wren.get(f"/api/exports/{made['id']}/file")
    assert said.status_code == 422
    assert said.json()["code"] == "changed-file"


def test_a_file_that_todays_rules_would_write_otherwise_is_told_and_keeps_its_bytes(wren, tray):
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    export = Export.objects.get()
    old = bytes(export.data).replace(b'<g id="cut"', b'<g transform="translate(0 0.3)" id="cut"')
    export.data, export.sha256, export.proof = old, sha256(old).hexdigest(), export.proof | {"release": "of old"}
    export.save()
    [row] = wren.get(f"/api/designs/{tray['id']}/exports").json()
    assert row["older"]
    said = wren.get(f"/api/exports/{made['id']}/today").json()["differs"]
    assert said == ["On the layer “cut” a line would lie 0.3 mm from where it is."]
    assert wren.get(f"/api/exports/{made['id']}/file").content == old


def test_the_job_sheet_tells_the_proof_and_lengths_in_the_readers_unit(wren, tray, proved):
    address = f"/api/designs/{tray['id']}/job-sheet"
    plain = wren.get(address).content.decode()
    assert re.search(r"Fits, if the kerf is 0\.14 mm .*: the plan was proved \d{4}-\d\d-\d\d \d\d:\d\d", plain)
    inches = wren.get(f"{address}?unit=in&fractions=64&mark=,").content.decode()
    assert " mm" not in inches
    assert "23 5/8 in" not in plain
    assert "0,1205 in" in inches  # 3.06 mm, the measured thickness
    assert wren.get(f"{address}?unit=ell").status_code == 422


def test_others_see_the_name_that_a_maker_chose(wren, tray):
    def name(shown):
        return wren.patch("/api/session", {"shown": shown}, content_type="application/json")

    assert name("Wren of the shed").json()["shown"] == "Wren of the shed"
    assert name("  ").status_code == 422
    edit(wren, tray, width="160")
    newest = wren.get(f"/api/designs/{tray['id']}/history").json()[0]
    assert newest["by"] == "Wren of the shed"
    assert wren.get("/api/session").json()["name"] == "Wren"  # signing in stays as it is


def test_a_core_whose_sources_changed_is_another_release_whatever_its_version_says(tmp_path):
    (tmp_path / "proof.py").write_text("KERF = 1")
    before = release.fingerprint(tmp_path)
    assert release.fingerprint(tmp_path) == before
    (tmp_path / "proof.py").write_text("KERF = 2")
    assert release.fingerprint(tmp_path) != before
