"""How a job stands, in one line: its stops and what is known of its last file in, a sentence and the stop whose turn it is out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..basis.settings import Outcome
from ..ground.wording import capital
from ..proof import Said
from .route import Stop

Tone = Literal["good", "plain", "look"]


@dataclass(frozen=True)
class Handed:
    """The last file of just this state; `outcome` is how it came out, None as long as nobody told."""

    outcome: Outcome | None = None


@dataclass(frozen=True)
class Summary:
    """`line` says how the job stands; where it is `dated`, the moment of its proof or its file goes with it. `next` is the key
    of the stop to go on at."""

    line: str
    tone: Tone
    next: str
    dated: Literal["", "proof", "file"] = ""


def summary(stops: Sequence[Stop], said: Said | None, handed: Handed | None = None) -> Summary:
    """What wants a look first, in the order of the route; then what comes next."""
    by_key = {stop.key: stop for stop in stops}
    for stop in stops[:4]:
        if stop.state == "look":
            return Summary(f"{stop.title}: {stop.wants}", "look", stop.key)
    if by_key["shape"].state == "open":
        return Summary("No parts yet", "plain", "shape")
    if said is None:
        return Summary("Laid out; not proved yet", "plain", "prove")
    if handed and handed.outcome:
        good = handed.outcome == "cut well"
        return Summary(capital(handed.outcome), "good" if good else "look", "hand-over", "file")
    if by_key["prove"].state == "look":
        wants = by_key["prove"].wants
        return Summary(f"{said.sentence.rstrip('.')}{wants and f', {wants}'}", "look", "prove", "proof")
    if handed:
        return Summary("Handed over", "good", "hand-over", "file")
    return Summary(said.sentence, "good", "hand-over", "proof")
