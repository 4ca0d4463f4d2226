"""Written files: clean, deterministic, and the same by every reader."""

import io
import math
import re

import ezdxf
import pyogrio
import pytest
import shapely
import svgelements
from lean_notch.cutting import CutPath, Profile, SheetPlan
from lean_notch.formats.dxf_read import read_dxf
from lean_notch.formats.dxf_write import write_dxf
from lean_notch.formats.svg_path import path_data
from lean_notch.formats.svg_read import read_svg
from lean_notch.formats.svg_write import write_svg
from lean_notch.geometry import Circle, Contour, Region, Vertex, flatten, rectangle
from lean_notch.ground.errors import UnreadableFile
from lean_notch.hand_over.files import write_files
from lean_notch.job import compute

RINGS = {
    "plain": rectangle(10, 10, 40, 20),
    "slot": Contour((Vertex(70, 10), Vertex(90, 10, 1), Vertex(90, 20), Vertex(70, 20, 1))),
    "bite": Contour((Vertex(10, 50), Vertex(50, 50), Vertex(50, 80, -0.3), Vertex(10, 80))),
    "keyhole": Contour((Vertex(100, 50), Vertex(104, 50, 2.6))),
    "disc": Circle(130, 60, 12.5),
    "hole": Circle(130, 60, 3, hole=True),
}
SHEET = SheetPlan(1, 200, 100, tuple(CutPath(name, f"{name} & co", "cut", ring) for name, ring in RINGS.items()))
AREAS = sorted(abs(ring.area) for ring in RINGS.values())
LENGTH = sum(ring.length for ring in RINGS.values())


def areas(paths) -> list[float]:
    return sorted(shapely.Polygon(flatten(path.segments, 1e-5)).area for path in paths)


@pytest.fixture(params=["svg", "R12", "R2000"])
def read_back(request):
    if request.param == "svg":
        return read_svg(write_svg("sheet", SHEET).encode())
    return read_dxf(write_dxf(SHEET, request.param).encode())


def test_what_is_written_is_read_back(read_back):
    assert len(read_back.paths) == len(RINGS)
    assert all(path.closed and path.layer == "cut" for path in read_back.paths)
    assert areas(read_back.paths) == pytest.approx(AREAS, abs=2e-3)
    assert sum(s.length for path in read_back.paths for s in path.segments) == pytest.approx(LENGTH, abs=1e-3)
    assert read_back.unread == ()


def test_svg_by_a_reader_that_we_do_not_write_with():
    """svgelements, a general SVG reader: px at 96 per inch, so 1 mm is 96 / 25.4 px."""
    svg = svgelements.SVG.parse(io.StringIO(write_svg("sheet", SHEET)), ppi=96)
    shapes = [shape for shape in svg.elements() if isinstance(shape, svgelements.Shape)]
    assert len(shapes) == len(RINGS)
    boxes = {shape.id: [value * 25.4 / 96 for value in shape.bbox()] for shape in shapes}
    for name, ring in RINGS.items():
        left, low, right, high = ring.box
        assert boxes[name] == pytest.approx([left, 100 - high, right, 100 - low], abs=2e-4)


def test_svg_is_plain(job):
    [file] = write_files(compute(job, Profile(reference_square=True)), "svg")
    text = file.data.decode()
    assert 'width="600mm" height="400mm" viewBox="0 0 600 400"' in text
    assert "transform" not in text
    assert re.findall(r'fill="(.*?)"', text) == ["none", "none"]
    assert [float(width) for width in re.findall(r'stroke-width="(.*?)"', text)] == [0.1, 0.1]
    assert re.findall(r'<g id="(.*?)"', text) == ["cut", "reference"]
    assert text.count("<path") == 6
    assert "<title>Front 1</title>" in text


