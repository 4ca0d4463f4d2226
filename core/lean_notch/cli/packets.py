"""Packets of exported files, found and read beside them."""

from __future__ import annotations

import argparse
from hashlib import sha256
from itertools import chain
from pathlib import Path
from typing import TYPE_CHECKING, Any

from ..ground.errors import MissingInput
from .files import (
    PACKET,
    load,
    read,
)

if TYPE_CHECKING:
    from ..hand_over.files import FileFormat, OutFile


def file_of(packet: dict[str, Any], path: Path, *, changed: bool) -> OutFile:
    """One of a packet's files, as it is on disk. Raises MissingInput for a file of another job, and for one that is not what was
    exported, unless that is what is to be proved."""
    from ..documents.plain import mapping
    from ..hand_over.files import OutFile

    name, data = _exported_as(packet, path), read(path)
    entry = mapping(packet["files"].get(name, {}), f"files.{path.name}")
    if not isinstance(entry.get("sheet"), int):
        raise MissingInput(
            f"{path.name} is not one of the packet's files, by its name or by its content.",
            fix=f"Give it the name that export gave it again: {', '.join(packet['files'])}.", field=path.name,
        )  # fmt: skip
    kept = entry.get("sha256")
    if kept and kept != sha256(data).hexdigest() and not changed:
        raise MissingInput(
            f"{path.name} has changed since it was exported: its SHA-256 is not the packet's, so what was said of it holds no more.",
            fix="Export it again, or prove it as it is now with --changed.", field=path.name,
        )  # fmt: skip
    part, operation = (str(entry.get(name, "")) for name in ("part", "operation"))
    return OutFile(path.name, entry["sheet"], data, part, operation, bool(entry.get("back")))


def _exported_as(packet: dict[str, Any], path: Path) -> str:
    """The name that a packet has for a file: its own, or that of the file with its content, which somebody renamed; "" for none."""
    if path.name in packet["files"]:
        return path.name
    content = sha256(read(path)).hexdigest()
    same = (name for name, one in packet["files"].items() if isinstance(one, dict) and one.get("sha256") == content)
    return next(same, "")


def format_of(packet: dict[str, Any], file: Path) -> FileFormat:
    """As the packet says, or an older one's by the file's name."""
    from ..formats.file_kinds import FORMATS

    named, suffix = packet.get("format"), file.suffix.lower()
    by_name = (one.format for one in FORMATS.values() if one.format == named)
    by_suffix = (one.format for one in FORMATS.values() if one.suffix == suffix)
    return next(chain(by_name, by_suffix), "dxf")


def find_packet(arguments: argparse.Namespace) -> tuple[Path, dict[str, Any]]:
    if arguments.packet:
        return arguments.packet, _packet(arguments.packet)
    for candidate in sorted(arguments.files[0].parent.glob(f"*{PACKET}")):
        packet = _packet(candidate)
        if all(_exported_as(packet, file) for file in arguments.files):
            return candidate, packet
    raise MissingInput(
        f"No packet beside {arguments.files[0].name} lists {'it' if len(arguments.files) == 1 else 'these files'}, by name or by content.",
        fix="Prove the files where `lean-notch export` wrote them, or name the packet with --packet; a renamed file that was changed "
        "needs its old name.",
    )


def _packet(file: Path) -> dict[str, Any]:
    from ..documents.plain import entry, mapping

    packet = mapping(load(file), "packet")
    return {**packet, "files": mapping(entry(packet, "files", "packet"), "packet.files")}
