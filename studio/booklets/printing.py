"""The booklet as HTML for print, and as PDF. Nothing is fetched but the fonts that lie beside this file."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.template.loader import render_to_string
from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher, URLFetcherResponse

from craft.document.booklet import Document

FONTS = Path(__file__).parent / "fonts"
PAPERS = {"a4": "A4", "letter": "letter"}


class _OwnFonts(URLFetcher):  # type: ignore[misc]
    """Hands out our fonts and refuses everything else."""

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        name = url.removeprefix("font:")
        if url == name or name not in {f.name for f in FONTS.glob("*.ttf")}:
            raise ValueError("Only fonts that ship with the application are read.")
        return URLFetcherResponse(url, (FONTS / name).read_bytes(), {"Content-Type": "font/ttf"})


def as_html(document: Document, cover: str, *, paper: str, large: bool, low_ink: bool) -> str:
    """The booklet as one self-contained HTML page for print."""
    context: dict[str, Any] = {
        "document": document.to_json(),
        "cover": cover,
        "paper": PAPERS[paper],
        "large": large,
        "low_ink": low_ink,
    }
    return render_to_string("booklets/print.html", context)


def as_pdf(document: Document, cover: str, *, paper: str, large: bool, low_ink: bool) -> bytes:
    """The booklet as PDF, tagged for screen readers."""
    html = as_html(document, cover, paper=paper, large=large, low_ink=low_ink)
    page = HTML(string=html, url_fetcher=_OwnFonts(), base_url="font:")
    return bytes(page.write_pdf(font_config=FontConfiguration(), pdf_tags=True) or b"")
