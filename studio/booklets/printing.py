"""The booklet as HTML for print, and as PDF. Nothing is fetched but the fonts that lie beside this file."""

from __future__ import annotations

import re
from base64 import b64decode, b64encode
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from django.template.loader import render_to_string
from weasyprint import HTML
from weasyprint import Document as Pages
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher, URLFetcherResponse

from craft.document.booklet import Document
from studio.booklets.album import Taken
from studio.booklets.scripts import FAMILIES, faces

FONTS = Path(__file__).parent / "fonts"
FONT_KINDS = {".ttf": "font/ttf", ".woff2": "font/woff2"}


@dataclass(frozen=True, slots=True)
class Paper:
    """A page: its size and margin; type, and the widths of what stands on it. All are CSS lengths."""

    size: str
    margin: str = "18mm 18mm 20mm"
    type: str = "10.5pt"
    cover: str = "105mm"
    names: str = "34mm"
    labels: str = "19mm"
    small: str = "40mm"
    picture: str = "58mm"
    lines: float = 1.45

    def drawn_in(self, share: float) -> Paper:
        """The page with its pictures at a share of their size, and its lines closer or wider apart with them."""
        cover, small, picture = (
            f"{share * float(v.removesuffix('mm')):g}mm" for v in (self.cover, self.small, self.picture)
        )
        return replace(self, cover=cover, small=small, picture=picture, lines=self.lines - (1 - share) / 3)


PAPERS = {
    "a4": Paper("A4"),
    "letter": Paper("letter"),
    "phone": Paper("90mm 160mm", "6mm 6mm 10mm", "9pt", "60mm", "22mm", "15mm", "26mm", "36mm"),
}
"""Papers by name. The phone's has the shape of its screen, so that a page fills it."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """How a booklet is printed. paper: a name of `PAPERS`. large: type. low_ink: small, grey pictures."""

    paper: str = "a4"
    large: bool = False
    low_ink: bool = False


LEAST_LAST, NEARLY_EMPTY = 0.45, 0.3
"""How much of the last page is to be filled; and below how much it is easier done without it."""

DRAWN_IN, LET_OUT = (0.88, 0.76), (1.12, 1.3)
"""Shares of the pictures' size that are tried where the last page is nearly empty, and where it is nearly filled enough."""

LARGE = {"10.5pt": "14pt", "9pt": "11.5pt"}

PICTURE = re.compile(r"data:(image/(?:png|jpeg|svg\+xml));base64,")


class _OwnFiles(URLFetcher):  # type: ignore[misc]
    """Hands out our fonts and the pictures that stand in the page itself, and refuses everything else."""

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        if inside := PICTURE.match(url):
            return URLFetcherResponse(url, b64decode(url[inside.end() :]), {"Content-Type": inside[1]})
        name = url.removeprefix("font:")
        file = next((f for f in FONTS.iterdir() if f.suffix in FONT_KINDS and f.name == name), None)
        if url == name or file is None:
            raise ValueError("Only what ships with the application, or stands in the page, is read.")
        return URLFetcherResponse(url, file.read_bytes(), {"Content-Type": FONT_KINDS[file.suffix]})


def words_of(document: Document) -> dict[str, str]:
    """What the pages say beside the tree, in its language."""
    words = document.words
    return {
        "contents": words.say("Contents"),
        "missing": words.say("No picture yet"),
        "page": words.say("Page"),
        "of": words.say("of"),
        "templates": words.say("Templates in true size"),
        "notes": words.say("For your notes"),
    }


def as_url(taken: Taken) -> str:
    """A picture as a data URL."""
    return f"data:{taken.kind};base64,{b64encode(taken.content).decode('ascii')}"


