"""The text of a DOCX file: headings marked, numbered lists with their numbers, tables in rows, text boxes in place."""

from __future__ import annotations

import io
import re
import zipfile
from collections import Counter
from collections.abc import Callable, Iterator
from typing import Any

import docx
from docx.opc.exceptions import PackageNotFoundError
from docx.table import Table
from docx.text.paragraph import Paragraph

from craft.errors import CraftError, require
from craft.text.intake.rows import cleaned, table_row

MOST_UNPACKED = 200 * 2**20
"""Bytes of all its files together."""

_NO_DOCX = "this is no DOCX file, or a damaged one."


def read_text(raw: bytes, _tell: Callable[[int], None] = lambda _: None) -> tuple[str, list[str]]:
    """The text of a document, and what was left out of it: pictures, heads and feet of pages."""
    try:
        with zipfile.ZipFile(io.BytesIO(raw)) as packed:
            names = packed.namelist()
            require("word/document.xml" in names, _NO_DOCX)
            require(
                sum(i.file_size for i in packed.infolist()) <= MOST_UNPACKED, "this document is too large unpacked."
            )
        found = docx.Document(io.BytesIO(raw))
    except (zipfile.BadZipFile, PackageNotFoundError, KeyError, ValueError, SyntaxError):
        raise CraftError(_NO_DOCX) from None
    lines = list(_lines(found))
    text = cleaned(lines)
    require(bool(text.strip()), "this document has no text.")
    pictures = sum(name.startswith("word/media/") for name in names)
    notes = [f"{pictures} picture{'s' if pictures > 1 else ''} left out."] if pictures else []
    if any(p.text.strip() for s in found.sections for p in (*s.header.paragraphs, *s.footer.paragraphs)):
        notes.append("The heads and feet of its pages are left out.")
    return text, notes


def _lines(found: Any) -> Iterator[str]:
    numbers: Counter[tuple[str, str]] = Counter()
    for block in found.iter_inner_content():
        if isinstance(block, Table):
            yield from _table(block)
            yield ""
        else:
            yield from _paragraph(block, numbers)


def _paragraph(paragraph: Paragraph, numbers: Counter[tuple[str, str]]) -> Iterator[str]:
    for box in paragraph._p.xpath(".//*[local-name()='txbxContent'][not(ancestor::*[local-name()='Fallback'])]"):
        for inner in box.xpath(".//w:p"):
            yield "".join(t.text or "" for t in inner.xpath(".//w:t"))
    style = (paragraph.style.name or "") if paragraph.style is not None else ""
    text = paragraph.text
    if not text.strip():
        yield ""
    elif heading := re.fullmatch(r"Heading (\d)|Title", style):
        numbers.clear()
        yield ""
        yield f"{'#' * int(heading.group(1) or 1)} {text.strip()}"
    else:
        yield from f"{_bullet(paragraph, style, numbers)}{text}".split("\n")


def _bullet(paragraph: Paragraph, style: str, numbers: Counter[tuple[str, str]]) -> str:
    """'3. ' in front of the third paragraph of a numbered list, '- ' of any other list."""
    props = paragraph._p.pPr
    listed: Any = props.numPr if props is not None else None
    if listed is None and not style.startswith("List"):
        return ""
    if "Bullet" in style or (listed is not None and "Number" not in style and not _is_numbered(paragraph, listed)):
        return "- "
    key = (style, str(listed.numId.val) if listed is not None and listed.numId is not None else "")
    numbers[key] += 1
    return f"{numbers[key]}. "


def _is_numbered(paragraph: Paragraph, listed: Any) -> bool:
    """Whether a list counts its paragraphs, by its definition."""
    if listed.numId is None:
        return False
    part = getattr(paragraph.part, "numbering_part", None)
    if part is None:
        return False
    level = str(listed.ilvl.val) if listed.ilvl is not None else "0"
    kinds = part.element.xpath(
        f"//w:abstractNum[@w:abstractNumId=//w:num[@w:numId='{listed.numId.val}']/w:abstractNumId/@w:val]"
        f"/w:lvl[@w:ilvl='{level}']/w:numFmt/@w:val"
    )
    return bool(kinds) and kinds[0] not in ("bullet", "none")


def _table(table: Table) -> Iterator[str]:
    for row in table.rows:
        cells: list[str] = []
        last = None
        for cell in row.cells:
            if cell._tc is last:
                continue  # a cell over several columns comes once for each of them
            last = cell._tc
            cells.append(" ".join(p.text.strip() for p in cell.paragraphs if p.text.strip()))
        yield table_row(cells) if len(cells) > 1 else (cells[0] if cells else "")
