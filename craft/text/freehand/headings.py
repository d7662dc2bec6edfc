"""Headings of parts as people write them: 'EAR (make 2, cream)', '~ Skirt ~ in the free loops of 5b', 'Legs, four.'"""

from __future__ import annotations

import re
from dataclasses import dataclass

from craft.text.freehand.counts import sentences
from craft.text.freehand.counts_told import number_of
from craft.text.freehand.labels import label_at
from craft.text.notation import step_kind

_NUMBER = r"\d{1,2}x?|one|two|three|four|five|six|eight|zwei|drei|vier|deux|trois|quatre|dos|tres|cuatro|due|tre|quattro|twee|drie"
_STEP_OF = re.compile(
    r"(?i)^(?:step|part|section|schritt|étape|paso|passo|stap)\s+\d{1,2}\s*[:.)-]\s*(?:(?:the|die|der|das|les?|las?|los|il|la|le|i|de|het)\s+)?(?=[^\W\d_]{3})"
)
"""'Step 1: The legs'."""

_VERBS = r"make|work|you\s+need|need|hacer|faire|fare|farne|maak|häkeln"
_TIMES = (
    r"x|mal|fois|veces|volte|keer|uguali|pieces|details|parts|times|stück|stuks|pezzi|piezas|iguales|alike|identical"
)
_MAKE = re.compile(
    rf"(?i)[\s,(\[:.-]*(?:\b(?:{_VERBS})\s+({_NUMBER})\b|x\s*({_NUMBER})\b"
    rf"|(?<=[\s(\[,.])({_NUMBER})(?:[\s-]*(?:{_TIMES})\b|\s*(?=[)\],;]|\.(?!\d)|$))"
    r"|(?<=[\s(\[,.])(en\s+double|doppelt)\b)"
)
_MADE_FIRST = re.compile(
    rf"(?i)(?:make|crochet|haak|häkele|haz|teje|faire|fai)\s+(?P<make>{_NUMBER})\s+(?!(?:{_TIMES}|chs?|chains?|lm|luftmaschen|of|more|rounds?|rows?)\b)"
    r"(?P<name>[^\W\d_]{3,}(?:\s[^\W\d_]{3,})?)\W*"
)
"""'Make 2 ears'."""
_NUMBERED = re.compile(r"(?i)[^\W\d_]+(?<!s)\s+(?:one|two|three|four|1|2|3|4)")
_OF_ROUND = re.compile(r"(?i)\b(?:rounds?|rnds?|rds?|r|rows?|runde|tour|vuelta|giro|toer)\.?\s*$")
_COUNTED = re.compile(r"[\[(]\s*\d{1,4}\s*[\])]")
_MARKS = " \t:;,.*_~#=-–—!"
_NOT_NAMES = re.compile(
    r"(?i)^(?:materials?|material|abbreviations?|abréviations|abkürzungen|gauge|notes?|yarn|hook|stuff|fasten|cut|do\s+not\b|don'?t\b|finish|sew|close|terms?|"
    r"us(?:\s|$)|uk(?:\s|$)|u\.s|american|british|making\s+up|assembly|fo\b|off\b|with\b|in\s|using\b|colou?rs?|change|spiral|work\s|ch(?:ain)?s?\s+\d|make\s+an?\s+(?:magic|adjustable|slip)\b|page|fin\b|(?:den\s+)?faden|(?:de\s+)?draad\b|füllen|rembourrer|"
    r"rellenar|rematar|cortar|coser|couper|arrêter|fissare|no\s+cortar|ne\s+(?:pas|coupez)|nicht\b|non\s+tagliare|niet\b|faden\s|imbottire|cucire|opvullen|afhechten|repeat|continue|©|pattern|legend|key|dear|yours|(?:you|we|they|there|this|these|that|those|it|please)\b|"
    r"farben?\b|couleurs?\b|colore?s?\b|colori\b|kleur(?:en)?\b|fournitures|mat[ée]riels?|materiale[ns]?|benodigdheden|occorrente)"
)
_EYES = re.compile(r"(?i)^(?:eyes?|augen?|yeux|ojos?|occhi|ogen)\b")
_BOUGHT = re.compile(
    r"(?i)\d\s*mm\b|\b(?:safety|sicherheit\w*|sécurité|seguridad|sicurezza|veiligheids\w*|place|between|beads?|buttons?|embroid\w*|stick\w*|brod\w*|bord\w*|ricam\w*|borduur\w*)\b"
)
"""'Eyes, 2 (6 mm)' are bought, where 'Eyes – make 2' are worked."""

_STAGE_WORDS = re.compile(
    r"(?i)\b(?:sew|stitch\s+it|insert|attach|leave|pull|weave|thread|join\s+\w+\s+to|eyes?|stuff)\b"
)
MOST_NAME = 60
"""Code points of a heading's name."""

MOST_WORDS = 6
"""Words of a heading's name."""


@dataclass(frozen=True, slots=True)
class Heading:
    """A part's heading. make: how many. rest: what else the line says. weight: how much it looks like one."""

    name: str
    make: int
    rest: str
    weight: int


def _with_number_behind(plain: str) -> str:
    """'Make 2 ears' as 'ears (make 2)'; any other line as it is."""
    first = _MADE_FIRST.fullmatch(plain)
    return plain if first is None or step_kind(plain) is not None else f"{first['name']} (make {first['make']})"


