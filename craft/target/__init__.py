"""What rounds are drafted for: solids, traced silhouettes, stacks, meshes, modifiers, and the way along their skin."""

from craft.target.box import Box
from craft.target.cut import CutPiece, cut
from craft.target.distance import distance_from, distance_from_pole
from craft.target.form import Form, as_form
from craft.target.laplace import evened_between
from craft.target.modifiers import MODIFIERS, Knob, Modifier, ModifierKind
from craft.target.patches import Patch, PatchEdge, patches_of
from craft.target.shell import MOST_FACES, Shell, revolved
from craft.target.solids import SOLIDS, Outline, Solid, SolidKind
from craft.target.stack import Stack
from craft.target.traced import Traced, smooth_half

__all__ = [
    "MODIFIERS",
    "MOST_FACES",
    "SOLIDS",
    "Box",
    "CutPiece",
    "Form",
    "Knob",
    "Modifier",
    "ModifierKind",
    "Outline",
    "Patch",
    "PatchEdge",
    "Shell",
    "Solid",
    "SolidKind",
    "Stack",
    "Traced",
    "as_form",
    "cut",
    "distance_from",
    "distance_from_pole",
    "evened_between",
    "patches_of",
    "revolved",
    "smooth_half",
]
