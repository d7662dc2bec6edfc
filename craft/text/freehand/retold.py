"""Rounds that are told by naming others, or by their counts alone."""

from __future__ import annotations

import re
from dataclasses import replace

from craft.problems import Place, Problem
from craft.rounds.numbers import CARDINALS
from craft.text.freehand.by_counts import follows, is_count_alone, plain_alone
from craft.text.freehand.carried_on import carried_on, plain_rounds_in, rounds_of_count, tells_shaping
from craft.text.freehand.corrections import Taken
from craft.text.freehand.counts import Tail, tails
from craft.text.freehand.evidence import Chosen, even
from craft.text.freehand.headings import heading_of
from craft.text.freehand.labels import Label, label_at
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.parts import Parts
from craft.text.freehand.references import Reference, is_the_same, part_called, reference_in
from craft.text.freehand.rounds import MOST_REPEATED
from craft.text.freehand.row import Row
from craft.text.freehand.so_far import Line, PartSoFar, Worked
from craft.text.freehand.stripes import stripes_in

_UP_TO = re.compile(
    rf"(?i)\b(?:keep|go|continue|work|crochet|carry)\b[^.;]*\b(?:until|till)\b[^.;]*?\b(?P<n>\d{{1,3}}|{'|'.join(CARDINALS)})\s+(?:rounds|rnds|rows)\b"
)
"""'Just keep going on those 6 stitches until you have 10 rounds in total.'"""

_PLAIN_MANY = re.compile(
    rf"(?i)\W*(?:(?:then|now|next|finally|work|crochet|do|and)\s+)*(?P<n>a|an|another|\d{{1,3}}|{'|'.join(CARDINALS)})\s+"
    r"(?:(?:more|further)\s+)?(?:plain|even|straight)\s+(?:rounds?|rnds?|rows?)\W*"
)
_AROUND_TIMES = re.compile(
    r"(?i)(?P<n>\d{1,3})\s+(?:all\s+)?around(?:\s*,?\s*(?:x\s*(?P<many>\d{1,2})|(?P<more>\d{1,2})\s*(?:x|times|rounds|rnds)))?\W*"
)
"""'30 around x2'."""
_COUNT_TIMES = re.compile(r"(?P<n>\d{1,3})\s*x\s*(?P<many>\d{1,2})\s*[(\[]\s*(?P=n)\s*[)\]]\W*")
"""'24 x 3 (24)': so many rounds of a count that is said again behind."""
_SHAPING = (Sort.DOUBLE, Sort.TOGETHER, Sort.TURN, Sort.CHAIN, Sort.REPEAT, Sort.SKIP, Sort.LEAVE)
"""What a sentence of plain rounds does not speak of."""


_SHAPED_FIRST = re.compile(r"\((?:inc|dec), ")
_EVENLY = re.compile(r"\((?P<plain>\d+ )?sc, (?P<shaped>inc|dec)\) x (?P<times>\d+)")


def _led_by_shaping(work: str) -> str:
    """'(3 sc, inc) x 6' as '(inc, 3 sc) x 6'."""
    found = _EVENLY.fullmatch(work)
    return f"({found['shaped']}, {found['plain'] or ''}sc) x {found['times']}" if found is not None else work


AS_PLAIN = "it is told as a plain round"
"""Why a round is read as one without shaping."""
AS_ELSEWHERE = "as it is written elsewhere"
"""Why a round is read as one that its text names."""


