"""A design of one's own as a recipe: in, the design and which of its chosen lengths stay open; out, a recipe that asks for them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from ..design import Design
from ..ground.errors import BadDocument, MissingInput
from ..ground.limits import MOST_OPEN_ANSWERS
from ..ground.wording import capital
from ..lengths.length import Length
from ..lengths.units import Unit
from ..recipes import Recipe, Setting, read_settings
from . import tree
from .recipe import put_answer


class OwnRecipe(Recipe):
    """What it makes goes on like any design: it keeps the recipe that it came from, if any."""

    def design(self, name: str, given: Mapping[str, object], unit: Unit = "mm") -> Design:
        return self.make(name, read_settings(self, self.typed(given, unit)))


def own_recipe(name: str, title: str, design: Design, open_lengths: Sequence[str]) -> OwnRecipe:
    """Raises NotchError for a length that is not one of the design's chosen ones."""
    chosen = {one.name: one for one in design.dimensions if one.chosen}
    unknown = [one for one in open_lengths if one not in chosen]
    if unknown:
        raise BadDocument(
            f"“{unknown[0]}” is not a chosen length of {design.name}.",
            fix=f"Use: {', '.join(chosen) or 'none yet, add a named length first'}.", field="open",
        )  # fmt: skip
    if not open_lengths:
        raise MissingInput(
            "No length is left open.", fix="Choose at least one length that a new job may set.", field="open"
        )
    if len(open_lengths) > MOST_OPEN_ANSWERS:
        raise BadDocument(
            f"{len(open_lengths)} lengths are left open.", fix=f"Choose at most {MOST_OPEN_ANSWERS}.", field="open"
        )

    def make(called: str, values: Mapping[str, Length | str]) -> Design:
        made = design
        for one in open_lengths:
            typed = values[one]
            assert isinstance(typed, Length), "all settings are lengths"
            value = {"text": typed.text, "unit": typed.unit}
            if made.origin and made.origin.answer(one):
                made = put_answer(made, one, value, "mm")
            else:
                made = tree.put(made, ("dimensions", one, "length"), value, "mm", None)
        return replace(made, name=called)

    settings = tuple(
        Setting(one, capital(chosen[one].title), "length", _default(chosen[one].length))
        for one in dict.fromkeys(open_lengths)
    )
    words = ", ".join(f"{one.title.lower()} {{{one.name}}}" for one in settings)
    return OwnRecipe(
        name, title, f"{design.name}, with {len(settings)} open.", settings, make, sentence=f"Open: {words}."
    )


def _default(length: Length) -> str:
    return (
        length.text if length.unit == "mm" or any(c.isalpha() or c == '"' for c in length.text) else f"{length.text} in"
    )
