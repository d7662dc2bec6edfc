"""What a part holds, so that nothing of it is lost in silence when it is made at another size."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence

from craft.design.grading.report import Feature, State
from craft.rounds.pattern import (
    Cluster,
    Colour,
    Instruction,
    Item,
    Note,
    Part,
    Repeat,
    Round,
    Same,
    Section,
    Spur,
    Start,
    Step,
    Work,
)
from craft.rounds.stitches import Loops, stitch

Kind = tuple[str, str]
"""What sort of thing it is, and which."""

_PLAIN = ("sc", "inc", "dec", "invdec")


def inventory(part: Part) -> Counter[Kind]:
    """Everything of a part that says more than how many stitches there are, and how often."""
    found: Counter[Kind] = Counter()
    for item in part.items:
        for kind in _of(item):
            found[kind] += item.repeats if isinstance(item, Round) else 1
    return found


def _of(item: Item) -> Iterator[Kind]:
    match item:
        case Round():
            if item.loops is not Loops.BOTH:
                yield "loops", item.loops.value
            yield from _work(item.body)
        case Step() | Note():
            yield "words", _without_numbers(item.text)
        case Section():
            yield "heading", item.name
        case Colour():
            yield "colour", item.name


def _work(body: Sequence[Instruction]) -> Iterator[Kind]:
    for item in body:
        match item:
            case Repeat():
                yield from _work(item.body)
            case Work():
                key = stitch(item.stitch).base or item.stitch
                if key not in _PLAIN:
                    yield "stitch", key
                if item.loops is not None:
                    yield "loops", item.loops.value
                if item.through is not None:
                    yield "worked in", item.through or "both layers"
            case Start():
                yield "start", item.start.value
            case Cluster() | Spur() | Same():
                yield "stitch", type(item).__name__.lower()
                yield from _work(item.body if isinstance(item, Cluster | Spur) else ())
            case Colour():
                yield "colour", item.name
            case _:
                name = type(item).__name__.lower()
                yield "instruction", name


def _without_numbers(text: str) -> str:
    return "".join("#" if c.isdigit() or c in ".,½¼¾" else c for c in text).replace("##", "#").lower()


def unaccounted(name: str, before: Part, after: Part, told: Iterable[Feature]) -> tuple[Feature, ...]:
    """What of a part is in neither its other size nor the report, as rows that say that it was lost."""
    left = inventory(after)
    said = {(f.before or f.kind).lower() for f in told if f.state is State.LOST} | {f.kind for f in told}
    rows = []
    for (kind, which), _many in inventory(before).items():
        if left[kind, which] or which.lower() in said or _said_otherwise(kind, which, left):
            continue
        rows.append(
            Feature(name, kind, State.LOST, which, "", "It has no place in the rounds of this size; put it in by hand.")
        )
    return tuple(rows)


def _said_otherwise(kind: str, which: str, left: Counter[Kind]) -> bool:
    """Whether words are there with other numbers: only digits were said anew."""
    if kind != "words":
        return False
    letters = [c for c in which if c.isalpha()]
    return any(k == "words" and [c for c in w if c.isalpha()] == letters for k, w in left)
