"""The proof on the file itself: it agrees with closed forms, and it finds what is wrong."""

import math
from dataclasses import replace

import pytest
import shapely
from conftest import drawn, edited, make_basis, make_job, prove_sheets, with_marks
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.cutting import Profile
from lean_notch.formats.read_file import ReadPath
from lean_notch.geometry import Circle, Contour, Region, Vertex, rectangle
from lean_notch.geometry.offset import offset
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_files, prove_job
from lean_notch.job import Job, compute
from lean_notch.proof import as_cut
from lean_notch.proof.compare import _distances, compare, nominal_polygon

FORMATS = ("svg", "dxf", "dxf-r12")


def paths(*rings):
    return [ReadPath("cut", "", ring.segments, True) for ring in rings]


def test_a_square_loses_the_kerf_all_round():
    """Closed form: side less kerf, corners sharp, since the beam's round stays outside them."""
    [piece] = as_cut(paths(rectangle(0, 0, 10, 10)), 0.2)
    assert piece.finished.area == pytest.approx(9.8**2, abs=1e-6)


def test_a_ring_loses_the_kerf_at_both_edges():
    [piece] = as_cut(paths(Circle(0, 0, 10), Circle(0, 0, 5)), 0.2)
    assert piece.finished.area == pytest.approx(math.pi * (9.9**2 - 5.1**2), rel=1e-4)


def test_a_slot_grows_by_the_kerf_and_keeps_round_corners():
    """Closed form: a sharp inside path leaves fillets of half the kerf: 4 (1 - pi/4) (k/2)² stay."""
    [piece] = as_cut(paths(rectangle(0, 0, 30, 20), rectangle(10, 5, 4, 10)), 0.2)
    slot = 4.2 * 10.2 - (4 - math.pi) * 0.1**2
    assert piece.finished.area == pytest.approx(29.8 * 19.8 - slot, abs=1e-4)


def test_a_60_degree_tip_stays_sharp_with_a_round_join():
    """Closed form: the beam's disc round the tip touches it, so the offset path leaves the tip where it is."""
    tip = Contour((Vertex(0, 0), Vertex(20, 0), Vertex(10, 10 * math.sqrt(3))))
    [path] = offset(Region(tip), 0.1)
    [piece] = as_cut(paths(path.outer), 0.2)
    assert shapely.distance(piece.finished, shapely.Point(10, 10 * math.sqrt(3))) < 1e-4


def test_a_piece_inside_a_hole_is_a_piece_again():
    assert len(as_cut(paths(rectangle(0, 0, 50, 50), rectangle(5, 5, 40, 40), rectangle(10, 10, 30, 30)), 0.1)) == 2


def test_a_piece_narrower_than_the_beam_is_gone():
    [piece] = as_cut(paths(rectangle(0, 0, 30, 0.1)), 0.2)
    assert piece.finished.is_empty


@pytest.mark.parametrize("file_format", FORMATS)
def test_the_trays_parts_come_out_as_wanted(job, file_format):
    """Asked for: within 0.005 mm on edges, corners sharp within 0.01, inside corners within kerf / 2."""
    proof = prove_job(compute(job), file_format)
    assert proof.fits
    assert proof.findings == ()
    assert len(proof.parts) == 5
    for part in proof.parts:
        assert part.edge <= 0.005
        assert part.corner <= 0.01
        # An inside corner of 90 degrees keeps (sqrt 2 - 1) k / 2. Closed form.
        assert part.inside_corner == pytest.approx((math.sqrt(2) - 1) * 0.07, abs=2e-4)


def test_mates_are_judged_for_thin_mean_and_thick(job):
    proof = prove_job(compute(job))
    assert len(proof.mates) == 8
    for mate in proof.mates:
        assert mate.clearance == pytest.approx((0.02, 0.02), abs=1e-3)
        # Sockets are as deep as the mean board: 3.06 less 3.02, 3.06 and 3.10.
        assert mate.proud == pytest.approx((0.04, 0, -0.04), abs=1e-3)


def holed(job: Job) -> Job:
    steps = [
        {"kind": "shape", "id": f"hole-{x}", "shape": {"kind": "disc", "diameter": d}, "does": "cut", "x": x, "y": 50}
        for x, d in ((60, 8), (90, 0.5))
    ]
    return drawn(job, *steps, part="base")


@pytest.mark.parametrize("file_format", FORMATS)
def test_holes_come_out_at_their_size(job, file_format):
    proof = prove_job(compute(holed(job)), file_format)
    assert proof.fits
    finished = max(proof.pieces[1], key=lambda piece: len(piece.interiors))
    radii = sorted(math.sqrt(shapely.Polygon(hole).area / math.pi) for hole in finished.interiors)
    assert radii == pytest.approx([0.25, 4], abs=0.001)


