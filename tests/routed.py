"""Recipes on a router with a tool of any size, in a board of any thickness."""

from __future__ import annotations

from dataclasses import replace

from lean_notch.basis import Basis, Readings
from lean_notch.job import Job
from lean_notch.recipes import RECIPES
from prints import ROUTER


def routed(thick, tool, clearance=0.1):
    stock = replace(
        ROUTER.stock,
        readings=Readings((thick - 0.05, thick, thick + 0.04)),
        nominal=thick,
        sheet_width=2500,
        sheet_height=2500,
    )
    machine = replace(ROUTER.machine, bed_width=2500, bed_height=2500, kerf=tool, tools=(), tool="")
    return replace(ROUTER, stock=stock, machine=machine, clearance=clearance)


def job_of(recipe, thick, tool, relief="auto"):
    board = routed(thick, tool)
    design = replace(RECIPES[recipe].design(recipe, {}), relief=relief)
    return Job(design, Basis(tuple((one.id, board) for one in design.boards)))
