"""Did against says: what was done otherwise than the pattern says, and how that becomes its text."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from craft.errors import CraftError
from craft.making.folding import Progress, Told
from craft.making.happenings import DidOtherwise, Otherwise
from craft.making.worksheet import Rung, Worksheet
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.pattern import Round, Way
from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.reshaping import Insert, Stripes, Widen, renumbered, reshape


@dataclass(frozen=True, slots=True)
class Deviation:
    """What was done otherwise in one round. key: the same as long as the same was done there. says: the pattern's count;
    did: the maker's, None where it is not one of counts. pieces: of which pieces it was told. events: ids that tell it."""

    key: str
    part: str
    round: int
    label: str
    what: Otherwise
    says: int
    did: int | None
    many: int
    colour: str
    text: str
    pieces: tuple[int, ...]
    events: tuple[str, ...]

    @property
    def told(self) -> str:
        """In one sentence."""
        match self.what:
            case Otherwise.COUNT:
                return f"{self.label} came to {self.did} and not to {self.says} stitches."
            case Otherwise.MORE:
                return f"After {self.label} {self.many} more round{'s were' if self.many > 1 else ' was'} worked."
            case Otherwise.LEFT_OUT:
                return f"{self.label} was left out."
            case Otherwise.COLOUR:
                return f"{self.label} was worked in {self.colour}."
            case Otherwise.OTHER:
                return f"{self.label}: {self.text}"


def deviations(sheet: Worksheet, progress: Progress) -> tuple[Deviation, ...]:
    """All of a making in the order of its worksheet; the same done in several pieces is one. Of two counts told of one round of
    a piece the later holds."""
    latest: dict[tuple[str, int, int, Otherwise, str], Told] = {}
    for told in progress.otherwise:
        what = told.event.what
        assert isinstance(what, DidOtherwise)
        latest[what.part, what.piece, what.round, what.what, what.text if what.what is Otherwise.OTHER else ""] = told
    same: dict[tuple[str, int, Otherwise, int, str, str], list[Told]] = {}
    for told in latest.values():
        what = told.event.what
        assert isinstance(what, DidOtherwise)
        same.setdefault((what.part, what.round, what.what, what.many, what.colour, what.text), []).append(told)
    order = {p.key: i for i, p in enumerate(sheet.parts)}
    found = [d for group in same.values() if (d := _deviation(sheet, group)) is not None]
    return tuple(sorted(found, key=lambda d: (order.get(d.part, len(order)), d.round, d.key)))


def _deviation(sheet: Worksheet, group: Sequence[Told]) -> Deviation | None:
    what = group[0].event.what
    assert isinstance(what, DidOtherwise)
    rung = sheet.rung(what.part, what.round)
    if rung is None:
        return None
    counted = what.what is Otherwise.COUNT
    if counted and what.many == rung.count:
        return None
    pieces = sorted({t.event.what.piece for t in group if isinstance(t.event.what, DidOtherwise)})
    key = "-".join((what.part, str(what.round), what.what.value, str(what.many), *_short(what.colour, what.text)))
    return Deviation(
        key=key[:120],
        part=what.part,
        round=what.round,
        label=rung.label,
        what=what.what,
        says=rung.count,
        did=what.many if counted else None,
        many=what.many,
        colour=what.colour,
        text=what.text,
        pieces=tuple(pieces),
        events=tuple(sorted(t.event.id for t in group)),
    )


def _short(*words: str) -> Iterator[str]:
    for word in words:
        if plain := re.sub(r"[^a-z0-9]+", "-", word.lower()).strip("-"):
            yield plain


def counts_done(sheet: Worksheet, part: str, found: Iterable[Deviation]) -> tuple[int, ...]:
    """The ladder of what was done: the part's counts with every deviation of counts and of rounds in it."""
    told = [d for d in found if d.part == part]
    by_round: dict[int, list[Deviation]] = {}
    for one in told:
        by_round.setdefault(one.round, []).append(one)
    counts: list[int] = []
    own = sheet.part(part)
    for at, rung in enumerate(own.rungs if own else (), 1):
        here = by_round.get(at, [])
        if any(d.what is Otherwise.LEFT_OUT for d in here):
            continue
        count = next((d.did for d in here if d.did is not None), rung.count)
        more = sum(d.many for d in here if d.what is Otherwise.MORE)
        counts += [count] * (1 + more)
    return tuple(counts)


def as_text(text: str, terms: Terms, deviation: Deviation, rung: Rung, main: str = MAIN_COLOUR) -> str:
    """The part's text with what was done in it. rung: the round as the maker's edition says it. main: the part's colour.

    CraftError says why it cannot be: the round is another one by now, or what was done cannot be written as rounds.
    """
    match deviation.what:
        case Otherwise.COUNT:
            text, line = _alone(text, terms, deviation, rung)
            return reshape(text, terms, Widen(line, deviation.many))
        case Otherwise.MORE:
            text, line = _alone(text, terms, deviation, rung)
            return reshape(text, terms, Insert(line, deviation.many))
        case Otherwise.LEFT_OUT:
            return _left_out(text, terms, deviation, rung)
        case Otherwise.COLOUR:
            _alone(text, terms, deviation, rung)
            return reshape(text, terms, Stripes(deviation.round, deviation.round, (deviation.colour, main), 1, main))
        case Otherwise.OTHER:
            return _remarked(text, terms, deviation, rung)


