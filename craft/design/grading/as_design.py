"""A size as a design of its own: texts printed anew, places and eyes where they are at that size."""

from __future__ import annotations

from dataclasses import replace

from craft.design.design import Design
from craft.design.grading.sized import PartAtSize, Sized, design_at
from craft.design.parts import GaugeFrom, OwnHook


def sized_design(sized: Sized) -> Design:
    """The design of a size, its texts printed anew where counts changed; shapes stay with parts that are drafted still."""
    made = design_at(sized)
    texts = {p.source.key: p.text(made.terms) for p in sized.parts}
    recipes = {
        p.source.key: r.scaled(sized.scale) if p.how == "drafted" else r
        for p in sized.parts
        if p.how != "resampled" and p.source.part.drafted and (r := p.source.part.recipe)
    }
    hooks = {p.source.key: _measured(p) for p in sized.parts}
    parts = tuple(
        replace(
            p,
            text=texts.get(p.key, p.text),
            recipe=recipes.get(p.key),
            drafted=p.key in recipes,
            own_hook=hooks.get(p.key, p.own_hook),
        )
        for p in made.parts
    )
    gauge = replace(made.gauge, source=GaugeFrom.OWN, stitch_mm=sized.gauge.stitch_mm, round_mm=sized.gauge.round_mm)
    return replace(made, parts=parts, gauge=gauge)


def _measured(part: PartAtSize) -> OwnHook | None:
    """The hook of a part's own with the gauge of this size, None for one that is worked as the figure is."""
    if part.hook is None:
        return None
    return replace(part.hook, stitch_mm=part.gauge.stitch_mm, round_mm=part.gauge.round_mm)
