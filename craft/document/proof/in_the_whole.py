"""What a proof-reader finds of the whole figure: level, measures, cautions, terms."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from craft.design.design import Design
from craft.design.difficulty import difficulty_of
from craft.design.grading import figures_of, first_size
from craft.design.hazards import hazards_of
from craft.design.parts import GaugeFrom
from craft.design.remix import credits_of
from craft.design.running import RunPart
from craft.document.booklet import Observed
from craft.document.proof.finding import Finding, Stop
from craft.gauge import Estimate
from craft.units import cm

FAR_OFF = 0.1
"""By which share a height that is said may differ from the predicted one before it is told."""

_CM = re.compile(r"(?i)(?<![\d.,])(\d{1,3}(?:[.,]\d)?)\s?cm\b(?=[^.;\n]{0,24}\b(?:tall|high|height)\b)")
"""A height in prose: '12 cm tall'."""


def in_the_whole(design: Design, parts: Sequence[RunPart], observed: Observed) -> Iterator[Finding]:
    """Findings about the whole figure."""
    for hazard in hazards_of(design, parts):
        said = f"For a child under three. {hazard.where}: {hazard.what}."
        yield Finding("caution", said, Stop(hazard.stop), step=hazard.step)
    for blocker in observed.blockers:
        yield Finding("blocker", f"You noted: {blocker}", Stop.PROVING)
    credit = credits_of(design)
    for line in credit.conflicts:
        yield Finding("terms-conflict", line, Stop.BASES)
    for line in credit.private:
        yield Finding("terms-private", line, Stop.BASES)
    for line in credit.blocked:
        if line not in credit.private:
            yield Finding("terms-rounds", line, Stop.BASES)
    if not any(p.worked for p in parts):
        return
    yield from _level(design, parts)
    yield from _measures(design, _height(design, parts, observed))
    if design.gauge.source is GaugeFrom.ASSUMED:
        said = "The gauge is assumed: no swatch and no yarn stands behind sizes and amounts."
        yield Finding("gauge-assumed", said, Stop.GAUGE)
    if not design.printed.permissions.strip():
        yield Finding("no-permissions", "Nothing says what a maker may do with the pattern.", Stop.BOOKLET)


def _height(design: Design, parts: Sequence[RunPart], observed: Observed) -> Estimate:
    """The height of the figure in mm, as the booklet prints it."""
    if observed.size_mm is None:
        return figures_of(first_size(design, tuple(parts))).height
    return Estimate.around(observed.size_mm[2], design.gauge_now.spread, design.gauge_now.how)


def _level(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    found = difficulty_of(design, parts)
    if found.level is not design.brief.level:
        why = f": {found.reasons}" if found.why else ", nothing more than plain stitches"
        said = f"The booklet says “{design.brief.level.value}”. What is used is {found.level.value}{why}."
        yield Finding("level", said, Stop.BRIEF)


def _measures(design: Design, height: Estimate) -> Iterator[Finding]:
    wished = design.brief.height_mm
    if wished is not None and _far(wished, height):
        said = f"The brief wishes {cm(wished)} of height; the rounds make {cm(height.low)} to {cm(height.high)}."
        yield Finding("measure", said, Stop.BRIEF)
    for text, stop in ((design.brief.intro, Stop.BRIEF), (design.printed.notes, Stop.BOOKLET)):
        for number in _CM.findall(text):
            mm = float(number.replace(",", ".")) * 10
            if _far(mm, height):
                said = f"The words say {number} cm tall; the rounds make {cm(height.low)} to {cm(height.high)}."
                yield Finding("measure", said, stop)


def _far(mm: float, height: Estimate) -> bool:
    return not height.low * (1 - FAR_OFF) <= mm <= height.high * (1 + FAR_OFF)
