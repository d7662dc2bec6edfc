"""Threads that keep a stuffed piece to a flat shape: where they go, and how near it comes with more or fewer of them.

A flat piece bulges where nothing holds front and back together. Threads go where both ends bulge most, from
stitch to stitch, drawn in to the thickness that the target has there; after each the next is looked for
further off.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.errors import CraftError
from craft.figure.settling import Settled, fit
from craft.fitting.outcome import Outcome, outcome
from craft.gauge import Gauge
from craft.shape.drafting import Draft, Recipe, SewnThrough, Spot, spot_of
from craft.shape.profile import REFERENCE_FIRMNESS
from craft.shape.target import Form

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

FEWEST, MANY_SEWN = 4, (6, 12, 24)
"""A piece that would take fewer threads needs none; and how many are compared."""

BULGE = 0.35
"""Stitch widths by which both ends together must stand out before a thread is worth its while."""

APART = 2.4
"""Stitch widths between the ends of one thread and those of the next, at least."""

FACING = 0.7
"""How squarely the sides at both ends face away from each other, 1 for exactly."""

ASKEW = 0.25
"""Share of a thread's length by which its ends may lie beside each other."""

SOFTER = 0.0
"""Firmness of the least filling that is compared."""


@dataclass(frozen=True, slots=True)
class Remedy:
    """A way to keep a flat shape flat: threads sewn through, less filling, or both; and what comes of it."""

    recipe: Recipe
    firmness: float
    outcome: Outcome

    @property
    def threads(self) -> int:
        """How many threads are sewn through."""
        return len(self.recipe.threads)


@dataclass(frozen=True, slots=True)
class _Chord:
    """A possible thread: the nodes at its ends, where those lie on the target, by how much both stand out."""

    first: int
    last: int
    ends: Vector
    out: float

    @property
    def length(self) -> float:
        return float(np.linalg.norm(self.ends[0] - self.ends[1]))


def remedies(
    recipe: Recipe, gauge: Gauge, *, firmness: float = REFERENCE_FIRMNESS, watch: Callable[[float], bool] | None = None
) -> tuple[Remedy, ...]:
    """The shape as it is, less filled, and with a few or many threads; the plain one first, then nearest first.

    Threads are offered where the shape bulges. watch(share): called before each; False stops, and what there
    is comes back. CraftError when the shape can't be drafted or settled.
    """
    plain = replace(recipe, threads=())
    first = Remedy(plain, firmness, outcome(plain, gauge, firmness=firmness))
    chords = _chords(first.outcome.settled, recipe.form)
    tried: list[tuple[int, float]] = [(0, SOFTER)] if firmness > SOFTER else []
    tried += [(many, firmness) for many in MANY_SEWN if len(chords) >= FEWEST]
    found: list[Remedy] = []
    for at, (many, filled) in enumerate(tried):
        if watch is not None and not watch((at + 1) / (len(tried) + 1)):
            break
        sewn = replace(recipe, threads=_sewn(_spread(chords, many, first.outcome.settled), first.outcome))
        if many and any(len(sewn.threads) == r.threads for r in found):
            continue
        try:
            found.append(Remedy(sewn, filled, outcome(sewn, gauge, firmness=filled)))
        except CraftError:
            continue
    return (first, *sorted(found, key=lambda r: r.outcome.error.rms_w))


def _chords(settled: Settled, form: Form) -> list[_Chord]:
    """Every thread that could be, those that hold back most first."""
    w = settled.gauge.stitch_mm
    mesh = form.mesh
    laid = fit(settled, mesh)
    own = np.flatnonzero(settled.graph.round[settled.net.stitch] > 0)
    x = (settled.x @ laid.turn.T + laid.shift)[own]
    off = laid.off[own]
    faces = mesh.x[mesh.faces]
    normals = np.cross(faces[:, 1] - faces[:, 0], faces[:, 2] - faces[:, 0])
    normals /= np.maximum(np.linalg.norm(normals, axis=1), 1e-12)[:, None]
    _, near = cKDTree(faces.mean(1)).query(x)
    n = normals[near]
    on = x - off[:, None] * n
    found: list[_Chord] = []
    for i in np.flatnonzero(off > BULGE * w / 2):
        away = on - on[i]
        deep = -away @ n[i]
        beside = np.sqrt(np.maximum(np.einsum("ij,ij->i", away, away) - deep**2, 0.0))
        fits = (n @ n[i] < -FACING) & (deep > w) & (beside < np.maximum(ASKEW * deep, w)) & (off + off[i] > BULGE * w)
        if fits.any():
            facing = np.flatnonzero(fits)
            j = int(facing[np.argmin(beside[facing])])
            found.append(_Chord(int(own[i]), int(own[j]), np.array([on[i], on[j]]), float(off[i] + off[j])))
    return sorted(found, key=lambda c: -c.out)


def _spread(chords: Sequence[_Chord], many: int, settled: Settled) -> list[_Chord]:
    """Up to `many` threads, the most needed first, none beside another."""
    apart = APART * settled.gauge.stitch_mm
    kept: list[_Chord] = []
    for chord in chords:
        if len(kept) == many:
            break
        ends = chord.ends.mean(0)
        if all(np.linalg.norm(ends - other.ends.mean(0)) >= apart for other in kept):
            kept.append(chord)
    return kept


def _sewn(chords: Sequence[_Chord], made: Outcome) -> tuple[SewnThrough, ...]:
    return tuple(
        SewnThrough(_spot(c.first, made.settled, made.draft), _spot(c.last, made.settled, made.draft), c.length)
        for c in chords
    )


def _spot(node: int, settled: Settled, made: Draft) -> Spot:
    stitch = int(settled.net.stitch[node])
    number = int(settled.graph.round[stitch])
    return spot_of(number, stitch - settled.part.rounds[number].first, made.places)
