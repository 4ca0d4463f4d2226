"""What profiles make of files: units, origins, layers, fills and PDF, each read back by a library that wrote none of it."""

import io
import math
import re

import ezdxf
import numpy as np
import pikepdf
import pyogrio
import pypdfium2
import pytest
import shapely
import svgelements
from conftest import prove_sheets, with_marks
from lean_notch.cutting import CutPath, Profile, SheetPlan, alone
from lean_notch.cutting.profile import Layer
from lean_notch.formats import dxf_read
from lean_notch.formats.curves import as_cubics, ellipse_pieces
from lean_notch.formats.dxf_flat import read_flat
from lean_notch.formats.dxf_write import write_dxf
from lean_notch.formats.frame import Frame
from lean_notch.formats.pdf_write import write_pdf
from lean_notch.formats.svg_read import read_svg
from lean_notch.formats.svg_write import write_svg
from lean_notch.geometry import Circle, Contour, Cubic, Region, Segment, Trace, Vertex, rectangle
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_files
from lean_notch.job import compute

PT_PER_MM = 72 / 25.4
"""ISO 32000-1, 8.3.2.3: user space is 1/72 in; International yard and pound agreement, 1959: an inch is 25.4 mm."""

SHEET = SheetPlan(
    1, 300, 200,
    (
        CutPath("plate", "Plate", "cut", Contour((Vertex(20, 20), Vertex(120, 20, 0.4), Vertex(120, 90), Vertex(20, 90, -0.2)))),
        CutPath("hole", "Hole", "cut", Circle(70, 55, 12, hole=True)),
        CutPath("line", "Line", "score", Trace((Vertex(30, 30), Vertex(80, 30, 0.5), Vertex(110, 40)))),
        CutPath("area", "Area", "engrave", rectangle(150, 20, 40, 30), filled=True, holes=(Circle(170, 35, 5, hole=True),)),
        CutPath("pocket", "Pocket", "pocket", rectangle(150, 80, 20, 20), depth=2.5),
    ),
)  # fmt: skip
FRAMES = [
    Profile(unit=unit, origin=origin, y_down=down)
    for unit in ("mm", "in")
    for origin, down in (
        ("plain", False),
        ("plain", True),
        ("centre", False),
        ("upper right", True),
        ("lower right", False),
    )
]


@pytest.mark.parametrize("profile", FRAMES, ids=lambda p: f"{p.unit}-{p.origin}-{p.y_down}")
@pytest.mark.parametrize("release", ["R12", "R2000"])
def test_two_readers_of_dxf_agree_on_extents_and_length(profile, release, tmp_path):
    """ezdxf and GDAL, neither of which writes our files."""
    file = tmp_path / "sheet.dxf"
    file.write_text(write_dxf(SHEET, release, profile))
    drawing = ezdxf.readfile(file)
    assert drawing.header["$INSUNITS"] == {"mm": 4, "in": 1}[profile.unit]
    from ezdxf import bbox, path

    box = bbox.extents(drawing.modelspace())
    by_ezdxf = (box.extmin.x, box.extmin.y, box.extmax.x, box.extmax.y)
    length = sum(
        shapely.LineString([(v.x, v.y) for v in path.make_path(e).flattening(1e-4)]).length
        for e in drawing.modelspace()
    )
    shapes = shapely.from_wkb(pyogrio.raw.read(file)[2])
    assert tuple(shapely.total_bounds(shapes)) == pytest.approx(by_ezdxf, abs=0.02)
    assert float(shapely.length(shapes).sum()) == pytest.approx(length, rel=2e-3)
    per_mm = 1 if profile.unit == "mm" else 1 / 25.4
    own = math.fsum(p.length for p in SHEET.paths)
    assert length == pytest.approx(own * per_mm, rel=1e-4)


@pytest.mark.parametrize("profile", FRAMES, ids=lambda p: f"{p.unit}-{p.origin}-{p.y_down}")
@pytest.mark.parametrize("file_format", ["svg", "dxf", "dxf-r12"])
def test_a_job_is_proved_wherever_its_origin_lies(job, profile, file_format):
    result = compute(job, profile)
    [file] = write_files(result, file_format)
    assert prove_sheets(result, {1: file.data}, file_format).fits


