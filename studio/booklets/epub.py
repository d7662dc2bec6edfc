"""The booklet as an EPUB 3: a zip of XHTML chapters with its pictures, by the rules of EPUB 3.3 (W3C, 2023).

Written here and not by a package: the known one may not be passed on under this application's licence.
"""

from __future__ import annotations

import hashlib
import io
import re
import zipfile
from collections.abc import Mapping
from datetime import date

from django.template.loader import render_to_string

from craft.document.booklet import Document
from studio.booklets.album import Taken
from studio.booklets.printing import words_of

_ENDINGS = {"image/jpeg": "jpg", "image/png": "png", "image/svg+xml": "svg"}

_CONTAINER = """<?xml version="1.0" encoding="UTF-8"?>
<container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container">
<rootfiles><rootfile full-path="book/package.opf" media-type="application/oebps-package+xml"/></rootfiles>
</container>
"""


def as_epub(document: Document, cover: Taken, pictures: Mapping[str, Taken], made: date) -> bytes:
    """The booklet as an EPUB. made: the day that stands in it; equal booklets of a day are equal byte for byte."""
    files = {key: (f"pictures/{_name(key)}.{_ENDINGS[t.kind]}", t) for key, t in pictures.items()}
    cover_file = f"pictures/cover.{_ENDINGS[cover.kind]}"
    context = {
        "document": document.to_json(),
        "cover": cover_file,
        "cover_kind": cover.kind,
        "pictures": {key: name for key, (name, _) in files.items()},
        "items": [(f"p{number}", name, t.kind) for number, (name, t) in enumerate(files.values())],
        "id": hashlib.sha256(f"{document.title}\0{document.byline}\0{document.stamp}".encode()).hexdigest()[:32],
        "made": made.isoformat(),
        "words": words_of(document),
    }
    out = io.BytesIO()
    stamp = (made.year, made.month, made.day, 0, 0, 0)
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as book:

        def put(name: str, body: str | bytes, how: int = zipfile.ZIP_DEFLATED) -> None:
            book.writestr(zipfile.ZipInfo(name, stamp), body, how)

        put("mimetype", "application/epub+zip", zipfile.ZIP_STORED)  # first, and not packed: the rules ask for it
        put("META-INF/container.xml", _CONTAINER)
        for name in ("package.opf", "nav.xhtml", "cover.xhtml", "pattern.xhtml"):
            put(f"book/{name}", _xml(render_to_string(f"booklets/epub/{name}", context)))
        put("book/style.css", render_to_string("booklets/page.css"))
        put(f"book/{cover_file}", cover.content)
        for name, taken in files.values():
            put(f"book/{name}", taken.content)
    return out.getvalue()


def _name(key: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", key.lower()).strip("-")


_ALONE = re.compile(r"<(img|br|link)((?:\s[^<>]*?)?)\s*/?>")


def _xml(text: str) -> str:
    """HTML of our own templates as XML: elements that stand alone are closed."""
    return _ALONE.sub(r"<\1\2/>", text).lstrip()