class Retold(Parts):
    """Writes rounds out that stand elsewhere, or of which only the count is said."""

    def _can_follow(self, reference: Reference) -> bool:
        return bool(reference.part and self._source(reference)) or (not reference.part and bool(self.part.rounds))

    def _source(self, reference: Reference) -> PartSoFar | None:
        if not reference.part:
            return self.part
        others = [p for p in self.parts if p.rounds and p is not self.part] or [p for p in self.parts if p.rounds]
        name = part_called(reference.part, [p.name for p in others])
        return next((p for p in others if p.name == name), None) if name is not None else None

    def follow(self, row: Row, reference: Reference, numbers: tuple[int, int] | None, rest: str = "") -> bool:
        """Write out rounds that are said by naming others; False when they are not to be found."""
        source = self._source(reference)
        if source is None or not source.rounds:
            return False
        if numbers is not None and reference.part and (reference.first, reference.last) == (None, None):
            reference = replace(reference, first=numbers[0], last=numbers[1])  # 'Rnds 1-6: work as for the top'
        picked = reference.picked([(w.number, w.work, w.count) for w in source.rounds])
        if picked is None:
            # A round that does not exist is told by the notation's reader, at this place.
            self.flush()
            number = numbers[0] if numbers else self.part.last + 1
            self.out.append(Line(f"R{number}: repeat R{reference.last}", row.span))
            return True
        many = reference.times
        if numbers is not None and reference.times == 0:
            many = 1
        named = (reference.first, reference.last, reference.latest, reference.times)
        said = [t for t in tails(rest, self.language) if t.count is not None and (t.sure or t.count not in named)]
        final = said[0].count if said else None
        self.flush()
        at = numbers[0] if numbers else self.part.last + 1
        wanted = numbers[1] - numbers[0] + 1 if numbers else None
        if wanted is not None and reference.times == 0 and not reference.behind and wanted % len(picked) == 0:
            many = wanted // len(picked)
        work = picked * max(many, 1)
        own = source is self.part
        for k, (_, said_work, count) in enumerate(work[:MOST_REPEATED]):
            grown = own and any("inc" in w or "dec" in w for _, w, _ in picked)
            last_one = k + 1 == len(work)
            moved = own and count != self.part.live
            known = self.part.live if reference.even else None if grown or moved else count
            shown = final if last_one and final is not None and not reference.behind else known
            why = AS_PLAIN if reference.even else AS_ELSEWHERE
            self._copy(row, at + k, said_work, shown, why)
        if reference.behind:
            self.labelled_rest(row, at + len(work), reference.behind)
            work = [*work, work[-1]]
        if wanted is not None and wanted != len(work):
            self.out[-1] = replace(self.out[-1], text=f"{self.out[-1].text} ({wanted} rounds)")
        return True

    def labelled_rest(self, row: Row, number: int, rest: str) -> None:
        self.round(row, Label(number, number, 0, 0), number, number, rest)

    def _copy(self, row: Row, number: int, work: str, count: int | None, why: str = AS_ELSEWHERE) -> None:
        live = self.trial(work, count) if count is None else count
        chosen = Chosen(work, fits=True, live=live, why=why)
        self.write(row, number, number, chosen, Tail(work, count), fold=None)

    def carry_on(self, row: Row, text: str, numbers: tuple[int, int] | None = None) -> bool:
        """Write out the rounds of a sentence that carries the shaping on; whether it is one, and tells them all."""
        if not self.part.rounds or not self.part.live:
            return False
        many = numbers[1] - numbers[0] + 1 if numbers is not None else None
        carried = carried_on(text, self.vocabulary(), many)
        counts = carried.counts(self.part.live, self.part.changes) if carried is not None else None
        tells = carried is not None or tells_shaping(text, self.vocabulary())
        if counts is None and tells and numbers is None and not self.chosen_fits(text):
            self.flush()
            self.unread(row, self.part.last + 1, self.part.last + 1, text)
            return True
        if counts is None:
            return False
        self.flush()
        number = numbers[0] if numbers is not None else self.part.last + 1
        way = self.part.rounds[-1].work
        for k, count in enumerate(counts):
            chosen = even(self.below(), count) or Chosen("sc around", fits=False, live=count)
            work = _led_by_shaping(chosen.work) if _SHAPED_FIRST.match(way) else chosen.work
            chosen = replace(chosen, work=work, why="the shaping goes on as in the rounds before")
            self.write(row, number + k, number + k, chosen, Tail("", count), fold=None)
        return True

    def striped(self, row: Row, text: str, numbers: tuple[int, int] | None = None) -> bool:
        """Write out plain rounds that only their colours are told of; whether the text is that. More or fewer of them than
        the label's numbers is told by the notation's reader."""
        stripes = stripes_in(text, self.vocabulary()) if self.part.rounds and self.part.live else None
        if stripes is None or self.part.flat:
            return False
        self.flush()
        first = at = numbers[0] if numbers is not None else self.part.last + 1
        for many, colour in stripes.each:
            plain = Chosen(f"with {colour}, sc around", fits=True, live=self.part.live, why=AS_PLAIN)
            self.write(row, at, at + many - 1, plain, Tail("", stripes.count), fold=None)
            at += many
        if numbers is not None and at != numbers[1] + 1:
            place = Place(self.part.name or None, f"R{first}", 1, 1, row.span)
            labelled = numbers[1] - first + 1
            self.told.append(
                Problem(
                    "fold", place, f"R{first}-R{numbers[1]} are {labelled} rounds, and its stripes are {at - first}."
                )
            )
        return True

    def plain_rounds(self, text: str) -> int:
        """How many plain rounds a sentence tells, 'Then one plain round.', '… until you have 10 rounds in all'; 0 for none."""
        if not self.part.rounds:
            return 0
        if self.part.bare and (plain := plain_alone(text, self.vocabulary())):
            return plain
        if (found := _PLAIN_MANY.fullmatch(text)) is not None:
            said = found["n"].lower()
            return CARDINALS.get(said) or (int(said) if said.isdigit() else 1)
        counted = rounds_of_count(text, self.vocabulary(), self.part.live) if self.part.live else 0
        if many := plain_rounds_in(text, self.vocabulary()) or self.all_around(text) or counted:
            return many
        up_to = _UP_TO.search(text)
        if up_to is None or re.search(r"(?i)\bmore\b", text):
            return 0
        words = tokens(text, self.vocabulary())
        if any(t.sort in _SHAPING or (t.sort is Sort.STITCH and t.value != "sc") for t in words):
            return 0
        last = CARDINALS.get(up_to["n"].lower()) or int(up_to["n"])
        return max(last - self.part.last, 0)

    def all_around(self, text: str) -> int:
        """'30 around x2' or '30 x 2 (30)' on 30 stitches: so many plain rounds; 0 for anything else."""
        if (counted := _COUNT_TIMES.fullmatch(text.strip(" -"))) and int(counted["n"]) == self.part.live:
            return int(counted["many"])
        found = _AROUND_TIMES.fullmatch(text.strip())
        if found is None or int(found["n"]) != self.part.live:
            return 0
        return int(found["many"] or found["more"] or 1)

    def _same_again(self, row: Row, text: str) -> bool:
        """'Leg two: the same, but do not cut the yarn.': the part before once more, under another name."""
        name, colon, rest = text.partition(":")
        if not colon:
            name, _, rest = text.partition(" - ")
        heading = heading_of(name)
        rounds = self.part.rounds if is_the_same(rest) else self._rounds_of_part_in(rest)
        if heading is None or not rounds:
            return False
        self.flush()
        self.begin_called(heading, row.span)
        for worked in rounds:
            self._copy(row, worked.number, worked.work, worked.count)
        self.prose(replace(row, text=rest.strip()))
        return True

    def _rounds_of_part_in(self, text: str) -> list[Worked]:
        """The rounds of the part of which 'same as leg one, but …' or 'as the cap to round 6' says that it is worked
        once more, all of it or up to that round; none where it names no part or round."""
        reference = reference_in(text, self.language)
        if reference is None or not reference.part or reference.first is not None:
            return []
        worked = [p for p in self.parts if p.rounds]
        name = part_called(reference.part, [p.name for p in worked])
        rounds = next((p.rounds for p in worked if p.name == name), []) if name is not None else []
        last = rounds[-1].number if rounds and reference.last is None else reference.last
        return (
            [r for r in rounds if last is not None and r.number <= last] if last in {r.number for r in rounds} else []
        )

    def counted(self, row: Row, item: str) -> None:
        """A round of which only the count is said, '12' or '12 x3'; anything else is a direction."""
        found = re.fullmatch(r"(\d{1,4})(?:\s*x\s*(\d{1,3}))?", item)
        if found is None:
            self.waiting.append(replace(row, text=item))
            return
        self.flush()
        count, many = int(found.group(1)), int(found.group(2) or 1)
        chosen = even(self.below(), count)
        number = self.part.last + 1
        if chosen is None:
            chosen = Chosen("sc around", fits=False, live=count)
        self.write(row, number, number, chosen, Tail("", count), fold=None)
        if many > 1:
            plain = Chosen("sc around", fits=True, live=count)
            self.write(row, number + 1, number + many - 1, plain, Tail("", count), fold=None)

    def counted_alone(self, row: Row, item: str) -> bool:
        """'18' or '18 x3', where there are not as many already: a round of which only the count is said, or a slip; whether
        it is one."""
        if not self.part.live or not is_count_alone(item) or self.as_many(item) is not None:
            return False
        fits = follows(self.part.live, int(re.findall(r"\d+", item)[0]))
        (self.counted if fits else self.miscounted)(row, item)
        return True

    def miscounted(self, row: Row, item: str) -> None:
        """A round of which only a count is said that no round here can have: as many as before, and its count a fault."""
        self.flush()
        number = self.part.last + 1
        plainly = Chosen("sc around", fits=False, live=self.part.live)
        self.write(row, number, number, plainly, Tail("", int(item.split("x", maxsplit=1)[0].strip(" ."))), fold=None)

    def slashes(self, row: Row, name: str, items: list[str]) -> None:
        label = label_at(items[0])
        if label is not None:
            items = [items[0][label.end :].strip(), *items[1:]]
        if name:
            self.waiting.append(replace(row, text=name))
            self.begin(row)
        before = self.part.last
        for item in items:
            self.counted(row, item)
        if label is not None and label.first is not None and label.last is not None:
            self._check_range(row, label.first, label.last, before)

    def _check_range(self, row: Row, first: int, last: int, before: int) -> None:
        """A list of counts has as many rounds as its label says; another number is told by the notation's reader."""
        made = self.part.last - before
        if made != last - first + 1:
            self.out[-1] = replace(self.out[-1], text=f"{self.out[-1].text} ({last - first + 1 - made + 1} rounds)")

    def counted_again(self, row: Row, number: int, count: int) -> bool:
        """A row of a table of counts, whose round was told already; whether it was. One that says otherwise is told."""
        known = [w.count for w in self.part.rounds if w.number == number]
        if not known:
            return False
        if known[-1] is not None and known[-1] != count:
            place = Place(self.part.name or None, f"R{number}", 1, 1, row.span)
            self.told.append(
                Problem("count-table", place, f"The table of counts says {count} for R{number}, its round {known[-1]}.")
            )
        self.waiting.append(replace(row, taken=Taken.NOTE))
        return True

    def counted_first(self, row: Row, numbers: tuple[int, int], count: int, change: int) -> None:
        """A row of a table that tells rounds by their count and how much they grew, and by nothing else."""
        first, last = numbers
        if first == 1 or not self.parts:
            self.begin(row)
        self.flush()
        below = self.part.live
        chosen = even(self.below(), count) or Chosen("sc around", fits=False, live=count)
        self.write(row, first, first, chosen, Tail("", count), fold=None)
        if last > first:
            self.write(row, first + 1, last, Chosen("sc around", fits=True, live=count), Tail("", count), fold=None)
        if first > 1 and not below and change:
            place = Place(self.part.name or None, f"R{first}", 1, 1, row.span)
            message = f"R{first} is said to change by {change:+d}, but no round below it was understood."
            self.told.append(Problem("sum", place, message))
        if below and count - below != change:
            place = Place(self.part.name or None, f"R{first}", 1, 1, row.span)
            message = f"R{first} is said to change by {change:+d}; from {below} to {count} it is {count - below:+d}."
            self.told.append(Problem("sum", place, message))
