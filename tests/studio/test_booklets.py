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
        made = studio.ask("PUT", path, {"page": page, "base": made["revision"], "data": data})
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
        "How it begins and closes",
        "Safety",
        "Body (make 1)",
        "Assembly",
        "Permissions",
        "Credits",
        "Changes",
    ]
    size = dict(next(b for b in found["About this figure"] if b["block"] == "Facts")["rows"])["Finished size"]
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
    assert next(b for b in body if b["block"] == "CountTable")["rows"][2] == ["R3", 18, 6]
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
    page = studio.ask("GET", f"/designs/{design['id']}/booklet?terms=us")
    assert page.pop("ready") == []
    assert page.pop("templates") == 0
    assert tree == page


def test_wrong_wishes(studio: Studio, design: dict[str, Any]) -> None:
    for query in ("terms=klingon", "paper=papyrus", "large=maybe"):
        studio.ask("GET", f"/designs/{design['id']}/booklet.pdf?{query}", status=422)


# --- nothing is dropped, and nothing said that is not so ----------------------------------


def text_of(studio: Studio, made: dict[str, Any], **wishes: str) -> str:
    query = "&".join(f"{k}={v}" for k, v in wishes.items())
    return studio.ask("GET", f"/designs/{made['id']}/booklet.txt?{query}").content.decode()  # type: ignore[no-any-return]


def with_parts(studio: Studio, **texts: str) -> dict[str, Any]:
    made = studio.design()
    parts = [{"name": name, "text": text} for name, text in texts.items()]
    return studio.ask("POST", f"/designs/{made['id']}/parts/several", {"parts": parts}, 201)  # type: ignore[no-any-return]


EAR = "R1: 6 sc in ring [6]\nR2-R4: sc around [6]\n"
FLAT = "Ch 9\nRow 1: sc in 2nd ch from hook, 7 sc, turn [8]\nRow 2: ch 1, 8 sc, turn [8]\nRow 3: ch 1, 8 sc [8]\n"


def test_a_step_without_words_is_printed_by_its_part_and_place(studio: Studio) -> None:
    made = with_parts(studio, Body=BALL, Ear=EAR)
    body, ear = (p["key"] for p in made["parts"])
    steps = [
        {"key": "aaaa", "text": "", "part": ear, "on": body, "round": 5, "stitch": 3, "paired": True},
        {"key": "bbbb", "text": "", "part": ear, "picture": True},
    ]
    page = {"base": made["revision"], "data": {"steps": steps}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "assembly", **page})
    assembly = text_of(studio, made).split("ASSEMBLY")[1]
    assert "1. Ear" in assembly
    assert "R5" in assembly
    assert "3 stitches" in assembly
    assert "2. Ear" in assembly, "not a step is lost"


def test_only_what_is_worked_in_a_spiral_is_said_to_be(studio: Studio) -> None:
    rows = text_of(studio, with_parts(studio, Strap=FLAT))
    assert "spiral" not in rows
    assert "in rows: turn at the end of each" in rows
    rounds = text_of(studio, with_parts(studio, Body=BALL))
    assert "in a spiral without joining" in rounds
    both = text_of(studio, with_parts(studio, Body=BALL, Strap=FLAT))
    assert "Body: worked in a spiral" in both
    assert "Strap: worked in rows" in both


def test_her_words_stay_hers_and_change_only_the_stitches_names(studio: Studio) -> None:
    oval = (
        "Ch 6\nR1: 1 sc in 2nd ch from hook, 3 sc, 3 sc in last ch, along the other side 3 sc, 2 sc in last ch [12]\n"
        "R2: sc in each st around, marking the first [12]\n"
    )
    made = with_parts(studio, Foot=oval)
    us = text_of(studio, made, terms="us")
    for line in oval.splitlines()[1:]:
        assert line.partition(": ")[2].rpartition(" [")[0] in us
    uk = text_of(studio, made, terms="uk")
    assert "1 dc in 2nd ch from hook, 3 dc, 3 dc in last ch, along the other side 3 dc, 2 dc in last ch" in uk


def test_a_single_stitch_is_one_stitch(studio: Studio) -> None:
    made = with_parts(studio, Body=BALL, Ear=EAR)
    body, ear = (p["key"] for p in made["parts"])
    steps = [{"key": "aaaa", "text": "Sew.", "part": ear, "on": body, "round": 4, "stitch": 1}]
    page = {"base": made["revision"], "data": {"steps": steps}}
    text = text_of(studio, studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "assembly", **page}))
    assert "1 stitch " in text
    assert "1 stitches" not in text


