"""Settled figures as files: OBJ, STL and GLB, with the yarns' colours where the format has them.

Millimetres, z up, R1 at the origin, outward winding, vertices in stitch order; GLB in metres and y
up, as glTF 2.0 (Khronos, 2017) has it. Binary STL as commonly read: 80 bytes, count, triangles.
"""

from __future__ import annotations

import json
import struct
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.figure.settling.settle import Settled

Vector = NDArray[np.float64]

UNCOLOURED = "#c9a77c"
"""Colour of yarn that has none given."""

_FLOAT, _UNSIGNED_INT, _UNSIGNED_BYTE = 5126, 5125, 5121
_VERTICES, _TRIANGLES = 34962, 34963


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


def as_obj(mesh: Mesh) -> bytes:
    """Wavefront OBJ; colours stand behind each vertex, as many programs read them."""
    shade = mesh.rgb / 255
    lines = [f"# {mesh.name}: millimetres, z up, one vertex a stitch"]
    lines += [
        f"v {x:.4f} {y:.4f} {z:.4f} {r:.4f} {g:.4f} {b:.4f}"
        for (x, y, z), (r, g, b) in zip(mesh.x.tolist(), shade.tolist(), strict=True)
    ]
    lines += [f"f {a} {b} {c}" for a, b, c in (mesh.triangles + 1).tolist()]
    return ("\n".join(lines) + "\n").encode()


def as_stl(mesh: Mesh) -> bytes:
    """Binary STL; it has no colours."""
    corners = mesh.x[mesh.triangles].astype("<f4")
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12)
    rows = np.zeros(len(corners), [("normal", "<f4", 3), ("corners", "<f4", (3, 3)), ("spare", "<u2")])
    rows["normal"], rows["corners"] = normal, corners
    return b"Settled figure, millimetres".ljust(80) + struct.pack("<I", len(rows)) + rows.tobytes()


def as_glb(mesh: Mesh) -> bytes:
    """Binary glTF 2.0 with a colour for every vertex."""
    x = mesh.x[:, [0, 2, 1]] * np.array([1.0, 1.0, -1.0]) / 1000
    shade = np.append(mesh.rgb, np.full((len(x), 1), 255, np.uint8), axis=1)
    linear = (
        np.where(shade[:, :3] <= 10, shade[:, :3] / 255 / 12.92, ((shade[:, :3] / 255 + 0.055) / 1.055) ** 2.4) * 255
    )
    shade[:, :3] = linear.round().astype(np.uint8)
    positions, tints = x.astype("<f4"), np.ascontiguousarray(shade)
    faces = mesh.triangles.astype("<u4")
    blobs = [positions.tobytes(), tints.tobytes(), faces.tobytes()]
    starts = np.cumsum([0, *(len(b) for b in blobs)]).tolist()
    targets = (_VERTICES, _VERTICES, _TRIANGLES)
    document = {
        "asset": {"version": "2.0"},
        "scene": 0,
        "scenes": [{"nodes": [0]}],
        "nodes": [{"mesh": 0, "name": mesh.name}],
        "materials": [{"pbrMetallicRoughness": {"metallicFactor": 0, "roughnessFactor": 1}, "doubleSided": True}],
        "meshes": [{"primitives": [{"attributes": {"POSITION": 0, "COLOR_0": 1}, "indices": 2, "material": 0}]}],
        "accessors": [
            {
                "bufferView": 0, "componentType": _FLOAT, "count": len(x), "type": "VEC3",
                "min": positions.min(0).tolist(), "max": positions.max(0).tolist(),
            },
            {"bufferView": 1, "componentType": _UNSIGNED_BYTE, "normalized": True, "count": len(x), "type": "VEC4"},
            {"bufferView": 2, "componentType": _UNSIGNED_INT, "count": faces.size, "type": "SCALAR"},
        ],
        "bufferViews": [
            {"buffer": 0, "byteOffset": starts[i], "byteLength": len(blob), "target": targets[i]}
            for i, blob in enumerate(blobs)
        ],
        "buffers": [{"byteLength": starts[-1]}],
    }  # fmt: skip
    head = json.dumps(document, separators=(",", ":")).encode()
    head += b" " * (-len(head) % 4)
    body = b"".join(blobs)
    body += b"\0" * (-len(body) % 4)
    chunks = struct.pack("<I4s", len(head), b"JSON") + head + struct.pack("<I4s", len(body), b"BIN\0") + body
    return struct.pack("<4sII", b"glTF", 2, 12 + len(chunks)) + chunks


MESH_FORMATS: Mapping[str, Callable[[Mesh], bytes]] = {"obj": as_obj, "stl": as_stl, "glb": as_glb}
"""Writers by file ending."""


def mesh_file(mesh: Mesh, ending: str) -> bytes:
    """A mesh as a file; CraftError when there is no writer for `ending`."""
    if ending not in MESH_FORMATS:
        raise CraftError(f"Meshes are written as {', '.join(MESH_FORMATS)}; not as {ending!r}.")
    return MESH_FORMATS[ending](mesh)
