"""How tight the joints of a build will be over all that is not known for sure: in, mates and a basis; out, a fit each."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

from ..basis import Basis, Fit, finger_fit
from ..findings import Finding
from ..units import say_mm
from .flat import FlatPart
from .mates import Mate


@dataclass(frozen=True)
class JointFit:
    """A mate's fit. `proud` is how far its faces stand out of line where the board is thickest and where it is thinnest:
    the board's face over the finger tips, in mm (negative: it lies below them)."""

    mate: str
    title: str
    fit: Fit
    proud: tuple[float, float]


def joint_fits(parts: Sequence[FlatPart], mates: Sequence[Mate], basis: Basis) -> tuple[JointFit, ...]:
    """One a mate, in their order."""
    board_of = {part.id: part.board for part in parts}

    @cache  # many mates, few pairs of boards
    def fit_between(first: str, second: str) -> Fit:
        return finger_fit(basis.of(first), basis.of(second))

    fits = []
    for mate in mates:
        first, second = board_of[mate.first.part], board_of[mate.second.part]
        met = basis.of(second).stock.readings  # the first one's fingers go through the second one's board
        proud = (met.thick - mate.first.depth, met.thin - mate.first.depth)
        fits.append(JointFit(mate.id, mate.title, fit_between(first, second), proud))
    return tuple(fits)


def fit_findings(joints: Sequence[JointFit]) -> list[Finding]:
    """What is to be said of how tight joints will be, once for all that are alike."""
    found = []
    for fit in dict.fromkeys(joint.fit for joint in joints):
        found += [Finding("brittle", "look", warning, "Choose a looser fit.") for warning in fit.warnings]
        if fit.wants:
            found.append(
                Finding(
                    "fit-spread", "stop" if fit.fails else "look",
                    f"Joints {fit.wants}: the clearance lies between {say_mm(fit.low)} and {say_mm(fit.high)}, "
                    f"chosen is {fit.chosen}.",
                    "Measure the kerf more closely, or choose a fit with room on both sides.", amount=fit.high - fit.low,
                )
            )  # fmt: skip
    return found


def fit_wants(joints: Sequence[JointFit]) -> str:
    """What the whole job's joints want a look for, in one line; "" if all are as chosen.

    "2 of 12 joints may be loose if the kerf is wider"
    """
    grouped: dict[str, int] = {}
    for joint in joints:
        if joint.fit.wants:
            grouped[joint.fit.wants] = grouped.get(joint.fit.wants, 0) + 1
    whole = len(joints)
    return "; ".join(
        f"{'all' if count == whole else f'{count} of'} {whole} joints {wants}" for wants, count in grouped.items()
    )
