"""Heavy work beside the server, in real child processes: done, refused, ended within its limits, never stuck."""

from __future__ import annotations

import json
import os
import signal
import time

import pytest
from client import get, post
from django.contrib.auth.models import User
from results.models import Result
from tasks.actions import MOST_OPEN, RUNNING, TooMany, ahead_of, ask, cancel, found, want
from tasks.api import show_task
from tasks.kinds import kind_of
from tasks.models import Task
from tasks.pool import Pool
from tasks.worker import Worker

pytestmark = [pytest.mark.django_db(transaction=True), pytest.mark.xdist_group("tasks")]


@pytest.fixture
def maker(db):
    return User.objects.create(username="Wren")


def asked(maker, name, about="", **document):
    return ask(maker, kind_of(name), about or name, document)


def settled(task, *also, seconds=120.0):
    """The task once it has ended, waited for as a page does; `also` are waited for meanwhile."""
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        task.refresh_from_db()
        if not task.open:
            return task
        for one in (task, *also):
            want(one)
        time.sleep(0.05)
    raise AssertionError(f"{task.kind} is {task.state} after {seconds} s")


def test_work_is_done_and_its_answer_kept(pool, maker):
    task = settled(ask(maker, kind_of("add"), "", {"numbers": [2, 3]}, b"four"))
    assert (task.state, bytes(task.answer), task.given, bytes(task.data)) == ("done", b"9!", {}, b"")
    assert ask(maker, kind_of("add"), "", {"numbers": [2, 3]}, b"four") == task


def test_what_is_known_so_far_is_told_and_the_answer_kept_in_the_store(pool, maker, wren, tmp_path):
    kind, document = kind_of("counted"), {"until": str(tmp_path / "go")}
    task = found(maker, kind, "", document)
    until = time.monotonic() + 60
    while task.progress < 0.6 and time.monotonic() < until:
        want(task)
        time.sleep(0.02)
        task.refresh_from_db()
    told = show_task(task).so_far
    assert (task.state, told.done, told.of, told.first) == ("running", 1, 2, ["One is open."])
    (tmp_path / "go").touch()
    task = settled(task)
    assert (task.state, task.so_far, bytes(task.answer)) == ("done", None, b"")
    assert found(User.objects.create_user("Heron"), kind, "", document) == b"counted"
    Result.objects.all().delete()
    anew = found(maker, kind, "", document)
    assert (anew.pk == task.pk, Task.objects.filter(pk=task.pk).exists()) == (False, False)


@pytest.mark.parametrize(("name", "code", "tries"), [
    ("refuse", "out-of-range", 1), ("hang", "too-much-time", 1), ("spin", "too-much-time", 1),
    ("eat", "too-much-memory", 1), ("die", "failed", 3), ("babble", "failed", 1), ("lie", "failed", 1),
    ("boast", "failed", 3), ("fail", "failed", 1), ("database", "failed", 1),
])  # fmt: skip
def test_work_that_goes_wrong_is_named_and_ended_and_the_next_one_goes_on(pool, maker, name, code, tries):
    task = settled(asked(maker, name))
    assert (task.state, task.problem["code"], task.tries) == ("failed", code, tries)
    assert task.problem["fix"]
    assert "Edda" not in json.dumps(task.problem)
    assert settled(asked(maker, "add", numbers=[1])).state == "done"


@pytest.mark.parametrize("name", ["lose", "lose-late"])
def test_an_answer_that_cannot_be_kept_fails_alone(pool, maker, name):
    """It ended all children: another maker's healthy task was killed three times, and failed."""
    other = User.objects.create_user("Heron")
    beside = ask(other, kind_of("add"), "beside", {"numbers": [1], "seconds": 1.0})
    until = time.monotonic() + 60
    while beside.state != "running" and time.monotonic() < until:
        want(beside)
        time.sleep(0.02)
        beside.refresh_from_db()
    lost = settled(asked(maker, name, numbers=[2]), beside)
    assert (lost.state, lost.problem["code"], lost.tries) == ("failed", "failed", 1)
    assert "Edda" not in json.dumps(lost.problem)
    done = settled(beside)
    assert (done.state, done.tries) == ("done", 1)


def test_cancelled_work_ends_at_once(pool, maker):
    task = asked(maker, "hang")
    until = time.monotonic() + 60
    while Task.objects.get(pk=task.pk).state != "running" and time.monotonic() < until:
        time.sleep(0.02)
    children = [worker.process for worker in pool._workers]
    cancel(task)
    assert settled(task).state == "cancelled"
    until = time.monotonic() + 60
    while all(child.poll() is None for child in children) and time.monotonic() < until:
        time.sleep(0.02)
    assert sum(child.poll() is not None for child in children) == 1


