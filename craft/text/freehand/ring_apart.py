"""Rounds that a text numbers from the one behind the ring: 'Work 5 dc into a slip ring. / 1st round: 1 dc into each dc.'

The ring is a round, too, so every number is one higher here, and the text is told so.
"""

from __future__ import annotations

import re
from dataclasses import replace

from craft.text.freehand.labels import ROUNDS, Label, labels_in
from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.row import Row

MOST_BETWEEN = 1
"""Lines with directions between the ring and the first number: 'Pull tight.'"""

_INTO_STITCHES = {Sort.EACH, Sort.EVERY, Sort.DOUBLE, Sort.AROUND}
"""What a round says that is worked into stitches, and starts none."""
_STARTS = {Sort.RING, Sort.CHAIN}

_SPOKEN_OF = re.compile(
    rf"(?i)(?P<called>\b(?:{ROUNDS})\.?\s+)(?P<a>\d{{1,3}})(?P<to>\s*(?:-|to|and|&|bis|und|à|et|a|y|al|e|t/m|en)\s*(?P<b>\d{{1,3}}))?(?!\w)"
)
"""'Repeat round 3', 'as rounds 2 to 4'."""


def ring_apart(found: list[Row], vocabulary: Vocabulary) -> tuple[list[Row], list[Row]]:
    """The rows with the numbers of rounds that do not count their ring one higher, and those that begin with such a round."""
    out, begun = list(found), []
    shifted, since = False, MOST_BETWEEN + 1
    for at, row in enumerate(found):
        if row.taken is not None or row.quiet:
            continue
        labels = [label for label in labels_in(row.text, 1) if not label.bare and label.count is None]
        ahead = row.text[: labels[0].start] if labels else row.text
        since = 0 if _rings(ahead, vocabulary) else since + 1
        first = next((label for label in labels if label.first == 1), None)
        if first is not None:
            words = row.text[first.end : next((x.start for x in labels if x.start > first.start), len(row.text))]
            shifted = since <= MOST_BETWEEN + 1 and first.last == 1 and _works_into_stitches(words, vocabulary)
            begun += [row] if shifted else []
        if shifted:
            out[at] = replace(row, text=_one_higher(row.text, labels))
    return (out, begun) if begun else (found, [])


def _rings(text: str, vocabulary: Vocabulary) -> bool:
    sorts = {t.sort for t in tokens(text, vocabulary)}
    return {Sort.RING, Sort.NUMBER, Sort.STITCH} <= sorts


def _works_into_stitches(text: str, vocabulary: Vocabulary) -> bool:
    sorts = {t.sort for t in tokens(text, vocabulary)}
    return bool(sorts & _INTO_STITCHES) and not sorts & _STARTS


def _one_higher(text: str, labels: list[Label]) -> str:
    """A line with the numbers of its rounds, and of those that it speaks of, one higher."""
    pieces, at = [], 0
    for label in labels:
        pieces.append(_spoken_higher(text[at : label.start]))
        first, last = (label.first or 0) + 1, (label.last or 0) + 1
        named = text[label.start : label.end]
        pieces.append(named if label.first is None else f"R{first}: " if last == first else f"R{first}-R{last}: ")
        at = label.end
    return "".join((*pieces, _spoken_higher(text[at:])))


def _spoken_higher(text: str) -> str:
    def higher(m: re.Match[str]) -> str:
        to = m["to"].replace(m["b"], str(int(m["b"]) + 1)) if m["to"] else ""
        return f"{m['called']}{int(m['a']) + 1}{to}"

    return _SPOKEN_OF.sub(higher, text)
