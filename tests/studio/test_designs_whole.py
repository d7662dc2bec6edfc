"""Designs as files, several parts as one action, names of every script, terms, and values that are refused."""

from __future__ import annotations

import json
from typing import Any

import pytest

from craft.design.stored import read_design
from tests.studio.conftest import BALL, Studio, rounds
from tests.studio.test_yarns_and_sizes import MOSS, TALLER, gauged

EVERYDAY = ["12.8 cm", "Ear (left)", "No. 2", "Ухо", "みみ", "أذن", "Cap & stalk", "Zoë’s hat"]


# --- names --------------------------------------------------------------------------------


@pytest.mark.parametrize("name", EVERYDAY)
def test_designs_and_parts_have_names_of_every_script(studio: Studio, name: str) -> None:
    made = studio.design(name)
    path = f"/designs/{made['id']}"
    made = studio.ask("POST", f"{path}/parts", {"name": name, "text": BALL}, 201)
    studio.ask("PUT", f"{path}/parts/{made['parts'][0]['key']}", {"name": name, "make": 2, "colour": None})
    studio.ask("PUT", path, {"name": name, "terms": "us"})
    text = studio.ask("GET", f"{path}/booklet.txt").content.decode()
    assert f"{name} (make 2)".upper() in text.upper()
    assert studio.ask("GET", f"{path}/booklet.pdf").content[:4] == b"%PDF"


def test_a_size_becomes_a_design_under_its_own_default_name(studio: Studio) -> None:
    made = gauged(studio)
    sizes = [{**TALLER, "name": "12.8 cm"}, {**TALLER, "key": "other", "name": "No. 2 (tall)"}]
    made = studio.ask(
        "PUT", f"/designs/{made['id']}/pages", {"page": "sizes", "base": made["revision"], "data": {"sizes": sizes}}
    )
    for entry in sizes:
        tall = studio.ask("POST", f"/designs/{made['id']}/sizes/{entry['key']}/make", status=201)
        assert entry["name"] in tall["name"]


@pytest.mark.parametrize("name", ["", " ", "two\nlines", "x" * 61])
@pytest.mark.parametrize("what", ["design", "part", "rename"])
def test_a_refused_name_is_a_sentence_at_the_field(studio: Studio, name: str, what: str) -> None:
    made, key = studio.with_part()
    asked = {
        "design": ("POST", "/designs", {"name": name}),
        "part": ("PUT", f"/designs/{made['id']}/parts/{key}", {"name": name, "make": 1, "colour": None}),
        "rename": ("PUT", f"/designs/{made['id']}", {"name": name, "terms": "us"}),
    }[what]
    refused = studio.ask(*asked, 422)
    assert [e["field"] for e in refused["errors"]] == ["name"]
    assert "pattern" not in refused["detail"]
    assert "^" not in refused["detail"]


# --- several parts are one action ---------------------------------------------------------


def test_several_parts_are_one_revision_and_one_undo(studio: Studio) -> None:
    made = studio.design()
    path = f"/designs/{made['id']}"
    recipe = studio.ask(
        "POST", "/shapes/draft", {"recipe": rounds(height_mm=40, width_mm=40), "terms": "us",
                                  "gauge": {"stitch_mm": 5, "round_mm": 4.6}},
    )  # fmt: skip
    parts = [
        {"name": "Upper", "text": recipe["text"], "recipe": recipe["recipe"]},
        {"name": "Lower", "text": BALL},
        {"name": "Ear", "text": BALL, "make": 2},
    ]
    after = studio.ask("POST", f"{path}/parts/several", {"parts": parts}, 201)
    assert after["revision"] == made["revision"] + 1
    assert [p["make"] for p in after["parts"]] == [1, 1, 2]
    assert after["parts"][0]["authoritative"]
    assert not after["parts"][1]["authoritative"]
    assert studio.ask("POST", f"{path}/undo")["parts"] == []


