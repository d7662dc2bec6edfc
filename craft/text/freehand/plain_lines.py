"""One line made plain: one kind of dash, quote and blank, and the signs that only look gone."""

from __future__ import annotations

import re
import unicodedata

from craft.text.freehand.chain_starts import STANDS_FOR
from craft.text.freehand.drawn_up import drawn_together
from craft.text.freehand.lexicon import LANGUAGES, stitch_words, words_file

_SIGNS = str.maketrans({
    **dict.fromkeys("‐‑‒–—―−﹣－〜～", "-"), **dict.fromkeys("　", " "), **dict.fromkeys("“”„«»", '"'), **dict.fromkeys("‘’‚", "'"),
    **dict.fromkeys("×✕✖", " x "), **dict.fromkeys("【〔［", "["), **dict.fromkeys("】〕］", "]"), "（": "(", "）": ")",
    **dict.fromkeys("\u00a0\u2007\u202f\u2009\u200a", " "), **dict.fromkeys("\u200b\u200c\u200d\u2060\ufeff\ufe0f", ""),
    **dict.fromkeys("→➜➝⇒👉▶►", "="), "…": "...", "\u00ad": "",
})  # fmt: skip
_PICTURE = re.compile(r"[\U0001F000-\U0001FAFF\u2600-\u26ff\u2700-\u27bf\u2b50\u2b06\u27a1\ufe0f]")
_TIMECODE = re.compile(r"^\s*\(?\d{1,2}:\d{2}(?::\d{2})?\)?\s+(?=\S)")
_SPACED_OUT = re.compile(r"^\s*(?:[A-Z] ){2,}[A-Z]\b")
"""'B O D Y': a heading set wide."""
_KEYCAP = re.compile("(\\d{1,2})\ufe0f?\u20e3")
_CIRCLED = re.compile("[\u2460-\u249b\u2776-\u2793\u24f5-\u24fe]")
"""'①', '❷', '⑶': a number in one sign."""
_NUMBERED_TWICE = re.compile(r"(?<=\d)\.\)")
"""'rnd 4.)'."""
_ARROW = re.compile(
    r"[-=]+>|[\u2190-\u21ff\u2794-\u27be\u27f0-\u27ff\u2900-\u297f]|//(?=\s*\d{1,4}\s*$)|(?<=\d)\s*>(?=\s)"
)
_RANGE_LABEL = (
    r"(?i)^(\W*(?:rounds?|rnds?|rds?|rows?|runden?|tours?|vueltas?|gir[oi]|toer(?:en)?|[rtvg])\.?\s*(\d{1,3}))"
)
_RANGE_TO = r"\s*(?:rounds?|rnds?|rds?|r)?\.?\s*(\d{1,3})"
_RANGE_SIGN = r"\s*(?:[\u2192\u279c\u279d\u21d2\u25b6\u25ba\u27a4]|[-=]>|\.{2,3})"
_RANGE_ARROW = re.compile(rf"{_RANGE_LABEL}{_RANGE_SIGN}{_RANGE_TO}(?=\s*[:.)=–-])")
"""'Rd6→8 – 30 sc', 'R7..R9: 36 sc': from round to round."""
_RANGE_LABELLED = re.compile(
    rf"{_RANGE_LABEL}{_RANGE_SIGN}\s*(?:rounds?|rnds?|rds?|tours?|vueltas?|gir[oi]|[rtvg])\.?\s*(\d{{1,3}})(?=\s)"
)
"""'R5→R7 24sc', 'r6..r8 sc'."""
_RANGE_DOTS = re.compile(rf"{_RANGE_LABEL}\.{{2,3}}{_RANGE_TO}(?=\s+[^\W\d])")
"""'r6..8 sc'."""
_TICK_BOX = re.compile(r"^(\s*(?:[-*+]\s+)?)(?:\[[ xX]?\]|[\u2610-\u2612])\s*(?=\S)")
"""'[ ] 1 - 6 sc': a box to tick off."""