def test_files_an_operation_are_proved_together(job):
    marked = with_marks(job, {"id": "s", "kind": "line", "operation": "score", "lengths": {"x": "20", "y": "30", "to_x": "90", "to_y": "30"}}, part="front")  # fmt: skip
    result = compute(marked, Profile(split="operation"))
    files = write_files(result, "dxf")
    assert [file.operation for file in files] == ["score", "cut"]
    assert prove_files(result, files, "dxf").proof.fits
    lost = prove_files(result, files[1:], "dxf").proof
    assert [finding.code for finding in lost.findings] == ["operation-not-given"]


@pytest.mark.parametrize(("origin", "box"), [
    ("plain", "0 0 300 200"), ("upper left", "0 0 300 200"), ("lower left", "0 -200 300 200"), ("centre", "-150 -100 300 200"),
])  # fmt: skip
def test_svg_says_its_size_and_where_its_origin_lies(origin, box):
    text = write_svg("sheet", SHEET, Profile(origin=origin))
    assert f'width="300mm" height="200mm" viewBox="{box}"' in text
    inches = write_svg("sheet", SHEET, Profile(unit="in"))
    assert 'width="11.811024in"' in inches
    whole = svgelements.SVG.parse(io.StringIO(inches), ppi=96)
    left, _, right, _ = whole.bbox()
    assert (right - left) * 25.4 / 96 == pytest.approx(190 - min(p.shape.box[0] for p in SHEET.paths), abs=0.01)


def test_only_engraved_areas_are_ever_filled():
    text = write_svg("sheet", SHEET)
    filled = re.findall(r'id="(\w+)"[^>]*fill="#', text)
    assert filled == ["area"]
    assert text.count('fill="none"') == len(re.findall("<g ", text))
    assert [path.filled for path in read_svg(text.encode()).paths].count(True) == 2, "the area and the hole in it"


def test_layers_have_the_profiles_names_colours_and_order():
    layers = {**Profile().layers, "cut": Layer("Through", "#FF0000"), "score": Layer("x", "#00ff00", include=False)}
    profile = Profile(layers=layers, order=("cut", "pocket", "engrave", "score", "fold", "reference"))
    text = write_svg("sheet", SHEET, profile)
    assert re.findall(r'<g id="([^"]+)"', text) == ["through", "pocket-2.5mm", "engrave"]
    drawing = ezdxf.read(io.StringIO(write_dxf(SHEET, "R2000", profile)))
    assert {layer.dxf.name: layer.dxf.color for layer in drawing.layers if layer.dxf.name not in ("0", "Defpoints")} == {
        "THROUGH": 1, "POCKET_2_5MM": 4, "ENGRAVE": 6,
    }  # fmt: skip


@pytest.mark.parametrize("width", [0.05, 0.5])
def test_strokes_are_as_wide_as_asked(width):
    assert f'stroke-width="{width}"' in write_svg("sheet", SHEET, Profile(stroke_mm=width))


def test_a_pdf_page_has_its_size_in_points():
    page = pypdfium2.PdfDocument(write_pdf("sheet", SHEET))[0]
    assert page.get_size() == pytest.approx((300 * PT_PER_MM, 200 * PT_PER_MM), abs=1e-3)


def test_a_pdf_draws_at_one_to_one():
    """Outside check: PDFium draws the page, and the ink on it is measured."""
    page = pypdfium2.PdfDocument(write_pdf("sheet", SHEET))[0]
    per_pt = 6
    ink = np.argwhere(page.render(scale=per_pt).to_numpy().min(axis=2) < 200)
    (top, left), (bottom, right) = ink.min(axis=0), ink.max(axis=0)
    boxes = [path.shape.box for path in SHEET.paths]
    wanted = [
        min(b[0] for b in boxes),
        200 - max(b[3] for b in boxes),
        max(b[2] for b in boxes),
        200 - min(b[1] for b in boxes),
    ]
    measured = [value / per_pt / PT_PER_MM for value in (left, top, right, bottom)]
    assert measured == pytest.approx(wanted, abs=0.15), "to the line's own half width and a pixel"


def test_a_pdf_has_a_layer_for_each_operation():
    """ISO 32000-1, 8.11: optional content groups, by an independent reader of the file's objects."""
    pdf = pikepdf.open(io.BytesIO(write_pdf("sheet", SHEET)))
    groups = [str(group.Name) for group in pdf.Root.OCProperties.OCGs]
    assert groups == ["ENGRAVE", "SCORE", "POCKET 2.5MM", "CUT"]
    content = pdf.pages[0].Contents.read_bytes().decode()
    assert content.count("BDC") == content.count("EMC") == 4
    assert content.count(" f*") == 1


