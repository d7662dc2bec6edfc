"""Settled figures as files: OBJ, STL and GLB, with the yarns' colours where the format has them.

Millimetres, z up, R1 at the origin, outward winding, vertices in stitch order; GLB in metres and y
up, as glTF 2.0 (Khronos, 2017) has it. Written by trimesh.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import trimesh
from numpy.typing import NDArray
from trimesh.exchange.gltf import export_glb
from trimesh.exchange.obj import export_obj
from trimesh.exchange.stl import export_stl

from craft.errors import CraftError
from craft.figure.settling.settle import Settled

Vector = NDArray[np.float64]

UNCOLOURED = "#c9a77c"
"""Colour of yarn that has none given."""


@dataclass(frozen=True, slots=True)
class Mesh:
    """A surface to write: x (n, 3) in mm, triangles (t, 3), rgb (n, 3) sRGB of every vertex."""

    name: str
    x: Vector
    triangles: NDArray[np.int64]
    rgb: NDArray[np.uint8]

    @classmethod
    def of(cls, settled: Settled, colours: Mapping[str, str]) -> Mesh:
        """The mesh of a settled part; colours by yarn name."""
        return cls(settled.part.name or "Part", settled.x, settled.triangles, node_colours(settled, colours))

    @classmethod
    def together(cls, name: str, meshes: Sequence[Mesh]) -> Mesh:
        """Several as one."""
        first = np.cumsum([0, *(len(m.x) for m in meshes)])
        return cls(
            name,
            np.concatenate([m.x for m in meshes]),
            np.concatenate([m.triangles + n for m, n in zip(meshes, first[:-1], strict=True)]),
            np.concatenate([m.rgb for m in meshes]),
        )


def node_colours(settled: Settled, colours: Mapping[str, str]) -> NDArray[np.uint8]:
    """(n, 3) sRGB of every node; `colours` gives `#rrggbb` by the yarn's name."""
    graph, net = settled.graph, settled.net
    table = np.array(
        [rgb_of(colours.get(name, UNCOLOURED)) for name in graph.colours] or [rgb_of(UNCOLOURED)], np.uint8
    )
    out = np.empty((net.size, 3), np.uint8)
    many = len(net.stitch)
    out[:many] = table[graph.colour[net.stitch]]
    for middle in range(many, net.size):
        spokes = net.links[net.links[:, 1] == middle, 0]
        out[middle] = out[spokes[0]] if len(spokes) else table[0]
    return out


def rgb_of(text: str) -> tuple[int, int, int]:
    """A colour written like #7a5238; CraftError when it is none."""
    try:
        value = int(text.removeprefix("#"), 16)
    except ValueError:
        raise CraftError(f"{text!r} is no colour; a colour is written like #7a5238.") from None
    return value >> 16 & 255, value >> 8 & 255, value & 255


def _surface(mesh: Mesh, x: Vector, rgb: NDArray[np.uint8]) -> trimesh.Trimesh:
    return trimesh.Trimesh(x, mesh.triangles, vertex_colors=rgb, process=False)


def as_obj(mesh: Mesh) -> bytes:
    """Wavefront OBJ; colours stand behind each vertex, as many programs read them."""
    head = f"{mesh.name}: millimetres, z up, one vertex a stitch"
    written: str = export_obj(
        _surface(mesh, mesh.x, mesh.rgb), include_normals=False, include_texture=False, digits=4, header=head
    )
    return written.encode() + b"\n"


def as_stl(mesh: Mesh) -> bytes:
    """Binary STL; it has no colours, and says its unit nowhere but in the free words at its head."""
    return b"Settled figure, millimetres".ljust(80) + bytes(export_stl(_surface(mesh, mesh.x, mesh.rgb)))[80:]


def as_glb(mesh: Mesh) -> bytes:
    """Binary glTF 2.0 with a colour for every vertex, linear as the format has them."""
    x = mesh.x[:, [0, 2, 1]] * np.array([1.0, 1.0, -1.0]) / 1000
    share = mesh.rgb / 255
    linear = np.where(share <= 10 / 255, share / 12.92, ((share + 0.055) / 1.055) ** 2.4)
    scene = trimesh.Scene()
    scene.add_geometry(_surface(mesh, x, (linear * 255).round().astype(np.uint8)), geom_name=mesh.name)
    return bytes(export_glb(scene, include_normals=False, tree_postprocessor=_matt))


def _matt(tree: dict[str, Any]) -> None:
    """Yarn is no metal, and is seen from inside through openings."""
    tree["materials"] = [{"pbrMetallicRoughness": {"metallicFactor": 0, "roughnessFactor": 1}, "doubleSided": True}]
    for mesh in tree["meshes"]:
        for primitive in mesh["primitives"]:
            primitive["material"] = 0


MESH_FORMATS: Mapping[str, Callable[[Mesh], bytes]] = {"obj": as_obj, "stl": as_stl, "glb": as_glb}
"""Writers by file ending."""


def mesh_file(mesh: Mesh, ending: str) -> bytes:
    """A mesh as a file; CraftError when there is no writer for `ending`."""
    if ending not in MESH_FORMATS:
        raise CraftError(f"Meshes are written as {', '.join(MESH_FORMATS)}; not as {ending!r}.")
    return MESH_FORMATS[ending](mesh)
