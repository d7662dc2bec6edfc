"""What stands behind a round's work: its count in any form, the number of rounds of a fold, a remark."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from craft.text.freehand.counts_told import UNIT, before_count, behind_count, counts_told, number_of, number_words
from craft.text.freehand.lexicon import stitch_words

_ROUNDS = r"(?:rounds?|rnds?|rows?|runden|rd|tours?|vueltas|giri|toeren|rondes|reihen)"


@dataclass(frozen=True, slots=True)
class Tail:
    """A round's words cut up. work; count, None when none is said; fold: how many rounds are said; remark behind.

    sure: the count stands in a form that is nothing else.
    """

    work: str
    count: int | None = None
    fold: int | None = None
    remark: str = ""
    sure: bool = True


@cache
def _patterns(language: str) -> tuple[tuple[re.Pattern[str], bool], ...]:
    """Signs and places that tell a number for a count, and whether they surely do."""
    n = number_words(language)
    unit, needed = rf"(?:\s*{UNIT}){{0,2}}", rf"(?:\s*{UNIT}){{1,2}}"
    end = r"\s*[.!]?\s*$"
    no_fold = r"(?!\s*(?:x\s*\d|\*\s*\d|\d+\s*(?:x|times)|around|twice|in\s+(?:the\s+)?(?:last|next|same|each|every|first|one)\b))"
    in_bracket = rf"(?:=\s*|{before_count(language)})\**({n})\**{unit}{behind_count(language)}"
    ways = (
        (rf"[\[({{<]\s*{in_bracket}\s*[\])}}>]{no_fold}", True),
        (rf"[=~]\s*\**({n})\**{unit}(?![\w(])(?!\s*x\b)", True),
        (rf"(?:~|[.,;:-])\s*({n})\s*{needed}{end}", True),
        (rf"(?://|(?<=\s)/|\.{{2,}}|…)\s*({n}){unit}{end}", True),
        (rf"\bfor\s+({n}){needed}{end}", True),
        (rf"(?<=\bto)\s+({n}){unit}{end}", True),
        (rf"(?<=[\])}}])\s*[:;=]\s*({n}){unit}{end}", True),
        (rf"(?<=[\])}}*])\s*({n})(?!\s*x\W*$){needed}{end}", True),
        (rf"(?<=[\s)\]])-\s*({n}){unit}\s*[.!-]?\s*$", True),
        (rf"(?:(?<=x\d)|(?<=[a-z]{{2}}))-({n})\s*$", False),
        (rf"(?:[,:;]|(?<=[^\W\d])[.]|(?<=\d)[.](?=\s))\s*({n}){end}", False),
        (rf"(?:,\s*|\b(?:stitch|st|sts|stitches|around|end|round)\s+)for\s+({n}){end}", False),
        (rf"(?<=[\])}}*])\s*-?\s*({n})(?!\s*x\b){end}", False),
        (r"(?<=[\w)\]])(?<!\sx)\s+(\d{1,4})\s*$", False),
    )
    return tuple((re.compile(rf"(?i){way}"), sure) for way, sure in ways)


_MAY_REPEAT = re.compile(r"(?i)[^=(\[{<\d]*\d{1,2}\s*x\W*$")
"""', 6x' behind work: how often it is done, or six stitches where an X is one."""


@cache
def _fold(language: str) -> re.Pattern[str]:
    n = number_words(language)
    return re.compile(
        rf"(?i)[,;(\[{{-]?\s*(?:for\s+|during\s+)?(?<!\w)({n})\s+(?:more\s+)?{_ROUNDS}\b[^(\[)\].;=~\d{{}}]{{0,30}}[)\]}}]?|x\s*(\d{{1,3}})\s+{_ROUNDS}"
    )


_COUNT_BEFORE = re.compile(r"(\d{1,4})\s*(?:sts?\.?\s*)?[(\[]([^()\[\]]*[^\W\d_]{2}[^()\[\]]*)[)\]]\s*\.?")
"""'18 (inc every 2nd st)': the count, and behind it how it is reached."""

_COUNT_AND_HOW = re.compile(r"(\d{1,4})\s*(?:sts?\.?\s*)?,\s*([^\W\d_][^\d()\[\]*,]*)")
"""'24, no increases'."""


_SAID_COUNT = re.compile(
    rf"(?i)[,;:.-]\s*(?P<words>(?:[^\W\d_]{{2,}}'?\s+){{1,5}})(?P<n>\d{{1,4}})(?:\s*{UNIT}){{0,2}}(?:\s+[^\W\d_]{{2,}}){{0,3}}\s*[.!]?$"
    rf"|[,;:.-]\s*(?P<total>\d{{1,4}})(?:\s*{UNIT})?\s+(?:(?:en|im|in|au|al)\s+(?:total|tout|ganzen|tutto|totaal)\w*|am\s+ende|at\s+the\s+end|à\s+la\s+fin|al\s+final|alla\s+fine|aan\s+het\s+eind\w*|op\s+het\s+eind\w*)\s*[.!]?$"
)
"""': vous avez 12 mailles', ', das gibt 12': a clause of its own in which nothing is but a number of stitches."""

_PLACED = frozenset({
    "in", "into", "next", "last", "each", "every", "round", "rounds", "rnd", "row", "the", "over", "x", "until", "for", "skip",
    "to", "den", "die", "jede", "dans", "les", "cada", "en", "los", "ogni", "elke", "de", "nächsten", "prochaines",
})  # fmt: skip
"""Words before a number that is a place, and no count."""


def _placed(words: str) -> bool:
    said = set(words.lower().split())
    return bool(said & _PLACED or said & stitch_words())


def tails(text: str, language: str = "en") -> list[Tail]:
    """The ways of cutting a round's words up, likeliest first; the last is that no count is said at all."""
    text = text.strip()
    fold: int | None = None
    if (m := _fold(language).search(text)) and not _is_of_another(text, m.start(), language):
        fold = number_of(m.group(1) or m.group(2), language)
        text = f"{text[: m.start()]} {text[m.end() :]}".strip()
    found: list[Tail] = []
    if m := _COUNT_BEFORE.fullmatch(text):
        found.append(Tail(m.group(2), int(m.group(1)), fold, sure=text[m.end(1)] != "("))  # but '6(sc, inc)'
    if m := _COUNT_AND_HOW.fullmatch(text):
        found.append(Tail(m.group(2).strip(" ."), int(m.group(1)), fold, sure=False))
    for pattern, sure in _patterns(language):
        for m in reversed(list(pattern.finditer(text))):
            work, remark = _work(text[: m.start()]), text[m.end() :].strip(" .,;:")
            if not work and not sure:
                continue
            tail = Tail(work, number_of(m.group(1), language), fold, remark, sure and not _MAY_REPEAT.match(m.group(0)))
            if tail not in found:
                found.append(tail)
    for told in counts_told(text, language):
        tail = Tail(_work(text[: told.start]), told.count, fold, text[told.end :].strip(" .,;:"))
        found += [tail] if tail not in found else []
    if (said := _SAID_COUNT.search(text)) is not None and not _placed(said["words"] or ""):
        work = text[: said.start()].strip(" ,;:=-~")
        found.append(Tail(work, int(said["n"] or said["total"]), fold, "", sure=False))
    found.sort(key=lambda t: (not t.sure, len(t.remark) > 0))
    bare = Tail(text.strip(" ,;:=-~"), None, fold)
    return [*found, bare]


