"""A recipe tried before anything is kept: settings and a basis in; the drawing, how it follows each size, and the whole job as
computed out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..design import Design
from ..ground.errors import NotchError
from ..job import Result
from ..lengths.length import Length
from ..making import Build, Outlines, build, no_files
from ..recipes import Recipe, read_settings
from ..recipes.flat import flat_views
from ..recipes.picture import Names, Views, slope


@dataclass(frozen=True)
class Draft:
    """`values` are the lengths of the settings in mm; `slopes` say by setting how all of `views` moves with each mm of it,
    `result` is what would be started."""

    views: Views
    slopes: Mapping[str, Views]
    values: Mapping[str, float]
    result: Result


def draft(recipe: Recipe, given: Mapping[str, object], result: Result, outlines: Outlines = no_files) -> Draft:
    """Of `recipe` with the settings `given` (lengths say their unit), which made `result`. Raises NotchError at a setting."""
    settings = read_settings(recipe, given)
    design = result.job.design
    names = result.build.names
    known = result.job.basis.names(design.boards[0].id)
    kinds = {setting.name: setting.kind for setting in recipe.settings}
    lengths = {
        name: value for name, value in settings.items()
        if isinstance(value, Length) and kinds[name] == "length" and value.text.strip()
    }  # fmt: skip
    values = {name: value.mm(known) for name, value in lengths.items()}
    words = {name: value if isinstance(value, str) else value.text for name, value in settings.items()}

    def drawn(design: Design, built: Build | None, names: Names) -> Views:
        if recipe.draw:
            return recipe.draw({**known, **names}, words)
        made = built or build(design, result.job.basis, outlines)
        return flat_views(design, made, values.keys(), {**known, **made.names})

    views = drawn(design, result.build, names)
    slopes = {}
    for name in values:
        if name not in names:
            continue
        longer = {**settings, name: Length(f"{values[name] + 1.0!r}", "mm")}
        try:
            other = recipe.make(design.name, longer)
            slopes[name] = slope(views, drawn(other, None, other.evaluate(known)))
        except (NotchError, ValueError):
            continue  # other sizes have another drawing: it follows once it is computed
    return Draft(views, slopes, values, result)
