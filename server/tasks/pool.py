"""A few child processes beside the server, and who gets them. Task rows are the truth, taken by compare-and-set.

No clock but the monotonic one decides anything: one that is set back ends nothing and brings nothing back.
"""

from __future__ import annotations

import logging
import os
import secrets
import threading
import time
from contextlib import suppress
from multiprocessing.connection import Connection, wait

from django.db import DatabaseError, connection, transaction
from django.utils import timezone
from results import store

from tasks.child import NO_MEMORY
from tasks.kinds import Kind, kind_of
from tasks.models import OPEN, Task
from tasks.worker import Said, Worker

MOST_TRIES = 3
BEAT_SECONDS = 0.5
"""Between two heartbeats, with which progress is written."""

TICK_SECONDS = 0.25
IDLE_SECONDS = 2.0
"""How long to sleep with nothing to do: who asks for something wakes the pool."""

KEPT_SECONDS = 3600.0
"""How long an answer waits to be fetched again."""

log = logging.getLogger("lean_notch.tasks")

Problem = dict[str, str]


class Pool:
    """Runs tasks until it is stopped. Its thread alone talks to the children; others only say what they want."""

    def __init__(self, count: int = 2) -> None:
        self.name, self.count = secrets.token_hex(8), count
        self._wanted: dict[int, float] = {}
        self._cancelled: set[int] = set()
        self._lock = threading.Lock()
        self._workers: list[Worker] = []
        self._stopping = False
        self._idle, self._beaten = False, 0.0
        self._heard_calls, self._call = os.pipe()
        os.set_blocking(self._call, False)
        self._thread = threading.Thread(target=self._run, name="tasks", daemon=True)

    def start(self) -> None:
        self._thread.start()

    def stop(self) -> None:
        """Ends the children; what they were at is waiting again when the next pool starts."""
        self._stopping = True
        self.wake()
        self._thread.join(10)

    @property
    def alive(self) -> bool:
        return self._thread.is_alive()

    @property
    def ready(self) -> bool:
        """Whether a child is there that could compute, or does."""
        return self.alive and any(worker.ready for worker in list(self._workers))

    def wake(self) -> None:
        with suppress(BlockingIOError):  # it is full of calls already
            os.write(self._call, b".")

    def want(self, task: int) -> None:
        """Somebody waits for that task still."""
        with self._lock:
            self._wanted[task] = time.monotonic()

    def cancel(self, task: int) -> None:
        with self._lock:
            self._cancelled.add(task)
        self.wake()

    def _keep_ended(self) -> None:
        """What had ended before this pool began is kept for as long as what ends from now on."""
        for task in Task.objects.exclude(state__in=OPEN).values_list("pk", flat=True):
            self.want(task)

    def _run(self) -> None:
        begun = False
        try:
            while not self._stopping:
                try:
                    if not begun:
                        self._keep_ended()
                        begun = True
                    self._tick()
                except DatabaseError as error:
                    log.error("tasks cannot be kept", exc_info=error)
                    time.sleep(1)
                except Exception as error:  # whatever it was, the others' tasks go on
                    log.error("the pool failed", exc_info=error)
                    self._end_all()
                    time.sleep(1)
        finally:
            self._end_all()
            connection.close()

    def _tick(self) -> None:
        while len(self._workers) < self.count:
            self._workers.append(Worker())
        pipes: list[Connection | int] = [worker.pipe for worker in self._workers]
        if self._heard_calls in wait([*pipes, self._heard_calls], IDLE_SECONDS if self._idle else TICK_SECONDS):
            os.read(self._heard_calls, 65_536)
        for worker in list(self._workers):
            self._hear(worker)
        for worker in list(self._workers):
            self._watch(worker)
        self._take_back()
        self._hand_out()
        if time.monotonic() - self._beaten > BEAT_SECONDS:
            self._beaten = time.monotonic()
            self._beat()

    def _hear(self, worker: Worker) -> None:
        try:
            while worker in self._workers and (said := worker.listen()):
                if worker.task is not None:
                    self._heard(worker, worker.task, said)
        except (EOFError, OSError, ValueError) as error:
            self._lose(worker, "died" if isinstance(error, EOFError | OSError) else "nonsense")

    def _heard(self, worker: Worker, task: int, said: Said) -> None:
        words = said.words
        if not said.ends:
            share, stage = words.get("progress"), words.get("stage")
            if not isinstance(share, int | float) or not isinstance(stage, str):
                raise ValueError("no progress")
            worker.progress, worker.stage = min(max(float(share), 0.0), 1.0), stage[:80]
            worker.so_far = words.get("so_far", worker.so_far)
            return
        kind = worker.kind
        answer = worker.answer() if "done" in words else b""
        worker.done()
        if words.get("last"):
            self._forget(worker)
        if "done" in words and kind:
            self._keep(task, kind, answer)
        elif "problem" in words:
            self._end(task, "failed", problem=words["problem"])
        else:
            log.error("a task failed", extra={"told": {"task": task, "traceback": words.get("failed")}})
            self._end(task, "failed", problem=_FAILED)

    def _keep(self, task: int, kind: Kind, answer: bytes) -> None:
        """What fails here is this task's alone."""
        mine = Task.objects.filter(pk=task, state="running", taken_by=self.name)
        try:
            row = mine.first()
            if row and kind.stored:
                store.keep(kind.name, row.key, answer)
                answer = b""
            write = kind.keep(row, answer) if row else None
            with transaction.atomic():
                if write and mine.exists():
                    self._end(task, "done", answer=write(), progress=1.0)
        except DatabaseError:
            raise  # it is begun again once something can be written
        except Exception as error:
            log.error("an answer could not be kept", extra={"told": {"task": task}}, exc_info=error)
            self._end(task, "failed", problem=_FAILED)

    def _watch(self, worker: Worker) -> None:
        if worker.process.poll() is not None:
            self._lose(worker, "died")
            return
        over = worker.over
        if over:
            self._lose(worker, over)

    def _lose(self, worker: Worker, why: str) -> None:
        """Ends a child that cannot go on, and says why of its task."""
        task, title = worker.task, worker.kind.title if worker.kind else ""
        log.warning("a child was ended", extra={"told": {"task": task, "because": why}})
        self._forget(worker)
        if task is None:
            return
        if why == "died":
            self._again(task)
        else:
            self._end(task, "failed", problem=_problem(why, title))

    def _again(self, task: int) -> None:
        """Back to those that wait, if it was not begun too often."""
        mine = Task.objects.filter(pk=task, state="running")
        if not mine.filter(tries__lt=MOST_TRIES).update(
            state="waiting", taken_by="", progress=0.0, stage="", so_far=None
        ):
            mine.update(state="failed", problem=_problem("died", ""))

    def _take_back(self) -> None:
        """What is cancelled or not wanted any more, and what runs with no child of this pool: another one left it behind."""
        with self._lock:
            cancelled, self._cancelled = self._cancelled, set()
        now = time.monotonic()
        mine = {worker.task for worker in self._workers}
        for task in Task.objects.filter(state="running").values_list("pk", flat=True):
            if task not in mine:
                self._again(task)
        open_tasks = list(Task.objects.filter(state__in=OPEN).values_list("pk", "kind"))
        self._idle = not open_tasks and all(worker.free for worker in self._workers)
        for task, name in open_tasks:
            with self._lock:
                seen = self._wanted.setdefault(task, now)
            kind = kind_of(name)
            if task in cancelled:
                self._end(task, "cancelled")
            elif kind and kind.patience is not None and now - seen > kind.patience:
                self._end(task, "cancelled", problem=_DROPPED)
        for worker in list(self._workers):
            if worker.task is not None and not Task.objects.filter(pk=worker.task, state="running").exists():
                self._forget(worker)

    def _hand_out(self) -> None:
        """The oldest of what is quick, then the oldest of what is long, for which one child is never taken; of each lane one at a time
        for each maker."""
        for worker in self._workers:
            if not worker.free:
                continue
            row = self._next("quick")
            if row is None and Task.objects.filter(state="running", lane="long").count() < max(self.count - 1, 1):
                row = self._next("long")
            if row is None:
                return
            kind = kind_of(row.kind)
            if kind is None:
                self._end(row.pk, "failed", problem=_FAILED)
                continue
            taken = Task.objects.filter(pk=row.pk, state="waiting").update(
                state="running", taken_by=self.name, tries=row.tries + 1, beat=timezone.now()
            )
            if taken:
                try:
                    worker.give(row.pk, kind, row.given, bytes(row.data))
                except OSError:
                    self._lose(worker, "died")
                    return

    def _next(self, lane: str) -> Task | None:
        running = Task.objects.filter(state="running", lane=lane).values("owner")
        return Task.objects.filter(state="waiting", lane=lane).exclude(owner__in=running).order_by("pk").first()

    def _beat(self) -> None:
        for worker in self._workers:
            if worker.task is not None:
                mine = Task.objects.filter(pk=worker.task, state="running", taken_by=self.name)
                mine.update(progress=worker.progress, stage=worker.stage, so_far=worker.so_far, beat=timezone.now())
        with self._lock:
            now = time.monotonic()
            old = [task for task, seen in self._wanted.items() if now - seen > KEPT_SECONDS]
            for task in old:
                del self._wanted[task]
        if old:
            Task.objects.filter(pk__in=old).exclude(state__in=OPEN).delete()

    def _end(self, task: int, state: str, **values: object) -> None:
        Task.objects.filter(pk=task, state__in=OPEN).update(state=state, data=b"", given={}, so_far=None, **values)

    def _forget(self, worker: Worker) -> None:
        worker.end()
        self._workers.remove(worker)

    def _end_all(self) -> None:
        for worker in list(self._workers):
            self._forget(worker)


def _problem(why: str, title: str) -> Problem:
    what = title or "This"
    if why == "memory":
        return NO_MEMORY
    if why == "time":
        return {
            "code": "too-much-time", "why": f"{what} took longer than one task may.",
            "fix": "Do less at once: fewer copies, fewer parts, or part of the file.", "field": "",
        }  # fmt: skip
    return _FAILED


_DROPPED: Problem = {
    "code": "dropped", "why": "Nobody waited for this any more.", "fix": "Ask for it again.", "field": "",
}  # fmt: skip
_FAILED: Problem = {
    "code": "failed", "why": "The server failed at this.",
    "fix": "Try again; your work so far is saved. If it fails again, tell who runs this server.", "field": "",
}  # fmt: skip
