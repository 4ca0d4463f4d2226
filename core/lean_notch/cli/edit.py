"""The commands that change a job's document or tell of it: edit, steps, limits, ledger, route, pack and unpack."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import Any

from ..ground.errors import MissingInput
from ..ground.wording import counted
from .files import job, load, outlines, put, read, say, unwritable


def add_editing(commands: Any) -> list[argparse.ArgumentParser]:
    """Adds these commands to the parser, and gives them."""
    edit = commands.add_parser(
        "edit",
        help="change a job",
        description="Make edits of a job's document: verbs with a path, as in docs/edits.md.",
    )
    edit.add_argument("--put", action="append", default=[], metavar="PATH=VALUE", help="put a value; may be repeated")
    edit.add_argument("--drop", action="append", default=[], metavar="PATH", help="remove an entry; may be repeated")
    edit.add_argument("--edits", type=Path, metavar="FILE", help="a list of edits as JSON, made first")
    edit.add_argument("--unit", choices=("mm", "in"), default="mm", help="what bare numbers count in (default: mm)")
    edit.add_argument("--out", type=Path, metavar="FILE", help="where to write the job; stdout if left out")
    edit.set_defaults(run=_edit)

    steps = commands.add_parser(
        "steps",
        help="the steps of a part, as sentences",
        description="Every step of a part: its id, its sentence, and what it follows.",
    )
    steps.set_defaults(run=_steps)
    limits = commands.add_parser(
        "limits",
        help="what the board and the tool ask of a design",
        description="Webs, holes, corners and letters too small to cut, pieces that drop out, marks that leave a part. Prints "
        "JSON, as prove does. Status 1 if something is there to stop for.",
    )
    limits.set_defaults(run=_limits)

    ledger = commands.add_parser(
        "ledger",
        help="every figure of a job, with its derivation",
        description="Figures by subject, with their sources.",
    )
    ledger.add_argument("--subject", help='only that one, for example "basis:main" or "part:front"')
    ledger.set_defaults(run=_ledger)
    route = commands.add_parser("route", help="the six stops of a job", description="Each stop with its line.")
    route.add_argument("--prove", action="store_true", help="prove the SVG files first")
    route.set_defaults(run=_route)

    packing = commands.add_parser(
        "job", help="a job as one file", description="Pack a job into one open file, or unpack it."
    )
    packing.add_argument("action", choices=("pack", "unpack"), help="which")
    packing.add_argument("file", type=Path, metavar="FILE", help="pack: a job's document; unpack: a packed job")
    packing.add_argument("--out", type=Path, required=True, metavar="PATH", help="pack: the file; unpack: a folder")
    packing.set_defaults(run=_packing)
    for command in (edit, steps, limits, ledger, route):
        command.add_argument("design", type=Path, metavar="JOB", help="a job's document, or a design with --basis")
    steps.add_argument("part", metavar="PART", help="the id of one of its parts")
    edit.add_argument("more", type=Path, nargs="?", metavar="EDITS", help="a list of edits as JSON, made first")
    return [edit, steps, limits, ledger, route, packing]


def _edit(arguments: argparse.Namespace) -> int:
    from ..edits import Edit, edit_job, edits_from_json, refuse_own_failures, sentence
    from ..job import compute, job_to_json

    before = job(arguments)
    edits = [one for file in (arguments.more, arguments.edits) if file for one in edits_from_json(load(file))]
    for one in arguments.put:
        path, sign, value = one.partition("=")
        if not sign:
            raise MissingInput(f"“{one}” puts nothing.", fix="Write --put PATH=VALUE, for example --put name=Tray.")
        edits.append(Edit("put", path.strip(), _value(value)))
    edits += [Edit("drop", path) for path in arguments.drop]
    after = edit_job(before, edits, arguments.unit)
    was = compute(before, outlines=outlines(arguments))
    refuse_own_failures(edits, was, compute(after, outlines=outlines(arguments)))
    put(job_to_json(after), arguments.out)
    if arguments.out:
        print(sentence(before, edits, after))
    return 0


def _value(text: str) -> Any:
    """A value from the command line: JSON where it is that, else a text."""
    try:
        value = json.loads(text)
    except json.JSONDecodeError:
        return text
    return value if isinstance(value, bool | dict | list) else text


def _steps(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..design import design_from_json, uses
    from ..design.sentence import plain, sentence, titles_of
    from ..job import job_from_json

    document = load(arguments.design)
    known = job_from_json(document).design if "lean_notch_job" in document else design_from_json(document)
    part = known.part(arguments.part)
    if part is None:
        have = ", ".join(one.id for one in known.parts) or "none yet"
        raise MissingInput(f"There is no part “{arguments.part}”.", fix=f"Use one of: {have}.")
    titles = titles_of(known, part)
    rows, lines = [], []
    for i, step in enumerate(part.steps):
        said, follows = plain(sentence(step, titles, first=i == 0)), uses(step)
        rows.append({"id": step.id, "sentence": said, "on": step.on, "depends_on": asdict(follows)})
        on = ", ".join((*follows.names, *follows.steps, *follows.parts))
        lines.append(f"{step.id}: {said}{'' if step.on else ', switched off'}{f' (follows {on})' if on else ''}")
    say(arguments, rows, lines)
    return 0


def _limits(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..job import compute

    result = compute(job(arguments), outlines=outlines(arguments))
    found = (*result.build.findings, *result.limits)
    stops = sum(one.severity == "stop" for one in found)
    print(json.dumps({"sound": not stops, "findings": [asdict(one) for one in found]}, indent=1))
    for one in found:
        at = f" at {one.place[0]:.2f}, {one.place[1]:.2f} of {one.part}" if one.place else ""
        print(f"{one.severity}: {one.code}{at}: {one.why} {one.fix}", file=sys.stderr)
    count = counted(len(found), "finding")
    print(f"{count}, {stops} to stop for", file=sys.stderr)
    return 1 if stops else 0


def _ledger(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..job import compute
    from ..lengths.said import rounded, say_mm
    from ..told.ledger import ledger

    rows = ledger(compute(job(arguments), outlines=outlines(arguments)))
    if arguments.subject and arguments.subject not in rows:
        raise MissingInput(f"There is no subject “{arguments.subject}”.", fix=f"Use one of: {', '.join(rows)}.")
    shown = {subject: some for subject, some in rows.items() if arguments.subject in (None, subject)}
    lines = []
    for subject, some in shown.items():
        lines.append(subject)
        for row in some:
            value = (
                row.word if row.value is None else say_mm(row.value) if row.kind == "length" else rounded(row.value, 3)
            )
            lines.append(f"  {row.title}: {value} ({row.source}{f': {row.because}' if row.because else ''})")
    say(arguments, {subject: [asdict(row) for row in some] for subject, some in shown.items()}, lines)
    return 0


def _route(arguments: argparse.Namespace) -> int:
    from dataclasses import asdict

    from ..hand_over.proving import prove_job
    from ..job import compute
    from ..told.route import route

    result = compute(job(arguments), outlines=outlines(arguments))
    stops = route(result, prove_job(result).said if arguments.prove else None)
    lines = [f"{stop.title}: {stop.line}{f' ({stop.wants})' if stop.wants else ''}" for stop in stops]
    say(arguments, [asdict(stop) for stop in stops], lines)
    return 0


def _packing(arguments: argparse.Namespace) -> int:
    from ..hand_over.packed import files_used, pack, unpack
    from ..job import job_from_json, job_to_json

    if arguments.action == "pack":
        known = job_from_json(load(arguments.file))
        folder = arguments.file.parent / "files"
        data = pack(known, {name: read(folder / name) for name in files_used(known.design)})
        try:
            arguments.out.write_bytes(data)
        except OSError as error:
            raise unwritable(error, arguments.out) from None
        say(arguments, {"file": str(arguments.out)}, [f"{arguments.out}: {len(data) / 1000:.1f} kB"])
        return 0
    known, files = unpack(read(arguments.file))
    document = arguments.out / "job.json"
    try:
        (arguments.out / "files").mkdir(parents=True, exist_ok=True)
        for name, content in files.items():
            (arguments.out / "files" / name).write_bytes(content)
    except OSError as error:
        raise unwritable(error, arguments.out) from None
    put(job_to_json(known), document)
    say(arguments, {"job": str(document), "files": len(files)}, [f"{document}, {len(files)} files"])
    return 0
