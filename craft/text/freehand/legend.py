"""What a text says of its own words: its terms, its abbreviations, its colours, its parts' names."""

from __future__ import annotations

import itertools
import re
from functools import cache

from craft.errors import CraftError, require
from craft.rounds.numbers import CARDINALS
from craft.rounds.stitches import STITCHES, Terms
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.lexicon import LANGUAGES, Meaning, Sort, words_file
from craft.text.freehand.phrases import said
from craft.text.freehand.row import Row
from craft.text.notation import find_terms

_WORD = r"(?<![\w'])\"?(?P<word>[^\W\d_][\w']{0,11})\"?"
_MARKS = (
    re.compile(rf"{_WORD}(?:\s*=\s*|\s*:\s+)"),
    re.compile(rf"{_WORD}(?:\s+-\s+|(?<=\w)-(?=[a-z]{{3}})|\s{{2,}}(?=[a-z]{{3}}))"),
)
"""A word that is explained: 'X: ', 'dec = ', where a line has none of these 'X - ', 'ch-chain'."""


def _entries(text: str) -> list[tuple[str, str]]:
    """The explained words of a line with what is said of each: up to the next one, or the end of the clause."""
    marks = next((found for sign in _MARKS if (found := _of_entries(text, sign))), [])
    entries: list[tuple[str, str]] = []
    for k, m in enumerate(marks):
        end = marks[k + 1].start() if k + 1 < len(marks) else len(text)
        what = re.split(r"\s{2,}|[;,.|·/]|\s-\s", text[m.end() : end].strip(" -"))[0]
        what = what.strip(" )") if what.count(")") > what.count("(") else what.strip()
        if 2 <= len(what) <= 60:
            entries.append((m.group("word").lower(), what.lower()))
    return entries


_OPENS_CLAUSE = re.compile(r"[^\w\s)\]]\s*$")


LEAST_PAIRS = 3
"""Words with what they mean behind them and no sign between, before a list of them explains."""

_PAIR = re.compile(r"(?P<word>[^\W\d_]{1,5})\s+(?P<what>\S[^,;]{1,59})")


@cache
def _tints(language: str) -> frozenset[str]:
    """The colours that a text of this language may name: its own, and those of English."""
    return frozenset((*words_file("en")["colours"], *words_file(language)["colours"]))


def _paired(text: str, vocabulary: Vocabulary) -> list[tuple[str, str]]:
    """'legend: s sc, i inc, blk black': words with what they mean right behind them, where a list of them says nothing
    else; none of any other line."""
    listed = text.split(":", 1)[-1] if re.match(r"\W*[^\W\d_]+\s*:", text) else text
    pairs = [_PAIR.fullmatch(item.strip(" .-*\u2022")) for item in re.split(r"[,;]", listed)]
    if len(pairs) < LEAST_PAIRS or any(m is None for m in pairs):
        return []
    entries = [(m["word"].lower(), m["what"].strip().lower()) for m in pairs if m is not None]
    means = [vocabulary.meaning(what) for _, what in entries]
    works = sum(meant is not None and meant.sort in (Sort.STITCH, Sort.RING) for meant in means)
    tinted = sum(what in _tints(vocabulary.language) for _, what in entries)
    return entries if works + tinted == len(entries) and works * 2 >= len(entries) else []


def _of_entries(text: str, sign: re.Pattern[str]) -> list[re.Match[str]]:
    """The marks of a line from the first that begins a clause on: in 'in the 2nd chain from your hook: sc in 6' none does."""
    marks = sign.finditer(text)
    return [*itertools.dropwhile(lambda m: not _begins_clause(text[: m.start()], m.group(0)), marks)]


def _begins_clause(ahead: str, mark: str) -> bool:
    """Whether a word that is explained is the first of its clause; before '=' it may stand anywhere."""
    return "=" in mark or not ahead.strip() or _OPENS_CLAUSE.search(ahead) is not None


