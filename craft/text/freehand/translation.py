"""A whole text put into the notation: parts, rounds, references, directions; each line with where it comes from."""

from __future__ import annotations

import re
from collections.abc import Collection
from dataclasses import dataclass, replace

from craft.problems import Problem, Span
from craft.rounds.stitches import Terms
from craft.text.freehand.by_counts import counts_listed, is_count_alone
from craft.text.freehand.carried_on import tells_shaping
from craft.text.freehand.corrections import NO_CORRECTIONS, Corrections, Taken
from craft.text.freehand.counts import sentences, tails
from craft.text.freehand.headings import heading_as_said, heading_of
from craft.text.freehand.labels import ROUNDS, Label, label_at, labels_in
from craft.text.freehand.legend import colours_listed
from craft.text.freehand.measured import is_measured
from craft.text.freehand.numbered_rows import COUNT_AHEAD, FOLD_AHEAD
from craft.text.freehand.references import reference_in
from craft.text.freehand.row import Row
from craft.text.freehand.sections import section_heading
from craft.text.freehand.so_far import Line
from craft.text.freehand.source import rows
from craft.text.freehand.starts import PULLED, with_its_chain
from craft.text.freehand.stripes import stripes_in
from craft.text.freehand.without_labels import MOST_HEADING, WithoutLabels, ends_part

MOST_TEXT, MOST_ROWS, MOST_ROW = 200_000, 2_500, 6_000
"""Code points and rows of a text that is read freehand, and code points of one row."""

MOST_LINES = 2 * MOST_ROWS
"""Lines of a text that is made into rows at all: some are empty, and some are wrapped."""

_COUNT_ROW = re.compile(
    r"(?i)^\s*(?:r|rnd|round|rd|row|runde|tour|vuelta|giro|toer)?\.?\s*(?:(?P<first>\d{1,3})\s*-\s*)?(?P<at>\d{1,3})\s*[:.)]?"
    r"\s+(?P<count>\d{1,4})\s+\(?(?:(?P<change>[+-]\s*\d{1,3})|=|(?:\d{1,3}\s+sc\s+in\s+)?ring)\)?\s*$"
)
"""'R3  18  +6': a round in a table of counts, and by how much it grew."""

_SO_MANY_ROUNDS = re.compile(rf"(?i)\d{{1,2}}\s+(?:{ROUNDS})(?![^\W\d_])")
"""'3 Rd 24'."""

_ONWARD = re.compile(
    r"(?i)(?:next|now|then|after\s+(?:that|this)|from\s+here|finally|lastly|dann|danach|nun|jetzt|ensuite|puis|maintenant"
    r"|luego|después|ahora|poi|dopo|ora|daarna|dan|nu)(?:\s*,\s*|\s+)(?=[^\W_]|[(*])"
)
"""'Now alternate one sc and one inc': how a sentence goes on behind another."""

_PLAIN_ROUND = re.compile(r": (?:(?:in )?[BF]LO:? )?(?:sc around|\d+ sc)$")


@dataclass(frozen=True, slots=True)
class Translation:
    """A text in the notation, in US terms. terms, language: those that it was written in. problems: what the text says
    of itself that does not agree. colours: those that it lists."""

    lines: tuple[Line, ...]
    terms: Terms = Terms.US
    language: str = "en"
    problems: tuple[Problem, ...] = ()
    colours: tuple[str, ...] = ()

    @property
    def counted(self) -> bool:
        """Whether every round says its count, so that the sums of all of them are evidence; a ring's number is its, and a
        plain round has as many as the one below."""
        told = (line.text for line in self.lines if line.makes_round)
        return all("[" in text or " in ring" in text or _PLAIN_ROUND.search(text) for text in told)

    def counts(self, starts: Collection[int]) -> bool:
        """Whether every round that begins at one of these places of the raw text says its count."""
        told = [line.text for line in self.lines if line.span.start in starts and line.makes_round]
        return bool(told) and all("[" in text or _PLAIN_ROUND.search(text) for text in told)

    @property
    def text(self) -> str:
        """All lines, each ended by a line break."""
        return "".join(f"{line.text}\n" for line in self.lines)


def translated(
    text: str,
    terms: Terms | None = None,
    pieces: tuple[str, ...] = (),
    size: int = 0,
    corrections: Corrections = NO_CORRECTIONS,
) -> Translation | None:
    """The text in the notation; None when no round is found in it. size: which of several sizes, 0 the first.

    CraftError for a word whose explanation is not understood.
    """
    if len(text) > MOST_TEXT or text.count("\n") > MOST_LINES:
        return None
    found = rows(text, size, corrections)
    if len(found) > MOST_ROWS or any(len(row.text) > MOST_ROW for row in found):
        return None
    reader = _Reader(text, found, terms, pieces)
    reader.explain(corrections.words)
    reader.read()
    if not any(p.rounds for p in reader.parts):
        return None
    colours = tuple(c.title() for row in found for c in colours_listed(row.text))
    return Translation(tuple(reader.out), reader.terms, reader.language, tuple(reader.told), colours)


