"""Words of a round to tokens: every number, stitch and place handed over once, with its value."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from craft.remembered import of_short
from craft.rounds.stitches import STITCHES, Terms, stitch
from craft.text.freehand.lexicon import Meaning, Sort, by_stem, first_words, table_of

MOST_WORDS = 18
"""Words of the longest phrase of any table."""


@dataclass(frozen=True, slots=True)
class Token:
    """A phrase with its meaning. start, end: where it stands in the round's words."""

    sort: Sort
    value: int | str
    start: int
    end: int


@dataclass(frozen=True, eq=False)
class Vocabulary:
    """What words mean in one text. own: words that the text explains itself, and the names of its parts and colours."""

    language: str = "en"
    terms: Terms = Terms.US
    own: Mapping[str, Meaning] = field(default_factory=dict)

    def meaning(self, phrase: str) -> Meaning | None:
        """What a phrase in small letters means, None for one that is not known."""
        return self.own.get(phrase) or table_of(self.language, self.terms).get(phrase)

    def begins(self, word: str) -> bool:
        """Whether a word in small letters begins any phrase."""
        return word in self.own or word in first_words(self.language, self.terms)


_WORD = re.compile(
    r"(?i)(?P<ordinal>\d{1,4}(?:st|nd|rd|th|\.ª|ª|º|°|e|ème|er|ère|a(?=\s+(?:cat|cad|ca|m\b|maglia))|\.(?=\s*(?:und|u|y|et|e|en|m|masche|lm|luftmasche|cad|ml|verd[a-zäöü]*|zus|zusammen)\b|\s?\+\s?\d))(?!\w)"
    r"|(?<=und )\d{1,3}\.(?=\s*(?:[(\[]|$))|(?:(?<=jede )|(?<=jede[nrs] ))\d{1,3}\.(?=\s[a-zäöü]|\s*[)\]]|\s*$)"
    r"|(?:(?<=\.\+)|(?<=\. \+ ))\d{1,3}\.)"
    r"|(?P<number>\d{1,9})|(?P<dotted>(?<![^\W\d_])(?:[^\W\d_]\.){2,3}(?![^\W\d_]))|(?P<tog>(?<![^\W\d_])[^\W\d_]+\d?tog(?![^\W\d_]))"
    r"|(?P<word>[^\W\d_](?:[^\W\d_]|['’\-](?=[^\W\d_]))*)|(?P<sign>[(\[{)\]}*+,;:.&/x=!?|~-])"
)
_SIGNS = {
    "(": Sort.OPEN, "[": Sort.OPEN, "{": Sort.OPEN, ")": Sort.CLOSE, "]": Sort.CLOSE, "}": Sort.CLOSE,
    "*": Sort.STAR, ",": Sort.COMMA, ";": Sort.COMMA, ":": Sort.STOP, ".": Sort.STOP, "&": Sort.AND, "+": Sort.AND,
    "/": Sort.COMMA, "!": Sort.STOP, "?": Sort.STOP, "-": Sort.QUIET, "=": Sort.QUIET, "~": Sort.QUIET, "|": Sort.QUIET,
}  # fmt: skip


@of_short(4_096)
def tokens(text: str, vocabulary: Vocabulary) -> tuple[Token, ...]:
    """The tokens of a round's words, longest phrases first; what no table knows is noise, never left out."""
    raw = [_raw(m) for m in _WORD.finditer(text)]
    found: list[Token] = []
    at = 0
    while at < len(raw):
        kind, said, start, end = raw[at]
        if kind == "word" and (cut := _glued(said, vocabulary)):
            raw[at : at + 1] = [("word", said[:cut], start, start + cut), ("word", said[cut:], start + cut, end)]
        if kind == "word" and (cut := _elided(said, vocabulary)):
            raw[at : at + 1] = [("word", said[:cut], start, start + cut), ("word", said[cut:], start + cut, end)]
        if said == "x" and found and found[-1].sort in (Sort.CLOSE, Sort.STAR) and _is_number(raw, at + 1):
            found.append(Token(Sort.TIMES, 0, start, end))  # '*2X, A* x 6', where X is a stitch
            at += 1
            continue
        if kind in ("word", "tog"):
            many, token = _phrase(text, raw, at, vocabulary)
            found.append(token)
            at += many
            continue
        found.append(_sign(kind, said, start, end, text))
        at += 1
    return tuple(_around_posts(_without_compared(found, text)))


