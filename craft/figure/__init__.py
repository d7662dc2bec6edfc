"""Parts in space: rings of stitches from the inflated profile, pieces placed on pieces, and the SVG picture."""

from craft.figure.body import Body, Ring, body_of
from craft.figure.picture import View, draw
from craft.figure.placing import Placed, Seat, extent, place

__all__ = ["Body", "Placed", "Ring", "Seat", "View", "body_of", "draw", "extent", "place"]
