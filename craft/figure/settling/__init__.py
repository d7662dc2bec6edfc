"""From stitch graph to the figure at rest: net of springs, surface, settling, measures, meshes."""

from craft.figure.settling.against import Fit, ShapeError, fit, shape_error, signed_apart
from craft.figure.settling.contact import THICK, Contact
from craft.figure.settling.flaps import Flap, Limb, flaps_of, limbs_of
from craft.figure.settling.held import Held, Threads
from craft.figure.settling.measure import (
    OPENING_STRETCH,
    Measures,
    RoundMeasure,
    density_of,
    measure,
    round_nodes,
    shows_filling_above,
    stretch_of,
    with_lids,
)
from craft.figure.settling.mesh_files import MESH_FORMATS, Mesh, mesh_file, node_colours, rgb_of
from craft.figure.settling.net import Net
from craft.figure.settling.relief import Relief, relief_of
from craft.figure.settling.settle import Settled, settle
from craft.figure.settling.sheets import Sheets
from craft.figure.settling.solve import Fabric, settle_net
from craft.figure.settling.springs import Edge

__all__ = [
    "MESH_FORMATS",
    "OPENING_STRETCH",
    "THICK",
    "Contact",
    "Edge",
    "Fabric",
    "Fit",
    "Flap",
    "Held",
    "Limb",
    "Measures",
    "Mesh",
    "Net",
    "Relief",
    "RoundMeasure",
    "Settled",
    "ShapeError",
    "Sheets",
    "Threads",
    "density_of",
    "fit",
    "flaps_of",
    "limbs_of",
    "measure",
    "mesh_file",
    "node_colours",
    "relief_of",
    "rgb_of",
    "round_nodes",
    "settle",
    "settle_net",
    "shape_error",
    "shows_filling_above",
    "signed_apart",
    "stretch_of",
    "with_lids",
]