def test_one_bad_part_adds_none(studio: Studio) -> None:
    made = studio.design()
    parts = [{"name": "Upper", "text": BALL}, {"name": "", "text": BALL}]
    studio.ask("POST", f"/designs/{made['id']}/parts/several", {"parts": parts}, 422)
    assert studio.ask("GET", f"/designs/{made['id']}")["parts"] == []


# --- files --------------------------------------------------------------------------------


def test_a_design_is_saved_whole_and_brought_in_again(studio: Studio, other: Studio) -> None:
    made = gauged(studio)
    page = {"base": made["revision"], "data": {"sizes": [TALLER]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    raw = studio.raw("GET", f"/bench/file/{made['id']}/design")
    assert raw.status_code == 200
    assert ".json" in raw["Content-Disposition"]
    saved = raw.content
    value = read_design(saved.decode())
    assert (value.name, [p.name for p in value.parts], value.yarns[0].name) == ("Moth", ["Body"], "Moss")
    again = other.send("/designs/from-file", "moth.json", saved, 201)
    assert again["id"] != made["id"]
    assert again["parts"][0]["text"] == made["parts"][0]["text"]
    assert again["parts"][0]["authoritative"], "it still follows its shape"
    kept = ("sizes", "brief")
    assert {k: again[k] for k in kept} == {k: made[k] for k in kept}
    assert again["gauge_now"] == made["gauge_now"]
    second = other.raw("GET", f"/bench/file/{again['id']}/design").content
    assert read_design(second.decode()) == value, "nothing is lost on the way out, in and out again"


@pytest.mark.parametrize(
    ("raw", "said"),
    [
        (b"", "no readable JSON"),
        (b"\xff\xfe\x00", "no readable JSON"),
        (b"{}", "no Spirrel design"),
        (b'{"kind": "design", "format": 99}', "newer Spirrel"),
        (b'{"kind": "design", "format": 1}', "name: is missing"),
        (
            b'{"kind": "design", "format": 1, "name": "x", "yarns": [{"name": "a", "colour": "url(x)", "weight": 3}]}',
            "damaged",
        ),
        (
            b'{"kind": "design", "format": 1, "name": "x", "sizes": [{"key": "a", "name": "b", "kind": "width"}]}',
            "none of",
        ),
    ],
)
def test_a_file_that_is_no_design_is_a_sentence(studio: Studio, raw: bytes, said: str) -> None:
    refused = studio.send("/designs/from-file", "x.json", raw, 422)
    assert said in refused["detail"]
    assert studio.ask("GET", "/designs") == []


# --- terms --------------------------------------------------------------------------------

UK = "R1: 6 dc in ring [6]\nR2: inc x 6 [12]\nR3: 3 htr, 9 dc [12]\n"
US = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 3 hdc, 9 sc [12]\n"


def test_switching_terms_converts_every_part_as_one_action_or_keeps_the_words(studio: Studio) -> None:
    made, _ = studio.with_part(UK)
    path = f"/designs/{made['id']}"
    kept = studio.ask("PUT", path, {"name": "Moth", "terms": "uk"})
    assert kept["parts"][0]["text"] == UK, "the words stay when that is chosen"
    turned = studio.ask("PUT", path, {"name": "Moth", "terms": "us", "convert": True})
    assert turned["parts"][0]["text"] == US
    assert turned["parts"][0]["counts"] == [6, 12, 12]
    back = studio.ask("POST", f"{path}/undo")
    assert (back["terms"], back["parts"][0]["text"]) == ("uk", UK)


def test_rounds_that_are_not_understood_are_not_converted_in_part(studio: Studio) -> None:
    made, _ = studio.with_part(UK)
    path = f"/designs/{made['id']}"
    studio.ask("PUT", path, {"name": "Moth", "terms": "uk"})
    studio.ask("POST", f"{path}/parts", {"name": "Wing", "text": "R1: 6 dc in ring [6]\nR2: wibble (((\n"}, 201)
    refused = studio.ask("PUT", path, {"name": "Moth", "terms": "us", "convert": True}, 422)
    assert "Line 2" in refused["detail"]
    after = studio.ask("GET", path)
    assert (after["terms"], after["parts"][0]["text"]) == ("uk", UK)


def test_a_uk_text_brought_into_a_us_design_is_converted_and_says_so(studio: Studio) -> None:
    text = f"Terms: UK\n\n# Wing (make 2)\n{UK}"
    found = studio.ask("POST", "/bench/board", {"text": text, "into": "us"})
    assert found["parts"][0]["text"] == US
    assert (found["terms"], found["into"], found["unconverted"]) == ("uk", "us", None), "the dialog says so by these"
    unclear = studio.ask("POST", "/bench/board", {"text": f"{text}R4: wibble (((\n", "into": "us"})
    assert unclear["into"] == "uk"
    assert unclear["unconverted"].startswith("Wing: Line 4 is not understood")


# --- values that are refused --------------------------------------------------------------


def test_a_round_that_the_part_does_not_have_is_refused_where_it_was_typed(studio: Studio) -> None:
    made, key = studio.with_part(BALL)
    data = {"eye_kind": "safety", "eye_mm": 8, "eyes": {"part": key, "round": 99, "between": 4}}
    refused = studio.ask(
        "PUT", f"/designs/{made['id']}/pages", {"page": "assembly", "base": made["revision"], "data": data}, 422
    )
    assert "round" in refused["field"]
    assert "8" in refused["detail"], "it says how many there are"


def refused_page(studio: Studio, page: str, data: dict[str, Any]) -> dict[str, Any]:
    made, _ = studio.with_part(BALL)
    found = studio.ask(
        "PUT", f"/designs/{made['id']}/pages", {"page": page, "base": made["revision"], "data": data}, 422
    )
    return dict(found)


@pytest.mark.parametrize(
    ("page", "data", "field"),
    [
        ("gauge", {"yarns": [{**MOSS, "wraps": "abc"}]}, "wraps"),
        ("gauge", {"yarns": [{**MOSS, "skein_m": -5}]}, "skein_m"),
        ("gauge", {"firmness": 500}, "firmness"),
        ("gauge", {"hook_mm": -5}, "hook_mm"),
        ("gauge", {"stitch_mm": 99999}, "stitch_mm"),
        ("brief", {"height_mm": -5}, "height_mm"),
    ],
)
def test_every_refusal_names_its_field_in_a_sentence(
    studio: Studio, page: str, data: dict[str, Any], field: str
) -> None:
    refused = refused_page(studio, page, data)
    assert field in refused["field"]
    assert refused["detail"].endswith(".")
    assert json.dumps(refused).count("Traceback") == 0


# --- samples ------------------------------------------------------------------------------


def test_a_sample_of_the_same_yarn_and_hook_is_used_by_gauge_and_sizes(studio: Studio) -> None:
    yarn = studio.ask("POST", "/yarns", MOSS, 201)
    body = {
        "yarn_id": yarn["id"],
        "hook_mm": 4,
        "kind": "flat",
        "stitches": 20,
        "across_mm": 124,
        "rounds": 20,
        "up_mm": 112,
    }
    measured = studio.ask("POST", "/yarns/swatches", body, 201)["gauge"]
    made = gauged(studio)
    entry = {"key": "hook4", "name": "hook 4", "kind": "yarn", "hook_mm": 4, "strands": 1,
             "yarn": {**MOSS, "yarn_id": yarn["id"]}}  # fmt: skip
    column = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [entry]})["columns"][1]
    assert column["gauge"]["stitch_mm"] == measured["stitch_mm"]
    assert "measured" in column["gauge"]["how"]
    other_hook = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [{**entry, "hook_mm": 5}]})["columns"][1]
    assert "measured" not in other_hook["gauge"]["how"]
    page = {"yarns": [{**MOSS, "yarn_id": yarn["id"]}], "hook_mm": 4, "source": "estimate"}
    gauge = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "gauge", "base": made["revision"], "data": page})
    assert gauge["gauge_now"]["stitch_mm"] == measured["stitch_mm"]
    assert "measured" in gauge["gauge_now"]["how"]
