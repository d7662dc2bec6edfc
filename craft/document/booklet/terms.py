"""Abbreviations that stand in a booklet, explained, and how its parts are worked."""

from __future__ import annotations

from collections.abc import Sequence

from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import (
    Chain,
    Cluster,
    Instruction,
    Part,
    Repeat,
    Same,
    Spur,
    Start,
    StartKind,
    Step,
    StepKind,
    Way,
    Work,
)
from craft.rounds.stitches import STITCHES, Loops, Stitch, Terms
from craft.text.catalogue import ENGLISH, Words
from craft.text.notation import Wording


def _used(items: Sequence[Instruction], found: set[str], loops: set[Loops]) -> None:
    for item in items:
        match item:
            case Work():
                found.add(item.stitch)
                if item.loops is not None:
                    loops.add(item.loops)
            case Start():
                found |= {item.stitch, "ring" if item.start is StartKind.RING else "ch"}
            case Same():
                found.add(item.stitch)
            case Chain():
                found.add("ch")
            case Spur():
                found.add("ch")
                _used(item.body, found, loops)
            case Repeat() | Cluster():
                _used(item.body, found, loops)
            case _:
                pass


def abbreviations(terms: Terms, parts: Sequence[Part], words: Words = ENGLISH) -> tuple[tuple[str, str], ...]:
    """Every abbreviation that stands in the rounds of parts, with what it means; no other one."""
    found: set[str] = set()
    loops: set[Loops] = set()
    for part in parts:
        for made in part.rounds:
            _used(made.body, found, loops)
            loops.add(made.loops)
    found |= {entry.base for key in found if (entry := STITCHES.get(key)) is not None and entry.base}
    wording = Wording(terms, language=words.language)
    rows = [(wording.name(e), explained(e, terms, words)) for e in STITCHES.values() if e.key in found]
    rows.append((words.round("").strip(), words.say("round")))
    rows.append(
        ("(n)" if terms is Terms.LETTERS and words.language is None else "[n]", words.say("stitches after the round"))
    )
    if words.language is None:
        if "ring" in found:
            rows.append(("ring", RING))
        rows += [(word, meaning) for of, word, meaning in _LOOPS if of in loops]
    elif "ring" in found:
        rows.append((words.say("ring"), words.say(RING)))
    return tuple(rows)


RING = "an adjustable loop that is drawn shut once the first round is worked into it"

_LOOPS = ((Loops.BACK, "BLO", "through the back loops only"), (Loops.FRONT, "FLO", "through the front loops only"))
"""Abbreviations of loops; other languages print them in full."""


def explained(entry: Stitch, terms: Terms, words: Words) -> str:
    """What a stitch is called, and how it is worked."""
    if words.language is None:
        return f"{entry.called(terms)}. {entry.explained(terms)}"
    if entry.base is None:
        return f"{words.say(entry.called(Terms.US))}. {words.say(entry.explained(Terms.US))}"
    of, n = STITCHES[entry.base].abbreviated(words.language), entry.order
    if entry.gives > entry.takes:
        return words.say("Work {n} {stitch} into the same stitch.", n=n, stitch=of)
    if entry.base == "sc":
        return words.say("Draw up a loop in each of the next {n} stitches, yarn over, draw through all loops.", n=n)
    return words.say(
        "Begin a {stitch} in each of the next {n} stitches, leaving its last loop on the hook, then yarn over and draw "
        "through all loops.",
        n=n,
        stitch=of,
    )


_SPIRAL = "in a spiral without joining: mark the first stitch and move the marker up every round"
_JOINED = "in rounds that end in 'join': close each with a slip stitch"
_ROWS = "in rows: turn at the end of each"


def ways_worked(parts: Sequence[tuple[Part, WorkedPart]], words: Words = ENGLISH) -> tuple[str, ...]:
    """How the parts are worked, by what their rounds do: one sentence where all are alike, else one for each way."""
    by_way: dict[str, list[str]] = {}
    for part, worked in parts:
        for way in _ways_of(part, worked):
            by_way.setdefault(way, []).append(part.name or words.say("Part"))
    if len(by_way) == 1:
        one = "All parts are worked {way}." if len(parts) > 1 else "It is worked {way}."
        return tuple(words.say(one, way=words.say(way)) for way in by_way)
    return tuple(
        words.say("{parts}: worked {way}.", parts=words.listed(names), way=words.say(way))
        for way, names in by_way.items()
    )


def _ways_of(part: Part, worked: WorkedPart) -> tuple[str, ...]:
    rows = any(r.way is Way.ROW for r in part.rounds)
    joined = any(r.joined for r in part.rounds if r.way is Way.ROUND)
    first = next((t.label for t in worked.rounds), "")
    spiral = any(r.way is Way.ROUND and not r.joined and r.label != first for r in part.rounds) and not rows
    return tuple(way for way, holds in ((_SPIRAL, spiral), (_JOINED, joined), (_ROWS, rows)) if holds)


def filled(parts: Sequence[tuple[Part, WorkedPart]], words: Words = ENGLISH) -> tuple[str, ...]:
    """Which parts are stuffed and which stay empty, by what their directions say; nothing where they say nothing."""
    by_kind: dict[StepKind, list[str]] = {StepKind.STUFF: [], StepKind.EMPTY: []}
    for part, _ in parts:
        kinds = {i.kind for i in part.items if isinstance(i, Step)}
        kind = StepKind.STUFF if StepKind.STUFF in kinds else StepKind.EMPTY
        if kind in kinds:
            by_kind[kind].append(part.name or words.say("Part"))
    stuffed, empty = by_kind[StepKind.STUFF], by_kind[StepKind.EMPTY]
    if not empty:
        return (words.say("All parts are stuffed."),) if len(stuffed) == len(parts) > 1 else ()
    return tuple(
        words.say(sentence, parts=words.listed(names))
        for sentence, names in (("Stuffed: {parts}.", stuffed), ("Not stuffed: {parts}.", empty))
        if names
    )


def decreases(parts: Sequence[Part], words: Words = ENGLISH) -> tuple[str, ...]:
    """Which decrease is worked, where there is any."""
    found: set[str] = set()
    for part in parts:
        for made in part.rounds:
            _used(made.body, found, set())
    plain = any(
        (e := STITCHES.get(key)) is not None and e.base is not None and e.change < 0 for key in found - {"invdec"}
    )
    invisible = "invdec" in found
    if plain and invisible:
        return (words.say("Decreases are plain or invisible, as each round says."),)
    if invisible:
        return (words.say("Every decrease is the invisible one."),)
    return (words.say("Every decrease is the plain one."),) if plain else ()
