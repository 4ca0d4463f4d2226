"""What the basis alone lets a maker expect of any job: in, the basis; out, findings without a place."""

from __future__ import annotations

from ..basis import Basis
from ..findings import Finding
from ..units import say_mm


def basis_findings(basis: Basis) -> list[Finding]:
    tool, readings = basis.machine.in_spindle, basis.stock.readings
    found = []
    if tool and tool.flute_length < readings.thick:
        found.append(
            Finding(
                "short-flutes", "stop",
                f"{tool.name} cuts {say_mm(tool.flute_length)} deep; the board is up to {say_mm(readings.thick)} thick.",
                "Take a tool with longer flutes.", amount=readings.thick - tool.flute_length,
            )
        )  # fmt: skip
    found += [
        Finding("kerf-doubt", "look", doubt, "Cut a test piece of this board and measure its kerf.")
        for doubt in basis.doubts
    ]
    return found


def fit_findings(basis: Basis, joints: int) -> list[Finding]:
    """Of a job with so many `joints`."""
    if not joints:
        return []
    fit = basis.finger_fit
    found = [Finding("brittle", "look", warning, "Choose a looser fit.") for warning in fit.warnings]
    if fit.wants:
        found.append(
            Finding(
                "fit-spread", "stop" if fit.fails else "look",
                f"Joints {fit.wants}: the clearance lies between {say_mm(fit.low)} and {say_mm(fit.high)}, "
                f"chosen is {basis.fit}.",
                "Measure the kerf more closely, or choose a fit with room on both sides.", amount=fit.high - fit.low,
            )
        )  # fmt: skip
    return found
