"""A recipe answered anew: a design and an answer in; the design as the recipe now makes it, with all that was done by hand.

What was done by hand is what differs from the design that the old answers make: entries that were added or removed,
fields that were changed. All of it is kept, also where the recipe would make something else there.
"""

from __future__ import annotations

import dataclasses
from dataclasses import replace
from typing import Any

from ..design import Answer, Design, dangling
from ..documents import codec
from ..documents.plain import in_unit, length
from ..ground.errors import NotchError
from ..lengths.units import Unit
from ..recipes import RECIPES
from .tree import NoSuchPath, is_typed


def put_answer(design: Design, name: str, value: Any, unit: Unit) -> Design:
    """`design` with another answer to its recipe's question `name`. Raises NotchError at `answers/<name>`."""
    path = f"answers/{name}"
    recipe = RECIPES.get(design.origin.recipe) if design.origin else None
    if recipe is None or design.origin is None:
        raise NoSuchPath(
            "This job follows no recipe.", fix="Change its dimensions instead: dimensions/NAME/length.", field=path
        )
    kinds = {setting.name: setting.kind for setting in recipe.settings}
    if name not in kinds:
        raise NoSuchPath(
            f"The recipe {recipe.title} does not ask for “{name}”.", fix=f"Use: {', '.join(kinds)}.", field=path
        )
    if kinds[name] == "length":
        typed = length(in_unit(value, unit), path)
        answer = Answer(name, typed.text, typed.unit)
    else:
        answer = Answer(name, str(value))
    kept = tuple(one for one in design.origin.answers if one.name != name)
    answered = replace(design, origin=replace(design.origin, answers=(*kept, answer)))
    try:
        base = recipe.again(design)
    except NotchError:
        base = design  # what its own answers cannot make cannot be told from what was done by hand
    try:
        made = recipe.again(answered)
    except NotchError as error:
        error.field = f"answers/{error.field}" if error.field else path
        raise
    merged: Design = _merged(base, design, made)
    return _without_loose_ends(replace(merged, name=design.name, origin=made.origin), design)


def _without_loose_ends(design: Design, before: Design) -> Design:
    """Without joints and placements that were changed by hand and whose parts the recipe makes no more."""
    known = {path for path, _, _ in dangling(before)}
    while True:
        lost = [path.split("/")[:2] for path, _, _ in dangling(design) if path not in known]
        joints = {name for head, name in lost if head == "joints"}
        placements = {name for head, name in lost if head == "placements"}
        if not joints and not placements:
            return design
        design = replace(
            design,
            joints=tuple(one for one in design.joints if one.id not in joints),
            placements=tuple(one for one in design.placements if one.id not in placements),
        )


def _merged(base: Any, mine: Any, made: Any) -> Any:
    """`made` with every difference of `mine` from `base`."""
    if mine == base:
        return made
    if made == base:
        return mine
    if isinstance(mine, tuple) and isinstance(base, tuple) and isinstance(made, tuple):
        keyed = all(codec.key_of(one) for one in (*base, *mine, *made))
        return _entries(base, mine, made) if keyed else mine
    whole = dataclasses.is_dataclass(mine) and not is_typed(mine)
    if not whole or type(mine) is not type(base) or type(made) is not type(base):
        return mine
    return replace(
        mine,
        **{
            field.name: _merged(getattr(base, field.name), getattr(mine, field.name), getattr(made, field.name))
            for field in codec.fields_of(type(mine))
        },
    )


def _entries(base: tuple[Any, ...], mine: tuple[Any, ...], made: tuple[Any, ...]) -> tuple[Any, ...]:
    bases, mines, mades = ({codec.key_of(one): one for one in some} for some in (base, mine, made))
    reordered = [key for key in mines if key in bases] != [key for key in bases if key in mines]
    found: list[Any] = []
    for key, one in mades.items():
        if key in bases and key not in mines:
            continue  # removed by hand
        found.append(_merged(bases[key], mines[key], one) if key in bases else mines.get(key, one))
    kept = {codec.key_of(one) for one in found}
    before: str | None = None
    for key, one in mines.items():
        by_hand = key not in bases or one != bases[key]
        if key not in kept and by_hand:
            keys = [codec.key_of(entry) for entry in found]
            found.insert(keys.index(before) + 1 if before in keys else len(found), one)
        before = key
    if reordered:
        order = {key: i for i, key in enumerate(mines)}
        found.sort(key=lambda one: order.get(codec.key_of(one), len(order)))
    return tuple(found)
