"""Stitches worked together, told by what the hook does: 'draw up a loop in each of next 2 sts, yarn over and draw through
all 3 loops on hook' is a decrease."""

from __future__ import annotations

import re

from craft.rounds.numbers import CARDINALS

_NUMBER = rf"(?:\d|{'|'.join(CARDINALS)})"
_STITCH = r"(?:s\s?t\s?s?|s\s?c|d\s?c|stitch(?:es)?|single\s+crochets?|double\s+crochets?)\b\.?"
_OVER = (
    r"(?:yarn\s+over|y\.?\s?o\.?\s?h?\.?|yarn\s+round(?:\s+the)?\s+hook|y\.?\s?r\.?\s?h\.?|wrap\s+(?:the\s+)?yarn)"
    r"(?:\s+(?:the\s+)?hook)?"
)
_INSERT = (
    rf"(?:insert\s+(?:the\s+|your\s+)?hook\s+(?:in|into)\s+(?:the\s+)?next\s+{_STITCH}\s*,?\s*"
    rf"(?:{_OVER}\s*,?\s*)?(?:and\s+)?)"
)
_UP = r"(?:draw|pull)\s+(?:up|through)\s+a\s+(?:loop|lp)"
_IN_NEXT = rf"(?:\s+(?:in|into|through|from)\s+(?:each\s+of\s+)?(?:the\s+)?next\s+(?:{_NUMBER}\s+)?{_STITCH})?"
_OF_NEXT = re.compile(rf"(?i)\bnext\s+({_NUMBER})\s")
_OFTEN = rf"(?P<often>twice|two\s+times|{_NUMBER}\s*(?:times|x))"
_DRAW = r"(?:draw|pull)(?:\s+(?:it|yarn|the\s+yarn))?\s+"
_THROUGH = (
    rf"(?:{_OVER}\s*,?\s*(?:and\s+)?(?:then\s+)?(?:{_DRAW})?|(?:and\s+)?(?:then\s+)?{_DRAW})(?:off\s+)?through\s+(?:all\s+)?(?:of\s+)?(?:the\s+)?"
    rf"(?:(?P<loops>{_NUMBER})\s+)?(?:loops|lps)(?:\s+on\s+(?:the\s+|your\s+)?hook)?"
)
_DRAWN_UP = re.compile(
    rf"(?i)[(\[]?\s*(?P<up>{_INSERT}?{_UP}{_IN_NEXT}(?:\s*,?\s*(?:and\s+|then\s+)*{_INSERT}?{_UP}{_IN_NEXT})*)\s*[)\]]?\s*{_OFTEN}?"
    rf"\s*[,;]?\s*(?:then\s+)?{_THROUGH}"
)


def drawn_together(text: str) -> str:
    """A line with such words as 'dec', or '3tog' over three stitches; as it is where the stitches and the loops that are
    drawn through do not agree, or only one stitch is drawn up."""
    return _DRAWN_UP.sub(_named, text)


def _named(m: re.Match[str]) -> str:
    each = _OF_NEXT.search(m["up"])
    often = re.sub(r"(?i)\s*(?:times|x)$", "", m["often"] or "")
    told = len(_EACH_UP.findall(m["up"]))
    loops = _number(m["loops"] or "")
    over = _number(each[1]) if each else 2 if often.lower() == "twice" else _number(often) if often else told
    if over < 2 or loops not in (0, over + 1):  # as many loops as stitches, and the one before
        return m.group(0)
    ahead = " " if m.group(0)[:1].isspace() else ""
    return f"{ahead}dec" if over == 2 else f"{ahead}{over}tog"


_EACH_UP = re.compile(_UP, re.IGNORECASE)


def _number(said: str) -> int:
    small = said.strip().lower()
    return int(small) if small.isdigit() else CARDINALS.get(small, 0)
