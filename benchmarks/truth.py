"""How true drafts are to their solids, and how well slips are found."""

from __future__ import annotations

from benchmarks.mutations import Survey, survey, wild_survey
from benchmarks.reading import is_right, sound_patterns
from craft.gauge import Gauge
from craft.shape.drafting import SIMPLICITY_PRESETS, Recipe, draft, suggested_start
from craft.shape.profile import inflated_profile
from craft.shape.target import SOLIDS, Solid
from craft.text.check import check

GAUGES = (Gauge(8.0, 7.4), Gauge(5.6, 5.15), Gauge(3.0, 2.76))


def solid_table() -> str:
    """Every solid at three gauges: error of counts, and the inflated estimate against the size aimed at."""
    lines = [
        "Truth of drafts: 80 mm tall, 60 mm wide, closed (ball: 70 mm)",
        f"{'solid':<11}{'w mm':>6}{'simplicity':>10}{'rounds':>8}{'differ':>8}{'counts off':>12}{'width %':>9}{'height %':>10}",
    ]
    for kind in SOLIDS:
        for gauge in GAUGES:
            for name, simplicity in SIMPLICITY_PRESETS:
                solid = Solid(kind, 70 if kind == "sphere" else 80, 70 if kind == "sphere" else 60)
                made = draft(Recipe(solid, suggested_start(solid, gauge), simplicity), gauge)
                profile = inflated_profile(made.counts, gauge, closed=True)
                lines.append(
                    f"{kind:<11}{gauge.stitch_mm:>6}{name:>10}{len(made.counts):>8}{made.different_rounds:>8}"
                    f"{made.radius_rms_mm:>9.2f} mm{100 * (profile.width_mm / solid.width_mm - 1):>+9.1f}"
                    f"{100 * (profile.height_mm / solid.height_mm - 1):>+10.1f}"
                )
    return "\n".join(lines)


def mutation_table() -> str:
    """Spoilt patterns that were found out, and whose round was named."""
    texts = [p.text for folder in ("right", "own") for p in sound_patterns(folder) if is_right(p, check(p.text))]
    return (
        f"{_found_out('patterns of our own', survey())}\n\n{_found_out('patterns of the corpus', wild_survey(texts))}"
    )


def _found_out(which: str, result: Survey) -> str:
    return (
        f"Slips: {result.inconsistent} spoilt {which}\n"
        f"found out      {result.found / result.inconsistent:.1%}\n"
        f"round named    {result.named / result.knowable:.1%} of {result.knowable} with one touched round"
    )