def test_what_nobody_waits_for_is_dropped(pool, maker):
    task = asked(maker, "leave")
    until = time.monotonic() + 20
    while Task.objects.get(pk=task.pk).open and time.monotonic() < until:
        time.sleep(0.05)
    dropped = Task.objects.get(pk=task.pk)
    assert (dropped.state, dropped.problem["code"]) == ("cancelled", "dropped")


def test_asking_anew_about_the_same_thing_ends_what_was_asked_before(known, maker):
    first = asked(maker, "add", about="job 1", numbers=[1])
    second = asked(maker, "add", about="job 1", numbers=[2])
    first.refresh_from_db()
    assert (first.state, second.state) == ("cancelled", "waiting")


def test_a_maker_may_ask_for_so_much_at_once(known, maker):
    for number in range(MOST_OPEN):
        asked(maker, "add", about=f"job {number}", numbers=[number])
    with pytest.raises(TooMany):
        asked(maker, "add", about="job 99", numbers=[99])
    other = User.objects.create(username="Heron")
    assert asked(other, "add", about="job 99", numbers=[99]).state == "waiting"


def test_a_task_that_runs_out_of_memory_takes_nobody_elses_with_it(pool, maker, caplog):
    heron = User.objects.create(username="Heron")
    eating, adding = asked(maker, "eat"), asked(heron, "add", numbers=[1], seconds=3)
    assert settled(eating, adding).problem["code"] == "too-much-memory"
    adding = settled(adding)
    assert (adding.state, adding.tries) == ("done", 1)
    assert "the pool failed" not in caplog.text


def test_makers_take_turns(pool, maker, monkeypatch):
    """All are asked for before the first is handed out, with both children free: what follows hangs on no clock."""
    until = time.monotonic() + 60
    while sum(worker.free for worker in list(pool._workers)) < 2 and time.monotonic() < until:
        time.sleep(0.02)
    handed, give = [], Worker.give
    monkeypatch.setattr(Worker, "give", lambda worker, task, *more: handed.append(task) or give(worker, task, *more))
    with monkeypatch.context() as held:
        held.setattr(pool, "_hand_out", lambda: None)
        long = [asked(maker, "add", about=f"job {n}", numbers=[n], seconds=0.2) for n in range(3)]
        short = asked(User.objects.create(username="Heron"), "add", numbers=[1])
    for task in (short, *long):
        assert settled(task, *long).state == "done"
    assert handed == [long[0].pk, short.pk, long[1].pk, long[2].pk]


def test_what_is_quick_comes_first_and_long_work_never_takes_the_last_child(pool, maker, monkeypatch):
    others = [User.objects.create(username=name) for name in ("Heron", "Sedge", "Alder")]
    until = time.monotonic() + 60
    while sum(worker.free for worker in list(pool._workers)) < 2 and time.monotonic() < until:
        time.sleep(0.02)
    running, give = [], Worker.give

    def gives(worker, task, *more):
        long = Task.objects.filter(state="running", lane="long").count()
        running.append((task, long))
        give(worker, task, *more)

    monkeypatch.setattr(Worker, "give", gives)
    with monkeypatch.context() as held:
        held.setattr(pool, "_hand_out", lambda: None)
        long = [
            ask(one, kind_of("add"), "long", {"numbers": [n], "seconds": 0.3}, seconds=30.0)
            for n, one in enumerate((maker, *others))
        ]
        quick = [ask(one, kind_of("add"), "quick", {"numbers": [n]}) for n, one in enumerate((maker, *others))]
        assert [ahead_of(task) for task in (quick[0], long[0], long[1])] == [0, 4, 5]
    for task in (*quick, *long):
        assert settled(task, *long, *quick).state == "done"
    assert [task for task, _ in running] == [task.pk for task in (*quick, *long)]
    assert max(long for _, long in running) == 1


def test_what_was_pressed_by_hand_is_never_dropped(pool, maker):
    """Nobody asks about it until it is done."""
    task = asked(maker, "add", numbers=[2], seconds=1.0)
    until = time.monotonic() + 60
    while Task.objects.get(pk=task.pk).open and time.monotonic() < until:
        time.sleep(0.1)
    assert Task.objects.get(pk=task.pk).state == "done"


def test_a_child_that_is_killed_is_replaced_and_its_task_begun_again(pool, maker):
    task = asked(maker, "add", numbers=[1], seconds=0.5)
    until = time.monotonic() + 20
    while not (working := [w for w in list(pool._workers) if w.task]) and time.monotonic() < until:
        time.sleep(0.02)
    os.kill(working[0].process.pid, signal.SIGKILL)
    task = settled(task)
    assert (task.state, task.tries) == ("done", 2)


