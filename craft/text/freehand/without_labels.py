"""Whether a line that has no label is a round, closes the part under way, or is words."""

from __future__ import annotations

import itertools
import re
from dataclasses import replace

from craft.text.freehand.by_counts import counts_alone, counts_gone_to, follows
from craft.text.freehand.clauses import is_direction, without_remarks
from craft.text.freehand.counts import sentences, tails
from craft.text.freehand.headings import heading_of
from craft.text.freehand.labels import Label
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.one_line import OneLine
from craft.text.freehand.row import Row
from craft.text.freehand.so_far import Line
from craft.text.freehand.stripes import is_colour

MOST_HEADING = 90
"""Code points of a line that may be a heading with something behind it."""


MOST_WORDS = 200
"""Code points of the words of a round that has no label."""

_COLOUR_LED = re.compile(
    r"(?i)\W*(?:(?:in|with|mit|en|avec|con|met)\s+)?(?P<colour>[^\W\d_]+(?:[ -][^\W\d_]+){0,2})\s*"
    r"(?:[:-]\s*(?=\S)|(?:,\s*|(?<=\s))(?=[\d(\[*]))"
)
"""'negro: 18pb', 'in white 12 sc': a colour before work."""

_PULLS = re.compile(
    r"(?i)(?:(?:and|then|now|und|dann|nun|et|puis|y|luego|e|poi|en|dan)\s+)*(?:pull|draw|close|tighten|den|die|der|fadenring|ring|zieh\w*|festzieh\w*"
    r"|serre[rz]?|tire[rz]?|ferme[rz]?|resserre[rz]?|tira[rd]?|cierra|cerrar|ajusta\w*|aprieta|apretar|stringere|stringi|tirare|tira|chiud\w+"
    r"|trek|sluit|aantrekken)(?!\w)[^.;\d]{0,60}\.?"
)
"""'Pull it shut.', 'Den Ring zuziehen.', 'Serrer le cercle.'"""

LEAST_BELOW = 2
"""Lines below a number alone that go on from it, before it is a ring's."""

_RING_ALONE = re.compile(r"[3-9]|1[0-2]")
_COUNT_FIRST = re.compile(r"(?P<n>\d{1,3})(?:\s*[(\[,-].*)?")
"""'12 (inc all)', '18'."""

_THROUGH_BOTH = re.compile(r"([a-z][a-z ]*?) through both layers")


