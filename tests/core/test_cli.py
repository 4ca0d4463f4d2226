"""The command line: its documentation's own examples, errors, speed of starting."""

import json
import os
import re
import shlex
import subprocess
import sys
from pathlib import Path

import pytest
from lean_notch.cli.main import main

ROOT = Path(__file__).resolve().parents[2]
BASIS = str(ROOT / "demo" / "basis.json")


def run(*arguments: str, cwd: Path) -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "PYTHONPATH": str(ROOT / "core")}
    command = [sys.executable, "-m", "lean_notch.cli.main", *arguments]
    return subprocess.run(command, cwd=cwd, env=environment, capture_output=True, text=True, check=False)


def test_the_documentations_examples_run_as_they_stand(tmp_path):
    (tmp_path / "demo").symlink_to(ROOT / "demo")
    text = (ROOT / "docs" / "command-line.md").read_text()
    ran = 0
    for block in re.findall(r"```console\n(.*?)```", text, re.DOTALL):
        for example in re.split(r"^\$ ", block, flags=re.MULTILINE)[1:]:
            command, _, expected = example.partition("\n")
            done = run(*shlex.split(command)[1:], cwd=tmp_path)
            printed = done.stderr if done.returncode == 2 else done.stdout
            wanted, cut, _ = expected.partition("...\n")
            assert printed.startswith(wanted) if cut else printed == wanted, command
            ran += 1
    assert ran >= 8


@pytest.fixture
def tray(tmp_path):
    file = tmp_path / "tray.json"
    assert main(["recipe", "open-tray", "--name", "Étui", "--out", str(file)]) == 0
    return str(file)


def test_build_as_json_gives_outlines(tray, capsys):
    assert main(["build", tray, "--basis", BASIS, "--json"]) == 0
    built = json.loads(capsys.readouterr().out)
    assert [part["id"] for part in built["parts"]] == ["front", "back", "left", "right", "base"]
    assert built["names"]["outside_width"] == pytest.approx(156.12)
    assert all(len(vertex) == 3 for vertex in built["parts"][0]["outline"])


@pytest.mark.parametrize("options", [["--format", "svg"], ["--format", "dxf"], ["--format", "dxf", "--release", "R12"]])
def test_what_is_exported_is_proved(tray, tmp_path, capsys, options):
    out = tmp_path / "new" / "folder"
    assert main(["export", tray, "--basis", BASIS, *options, "--out", str(out), "--json"]) == 0
    written = json.loads(capsys.readouterr().out)
    assert Path(written["files"][0]).name.startswith("etui_poplar-ply_3.06mm_sheet-1")
    assert main(["prove", *written["files"]]) == 0
    report = capsys.readouterr()
    assert json.loads(report.out)["fits"] is True
    assert json.loads(report.out)["verdict"] == "fits"
    said = "5 parts and 8 joints measured, 1 finding: Fits, if the kerf is 0.14 mm (typed in, not measured)."
    assert said in report.err


def test_a_proof_that_fails_says_so_in_its_status(tray, tmp_path, capsys):
    main(["export", tray, "--basis", BASIS, "--out", str(tmp_path), "--json"])
    [file] = json.loads(capsys.readouterr().out)["files"]
    assert main(["prove", file, "--basis", str(ROOT / "demo" / "basis-wide-kerf.json")]) == 1
    findings = json.loads(capsys.readouterr().out)["findings"]
    assert {"why", "fix", "place", "amount", "code"} <= findings[0].keys()


@pytest.mark.parametrize(
    ("arguments", "code"),
    [
        (["recipe", "no-such-recipe"], "missing-input"),
        (["recipe", "open-tray", "--set", "width"], "missing-input"),
        (["recipe", "open-tray", "--set", "sizes=around"], "bad-document"),
        (["build", "nowhere.json", "--basis", BASIS], "missing-input"),
        (["build", BASIS, "--basis", BASIS], "bad-document"),
        (["build", __file__, "--basis", BASIS], "bad-document"),
        (["prove", __file__], "missing-input"),
    ],
)
def test_errors_name_code_and_fix_and_end_with_2(arguments, code, capsys):
    assert main([*arguments, "--json"]) == 2
    error = json.loads(capsys.readouterr().err)["error"]
    assert error["code"] == code
    assert error["fix"]


@pytest.mark.parametrize("packet", ["[]", "{}", '{"files": 3}', '{"files": {"a.svg": 1}}', "nonsense"])
def test_a_broken_packet_is_an_error(packet, tmp_path, capsys):
    (tmp_path / "a.svg").write_text("<svg/>")
    (tmp_path / "a.packet.json").write_text(packet)
    assert main(["prove", str(tmp_path / "a.svg"), "--json"]) == 2
    assert json.loads(capsys.readouterr().err)["error"]["fix"]


def test_a_missing_basis_is_asked_for(tray, capsys):
    assert main(["build", tray]) == 2
    assert "--basis basis.json" in capsys.readouterr().err


def test_a_folder_that_cannot_be_written_is_an_error(tray, capsys):
    assert main(["export", tray, "--basis", BASIS, "--out", f"{tray}/inside"]) == 2
    assert "cannot be written" in capsys.readouterr().err


def test_quick_commands_import_nothing_heavy(tmp_path):
    """Starting fast is a matter of imports, which can be counted without a clock."""
    code = (
        "import sys; from lean_notch.cli.main import main\n"
        f"main(['recipe', 'open-tray', '--out', {str(tmp_path / 't.json')!r}, '--basis', {BASIS!r}])\n"
        "print([m for m in ('numpy', 'shapely', 'ezdxf', 'lxml', 'scipy', 'django') if m in sys.modules])"
    )
    environment = {**os.environ, "PYTHONPATH": str(ROOT / "core")}
    done = subprocess.run([sys.executable, "-c", code], env=environment, capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


@pytest.mark.parametrize("command", ["recipe", "build", "lay-out", "export", "prove"])
def test_every_command_has_help(command, capsys):
    with pytest.raises(SystemExit) as ended:
        main([command, "--help"])
    assert ended.value.code == 0
    assert "--basis" in capsys.readouterr().out