_SAID_TERMS = re.compile(
    r"(?i)\b(?:(?P<uk>uk|u\.k\.|british|english)|(?P<us>us|u\.s\.|usa|american))\s*"
    r"(?:terms?|terminology|words|names|crochet|notation|style|abbreviations)\b"
)
_IN_BRACKETS_UK = re.compile(r"[(\[]\s*(?:UK|U\.K\.|British)\s*[)\]]")
_SMALL_X = re.compile(r"(?mi)^\W*(?:[rR](?:nd|d)?\.?\s*)?\d{1,2}\W.*(?<![^\W\d_])(?:\d{1,3}\s?)?x\s*[,)\s]")
_SMALL_V = re.compile(r"(?mi)^\W*(?:[rR](?:nd|d)?\.?\s*)?\d{1,2}\W.*(?:\d\s?|[,(]\s*)v(?![^\W\d_])")
"""Rounds in letters, written small, or behind labels that the notation does not know: '3) (x, v)*6'."""
_UK_START = re.compile(
    r"(?i)(?<!\d)([4-9]|10)\s*d\.?\s?c\b\.?[^.\n]{0,30}?(?:ring|loop|circle|(?:1st|first|2nd|second)\s+ch)"
)


def terms_of(text: str, chosen: Terms | None) -> Terms:
    """In which terms an English text is: asked for, said, or told by its words and its first round."""
    if chosen is not None:
        return chosen
    if m := _SAID_TERMS.search(text):
        return Terms.UK if m.group("uk") else Terms.US
    found = find_terms(text)
    if found.how == "assumed" and (_UK_START.search(text) or _IN_BRACKETS_UK.search(text)):
        return Terms.UK
    if found.how == "assumed" and _SMALL_X.search(text) and _SMALL_V.search(text):
        return Terms.LETTERS
    return found.used


def legend(found: list[Row], language: str, terms: Terms) -> dict[str, Meaning]:
    """Words that the text explains itself: 'dec = invisible decrease', 'Plain = one sc in each stitch', 'B = blue'."""
    vocabulary = Vocabulary(language, terms)
    tints = _tints(language)
    own: dict[str, Meaning] = {}
    for row in found:
        label = label_at(row.text)
        if label is not None and not label.bare and label.count is None:
            continue
        for colour in colours_listed(row.text):
            own.setdefault(colour.lower(), Meaning(Sort.COLOUR, colour.title()))
        pairs = _paired(row.text, vocabulary)
        for word, what in pairs:
            if what in tints:
                own.setdefault(word, Meaning(Sort.COLOUR, what.title()))
        for word, what in pairs or _entries(row.text):
            meaning = _explained(word, what, vocabulary) if word not in tints else None  # 'in brown: sc around'
            if meaning is not None:
                own.setdefault(word, meaning)
    for word in [w for w, m in own.items() if m.sort is Sort.COLOUR and re.fullmatch(r"[a-z]{1,2}\d", w)]:
        own[f"{word[:-1]} {word[-1]}"] = own[word]  # 'C1': letters and digits are words of their own
    for row in found:
        own |= {m.group(0).lower(): Meaning(Sort.COLOUR, m.group(0).title()) for m in _LETTERED.finditer(row.text)}
    for letter, colour in _colours_worked(found, language).items():
        if vocabulary.meaning(letter) is None:
            own.setdefault(letter, Meaning(Sort.COLOUR, colour))
    for m in (m for row in found for m in _NUMBERED_COLOUR.finditer(row.text)):
        own.setdefault(f"{m[1].lower()} {m[2]}", Meaning(Sort.COLOUR, m.group(0)))
    if any(_CONTRAST.search(row.text) for row in found) and not _mc_is_ring([row.text for row in found]):
        own |= {word: Meaning(Sort.COLOUR, word.upper()) for word in ("mc", "cc")}
    return own


def _mc_is_ring(rows: list[str]) -> bool:
    """Whether what is worked 'in MC' is the ring of a text, which has no other word for it."""
    if any(_RING_CALLED_MC.search(text) for text in rows):
        return True
    return any(_IN_MC.search(text) for text in rows) and not any(_OTHER_RING.search(text) for text in rows)


_OTHER_RING = re.compile(r"(?i)\b(?:MR|ring|circle|loop)\b")
_RING_CALLED_MC = re.compile(r"(?i)\bcircle\s*[(=:-]\s*MC\b|\bMC\s*[=:-]\s*magic\b")
_CONTRAST, _IN_MC = re.compile(r"\bCC\d?\b"), re.compile(r"(?i)\bin(?:to)?\s+(?:an?\s+|the\s+)?MC\b")
"""MC is a ring, but the main colour where there is a contrast colour."""

