"""Joints, one file a kind: two members as they stand in; what each gains and loses, and what goes into what, out."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING

from ..typed import Typed
from .finger import Finger, FingerJoint
from .mate import FACE, Change, Contact, JointKind, Mate, Seat
from .tab_and_slot import TabAndSlot, TabAndSlotJoint

ALL: tuple[JointKind, ...] = (
    FingerJoint(),
    TabAndSlotJoint(),
)  # fmt: skip

KINDS: dict[type[Typed], JointKind] = {kind.how: kind for kind in ALL}

if TYPE_CHECKING:
    How = Typed
else:
    How = reduce(or_, KINDS)
"""What a design may say of how two members meet: one class a kind, for the codec to tell apart."""

__all__ = ["FACE", "KINDS", "Change", "Contact", "Finger", "How", "JointKind", "Mate", "Seat", "TabAndSlot"]
