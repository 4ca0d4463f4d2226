"""One action a change of the rack or the machines. The core decides what a valid stock or machine is."""

from __future__ import annotations

from typing import Any

from lean_notch.basis import machine_from_json, machine_to_json, stock_from_json, stock_to_json
from lean_notch.cutting import profile_from_json, profile_to_json

from .models import Machine, Profile, Stock


def put_stock(document: dict[str, Any], stock: Stock | None = None) -> Stock:
    """A new stock, or `stock` measured anew. Raises NotchError at the field."""
    checked = stock_from_json(document)
    stock = stock or Stock()
    stock.name, stock.document = checked.name, stock_to_json(checked)
    stock.save()
    return stock


def put_machine(document: dict[str, Any], machine: Machine | None = None) -> Machine:
    """A new machine, or `machine` changed. Raises NotchError at the field."""
    checked = machine_from_json(document)
    machine = machine or Machine()
    machine.name, machine.document = checked.name, machine_to_json(checked)
    machine.save()
    return machine


def put_profile(document: dict[str, Any], profile: Profile | None = None) -> Profile:
    """A new hand-over profile, or `profile` changed. Raises NotchError at the field."""
    checked = profile_from_json(document)
    profile = profile or Profile()
    profile.name, profile.document = checked.name, profile_to_json(checked)
    profile.save()
    return profile
