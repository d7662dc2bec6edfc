"""Flat panels: a skin cut into pieces that are worked in rows, edged so that they match, and sewn together."""

from craft.panels.draft import Panel, PanelEdge, Panels, draft_panels
from craft.panels.layout import Placed, laid_out
from craft.panels.sewn import settle_sewn

__all__ = ["Panel", "PanelEdge", "Panels", "Placed", "draft_panels", "laid_out", "settle_sewn"]
