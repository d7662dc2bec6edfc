"""The text of a PDF: columns one after another, no page's head or foot, tables in rows, large lines as headings."""

from __future__ import annotations

import io
import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from statistics import median

from pdfminer.high_level import extract_pages
from pdfminer.layout import LAParams, LTChar, LTContainer, LTPage, LTTextLine
from pdfminer.pdfdocument import PDFPasswordIncorrect
from pdfminer.pdfpage import PDFPage
from pdfminer.pdfparser import PDFSyntaxError
from pdfminer.psexceptions import PSException

from craft.errors import CraftError, require
from craft.text.freehand.labels import label_at
from craft.text.intake.rows import cleaned

MOST_PAGES = 200
GUTTER = 9.0
"""Points between two columns at the least."""

LARGE = 1.18
"""How much larger than the text's own letters a heading's are."""

MOST_HEADING = 60

MARGIN = 0.1
"""Share of a page's height in which its head and foot stand."""

_SHORT = re.compile(r"^(?:[\[(=]?\s*\d{1,4}\s*(?:sts?|sc|dc)?\s*[\])]?\.?|[+=\-−–]\s*\d{0,3})$")
"""What stands alone at a line's end: a count, and by how much it grew."""

_BULLET = re.compile(r"^[•◦▪‣·☐□○●\-–*]$")

_LABEL = re.compile(
    r"(?i)^(?:r|rnd|round|row|rd|runde|tour|vuelta|giro|toer)?\.?\s*\d{1,3}(?:\s*[-–]\s*\w{0,4}\s*\d{1,3})?\s*[:.)]?$"
)
"""What stands alone at a line's start: a round's label."""


@dataclass(frozen=True, slots=True)
class _Piece:
    """A run of words on one line, in points from the page's left and top. size: of its letters. tail: a count that
    stands apart at the line's end. edge: it stands in the page's upper or lower margin."""

    text: str
    x0: float
    x1: float
    top: float
    bottom: float
    size: float
    tail: str = ""
    edge: bool = False

    @property
    def middle(self) -> float:
        return (self.top + self.bottom) / 2


def read_text(raw: bytes, tell: Callable[[int], None] = lambda _: None) -> tuple[str, list[str]]:
    """The text of a PDF, and what was left out of it. CraftError for one that is locked, damaged, or only pictures.

    tell: told the progress in percent.
    """
    try:
        many = sum(1 for _ in PDFPage.get_pages(io.BytesIO(raw)))
        require(0 < many <= MOST_PAGES, f"a PDF of up to {MOST_PAGES} pages is read; this one has {many}.")
        pages = []
        for at, page in enumerate(extract_pages(io.BytesIO(raw), laparams=LAParams(char_margin=1.6, boxes_flow=None))):
            pages.append(_pieces(page))
            tell(round(100 * (at + 1) / many))
    except PDFPasswordIncorrect:
        raise CraftError("this PDF is locked with a password: save it without one first.") from None
    except (PDFSyntaxError, PSException, KeyError, ValueError, TypeError, AssertionError, IndexError, RecursionError):
        raise CraftError("this PDF is damaged and could not be read.") from None
    blank = [n for n, page in enumerate(pages, 1) if not page]
    if len(blank) == many:
        raise CraftError(
            "this PDF is a scan: pictures of pages without their text. Have the text recognised first, or type it."
        )
    notes = [f"Page {n} holds only pictures." for n in blank]
    bare, heads = _without_heads(pages)
    if heads:
        notes.append(f"Heads and feet of pages are left out: {'; '.join(heads[:4])}.")
    body = median(p.size for page in bare for p in page for _ in p.text)
    return cleaned(line for page in bare for line in _lines(page, body)), notes


def _pieces(page: LTPage) -> list[_Piece]:
    """The runs of words on a page, those of one line that belong together joined."""
    found = [_piece(line, page.height) for line in _text_lines(page) if line.get_text().strip()]
    return _joined(sorted(found, key=lambda p: (round(p.middle), p.x0)))


def _piece(line: LTTextLine, height: float) -> _Piece:
    middle = (line.y0 + line.y1) / 2
    edge = not MARGIN * height < middle < (1 - MARGIN) * height
    return _Piece(line.get_text().strip(), line.x0, line.x1, height - line.y1, height - line.y0, _size(line), edge=edge)


def _text_lines(item: Iterable[object]) -> Iterator[LTTextLine]:
    for inner in item:
        if isinstance(inner, LTTextLine):
            yield inner
        elif isinstance(inner, LTContainer):
            yield from _text_lines(inner)


def _size(line: LTTextLine) -> float:
    return median([c.size for c in line if isinstance(c, LTChar)] or [line.height])


