"""Seeds the demo: Reedmere Field Room's rack, machines and jobs, through the same actions as the page uses."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from accounts.demo_maker import DEMO_NAME, DEMO_PASSWORD
from designs.actions import edit_design, start_design
from designs.heavy import proof
from designs.models import Design
from django.contrib.auth.models import User
from django.core.management.base import BaseCommand
from django.utils import timezone
from lean_notch.edits import Edit
from lean_notch.recipes import RECIPES
from workshop.actions import keep_entry, piece_of, put_machine, put_profile, put_setting, put_stock
from workshop.models import CutSetting, Machine, NotebookEntry, Profile, Stock

STOCKS: list[dict[str, Any]] = [
    {
        "name": "Poplar ply", "kind": "plywood", "nominal": 3, "readings": [3.02, 3.05, 3.06, 3.07, 3.10],
        "sheet_width": 600, "sheet_height": 400, "sheets": 6, "price": 3.2, "direction": "along the width",
        "note": "Flat if it lies under the acrylic. Tape over the face that shows.",
        "other_sheets": [{"width": 400, "height": 300, "count": 3}],
        "offcuts": [
            {"name": "from the bird boxes", "outline": [[0, 0], [380, 0], [380, 90], [140, 90], [140, 260], [0, 260]]},
        ],
    },
    {
        "name": "Birch ply", "kind": "plywood", "nominal": 12, "readings": [11.82, 11.90, 11.86, 11.93],
        "sheet_width": 1250, "sheet_height": 1250, "sheets": 2, "price": 41, "direction": "along the height",
    },
    {
        "name": "Clear acrylic", "kind": "acrylic", "nominal": 4, "readings": [3.90, 3.92, 3.91, 3.95, 3.92],
        "sheet_width": 600, "sheet_height": 300, "sheets": 2, "price": 9.5,
        "note": "Leave the film on. Cracks where it is pressed.",
    },
    {
        "name": "Single-wall board", "kind": "corrugated board", "nominal": 5, "readings": [4.94, 5.02, 5.06, 4.97, 5.01],
        "sheet_width": 580, "sheet_height": 390, "sheets": 20, "price": 0.6, "direction": "along the width",
        "note": "Air assist low: the glue catches fire.",
    },
    {
        "name": "Double-wall board", "kind": "corrugated board", "nominal": 7, "readings": [7.12, 7.24, 7.2, 7.18, 7.26],
        "sheet_width": 580, "sheet_height": 390, "price": 0.9, "direction": "along the width",
    },
    {
        "name": "Grey sign sheet", "kind": "plastic of unknown kind", "nominal": 5, "readings": [4.91, 4.94, 4.93],
        "sheet_width": 500, "sheet_height": 300, "sheets": 1, "note": "From the old trail signs. Nobody knows what it is.",
    },
]  # fmt: skip
POPLAR_LAST_YEAR = [3.10, 3.12, 3.15, 3.11]
MACHINES: list[dict[str, Any]] = [
    {
        "name": "Shed laser", "kind": "laser", "bed_width": 600, "bed_height": 400, "kerf": 0.14,
        "speeds": {"cut": 12, "score": 90, "engrave": 350, "pocket": 120, "travel": 250, "acceleration": 1800},
        "origin": "upper left", "y_axis": "down",
    },
    {
        "name": "Barn router", "kind": "router", "bed_width": 1250, "bed_height": 1250, "kerf": 6.0,
        "tools": [
            {"name": "6 mm two-flute", "diameter": 6, "flute_length": 22, "flutes": 2},
            {"name": "3 mm one-flute", "diameter": 3, "flute_length": 12, "flutes": 1},
        ],
        "tool": "6 mm two-flute",
        "keep_outs": [
            {"name": "front clamp", "x": 560, "y": 0, "width": 130, "height": 30},
            {"name": "rear clamp", "x": 560, "y": 1220, "width": 130, "height": 30},
        ],
    },
]  # fmt: skip
SETTINGS: dict[str, list[dict[str, Any]]] = {
    "Shed laser": [
        {"stock": "Poplar ply", "kind": "plywood", "thickness": 3.06, "power": 62, "speed": 12, "date": "2026-11-02"},
        {
            "stock": "Single-wall board", "kind": "corrugated board", "thickness": 5, "power": 34, "speed": 30,
            "date": "2026-10-18",
        },
        {
            "stock": "Poplar ply", "kind": "plywood", "thickness": 3.12, "power": 62, "speed": 16,
            "date": "2025-09-14", "result": "not through",
        },
        {
            "stock": "Poplar ply", "kind": "plywood", "thickness": 3.06, "operation": "engrave", "power": 18,
            "speed": 350, "date": "2026-11-02",
        },
    ],
    "Barn router": [
        {
            "stock": "Birch ply", "kind": "plywood", "thickness": 11.9, "tool": "6 mm two-flute", "spindle": 18000,
            "feed": 1800, "depth": 6, "passes": 2, "ramp": 10, "date": "2026-08-30",
        },
    ],
}  # fmt: skip
NOTEBOOK: list[dict[str, Any]] = [
    {"way": "plug", "days": 400, "told": {"hole": [20.16, 20.15, 20.16], "plug": [19.85, 19.86, 19.84]}, "note": "old lens"},
    {"way": "slats", "days": 22, "told": {"row": [98.6, 98.61, 98.59, 98.6, 98.6]}, "note": "after cleaning the lens"},
    {
        "way": "comb", "days": 22, "settings": {"first": "-0.12", "pairs": "9"},
        "told": {"answers": ["needs a mallet"] * 3 + ["holds"] * 2 + ["slides"] * 3 + ["falls apart"]},
    },
]  # fmt: skip
PROFILES: list[dict[str, Any]] = [
    {"name": "Plain"},
    {"name": "Barn router", "format": "dxf", "origin": "lower left"},
    {"name": "Shed laser", "labels": True, "engrave": "hatch", "hatch_mm": 0.15},
    {"name": "Outside cutter", "format": "dxf", "split": "part", "reference_square": True},
]

DRAWN: dict[str, list[dict[str, Any]]] = {
    "front": [
        {
            "kind": "shape", "id": "name", "does": "mark", "operation": "engrave", "x": "outside_width/2", "y": "28",
            "shape": {"kind": "lettering", "text": "VIALS", "font": "slab", "align": "middle", "height": "16"},
        },
        {
            "kind": "shape", "id": "owner", "does": "mark", "operation": "score", "x": "outside_width/2", "y": "16",
            "shape": {
                "kind": "lettering", "text": "Reedmere Field Room", "font": "single stroke", "align": "middle", "height": "6",
            },
        },
    ],
    "base": [
        {
            "kind": "shape", "id": "drains", "does": "cut", "x": "outside_width/2 - 50", "y": "outside_depth/2 - 20",
            "shape": {"kind": "disc", "diameter": "6"},
            "pattern": {"kind": "grid", "columns": 5, "rows": 3, "dx": "25", "dy": "20"},
        },
    ],
}  # fmt: skip


JOBS: list[dict[str, Any]] = [
    {
        "name": "Boot rack", "recipe": "rack", "stock": "Birch ply", "machine": "Barn router",
        "settings": {"width": "860", "depth": "300", "height": "240", "rail": "150", "uprights": "5", "overhang": "60"}, "edits": {},
    },
    {
        "name": "Dragonfly", "recipe": "crossed-figure", "stock": "Double-wall board", "machine": "Shed laser",
        "settings": {"figure": "dragonfly", "width": "240", "height": "52", "span": "260"}, "edits": {"layout/main/quarter_turns": False},
    },
    {
        "name": "Specimen viewer", "recipe": "framed-stand", "stock": "Poplar ply", "machine": "Shed laser",
        "settings": {"width": "120", "depth": "96", "height": "62", "insert": "40", "inserts": "3"},
        "edits": {"boards/inserts/title": "Clear inserts", "basis/inserts/stock": "Clear acrylic", "basis/inserts/clearance": "0.06"},
    },
    {
        "name": "Divided vial carrier", "recipe": "divided-case", "stock": "Poplar ply", "machine": "Shed laser",
        "settings": {"columns": "(2*25 + 2) 1fr 1fr 40", "rows": "45 1fr", "width": "200", "depth": "120", "height": "50", "without": "c2r1"},
        "edits": {},
    },
    {
        "name": "Seed tray", "recipe": "open-tray", "stock": "Birch ply", "machine": "Barn router",
        "settings": {"width": "420", "depth": "300", "height": "90", "sizes": "outside"}, "edits": {},
    },
    {
        "name": "Slide drawer", "recipe": "open-tray", "stock": "Single-wall board", "machine": "Shed laser",
        "settings": {"width": "180", "depth": "80", "height": "45", "sizes": "inside"}, "edits": {},
    },
    {
        "name": "Trail sign", "recipe": "", "stock": "Poplar ply", "machine": "Shed laser", "settings": {},
        "edits": {
            "parts/sign": {
                "title": "Sign", "board": "main", "loose": 1,
                "steps": [
                    {"kind": "shape", "id": "blank", "does": "add", "shape": {"kind": "rectangle", "width": "300", "height": "90"}},
                    {
                        "kind": "shape", "id": "name", "does": "cut", "x": "150", "y": "32",
                        "shape": {"kind": "lettering", "text": "POND PATH", "font": "stencil", "align": "middle", "height": "32"},
                    },
                    {"kind": "shape", "id": "left", "does": "cut", "x": "14", "y": "45", "shape": {"kind": "disc", "diameter": "6"}},
                    {"kind": "shape", "id": "right", "does": "cut", "x": "286", "y": "45", "shape": {"kind": "disc", "diameter": "6"}},
                ],
            },
        },
    },
    {
        "name": "Viewer side", "recipe": "", "stock": "Poplar ply", "machine": "Shed laser", "settings": {},
        "edits": {
            **{
                f"dimensions/{name}": {"title": title, "length": length, "chosen": True}
                for name, title, length in (
                    ("width", "width", "180"), ("height", "height", "96"), ("slide", "glass slide", "76"), ("lamp", "clip lamp", "36.8"),
                    ("gap", "gap round the slide", "0.2"),
                )
            },
            "parts/side": {
                "title": "Side panel", "board": "main", "loose": 2,
                "steps": [
                    {"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": "width", "height": "height"}, "title": "panel"},
                    {"kind": "corner", "id": "top", "corners": ["blank.top-left", "blank.top-right"], "size": "12", "title": "top corners"},
                    {
                        "kind": "shape", "id": "lamp", "does": "cut", "x": "45", "y": "59.5", "title": "lamp",
                        "shape": {"kind": "disc", "diameter": "lamp + 2*1"},
                    },
                    {
                        "kind": "shape", "id": "handle", "does": "cut", "from_x": "centre:lamp", "anchor": "top", "title": "lamp's handle",
                        "from_y": "centre:lamp", "shape": {"kind": "rectangle", "width": "16", "height": "44", "radius": "8"},
                    },
                    {
                        "kind": "shape", "id": "holes", "does": "cut", "y": "12", "from_y": "edge:blank.top", "anchor": "centre",
                        "shape": {"kind": "disc", "diameter": "6"}, "pattern": {"kind": "spread", "count": 7, "by": "centres"},
                    },
                    {
                        "kind": "shape", "id": "slide", "does": "mark", "operation": "pocket", "depth": "1.1", "title": "glass slide",
                        "x": "width/2 - 6", "y": "14", "shape": {"kind": "rectangle", "width": "slide + 2*gap", "height": "26 + 2*gap"},
                    },
                    {
                        "kind": "shape", "id": "pond", "does": "cut", "from_x": "centre:slide", "anchor": "centre", "y": "25",
                        "from_y": "side:slide.top", "shape": {"kind": "lettering", "text": "POND", "font": "stencil", "height": "17.5"},
                    },
                ],
            },
        },
    },
]  # fmt: skip


class Command(BaseCommand):
    help = "Adds what the demo needs and is not there yet; changes nothing that a maker has done."

    def handle(self, *args: object, **options: object) -> None:  # noqa: ARG002
        maker, new = User.objects.get_or_create(username=DEMO_NAME)
        if new:
            maker.set_password(DEMO_PASSWORD)
            maker.save()
        for stock in STOCKS:
            if not Stock.objects.filter(name=stock["name"]).exists():
                _measured(stock, maker)
        for machine in MACHINES:
            if not Machine.objects.filter(name=machine["name"]).exists():
                put_machine(machine)
        for profile in PROFILES:
            if not Profile.objects.filter(name=profile["name"]).exists():
                put_profile(profile, machine=Machine.objects.filter(name=profile["name"]).first())
        _written(maker)
        if not Design.objects.filter(owner=maker).exists():
            carrier = start_design(
                maker, RECIPES["open-tray"], "Vial carrier", {"width": "150", "depth": "100", "height": "60", "sizes": "inside"},
                "mm", Stock.objects.get(name="Poplar ply").pk, Machine.objects.get(name="Shed laser").pk,
            )  # fmt: skip
            steps = [
                Edit("put", f"parts/{part}/steps/{step['id']}", step) for part, some in DRAWN.items() for step in some
            ]
            edit_design(carrier.pk, steps, "mm", carrier.moves, by=maker)
            for job in JOBS:
                _start(maker, job)
            for design in Design.objects.filter(owner=maker).order_by("id"):
                proof(design, maker)
            Design.objects.get(pk=carrier.pk).save()  # the one last at hand


def _start(maker: User, job: dict[str, Any]) -> None:
    """A job of the demo, with the parts and steps that it has beside its recipe's."""
    stock, machine = Stock.objects.get(name=job["stock"]), Machine.objects.get(name=job["machine"])
    design = start_design(maker, RECIPES.get(job["recipe"]), job["name"], job["settings"], "mm", stock.pk, machine.pk)
    if job["edits"]:
        edit_design(
            design.pk,
            [Edit("put", path, _value(path, value)) for path, value in job["edits"].items()],
            "mm",
            design.moves,
            by=maker,
        )


