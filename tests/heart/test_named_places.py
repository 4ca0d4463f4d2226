"""Places and edges that a shape gives names to, and where they are: closed forms."""

from __future__ import annotations

from dataclasses import replace

import pytest
import shapely
from joined import corner
from lean_notch.job import compute
from lean_notch.proof.assembly import holes
from lean_notch.proof.contacts import Gauge
from lean_notch.proof.interference import bodies
from plates import made, rectangle


@pytest.mark.parametrize(("anchor", "at"), [("", (30, 20)), ("left", (30, 20)), ("right", (30, 20)), ("top", (30, 20))])
def test_a_size_ends_at_the_anchor_wherever_that_is_on_the_shape(anchor, at):
    part = made(rectangle("hole", 20, 10, does="cut", x=30, y=20, **({"anchor": anchor} if anchor else {})))
    ends = [one.end for one in part.measured if one.step == "hole"]
    assert ends == [pytest.approx(at)] * 2
    box = part.region.holes[0].box
    middle = {"": (40, 25), "left": (40, 20), "right": (20, 20), "top": (30, 15)}[anchor]
    assert ((box[0] + box[2]) / 2, (box[1] + box[3]) / 2) == pytest.approx(middle)


def test_a_slots_long_sides_are_called_bottom_and_top():
    """30 x 10 from its middle at (50, 30): straight for 20, half of 10 below and above. Sizes can be measured from them."""
    slot = {
        "kind": "shape",
        "id": "slot",
        "does": "cut",
        "x": 50,
        "y": 30,
        "shape": {"kind": "slot", "length": 30, "width": 10},
    }
    above, below = (
        {**rectangle(name, 4, 4, does="cut", x=48, y=3), "from_y": f"edge:slot.{name}"} for name in ("top", "bottom")
    )
    ends = {one.step: one for one in made(slot, above, below).measured if one.path == "y"}
    assert [ends[name].start[1] for name in ("top", "bottom")] == pytest.approx([35, 25])


def test_a_gap_in_a_corner_is_where_the_bar_of_both_boards_is_empty():
    """Two edges of 100 meet at a right angle, 3.06 thick; from 40 to 60 both are cut back by 10. The gap's place is half-way into the
    bar, or near its outer edge, of either board alike."""
    result = compute(corner())
    [mate] = result.build.mates
    cut = shapely.box(40, -20, 60, 10)
    stood = [
        replace(one, gauge=Gauge(one.gauge.piece.difference(cut))) for one in bodies(result.build, result.job.basis)
    ]
    [found] = holes(mate, *stood, stood, 0.0)
    x, y, z = found.place
    assert (x, abs(y), abs(z)) == pytest.approx((50, 3.06 / 2, 3.06 / 2))
    assert found.length == pytest.approx(20)


def test_without_an_anchor_a_shape_is_measured_at_the_middle_of_what_is_nearest():
    """A hole of 20 x 10, 12 above the lower edge and 30 from the left one: the sizes end at the middles of its two near sides."""
    part = made(
        {
            **rectangle("hole", 20, 10, does="cut", x=30, y=12),
            "from_x": "edge:blank.left",
            "from_y": "edge:blank.bottom",
        }
    )
    ends = {one.path: one.end for one in part.measured if one.step == "hole"}
    assert (ends["x"], ends["y"]) == (pytest.approx((30, 17)), pytest.approx((40, 12)))
