"""Words of hers in files that other programs open stay words there."""

from __future__ import annotations

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.document.export import export
from craft.errors import CraftError
from craft.shape.intake.drawing import read_drawing
from craft.text.check import check
from craft.text.exchange import imported_text
from craft.text.exchange.inert import cell, from_cell, from_markdown, markdown

EVIL = "# =HYPERLINK(1) <img src=x onerror=alert(1)>\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\n[here](javascript:alert(1))\n"


def test_no_cell_is_a_formula() -> None:
    said = export(check(EVIL), EVIL, "csv")
    rows = list(csv.reader(io.StringIO(said)))
    cells = [c for row in rows for c in row]
    assert any("HYPERLINK" in c for c in cells)
    assert not [c for c in cells if c[:1] in "=+-@\t\r" and c and not c.lstrip("+-").isdigit()]
    back = check(imported_text("pattern.csv", said.encode()).text)
    assert back.parts[-1].name == check(EVIL).parts[-1].name, "what was guarded comes back"
    assert back.parts[-1].counts == (6, 12)


def test_markdown_holds_no_tag_and_no_address_that_runs() -> None:
    said = export(check(EVIL), EVIL, "md")
    assert "\\<img" in said
    assert "](javascript" not in said.replace("\\](", "")
    assert check(imported_text("pattern.md", said.encode()).text).parts[0].counts == (6, 12)


@given(st.text())
def test_cells_come_back(text: str) -> None:
    assert from_cell(cell(text)) in (text, text[1:] if text.startswith("'") else text)
    if not text.startswith("'"):
        assert from_cell(cell(text)) == text
    assert cell(text)[:1] not in ("=", "+", "-", "@", "\t", "\r")


@given(st.text(alphabet="<>/ab](\\![ ", max_size=40))
def test_markdown_comes_back(text: str) -> None:
    inert = markdown(text)
    assert not any(inert[i - 1 : i] != "\\" for i in range(len(inert)) if inert[i : i + 2] in ("<a", "<b", "</", "<!"))
    if "\\" not in text:
        assert from_markdown(inert) == text


@pytest.mark.parametrize("encoding", ["utf-16", "utf-16-be", "utf-8-sig", "cp037", "utf-32"])
def test_a_document_type_is_refused_in_any_encoding(encoding: str) -> None:
    text = (
        f'<?xml version="1.0" encoding="{encoding.removesuffix("-sig")}"?>'
        '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L9 0L9 9Z"/></svg>'
    )
    with pytest.raises(CraftError):
        read_drawing(text.encode(encoding))