_PICOT_MADE = re.compile(r"(?i)\bch(?:ain)?\s*[2-5]\s*,?\s*\(\s*(?:an?\s+)?picot(?:\s+(?:is\s+)?made)?\s*\)")
"""'ch 3 (picot made)'."""
_DOTTED = re.compile(r"\b([a-zA-Z])\.\s?([a-z])\.(?:\s?([a-z])\.)?")
_POINTING = re.compile(r"(?<=\S)\s+[»›]\s+(?=\S)")
"""'R2 » inc x 6 » 12': a sign between a label, its work and its count, where nothing is quoted."""
_LEANING = re.compile(r"\*([(\[]\d{1,4}[^*()]{0,12}[)\]])\*")
"""'*(12)*': a count that is set in italics."""
_LEANING_WORD = re.compile(r"(?<![\w*])([*_])(?P<words>[^\W\d_]+(?: [^\W\d_]+){0,2})\1(?![\w*])(?!\s*(?:x|\d|rep))")
"""'in every *other* stitch', 'the _back_ loops': words in italics."""
_LEANING_COUNT = re.compile(r"(?<=\s)\*(\d{1,4})\*(?=\s*$|\.\s)")
"""'sc around *30*': so is this, where the other stars are pairs, or say how often."""
_STAR = re.compile(r"\*(?!\d)|(?<![)\]}\w])\*")
_LEANING_LABEL = re.compile(r"^\s*[*_]([^\W\d_][^*_]{0,24}\d)[*_]\s*:|^\s*[*_]([^\W\d_][^*_]{0,24}\d):[*_]")
"""'*Round 1*:': a label that is set in italics."""
_LEANING_LINE = re.compile(r"^\s*([*_])([^*_\d]*[:=][^*_\d]*)\1\s*$")
"""'*Colours: A = mint, B = white*': a line that is set in italics."""
_SPACED_STITCH = re.compile(r"(?i)\b(?:s c|d c|h d c|tr c)\b")
"""'7 s c in 2nd ch': the spelling of old magazines."""
_COUNT_TABLE_WORDS = (
    (re.compile(r"(?:輪|わ|リング)(?:の中)?に(?:細編み|こま編み)\s*(\d{1,3})\s*目"), r"\1 sc in ring"),
    (re.compile(r"(?:輪|わ)の作り目"), "ring"),
    (re.compile(r"増減(?:なし|無し|せず)(?:に編む)?"), "="),
    (re.compile(r"(?<=\d)\s*(?:段目?|目)(?=\s|[-+=]|$)"), " "),
)
"""What Japanese count tables say beside their numbers."""
_COUNT_COLUMN = re.compile(
    r"(?<=[^\s=])\s{3,}(?P<n>\d{1,4})\s*(?:sts?|stitches|maschen|mailles|puntos|maglie|steken|m|p)?\.?\s*$"
)
"""'Rnd 3   2 sc in each st        12 sts': the count in a column of its own, set with blanks."""
_SIGN_BEFORE_COUNT = re.compile(r"(?:\s\||\|(?=\d)|\s>)\s*(?P<count>\d{1,4})\s*$")
"""'2 dec, 6x |18', 'inc all > 12': a sign before a count."""
_GLUED_BULLET = re.compile(r"(?<=\S)[•●](?=\S)")
"""'R1•6sc in MR•(6)'."""
_BULLET_BETWEEN = re.compile(r"(?<=\w)\s+[•●]\s+(?=[\w(\[*])|(?<=[)\]])\s+[•●]\s+(?=\d)")
"""'• Rnd 2 • 7 inc • 14': between a label, its work and its count."""
_BETWEEN_SLASHES = re.compile(r"(?<!\S)/\s*(\d{1,3}\s+[^\W\d_]{2,12})\s*/(?!\S)")
"""'28 sc (28) /4 rounds/'."""
_LEADERS = re.compile(r"(?:\s\.){2,}\s*|\.{4,}\s*|_{3,}|\s\.{1,3}(?=\s+\d{1,4}\s*$)|\s\.{2,3}(?=\d{1,4}\s*$)")
_SHORTENED = re.compile(
    r"(?<!rounds )(?<!rnds )(?<!round )\b([Ss]ts?|[Rr]ep|[Cc]hs?|[a-zà-ÿ]{1,6})\."
    r"(?=\s*[,;:)\]*]|\s+(?!(?:round|rnd|rd|row)s?\.?\s*\d)[a-zà-ÿ*(])"
)