class _Reader(WithoutLabels):
    """Goes through the rows of a text once, part by part."""

    def read(self) -> None:
        for at, row in enumerate(self.rows):
            self.at = at
            self.row(row)
        for row in self.waiting:
            self.prose(row)

    def row(self, row: Row) -> None:
        if row.taken is not None:
            self.taken_for(row, row.taken)
            return
        self.section = section_heading(row.text, self.language) or self.section
        row = replace(row, listed=self.section not in (None, Taken.NOTE) and not self._stands_apart(row))
        if known := _COUNT_ROW.match(row.text):
            last, count = int(known["at"]), int(known["count"])
            if not self.counted_again(row, last, count):
                change = int((known["change"] or "0").replace(" ", ""))
                self.counted_first(row, (int(known["first"] or last), last), count, change)
            return
        if items := self.listed_rounds(row.text):
            self._rounds_of_line(row, *items)
            return
        if listed := counts_listed(row.text, named=self.is_named_above()):
            self.slashes(row, *listed)
            return
        reference = reference_in(row.text, self.language)
        elsewhere = (
            reference is not None and reference.is_order and bool(reference.part) and self._can_follow(reference)
        )
        if self.striped(row, row.text):
            return
        labels = [] if elsewhere else labels_in(row.text, self.part.last + 1)
        if labels and (ranged := self.last_behind_dash(row.text, labels[0])) is not None:
            labels = [ranged]
        if labels and stripes_in(row.text[labels[0].end :], self.vocabulary()) is not None:
            labels = labels[:1]  # 'Rnds 6 and 7: 1 round in A, 1 round in B': no labels of their own
        if (
            labels
            and labels[0].bare
            and not (self._goes_on(labels[0], row.text) and self._is_listed_round(row.text, labels[0]))
        ):
            labels = []
        labels = [self._as_many_rounds(row.text, x) for x in labels if self._works(row.text, x, labels)]
        if labels and labels[0].start > 0 and len(row.text) <= MOST_HEADING and self.carry_on(row, row.text):
            return  # 'In jeder Runde 6 M zunehmen': no round 6
        if not labels:
            for piece in self._parted(row.text):
                self.unlabelled(replace(row, text=piece))
            return
        if labels[0].start > 3 and row.text[: labels[0].start].strip(" >-*•[]"):
            self.follows = labels[0].first
            self.unlabelled(replace(row, text=row.text[: labels[0].start]))
            self.follows = None
        for k, label in enumerate(labels):
            end = labels[k + 1].start if k + 1 < len(labels) else len(row.text)
            self.labelled(row, label, row.text[label.end : end].strip())

    def _as_many_rounds(self, text: str, label: Label) -> Label:
        """'3 Rd 24' behind rounds that have no labels: three of them, and not the third."""
        many = _SO_MANY_ROUNDS.match(text, label.start)
        if many is None or not self.part.unlabelled or label.first is None or label.first != label.last:
            return label
        return replace(label, first=None, last=None, many=label.first)

    def _stands_apart(self, row: Row) -> bool:
        """Whether a row in capitals has an empty line above it: a heading like that of the section, and no item of it."""
        above = self.rows[self.at - 1] if self.at else None
        return row.text.isupper() and above is not None and row.span.start - above.span.end > 1

    def _parted(self, text: str) -> list[str]:
        """The sentences of a line without a label; a short one whole, unless one of its sentences closes the part."""
        said = sentences(text)
        pieces = with_its_chain(said)
        closes = len(pieces) > 1 and any(self.closes_flat(piece) for piece in pieces)
        return pieces if closes or len(pieces) < len(said) or len(text) > MOST_HEADING else [text]

    def _rounds_of_line(self, row: Row, name: str, items: list[str]) -> None:
        self.waiting += [replace(row, text=name)] if name else []
        self.begin(row)
        for item in items:
            label = label_at(item) or Label(None, None, 0, 0)
            counted = item[:1].isdigit() and label.first is not None and label.first == label.last
            if counted and label.first != self.part.last + 1:
                label = replace(label, first=None, last=None, many=label.first or 1)  # '2 Rd fM': two of them
            if many := self.all_around(item) or (label.first is None and self.plain_rounds(item)) or 0:
                self.labelled(row, Label(None, None, 0, 0, many=many), "plain")
                continue
            if self.counted_alone(row, item):
                continue
            counted = self.as_many(item) is not None or any(t.sure and t.count for t in tails(item))
            works = counted or self._says_stitches(item) or label.many > 1
            if works and not self.ends_part_in_line(item):
                self.labelled(row, label, item[label.end :].strip())
            else:
                self.waiting.append(replace(row, text=item))

    def taken_for(self, row: Row, taken: Taken) -> None:
        """A row that is what she says: a part's heading, a round, words to keep, or nothing."""
        if taken is Taken.PART:
            self.flush()
            heading = heading_of(row.text) or heading_as_said(row.text)
            self.begin_called(heading, row.span)
            if heading.rest.strip(" .,;:()[]"):
                self.prose(replace(row, text=heading.rest))
        elif taken is Taken.ROUND:
            label = label_at(row.text) or Label(None, None, 0, 0)
            self.labelled(row, label, row.text[label.end :].strip())
        elif taken is not Taken.NOTHING:
            self.waiting.append(row)

    def unlabelled(self, row: Row) -> None:
        text = row.text.strip()
        reference = reference_in(text, self.language)
        if reference is not None and not reference.times and is_measured(text):
            self.waiting.append(row)  # 'Repeat row 2 until the scarf is 20 cm long': how often is left to the maker
            return
        if reference is not None and reference.is_order and self._can_follow(reference):
            if reference.part and (self.waiting or self.closed):
                self.begin(row)
            if self.follow(row, reference, None):
                return
        if self._same_again(row, text):
            return
        if self.part.rounds and (onward := _ONWARD.match(text)) is not None:
            text = text[onward.end() :]
        if counts := self.told_by_counts(text):
            for count in counts:
                self.counted(row, count)
            return
        if self.carry_on(row, text):
            return
        if many := self.plain_rounds(text):
            self.labelled(row, Label(None, None, 0, 0, many=many), "plain")
            return
        if (strand := self.strand(text)) is not None:
            self.waiting += [replace(row, text=strand[0])] if strand[0] else []
            self.begin(row)
            self.labelled(row, Label(1, 1, 0, 0), strand[1])
            return
        if ringed := self.begins_by_counts(text):
            self._start(row, "", f"{ringed} sc in ring", "")
            return
        if (chain := self.chain_line(row, text)) is not None:
            self.out.append(Line(chain, row.span))
            return
        if (started := self.first_round(text)) is not None:
            self._start(row, *started)
            return
        if self.closes_flat(text):
            self.close_flat(row, text)
            return
        colour, work = self.led_by_colour(text)
        if self.is_round(work) or self.is_item_of_rounds(work, counted=not row.bullet):
            self.flush()
            self.labelled(row, Label(None, None, 0, 0), f"[{colour}] {work}" if colour else work)
            self.part.unlabelled = True
            return
        if self.part.bare and is_count_alone(text):
            self.miscounted(row, text)
            return
        if self.part.rounds and tells_shaping(text, self.vocabulary()):
            self.flush()
            self.unread(row, self.part.last + 1, self.part.last + 1, text)
            return
        self.made_again(text)
        self.closed = self.closed or (bool(self.part.rounds) and ends_part(text) and not self.pulls_ring(text))
        self.waiting.append(row)

    def _start(self, row: Row, before: str, first: str, after: str) -> None:
        """A part whose first round has no label: what stands before it in its line, the round, and what is behind it."""
        if before.strip():
            self.waiting.append(replace(row, text=before))
        self.begin(row)
        self.labelled(row, Label(1, 1, 0, 0), first)
        self.part.bare = self.next_label() is None and not after
        if (drawn := PULLED.match(after)) is not None:
            self.prose(replace(row, text=after[drawn.end() :]))  # the ring is drawn shut, and not the part
        elif after:
            self.row(replace(row, text=after))

    def labelled(self, row: Row, label: Label, rest: str) -> None:
        if (fold := FOLD_AHEAD.match(rest)) is not None:
            rest = f"{rest[fold.end() :]} {fold[1]}"
        if label.first is None and (ahead := COUNT_AHEAD.match(rest)) is not None:
            rest = f"[{ahead[1]}]. {rest[ahead.end() :]}".strip(". ")
        first = label.first if label.first is not None else self.part.last + 1
        last = label.last if label.last is not None else first + label.many - 1
        if first == last == 1 and self.is_the_ring_again(rest):
            self.out[-1] = replace(self.out[-1], span=Span(self.out[-1].span.start, row.span.end))
            return
        again = bool(self.part.rounds) and self._taken_up_again()
        named = label.first is None and label.end > label.start
        opens = named and self.next_label() == label.many + 1  # 'Joining rnd: …' above 'Rnd 2: …'
        bridge = self._bridge() if self.part.rounds else 0
        if not again and (
            (first == 1 and (self.part.rounds or not self.parts))
            or not self.parts
            or (self.closed and self.waiting and first <= self.part.last)
            or self._joins_pieces(rest)
            or (opens and self.part.last > label.many)
        ):
            self.begin(row)
            if opens:
                first, last = 1, label.many
        self.flush()
        self.section, self.part.bridge = None, bridge
        if self.striped(row, rest, (first, last)) or (last > first and self.carry_on(row, rest, (first, last))):
            return
        reference = reference_in(rest, self.language)
        if reference is not None and self.follow(row, reference, (first, last), rest):
            return
        self.round(row, label, first, last, rest)
        behind, self.behind = self.behind, []
        for sentence in behind:
            if len(sentence.text) < len(rest):
                self.row(sentence)
            else:
                self.waiting.append(sentence)  # the very words that the round was read from: never read once more
