"""Random sound programs and texts for property tests: every stitch of the registry, every construction."""

from __future__ import annotations

from dataclasses import replace

from hypothesis import strategies as st

from craft.rounds.arithmetic import round_sum
from craft.rounds.pattern import (
    Again,
    Chain,
    Cluster,
    Colour,
    Edge,
    FromHook,
    HeadEntry,
    Instruction,
    Item,
    Join,
    Leave,
    Note,
    Onto,
    Part,
    Pattern,
    Repeat,
    Round,
    Same,
    Section,
    Shift,
    Skip,
    Spur,
    Start,
    StartKind,
    Step,
    StepKind,
    Turn,
    Way,
    Work,
)
from craft.rounds.stitches import STITCHES, Loops, Terms

WORKABLE = [key for key, entry in STITCHES.items() if entry.takes]
ONTO_EDGE = [key for key in WORKABLE if STITCHES[key].takes == 1 and STITCHES[key].gives]
COLOURS = ["Moss", "Oat", "Night sky", "Fog-grey"]
STEPS = [
    (StepKind.STUFF, "Stuff lightly."),
    (StepKind.EYES, "Insert the eyes between R2 and R3."),
    (StepKind.FASTEN_OFF, "Fasten off."),
    (StepKind.EMBROIDER, "Embroider a mouth."),
    (StepKind.MARKER, "Place a marker."),
    (StepKind.EMPTY, "Do not stuff this part."),
    (StepKind.WIRE, "Lay in the wire, ends wrapped."),
]
PLAIN_LOOPS = [Loops.BOTH, Loops.FRONT, Loops.BACK]


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
    if live > 4 and draw(st.integers(0, 5)) == 0:
        last = draw(st.integers(1, live - 1))
        return (Repeat((Work("sc"),), None, last), *draw(sequences(last)))
    return draw(sequences(live))


@st.composite
def sequences(draw: st.DrawFn, takes: int) -> tuple[Instruction, ...]:
    """Stitches, clusters and holes that together take exactly `takes`."""
    out: list[Instruction] = []
    left = takes
    while left:
        kind = draw(st.integers(0, 14))
        if kind == 0 and takes > 2:
            out.append(Cluster((Work("sc"), Work("hdc", draw(st.integers(1, 2))), Work("sc"))))
            left -= 1
        elif kind == 1 and left > 1 and out:
            many = draw(st.integers(1, min(left, 2)))
            out += [Work("ch", many), Skip(many)]
            left -= many
        elif kind == 2 and out and isinstance(out[-1], Work) and out[-1].stitch == "sc":
            out.append(Same("hdc", draw(st.integers(1, 2))))
        elif kind == 3:
            out.append(Spur(4, 2, (Work("slst"), Work("sc", 2))))
        else:
            _plain(draw, out, left)
            last = out[-1]
            assert isinstance(last, Work)
            left = takes - sum(_takes(i) for i in out)
    return _chains(out)


