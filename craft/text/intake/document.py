"""A document's text, read in a process with limits, with what was left out of it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from craft.errors import CraftError, require
from craft.limited import answer_of

MOST_BYTES = 10 * 2**20
"""Bytes of a document."""

DocumentKind = Literal["pdf", "docx", "html"]

_MEMORY_MB, _SECONDS = 1_500, 60
_SLOW = "That document takes too long to read, or too much memory: save it as plain text, and bring that in."


@dataclass(frozen=True, slots=True)
class DocumentText:
    """The text of a document, line by line. notes: what was left out of it, in sentences."""

    text: str
    notes: tuple[str, ...] = ()


def document_kind(name: str, raw: bytes) -> DocumentKind | None:
    """What kind of document a file is, None for plain text. CraftError for a document that is not read, with what to
    do instead. raw: its first bytes suffice."""
    start = raw[:2048].lstrip(b"\xef\xbb\xbf \t\r\n")
    ending = name.lower().rsplit(".", 1)[-1]
    if start.startswith(b"%PDF"):
        return "pdf"
    if raw.startswith(b"PK\x03\x04"):
        require(ending not in ("odt", "pages"), f"{name}: save it as .docx, PDF or plain text first.", field="file")
        return "docx"
    old = raw.startswith(b"\xd0\xcf\x11\xe0") or start.startswith(b"{\\rtf")
    require(not old, f"{name}: save it as .docx, PDF or plain text first.", field="file")
    small = start[:400].lower()
    if ending in ("html", "htm", "xhtml") or small.startswith((b"<!doctype html", b"<html")):
        return "html"
    require(
        ending not in ("pdf", "docx"),
        f"{name}: this is no {ending.upper()} file, whatever its name says.",
        field="file",
    )
    return None


def document_text(
    name: str, raw: bytes, kind: DocumentKind, watch: Callable[[int], None] = lambda _: None
) -> DocumentText:
    """The text of a document. CraftError says why it has none. watch: told the progress in percent."""
    require(len(raw) <= MOST_BYTES, f"{name}: a document is at most {MOST_BYTES // 2**20} MB.", field="file")
    try:
        answer = answer_of(
            "craft.text.intake.__main__",
            raw,
            (kind,),
            memory_mb=_MEMORY_MB,
            seconds=_SECONDS,
            refused=_SLOW,
            watch=watch,
        )
    except CraftError as error:
        raise CraftError(f"{name}: {error.message}", field="file") from None
    return DocumentText(str(answer["text"]), tuple(answer["notes"]))
