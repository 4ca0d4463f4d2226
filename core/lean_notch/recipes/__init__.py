"""One file a recipe: a few sizes in, a Design out."""

from .angle_gauge import ANGLE_GAUGE
from .open_tray import OPEN_TRAY
from .panel import PANEL
from .recipe import Recipe, Setting, SettingKind, read_settings
from .tag import TAG

RECIPES: dict[str, Recipe] = {recipe.name: recipe for recipe in (OPEN_TRAY, TAG, PANEL, ANGLE_GAUGE)}

__all__ = ["RECIPES", "Recipe", "Setting", "SettingKind", "read_settings"]
