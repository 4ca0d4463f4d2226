"""The checks of any file: what receivers complain about is found at its place, and a clean file stays clean."""

import math
from pathlib import Path

import ezdxf
import pytest
from conftest import make_job, with_marks
from lean_notch.cli.main import main
from lean_notch.formats.dxf_read import read_dxf
from lean_notch.formats.svg_read import read_svg
from lean_notch.geometry import Circle, flatten
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.reading import read_any
from lean_notch.job import compute
from lean_notch.proof.check_file import check_file


def svg(body: str, size: str = 'width="100mm" height="100mm" viewBox="0 0 100 100"') -> bytes:
    head = f'<svg xmlns="http://www.w3.org/2000/svg" {size}>'
    return f'{head}<g id="cut" fill="none" stroke="black" stroke-width="0.1">{body}</g></svg>'.encode()


def found(body: str, **options) -> list[str]:
    return [finding.code for finding in check_file(read_svg(svg(body)), **options).findings]


SQUARE = "M10 10L40 10L40 40L10 40Z"


@pytest.mark.parametrize("file_format", ["svg", "dxf", "dxf-r12"])
def test_what_leaves_here_has_nothing_to_complain_about(file_format):
    job = with_marks(make_job(), {"id": "o", "kind": "text", "operation": "cut", "text": "Pond 8", "lengths": {"x": "20", "y": "30", "height": "20"}}, part="base")  # fmt: skip
    [file] = write_files(compute(job), file_format)
    report = check_file(read_any(file.data, file.name), 0.5)
    assert report.sound
    assert report.findings == ()
    assert report.unit == "mm"
    assert [row.layer for row in report.layers] == ["cut"]


def test_a_clean_square_has_no_findings_and_right_counts():
    report = check_file(read_svg(svg(f'<path d="{SQUARE}"/><circle cx="70" cy="70" r="10"/>')))
    assert report.findings == ()
    [layer] = report.layers
    assert (layer.paths, layer.closed, layer.nodes) == (2, 2, 8)
    assert layer.length == pytest.approx(120 + 20 * math.pi)
    assert report.box == pytest.approx((10, 20, 80, 90))
    assert report.page == (100, 100)


@pytest.mark.parametrize(
    ("body", "code"),
    [
        ('<path d="M10 10L40 10L40 40L10 40L10 10.4"/>', "open-path"),
        ('<path d="M10 10L40 10L40 40"/>', "loose-end"),
        ('<path d="M10 10L40 10"/><path d="M40 10L40 40L10 40"/><path d="M10 40L10 10"/>', "in-pieces"),
        (f'<path d="{SQUARE}"/><path d="{SQUARE}"/>', "cut-twice"),
        (f'<path d="{SQUARE}"/><path d="M40 10L60 10L60 40L40 40Z"/>', "cut-twice"),
        (f'<path d="{SQUARE}"/><path d="M10.02 10L40.02 10L40.02 40L10.02 40Z"/>', "cut-twice"),
        ('<path d="M10 10L40 40L40 10L10 40Z"/>', "crosses-itself"),
        (f'<path d="{SQUARE}"/><path d="M30 30L60 30L60 60L30 60Z"/>', "paths-cross"),
        (f'<path d="{SQUARE}"/><path d="M40.3 10L60 10L60 40L40.3 40Z"/>', "cuts-close"),
        ('<path d="M10 10L10 10L40 10L40 40Z"/>', "zero-length"),
        ('<text x="5" y="5">Marsh</text>', "text"),
        ('<image href="data:,"/>', "not-an-outline"),
        (f'<path fill="red" d="{SQUARE}"/>', "filled"),
        (f'<path stroke="none" d="{SQUARE}"/>', "drawn-otherwise"),
        (f'<path stroke-width="0.001" d="{SQUARE}"/>', "invisible"),
        (f'<path stroke-dasharray="2 1" d="{SQUARE}"/>', "drawn-otherwise"),
    ],
)
def test_each_complaint_is_found(body, code):
    codes = found(body)
    assert code in codes
    assert set(codes) <= {code, "empty", "cuts-close", "loose-end", "invisible"}


def test_what_closes_without_a_flag_is_closed():
    report = check_file(read_svg(svg('<path d="M10 10L40 10L40 40L10 40L10 10"/>')))
    assert report.findings == ()


def test_our_own_marks_may_end_anywhere():
    """The file that was wrongly complained of: sixty loose ends and five unclosed outlines, all of them our own marks."""
    marked = with_marks(
        make_job(),
        {"id": "s", "kind": "line", "operation": "score", "lengths": {"x": "20", "y": "30", "to_x": "90", "to_y": "30"}},
        {"id": "t", "kind": "text", "operation": "engrave", "text": "VIALS", "font": "single stroke", "lengths": {"x": "20", "y": "36", "height": "8"}},
    )  # fmt: skip
    for kind in ("svg", "dxf", "dxf-r12"):
        [file] = write_files(compute(marked), kind)
        assert not {one.code for one in check_file(read_any(file.data, file.name)).findings} & {
            "loose-end",
            "not-closed",
            "cut-twice",
        }


