"""A corner whose joint is taken away: one part covers the other, and nothing lies in anything.

Outside check: the boxes of the boards in space, as they stand, by arithmetic.
"""

from dataclasses import replace

import pytest
from lean_notch.acts.covering import covered
from lean_notch.edits import Edit, edit_job
from lean_notch.ground.errors import MissingInput
from lean_notch.job import compute

THICK = 3.06


def corner(job, first, second):
    """The joint of two parts of the tray."""
    return next(one for one in job.design.joints if {one.first.placement, one.second.placement} == {first, second})


def shared(one, other):
    """How wide the box is that two standing boards share, along each axis."""
    return [min(a[1][i], b[1][i]) - max(a[0][i], b[0][i]) for a, b in [(one, other)] for i in range(3)]


def spans(result, placement):
    """Where a board's outline lies in space, its reliefs and fingers included."""
    standing = next(one for one in result.build.standings if one.placement == placement)
    left, low, right, high = result.build.part(standing.part).region.box
    places = [standing.frame.at((x, y), depth) for x in (left, right) for y in (low, high) for depth in (0.0, THICK)]
    return tuple(map(min, zip(*places, strict=True))), tuple(map(max, zip(*places, strict=True)))


@pytest.mark.parametrize("by", ["front", "left"])
@pytest.mark.parametrize("pair", [("front", "left"), ("front", "right"), ("back", "left")])
def test_one_part_covers_the_other_and_nothing_lies_in_anything(job, pair, by):
    """The dead end: both stayed at full size, and lay in each other by a board's thickness all along the corner."""
    joint = corner(job, *pair)
    cover = joint.first.placement if (joint.first.placement == by or by not in pair) else joint.second.placement
    other = ({joint.first.placement, joint.second.placement} - {cover}).pop()
    was = compute(job)
    now = edit_job(job, covered(was, joint.id, cover))
    result = compute(now)
    assert joint.id not in [one.id for one in now.design.joints]
    assert not [one for one in result.build.findings if one.severity == "stop"]
    apart = shared(spans(result, cover), spans(result, other))
    assert min(apart) == pytest.approx(0, abs=1e-6)  # they touch, and share nothing
    before = was.build.part(other).region.box
    after = result.build.part(other).region.box
    lost = [abs((before[i + 2] - before[i]) - (after[i + 2] - after[i])) for i in (0, 1)]
    assert max(lost) == pytest.approx(THICK)


def test_what_cannot_be_covered_says_why(job):
    joint = corner(job, "front", "left")
    with pytest.raises(MissingInput):
        covered(compute(job), "gone", "front")
    with pytest.raises(MissingInput):
        covered(compute(job), joint.id, "base")


def test_only_two_edges_at_a_right_angle_are_covered(job):
    """The wrong edits: at another angle, or where a part stands on a face or is turned, a board's thickness is not what is lost."""
    joint = corner(job, "front", "left")
    result = compute(job)
    [mate] = [one for one in result.build.mates if one.id == joint.id]
    mates = tuple(one for one in result.build.mates if one.id != joint.id)
    askew = replace(mate, meeting=replace(mate.meeting, angle=60.0))
    side = "left" if joint.first.placement == "front" else "front"
    on_face = replace(joint, first=replace(joint.first, edge="face"))
    joints = tuple(on_face if one.id == joint.id else one for one in job.design.joints)
    mirrored = edit_job(job, [Edit("put", "parts/left/steps/blank/mirrored", True)])
    for wrong in (
        replace(result, build=replace(result.build, mates=(*mates, askew))),
        replace(result, build=replace(result.build, mates=mates)),
        replace(result, job=replace(job, design=replace(job.design, joints=joints))),
        replace(result, job=mirrored),
    ):
        with pytest.raises(MissingInput):
            covered(wrong, joint.id, "front" if wrong.job is mirrored else side)
