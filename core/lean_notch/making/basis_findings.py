"""What a board's basis alone lets a maker expect of any job: in, the basis; out, findings without a place."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..basis import Basis, BoardBasis
from ..basis.never import say_never
from ..ground.findings import Finding
from ..lengths.said import say_mm


def basis_findings(basis: Basis, titles: Mapping[str, str]) -> list[Finding]:
    """Of all boards, each called by its title where there are several."""
    found = []
    for board, one in basis.boards:
        if board in titles:
            said = _of_board(one, f"basis/{board}")
            found += [replace(f, why=f"{titles[board]}: {f.why}") for f in said] if len(titles) > 1 else said
    return found


def _of_board(basis: BoardBasis, path: str) -> list[Finding]:
    tool, readings = basis.machine.in_spindle, basis.stock.readings
    kind = basis.machine.kind
    found = []
    if why := say_never(basis.stock, basis.machine):
        choose = "Choose another machine or board."
        found.append(Finding("never-on-machine", "stop", why, choose, field=f"{path}/machine"))
    if reason := basis.stock.overruled_on(kind):
        found.append(
            Finding(
                "overruled", "look", f"{basis.stock.name} may be cut on a {kind}, it was said: {reason}.",
                "Make sure that this is so.", field=f"{path}/machine",
            )
        )  # fmt: skip
    if tool and tool.flute_length < readings.thick:
        found.append(
            Finding(
                "short-flutes", "stop",
                f"{tool.name} cuts {say_mm(tool.flute_length)} deep; the board is up to {say_mm(readings.thick)} thick.",
                "Use a tool with longer flutes.", amount=readings.thick - tool.flute_length, field=f"{path}/tool",
            )
        )  # fmt: skip
    found += [
        Finding(
            "kerf-doubt", "look", doubt, "Cut a test piece of this board and measure its kerf.", field=f"{path}/kerf"
        )
        for doubt in basis.doubts
    ]
    return found
