"""From stitch graph to the figure at rest: net of springs, surface, settling, measures, meshes."""

from craft.settling.against import Fit, ShapeError, fit, shape_error
from craft.settling.measure import (
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
from craft.settling.mesh_files import MESH_FORMATS, Mesh, mesh_file, node_colours, rgb_of
from craft.settling.relief import Relief, relief_of
from craft.settling.settle import Settled, settle

__all__ = [
    "MESH_FORMATS",
    "OPENING_STRETCH",
    "Fit",
    "Measures",
    "Mesh",
    "Relief",
    "RoundMeasure",
    "Settled",
    "ShapeError",
    "density_of",
    "fit",
    "measure",
    "mesh_file",
    "node_colours",
    "relief_of",
    "rgb_of",
    "round_nodes",
    "settle",
    "shape_error",
    "shows_filling_above",
    "stretch_of",
    "with_lids",
]