def test_where_sizes_come_from_is_said_in_words_for_a_maker(studio: Studio) -> None:
    made = with_parts(studio, Body=BALL)
    yarn = {"name": "Moss", "colour": "#77834b", "weight": 3, "wraps": 13}
    page = {"base": made["revision"], "data": {"yarns": [yarn], "hook_mm": 3, "source": "estimate"}}
    text = text_of(studio, studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "gauge", **page}))
    gauge = text.split("GAUGE")[1].split("TERMS AND NOTES")[0]
    assert not any(sign in gauge for sign in "=^√*"), "a formula is no source for a maker"


def test_the_stamp_keeps_its_blanks(studio: Studio, design: dict[str, Any]) -> None:
    page = {"base": design["revision"], "data": {**design["booklet"], "version": "1.0, 2026"}}
    made = studio.ask("PUT", f"/designs/{design['id']}/pages", {"page": "booklet", **page})
    raw = studio.ask("GET", f"/designs/{made['id']}/booklet.pdf").content
    for sheet in PdfReader(io.BytesIO(raw)).pages:
        assert "Version 1.0, 2026" in sheet.extract_text()


def test_no_part_heading_is_left_alone_at_the_foot_of_a_page(studio: Studio) -> None:
    """Parts of many lengths, so that a heading comes to lie at the foot of a page in any layout."""
    parts = {f"Scale {n}": EAR + f"R5: sc around [6]\nR6-R{6 + n}: sc around [6]\n" for n in range(1, 30)}
    made = with_parts(studio, **parts)
    raw = studio.ask("GET", f"/designs/{made['id']}/booklet.pdf").content
    for sheet in PdfReader(io.BytesIO(raw)).pages:
        lines = [line for line in sheet.extract_text().splitlines() if line.strip()]
        body = [line for line in lines if not line.startswith(("Page ", "Version ", "Moth"))]
        assert not body[-1].startswith("Scale "), body[-3:]


TALL = {"key": "tall0001", "name": "tall", "kind": "height", "height_mm": 90}


@pytest.fixture
def sized(studio: Studio, design: dict[str, Any]) -> dict[str, Any]:
    page = {"page": "sizes", "base": design["revision"], "data": {"sizes": [TALL]}}
    return studio.ask("PUT", f"/designs/{design['id']}/pages", page)


def test_a_booklet_in_the_edition_that_is_asked_for(studio: Studio, sized: dict[str, Any]) -> None:
    path = f"/designs/{sized['id']}/booklet"
    plain = sections(studio.ask("GET", path))
    tall = sections(studio.ask("GET", f"{path}?edition=tall0001"))
    both = sections(studio.ask("GET", f"{path}?edition=all"))
    assert "Sizes" not in plain
    assert list(tall) == list(plain)
    assert tall["Body (make 1)"] != plain["Body (make 1)"]
    assert both["Sizes"][0]["text"].startswith("Written for 2 sizes: first (tall).")
    lines = next(b for b in both["Body (make 1)"] if b["block"] == "Rounds")["lines"]
    assert any("(" in line["label"] for line in lines if line["kind"] == "round")
    assert studio.ask("GET", f"{path}?edition=gone0001", status=422)["detail"].startswith("This size is gone")


@pytest.mark.parametrize("edition", ["tall0001", "all"])
def test_every_edition_prints(studio: Studio, sized: dict[str, Any], edition: str) -> None:
    got = studio.client.get(f"/api/designs/{sized['id']}/booklet.pdf?edition={edition}")
    assert got.status_code == 200
    text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(got.content)).pages)
    assert "Body" in text
    assert ("Written for 2 sizes" in text) is (edition == "all")
    file = studio.client.get(f"/api/designs/{sized['id']}/booklet.txt?edition={edition}").content.decode()
    assert ("Written for 2 sizes" in file) is (edition == "all")


def test_a_design_without_sizes_has_no_booklet_of_all(studio: Studio, design: dict[str, Any]) -> None:
    got = studio.ask("GET", f"/designs/{design['id']}/booklet?edition=all", status=422)
    assert "add one at Sizes" in got["detail"]