def _written(text: str, terms: Terms, deviation: Deviation, rung: Rung) -> tuple[Round, int]:
    """The written round that a worked one belongs to, and the worked one's number."""
    checked = check(text, terms)
    part = next(((p, w) for p, w in zip(checked.reading.pattern.parts, checked.parts, strict=True) if w.rounds), None)
    if part is None or deviation.round > len(part[1].rounds):
        raise CraftError(f"{deviation.label} is no longer there: the rounds were changed since.")
    tally = part[1].rounds[deviation.round - 1]
    if tally.live != rung.count or tally.label != rung.label:
        raise CraftError(
            f"{deviation.label} is another one by now ({tally.label}, {tally.live} stitches): the rounds were changed since."
        )
    made = part[0].rounds[tally.source]
    return made, tally.number or made.first or 0


def _alone(text: str, terms: Terms, deviation: Deviation, rung: Rung) -> tuple[str, int]:
    """The text with the round on a line of its own, taken out of a fold of equal ones, and which line that is, from 1."""
    made, number = _written(text, terms, deviation, rung)
    if made.repeats > 1 and made.first is not None and made.last is not None:
        start = text.rfind("\n", 0, made.span.start) + 1
        end = text.find("\n", made.span.start)
        end = len(text) if end < 0 else end
        runs = [(made.first, number - 1), (number, number), (number + 1, made.last)]
        lines = [_labelled(text[start:end], made, a, b) for a, b in runs if a <= b]
        text = text[:start] + "\n".join(lines) + text[end:]
        made, _ = _written(text, terms, deviation, rung)
    return text, text.count("\n", 0, made.span.start) + 1


def _labelled(line: str, made: Round, first: int, last: int) -> str:
    """A line of a fold with other numbers in its label; all else as she wrote it."""
    head, body = line[: made.body_span.start - made.span.start], line[made.body_span.start - made.span.start :]
    whole = re.compile(rf"\b(\D*){made.first}(\s*(?:-|–|—|to|through|bis|à|a)\s*\D{{0,2}}){made.last}\b")
    found = whole.search(head)
    if found is None:
        raise CraftError("The label of these rounds cannot be taken apart: write them out first.")
    said = f"{found[1]}{first}" if first == last else f"{found[1]}{first}{found[2]}{last}"
    return _times(head[: found.start()] + said + head[found.end() :], body, made, last - first + 1)


def _times(head: str, body: str, made: Round, many: int) -> str:
    """Without '(6 rounds)' where it no longer holds."""
    said = re.compile(rf"\s*\(\s*{made.repeats}\s+(round|row)s?\s*\)")
    return head + said.sub("" if many == 1 else rf" ({many} \1s)", body)


def _left_out(text: str, terms: Terms, deviation: Deviation, rung: Rung) -> str:
    made, _ = _written(text, terms, deviation, rung)
    below = _count_below(text, terms, deviation)
    if below != rung.count:
        raise CraftError(
            f"{deviation.label} goes from {below} to {rung.count} stitches: what follows would no longer fit, so change it by hand."
        )
    text, line = _alone(text, terms, deviation, rung)
    lines = text.split("\n")
    del lines[line - 1]
    return renumbered("\n".join(lines), terms) if made.way is not Way.LINE else "\n".join(lines)


def _count_below(text: str, terms: Terms, deviation: Deviation) -> int:
    worked = next(w for w in check(text, terms).parts if w.rounds)
    return worked.rounds[deviation.round - 2].live if deviation.round > 1 else 0


def _remarked(text: str, terms: Terms, deviation: Deviation, rung: Rung) -> str:
    """Her words as a note behind the round."""
    text, line = _alone(text, terms, deviation, rung)
    lines = text.split("\n")
    lines.insert(line, f"Note: {' '.join(deviation.text.split())}")
    return "\n".join(lines)


@dataclass(frozen=True, slots=True)
class AsMade:
    """A part's text as it was made. left: what of it could not be written as rounds, in sentences."""

    text: str
    left: tuple[str, ...]


def as_made(text: str, terms: Terms, sheet: Worksheet, found: Sequence[Deviation], main: str = MAIN_COLOUR) -> AsMade:
    """The text of one part of an edition with everything in it that was done otherwise in it. found: its deviations. main: its
    colour. The last round first, so that no change moves another's round."""
    left = []
    for one in sorted(found, key=lambda d: d.round, reverse=True):
        rung = sheet.rung(one.part, one.round)
        if one.what is Otherwise.OTHER or rung is None:
            continue
        try:
            text = as_text(text, terms, one, rung, main)
        except CraftError as error:
            left.append(f"{one.told} {error.message}")
    return AsMade(text, tuple(left))
