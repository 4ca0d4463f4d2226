"""The commands of the Measure stop: test pieces, a machine to practise on, kerf and fits from readings, another basis."""

from __future__ import annotations

import argparse
from dataclasses import asdict
from pathlib import Path
from typing import Any

from ..ground.errors import MissingInput, NotchError
from .files import basis, job, load, outlines, proof_lines, read, say, shown_proofs, write_packet


def add_measuring(commands: Any) -> list[argparse.ArgumentParser]:
    """Adds these commands to the parser, and gives them."""
    piece = commands.add_parser(
        "test-piece", help="a piece to find kerf or fit with", description="Write the file of a test piece, labelled."
    )
    piece.add_argument("way", choices=("slats", "plug", "comb"), help="which")
    piece.add_argument("--set", action="append", default=[], metavar="NAME=VALUE", help="a setting; may be repeated")
    piece.add_argument("--format", choices=("svg", "dxf", "pdf"), default="svg", help="file format (default: svg)")
    piece.add_argument("--out", type=Path, required=True, metavar="DIR", help="folder for the file; made if missing")
    piece.set_defaults(run=_test_piece)

    practice = commands.add_parser(
        "practice", help="cut a test piece on a machine that is not there", description="Cut a test piece on the "
        "practice machine of that seed, and print what a caliper and two hands tell of it; or tell what is true of it."
    )  # fmt: skip
    practice.add_argument("action", choices=("cut", "tell"), help="cut a file, or tell what the machine hides")
    practice.add_argument(
        "file", type=Path, nargs="?", metavar="FILE", help="a test piece, as `lean-notch test-piece` writes it"
    )
    practice.add_argument("--seed", type=int, required=True, help="which machine and board")
    practice.add_argument("--sold-as", default="3", metavar="LENGTH", help="what the board is sold as (default: 3)")
    practice.add_argument("--tool", metavar="LENGTH", help="a router with a tool of that diameter, not a laser")
    practice.set_defaults(run=_practice)

    kerf = commands.add_parser(
        "kerf", help="kerf or fits from a test piece",
        description="The kerf with its uncertainty, or the clearance of each fit, from what a test piece tells.",
    )  # fmt: skip
    kerf.add_argument("way", choices=("slats", "plug", "comb"), help="which test piece")
    kerf.add_argument("--length", help="slats: the row's length as drawn")
    kerf.add_argument("--pieces", type=int, help="slats: how many there are")
    kerf.add_argument("--readings", default="", help="slats: the row's length pushed together, measured several times")
    kerf.add_argument("--hole", default="", help="plug: readings across the hole")
    kerf.add_argument("--plug", default="", help="plug: readings across the plug")
    kerf.add_argument("--first", default="-0.1", help="comb: clearance of pair 1 (default: -0.1)")
    kerf.add_argument("--step", default="0.04", help="comb: step from pair to pair (default: 0.04)")
    kerf.add_argument(
        "--answers", default="", help="comb: how the pairs felt, from 1 on, with commas: will not go, needs a mallet, "
        "holds, slides, falls apart"
    )  # fmt: skip
    kerf.set_defaults(run=_kerf)

    attempt = commands.add_parser(
        "try", help="a design on another basis", description="What changes on another board or machine, side by side."
    )
    attempt.add_argument("design", type=Path, metavar="DESIGN", help="a design or a job's document")
    attempt.add_argument("--on", type=Path, action="append", required=True, metavar="FILE", help="another basis")
    attempt.set_defaults(run=_try)
    return [piece, practice, kerf, attempt]


def settings(given: list[str]) -> dict[str, object]:
    """NAME=VALUE pairs. Raises MissingInput for one that sets nothing."""
    values: dict[str, object] = {}
    for one in given:
        name, sign, value = one.partition("=")
        if not sign:
            raise MissingInput(f"“{one}” sets nothing.", fix="Write --set NAME=VALUE, for example --set width=150.")
        values[name.strip()] = value.strip()
    return values


def _test_piece(arguments: argparse.Namespace) -> int:
    from ..job import compute
    from ..test_pieces import INSTRUCTIONS, kerf_note, piece_job

    at = basis(arguments).of("main")
    piece = piece_job(arguments.way, settings(arguments.set), at.stock, at.machine)
    proofs, packet = write_packet(compute(piece), arguments.format, arguments.out)
    steps, note = INSTRUCTIONS[arguments.way], kerf_note(piece)
    say(
        arguments,
        {
            "files": [one.name for one in proofs],
            "packet": packet,
            "proofs": shown_proofs(proofs),
            "instructions": steps,
            "kerf_note": note,
        },
        [*proof_lines(proofs), packet, *(f"{i}. {step}" for i, step in enumerate(steps, 1)), *([note] if note else [])],
    )
    return 0