def _plain(draw: st.DrawFn, out: list[Instruction], left: int) -> None:
    fitting = [key for key in WORKABLE if STITCHES[key].takes <= left]
    key = draw(
        st.one_of(st.sampled_from(["sc", "inc", "dec"] if left > 1 else ["sc", "inc"]), st.sampled_from(fitting))
    )
    count = draw(st.integers(1, min(left // STITCHES[key].takes, 4)))
    loops = draw(st.sampled_from([None] * 6 + list(Loops))) if STITCHES[key].loops is None else None
    above = out[-1] if out else None
    if isinstance(above, Work) and above.stitch == key:
        out[-1] = replace(above, count=above.count + count)
    else:
        out.append(Work(key, count, loops))


def _takes(item: Instruction) -> int:
    match item:
        case Work():
            return STITCHES[item.stitch].takes * item.count
        case Cluster():
            return 1
        case Skip():
            return item.count
        case _:
            return 0


def _chains(body: list[Instruction]) -> tuple[Instruction, ...]:
    """Bridges as they are read: chains, whose role follows from where they stand."""
    return tuple(Chain(i.count) if isinstance(i, Work) and i.stitch == "ch" else i for i in body)


@st.composite
def rings(draw: st.DrawFn) -> tuple[list[Item], int]:
    """A closed start, from a ring or a chain, and its count."""
    kind = draw(st.integers(0, 3))
    if kind <= 1:
        live = draw(st.integers(3, 10))
        start = Start(draw(st.sampled_from(list(StartKind))), live, draw(st.sampled_from(["sc", "hdc", "dc"])))
        return [Round(1, 1, (start,), live)], live
    if kind == 2:
        live = draw(st.integers(6, 12))
        tube = Round(None, None, (Chain(live), Join()), way=Way.LINE)
        return [tube, Round(1, 1, (Repeat((Work("sc"),), None),), live)], live
    chain = draw(st.integers(4, 9))
    oval = (
        *((FromHook(2), Work("sc", chain - 2), Work("inc3"))),
        Onto(Edge.CHAIN),
        *((Work("sc", chain - 3), Work("inc"))),
    )
    return [Round(None, None, (Chain(chain),), way=Way.LINE), Round(1, 1, oval, 2 * chain)], 2 * chain


@st.composite
def parts(draw: st.DrawFn, name: str | None) -> Part:
    """A part whose every round fits the one below."""
    items, live = draw(rings())
    number = 1
    for _ in range(draw(st.integers(0, 6))):
        extra = draw(st.sampled_from(["none", "none", "colour", "step", "note"]))
        if extra == "colour":
            items.append(Colour(draw(st.sampled_from(COLOURS))))
        elif extra == "step":
            items.append(Step(*draw(st.sampled_from(STEPS))))
        elif extra == "note":
            items.append(Note("The fabric leans a little here; that is as it should be."))
        made, number, live = draw(rounds(number, live))
        items += made
    if live >= 8 and draw(st.booleans()):
        items += draw(splits(number, live))
    return Part(name, tuple(items), draw(st.integers(1, 4)) if name else 1)


@st.composite
def rounds(draw: st.DrawFn, number: int, live: int) -> tuple[list[Item], int, int]:
    """One round or fold on `live` stitches; with the last number and the live count after it."""
    kind = draw(st.integers(0, 9))
    if kind == 0 and live >= 6:
        back = draw(st.integers(2, live - 2))
        there = Round(number + 1, number + 1, (Work("sc", back), Leave(), Turn()), live)
        return [there, Round(number + 2, number + 2, (Work("sc", back), Turn()), live)], number + 2, live
    if kind == 1:
        shift = draw(st.integers(1, 3))
        return [Round(number + 1, number + 1, (Repeat((Work("sc"),), None), Shift(shift)), live)], number + 1, live
    if kind == 2 and number > 1:
        length = draw(st.integers(1, 3))
        plain = Round(number + 1, number + 1, (Repeat((Work("sc"),), None),), live)
        again = Round(number + 2, number + 1 + length, (Again(number + 1, number + 1),), live)
        return [plain, again], number + 1 + length, live
    body = draw(bodies(live))
    joined = draw(st.booleans())
    if joined and not isinstance(body[0], Spur):
        body = (Chain(1, draw(st.sampled_from([None, False]))), *body, Join())
    made = round_sum(body, live).total.gives
    if not 1 <= made <= 300:
        return [], number, live
    length = draw(st.integers(1, 4)) if made == live else 1
    counted = made if draw(st.booleans()) else None
    loops = draw(st.sampled_from(PLAIN_LOOPS))
    return [Round(number + 1, number + length, body, counted, loops)], number + length, made


@st.composite
def splits(draw: st.DrawFn, number: int, live: int) -> list[Item]:
    """The tube split in two limbs, the second from the held stitches."""
    first = draw(st.integers(4, live - 4))
    again = Onto(Edge.HELD, rejoin=True)
    return [
        Round(number + 1, number + 1, (Work("sc", first), Skip(live - first), Join()), first),
        Round(number + 2, number + 3, (Repeat((Work("sc"),), None),), first),
        Step(StepKind.FASTEN_OFF, "Fasten off."),
        Section("Second leg"),
        Round(None, None, (again,), way=Way.LINE),
        Round(number + 2, number + 3, (Repeat((Work("sc"),), None),), live - first),
    ]


@st.composite
def patterns(draw: st.DrawFn) -> Pattern:
    """One to three sound parts, with or without a head block, limbs worked in or merged."""
    many = draw(st.integers(1, 3))
    names: list[str | None] = [None]
    if many > 1 or draw(st.booleans()):
        names = ["Body", "Left arm", "Shell"][:many]  # type: ignore[assignment]
    head = (HeadEntry("name", "Moth in a nightcap"), HeadEntry("hook", "3 mm")) if draw(st.booleans()) else ()
    made = [draw(parts(name)) for name in names]
    if draw(st.integers(0, 3)) == 0:
        made += draw(limbs())
    return Pattern(tuple(made), head, draw(st.sampled_from(list(Terms))))


@st.composite
def limbs(draw: st.DrawFn) -> list[Part]:
    """Two legs and what joins them: a merge with or without a chain, or limbs pressed flat and worked in."""
    around = draw(st.integers(3, 6)) * 2
    leg = [Round(1, 1, (Start(StartKind.RING, around),), around), Round(2, 4, (Repeat((Work("sc"),), None),), around)]
    if draw(st.booleans()):
        bridge = draw(st.integers(1, 4))
        first, second = Onto(Edge.PIECE, "first leg"), Onto(Edge.PIECE, "second leg")
        body = (
            first,
            Work("sc", around),
            Chain(bridge),
            second,
            Work("sc", around),
            Onto(Edge.CHAIN),
            Work("sc", bridge),
        )
        live = 2 * around + 2 * bridge
        hips = [Round(1, 1, body, live), Round(2, 3, (Repeat((Work("sc"),), None),), live)]
        return [Part("Leg", tuple(leg), 2), Part("Hips", tuple(hips))]
    flat = around // 2
    closing = Round(None, None, (Work("sc", flat, through=""),), flat, way=Way.LINE)
    live = around * 2
    through = [
        Work("sc", flat, through="first leg"),
        Work("sc", flat),
        Work("sc", flat, through="second leg"),
        Work("sc", flat),
    ]
    hips = [Round(1, 1, (Start(StartKind.RING, live),), live), Round(2, 2, tuple(through), live)]
    return [Part("Leg", (*leg, closing), 2), Part("Hips", tuple(hips))]
