"""What stands behind a round's work: its count in any form, the number of rounds of a fold, a remark."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from craft.text.freehand.lexicon import Sort, stitch_words, words_of

_UNIT = (
    r"(?:d\.\s?c|s\.\s?c|h\.\s?d\.\s?c|stitches\s+total|stitches|sts?|h?[sd]cs|sc|dc|hdc|htr|d?tr|brs?|d?stb|hstb|stk|pa|x|m|maschen?|fm|mailles?|ms|pts?|ptos?|p|punt(?:os?|i)|pb|mp|maglie|m\.?b|p\.\s?b|m\.\s?s|steken|v|vasten|loops|st|total|"
    r"made|in\s+(?:all|total)|stitches\s+total|sts?\s+total|sts?\s+each\s+round|(?:in\s+)?each(?:\s+(?:round|rnd|rd|time|of\s+them))?)(?![^\W\d_])\.?"
)
_IN_ALL = (
    r"(?:total(?:e|es|\s+of|\s+de)?|tot\.?|totaal|insgesamt|gesamt|ges\.|zus\.|zusammen|en\s+(?:tout|total)|au\s+total|in\s+(?:all|total|tutto|totaal)"
    r"|(?:st(?:itch)?\s+)?count|sts|stitches|maschen(?:zahl)?|mailles|puntos|maglie|steken|now|jetzt|nun|macht|ergibt|gibt|soit|quedan|makes|you\s+have)"
)
_IN_ALL_BEHIND = (
    r"(?:en\s+(?:tout|total)|au\s+total|in\s+(?:all|total|totale|tutto|totaal)|insgesamt|gesamt|totali?|altogether|now)"
)
"""'(total 24)', '(sts: 24)', '[insgesamt 24 M]': what may stand before a count in its bracket."""
_ROUNDS = r"(?:rounds?|rnds?|rows?|runden|rd|tours?|vueltas|giri|toeren|rondes|reihen)"


@cache
def _number(language: str) -> str:
    words = [w for table in (words_of("en"), words_of(language)) for w, m in table.items() if m.sort is Sort.NUMBER]
    return r"(?:\d{1,5}|" + "|".join(sorted(map(re.escape, words), key=lambda w: (-len(w), w))) + ")"


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


_OUGHT_TO_HAVE = (
    r"(?:vous|tu|on)\s+(?:devez|devriez|dois|devrais|doit|devrait)\s+(?:maintenant\s+)?avoir"
    r"|(?:debes|deber[ií]as|debemos|tienes\s+que|hay\s+que)\s+tener(?:\s+ahora)?"
    r"|(?:dovrest[ie]|dovremmo|devi|dovete)\s+avere(?:\s+ora)?"
    r"|(?:du\s+(?:solltest|müsstest)|(?:solltest|müsstest)\s+du|wir\s+sollten|sollten\s+wir)(?:\s+(?:nun|jetzt|dann|insgesamt))*"
    r"|(?:je\s+moet|moet\s+je|je\s+zou)(?:\s+(?:nu|dan))*"
)
"""'Vous devez avoir 18 mailles', 'du solltest jetzt 18 Maschen haben'."""


_HAVING = (
    rf"(?!zus){_IN_ALL}|in\s+totale|(?:for|per|für|pour|por|voor)\s+(?:a|un|ein|een)\s+tota\w+(?:\s+(?:of|di|von|de|van))?|il\s+y\s+(?:en\s+)?a"
    r"|(?:(?:jetzt|nun|dann)\s+)?(?:sind\s+es|es\s+sind)(?:\s+(?:nun|jetzt|dann|wieder))*"
    r"|(?:(?:ora|adesso|così)\s+)?(?:hai|abbiamo|avete|avrete|avremo|avrai|ci\s+sono)(?:\s+(?:ora|adesso))?"
    r"|(?:(?:ahora|así)\s+)?(?:hay|tienes|tenemos|tendrás|tendremos|quedan)(?:\s+ahora)?"
    r"|(?:(?:je|we|nu)\s+)?(?:hebben|heb|hebt|houd|krijg)(?:\s+(?:je|we|nu|er|dan))*(?:\s+over)?|(?:dat|er)\s+zijn(?:\s+(?:er|nu|dan))*"
    r"|(?:(?:maintenant|alors)\s+)?(?:vous|tu|on|nous)\s+(?:en\s+)?(?:avez|as|a|avons|aurez|auras|aura|aurons)(?:\s+maintenant)?"
)
"""'In totaal 18 steken.', 'Ora hai 18 maglie.': how a sentence behind a round begins that says its count."""


@cache
def _patterns(language: str) -> tuple[tuple[re.Pattern[str], bool], ...]:
    n = _number(language)
    unit, needed = rf"(?:\s*{_UNIT}){{0,2}}", rf"(?:\s*{_UNIT}){{1,2}}"
    return (
        (
            re.compile(
                rf"(?i)[\[({{<]\s*(?:=\s*|{_IN_ALL}\s*[:=]?\s*)?\**({n})\**{unit}(?:\s+{_IN_ALL_BEHIND})?\s*[\])}}>](?!\s*(?:x\s*\d|\*\s*\d|\d+\s*(?:x|times)|around|twice|in\s+(?:the\s+)?(?:last|next|same|each|every|first|one)\b))"
            ),
            True,
        ),
        (re.compile(rf"(?i)[=~]\s*\**({n})\**{unit}(?![\w(])(?!\s*x\b)"), True),
        (re.compile(rf"(?i)(?:~|[.,;:-])\s*({n})\s*{unit.replace('{0,2}', '{1,2}')}\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)(?:~|[.,;:-])\s*({n}){unit}\s+{_IN_ALL_BEHIND}\s*[.!]?\s*$"), True),
        (
            re.compile(
                rf"(?i)(?:\bso|\bmakes|\b(?:gives|giving|leaves|leaving|makes|making)(?:\s+(?:you|us|a\s+total\s+of))?|\bfor\s+a\s+total\s+of|\bthat(?:\s+is|\s+makes)|quedan|soit|also|ossia|cioè|bleiben|restent|restano|rimangono|blijven(?:\s+er)?|es\s+decir|o\s+sea|dus|sind|macht|gibt|font|fait|sono|fanno|zijn|geeft|son|siempre|always|again|total|ergibt|=|~)\s*:?\s*(?:it\s+is\s+(?:again\s+)?)?({n}){unit}\s*[.!]?\s*$"
            ),
            True,
        ),
        (
            re.compile(
                rf"(?i)\b(?:brings?\s+(?:you|us|it)\s+(?:up\s+|back\s+)?to|there\s+(?:are|will\s+be)(?:\s+still|\s+now|\s+again)?|(?:are|is)\s+(?:down|up)\s+to|you(?:'ll|\s+(?:will|should|ought\s+to|must|now|still|then|again))*\s+(?:have|get))(?:\s+(?:now|a\s+total\s+of))?\s+({n}){unit}"
            ),
            True,
        ),
        (re.compile(rf"(?i)\bso\s+that\s+(?:only\s+)?({n}){unit}\s+(?:remain|are\s+left|stay)\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)(?:^|[.,;:-])\s*(?:{_HAVING})\s*:?\s*({n}){unit}\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)\b(?:{_OUGHT_TO_HAVE})\s+({n}){unit}(?:\s+(?:haben|hebben))?\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)(?://|(?<=\s)/|\.{{2,}}|…)\s*({n}){unit}\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)\bfor\s+({n}){needed}\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)(?<=\bto)\s+({n}){unit}\s*[.!]?\s*$"), True),
        (
            re.compile(
                rf"(?i)(?:(?:^|[.;,:-])\s*(?:only\s+)?({n}){unit}\s+(?:(?:are|is|will\s+be)\s+)?(?:left|rem(?:ain(?:ing)?)?|übrig|over|again|still|once\s+more|wieder|noch|encore|otra\s+vez|di\s+nuovo|weer)\b)\s*(?:[.!]?\s*$|(?=,\s+(?!turn|then|ch\b|sc\b)[a-z]{{3}}))"
            ),
            True,
        ),
        (
            re.compile(
                rf"(?i)\b(?:(?:es|da|dann|das)\s+(?:bleiben|sind|ergibt)(?:\s+(?:nun|jetzt|dann|insgesamt|wieder))?|(?:hast\s+du|haben\s+wir|habt\s+ihr|du\s+hast|wir\s+haben)(?:\s+(?:nun|jetzt|dann|insgesamt|wieder|immer\s+noch))?|(?:vous|tu|on)\s+(?:obtenez|obtiens|obtient|avez)(?:\s+(?:maintenant|alors|toujours))?|(?:obtienes|obtenemos|tendrás|tendremos)(?:\s+ahora)?|(?:ottieni|avrai|otteniamo|avremo)(?:\s+ora)?|(?:heb\s+je|je\s+hebt)(?:\s+nu)?|il\s+y\s+a\s+maintenant|ahora\s+(?:hay|son|tienes)|ora\s+(?:ci\s+sono|avete|sono)|(?:er\s+)?zijn\s+(?:er\s+)?nu|il\s+(?:vous\s+|en\s+)?reste|quedarán|(?:ne\s+)?(?:restano|rimangono)|(?:er\s+)?blijven(?:\s+er)?|you\s+end\s+(?:up\s+)?with|you'll\s+have|count:?)\s+(?:noch\s+|nog\s+|only\s+)?({n}){unit}\s*(?:übrig|over|left)?\s*[.!]?\s*$"
            ),
            True,
        ),
        (
            re.compile(
                rf"(?i)\b(?:until|till|bis|jusqu'à\s+ce\s+qu'il|hasta\s+que|finch[ée]|tot)\s+(?:only\s+|noch\s+|er\s+nog\s+|reste\s+|queden\s+|restano\s+)?"
                rf"({n}){needed}(?:\s+(?:remain|are\s+left|left|übrig\s+sind|übrig|over\s+zijn|rimangono))?\s*[.!]?\s*$"
            ),
            True,
        ),
        (re.compile(rf"(?i)(?<=[\])}}])\s*[:;=]\s*({n}){unit}\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)(?<=[\])}}*])\s*({n})(?!\s*x\W*$){needed}\s*[.!]?\s*$"), True),
        (re.compile(rf"(?i)(?<=[\s)\]])-\s*({n}){unit}\s*[.!-]?\s*$"), True),
        (re.compile(rf"(?i)(?:(?<=x\d)|(?<=[a-z]{{2}}))-({n})\s*$"), False),
        (re.compile(rf"(?i)(?:[,:;]|(?<=[^\W\d])[.]|(?<=\d)[.](?=\s))\s*({n})\s*[.!]?\s*$"), False),
        (re.compile(rf"(?i)(?:,\s*|\b(?:stitch|st|sts|stitches|around|end|round)\s+)for\s+({n})\s*[.!]?\s*$"), False),
        (re.compile(rf"(?i)(?<=[\])}}*])\s*-?\s*({n})(?!\s*x\b)\s*[.!]?\s*$"), False),
        (re.compile(r"(?<=[\w)\]])(?<!\sx)\s+(\d{1,4})\s*$"), False),
    )


_MAY_REPEAT = re.compile(r"(?i)[^=(\[{<\d]*\d{1,2}\s*x\W*$")
"""', 6x' behind work: how often it is done, or six stitches where an X is one."""


@cache
def _fold(language: str) -> re.Pattern[str]:
    n = _number(language)
    return re.compile(
        rf"(?i)[,;(\[{{-]?\s*(?:for\s+|during\s+)?(?<!\w)({n})\s+(?:more\s+)?{_ROUNDS}\b[^(\[)\].;=~\d{{}}]{{0,30}}[)\]}}]?|x\s*(\d{{1,3}})\s+{_ROUNDS}"
    )


def number_of(said: str, language: str) -> int:
    """A number in digits or in a language's words."""
    if said.isdigit():
        return int(said)
    for table in (words_of(language), words_of("en")):
        meaning = table.get(said.lower())
        if meaning is not None and meaning.sort is Sort.NUMBER:
            return int(meaning.value)
    return 0


