"""The files of a booklet, all of them from one tree."""

from __future__ import annotations

import json
from base64 import b64decode
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from django.contrib.auth.models import User

from craft.document.booklet import as_markdown, as_text
from studio.booklets.album import Taken
from studio.booklets.epub import as_epub
from studio.booklets.manuscripts import Booklet, cover
from studio.booklets.printing import Sheet, as_page, as_pdf
from studio.sent import stem_of

Ending = Literal["pdf", "html", "epub", "txt", "md", "json"]


@dataclass(frozen=True, slots=True)
class FileKind:
    """A kind of file: its media type, and whether it holds pictures."""

    media: str
    pictures: bool = False


ENDINGS: dict[str, FileKind] = {
    "pdf": FileKind("application/pdf", pictures=True),
    "html": FileKind("text/html; charset=utf-8", pictures=True),
    "epub": FileKind("application/epub+zip", pictures=True),
    "txt": FileKind("text/plain; charset=utf-8"),
    "md": FileKind("text/markdown; charset=utf-8"),
    "json": FileKind("application/json"),
    "svg": FileKind("image/svg+xml"),
}


@dataclass(frozen=True, slots=True)
class BookFile:
    """A file of a booklet."""

    content: bytes
    ending: str

    @property
    def kind(self) -> str:
        """Its media type."""
        return ENDINGS[self.ending].media

    def named(self, name: str) -> str:
        """Its file name."""
        return f"{stem_of(name, 'pattern')}.{self.ending}"


def book_file(user: User, made: Booklet, ending: Ending, pictures: Mapping[str, Taken], sheet: Sheet) -> BookFile:
    """A booklet as a file. pictures: those that are there, by key."""
    if ending == "json":
        body = json.dumps(made.document.to_json(), ensure_ascii=False, indent=1)
    elif ending in ("txt", "md"):
        body = as_text(made.document) if ending == "txt" else as_markdown(made.document)
    else:
        front = cover(user, made, low_ink=sheet.low_ink)
        if ending == "pdf":
            return BookFile(as_pdf(made.document, front, pictures, sheet, made.templates(user, sheet.paper)), ending)
        if ending == "epub":
            return BookFile(as_epub(made.document, _taken(front), pictures, made.date), ending)
        body = as_page(made.document, front, pictures)
    return BookFile(body.encode(), ending)


def _taken(url: str) -> Taken:
    head, _, body = url.partition(";base64,")
    return Taken(b64decode(body), head.removeprefix("data:"))