def test_findings_have_their_place_amount_and_mend():
    report = check_file(read_svg(svg('<path id="flap" d="M10 10L40 10L40 40L10 40L10 10.4"/>')))
    [gap] = report.findings
    assert gap.amount == pytest.approx(0.4)
    assert math.dist(gap.place, (10, 90)) < 0.5
    assert "flap" in gap.why
    assert gap.fix
    assert not report.sound


def test_partial_overlaps_are_measured():
    [twice] = check_file(read_svg(svg(f'<path d="{SQUARE}"/><path d="M40 20L60 20L60 60L40 60Z"/>'))).findings
    assert twice.amount == pytest.approx(20)
    arcs = (
        '<path d="M10 50A40 40 0 0 1 90 50L90 80L10 80Z"/><path d="M50 10A40 40 0 0 1 90 50L80 50A30 30 0 0 0 50 20Z"/>'
    )
    overlap = [f for f in check_file(read_svg(svg(arcs))).findings if f.code == "cut-twice"]
    assert overlap[0].amount == pytest.approx(20 * math.pi, abs=0.01)


@pytest.mark.parametrize("count", [24, 60, 200])
def test_circles_made_of_lines_are_found_with_their_radius(count):
    points = [
        (50 + 10 * math.cos(2 * math.pi * i / count), 50 + 10 * math.sin(2 * math.pi * i / count)) for i in range(count)
    ]
    body = f'<polygon points="{" ".join(f"{x:.4f},{y:.4f}" for x, y in points)}"/>'
    [finding] = [f for f in check_file(read_svg(svg(body))).findings if f.code == "chords-for-arc"]
    assert "10 mm" in finding.why
    assert finding.amount > 0.8 * count


def test_true_arcs_and_plain_polygons_are_no_chords():
    assert found('<circle cx="50" cy="50" r="20"/>') == []
    hexagon = " ".join(
        f"{50 + 20 * math.cos(i * math.pi / 3):.4f},{50 + 20 * math.sin(i * math.pi / 3):.4f}" for i in range(6)
    )
    assert found(f'<polygon points="{hexagon}"/>') == []


def test_the_limit_between_cuts_is_the_makers():
    two = f'<path d="{SQUARE}"/><circle cx="44" cy="25" r="3"/>'
    assert found(two, close_mm=0.9) == []
    [near] = check_file(read_svg(svg(two)), 1.5).findings
    assert near.amount == pytest.approx(1.0)
    assert near.place == pytest.approx((41, 75), abs=0.01) or near.place == pytest.approx((40, 75), abs=0.01)


@pytest.mark.parametrize(
    ("size", "wide"),
    [
        ('width="100mm" height="100mm" viewBox="0 0 100 100"', 30),
        ('width="10cm" height="10cm" viewBox="0 0 100 100"', 30),
        ('width="4in" height="4in" viewBox="0 0 4 4"', 30 * 25.4),
        ('viewBox="0 0 100 100"', 30 * 25.4 / 96),
        ('width="100" height="100"', 30 * 25.4 / 96),
        ('width="72pt" height="72pt" viewBox="0 0 100 100"', 30 * 25.4 / 100),
    ],
)
def test_sizes_are_told_in_any_unit_and_doubted_without_one(size, wide):
    """W3C CSS Values and Units 3: 1 in = 96 px = 72 pt = 2.54 cm."""
    report = check_file(read_svg(svg(f'<path d="{SQUARE}"/>', size)))
    assert report.box[2] - report.box[0] == pytest.approx(wide)
    named = "in" in size or "mm" in size or "cm" in size or "pt" in size
    assert ("no-unit" in [f.code for f in report.findings]) is not named


def test_a_file_drawn_72_to_the_inch_is_offered_as_such():
    """Common practice: 100 mm drawn at 72 per inch is 283.46 units; read at 96 it comes out at 75 mm."""
    body = '<rect x="0" y="0" width="283.46" height="283.46"/>'
    report = check_file(read_svg(svg(body, 'viewBox="0 0 300 300"')))
    [doubt] = [f for f in report.findings if f.code == "no-unit"]
    assert "100 mm" in doubt.why
    assert doubt.severity == "stop"


def test_an_empty_file_says_so():
    assert [f.code for f in check_file(read_svg(svg(""))).findings] == ["empty"]


