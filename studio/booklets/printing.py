"""The booklet as HTML for print, and as PDF. Nothing is fetched but the fonts that lie beside this file."""

from __future__ import annotations

import re
from base64 import b64decode
from pathlib import Path
from typing import Any

from django.template.loader import render_to_string
from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher, URLFetcherResponse

from craft.document.booklet import Document

FONTS = Path(__file__).parent / "fonts"
PAPERS = {"a4": "A4", "letter": "letter"}


PICTURE = re.compile(r"data:(image/(?:png|svg\+xml));base64,")


class _OwnFiles(URLFetcher):  # type: ignore[misc]
    """Hands out our fonts and the pictures that stand in the page itself, and refuses everything else."""

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> URLFetcherResponse:
        if inside := PICTURE.match(url):
            return URLFetcherResponse(url, b64decode(url[inside.end() :]), {"Content-Type": inside[1]})
        name = url.removeprefix("font:")
        if url == name or name not in {f.name for f in FONTS.glob("*.ttf")}:
            raise ValueError("Only what ships with the application, or stands in the page, is read.")
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
    page = HTML(string=html, url_fetcher=_OwnFiles(), base_url="font:")
    return bytes(page.write_pdf(font_config=FontConfiguration(), pdf_tags=True) or b"")