def test_a_pdf_is_the_same_each_time_and_another_for_another_sheet():
    one, other = write_pdf("sheet", SHEET), write_pdf("sheet", SheetPlan(1, 300, 200, SHEET.paths[:2]))
    assert one == write_pdf("sheet", SHEET)
    ids = [re.search(rb"/ID ?\[ ?<([0-9a-f]+)>", data)[1] for data in (one, other)]
    assert ids[0] != ids[1]
    assert b"CreationDate" not in one


@pytest.mark.parametrize(("radius", "off"), [(0.5, 1e-4), (10, 1e-4), (100, 1e-4), (500, 3e-4)])
def test_arcs_as_cubics_stay_on_their_circle(radius, off):
    for cubic in as_cubics(Segment((radius, 0), (-radius, 0), 1.0)):
        worst = max(abs(math.hypot(*cubic.at(i / 20)) - radius) for i in range(21))
        assert worst <= off


def test_a_page_too_large_for_pdf_is_refused_with_what_to_use():
    from lean_notch.ground.errors import OutOfRange

    with pytest.raises(OutOfRange, match="6000 mm"):
        write_pdf("sheet", SheetPlan(1, 6000, 1000, ()))


def test_labels_and_the_reference_square_are_never_cut(job):
    result = compute(job, Profile(labels=True, reference_square=True))
    extra = [path for path in result.plan.sheets[0].paths if path.operation == "reference"]
    assert sum(path.title.endswith("label") for path in extra) > 20
    assert all(path.operation == "cut" or path.operation == "reference" for path in result.plan.sheets[0].paths)
    [file] = write_files(result, "svg")
    assert prove_sheets(result, {1: file.data}).fits


def test_a_part_by_itself_lies_in_its_own_box(job):
    result = compute(job)
    part = result.build.part("base")
    sheet = alone(part, result.build, 0.14).plan
    left, low, right, high = part.region.box
    assert (sheet.width, sheet.height) == pytest.approx((right - left + 0.14, high - low + 0.14))
    assert min(path.shape.box[0] for path in sheet.paths) == pytest.approx(0)


def test_a_frame_goes_there_and_back():
    for profile in FRAMES:
        frame = Frame.of(SHEET, profile)
        x, y = frame.point((12.5, 33.0))
        scale = 1 if profile.unit == "mm" else 25.4
        assert frame.back((x * scale, y * scale)) == pytest.approx((12.5, 33.0))


def spec_arc(x1, y1, x2, y2, rx, ry, phi, large, sweep):
    """Centre, start angle and turn. W3C SVG 2, appendix B.2.4 and B.2.5, as written there."""
    cos, sin = math.cos(phi), math.sin(phi)
    xp, yp = cos * (x1 - x2) / 2 + sin * (y1 - y2) / 2, -sin * (x1 - x2) / 2 + cos * (y1 - y2) / 2
    grow = xp**2 / rx**2 + yp**2 / ry**2
    if grow > 1:
        rx, ry = math.sqrt(grow) * rx, math.sqrt(grow) * ry
    under = (rx**2 * ry**2 - rx**2 * yp**2 - ry**2 * xp**2) / (rx**2 * yp**2 + ry**2 * xp**2)
    k = math.sqrt(max(under, 0)) * (-1 if large == sweep else 1)
    cxp, cyp = k * rx * yp / ry, -k * ry * xp / rx
    cx, cy = cos * cxp - sin * cyp + (x1 + x2) / 2, sin * cxp + cos * cyp + (y1 + y2) / 2
    first = math.atan2((yp - cyp) / ry, (xp - cxp) / rx)
    last = math.atan2((-yp - cyp) / ry, (-xp - cxp) / rx)
    turn = (last - first) % (2 * math.pi)
    return cx, cy, rx, ry, first, turn if sweep else turn - 2 * math.pi


