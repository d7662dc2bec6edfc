"""The lines of a text made plain: signs, hyphens, page heads and wrapped lines."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace

from craft.problems import Span
from craft.text.freehand.chain_starts import STANDS_FOR
from craft.text.freehand.corrections import NO_CORRECTIONS, Corrections, Taken, cut_at
from craft.text.freehand.drawn_up import drawn_together
from craft.text.freehand.ellipses import unfolded
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexicon import LANGUAGES, words_file
from craft.text.freehand.numbering import numbered
from craft.text.freehand.row import Row
from craft.text.freehand.tables import tabled
from craft.text.notation import step_kind

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
_NUMBERED_TWICE = re.compile(r"(\d)\.\)")
"""'rnd 4.)'."""
_ARROW = re.compile(
    r"[-=]+>|[\u2190-\u21ff\u2794-\u27be\u27f0-\u27ff\u2900-\u297f]|//(?=\s*\d{1,4}\s*$)|(?<=\d)\s*>(?=\s)"
)
_RANGE_LABEL = (
    r"(?i)^(\W*(?:rounds?|rnds?|rds?|rows?|runden?|tours?|vueltas?|gir[oi]|toer(?:en)?|[rtvg])\.?\s*(\d{1,3}))"
)
_RANGE_TO = r"\s*(?:rounds?|rnds?|rds?|r)?\.?\s*(\d{1,3})"
_RANGE_ARROW = re.compile(
    rf"{_RANGE_LABEL}\s*(?:[\u2192\u279c\u279d\u21d2\u25b6\u25ba\u27a4]|[-=]>|\.{{2,3}}){_RANGE_TO}(?=\s*[:.)=–-])"
)
"""'Rd6→8 – 30 sc', 'R7..R9: 36 sc': from round to round."""
_RANGE_DOTS = re.compile(rf"{_RANGE_LABEL}\.{{2,3}}{_RANGE_TO}(?=\s+[^\W\d])")
"""'r6..r8 sc'."""

_PICOT_MADE = re.compile(r"(?i)\bch(?:ain)?\s*[2-5]\s*,?\s*\(\s*(?:an?\s+)?picot(?:\s+(?:is\s+)?made)?\s*\)")
"""'ch 3 (picot made)'."""
_DOTTED = re.compile(r"\b([a-zA-Z])\.\s?([a-z])\.(?:\s?([a-z])\.)?")
_POINTING = re.compile(r"(?<=\S)\s+[»›]\s+(?=\S)")
"""'R2 » inc x 6 » 12': a sign between a label, its work and its count, where nothing is quoted."""
_LEANING = re.compile(r"\*([(\[]\d{1,4}[^*()]{0,12}[)\]])\*")
"""'*(12)*': a count that is set in italics."""
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
    text = re.sub(r"[\r\n]+\s*", " ", text)
    text = text if "«" in text else _POINTING.sub(" - ", text)
    text = _SPACED_OUT.sub(
        lambda m: m.group(0).replace(" ", ""), re.sub(r"(?<=\d)\s*~\s*(?=[a-zA-Z]{0,4}\d)", "-", text)
    )
    for ranged in (_RANGE_ARROW, _RANGE_DOTS):
        text = ranged.sub(lambda m: f"{m[1]}-{m[3]}" if int(m[3]) > int(m[2]) else m.group(0), text)
    text = _NUMBERED_TWICE.sub(r"\1)", _KEYCAP.sub(r"\1) ", text))
    text = _LEANING_LABEL.sub(lambda m: f"{m.group(1) or m.group(2)}:", text)
    text = _LEANING_LINE.sub(r"\2", text)
    text = _LEANING.sub(r"\1", text.replace("**", "").replace("__", ""))
    if len(_ARROW.findall(text)) >= LEAST_ARROWS:
        text = _ARROW.sub(" ; ", text)  # 'Ball: 6 sc in MR -> inc x 6 = 12 -> …'
    text = _ARROW.sub("=", _PICTURE.sub(" ", text.translate(_SIGNS)))
    text = _DOTTED.sub(_without_dots, text)
    text = _COUNT_COLUMN.sub(r" [\g<n>]", _RULED.sub(" = ", _TIMECODE.sub("", text)))
    text = _BULLET_BETWEEN.sub(" - ", text)
    text = _GLUED_BULLET.sub(" ", _BETWEEN_SLASHES.sub(r"(\1)", text))
    for sign, word in _COUNT_TABLE_WORDS:
        text = sign.sub(word, text)
    if m := _CELLS.fullmatch(text):
        text = f"{m['label']}: {m['work']} ({m['count']})" if m["count"] else f"{m['label']}: {m['work']}"
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


def _without_dots(m: re.Match[str]) -> str:
    """'d.c.' as 'dc'; before a number its last dot ends the sentence, too: '2 d.c. in each d.c. 12 d.c.'"""
    ends = re.match(r"\s+\d", m.string[m.end() : m.end() + 4]) is not None
    return "".join(g for g in m.groups() if g) + "." * ends


_BAR_WORKED = re.compile(r"(?i)\|\s*[=:]\s*(?:sc|dc|single\s+crochets?|double\s+crochets?)\b")
"""'| = sc' in a legend: a bar is a stitch, and no edge of a table."""


def _line(text: str, *, barred: bool) -> str:
    """A line made plain. barred: bars in its rounds are single crochets, as its legend says."""
    line = plain(text)
    return line.replace("|", " sc ") if barred and label_at(line) is not None else line


def rows(text: str, size: int = 0, corrections: Corrections = NO_CORRECTIONS) -> list[Row]:
    """The rows of a text: no sign, hyphen, page head, table or wrapping in the way of its rounds.

    size: which of several sizes is read, 0 the first.
    """
    barred = _BAR_WORKED.search(text) is not None
    found = [
        Row(
            _without_emphasis(_line(text[cut.span.start : cut.span.end], barred=barred)),
            cut.span,
            taken=cut.taken,
            apart=cut.apart,
        )
        for cut in cuts(text, corrections)
    ]
    return unwrapped(tabled(_numbered(_without_heads(_of_size(_without_bullets(found), text, size)))))


def _numbered(found: list[Row]) -> list[Row]:
    """Rows with labels that their text tells by counting on."""
    plainly = numbered(["" if row.quiet or row.taken is not None else unfolded(row.text) for row in found])
    return [replace(row, text=text) if text else row for row, text in zip(found, plainly, strict=True)]


_EMPHASIZED = re.compile(r"^\s*\*([^*]{2,30}?)[.:]?\*\s+(?=\S)")
"""'*Round 1.* Work …': a label that is printed in slanted letters; what stands between stars is repeated elsewhere."""


def _without_emphasis(text: str) -> str:
    found = _EMPHASIZED.match(text)
    label = label_at(f"{found[1]}: x") if found is not None else None
    if found is None or label is None or label.bare or label.end < len(found[1]):
        return text
    return f"{found[1]}: {text[found.end() :]}"


_BULLET = re.compile(r"^\s*[*•▪◦‣-]\s+(?=\S)")
MOST_STRAY = 3
"""Lines that may begin with a sign and be no list."""


def _without_bullets(found: list[Row]) -> list[Row]:
    """Items of a list without their signs, which may be stars of repeats where only a few lines begin with them."""
    listed = [_BULLET.match(row.text) for row in found]
    if sum(m is not None for m in listed) <= MOST_STRAY:
        return found
    return [
        replace(row, text=row.text[m.end() :], bullet=True) if m else row for row, m in zip(found, listed, strict=True)
    ]


@dataclass(frozen=True, slots=True)
class Cut:
    """Where a row stands: its line and column, what she took it for, and whether she set it apart."""

    span: Span
    line: int
    column: int = 0
    taken: Taken | None = None
    apart: bool = False
    joined: bool = False


def cuts(text: str, corrections: Corrections = NO_CORRECTIONS) -> list[Cut]:
    """Where the rows of a text stand: its lines, split and joined as she said."""
    found: list[Cut] = []
    at, number, goes_on = 0, 1, False
    for piece in re.split(r"(\r\n|\n|\r)", text):
        if piece in ("\n", "\r\n", "\r"):
            number += 1
        else:
            for start, words, said in cut_at(piece, corrections.of_line(number) if corrections.lines else ()):
                span = Span(at + start, at + start + len(words))
                if goes_on:
                    found[-1] = replace(found[-1], span=Span(found[-1].span.start, span.end))
                elif said is None:
                    found.append(Cut(span, number, start))
                else:
                    apart = start > 0 or said.taken is not None
                    found.append(Cut(span, number, start, said.taken, apart, said.joined))
                # What it goes on in is the next row that has words.
                goes_on = (said is not None and said.joined) or (goes_on and not words.strip())
        at += len(piece)
    return found


_SIZES = re.compile(
    r"(?i)\bsizes?\b|\b(?:small|kleine?|petit|pequeño)\s*\((?:large|medium|gro[sß]+|grand|grande)|\bS\s*\(M"
)
_OTHERS = re.compile(r"(?<![\w(])(\d{1,4})\s*\(\s*((?:\d{1,4}|-)(?:\s*,\s*(?:\d{1,4}|-))*)\s*\)")
_SKIPPED = re.compile(r"(?<=[:.])\s*-\s*\((.*?)\)(?=\s*[-=\[])")


def sizes_in(text: str) -> int:
    """In how many sizes a text is written: one, or as many as its numbers in brackets tell."""
    if not _SIZES.search(text):
        return 1
    found = [m.group(2).count(",") + 2 for m in _OTHERS.finditer(plain(text))]
    return max(found) if len(found) >= 3 and len(set(found)) == 1 else 1


def _of_size(found: list[Row], text: str, size: int) -> list[Row]:
    """A pattern in several sizes with the numbers of one: the first, and in brackets those of the others."""
    if sizes_in(text) == 1:
        return found

    def own(m: re.Match[str]) -> str:
        return [m.group(1), *(n.strip() for n in m.group(2).split(","))][size]

    out = []
    for row in found:
        text = _OTHERS.sub(own, row.text)
        told = _SKIPPED.search(text) if label_at(text) is not None else None
        work = None if told is None else ["-", *re.split(r",\s*(?=[*(-])", told.group(1))]
        if work is not None and told is not None and size < len(work):
            mine = work[size].strip()
            out.append(replace(row, text=f"{text[: told.start()]} {mine}{text[told.end() :]}", quiet=mine == "-"))
        else:
            out.append(replace(row, text=text))
    return out


def _is_running_head(text: str) -> bool:
    """Whether a line that comes again may be a page's head: no sentence and nothing to do, which may well come again."""
    plain_text = text.strip()
    return len(plain_text) > 25 and plain_text[-1] not in ".!?:;)]" and step_kind(text) is None


