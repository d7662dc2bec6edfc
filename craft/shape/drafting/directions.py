"""Directions that drafted rounds carry: when to stuff, how to close."""

from __future__ import annotations

from craft.rounds.pattern import Step, StepKind

STUFF_AS_IT_GROWS = Step(StepKind.STUFF, "Stuff in small tufts every few rounds from here on.")
"""For slim pieces, which cannot be stuffed at the end."""


FLAT = Step(StepKind.EMPTY, "Do not stuff: press it flat, two layers on each other.")
FLAT_FOR_SEWING = Step(StepKind.EMPTY, "Do not stuff: press it flat, and leave a long tail for sewing.")
"""For what lies flat: wings, ears, leaves."""


def closing(live: int) -> Step:
    """How the last `live` stitches are drawn together."""
    return Step(
        StepKind.CLOSE, f"Close: draw the tail through the front loops of the last {live} stitches and pull tight."
    )
