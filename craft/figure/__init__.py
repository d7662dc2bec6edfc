"""Parts in space: rings of stitches from the inflated profile, and the SVG picture."""

from craft.figure.body import Body, Placed, Ring, body_of
from craft.figure.picture import Faces, View, draw, draw_faces

__all__ = ["Body", "Faces", "Placed", "Ring", "View", "body_of", "draw", "draw_faces"]
