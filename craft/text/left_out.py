"""Work that the reading taken keeps as words, where the freehand reader makes rounds of it: never dropped in silence.

'Continue to increase 2 sts in every round until you have 24 sts (6 more rounds).' between rounds that the notation reads
to the last stitch: the sum works without it, and six rounds are lost.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace

from craft.problems import Place, Problem
from craft.rounds.numbers import CARDINALS
from craft.text import freehand
from craft.text.checked import Checked, ordered
from craft.text.notation import Line, LineKind

_PROSE = (LineKind.NOTE, LineKind.STEP, LineKind.HEADING)
_LEFT_OUT = "This line seems to tell a round, and no reading of it fits: begin it as 'R4: …' does, or make it a note."


def may_tell_work(checked: Checked) -> bool:
    """Whether a line that the notation keeps as words may be a round: then the freehand reader is asked, too."""
    return any(_tells(line.text) for line in checked.reading.lines if line.kind in _PROSE)


def _tells(text: str) -> bool:
    """Whether words name a stitch or a shaping and a number, 'increase 2 sts', or a number of rounds, in any language."""
    words = re.findall(r"[^\W\d_]+", text.lower())
    stitches = not freehand.stitch_words().isdisjoint(words)
    return (stitches and _NUMBER.search(text) is not None) or freehand.tells_rounds(text)


_NUMBER = re.compile(rf"(?i)\d|\b(?:{'|'.join(CARDINALS)})\b")


def with_left_out(taken: Checked, translation: freehand.Translation) -> Checked:
    """The notation's reading with a fault for every line of words of which the freehand reader makes a round."""
    told = {p.place.line for p in taken.problems}
    more = [
        Problem("passed-over", Place(None, None, line.number, 1, line.span), _LEFT_OUT)
        for line in _left_out(taken, translation)
        if line.number not in told
    ]
    return replace(taken, problems=ordered((*taken.problems, *more))) if more else taken


def _left_out(taken: Checked, translation: freehand.Translation) -> Iterator[Line]:
    made = [line.span for line in translation.lines if line.makes_round or line.closes_flat]
    worked = [line.span for line in taken.reading.lines if line.kind is LineKind.ROUND]
    for line in taken.reading.lines:
        if line.kind not in _PROSE or not _tells(line.text) or freehand.is_measured(line.text):
            continue
        if freehand.explains(line.text, translation.language, translation.terms):
            continue  # 'dec: 2 sc'
        inside = [span for span in made if line.span.start <= span.start < line.span.end]
        if any(not any(span.start < w.end and w.start < span.end for w in worked) for span in inside):
            yield line
