"""Small files that unfold to much, and tangled ones: counted before they are unfolded, or said not to be compared."""

from __future__ import annotations

import hostile
import pytest
from lean_notch.ground.errors import UnreadableFile
from lean_notch.hand_over.reading import read_any
from lean_notch.proof.check_file import check_file


def read(data: bytes):
    return read_any(data, "x.svg" if data.startswith(b"<") else "x.dxf")


@pytest.mark.parametrize(("data", "why"), [
    (hostile.nested_uses(9), "3,580,246,903 elements, copies counted"),
    (hostile.nested_blocks(9), "elements, copies counted"),
    (hostile.insert_array(30_000, 30_000), "900,000,001 elements"),
    (hostile.circles_of_uses(), "holds itself"),
])  # fmt: skip
def test_copies_are_counted_before_any_is_made(data, why):
    with pytest.raises(UnreadableFile, match=why):
        read(data)  # unfolding would take hours, and more memory than there is


def test_more_lines_or_curves_than_are_read_are_refused(monkeypatch):
    monkeypatch.setattr("lean_notch.formats.read_file.MOST_LINES", 2000)
    for data in (hostile.many_lines(2001), hostile.wild_cubics(100), hostile.shattered_circles(11, 200)):
        with pytest.raises(UnreadableFile, match="more lines and curves than are read"):
            read(data)
    assert len(read(hostile.shattered_circles(10, 199)).paths) == 10


def test_every_copy_of_an_array_of_inserts_is_read():
    paths = read(hostile.insert_array(3, 4)).paths
    assert sorted(path.segments[0].start for path in paths) == [(2.0 * x, 2.0 * y) for x in range(4) for y in range(3)]


def test_what_lies_in_one_place_many_times_is_said_of_each_but_the_first():
    report = check_file(read(hostile.nested_uses(3)))
    twice = [one for one in report.findings if one.code == "cut-twice"]
    assert [one.why for one in twice[-2:]] == ["Path number 21 on “l3” is doubled.", "979 more of the same kind."]
    assert not report.sound


def test_a_tangle_is_not_called_sound_and_says_what_was_not_looked_for(monkeypatch):
    monkeypatch.setattr("lean_notch.proof.check_lines.MOST_PAIRS", 1000)
    monkeypatch.setattr("lean_notch.proof.check_lines.MOST_NEAR", 1000)
    drawing = read(hostile.combs(40))
    report = check_file(drawing)
    places = [place for path in drawing.paths for one in path.segments for place in (one.start, one.end)]
    middle = [(min(some) + max(some)) / 2 for some in zip(*places, strict=True)]
    assert [one.place for one in report.findings if one.code == "too-tangled"] == [pytest.approx(middle)] * 2
    said = [one.why for one in report.findings if one.code == "too-tangled"]
    assert len(said) == 2
    assert "crossings were not looked for" in said[0]
    assert "cuts nearer than 1 mm were not looked for" in said[1]
    assert not report.sound


def test_lines_that_cross_in_one_place_are_no_doubles():
    """Two of them, turned against each other, have one box and one length."""
    report = check_file(read(hostile.crossing_lines(60)))
    assert [one.code for one in report.findings if one.severity == "stop"] == []
