"""Two or three plain parts in space with a joint between them, and recipes on a basis: what tests of joints start from."""

from __future__ import annotations

from conftest import edited, make_basis
from lean_notch.basis import Basis
from lean_notch.design import design_from_json
from lean_notch.edits import Edit
from lean_notch.job import Job, compute
from lean_notch.recipes import RECIPES

FLAT = {"kind": "axes", "u": "+x", "v": "+y"}
UPRIGHT = {"kind": "axes", "u": "+x", "v": "+z"}


def panel(name, width, height, *steps, board="main"):
    blank = {"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": width, "height": height}}
    return {"id": name, "title": name.capitalize(), "board": board, "steps": [blank, *steps]}


def job(parts, poses, joints, basis=None, dimensions=()):
    """`poses` by part; `joints` are (id, first, edge, second, edge, how)."""
    document = {
        "lean_notch_design": 2, "name": "Joined", "dimensions": list(dimensions), "parts": parts,
        "placements": [{"id": name, "part": name, "pose": pose} for name, pose in poses.items()],
        "joints": [
            {"id": name, "title": name.capitalize(), "first": {"placement": a, "edge": at}, "second": {"placement": b, "edge": to}, "how": how}
            for name, a, at, b, to, how in joints
        ],
    }  # fmt: skip
    return Job(design_from_json(document), basis or make_basis(sheet=(900, 900)))


def corner(angle=90, how=None, basis=None):
    """Two edges of 100 that meet at an angle, on their outer faces."""
    against = {
        "kind": "against",
        "edge": "blank.bottom",
        "placement": "a",
        "other_edge": "blank.bottom",
        "angle": angle,
    }
    edges = ("a", "blank.bottom", "b", "blank.bottom")
    return job(
        [panel("a", 100, 40), panel("b", 100, 50)],
        {"a": FLAT, "b": against},
        [("meet", *edges, {"kind": "finger", **(how or {})})],
        basis,
    )


def on_wall(how, pose=None, basis=None):
    """A shelf of 120 x 50 whose lower edge stands on the inner face of a wall of 160 x 90."""
    usual = {"kind": "numbers", "x": 140, "y": 0, "z": 40, "turn_z": 180}
    edges = ("shelf", "blank.bottom", "wall", "face")
    parts = [panel("wall", 160, 90), panel("shelf", 120, 50)]
    return job(parts, {"wall": UPRIGHT, "shelf": pose or usual}, [("hold", *edges, how)], basis)


def crossed(angle=90, how=None, x=0.0, basis=None, first=None):
    """Two upright parts of 40 that cross `x` beside the middle of the first, 100 long; the second is 80 long."""
    import math

    turn = math.radians(angle)
    second = {"kind": "numbers", "turn_x": 90, "turn_z": angle, "x": x - 40 * math.cos(turn), "y": -40 * math.sin(turn)}
    return job(
        [first or panel("a", 100, 40), panel("b", 80, 40)],
        {"a": {"kind": "numbers", "turn_x": 90, "x": -50}, "b": second},
        [("cross", "a", "face", "b", "face", {"kind": "cross-lap", **(how or {})})],
        basis,
    )


def halved(face="front", z=0.0, basis=None):
    """A board of 30 x 80 lies across one of 100 x 40, in one plane, or `z` above it."""
    second = {"kind": "numbers", "x": 40, "y": -20, "z": z}
    how = {"kind": "halving", "face": face, "share": "0.4"}
    parts = [panel("a", 100, 40), panel("b", 30, 80)]
    return job(parts, {"a": FLAT, "b": second}, [("lap", "a", "face", "b", "face", how)], basis)


def without_joints(one):
    return edited(one, *(Edit("drop", f"joints/{joint.id}") for joint in one.design.joints))


def made(name, given=None, basis=None):
    """A recipe's result, every board of it as `basis` has the main one."""
    design = RECIPES[name].design(name, given or {})
    one = (basis or make_basis(sheet=(1200, 1200))).of("main")
    return compute(Job(design, Basis(tuple((board.id, one) for board in design.boards))))
