"""What the fields of steps are made of."""

from __future__ import annotations

from typing import Annotated

from ..documents.rules import AmountRule, Name, Number, Title, Words
from ..lengths.length import Amount, Length

Id = Annotated[str, Name()]
ZERO = Length("0")
Degrees = Annotated[float, Number(-360, 360, "°")]
Turn = Annotated[Amount, AmountRule(-360, 360, "°")]
Scale = Annotated[Amount, AmountRule(0.001, 1000)]
NONE, ONE, RIGHT_ANGLE, FULL_TURN = Amount("0"), Amount("1"), Amount("90"), Amount("360")

Of = Annotated[str, Words(120, required=False)]
"""What a place is measured from: "edge:blank.right", "centre:hole"; "" is the part's own zero."""

Called = Annotated[str, Words(80, required=False), Title("Name")]
On = Annotated[bool, Title("Switched on")]
