"""Rounds told by naming others: 'as R1 to R4 of the nut', 'repeat the last 2 rounds 4 more times', 'work as LEFT LEG'."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from craft.rounds.numbers import CARDINALS
from craft.text.freehand.counts_told import number_of

_ROUND = (
    r"(?:rounds?|rnds?|rds?|rows?|reihen?|rh|rangs?|rg|hileras?|rig(?:a|he)|rij(?:en)?|r|runden?|rd|tours?|t|vueltas?|v|giri|giro"
    r"|toer(?:en)?)\.?"
)
_DIGITS, _NTH_END = r"\d{1,3}", r"(?:st|nd|rd|th|\.)?"
_N = rf"({_DIGITS}){_NTH_END}"


def _range(n: str) -> str:
    """One round or several, every number as `n` says."""
    return rf"{_ROUND}\s*{n}(?:\s*(?:-|to|and|bis|à|a|al|t/m|tot|en|et|y|e|&)\s*(?:{_ROUND}\s*)?{n})?"


_RANGE = _range(_N)
_MORE = r"(?P<times>\d{1,3}|one|two|three|four|five|six|seven|eight|nine|ten|once|twice)\s*(?:more\s+)?(?:times?|x)?"


@dataclass(frozen=True, slots=True)
class Reference:
    """Rounds named elsewhere.

    part: whose, '' of the same. first, last: which; None of all. latest: the last so many. times: how often, 0 when
    unsaid. behind: work that follows them. is_order: a line of its own. even: straight rounds.
    """

    part: str = ""
    first: int | None = None
    last: int | None = None
    latest: int | None = None
    times: int = 0
    behind: str = ""
    is_order: bool = True
    even: bool = False

    def picked(self, rounds: Sequence[tuple[int, str, int | None]]) -> list[tuple[int, str, int | None]] | None:
        """The rounds that are meant, None when there are none of that number."""
        if self.even:
            return [(rounds[-1][0] + 1, "sc around", None)] if rounds else None
        if self.latest is not None:
            return list(rounds[-self.latest :]) if len(rounds) >= self.latest else None
        first = self.first or 1
        last = self.last if self.last is not None else (rounds[-1][0] if self.first is None else first)
        chosen = [r for r in rounds if first <= r[0] <= last]
        return chosen if chosen and chosen[-1][0] == last else None


_LATEST = re.compile(
    rf"(?i)^\W*(?:and\s+)?(?:repeat|rep|work)\s+(?:the\s+)?(?:last|previous)\s+(?:(?P<n>\d{{1,2}}|two|three|four)\s+)?{_ROUND}\s+{_MORE}"
)
_OWN = re.compile(rf"(?i)^\W*(?:repeat|rep)\s+(?:of\s+)?{_RANGE}(?:[,;]?\s+(?:for\s+)?{_MORE})?")
_OF_PART = re.compile(
    rf"(?i)^\W*(?:(?:work|make|do|repeat|same)\s+)?(?:the\s+same\s+)?(?:as|like|same\s+as|exactly\s+as|wie|comme|como|come|zoals)\s+(?:(?:for|in)\s+)?{_RANGE}"
    r"(?:\s+(?:of|for|in|from)\s+(?:the\s+)?(?P<part>[^,.;:=\[(]{2,40}))?(?:[,;]?\s*(?:then|and\s+then)\s+(?P<behind>.+))?"
)
_WHOLE = re.compile(
    r"(?i)^\W*(?:(?:work|make|do|crochet|worked|häkeln|faire|hacer|fare|maak)\s+)?(?:(?:the|exactly\s+the)\s+same\s+)?(?:exactly\s+)?"
    r"(?:as|like|same\s+as|wie|comme|como|igual\s+que|come|zoals)\s+(?:(?:for|in|on)\s+)?(?:the\s+|das\s+|die\s+|der\s+|den\s+|la\s+|le\s+|el\s+|il\s+|de\s+|het\s+)?(?P<part>[^,.;:=\[(]{2,40}?)"
    rf"(?:\s+(?:to|up\s+to|until|through|bis|jusqu'au|hasta|fino\s+al|tot)\s+(?:and\s+including\s+)?(?:the\s+)?(?:end\s+of\s+)?(?:the\s+|zur\s+|zum\s+|la\s+|el\s+|le\s+)?(?:{_ROUND}\s*{_N}|{_N}\s*{_ROUND}))?"
    r"(?=[,.;]|\s*[(\[]\s*\d|\s+but\b|\s+aber\b|$).*$"
)
_PLAIN_ROUNDS = re.compile(
    rf"(?i)^\W*(?:then\s+|now\s+)?(?:work|crochet|make|do)\s+(?P<n>\d{{1,3}}|one|two|three|four|five|six|seven|eight|nine|ten)\s+(?:more\s+)?(?:plain|even|straight)\s+{_ROUND}"
)
_ROUNDS_EVEN = re.compile(
    rf"(?i)^\W*(?:then\s+|now\s+)?(?:work|crochet|make|do)\s+(?P<n>\d{{1,3}}|one|two|three|four|five|six|seven|eight|nine|ten)\s+(?:more\s+)?{_ROUND}\s+(?:even|plain|straight|without\s+(?:shaping|increasing))"
)
_EVEN = re.compile(
    rf"(?i)^\W*(?:work|go\s+on|continue|knit|crochet)?\s*(?:even|straight|plain|without\s+(?:shaping|increasing|changes))\s+(?:for\s+)?(?P<n>\d{{1,3}}|one|two|three|four|five|six|seven|eight|nine|ten)\s+(?:more\s+)?{_ROUND}"
)


_WORK_OF = re.compile(
    rf"(?i)^\W*(?:work|make|do|repeat|follow|crochet)\s+{_RANGE}\s+(?:of|for|from|as\s+(?:for|in|on)|like|just\s+as\s+(?:for|in|on))\s+(?:the\s+)?"
    r"(?P<part>[^,.;:=\[(]{2,40}?)(?=[,.;]|\s+then\b|$)"
)
_SAME = re.compile(
    r"(?i)^\W*(?:(?:work|make|do)\s+)?(?:exactly\s+)?(?:(?:the\s+)?same(?:\s+again)?|as\s+above|ditto)(?=[,.;]|\s+but\b|$)"
)


_NAMES_ROUNDS = re.compile(r"(?i)\W*(?:repeat|rep|as|like|same\s+as|work\s+as|wie|comme|como|come|zoals)\b")
_NTH = r"(\d{1,3})(?:st|nd|rd|th|e|ème|ª|º|°|\.)"
_NTH_FIRST = re.compile(
    rf"(?i)\b{_NTH}(?:\s*(?:-|to|and|bis|und|à|et|a|al|y|e|t/m|en|&)\s*{_NTH})?\s+(?P<row>{_ROUND})(?!\w)"
)
"""'repeat 2nd row', 'wie 2. Reihe'."""

_SPELT = re.compile(rf"(?i)\b({_ROUND})\s+({'|'.join(CARDINALS)})\b")
"""'same as row two'."""


_AS = (
    r"exactly\s+as|same\s+as|as|like|ditto|wie(?:\s+in)?|genau(?:so)?\s+wie|gleich\s+wie|(?:la\s+)?même\s+chose\s+que|uguale\s+al|(?:het)?zelfde\s+als|comme|pareil\s+que|identique\s+[àa]|idem(?:\s+(?:que|au))?|igual\s+(?:que|a)|como"
    r"|come|uguale\s+a|zoals|als|gelijk\s+aan|idem\s+als"
)
_REPEAT = (
    r"repeat|rep|redo|wiederhole|wdh|rép(?:éter|étez|ète)?|refaire|refaites|reprendre"
    r"|repetir|repite|repetimos|repita|ripetere|ripeti|herhaal|hh"
)
_AGAIN = r"wiederholen|wdh|noch\s*(?:ein)?mal|herhalen|again|encore\s+une\s+fois|otra\s+vez|di\s+nuovo"
_ARTICLES = r"(?:(?:the|work|for|in|of|der|die|das|den|dem|le|la|les|du|au|el|los|las|lo|il|i|de|het|l)\s+|l')*"
_PREVIOUS = (
    r"previous|last|vorherige[nr]?|vorige|letzte[nr]?|précédente?|dernier|dernière"
    r"|anterior|última|precedente|scorso|vorige|laatste"
)
_CALLED = re.compile(rf"(?i)^\W*(?:(?P<as>{_AS})|(?P<rep>{_REPEAT}))\s+{_ARTICLES}(?={_ROUND}\s*\d)")
_CALLED_NTH = re.compile(rf"(?i)^\W*(?:{_AS})\s+{_ARTICLES}{_NTH}\W*$")
"""'as 6th.', 'wie 6.': all that a round says."""
_CALLED_BEHIND = re.compile(rf"(?i)^\W*{_ARTICLES}(?P<range>{_range(_DIGITS + _NTH_END)})\s+(?:{_AGAIN})\b")
_CALLED_PREVIOUS = re.compile(
    rf"(?i)^\W*(?:(?:{_AS}|{_REPEAT})\s+{_ARTICLES}(?:(?:{_PREVIOUS})\s+{_ROUND}|{_ROUND}\s+(?:{_PREVIOUS}))"
    rf"|{_ARTICLES}(?:(?:{_PREVIOUS})\s+{_ROUND}|{_ROUND}\s+(?:{_PREVIOUS}))\s+(?:{_AGAIN}))(?![^\W\d_])\s*(?=[.,;([]|$)"
)
"""'comme le tour 5', 'Runde 5 wiederholen', 'repetir la vuelta anterior': how another round is called, in six languages."""

_UP_TO = re.compile(
    rf"(?i)^\W*(?:[^.;:=\[(\d]{{1,40}}[\s,])?(?:{_AS})\s+{_ARTICLES}(?P<part>[^,.;:=\[(\d]{{2,40}}?),?"
    r"\s+(?:up\s+to|to|until|till|through|thru|bis(?:\s+einschließlich|\s+inklusive)?|jusqu'(?:à|au)|hasta|fino\s+a(?:l|lla)?"
    r"|t/m|tot(?:\s+en\s+met)?)\s+(?:and\s+including\s+|(?:the\s+)?end\s+of\s+)?(?:zu[rm]\s+|(?:the|la|le|el|il|de|der|die)\s+)?"
    rf"(?:{_ROUND}\s*(\d{{1,3}})|(\d{{1,3}})(?:st|nd|rd|th|e|ème|\.?[ªº°]|\.)?\s+{_ROUND})(?!\w)"
)
"""'In Weiß wie den Hut bis zur 6. Runde häkeln': a part up to a round, said of another."""


def _plainly(text: str) -> str:
    """A reference of any of the languages with the words that English has for it: 'wie in Runde 5' as 'as Runde 5'."""
    if (m := _CALLED.match(text)) is not None:
        return f"{'as' if m['as'] else 'repeat'} {text[m.end() :]}"
    if (m := _CALLED_BEHIND.match(text)) is not None:
        return f"repeat {m['range']}{text[m.end() :]}"
    if (m := _CALLED_NTH.match(text)) is not None:
        return f"as round {m[1]}"
    return text


def _many(said: str | None) -> int:
    if said is None:
        return 0
    return {"once": 1, "twice": 2}.get(said.lower()) or number_of(said, "en") or 1


def reference_in(text: str, language: str) -> Reference | None:
    """The reference that a round or a line is, None when it is none."""
    text = _SPELT.sub(lambda m: f"{m[1]} {CARDINALS[m[2].lower()]}", text.strip())
    if _NAMES_ROUNDS.match(text):
        text = _NTH_FIRST.sub(lambda m: f"{m['row']} {m[1]}" + (f" - {m[2]}" if m[2] else ""), text, count=1)
    text = _plainly(text)
    if _CALLED_PREVIOUS.match(text) is not None and _LATEST.match(text) is None:
        return Reference(latest=1, times=1)
    if m := _LATEST.match(text):
        return Reference(latest=_many(m.group("n")) or 1, times=_many(m.group("times")))
    if m := _EVEN.match(text) or _PLAIN_ROUNDS.match(text) or _ROUNDS_EVEN.match(text):
        return Reference(even=True, times=_many(m.group("n")))
    if m := _OWN.match(text):
        first = int(m.group(1))
        return Reference(first=first, last=int(m.group(2) or first), times=_many(m.group("times")))
    if m := _WORK_OF.match(text):
        first = int(m.group(1))
        return Reference(m.group("part").strip(), first, int(m.group(2) or first))
    if m := _OF_PART.match(text):
        first = int(m.group(1))
        part = re.sub(r"(?i)\s+(?:then|and)$", "", (m.group("part") or "").strip())
        return Reference(
            part, first, int(m.group(2) or first), behind=(m.group("behind") or "").strip(), is_order=False
        )
    if m := _UP_TO.match(text):
        return Reference(m["part"].strip(), None, int(m.group(2) or m.group(3)))
    if m := _WHOLE.match(text):
        last = m.group(2) or m.group(3)
        return Reference(m.group("part").strip(), None, int(last) if last else None)
    return None


def is_the_same(text: str) -> bool:
    """Whether a line says that a part is worked as the one before: 'the same, but do not cut the yarn'."""
    return _SAME.match(text) is not None


def _stem(word: str) -> str:
    small = word.lower()
    return small[:4] if len(small) > 4 else small.rstrip("s")


def _letters(name: str) -> set[str]:
    """Letters that tell like parts apart: 'Shell A'."""
    return (
        set(re.findall(r"(?<![\w'])[A-Z](?![\w'])", name.upper())) if re.search(r"\s[A-Za-z]$", name.strip()) else set()
    )


def part_called(said: str, names: Sequence[str]) -> str | None:
    """The part that words name, by the words that they share; None when none does."""
    wanted = {_stem(w) for w in re.findall(r"[^\W\d_]+", said)}
    best = max(names, key=lambda n: len(wanted & {_stem(w) for w in re.findall(r"[^\W\d_]+", n)}), default=None)
    if best is None or not wanted & {_stem(w) for w in re.findall(r"[^\W\d_]+", best)}:
        return None
    asked, own = _letters(said), _letters(best)
    return best if not asked or not own or asked & own else None  # 'Shell V', where there is a Shell A
