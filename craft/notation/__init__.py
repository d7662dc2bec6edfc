"""Written text to pattern and back: what designers write, in US, UK and letter terms."""

from craft.notation.explained import unexplained
from craft.notation.highlight import KINDS, Highlight, highlights
from craft.notation.printer import (
    folded,
    print_body,
    print_item,
    print_label,
    print_part,
    print_pattern,
    print_round,
    print_work,
    unfolded,
)
from craft.notation.reader import MOST_LINE, MOST_TEXT, Reading, read
from craft.notation.scanner import HEAD_KEYS, step_kind
from craft.notation.terms import TermsFound, find_terms, words

__all__ = [
    "HEAD_KEYS",
    "KINDS",
    "MOST_LINE",
    "MOST_TEXT",
    "Highlight",
    "Reading",
    "TermsFound",
    "find_terms",
    "folded",
    "highlights",
    "print_body",
    "print_item",
    "print_label",
    "print_part",
    "print_pattern",
    "print_round",
    "print_work",
    "read",
    "step_kind",
    "unexplained",
    "unfolded",
    "words",
]
