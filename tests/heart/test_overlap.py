"""Two joints on one part: where what the one takes lies in what the other needs."""

from __future__ import annotations

import pytest
from joined import FLAT, job, panel
from lean_notch.job import compute

T = 3.06
WALL = {"kind": "numbers", "turn_x": 90, "z": -T}


def shelf_at(z, tabs=None):
    """A wall whose lower edge has fingers for a floor, and a shelf with tabs through it; its lower face is at `z` - T, the floor's
    bar reaches from -T to 0."""
    parts = [panel("wall", 160, 90), panel("floor", 160, 60), panel("shelf", 120, 50)]
    poses = {"wall": WALL, "floor": FLAT, "shelf": {"kind": "numbers", "x": 140, "z": z, "turn_z": 180}}
    joints = [
        ("foot", "wall", "blank.bottom", "floor", "blank.bottom", {"kind": "finger"}),
        ("hold", "shelf", "blank.bottom", "wall", "face", {"kind": "tab-and-slot", **(tabs or {})}),
    ]
    return compute(job(parts, poses, joints)).build


@pytest.mark.parametrize(("z", "meet"), [(40, False), (T + 0.05, False), (2.0, True), (1.0, True)])
def test_slots_keep_out_of_the_strip_that_fingers_need(z, meet):
    """They overlap by what the slot, 0.02 wider than the board, reaches below 0: T - z and half of that."""
    found = [one for one in shelf_at(z).findings if one.code == "joints-overlap"]
    assert bool(found) == meet
    if found:
        [one] = found
        assert one.amount == pytest.approx(T - z + 0.01, abs=0.011)
        assert (one.severity, one.joint) == ("stop", "hold")
