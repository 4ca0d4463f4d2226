"""Joints, one file a kind: two members as they stand in; what each gains and loses, and what goes into what, out."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING

from ..documents.as_typed import Typed
from .cross_lap import CrossLap, CrossLapJoint
from .finger import Finger, FingerJoint
from .groove import Groove, GrooveJoint
from .halving import Halving, HalvingJoint
from .mate import FACE, Change, Contact, JointKind, Mate, Seat
from .pegs import Pegs, PegsJoint
from .tab_and_slot import TabAndSlot, TabAndSlotJoint

ALL: tuple[JointKind, ...] = (
    FingerJoint(),
    TabAndSlotJoint(),
    CrossLapJoint(),
    PegsJoint(),
    GrooveJoint(),
    HalvingJoint(),
)  # fmt: skip

KINDS: dict[type[Typed], JointKind] = {kind.how: kind for kind in ALL}

if TYPE_CHECKING:
    How = Typed
else:
    How = reduce(or_, KINDS)
"""What a design may say of how two members meet: one class a kind, for the codec to tell apart."""

__all__ = [
    "FACE",
    "KINDS",
    "Change",
    "Contact",
    "CrossLap",
    "Finger",
    "Groove",
    "Halving",
    "How",
    "JointKind",
    "Mate",
    "Pegs",
    "Seat",
    "TabAndSlot",
]
