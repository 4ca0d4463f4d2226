"""`lean-notch`: a third thin caller beside the server and the page. Files and JSON in, files and JSON out."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

from .errors import BadDocument, MissingInput, NotchError

if TYPE_CHECKING:
    from .job import Job

# Heavy modules are imported inside the commands that use them: --help starts in a tenth of a second.


def main(argv: Sequence[str] | None = None) -> int:
    """Runs one command. 0: done; 1: the proof found something to stop for; 2: an error, said on stderr."""
    arguments = _parser().parse_args(argv)
    try:
        status: int = arguments.run(arguments)
    except NotchError as error:
        if arguments.json:
            print(json.dumps({"error": error.as_json()}), file=sys.stderr)
        else:
            at = f" at {error.field}" if error.field else ""
            print(f"lean-notch: {error.code}{at}: {error.why}\n  fix: {error.fix}", file=sys.stderr)
        return 2
    return status


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="lean-notch",
        description="From a measured board to a file that fits. Lengths are mm unless a unit is given.",
    )
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")

    recipe = commands.add_parser(
        "recipe", help="make a design from a recipe", description="Make a design from a recipe."
    )
    recipe.add_argument("recipe", metavar="RECIPE", help="for example open-tray")
    recipe.add_argument("--set", action="append", default=[], metavar="NAME=VALUE", help="a setting; may be repeated")
    recipe.add_argument("--name", help="the design's name; the recipe's title if left out")
    recipe.add_argument("--out", type=Path, metavar="FILE", help="where to write the design; stdout if left out")
    recipe.set_defaults(run=_recipe)

    build = commands.add_parser(
        "build", help="parts and mates of a design", description="Flat parts and mates of a design."
    )
    build.set_defaults(run=_build)
    lay_out = commands.add_parser("lay-out", help="parts on sheets", description="Where each part lies on the sheets.")
    lay_out.set_defaults(run=_lay_out)
    export = commands.add_parser(
        "export",
        help="write the files to cut",
        description="Write a file a sheet, and the packet that proves them.",
    )
    export.add_argument("--format", choices=("svg", "dxf", "pdf"), default="svg", help="file format (default: svg)")
    export.add_argument("--release", choices=("R12", "R2000"), default="R2000", help="DXF release (default: R2000)")
    _profile_options(export)
    export.add_argument("--out", type=Path, required=True, metavar="DIR", help="folder for the files; made if missing")
    export.set_defaults(run=_export)
    sheet = commands.add_parser(
        "job-sheet", help="a page for beside the machine", description="Parts, work, times: a page of HTML to print."
    )
    sheet.add_argument("--out", type=Path, metavar="FILE", help="where to write it; stdout if left out")
    sheet.set_defaults(run=_job_sheet)
    for command in (build, lay_out, export, sheet):
        command.add_argument("design", type=Path, metavar="DESIGN", help="a design, as `lean-notch recipe` writes it")
    for command in (lay_out, export, sheet):
        command.add_argument("--margin", help="from the sheet's edge (default: 4)")
        command.add_argument("--spacing", help="between parts (default: 1.5)")
        command.add_argument("--no-turns", action="store_true", help="keep every part upright")

    prove = commands.add_parser(
        "prove", help="read files back, cut them, measure", description="Read written files back, sweep a beam along every "
        "path and measure what is left. Prints JSON; status 1 if something does not fit."
    )  # fmt: skip
    prove.add_argument("files", type=Path, nargs="+", metavar="FILE", help="SVG or DXF files of one job")
    prove.add_argument(
        "--packet", type=Path, metavar="FILE", help="the job they belong to; found beside them if left out"
    )
    prove.set_defaults(run=_prove)

    profile = commands.add_parser(
        "profile",
        help="a hand-over profile to edit",
        description="Print the plain profile: layers, order, how files lie.",
    )
    profile.add_argument("--out", type=Path, metavar="FILE", help="where to write it; stdout if left out")
    profile.set_defaults(run=_profile)

    check = commands.add_parser(
        "check", help="check any SVG or DXF", description="Look for what a cutter would complain about, in any SVG or "
        "DXF. Status 1 if something is there to stop for."
    )  # fmt: skip
    check.add_argument("file", type=Path, metavar="FILE", help="an SVG or DXF file")
    check.add_argument("--close", metavar="LENGTH", default="1", help="report cuts nearer than this (default: 1)")
    check.set_defaults(run=_check)

    kerf = commands.add_parser(
        "kerf",
        help="the kerf from a test piece",
        description="The kerf, with its uncertainty, from what a test piece measures.",
    )
    kerf.add_argument("way", choices=("slats", "plug"), help="a strip cut into slats, or a plug cut from its hole")
    kerf.add_argument("--length", help="slats: the strip's length as drawn")
    kerf.add_argument("--pieces", type=int, help="slats: how many it was cut into")
    kerf.add_argument("--readings", default="", help="slats: the row's length pushed together, measured several times")
    kerf.add_argument("--hole", default="", help="plug: readings across the hole")
    kerf.add_argument("--plug", default="", help="plug: readings across the plug")
    kerf.set_defaults(run=_kerf)

    for command in (recipe, build, lay_out, export, sheet, prove, profile, check, kerf):
        command.add_argument("--basis", type=Path, metavar="FILE", help="what was measured: stock, machine, clearance")
        command.add_argument("--json", action="store_true", help="print results and errors as JSON")
    return parser


def _profile_options(export: argparse.ArgumentParser) -> None:
    export.add_argument(
        "--profile", type=Path, metavar="FILE", help="a hand-over profile, as `lean-notch profile` writes"
    )
    export.add_argument("--split", choices=("sheet", "part", "operation"), help="one file for each (default: sheet)")
    export.add_argument("--unit", choices=("mm", "in"), help="unit of the file (default: mm)")
    export.add_argument(
        "--origin",
        metavar="CORNER",
        help="where coordinates are 0: plain, lower left, upper left, lower right, upper right or centre",
    )
    export.add_argument("--y-down", action="store_true", default=None, help="DXF: y grows downwards")
    export.add_argument("--stroke", dest="stroke_mm", metavar="LENGTH", help="width of the lines (default: 0.1)")
    export.add_argument("--engrave", choices=("outline", "filled", "hatch"), help="how engraved areas are drawn")
    export.add_argument("--hatch", dest="hatch_mm", metavar="LENGTH", help="distance of hatch lines (default: 0.2)")
    export.add_argument("--lead-in", dest="lead_in_mm", metavar="LENGTH", help="come in from the waste (default: 0)")
    export.add_argument("--labels", action="store_true", default=None, help="part names on a layer that is not cut")
    export.add_argument(
        "--reference-square", action="store_true", default=None, help="a 100 mm square on a layer that is not cut"
    )


_PROFILE_OPTIONS = (
    "split", "unit", "origin", "y_down", "stroke_mm", "engrave", "hatch_mm", "lead_in_mm", "labels", "reference_square",
)  # fmt: skip


def _recipe(arguments: argparse.Namespace) -> int:
    from .design import design_to_json
    from .recipes import RECIPES

    recipe = RECIPES.get(arguments.recipe)
    if recipe is None:
        raise MissingInput(f"There is no recipe “{arguments.recipe}”.", fix=f"Use one of: {', '.join(RECIPES)}.")
    given: dict[str, object] = {}
    for setting in arguments.set:
        name, sign, value = setting.partition("=")
        if not sign:
            raise MissingInput(f"“{setting}” sets nothing.", fix="Write --set NAME=VALUE, for example --set width=150.")
        given[name.strip()] = value.strip()
    design = recipe.design(arguments.name or recipe.title, given)
    if arguments.basis:  # then the design is tried, so that an error shows at once
        from .build import build

        build(design, _basis(arguments))
    _put(design_to_json(design), arguments.out)
    return 0


def _build(arguments: argparse.Namespace) -> int:
    from .build import build
    from .design import design_from_json

    built = build(design_from_json(_load(arguments.design)), _basis(arguments))
    document = {
        "names": built.names,
        "parts": [
            {"id": p.id, "title": p.title, "quantity": p.quantity, "area": p.region.area, "box": p.region.box,
             "outline": _ring(p.region.outer), "holes": [_ring(hole) for hole in p.region.holes]}
            for p in built.parts
        ],
        "mates": [
            {"id": m.id, "title": m.title, "first": m.first.part, "second": m.second.part,
             "fingers": m.division.count, "finger": m.division.finger, "clearance": m.division.clearance}
            for m in built.mates
        ],
    }  # fmt: skip
    lines = [f"{p.quantity} x {p.title}: {_by(p.region.box)}, {len(p.region.holes)} holes" for p in built.parts]
    lines += [f"{m.title}: {m.division.count} fingers of {m.division.finger:.3f} mm" for m in built.mates]
    _say(arguments, document, lines)
    return 0


def _lay_out(arguments: argparse.Namespace) -> int:
    from .build import build
    from .job import place

    job = _job(arguments)
    layout = place(job, build(job.design, job.basis))
    document = {
        "sheets": layout.sheets,
        "sheet": {"width": layout.area.width, "height": layout.area.height},
        "placed": [
            {"part": p.part, "copy": p.copy, "sheet": p.sheet,
             "x": p.placement.x, "y": p.placement.y, "angle": p.placement.angle}
            for p in layout.placed
        ],
    }  # fmt: skip
    lines = [f"{layout.sheets} sheet{'s' * (layout.sheets > 1)} of {layout.area.width:g} x {layout.area.height:g} mm"]
    lines += [
        f"sheet {p.sheet}: {p.part} {p.copy} at {p.placement.x:.2f}, {p.placement.y:.2f} mm, turned {p.placement.angle:g}"
        for p in layout.placed
    ]
    _say(arguments, document, lines)
    return 0


def _export(arguments: argparse.Namespace) -> int:
    from .cutting import profile_from_json, profile_to_json
    from .documents import mapping
    from .job import FileFormat, compute, job_to_json, slug, write_files

    given = {name: value for name in _PROFILE_OPTIONS if (value := getattr(arguments, name)) is not None}
    known = mapping(_load(arguments.profile), "profile") if arguments.profile else {}
    result = compute(_job(arguments), profile_from_json({**known, **given}))
    file_format: FileFormat = arguments.format
    if arguments.format == "dxf" and arguments.release == "R12":
        file_format = "dxf-r12"
    written = [*write_files(result, file_format)]
    packet = {
        **job_to_json(result.job),
        "profile": profile_to_json(result.profile),
        "files": {file.name: {"sheet": file.sheet, "part": file.part, "operation": file.operation} for file in written},
    }
    names = []
    try:
        arguments.out.mkdir(parents=True, exist_ok=True)
        for file in written:
            (arguments.out / file.name).write_bytes(file.data)
            names.append(str(arguments.out / file.name))
        packet_file = arguments.out / f"{slug(result.job.design.name)}_{file_format}{_PACKET}"
        packet_file.write_text(json.dumps(packet, indent=1) + "\n")
    except OSError as error:
        raise _unwritable(error, arguments.out) from None
    _say(arguments, {"files": names, "packet": str(packet_file)}, [*names, str(packet_file)])
    return 0


_PACKET = ".packet.json"


def _job_sheet(arguments: argparse.Namespace) -> int:
    from .job import compute, job_sheet

    _put_text(job_sheet(compute(_job(arguments))), arguments.out)
    return 0


def _profile(arguments: argparse.Namespace) -> int:
    from .cutting import PLAIN, profile_to_json

    _put(profile_to_json(PLAIN), arguments.out)
    return 0


def _check(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from .job import read_any
    from .proof.check_file import check_file
    from .units import length_mm

    report = check_file(read_any(_read(arguments.file), arguments.file.name), length_mm(arguments.close))
    lines = [f"{arguments.file.name}: unit {report.unit or 'not named'}"]
    if report.box:
        lines.append(
            f"drawing {_by(report.box)}" + (f" on a page of {_by((0, 0, *report.page))}" if report.page else "")
        )
    lines += [
        f"layer {row.layer or '(none)'}: {row.paths} paths, {row.closed} closed, {row.nodes} nodes, {row.length:.1f} mm"
        for row in report.layers
    ]
    for finding in report.findings:
        at = f" at {finding.place[0]:.2f}, {finding.place[1]:.2f}" if finding.place else ""
        lines.append(f"{finding.severity}: {finding.code}{at}: {finding.why} {finding.fix}")
    lines.append("nothing to stop for" if report.sound else "do not cut it as it is")
    _say(arguments, {**asdict(report), "sound": report.sound}, lines)
    return 0 if report.sound else 1


def _kerf(arguments: argparse.Namespace) -> int:
    from .basis.kerf import kerf_of_plug, kerf_of_slats
    from .units import length_mm

    def readings(text: str) -> list[float]:
        return [length_mm(one) for one in text.replace(";", " ").split()]

    if arguments.way == "slats":
        if arguments.length is None or arguments.pieces is None:
            raise MissingInput(
                "The strip's length or the number of slats is missing.",
                fix="Write --length 120 --pieces 12.",
                field="length",
            )
        found = kerf_of_slats(length_mm(arguments.length), arguments.pieces, readings(arguments.readings))
    else:
        found = kerf_of_plug(readings(arguments.hole), readings(arguments.plug))
    document = {"kerf": found.value, "standard_uncertainty": found.standard, "within": found.expanded}
    _say(arguments, document, [f"kerf {found.value:.4f} mm, within {found.expanded:.4f} mm in 95 of 100 cases"])
    return 0


def _prove(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict, replace

    from .cutting import Layer, profile_from_json
    from .documents import mapping
    from .job import FileFormat, compute, job_from_json, prove_files

    packet = _find_packet(arguments)
    document = {**packet, "basis": _load(arguments.basis)} if arguments.basis else packet
    profile = profile_from_json(packet.get("profile", {}))
    by_format: dict[FileFormat, dict[int, list[bytes]]] = {}
    operations = set()
    for file in arguments.files:
        entry = mapping(packet["files"].get(file.name, {}), f"files.{file.name}")
        sheet = entry.get("sheet")
        if not isinstance(sheet, int):
            raise MissingInput(
                f"{file.name} is not one of the packet's files.",
                fix=f"Keep the names that export gave: {', '.join(packet['files'])}.",
            )
        if not sheet:
            raise MissingInput(
                f"{file.name} holds one part; a proof wants whole sheets.", fix="Export a file a sheet, and prove that."
            )
        operations.add(str(entry.get("operation", "")))
        kind: FileFormat = "svg" if file.suffix.lower() == ".svg" else "pdf" if file.suffix.lower() == ".pdf" else "dxf"
        by_format.setdefault(kind, {}).setdefault(sheet, []).append(_read(file))
    if "" not in operations:  # only what the files are for can be asked of them
        layers = {
            op: Layer(one.name, one.colour, one.include and op in operations) for op, one in profile.layers.items()
        }
        profile = replace(profile, layers=layers)
    result = compute(job_from_json(document), profile)
    proofs = [prove_files(result, files, kind) for kind, files in by_format.items()]
    parts, mates, findings = (
        [asdict(row) for proof in proofs for row in getattr(proof, rows)] for rows in ("parts", "mates", "findings")
    )
    fits = not any(finding["severity"] == "stop" for finding in findings)
    print(json.dumps({"fits": fits, "findings": findings, "parts": parts, "mates": mates}, indent=1))
    verdict = "it fits" if fits else "it does not fit as it is"
    print(
        f"{len(parts)} parts and {len(mates)} joints measured, {len(findings)} findings: {verdict}.",
        file=sys.stderr,
    )
    return 0 if fits else 1


def _find_packet(arguments: argparse.Namespace) -> dict[str, Any]:
    if arguments.packet:
        return _packet(arguments.packet)
    names = {file.name for file in arguments.files}
    for candidate in sorted(arguments.files[0].parent.glob(f"*{_PACKET}")):
        packet = _packet(candidate)
        if names <= packet["files"].keys():
            return packet
    raise MissingInput(
        f"No packet beside {arguments.files[0].name} lists {'it' if len(names) == 1 else 'these files'}.",
        fix="Prove the files where `lean-notch export` wrote them, or name the packet with --packet.",
    )


def _packet(file: Path) -> dict[str, Any]:
    from .documents import entry, mapping

    packet = mapping(_load(file), "packet")
    return {**packet, "files": mapping(entry(packet, "files", "packet"), "packet.files")}


def _job(arguments: argparse.Namespace) -> Job:
    from .design import design_from_json
    from .job import Job, settings_from_json

    given = {"margin": arguments.margin, "spacing": arguments.spacing}
    settings = {name: value for name, value in given.items() if value is not None}
    return Job(
        design_from_json(_load(arguments.design)),
        _basis(arguments),
        settings_from_json({**settings, "quarter_turns": not arguments.no_turns}),
    )


def _basis(arguments: argparse.Namespace) -> Any:
    from .basis import basis_from_json

    if not arguments.basis:
        raise MissingInput("No basis is given.", fix="Name what was measured: --basis basis.json.", field="basis")
    return basis_from_json(_load(arguments.basis))


def _read(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise MissingInput(
            f"{path} cannot be read: {error.strerror}.", fix="Check the file's name and place."
        ) from None


def _load(path: Path) -> Any:
    try:
        return json.loads(_read(path))
    except (json.JSONDecodeError, UnicodeDecodeError) as error:
        raise BadDocument(
            f"{path} is no JSON: {error}.", fix="Name a file that lean-notch wrote, or mend it there."
        ) from None


def _put(document: Any, out: Path | None) -> None:
    _put_text(json.dumps(document, indent=1, ensure_ascii=False) + "\n", out)


def _put_text(text: str, out: Path | None) -> None:
    if out is None:
        sys.stdout.write(text)
        return
    try:
        out.write_text(text)
    except OSError as error:
        raise _unwritable(error, out) from None


def _unwritable(error: OSError, path: Path) -> NotchError:
    return MissingInput(f"{path} cannot be written: {error.strerror}.", fix="Choose a folder that you may write to.")


def _say(arguments: argparse.Namespace, document: Any, lines: Sequence[str]) -> None:
    print(json.dumps(document, indent=1) if arguments.json else "\n".join(lines))


def _ring(ring: Any) -> Any:
    from .geometry import Circle

    return {"centre": (ring.x, ring.y), "radius": ring.radius} if isinstance(ring, Circle) else ring.vertices


def _by(box: tuple[float, float, float, float]) -> str:
    return f"{box[2] - box[0]:.2f} x {box[3] - box[1]:.2f} mm"


if __name__ == "__main__":
    sys.exit(main())
