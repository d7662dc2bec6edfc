"""Shapes from files that others made: meshes and drawings. Studios read them in a process with limits (`__main__`)."""

from craft.shape.intake.drawing import Drawing, read_drawing
from craft.shape.intake.half import half_outline
from craft.shape.intake.mesh import ENDINGS, MeshRead, read_mesh
from craft.shape.intake.standing import POLES, mesh_form

__all__ = ["ENDINGS", "POLES", "Drawing", "MeshRead", "half_outline", "mesh_form", "read_drawing", "read_mesh"]