def test_a_thousand_point_tangle_is_answered_quickly_and_once():
    points = " ".join(f"{(i * 7919) % 1000 / 10},{(i * 104729) % 997 / 10}" for i in range(1000))
    codes = found(f'<polygon points="{points}"/>')
    assert codes.count("crosses-itself") == 1


def test_many_findings_of_a_kind_are_counted():
    body = "".join(f'<path d="M{i} 1L{i} 90L{i + 0.4} 90L{i + 0.4} 1Z M0 0"/>' for i in range(1, 90))
    rows = [f for f in check_file(read_svg(svg(body))).findings if f.code == "cuts-close"]
    assert len(rows) == 21
    assert "more of the same kind" in rows[-1].why


def test_a_foreign_dxf_with_everything_in_it():
    """Blocks, mirrored blocks, splines, ellipses, text, points and a hatch, drawn with a general-purpose library."""
    document = ezdxf.new("R2010")
    document.header["$INSUNITS"] = 1
    space = document.modelspace()
    block = document.blocks.new("tab")
    block.add_lwpolyline([(0, 0, 1), (2, 0, 0)], format="xyb", close=True)
    space.add_blockref("tab", (10, 10))
    space.add_blockref("tab", (20, 10), dxfattribs={"xscale": -1})
    space.add_blockref("tab", (30, 10), dxfattribs={"yscale": 2})
    space.add_circle((5, 5), 1, dxfattribs={"extrusion": (0, 0, -1)})
    space.add_spline([(0, 20), (5, 22), (10, 20)])
    space.add_ellipse((20, 20), (4, 0), 0.5)
    space.add_arc((30, 20), 2, 0, 90)
    space.add_line((0, 30), (9, 30))
    space.add_polyline2d([(0, 40), (5, 40), (5, 45)], close=True)
    space.add_text("Marsh", dxfattribs={"insert": (1, 1)})
    space.add_mtext("Bog")
    space.add_point((3, 3))
    hatch = space.add_hatch()
    hatch.paths.add_polyline_path([(40, 40), (45, 40), (45, 45)], is_closed=True)
    space.add_3dface([(0, 0), (1, 0), (1, 1), (0, 1)])
    stream = __import__("io").StringIO()
    document.write(stream)
    file = read_dxf(stream.getvalue().encode())
    assert file.unit == "in"
    assert [text.text for text in file.texts] == ["Marsh", "Bog"]
    assert file.points == ((3 * 25.4, 3 * 25.4),)
    assert "3DFACE" in file.unread
    boxes = [tuple(round(v / 25.4, 3) for v in _box(path)) for path in file.paths]
    assert boxes[0] == (10, 9, 12, 10)
    assert boxes[1] == (18, 9, 20, 10), "a mirrored block turns over"
    assert (30, 8, 32, 10) in boxes, "a stretched one becomes an ellipse"
    assert (-6, 4, -4, 6) in boxes, "seen from behind, x runs the other way"
    assert (16, 18, 24, 22) in boxes
    assert sum(path.filled for path in file.paths) == 1
    codes = {finding.code for finding in check_file(file).findings}
    assert {"text", "stray-point", "not-an-outline", "filled", "loose-end"} <= codes


def _box(path):
    boxes = [segment.box for segment in path.segments]
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)


@pytest.mark.parametrize(
    ("body", "box"),
    [
        ('<g transform="translate(10 20) scale(2)"><rect width="5" height="5"/></g>', (10, 70, 20, 80)),
        ('<rect transform="rotate(90 10 10)" x="10" y="10" width="20" height="5"/>', (5, 70, 10, 90)),
        ('<g transform="matrix(1 0 0 -1 0 50)"><rect x="10" y="10" width="20" height="5"/></g>', (10, 60, 30, 65)),
        ('<circle transform="scale(2 1)" cx="10" cy="50" r="5"/>', (10, 45, 30, 55)),
        ('<ellipse cx="50" cy="50" rx="20" ry="10"/>', (30, 40, 70, 60)),
        ('<rect x="10" y="10" width="40" height="20" rx="5"/>', (10, 70, 50, 90)),
        ('<polyline points="10,10 20,10 20,30"/>', (10, 70, 20, 90)),
        ('<line x1="10" y1="10" x2="40" y2="10"/>', (10, 90, 40, 90)),
        ('<path d="m10 10h20v20h-20z"/>', (10, 70, 30, 90)),
        ('<path d="M10 50C10 30 50 30 50 50S90 70 90 50"/>', (10, 35, 90, 65)),
        ('<path d="M10 50Q30 10 50 50T90 50"/>', (10, 30, 90, 70)),
        ('<path d="M10 50a20 20 0 0 1 40 0z"/>', (10, 50, 50, 70)),
        ('<path d="M10 50a20 20 0 0140 0z"/>', (10, 50, 50, 70)),
        ('<path d="M10 50a20 10 0 0 1 40 0z"/>', (10, 50, 50, 60)),
        ('<path d="M10-10.5.5 3"/>', (0.5, 97, 10, 110.5)),
        ('<svg x="10" y="10" width="20" height="20" viewBox="0 0 1 1"><rect width="1" height="1"/></svg>', (10, 70, 30, 90)),
        ('<defs><rect id="r" width="5" height="5"/></defs><use href="#r" x="20" y="20"/>', (20, 75, 25, 80)),
        ('<style>.gone{display:none}</style><rect class="gone" width="90" height="90"/><rect width="5" height="5"/>', (0, 95, 5, 100)),
    ],
)  # fmt: skip
def test_any_svg_is_read_where_it_lies(body, box):
    """Sizes worked out by hand from W3C SVG 2, chapters 8, 9 and 10."""
    assert check_file(read_svg(svg(body))).box == pytest.approx(box, abs=0.006)


