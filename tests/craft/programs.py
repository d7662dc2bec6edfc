"""Random sound programs and texts for property tests."""

from __future__ import annotations

from hypothesis import strategies as st

from craft.arithmetic import round_sum
from craft.pattern import (
    Colour,
    HeadEntry,
    Instruction,
    Item,
    Note,
    Part,
    Pattern,
    Repeat,
    Round,
    Start,
    StartKind,
    Step,
    StepKind,
    Work,
)
from craft.stitches import STITCHES, Loops, Terms

WORKABLE = [key for key, entry in STITCHES.items() if entry.takes]
COLOURS = ["Moss", "Oat", "Night sky", "Fog-grey"]
STEPS = [
    (StepKind.STUFF, "Stuff lightly."),
    (StepKind.EYES, "Insert the eyes between R2 and R3."),
    (StepKind.FASTEN_OFF, "Fasten off."),
    (StepKind.SEW, "Embroider a mouth."),
]


@st.composite
def bodies(draw: st.DrawFn, live: int) -> tuple[Instruction, ...]:
    """A round's work that uses exactly `live` stitches."""
    if live <= 60 and draw(st.booleans()):
        divisors = [d for d in range(1, live + 1) if live % d == 0 and d <= 12]
        unit = draw(st.sampled_from(divisors))
        inner = draw(sequences(unit))
        if draw(st.booleans()):
            return (Repeat(inner, None),)
        return (Repeat(inner, live // unit),)
    return draw(sequences(live))


@st.composite
def sequences(draw: st.DrawFn, takes: int) -> tuple[Instruction, ...]:
    """Stitches that together take exactly `takes`."""
    out: list[Instruction] = []
    left = takes
    while left:
        fitting = [key for key in WORKABLE if STITCHES[key].takes <= left]
        key = draw(st.sampled_from(fitting))
        most = left // STITCHES[key].takes
        count = draw(st.integers(1, min(most, 4)))
        above = out[-1] if out else None
        if isinstance(above, Work) and above.stitch == key:
            out[-1] = Work(key, above.count + count)
        else:
            out.append(Work(key, count))
        left -= STITCHES[key].takes * count
    return tuple(out)


@st.composite
def parts(draw: st.DrawFn, name: str | None) -> Part:
    """A part whose every round fits the one below."""
    kind = draw(st.sampled_from(list(StartKind)))
    live = draw(st.integers(3, 10))
    items: list[Item] = [Round(1, 1, (Start(kind, live),), live)]
    number = 1
    for _ in range(draw(st.integers(0, 6))):
        extra = draw(st.sampled_from(["none", "none", "colour", "step", "note"]))
        if extra == "colour":
            items.append(Colour(draw(st.sampled_from(COLOURS))))
        elif extra == "step":
            items.append(Step(*draw(st.sampled_from(STEPS))))
        elif extra == "note":
            items.append(Note("The fabric leans a little here; that is as it should be."))
        body = draw(bodies(live))
        made = round_sum(body, live).total.gives
        if not 1 <= made <= 400:
            continue
        stays = made == live
        length = draw(st.integers(1, 4)) if stays else 1
        loops = draw(st.sampled_from(list(Loops)))
        counted = made if draw(st.booleans()) else None
        items.append(Round(number + 1, number + length, body, counted, loops))
        number += length
        live = made
    return Part(name, tuple(items), draw(st.integers(1, 4)) if name else 1)


@st.composite
def patterns(draw: st.DrawFn) -> Pattern:
    """One to three sound parts, with or without a head block."""
    many = draw(st.integers(1, 3))
    names: list[str | None] = ["Body", "Left arm", "Shell"][:many] if many > 1 or draw(st.booleans()) else [None]
    head = (HeadEntry("name", "Moth in a nightcap"), HeadEntry("hook", "3 mm")) if draw(st.booleans()) else ()
    terms = draw(st.sampled_from(list(Terms)))
    return Pattern(tuple(draw(parts(name)) for name in names), head, terms)
