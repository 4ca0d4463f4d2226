"""The Measure stop from a shell: the whole round, and what it says to slips."""

import json
from pathlib import Path

import pytest
from lean_notch.cli.main import main

ROOT = Path(__file__).resolve().parents[2]
BASIS = str(ROOT / "demo" / "basis.json")


def told(capsys, *arguments):
    """What a command says as JSON."""
    assert main([*arguments, "--json"]) == 0
    return json.loads(capsys.readouterr().out)


def refused(capsys, *arguments):
    assert main([*arguments, "--json"]) == 2
    return json.loads(capsys.readouterr().err)["error"]


def piece(capsys, tmp_path, way, *arguments):
    [file] = told(capsys, "test-piece", way, "--basis", BASIS, "--out", str(tmp_path), *arguments)["files"]
    return file


def listed(values):
    return " ".join(f"{value:.2f}" for value in values)


@pytest.mark.parametrize("kind", ["svg", "dxf"])
def test_slats_cut_on_a_practice_machine_tell_the_kerf_it_hides(kind, tmp_path, capsys):
    file = piece(capsys, tmp_path, "slats", "--set", "length=120", "--set", "pieces=12", "--format", kind)
    cut = told(capsys, "practice", "cut", file, "--seed", "41")
    found = told(capsys, "kerf", "slats", "--length", "120", "--pieces", "12", "--readings", listed(cut["row"]))
    truth = told(capsys, "practice", "tell", "--seed", "41")
    assert found["kerf"] == pytest.approx(truth["kerf"], abs=0.01)
    assert 0 < found["within"] < 0.01
    assert found["notes"] == []


def test_plug_and_hole_tell_the_same_less_exactly(tmp_path, capsys):
    cut = told(capsys, "practice", "cut", piece(capsys, tmp_path, "plug"), "--seed", "41")
    found = told(capsys, "kerf", "plug", "--hole", listed(cut["hole"]), "--plug", listed(cut["plug"]))
    truth = told(capsys, "practice", "tell", "--seed", "41")
    assert abs(found["kerf"] - truth["kerf"]) <= 2 * found["within"]


def test_a_comb_tells_the_fits(tmp_path, capsys):
    cut = told(capsys, "practice", "cut", piece(capsys, tmp_path, "comb"), "--seed", "41")
    found = told(capsys, "kerf", "comb", "--answers", ", ".join(cut["answers"]))
    assert found["press"] < found["snug"] < found["slide"] < found["free"]
    assert found["within"] == pytest.approx(0.02)


def test_a_routers_practice_machine_is_another_one(tmp_path, capsys):
    laser = told(capsys, "practice", "tell", "--seed", "5")
    router = told(capsys, "practice", "tell", "--seed", "5", "--tool", "1/4 in", "--sold-as", "12")
    assert laser["kerf"] < 0.3
    assert router["kerf"] == pytest.approx(6.35, abs=0.13)
    assert router["board"] == pytest.approx(12, rel=0.06)


def test_one_reading_is_taken_with_a_word_of_warning(capsys):
    assert main(["kerf", "slats", "--length", "100", "--pieces", "10", "--readings", "98.6"]) == 0
    said = capsys.readouterr().out
    assert "kerf 0.1400 mm" in said
    assert "One reading shows no spread" in said


def test_a_list_in_inches_is_one_list(capsys):
    """1959: 25.4 mm; by hand (100 - 3.8819 x 25.4) / 10."""
    found = told(capsys, "kerf", "slats", "--length", "100", "--pieces", "10", "--readings", "3.8819 3.8819 in")
    assert found["kerf"] == pytest.approx((100 - 3.8819 * 25.4) / 10)


def test_a_design_is_tried_on_boards_side_by_side(tmp_path, capsys):
    design = str(tmp_path / "tray.json")
    assert main(["recipe", "open-tray", "--out", design]) == 0
    capsys.readouterr()
    small = json.loads((ROOT / "demo" / "basis.json").read_text())
    small["stock"] |= {"sheet_width": 90, "sheet_height": 90}
    (tmp_path / "scrap.json").write_text(json.dumps(small))
    acrylic = str(ROOT / "demo" / "basis-acrylic.json")
    tries = told(capsys, "try", design, "--basis", BASIS, "--on", acrylic, "--on", str(tmp_path / "scrap.json"))
    now, clear, scrap = tries["tries"]
    assert (now["changes"], now["failing"]) == ([], [])
    assert {"outside width", "thickness"} <= {row["what"] for row in clear["changes"]}
    assert scrap["error"]["code"] == "part-too-large"
    assert main(["try", design, "--basis", BASIS, "--on", str(tmp_path / "scrap.json")]) == 0
    assert "cannot be made" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("arguments", "code", "field"),
    [
        (["kerf", "slats", "--readings", "98.6"], "missing-input", "length"),
        (["kerf", "slats", "--length", "100", "--pieces", "10"], "out-of-range", "readings"),
        (["kerf", "slats", "--length", "100", "--pieces", "10", "--readings", "98.6 x"], "not-a-length", "readings[0]"),
        (
            ["kerf", "slats", "--length", "100", "--pieces", "10", "--readings", "98.6 986 98.6"],
            "readings-disagree",
            "readings[1]",
        ),
        (["kerf", "slats", "--length", "100", "--pieces", "10", "--readings", "101"], "out-of-range", "slats"),
        (["kerf", "comb", "--answers", "holds, slides, holds"], "readings-disagree", "answers[2]"),
        (["kerf", "comb", "--answers", "holds, wobbles, slides"], "bad-document", "answers[1]"),
        (["kerf", "comb"], "out-of-range", "answers"),
        (["practice", "cut", "--seed", "1"], "missing-input", "file"),
        (["practice", "cut", __file__, "--seed", "1"], "unreadable-file", ""),
        (["practice", "tell", "--seed", "1", "--sold-as", "0"], "out-of-range", "sold-as"),
        (
            ["test-piece", "slats", "--basis", BASIS, "--out", "nowhere", "--set", "pieces=1"],
            "bad-document",
            "pieces",
        ),
    ],
)
def test_slips_are_said_at_their_place_with_a_fix(arguments, code, field, capsys):
    error = refused(capsys, *arguments)
    assert (error["code"], error["field"]) == (code, field)
    assert error["fix"]


@pytest.mark.parametrize("command", ["test-piece", "practice", "kerf", "try"])
def test_every_command_of_measure_has_help(command, capsys):
    with pytest.raises(SystemExit) as ended:
        main([command, "--help"])
    assert ended.value.code == 0
    assert "--json" in capsys.readouterr().out
