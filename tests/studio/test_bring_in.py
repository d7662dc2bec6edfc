"""Bringing in patterns of any manner: what every line was taken for, and parts in the design's own terms."""

from __future__ import annotations

from typing import Any

import pytest

from benchmarks.reading import sound_patterns
from tests.studio.conftest import Studio

GERMAN = (
    "Zwerg\n\nErstes Bein\n1. Rd: 6 fM in einen Fadenring (6)\n2. Rd: jede M verdoppeln (12)\nFaden abschneiden.\n\n"
    "Zweites Bein\nWie das erste Bein bis zur 2. Rd.\n"
)
BRITISH = (
    "PAW, UK terminology\nRound 1: 6 dc in adjustable ring. 6 sts\nRound 2: 2 dc in each st. 12 sts\n"
    "Round 3: 12 htr. 12 sts\n"
)


def line(got: dict[str, Any], number: int) -> dict[str, Any]:
    return next(row for row in got["lines"] if row["number"] == number)


def test_every_line_is_shown_as_it_was_written_with_what_came_of_it(studio: Studio) -> None:
    got = studio.send("/bench/import", "zwerg.txt", GERMAN.encode())
    assert (got["sound"], got["terms_how"]) == (True, "the words are German")
    assert [row["text"] for row in got["lines"]] == [row for row in GERMAN.splitlines() if row]
    assert (line(got, 4)["kind"], line(got, 4)["understood"]) == ("round", "R1: 6 sc in ring [6]")
    assert (line(got, 3)["kind"], line(got, 6)["kind"]) == ("heading", "note")
    named = line(got, 9)
    assert (named["kind"], named["severity"]) == ("round", "hint")
    assert named["understood"] == "R1: 6 sc in ring [6]; R2: inc around [12]"
    assert "as it is written elsewhere" in named["message"]


def test_parts_arrive_in_the_notation(studio: Studio) -> None:
    got = studio.send("/bench/import", "zwerg.txt", GERMAN.encode())
    assert [(p["name"], p["rounds"], p["faults"]) for p in got["parts"]] == [
        ("Erstes Bein", 2, 0),
        ("Zweites Bein", 2, 0),
    ]
    assert got["parts"][0]["text"] == "R1: 6 sc in ring [6]\nR2: inc around [12]\nFaden abschneiden.\n"


def test_a_uk_text_keeps_its_meaning_in_a_us_design(studio: Studio) -> None:
    here = studio.send("/bench/import", "paw.txt", BRITISH.encode())
    assert (here["terms"], here["sound"]) == ("uk", True)
    assert "R3: 12 htr [12]" in here["parts"][0]["text"].splitlines()
    turned = studio.send("/bench/import?into=us", "paw.txt", BRITISH.encode())
    assert (turned["terms"], turned["into"], turned["unconverted"]) == ("uk", "us", None)
    assert {"R1: 6 sc in ring [6]", "R3: 12 hdc [12]"} <= set(turned["parts"][0]["text"].splitlines())


@pytest.mark.parametrize("pattern", sound_patterns()[::6], ids=lambda p: p.name)
def test_what_is_brought_in_is_what_was_read(studio: Studio, pattern: Any) -> None:
    """The parts' own texts, read again together, have the counts of the pattern."""
    got = studio.send("/bench/import?into=us", "pattern.txt", pattern.text.encode())
    if not got["sound"]:
        return
    design = studio.design("Found")
    found = {"parts": [{k: p[k] for k in ("name", "make", "text")} for p in got["parts"]]}
    made = studio.ask("POST", f"/designs/{design['id']}/parts/several", found, 201)
    assert [p["name"] for p in made["parts"]] == [p["name"] for p in got["parts"]]
    assert [p["faults"] for p in made["parts"]] == [0] * len(made["parts"])


def test_a_design_is_made_from_a_pattern_of_any_manner(studio: Studio) -> None:
    made = studio.send("/designs/from-file", "zwerg.txt", GERMAN.encode(), 201)
    assert [(p["name"], p["faults"]) for p in made["parts"]] == [("Erstes Bein", 0), ("Zweites Bein", 0)]
    assert made["parts"][1]["text"] == "R1: 6 sc in ring [6]\nR2: inc around [12]\n"