def test_what_a_server_left_behind_is_begun_again_whatever_the_clock_says(known, maker):
    left = asked(maker, "add", numbers=[4])
    often = asked(maker, "add", about="often", numbers=[5])
    future = "2099-01-01T00:00:00Z"
    Task.objects.filter(pk=left.pk).update(state="running", taken_by="another", tries=1, beat=future)
    Task.objects.filter(pk=often.pk).update(state="running", taken_by="another", tries=3, beat=None)
    RUNNING.pool = Pool(1)
    RUNNING.pool.start()
    try:
        assert settled(left).state == "done"
        assert settled(often).state == "failed"
    finally:
        RUNNING.pool.stop()
        RUNNING.pool = None


def test_what_an_earlier_run_of_the_server_computed_is_neither_taken_nor_kept_for_ever(pool, maker, monkeypatch):
    """It may be of an older release, or a drawing that nobody fetched."""
    old = settled(asked(maker, "add", numbers=[1]))
    Task.objects.filter(pk=old.pk).update(taken_by="another")
    new = settled(asked(maker, "add", numbers=[1]))
    assert new != old
    pool._wanted.clear()
    pool._keep_ended()
    monkeypatch.setattr("tasks.pool.KEPT_SECONDS", 0.0)
    pool.wake()
    until = time.monotonic() + 10
    while Task.objects.exists() and time.monotonic() < until:
        time.sleep(0.05)
    assert not Task.objects.exists()


def test_health_says_when_no_child_is_ready(known, client, monkeypatch):
    monkeypatch.setattr(RUNNING, "pool", Pool(0))
    assert get(client, "/health").json()["tasks"] == "not running"
    RUNNING.pool.start()
    assert (get(client, "/health").status_code, get(client, "/health").json()["tasks"]) == (503, "no child is ready")
    RUNNING.pool.stop()


def test_children_end_with_the_pool(known, maker):
    RUNNING.pool = pool = Pool(1)
    pool.start()
    settled(asked(maker, "add", numbers=[1]))
    [child] = [worker.process for worker in pool._workers]
    pool.stop()
    RUNNING.pool = None
    assert child.poll() is not None


@pytest.fixture
def all_heavy(monkeypatch):
    """Everything counts as long."""
    monkeypatch.setattr("designs.heavy.QUICK_SECONDS", -1.0)


def waited(client, answer):
    """What a page gets in the end."""
    assert answer.status_code == 202, answer.content
    task = answer.json()
    until = time.monotonic() + 60
    while task["state"] in ("waiting", "running") and time.monotonic() < until:
        time.sleep(0.1)
        task = get(client, f"/tasks/{task['id']}").json()
    assert task["state"] == "done", task
    return get(client, f"/tasks/{task['id']}/answer")


def test_a_proof_beside_the_server_is_the_same_as_one_in_the_request(pool, wren, tray, all_heavy, monkeypatch):
    path = f"/designs/{tray['id']}/proof"
    waited(wren, get(wren, path))
    beside = get(wren, path)
    assert beside.status_code == 200
    monkeypatch.undo()
    RUNNING.pool, kept = None, RUNNING.pool
    assert beside.json() == get(wren, path).json()
    RUNNING.pool = kept


def test_files_and_checks_beside_the_server(pool, wren, tray, all_heavy):
    made = waited(wren, post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"})).json()
    assert get(wren, f"/designs/{tray['id']}/exports").json() == made
    data = get(wren, f"/exports/{made[0]['id']}/file").content
    from django.core.files.uploadedfile import SimpleUploadedFile

    report = waited(wren, wren.post("/api/check", {"file": SimpleUploadedFile("tray.svg", data)})).json()
    assert (report["name"], report["sound"]) == ("tray.svg", True)
    assert not Task.objects.filter(kind="check").exists()  # a drawing from elsewhere is not kept


def test_a_task_is_its_makers_own(pool, wren, tray, sign_in, all_heavy):
    task = get(wren, f"/designs/{tray['id']}/proof").json()
    heron = sign_in("Heron")
    assert get(heron, f"/tasks/{task['id']}").status_code == 404
    assert heron.delete(f"/api/tasks/{task['id']}").status_code == 404
    assert get(heron, "/tasks").json() == []
    assert [row["id"] for row in get(wren, "/tasks").json()] == [task["id"]]
    assert get(wren, f"/tasks/{task['id']}/answer").json()["why"].startswith("There is no answer: it is not done")
    assert wren.delete(f"/api/tasks/{task['id']}").status_code == 204
    assert get(wren, f"/tasks/{task['id']}").json()["state"] == "cancelled"
