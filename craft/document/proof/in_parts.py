"""What a proof-reader finds in the rounds of the parts, and between their lines."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from craft.design.design import Design, EyeKind
from craft.design.hazards import shortened
from craft.design.joins import pieces_worked_in, seam_stitches
from craft.design.running import RunPart, worked_parts
from craft.document.proof.finding import Finding, Stop
from craft.figure.materials import tail_mm
from craft.problems import Problem, Severity
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.pattern import Note, Round, Step, StepKind
from craft.units import cm

_ELSEWHERE = {"unused-colour", "unlisted-colour", "unexplained"}
"""Doubts of a part alone that the whole booklet answers better."""

_SMALL_OPENING = 8
"""Stitches of an opening that a washer is no longer pressed on through."""


def in_parts(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    """Findings in the order of the parts."""
    if not any(p.worked for p in parts):
        yield Finding("no-rounds", "There is no part with rounds yet.", Stop.ROUNDS)
    for part in parts:
        yield from _counts(part)
        yield from _next_rounds(part)
        if part.worked is not None:
            yield from _stuffing(design, part)
    yield from _colours(design, parts)
    yield from _eyes(design, parts)
    yield from _tails(design, parts)
    yield from _hooks(design, parts)


_THICKER = 0.15
"""By how large a share two yarns may differ in thickness before a part in the other is no longer of the figure's fabric."""