def test_style_sheets_and_attributes_cascade():
    body = '<style>path{fill:none;stroke:red} .f{fill:blue}</style><path id="a" d="M0 0h5v5z"/><path class="f" id="b" d="M9 9h5v5z"/>'
    file = read_svg(
        f'<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9">{body}</svg>'.encode()
    )
    assert [(path.name, path.filled) for path in file.paths] == [("a", False), ("b", True)]


@pytest.mark.parametrize(
    "body",
    [
        '<g id="a"><use href="#a"/></g>',
        "<g>" * 150 + "</g>" * 150,
        '<path d="M0 0L1e400 0"/>',
        '<circle r="x"/>',
        '<path d="M0 0X5 5"/>',
    ],
)
def test_svgs_that_would_break_a_reader_are_refused(body):
    from lean_notch.ground.errors import UnreadableFile

    with pytest.raises(UnreadableFile):
        read_svg(svg(body))


def test_a_bomb_of_copies_is_refused():
    from lean_notch.ground.errors import UnreadableFile

    layers = "".join(f'<g id="l{i}">' + f'<use href="#l{i + 1}"/>' * 10 + "</g>" for i in range(8))
    with pytest.raises(UnreadableFile, match="copies counted"):
        read_svg(svg(f'<defs>{layers}<g id="l8"><path d="M0 0h1"/></g></defs><use href="#l0"/>'))


def test_the_command_line_reports_and_exits_by_severity(tmp_path, capsys):
    good, bad = tmp_path / "good.svg", tmp_path / "bad.svg"
    good.write_bytes(svg(f'<path d="{SQUARE}"/>'))
    bad.write_bytes(svg(f'<path d="{SQUARE}"/><path d="{SQUARE}"/>'))
    assert main(["check", str(good)]) == 0
    assert "nothing to stop for" in capsys.readouterr().out
    assert main(["check", str(bad), "--json"]) == 1
    assert '"cut-twice"' in capsys.readouterr().out
    assert main(["check", str(tmp_path / "none.svg")]) == 2
    assert "cannot be read" in capsys.readouterr().err


def test_a_chord_is_not_mistaken_for_what_it_stands_for():
    points = flatten(Circle(50, 50, 20).segments, 0.001)
    body = f'<polygon points="{" ".join(f"{x:.5f},{y:.5f}" for x, y in points)}"/>'
    assert "chords-for-arc" in found(body)


def test_the_dip_net_template_as_it_was_received():
    """The demo's messy drawing: everything that is wrong with it is found, and nothing else."""
    file = Path(__file__).resolve().parents[2] / "demo" / "dip-net.dxf"
    report = check_file(read_any(file.read_bytes(), file.name))
    assert sorted(finding.code for finding in report.findings) == [
        "chords-for-arc", "cut-twice", "cuts-close", "loose-end", "no-unit", "open-path", "stray-point", "text",
    ]  # fmt: skip
    by_code = {finding.code: finding for finding in report.findings}
    assert by_code["chords-for-arc"].amount == 36
    assert "18 mm" in by_code["chords-for-arc"].why
    assert by_code["open-path"].amount == pytest.approx(0.4)
    assert by_code["cut-twice"].amount == pytest.approx(60)
    assert by_code["cuts-close"].amount == pytest.approx(0.5)


@pytest.mark.parametrize(
    "body", ['<path d="M0 0L1e7 0L1e7 1e7z"/>', '<path d="M0 0L1e300 0L1 1z"/>', '<circle r="1e9"/>']
)
def test_coordinates_beyond_any_machine_are_named(body):
    assert "far-away" in found(body)
    assert found(body + f'<path d="{SQUARE}"/>').count("far-away") == 1
