"""The bytes of files that jobs use, in the data folder, each under the SHA-256 of its content. Knows no database."""

from __future__ import annotations

import os
import re
from pathlib import Path

from django.conf import settings
from lean_notch.ground.errors import MissingInput
from lean_notch.hand_over.packed import content_name


def folder() -> Path:
    place: Path = settings.DATA_DIR / "files"
    return place


def read_kept(name: str) -> bytes:
    """A file's content. Raises MissingInput if it is not there, or is not what its name says."""
    data = _path(name).read_bytes() if re.fullmatch(r"[0-9a-f]{64}", name) and _path(name).exists() else b""
    if content_name(data) != name:
        raise MissingInput(
            f"The file {name[:12]} is not kept here any more.", fix="Add the file again.", field="shape/file"
        )
    return data


def write_kept(data: bytes) -> str:
    """Keeps a file, whole or not at all; its name."""
    name = content_name(data)
    path = _path(name)
    if not path.exists():
        folder().mkdir(parents=True, exist_ok=True)
        part = path.with_suffix(f".{os.getpid()}.part")
        part.write_bytes(data)
        part.replace(path)
    return name


def forget_kept(name: str) -> None:
    _path(name).unlink(missing_ok=True)


def _path(name: str) -> Path:
    return folder() / name