def _without_heads(found: list[Row]) -> list[Row]:
    """Heads and feet of pages, which come again with another number, are quiet."""

    def key(row: Row) -> str:
        return re.sub(r"\d+", "#", re.sub(r"\s+", " ", row.text.strip().lower()))

    many = Counter(key(r) for r in found if len(r.text.strip()) > 12)
    numbered = re.compile(r"(?i)\b(?:page|seite|página|pagina|pág\.|p\.|fiche)\s*#|^[^#]{6,}#\s*/\s*#$")
    out = []
    for row in found:
        if row.taken is not None:
            out.append(row)
            continue
        head = numbered.search(key(row)) is not None and label_at(row.text) is None
        again = many[key(row)] > 1 and "#" not in key(row) and ("©" in row.text or _is_running_head(row.text))
        again = again and label_at(row.text) is None and row.text.strip()[:1] not in ("|", "")
        out.append(replace(row, quiet=True) if head or again else row)
    return out


# --- wrapped lines --------------------------------------------------------------------------


_COUNT_ENDS = re.compile(
    r"(?i)[.=:)\]]\s*\d{1,4}\s*(?:sts?|stitches|sc|dc|m|ms|pb|p|mb|v)$|\d\s+each(?:\s+(?:time|round|rnd))?$"
)
"""'sc in each st. 30 sts': the round is told to its end."""

