"""How tight the joints of a build will be over all that is not known for sure: in, mates and a basis; out, a fit each."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..basis import Basis, BoardBasis, Fit, contact_fit
from ..ground.findings import Finding
from ..ground.remembered import remembered
from ..joints import Mate
from ..lengths.said import say_mm
from .flat import FlatPart


@dataclass(frozen=True)
class JointFit:
    """A mate's fit, that of the contact that fails or wants a look, else of the one whose gap spreads furthest. `proud` is how far what stands through a board stands out of its
    face where that board is thinnest, at its mean, and where it is thickest, in mm (negative: it falls short)."""

    mate: str
    title: str
    fit: Fit
    proud: tuple[float, float, float]


def joint_fits(parts: Sequence[FlatPart], mates: Sequence[Mate], basis: Basis) -> tuple[JointFit, ...]:
    """One a mate, in their order."""
    board_of = {part.id: part.board for part in parts}
    return tuple([_fit_of(mate, basis, tuple([(name, board_of[name]) for name in mate.parts])) for mate in mates])


@remembered()
def _fit_of(mate: Mate, basis: Basis, boards: tuple[tuple[str, str], ...]) -> JointFit:
    board_of = dict(boards)
    own, other = (board_of[change.part] for change in mate.members)
    kinds = dict.fromkeys(
        (board_of[one.inner_part], board_of[one.outer.part], one.clearance, one.inner is None) for one in mate.contacts
    ) or {(own, other, basis.of(own).clearance, False): None}  # fmt: skip
    made = [_between(basis.of(inner), basis.of(outer), gap, thick) for inner, outer, gap, thick in kinds]
    fit = max(made, key=lambda one: (one.fails, bool(one.wants), one.high - one.low))
    # As the first member's contacts go through the other board.
    through = next((one for one in mate.contacts if one.inner_part == mate.first.part and one.stands), None)
    readings = basis.of(board_of[through.through] if through else other).stock.readings
    depth = through.depth if through else readings.mean
    proud = (depth - readings.thin, depth - readings.mean, depth - readings.thick)
    return JointFit(mate.id, mate.title, fit, proud)


@remembered()
def _between(inner: BoardBasis, outer: BoardBasis, gap: float, by_thickness: bool) -> Fit:
    """Many contacts, few pairs of boards."""
    return contact_fit(inner, outer, gap, by_thickness=by_thickness)


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
    if whole == 1:
        return "; ".join(f"it {wants}" for wants in grouped)
    return "; ".join(
        f"{'all' if count == whole else f'{count} of'} {whole} joints {wants}" for wants, count in grouped.items()
    )
