"""Which code runs: what another one made may be other than what this one would make."""

from __future__ import annotations

from functools import cache
from hashlib import sha256
from importlib.metadata import version
from pathlib import Path

import lean_notch

_WORKS_WITH = ("numpy", "shapely", "ezdxf", "lxml", "fonttools", "pydantic")


@cache
def core() -> str:
    """Of the core: its version, and what its sources say, since a version may stay while they change."""
    return f"{version('lean-notch')}+{fingerprint(Path(lean_notch.__file__).parent)}"


@cache
def whole() -> str:
    """Of the core, of the server that shows what it found, and of what both work with."""
    others = sha256(" ".join(f"{name} {version(name)}" for name in _WORKS_WITH).encode()).hexdigest()[:8]
    return f"{core()}+{fingerprint(Path(__file__).resolve().parents[1])}+{others}"


def fingerprint(folder: Path) -> str:
    """Another one for any other content of the Python files below a folder."""
    found = sha256()
    for file in sorted(folder.rglob("*.py")):
        found.update(f"{file.relative_to(folder)}\0".encode() + file.read_bytes() + b"\0")
    return found.hexdigest()[:16]
