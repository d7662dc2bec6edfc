"""What rounds are drafted for: solids, traced silhouettes, stacks, meshes, modifiers, and the way along their skin."""

from craft.shape.target.box import Box
from craft.shape.target.cut import CutPiece, cut
from craft.shape.target.distance import distance_from, distance_from_pole
from craft.shape.target.form import BASES, Form, as_form
from craft.shape.target.laplace import evened_between
from craft.shape.target.mesh import MOST_FACES, PackedMesh, TriangleMesh, revolved
from craft.shape.target.modifiers import MODIFIERS, Knob, Modifier, ModifierKey, ModifierKind
from craft.shape.target.patches import Patch, PatchEdge, patches_of
from craft.shape.target.solids import SOLIDS, Outline, Solid, SolidKind
from craft.shape.target.stack import Stack
from craft.shape.target.traced import Traced, smooth_half

__all__ = [
    "BASES",
    "MODIFIERS",
    "MOST_FACES",
    "SOLIDS",
    "Box",
    "CutPiece",
    "Form",
    "Knob",
    "Modifier",
    "ModifierKey",
    "ModifierKind",
    "Outline",
    "PackedMesh",
    "Patch",
    "PatchEdge",
    "Solid",
    "SolidKind",
    "Stack",
    "Traced",
    "TriangleMesh",
    "as_form",
    "cut",
    "distance_from",
    "distance_from_pole",
    "evened_between",
    "patches_of",
    "revolved",
    "smooth_half",
]