class WithoutLabels(OneLine):
    """Judges the lines of a text that no label begins."""

    def pulls_ring(self, text: str) -> bool:
        """'Pull it shut.' behind the ring: what is drawn together there, where the second round is still to come."""
        return len(self.part.rounds) == 1 and _PULLS.match(text) is not None and self.next_label() in (None, 2)

    def closes_flat(self, text: str) -> bool:
        """'Fold in half and sc through both layers: 9 sc': a line that closes a part."""
        works = (text, *(tail.work for tail in tails(text, self.language) if tail.count and tail.work))
        ways = (way for work in works for way in self.candidates(work))
        return bool(self.part.rounds) and any("through both layers" in way.work for way in ways)

    def close_flat(self, row: Row, text: str) -> None:
        """Write a line that closes a part as work without a number, as far as it closes the whole edge; else it stays a
        direction."""
        chosen, tail, _ = self.chosen(text, Label(None, None, 0, 0))
        stitch = _THROUGH_BOTH.search(chosen.work) if chosen is not None and chosen.fits else None
        if chosen is None or stitch is None or not chosen.live or 2 * chosen.live != self.part.live:
            self.waiting.append(row)
            return
        self.flush()
        self.out.append(Line(f"{chosen.live} {stitch[1]} through both layers [{chosen.live}]", row.span, chosen.why))
        self.part.live = chosen.live
        if tail.remark:
            self.waiting.append(replace(row, text=tail.remark))

    def told_by_counts(self, text: str) -> tuple[str, ...]:
        """The counts of rounds without labels, where a sentence tells nothing else of them."""
        live = self.part.live or 0
        if not live or not self.part.rounds:
            return ()
        return (self.part.bare and counts_alone(text, live)) or counts_gone_to(text, self.vocabulary(), live)

    def begins_by_counts(self, text: str) -> int:
        """Stitches in the ring of a part that is told by its counts, line by line: '6', below its name, with '12 (inc all)'
        and '18 (every 2nd)' below; 0 for any other line."""
        if not _RING_ALONE.fullmatch(text) or not self.is_named_above():
            return 0
        below = [_COUNT_FIRST.match(row.text) for row in self.rows[self.at + 1 : self.at + 1 + LEAST_BELOW]]
        counts = [int(text), *(int(m["n"]) for m in below if m is not None)]
        whole = len(counts) == LEAST_BELOW + 1 and all(follows(a, b) for a, b in itertools.pairwise(counts))
        return counts[0] if whole else 0

    def is_named_above(self) -> bool:
        """Whether the line before this one is a part's name that has no rounds yet."""
        return bool(self.waiting) and heading_of(self.waiting[-1].text) is not None

    def is_item_of_rounds(self, text: str, *, counted: bool) -> bool:
        """Whether a line is a round without a label: all of it is work, and the sum works.

        counted: its count must be said, as in a line that is no item of a list.
        """
        if not self.part.rounds or self.closed or len(text) > MOST_HEADING:
            return False
        if any(w.again for w in self.candidates(text)) or self.only_slips(text):
            return False
        if self.part.unlabelled and self._counts_stitches(text):
            return True  # what does not fit here is a slip, and no remark
        if self.part.bare and self.as_many(text) is not None:
            return True  # '18', '18. 18' or 'flo: 18', as many as before
        chosen, tail, ways = self.chosen(text, Label(None, None, 0, 0))
        if chosen is None or not chosen.fits:
            return False
        if tail.fold is not None and not tail.remark:
            return True  # 'sc in each st for six more rounds'
        if tail.count is not None and self.is_change(tail.work, tail.count):
            return True  # '+6 (18)'
        if not ways and tail.sure and tail.count is not None and (self.part.bare or self.part.unlabelled):
            return True  # '18 (jede 2.)'
        if not any(not w.noise for w in ways):
            return False
        if (self.part.bare or self.part.unlabelled) and self._is_work_alone(self._without_directions(text)):
            return True
        return tail.count is not None if counted else not tail.remark

    def _is_work_alone(self, text: str) -> bool:
        """Whether a line says stitches and numbers, and nothing else."""
        sorts = {t.sort for t in tokens(text, self.vocabulary())}
        return bool(sorts & {Sort.STITCH, Sort.DOUBLE}) and not sorts & {
            Sort.NOISE,
            Sort.PIECE,
            Sort.JOIN,
            Sort.CHAIN,
            Sort.TURN,
        }

    def _without_directions(self, text: str) -> str:
        """'Decrease six times and pull the hole closed': the words that tell work, where all the others are directions."""
        parted = without_remarks(text, lambda words: tokens(words, self.vocabulary()))
        return parted[0] if parted is not None and all(map(is_direction, parted[1])) else text

    def _counts_stitches(self, text: str) -> bool:
        """Whether stitches stand before a number at the end of the first sentence."""
        cuts = tails(next(iter(sentences(text)), ""), self.language)
        sorts = (t.sort for cut in cuts if cut.count is not None for t in tokens(cut.work, self.vocabulary()))
        return Sort.STITCH in sorts

    def led_by_colour(self, text: str) -> tuple[str, str]:
        """The colour that a line begins with, 'black: 12 sc', and the work behind it; '' and all of any other line."""
        led = _COLOUR_LED.match(text) if self.part.rounds else None
        if led is None or not is_colour(led["colour"], self.vocabulary()):
            return "", text
        return led["colour"], text[led.end() :]

    def is_round(self, text: str) -> bool:
        """Whether a line without a label is a round: stitches and, surely, a count, where a part is under way."""
        if not self.part.rounds or self.closed or (heading_of(text) is not None and not re.search(r"\d", text)):
            return False
        for tail in tails(text, self.language):
            if tail.sure and tail.count is not None and not tail.remark:
                return self._says_stitches(tail.work) and len(tail.work) < MOST_WORDS
        return False


def ends_part(text: str) -> bool:
    """Whether a line says what is done when a piece is finished: cut, fastened off, drawn shut."""
    return (
        re.search(
            r"(?i)\b(?:fasten|fo\b|f\.o|cut\b|break|finish|close|draw\s+up|gather|off\b|faden\s+abschneiden|couper|fermer|cortar|tagliare|afhechten|pull|leave)",
            text,
        )
        is not None
    )
