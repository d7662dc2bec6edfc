"""Parts in space: rings of stitches from the inflated profile, and the SVG picture."""

from craft.figure.body import Body, Placed, Ring, body_of
from craft.figure.picture import View, draw

__all__ = ["Body", "Placed", "Ring", "View", "body_of", "draw"]