_COMPARED = re.compile(
    r"(?i)(?:\s+(?:as|that\s+has|where|wie|que|che|als|waar)(?:\s+(?:the|your|die|der|das|les?|la|el|los|las|il|i|de|het))?"
    r"\s+(?:very\s+)?(?:first|last|1st|ersten?|letzten?|premi[eè]re?s?|dernières?|primer[oa]?s?|prim[oaie]|eerste|laatste)"
    r"|(?<=first))(?:\s+\d(?=\s+[^\W\d]))?(?:\s+(?!and\b|und\b|et\b|en\b|y\b|e\b)[^\W\d]+)?"
)
"""'as the first 2 sc' behind 'in the same chain': stitches that are pointed at and not worked."""


def _without_compared(found: list[Token], text: str) -> list[Token]:
    """The tokens without the stitches that only tell which place 'the same' is: their words belong to its own."""
    kept: list[Token] = []
    passed = 0
    for token in found:
        if token.start < passed:
            continue
        kept.append(token)
        before = kept[-2].sort if len(kept) > 1 else None
        pointing = token.sort is Sort.SAME or (before is Sort.SAME and token.sort in (Sort.PLACE, Sort.CHAIN))
        if pointing and (compared := _COMPARED.match(text, token.end)) is not None and compared.group(0):
            passed = compared.end()
            kept[-1] = Token(token.sort, token.value, token.start, passed)
    return kept


_POSTED = frozenset((Sort.EACH, Sort.EVERY, Sort.NEXT, Sort.ORDINAL, Sort.LAST, Sort.SAME))


def _around_posts(found: list[Token]) -> list[Token]:
    """'fpdc around each st': stitches around posts are worked around what others are worked into."""
    for at in range(1, len(found) - 1):
        above, token, below = found[at - 1 : at + 2]
        post = above.sort is Sort.STITCH and str(above.value)[:2].isupper()
        if post and token.sort is Sort.AROUND and below.sort in _POSTED:
            found[at] = Token(Sort.IN, 0, token.start, token.end)
    return found


def _is_number(raw: list[tuple[str, str, int, int]], at: int) -> bool:
    return at < len(raw) and raw[at][0] == "number"


def _elided(said: str, vocabulary: Vocabulary) -> int:
    """Where a short word before an apostrophe ends that means something by itself, 'nell'ultima'; 0 for nowhere."""
    small = said.lower().replace("’", "'")
    cut = small.find("'") + 1
    if not cut or vocabulary.begins(small) or vocabulary.meaning(small[:cut]) is None:
        return 0
    return cut


_GLUES = (Sort.STITCH, Sort.RING, Sort.AROUND)


def _glued(said: str, vocabulary: Vocabulary) -> int:
    """Where a word that no table knows falls into a stitch and a ring, or two stitches: 'scMR', 'incsc'; 0 for nowhere."""
    small = said.lower()
    if small.endswith("x") and len(small) > 2 and (one := vocabulary.meaning(small[:-1])) is not None:
        return len(small) - 1 if one.sort is Sort.STITCH and vocabulary.meaning(small) is None else 0  # 'decx6'
    if small.startswith("x") and (one := vocabulary.meaning(small[1:])) is not None and one.sort is Sort.STITCH:
        return 1 if vocabulary.meaning(small) is None else 0  # '6xZ'
    if not 4 <= len(small) <= 8 or vocabulary.meaning(small) is not None or not small.isalpha():
        return 0
    for cut in range(2, len(small) - 1):
        meanings = [vocabulary.meaning(small[:cut]), vocabulary.meaning(small[cut:])]
        if all(m is not None and m.sort in _GLUES for m in meanings) and meanings[0] != meanings[1]:
            return cut
    return 0


def _raw(m: re.Match[str]) -> tuple[str, str, int, int]:
    """What the signs are, with them and their place; 'p.b.' is the word 'pb'."""
    kind = m.lastgroup or ""
    return ("word", m.group(0).replace(".", ""), *m.span()) if kind == "dotted" else (kind, m.group(0), *m.span())


_STAR_TIMES = re.compile(
    r"(?i)\*\s*\d+(?!\d)(?!\s+(?!around|in\s)[^\W\d_])(?!\s*(?:x|times|fois|mal|veces|volte|keer|more)\b)"
)


def _sign(kind: str, said: str, start: int, end: int, text: str) -> Token:
    if kind == "number":
        return Token(Sort.NUMBER, int(said), start, end)
    if kind == "ordinal":
        return Token(Sort.ORDINAL, int(re.match(r"\d+", said).group(0)), start, end)  # type: ignore[union-attr]
    if said == "*" and _STAR_TIMES.match(text, start) and re.search(r"[)\]}\w]\s*$", text[:start]):
        return Token(Sort.TIMES, 0, start, end)
    if said == "x":
        return Token(Sort.TIMES, 0, start, end)
    return Token(_SIGNS[said], said, start, end)


