"""Previews, shapes, tidying, whole figures; the description of the API."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from studio.bench.management.commands.export_openapi import description
from studio.bench.management.commands.export_words import word_lists
from tests.studio.conftest import BALL, GAUGE, Studio, rounds

ROOT = Path(__file__).resolve().parents[2]
QUESTION: dict[str, Any] = {
    "text": BALL,
    "terms": "us",
    "gauge": GAUGE,
    "number": 7,
    "colours": [{"name": "Moss", "colour": "#77834b"}, {"name": "Oat", "colour": "#e3cda4"}],
}
BALL_50 = {"kind": "sphere", "height_mm": 50, "width_mm": 50}


def test_a_preview_tells_everything_the_bench_shows(studio: Studio) -> None:
    got = studio.ask("POST", "/bench/preview", QUESTION)
    assert (got["number"], got["sound"], got["problems"]) == (7, True, [])
    rounds = got["part"]["rounds"]
    assert [r["live"] for r in rounds] == [6, 12, 18, 18, 18, 18, 12, 6]
    assert [r["line"] for r in rounds] == [1, 2, 3, 4, 4, 4, 5, 7]
    assert rounds[2]["marks"] == [[1, 1], [4, 1], [7, 1], [10, 1], [13, 1], [16, 1]]
    assert rounds[6]["sentence"] == "R7: 12 stitches, 6 fewer, flat"
    assert got["part"]["colours"] == ["#77834b"]
    assert got["size"]["height"]["low"] < got["size"]["height"]["value"] < got["size"]["height"]["high"]
    kinds = {BALL[start:end]: kind for start, end, kind in got["spans"]}
    assert (kinds["R1:"], kinds["inc"], kinds["dec"], kinds["Close."]) == ("label", "increase", "decrease", "step")


def test_a_preview_finds_faults_and_mends(studio: Studio) -> None:
    broken = BALL.replace("(sc, inc) x 6 [18]", "(sc, inc) x 7 [18]")
    got = studio.ask("POST", "/bench/preview", {**QUESTION, "text": broken})
    (problem,) = got["problems"]
    assert (problem["code"], problem["line"], problem["severity"]) == ("short", 3, "fault")
    fix = problem["fix"]
    assert broken[: fix["start"]] + fix["text"] + broken[fix["end"] :] == BALL


def test_colours_by_stitch(studio: Studio) -> None:
    text = "R1: 6 sc in ring [6]\nR2: 3 inc, change to Oat, 3 inc [12]\nR3: sc around [12]"
    got = studio.ask("POST", "/bench/preview", {**QUESTION, "text": text, "colour": "Moss"})
    assert [r["colours"] for r in got["part"]["rounds"]] == [[0], [0] * 6 + [1] * 6, [1]]
    assert got["part"]["colours"] == ["#77834b", "#e3cda4"]


def test_shapes_are_drafted_while_dragging(studio: Studio) -> None:
    got = studio.ask("POST", "/shapes/draft", {"recipe": rounds(**BALL_50), "gauge": GAUGE, "terms": "uk", "number": 3})
    assert "6 dc in ring" in got["text"]
    assert got["preview"]["sound"]
    assert [p["name"] for p in got["prices"]] == ["true", "balanced", "easy"]
    assert max(r for r, _ in got["outline"]) == pytest.approx(25, abs=0.1)
    assert got["recipe"]["form"]["kind"] == "sphere"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"width_mm": 5, "height_mm": 5}, "larger"),
        ({"kind": "egg", "height_mm": 1000, "width_mm": 20}, "20 times"),
        ({"start": 2}, "start"),
        ({"simplicity": 2}, "simplicity"),
        ({"kind": "teapot"}, "kind"),
        ({"height_mm": -1}, "height"),
    ],
)
def test_shapes_that_cannot_be_say_why(studio: Studio, change: dict[str, Any], words: str) -> None:
    body = {"recipe": rounds(**BALL_50 | change), "gauge": GAUGE, "terms": "us"}
    assert words in studio.ask("POST", "/shapes/draft", body, 422)["detail"].lower()


def test_tidying_is_asked_for_and_refused_while_something_is_unread(studio: Studio) -> None:
    messy = "Rnd 1:  6 sc in MR (6)\n2. 2 sc in each st = 12\nR3: sc in each st around\nR4: sc around\n"
    got = studio.ask("POST", "/bench/tidy", {"text": messy, "terms": "us"})
    assert got["text"] == "R1: 6 sc in ring [6]\nR2: inc around [12]\nR3-R4: sc around\n"
    studio.ask("POST", "/bench/tidy", {"text": "R1: 6 sk in ring", "terms": "us"}, 422)


def test_pictures_of_parts_and_designs(studio: Studio) -> None:
    assert b"<svg" in studio.ask("POST", "/bench/picture", QUESTION).content
    made, _ = studio.with_part()
    got = studio.ask("GET", f"/designs/{made['id']}/picture")
    assert got["Content-Type"] == "image/svg+xml"
    scene = studio.ask("GET", f"/bench/figure/{made['id']}")
    assert len(scene["placed"]) == 1
    assert scene["height_mm"] > 20


def test_fabric_before_any_sample(studio: Studio) -> None:
    got = studio.ask("POST", "/bench/fabric", {"weight": 3, "wraps": 13, "hook_mm": 2.5})
    assert got["verdict"] == "right"
    assert got["stitch_mm"]["high"] / got["stitch_mm"]["value"] == pytest.approx(1.12)


def test_the_checked_in_description_is_the_present_one() -> None:
    """`./spirrel api` writes it anew."""
    assert (ROOT / "docs/openapi.json").read_text() == description()


def test_the_checked_in_word_lists_are_the_present_ones() -> None:
    assert (ROOT / "frontend/src/api/words.json").read_text() == word_lists()


# --- the language of rounds on the bench ---------------------------------------------------

LEG = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nFasten off.\n"
HIPS = "R1: 12 sc around the first leg, 12 sc around the second leg [24]\nR2: sc around [24]\n"


def test_a_part_works_in_the_other_parts_of_the_design(studio: Studio) -> None:
    question = {**QUESTION, "text": HIPS, "others": [{"name": "Legs", "make": 2, "text": LEG}]}
    assert studio.ask("POST", "/bench/preview", question)["problems"] == []
    once = {**question, "others": [{"name": "Legs", "make": 1, "text": LEG}]}
    assert [p["code"] for p in studio.ask("POST", "/bench/preview", once)["problems"]] == ["piece-spent"]
    alone = studio.ask("POST", "/bench/preview", {**question, "others": []})
    assert {p["code"] for p in alone["problems"]} == {"no-piece"}


def test_parts_of_a_stored_design_know_each_other_in_any_order(studio: Studio) -> None:
    made, _ = studio.with_part(text=HIPS)
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Leg", "make": 2, "text": LEG}, 201)
    assert [p["faults"] for p in made["parts"]] == [0, 0]


@pytest.mark.parametrize(
    ("change", "line"),
    [
        ({"do": "widen", "first": 3, "by": 2}, "[20]"),
        ({"do": "move", "first": 3, "last": 3, "by": 1}, "R3: (inc, sc) x 6 [18]"),
        ({"do": "insert", "first": 3, "by": 2}, "R4-R5: sc around [18]"),
        ({"do": "stack", "first": 2, "last": 4}, "R3: (sc, inc) x 6 [18]"),
        ({"do": "mirror", "first": 1, "last": 3, "after": 4}, "R7: (sc, dec) x 6 [12]"),
        ({"do": "pair"}, "R3: (inc, sc) x 6 [18]"),
    ],
)
def test_rounds_change_as_on_the_ladder(studio: Studio, change: dict[str, Any], line: str) -> None:
    got = studio.ask("POST", "/bench/reshape", {"text": BALL, "terms": "us", **change})
    assert line in got["text"]


def test_a_change_that_cannot_be_made_is_refused_with_a_sentence(studio: Studio) -> None:
    refused = studio.ask("POST", "/bench/reshape", {"text": BALL, "terms": "us", "do": "widen", "first": 99}, 422)
    assert "no round on that line" in refused["detail"]


def test_charts(studio: Studio) -> None:
    svg = studio.raw("POST", "/bench/chart", {**QUESTION, "title": "Ball & co"})
    assert svg["Content-Type"] == "image/svg+xml"
    assert b"<title>Ball &amp; co</title>" in svg.content
    assert b"No round yet" in studio.raw("POST", "/bench/chart", {**QUESTION, "text": "Hello."}).content


def test_dry_runs(studio: Studio) -> None:
    got = studio.ask("POST", "/bench/dry-run", QUESTION)
    assert [r["label"] for r in got["rounds"]][:3] == ["R1", "R2", "R3"]
    third = got["rounds"][2]
    assert [m["stitch"] for m in third["moves"][:2]] == ["sc", "inc"]
    assert got["places"][third["moves"][1]["into"][0]] == "R2, stitch 2"
    assert len(third["edge"]) == 12
    assert len(third["after"]) == 18
    assert got["whole"]
    long = "\n".join(["R1: 100 sc in ring", *(f"R{n}: sc around" for n in range(2, 300))])
    part = studio.ask("POST", "/bench/dry-run", {**QUESTION, "text": long})
    assert not part["whole"]
    assert studio.ask("POST", "/bench/dry-run", {**QUESTION, "text": ""})["rounds"] == []


@pytest.mark.parametrize(
    ("name", "raw", "words"),
    [
        ("owl.png", b"\x89PNG\r\n\x1a\n\0\0", "not UTF-8"),
        ("big.txt", b"R1: 6 sc in ring\n" * 300_000, "at most 1,000,000"),
        ("pattern.json", b'{"schema": 99}', "no Spirrel pattern"),
        ("old.doc", b"\xd0\xcf\x11\xe0 and more", "save it as .docx"),
        ("none.pdf", b"R1: 6 sc in ring", "this is no PDF file"),
    ],
)
def test_a_file_that_is_none_is_refused_with_a_sentence(studio: Studio, name: str, raw: bytes, words: str) -> None:
    refused = studio.send("/bench/text", name, raw, 422)
    assert words in refused["detail"]


@pytest.mark.parametrize(
    "text", ["R1: " + "(" * 5_000, "R1-R999999999: sc", "\n".join(f"R{n}: sc" for n in range(10_000))]
)
def test_endless_things_are_told_quickly(studio: Studio, text: str) -> None:
    got = studio.ask("POST", "/bench/board", {"text": text})
    assert not got["sound"]
    assert len(got["lines"]) <= 2_000


def test_found_parts_become_one_change(studio: Studio) -> None:
    made, _ = studio.with_part(text=BALL)
    found = {"parts": [{"name": "Ear", "make": 2, "text": LEG}, {"name": "Tail", "text": LEG}]}
    got = studio.ask("POST", f"/designs/{made['id']}/parts/several", found, 201)
    assert [p["name"] for p in got["parts"]][1:] == ["Ear", "Tail"]
    assert got["revision"] == made["revision"] + 1
    too_many = {"parts": [{"name": f"P{n}", "text": ""} for n in range(60)]}
    assert "at most 60" in studio.ask("POST", f"/designs/{made['id']}/parts/several", too_many, 422)["detail"]


@pytest.mark.parametrize(
    ("to", "query", "words"),
    [
        ("text", "", "# Body (make 1)"),
        ("text", "?terms=uk", "6 dc in ring"),
        ("text", "?language=de", "fM"),
        ("md", "", "- [ ] R1"),
        ("json", "", '"schema"'),
        ("csv", "", "part,make,round,work"),
        ("svg", "", "<svg"),
    ],
)
def test_a_design_as_a_file(studio: Studio, other: Studio, to: str, query: str, words: str) -> None:
    made, _ = studio.with_part(text=BALL)
    got = studio.raw("GET", f"/bench/file/{made['id']}/{to}{query}")
    assert words in got.content.decode()
    assert "attachment" in got["Content-Disposition"]
    assert other.raw("GET", f"/bench/file/{made['id']}/{to}").status_code == 404


def test_all_parts_together_are_bounded(studio: Studio) -> None:
    others = [{"name": f"P{n}", "make": 1, "text": "x" * 300_000} for n in range(4)]
    asked = {"text": "R1: 6 sc in ring [6]", "terms": "us", "gauge": GAUGE, "others": others}
    assert "All parts together" in studio.ask("POST", "/bench/preview", asked, 422)["detail"]
