"""The rows of a text: its lines made plain, without bullets and page heads, and whole where they were wrapped."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace

from craft.problems import Span
from craft.text.freehand.corrections import NO_CORRECTIONS, Corrections, Taken, cut_at
from craft.text.freehand.ellipses import unfolded
from craft.text.freehand.labels import label_at
from craft.text.freehand.numbering import numbered
from craft.text.freehand.plain_lines import plain
from craft.text.freehand.row import Row
from craft.text.freehand.tables import tabled
from craft.text.notation import step_kind

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
