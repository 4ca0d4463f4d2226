"""Changes the heart of the core in small ways, one at a time in a copy, and tells which of them no test notices.

    python scripts/mutants.py --changes 60 [--seed 1] [--state FILE] [--listed] [--at-once 2]

Drawn are changes of comparisons, sums, numbers, `and` and `or`, `min` and `max`, conditions; `tests/soak/changes.toml` lists
those that a review once found unnoticed, and those that change nothing, each with its reason. With a state file a run goes on
where the last one ended. Fails if fewer than nine of ten were noticed.
"""

from __future__ import annotations

import argparse
import ast
import json
import os
import shutil
import subprocess
import sys
import tempfile
import tomllib
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from hashlib import sha256
from itertools import pairwise
from pathlib import Path
from queue import SimpleQueue
from typing import NamedTuple

ROOT = Path(__file__).resolve().parents[1]
HEART = ("basis", "geometry", "joints", "making", "proof", "steps")
LISTED = ROOT / "tests" / "soak" / "changes.toml"
NEEDED = 0.9
"""This share of the changes must be noticed."""

LONGEST_S = 900
"""What has not ended by then is not known, and counts as not noticed: it may be the machine that is slow."""

ROUNDING = 1e-6
"""Numbers up to this are there for rounding: no design tells one from another."""

_SWAPPED: dict[type, str] = {
    ast.Lt: ">=", ast.LtE: ">", ast.Gt: "<=", ast.GtE: "<", ast.Eq: "!=", ast.NotEq: "==", ast.In: "not in", ast.NotIn: "in",
    ast.Is: "is not", ast.IsNot: "is", ast.Add: "-", ast.Sub: "+", ast.Mult: "/", ast.Div: "*", ast.And: "or", ast.Or: "and",
}  # fmt: skip
_EDGES = {ast.Lt: "<=", ast.LtE: "<", ast.Gt: ">=", ast.GtE: ">"}
_NAMES = {"min": "max", "max": "min", "any": "all", "all": "any"}


class Change(NamedTuple):
    """A place in a module (of the core, from byte `start` to `end`), and what stands there instead."""

    module: str
    start: int
    end: int
    old: str
    new: str
    line: int
    text: str

    @property
    def name(self) -> str:
        """Holds when lines above it come or go: the line's own text, and what changes in it."""
        return f"{self.module}: {self.text}: {self.old} -> {self.new}"


def changes_of(module: str) -> list[Change]:
    """All small changes of a module's functions; numbers at its top as well."""
    source = (ROOT / "core/lean_notch" / module).read_bytes()
    lines = source.split(b"\n")
    starts = [0]
    for line in lines:
        starts.append(starts[-1] + len(line) + 1)

    def at(line: int, column: int) -> int:
        return starts[line - 1] + column

    def whole(node: ast.expr) -> tuple[int, int]:
        return at(node.lineno, node.col_offset), at(node.end_lineno or 0, node.end_col_offset or 0)

    found: list[Change] = []

    def put(start: int, end: int, new: str, line: int) -> None:
        old = source[start:end].decode()
        found.append(Change(module, start, end, " ".join(old.split()), new, line, lines[line - 1].decode().strip()))

    def between(left: ast.expr, right: ast.expr, new: str) -> None:
        start, end = whole(left)[1], whole(right)[0]
        said = source[start:end]
        first = len(said) - len(said.lstrip(b" )\n"))
        last = len(said.rstrip(b" (\n"))
        if b"#" not in said and first < last:
            put(start + first, start + last, new, left.end_lineno or 0)

    for node in _walked(ast.parse(source)):
        match node:
            case ast.Compare(left=left, ops=[op], comparators=[right]):
                between(left, right, _SWAPPED[type(op)])
                if type(op) in _EDGES and any(_counts(one) for one in (left, right)):
                    between(left, right, _EDGES[type(op)])
            case ast.BoolOp(op=op, values=values):
                for left, right in pairwise(values):
                    between(left, right, _SWAPPED[type(op)])
            case ast.BinOp(left=left, op=op, right=right) if type(op) in _SWAPPED:
                between(left, right, _SWAPPED[type(op)])
            case ast.UnaryOp(op=ast.Not() | ast.USub() as op):
                start = whole(node)[0]
                put(start, start + (len("not") if isinstance(op, ast.Not) else len("-")), "", node.lineno)
            case ast.Call(func=ast.Name(id=name) as called) if name in _NAMES:
                put(*whole(called), _NAMES[name], called.lineno)
            case ast.Constant(value=float(value)) if abs(value) > ROUNDING:
                put(*whole(node), f"({value!r} * 4)", node.lineno)
            case ast.Constant(value=int(value)) if not isinstance(value, bool):
                put(*whole(node), str(value + 1), node.lineno)
            case ast.If(test=test) if not node.orelse:
                put(*whole(test), "False", test.lineno)
            case ast.comprehension(ifs=[test]):
                put(*whole(test), "True", test.lineno)
    return found


def _counts(node: ast.expr) -> bool:
    """Whether a comparison is of whole numbers, so that its edge is met."""
    match node:
        case ast.Constant(value=int()):
            return True
        case ast.Call(func=ast.Name(id="len")):
            return True
    return False