def _value(path: str, value: Any) -> Any:
    """The workshop's number of a board that is named."""
    return Stock.objects.get(name=value).pk if path.endswith("/stock") else value


def _measured(stock: dict[str, Any], maker: User) -> None:
    """A board on the rack; the poplar was measured a year ago as well."""
    if stock["name"] != "Poplar ply":
        put_stock(stock, by=maker)
        return
    row = put_stock({**stock, "readings": POPLAR_LAST_YEAR}, by=maker)
    row.measurements.update(taken=timezone.now() - timedelta(days=400))
    put_stock(stock, row, maker)


def _written(maker: User) -> None:
    """The notebook and the settings, where nothing is in them yet."""
    if not CutSetting.objects.exists():
        for name, settings in SETTINGS.items():
            for setting in settings:
                put_setting(Machine.objects.get(name=name), {**setting, "by": maker.get_username()})
    if NotebookEntry.objects.exists():
        return
    stock, machine = Stock.objects.get(name="Poplar ply"), Machine.objects.get(name="Shed laser")
    for page in NOTEBOOK:
        job = piece_of(page["way"], page.get("settings", {}), "mm", stock, machine)
        entry = keep_entry(job, page["told"], stock, machine, maker, page.get("note", ""))
        entry.made -= timedelta(days=page["days"])
        entry.save()
