"""What the commands share: documents in, documents and files out, with errors that name the file."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

from .errors import BadDocument, MissingInput, NotchError

if TYPE_CHECKING:
    from .job import FileFormat, Result

PACKET = ".packet.json"


def write_packet(result: Result, file_format: FileFormat, out: Path) -> tuple[list[str], str]:
    """Writes a job's files and the packet that proves them into a folder; their names. Raises MissingInput."""
    from .cutting import profile_to_json
    from .job import job_to_json, slug, write_files

    written = [*write_files(result, file_format)]
    packet = {
        **job_to_json(result.job),
        "profile": profile_to_json(result.profile),
        "files": {file.name: {"sheet": file.sheet, "part": file.part, "operation": file.operation} for file in written},
    }
    packet_file = out / f"{slug(result.job.design.name)}_{file_format}{PACKET}"
    try:
        out.mkdir(parents=True, exist_ok=True)
        for file in written:
            (out / file.name).write_bytes(file.data)
        packet_file.write_text(json.dumps(packet, indent=1) + "\n")
    except OSError as error:
        raise unwritable(error, out) from None
    return [str(out / file.name) for file in written], str(packet_file)


def basis(arguments: argparse.Namespace) -> Any:
    """What was measured, from the file named by --basis. Raises MissingInput for none."""
    from .basis import basis_from_json

    if not arguments.basis:
        raise MissingInput("No basis is given.", fix="Name what was measured: --basis basis.json.", field="basis")
    return basis_from_json(load(arguments.basis))


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
    except (json.JSONDecodeError, UnicodeDecodeError) as error:
        raise BadDocument(
            f"{path} is no JSON: {error}.", fix="Name a file that lean-notch wrote, or mend it there."
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


def unwritable(error: OSError, path: Path) -> NotchError:
    """The error for a place that cannot be written to."""
    return MissingInput(f"{path} cannot be written: {error.strerror}.", fix="Choose a folder that you may write to.")


def say(arguments: argparse.Namespace, document: Any, lines: Sequence[str]) -> None:
    """Prints the document with --json, else the lines."""
    print(json.dumps(document, indent=1) if arguments.json else "\n".join(lines))


def ring(ring: Any) -> Any:
    """An outline as `build --json` gives it."""
    from .geometry import Circle

    return {"centre": (ring.x, ring.y), "radius": ring.radius} if isinstance(ring, Circle) else ring.vertices


def by(box: tuple[float, float, float, float]) -> str:
    """A box's width and height."""
    return f"{box[2] - box[0]:.2f} x {box[3] - box[1]:.2f} mm"
