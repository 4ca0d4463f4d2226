"""Files and packets that somebody handled: renamed, changed by hand, written in another encoding."""

import json
from pathlib import Path

import pytest
from lean_notch.basis.misspelt import check_entries
from lean_notch.cli.main import main
from lean_notch.cli.packets import format_of
from lean_notch.formats.dxf_read import read_dxf
from lean_notch.ground.errors import BadDocument
from lean_notch.hand_over.reading import read_any
from lean_notch.job import job_to_json
from plates import disc, plate


@pytest.fixture
def out(tmp_path, capsys):
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(plate(disc("h", 8, x=20, y=20)))))
    for file_format in ("svg", "dxf"):
        folder = str(tmp_path / "out")
        assert main(["export", str(tmp_path / "job.json"), "--out", folder, "--format", file_format]) == 0
    capsys.readouterr()
    return tmp_path / "out"


def changed(out, change):
    [packet] = out.glob("*_svg.packet.json")
    document = json.loads(packet.read_text())
    change(document)
    packet.write_text(json.dumps(document))


def prove(out, suffix=".svg"):
    return main(["prove", *(str(one) for one in out.glob(f"*{suffix}"))])


@pytest.mark.parametrize(
    ("entry", "value"),
    [("origin", "centre"), ("unit", "in"), ("order", ["cut", "score", "fold", "pocket", "engrave", "reference"])],
)
def test_a_packet_that_asks_for_another_file_is_not_met_by_this_one(out, capsys, entry, value):
    """The wrong packets: origin, unit or order changed by hand, and the file "fits" that is not so."""
    changed(out, lambda document: document["profile"].update({entry: value}))
    told = prove(out)
    if entry == "order":  # there is nothing but cuts in it: any order is met
        assert told == 0
        return
    assert told == 1
    code = {"origin": "origin-astray", "unit": "unit-astray"}[entry]
    assert code in [one["code"] for one in json.loads(capsys.readouterr().out)["findings"]]


def test_a_sheet_that_is_not_there_is_named(out, capsys):
    changed(out, lambda document: [one.update(sheet=2) for one in document["files"].values()])
    assert prove(out) == 2
    assert "is no file of “Plate” as its profile splits it" in capsys.readouterr().err


def test_a_renamed_file_is_known_by_what_is_in_it(out, capsys):
    [file] = out.glob("*.svg")
    renamed = file.rename(file.with_name(f"{file.stem} (1).svg"))
    assert prove(out) == 0
    capsys.readouterr()
    renamed.write_bytes(renamed.read_bytes() + b"<!-- -->")
    assert prove(out) == 2
    assert "a renamed file that was changed needs its old name" in capsys.readouterr().err


def test_a_slip_in_the_name_of_an_entry_is_told_and_not_passed_over(out, capsys):
    """The silent basis: “redings” or “kerff” was no error, and something usual stood in its place."""
    changed(out, lambda document: document["basis"]["boards"]["main"]["machine"].update(orgin="upper left"))
    assert prove(out) == 2
    said = capsys.readouterr().err
    assert "“machine.orgin” is not known" in said
    assert "Did you mean “origin”?" in said
    board = job_to_json(plate())["basis"]["boards"]["main"]
    check_entries(
        {**board, "into": {"dividers": 0.1}, "stock": {**board["stock"], "note": "third shelf", "offcuts": []}}
    )
    for where, name in (("stock", "redings"), ("fits", "snugg")):
        with pytest.raises(BadDocument) as error:
            check_entries({**board, where: {**board[where], name: 1}})
        assert error.value.field == f"{where}.{name}"


def test_other_encodings_are_read_alike(out):
    [svg], [dxf] = out.glob("*.svg"), out.glob("*.dxf")
    text = svg.read_text().replace("UTF-8", "UTF-16")
    plain = read_any(svg.read_bytes(), svg.name)
    assert read_any(text.encode("utf-16"), svg.name).paths == plain.paths
    assert read_any(b"\xef\xbb\xbf" + svg.read_bytes(), svg.name).paths == plain.paths
    assert read_dxf(b"\xef\xbb\xbf" + dxf.read_bytes()).paths == read_dxf(dxf.read_bytes()).paths
    assert read_any(b"\xef\xbb\xbf" + dxf.read_bytes(), dxf.name).paths


@pytest.mark.parametrize(
    ("named", "file", "format"),
    [("dxf-r12", "a.svg", "dxf-r12"), (None, "a.SVG", "svg"), (None, "a.pdf", "pdf"), ("odd", "a.dxf", "dxf"), ([], "a.txt", "dxf")],
)  # fmt: skip
def test_the_format_is_as_the_packet_says_or_by_the_files_name(named, file, format):
    assert format_of({"format": named}, Path(file)) == format
