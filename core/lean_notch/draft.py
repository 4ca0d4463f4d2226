"""A recipe tried before anything is kept: settings and a basis in; the drawing, how it follows each size, and the whole job as
computed out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .job import Result
from .recipes import Recipe, read_settings
from .recipes.picture import Names, Views, slope
from .units import Length


@dataclass(frozen=True)
class Draft:
    """`values` are the lengths of the settings in mm; `slopes` say by setting how all of `views` moves with each mm of it,
    `result` is what would be started."""

    views: Views
    slopes: Mapping[str, Views]
    values: Mapping[str, float]
    result: Result


def draft(recipe: Recipe, given: Mapping[str, object], result: Result) -> Draft:
    """Of `recipe` with the settings `given` (lengths say their unit), which made `result`. Raises NotchError at a setting."""
    settings = read_settings(recipe, given)
    design = result.job.design
    names = result.build.names
    known = result.job.basis.names(design.boards[0].id)
    lengths = {name: value for name, value in settings.items() if isinstance(value, Length) and value.text.strip()}
    values = {name: value.mm(known) for name, value in lengths.items()}
    words = {name: value for name, value in settings.items() if isinstance(value, str)}
    if recipe.draw is None:
        return Draft((), {}, values, result)
    views = recipe.draw(names, words)

    def moved(setting: str) -> Names:
        longer = {**settings, setting: Length(f"{values[setting] + 1.0!r}", "mm")}
        return recipe.make(design.name, longer).evaluate(known)

    slopes = {name: slope(views, recipe.draw(moved(name), words)) for name in values if name in names}
    return Draft(views, slopes, values, result)
