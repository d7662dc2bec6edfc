"""Bringing in patterns of any manner: what every line was taken for, corrections, and parts in the design's own terms."""

from __future__ import annotations

import io
from typing import Any

import docx
import pytest

from benchmarks.reading import sound_patterns
from studio.jobs.models import Job
from tests.studio.conftest import BALL, Studio

GERMAN = (
    "Zwerg\n\nErstes Bein\n1. Rd: 6 fM in einen Fadenring (6)\n2. Rd: jede M verdoppeln (12)\nFaden abschneiden.\n\n"
    "Zweites Bein\nWie das erste Bein bis zur 2. Rd.\n"
)
BRITISH = (
    "PAW, UK terminology\nRound 1: 6 dc in adjustable ring. 6 sts\nRound 2: 2 dc in each st. 12 sts\n"
    "Round 3: 12 htr. 12 sts\n"
)
MOTH = (
    "Night moth\nMaterials\nPlum yarn, two 6 mm safety eyes\nHook: 2.5 mm\nGauge: 6 sc x 6 rounds = 3 cm\n\n"
    "Wing (make 2)\nR1: 4 sc in ring [4]\nR2: inc x 4 [8]\n\nBody\nR1: 6 sc in ring [6]\n\n"
    "Finishing\nSew the wings to the back.\n\n© Lanternwick. Personal use only.\n"
)


def board(studio: Studio, text: str, **more: Any) -> Any:
    return studio.ask("POST", "/bench/board", {"text": text, **more})


def line(got: dict[str, Any], number: int) -> dict[str, Any]:
    return next(row for row in got["lines"] if row["line"] == number)


# --- what it was taken for -------------------------------------------------------------------


def test_every_line_is_shown_as_it_was_written_with_what_came_of_it(studio: Studio) -> None:
    got = board(studio, GERMAN)
    assert (got["sound"], got["terms_how"]) == (True, "the words are German")
    assert [row["text"] for row in got["lines"]] == [row for row in GERMAN.splitlines() if row]
    assert (line(got, 4)["taken"], line(got, 4)["understood"]) == ("round", "R1: 6 sc in ring [6]")
    assert (line(got, 3)["taken"], line(got, 6)["taken"]) == ("part", "note")
    named = line(got, 9)
    assert (named["taken"], named["severity"]) == ("round", "hint")
    assert named["understood"] == "R1: 6 sc in ring [6]; R2: inc around [12]"
    assert "as it is written elsewhere" in named["message"]


def test_a_board_in_the_notation_names_parts_and_faults(studio: Studio) -> None:
    text = "Name: Moth\nTerms: UK\nEars (make 2)\nR1: 6 dc in ring [6]\nA note.\nTail\nR1: 4 dc in ring [5]\nStuff.\n"
    got = board(studio, text)
    assert (got["title"], got["terms"], got["sound"]) == ("Name: Moth", "uk", False)
    assert [(p["name"], p["make"], p["counts"], p["faults"]) for p in got["parts"]] == [
        ("Ears", 2, [6], 0),
        ("Tail", 1, [4], 1),
    ]
    assert got["parts"][1]["text"] == "R1: 4 dc in ring [5]\nStuff.\n"
    assert [(row["taken"], row["severity"]) for row in got["lines"]] == [
        ("title", None), ("abbreviations", None), ("part", None), ("round", None), ("note", None), ("part", None),
        ("round", "fault"), ("direction", None),
    ]  # fmt: skip
    assert (got["doubts"][0]["severity"], got["doubts"][0]["line"], got["doubts"][0]["part"]) == ("fault", 7, "Tail")


def test_doubts_come_gravest_first_with_their_lines(studio: Studio) -> None:
    got = board(studio, "Ball\nR1: 6 sc in ring (6)\nR2: firmly, inc in each st (12)\nR3: 6 zog (12)\n")
    assert [d["severity"] for d in got["doubts"]] == sorted(
        (d["severity"] for d in got["doubts"]), key="fault warning hint".find
    )
    assert (got["doubts"][0]["line"], got["doubts"][0]["severity"]) == (4, "fault")
    assert {d["line"] for d in got["doubts"]} >= {3, 4}


# --- corrections --------------------------------------------------------------------------------