def _walked(node: ast.AST) -> Iterator[ast.AST]:
    """All but what is for readers and for the type checker, and what is raised or said."""
    match node:
        case ast.Assert() | ast.Raise() | ast.JoinedStr() | ast.If(test=ast.Name(id="TYPE_CHECKING")):
            return
        case ast.Call(func=ast.Name(id="tell") | ast.Attribute(attr="tell")):
            return
        case ast.FunctionDef():
            for one in (*node.args.defaults, *node.body):
                yield from _walked(one)
            return
        case ast.ClassDef():
            for one in node.body:
                yield from _walked(one)
            return
        case ast.AnnAssign():
            if node.value:
                yield from _walked(node.value)
            return
    yield node
    for one in ast.iter_child_nodes(node):
        yield from _walked(one)


def drawn(seed: int, count: int) -> list[Change]:
    """The same for the same seed, but for those whose lines were changed since; as many of each room as it has of all."""
    core = ROOT / "core/lean_notch"
    modules = [str(path.relative_to(core)) for room in HEART for path in (core / room).glob("*.py")]
    every = {change.name: change for module in modules for change in changes_of(module)}
    return [every[name] for name in sorted(every, key=lambda name: sha256(f"{seed} {name}".encode()).digest())[:count]]


def listed() -> list[Change]:
    """What a review found unnoticed; raises ValueError where the code no longer has it."""
    found = []
    for one in tomllib.loads(LISTED.read_text())["listed"]:
        source = (ROOT / "core/lean_notch" / one["module"]).read_text()
        if source.count(one["old"]) != 1:
            raise ValueError(f"{one['module']} holds {source.count(one['old'])} times: {one['old']}")
        before = source[: source.index(one["old"])]
        start = len(before.encode())
        line = before.count("\n") + 1
        found.append(
            Change(one["module"], start, start + len(one["old"].encode()), one["old"], one["new"], line, "listed")
        )
    return found


def tests_of(copy: Path, module: str) -> list[str]:
    """All tests of the heart, those first that name the module, then those that name its room."""
    room, _, stem = module.removesuffix(".py").rpartition("/")
    files = [*(copy / "tests/heart").glob("test_*.py"), *(copy / "tests/references").glob("test_*.py")]

    def far(path: Path) -> tuple[int, int]:
        said = path.read_text()
        near = f"lean_notch.{room}.{stem} " in said or (f"from lean_notch.{room} import" in said and stem in said)
        return (
            0
            if near
            else 1
            if path.stem in ("test_limits", "test_prints")
            else 2
            if f"lean_notch.{room}" in said
            else 3
        ), path.stat().st_size

    return [str(path.relative_to(copy)) for path in sorted(files, key=far)]


def noticed(copy: Path, change: Change) -> str:
    """The first test that fails with the change, or nothing."""
    path = copy / "core/lean_notch" / change.module
    before = path.read_bytes()
    path.write_bytes(before[: change.start] + change.new.encode() + before[change.end :])
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "no:randomly", "--tb=no", "-rfE", *tests_of(copy, change.module)]  # fmt: skip
    environment = os.environ | {"PYTHONDONTWRITEBYTECODE": "1", "PYTHONPATH": str(copy / "core")}
    try:
        done = subprocess.run(command, cwd=copy, env=environment, capture_output=True, text=True, timeout=LONGEST_S)
    except subprocess.TimeoutExpired:
        return ""
    finally:
        path.write_bytes(before)
    if done.returncode == 0:
        return ""
    said = [line for line in done.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))]
    return said[0][:160] if said else ""  # it was ended from outside: no test noticed anything


def copied(folder: str) -> Path:
    names = subprocess.run(
        ["git", "ls-files", "-z", "-co", "--exclude-standard"], cwd=ROOT, capture_output=True, text=True, check=True
    )
    for name in names.stdout.split("\0"):
        if name and (ROOT / name).is_file() and not name.startswith("web/"):
            (Path(folder) / name).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy(ROOT / name, Path(folder) / name)
    return Path(folder)


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--changes", type=int, default=60, help="how many are drawn")
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--listed", action="store_true", help="those of the list instead")
    asked.add_argument("--state", type=Path, help="a file that keeps what was found, to go on from")
    asked.add_argument("--at-once", type=int, default=2)
    given = asked.parse_args()
    same = {one["change"]: one["why"] for one in tomllib.loads(LISTED.read_text()).get("same", [])}
    every = listed() if given.listed else drawn(given.seed, given.changes)
    known: dict[str, str] = {}
    if given.state and given.state.exists():
        known = dict(json.loads(line) for line in given.state.read_text().splitlines())
    copies: SimpleQueue[Path] = SimpleQueue()
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(given.at_once) as pool:
        for number in range(given.at_once):
            copies.put(copied(f"{folder}/{number}"))

        def tried(change: Change) -> str:
            copy = copies.get()
            try:
                found = noticed(copy, change)
            finally:
                copies.put(copy)
            print(f"{'noticed' if found else 'NOT NOTICED'}  {change.name}  (line {change.line})  {found}", flush=True)
            if given.state:
                with given.state.open("a") as kept:
                    kept.write(json.dumps([change.name, found]) + "\n")
            return found

        if wrong := noticed(first := copies.get(), Change("__init__.py", 0, 0, "", "", 1, "")):
            print(f"Without any change a test fails: {wrong}")
            return 1
        copies.put(first)
        left = [change for change in every if change.name not in known and change.name not in same]
        known |= dict(zip([change.name for change in left], pool.map(tried, left), strict=True))
    counted = [change for change in every if change.name not in same]
    missed = [change.name for change in counted if not known[change.name]]
    print(
        f"{len(counted) - len(missed)} of {len(counted)} changes were noticed; {len(every) - len(counted)} change nothing."
    )
    print(*missed, sep="\n")
    return int(len(missed) > (0 if given.listed else (1 - NEEDED) * len(counted)))


if __name__ == "__main__":
    sys.exit(main())
