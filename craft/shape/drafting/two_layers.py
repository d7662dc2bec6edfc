"""A flat shape in two layers: an empty tube pressed flat, as wide in every round as the shape is there.

A tube of n stitches pressed flat is a little less than n · w / 2 wide. Nothing bulges, but round ends pull together.
The usual way to make wings, ears and tails that take no filling (common practice, no source).
"""

from __future__ import annotations

import numpy as np

from craft.gauge import Gauge
from craft.shape.drafting.counts import best_counts, evened
from craft.shape.drafting.rings import Rings, workable
from craft.shape.target import Form

FOLDS = 2.2
"""Stitches of a round that the two folds at its sides take from its width (measured on a settled tube of 16)."""

BY_EDGE = 0.3
"""Share by which rounds follow the outline's length and not its height: where it is round, the folds at its sides are
longer than the middle is high, and the fabric gives way to both (chosen so that balls, ellipsoids, drops and capsules come out)."""

END = 0.5
"""Rounds by which a closed end lies lower than its rounds are high: they fan out around it (chosen with the share above)."""

EMPTY = 1 / 1.03
"""Size of a stitch without filling, of the gauge's, which is of stuffed fabric (docs/settling.md)."""


def two_layers(form: Form, gauge: Gauge, start: int, simplicity: float) -> tuple[Rings, tuple[int, ...]]:
    """Rings and counts of a body of revolution's outline, made flat: as wide and as high as it is drawn. CraftError when
    it is too small or too large at this gauge."""
    outline = form.outline
    assert outline is not None
    h, w = gauge.round_mm * EMPTY, gauge.stitch_mm * EMPTY
    along = (1 - BY_EDGE) * (outline.z - outline.z[0]) + BY_EDGE * outline.s
    ends = END * (1 if form.open else 2)
    many = workable(form, float(along[-1]) / h + ends, 4 * float(outline.r.max()) / w, start)
    # Each round is as wide as the shape is half way up it.
    middle = float(along[-1]) * (np.arange(many) + 0.5) / many
    radius, z = np.interp(middle, along, outline.r), np.interp(middle, along, outline.z)
    stitches = 4 * radius / w + FOLDS
    rings = Rings(middle, radius, z, stitches, float(along[-1]) / many)
    true = [float(n) for n in stitches]
    counts = best_counts(true, start, simplicity, closed=not form.open)
    if not form.open:
        counts = evened(counts, true, mirrored=form.mirrored_ends)
    return rings, counts
