"""One file a recipe: a few sizes in, a Design out."""

from .angle_gauge import ANGLE_GAUGE
from .case import CASE
from .crossed_figure import CROSSED_FIGURE
from .divided_case import DIVIDED_CASE, DIVIDER_SET
from .framed_stand import FRAMED_STAND
from .open_tray import OPEN_TRAY
from .panel import PANEL
from .rack import RACK
from .recipe import Recipe, Setting, SettingKind, read_settings
from .tag import TAG

RECIPES: dict[str, Recipe] = {
    recipe.name: recipe
    for recipe in (
        OPEN_TRAY,
        CASE,
        DIVIDED_CASE,
        DIVIDER_SET,
        RACK,
        FRAMED_STAND,
        CROSSED_FIGURE,
        TAG,
        PANEL,
        ANGLE_GAUGE,
    )
}

__all__ = ["RECIPES", "Recipe", "Setting", "SettingKind", "read_settings"]
