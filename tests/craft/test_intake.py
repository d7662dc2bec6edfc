"""Documents that others made: columns, page heads, hyphens, lists, tables, and files that have no text."""

from __future__ import annotations

import io
import zipfile

import docx
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw
from pypdf import PdfReader, PdfWriter
from weasyprint import HTML

from craft.errors import CraftError
from craft.text.check import check
from craft.text.intake import DocumentText, document_kind, document_text
from craft.text.intake.docx_text import read_text as docx_text
from craft.text.intake.html_text import read_text as html_text
from craft.text.intake.pdf_text import read_text as pdf_text

EAR = "<h2>EAR (make 2)</h2><p>R1: 6 sc in ring [6]</p><p>R2: inc x 6 [12]</p>"
BALL = "<h2>BALL</h2><p>R1: 6 sc in ring [6]</p><p>R2: inc x 6 [12]</p><p>R3: (sc, inc) x 6 [18]</p>"


def pdf(body: str, style: str = "") -> bytes:
    return bytes(HTML(string=f"<style>{style}</style><body>{body}</body>").write_pdf() or b"")


def parts(text: str) -> list[tuple[str | None, list[int]]]:
    return [(p.name, [t.live for t in p.rounds]) for p in check(text).parts if p.rounds]


def read(name: str, raw: bytes) -> DocumentText:
    kind = document_kind(name, raw)
    assert kind is not None
    return document_text(name, raw, kind)


# --- PDF ------------------------------------------------------------------------------------


def test_columns_are_read_one_after_another() -> None:
    text, _ = pdf_text(pdf(f"<h1>A moth</h1><div>{EAR}</div><div>{BALL}</div>", "div { float: left; width: 45% }"))
    assert parts(text) == [("EAR", [6, 12]), ("BALL", [6, 12, 18])]
    assert text.index("R2: inc x 6") < text.index("BALL")


def test_heads_and_feet_of_pages_are_left_out_and_told() -> None:
    style = "@page { @top-center { content: 'Moth, by Lanternwick' } @bottom-center { content: counter(page) } }"
    text, notes = pdf_text(
        pdf(f"{EAR}<div style='break-before: page'></div>{BALL}<p style='break-before: page'>Fin</p>", style)
    )
    assert "Lanternwick" not in text
    assert parts(text) == [("EAR", [6, 12]), ("BALL", [6, 12, 18])]
    assert notes == ["Heads and feet of pages are left out: Moth, by Lanternwick; …."]


def test_a_word_broken_over_lines_is_one_again() -> None:
    rounds = "<p>R1: 6 sc in ring [6]</p><p>R2: increase in every stitch until the round is all in-<br>creased [12]</p>"
    assert parts(pdf_text(pdf(f"<h2>BALL</h2>{rounds}"))[0]) == [("BALL", [6, 12])]


def test_joined_letters_are_letters() -> None:
    text, _ = pdf_text(pdf("<p>Stu\ufb00 firmly and \ufb01nish o\ufb00.</p>"))
    assert "Stuff firmly and finish off." in text


def test_counts_at_the_margin_belong_to_their_rounds() -> None:
    row = "<div style='display: flex'><b>R{}</b><span style='margin-left: 3em'>{}</span><i style='margin-left: auto'>{}</i></div>"
    rows = [(1, "6 sc in ring", "[6]"), (2, "inc x 6", "[12]"), (3, "sc around", "[12]")]
    text, _ = pdf_text(pdf("<h2>BALL</h2>" + "".join(row.format(*r) for r in rows)))
    assert parts(text) == [("BALL", [6, 12, 12])]


def test_a_scan_says_that_it_is_one() -> None:
    picture = Image.new("RGB", (300, 400), "white")
    ImageDraw.Draw(picture).text((20, 20), "R1: 6 sc in ring", "black")
    out = io.BytesIO()
    picture.save(out, "PDF")
    with pytest.raises(CraftError, match=r"scan\.pdf: this PDF is a scan"):
        read("scan.pdf", out.getvalue())


def test_a_page_of_pictures_between_others_is_told() -> None:
    picture = io.BytesIO()
    Image.new("RGB", (300, 400), "white").save(picture, "PDF")
    writer = PdfWriter()
    writer.append(io.BytesIO(pdf(BALL)))
    writer.append(picture)
    out = io.BytesIO()
    writer.write(out)
    text, notes = pdf_text(out.getvalue())
    assert parts(text) == [("BALL", [6, 12, 18])]
    assert notes == ["Page 2 holds only pictures."]


