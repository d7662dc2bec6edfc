"""Pages of a printed booklet: its last one is filled, or not needed."""

from __future__ import annotations

import io

import pytest
from PIL import Image
from pypdf import PdfReader

from craft.document.booklet import Document, Paragraph, Section
from craft.document.booklet.document import Picture, Pictures
from studio.booklets import printing
from studio.booklets.album import Taken
from studio.booklets.printing import LEAST_LAST, Sheet, as_html, as_pdf


def square() -> Taken:
    out = io.BytesIO()
    Image.new("RGB", (200, 200), "#77834b").save(out, "PNG")
    return Taken(out.getvalue(), "image/png")


PICTURES = {key: square() for key in ("figure:front", "figure:back")}


def booklet(parts: int) -> Document:
    pair = Pictures((Picture("figure:front", "front"), Picture("figure:back", "back")))
    words = Paragraph("Sew the ears to the head where it begins to narrow. " * 7)
    sections = tuple(Section(f"part{n}", f"Part {n}", (words, pair)) for n in range(parts))
    return Document("Heron", "by Fern", "1.0", "us", sections)


def usual(document: Document) -> tuple[int, float]:
    """On which page it would end, and how full that page would be, with pictures of their usual size."""
    return printing._end_of(printing._laid_out(as_html(document, "", PICTURES, Sheet())))


@pytest.mark.parametrize("parts", [3, 4, 5, 6, 7])
def test_a_last_page_is_half_filled_or_not_needed(parts: int, monkeypatch: pytest.MonkeyPatch) -> None:
    document = booklet(parts)
    chosen: list[tuple[int, float]] = []
    written = printing._written
    monkeypatch.setattr(printing, "_written", lambda p: (chosen.append(printing._end_of(p)), written(p))[1])
    pdf = as_pdf(document, "", PICTURES, Sheet())
    before, ((page, filled),) = usual(document), chosen
    assert len(PdfReader(io.BytesIO(pdf)).pages) == page <= before[0]
    noted = "For your notes" in PdfReader(io.BytesIO(pdf)).pages[-1].extract_text()
    assert filled >= LEAST_LAST or page < before[0] or noted
    if before[1] >= LEAST_LAST:
        assert (page, filled) == before, "what is filled already stays as it is"


def words_only(lines: int) -> Document:
    """A booklet without a picture that could be set larger or smaller."""
    words = tuple(Paragraph(f"{n}. Sew the ears to the head where it begins to narrow. " * 3) for n in range(lines))
    return Document("Heron", "by Fern", "1.0", "us", (Section("notes", "Making up", words),))


def ends_with_little(paper: str = "a4") -> Document:
    """One whose last page of words holds but a few lines."""
    for lines in range(20, 60):
        pages, filled = printing._end_of(printing._laid_out(as_html(words_only(lines), "", {}, Sheet(paper))))
        if pages > 1 and filled < LEAST_LAST / 2:
            return words_only(lines)
    raise AssertionError


def test_a_last_page_that_no_picture_can_fill_has_room_for_notes() -> None:
    document = ends_with_little()
    before = len(printing._laid_out(as_html(document, "", {}, Sheet())).pages)
    pages = PdfReader(io.BytesIO(as_pdf(document, "", {}, Sheet()))).pages
    assert len(pages) == before
    said = [" ".join(page.extract_text().split()) for page in pages]
    assert "For your notes" in said[-1]
    assert not any("For your notes" in text for text in said[:-1])
    assert all(f"{n}. Sew the ears" in " ".join(said) for n in range(len(document.sections[0].blocks)))
    rules = printing._rules_below(printing._laid_out(as_html(document, "", {}, Sheet())), before, Sheet())
    assert rules >= 10


def test_a_phone_has_no_lines_to_write_on() -> None:
    document = ends_with_little("phone")
    pages = PdfReader(io.BytesIO(as_pdf(document, "", {}, Sheet("phone")))).pages
    assert "For your notes" not in " ".join(page.extract_text() for page in pages)


def test_it_says_what_is_on_every_page_whatever_its_pictures_measure() -> None:
    document = booklet(5)
    assert usual(document)[1] < LEAST_LAST
    pages = PdfReader(io.BytesIO(as_pdf(document, "", PICTURES, Sheet()))).pages
    text = " ".join(" ".join(p.extract_text() for p in pages).split())
    assert text.count("Sew the ears to the head where it begins to narrow.") == 5 * 7
    assert f"Page 1 of {len(pages)}" in text


def test_pages_are_numbered_in_the_booklets_language() -> None:
    document = booklet(1)
    german = Document("Reiher", "von Farn", "1.0", "us", document.sections, "de")
    (page,) = PdfReader(io.BytesIO(as_pdf(german, "", PICTURES, Sheet()))).pages
    assert "Seite 1 von 1" in " ".join(page.extract_text().split())


def test_templates_are_told_in_the_booklets_language() -> None:
    german = Document("Reiher", "von Farn", "1.0", "us", (), "de")
    svg = '<svg xmlns="http://www.w3.org/2000/svg" width="210mm" height="297mm" viewBox="0 0 210 297"></svg>'
    found = PdfReader(io.BytesIO(printing.templates_pdf(german, [svg], "a4")))
    assert found.trailer["/Root"]["/Lang"] == "de"
    assert found.metadata is not None
    assert found.metadata.title == "Vorlagen in Originalgröße"
