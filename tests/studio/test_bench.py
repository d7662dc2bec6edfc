"""Previews, shapes, tidying, whole figures; the description of the API."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import pytest

from studio.bench.management.commands.export_openapi import description
from studio.bench.management.commands.export_words import word_lists
from tests.studio.conftest import BALL, GAUGE, Studio

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
    got = studio.ask("POST", "/bench/shape", {"recipe": BALL_50, "gauge": GAUGE, "terms": "uk", "number": 3})
    assert "6 dc in ring" in got["text"]
    assert got["preview"]["sound"]
    assert [p["name"] for p in got["prices"]] == ["true", "balanced", "easy"]
    assert max(r for r, _ in got["outline"]) == pytest.approx(25, abs=0.1)
    assert got["recipe"]["solid"]["kind"] == "sphere"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"width_mm": 5, "height_mm": 5}, "larger"),
        ({"kind": "egg", "height_mm": 1000, "width_mm": 20}, "20 times"),
        ({"start": 2}, "start"),
        ({"ease": 2}, "ease"),
        ({"kind": "teapot"}, "kind"),
        ({"height_mm": -1}, "height"),
    ],
)
def test_shapes_that_cannot_be_say_why(studio: Studio, change: dict[str, Any], words: str) -> None:
    body = {"recipe": {**BALL_50, **change}, "gauge": GAUGE, "terms": "us"}
    assert words in studio.ask("POST", "/bench/shape", body, 422)["detail"].lower()


def test_tidying_is_asked_for_and_refused_while_something_is_unread(studio: Studio) -> None:
    messy = "Rnd 1:  6 sc in MR (6)\n2. 2 sc in each st = 12\nR3: sc in each st around\nR4: sc around\n"
    got = studio.ask("POST", "/bench/tidy", {"text": messy, "terms": "us"})
    assert got["text"] == "R1: 6 sc in ring [6]\nR2: inc around [12]\nR3-R4: sc around\n"
    studio.ask("POST", "/bench/tidy", {"text": "R1: 6 sk in ring", "terms": "us"}, 422)


def test_pictures_of_parts_and_designs(studio: Studio) -> None:
    assert b"<svg" in studio.ask("POST", "/bench/picture", QUESTION).content
    made, _ = studio.with_part()
    got = studio.ask("GET", f"/designs/{made['id']}/picture.svg")
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