_NUMBERED_COLOUR = re.compile(r"\b(MC|CC)(\d)\b")
"""'CC1', 'CC2'."""

_LETTERED = re.compile(r"\b[Cc]olou?r [A-Z]\b")
"""'colour B'."""

_LONE = re.compile(r"(?<![\w'.-])([A-Z])(?=\s*:?\s*\d)|(?<=\d)\s?([A-Z])(?![\w'.])")
"""A capital beside a number: 'O 7, W 6', '7O, 6W'."""


def _colours_worked(found: list[Row], language: str) -> dict[str, str]:
    """Colours that a text only names where it works them, 'In orange sc 8, in white sc 4', and capitals that stand for
    them later: 'O 7, W 6'."""
    rounds = [row.text for row in found if label_at(row.text) is not None]
    letters = {(m.group(1) or m.group(2)).lower() for text in rounds for m in _LONE.finditer(text)}
    tints = _tints(language)
    named: dict[str, set[str]] = {}
    for row in found:
        for word in _WORDS.findall(row.text.lower()):
            if word in tints:
                named.setdefault(word[0], set()).add(word.title())
    worked = {word for text in rounds for word in _WORDS.findall(text.lower()) if word in tints}
    worked |= {led[1].lower() for row in found if (led := _LEADING.match(row.text)) is not None} & tints
    own = {word: word.title() for word in worked} if len(worked) > 1 else {}
    if len(letters) > 1:
        own |= {letter: min(named[letter]) for letter in letters if len(named.get(letter, ())) == 1}
    return own


_WORDS = re.compile(r"[^\W\d_]+")
_LEADING = re.compile(r"\W*(?:[Ii]n\s+|[Ww]ith\s+)?([^\W\d_]+)\s*[:-]\s*\S")
"""'black: 12 sc': a colour before a round that has no label."""


def explains(text: str, language: str, terms: Terms) -> bool:
    """Whether a line says how words are worked: 'X - single crochet', 'Inc = 2 sc in one st'."""
    vocabulary = Vocabulary(language, terms)
    for word, what in _paired(text, vocabulary) or _entries(text):
        meaning = _explained(word, what, vocabulary)
        if (meaning is not None and meaning.sort is not Sort.COLOUR) or said(tokens(what, vocabulary), what):
            return True
    return False


_COLOUR_LIST = re.compile(
    r"(?i)^\s*(?:colou?rs?|yarns?|farben|couleurs|colores|colori|kleuren)\s*:\s*([^.]{3,120})(?:\.|$)"
)


def colours_listed(text: str) -> list[str]:
    """The colours of a line such as 'Colours: grey and charcoal.'"""
    found = _COLOUR_LIST.match(text)
    if not found:
        return []
    items = re.split(r"\s*(?:,|;|\band\b|\bund\b|\bet\b|\by\b|\be\b|\ben\b|&|\+)\s*", found.group(1).strip(" ."))
    return [i for i in items if re.fullmatch(r"[^\W\d_]{3,15}(?: [^\W\d_]{3,15})?", i)]


LEAST_LETTERS = 2
"""Letters that a text gives colours to, before another letter is none of them."""


def letters_of_colours(text: str) -> frozenset[str]:
    """The letters that a text calls its colours by, 'A = black, B = white'; none where fewer than two are."""
    tints = sorted({tint for code in LANGUAGES for tint in words_file(code)["colours"]})
    found = re.findall(rf"(?<!\w)([A-Z])\s*(?:=|:|is)\s*(?:[^\W\d_]+\s+)?(?i:{'|'.join(tints)})(?!\w)", text)
    return frozenset(found) if len(set(found)) >= LEAST_LETTERS else frozenset()


_SURE_WORDS = (
    Sort.STITCH, Sort.RING, Sort.CHAIN, Sort.PLACE, Sort.TIMES, Sort.REPEAT, Sort.OFTEN, Sort.NUMBER, Sort.ROUND, Sort.AROUND,
)  # fmt: skip
"""What a word of a language is that no text gives another meaning: 'repetir 6 veces: 1 pb' explains nothing."""

_NO_STITCHES = ("nothing", "no stitches", "no stitch", "a remark", "remark", "")