def _practice(arguments: argparse.Namespace) -> int:
    from ..lengths.length import length_mm, positive_mm
    from ..practice import Practice

    nominal = positive_mm(length_mm(arguments.sold_as), "sold-as", "The board", 200)
    tool = positive_mm(length_mm(arguments.tool), "tool", "The tool's diameter", 50) if arguments.tool else None
    machine = Practice(arguments.seed, nominal, tool)
    if arguments.action == "tell":
        truth = machine.truth
        limits = ", ".join(f"{limit:+.4f}" for limit in truth.limits)
        lines = [
            f"kerf {truth.kerf:.4f} mm",
            f"board {truth.board:.4f} mm on the whole",
            f"feels change at {limits} mm",
        ]
        say(arguments, asdict(truth), lines)
        return 0
    if arguments.file is None:
        raise MissingInput("No file is given to cut.", fix="Name a test piece's file.", field="file")
    cut = machine.cut(read(arguments.file), arguments.file.name)
    rows = (("board", cut.thickness), ("row", cut.row), ("hole", cut.hole), ("plug", cut.plug))
    lines = [f"{name}: {' '.join(f'{value:.2f}' for value in values)}" for name, values in rows if values]
    lines += [f"pairs: {', '.join(cut.answers)}"] if cut.answers else []
    say(arguments, asdict(cut), lines)
    return 0


def _kerf(arguments: argparse.Namespace) -> int:
    from ..basis.kerf import kerf_of_plug, kerf_of_slats
    from ..lengths.length import length_mm

    if arguments.way == "comb":
        return _comb(arguments)
    if arguments.way == "slats":
        if arguments.length is None or arguments.pieces is None:
            raise MissingInput(
                "The row's length or the number of slats is missing.",
                fix="Write --length 120 --pieces 12.",
                field="length",
            )
        found = kerf_of_slats(length_mm(arguments.length), arguments.pieces, _readings(arguments.readings, "readings"))
    else:
        found = kerf_of_plug(_readings(arguments.hole, "hole"), _readings(arguments.plug, "plug"))
    document = {
        "kerf": found.value, "standard_uncertainty": found.standard, "within": found.expanded, "notes": found.notes,
    }  # fmt: skip
    line = f"kerf {found.value:.4f} mm, within {found.expanded:.4f} mm in 95 of 100 cases"
    say(arguments, document, [line, *found.notes])
    return 0


def _comb(arguments: argparse.Namespace) -> int:
    from ..basis.comb import comb_clearances, read_comb
    from ..basis.fits import FITS, scale_to_json
    from ..lengths.length import length_mm

    answers = [one.strip() for one in arguments.answers.split(",")] if arguments.answers.strip() else []
    pairs = comb_clearances(length_mm(arguments.first), length_mm(arguments.step), max(len(answers), 3))
    found = read_comb(pairs, answers)
    lines = [f"{name} {getattr(found.scale, name):+.3f} mm" for name in FITS]
    lines += [f"within {found.within:.3f} mm: half a step", *found.notes]
    say(arguments, {**scale_to_json(found.scale), "within": found.within, "notes": found.notes}, lines)
    return 0


def _readings(text: str, field: str) -> list[float]:
    from ..lengths.length import length_mm, split_lengths

    values = []
    for index, one in enumerate(split_lengths(text)):
        try:
            values.append(length_mm(one))
        except NotchError as error:
            raise error.at(f"{field}[{index}]") from None
    return values


def _try(arguments: argparse.Namespace) -> int:
    from ..basis import basis_from_json
    from ..cutting import say_time
    from ..job import compute
    from ..lengths.said import say_mm
    from ..told.another_basis import try_basis

    now = compute(job(arguments), outlines=outlines(arguments))
    boards = [board.id for board in now.job.design.boards]
    documents: list[dict[str, object]] = []
    lines: list[str] = []
    for basis_of_all in [now.job.basis, *(basis_from_json(load(file), boards) for file in arguments.on)]:
        trial = try_basis(now, basis_of_all, outlines(arguments))
        other = basis_of_all.of(boards[0])
        head = f"{other.stock.name} {say_mm(other.thickness, 2)}, {other.machine.name}, kerf {say_mm(other.kerf)}"
        if trial.error:
            documents.append({"stock": other.stock.name, "error": trial.error.as_json()})
            lines += [head, f"  cannot be made: {trial.error.why} {trial.error.fix}"]
            continue
        documents.append(
            {
                "stock": other.stock.name, "thickness": other.thickness, "sheets": trial.sheets, "used": trial.used,
                "seconds": trial.seconds, "price": trial.price, "failing": list(trial.failing), "wants": trial.wants,
                "changes": [
                    {"of": c.about or c.subject, "what": c.before.title, "before": c.before.value, "after": c.after.value}
                    for c in trial.changes
                ],
            }
        )  # fmt: skip
        fits = trial.wants or f"{len(trial.joints)} joints {other.finger_fit.verdict}"
        lines += [
            head,
            f"  {trial.sheets} sheet{'s' * (trial.sheets > 1)}, {100 * trial.used:.0f} % used, {say_time(trial.seconds)}; {fits}",
        ]
        lines += [
            f"  {f'{c.about} ' * bool(c.about)}{c.before.title}: {say_mm(c.before.value, 2)} -> {say_mm(c.after.value, 2)}"
            for c in trial.changes
            if c.before.kind == "length" and c.before.value is not None and c.after.value is not None
        ]
    say(arguments, {"tries": documents}, lines)
    return 0
