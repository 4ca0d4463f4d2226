"""The stock rack and the machines: what a workshop has, shared by its makers."""

from __future__ import annotations

from django.db import models
from lean_notch.basis import stock_from_json


class Stock(models.Model):
    """A kind of board at hand. `document` is the core's stock document: readings, sheets, what it is sold as."""

    name = models.CharField(max_length=120)
    document = models.JSONField()
    measured = models.DateTimeField(auto_now=True)

    @property
    def thickness(self) -> float:
        return stock_from_json(self.document).readings.mean


class Machine(models.Model):
    """A laser or router. `document` is the core's machine document: bed and kerf."""

    name = models.CharField(max_length=120)
    document = models.JSONField()


class Profile(models.Model):
    """A hand-over profile: what one receiver of files wants. `document` is the core's profile document."""

    name = models.CharField(max_length=80)
    document = models.JSONField()
