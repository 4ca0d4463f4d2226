"""Papers, read by two PDF readers that this project does not write with: pdfium (pypdfium2) and pdfminer."""

from __future__ import annotations

import io
import itertools

import pytest
from conftest import drawn, make_board, make_job, one_board
from lean_notch.basis.settings import setting_from_json
from lean_notch.formats.paper import (
    PAPERS,
    SCALES,
    Checks,
    Drawing,
    Heading,
    Large,
    Lines,
    Paper,
    Table,
    page_size,
    scale_for,
)
from lean_notch.formats.paper_html import write_html
from lean_notch.formats.paper_pdf import write_pdf_paper
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.job_sheet import Written, job_sheet
from lean_notch.hand_over.proof_paper import proof_paper
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.lengths.in_another_unit import Reader
from plates import plate

POINTS_PER_MM = 72 / 25.4
WRITTEN = Written(
    "Wren", 12, "2026-11-26", "Fits: proved 2026-11-26 11:00, the file read back.", {1: ["tray_sheet-1.svg"]}
)


@pytest.fixture(scope="module")
def result():
    shape = {"kind": "lettering", "text": "VIALS", "font": "slab", "height": "12"}
    name = {"kind": "shape", "id": "name", "does": "mark", "operation": "engrave", "x": "20", "y": "20", "shape": shape}
    return compute(drawn(make_job(), name))


def by_pdfium(data):
    import pypdfium2

    pages = list(pypdfium2.PdfDocument(data))
    text = "\n".join(page.get_textpage().get_text_range() for page in pages)
    return [tuple(side / POINTS_PER_MM for side in page.get_size()) for page in pages], text


def by_pdfminer(data):
    from pdfminer.high_level import extract_pages
    from pdfminer.layout import LAParams, LTCurve, LTTextContainer

    pages = list(extract_pages(io.BytesIO(data), laparams=LAParams()))
    lines = [one for page in pages for one in page if isinstance(one, LTCurve)]
    text = "\n".join(one.get_text() for page in pages for one in page if isinstance(one, LTTextContainer))
    return [(page.width / POINTS_PER_MM, page.height / POINTS_PER_MM) for page in pages], text, lines


@pytest.mark.parametrize("name", list(PAPERS))
def test_two_readers_find_the_page_its_words_and_the_true_length_of_the_bar(result, name):
    paper, size = job_sheet(result, written=WRITTEN), PAPERS[name]
    data = write_pdf_paper(paper, size)
    sizes, text = by_pdfium(data)
    mined, other, lines = by_pdfminer(data)
    for pages in (sizes, mined):
        assert all(page == pytest.approx((size.width, size.height), abs=0.01) for page in pages)
    for words in (
        "Vial carrier",
        "Poplar ply 3.06 mm",
        "tray_sheet-1.svg",
        "revision 12 · Wren · 2026-11-26",
        "Left side",
        "Checklist",
    ):
        assert words in text
        assert words in other
    drawing = next(block for block in paper.blocks if isinstance(block, Drawing))
    scale = scale_for(drawing, size)
    assert f"100 mm, scale 1 : {scale:g}" in text
    # The bar, and the sheet itself, as long on paper as they say.
    widths = {round((line.x1 - line.x0) / POINTS_PER_MM, 2) for line in lines}
    assert round(100 / scale, 2) in widths
    assert round(600 / scale, 2) in widths


def test_the_same_paper_gives_the_same_bytes_and_fetches_nothing(result):
    paper = job_sheet(result, written=WRITTEN)
    assert write_pdf_paper(paper) == write_pdf_paper(paper)
    page = write_html(paper)
    assert write_html(job_sheet(result, written=WRITTEN)) == page
    assert "http" not in page


def test_a_job_sheet_says_what_the_operator_needs(result):
    page = write_html(job_sheet(result, written=WRITTEN))
    for words in (
        "Poplar ply 3.06 mm", "nominal 3 mm, 5 readings, 3.02 mm to 3.1 mm", "kerf 0.14 mm ± 0 mm (row of slats on Poplar ply, 2026-03-01)",
        "Through-cut", "Front", "Base", "File: tray_sheet-1.svg", "lower left corner", "600 mm × 400 mm", "scale 1 : 4",
    ):  # fmt: skip
        assert words in page


def test_a_typed_kerf_and_a_sheet_without_a_file_are_said():
    page = write_html(job_sheet(compute(make_job(one_board(make_board(typed_kerf=True))))))
    assert "kerf 0.14 mm (typed in, not measured)" in page
    assert "No file of this revision was handed over yet." in page


def test_the_frame_is_the_sheet_and_every_part_stands_in_it_by_its_name(result):
    drawing = next(block for block in job_sheet(result).blocks if isinstance(block, Drawing))
    assert (drawing.width, drawing.height) == (600, 400)
    assert {label.text for label in drawing.labels} == {"Front", "Back", "Left side", "Right side", "Base"}
    parts = [stroke for stroke in drawing.strokes if stroke.kind == "part"]
    for stroke in parts:
        left, low, right, high = stroke.rings[0].box
        assert 0 <= left < right <= 600
        assert 0 <= low < high <= 400
    assert [stroke.kind for stroke in drawing.strokes][-1] == "mark"
    assert (drawing.axes.at, drawing.axes.x, drawing.axes.y) == ((0, 0), 1, 1)


