"""What a round of a text says: all that its words may mean, and the one reading that its evidence supports."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import replace

from craft.rounds.arithmetic import round_sum
from craft.rounds.fabric import run_pattern
from craft.rounds.pattern import Chain, Turn
from craft.rounds.stitches import Terms
from craft.text.freehand.clauses import is_direction, without_remarks
from craft.text.freehand.counted_places import with_stitches
from craft.text.freehand.counts import Tail, sentences, tails
from craft.text.freehand.evidence import Below, Chosen, choose, even
from craft.text.freehand.inferred import inferred
from craft.text.freehand.labels import NTHS, Label, label_at
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.named_pieces import NamedPieces
from craft.text.freehand.phrases import Said, said
from craft.text.notation import print_body, read
from craft.text.notation.bodies import read_body

MOST_LIVE = 100_000
"""More stitches than any row works: what it makes is counted alone."""

_LEFT = re.compile(
    r"(?i)[,;.]?\s*\b(?:and\s+)?leav(?:e|ing)\s+(?:the\s+)?(?:(?:rest|remaining|other|last)\s*)?(?:\d{1,3}\s*)?(?:sts?|stitches)?\s*"
    r"(?:left\s+)?unworked"
)
"""'leave the 8 sts left unworked': what a short row does not reach."""

_BRACKET_BEHIND = re.compile(
    r"(?:\((?P<said>[^()\d]+)\)|(?<=\s)(?P<sign>[*~])\s+(?P<told>[^*~()\d]+?)\s+(?P=sign))[\s.]*$"
)

_TELLS_WORK = {
    Sort.STITCH, Sort.BACK, Sort.FRONT, Sort.RING, Sort.CHAIN, Sort.TURN, Sort.SKIP, Sort.LEAVE, Sort.REPEAT, Sort.EVENLY,
    Sort.DOUBLE, Sort.TOGETHER, Sort.PIECE, Sort.PAIRS, Sort.FREE, Sort.FREE_BACK, Sort.BOTH,
}  # fmt: skip
"""Words of a bracket that is no remark."""

_HYPHENED = re.compile(r"(?i)\b(\d?\s?[sd]c)-(inc|dec)\b")
"""'sc-inc': an increase in single crochet, or a stitch and an increase, as the count tells."""

_EACH_LOOP = re.compile(
    r"(?i)\b(each|every|jede|jeden|chaque|cada|ogni|elke|iedere)\s+(?:of\s+the\s+)?(?:free\s+)?(?:front\s+|back\s+)?"
    r"(?:loops?|schlaufe|glied|maschenglied|brin|hebra|asola|lus)\b"
)
"""'sc in each front loop', where a round is worked into loops."""

_MAKES_CHAIN = re.compile(r"(?i)\bch \d")

_SETTLED = re.compile(r"\((?:\d+ )?sc, (?:1 )?(?:inc|dec)\) x \d+")
"""'(2 sc, inc) x 6', every word of it understood: another count than it makes is a slip, and no reason to guess."""

_PAIRED = re.compile(rf"(?i)(?:\d|\b(?:{NTHS}))\s*\.?\s*(?:und|u\.?|\+|and|&|et|y|e|en)\s*(?:\d|(?:{NTHS})\b)")

_EVERY_PAIR = re.compile(r"\((?:\d+ sc, )?dec\) around")
"""'jede 4. und 5. M zusammen abmaschen (25)' on 30: four and five tell which two, and never how many of how many."""

_EVENED = re.compile(r"(?i)(inc|increase|dec|decrease|\+|-)(?:(?:\s+evenly)?\s+to|\s*(?P<by>\d{1,2}))")
"""'Inc to 24.', 'Increase 6 (18)' or '+6 (18)' on 12: by so many, wherever they are."""

_DOUBLED = re.compile(r"(?i)x\s?2|doubled?")
"""'x2 (12)' on 6."""


def _is_settled(work: str, ways: list[Said]) -> bool:
    """Whether words with a bracket of their own are understood to the last: no count makes them mean something else."""
    bracketed = any(sign in work for sign in "([*")
    if bracketed and any(not way.noise and _SETTLED.fullmatch(way.work) for way in ways):
        return True
    paired = _PAIRED.search(work) is not None
    return paired and any(not way.noise and _EVERY_PAIR.fullmatch(way.work) for way in ways)


class Choosing(NamedPieces):
    """Chooses the reading of a round by what stands behind it and before it."""

    def candidates(self, work: str) -> list[Said]:
        """What the words of a round may say: as the notation reads them, then as people write."""
        if self.part.lead:
            work = _EACH_LOOP.sub(r"\1 st", work)  # the loops are those that the round is worked into
        vocabulary = self.vocabulary()
        found: list[Said] = []
        if self.language == "en" and "*" not in work:
            body = read_body(work, self.terms, self.names)
            if not body.problems and body.plain is not None and body.instructions:
                whole = {"front": "FLO: ", "back": "BLO: "}.get(body.loops.value, "")
                found.append(self._on_own_edge(Said(whole + print_body(body.plain, Terms.US))))
            elif not body.problems and body.instructions and self.terms is Terms.US:
                found.append(Said(work))
        found_tokens = tokens(work, vocabulary)
        ways = [*said(found_tokens, work), *said(with_stitches(found_tokens), work)]
        apart = _HYPHENED.sub(r"\1, \2", work)
        for way in (*ways, *(said(tokens(apart, vocabulary), apart) if apart != work else ())):
            if (own := self._on_own_edge(self._called(way))) not in found:
                found.append(own)
        return [*found, *self._bridged(found)]

    def _bridged(self, found: list[Said]) -> list[Said]:
        """The same with the chain that was told above the round: 'Do not cut the yarn. Ch 3.' before 'sc 3 along the ch'."""
        if not self.part.bridge:
            return []
        along = [way for way in found if "the chain" in way.work and not _MAKES_CHAIN.search(way.work)]
        return [replace(way, work=f"ch {self.part.bridge}, {way.work}") for way in along]

    def below(self, label: Label | None = None) -> Below:
        opening = not self.part.rounds and (label is None or label.first in (1, None))
        part = self.part
        return Below(part.live, part.chained, self.trial, self.names, part.lead, opening=opening, ringed=part.ringed)

    def trial(self, work: str, count: int | None) -> int | None:
        """Stitches after a round that is worked behind everything so far; None when it does not work out."""
        number = self.part.last + 1
        bracket = f" [{count}]" if count is not None else ""
        sofar = "".join(f"{line.text}\n" for line in self.out) + f"R{number}: {work}{bracket}\n"
        reading = read(sofar, Terms.US)
        parts, problems = run_pattern(reading.pattern, (), "Main")
        at = sofar.rstrip("\n").rfind("\n") + 1
        wrong = [p for p in (*problems, *reading.problems) if p.severity.value == "fault" and p.place.span.end > at]
        rounds = parts[-1].rounds if parts else ()
        if wrong or not rounds:
            return None
        return rounds[-1].live if count is None or rounds[-1].live == count else None

    def chosen(self, rest: str, label: Label) -> tuple[Chosen | None, Tail, list[Said]]:
        """The reading of a round's words that its evidence supports, with how they were cut up."""
        spare: tuple[Chosen, Tail, list[Said]] | None = None
        below = self.below(label)
        pieces = sentences(rest)
        cuts: Iterable[Tail] = tails(rest, self.language)
        if len(pieces) > 1:
            cuts = [
                *cuts,
                *(
                    replace(t, remark=f"{t.remark} {_prose(pieces[1:])}".strip())
                    for t in tails(pieces[0], self.language)
                ),
            ]
        if (aside := self._aside_behind(rest)) is not None:
            cuts = [*cuts, *(replace(t, remark=aside[1]) for t in tails(aside[0], self.language))]
        for tail in _evident(list(cuts), label):
            count = tail.count if tail.count is not None else label.count
            ways = self.candidates(tail.work) if tail.work else []
            if any(w.again for w in ways) and not any(w.evenly or w.work for w in ways):
                # 'same, 24' behind a round that was shaped, on as many stitches: as many, and no more.
                ways = [*self.part.candidates, *([Said("sc around")] if count == self.part.live else [])]
            if (short := self._short_row(tail.work, ways, count)) is not None:
                return short, replace(tail, count=short.live), ways
            found = self._as_written(tail.work, count) or self._free(tail.work, count) or choose(ways, below, count)
            if (found is None or not found.fits) and count is not None and self._is_evened(tail.work, count):
                found = even(below, count)
            if found is not None and found.fits and (tail.sure or count is not None):
                kept = self._by_clause([tail], label) if found.passes_over and "ring" not in found.work else None
                return kept or (found, replace(tail, count=count), ways)
            if found is not None and spare is None:
                spare = found, replace(tail, count=count), ways
        if spare is None or not spare[0].fits:
            for tail in self._by_sentence(pieces):
                ways = self.candidates(tail.work)
                found = choose(ways, below, tail.count)
                if found is not None and found.fits:
                    return found, tail, ways
            if (by_clause := self._by_clause(tails(rest, self.language), label)) is not None:
                return by_clause
            if (
                not (spare and _is_settled(spare[1].work, spare[2]))
                and (by_numbers := self._inferred(tails(rest, self.language), label)) is not None
            ):
                return by_numbers
        return spare if spare is not None else (None, Tail(rest), [])

    def _aside_behind(self, rest: str) -> tuple[str, str] | None:
        """'6 x (2 pb, dism); 18 p (rellenar bien)': the round and a bracket behind it that tells no work."""
        found = _BRACKET_BEHIND.search(rest)
        said = (found["said"] or found["told"]) if found is not None else ""
        sorts = {t.sort for t in tokens(said, self.vocabulary())}
        if found is None or Sort.NOISE not in sorts or sorts & _TELLS_WORK:
            return None
        return rest[: found.start()].rstrip(), said.strip()

    def _is_evened(self, work: str, count: int) -> bool:
        """Whether words leave it to the count what is worked: none, or a change that the count bears out."""
        return self.is_change(work, count) or self._says_nothing(work)

    def is_change(self, work: str, count: int) -> bool:
        """Whether words say nothing but how much a round grows, and it does: 'increase to', '+6', 'x2'."""
        live = self.part.live or count
        if (to := _EVENED.fullmatch(work)) is None:
            return _DOUBLED.fullmatch(work) is not None and count == 2 * live
        more = count - live if to[1].lower()[0] in "i+" else live - count
        return more == int(to["by"]) if to["by"] else more > 0

    def _says_nothing(self, work: str) -> bool:
        """Whether words carry nothing at all, so that only the count is said: '', 'straight'."""
        return all(t.sort in (Sort.QUIET, Sort.STOP, Sort.COMMA) for t in tokens(work, self.vocabulary()))

    def _by_clause(self, cuts: list[Tail], label: Label) -> tuple[Chosen, Tail, list[Said]] | None:
        """A round that works out without its clauses that are no work; they are remarks. A count must be said, or they
        must be directions."""
        for tail in cuts:
            parted = without_remarks(tail.work, lambda words: tokens(words, self.vocabulary()))
            count = tail.count if tail.count is not None else label.count
            if parted is None or not ((tail.sure and count is not None) or all(map(is_direction, parted[1]))):
                continue
            ways = self.candidates(parted[0])
            found = choose(ways, self.below(label), count)
            if found is not None and found.fits:
                why = f"'{', '.join(parted[1])}' carries no stitches"
                remark = ". ".join(r for r in (*parted[1], tail.remark) if r)
                return replace(found, why=why), replace(tail, count=count, remark=remark), ways
        return None

    def _inferred(self, cuts: list[Tail], label: Label) -> tuple[Chosen, Tail, list[Said]] | None:
        """A round whose count and numbers tell what its words do not."""
        if self.part.chained or self.part.lead or self.part.flat:
            return None
        for tail in cuts:
            count = tail.count if tail.count is not None else label.count
            if not tail.sure or count is None or not tail.work:
                continue
            if (found := inferred(tokens(tail.work, self.vocabulary()), self.part.live, count)) is not None:
                return found, replace(tail, count=count), []
        return None

    def _by_sentence(self, pieces: list[str]) -> list[Tail]:
        """The work in one sentence, the count in another: 'In round 5 comes the thumb. Work 5 sc, … There are still 12.'"""
        count = next((t.count for p in reversed(pieces) for t in tails(p, self.language) if t.sure and t.count), None)
        if count is None:
            return []
        return [Tail(piece, count, remark=_prose([p for p in pieces if p is not piece])) for piece in pieces]

    def _short_row(self, work: str, ways: list[Said], count: int | None) -> Chosen | None:
        """A row that turns before the round's end, whose bracket counts the stitches worked and not those that are
        live: what is not reached stays live, as the rows above it tell by working all again."""
        live = self.part.live
        turns = re.search(r"(?i)\bturn\b", work) is not None or _LEFT.search(work) is not None
        if not turns or not live or count is None or count >= live or not self._all_again(live):
            return None
        for way in ways:
            form = way.work if "leave" in way.work or self.part.short else f"{way.work}, leave the rest"
            if self._worked(way.work) == count and self.trial(form, live) == live:
                self.part.short = True
                why = f"the bracket counts the {count} stitches worked; all {live} stay live"
                return Chosen(form, fits=True, live=live, why=why)
        return None

    def _worked(self, work: str) -> int | None:
        """How many stitches a row makes by itself, None when that cannot be told."""
        body = read_body(work, Terms.US, self.names)
        if body.problems or body.plain is None:
            return None
        plain_work = tuple(i for i in body.plain if not isinstance(i, Turn | Chain))
        return round_sum(plain_work, MOST_LIVE).total.gives

    def _all_again(self, live: int) -> bool:
        """Whether a row further on counts as many stitches as there were before the short rows."""
        for row in self.rows[self.at + 1 : self.at + 40]:
            label = label_at(row.text)
            if label is None:
                continue
            if label.first == 1:
                return False
            counts = [t.count for t in tails(row.text[label.end :], self.language) if t.count is not None and t.sure]
            if live in counts:
                return True
        return False

    def _as_written(self, work: str, count: int | None) -> Chosen | None:
        """A round of a skirt that the notation reads as it stands: 'in the free front loops of R3, (3 sc, inc) x 8'."""
        if self.language != "en" or "free" not in work.lower() or self.part.rounds or self.part.lead:
            return None
        body = read_body(work, self.terms, self.names)
        if body.problems or body.plain is None or not body.instructions:
            return None
        said_work = print_body(body.plain, Terms.US)
        live = self.trial(said_work, count)
        return None if live is None else Chosen(said_work, fits=True, live=live)

    def _free(self, work: str, count: int | None) -> Chosen | None:
        """'dc in the free front loop of each of the 30 sts': the round begins a skirt."""
        found = re.search(r"(?i)free\s+(front|back)?\s*loops?\b", work)
        if not found or count is None or self.part.rounds:
            return None
        side = f"{found.group(1).lower()} " if found.group(1) else ""
        lead = self.part.lead or f"in the free {side}loops, "
        return Chosen(f"{lead}{count} sc", fits=True, live=count, why="worked into the free loops")


def _prose(said: Sequence[str]) -> str:
    """Sentences one behind the other, each with its stop once."""
    return " ".join(one if one.endswith((".", "!", "?", ":")) else f"{one}." for one in said if one)


def _evident(cuts: list[Tail], label: Label) -> list[Tail]:
    """The ways of cutting that no evidence is lost by: a count that is surely said stays said."""
    if label.count is not None:
        return [t for t in cuts if t.count is None or (t.sure and t.count == label.count)]
    sure = [t for t in cuts if t.count is not None and t.sure]
    return sure or cuts
