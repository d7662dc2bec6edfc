"""The demo's own booklets as PDF, HTML, Markdown, plain text, DOCX and a table: each is read back to the same parts."""

from __future__ import annotations

import io
from base64 import b64encode
from collections.abc import Callable

import docx
from django.contrib.auth.models import User

from craft.document.booklet import Document, as_markdown, as_text
from craft.document.booklet.document import Bullets, Cautions, CountTable, Facts, Paragraph, Rounds, Steps
from craft.problems import Severity
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.exchange import imported_text
from studio.booklets import printing
from studio.booklets.album import Taken
from studio.booklets.manuscripts import Edition, booklet
from studio.demo.studio import load
from studio.designs.models import Design
from studio.designs.reading import read_design

PICTURE = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><circle cx="5" cy="5" r="4"/></svg>'

COVER = f"data:image/svg+xml;base64,{b64encode(PICTURE.encode()).decode()}"


def _docx(document: Document) -> bytes:
    """A booklet as a word processor would hold it: headings, lists, tables."""
    made = docx.Document()
    made.add_heading(document.title, 0)
    made.sections[0].header.paragraphs[0].text = document.stamp
    for section in document.sections:
        made.add_heading(section.title, section.level)
        for block in section.blocks:
            match block:
                case Paragraph():
                    made.add_paragraph(block.text)
                case Facts():
                    table = made.add_table(rows=0, cols=2)
                    for row in block.rows:
                        for cell, text in zip(table.add_row().cells, row, strict=True):
                            cell.text = text
                case Rounds():
                    for line in block.lines:
                        made.add_paragraph(line.text, style="List Bullet" if line.kind == "round" else None)
                case Steps():
                    for words in block.lines:
                        made.add_paragraph(words, style="List Number")
                case Bullets() | Cautions():
                    for words in block.lines:
                        made.add_paragraph(words, style="List Bullet")
                case CountTable():
                    table = made.add_table(rows=1, cols=3)
                    for cell, text in zip(table.rows[0].cells, ("Round", "Stitches", "±"), strict=True):
                        cell.text = text
                    for label, live, change in block.rows:
                        for cell, text in zip(table.add_row().cells, (label, str(live), f"{change:+d}"), strict=True):
                            cell.text = text
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def _table(document: Document) -> bytes:
    """Its parts as HTML tables of rounds, as a page or a spreadsheet prints them."""
    rows: list[str] = []
    for section in document.sections:
        for block in section.blocks:
            if isinstance(block, Rounds):
                rows.append(f"<h2>{section.title}</h2><table><tr><th>Round</th><th>Work</th><th>Stitches</th></tr>")
                for line in block.lines:
                    if line.kind == "round":
                        rows.append(f"<tr><td>{line.label}</td><td>{line.work}</td><td>{line.count}</td></tr>")
                    else:
                        rows.append(f"</table><p>{line.text}</p><table>")
                rows.append("</table>")
    return f"<html><body>{''.join(rows)}</body></html>".encode()


def _printed(document: Document, how: Callable[..., str | bytes]) -> bytes:
    shown = {p.key: Taken(PICTURE.encode(), "image/svg+xml") for p in document.pictures}
    page = how(document, COVER, shown, printing.Sheet())
    return page if isinstance(page, bytes) else page.encode()


FORMS: dict[str, Callable[[Document], bytes]] = {
    "pdf": lambda d: _printed(d, printing.as_pdf),
    "html": lambda d: _printed(d, printing.as_html),
    "md": lambda d: as_markdown(d).encode(),
    "txt": lambda d: as_text(d).encode(),
    "docx": _docx,
    "table.html": _table,
}


def counts(parts: list[tuple[str, WorkedPart]]) -> dict[str, list[int]]:
    """Every part's stitches after each of its rounds."""
    return {name: [t.live for t in worked.rounds] for name, worked in parts if worked.rounds}


def test_the_demos_booklets_are_read_back_to_the_same_parts(user: User) -> None:
    load(user)
    wrong: list[tuple[str, str]] = []
    designs = list(Design.objects.filter(owner=user).order_by("name"))
    assert len(designs) >= 6
    for design in designs:
        read = read_design(design)
        wanted = counts([(p.name, p.worked) for p in read.parts if p.worked is not None])
        own = [q.message for p in read.parts for q in p.checked.problems if q.severity is Severity.FAULT]
        document = booklet(user, design, Edition(terms=Terms.US)).document
        for form, written in FORMS.items():
            found = check(imported_text(f"booklet.{form}", written(document)).text)
            faults = [p.message for p in found.problems if p.severity is Severity.FAULT]
            # No fault but those that the design has itself.
            if (counts([(str(p.name), p) for p in found.parts]), faults) != (wanted, own):
                wrong.append((design.name, form))
    assert not wrong
    in_uk = check(
        imported_text("uk.pdf", FORMS["pdf"](booklet(user, designs[-1], Edition(terms=Terms.UK)).document)).text
    )
    assert (in_uk.reading.pattern.terms, in_uk.sound) == (Terms.UK, True)
