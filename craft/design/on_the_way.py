"""A part as it lies once so many of its rounds are worked: open at its last round, and empty until it is stuffed."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import replace

from craft.design.design import Design
from craft.design.running import RunPart, run_parts
from craft.errors import CraftError
from craft.figure.placement import Skin
from craft.figure.settling import settle
from craft.rounds.pattern import Part, Round, Step, StepKind, unfolded
from craft.text.notation import print_rounds

MOST_LEADING = 3
"""Lines before a part's first round that are rounds of the text and none of the part: a chain, its joining."""

MOST_STAGES = 8
"""States of a part, between its first round and its last, that are settled for whoever works it."""

EMPTY = Step(StepKind.EMPTY, "Do not stuff.")


def on_the_way(design: Design, key: str, after: int) -> Skin | None:
    """The part with a key after so many of its rounds, settled as it is then.

    None where its first rounds alone make no part or do not settle, and where those are all of it: then the finished
    part is the one to look at.
    """
    run = next((p for p in run_parts(design) if p.key == key), None)
    if run is None or run.worked is None or after >= len(run.worked.rounds):
        return None
    begun = next(
        (p for p in _begun(design, run, after) if p.worked is not None and len(p.worked.rounds) >= after), None
    )
    if begun is None or begun.worked is None or len(begun.worked.rounds) != after or not begun.checked.sound:
        return None
    try:
        return Skin.of(run.name, settle(begun.worked, design.gauge_of(key), firmness=design.gauge.firmness))
    except CraftError:
        return None


def stages_of_making(
    design: Design, key: str, told: Callable[[float], None] = lambda share: None
) -> tuple[tuple[int, Skin], ...]:
    """A part after some of its rounds, evenly up it, each with how many they are; those that settle. told: how much is done."""
    run = next((p for p in run_parts(design) if p.key == key), None)
    rounds = 0 if run is None or run.worked is None else len(run.worked.rounds)
    many = min(MOST_STAGES, rounds - 1)
    found: list[tuple[int, Skin]] = []
    for k in range(1, many + 1):
        told((k - 1) / many)
        after = math.ceil(rounds * k / (many + 1))
        skin = on_the_way(design, key, after)
        if skin is not None:
            found.append((after, skin))
    return tuple(found)


def _begun(design: Design, run: RunPart, after: int) -> Iterator[RunPart]:
    """The part run with its first lines alone: so many as there are to be rounds, then a line more each time."""
    items = unfolded(run.written.items)
    ends = [k for k, item in enumerate(items) if isinstance(item, Round)]
    for end in ends[after - 1 : after + MOST_LEADING]:
        own = items[: end + 1]
        if not any(isinstance(i, Step) and i.kind in (StepKind.STUFF, StepKind.EMPTY) for i in own):
            own = (*own, EMPTY)
        text = print_rounds(Part(run.written.name, own, run.written.make), design.terms)
        parts = tuple(
            replace(p, text=text, recipe=None, drafted=False) if p.key == run.key else p for p in design.parts
        )
        yield next(p for p in run_parts(replace(design, parts=parts)) if p.key == run.key)