def heading_of(text: str) -> Heading | None:
    """The line as a part's heading, None when it cannot be one."""
    marked = (
        re.match(r"\s*#{1,6}\s+", text) is not None or re.match(r"\s*[~*_=-]{1,3}\s*\S.*[~*_=-]{1,3}", text) is not None
    )
    plain = re.sub(r"^\s*#{1,6}\s+", "", text).strip()
    decorated = re.match(r"^[~*_=-]{1,3}\s*(.+?)\s*[~*_=-]{1,3}(?:\s+(.*))?$", plain)
    rest = ""
    if decorated:
        plain, rest = decorated.group(1), decorated.group(2) or ""
    plain = _STEP_OF.sub("", plain)
    if not plain or label_at(plain) is not None or len(plain) > 120 or re.fullmatch(r"[(\[][^()\[\]]*[)\]]\W*", plain):
        return None
    if re.match(r"[^\W\d_]{1,3}\s*=|(?i:ch(?:ain)?s?)\s*\d", plain):
        return None  # 'A = dark pink' explains a letter, and 'Ch 9, turn.' is work
    plain = _with_number_behind(plain)
    make = _MAKE.search(f"{plain} {rest}".strip() if rest else plain)
    if make and make.group(3) and _NUMBERED.fullmatch(plain.rstrip(_MARKS)):
        make = None  # 'Leg two' is the second of them, 'Legs, two' are both
    if make and make.group(3) and _OF_ROUND.search(plain[: make.start(3)]):
        make = None  # 'the free loops of rnd 5'
    if make and _COUNTED.search(plain[make.end() :]):
        return None  # 'Corpo, MR 6 mb [6] poi (1 mb, aum) 3x [9]': rounds, and no name
    number = 1
    if make:
        said = next(g for g in make.groups() if g).lower().rstrip("x")
        number = number_of(said, "en") or _FOREIGN.get(said, 1)
    name = plain[: make.start()] if make and make.start() < len(plain) else plain
    if make and decorated is None:
        rest = plain[make.end() :].strip(" ,;:)]-")  # 'EAR (make 2, cream)'
    bracket = re.search(r"\s*[(\[]", name)
    if bracket and bracket.start():
        rest = f"{name[bracket.start() :]} {rest}".strip()
        name = name[: bracket.start()]
    dashed = re.match(r"((?:\S+\s+){1,3}?)-\s+(\S.*)$", name)
    if dashed:
        name, rest = dashed.group(1).strip(), f"{dashed.group(2)} {rest}".strip()
    sentence = re.match(r"(.+?)[.:!;](?:\s+(.*))?$", name.strip())
    if sentence:
        rest = f"{sentence.group(2) or ''} {rest}".strip()
        name = sentence.group(1)
    if "," in name:
        name, _, more = name.partition(",")
        rest = f"{more} {rest}".strip()
    name = name.strip(_MARKS + "\"'")
    words = name.split()
    if not words or len(words) > MOST_WORDS or not re.search(r"[^\W\d_]{2}", name) or _NOT_NAMES.match(name):
        return None
    if _EYES.match(name) and (make is None or _BOUGHT.search(plain)):
        return None
    ended = re.search(r"[.!?]\s*$", plain) is not None
    weight = (
        1 + 3 * marked + 2 * (make is not None) + (name.isupper() and len(name) > 2) + (plain.rstrip().endswith(":"))
    )
    weight += len(words) <= 3
    weight -= 2 * (ended and len(plain.split()) > 6)
    if not _EYES.match(name):  # those are worked
        weight -= 2 * bool(step_kind(plain)) + 2 * bool(_STAGE_WORDS.search(plain))
    if dashed:
        weight = min(weight, 1)  # 'Bram Bear - a first pattern' is a title where anything else is a heading
    return Heading(name, max(1, number), rest, weight)


_NEEDED = re.compile(
    rf"(?i)\W*(?:you\s*(?:'ll|\s+will|\s+have\s+to)?\s*)?(?:{_VERBS})\s+({_NUMBER})(?:\s+of\s+(?:these|them))?\W*"
)


def made_in(text: str) -> int:
    """How many of a part a sentence of a line asks for, 'You will make 2.', 'Need two of these'; 1 where none asks."""
    found = next((m for said in sentences(text) if (m := _NEEDED.fullmatch(said)) is not None), None)
    if found is None:
        return 1
    said = found.group(1).lower().rstrip("x")
    return number_of(said, "en") or _FOREIGN.get(said, 1)


def heading_as_said(text: str) -> Heading:
    """The heading that a line is because she says so: its name is as long as names are, the rest is kept behind it."""
    plain = text.strip(_MARKS)
    make = _MAKE.search(plain)
    said = next(g for g in make.groups() if g).lower().rstrip("x") if make else ""
    number = (number_of(said, "en") or _FOREIGN.get(said, 1)) if said else 1
    name = plain
    if len(plain) > MOST_NAME:
        name = plain[: plain.rfind(" ", 0, MOST_NAME) if " " in plain[:MOST_NAME] else MOST_NAME]
    return Heading(name.strip(_MARKS) or "Part", max(1, number), plain if name != plain else "", 0)


_FOREIGN = {
    "en double": 2,
    "doppelt": 2,
    "zwei": 2,
    "drei": 3,
    "vier": 4,
    "deux": 2,
    "trois": 3,
    "quatre": 4,
    "dos": 2,
    "tres": 3,
    "cuatro": 4,
    "due": 2,
    "tre": 3,
    "quattro": 4,
    "twee": 2,
    "drie": 3,
}
