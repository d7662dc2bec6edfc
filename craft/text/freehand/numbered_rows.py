"""Whether a number before words is a round's label, and the words its work."""

from __future__ import annotations

import re
from dataclasses import replace

from craft.text.freehand.corrections import Taken
from craft.text.freehand.counts import sentences, tails
from craft.text.freehand.labels import ROUNDS, Label, labels_in
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.references import reference_in
from craft.text.freehand.starts import Starts
from craft.text.freehand.stripes import stripes_in

_SO_MANY = re.compile(r"(?P<n>\d{1,2})\s*[^\W\d_]{1,8}\s*[.,;]?\s*(?:[(\[](?P=n)[^()\[\]]{0,8}[)\]])?\W*")
"""'6 fM.', '6 fM (6)'."""

MOST_BETWEEN = 5
"""Lines to look on for the next round's label."""

_LAST_BEHIND_DASH = re.compile(rf"(?i)(?:{ROUNDS}|r)\.?\s*\d{{1,3}}\s+-\s+(?P<b>\d{{1,3}})\s+(?=[^\W\d])")
"""'Rd. 6 - 8 fM'."""

FOLD_AHEAD = re.compile(rf"(?i)([(\[]\s*\d{{1,3}}\s*(?:{ROUNDS})\.?\s*[)\]])\s*[:.=-]+\s*(?=\S)")
"""'Rnd 6-8 (3 rnds): sc': how many rounds that is, before their work."""
COUNT_AHEAD = re.compile(r"(\d{1,4})\s*(?:[.,;](?!\s*\d)|$)\s*")
"""'Last rnd 6, & close.': the count of a round, where its number is not said."""

_WORKED = (Sort.STITCH, Sort.RING, Sort.DOUBLE, Sort.PAIRS, Sort.PLAIN, Sort.AGAIN)
"""What is worked, of a round's words."""

_SHAPED = (Sort.STITCH, Sort.DOUBLE, Sort.PAIRS, Sort.TOGETHER)
"""What the next round surely works: a stitch, or 'jede M verdoppeln', '6 x 2 M zusammen'."""

_STEP = re.compile(r"(?i)steps?\b")


MOST_SIGN = 3
"""Letters of a sign for work; what is longer is a word."""

MOST_LEFT_OUT = 60
"""Rounds that a text may leave out between two, and still number the next one without a word."""


