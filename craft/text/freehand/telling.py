"""Whether a sentence that is kept as words tells work: stitches, how many or where, and hardly a word beside them."""

from __future__ import annotations

import re

from craft.rounds.stitches import Terms
from craft.text.freehand.chain_starts import COUNTS_AS
from craft.text.freehand.counts import sentences
from craft.text.freehand.labels import ROUNDS
from craft.text.freehand.lexer import Token, Vocabulary, tokens
from craft.text.freehand.lexicon import Sort

_WORK = frozenset((Sort.STITCH, Sort.DOUBLE, Sort.PAIRS))
_HOW = frozenset((
    Sort.NUMBER, Sort.EACH, Sort.EVERY, Sort.AROUND, Sort.OFTEN, Sort.ALWAYS, Sort.EVENLY, Sort.NEXT, Sort.REST, Sort.ORDINAL,
))  # fmt: skip
_SO_MANY = frozenset((Sort.NUMBER, Sort.EACH, Sort.EVERY, Sort.AROUND, Sort.OFTEN))
_SIGNS = frozenset((Sort.STOP, Sort.COMMA, Sort.OPEN, Sort.CLOSE))
_BESIDE = frozenset((Sort.NOISE, Sort.ODD, Sort.PIECE, Sort.ROUND))
"""What no round needs: words that mean nothing in one, names of parts, other rounds."""

_APART = frozenset((Sort.CHAIN, Sort.TURN, Sort.JOIN, Sort.THROUGH, Sort.BOTH, Sort.SKIP, Sort.RING))
"""What edgings, leaves and seams are told with, and plain rounds are not."""

_SPIRAL = frozenset(("sc", "inc", "dec"))

MOST_BESIDE = 4
"""One in so many words may mean nothing in a round, between two rounds."""


def tells_work(text: str, language: str, terms: Terms, *, between: bool) -> bool:
    """Whether any sentence of a text tells work. between: it stands between two rounds of its text; behind the last one
    only what is nothing but single crochets, with no word beside them, is sure to be a round."""
    vocabulary = Vocabulary(language, terms)
    told = (sentence for sentence in sentences(text) if _SAID_OF.search(sentence) is None)
    return any(_tells(tokens(sentence, vocabulary), between=between) for sentence in told)


_SAID_OF = re.compile(rf"(?i)\b(?:{ROUNDS}|[rvtg])\.?\s?\d|\b(?:{COUNTS_AS})\b")
"""'the eyes between V4 and V5', 'the bobble counts as one stitch': said of work that stands elsewhere."""


def _tells(said: tuple[Token, ...], *, between: bool) -> bool:
    sorts = [t.sort for t in said if t.sort not in _SIGNS]
    how = {t.sort for t in said if t.sort is not Sort.NUMBER or t.value != 1}  # 'counts as one stitch'
    if not _WORK & set(sorts) or not _HOW & how:
        return False
    stitches = {t.value for t in said if t.sort is Sort.STITCH}
    if stitches == {"slst"} and not _SO_MANY & how:
        return False  # 'Sl st in next st and fasten off.'
    beside = sum(sort in _BESIDE for sort in sorts)
    if between:
        return beside * MOST_BESIDE <= len(sorts)
    return not beside and not _APART & set(sorts) and stitches <= _SPIRAL