def test_a_locked_pdf_and_a_damaged_one_say_so() -> None:
    writer = PdfWriter()
    writer.append(PdfReader(io.BytesIO(pdf(BALL))))
    writer.encrypt("owl", algorithm="AES-256")
    out = io.BytesIO()
    writer.write(out)
    with pytest.raises(CraftError, match="locked with a password"):
        read("moth.pdf", out.getvalue())
    with pytest.raises(CraftError, match="damaged"):
        read("moth.pdf", pdf(BALL)[:700])
    with pytest.raises(CraftError, match="damaged"):
        read("moth.pdf", b"%PDF-1.7 and nothing else")


def test_progress_is_told_page_by_page() -> None:
    told: list[int] = []
    raw = pdf(f"{EAR}<div style='break-before: page'></div>{BALL}")
    document_text("moth.pdf", raw, "pdf", told.append)
    assert told == [50, 100]


# --- DOCX -----------------------------------------------------------------------------------------


def written(*paragraphs: tuple[str, str | None]) -> bytes:
    made = docx.Document()
    for text, style in paragraphs:
        made.add_paragraph(text, style=style)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


def test_numbered_paragraphs_have_their_numbers() -> None:
    raw = written(
        ("EAR (make 2)", "Heading 1"), ("6 sc in ring [6]", "List Number"), ("inc x 6 [12]", "List Number"),
        ("TAIL", "Heading 1"), ("4 sc in ring [4]", "List Number"), ("4 sc [4]", "List Number"),
    )  # fmt: skip
    assert parts(docx_text(raw)[0]) == [("EAR", [6, 12]), ("TAIL", [4, 4])]


def test_tables_of_a_document_are_rows() -> None:
    made = docx.Document()
    made.add_heading("Ball", 1)
    table = made.add_table(rows=0, cols=3)
    for row in (("Rnd", "Instructions", "Sts"), ("1", "6 sc in ring", "6"), ("2", "inc in each st", "12")):
        for cell, text in zip(table.add_row().cells, row, strict=True):
            cell.text = text
    out = io.BytesIO()
    made.save(out)
    assert parts(docx_text(out.getvalue())[0]) == [("Ball", [6, 12])]


def test_a_zip_of_other_things_is_no_document() -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        packed.writestr("moth.txt", "R1: 6 sc in ring [6]")
    with pytest.raises(CraftError, match="no DOCX file"):
        read("moth.docx", out.getvalue())
    with pytest.raises(CraftError, match=r"save it as \.docx"):
        document_kind("moth.odt", out.getvalue())
    with pytest.raises(CraftError, match="this is no DOCX file, whatever its name says"):
        document_kind("moth.docx", b"R1: 6 sc in ring [6]")


# --- HTML -----------------------------------------------------------------------------------------------


def test_a_page_keeps_its_words_and_nothing_else() -> None:
    page = (
        "<html><head><title>Moth</title><style>p { color: red }</style></head><body><script>alert('R1: 9 sc')</script>"
        f"{BALL}<p>Stuff &amp; close&nbsp;it.<br>Sew it on.</p><ol><li>6 sc in ring [6]</li></ol><img src='x.png'></body></html>"
    )
    text, notes = html_text(page.encode())
    assert "alert" not in text
    assert "color" not in text
    assert "Stuff & close it.\nSew it on." in text
    assert "1. 6 sc in ring [6]" in text
    assert text.startswith("Moth\n")
    assert notes == ["1 picture left out."]


def test_a_page_says_its_own_encoding() -> None:
    page = '<html><head><meta charset="iso-8859-1"></head><body><p>Häkeln</p></body></html>'.encode("latin-1")
    assert "Häkeln" in html_text(page)[0]


@settings(max_examples=60)
@given(st.text(st.characters(codec="utf-8", exclude_categories=("Cc", "Cs")), max_size=200))
def test_any_words_between_tags_come_out(words: str) -> None:
    escaped = words.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
    try:
        text, _ = html_text(
            f"<html><head><meta charset='utf-8'></head><body><div>{escaped}<br>moth</div></body></html>".encode()
        )
    except CraftError:
        pytest.fail("a page with a word has text")
    assert "moth" in text


@settings(max_examples=25, deadline=None)
@given(st.binary(max_size=400), st.sampled_from(["pdf", "docx", "html"]))
def test_any_bytes_end_in_text_or_a_sentence(noise: bytes, kind: str) -> None:
    readers = {"pdf": pdf_text, "docx": docx_text, "html": html_text}
    start = {"pdf": b"%PDF-1.4\n", "docx": b"PK\x03\x04", "html": b"<html>"}[kind]
    try:
        said, _ = readers[kind](start + noise)
    except CraftError as error:
        said = error.message
    assert said.strip()
