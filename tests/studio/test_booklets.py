"""The written pattern: what must be in it, in every form."""

from __future__ import annotations

import io
import json
from typing import Any

import pytest
from pypdf import PdfReader

from tests.studio.conftest import BALL, Studio


@pytest.fixture
def design(studio: Studio) -> dict[str, Any]:
    made, key = studio.with_part(BALL)
    steps = [
        {"key": "step01", "text": "Insert the eyes between R5 and R6.", "part": key, "before_closing": True},
        {"key": "step02", "text": "Embroider a smile <here> & there.", "part": key},
    ]
    path = f"/designs/{made['id']}/pages"
    for page, data in (
        ("assembly", {"steps": steps, "eye_kind": "safety", "eye_mm": 8}),
        ("brief", {"audience": "under-three", "intro": "A moth in a nightcap.", "height_mm": 50}),
        ("booklet", {"version": "2.1", "count_table": True, "credits": "By Fern.", "changes": "2.1: rounder"}),
    ):
        made = studio.ask("PUT", f"{path}/{page}", {"base": made["revision"], "data": data})
    return made


def sections(booklet: dict[str, Any]) -> dict[str, Any]:
    return {s["title"]: s["blocks"] for s in booklet["sections"]}


def test_a_booklet_holds_what_a_maker_needs(studio: Studio, design: dict[str, Any]) -> None:
    got = studio.ask("GET", f"/designs/{design['id']}/booklet")
    found = sections(got)
    assert list(found) == [
        "About this figure",
        "Materials",
        "Gauge",
        "Terms and notes",
        "Safety",
        "Body (make 1)",
        "Assembly",
        "Permissions",
        "Credits",
        "Changes",
    ]
    size = dict(found["About this figure"][-1]["rows"])["Finished size"]
    assert "cm / " in size
    assert " in tall" in size
    words = [row[0] for row in found["Terms and notes"][1]["rows"]]
    assert "dec" in words
    assert "hdc" not in words, "only what is really used"
    body = found["Body (make 1)"]
    assert body[0]["lines"] == ["Before closing: Insert the eyes between R5 and R6."]
    rounds = [line for line in body[1]["lines"] if line["kind"] == "round"]
    assert rounds[3]["label"] == "R4-R6"
    assert rounds[3]["fold"] == 3
    assert body[2]["rows"][2] == ["R3", 18, 6]
    safety = " ".join(found["Safety"][0]["lines"])
    for words_needed in ("under three", "choke", "strangle", "certifies nothing", "qualified people"):
        assert words_needed in safety


@pytest.mark.parametrize(
    ("terms", "has", "lacks"),
    [("us", "(sc, inc) x 6 [18]", "dc"), ("uk", "(dc, inc) x 6 [18]", "(sc"), ("letters", "(X, V) * 6 (18)", "(sc")],
)
def test_every_terms_by_a_switch(studio: Studio, design: dict[str, Any], terms: str, has: str, lacks: str) -> None:
    for ending in ("txt", "md"):
        text = studio.ask("GET", f"/designs/{design['id']}/booklet.{ending}?terms={terms}").content.decode()
        assert has in text
        assert lacks not in text.split("(MAKE 1)" if ending == "txt" else "(make 1)")[-1].split("Assembly")[0]


@pytest.mark.parametrize(("paper", "width"), [("a4", 595), ("letter", 612)])
def test_the_pdf_has_stamp_and_number_on_every_page(
    studio: Studio, design: dict[str, Any], paper: str, width: int
) -> None:
    got = studio.ask("GET", f"/designs/{design['id']}/booklet.pdf?paper={paper}&large=true&low_ink=true")
    assert got["Content-Disposition"] == 'attachment; filename="moth.pdf"'
    pages = PdfReader(io.BytesIO(got.content)).pages
    assert len(pages) >= 2
    for number, page in enumerate(pages, 1):
        text = page.extract_text()
        assert round(float(page.mediabox.width)) == width
        assert f"Page {number} of {len(pages)}" in text
        assert "Version 2.1" in text
    whole = "".join(p.extract_text() for p in pages)
    assert "smile <here> & there" in whole


def test_a_round_is_never_torn_in_two(studio: Studio) -> None:
    long = "R1: 6 sc in ring [6]\n" + "".join(f"R{n}: {', '.join(['sc'] * 6)} [6]\n" for n in range(2, 120))
    made, _ = studio.with_part(long)
    pages = PdfReader(io.BytesIO(studio.ask("GET", f"/designs/{made['id']}/booklet.pdf").content)).pages
    for page in pages:
        lines = page.extract_text().splitlines()
        assert sum("sc, sc" in line for line in lines) == sum("[6]" in line for line in lines if "ring" not in line)


def test_json_is_the_tree(studio: Studio, design: dict[str, Any]) -> None:
    got = studio.ask("GET", f"/designs/{design['id']}/booklet.json?terms=us")
    tree = json.loads(got.content) if hasattr(got, "content") else got
    assert tree == studio.ask("GET", f"/designs/{design['id']}/booklet?terms=us")


def test_wrong_wishes(studio: Studio, design: dict[str, Any]) -> None:
    for query in ("terms=klingon", "paper=papyrus", "large=maybe"):
        studio.ask("GET", f"/designs/{design['id']}/booklet.pdf?{query}", status=422)
