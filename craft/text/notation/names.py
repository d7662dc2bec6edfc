"""Names of this pattern's own: its pieces and its colours, which no fixed grammar can know.

They are marked with runs of private signs of the same length before a round is parsed, so that
places stay what they are.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from craft.rounds.numbers import CARDINAL

ON_PIECE, THROUGH, COLOUR = "\ue000", "\ue001", "\ue002"

NOUNS = (
    "antenna", "antennae", "arm", "arms", "beak", "belly", "body", "claw", "claws", "ear", "ears", "feet", "fin",
    "finger", "fingers", "fins", "flipper", "flippers", "foot", "hand", "hands", "hat", "head", "hood", "horn", "horns",
    "leaf", "leaves", "leg", "legs", "limb", "limbs", "muzzle", "neck", "nose", "paw", "paws", "petal", "petals", "piece",
    "pieces", "shell", "snout", "spike", "spikes", "stalk", "stem", "strap", "tail", "tails", "tentacle", "tentacles",
    "thumb", "thumbs", "toe", "toes", "torso", "trunk", "tube", "tubes", "wing", "wings",
)  # fmt: skip
"""What parts are called, for texts that name a piece that is written elsewhere."""

_OWN = {"body", "head", "main", "torso", "both", "itself", "piece"}


@dataclass(frozen=True, slots=True)
class Names:
    """Names that rounds of a text may use: of its parts, and of its colours."""

    pieces: tuple[str, ...] = ()
    colours: tuple[str, ...] = ()


_ORDER = r"(?:first|second|third|fourth|1st|2nd|3rd|4th|other|next|left|right|same|last|front|back|upper|lower)(?=\s)"
_DET = r"(?:(?:the|your|each|this|that|a)\s+)?"
_NUMBERED = rf"(?:\s+(?:{CARDINAL}|\d{{1,2}})(?!\w))?"
_EDGE = r"(?:[’']s)?(?:\s+(?:edge|opening|stitches|sts))?"


def _noun(names: tuple[str, ...]) -> str:
    known = sorted({n.strip() for n in (*NOUNS, *names) if n.strip()}, key=lambda n: (-len(n), n))
    more = {n[:-1] for n in known if n.lower().endswith("s") and len(n) > 3}
    every = sorted({*known, *more}, key=lambda n: (-len(n), n))
    return "(?:" + "|".join(re.escape(n).replace(r"\ ", r"\s+") for n in every) + r")(?!\w)"


@dataclass(frozen=True, slots=True)
class _Patterns:
    through: re.Pattern[str]
    onto: re.Pattern[str]
    colour: re.Pattern[str] | None
    noun: re.Pattern[str]


@lru_cache(maxsize=64)
def _patterns(names: Names) -> _Patterns:
    noun = _noun(names.pieces)
    one = rf"{_DET}(?:{_ORDER}\s*)*{noun}{_NUMBERED}{_EDGE}"
    through = re.compile(
        rf"(?i)(?<!\w)(?:(?:working|going|by\s+working)\s+)?(?:through\s+(?:(?:both|two|all)\s+(?:layers|sides|thicknesses)\s+of\s+|both\s+)?|(?:join|attach|connect|add|catch)ing\s+(?:in\s+)?|together\s+with\s+)"
        rf"{one}(?:\s*(?:and|&|to|onto|with)\s+{_DET}(?:{_ORDER}\s*)*(?:{noun}|main\s+piece){_NUMBERED})?(?:\s+together)?"
    )
    onto = re.compile(
        rf"(?i)(?<!\w)(?:(?:now\s+)?(?:working|work|continue|continuing)\s+)?(?:around|round|along|across|over|onto|on|into|in|of|at|to)\s+{one}"
        rf"|(?<![\w])(?:{_ORDER}\s*)+{noun}{_NUMBERED}{_EDGE}(?=\s*:)"
    )
    colour = None
    if names.colours:
        every = "|".join(re.escape(c).replace(r"\ ", r"\s+") for c in sorted(names.colours, key=lambda c: (-len(c), c)))
        lead = r"(?:(?:change|switch|changing)\s+(?:colou?r\s+)?to|with|in\s+colou?r|in|using|colou?r)\s+"
        colour = re.compile(
            rf"(?<![\w])(?:(?i:{lead})(?i:{every})(?!\w){_AT_LAST}|[\[(](?i:{every})[\])](?=\s*\S)|(?i:{every})\s*:|(?i:{every})(?=\s+\d|\s*[(\[]))"
        )
    return _Patterns(through, onto, colour, re.compile(rf"(?i){noun}{_NUMBERED}"))


def _mask(pattern: re.Pattern[str] | None, sign: str, text: str) -> str:
    return text if pattern is None else pattern.sub(lambda m: sign * len(m.group(0)), text)


_AT_LAST = (
    r"(?i:\s+(?:in|on|at|during|with)\s+(?:the\s+)?(?:last|final)\s+"
    r"(?:stitch|st|sc|dc|yarn\s+over|yoh|yo|loop)(?!\w)[^,;.)\]]*)?"
)
"""A colour that comes in at the last yarn over of the stitch before."""

_FREE_COLOUR = re.compile(
    r"(?:(?<=^)|(?<=[,;(\[]\s)|(?<=[,;(\[]))\s*(?!Note|Join|Chain|Turn|Work|Skip|Next|Ring|BLO|FLO|Ch\b)([A-Z][a-z]{2,15}|MC|CC\d?|CA|CB|[ABCDE](?=:))\s*:(?=\s)"
)


def masked(text: str, names: Names) -> str:
    """`text` with the names of pieces and colours marked; of the same length."""
    patterns = _patterns(names)
    text = _mask(patterns.colour, COLOUR, text)
    text = _FREE_COLOUR.sub(lambda m: m.group(0)[: m.start(1) - m.start()] + COLOUR * (m.end() - m.start(1)), text)
    text = _mask(patterns.through, THROUGH, text)
    return _mask(patterns.onto, ON_PIECE, text)


def names_pieces(text: str, names: tuple[str, ...]) -> bool:
    """Whether a text works onto a piece, or through one: one of `names`, or any noun that pieces are called by."""
    marked = masked(text, Names(names))
    return ON_PIECE in marked or THROUGH in marked


def piece_name(phrase: str, names: Names) -> str:
    """The name in a phrase that was marked: of two nouns the one that is not the body itself."""
    found = [m.group(0) for m in re.finditer(rf"(?i)(?:{_ORDER}\s*)*{_patterns(names).noun.pattern[4:]}", phrase)]
    others = [f for f in found if f.lower().split()[-1] not in _OWN]
    name = (others or found or [phrase.strip()])[0]
    return re.sub(r"\s+", " ", re.sub(r"[’']s$", "", name)).strip()


_BOTH = re.compile(r"(?i)through\s+both\s+\S+s\s*$")


def through_piece(phrase: str, names: Names) -> tuple[str, bool]:
    """The piece that a marked phrase goes through, and whether both pieces of that name are meant."""
    return piece_name(phrase, names), _BOTH.search(phrase) is not None


_COLOUR_LEAD = re.compile(
    r"(?i)^\s*[\[(]?\s*(?:(?:change|switch|changing|switching)\s+(?:colou?rs?\s+)?to\s+|with\s+|in\s+colou?r\s+|in\s+yarn\s+|in\s+|using\s+|colou?r\s+)?"
)


def colour_name(phrase: str, names: Names) -> str:
    """The colour in a phrase, spelled as the list of yarns spells it."""
    phrase = re.sub(_AT_LAST + "$", "", phrase)
    said = re.sub(r"\s+", " ", _COLOUR_LEAD.sub("", phrase).strip(" \t\u00a0:()[].,;"))
    return next((c for c in names.colours if c.lower() == said.lower()), said)