_COUNT_BEFORE = re.compile(r"(\d{1,4})\s*(?:sts?\.?\s*)?[(\[]([^()\[\]]*[^\W\d_]{2}[^()\[\]]*)[)\]]\s*\.?")
"""'18 (inc every 2nd st)': the count, and behind it how it is reached."""

_COUNT_AND_HOW = re.compile(r"(\d{1,4})\s*(?:sts?\.?\s*)?,\s*([^\W\d_][^\d()\[\]*,]*)")
"""'24, no increases'."""


_SAID_COUNT = re.compile(
    rf"(?i)[,;:.-]\s*(?P<words>(?:[^\W\d_]{{2,}}'?\s+){{1,5}})(?P<n>\d{{1,4}})(?:\s*{_UNIT}){{0,2}}(?:\s+[^\W\d_]{{2,}}){{0,3}}\s*[.!]?$"
    rf"|[,;:.-]\s*(?P<total>\d{{1,4}})(?:\s*{_UNIT})?\s+(?:(?:en|im|in|au|al)\s+(?:total|tout|ganzen|tutto|totaal)\w*|am\s+ende|at\s+the\s+end|à\s+la\s+fin|al\s+final|alla\s+fine|aan\s+het\s+eind\w*|op\s+het\s+eind\w*)\s*[.!]?$"
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
    if (m := _fold(language).search(text)) and not _is_of_another(text, m.start()):
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
    if (said := _SAID_COUNT.search(text)) is not None and not _placed(said["words"] or ""):
        work = text[: said.start()].strip(" ,;:=-~")
        found.append(Tail(work, int(said["n"] or said["total"]), fold, "", sure=False))
    found.sort(key=lambda t: (not t.sure, len(t.remark) > 0))
    bare = Tail(text.strip(" ,;:=-~"), None, fold)
    return [*found, bare]


def _is_of_another(text: str, at: int) -> bool:
    """Whether what stands there is told by a sentence behind one with a count: '(24). Work 2 rounds even'."""
    first = next(iter(sentences(text)), "")
    return at >= len(first) and _ENDS_IN_COUNT.search(first) is not None


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
_COUNT_ALONE = re.compile(rf"(?i)\d{{1,4}}\s*{_UNIT}\s*[.!]?")