def as_html(
    document: Document,
    cover: str,
    pictures: Mapping[str, Taken],
    sheet: Sheet,
    templates: Sequence[str] = (),
    share: float = 1.0,
    rules: int = 0,
) -> str:
    """The booklet as one self-contained HTML page for print. templates: pages in true size, as SVG. share: of their usual
    size, at which pictures are set. rules: lines for the maker's notes behind the last word."""
    paper = PAPERS[sheet.paper].drawn_in(share)
    context: dict[str, Any] = {
        "document": document.to_json(),
        "cover": cover,
        "pictures": {key: as_url(taken) for key, taken in pictures.items()},
        "paper": replace(paper, type=LARGE[paper.type]) if sheet.large else paper,
        "low_ink": sheet.low_ink,
        "templates": templates,
        "rules": range(rules),
        "words": words_of(document),
        "scripts": FAMILIES,
    }
    return render_to_string("booklets/print.html", context)


def as_pdf(
    document: Document, cover: str, pictures: Mapping[str, Taken], sheet: Sheet, templates: Sequence[str] = ()
) -> bytes:
    """The booklet as PDF, tagged for screen readers, with its templates on pages of their own.

    Where the last page of the words would be half empty, pictures are set somewhat smaller or larger, so that it is not
    needed or is filled; where that does not help, the maker has ruled lines for notes there, if it is of paper.
    """
    first = _laid_out(as_html(document, cover, pictures, sheet, templates))
    pages, filled = _end_of(first)
    if pages == 1 or filled >= LEAST_LAST:
        return _written(first)
    for share in DRAWN_IN if filled < NEARLY_EMPTY else LET_OUT:
        other = _laid_out(as_html(document, cover, pictures, sheet, templates, share))
        number, fills = _end_of(other)
        if number < pages or (number == pages and fills >= LEAST_LAST):
            return _written(other)
    if rules := _rules_below(first, pages, sheet):
        ruled = _laid_out(as_html(document, cover, pictures, sheet, templates, rules=rules))
        if len(ruled.pages) == len(first.pages):
            return _written(ruled)
    return _written(first)


MM_PX = 96 / 25.4
RULE_MM, RULES_TITLE_MM, FOOT_MM = 9.0, 22.0, 22.0
"""From one ruled line to the next, what their title takes, and what is left free below them."""


def _rules_below(pages: Pages, number: int, sheet: Sheet) -> int:
    """How many ruled lines have room below the last word; none on a phone, where nobody writes."""
    if sheet.paper == "phone":
        return 0
    page = pages.pages[number - 1]
    left = (page.height - page.anchors[END][1]) / MM_PX
    return max(0, int((left - RULES_TITLE_MM - FOOT_MM) / RULE_MM))


def templates_pdf(document: Document, templates: Sequence[str], paper: str) -> bytes:
    """The pages in true size of a booklet as a PDF of their own."""
    context = {
        "templates": templates,
        "paper": PAPERS[paper],
        "words": words_of(document),
        "language": document.language,
    }
    return _written(_laid_out(render_to_string("booklets/templates.html", context), templates))


def _laid_out(html: str, drawings: Sequence[str] = ()) -> Pages:
    """The pages. drawings: whose words stand in the page as pictures."""
    page = HTML(
        string=html.replace(FACES_HERE, faces(html + "".join(drawings)), 1), url_fetcher=_OwnFiles(), base_url="font:"
    )
    return page.render(font_config=FontConfiguration(), pdf_tags=True)


def _written(pages: Pages) -> bytes:
    return bytes(pages.write_pdf(pdf_tags=True) or b"")


def _end_of(pages: Pages) -> tuple[int, float]:
    """On which page the words end, from 1, and how much of that page they fill."""
    for number, page in enumerate(pages.pages, 1):
        if (end := page.anchors.get(END)) is not None:
            return number, end[1] / page.height
    return len(pages.pages), 1.0


FACES_HERE = "/* fonts of other scripts */"
"""Where the pages have the fonts that their text needs beside their own."""

END = "the-end"
"""The anchor behind the last word."""


def as_page(document: Document, cover: str, pictures: Mapping[str, Taken]) -> str:
    """The booklet as one file of HTML, to be read anywhere without a net."""
    context = {
        "document": document.to_json(),
        "cover": cover,
        "pictures": {key: as_url(taken) for key, taken in pictures.items()},
        "words": words_of(document),
    }
    return render_to_string("booklets/page.html", context)