@settings(max_examples=25)
@given(
    st.floats(40, 250), st.floats(40, 180), st.floats(25, 120), st.floats(0, 0.4), st.floats(-0.05, 0.3), st.floats(1, 5)
)  # fmt: skip
def test_any_tray_that_is_built_fits_as_cut(width, depth, height, kerf, clearance, thickness):
    basis = make_basis((thickness,), kerf, clearance, sheet=(1200, 900))
    try:
        result = compute(make_job(basis, width=repr(width), depth=repr(depth), height=repr(height)))
    except NotchError:  # no such tray: that is said, not cut
        return
    proof = prove_job(result)
    assert proof.findings == ()
    for mate in proof.mates:
        assert mate.clearance == pytest.approx((clearance, clearance), abs=2e-3)


def test_a_file_cut_with_another_kerf_is_found_out(job):
    """A beam 0.1 wider than drawn for takes 0.05 more from every edge, and 0.2 from each clearance."""
    files = {file.sheet: file.data for file in write_files(compute(job), "svg")}
    wider = edited(job, kerf="0.24")
    proof = prove_sheets(compute(wider), files, "svg")
    assert not proof.fits
    sizes = [finding for finding in proof.findings if finding.code == "off-size"]
    assert len(sizes) == 5
    assert all("smaller" in finding.why for finding in sizes)
    assert sizes[0].amount == pytest.approx(0.05, abs=1e-3)
    assert {finding.code for finding in proof.findings} == {"off-size", "off-fit", "kerf-doubt"}
    loose = next(finding for finding in proof.findings if finding.code == "off-fit")
    assert loose.amount == pytest.approx(0.2, abs=2e-3)
    assert "too loose" in loose.why


def broken(job, change):
    [file] = write_files(compute(job), "svg")
    text = file.data.decode()
    assert change(text) != text
    return prove_sheets(compute(job), {1: change(text).encode()}, "svg")


def test_an_open_outline_is_found_with_its_gap(job):
    proof = broken(job, lambda text: text.replace('Z"><title>Front 1', '"><title>Front 1'))
    assert {"open-path", "part-missing"} <= {finding.code for finding in proof.findings}
    assert next(f for f in proof.findings if f.code == "open-path").place is not None


def test_an_outline_that_crosses_itself_is_found(job):
    """A bow tie, and a line there and back."""
    for outline in ("M300 20L320 40L320 20L300 40Z", "M300 20L320 40Z"):
        proof = broken(job, lambda text, d=outline: text.replace("</g>", f'<path id="tie" d="{d}"/></g>', 1))
        [finding] = proof.findings
        assert (finding.code, finding.severity) == ("crosses-itself", "stop")
        assert "tie" in finding.why


def test_an_outline_that_is_there_twice_is_found_and_its_part_still_measured(job):
    """Common practice: never the same line twice."""
    from lean_notch.formats.svg_path import path_data

    sheet = compute(job).plan.sheets[0]
    again = path_data(sheet.paths[0].shape.reversed, lambda p: (p[0], sheet.height - p[1]), flipped=True)
    proof = broken(job, lambda text: text.replace("</g>", f'<path id="again" d="{again}"/></g>', 1))
    assert [finding.code for finding in proof.findings] == ["cut-twice"]
    assert all(part.ok for part in proof.parts)


def test_a_missing_part_is_found(job):
    proof = broken(job, lambda text: "\n".join(line for line in text.split("\n") if 'id="base-1"' not in line))
    [missing] = [finding for finding in proof.findings if finding.code == "part-missing"]
    assert (missing.part, missing.sheet) == ("base", 1)
    assert next(part for part in proof.parts if part.part == "base").edge is None


def test_a_foreign_outline_is_found(job):
    proof = broken(job, lambda text: text.replace("</g>", '<path d="M300 20h20v20h-20z"/></g>', 1))
    assert [finding.code for finding in proof.findings] == ["unknown-piece"]


def test_text_and_strange_layers_are_mentioned(job):
    extra = '<text>cut me</text><g id="notes" stroke="red"><path d="M1 1L5 5"/></g></svg>'
    proof = broken(job, lambda text: text.replace("</svg>", extra))
    assert [finding.severity for finding in proof.findings] == ["unseen", "unseen"]
    assert proof.verdict == "as-far-as-seen"


def test_one_finger_off_by_a_twentieth_is_found(job):
    """A path node moved by 0.05 mm shows up at its place and in its joint."""
    [file] = write_files(compute(job), "dxf")
    lines = file.data.decode().split("\n")
    at = next(i for i, line in enumerate(lines) if line.strip() == "10" and i > lines.index("LWPOLYLINE") + 20)
    for index in (at + 1, at + 5):  # two neighbouring corners of one finger's side
        if lines[index - 1].strip() == "10":
            lines[index] = str(float(lines[index]) + 0.05)
    proof = prove_sheets(compute(job), {1: "\n".join(lines).encode()}, "dxf")
    assert any(f.code == "off-size" and f.amount == pytest.approx(0.05, abs=0.01) for f in proof.findings)


def test_an_uneven_board_is_mentioned(tray, basis):
    proof = prove_job(compute(tray(basis(readings=(2.9, 3.06, 3.22)))))
    assert {finding.code for finding in proof.findings} == {"faces-uneven"}
    assert proof.fits
    assert any("0.16 mm proud where the board is thinnest" in finding.why for finding in proof.findings)