def test_a_corrected_line_is_what_she_says(studio: Studio) -> None:
    text = "Hat\nBrim first\nR1: 6 sc in ring (6)\nR2: 6 zog (12)\n"
    assert board(studio, text)["parts"][0]["name"] == "Brim first"
    got = board(studio, text, corrections=[{"line": 2, "taken": "note"}], words=[{"word": "zog", "means": "increase"}])
    assert (got["sound"], got["parts"][0]["name"], got["parts"][0]["counts"]) == (True, "Hat", [6, 12])
    assert (line(got, 2)["taken"], line(got, 2)["corrected"]) == ("note", True)


def test_a_correction_that_makes_no_sense_is_refused_at_its_place(studio: Studio) -> None:
    twice = {"text": BALL, "corrections": [{"line": 1, "taken": "note"}, {"line": 1, "taken": "round"}]}
    assert "corrected twice" in studio.ask("POST", "/bench/board", twice, 422)["detail"]
    unclear = {"text": "R1: 6 zog\n", "words": [{"word": "zog", "means": "wibble"}]}
    refused = studio.ask("POST", "/bench/board", unclear, 422)
    assert "'zog' means is not understood" in refused["detail"]
    for wrong in ({"line": 0}, {"line": 1, "taken": "poem"}, {"line": 1, "column": -1}):
        refused = studio.ask("POST", "/bench/board", {"text": BALL, "corrections": [wrong]}, 422)
        assert refused["errors"][0]["field"].startswith("corrections")


# --- terms -----------------------------------------------------------------------------------------


def test_a_uk_text_keeps_its_meaning_in_a_us_design(studio: Studio) -> None:
    here = board(studio, BRITISH)
    assert (here["terms"], here["sound"]) == ("uk", True)
    assert "R3: 12 htr [12]" in here["parts"][0]["text"].splitlines()
    turned = board(studio, BRITISH, into="us")
    assert (turned["terms"], turned["into"], turned["unconverted"]) == ("uk", "us", None)
    assert {"R1: 6 sc in ring [6]", "R3: 12 hdc [12]"} <= set(turned["parts"][0]["text"].splitlines())
    made = studio.design()
    got = studio.ask("POST", f"/designs/{made['id']}/brought", {"text": BRITISH}, 201)
    assert "R3: 12 hdc [12]" in got["parts"][0]["text"]


# --- into a design ------------------------------------------------------------------------------------


@pytest.mark.parametrize("pattern", sound_patterns()[::6], ids=lambda p: p.name)
def test_what_is_brought_in_is_what_was_read(studio: Studio, pattern: Any) -> None:
    """The parts' own texts, read again together, have the counts of the pattern."""
    got = board(studio, pattern.text, into="us")
    if not got["sound"]:
        return
    design = studio.design("Found")
    made = studio.ask("POST", f"/designs/{design['id']}/brought", {"text": pattern.text}, 201)
    assert [p["name"] for p in made["parts"]] == [p["name"] for p in got["parts"]]
    assert [p["counts"] for p in made["parts"]] == [p["counts"] for p in got["parts"]]
    assert [p["faults"] for p in made["parts"]] == [0] * len(made["parts"])


def test_parts_and_sections_are_one_change_and_one_undo(studio: Studio) -> None:
    made, _ = studio.with_part(BALL)
    path = f"/designs/{made['id']}"
    studio.ask("PUT", f"{path}/pages", {"page": "booklet", "base": made["revision"], "data": {"credits": "Hers."}})
    before = studio.ask("GET", path)
    got = studio.ask("POST", f"{path}/brought", {"text": MOTH, "parts": [0]}, 201)
    assert got["revision"] == before["revision"] + 1
    assert [p["name"] for p in got["parts"]] == ["Body", "Wing"]
    assert [s["text"] for s in got["assembly"]["steps"]] == ["Sew the wings to the back."]
    assert (got["gauge"]["hook_mm"], got["gauge"]["source"], got["gauge"]["stitch_mm"]) == (2.5, "own", 5)
    assert (got["assembly"]["eye_kind"], got["assembly"]["eye_mm"]) == ("safety", 6)
    assert got["booklet"]["credits"] == "Hers."
    assert "Plum yarn" in got["booklet"]["notions"]
    assert got["booklet"]["notions"].startswith(before["booklet"]["notions"])
    assert "© Lanternwick" in got["booklet"]["permissions"]
    back = studio.ask("POST", f"{path}/undo")
    assert ([p["name"] for p in back["parts"]], back["assembly"]["steps"]) == (["Body"], [])


