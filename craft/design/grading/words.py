"""Her sentences at another size: the rounds they name are said anew, lengths grow with the figure, tools stay."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping

from craft.design.grading.measure import sold_eye

_WORD = r"(?:rounds?|rnds?\.?|rows?|R)"
_ROUNDS = re.compile(
    rf"(?<![\w.])(?P<word>{_WORD})(?P<gap>\s?)(?P<a>\d{{1,4}})"
    rf"(?:(?P<to>\s?(?:-|–|to|through|and|&)\s?)(?P<again>{_WORD}\s?)?(?P<b>\d{{1,4}}))?(?![\w.]*\d|-\w)",
    re.IGNORECASE,
)
_LENGTH = re.compile(
    r"(?<![\w.,/])(?P<n>\d{1,4}(?:[.,]\d{1,2})?)(?P<gap>\s?)(?P<unit>mm|cm|in(?:ch(?:es)?)?)\b", re.IGNORECASE
)
_TOOL = re.compile(r"(?i)^\W*(?:\(?[a-z]-?\d\)?\s*)?(?:crochet\s+)?(?:hook|needle|gauge|stitch\s+marker)")
_EYE = re.compile(r"(?i)^\W*(?:safety\s+|black\s+|brown\s+|glass\s+)*eyes?\b")
_GAP = re.compile(
    r"(?i)(?<![\w.,])(?P<n>\d{1,3})(?=\s+(?:visible\s+)?(?:stitch(?:es)?|sts?)\.?\s+(?:\w+\s+){0,2}(?:between|apart))"
)


def resaid(text: str, tops: Mapping[int, int], scale: float) -> str:
    """A sentence with the rounds and lengths of the new size. tops: the round that stands for each of the first size."""
    text = rounds_resaid(text, tops)
    text = _GAP.sub(lambda m: str(_gap(int(m["n"]), scale)), text)
    return lengths_resaid(text, scale)


def rounds_resaid(text: str, tops: Mapping[int, int]) -> str:
    """A sentence with the rounds that stand for those it names."""
    return _ROUNDS.sub(lambda m: _rounds(m, tops), text)


def lengths_resaid(text: str, scale: float) -> str:
    """A sentence with the lengths of the new size, where its rounds are the same."""
    return _LENGTH.sub(lambda m: _length(m, scale), text)


def _rounds(m: re.Match[str], tops: Mapping[int, int]) -> str:
    first = int(m["a"])
    if m["b"] is None:
        return f"{m['word']}{m['gap']}{tops.get(first, first)}"
    last = int(m["b"])
    if first not in tops and last not in tops:
        return m.group(0)
    if last == first + 1 and re.search(r"and|&", m["to"]):
        # 'between R7 and R8': a place, which lies above the round that stands for the lower one.
        below = tops.get(first, first)
        return f"{m['word']}{m['gap']}{below}{m['to']}{m['again'] or ''}{below + 1}"
    begin = tops.get(first - 1, first - 1) + 1
    end = max(tops.get(last, last), begin)
    if end == begin:
        return f"{m['word']}{m['gap']}{begin}"
    return f"{m['word']}{m['gap']}{begin}{m['to']}{m['again'] or ''}{end}"


def _gap(stitches: int, scale: float) -> int:
    """Stitches between two things: odd ones stay odd, so that they stay in the middle."""
    odd = stitches % 2
    return max(odd or 2, odd + 2 * round((stitches * scale - odd) / 2))


def _length(m: re.Match[str], scale: float) -> str:
    behind = m.string[m.end() :]
    if _TOOL.match(behind):
        return m.group(0)
    said = float(m["n"].replace(",", "."))
    unit = m["unit"].lower()
    if _EYE.match(behind) and unit == "mm":
        return f"{sold_eye(said * scale)}{m['gap']}{m['unit']}"
    return f"{_rounded(said * scale, unit)}{m['gap']}{m['unit']}"


def _rounded(value: float, unit: str) -> str:
    """A length as one measures it: whole millimetres, half centimetres below ten, quarter inches."""
    step: Callable[[float], float] = {
        "mm": lambda v: max(1, round(v)),
        "cm": lambda v: max(0.5, round(v * 2) / 2) if v < 10 else round(v),
    }.get(unit, lambda v: max(0.25, round(v * 4) / 4))
    return f"{step(value):g}"