def plain(text: str) -> str:
    """A line without the signs that only look: one kind of dash, quote and blank, no picture, no broken line."""
    text = _TICK_BOX.sub(r"\1", re.sub(r"[\r\n]+\s*", " ", text))
    text = text if "«" in text else _POINTING.sub(" - ", text)
    text = _SPACED_OUT.sub(
        lambda m: m.group(0).replace(" ", ""), re.sub(r"(?<=\d)\s*~\s*(?=[a-zA-Z]{0,4}\d)", "-", text)
    )
    for ranged in (_RANGE_ARROW, _RANGE_LABELLED, _RANGE_DOTS):
        text = ranged.sub(lambda m: f"{m[1]}-{m[3]}" if int(m[3]) > int(m[2]) else m.group(0), text)
    text = _CIRCLED.sub(lambda m: f"{int(unicodedata.numeric(m.group(0)))}) ", text)
    text = _NUMBERED_TWICE.sub(_without_dot, _KEYCAP.sub(r"\1) ", text))
    text = _LEANING_LABEL.sub(lambda m: f"{m.group(1) or m.group(2)}:", text)
    text = _LEANING_LINE.sub(r"\2", text)
    text = _LEANING.sub(r"\1", text.replace("**", "").replace("__", ""))
    text = _LEANING_WORD.sub(_upright, text)
    if (leaning := _LEANING_COUNT.search(text)) and len(_STAR.findall(text, 0, leaning.start())) % 2 == 0:
        text = f"{text[: leaning.start()]}({leaning[1]}){text[leaning.end() :]}"
    if len(_ARROW.findall(text)) >= LEAST_ARROWS:
        text = _ARROW.sub(" ; ", text)  # 'Ball: 6 sc in MR -> inc x 6 = 12 -> …'
    text = _ARROW.sub("=", _PICTURE.sub(" ", text.translate(_SIGNS)))
    text = _DOTTED.sub(_without_dots, text)
    text = _COUNT_COLUMN.sub(r" [\g<n>]", _RULED.sub(" = ", _TIMECODE.sub("", text)))
    text = _with_plain_count(text)
    text = _BULLET_BETWEEN.sub(" - ", text)
    text = _GLUED_BULLET.sub(" ", _BETWEEN_SLASHES.sub(r"(\1)", text))
    for sign, word in _COUNT_TABLE_WORDS:
        text = sign.sub(word, text)
    if m := _CELLS.fullmatch(text):
        text = f"{m['label']}: {m['work']} ({m['count']})" if m["count"] else f"{m['label']}: {m['work']}"
    for said, every in _EVERY_SECOND:
        text = said.sub(every, text)
    text = _EVERY_OTHER.sub("every 2nd", _CLUSTER.sub("bobble", _PICOT_MADE.sub("picot", drawn_together(text))))
    text = _COLOUR_AHEAD.sub(r"\g<label> [\g<colour>] ", text)
    text = _TINT_AHEAD.sub(r"\g<label>: [\g<colour>] ", text)
    text = STANDS_FOR.sub(r"\1 (counts as ", text)
    text = _STITCHES_FIRST.sub(lambda m: f"{m['work']} ({m['count']})", text)
    text = _WITH.sub(lambda m: "without " if m[1] else "with ", text)
    text = _TWO_INC.sub("inc", text)
    text = _SPACED_STITCH.sub(lambda m: m.group(0).replace(" ", ""), text)
    return _LEADERS.sub(" = ", _SHORTENED.sub(r"\1", text))


_CELLS = re.compile(
    r"(?i)(?P<label>(?:r|rnd|rd|round|row)s?\.?\s*\d{1,3}(?:\s?-\s?\d{1,3})?)\s+/\s+(?P<work>[^/]*[^\W\d_][^/]*?)(?:\s+/\s+(?P<count>\d{1,4}))?\s*"
)
"""'R1 / 7 sc in a magic ring / 7'."""

_EVERY_OTHER = re.compile(r"(?i)\b(?:every|each)\s+other(?=\s+(?:st|sc|dc|hdc|stitch)\b)")

