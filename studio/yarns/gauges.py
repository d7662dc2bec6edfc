"""Rows of the basket as values of the craft."""

from __future__ import annotations

from collections.abc import Sequence

from craft.errors import CraftError
from craft.gauge import DEFAULT_LEAN, Gauge, Sample, gauge_from_piece, gauge_from_swatch, lean_from_thread, unlike
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


def doubts(swatches: Sequence[Swatch]) -> dict[int, str]:
    """What is odd about swatches beside others of the same yarn on the same hook, by their numbers."""
    samples = {s.pk: made for s in swatches if (made := _sample(s)) is not None}
    told: dict[int, str] = {}
    for pk, sample in samples.items():
        odd = unlike(sample, [other for key, other in samples.items() if key != pk])
        if odd is None:
            continue
        differs = (
            f"{abs(odd.share) * 100:.0f} % {'wider' if odd.share > 0 else 'narrower'} than your other swatches of it"
        )
        reason = "was it made on another hook, or filled otherwise?"
        if odd.hook_mm is not None:
            reason = f"a {odd.hook_mm:g} mm hook would explain that."
        told[pk] = f"Its stitches are {differs} on this hook: {reason}"
    return told


def _sample(swatch: Swatch) -> Sample | None:
    try:
        return Sample(craft_yarn(swatch.yarn, swatch.strands), swatch.hook_mm, swatch_gauge(swatch))
    except CraftError:
        return None  # measures that make no gauge are told where they were typed
