"""What a recipe is: a name, the settings it asks for, and a function from their values to a Design."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from ..design import Design
from ..documents import choice, in_unit, length, whole
from ..errors import BadDocument, MissingInput
from ..units import Length, Unit

Values = Mapping[str, Length | str]


@dataclass(frozen=True)
class Setting:
    """One question of a recipe. A length that may stay empty is `optional`; a count is a whole number above 0."""

    name: str
    title: str
    kind: Literal["length", "choice", "count"]
    default: str
    help: str = ""
    choices: tuple[str, ...] = ()
    optional: bool = False


@dataclass(frozen=True)
class Recipe:
    name: str
    title: str
    about: str
    settings: tuple[Setting, ...]
    make: Callable[[str, Values], Design]

    def design(self, name: str, given: Mapping[str, object], unit: Unit = "mm") -> Design:
        """The design called `name` for the `given` settings, texts in `unit`; what is not given takes its default."""
        return self.make(name, read_settings(self, self.typed(given, unit)))

    def typed(self, given: Mapping[str, object], unit: Unit) -> dict[str, object]:
        """`given` settings, the lengths among them said to be typed in `unit`."""
        lengths = {setting.name for setting in self.settings if setting.kind == "length"}
        return {key: in_unit(value, unit) if key in lengths else value for key, value in given.items()}


def read_settings(recipe: Recipe, given: Mapping[str, object]) -> dict[str, Length | str]:
    """Every setting of `recipe` as a Length or a choice. Raises at the setting's name."""
    known = [setting.name for setting in recipe.settings]
    for name in given:
        if name not in known:
            raise BadDocument(
                f"The recipe {recipe.title} has no setting “{name}”.",
                fix=f"Use: {', '.join(known)}.",
                field=name,
            )
    values: dict[str, Length | str] = {}
    for setting in recipe.settings:
        value = given.get(setting.name, setting.default)
        if setting.kind == "choice":
            values[setting.name] = choice(value, setting.choices, setting.name)
            continue
        if setting.kind == "count":
            values[setting.name] = str(whole(value, setting.name, 1, 1000))
            continue
        typed = length(value, setting.name)
        if not typed.text.strip() and not setting.optional:
            raise MissingInput(
                f"{setting.title} is empty.",
                fix=f"Type a length, for example {setting.default}.",
                field=setting.name,
            )
        values[setting.name] = typed
    return values