@pytest.mark.parametrize("large", [False, True])
@pytest.mark.parametrize("sweep", [False, True])
@pytest.mark.parametrize(
    ("rx", "ry", "degrees"), [(20, 20, 0), (30, 12, 0), (30, 12, 25), (12, 30, -70), (3, 3, 0), (4, 2, 10)]
)
def test_svg_arcs_follow_the_specifications_appendix(rx, ry, degrees, large, sweep):
    """All four flag combinations, turned ellipses, and radii that are too small and grow."""
    start, end = (10.0, 20.0), (34.0, 13.0)
    pieces = list(ellipse_pieces(start, end, rx, ry, degrees, large, sweep))
    cx, cy, a, b, first, turn = spec_arc(*start, *end, rx, ry, math.radians(degrees), large, sweep)
    assert pieces[0].start == start
    assert pieces[-1].end == end
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    for piece in pieces:
        for share in (0, 0.3, 0.5, 1):
            x, y = piece.at(share)
            u, v = ((x - cx) * cos + (y - cy) * sin) / a, (-(x - cx) * sin + (y - cy) * cos) / b
            assert math.hypot(u, v) == pytest.approx(1, abs=1e-5)
            along = (math.atan2(v, u) - first) * math.copysign(1, turn) % (2 * math.pi)
            assert along <= abs(turn) + 1e-4 or along >= 2 * math.pi - 1e-4
    middle = pieces[len(pieces) // 2]
    assert isinstance(middle, Segment | Cubic)


def test_a_region_with_a_hole_reads_back_as_it_was():
    plate = Region(rectangle(0, 0, 50, 40), (Circle(20, 20, 5),))
    sheet = SheetPlan(1, 60, 50, tuple(CutPath(f"p{i}", "p", "cut", ring) for i, ring in enumerate(plate.rings)))
    back = read_svg(write_svg("x", sheet).encode())
    assert [round(sum(s.length for s in path.segments), 4) for path in back.paths] == [180, round(10 * math.pi, 4)]


FLAT = (dxf_read._MM_PER_INSUNIT, dxf_read._UNIT_NAMES)


@pytest.mark.parametrize("release", ["R12", "R2000"])
@pytest.mark.parametrize("profile", FRAMES[:3] + FRAMES[5:7], ids=lambda p: f"{p.unit}-{p.origin}-{p.y_down}")
def test_the_quick_reader_of_large_files_finds_what_the_general_one_does(release, profile):
    """Outside check: ezdxf on the same text."""
    text = write_dxf(SHEET, release, profile)
    quick, general = read_flat(text, *FLAT), dxf_read.read_dxf(text.encode())
    assert quick.unit == general.unit == profile.unit
    assert len(quick.paths) == len(general.paths)
    for one, other in zip(quick.paths, general.paths, strict=True):
        assert (one.layer, one.closed, len(one.segments)) == (other.layer, other.closed, len(other.segments))
        for a, b in zip(one.segments, other.segments, strict=True):
            assert (*a.start, *a.end, a.bulge) == pytest.approx((*b.start, *b.end, b.bulge), abs=1e-9)


def test_lines_and_arcs_are_read_alike_by_both():
    drawing = ezdxf.new("R12")
    space = drawing.modelspace()
    space.add_line((1, 2), (3, 4))
    space.add_arc((5, 5), 2, 300, 45)
    stream = io.StringIO()
    drawing.write(stream)
    quick, general = read_flat(stream.getvalue(), *FLAT), dxf_read.read_dxf(stream.getvalue().encode())
    assert [path.segments[0].start for path in quick.paths] == [
        pytest.approx(path.segments[0].start) for path in general.paths
    ]
    assert quick.assumed == "mm"


@pytest.mark.parametrize(
    "add",
    [
        lambda space: space.add_text("Bog"),
        lambda space: space.add_point((1, 1)),
        lambda space: space.add_circle((1, 1), 2, dxfattribs={"extrusion": (0, 0, -1)}),
        lambda space: space.add_polyline3d([(0, 0, 0), (1, 1, 1)]),
        lambda space: space.add_ellipse((0, 0), (4, 0), 0.5),
    ],
)
def test_what_the_quick_reader_does_not_know_it_leaves_to_the_other(add):
    drawing = ezdxf.new("R2000")
    drawing.modelspace().add_circle((0, 0), 1)
    add(drawing.modelspace())
    stream = io.StringIO()
    drawing.write(stream)
    assert read_flat(stream.getvalue(), *FLAT) is None


@pytest.mark.parametrize(
    "text", ["", "nonsense", "  0\nSECTION\n", "  2\nENTITIES\n  0\nCIRCLE\n 10\nx\n  0\nENDSEC\n"]
)
def test_a_broken_file_is_left_to_the_other_reader_too(text):
    assert read_flat(text, *FLAT) is None
