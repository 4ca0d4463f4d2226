"""Tabs, slots and fingers as a round tool leaves them: the written path read by ezdxf, swept by GEOS (shapely), and the pieces stood up
as solids of Manifold. Nothing of ours measures here but where the parts lie and stand."""

import io

import ezdxf
import ezdxf.path
import numpy as np
import pytest
import shapely
from lean_notch.hand_over.files import write_files
from lean_notch.job import compute
from lean_notch.making import Build
from routed import job_of
from solids import common, flat, solids

CHORD_MM = 0.001
CLEARANCE = 0.1


def swept(data: bytes, radius: float) -> shapely.Geometry:
    """All that the tool clears."""
    document = ezdxf.read(io.StringIO(data.decode()))
    lines = []
    for entity in document.modelspace():
        if entity.dxf.layer == "CUT":
            points = [(p.x, p.y) for p in ezdxf.path.make_path(entity).flattening(CHORD_MM)]
            lines.append(shapely.LineString(points))
    assert lines
    return shapely.union_all([line.buffer(radius, quad_segs=256) for line in lines])


def pieces(result, tool: float) -> dict[str, shapely.Geometry]:
    """What is left of each part where it lay, brought back to its own place."""
    found = {}
    for file in write_files(result, "dxf"):
        cut = swept(file.data, tool / 2)
        sheet = result.layout.sheet(file.sheet).area
        rest = shapely.box(0, 0, sheet.width, sheet.height).difference(cut)
        for one in result.layout.on_sheet(file.sheet):
            middle = flat(one.motion.region(result.build.part(one.part).region))
            piece = max(getattr(rest, "geoms", [rest]), key=lambda shape, m=middle: shape.intersection(m).area)
            found[one.part] = shapely.transform(
                piece, lambda xy, m=one.motion: np.array([m.back((x, y)) for x, y in xy])
            )
    return found


def shared(build: Build, shapes, grown=0.0) -> float:
    """The most that two standing parts have in common in mm³, each grown by so much all round."""
    larger = {name: shape.buffer(grown, join_style="mitre") if grown else shape for name, shape in shapes.items()}
    return max(common(solids(build, larger)).values())


@pytest.mark.parametrize(
    ("recipe", "thick", "tool"),
    [("divided-case", 12.0, 4.0), ("framed-stand", 6.0, 3.0), ("open-tray", 12.0, 6.0), ("rack", 18.0, 6.0)],
)
def test_what_a_tool_leaves_goes_together_with_the_clearance_that_was_chosen(recipe, thick, tool):
    """As cut nothing is in two places; grown by half the clearance they run into each other wherever something is left to bear on."""
    result = compute(job_of(recipe, thick, tool))
    shapes = pieces(result, tool)
    assert set(shapes) == {part.id for part in result.build.parts}
    # A finger's tip touches the plane of the face that it stops at: a hair of it, as thin as the chord.
    assert shared(result.build, shapes) < 0.5
    assert shared(result.build, shapes, CLEARANCE / 2) > 5