def test_sections_may_stay_behind_and_hers_are_never_overwritten(studio: Studio) -> None:
    made = studio.design()
    path = f"/designs/{made['id']}"
    gauge = {**made["gauge"], "hook_mm": 4.0}
    made = studio.ask("PUT", f"{path}/pages", {"page": "gauge", "base": made["revision"], "data": gauge})
    alone = studio.ask("POST", f"{path}/brought", {"text": MOTH, "sections": False}, 201)
    assert (len(alone["parts"]), alone["assembly"]["steps"]) == (2, [])
    again = studio.ask("POST", f"{path}/brought", {"text": MOTH}, 201)
    assert again["gauge"]["hook_mm"] == 4.0


def test_a_choice_of_parts_that_are_not_there_is_refused(studio: Studio) -> None:
    made = studio.design()
    for parts in ([], [7]):
        refused = studio.ask("POST", f"/designs/{made['id']}/brought", {"text": MOTH, "parts": parts}, 422)
        assert "Choose from the parts" in refused["detail"]
    nothing = studio.ask("POST", f"/designs/{made['id']}/brought", {"text": "Dear diary"}, 422)
    assert "No round was found" in nothing["detail"]
    assert studio.ask("GET", f"/designs/{made['id']}")["parts"] == []


def test_a_page_that_is_full_says_so_and_keeps_nothing(studio: Studio) -> None:
    made = studio.design()
    path = f"/designs/{made['id']}"
    data = {"credits": "x" * 4_990}
    studio.ask("PUT", f"{path}/pages", {"page": "booklet", "base": made["revision"], "data": data})
    text = f"{MOTH}\nThanks to: everyone who tested this moth\n"
    refused = studio.ask("POST", f"{path}/brought", {"text": text}, 422)
    assert "finds no room" in refused["detail"]
    assert studio.ask("GET", path)["parts"] == []


# --- a design from nothing ----------------------------------------------------------------------------


def test_a_design_is_made_from_a_pattern_with_its_corrections(studio: Studio) -> None:
    made = studio.ask("POST", "/designs/brought", {"name": "moth.txt", "text": MOTH}, 201)
    assert (made["name"], made["terms"]) == ("Night moth", "us")
    assert [(p["name"], p["make"]) for p in made["parts"]] == [("Wing", 2), ("Body", 1)]
    nameless = studio.ask("POST", "/designs/brought", {"name": "owl.txt", "text": "R1: 6 sc in ring [6]\n"}, 201)
    assert nameless["name"] == "owl"
    note = [{"line": 11, "taken": "note"}]
    corrected = studio.ask("POST", "/designs/brought", {"text": MOTH, "corrections": note}, 201)
    assert "Body" not in [p["name"] for p in corrected["parts"]]


def test_a_design_is_made_from_a_pattern_of_any_manner(studio: Studio) -> None:
    made = studio.send("/designs/from-file", "zwerg.txt", GERMAN.encode(), 201)
    assert [(p["name"], p["faults"]) for p in made["parts"]] == [("Erstes Bein", 0), ("Zweites Bein", 0)]
    assert made["parts"][1]["text"] == "R1: 6 sc in ring [6]\nR2: inc around [12]\n"


# --- files ------------------------------------------------------------------------------------------------


def test_plain_text_comes_at_once(studio: Studio) -> None:
    got = studio.send("/bench/text", "moth.txt", MOTH.encode())
    assert (got["text"], got["job"]) == (MOTH, None)


@pytest.mark.django_db(transaction=True)
def test_a_document_is_read_by_a_job_that_keeps_no_copy_of_it(studio: Studio) -> None:
    made = docx.Document()
    for words in MOTH.splitlines():
        made.add_paragraph(words)
    out = io.BytesIO()
    made.save(out)
    got = studio.send("/bench/text", "moth.docx", out.getvalue())
    answer = studio.ask("GET", f"/jobs/{got['job']['id']}/answer")
    assert (answer["job"], answer["text"].split()) == ("document", MOTH.split())
    assert Job.objects.get().question == ""
    again = studio.send("/bench/text", "moth.docx", out.getvalue())
    assert again["job"]["id"] == got["job"]["id"]


@pytest.mark.django_db(transaction=True)
def test_a_document_that_cannot_be_read_says_why(studio: Studio) -> None:
    got = studio.send("/bench/text", "moth.pdf", b"%PDF-1.4 nothing")
    job = studio.ask("GET", f"/jobs/{got['job']['id']}")
    assert (job["state"], job["error"]) == ("failed", "moth.pdf: this PDF is damaged and could not be read.")
    again = studio.send("/bench/text", "moth.pdf", b"%PDF-1.4 nothing")
    assert studio.ask("GET", f"/jobs/{again['job']['id']}")["state"] == "failed", "asked anew, with its question"
