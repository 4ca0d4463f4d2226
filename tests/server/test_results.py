"""Answers that took long are kept by what made them: found again by the same, by nothing else, and never in the way."""

from __future__ import annotations

import json
import logging
import os
import sqlite3
import time
from contextlib import closing
from datetime import date, timedelta
from pathlib import Path

import pytest
from client import edit
from designs import compute
from lean_notch.ground.remembered import forget_all
from results import release, store
from results.models import Result
from upkeep.backups import write_backup

INPUTS = store.inputs_of({"job": 1})


@pytest.fixture(autouse=True)
def told(caplog):
    """What the log says: it goes to a file, elsewhere."""
    log = logging.getLogger("lean_notch.results")
    log.addHandler(caplog.handler)
    log.setLevel("INFO")
    yield lambda: " ".join(f"{one.getMessage()} {getattr(one, 'told', '')}" for one in caplog.records)
    log.removeHandler(caplog.handler)


def file_of(rule="proof"):
    return store._folder() / Result.objects.get(rule=rule).sha256


def test_a_result_is_found_by_its_rule_its_inputs_and_this_release(db, monkeypatch):
    store.keep("proof", INPUTS, b"fits")
    store.keep("proof", INPUTS, b"another")
    assert store.find("proof", INPUTS) == b"fits"
    assert store.find("paper", INPUTS) is None
    assert store.find("proof", store.inputs_of({"job": 1}, b"file")) is None
    monkeypatch.setattr(release, "whole", lambda: "the next one")
    assert store.find("proof", INPUTS) is None


def test_what_another_release_made_is_removed_and_said_so(db, monkeypatch, told):
    store.keep("proof", INPUTS, b"fits")
    file = file_of()
    os.utime(file, (0, 0))
    monkeypatch.setattr(release, "whole", lambda: "the next one")
    store.tidy()
    assert (Result.objects.count(), file.exists()) == (0, False)
    assert "made by another release" in told()


@pytest.mark.parametrize(
    ("spoil", "said"), [(Path.unlink, "is gone"), (lambda file: file.write_bytes(b"fitz"), "was changed")]
)
def test_one_whose_file_is_gone_or_was_changed_is_none_and_is_made_again(db, told, spoil, said):
    store.keep("proof", INPUTS, b"fits")
    spoil(file_of())
    assert store.find("proof", INPUTS) is None
    assert said in told()
    store.keep("proof", INPUTS, b"fits")
    assert store.find("proof", INPUTS) == b"fits"


def test_files_that_are_gone_are_noticed_before_anybody_asks(db, told):
    store.keep("proof", INPUTS, b"fits")
    file_of().unlink()
    store.tidy()
    assert Result.objects.count() == 0
    assert "without their file" in told()


def test_what_nobody_asks_for_goes_after_a_month_and_what_is_asked_for_stays(db):
    for rule in ("proof", "paper"):
        store.keep(rule, INPUTS, rule.encode())
    Result.objects.update(asked=date.today() - timedelta(days=store.MOST_DAYS + 1))
    assert store.find("paper", INPUTS) == b"paper"
    store.tidy()
    assert list(Result.objects.values_list("rule", flat=True)) == ["paper"]


def test_no_more_is_kept_than_there_is_room_for(db, monkeypatch):
    for number in range(4):
        store.keep("proof", str(number), bytes([number]) * 100)
        Result.objects.filter(inputs=number).update(asked=date.today() - timedelta(days=4 - number))
    monkeypatch.setattr(store, "MOST_BYTES", 250)
    store.tidy()
    assert sorted(Result.objects.values_list("inputs", flat=True)) == ["2", "3"]


def test_what_is_kept_makes_room_for_itself_at_once(db, monkeypatch):
    """An hour passes between two looks at all of it: in that time a thousand answers may come."""
    monkeypatch.setattr(store, "MOST_BYTES", 250)
    for number in range(5):
        store.keep("proof", str(number), bytes([number]) * 100)
    assert sorted(Result.objects.values_list("inputs", flat=True)) == ["3", "4"]
    assert len(store._files()) == 2
    store.keep("proof", "large", b"x" * 300)
    assert store.find("proof", "large") == b"x" * 300


def test_one_that_cannot_be_read_is_none(db, told):
    store.keep("proof", INPUTS, b"fits")
    place = file_of()
    place.unlink()
    place.mkdir()
    assert store.find("proof", INPUTS) is None
    assert "cannot be read" in told()


def test_files_that_nothing_names_are_removed_but_for_those_just_written(db):
    store.keep("proof", INPUTS, b"fits")
    old, young = (store._folder() / name for name in ("old", "young"))
    for path in (old, young):
        path.write_bytes(b"")
    os.utime(old, (time.time() - 2 * store.YOUNG_SECONDS,) * 2)
    os.utime(file_of(), (0, 0))
    store.tidy()
    assert (old.exists(), young.exists(), store.find("proof", INPUTS)) == (False, True, b"fits")


def test_where_nothing_can_be_written_nothing_is_kept_and_nothing_fails(db, monkeypatch):
    monkeypatch.setattr(store, "_write", lambda *_: (_ for _ in ()).throw(OSError(28, "No space left on device")))
    store.keep_if_possible("proof", INPUTS, b"fits")
    assert store.find("proof", INPUTS) is None


def test_a_job_that_was_proved_is_not_proved_again_after_a_restart(wren, tray, monkeypatch):
    first = wren.get(f"/api/designs/{tray['id']}/proof").json()
    forget_all()
    with monkeypatch.context() as without:
        without.setattr(compute, "prove_job", lambda *_: pytest.fail("it is known"))
        assert wren.get(f"/api/designs/{tray['id']}/proof").json() == first
    edit(wren, tray, width="171")
    assert wren.get(f"/api/designs/{tray['id']}/proof").json()["revision"] == first["revision"] + 1
    assert Result.objects.filter(rule="proof").count() == 2


def test_no_backup_takes_results_along(tmp_path):
    database = tmp_path / "lean-notch.sqlite3"
    with closing(sqlite3.connect(database)) as made:
        made.execute("CREATE TABLE designs_keptfile (name TEXT)")
        made.execute("CREATE TABLE results_result (rule TEXT)")
        made.execute("INSERT INTO results_result VALUES ('proof')")
        made.commit()
    (tmp_path / "results").mkdir()
    (tmp_path / "results" / "0").write_bytes(b"fits")
    write_backup(tmp_path, tmp_path / "b.zip")
    import zipfile

    with zipfile.ZipFile(tmp_path / "b.zip") as pack:
        assert sorted(json.loads(pack.read("contents.json"))["sha256"]) == ["lean-notch.sqlite3"]
        pack.extract("lean-notch.sqlite3", tmp_path / "again")
    with closing(sqlite3.connect(tmp_path / "again" / "lean-notch.sqlite3")) as copied:
        assert copied.execute("SELECT count(*) FROM results_result").fetchone() == (0,)
