"""Rows of the basket as values of the craft."""

from __future__ import annotations

from craft.gauge import DEFAULT_LEAN, Gauge, gauge_from_piece, gauge_from_swatch, lean_from_thread
from craft.yarn import Yarn as CraftYarn
from studio.yarns.models import Swatch, Yarn


def craft_yarn(yarn: Yarn, strands: int = 1) -> CraftYarn:
    """A yarn of the basket, so many strands together."""
    return CraftYarn(yarn.name, yarn.weight, yarn.wraps, strands, yarn.plush, yarn.skein_m, yarn.skein_g)


def swatch_gauge(swatch: Swatch) -> Gauge:
    """The gauge that a swatch's measures give; CraftError when they make none."""
    lean = DEFAULT_LEAN
    if swatch.drift_stitches is not None and swatch.drift_rounds:
        lean = lean_from_thread(swatch.drift_stitches, swatch.drift_rounds)
    if swatch.kind == "stuffed":
        return gauge_from_piece(swatch.across_mm, round(swatch.stitches), swatch.up_mm, round(swatch.rounds), lean)
    return gauge_from_swatch(swatch.stitches, swatch.across_mm, swatch.rounds, swatch.up_mm, lean)
