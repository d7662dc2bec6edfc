"""Rows of the basket as values of the craft."""

from __future__ import annotations

from craft.gauge import DEFAULT_LEAN, Gauge, gauge_from_piece, gauge_from_swatch, lean_from_thread
from craft.yarn import Yarn as CraftYarn
from studio.yarns.models import Sample, Yarn


def craft_yarn(yarn: Yarn, strands: int = 1) -> CraftYarn:
    """A yarn of the basket, so many strands together."""
    return CraftYarn(yarn.name, yarn.weight, yarn.wraps, strands, yarn.plush, yarn.skein_m, yarn.skein_g)


def sample_gauge(sample: Sample) -> Gauge:
    """The gauge that a sample's measures give; CraftError when they make none."""
    lean = DEFAULT_LEAN
    if sample.drift_stitches is not None and sample.drift_rounds:
        lean = lean_from_thread(sample.drift_stitches, sample.drift_rounds)
    if sample.kind == "stuffed":
        return gauge_from_piece(sample.across_mm, round(sample.stitches), sample.up_mm, round(sample.rounds), lean)
    return gauge_from_swatch(sample.stitches, sample.across_mm, sample.rounds, sample.up_mm, lean)
