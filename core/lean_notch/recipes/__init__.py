"""One file a recipe: a few sizes in, a Design out."""

from .open_tray import OPEN_TRAY
from .recipe import Recipe, Setting, read_settings

RECIPES: dict[str, Recipe] = {recipe.name: recipe for recipe in (OPEN_TRAY,)}

__all__ = ["RECIPES", "Recipe", "Setting", "read_settings"]
