"""Files in and out, charts, and the dry run."""

from __future__ import annotations

import json
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest
from hypothesis import given

from craft.design.brought import design_of
from craft.document.chart import draw_chart, lay_out
from craft.document.export import FORMATS, export
from craft.errors import CraftError
from craft.rounds.fabric import MAIN_COLOUR, movements, place_of, run_pattern
from craft.rounds.pattern import Pattern, Way
from craft.rounds.stitches import STITCHES, Sign, Terms
from craft.text.check import check
from craft.text.exchange import count_table, imported_text
from craft.text.notation import MOST_TEXT, Wording, print_pattern
from tests.craft.programs import patterns
from tests.craft.test_laws import slow_enough

SOUND = {path.stem: path.read_text("utf-8") for path in (Path(__file__).parent / "sound").glob("*.txt")}
SVG = "{http://www.w3.org/2000/svg}"


@pytest.mark.parametrize("name", sorted(SOUND))
@pytest.mark.parametrize("to", ["text", "md", "json", "csv"])
def test_what_goes_out_comes_back_in(name: str, to: str) -> None:
    text = SOUND[name]
    checked = check(text)
    out = export(checked, text, to)
    again = check(imported_text(f"file.{FORMATS[to]}", out.encode()).text, checked.reading.pattern.terms)
    if to == "csv":
        assert count_table_of(again) == count_table_of(checked) or text_has_lines(text)
    else:
        assert [p.counts for p in again.parts] == [p.counts for p in checked.parts]


def text_has_lines(text: str) -> bool:
    """Whether a text has lines beside its rounds, which a table of rounds does not hold."""
    return any(r.way is Way.LINE for p in check(text).reading.pattern.parts for r in p.rounds)


def count_table_of(checked: object) -> list[list[int]]:
    return [[row[1] for row in count_table(part)] for part in checked.parts if part.rounds]  # type: ignore[attr-defined]


def test_as_typed_is_as_typed() -> None:
    text = SOUND["bare"]
    assert export(check(text), text, "text") == text
    assert export(check(text), text, "text", tidy=True) != text


def test_left_handed_and_spelled_out() -> None:
    text = "# Left ear (make 1)\nR1: 6 sc in ring [6]\nSew it to the left.\n"
    checked = check(text)
    assert "# Right ear" in export(checked, text, "text", left=True)
    assert "6 single crochet in a magic ring" in export(checked, text, "text", wording=Wording(spelled=True))
    with pytest.raises(CraftError, match="no format"):
        export(checked, text, "docx")


@pytest.mark.parametrize(
    ("name", "raw", "words"),
    [
        ("a.txt", b"\xff\x00\xff\xfa", "not UTF-8"),
        ("a.txt", b"R1: 6 sc\0", "zero bytes"),
        ("a.png", b"\x89PNG\r\n\x1a\n\x00\x00", "byte 1"),
        ("a.json", b"{", "not readable JSON"),
        ("a.json", b"{}", "no Spirrel pattern"),
        ("a.json", b'{"schema": 2, "parts": [{}], "head": [], "terms": "us"}', "damaged"),
        ("a.csv", b"", "empty"),
        ("a.csv", b"a,b\n1,2\n", "no column is called 'work'"),
        ("a.txt", b"x" * (MOST_TEXT + 1), "at most 1,000,000"),
        ("a.txt", b"x" * (4 * MOST_TEXT + 1), "at most 1,000,000"),
    ],
)
def test_a_file_that_is_none_is_told(name: str, raw: bytes, words: str) -> None:
    with pytest.raises(CraftError, match=words):
        imported_text(name, raw)


def test_csv_of_other_tables_is_read() -> None:
    raw = "Part;Round;Instructions;Stitches\nEar;1;6 sc in ring;6\nEar;2;inc x 6;12\nEar;;Stuff.;\n".encode("utf-16")
    text = imported_text("ear.csv", raw).text
    assert text == "# Ear\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\nStuff.\n"
    assert check(text).sound


def test_older_json_is_still_read() -> None:
    older = {
        "schema": 1,
        "terms": "us",
        "head": [],
        "parts": [
            {
                "name": "Ear",
                "make": 2,
                "items": [
                    {
                        "item": "round",
                        "first": 1,
                        "last": 1,
                        "count": 6,
                        "loops": "both",
                        "body": [{"do": "start", "start": "ring", "count": 6}],
                    }
                ],
            }
        ],
    }
    assert imported_text("old.json", json.dumps(older).encode()).text.endswith("# Ear (make 2)\nR1: 6 sc in ring [6]\n")


