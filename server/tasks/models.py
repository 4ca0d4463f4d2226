"""Heavy work that was asked for. The row is the truth: what a process knows besides may be lost with it."""

from __future__ import annotations

from django.conf import settings
from django.db import models

OPEN = ("waiting", "running")
"""States in which a task is still to be done; it ends as done, failed or cancelled."""


class Task(models.Model):
    """A result under way. `kind` says what is computed, from `given` and `data`; `key` is the hash of both, `about` what it is for.
    What is quick comes before what is long.

    `taken_by` is the pool that runs it, `tries` how often one began; `so_far` is what can be told before it has ended. What came
    of it is in the store of results under `kind` and `key`, or in `answer`; a reason why nothing did in `problem`.
    """

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="tasks")
    kind = models.CharField(max_length=20)
    about = models.CharField(max_length=40)
    key = models.CharField(max_length=64, db_index=True)
    given = models.JSONField()
    data = models.BinaryField(default=b"")
    lane = models.CharField(max_length=5, default="quick")
    state = models.CharField(max_length=10, default="waiting", db_index=True)
    taken_by = models.CharField(max_length=32, default="")
    tries = models.PositiveSmallIntegerField(default=0)
    progress = models.FloatField(default=0.0)
    stage = models.CharField(max_length=80, default="")
    so_far = models.JSONField(null=True)
    asked = models.DateTimeField(auto_now_add=True)
    beat = models.DateTimeField(null=True)
    answer = models.BinaryField(default=b"")
    problem = models.JSONField(null=True)

    @property
    def open(self) -> bool:
        return self.state in OPEN
