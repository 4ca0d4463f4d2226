"""What the commands share: documents in, documents and files out, with errors that name the file."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

from ..ground.errors import BadDocument, MissingInput, NotchError

if TYPE_CHECKING:
    from ..basis import Basis
    from ..hand_over.files import FileFormat
    from ..hand_over.proving import FileProof
    from ..job import Job, Result
    from ..making import Outlines

PACKET = ".packet.json"


def write_packet(result: Result, file_format: FileFormat, out: Path) -> tuple[list[FileProof], str]:
    """Writes a job's files and the packet that proves them into a folder, each file named by what its own proof says; what it
    says, under the files' places, and the packet's place. Raises MissingInput."""
    from ..cutting import profile_to_json
    from ..hand_over.files import marked, slug, write_files
    from ..hand_over.proving import prove_files
    from ..job import job_to_json

    written = write_files(result, file_format)
    proofs = prove_files(result, written, file_format).files
    names = [marked(one.name, proof.said.verdict) for one, proof in zip(written, proofs, strict=True)]
    packet = {
        **job_to_json(result.job),
        "profile": profile_to_json(result.profile),
        "format": file_format,
        "files": {
            name: {
                "sheet": file.sheet, "part": file.part, "operation": file.operation, "back": file.back,
                "sha256": proof.sha256, "verdict": proof.said.verdict, "sentence": proof.said.sentence,
            }
            for name, file, proof in zip(names, written, proofs, strict=True)
        },
    }  # fmt: skip
    packet_file = out / f"{slug(result.job.design.name)}_{file_format}{PACKET}"
    try:
        out.mkdir(parents=True, exist_ok=True)
        for name, file in zip(names, written, strict=True):
            (out / name).write_bytes(file.data)
        packet_file.write_text(json.dumps(packet, indent=1) + "\n")
    except OSError as error:
        raise unwritable(error, out) from None
    shown = [replace(proof, name=str(out / name)) for name, proof in zip(names, proofs, strict=True)]
    return shown, str(packet_file)


def proof_lines(proofs: Sequence[FileProof]) -> list[str]:
    """What the proof of each file said."""
    return [f"{one.name}: {one.said.sentence}" for one in proofs]


def shown_proofs(proofs: Sequence[FileProof]) -> list[dict[str, str]]:
    return [
        {"name": one.name, "sha256": one.sha256, "verdict": one.said.verdict, "sentence": one.said.sentence}
        for one in proofs
    ]


def basis(arguments: argparse.Namespace, boards: Sequence[str] = ("main",)) -> Basis:
    """What was measured, from the files named by --basis: one for all, or one for each of `boards`.

    Raises MissingInput for none, or at the board that is missing.
    """
    from ..basis import Basis, basis_from_json, board_basis_from_json
    from ..basis.misspelt import check_entries

    given: list[str] = arguments.basis
    if not given:
        raise MissingInput("No basis is given.", fix="Name what was measured: --basis basis.json.", field="basis")
    named = [one.partition("=") for one in given if "=" in one and not Path(one).exists()]
    if not named:
        if len(given) > 1:
            raise MissingInput(
                f"{len(given)} bases are given, and no boards.",
                fix=f"Say which is which: {' '.join(f'--basis {board}=FILE' for board in boards)}.", field="basis",
            )  # fmt: skip
        document = load(Path(given[0]))
        found = basis_from_json(document, boards)
        check_entries(document)
    else:
        documents = {board: load(Path(file)) for board, _, file in named}
        for one in documents.values():
            check_entries(one)
        found = Basis(tuple((board, board_basis_from_json(one)) for board, one in documents.items()))
    for board in boards:
        found.of(board)
    return found


def job(arguments: argparse.Namespace) -> Job:
    """The job of a design and a basis, or of a job's own document; --basis and layout options count before what that says."""
    from ..basis.misspelt import check_entries
    from ..design import design_from_json
    from ..documents.plain import mapping
    from ..job import Job, job_from_json, settings_from_json, with_layout

    document = mapping(load(arguments.design), "design")
    if "design" in document:
        known = job_from_json(document)
        check_entries(document["basis"])
        if arguments.basis:
            known = replace(known, basis=basis(arguments, [board.id for board in known.design.boards]))
    else:
        design = design_from_json(document)
        known = Job(design, basis(arguments, [board.id for board in design.boards]))
    given = {name: value for name in ("margin", "spacing") if (value := getattr(arguments, name, None)) is not None}
    turns = {"quarter_turns": False} if getattr(arguments, "no_turns", False) else {}
    for board in known.design.boards if given or turns else ():
        known = with_layout(known, board.id, settings_from_json({**vars(known.chosen(board.id)), **given, **turns}))
    return known


def outlines(arguments: argparse.Namespace) -> Outlines:
    """The outlines of files that a job's document uses: they lie beside it, in `files`."""
    return outlines_beside(arguments.design)


def outlines_beside(document: Path) -> Outlines:
    from ..hand_over.reading import outlines_of

    folder = document.parent / "files"
    return outlines_of(lambda name: read(folder / name))


def read(path: Path) -> bytes:
    """A file's bytes. Raises MissingInput."""
    try:
        return path.read_bytes()
    except OSError as error:
        raise MissingInput(
            f"{path} cannot be read: {error.strerror}.", fix="Check the file's name and place."
        ) from None


def load(path: Path) -> Any:
    """A JSON document. Raises MissingInput or BadDocument."""
    try:
        return json.loads(read(path))
    except (json.JSONDecodeError, UnicodeDecodeError, RecursionError) as error:
        raise BadDocument(
            f"{path} is not JSON: {error}.", fix="Name a file that lean-notch wrote, or mend it there."
        ) from None


def put(document: Any, out: Path | None) -> None:
    """Writes a document to a file, or to stdout."""
    put_text(json.dumps(document, indent=1, ensure_ascii=False) + "\n", out)


def put_text(text: str, out: Path | None) -> None:
    """Writes a text to a file, or to stdout."""
    if out is None:
        sys.stdout.write(text)
        return
    try:
        out.write_text(text)
    except OSError as error:
        raise unwritable(error, out) from None


def put_bytes(data: bytes, out: Path) -> None:
    try:
        out.write_bytes(data)
    except OSError as error:
        raise unwritable(error, out) from None


def unwritable(error: OSError, path: Path) -> NotchError:
    """The error for a place that cannot be written to."""
    return MissingInput(f"{path} cannot be written: {error.strerror}.", fix="Choose a folder that you may write to.")


def say(arguments: argparse.Namespace, document: Any, lines: Sequence[str]) -> None:
    """Prints the document with --json, else the lines."""
    print(json.dumps(document, indent=1) if arguments.json else "\n".join(lines))


def ring(ring: Any) -> Any:
    """An outline as `build --json` gives it."""
    from ..geometry import Circle

    if isinstance(ring, Circle):
        return {"centre": (ring.x, ring.y), "radius": ring.radius}
    return ring.corners


def by(box: tuple[float, float, float, float]) -> str:
    """A box's width and height."""
    return f"{box[2] - box[0]:.2f} × {box[3] - box[1]:.2f} mm"
