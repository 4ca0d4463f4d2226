"""A trial pair from a joint: a few centimetres of both members, slots with clearances in steps, cut before the whole thing is.

In, a job and one of its joints; out, a job of its own with a numbered slot for each clearance in the one board and tongues of the
other, what the slots tell by how they feel, and where the clearance of the fit that is wanted is put.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..basis import Basis
from ..basis.comb import CombRead, read_comb
from ..basis.fits import WIDEST_CLEARANCE_MM
from ..design import MAIN, BoardNeed, Design, Lettering, Part, Rectangle, ShapeStep
from ..ground.errors import BadDocument, OutOfRange
from ..ground.limits import MOST_TRIAL_PAIRS
from ..job import Job
from ..lengths.length import Length
from ..lengths.said import say_mm
from ..making import Build, Contact, Mate, build

PAIRS, STEP_MM, FIRST_MM = 8, 0.03, -0.06
"""From a press to a slide; one step of feel is about 0.025 mm. Common practice."""

TONGUE_MM = 30.0
OTHER = BoardNeed("other", "Board that goes in")


def clearances(job: Job, joint: str, pairs: int = PAIRS, step: float = STEP_MM) -> tuple[float, ...]:
    """Those of the slots, rising. Raises NotchError at the joint, "pairs" or "step"."""
    if not 2 <= pairs <= MOST_TRIAL_PAIRS:
        raise OutOfRange(f"{pairs} slots cannot be told apart.", fix=f"Use 2 to {MOST_TRIAL_PAIRS}.", field="pairs")
    if not 0.005 <= step <= 0.5:
        raise OutOfRange(f"Steps of {say_mm(step)} tell nothing.", fix="Use 0.005 mm to 0.5 mm.", field="step")
    found = _round(_contact(job, joint)[0].clearance, pairs, step)
    if max(map(abs, found)) > WIDEST_CLEARANCE_MM:
        raise OutOfRange("A clearance is more than 5 mm.", fix="Use smaller steps.", field="step")
    return found


def usual_clearances(mate: Mate) -> tuple[float, ...]:
    """Those of the slots of a trial pair as it comes, by their numbers; none where nothing goes into anything."""
    return _round(_telling(mate).clearance, PAIRS, STEP_MM) if mate.contacts else ()


def _round(middle: float, pairs: int, step: float) -> tuple[float, ...]:
    """Those of a usual pair are the same for every usual fit, so that its numbers mean what they meant when it was cut; others
    lie round the `middle`."""
    usual = (pairs, step) == (PAIRS, STEP_MM) and FIRST_MM <= middle <= FIRST_MM + (pairs - 1) * step
    first = FIRST_MM if usual else middle - (pairs - 1) / 2 * step
    return tuple(round(first + i * step, 6) for i in range(pairs))


def trial_pair(job: Job, joint: str, pairs: int = PAIRS, step: float = STEP_MM) -> Job:
    """The job that cuts it. Raises NotchError as `clearances` does."""
    contact, inner, outer = _contact(job, joint)
    name = next(one.title for one in job.design.joints if one.id == joint)
    gaps = clearances(job, joint, pairs, step)
    by_thickness = contact.inner is None
    same = inner == outer
    into = MAIN.id if same else OTHER.id
    width = f"{into}.thickness" if by_thickness else f"{contact.width:.6g}"
    across = job.basis.of(inner).thickness if by_thickness else contact.width
    deep, wall = max(12.0, 3 * job.basis.of(outer).thickness), max(8.0, 2 * job.basis.of(outer).thickness)
    pitch = across + max(gaps) + wall
    steps = [ShapeStep("blank", Rectangle(_mm(pairs * pitch + wall), _mm(deep + 16)))]
    for i, gap in enumerate(gaps):
        slot = Rectangle(Length(f"{width} + {gap:.6g}" if gap >= 0 else f"{width} - {-gap:.6g}"), _mm(deep + 1))
        title = f"slot {i + 1}, clearance {say_mm(gap)}"
        steps.append(ShapeStep(f"slot-{i + 1}", slot, "cut", x=_mm(wall + i * pitch), y=_mm(-1.0), title=title))
        number = Lettering(str(i + 1), _mm(5.0), "single stroke", "middle")
        middle = wall + i * pitch + across / 2
        steps.append(ShapeStep(f"number-{i + 1}", number, "mark", "score", _mm(middle), _mm(deep + 6)))
    tongue = Rectangle(_mm(TONGUE_MM), _mm(TONGUE_MM)) if by_thickness else Rectangle(Length(width), _mm(TONGUE_MM))
    design = Design(
        f"Trial pair: {name}"[:80],
        (Part("slots", "Slots", tuple(steps), loose=1), Part("tongue", "Tongue", (ShapeStep("blank", tongue),), into, loose=2)),
        boards=(MAIN,) if same else (MAIN, OTHER),
    )  # fmt: skip
    boards = {MAIN.id: replace(job.basis.of(outer), into=())}
    if not same:
        boards[OTHER.id] = replace(job.basis.of(inner), into=())
    return Job(design, Basis(tuple(boards.items())))


def read_pair(job: Job, joint: str, answers: Sequence[str]) -> CombRead:
    """What the slots of a usual trial pair tell, each by how the tongue felt in it. Raises NotchError at "answers" or the joint."""
    return read_comb(clearances(job, joint), answers, "slot")


def fit_field(mate: Mate, built: Build) -> str:
    """Where the clearance that held is put, so that it is the fit of that pair of boards; "" where nothing goes into anything."""
    if not mate.contacts:
        return ""
    contact = _telling(mate)
    inner, outer = built.part(contact.inner_part).board, built.part(contact.outer.part).board
    return f"basis/{inner}/clearance" if inner == outer else f"basis/{inner}/into/{outer}"


def _telling(mate: Mate) -> Contact:
    """What tells of a joint's fit: the board itself in a slot, else a finger."""
    return min(mate.contacts, key=lambda one: one.inner is not None)


def _contact(job: Job, joint: str) -> tuple[Contact, str, str]:
    """With the boards of what goes in and of what takes it."""
    built = build(job.design, job.basis)
    mate = next((one for one in built.mates if one.id == joint), None)
    if mate is None or not mate.contacts:
        raise BadDocument(
            f"There is no joint “{joint}” that goes together.",
            fix="Choose one that can be made.",
            field=f"joints/{joint}",
        )
    contact = _telling(mate)
    return contact, built.part(contact.inner_part).board, built.part(contact.outer.part).board


def _mm(value: float) -> Length:
    return Length(f"{value:.6g}")