_EVERY_SECOND = (
    (re.compile(r"(?i)\bom\s+de\s+(?:andere\s+)?(?=(?:steek|st|vaste)\b)"), "elke 2e "),
    (re.compile(r"(?i)\b(?:(?:in|nella?)\s+)?un[ao]\s+(maglia|m|mb)\s+sì\s+e\s+un[ao]\s+no\b"), r"ogni 2ª \1"),
    (re.compile(r"(?i)\b(?:en\s+)?un\s+(punto|p|pb)\s+sí\s+y\s+(?:uno|otro)\s+no\b"), r"cada 2º \1"),
)
"""'om de steek', 'una maglia sì e una no', 'un punto sí y uno no'."""

_CLUSTER = re.compile(r"(?i)\b[2-7][- ](?:dc|hdc|tr)[- ](?:cluster|cl|bobble)\b")
"""'4-dc cluster': so many begun in one stitch and finished together."""

_COLOUR_AHEAD = re.compile(
    r"(?i)^\s*(?:\[(?P<colour>[^\W\d_]+(?:[ -][^\W\d_]+){0,2})\])\s*"
    r"(?P<label>(?:(?:r|rnd|rd|round|row)s?\.?\s*)?\d{1,3}(?:\s?-\s?\d{1,3})?\s*[.:)])\s*(?=\S)"
)
"""'[yellow] 4. (2 sc, inc) x 6': the colour, and then the round."""

_TINTS = "|".join(
    sorted({tint for code in LANGUAGES for tint in words_file(code)["colours"]}, key=lambda t: (-len(t), t))
)
_TINT_AHEAD = re.compile(
    rf"(?i)^\s*(?P<colour>(?:(?:dark|light|pale)\s+)?(?:{_TINTS}))\s*[-:|,/]\s*"
    r"(?P<label>(?:r|rnd|rd|round|row)s?\.?\s*\d{1,3}(?:\s?-\s?\d{1,3})?)\s*[-.:)|]\s*(?=\S)"
)
"""'white - rnd 1 - 6 sc in mr'."""

LEAST_ARROWS = 3
"""Arrows of a line that stand between rounds, and not before a count."""

_TWO_INC = re.compile(r"(?i)\b2(?:dc|sc)inc\b")
"""'2dcinc': two in one stitch."""

_STITCHES_FIRST = re.compile(
    r"(?i)^(?P<count>\d{1,3})\s*(?:sts|stitches)\s+[-=]\s+(?!.*[(\[]\s*\d{1,4}\s*[)\]]\s*$)(?P<work>.*[^\W\d_].*)$"
)
"""'18 sts - 2 sc in every 2nd st': what a round has, and then how."""

_WITH = re.compile(r"(?i)\bw/(o\b)?\s*(?=\S)")
"""'a ring w/ 5 sc', 'w/o cutting'."""

_RULED = re.compile(r"(?<=\S)\s*-{2,}\s*(?=\d+\s*\W*$)")
"""'8 sc in MR --- 8'."""


def _with_plain_count(text: str) -> str:
    """A line with '=' for the bar or the arrow before its count, where it is the only one of the line."""
    sign = _SIGN_BEFORE_COUNT.search(text)
    alone = sign is not None and not any(other in text[: sign.start()] for other in "|>")
    return f"{text[: sign.start()]} = {sign['count']}" if sign is not None and alone else text


def _upright(m: re.Match[str]) -> str:
    """The words of a phrase in italics; '*sc, inc*' and '*sc*' are what is repeated, and keep their stars."""
    words = m["words"].lower().split()
    return m["words"] if not any(word in stitch_words() for word in words) else m.group(0)


def _without_dot(m: re.Match[str]) -> str:
    """'rnd 4.)' as 'rnd 4)'; a bracket that was opened, '(jede 2.)', keeps its number's dot."""
    before = m.string[: m.start()]
    return m.group(0) if before.count("(") > before.count(")") else ")"


def _without_dots(m: re.Match[str]) -> str:
    """'d.c.' as 'dc'; before a number its last dot ends the sentence, too: '2 d.c. in each d.c. 12 d.c.'"""
    ends = re.match(r"\s+\d", m.string[m.end() : m.end() + 4]) is not None
    return "".join(g for g in m.groups() if g) + "." * ends
