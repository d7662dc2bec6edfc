"""Two designs side by side: rounds aligned, what differs in words, and what each comes to."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from itertools import groupby

from craft.design.design import Design
from craft.design.grading import Sized, figures_of, first_size
from craft.design.joins import Join
from craft.design.parts import Part
from craft.design.remix.changes import Kind
from craft.design.remix.difference import difference
from craft.design.remix.likeness import names_like, renamed
from craft.design.remix.merging import in_terms
from craft.design.remix.telling import said
from craft.design.running import run_parts
from craft.design.stored import from_json, to_json
from craft.gauge import Estimate
from craft.rounds.fabric import Tally, WorkedPart
from craft.text.catalogue import ENGLISH, Words


@dataclass(frozen=True, slots=True)
class Beside:
    """A round of each design that are the same place of the part; None where one has no such round. same: they are worked
    alike."""

    a: Tally | None
    b: Tally | None
    same: bool


@dataclass(frozen=True, slots=True)
class PartsCompared:
    """A part of both, or of one. a, b: as it is there, None where it is not. words: what differs, in sentences."""

    key: str
    name: str
    a: Part | None
    b: Part | None
    rounds: tuple[Beside, ...]
    words: tuple[str, ...]

    @property
    def same(self) -> bool:
        """Whether it is worked alike in both, and as often."""
        return not self.words


@dataclass(frozen=True, slots=True)
class Comes:
    """What a design comes to."""

    stitches: int
    height_mm: Estimate
    metres: Estimate
    hours: Estimate
    filling_g: Estimate


@dataclass(frozen=True)
class Comparison:
    """Two designs held against each other. words: what differs beside the rounds. sums: what is more or less."""

    a: Design
    b: Design
    parts: tuple[PartsCompared, ...]
    words: tuple[str, ...]
    comes: tuple[Comes, Comes]
    sums: tuple[str, ...]


def compared(a: Design, b: Design) -> Comparison:
    """`b` held against `a`, in the terms of `a`; parts are the same by key, else by name."""
    b = in_terms(b, a.terms)
    b = from_json(renamed(to_json(b), names_like(to_json(b), to_json(a))))
    runs = [{p.key: p for p in run_parts(d)} for d in (a, b)]
    keys = list(dict.fromkeys([*(p.key for p in a.parts), *(p.key for p in b.parts)]))
    parts = []
    for key in keys:
        one, two = (run.get(key) for run in runs)
        was, now = (r.part if r else None for r in (one, two))
        worked = [r.worked if r else None for r in (one, two)]
        rounds = tuple(beside(*worked))
        name = (now or was).name  # type: ignore[union-attr]
        parts.append(PartsCompared(key, name, was, now, rounds, tuple(_part_words(was, now, rounds))))
    sizes = [first_size(d, tuple(r.values())) for d, r in zip((a, b), runs, strict=True)]
    comes = _comes(sizes[0]), _comes(sizes[1])
    return Comparison(a, b, tuple(parts), tuple(_words(a, b)), comes, tuple(sums_said(*comes)))


# --- rounds -----------------------------------------------------------------------------------


def beside(a: WorkedPart | None, b: WorkedPart | None) -> Iterator[Beside]:
    """The rounds of both, aligned: as many as possible that are worked alike, the others as they come."""
    one, two = (w.rounds if w else () for w in (a, b))
    steps = SequenceMatcher(None, [_like(t) for t in one], [_like(t) for t in two], autojunk=False).get_opcodes()
    for tag, i, j, k, m in steps:
        for n in range(max(j - i, m - k)):
            x = one[i + n] if i + n < j else None
            y = two[k + n] if k + n < m else None
            yield Beside(x, y, tag == "equal")


def _like(t: Tally) -> tuple[object, ...]:
    return t.live, t.taken, t.made, t.marks, t.height, t.loops, t.colours, t.flat, t.held


def _part_words(a: Part | None, b: Part | None, rounds: Sequence[Beside]) -> Iterator[str]:
    if a is None:
        yield f"New, {_rounds(len(rounds))}."
        return
    if b is None:
        yield "Not there any more."
        return
    if a.name != b.name:
        yield f"Called {b.name}, was {a.name}."
    if a.make != b.make:
        yield f"Made {_times(b.make)}, was {_times(a.make)}."
    if a.colour != b.colour:
        yield f"Begins in {b.colour or 'the main yarn'}, was {a.colour or 'the main yarn'}."
    yield from _rounds_words(rounds)
    if not any(True for r in rounds if not r.same) and a.text != b.text:
        yield from (["Worked alike, written otherwise."] if a.text.split() != b.text.split() else [])


def _times(n: int) -> str:
    return "once" if n == 1 else f"{n} times"


def _rounds(n: int) -> str:
    return "1 round" if n == 1 else f"{n} rounds"


def _rounds_words(rounds: Sequence[Beside]) -> Iterator[str]:
    """What differs in the rounds: runs of rounds of which the same can be said are one sentence."""
    last = "the start"
    for kind, found in groupby(rounds, key=_kind):
        group = list(found)
        match kind:
            case "same":
                pass
            case "added":
                new = _labels([r.b for r in group])
                yield f"{_rounds(len(group))} more behind {last}: {new}."
            case "removed":
                yield f"{_labels([r.a for r in group])} {'is' if len(group) == 1 else 'are'} gone."
            case int(more):
                each = " each" if len(group) > 1 else ""
                have = "has" if len(group) == 1 else "have"
                yield f"{_labels([r.a for r in group])} {have} {abs(more)} {'more' if more > 0 else 'fewer'}{each}{_now(group)}."
            case _:
                yield f"{_labels([r.a for r in group])}: {kind}."
        last = next((r.a.label for r in reversed(group) if r.a is not None), last)


def _kind(r: Beside) -> str | int:
    if r.same:
        return "same"
    if r.a is None or r.b is None:
        return "added" if r.a is None else "removed"
    if r.a.live != r.b.live:
        return r.b.live - r.a.live
    return _otherwise(r.a, r.b)


def _otherwise(a: Tally, b: Tally) -> str:
    """What of two rounds of one count differs."""
    found = [
        ("other colours", a.colours != b.colours),
        ("other loops", a.loops != b.loops),
        ("other stitches", a.height != b.height),
        ("shaped at other places", a.marks != b.marks),
    ]
    return " and ".join(words for words, differs in found if differs) or "on other stitches below"


def _labels(rounds: Sequence[Tally | None]) -> str:
    labels = [t.label or "a line" for t in rounds if t is not None]
    return labels[0] if len(labels) == 1 else f"{labels[0]} to {labels[-1]}"


def _now(group: Sequence[Beside]) -> str:
    if len(group) > 1 or group[0].a is None or group[0].b is None:
        return ""
    return f" ({group[0].a.live} → {group[0].b.live})"


# --- beside the rounds --------------------------------------------------------------------------


def _words(a: Design, b: Design) -> Iterator[str]:
    """Everything but what `_part_words` says."""
    for change in difference(a, b).changes:
        if change.page == "parts" and change.kind is not Kind.MOVED:
            continue
        if change.page == "joins" and change.field == "place" and change.before and change.after:
            join = next(j for j in a.joins if j.key == change.key)
            if change.before["on"] == change.after["on"]:
                yield from _moved(join, a, b, change.before["round"], change.after["round"])
                continue
        yield said(change, a, b)


def _moved(join: Join, a: Design, b: Design, was: int, now: int) -> Iterator[str]:
    names = {p.key: p.name for p in (*b.parts, *a.parts)}
    part, host = names.get(join.part, "A part"), names.get(join.host, "its part")
    if was == now:
        yield f"{part} on {host}: elsewhere around, still at R{now}."
        return
    way = "nearer its start" if now < was else "nearer its end"
    yield f"{part} on {host}: {_rounds(abs(now - was))} {way}, at R{now} instead of R{was}."


# --- what each comes to -------------------------------------------------------------------------


def comes_of(design: Design) -> Comes:
    """What a design comes to."""
    return _comes(first_size(design, run_parts(design)))


def _comes(first: Sized) -> Comes:
    found = figures_of(first)
    metres = [use.metres for use, _ in found.yarns]
    spread = first.gauge.spread
    total = sum(m.value for m in metres)
    how = metres[0].how if metres else ""
    low, high = (sum(getattr(m, end) for m in metres) for end in ("low", "high"))
    return Comes(
        sum(use.stitches for use, _ in found.yarns),
        found.height,
        Estimate(total, low, high, how) if metres else Estimate.around(0.0, spread, how),
        found.hours,
        found.filling_g,
    )


def sums_said(a: Comes, b: Comes, words: Words = ENGLISH) -> Iterator[str]:
    """What is more or less, where it can be told."""
    for was, now, more, less, least in (
        (float(a.stitches), float(b.stitches), "{n} stitches more", "{n} stitches fewer", 1),
        (a.metres.value, b.metres.value, "{n} m of yarn more", "{n} m of yarn less", 0.5),
        (a.hours.value, b.hours.value, "{n} hours more", "{n} hours fewer", 0.25),
        (a.height_mm.value, b.height_mm.value, "{n} mm of height more", "{n} mm of height less", 0.5),
        (a.filling_g.value, b.filling_g.value, "{n} g of filling more", "{n} g of filling less", 0.5),
    ):
        by = now - was
        if abs(by) >= least:
            yield words.say(more if by > 0 else less, n=f"{abs(by):.{1 if 'hours' in more else 0}f}")