def _hooks(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    """Parts that begin with a yarn of another thickness and are reckoned as the figure's, and hooks that settling leaves out."""
    inside = {name for w in worked_parts(parts).values() for name in pieces_worked_in(w)}
    for part in parts:
        yarn, own = design.yarn_of(part.key), part.part.own_hook
        if part.worked is None or yarn is None or design.yarn is None:
            continue
        if own is not None and part.name in inside:
            said = f"{part.name} has a hook of its own and is worked into another part: pictures show it as that one's fabric."
            yield Finding("hook-inside", said, Stop.ROUNDS, part.key)
        off = yarn.strands(1).diameter_mm / design.yarn.strands(1).diameter_mm - 1
        if own is None and abs(off) > _THICKER:
            thick = "thicker" if off > 0 else "finer"
            said = (
                f"{part.name} begins with {yarn.name}, {abs(off):.0%} {thick} than the figure's yarn, and is reckoned as the "
                "figure's fabric: give it a hook of its own."
            )
            yield Finding("hook-untold", said, Stop.ROUNDS, part.key)


def _counts(part: RunPart) -> Iterator[Finding]:
    faults = [p for p in part.checked.problems if p.severity is Severity.FAULT]
    if faults:
        more = f" ({len(faults) - 1} more in this part)" if len(faults) > 1 else ""
        yield Finding("count", f"{part.name}: {_said(faults[0])}{more}", Stop.ROUNDS, part.key, _number(faults[0]))
    elif part.worked is None:
        yield Finding("no-rounds", f"{part.name} has no rounds.", Stop.ROUNDS, part.key)
    for problem in part.checked.problems:
        if problem.severity is Severity.WARNING and problem.code not in _ELSEWHERE:
            yield Finding("round-doubt", f"{part.name}: {_said(problem)}", Stop.ROUNDS, part.key, _number(problem))


def _said(problem: Problem) -> str:
    at = problem.place.round
    return f"{at}: {problem.message}" if at and not problem.message.startswith(at) else problem.message


def _number(problem: Problem) -> int | None:
    found = re.search(r"\d+", problem.place.round or "")
    return int(found[0]) if found else None


def _next_rounds(part: RunPart) -> Iterator[Finding]:
    nameless = [r for r in part.written.rounds if r.label.startswith("Next ")]
    if len(nameless) > 1:
        words = (
            f"{part.name}: “{nameless[0].label}” stands {len(nameless)} times, and only its place tells which is meant."
        )
        yield Finding("next-round", words, Stop.ROUNDS, part.key)


def _steps(part: RunPart) -> list[Step]:
    return [i for i in part.written.items if isinstance(i, Step)]


def _stuffing(design: Design, part: RunPart) -> Iterator[Finding]:
    worked = part.worked
    assert worked is not None
    flat = worked.pressed or len(worked.counts) < 5 or max(worked.counts, default=0) < 8 or not worked.closed
    said = any(s.kind in (StepKind.STUFF, StepKind.EMPTY) for s in _steps(part))
    words = (i.text for i in part.written.items if isinstance(i, Note | Step))
    told = any(re.search(r"(?i)\b(stuff\w*|fill\w*|empty|flat)\b", text) for text in words)
    told = told or any(s.part == part.key and re.search(r"(?i)\bstuff", s.text) for s in design.steps)
    if not flat and not said and not told:
        yield Finding(
            "no-stuffing", f"{part.name}: nothing says whether and when it is stuffed.", Stop.ROUNDS, part.key
        )


def _colours(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    listed = set(design.yarn_names)
    if not design.yarns:
        yield Finding("no-yarn", "No yarn is named: a maker does not know what to buy.", Stop.GAUGE)
    used: set[str] = set()
    for part in parts:
        if part.worked is None:
            continue
        own = {colour for tally in part.worked.rounds for colour in tally.colours}
        used |= {design.yarns[0].name if c == MAIN_COLOUR and design.yarns else c for c in own}
        for colour in sorted(own - listed - {MAIN_COLOUR}):
            said = f"{part.name} is worked in “{colour}”, and no yarn of the list is called so."
            yield Finding("colour-unlisted", said, Stop.GAUGE, part.key)
    if used:
        spoken = " ".join(s.text for s in design.steps).casefold()
        for yarn in design.yarns:
            if yarn.name not in used and yarn.name.casefold() not in spoken:
                yield Finding("colour-unused", f"No round is worked in the yarn “{yarn.name}”.", Stop.GAUGE)


def _eyes(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    """Safety eyes are pressed on from inside: never after the last opening has become small."""
    if design.eyes.kind is not EyeKind.SAFETY:
        return
    for part in parts:
        if part.worked is None:
            continue
        live = {t.source: t.live for t in part.worked.rounds}
        source, last = -1, 0
        for item in part.written.items:
            if isinstance(item, Round):
                source += 1
                last = live.get(source, last)
            elif isinstance(item, Step) and item.kind is StepKind.EYES and source >= 0 and last <= _SMALL_OPENING:
                said = f"{part.name}: “{shortened(item.text)}” stands where only {last} stitches are open."
                yield Finding("eyes-after-closing", said, Stop.ROUNDS, part.key)
    on = design.eyes.place.on if design.eyes.place else None
    closed = next((p for p in parts if p.key == on and p.worked is not None and p.worked.closed), None)
    if closed is not None and not _eyes_before_closing(design, closed):
        said = f"{closed.name} is closed, and nothing says that the eyes go in before."
        yield Finding("eyes-after-closing", said, Stop.ASSEMBLY, closed.key)


def _eyes_before_closing(design: Design, part: RunPart) -> bool:
    between = any(s.kind is StepKind.EYES or re.search(r"(?i)\beyes?\b", s.text) for s in _steps(part))
    return between or any(s.before_closing and re.search(r"(?i)\beyes?\b", s.text) for s in design.steps)


_TAIL = re.compile(r"(?i)\btails?\b|\bends?\b|\blong (?:yarn|thread|piece)\b|\bsew(?:ing)? (?:yarn|thread)\b")
_LENGTH = re.compile(r"(?i)\d\s*(?:cm|mm|in\b|inch|\")|\barm(?:'s)? length\b")


def _tails(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    """A part that is sewn on has a tail for it, and how long is said; what its seam takes is told."""
    worked = worked_parts(parts)
    inside = {name for w in worked.values() for name in pieces_worked_in(w)}
    joins = {j.part: j for j in design.joins if j.sewn}
    for part in parts:
        join = joins.get(part.key)
        if join is None or part.name in inside or part.worked is None:
            continue
        texts = [i.text for i in part.written.items if isinstance(i, Step | Note)]
        texts += [s.text for s in design.steps if s.part == part.key]
        told = [text for text in texts if _TAIL.search(text)]
        seam = seam_stitches(join, worked)
        takes = f"; its seam takes about {cm(tail_mm(seam * design.gauge_of(part.key).stitch_mm))}" if seam else ""
        if not told:
            said = f"{part.name} is sewn on, and nothing says to leave a tail for it{takes}."
            yield Finding("no-tail", said, Stop.ROUNDS, part.key)
        elif not any(_LENGTH.search(text) for text in told):
            said = f"{part.name}: a tail is to be left, and nothing says how long{takes}."
            yield Finding("tail-length", said, Stop.ROUNDS, part.key)
