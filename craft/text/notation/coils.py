"""Tubes rolled up: "Coil the tube, wide end outside, and sew it to itself", "Roll up R1 to R40 and sew the turns together"."""

from __future__ import annotations

import re

from craft.rounds.pattern import Coil

COIL_WORDS = re.compile(
    r"(?i)\b(?:coil|roll|curl|spiral)(?:\s+up)?\b[^.!]{0,120}?\b(?:sew|stitch)\b[^.!]{0,60}?"
    r"\b(?:itself|themselves|own\s+rounds|turns?|windings?|each\s+other|together)\b"
)
"""How a direction to roll a tube up and sew it to itself reads."""

_NUMBER = r"(?:r|rnds?|rounds?)\.?\s*(\d{1,4})"
_ROUNDS = re.compile(rf"(?i)\b{_NUMBER}\b[^.;]{{0,40}}?\s*(?:to|[-–—])\s*(?:{_NUMBER}|(\d{{1,4}})\b)")
_WIDE_INSIDE = re.compile(
    r"(?i)\b(?:wid(?:e|er)|thick(?:er)?|open)\s+end\b[^.;]{0,20}\b(?:inside|in\s+the\s+(?:middle|centre|center))"
    r"|\b(?:narrow(?:er)?|thin(?:ner)?)\s+end\b[^.;]{0,20}\boutside"
)


def find_coil(text: str) -> Coil | None:
    """What a direction rolls up, None when it rolls nothing up."""
    told = COIL_WORDS.search(text)
    if told is None:
        return None
    rounds = _ROUNDS.search(text, told.start())
    if rounds is None:
        return Coil(wide_inside=bool(_WIDE_INSIDE.search(text)))
    inner, outer = int(rounds[1]), int(rounds[2] or rounds[3])
    return Coil(inner, outer) if inner != outer and min(inner, outer) > 0 else Coil()
