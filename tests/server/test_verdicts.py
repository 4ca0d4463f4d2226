"""What is known of a revision's proof is told everywhere alike, and never of another revision or release."""

import re
from datetime import datetime

import pytest
from client import edit, post
from designs import verdicts
from designs.models import Export, Revision


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
    monkeypatch.setattr(verdicts, "release", lambda: "of tomorrow")
    assert (card(wren)["proof"], card(wren)["proved_before"]) == (None, False)
    assert "Not proved." in wren.get(f"/api/designs/{tray['id']}/job-sheet").content.decode()


def test_a_verdict_on_a_typed_kerf_says_what_it_rests_on(wren, tray, proved):
    """Nobody measured the kerf of this machine: that is said with the verdict, not left to the route."""
    assert proved["verdict"] == "fits"
    assert "kerf" in proved["provided"]
    assert proved["provided"] in card(wren)["proof"]["sentence"]


@pytest.mark.parametrize(
    ("spoil", "mark"),
    [
        (lambda known: None, "_not-proved"),
        (lambda known: known | {"verdict": "does-not-fit"}, "_does-not-fit"),
        (lambda known: known | {"verdict": "as-far-as-seen"}, "_not-all-proved"),
        (lambda known: known, ""),
    ],
)
def test_a_download_says_in_its_name_where_its_parts_are_not_proved(wren, tray, proved, spoil, mark):
    head = Revision.objects.get()
    head.proof = spoil(head.proof)
    head.save(update_fields=["proof"])
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    assert made["file_name"] == f"tray_poplar-ply_3.06mm_sheet-1{mark}.svg"
    assert (made["revision"], made["proof"] is None) == (1, head.proof is None)
    assert Export.objects.get().proof == head.proof
    got = wren.get(f"/api/exports/{made['id']}/file")
    assert made["file_name"] in got["Content-Disposition"]


def test_the_job_sheet_tells_the_proof_and_lengths_in_the_readers_unit(wren, tray, proved):
    address = f"/api/designs/{tray['id']}/job-sheet"
    plain = wren.get(address).content.decode()
    assert re.search(r"Fits, if the kerf is 0\.14 mm .*: proved \d{4}-\d\d-\d\d \d\d:\d\d", plain)
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
    before = verdicts.fingerprint(tmp_path)
    assert verdicts.fingerprint(tmp_path) == before
    (tmp_path / "proof.py").write_text("KERF = 2")
    assert verdicts.fingerprint(tmp_path) != before
