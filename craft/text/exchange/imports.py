"""Written text from a file: plain text and Markdown as they stand, JSON and CSV put into words, documents read."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable

from craft.errors import CraftError, require
from craft.text.exchange import json_pattern
from craft.text.exchange.inert import from_cell, from_markdown
from craft.text.intake import MOST_BYTES, DocumentText, document_kind, document_text
from craft.text.notation import MOST_TEXT, print_pattern

MOST_FILE = max(MOST_TEXT * 4, MOST_BYTES)
"""Bytes of a file that are looked at."""

_ROUND = ("round", "rounds", "rnd", "row", "r", "no", "nr")
_WORK = ("work", "instructions", "instruction", "stitches to work", "how")
_COUNT = ("stitches", "count", "sts", "total", "stated")
_PART = ("part", "piece")


def imported_text(name: str, raw: bytes, watch: Callable[[int], None] = lambda _: None) -> DocumentText:
    """The written pattern in a file, with what was left out of it; CraftError says what the file is instead.

    name: the file's name, whose ending tells JSON and CSV. raw: at most four bytes a character of
    the longest text are looked at. In UTF-8, UTF-16 or the encoding of old Windows files. watch: told the progress of
    reading a document, in percent.
    """
    kind = document_kind(name, raw)
    if kind is None:
        return DocumentText(_plain_text(name, raw))
    found = document_text(name, raw, kind, watch)
    require(len(found.text) <= MOST_TEXT, f"{name}: a text is at most {MOST_TEXT:,} characters long.", field="file")
    return found


def _plain_text(name: str, raw: bytes) -> str:
    if len(raw) > MOST_TEXT * 4:
        raise CraftError(f"{name}: a text is at most {MOST_TEXT:,} characters long.")
    encoding = "utf-16" if raw.startswith((b"\xff\xfe", b"\xfe\xff")) else "utf-8-sig"
    try:
        text = raw.decode(encoding)
    except UnicodeDecodeError as error:
        old = _of_old_windows(raw)
        if old is None:
            said = f"{name}: byte {error.start + 1} is not UTF-8 text; save it as plain text first."
            raise CraftError(said) from None
        text = old
    if "\0" in text:
        raise CraftError(f"{name}: this is no text; it holds zero bytes.")
    if len(text) > MOST_TEXT:
        raise CraftError(f"{name}: a text is at most {MOST_TEXT:,} characters long.")
    ending = name.lower().rsplit(".", 1)[-1]
    if ending == "json" or text.lstrip().startswith("{"):
        return print_pattern(json_pattern.read(name, text))
    if ending == "csv":
        return _from_csv(name, text)
    return from_markdown(text) if ending in ("md", "markdown") else text


def _of_old_windows(raw: bytes) -> str | None:
    """Text in the encoding of old Windows files, None when it holds what no text does."""
    if any(byte < 32 and byte not in b"\t\n\r\f" for byte in raw[:4096]):
        return None
    try:
        return raw.decode("cp1252")
    except UnicodeDecodeError:
        return None


def _from_csv(name: str, text: str) -> str:
    try:
        rows = list(csv.reader(io.StringIO(text), delimiter=_separator(text)))
    except csv.Error as error:
        raise CraftError(f"{name}: not readable as CSV: {error}.") from None
    if not rows:
        raise CraftError(f"{name}: the file is empty.")
    head = [cell.strip().lower() for cell in rows[0]]
    columns = {what: _column(head, names) for what, names in _COLUMNS.items()}
    if columns["work"] is None:
        raise CraftError(
            f"{name}: no column is called 'work' or 'instructions'; its columns are {', '.join(head)[:200]}."
        )
    lines: list[str] = []
    part = ""
    for row in rows[1:]:
        cells = {
            what: from_cell(row[at].strip()) if at is not None and at < len(row) else "" for what, at in columns.items()
        }
        if not any(cells.values()):
            continue
        if cells["part"] != part:
            part = cells["part"]
            lines.append(f"\n# {part}" + (f" (make {cells['make']})" if cells["make"].isdigit() else ""))
        lines.append(_line(cells))
    return "\n".join(lines).strip() + "\n"


_COLUMNS = {"part": _PART, "make": ("make", "pieces"), "round": _ROUND, "work": _WORK, "count": _COUNT}


def _separator(text: str) -> str:
    """What stands between cells. Quotes are always double ones: an apostrophe guards a cell, or belongs to a word."""
    try:
        return csv.Sniffer().sniff(text[:4000], delimiters=",;\t").delimiter
    except csv.Error:
        return ","


def _column(head: list[str], names: tuple[str, ...]) -> int | None:
    return next((head.index(n) for n in names if n in head), None)


def _line(cells: dict[str, str]) -> str:
    """One row as a written line; a row without a round is a stage direction."""
    label = cells["round"]
    if not label:
        return cells["work"]
    label = f"R{label}" if label[:1].isdigit() else label
    count = f" [{cells['count']}]" if cells["count"].isdigit() and "[" not in cells["work"] else ""
    return f"{label}: {cells['work']}{count}"