def test_two_copies_on_two_sheets_are_both_measured(tray, basis):
    result = compute(replace(tray(basis(sheet=(300, 240))), sets=2))
    assert len(result.layout.sheets) > 1
    proof = prove_job(result)
    assert len(proof.parts) == 10
    assert proof.fits


@given(st.floats(0.05, 0.4))
@settings(max_examples=20)
def test_the_finished_size_law_by_the_librarys_own_buffer(kerf):
    """GEOS' own erosion of the drawn path is what our sweep leaves."""
    shape = Region(rectangle(0, 0, 30, 20), (Circle(15, 10, 4),))
    [path] = offset(shape, kerf / 2)
    [piece] = as_cut(paths(*path.rings), kerf)
    eroded = piece.path.simplify(1e-4).buffer(-kerf / 2, quad_segs=64)
    assert piece.finished.symmetric_difference(eroded).area < 0.05
    assert compare(piece.finished, shape, kerf).ok()


@pytest.mark.parametrize("off", [0.0, 0.02])
def test_a_part_of_many_holes_is_measured_as_closely_as_one_of_few(off):
    """The last of 150 holes is cut `off` too far to the right: a tree of segments must find it as the plain way does."""
    places = [(10.0 + 6 * (i % 15), 10.0 + 6 * (i // 15)) for i in range(150)]
    nominal = Region(rectangle(0, 0, 110, 80), tuple(Circle(x, y, 2.0, hole=True) for x, y in places))
    moved = (*places[:-1], (places[-1][0] + off, places[-1][1]))
    cut = nominal_polygon(Region(rectangle(0, 0, 110, 80), tuple(Circle(x, y, 2.0, hole=True) for x, y in moved)))
    assert shapely.get_num_coordinates(cut) > 4000
    found = compare(cut, nominal, 0.1)
    assert found.ok() == (off == 0.0)
    assert found.edge.amount == pytest.approx(off, abs=0.0005)
    few = Region(nominal.outer, nominal.holes[-1:])
    alone = shapely.Polygon(
        cut.exterior, [min(cut.interiors, key=lambda ring: -ring.bounds[0] - 1000 * ring.bounds[1])]
    )
    assert shapely.get_num_coordinates(alone) < 4000
    assert compare(alone, few, 0.1).edge.amount == pytest.approx(found.edge.amount, abs=1e-9)


def test_the_tree_of_segments_leads_to_no_line_that_is_not_there():
    """What lies between two rings is no edge: the points in between are as far off as the library says."""
    rings = [shapely.Point(6.0 * i, 0).buffer(2, quad_segs=16).exterior for i in range(80)]
    boundary = shapely.MultiLineString(rings)
    assert shapely.get_num_coordinates(boundary) > 4000
    points = shapely.points([(0.5 * i, 0.1 * (i % 7)) for i in range(900)])
    assert _distances(points, boundary) == pytest.approx(shapely.distance(points, boundary), abs=1e-12)


def test_what_is_known_so_far_is_of_the_sheets_that_were_looked_at():
    """Two sheets, a part moved on the second: nothing is told before that one is looked at; what the job says itself is not told."""
    result = compute(edited(make_job(make_basis(sheet=(220, 170))), sets=2))
    files = write_files(result, "svg")
    assert len(files) > 1
    last = files[-1].data.decode().replace('<path id="', '<path transform="translate(0.5 0)" id="', 1)
    told = []
    prove_files(
        result, [*files[:-1], replace(files[-1], data=last.encode())], "svg",
        lambda share, stage, so_far=None: told.append(so_far() if so_far else None),
    )  # fmt: skip
    known = [one for one in told if one]
    assert (known[0]["done"], known[0]["found"], known[0]["of"]) == (0, 0, len(files))
    assert (known[-1]["done"], known[-1]["found"] > 0) == (len(files), True)
    assert all(one["found"] == 0 for one in known if one["done"] < len(files) - 1)


def test_a_sheet_without_its_cuts_and_one_with_a_text_are_not_told_to_have_no_problems():
    """What was not looked at is told so far as well; a sheet of which nothing that is cut out was given was not measured."""
    result = compute(make_job())
    [file] = write_files(result, "svg")

    def last(data):
        told = []
        prove_files(
            result,
            [replace(file, data=data)],
            "svg",
            lambda share, stage, so_far=None: told.append(so_far and so_far()),
        )
        return [one for one in told if one][-1]

    text = last(file.data.replace(b"</svg>", b'<text x="5" y="5">Reed</text></svg>'))
    assert (text["done"], text["found"]) == (1, 1)
    assert "still text" in text["first"][0]
    marks = compute(with_marks(make_job(), {"id": "s", "kind": "rectangle", "operation": "score",
        "lengths": {"x": "30", "y": "30", "width": "20", "height": "10"}}, part="base"), Profile(split="operation"))  # fmt: skip
    scored = [one for one in write_files(marks, "svg") if one.operation == "score"]
    told = []
    prove_files(marks, scored, "svg", lambda share, stage, so_far=None: told.append(so_far and so_far()))
    assert [one["done"] for one in told if one] == [0] * len([one for one in told if one])
