"""Written text to pattern and back: what designers write, in US, UK and letter terms."""

from craft.text.notation.coils import find_coil
from craft.text.notation.explained import unexplained
from craft.text.notation.handed import left_handed
from craft.text.notation.highlight import KINDS, Highlight, highlights
from craft.text.notation.names import names_pieces
from craft.text.notation.printer import (
    print_body,
    print_item,
    print_label,
    print_part,
    print_pattern,
    print_round,
    print_rounds,
    print_work,
)
from craft.text.notation.reader import MOST_LINE, MOST_LINES, MOST_TEXT, Reading, read
from craft.text.notation.scanner import HEAD_KEYS, Line, LineKind, step_kind
from craft.text.notation.sides import other_side
from craft.text.notation.terms import TermsFound, find_terms, odd_words, stitch_key, stitch_regex, words
from craft.text.notation.threads import find_threads, resewn
from craft.text.notation.wording import PHRASES, Wording

__all__ = [
    "HEAD_KEYS",
    "KINDS",
    "MOST_LINE",
    "MOST_LINES",
    "MOST_TEXT",
    "PHRASES",
    "Highlight",
    "Line",
    "LineKind",
    "Reading",
    "TermsFound",
    "Wording",
    "find_coil",
    "find_terms",
    "find_threads",
    "highlights",
    "left_handed",
    "names_pieces",
    "odd_words",
    "other_side",
    "print_body",
    "print_item",
    "print_label",
    "print_part",
    "print_pattern",
    "print_round",
    "print_rounds",
    "print_work",
    "read",
    "resewn",
    "step_kind",
    "stitch_key",
    "stitch_regex",
    "unexplained",
    "words",
]