def _is_of_another(text: str, at: int, language: str) -> bool:
    """Whether what stands there is told by a sentence behind one with a count: '(24). Work 2 rounds even'."""
    first = next(iter(sentences(text)), "")
    if at < len(first):
        return False
    return _ENDS_IN_COUNT.search(first) is not None or any(
        told.end > len(first) - 2 for told in counts_told(first, language)
    )


_ENDS_IN_COUNT = re.compile(r"[(\[]\s*=?\s*\d{1,4}\s*(?:[^\W\d_]{1,8}\.?\s*)?[)\]]\s*\.\s*$")


def _work(said: str) -> str:
    """The words before a count, without the signs around them; '-6' keeps the sign that is all it says."""
    return said.strip(" ,;:=~") if _LESS.fullmatch(said) else said.strip(" ,;:=-~")


_LESS = re.compile(r"\s*-\d{1,2}[\s=:,]*")
"""'-6 =': a change, and no dash before a number of stitches."""


def sentences(text: str) -> list[str]:
    """The sentences of a round's words; abbreviations with a dot do not end one."""
    pieces = re.split(r"(?<=[\w)\]*][.!])\s+(?=[A-ZÀ-Ý*~]|[(\[](?!\s*=?\s*\d+\s*(?:[^\W\d_]{1,8}\.?\s*)?[)\]]))", text)
    found: list[str] = []
    for piece in pieces:
        starred = bool(found) and "*" in found[-1] and _AGAIN.search(found[-1]) is None
        nth = bool(found) and _NTH_ENDS.search(found[-1]) is not None
        if found and (
            nth or _COUNT_ALONE.fullmatch(piece.strip()) or (starred and any(_AGAIN.search(p) for p in pieces))
        ):
            found[-1] = f"{found[-1]} {piece}"  # '*1 sc in next sc. Sc2tog. Rep from * around. 16 sc.' is one
        elif piece.strip():
            found.append(piece)
    return found


_NTH_ENDS = re.compile(
    r"(?i)(?:\b(?:als|die|der|das|den|dem|jede[rnms]?|in|zur|bis|und|u\.)|\(|\d\.\s?\+)\s*\d{1,3}\.$"
)
"""'in die 3. Lm': a number in German, and no end of a sentence."""
_AGAIN = re.compile(r"(?i)\brep(?:eat)?\b")
_COUNT_ALONE = re.compile(rf"(?i)\d{{1,4}}\s*{UNIT}\s*[.!]?")
