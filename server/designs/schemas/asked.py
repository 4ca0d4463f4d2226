"""What the page may ask of designs."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from lean_notch.acts.moving import Side
from lean_notch.basis.settings import Outcome
from lean_notch.edits.edit import LONGEST_PATH
from lean_notch.edits.edit import Edit as CoreEdit
from lean_notch.ground.limits import MOST_EDITS
from lean_notch.hand_over.files import FileFormat
from lean_notch.lengths.in_another_unit import Reader
from lean_notch.lengths.units import Unit
from lean_notch.test_pieces.trial_pair import PAIRS, STEP_MM
from ninja import Schema
from pydantic import Field
from workshop.schemas import ProfileValues

Text = Annotated[str, Field(max_length=200)]


Number = Annotated[int, Field(strict=True, ge=0, le=2**53)]
"""A stock's or a machine's."""


class StartIn(Schema):
    """Starts a job: from a recipe, whose `settings` are texts as typed, in `unit`; or empty, for no recipe."""

    recipe: Text = ""
    name: Annotated[str, Field(max_length=80)]
    settings: Annotated[dict[str, Text], Field(max_length=50, examples=[{"width": "150", "sizes": "inside"}])] = {}
    stock: Number
    machine: Number
    fit: Text = ""
    unit: Unit = "mm"


class DraftIn(Schema):
    """A recipe tried: nothing is kept."""

    recipe: Text
    settings: Annotated[dict[str, Text], Field(max_length=50)] = {}
    stock: Number
    machine: Number
    fit: Text = ""
    unit: Unit = "mm"


class TracksIn(Schema):
    """A column or row of a divided case more at the end, or number `entry`, from 0, less."""

    columns: Text
    rows: Text
    without: Text = ""
    act: Literal["add", "remove"]
    side: Literal["columns", "rows"]
    entry: Annotated[int, Field(ge=0, le=1000)] = 0


class EditIn(Schema):
    """One act: a verb, a path, and for `put` and `switch` a value; see docs/edits.md."""

    verb: Literal["put", "drop", "move", "rename", "switch"]
    path: Annotated[str, Field(max_length=LONGEST_PATH, examples=["parts/front/steps/hole-1/x"])]
    value: Any = None
    after: Annotated[str, Field(max_length=100)] | None = None
    to: Annotated[str, Field(max_length=100)] = ""

    def edit(self) -> CoreEdit:
        return CoreEdit(self.verb, self.path, self.value, self.after, self.to)


class EditsIn(Schema):
    """Edits made one after the other, saved as one revision; texts count in `unit`.

    `seen` and `revision` are the job's `moves` and `revision` as last shown: what others saved since is kept, or refused
    with status 409 where it gets in the way.
    """

    edits: Annotated[list[EditIn], Field(max_length=MOST_EDITS, min_length=1)]
    unit: Unit = "mm"
    seen: int
    revision: int | None = None
    since: int | None = None
    """The revision that the sender holds: only what is other since then needs to come back."""


class TriedIn(Schema):
    """Edits to be tried; texts count in `unit`. Nothing is kept."""

    edits: Annotated[list[EditIn], Field(max_length=MOST_EDITS, min_length=1)]
    unit: Unit = "mm"


class SwapIn(Schema):
    """What of the workshop's to compute a board from instead: numbers of a board, a machine, an entry of the notebook."""

    board: Text = "main"
    stock: Number | None = None
    machine: Number | None = None
    entry: Number | None = None


class TriesIn(Schema):
    swaps: Annotated[list[SwapIn], Field(max_length=12)]


class VariantIn(SwapIn):
    name: Text


class TrialPairIn(Schema):
    """A trial pair of a joint: that many slots, their clearances `step` mm apart."""

    joint: Text
    pairs: Annotated[int, Field(ge=0, le=1000)] = PAIRS
    step: float = STEP_MM


class PairToldIn(Schema):
    """How the tongue felt in each slot of a joint's trial pair, tightest first; "" where it was not tried."""

    joint: Text
    answers: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=40)]


class PlacingIn(Schema):
    """What is wanted of the places of steps: moved by `dx` and `dy` mm, measured from `of`, centred between `of` and `to`, one
    `side` in line with the first one's, or equal gaps along `axis`; of a free outline's `node`: moved, one more added behind it, or
    the edge behind it bent; another kind of shape, `to`; to stand one more of the part up; to `begin` a new step that is wanted for `of`, made of the part or
    kept file `to` where it comes from elsewhere; or to remove the joint `of` and let the placement `to` cover the
    other. Nothing is kept."""

    act: Literal[
        "move",
        "from",
        "between",
        "align",
        "spread",
        "node-move",
        "node-add",
        "node-bend",
        "stand",
        "cover",
        "shape",
        "begin",
    ]
    part: Text = ""
    steps: Annotated[list[Text], Field(max_length=200)] = []
    dx: Annotated[float, Field(ge=-1e5, le=1e5)] = 0.0
    dy: Annotated[float, Field(ge=-1e5, le=1e5)] = 0.0
    of: Text = ""
    to: Text = ""
    axis: Literal["x", "y"] | None = None
    side: Side = "left"
    node: Text = ""
    unit: Unit = "mm"


class RecipeIn(Schema):
    """A job to be kept as a recipe, with the names of the lengths that a new job may set."""

    title: Annotated[str, Field(max_length=80)]
    open: Annotated[list[Text], Field(max_length=50)]


class MoveIn(Schema):
    """Undo or redo, from what `seen` showed; `since` is the revision that the sender holds."""

    seen: int
    since: int | None = None


class GoIn(MoveIn):
    """To a revision of the history."""

    revision: int


class ExportIn(Schema):
    """`profile` says how the files are written; its lengths are in mm. For another `machine` of the workshop than the job's own it is
    planned anew."""

    format: FileFormat = "svg"
    profile: ProfileValues = ProfileValues()
    machine: Number | None = None


class OnBoardIn(Schema):
    """Readings as typed, in `unit`."""

    readings: Annotated[list[Text], Field(max_length=100, min_length=1)]
    unit: Unit = "mm"


class FollowIn(Schema):
    """On what `seen` and `revision` showed."""

    seen: int
    revision: int | None = None


class ReaderIn(Schema):
    """How whoever reads a page writes numbers: `fractions` is the smallest part of an inch that is shown as one, 0 for none."""

    unit: Unit = "mm"
    fractions: Literal["0", "8", "16", "32", "64"] = "0"
    mark: Literal[".", ","] = "."
    form: Literal["html", "pdf"] = "html"
    paper: Annotated[str, Field(max_length=40, examples=["A4", "200x250"])] = "A4"
    """A name, or width x height in mm."""

    @property
    def reader(self) -> Reader:
        return Reader(self.unit, int(self.fractions), self.mark)


class OutcomeIn(Schema):
    outcome: Outcome
