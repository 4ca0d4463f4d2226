"""Text as outlines: widths by the fonts' own tables, islands held by bridges, and what the fonts lack."""

import math
from importlib.resources import files

import pytest
from fontTools.pens.areaPen import AreaPen
from fontTools.pens.boundsPen import BoundsPen
from fontTools.ttLib import TTFont
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.geometry import Region, rectangle
from lean_notch.geometry.boolean import difference
from lean_notch.ground.errors import MissingCharacter, OutOfRange
from lean_notch.lettering import FONTS, SINGLE_STROKE, bridged, glyph, least_height, lettered, strokes
from letter_checks import check_word

PLAIN = "Reedmere Bog 0489 ABDOPQR abdegopq &@%"


def font_file(font: str, index: int = 0) -> TTFont:
    return TTFont(files("lean_notch.lettering").joinpath("fonts", FONTS[font].files[index]).open("rb"))


def drop_outs(shapes, margin=5.0) -> int:
    """How many pieces of a plate fall out when `shapes` are cut from it."""
    boxes = [shape.box for shape in shapes]
    left, low = min(box[0] for box in boxes) - margin, min(box[1] for box in boxes) - margin
    right, high = max(box[2] for box in boxes) + margin, max(box[3] for box in boxes) + margin
    return len(difference([Region(rectangle(left, low, right - left, high - low))], shapes)) - 1


@pytest.mark.parametrize("font", FONTS)
def test_capitals_are_as_high_as_asked(font):
    """Outside check: the H of the font itself, by the font library's bounds."""
    opened = font_file(font)
    glyphs = opened.getGlyphSet()
    pen = BoundsPen(glyphs)
    glyphs[opened.getBestCmap()[ord("H")]].draw(pen)
    scale = 20 / opened["OS/2"].sCapHeight
    regions = lettered("H", font, 20.0).regions
    assert max(region.box[3] for region in regions) == pytest.approx(pen.bounds[3] * scale, abs=0.002)
    assert min(region.box[0] for region in regions) == pytest.approx(pen.bounds[0] * scale, abs=0.002)


@pytest.mark.parametrize("font", FONTS)
def test_a_line_is_as_wide_as_its_advances(font):
    """Outside check: the font's own hmtx table."""
    opened = font_file(font)
    names = opened.getBestCmap()
    units = sum(opened["hmtx"][names[ord(c)]][0] for c in "Marsh")
    assert lettered("Marsh", font, 12.0).width == pytest.approx(units * 12 / opened["OS/2"].sCapHeight)


@pytest.mark.parametrize("character", "OB8&g")
def test_a_letters_area_is_its_fonts(character):
    """Outside check: the font library's area of the same curves (non-overlapping contours)."""
    opened = font_file("slab")
    glyphs = opened.getGlyphSet()
    pen = AreaPen(glyphs)
    glyphs[opened.getBestCmap()[ord(character)]].draw(pen)
    scale = 25 / opened["OS/2"].sCapHeight
    drawn = sum(region.area for region in lettered(character, "slab", 25.0).regions)
    assert drawn == pytest.approx(abs(pen.value) * scale**2, rel=2e-3)


@pytest.mark.parametrize("font", FONTS)
def test_rare_letters_come_from_the_second_file(font):
    assert ord("ł") not in font_file(font).getBestCmap()
    assert glyph(font, "ł", 10.0) is not None


@pytest.mark.parametrize("font", [*FONTS, SINGLE_STROKE])
def test_what_a_font_lacks_is_named_and_never_drawn_as_a_box(font):
    with pytest.raises(MissingCharacter) as caught:
        lettered("Moor 沼", font, 10.0)
    assert "沼" in caught.value.why
    assert caught.value.field == "text"


def test_single_strokes_have_no_accents_and_say_so():
    with pytest.raises(MissingCharacter, match="é"):
        lettered("é", SINGLE_STROKE, 10.0)


def test_single_strokes_are_open_lines_of_the_asked_height():
    drawn = lettered("HI", SINGLE_STROKE, 14.0)
    assert not drawn.regions
    heights = [y for stroke in drawn.strokes for _, y in stroke]
    assert (min(heights), max(heights)) == pytest.approx((0, 14))
    assert strokes(" ") == ((), pytest.approx(16 / 21))


@pytest.mark.parametrize(("align", "low", "high"), [("left", 0, 1), ("middle", -0.5, 0.5), ("right", -1, 0)])
def test_text_is_set_from_about_or_up_to_its_place(align, low, high):
    drawn = lettered("NNN", "sans", 10.0, align)
    left = min(region.box[0] for region in drawn.regions)
    right = max(region.box[2] for region in drawn.regions)
    assert low * drawn.width - 1 < left < right < high * drawn.width + 1