@pytest.mark.parametrize("bulge", [0.2, -0.2, 0.999, 1.0, -1.0, 1.5, -3.0, 8.0])
def test_svg_arcs_follow_the_specifications_appendix(bulge):
    """W3C SVG 2, appendix B.2: endpoint to centre, done here anew from its formulas (F.6.5.2, F.6.5.3)."""
    ring = Contour((Vertex(0, 0, bulge), Vertex(10, 4)))
    arc = ring.segments[0]
    numbers = re.findall(r"A(\S+) (\S+) 0 (\d) (\d) (\S+) (\S+?)(?=[AZL])", path_data(ring))
    x0, y0 = 0.0, 0.0
    for rx, _, large, sweep, x, y in numbers:
        x1, y1, r = float(x), float(y), float(rx)
        dx, dy = (x0 - x1) / 2, (y0 - y1) / 2
        under = max(r * r * r * r - r * r * dy * dy - r * r * dx * dx, 0) / (r * r * (dx * dx + dy * dy))
        sign = -1 if large == sweep else 1
        cx = sign * math.sqrt(under) * dy + (x0 + x1) / 2
        cy = -sign * math.sqrt(under) * dx + (y0 + y1) / 2
        # Four decimals of the ends and the radius move the centre by at most a few micrometres.
        assert math.dist((cx, cy), arc.centre) < 2e-3
        assert (sweep == "1") == (bulge > 0)
        x0, y0 = x1, y1
    assert math.dist((x0, y0), (10, 4)) < 1e-9


@pytest.mark.parametrize(("release", "version"), [("R12", "AC1009"), ("R2000", "AC1015")])
def test_dxf_passes_an_audit(release, version):
    """ezdxf, which our writer does not use, finds nothing to mend."""
    drawing = ezdxf.read(io.StringIO(write_dxf(SHEET, release)))
    audit = drawing.audit()
    assert (drawing.dxfversion, audit.errors, audit.fixes) == (version, [], [])
    assert drawing.header["$INSUNITS"] == 4  # DXF Reference, HEADER: millimetres
    assert {entity.dxftype() for entity in drawing.modelspace()} <= {"LWPOLYLINE", "POLYLINE", "CIRCLE"}
    assert {entity.dxf.layer for entity in drawing.modelspace()} == {"CUT"}
    assert sum(entity.dxftype() == "CIRCLE" for entity in drawing.modelspace()) == 2


@pytest.mark.parametrize("release", ["R12", "R2000"])
def test_two_independent_readers_agree_on_a_dxf(release, tmp_path):
    """GDAL's DXF driver (through pyogrio) and ezdxf: number, extents and length of the outlines."""
    file = tmp_path / "sheet.dxf"
    file.write_text(write_dxf(SHEET, release))
    _, _, geometry, _ = pyogrio.raw.read(file)
    by_gdal = shapely.from_wkb(geometry)
    by_ezdxf = read_dxf(file.read_bytes())
    assert len(by_gdal) == len(by_ezdxf.paths) == len(RINGS)
    points = [shapely.Polygon(flatten(path.segments, 1e-4)) for path in by_ezdxf.paths]
    assert shapely.union_all(by_gdal).bounds == pytest.approx(shapely.union_all(points).bounds, abs=0.02)
    # GDAL draws arcs as chords of 4 degrees: shorter by at most 1 - sin(2°)/2° = 0.02 %.
    assert shapely.length(by_gdal).sum() == pytest.approx(LENGTH, rel=2.1e-4)


def test_dxf_bulges_are_at_most_one():
    """A bulge of 1 is half a turn (DXF Reference, LWPOLYLINE group 42); more than that some readers get wrong."""
    drawing = ezdxf.read(io.StringIO(write_dxf(SHEET, "R2000")))
    bulges = [abs(b) for e in drawing.modelspace().query("LWPOLYLINE") for (b,) in e.get_points("b")]
    assert 0 < max(bulges) <= 1


def test_the_reference_square_has_its_own_layer(job):
    [file] = write_files(compute(job, Profile(reference_square=True)), "dxf")
    drawing = ezdxf.read(io.StringIO(file.data.decode()))
    [square] = drawing.modelspace().query('*[layer=="REFERENCE"]')
    assert square.closed


