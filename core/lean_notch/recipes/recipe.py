"""What a recipe is: a name, the settings it asks for, and a function from their values to a Design."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from ..design import Answer, Design, Origin
from ..documents.plain import choice, in_unit, length, text, whole
from ..documents.rules import AmountRule
from ..ground.errors import BadDocument, MissingInput, NotchError
from ..lengths.length import Length
from ..lengths.units import Unit
from .picture import Draw

Values = Mapping[str, Length | str]
SettingKind = Literal["length", "choice", "count", "angle", "words", "tracks"]


@dataclass(frozen=True)
class Setting:
    """One question of a recipe. A length that may stay empty is `optional`; a count is a whole number, `least` or more, an angle is in
    degrees, words may stay empty; tracks are sizes one after the other."""

    name: str
    title: str
    kind: SettingKind
    default: str
    help: str = ""
    choices: tuple[str, ...] = ()
    optional: bool = False
    least: int = 1


@dataclass(frozen=True)
class Recipe:
    name: str
    title: str
    about: str
    settings: tuple[Setting, ...]
    make: Callable[[str, Values], Design]
    draw: Draw | None = None
    check: Callable[[Mapping[str, float]], None] | None = None
    """Raises NotchError at the setting, by all named lengths in mm: what the parts themselves would refuse less plainly."""
    sentence: str = ""
    """The settings that no picture shows, in words: "{finger}" stands for the choice itself."""

    def design(self, name: str, given: Mapping[str, object], unit: Unit = "mm") -> Design:
        """The design called `name` for the `given` settings, texts in `unit`; what is not given takes its default.

        The same answers make the same design for ever: what of it was changed by hand is told by making it again. A
        recipe that should make something else gets another name.
        """
        values = read_settings(self, self.typed(given, unit))
        answers = tuple(
            Answer(key, value.text, value.unit) if isinstance(value, Length) else Answer(key, value)
            for key, value in values.items()
        )
        made = replace(self.make(name, values), origin=Origin(self.name, answers))
        self._check(made)
        return made

    def _check(self, design: Design) -> None:
        """Where its lengths are known before the board is."""
        if self.check is None or any("thickness" in one.names or "clearance" in one.names for one in design.dimensions):
            return
        try:
            names = design.evaluate({})
        except NotchError:
            return  # said where it is built, with all names at hand
        self.check(names)

    def again(self, design: Design) -> Design:
        """The design as its own answers make it. Raises NotchError at the answer."""
        assert design.origin, "a design of this recipe"
        given = {one.name: {"text": one.text, "unit": one.unit} for one in design.origin.answers}
        kinds = {setting.name: setting.kind for setting in self.settings}
        plain = {name: one if kinds.get(name) in ("length", "tracks") else one["text"] for name, one in given.items()}
        return self.design(design.name, plain)

    def typed(self, given: Mapping[str, object], unit: Unit) -> dict[str, object]:
        """`given` settings, the lengths among them said to be typed in `unit`."""
        lengths = {setting.name for setting in self.settings if setting.kind in ("length", "tracks")}
        return {key: in_unit(value, unit) if key in lengths else value for key, value in given.items()}


_ANGLE = AmountRule(1, 359, "°")
MOST_LETTERS = 60


def read_settings(recipe: Recipe, given: Mapping[str, object]) -> dict[str, Length | str]:
    """Every setting of `recipe` as a Length or a choice. Raises NotchError at the answer."""
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
        value, path = given.get(setting.name, setting.default), setting.name
        if setting.kind == "choice":
            values[setting.name] = choice(value, setting.choices, path)
            continue
        if setting.kind == "count":
            values[setting.name] = str(whole(value, path, setting.least, 1000))
            continue
        if setting.kind == "angle":
            values[setting.name] = _ANGLE.read(value, path).text
            continue
        if setting.kind == "words":
            values[setting.name] = text(value, path, MOST_LETTERS, required=False)
            continue
        typed = length(value, path)
        if not typed.text.strip() and not setting.optional:
            raise MissingInput(
                f"{setting.title} is empty.",
                fix=f"Type a length, for example {setting.default}.",
                field=path,
            )
        values[setting.name] = typed
    return values