_COUNT_ALONE = re.compile(r"[(\[]\s*\d{1,4}\s*[^()\[\]]{0,12}[)\]]\.?")


_TIMES_FIRST = re.compile(r"(?i)[x×]\s*\d{1,3}\b|\d{1,3}\s*(?:x|×|times|mal|fois|veces|volte|keer)(?![^\W\d_])")
"""'x6 (18)' below 'R3: (sc, inc)': how often what stands above is worked."""

_ALL_PLAIN = re.compile(r"(?i)\W*(?:plain|even|straight|sc|dc)\W*")


def _joins(above: Row, row: Row) -> bool:
    """Whether a row goes on where the one above broke off."""
    up, down = above.text.rstrip(), row.text.strip()
    if above.taken is not None or row.apart:
        return False
    if not up or not down or above.head != row.head or label_at(row.text) is not None:
        return False
    if re.search(r"[^\W\d_]-$", up) and re.match(r"[a-zà-ÿ]", down):
        return True
    label = label_at(above.text)
    if label is None:
        return False
    work = above.text[label.end :].strip()
    if not work or _COUNT_ALONE.fullmatch(down) or (work[-1] in ")]*" and _TIMES_FIRST.match(down)):
        return True  # the label, the work and the count, each on a line of its own
    if re.fullmatch(r"\d{1,4}", work) and re.fullmatch(r"\(.*[^\W\d_].*\)\.?", down):
        return True  # 'round 2: 12', and below it '(inc in each)'
    if label.many > 1 and _ALL_PLAIN.fullmatch(above.text[label.end :]):
        return False  # 'three rounds plain'
    counted = _COUNT_ENDS.search(up) is not None or (
        re.search(r"\d$", up) is not None
        and re.match(r"(?i)(?:sts?|stitches|sc|total|rounds?|times|x)\b", down) is None
    )
    if counted or (step_kind(down) is not None and not re.match(r"(?i).*\b(?:sc|inc|dec)\b", down)):
        return False
    opened = sum(up.count(s) for s in "([{") > sum(up.count(s) for s in ")]}")
    unended = up[-1:] not in ".:!?)]}=" and re.match(r"[a-zà-ÿ(\[*\d]", down) is not None
    return (
        opened
        or up[-1:] in ",;-"
        or (unended and re.match(r"[a-zà-ÿ(\[*]|\d+\s*(?:st|sc|inc|dec|x)", down) is not None)
    )


def unwrapped(found: Sequence[Row]) -> list[Row]:
    """Rows with those joined that one line was broken into."""
    out: list[Row] = []
    blank = True
    for row in found:
        if row.quiet:
            continue
        if not row.text.strip():
            blank = True
            continue
        above = out[-1] if out else None
        if above is not None and not blank and _joins(above, row):
            out[-1] = replace(above, text=_glued(above.text, row.text), span=Span(above.span.start, row.span.end))
        else:
            out.append(row)
        blank = False
    return out


def _glued(above: str, below: str) -> str:
    up, down = above.rstrip(), below.strip()
    if re.search(r"[^\W\d_]-$", up) and re.match(r"[a-zà-ÿ]", down):
        return up[:-1] + down
    label = label_at(up)
    if label is not None and label.end == len(up) and up[-1].isalnum():
        return f"{up}: {down}"  # 'Round 1' on a line of its own
    return f"{up} {down}"
