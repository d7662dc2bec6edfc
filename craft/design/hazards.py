"""What of a figure is not for a child under three: where it stands, and what to do instead.

The usual cautions of the trade; no list of a standard, and certifies nothing.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from craft.design.design import Audience, Design, EyeKind
from craft.design.joins import Fixing
from craft.design.running import RunPart
from craft.rounds.pattern import Note, Step, StepKind


@dataclass(frozen=True, slots=True)
class Hazard:
    """stop: at which stop it is mended. where: in words. what: it is, and what to do instead. step: key of the step of the
    assembly that it stands in, None elsewhere."""

    stop: str
    where: str
    what: str
    step: str | None = None


_SMALL = "a small part that can choke"
_THINGS = (
    (re.compile(r"(?i)\b(wires?|pipe cleaners?|armatures?)\b"), "wire pricks and bends out: leave it out"),
    (re.compile(r"(?i)\b(beads?|buttons?|magnets?|pellets?|snap fasteners?|snaps)\b"), f"{_SMALL}: leave it out"),
    (re.compile(r"(?i)\bsafety eyes?\b"), f"{_SMALL}: embroider the eyes"),
    (re.compile(r"(?i)\bglue(d|s)?\b"), "glued parts come off: sew them"),
)


def hazards_of(design: Design, parts: Sequence[RunPart]) -> tuple[Hazard, ...]:
    """Everything in a figure for a child under three that should not be; nothing for other audiences."""
    return tuple(_found(design, parts)) if design.brief.audience is Audience.UNDER_THREE else ()


def _found(design: Design, parts: Sequence[RunPart]) -> Iterator[Hazard]:
    names = {p.key: p.name for p in design.parts}
    if design.eyes.kind is EyeKind.SAFETY:
        yield Hazard("assembly", "The eyes", f"safety eyes are {_SMALL}: embroider them")
    for part in parts:
        for item in part.written.items:
            if not isinstance(item, Step | Note):
                continue
            wires = isinstance(item, Step) and item.kind is StepKind.WIRE
            for what in _named(item.text) or (["wire pricks and bends out: leave it out"] if wires else []):
                yield Hazard("rounds", f"{part.name}: “{shortened(item.text)}”", what)
    for number, step in enumerate(design.steps, 1):
        for what in _named(step.text):
            yield Hazard("assembly", f"Step {number}", what, step.key)
        join = design.join(step.join)
        if join is not None and join.fixing is not Fixing.SEWN:
            part_name = names.get(join.part, "A part")
            snap = f"snaps are {_SMALL}" if join.fixing is Fixing.SNAPS else "what comes off can be swallowed"
            yield Hazard("assembly", f"Step {number}, {part_name}", f"{snap}: sew it on firmly", step.key)
    for notion in design.printed.notions:
        for what in _named(notion):
            yield Hazard("booklet", f"Also needed: {shortened(notion)}", what)


def _named(text: str) -> list[str]:
    return [f"{m[0].lower()}: {what}" for pattern, what in _THINGS if (m := pattern.search(text))]


def shortened(text: str) -> str:
    """Her words as they are quoted in a sentence: one line, not long."""
    line = " ".join(text.split())
    return line if len(line) <= 60 else f"{line[:59]}…"
