"""What somebody works from: an edition of a pattern round by round, each with what comes before it, as it was on one day."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import asdict, dataclass
from typing import Any

from craft.document.booklet import Manuscript, PartLine, RoundLine, cautions, part_lines, step_said
from craft.errors import require
from craft.formats import Upgrade, strict_converter, structured, upgraded
from craft.rounds.arithmetic import round_sum, sum_of
from craft.rounds.fabric import MAIN_COLOUR, Tally
from craft.rounds.pattern import Again, Instruction, Join, Repeat, Round, Start, Turn, Work
from craft.rounds.stitches import Terms
from craft.text.notation import Wording, print_work

_UPGRADES: tuple[Upgrade, ...] = ()
"""Of format 1, the first."""


@dataclass(frozen=True, slots=True)
class Tick:
    """A piece of a round that can be ticked off. times: how often it comes; stitches: that it makes each time."""

    text: str
    times: int
    stitches: int


@dataclass(frozen=True, slots=True)
class Rung:
    """A round to be worked. count: stitches afterwards. before: what is done before it. ticks: its pieces, none where it is
    one piece. colour: that it is begun in, '' for the main one. source: which written round of the part it is, from 0."""

    label: str
    work: str
    count: int
    made: int
    source: int
    before: tuple[str, ...] = ()
    ticks: tuple[Tick, ...] = ()
    colour: str = ""


@dataclass(frozen=True, slots=True)
class PartSheet:
    """A part: `make` pieces of it are worked. after: what is done after its last round. fill: its colour, '#rrggbb'."""

    key: str
    name: str
    make: int
    rungs: tuple[Rung, ...]
    after: tuple[str, ...] = ()
    fill: str = ""

    def __post_init__(self) -> None:
        require(self.make >= 1, "A part is made at least once.")


@dataclass(frozen=True, slots=True)
class YarnToUse:
    """A yarn of the edition, with what the estimate says that it takes, in grams; None where nobody knows."""

    name: str
    colour: str
    grams: float | None


@dataclass(frozen=True, slots=True)
class Worksheet:
    """An edition as it is worked from. steps: of putting together. Predicted: height_mm and width_mm of the figure and hours,
    0 where nothing is known; stitch_mm and round_mm that they come from; spread: the share by which those may be off."""

    title: str
    designer: str
    stamp: str
    terms: str
    parts: tuple[PartSheet, ...]
    steps: tuple[str, ...]
    cautions: tuple[str, ...]
    yarns: tuple[YarnToUse, ...]
    hook_mm: float
    stitch_mm: float
    round_mm: float
    spread: float
    height_mm: float
    width_mm: float
    hours: float

    def part(self, key: str) -> PartSheet | None:
        """A part by its key."""
        return next((p for p in self.parts if p.key == key), None)

    def rung(self, part: str, round_: int) -> Rung | None:
        """A round of a part, counted from 1."""
        found = self.part(part)
        return found.rungs[round_ - 1] if found and 1 <= round_ <= len(found.rungs) else None

    @property
    def stitches(self) -> int:
        """All stitches of it, pieces made several times as often as they are."""
        return sum(r.made * p.make for p in self.parts for r in p.rungs)


_CONVERTER = strict_converter()


def worksheet_json(sheet: Worksheet) -> dict[str, Any]:
    """A worksheet as plain JSON, format 1."""
    return {"format": len(_UPGRADES) + 1, **asdict(sheet)}


def worksheet_from(data: Mapping[str, Any]) -> Worksheet:
    """A worksheet of any format so far. CraftError where it is none."""
    newest = upgraded(data, _UPGRADES, "The worksheet")
    del newest["format"]
    return structured(_CONVERTER, newest, Worksheet, "The worksheet")


def worksheet_of(m: Manuscript, *, hours: float, fills: Mapping[str, str]) -> Worksheet:
    """The worksheet of a manuscript, in its own words and terms. fills: colours of yarns by name, '#rrggbb'."""
    return Worksheet(
        title=m.title,
        designer=m.designer,
        stamp=m.stamp,
        terms=m.terms.value,
        parts=tuple(_part(m, line, fills) for line in m.parts),
        steps=tuple(step_said(m, a) for a in m.assembly),
        cautions=tuple(cautions(m)),
        yarns=tuple(YarnToUse(y.name, fills.get(y.name, ""), y.grams.value if y.grams else None) for y in m.yarns),
        hook_mm=m.hook_mm or 0.0,
        stitch_mm=m.gauge.stitch_mm,
        round_mm=m.gauge.round_mm,
        spread=m.gauge.spread,
        height_mm=m.height.value if m.height else 0.0,
        width_mm=m.width.value if m.width else 0.0,
        hours=hours,
    )


def _part(m: Manuscript, line: PartLine, fills: Mapping[str, str]) -> PartSheet:
    worked, before = line.worked, _between(m, line)
    first = worked.rounds[0].colours[0] if worked.rounds else MAIN_COLOUR
    fill = fills.get(first) or fills.get(m.yarns[0].name if m.yarns else "", "")
    name = line.part.name or m.words.say("Part")
    inside = [
        m.words.say("Before closing: {text}", text=a.text) for a in m.assembly if a.before_closing and a.part == name
    ]
    rungs = tuple(_rungs(m, line, before))
    if inside and rungs:  # before the last round: closing comes after it
        rungs = (*rungs[:-1], _with(rungs[-1], (*rungs[-1].before, *inside)))
    return PartSheet(line.key or name, name, line.part.make, rungs, tuple(before.get(len(line.part.rounds), ())), fill)


def _with(rung: Rung, before: tuple[str, ...]) -> Rung:
    return Rung(rung.label, rung.work, rung.count, rung.made, rung.source, before, rung.ticks, rung.colour)


def _between(m: Manuscript, line: PartLine) -> dict[int, list[str]]:
    """What is said between the rounds, by the written round that it comes before."""
    worked = {tally.source for tally in line.worked.rounds}
    found: dict[int, list[str]] = {}
    at = 0
    for said in part_lines(m, line):
        is_round = said.kind in ("round", "line")
        at += is_round
        if not is_round or at - 1 not in worked:  # a chain to begin with is no round, and comes before one
            found.setdefault(at, []).append(said.text)
    return found


def _rungs(m: Manuscript, line: PartLine, before: Mapping[int, list[str]]) -> Iterator[Rung]:
    said = [r for r in part_lines(m, line) if r.kind in ("round", "line")]
    written, live, seen = line.part.rounds, 0, -1
    for tally in line.worked.rounds:
        made, told = written[tally.source], said[tally.source]
        source = _repeated(made, tally, written)
        fresh = tally.source != seen
        yield Rung(
            label=m.words.label(tally.label) or m.words.say("Start"),
            work=said[source].work if source != tally.source else _work(told),
            count=tally.live,
            made=tally.made,
            source=tally.source,
            before=tuple(_since(before, seen, tally.source)) if fresh else (),
            ticks=_ticks(m, line, written[source], live),
            colour="" if tally.colours[0] == MAIN_COLOUR else tally.colours[0],
        )
        live, seen = tally.live, tally.source


def _since(before: Mapping[int, list[str]], seen: int, source: int) -> Iterator[str]:
    """All that is said before a written round and has not been yet: rounds that only set up have no rung of their own."""
    for at in range(seen + 1, source + 1):
        yield from before.get(at, ())


def _work(told: RoundLine) -> str:
    return told.work or told.text


def _repeated(made: Round, tally: Tally, written: tuple[Round, ...]) -> int:
    """Which written round a worked one is, where it only says that others come again."""
    again = next((i for i in made.body if isinstance(i, Again)), None)
    if again is None or tally.number is None or made.first is None:
        return tally.source
    at = again.first + (tally.number - made.first) % (again.last - again.first + 1)
    found = (i for i, r in enumerate(written) if r.first is not None and r.first <= at <= (r.last or r.first))
    return next(found, tally.source)


def _ticks(m: Manuscript, line: PartLine, made: Round, live: int) -> tuple[Tick, ...]:
    """The pieces of a round in its own words; none where it is a single one, or is not made of pieces."""
    body = [i for i in made.body if not isinstance(i, Join | Turn)]
    if not all(isinstance(i, Repeat | Work | Start) for i in body):
        return ()
    around = round_sum(made.body, live).fill or 1
    ticks = tuple(_tick(m, line, made, item, around) for item in body)
    plain = len(ticks) == 1 and ticks[0].stitches == 1  # one stitch all around is counted, not ticked off
    return ticks if sum(t.times for t in ticks) > 1 and not plain else ()


def _tick(m: Manuscript, line: PartLine, made: Round, item: Instruction, around: int) -> Tick:
    inner = item.body if isinstance(item, Repeat) else (item,)
    times = 1 if not isinstance(item, Repeat) else item.times or around
    how = Wording(Terms(m.terms), language=m.words.language)
    if how.language is None and line.said is not None and line.said.possible and all(i.span.end for i in inner):
        said = line.said.said(made.within(inner[0].span)) if len(inner) == 1 else _run(line, made, inner)
    else:
        said = print_work(Round(None, None, inner), how)
    return Tick(said.strip().strip(",;() "), max(times, 1), sum_of(inner).gives)


def _run(line: PartLine, made: Round, inner: tuple[Instruction, ...]) -> str:
    """Her own words from the first of some instructions to the last."""
    assert line.said is not None
    first, last = made.within(inner[0].span), made.within(inner[-1].span)
    return line.said.said(type(first)(first.start, last.end))