def explained(word: str, what: str, vocabulary: Vocabulary) -> Meaning:
    """What a word means by her explanation: stitches, a colour, or nothing. CraftError when that is not understood."""
    said_so = what.strip(" .").lower()
    require(bool(word.strip()), "Which word is to be explained?", field="words")
    if said_so in _NO_STITCHES:
        return Meaning(Sort.QUIET)
    if colour := re.fullmatch(r"(?:the\s+)?colou?r\s*:?\s+([^\W\d_][\w' -]{0,30})", said_so):
        return Meaning(Sort.COLOUR, colour.group(1).title())
    meaning = _explained(word.strip().lower(), said_so, vocabulary) or vocabulary.meaning(said_so)
    if meaning is None:
        raise CraftError(
            f"What '{word.strip()}' means is not understood: say it in stitches ('3 dc in the same stitch', 'decrease'), "
            "as 'colour blue', or 'nothing'.",
            field="words",
        )
    return meaning


def _explained(word: str, what: str, vocabulary: Vocabulary) -> Meaning | None:
    known = vocabulary.meaning(word)
    ways = said(tokens(what, vocabulary), what)
    if known is None and (plainly := _MORE_PLAINLY.fullmatch(what)) is not None:
        found = (_explained(word, plainly[way], vocabulary) for way in ("name", "how"))
        if (stitch := next((m for m in found if m is not None and m.sort is Sort.STITCH), None)) is not None:
            return stitch
    if re.match(r"(?:only\s+)?(?:in\s+(?:the\s+)?)?back loops?", what):
        return Meaning(Sort.BACK)
    if ways and ways[0].work in ("sc around",):
        return Meaning(Sort.PLAIN)
    if known is not None and known.sort in _SURE_WORDS and len(word) > 1:
        return None
    if known is not None and known == vocabulary.meaning(what):
        return None  # 'M = Masche'
    direct = vocabulary.meaning(what)
    if direct is not None and direct.sort in (Sort.STITCH, Sort.RING):
        return direct
    if len(word) <= 2 and re.fullmatch(r"[a-z]{3,12}(?: [a-z]{3,12})?", what) and not ways:
        return Meaning(Sort.COLOUR, what.title())
    if ways and (keyed := re.fullmatch(r"(?:1 )?(\w[\w-]*)", ways[0].work)) and keyed.group(1) in STITCHES:
        return Meaning(Sort.STITCH, keyed.group(1))
    if ways and (into := re.fullmatch(r"(\d) sc in (?:next|same) st", ways[0].work)):
        return Meaning(Sort.STITCH, {"2": "inc"}.get(into.group(1), f"inc{into.group(1)}"))
    if re.match(r"(?:us\s+)?(?:single crochet|sc)\b", what):
        return Meaning(Sort.STITCH, "sc")
    return None


_MORE_PLAINLY = re.compile(r"(?P<name>[^()\[\]]{2,40}?)\s*[(\[](?P<how>[^()\[\]]{2,40})[)\]]")
"""'meervaste (2 vasten in 1 steek)': a name, and how it is worked."""

_ORDERS = ("first", "second", "third", "fourth", "next", "other", "left", "right")
_FOREIGN_ORDERS = {
    "de": (
        ("first", "erste", "ersten", "erstes"), ("second", "zweite", "zweiten", "zweites"), ("third", "dritte", "dritten"),
        ("fourth", "vierte", "vierten"), ("next", "nächste", "nächsten"), ("other", "andere", "anderen"),
    ),
    "fr": (
        ("first", "première", "premier"), ("second", "deuxième", "seconde", "second"), ("third", "troisième"),
        ("fourth", "quatrième"), ("next", "prochaine", "prochain"), ("other", "autre"),
    ),
    "es": (
        ("first", "primera", "primer"), ("second", "segunda", "segundo"), ("third", "tercera", "tercer"),
        ("fourth", "cuarta", "cuarto"), ("next", "siguiente"), ("other", "otra", "otro"),
    ),
    "it": (
        ("first", "prima", "primo"), ("second", "seconda", "secondo"), ("third", "terza", "terzo"),
        ("fourth", "quarta", "quarto"), ("next", "prossima", "prossimo"), ("other", "altra", "altro"),
    ),
    "nl": (
        ("first", "eerste"), ("second", "tweede"), ("third", "derde"), ("fourth", "vierde"), ("next", "volgende"),
        ("other", "andere"),
    ),
}  # fmt: skip
"""The words before one of several pieces, by what they are in English. Common practice, no source."""