# --- charts -------------------------------------------------------------------------------


@pytest.mark.parametrize("name", sorted(SOUND))
def test_a_chart_has_a_symbol_for_every_movement(name: str) -> None:
    for part in check(SOUND[name]).parts:
        if not part.rounds:
            continue
        svg = ET.fromstring(draw_chart(part))
        drawn = {u.get("data-stitch") for u in svg.findall(f"{SVG}use") if u.get("data-stitch")}
        firsts = {str(m.makes[0]) for at in range(len(part.rounds)) for m in movements(part, at) if m.makes}
        assert firsts <= drawn
        defined = {g.get("id") for g in svg.iter(f"{SVG}g") if g.get("id")}
        assert {u.get("href", "")[1:] for u in svg.iter(f"{SVG}use")} <= defined


def test_symbols_keep_their_distance() -> None:
    (part,) = check(SOUND["oval"]).parts
    glyphs = lay_out(part).glyphs
    nearest = min((a.x - b.x) ** 2 + (a.y - b.y) ** 2 for i, a in enumerate(glyphs) for b in glyphs[i + 1 :])
    assert nearest > 0.45**2


def test_a_left_handed_chart_is_the_mirror_image() -> None:
    (part,) = check(SOUND["oval"]).parts
    right, left = lay_out(part).glyphs, lay_out(part, left_handed=True).glyphs
    sums = {round(a.x + b.x, 6) for a, b in zip(right, left, strict=True)}
    assert len(sums) == 1
    assert all(a.y == b.y for a, b in zip(right, left, strict=True))


def test_every_stitch_has_a_symbol() -> None:
    for key, entry in STITCHES.items():
        if entry.takes == 1 and not entry.base:
            text = f"R1: 6 sc in ring [6]\nR2: 6 {entry.us[0]} [6]"
            (part,) = check(text, Terms.US).parts
            assert any(g.key == key for g in lay_out(part).glyphs), key
    assert {e.sign for e in STITCHES.values()} == set(Sign)


def test_yarn_colours_are_darkened_to_be_read() -> None:
    (part,) = check("R1: with Oat, 3 sc in ring, with Moss, 3 sc in ring [6]").parts
    svg = draw_chart(part, {"Oat": "#fff4d0", "Moss": "#203010", MAIN_COLOUR: "#000000"})
    assert "#fff4d0" not in svg
    assert 'color="#203010"' in svg


# --- the dry run --------------------------------------------------------------------------


@slow_enough
@given(patterns())
def test_the_dry_run_makes_every_stitch_once_and_in_order(pattern: Pattern) -> None:
    for part in run_pattern(pattern)[0]:
        made = [i for at in range(len(part.rounds)) for m in movements(part, at) for i in m.makes]
        own = [i for t in part.rounds for i in range(t.first, t.end)]
        assert made == own


def test_where_a_stitch_stands_in_words() -> None:
    parts = check(SOUND["merge-by-names"]).parts
    body = parts[1]
    words = {place_of(body, i)[0] for i in range(len(body.graph))}
    assert words == {"Legs 1", "Legs 2", "chain", "R1", "R2"}


def test_printing_the_whole_corpus_gives_markdown_with_boxes() -> None:
    text = SOUND["merge"]
    made = export(check(text), text, "md")
    assert "- [ ] R1: 6 sc in ring [6]" in made
    assert print_pattern(check(made).reading.pattern).count("R1:") == 1


def test_a_file_of_an_old_windows_machine_is_read() -> None:
    """Curly quotes and dashes of Windows-1252 (the WHATWG encoding table, 0x93, 0x94, 0x96)."""
    raw = b"\x93Crow\x94\r\nRnd 1 \x96 5 sc in \x93magic ring\x94 \x96 5 sts\r\nRnd 2 \x96 inc x 5 \x96 10 sts\r\n"
    found = check(imported_text("crow.txt", raw).text)
    assert found.sound
    assert found.parts[-1].counts == (5, 10)
    with pytest.raises(CraftError, match="not UTF-8"):
        imported_text("crow.txt", b"\x93\x01\x02 nothing")


def test_a_freehand_text_is_converted_to_the_notation() -> None:
    text = "Kopf\n1. Rd: 6 fM in einen Fadenring (6)\n2. Rd: jede M verdoppeln (12)\n"
    design = design_of(check(text), text, "Kopf")
    assert design.parts[0].text == "R1: 6 sc in ring [6]\nR2: inc around [12]\n"
