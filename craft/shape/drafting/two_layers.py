"""A flat shape in two layers: an empty tube pressed flat, as wide in every round as the shape is there.

A tube of n stitches pressed flat is a little less than n · w / 2 wide. Nothing bulges, but round ends pull together.
The usual way to make wings, ears and tails that take no filling (common practice, no source).
"""

from __future__ import annotations

import numpy as np

from craft.gauge import Gauge
from craft.shape.drafting.counts import best_counts, evened
from craft.shape.drafting.rings import Rings, workable
from craft.shape.profile import BY_EDGE, EMPTY, END, FOLDS
from craft.shape.target import Form


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
