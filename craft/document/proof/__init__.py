"""A booklet read before it is printed: what is missing, disagrees or blocks its release, each with its place."""

from __future__ import annotations

from collections.abc import Sequence

from craft.design.design import Design
from craft.design.running import RunPart
from craft.document.booklet import NOTHING, Observed
from craft.document.proof.finding import CODES, Finding, Stop, Weight
from craft.document.proof.in_assembly import in_assembly
from craft.document.proof.in_parts import in_parts
from craft.document.proof.in_the_whole import in_the_whole
from craft.document.proof.in_words import in_words

__all__ = ["CODES", "Finding", "Stop", "Weight", "proof_of"]


def proof_of(design: Design, parts: Sequence[RunPart], observed: Observed = NOTHING) -> tuple[Finding, ...]:
    """Everything to look at before a design's booklet is printed, what blocks its release first.

    parts: the design's, run.
    """
    found = (
        *in_parts(design, parts),
        *in_assembly(design, parts, observed.photos.keys()),
        *in_words(design, parts),
        *in_the_whole(design, parts, observed),
    )
    return tuple(sorted(found, key=lambda f: f.weight is not Weight.BLOCKS))
