"""What a workshop has, shared by its makers: boards, machines, what was measured of them, and how files are handed over."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from lean_notch.basis import Readings, stock_from_json


class Stock(models.Model):
    """A kind of board at hand. `document` is the core's stock document; its readings are the newest measurement."""

    name = models.CharField(max_length=120)
    document = models.JSONField()
    removed = models.DateTimeField(null=True)

    @property
    def thickness(self) -> float:
        return stock_from_json(self.document).readings.mean

    @property
    def readings(self) -> Readings:
        return stock_from_json(self.document).readings


class KindLimits(models.Model):
    """The least that this workshop cuts of boards of one kind, and their density: the core's limits document."""

    kind = models.CharField(max_length=40, unique=True)
    document = models.JSONField()


class Measurement(models.Model):
    """A board measured once: kept for good, since jobs were computed from it. `readings` are in mm."""

    stock = models.ForeignKey(Stock, on_delete=models.CASCADE, related_name="measurements")
    readings = models.JSONField()
    taken = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")


class Machine(models.Model):
    """A laser or router. `document` is the core's machine document: bed, kerf, speeds, tools, what to keep clear of."""

    name = models.CharField(max_length=120)
    document = models.JSONField()
    removed = models.DateTimeField(null=True)


class NotebookEntry(models.Model):
    """What a test piece told. `document` holds its sizes, the readings or answers as given in mm, and what follows."""

    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="entries")
    stock = models.ForeignKey(Stock, on_delete=models.CASCADE, related_name="entries")
    way = models.CharField(max_length=10)
    document = models.JSONField()
    note = models.CharField(max_length=500, blank=True)
    made = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    valid = models.BooleanField(default=True)


class CutSetting(models.Model):
    """What a machine was set to on one day. `document` is the core's setting document."""

    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="settings")
    document = models.JSONField()


class Profile(models.Model):
    """A hand-over profile: what one receiver of files wants. `document` is the core's profile document; `machine` is the
    workshop's own machine that it is for."""

    name = models.CharField(max_length=80)
    machine = models.ForeignKey(Machine, null=True, on_delete=models.SET_NULL, related_name="profiles")
    document = models.JSONField()
