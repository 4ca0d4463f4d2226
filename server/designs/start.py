"""What a new job is started from, as the page shows it: recipes, what there is to choose, and a recipe tried."""

from __future__ import annotations

from dataclasses import asdict
from functools import cache

from lean_notch.acts.beginning import PURPOSES
from lean_notch.basis import (
    DIRECTIONS,
    MACHINE_KINDS,
    STOCK_KINDS,
    USUAL_SPEEDS,
    Basis,
    BoardBasis,
    Limits,
    machine_from_json,
    stock_from_json,
)
from lean_notch.basis.comb import FEELS
from lean_notch.basis.fits import COMMON_FITS
from lean_notch.basis.never import MADE_OF
from lean_notch.basis.settings import OUTCOMES, RESULTS
from lean_notch.basis.stock import KINDS as BOARD_KINDS
from lean_notch.basis.stock import Kind
from lean_notch.design import RELIEFS
from lean_notch.design.describe import field_infos
from lean_notch.formats.file_kinds import FORMATS
from lean_notch.ground.errors import NotchError
from lean_notch.ground.operations import OPERATIONS
from lean_notch.joints import KINDS
from lean_notch.making import build, fit_wants, joint_fits
from lean_notch.recipes import RECIPES, Recipe
from lean_notch.told.another_basis import job_seconds
from lean_notch.told.recipe_tried import Draft
from workshop.actions import kind_limits
from workshop.schemas import SpeedValues

from . import table_schemas as out
from .compute import OUTLINES
from .own_recipes import own_recipes
from .parts import path_of
from .pictures import MOST_FLAT, panels_of, used_share

Looks = tuple[list[out.PanelOut], list[out.FlatOut]]


@cache
def _usual(recipe: str) -> Looks:
    return looks(RECIPES[recipe])


def looks(recipe: Recipe) -> Looks:
    """What a recipe makes as it comes, of a usual board: for its picture on the shelf."""
    drawn = recipe.design("a recipe", {})
    built = build(drawn, Basis(tuple((board.id, USUAL_BOARD) for board in drawn.boards)), OUTLINES)
    panels = [out.PanelOut(**one) for one in panels_of(built)]
    flat = [out.FlatOut(path=path_of(part.region), box=part.box) for part in built.parts[: 0 if panels else MOST_FLAT]]
    return panels, flat


def show_recipe(recipe: Recipe, shown: Looks) -> out.RecipeOut:
    panels, flat = shown
    return out.RecipeOut(
        name=recipe.name, title=recipe.title, about=recipe.about, settings=recipe.settings, sentence=recipe.sentence,
        panels=panels, flat=flat, own=recipe.name not in RECIPES,
    )  # fmt: skip


def _own() -> list[out.RecipeOut]:
    """The workshop's own; one that cannot be made of a usual board is shown without a picture."""
    found = []
    for recipe in own_recipes():
        try:
            shown = looks(recipe)
        except NotchError:
            shown = ([], [])
        found.append(show_recipe(recipe, shown))
    return found


USUAL_BOARD = BoardBasis(
    stock_from_json({"name": "board", "nominal": 3, "readings": [3], "sheet_width": 600, "sheet_height": 400}).board,
    machine_from_json({"name": "laser", "bed_width": 600, "bed_height": 400, "kerf": 0.15}),
    COMMON_FITS.snug,
)


MOST_SAID = 3


def show_draft(made: Draft) -> out.DraftOut:
    result, board = made.result, made.result.job.design.boards[0]
    basis, layout = result.job.basis.of(board.id), result.layout
    parts = {part.id: part for part in result.build.parts}
    fits = joint_fits(result.build.parts, result.build.mates, result.job.basis)
    return out.DraftOut(
        views=made.views, slopes=dict(made.slopes), values=dict(made.values),
        panels=[out.PanelOut(**one) for one in panels_of(result.build)],
        flat=[out.FlatOut(path=path_of(part.region), box=part.box) for part in result.build.parts[:MOST_FLAT]],
        findings=[
            *(one for one in result.build.findings if one.severity == "stop"),
            *(one for one in result.limits if one.severity != "unseen"),
        ][:MOST_SAID],
        sheets=[
            out.DraftSheet(
                width=sheet.area.width, height=sheet.area.height,
                parts=[
                    out.DraftPart(
                        title=parts[one.part].title, path=path_of(parts[one.part].region), x=one.motion.x, y=one.motion.y,
                        angle=one.motion.angle,
                    )
                    for one in layout.on_sheet(sheet.number)
                ],
            )
            for sheet in layout.sheets
        ],
        pieces=len(layout.placed), used=used_share(result), seconds=job_seconds(result), cut=sum(result.cut_lengths),
        thickness=basis.thickness, slot=basis.slot, slot_drawn=basis.slot_drawn, fit=basis.fit, wants=fit_wants(fits),
        doubts=list(basis.doubts), own_speeds=basis.machine.speeds is not None,
    )  # fmt: skip


def show_choices() -> out.ChoicesOut:
    return out.ChoicesOut(
        recipes=[*(show_recipe(recipe, _usual(name)) for name, recipe in RECIPES.items()), *_own()],
        directions=list(DIRECTIONS),
        feels=list(FEELS),
        results=list(RESULTS),
        outcomes=dict(OUTCOMES),
        stock_kinds=list(STOCK_KINDS),
        made_of=list(MADE_OF),
        limits=_limits(),
        machine_kinds=list(MACHINE_KINDS),
        usual_speeds={kind: SpeedValues(**asdict(speeds)) for kind, speeds in USUAL_SPEEDS.items()},
        reliefs=list(RELIEFS),
        operations=dict(OPERATIONS),
        joints={
            kind.kind: out.JointKindOut(title=joint.title, first=joint.ends[0], second=joint.ends[1])
            for kind, joint in KINDS.items()
        },
        fields=field_infos(),
        formats=[out.FormatOut(format=one.format, title=one.title, about=one.about) for one in FORMATS.values()],
        purposes=[out.PurposeOut(purpose=name, title=one.title, of=one.of) for name, (one, _) in PURPOSES.items()],
    )


def _limits() -> dict[str, out.KindLimitsOut]:
    known = kind_limits()
    return {name: _limits_of(known.get(name, Limits()), kind) for name, kind in BOARD_KINDS.items()}


def _limits_of(own: Limits, kind: Kind) -> out.KindLimitsOut:
    common, used = Limits().of(kind), own.of(kind)
    return out.KindLimitsOut.model_validate({"common": asdict(common), "own": asdict(own), "used": asdict(used)})