def _phrase(text: str, raw: list[tuple[str, str, int, int]], at: int, vocabulary: Vocabulary) -> tuple[int, Token]:
    """The longest known phrase from word `at`, and how many words it is."""
    words: list[str] = []
    best: tuple[int, Meaning] | None = None
    for many, (kind, said, start, _) in enumerate(raw[at : at + MOST_WORDS], 1):
        if said == "." and len(words) == 1 and len(words[0]) == 1:
            continue  # 'm. bassa': a letter for a word
        if many > 1 and (kind == "sign" or text[raw[at + many - 2][3] : start].strip()):
            break
        words.append(said.lower().replace("’", "'"))
        meaning = vocabulary.meaning(" ".join(words))
        if meaning is not None:
            best = many, meaning
    first = raw[at]
    if first[1].lower() == "cm" and at and raw[at - 1][0] == "number" and not (first[1].isupper() and at == 1):
        return 1, Token(Sort.NOISE, first[1], first[2], first[3])  # '10 cm' is a length, where a ring is 'cm' too
    letter = _LETTERS.get(vocabulary.language, {}).get(first[1])
    if letter is not None and at and raw[at - 1][0] == "number" and first[1].lower() not in vocabulary.own:
        return 1, Token(Sort.STITCH, letter, first[2], first[3])
    if best is not None:
        many, meaning = best
        return many, Token(meaning.sort, meaning.value, first[2], raw[at + many - 1][3])
    return 1, _unknown(first, vocabulary)


_LETTERS = {
    "de": {"Z": "inc", "A": "dec"},
    "fr": {"A": "inc", "D": "dec"},
    "es": {"A": "inc", "D": "dec"},
    "it": {"A": "inc", "D": "dec"},
    "nl": {"M": "inc"},
}
"""Capitals behind a number, by language: 'R2 6Z', '(1 ms 1A) x6'. Common practice, no source."""

_STITCH_LIKE = re.compile(r"[b-df-hj-np-tv-xze]{1,3}(?:h?dc|sc|tr)s?")
"""'crsc', 'exdc': a stitch that no table has, and no word to pass over."""

_POSTS = ("fp", "bp")
"""Before a stitch: worked around the post of the stitch below, from the front or from the back."""

_TOGETHER = re.compile(r"(?:([a-zé]+))?(\d)tog")


def _unknown(word: tuple[str, str, int, int], vocabulary: Vocabulary) -> Token:
    """A word that no table knows: a name of this text's own, an apostrophe's half, or noise."""
    _, said, start, end = word
    small = said.lower().replace("’", "'")
    if (together := _TOGETHER.fullmatch(small)) and not 2 <= int(together.group(2)) <= 9:
        return Token(Sort.ODD, said, start, end)
    if together:
        base = vocabulary.meaning(together.group(1) or "sc")
        key = f"{base.value}-dec{together.group(2)}" if base and base.value != "sc" else f"dec{together.group(2)}"
        key = key.removesuffix("2")
        return Token(Sort.STITCH, key if key in STITCHES else "dec", start, end)
    if "'" in small:
        behind = vocabulary.meaning(small.split("'", 1)[1])
        if behind is not None and behind.sort not in (Sort.QUIET, Sort.AND):
            return Token(behind.sort, behind.value, start, end)
    if small.endswith("s") and (one := vocabulary.meaning(small[:-1])) is not None and one.sort is Sort.STITCH:
        return Token(one.sort, one.value, start, end)
    around = vocabulary.meaning(small[2:]) if small[:2] in _POSTS else None
    if around is not None and around.sort is Sort.STITCH:
        return Token(Sort.STITCH, f"{small[:2].upper()}{around.value}", start, end)
    if _STITCH_LIKE.fullmatch(small) is not None:
        return Token(Sort.ODD, said, start, end)
    if (form := by_stem(small, vocabulary.language)) is not None:
        return Token(form.sort, form.value, start, end)
    return Token(Sort.NOISE, said, start, end)


def name_of(key: str | int) -> str:
    """A stitch as the notation writes it, in US terms; one around a post with its sign before it."""
    said = str(key)
    post = said[:2] if said[:2].lower() in _POSTS and said[:2].isupper() else ""
    return post + stitch(said.removeprefix(post)).us[0]