def _joined(pieces: list[_Piece]) -> list[_Piece]:
    """Labels with their work, work with the count at the line's end: pieces of one line that are no columns."""
    out: list[_Piece] = []
    for piece in pieces:
        left = next((k for k in range(len(out) - 1, -1, -1) if _beside(out[k], piece)), None)
        before = out[left] if left is not None else piece
        short = _SHORT.match(piece.text) is not None
        if left is not None and (short or _LABEL.match(before.text) or _BULLET.match(before.text)):
            out[left] = replace(
                before,
                text=before.text if short else f"{before.text} {piece.text}",
                tail=f"{before.tail}   {piece.text}" if short else before.tail,
                size=max(before.size, piece.size),
                x1=piece.x1,
                top=min(before.top, piece.top),
                bottom=max(before.bottom, piece.bottom),
            )
        else:
            out.append(piece)
    return out


def _beside(left: _Piece, right: _Piece) -> bool:
    low, high = max(left.top, right.top), min(left.bottom, right.bottom)
    return left.x1 <= right.x0 + 1 and high - low > 0.5 * min(left.bottom - left.top, right.bottom - right.top)


# --- heads and feet -----------------------------------------------------------------------------


def _is_round(text: str) -> bool:
    label = label_at(text)
    return label is not None and not label.bare


def _without_heads(pages: Sequence[list[_Piece]]) -> tuple[list[list[_Piece]], list[str]]:
    """The pages without the lines at their top and foot that come again with at most another number."""

    def key(piece: _Piece) -> tuple[str, int]:
        return re.sub(r"\d+", "#", piece.text.lower()), round(piece.middle / 6)

    edges = [{p for p in page if p.edge and not _is_round(p.text)} for page in pages]
    again = Counter(k for page in edges for k in {key(p) for p in page})
    own = {k for k, n in again.items() if n >= max(2, len(pages) / 2)}
    out = [
        [p for p in page if not (p in edge and (key(p) in own or re.fullmatch(r"\W*\d{1,3}\W*", p.text)))]
        for page, edge in zip(pages, edges, strict=True)
    ]
    gone = [p.text for page, rest in zip(pages, out, strict=True) for p in page if p not in rest]
    return out, list(dict.fromkeys(re.sub(r"\d+", "…", g) for g in gone))


# --- the order of reading ---------------------------------------------------------------------------


def _ordered(pieces: list[_Piece], depth: int = 0) -> list[list[_Piece]]:
    """Blocks in the order of reading: cut at gutters into columns, else at the widest gap into bands."""
    if len(pieces) < 4 or depth > 12:
        return [sorted(pieces, key=lambda p: (p.middle, p.x0))]
    gutter = _gap([(p.x0, p.x1) for p in pieces], GUTTER)
    if gutter is not None:
        sides = [p for p in pieces if p.x1 <= gutter], [p for p in pieces if p.x0 >= gutter]
        if min(map(len, sides)) >= 2:
            return [*_ordered(sides[0], depth + 1), *_ordered(sides[1], depth + 1)]
    band = _gap([(p.top, p.bottom) for p in pieces], 1.0)
    if band is not None:
        bands = [p for p in pieces if p.bottom <= band], [p for p in pieces if p.top >= band]
        return [*_ordered(bands[0], depth + 1), *_ordered(bands[1], depth + 1)]
    return [sorted(pieces, key=lambda p: (p.middle, p.x0))]


def _gap(spans: list[tuple[float, float]], least: float) -> float | None:
    """The middle of the widest gap that no span reaches into, None when there is none of `least`."""
    best: tuple[float, float] | None = None
    end = -1.0
    for start, stop in sorted(spans):
        if end >= 0 and start - end >= least and (best is None or start - end > best[0]):
            best = start - end, (start + end) / 2
        end = max(end, stop)
    return best[1] if best else None


def _lines(page: list[_Piece], body: float) -> Iterator[str]:
    """A page's lines, an empty one where the paper has a gap."""
    for block in _ordered(page):
        above: _Piece | None = None
        for piece in _wrapped(block, body):
            if above is None or piece.top - above.bottom > 0.7 * body:
                yield ""
            large = piece.size >= LARGE * body and len(piece.text) <= MOST_HEADING
            yield f"{'# ' if large else ''}{piece.text}{piece.tail}"
            above = piece
    yield ""


def _wrapped(block: list[_Piece], body: float) -> Iterator[_Piece]:
    """Pieces in order; a round whose work goes on in the line below has its count behind all of it."""
    held: _Piece | None = None
    for piece in block:
        if held is not None and held.tail and not piece.tail and _goes_on(held, piece, body):
            held = replace(held, text=f"{held.text} {piece.text}", bottom=piece.bottom)
            continue
        if held is not None:
            yield held
        held = piece
    if held is not None:
        yield held


def _goes_on(above: _Piece, piece: _Piece, body: float) -> bool:
    close = piece.top - above.bottom < 0.6 * body
    return close and piece.x0 > above.x0 + 4 and piece.x1 < above.x1 and not _LABEL.match(piece.text.split()[0])
