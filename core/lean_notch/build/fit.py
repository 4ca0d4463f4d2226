"""How tight the joints of a build will be over all that is not known for sure: in, mates and a basis; out, a fit each."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..basis import Basis, Fit
from .build import Build


@dataclass(frozen=True)
class JointFit:
    """A mate's fit. `proud` is how far its faces stand out of line where the board is thickest and where it is thinnest:
    the board's face over the finger tips, in mm (negative: it lies below them)."""

    mate: str
    title: str
    fit: Fit
    proud: tuple[float, float]


def joint_fits(build: Build, basis: Basis) -> tuple[JointFit, ...]:
    """One a mate, in their order."""
    readings = basis.stock.readings
    return tuple(
        JointFit(
            mate.id, mate.title, basis.finger_fit,
            (readings.thick - mate.first.depth, readings.thin - mate.first.depth),
        )
        for mate in build.mates
    )  # fmt: skip


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
