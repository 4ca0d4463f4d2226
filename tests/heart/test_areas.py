"""Areas of one operation that lie on each other are one area, and rows of hatching run on through a text.

Outside check: GEOS (shapely) unites and measures.
"""

import itertools
import random
from dataclasses import replace

import pytest
import shapely
from lean_notch.cutting import PLAIN
from lean_notch.cutting.areas import as_one
from lean_notch.geometry.flatten import loops
from lean_notch.ground.errors import TooMuchWork
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from plates import disc, made, plate

HATCHED = replace(PLAIN, engrave="hatch", hatch_mm=0.2)


def engraved(step, diameter, x, y, **values):
    return disc(step, diameter, "mark", operation="engrave", x=x, y=y, **values)


def rows(result):
    """Rows of hatching: for each height the stretches."""
    found = {}
    for path in result.plan.sheets[0].paths:
        if path.operation == "engrave":
            (left, y), (right, _) = sorted(vertex.point for vertex in path.shape.vertices)
            found.setdefault(round(y, 5), []).append((left, right))
    return {y: sorted(found[y]) for y in sorted(found)}


def polygon(region):
    return shapely.Polygon(*loops(region, 1e-5))


def test_overlapping_areas_are_burnt_once():
    """The wrong file: each disc was hatched by itself, and what both cover was burnt twice, "fits"."""
    job = plate(engraved("one", 20, 30, 30), engraved("two", 20, 40, 30))
    result = compute(job, HATCHED)
    for stretches in rows(result).values():
        assert all(right < left for (_, right), (left, _) in itertools.pairwise(stretches))
    drawn = sum(right - left for stretches in rows(result).values() for left, right in stretches) * 0.2
    covered = shapely.union(shapely.Point(30, 30).buffer(10, 256), shapely.Point(40, 30).buffer(10, 256)).area
    assert drawn == pytest.approx(covered, rel=0.005)
    assert prove_job(result).fits
    # As outlines, or filled, it is one outline round both.
    for area in ("outline", "filled"):
        [one] = [p for p in compute(job, replace(PLAIN, engrave=area)).plan.sheets[0].paths if p.operation == "engrave"]
        assert one.about == "one"


def test_areas_that_are_not_drawn_as_one_are_still_burnt_twice_and_stopped():
    """The wrong design: the beam runs beside the one and on the other, so that they stay two areas, and both burn what they share."""
    one, two = engraved("one", 20, 30, 30, side="inside"), engraved("two", 20, 40, 30)
    found = prove_job(compute(plate(one, two)))
    assert not found.fits
    assert [finding.code for finding in found.findings if finding.severity == "stop"] == ["mark-twice"]


def test_other_operations_depths_and_faces_stay_apart():
    part = made(
        engraved("one", 20, 30, 30), engraved("back", 20, 35, 30, face="back"),
        disc("pit", 20, "mark", operation="pocket", depth=1, x=36, y=30),
        disc("deep", 20, "mark", operation="pocket", depth=2, x=38, y=30),
        disc("ring", 20, "mark", operation="score", x=40, y=30),
    )  # fmt: skip
    assert as_one(part.marks) is part.marks


def test_pockets_of_one_depth_are_one_pocket():
    pit = {"operation": "pocket", "depth": 1, "y": 30}
    result = compute(plate(disc("one", 20, "mark", x=30, **pit), disc("two", 20, "mark", x=45, **pit)))
    [path] = [p for p in result.plan.sheets[0].paths if p.operation == "pocket"]
    assert path.shape.area > 500


@pytest.mark.parametrize("seed", range(20))
def test_what_is_left_covers_the_same_and_shares_nothing(seed):
    of = random.Random(seed)
    steps = [engraved(f"e{n}", of.uniform(4, 20), of.uniform(12, 88), of.uniform(12, 48)) for n in range(9)]
    marks = made(*steps).marks
    before = shapely.union_all([polygon(region) for mark in marks for region in mark.regions])
    after = [polygon(region) for mark in as_one(marks) for region in mark.regions]
    assert sum(one.area for one in after) == pytest.approx(before.area, abs=0.01)
    assert shapely.union_all(after).symmetric_difference(before).area < 0.01


def test_rows_run_on_through_a_text():
    """The wrong file: the rows of neighbouring letters lay 0.045 apart where 0.2 was asked for."""
    name = {"kind": "shape", "id": "name", "does": "mark", "operation": "engrave", "x": 20, "y": 20,
            "shape": {"kind": "lettering", "text": "Poplar gjy", "height": 8}}  # fmt: skip
    heights = list(rows(compute(plate(name), HATCHED)))
    assert {round(b - a, 3) for a, b in itertools.pairwise(heights)} == {0.2}


def test_thousands_that_overlap_are_refused_not_computed():
    marks = made(engraved("one", 20, 30, 30)).marks
    [mark] = marks
    with pytest.raises(TooMuchWork):
        as_one((replace(mark, regions=mark.regions * 200),))
