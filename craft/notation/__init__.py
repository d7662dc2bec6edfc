"""Written text to pattern and back: what designers write, in US, UK and letter terms."""

from craft.notation.explained import unexplained
from craft.notation.folds import folded, unfolded
from craft.notation.handed import left_handed, other_handed
from craft.notation.highlight import KINDS, Highlight, highlights
from craft.notation.printer import (
    print_body,
    print_item,
    print_label,
    print_part,
    print_pattern,
    print_round,
    print_work,
)
from craft.notation.reader import MOST_LINE, MOST_TEXT, Reading, read
from craft.notation.scanner import HEAD_KEYS, LineKind, step_kind
from craft.notation.terms import TermsFound, find_terms, stitch_key, stitch_regex, words
from craft.notation.threads import ThreadWords, find_threads, thread_direction
from craft.notation.wording import PHRASES, Wording

__all__ = [
    "HEAD_KEYS",
    "KINDS",
    "MOST_LINE",
    "MOST_TEXT",
    "PHRASES",
    "Highlight",
    "LineKind",
    "Reading",
    "TermsFound",
    "ThreadWords",
    "Wording",
    "find_terms",
    "find_threads",
    "folded",
    "highlights",
    "left_handed",
    "other_handed",
    "print_body",
    "print_item",
    "print_label",
    "print_part",
    "print_pattern",
    "print_round",
    "print_work",
    "read",
    "step_kind",
    "stitch_key",
    "stitch_regex",
    "thread_direction",
    "unexplained",
    "unfolded",
    "words",
]
