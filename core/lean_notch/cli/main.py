"""`lean-notch`: a third thin caller beside the server and the page. Files and JSON in, files and JSON out."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from ..ground.errors import MissingInput, NotchError
from ..ground.wording import counted
from ..lengths.figures import Figure
from .edit import add_editing
from .files import (
    basis,
    by,
    job,
    load,
    outlines,
    outlines_beside,
    proof_lines,
    put,
    put_bytes,
    put_text,
    read,
    ring,
    say,
    shown_proofs,
    write_packet,
)
from .joints import add_joining
from .measure import add_measuring, settings

if TYPE_CHECKING:
    from ..hand_over.files import FileFormat
from .packets import file_of, find_packet, format_of
from .profile_options import PROFILE_OPTIONS, add_profile_options, print_profile

# Heavy modules are imported inside the commands that use them: --help starts in a tenth of a second.


def main(argv: Sequence[str] | None = None) -> int:
    """Runs one command. 0: done, or it fits; 1: there is something to stop for; 2: it could not be run, for what was given;
    3: something unexpected, in one line, or with its traceback if --traceback asks for it; 4: it fits as far as seen."""
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
    except BrokenPipeError:  # whoever reads has had enough
        sys.stderr.close()
        return 0
    except Exception as error:
        if arguments.traceback:
            raise
        where = f"{type(error).__name__}: {str(error).splitlines()[0] if str(error) else 'no reason given'}"
        if arguments.json:
            print(
                json.dumps({"error": {"code": "unexpected", "why": where, "fix": _REPORT, "field": "", "mend": ""}}),
                file=sys.stderr,
            )
        else:
            print(f"lean-notch: unexpected: {where}. {_REPORT}", file=sys.stderr)
        return 3
    return status


_REPORT = "This is a fault of Lean Notch: report it with the output of the same command and --traceback."


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

    recipes = commands.add_parser(
        "recipes",
        help="all recipes with their settings",
        description="What there is to start from, and what it asks for.",
    )
    recipes.set_defaults(run=_recipes)

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
    add_profile_options(export)
    export.add_argument("--out", type=Path, required=True, metavar="DIR", help="folder for the files; made if missing")
    export.set_defaults(run=_export)
    sheet = commands.add_parser(
        "job-sheet",
        help="a page for beside the machine",
        description="The sheet as it lies, parts, work, times: a page to print, HTML or PDF.",
    )
    sheet.add_argument("--out", type=Path, metavar="FILE", help="where to write it, HTML or .pdf; stdout if left out")
    sheet.add_argument("--paper", default="A4", help="A3, A4, A5, Letter, or WxH in mm (default: A4)")
    sheet.set_defaults(run=_job_sheet)
    for command in (build, lay_out, export, sheet):
        command.add_argument("design", type=Path, metavar="DESIGN", help="a design or a job's document")
    for command in (lay_out, export, sheet):
        command.add_argument("--margin", help="from the sheet's edge (default: 4)")
        command.add_argument("--spacing", help="between parts (default: 1.5)")
        command.add_argument("--no-turns", action="store_true", help="keep every part upright")

    prove = commands.add_parser(
        "prove", help="read files back, cut them, measure", description="Read written files back, sweep a beam along every "
        "path, measure what is left and stand it up. Prints JSON. Status 0: it fits; 1: it does not; 4: as far as seen, with what "
        "was not looked at."
    )  # fmt: skip
    prove.add_argument("files", type=Path, nargs="+", metavar="FILE", help="SVG, DXF or PDF files of one job")
    prove.add_argument(
        "--packet", type=Path, metavar="FILE", help="the job they belong to; found beside them if left out"
    )
    prove.add_argument("--changed", action="store_true", help="prove files that were changed since they were exported")
    prove.set_defaults(run=_prove)

    profile = commands.add_parser(
        "profile",
        help="a hand-over profile to edit",
        description="Print the plain profile: layers, order, how files lie.",
    )
    profile.add_argument("--out", type=Path, metavar="FILE", help="where to write it; stdout if left out")
    profile.set_defaults(run=print_profile)

    check = commands.add_parser(
        "check", help="check any SVG or DXF", description="Look for what a cutter would complain about, in any SVG or "
        "DXF. Status 1 if something is there to stop for."
    )  # fmt: skip
    check.add_argument("file", type=Path, metavar="FILE", help="an SVG or DXF file")
    check.add_argument("--close", metavar="LENGTH", default="1", help="report cuts nearer than this (default: 1)")
    check.set_defaults(run=_check)

    own = [*add_measuring(commands), *add_editing(commands), *add_joining(commands)]
    for command in (recipe, recipes, build, lay_out, export, sheet, prove, profile, check, *own):
        command.add_argument(
            "--basis", action="append", default=[], metavar="[BOARD=]FILE",
            help="what was measured: stock, machine, clearance; one for each board of the design",
        )  # fmt: skip
        command.add_argument("--json", action="store_true", help="print results and errors as JSON")
        command.add_argument("--traceback", action="store_true", help="show where something unexpected happened")
    return parser


def _recipe(arguments: argparse.Namespace) -> int:
    from ..design import design_to_json
    from ..recipes import RECIPES

    recipe = RECIPES.get(arguments.recipe)
    if recipe is None:
        raise MissingInput(f"There is no recipe “{arguments.recipe}”.", fix=f"Use one of: {', '.join(RECIPES)}.")
    design = recipe.design(arguments.name or recipe.title, settings(arguments.set))
    if arguments.basis:  # then the design is tried, so that an error shows at once
        from ..making import build

        build(design, basis(arguments, [board.id for board in design.boards]))
    put(design_to_json(design), arguments.out)
    return 0


def _recipes(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..recipes import RECIPES

    lines = []
    for one in RECIPES.values():
        lines.append(f"{one.name}: {one.about}")
        for setting in one.settings:
            choices = f" ({', '.join(setting.choices)})" if setting.choices else ""
            given = (
                f"{setting.default} mm" if setting.kind == "length" and setting.default else setting.default or "empty"
            )
            lines.append(
                f"  {setting.name}: {setting.title}{choices}, {given}{f'; {setting.help}' if setting.help else ''}"
            )
    document = [
        {"name": one.name, "title": one.title, "about": one.about, "settings": [asdict(each) for each in one.settings]}
        for one in RECIPES.values()
    ]
    say(arguments, document, lines)
    return 0


def _build(arguments: argparse.Namespace) -> int:
    from ..making import build

    known = job(arguments)
    built = build(known.design, known.basis, outlines(arguments))
    document = {
        "names": built.names,
        "parts": [
            {"id": p.id, "title": p.title, "quantity": p.quantity, "area": p.region.area, "box": p.region.box,
             "outline": ring(p.region.outer), "holes": [ring(hole) for hole in p.region.holes]}
            for p in built.parts
        ],
        "mates": [
            {"id": m.id, "title": m.title, "first": m.first.part, "second": m.second.part,
             "kind": m.kind, "contacts": len(m.contacts), "width": m.contacts[0].width if m.contacts else None,
             "clearance": m.contacts[0].clearance if m.contacts else None}
            for m in built.mates
        ],
        "findings": [vars(finding) for finding in built.findings],
    }  # fmt: skip
    lines = [f"{p.quantity} × {p.title}: {by(p.region.box)}, {len(p.region.holes)} holes" for p in built.parts]
    lines += [
        f"{m.title}: {', '.join((m.about, *(_figure(one) for one in m.figures if one.source == 'computed')))}"
        for m in built.mates
    ]
    lines += [
        f"{finding.severity}: {finding.code} at {finding.field}: {finding.why} {finding.fix}"
        for finding in built.findings
    ]
    say(arguments, document, lines)
    return 0


def _figure(figure: Figure) -> str:
    """A row of a joint in a few words: "7 fingers", "finger pitch 9.009 mm"."""
    assert figure.value is not None, "computed rows have a value"
    return f"{figure.value:g} {figure.title}" if figure.kind == "count" else f"{figure.title} {figure.value:.3f} mm"


def _lay_out(arguments: argparse.Namespace) -> int:
    from ..job import compute

    layout = compute(job(arguments), outlines=outlines(arguments)).layout
    document = {
        "sheets": [
            {"number": s.number, "board": s.board, "width": s.area.width, "height": s.area.height} for s in layout.sheets
        ],
        "placed": [
            {"part": p.part, "copy": p.copy, "sheet": p.sheet,
             "x": p.motion.x, "y": p.motion.y, "angle": p.motion.angle}
            for p in layout.placed
        ],
        "left": [{"part": one.part, "count": one.count, **one.error.as_json()} for one in layout.left],
    }  # fmt: skip
    lines = [f"sheet {s.number}: {s.board}, {s.area.width:g} × {s.area.height:g} mm" for s in layout.sheets]
    lines += [
        f"sheet {p.sheet}: {p.part} {p.copy} at {p.motion.x:.2f}, {p.motion.y:.2f} mm, turned {p.motion.angle:g}"
        for p in layout.placed
    ]
    lines += [f"on no sheet: {one.part} x{one.count}: {one.error.why} {one.error.fix}" for one in layout.left]
    say(arguments, document, lines)
    return int(bool(layout.left))


def _export(arguments: argparse.Namespace) -> int:
    from ..cutting import profile_from_json
    from ..documents.plain import mapping
    from ..formats.file_kinds import not_held
    from ..job import compute

    given = {name: value for name in PROFILE_OPTIONS if (value := getattr(arguments, name)) is not None}
    known = mapping(load(arguments.profile), "profile") if arguments.profile else {}
    result = compute(job(arguments), profile_from_json({**known, **given}), outlines(arguments))
    file_format: FileFormat = arguments.format
    if arguments.format == "dxf" and arguments.release == "R12":
        file_format = "dxf-r12"
    proofs, packet_file = write_packet(result, file_format, arguments.out)
    names = [one.name for one in proofs]
    lines = proof_lines(proofs)
    lines += [f"look: {one.why} {one.fix}" for one in not_held(result.profile, file_format)]
    say(arguments, {"files": names, "packet": packet_file, "proofs": shown_proofs(proofs)}, [*lines, packet_file])
    return 0


def _job_sheet(arguments: argparse.Namespace) -> int:
    from ..formats.paper import page_size
    from ..formats.paper_html import write_html
    from ..hand_over.job_sheet import job_sheet
    from ..job import compute

    paper = job_sheet(compute(job(arguments), outlines=outlines(arguments)))
    size = page_size(arguments.paper)
    if arguments.out and arguments.out.suffix.lower() == ".pdf":
        from ..formats.paper_pdf import write_pdf_paper

        put_bytes(write_pdf_paper(paper, size), arguments.out)
    else:
        put_text(write_html(paper, size), arguments.out)
    return 0


def _check(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..hand_over.reading import read_any
    from ..lengths.length import length_mm
    from ..proof.check_file import check_file

    report = check_file(read_any(read(arguments.file), arguments.file.name), length_mm(arguments.close))
    lines = [f"{arguments.file.name}: unit {report.unit or 'not named'}"]
    if report.box:
        lines.append(f"drawing {by(report.box)}" + (f" on a page of {by((0, 0, *report.page))}" if report.page else ""))
    lines += [
        f"layer {row.layer or '(none)'}: {row.paths} paths, {row.closed} closed, {row.nodes} nodes, {row.length:.1f} mm"
        for row in report.layers
    ]
    for finding in report.findings:
        at = f" at {finding.place[0]:.2f}, {finding.place[1]:.2f}" if finding.place else ""
        lines.append(f"{finding.severity}: {finding.code}{at}: {finding.why} {finding.fix}")
    lines.append("nothing to stop for" if report.sound else "do not cut it as it is")
    say(arguments, {**asdict(report), "sound": report.sound}, lines)
    return 0 if report.sound else 1


def _prove(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict, replace

    from ..basis.misspelt import check_entries
    from ..cutting import profile_from_json
    from ..hand_over.proving import prove_files
    from ..job import compute, job_from_json
    from ..proof import NOT_LOOKED_AT

    packet_file, packet = find_packet(arguments)
    document = {name: one for name, one in packet.items() if name not in ("profile", "files", "format")}
    known = job_from_json(document)
    check_entries(document["basis"])
    if arguments.basis:
        known = replace(known, basis=basis(arguments, [board.id for board in known.design.boards]))
    result = compute(known, profile_from_json(packet.get("profile", {})), outlines_beside(packet_file))
    files = [file_of(packet, file, changed=arguments.changed) for file in arguments.files]
    formats = dict.fromkeys(format_of(packet, file) for file in arguments.files)
    if len(formats) > 1:
        raise MissingInput("The files are of different formats.", fix="Prove the files of one format at a time.")
    found = prove_files(result, files, next(iter(formats)))
    proof = found.proof
    document = {
        "verdict": proof.verdict, "fits": proof.fits, "sentence": proof.sentence, "provided": proof.provided,
        "not_looked_at": NOT_LOOKED_AT, "files": shown_proofs(found.files),
        **{rows: [asdict(row) for row in getattr(proof, rows)] for rows in ("findings", "parts", "mates")},
    }  # fmt: skip
    print(json.dumps(document, indent=1))
    numbers = ((len(proof.parts), "part"), (len(proof.mates), "joint"), (len(proof.findings), "finding"))
    parts, joints, findings = (counted(count, what) for count, what in numbers)
    print(f"{parts} and {joints} measured, {findings}: {proof.sentence}.", file=sys.stderr)
    for one in proof.findings:
        if one.severity == "unseen":
            print(f"not looked at: {one.why}", file=sys.stderr)
    return {"fits": 0, "does-not-fit": 1, "as-far-as-seen": 4}[proof.verdict]


if __name__ == "__main__":
    sys.exit(main())