def test_settings_that_came_out_well_are_told_and_what_failed_since(result):
    common = {"stock": "Poplar ply", "kind": "plywood", "thickness": 3.06, "power": 62}
    good = setting_from_json({**common, "speed": 12, "date": "2026-11-02"})
    older = setting_from_json({**common, "speed": 16, "date": "2025-09-14", "result": "not through"})
    later = setting_from_json({**common, "speed": 14, "date": "2026-11-12", "result": "not through"})
    said = write_html(job_sheet(result, {"main": [good, older]}))
    assert "62 % · 12 mm/s" in said
    assert "16 mm/s" not in said  # it was known before that the other one is better
    assert "None is known to engrave Poplar ply: try on a scrap first." in said
    assert "14 mm/s" in write_html(job_sheet(result, {"main": [good, later]}))
    only_bad = write_html(job_sheet(result, {"main": [older]}))
    assert "None is known to engrave Poplar ply, cut Poplar ply" in only_bad
    assert "not through" in only_bad


def test_every_piece_has_a_box_to_tick():
    paper = job_sheet(compute(make_job()))
    table = next(block for block in paper.blocks if isinstance(block, Table))
    assert [row[0] for row in table.rows] == [1] * 5
    many = Paper("Many", "", (Table(("done", "part"), [(3, "a"), (40, "b")], ticks=0),))
    page = write_html(many)
    assert page.count('class="box"') == 4
    assert "all 40" in page
    assert "all 40" in by_pdfium(write_pdf_paper(many))[1]


def test_what_the_maker_typed_is_text_on_paper():
    paper = job_sheet(compute(make_job(name="A <b> & c")))
    assert "<b>" not in write_html(paper)
    assert "A <b> & c" in by_pdfium(write_pdf_paper(paper))[1]


def test_lengths_are_in_the_readers_unit(result):
    sizes, text = by_pdfium(write_pdf_paper(job_sheet(result, reader=Reader("in", 64))))
    assert "0.1205 in" in text
    assert " mm" not in text
    assert "4 in, scale" in text
    assert len(sizes) >= 1


def test_inches_are_computed_from_what_is_exact():
    """The wrong paper: rounded in mm first, 2 3/8 in read "2.3752 in" and a reading of 0.1155 in "0.1154"."""
    blank = {
        "kind": "shape",
        "id": "blank",
        "does": "add",
        "shape": {"kind": "rectangle", "width": "2 3/8 in", "height": "1 7/16 in"},
    }
    sheet = job_sheet(compute(plate(blank=blank, readings=(0.1155 * 25.4,) * 3)), reader=Reader("in", 64))
    _, text = by_pdfium(write_pdf_paper(sheet))
    assert "2 3/8 in × 1 7/16 in" in text
    assert "0.1155 in" in text
    assert "0.1154" not in text


def test_a_proof_is_one_page_with_what_was_tested_and_what_was_not(result):
    sizes, text = by_pdfium(write_pdf_paper(proof_paper(result, prove_job(result), WRITTEN)))
    assert len(sizes) == 1
    flat = " ".join(text.split())
    for words in (
        "Fits.",
        "8 of 8 fit",
        "5 of 5 sound",
        "0.029 mm",
        "Not looked at: how deep anything is cut",
        "revision 12 · Wren",
    ):
        assert words in flat


def test_a_proof_that_fails_says_where_on_paper():
    wide = compute(make_job(one_board(make_board(kerf=0.14)), width="150"))
    proof = prove_job(wide)
    from dataclasses import replace

    from lean_notch.ground.findings import Finding

    bad = replace(
        proof,
        findings=(Finding("off-size", "stop", "Front 1 is off by 0.3 mm.", "Measure again.", sheet=1, place=(50, 40)),),
    )
    paper = proof_paper(wide, bad, WRITTEN)
    assert "Does not fit as it is." in write_html(paper)
    assert "Front 1 is off by 0.3 mm." in write_html(paper)
    drawing = next(block for block in paper.blocks if isinstance(block, Drawing))
    [ring] = next(stroke.rings for stroke in drawing.strokes if stroke.kind == "off")
    assert ring.box == pytest.approx((40, 30, 60, 50))


@pytest.mark.parametrize("text", ["100x150", "A6", "", "0 x 0", "9999x9999", "-210x297", "nan x nan"])
def test_a_page_that_has_no_room_is_refused(text):
    with pytest.raises(NotchError) as caught:
        page_size(text)
    assert caught.value.field == "paper"


def test_the_smallest_page_still_holds_a_long_job():
    """Eighty characters without a blank, a table wider than the page, and more rows than one page has."""
    rows = [(f"part {i}", "x" * 90, str(i)) for i in range(90)]
    paper = Paper(
        "W" * 80,
        "about",
        (Heading("Rows"), Table(("a", "b", "c"), rows), Lines(("y" * 200,)), Large("z" * 60), Checks(("tick",))),
    )
    sizes, text = by_pdfium(write_pdf_paper(paper, page_size("140x190")))
    assert len(sizes) > 1
    assert "part 89" in text


def test_scales_are_round_and_as_large_as_the_page_allows():
    for width, height in itertools.product((50, 400, 600, 1250), (30, 300, 1250)):
        scale = scale_for(Drawing(width, height, ()), PAPERS["A4"])
        assert scale in SCALES
        assert width / scale <= 182
        assert height / scale <= 0.42 * 297
        smaller = [one for one in SCALES if one < scale]
        assert not smaller or width / smaller[-1] > 182 or height / smaller[-1] > 0.42 * 297
