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
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher, URLFetcherResponse

from craft.document.booklet import Document
from craft.rounds.stitches import Language
from craft.text.catalogue import Words
from studio.booklets.album import Taken

FONTS = Path(__file__).parent / "fonts"


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


LARGE = {"10.5pt": "14pt", "9pt": "11.5pt"}

PICTURE = re.compile(r"data:(image/(?:png|jpeg|svg\+xml));base64,")


class _OwnFiles(URLFetcher):  # type: ignore[misc]
    """Hands out our fonts and the pictures that stand in the page itself, and refuses everything else."""

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        if inside := PICTURE.match(url):
            return URLFetcherResponse(url, b64decode(url[inside.end() :]), {"Content-Type": inside[1]})
        name = url.removeprefix("font:")
        if url == name or name not in {f.name for f in FONTS.glob("*.ttf")}:
            raise ValueError("Only what ships with the application, or stands in the page, is read.")
        return URLFetcherResponse(url, (FONTS / name).read_bytes(), {"Content-Type": "font/ttf"})


def words_of(document: Document) -> dict[str, str]:
    """What the pages say beside the tree, in its language."""
    words = Words(None if document.language == "en" else Language(document.language))
    return {"contents": words.say("Contents"), "missing": words.say("No picture yet")}


def as_url(taken: Taken) -> str:
    """A picture as a data URL."""
    return f"data:{taken.kind};base64,{b64encode(taken.content).decode('ascii')}"


def as_html(
    document: Document, cover: str, pictures: Mapping[str, Taken], sheet: Sheet, templates: Sequence[str] = ()
) -> str:
    """The booklet as one self-contained HTML page for print. templates: pages in true size, as SVG."""
    paper = PAPERS[sheet.paper]
    context: dict[str, Any] = {
        "document": document.to_json(),
        "cover": cover,
        "pictures": {key: as_url(taken) for key, taken in pictures.items()},
        "paper": replace(paper, type=LARGE[paper.type]) if sheet.large else paper,
        "low_ink": sheet.low_ink,
        "templates": templates,
        "words": words_of(document),
    }
    return render_to_string("booklets/print.html", context)


def as_pdf(
    document: Document, cover: str, pictures: Mapping[str, Taken], sheet: Sheet, templates: Sequence[str] = ()
) -> bytes:
    """The booklet as PDF, tagged for screen readers, with its templates on pages of their own."""
    return _pdf(as_html(document, cover, pictures, sheet, templates))


def templates_pdf(templates: Sequence[str], paper: str) -> bytes:
    """Pages in true size as a PDF of their own."""
    return _pdf(render_to_string("booklets/templates.html", {"templates": templates, "paper": PAPERS[paper]}))


def _pdf(html: str) -> bytes:
    page = HTML(string=html, url_fetcher=_OwnFiles(), base_url="font:")
    return bytes(page.write_pdf(font_config=FontConfiguration(), pdf_tags=True) or b"")


def as_page(document: Document, cover: str, pictures: Mapping[str, Taken]) -> str:
    """The booklet as one file of HTML, to be read anywhere without a net."""
    context = {
        "document": document.to_json(),
        "cover": cover,
        "pictures": {key: as_url(taken) for key, taken in pictures.items()},
        "words": words_of(document),
    }
    return render_to_string("booklets/page.html", context)
