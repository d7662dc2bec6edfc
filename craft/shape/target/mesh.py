"""Triangle meshes: the surface of a target as triangles, from a start pole, front towards -y."""

from __future__ import annotations

import base64
import binascii
import zlib
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components
from scipy.spatial import cKDTree

from craft.errors import CraftError, require
from craft.shape.target.solids import Outline

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

MOST_FACES = 24_000
"""Triangles of a mesh: more than any figure shows, and still drafted in seconds."""

AROUND, ALONG = 60, 72
"""Points around and along a body of revolution that is made into a mesh."""


@dataclass(frozen=True, eq=False)
class TriangleMesh:
    """A surface without handles: closed, or with one opening.

    x: (n, 3) corners in mm. faces: (t, 3) corners, counter-clockwise from outside. pole: corner at which
    the first round is begun.
    """

    x: Vector
    faces: Numbers
    pole: int

    def __post_init__(self) -> None:
        x, faces = np.asarray(self.x, float), np.asarray(self.faces, np.int64)
        require(x.ndim == 2 and x.shape[1] == 3 and len(x) >= 4, "A shape needs four corners or more.")
        require(faces.ndim == 2 and faces.shape[1] == 3 and len(faces) >= 4, "A shape needs four faces or more.")
        require(len(faces) <= MOST_FACES, f"A shape has at most {MOST_FACES:,} faces; this one has {len(faces):,}.")
        require(bool(np.isfinite(x).all()), "A corner of the shape lies nowhere.")
        require(faces.min() >= 0 and faces.max() < len(x), "A face of the shape names a corner that is not there.")
        require(0 <= self.pole < len(x), "The start pole is no corner of the shape.")
        object.__setattr__(self, "x", x)
        object.__setattr__(self, "faces", faces)
        self._one_skin()

    @property
    def nbytes(self) -> int:
        """About how many bytes it takes with what is worked out of it."""
        return 6 * (self.x.nbytes + self.faces.nbytes)

    def _one_skin(self) -> None:
        """Refuse several bodies, seams of three faces, handles, and more than one opening."""
        a, b = self.sides[:, 0], self.sides[:, 1]
        used = np.unique(self.faces)
        require(len(used) == len(self.x), "The shape has corners that belong to no face.")
        many, _ = connected_components(coo_matrix((np.ones(len(a)), (a, b)), shape=(len(self.x),) * 2), directed=False)
        require(many == 1, f"These are {many} bodies: bring in one at a time.")
        require(int(self.uses.max()) <= 2, "More than two faces meet at an edge: that is no skin that could be worked.")
        holes = len(self.rims)
        require(holes <= 1, f"The shape has {holes} openings; one can be worked, at its end.")
        euler = len(self.x) - len(a) + len(self.faces) + holes
        require(euler == 2, "The shape has a handle or a tunnel through it; rounds can't go around that in one piece.")

    @cached_property
    def _sides(self) -> tuple[Numbers, Numbers]:
        pairs = np.sort(np.concatenate([self.faces[:, [0, 1]], self.faces[:, [1, 2]], self.faces[:, [2, 0]]]), axis=1)
        sides, uses = np.unique(pairs, axis=0, return_counts=True)
        return sides, uses

    @property
    def sides(self) -> Numbers:
        """(e, 2) edges of the triangles, each once."""
        return self._sides[0]

    @property
    def uses(self) -> Numbers:
        """(e,) how many faces each edge has."""
        return self._sides[1]

    @cached_property
    def rims(self) -> tuple[Numbers, ...]:
        """Corners around each opening."""
        open_sides = self.sides[self.uses == 1]
        if not len(open_sides):
            return ()
        corners, local = np.unique(open_sides, return_inverse=True)
        local = local.reshape(open_sides.shape)
        graph = coo_matrix((np.ones(len(local)), (local[:, 0], local[:, 1])), shape=(len(corners),) * 2)
        many, of = connected_components(graph, directed=False)
        return tuple(corners[of == k] for k in range(many))

    @property
    def open(self) -> bool:
        """Whether it has an opening."""
        return bool(self.rims)

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Width, depth and height in mm."""
        w, d, h = np.ptp(self.x, axis=0)
        return float(w), float(d), float(h)

    @property
    def volume_ml(self) -> float:
        """Volume inside in ml, an opening closed by a fan."""
        # From the middle of the opening, its lid adds nothing.
        x = self.x - (self.x[self.rims[0]] if self.rims else self.x).mean(0)
        a, b, c = (x[self.faces[:, k]] for k in range(3))
        return abs(float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum())) / 6000

    @property
    def mirrored_sides(self) -> bool:
        """Whether left and right are alike, within a hundredth of the width."""
        width = max(self.size_mm[0], 1e-9)
        mirrored = self.x * [-1.0, 1.0, 1.0]
        reach = np.asarray(cKDTree(self.x).query(mirrored)[0], float)
        return bool(reach.max() < max(0.01 * width, 0.6 * float(np.sqrt(self.areas.mean()))))

    @property
    def areas(self) -> Vector:
        """(t,) area of each face in mm²."""
        a, b, c = (self.x[self.faces[:, k]] for k in range(3))
        area: Vector = np.linalg.norm(np.cross(b - a, c - a), axis=1) / 2
        return area

    def with_corners(self, x: Vector) -> TriangleMesh:
        """The same faces on other places."""
        return TriangleMesh(x, self.faces, self.pole)

    def scaled(self, factor: float) -> TriangleMesh:
        """The same shape at another size."""
        return TriangleMesh(self.x * factor, self.faces, self.pole)

    def begun_at(self, corner: int) -> TriangleMesh:
        """The same body stood on `corner`, from which its rounds begin; what looked forward does so as far as it can.

        CraftError for a corner that is not there, and for an open body, which begins opposite its opening.
        """
        require(0 <= corner < len(self.x), "That corner is none of the shape's.", field="pole")
        require(not self.open, "An open shape begins opposite its opening.", field="pole")
        away = self.x[corner] - self.x.mean(0)
        size = float(np.linalg.norm(away))
        require(size > 0, "Rounds begin on the skin of a shape.", field="pole")
        # The smallest turn that brings the corner straight below the middle (Rodrigues).
        axis, cos = np.cross(away / size, [0.0, 0.0, -1.0]), -float(away[2]) / size
        if cos < -1 + 1e-9:
            turn = np.diag([-1.0, 1.0, -1.0])
        else:
            a, b, c = axis
            k = np.array([[0.0, -c, b], [c, 0.0, -a], [-b, a, 0.0]])
            turn = np.eye(3) + k + k @ k / (1 + cos)
        x = self.x @ turn.T
        return TriangleMesh(x - [*x.mean(0)[:2], x[corner, 2]], self.faces, corner)

    def packed(self) -> PackedMesh:
        """The mesh to be kept, places to a 32,000th of the farthest."""
        reach = float(np.abs(self.x).max()) or 1.0
        corners = np.round(self.x / reach * _STEPS).astype("<i2").tobytes()
        return PackedMesh(round(reach, 4), _text(corners), _text(self.faces.astype("<u4").tobytes()), self.pole)


_STEPS = 32_000


@dataclass(frozen=True, slots=True)
class PackedMesh:
    """A mesh as it is kept: its reach in mm, corners in 32,000ths of it and faces as packed text, and its pole."""

    reach_mm: float
    corners: str
    faces: str
    pole: int

    def mesh(self) -> TriangleMesh:
        """The mesh; CraftError where the packed texts make none."""
        try:
            x = np.frombuffer(_bytes(self.corners), "<i2").reshape(-1, 3) * (self.reach_mm / _STEPS)
            faces = np.frombuffer(_bytes(self.faces), "<u4").reshape(-1, 3).astype(np.int64)
            return TriangleMesh(x, faces, self.pole)
        except CraftError:
            raise
        except (ValueError, binascii.Error, zlib.error) as error:
            raise CraftError(f"The stored shape is damaged: {error}.", field="form") from None


MOST_BYTES = 4_000_000


def _text(raw: bytes) -> str:
    return base64.b64encode(zlib.compress(raw, 9)).decode("ascii")


def _bytes(text: str) -> bytes:
    """Unpacked bytes, at most as many as the largest mesh has."""
    unpack = zlib.decompressobj()
    raw = unpack.decompress(base64.b64decode(text, validate=True), MOST_BYTES)
    require(not unpack.unconsumed_tail, "The stored shape is larger than any that can be worked.")
    return raw


def revolved(outline: Outline, *, closed: bool, around: int = AROUND, along: int = ALONG) -> TriangleMesh:
    """A body of revolution as a mesh: rings of `around` corners, a point at the pole and at a closed end.

    Its edges run alternately, so that left and right are alike.
    """
    s = np.linspace(0.0, outline.length, along + 1)
    inner = s[1:-1] if closed else s[1:]
    turn = np.arange(around) / around * 2 * np.pi
    r, z = outline.radius_at(inner), outline.height_at(inner)
    r = np.maximum(r, 1e-3 * float(outline.r.max()))
    # Counted from the front (-y) towards the viewer's left (-x), as a right-hander's rounds run.
    rings = np.stack(
        [-np.outer(r, np.sin(turn)), -np.outer(r, np.cos(turn)), np.repeat(z[:, None], around, axis=1)], axis=2
    )
    end = [] if not closed else [[0.0, 0.0, float(outline.z[-1])]]
    x = np.concatenate([[[0.0, 0.0, float(outline.z[0])]], rings.reshape(-1, 3), np.asarray(end).reshape(-1, 3)])
    return TriangleMesh(x, grid_faces(len(inner), around, closed=closed), 0)


def grid_faces(rings: int, around: int, *, closed: bool) -> Numbers:
    """Faces of a pole, `rings` rings of `around` corners, and a closing point when `closed`."""
    k = np.arange(around)
    after = (k + 1) % around
    faces = [np.column_stack([np.zeros(around, np.int64), 1 + k, 1 + after])]
    for ring in range(rings - 1):
        low, high = 1 + ring * around, 1 + (ring + 1) * around
        slash = ((k + ring) % 2 == 0) ^ (k < around // 2)
        a, b, c, d = low + k, low + after, high + after, high + k
        one = np.where(slash[:, None], np.column_stack([a, c, b]), np.column_stack([a, d, b]))
        two = np.where(slash[:, None], np.column_stack([a, d, c]), np.column_stack([b, d, c]))
        faces += [one, two]
    if closed:
        low = 1 + (rings - 1) * around
        faces.append(np.column_stack([low + k, np.full(around, 1 + rings * around), low + after]))
    return np.concatenate(faces)