class NumberedRows(Starts):
    """Tells labels of rounds from other numbers."""

    def _goes_on(self, label: Label, text: str) -> bool:
        """Whether a bare number may be the next round's, the one after it (a round was left out), or a part's first; a
        later one's only where stitches and their count stand behind it."""
        if label.first in (self.part.last + 1, self.part.last + 2, 1):
            return True
        after = label.first is not None and self.part.last < label.first <= self.part.last + MOST_LEFT_OUT
        return after and bool(self.part.rounds) and self._begins_with_work(text[label.end :])

    def _begins_with_work(self, rest: str) -> bool:
        """Whether words begin with stitches, and say surely how many there are then."""
        told = (rest, next(iter(sentences(rest)), rest))
        cuts = [t for said in told for t in tails(said, self.language) if t.sure and t.count is not None]
        sorts = [t.sort for t in tokens(cuts[0].work, self.vocabulary()) if t.sort is not Sort.QUIET] if cuts else []
        lead = next(
            (k for k, sort in enumerate(sorts) if sort not in (Sort.NUMBER, Sort.OPEN, Sort.STAR, Sort.TIMES)), None
        )
        return lead is not None and sorts[lead] is Sort.STITCH

    def _is_listed_round(self, text: str, label: Label) -> bool:
        """Whether a bare number numbers a round; in a list of materials or of steps only stitches and a count tell."""
        if self.section in (None, Taken.NOTE):
            return True
        rest = text[label.end :]
        return any(
            t.sure and t.count is not None and any(x.sort is Sort.STITCH for x in tokens(t.work, self.vocabulary()))
            for t in tails(rest, self.language)
        )

    def _works(self, text: str, label: Label, labels: list[Label]) -> bool:
        """Whether work stands behind a label: stitches, a count, a reference; prose about rounds has none."""
        end = next((x.start for x in labels if x.start > label.start), len(text))
        rest = text[label.end : end].strip()
        if label.count is not None:
            return True
        if _STEP.match(text[label.start : label.end]) and not self._says_stitches(rest):
            return False  # 'Step 1 - The tail'
        if not rest or (rest.startswith("=") and not self._says_stitches(rest)):
            return False  # '[12] = number of stitches at the end of the round'
        if not label.bare and re.fullmatch(r"[\d\s]+\.?", rest):
            return True  # numbers alone behind 'Rnd 5' are its stitches
        if label.first is None and COUNT_AHEAD.match(rest):
            return True  # 'Last rnd 6, & close.'
        if reference_in(rest, self.language) is not None or stripes_in(rest, self.vocabulary()) is not None:
            return True
        if any(t.count is not None and t.sure for t in tails(rest, self.language)):
            return True
        if label.end > label.start and text[label.start : label.end].rstrip()[-1:] in ":.)=-]" and not label.bare:
            return True
        if label.bare and label.first == self.part.last + 1 > 1:
            if rest == str(self.part.live):
                return True  # '5-8: 24', as many as before
            if any(t.count == self.part.live and self._is_plain(t.work) for t in tails(rest, self.language)):
                return True  # 'fourth: plain, 15'
            shaped = any(t.sort in _SHAPED for t in tokens(rest, self.vocabulary()))
            counted = (t.work for t in tails(rest, self.language) if t.count is not None and t.work)
            # '2) 2 in each 12'
            return shaped or self._is_plain(rest) or any(not way.noise for w in counted for way in self.candidates(w))
        if label.first == self.part.last + 1 > 1 and (
            any(t.sort in _SHAPED for t in tokens(rest, self.vocabulary()))
            or any(t.count == self.part.live and t.count for t in tails(rest, self.language))
        ):
            return True  # the next round: what of it is not understood is a fault, never a remark
        if label.first == self.part.last + 1 > 1 and self._is_counted_on(label, rest):
            return True
        return any(self.candidates(t.work) for said in sentences(rest) for t in tails(said, self.language) if t.work)

    def _is_counted_on(self, label: Label, rest: str) -> bool:
        """Whether the labels go on behind this one, or its words are signs and numbers, 'R2 6i 12': its round is told here
        and nowhere else, be it understood or not."""
        signs = re.search(r"\d", rest) is not None and re.search(rf"[^\W\d_]{{{MOST_SIGN + 1}}}", rest) is None
        return signs or (label.last is not None and self.next_label() == label.last + 1)

    def _is_plain(self, text: str) -> bool:
        """Whether words say that a round is plain, and nothing else."""
        sorts = {t.sort for t in tokens(text, self.vocabulary())}
        return Sort.PLAIN in sorts and sorts <= {Sort.PLAIN, Sort.QUIET, Sort.AROUND, Sort.STOP, Sort.COMMA}

    def _says_stitches(self, text: str) -> bool:
        return any(t.sort in _WORKED for t in tokens(text, self.vocabulary()))

    def is_the_ring_again(self, rest: str) -> bool:
        """'6 fM in Fadenring. / 1. Rd: 6 fM.': whether the first round's stitches are only said once more, with its number."""
        worked = self.part.rounds
        told = _SO_MANY.fullmatch(rest.strip())
        ringed = len(worked) == 1 and worked[0].work.endswith(" in ring") and self.out[-1].makes_round
        if told is None or self.waiting or not ringed:
            return False
        return worked[0].work.split(" ", maxsplit=1)[0] == told["n"] and self._says_stitches(rest)

    def last_behind_dash(self, text: str, label: Label) -> Label | None:
        """The label of several rounds that 'Rd. 6 - 8 fM' is where the next round is the ninth; at the end of a part, where
        it is told that all stitches of the round below are worked. None where it is one round of eight."""
        dashed = _LAST_BEHIND_DASH.match(text, label.start)
        if dashed is None or label.first is None or label.last != label.first or int(dashed["b"]) <= label.first:
            return None
        last = int(dashed["b"])
        ahead = (labels_in(row.text, last + 1) for row in self.rows[self.at + 1 : self.at + MOST_BETWEEN])
        following = next((found[0].first for found in ahead if found), None)
        several = following == last + 1
        if not several and following in (None, 1) and last != self.part.live:
            rest = text[dashed.end() :]
            counts = {t.count for t in tails(rest, self.language) if t.sure and t.count is not None}
            each = any(t.sort in (Sort.EACH, Sort.EVERY) for t in tokens(rest, self.vocabulary()))
            several = self.part.live in counts or (not counts and each)
        return replace(label, last=last, end=dashed.end()) if several else None
