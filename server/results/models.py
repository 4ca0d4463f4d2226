"""Answers that took long, kept by what made them."""

from __future__ import annotations

from datetime import date

from django.db import models


class Result(models.Model):
    """What a `rule` of a `release` gives for `inputs` (their SHA-256). Its bytes lie in the data folder, under their own SHA-256."""

    rule = models.CharField(max_length=20)
    release = models.CharField(max_length=80)
    inputs = models.CharField(max_length=64)
    sha256 = models.CharField(max_length=64, db_index=True)
    size = models.PositiveIntegerField()
    asked = models.DateField(default=date.today, db_index=True)
    """When somebody asked for it last."""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["rule", "release", "inputs"], name="one_result_of_the_same")]
