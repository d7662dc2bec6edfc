"""Flat panels: a skin cut into pieces that are worked in rows, edged so that they match, and sewn together."""

from craft.fitting.panels.draft import Panel, PanelEdge, Panels, draft_panels
from craft.fitting.panels.layout import Placed, laid_out
from craft.fitting.panels.recipe import PanelRecipe, recipe_json, recipe_of, seams_direction
from craft.fitting.panels.sewn import settle_sewn

__all__ = [
    "Panel",
    "PanelEdge",
    "PanelRecipe",
    "Panels",
    "Placed",
    "draft_panels",
    "laid_out",
    "recipe_json",
    "recipe_of",
    "seams_direction",
    "settle_sewn",
]