MOST_LIKE, LEAST_NUMBERED = 4, 2
"""Pieces of one kind that a number tells apart, and words of a name with a number."""

_SINGULARS = {
    "de": (("en", ""), ("e", ""), ("n", ""), ("er", ""), ("s", "")),
    "fr": (("s", ""), ("x", "")),
    "es": (("es", ""), ("s", "")),
    "it": (("e", "a"), ("i", "o"), ("i", "e"), ("che", "ca"), ("chie", "chia")),
    "nl": (("en", ""), ("s", ""), ("'s", "")),
}
"""Endings of several things, and what stands for them at one of them; what is no word is found in no text."""


_NUMBERS = {
    **{word: n for word, n in CARDINALS.items() if n <= MOST_LIKE},
    **{str(n): n for n in range(1, MOST_LIKE + 1)},
}
_ENGLISH_ORDERS = (("first", "1st"), ("second", "2nd"), ("third", "3rd"), ("fourth", "4th"))


def _singulars(name: str, language: str) -> tuple[str, ...]:
    """What one of several pieces may be called: 'jambes' 'jambe', 'gambe' 'gamba', 'benen' 'been'."""
    ends = _SINGULARS.get(language, ())
    found = [name[: -len(many)] + one for many, one in ends if name.endswith(many) and len(name) > len(many) + 2]
    if language == "de":
        found += [one + end for one in (name, *found) for end in ("s", "es")]  # 'entlang des ersten Beins'
    if language == "nl":
        found += [re.sub(r"([aeou])([^aeiou])$", r"\1\1\2", one) for one in found]
    return tuple(dict.fromkeys((name, *found)))


def _foreign_phrases(small: str, name: str, language: str, make: int) -> list[tuple[str, str]]:
    """How a text of another language calls one of several pieces, by the name that the notation knows."""
    singulars = _singulars(small, language)
    found = [(one, f"next {name}" if make > 1 else name) for one in singulars[1:]]
    orders = _FOREIGN_ORDERS.get(language, ())
    return [
        *found,
        *((f"{word} {one}", f"{order} {name}") for order, *words in orders for word in words for one in singulars),
    ]


def _of_number(small: str, name: str, language: str) -> list[tuple[str, str]]:
    """'Lobe one' as the first lobe and lobe 1, 'Second lobe' as lobe two: a piece that its number names."""
    foreign = _FOREIGN_ORDERS.get(language, ())
    orders = [
        {*english, *(w for row in foreign if row[0] == english[0] for w in row[1:])} for english in _ENGLISH_ORDERS
    ]
    words = small.split()
    if len(words) < LEAST_NUMBERED:
        return []
    if (nth := _NUMBERS.get(words[-1])) is not None:
        noun = " ".join(words[:-1])
    elif (nth := next((n for n, of in enumerate(orders, 1) if words[0] in of), None)) is not None:
        noun = " ".join(words[1:])
    else:
        return []
    phrases = [
        *(f"{order} {noun}" for order in orders[nth - 1]),
        *(f"{noun} {w}" for w, n in _NUMBERS.items() if n == nth),
    ]
    return [(phrase, name) for phrase in sorted(phrases) if phrase != small]


def piece_phrases(name: str, language: str, make: int) -> list[tuple[str, str]]:
    """How a text may call a part: its name, in the singular, with an order before it."""
    small = name.lower()
    one = small[:-1] if small.endswith("s") and len(small) > 3 else small
    found = [(small, name), (one, f"next {one}" if make > 1 else name)]
    if make > 1:
        found += [("first one", f"first {one}"), ("second one", f"second {one}"), (f"{one} on the hook", f"next {one}")]
        found.append((f"{one}s", f"next {one}"))
        found += [
            (f"{one} {w}", f"{_ENGLISH_ORDERS[n - 1][0]} {one}")
            for w, n in _NUMBERS.items()
            if n <= min(make, MOST_LIKE)
        ]
    found += [*_foreign_phrases(small, name, language, make), *_of_number(small, name, language)]
    last = one.split()[-1]
    if last != one:
        found += [(one.replace("erstes", "erste").replace("zweites", "zweite"), name)]
    else:
        for order in _ORDERS:  # her names stay hers in any language
            found.append((f"{order} {one}", f"{order} {one}"))
    return found
