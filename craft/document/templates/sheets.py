"""Templates on pages in true size, as SVG in millimetres, each page with a bar and a card outline to check its print."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

from craft.document.templates.pieces import Line, Template
from craft.errors import CraftError
from craft.text.catalogue import ENGLISH, Words

BAR_MM = 100.0
CARD_MM = (85.6, 53.98)
"""A bank card, ISO/IEC 7810 ID-1: something of known size that is at hand."""

SHEETS = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
"""Papers, width and height in mm (ISO 216; US Letter is 8.5 × 11 in)."""

MARGIN_MM, GAP_MM, WORDS_MM = 12.0, 8.0, 6.0
HEAD_MM = 78.0
"""What the title, the bar and the card take of every page."""

_INK = 'fill="none" stroke="#2d2621" stroke-width="0.3"'


@dataclass(frozen=True, slots=True)
class Laid:
    """A template on a page: its lower left corner in mm from the page's upper left one, y downwards."""

    template: Template
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Sheet:
    """A page of templates. wide_mm, tall_mm: of the paper."""

    wide_mm: float
    tall_mm: float
    laid: tuple[Laid, ...]


def sheets_of(templates: Sequence[Template], paper: str = "a4", words: Words = ENGLISH) -> tuple[Sheet, ...]:
    """Templates on as many pages as they need, in rows, with room for their words.

    CraftError for one that no page holds, or an unknown paper.
    """
    if paper not in SHEETS:
        raise CraftError("Templates are printed on A4 or Letter.", field="paper")
    wide, tall = SHEETS[paper]
    pages: list[list[Laid]] = [[]]
    x, y, row = MARGIN_MM, HEAD_MM, 0.0
    for t in sorted(templates, key=lambda t: -t.tall_mm):
        if t.wide_mm > wide - 2 * MARGIN_MM or t.tall_mm > tall - HEAD_MM - MARGIN_MM - WORDS_MM:
            raise CraftError(f"{t.said()}: that is larger than the page.", field="paper")
        if x + t.wide_mm > wide - MARGIN_MM:
            x, y, row = MARGIN_MM, y + row + GAP_MM + WORDS_MM, 0.0
        if y + t.tall_mm + WORDS_MM > tall - MARGIN_MM:
            pages.append([])
            x, y, row = MARGIN_MM, HEAD_MM, 0.0
        pages[-1].append(Laid(t, x, y + t.tall_mm))
        row = max(row, t.tall_mm)
        x += max(t.wide_mm, _words_mm(t.said(words))) + GAP_MM
    return tuple(Sheet(wide, tall, tuple(laid)) for laid in pages if laid)


def _words_mm(text: str) -> float:
    """About how wide a line of words of 2.8 mm type is."""
    return len(text) * 1.45


def svg_of(sheet: Sheet, title: str, stamp: str, words: Words = ENGLISH) -> str:
    """A page as SVG whose units are millimetres, in a language."""
    body = [*_head(title, stamp, words)]
    for laid in sheet.laid:
        body += [_path(line, laid) for line in laid.template.lines]
        body += [_word(laid.x + w.at[0], laid.y - w.at[1], w.text, 2.2, "middle") for w in laid.template.words]
        body.append(_word(laid.x, laid.y + 4, laid.template.said(words), 2.8))
    size = f'width="{sheet.wide_mm:g}mm" height="{sheet.tall_mm:g}mm" viewBox="0 0 {sheet.wide_mm:g} {sheet.tall_mm:g}"'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size} font-family="Work, sans-serif">{"".join(body)}</svg>\n'


def _head(title: str, stamp: str, words: Words) -> list[str]:
    card_x, top = MARGIN_MM + BAR_MM + 6, 16.0
    ticks = [f"M{MARGIN_MM + 10 * k:g} {top + 6:g}v{-3 if k % 5 else -5}" for k in range(11)]
    check = (
        "Print at 100 %, not fitted to the page. The bar is 100 mm long,",
        "and a bank card fits its outline. If either does not,",
        "what is below is not in true size.",
    )
    return [
        _word(MARGIN_MM, 10, f"{title}: {words.say('templates in true size')}", 4),
        _word(MARGIN_MM, 13.5, stamp, 2.2),
        f'<path d="M{MARGIN_MM:g} {top + 6:g}h{BAR_MM:g}{"".join(ticks)}" {_INK}/>',
        _word(MARGIN_MM, top + 10, "100 mm", 2.8),
        *(_word(MARGIN_MM, top + 16 + 4 * n, words.say(line), 2.4) for n, line in enumerate(check)),
        f'<rect x="{card_x:g}" y="{top + 2:g}" width="{CARD_MM[0]:g}" height="{CARD_MM[1]:g}" rx="3.18" {_INK}/>',
    ]


def _path(line: Line, laid: Laid) -> str:
    points = "L".join(f"{laid.x + x:.3f} {laid.y - y:.3f}" for x, y in line.points)
    return f'<path d="M{points}{"Z" if line.closed else ""}" {_INK}/>'


def _word(x: float, y: float, text: str, mm: float, anchor: str = "start") -> str:
    return (
        f'<text x="{x:.2f}" y="{y:.2f}" font-size="{mm:g}" text-anchor="{anchor}" fill="#2d2621">{escape(text)}</text>'
    )
