"""Seeds the demo: Reedmere Field Room's rack, machines and jobs, through the same actions as the page uses."""

from __future__ import annotations

from typing import Any

from designs.actions import edit_design, start_design
from designs.models import Design
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand
from workshop.actions import put_machine, put_profile, put_stock
from workshop.models import Machine, Profile, Stock

from demo.maker import DEMO_NAME, DEMO_PASSWORD

STOCKS: list[dict[str, Any]] = [
    {
        "name": "Poplar ply", "kind": "plywood", "nominal": 3, "readings": [3.02, 3.05, 3.06, 3.07, 3.10],
        "sheet_width": 600, "sheet_height": 400, "sheets": 6,
    },
    {
        "name": "Birch ply", "kind": "plywood", "nominal": 12, "readings": [11.82, 11.90, 11.86, 11.93],
        "sheet_width": 1250, "sheet_height": 1250, "sheets": 2,
    },
]  # fmt: skip
MACHINES: list[dict[str, Any]] = [
    {
        "name": "Shed laser", "kind": "laser", "bed_width": 600, "bed_height": 400, "kerf": 0.14,
        "speeds": {"cut": 12, "score": 90, "engrave": 350, "pocket": 120, "travel": 250, "acceleration": 1800},
    },
    {"name": "Barn router", "kind": "router", "bed_width": 1250, "bed_height": 1250, "kerf": 6.0},
]  # fmt: skip
PROFILES: list[dict[str, Any]] = [
    {"name": "Plain"},
    {"name": "Shed laser", "labels": True, "engrave": "hatch", "hatch_mm": 0.15},
    {"name": "Outside cutter", "split": "part", "reference_square": True},
]

DRAWN: dict[str, Any] = {
    "front": {
        "marks": [
            {
                "id": "name", "kind": "text", "operation": "engrave", "text": "VIALS", "font": "slab", "align": "middle",
                "lengths": {"x": "outside_width/2", "y": "28", "height": "16"},
            },
            {
                "id": "owner", "kind": "text", "operation": "score", "text": "Reedmere Field Room",
                "font": "single stroke", "align": "middle", "lengths": {"x": "outside_width/2", "y": "16", "height": "6"},
            },
        ]
    },
    "base": {
        "marks": [
            {
                "id": "drains", "kind": "circle", "operation": "cut", "columns": 5, "rows": 3,
                "lengths": {
                    "x": "outside_width/2 - 50", "y": "outside_depth/2 - 20", "diameter": "6", "dx": "25", "dy": "20",
                },
            }
        ]
    },
}  # fmt: skip


class Command(BaseCommand):
    help = "Adds what the demo needs and is not there yet; changes nothing that a maker has done."

    def handle(self, *args: object, **options: object) -> None:  # noqa: ARG002
        maker, new = User.objects.get_or_create(username=DEMO_NAME)
        if new:
            maker.set_password(DEMO_PASSWORD)
            maker.save()
        for stock in STOCKS:
            if not Stock.objects.filter(name=stock["name"]).exists():
                put_stock(stock)
        for profile in PROFILES:
            if not Profile.objects.filter(name=profile["name"]).exists():
                put_profile(profile)
        for machine in MACHINES:
            if not Machine.objects.filter(name=machine["name"]).exists():
                put_machine(machine)
        if not Design.objects.filter(owner=maker).exists():
            carrier = start_design(
                maker, "open-tray", "Vial carrier", {"width": "150", "depth": "100", "height": "60", "sizes": "inside"},
                "mm", Stock.objects.get(name="Poplar ply"), Machine.objects.get(name="Shed laser"),
            )  # fmt: skip
            edit_design(carrier.id, {"parts": DRAWN}, "mm", carrier.moves)
