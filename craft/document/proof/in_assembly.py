"""What a proof-reader finds in putting together: places, numbers of pieces, steps that need a picture."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Mapping, Sequence

from craft.design.design import Design, Step
from craft.design.joins import joins_in_rounds
from craft.design.running import RunPart, worked_parts
from craft.design.saying import disagrees
from craft.document.proof.finding import Finding, Stop
from craft.rounds.fabric import WorkedPart

_PLACED = re.compile(
    r"(?i)\b(?:r|rnds?\.?|rounds?|rows?)\s?\d"
    r"|\b(?:opening|edge|top|bottom|middle|behind|between|centre|front|back)\b"
)
_HARD = re.compile(r"(?i)\b(?:wire|armature|sculpt\w*|pull\w* (?:in|down|tight)|sew through|needle.?sculpt\w*)\b")


def in_assembly(design: Design, parts: Sequence[RunPart], shown: Collection[str]) -> Iterator[Finding]:
    """Findings in the order of the steps. shown: keys of the steps that have a photograph."""
    worked = worked_parts(parts)
    for number, step in enumerate(design.steps, 1):
        yield from _of_step(design, step, number, worked, shown)
    yield from _made(design, parts, worked)
    yield from _never_put_on(design, parts, worked)


def _of_step(
    design: Design, step: Step, number: int, worked: Mapping[str, WorkedPart], shown: Collection[str]
) -> Iterator[Finding]:
    join = design.join(step.join)
    at = join.place if join else step.place
    if join is not None and not join.worked and at is None and not _PLACED.search(step.text):
        name = part.name if (part := design.part(join.part)) else "a part"
        said = f"Step {number} does not say where {name} goes: put it on the figure."
        yield Finding("no-place", said, Stop.ASSEMBLY, join.part, step=step.key)
    if at is not None and (differs := disagrees(step.text, at.now(worked).round)):
        yield Finding("step-differs", f"Step {number}: {differs}", Stop.ASSEMBLY, step.part, step=step.key)
    if step.film and not step.film_shown:
        said = f"Step {number}: '{step.film}' is no address of a film clip: it begins with https://."
        yield Finding("film-address", said, Stop.ASSEMBLY, step.part, step=step.key)
    if step.key in shown or step.film_shown:
        return
    painted = join is not None and join.place is not None
    if step.picture and not painted:
        said = f"Step {number}: you said that words do not suffice, and no picture shows it yet."
        yield Finding("picture-promised", said, Stop.BOOKLET, step.part, step=step.key)
    elif _HARD.search(step.text) or (join is not None and join.worked):
        said = f"Step {number} has no photograph and no film clip: neither words nor a rendered picture show the hands at work."
        yield Finding("no-picture", said, Stop.BOOKLET, step.part, step=step.key)


def _made(design: Design, parts: Sequence[RunPart], worked: Mapping[str, WorkedPart]) -> Iterator[Finding]:
    """A part is made as often as it is put on."""
    for part in parts:
        own = [j for j in design.joins if j.part == part.key and j.place is not None and not j.worked]
        if not own or part.key not in worked:
            continue
        hosts = {j.host: worked[j.host].make if j.host in worked else 1 for j in own}
        put_on = sum((2 if j.paired else j.spread) * hosts[j.host] for j in own)
        if put_on != part.part.make:
            said = f"{part.name}: made {_times(part.part.make)}, and put on {_times(put_on)}."
            yield Finding("made-differently", said, Stop.ROUNDS, part.key)


def _times(many: int) -> str:
    return {1: "once", 2: "twice"}.get(many, f"{many} times")


def _never_put_on(design: Design, parts: Sequence[RunPart], worked: Mapping[str, WorkedPart]) -> Iterator[Finding]:
    if len(worked) < 2:
        return
    joined = {j.part for j in design.joins} | {part for part, _ in joins_in_rounds(worked)}
    hosts = {j.host for j in design.joins} | {host for _, host in joins_in_rounds(worked)}
    spoken = " ".join(s.text for s in design.steps).casefold()
    for part in parts:
        if part.key in worked and part.key not in joined | hosts and part.name.casefold() not in spoken:
            yield Finding("no-step", f"Nothing says how {part.name} is put on.", Stop.ASSEMBLY, part.key)