@pytest.mark.parametrize(
    ("text", "height"), [("", 10.0), ("  ", 10.0), ("A", 0.1), ("A", 1e5), ("A" * 201, 10.0), ("A", math.nan)]
)
def test_texts_out_of_bounds_are_refused(text, height):
    with pytest.raises(OutOfRange):
        lettered(text, "sans", height)


def test_a_stencil_has_no_islands():
    assert all(not region.holes for region in lettered(PLAIN, "stencil", 20.0).regions)


@pytest.mark.parametrize("font", ["sans", "slab"])
def test_letters_without_bridges_drop_their_islands_and_with_them_none(font):
    drawn = lettered(PLAIN, font, 30.0)
    shapes = drawn.regions
    assert drop_outs(shapes) > 15
    assert {one.why for one in bridged(drawn.letters, 0.0).lost} == {"drops"}
    held = bridged(drawn.letters, 2.0)
    assert held.lost == ()
    assert drop_outs(held.cut) == 0
    assert len(held.bridges) >= drop_outs(shapes)


@settings(max_examples=40)
@given(st.sampled_from(["sans", "slab"]), st.text("ABDOPQRabdegopq04689&@%", min_size=1, max_size=4), st.floats(1, 3))
def test_whatever_is_written_nothing_drops_out(font, text, width):
    held = bridged(lettered(text, font, 30.0).letters, width)
    assert drop_outs(held.cut) == 0


@pytest.mark.parametrize("width", [1.0, 2.0, 3.0])
def test_bridges_are_as_wide_as_asked_and_run_one_way(width):
    """An O is cut by two bars on one axis: what they keep is two strips of that width."""
    [letter] = lettered("O", "sans", 40.0).letters
    [ring] = letter.regions
    held = bridged([letter], width)
    assert len(held.bridges) == 2
    (ax, ay), (bx, by) = held.bridges
    assert ax == pytest.approx(bx) or ay == pytest.approx(by)
    kept = ring.area - sum(region.area for region in held.cut)
    wall = (ring.outer.box[3] - ring.outer.box[1] - (ring.holes[0].box[3] - ring.holes[0].box[1])) / 2
    assert kept == pytest.approx(2 * width * wall, rel=0.25)


def test_two_islands_in_a_row_share_the_bar_between_them():
    held = bridged(lettered("8", "sans", 40.0).letters, 2.0)
    assert len(held.bridges) == 3


def test_accents_are_joined_to_their_letters():
    """e and a combining acute (U+0301) are one letter of the font, as Unicode normalises them (NFC)."""
    assert lettered("Cafe\u0301", "sans", 10.0) == lettered("Caf\u00e9", "sans", 10.0)


@pytest.mark.parametrize(
    ("text", "height", "thickness", "lost"),
    [
        ("Good bread", 10, 5.92, "odbea"),
        ("Fünf. o", 8, 3.06, ""),
        ("Fünf. o", 4, 3.06, "o"),
        ("THE REED", 6, 5.92, "RD"),
    ],
)
def test_letters_that_bridges_eat_are_named(text, height, thickness, lost):
    """The wrong file: of "Good bread" G, r and two scraps were left, and it fitted; of "Fünf. o" the dots were gone."""
    held = bridged(lettered(text, "sans", height).letters, thickness)
    assert "".join(one.letter for one in held.lost) == lost
    if lost:
        letters = lettered("".join(dict.fromkeys(text)), "sans", height).letters
        enough = least_height(letters, height, thickness)
        assert bridged(lettered(text, "sans", enough).letters, thickness).lost == ()
        assert bridged(lettered(text, "sans", enough - 1).letters, thickness).lost


def test_dots_stay_whatever_stands_beside_them():
    """Only what a bar cuts off is a speck: dots of 0.6 mm² beside an o with bars of 3.06."""
    alone, beside = (bridged(lettered(text, "sans", 8.0).letters, 3.06).cut for text in ("Fünf.", "Fünf. o"))
    assert beside[: len(alone)] == alone


@pytest.mark.parametrize("first", [0, *(pytest.param(n, marks=pytest.mark.rare) for n in (60, 120, 180, 240))])
def test_words_are_cut_whole_but_for_their_bridges_or_named(first):
    for seed in range(first, first + 60):
        check_word(seed)
