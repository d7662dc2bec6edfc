"""The figure as a picture: its stitches with relief, light and shadow, drawn by OpenGL in memory, without a window."""

from craft.figure.render.gl import PaintingError
from craft.figure.render.look import Look, Side
from craft.figure.render.painter import render
from craft.figure.render.subject import Bead, Cloth, Sheet, Subject, Thread, cloth_of

__all__ = ["Bead", "Cloth", "Look", "PaintingError", "Sheet", "Side", "Subject", "Thread", "cloth_of", "render"]
