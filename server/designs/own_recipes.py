"""Designs of the workshop's own as recipes: kept with the lengths that a new job may set, and found by their name."""

from __future__ import annotations

from django.utils import timezone
from lean_notch.design import design_from_json, design_to_json
from lean_notch.documents.plain import text
from lean_notch.edits.own_recipes import own_recipe
from lean_notch.ground.errors import BadDocument, NotchError
from lean_notch.recipes import RECIPES, Recipe

from .actions import head_of
from .models import Design, OwnRecipe
from .rack import NothingThere

MOST_OWN = 50
PREFIX = "own-"


def recipe_called(name: str) -> Recipe:
    """One that ships, or one of the workshop's own. Raises NothingThere."""
    known = RECIPES.get(name)
    if known:
        return known
    return read_own(_row(name))


def _row(name: str) -> OwnRecipe:
    number = name.removeprefix(PREFIX)
    plain = name.startswith(PREFIX) and number.isascii() and number.isdigit() and len(number) < 18
    row = OwnRecipe.objects.filter(pk=int(number), removed=None).first() if plain else None
    if row is None:
        raise NothingThere(f"There is no recipe “{name}”.", fix=f"Use one of: {', '.join(RECIPES)}.", field="recipe")
    return row


def remove_recipe(name: str) -> None:
    row = _row(name)
    row.removed = timezone.now()
    row.save(update_fields=["removed"])


def read_own(row: OwnRecipe) -> Recipe:
    return own_recipe(f"{PREFIX}{row.pk}", row.title, design_from_json(row.document), row.open)


def own_recipes() -> list[Recipe]:
    """Those that can still be read, the newest first."""
    found = []
    for row in OwnRecipe.objects.filter(removed=None).order_by("-pk")[:MOST_OWN]:
        try:
            found.append(read_own(row))
        except NotchError:
            continue
    return found


def save_recipe(design: Design, title: str, open_lengths: list[str]) -> Recipe:
    """Keeps a design, as it stands, as a recipe. Raises NotchError at the field."""
    if OwnRecipe.objects.filter(removed=None).count() >= MOST_OWN:
        raise BadDocument(f"There are {MOST_OWN} recipes already.", fix="Remove one first.", field="title")
    drawn = head_of(design).job.design
    called = text(title, "title", 80)
    own_recipe("new", called, drawn, open_lengths)  # one that could not be used is not kept
    row = OwnRecipe.objects.create(title=called, document=design_to_json(drawn), open=open_lengths)
    return read_own(row)