@pytest.mark.parametrize("file_format", ["svg", "dxf", "dxf-r12"])
def test_the_same_job_gives_the_same_bytes(job, file_format):
    assert write_files(compute(job), file_format) == write_files(compute(job), file_format)


@pytest.mark.parametrize(
    "data",
    [
        b"", b"nonsense", b"<html/>", b'<svg xmlns="http://www.w3.org/2000/svg"/>',
        b'<svg width="10mm" height="10mm" viewBox="0 0 10"/>', b'<svg width="10furlong" height="10mm" viewBox="0 0 10 10"/>',
        b'<svg width="9mm" height="9mm" viewBox="0 0 9 9"><g transform="turn(2)"/></svg>',
        b'<svg width="9mm" height="9mm" viewBox="0 0 9 9"><path d="M0 0L1"/></svg>',
        b'<svg width="9mm" height="9mm" viewBox="0 0 nine 9"/>',
        b'<svg width="9mm" height="9mm" viewBox="0 0 9 9"><circle cx="1" cy="x" r="2"/></svg>',
        b'<svg width="9mm" height="9mm" viewBox="0 0 9 9"><path d="1 2L3 4"/></svg>',
        b'<!DOCTYPE svg [<!ENTITY a "b">]><svg width="&a;" height="9mm" viewBox="0 0 9 9"/>',
    ],
)  # fmt: skip
def test_broken_svg_is_refused_with_a_fix(data):
    with pytest.raises(UnreadableFile) as caught:
        read_svg(data)
    assert caught.value.fix


@pytest.mark.parametrize("data", [b"", b"nonsense", b"  0\nSECTION\n", b"\xff\xfe\x00"])
def test_broken_dxf_is_refused(data):
    with pytest.raises(UnreadableFile):
        read_dxf(data)


def test_a_dxf_without_a_unit_says_what_it_was_taken_as():
    text = write_dxf(SHEET, "R2000").replace("$INSUNITS\n 70\n4", "$INSUNITS\n 70\n0")
    found = read_dxf(text.encode())
    assert (found.unit, found.assumed) == ("", "mm")


def test_units_of_foreign_files_are_read():
    """W3C CSS Values 3: 96 px are 25.4 mm; DXF Reference: $INSUNITS 1 is an inch."""
    svg = b'<svg width="96px" height="96" viewBox="0 0 2 2"><path d="M0 0h1v1h-1z"/></svg>'
    [path] = read_svg(svg).paths
    assert shapely.Polygon(flatten(path.segments, 1)).area == pytest.approx(12.7**2)
    text = write_dxf(SheetPlan(1, 9, 9, (CutPath("a", "a", "cut", rectangle(0, 0, 1, 2)),)), "R2000")
    [inches] = read_dxf(text.replace("$INSUNITS\n 70\n4", "$INSUNITS\n 70\n1").encode()).paths
    assert shapely.Polygon(flatten(inches.segments, 1)).area == pytest.approx(2 * 25.4**2)


def test_what_is_no_outline_is_named():
    svg = b'<svg width="9mm" height="9mm" viewBox="0 0 9 9"><text>hello</text><image/><path d="M0 0L1 1"/></svg>'
    found = read_svg(svg)
    assert found.unread == ("<image>",)
    assert [text.text for text in found.texts] == ["hello"]
    assert [path.closed for path in found.paths] == [False]


def test_an_empty_sheet_is_a_valid_file():
    empty = SheetPlan(1, 100, 50, ())
    assert read_svg(write_svg("none", empty).encode()).paths == ()
    assert read_dxf(write_dxf(empty, "R2000").encode()).paths == ()


def test_a_region_drawn_twice_the_other_way_is_the_same_file():
    ring = Region(rectangle(0, 0, 3, 2).reversed).outer
    assert path_data(ring).count("L") == 3
