"""The basket, samples, sizes, and making a size a design."""

from __future__ import annotations

from typing import Any

import pytest

from tests.studio.conftest import Studio, rounds

MOSS = {"name": "Moss", "colour": "#77834b", "weight": 3, "wraps": 13, "skein_m": 125, "skein_g": 50}
PLUSH = {
    "key": "plush1",
    "name": "in plush",
    "kind": "yarn",
    "hook_mm": 6,
    "strands": 1,
    "yarn": {"name": "Fog", "colour": "#9aa6a8", "weight": 5, "plush": True},
}
TALLER = {"key": "taller", "name": "taller", "kind": "height", "height_mm": 90}


def test_yarns_come_and_go(studio: Studio, other: Studio) -> None:
    yarn = studio.ask("POST", "/yarns", MOSS, 201)
    assert yarn["diameter_mm"] == pytest.approx(25.4 / 13)
    changed = studio.ask("PUT", f"/yarns/{yarn['id']}", {**MOSS, "wraps": None})
    assert changed["diameter_mm"] != yarn["diameter_mm"]
    other.ask("PUT", f"/yarns/{yarn['id']}", MOSS, 404)
    other.ask("DELETE", f"/yarns/{yarn['id']}", status=404)
    assert other.ask("GET", "/yarns")["yarns"] == []
    studio.ask("DELETE", f"/yarns/{yarn['id']}", status=204)
    assert studio.ask("GET", "/yarns")["yarns"] == []


@pytest.mark.parametrize(
    "change",
    [{"name": ""}, {"name": "42"}, {"colour": "moss"}, {"weight": 9}, {"wraps": 0}, {"skein_m": -3}, {"weight": "x"}],
)
def test_yarns_that_are_none(studio: Studio, change: dict[str, Any]) -> None:
    assert studio.ask("POST", "/yarns", {**MOSS, **change}, 422)["detail"]


def test_a_sample_gives_gauge_and_lean(studio: Studio, other: Studio) -> None:
    yarn = studio.ask("POST", "/yarns", MOSS, 201)
    body = {
        "yarn_id": yarn["id"],
        "hook_mm": 3,
        "kind": "stuffed",
        "stitches": 36,
        "across_mm": 180,
        "rounds": 10,
        "up_mm": 48,
        "drift_stitches": 3,
        "drift_rounds": 10,
    }
    swatch = studio.ask("POST", "/yarns/swatches", body, 201)
    assert swatch["gauge"] == {
        "stitch_mm": 5.0,
        "round_mm": 4.8,
        "lean": 0.3,
        "spread": 0.03,
        "how": "measured on a stuffed piece",
    }
    other.ask("POST", "/yarns/swatches", body, 404)
    studio.ask("POST", "/yarns/swatches", {**body, "drift_stitches": 900}, 422)
    studio.ask("DELETE", f"/yarns/swatches/{swatch['id']}", status=204)


def gauged(studio: Studio) -> dict[str, Any]:
    recipe = rounds(height_mm=50, width_mm=50, start=6)
    text = studio.ask(
        "POST", "/shapes/draft", {"recipe": recipe, "terms": "us", "gauge": {"stitch_mm": 5.0, "round_mm": 4.6}}
    )["text"]
    made, _ = studio.with_part(text, recipe=recipe)
    page = {"yarns": [MOSS], "hook_mm": 3, "source": "own", "stitch_mm": 5.0, "round_mm": 4.6}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "gauge", "base": made["revision"], "data": page})
    eyes = {"eye_kind": "safety", "eye_mm": 8, "steps": []}
    return studio.ask(
        "PUT", f"/designs/{made['id']}/pages", {"page": "assembly", "base": made["revision"], "data": eyes}
    )  # type: ignore[no-any-return]


def test_sizes_side_by_side(studio: Studio) -> None:
    made = gauged(studio)
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [PLUSH, TALLER]})
    base, plush, taller = table["columns"]
    assert plush["parts"][0]["counts"] == base["parts"][0]["counts"]
    ratio = plush["gauge"]["stitch_mm"] / base["gauge"]["stitch_mm"]
    assert plush["height"]["value"] / base["height"]["value"] == pytest.approx(ratio, rel=0.02)
    assert plush["eye_mm"] in (12, 14)
    assert taller["parts"][0]["how"] == "drafted"
    assert taller["height"]["value"] == pytest.approx(90, rel=0.05)
    assert max(taller["parts"][0]["counts"]) > 1.6 * max(base["parts"][0]["counts"])
    assert taller["yarns"][0]["skeins"] >= 1


def test_sizes_that_cannot_be_say_why_in_their_column(studio: Studio) -> None:
    made = gauged(studio)
    tiny = {**TALLER, "height_mm": 5}
    bare = {**PLUSH, "yarn": None}
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [tiny, bare]})
    assert [bool(c["problem"]) for c in table["columns"]] == [False, True, True]
    empty = studio.design()
    assert studio.ask("POST", f"/designs/{empty['id']}/sizes", {"sizes": []})["columns"][0]["parts"] == []


def test_a_bent_part_is_made_larger_from_its_form(studio: Studio) -> None:
    recipe: dict[str, Any] = {
        "kind": "capsule",
        "height_mm": 80,
        "width_mm": 36,
        "modifiers": [{"kind": "bend", "degrees": 60}],
    }
    asked = {"recipe": rounds(**recipe), "gauge": {"stitch_mm": 5.6, "round_mm": 5.15}, "terms": "us"}
    drafted = studio.ask("POST", "/shapes/draft", asked)
    made, _ = studio.with_part(drafted["text"], recipe=drafted["recipe"])
    tall = {**TALLER, "height_mm": 130}
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [tall]})
    base, larger = table["columns"]
    assert larger["parts"][0]["how"] == "drafted"
    assert max(larger["parts"][0]["counts"]) > 1.3 * max(base["parts"][0]["counts"])
    page = {"base": made["revision"], "data": {"sizes": [tall]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    copy = studio.ask("POST", f"/designs/{made['id']}/sizes/taller/make", status=201)
    assert copy["parts"][0]["recipe"]["form"]["modifiers"] == [{"kind": "bend", "degrees": 60}]
    assert copy["parts"][0]["authoritative"]


def test_flat_panels_are_made_larger_from_their_box(studio: Studio) -> None:
    box = {"form": {"base": "box", "width_mm": 60, "depth_mm": 50, "height_mm": 70}}
    asked = {"recipe": rounds(**box), "gauge": {"stitch_mm": 5.6, "round_mm": 5.15}, "terms": "us"}
    made = studio.design("Crate")
    for part in studio.ask("POST", "/shapes/panels", asked)["parts"]:
        wanted = {name: part[name] for name in ("name", "make", "text", "recipe")}
        made = studio.ask("POST", f"/designs/{made['id']}/parts", wanted, 201)
    tall = {**TALLER, "height_mm": 110}
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [tall]})
    base, larger = table["columns"]
    assert larger["problem"] is None
    assert [p["how"] for p in larger["parts"]] == ["drafted"] * 3
    rows = [[len(p["counts"]) for p in column["parts"]] for column in (base, larger)]
    assert all(b > a for a, b in zip(*rows, strict=True))
    page = {"base": made["revision"], "data": {"sizes": [tall]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    copy = studio.ask("POST", f"/designs/{made['id']}/sizes/taller/make", status=201)
    assert copy["parts"][2]["recipe"]["panel"] == "Base"
    assert all(p["authoritative"] for p in copy["parts"])


def test_a_size_becomes_a_design(studio: Studio) -> None:
    made = gauged(studio)
    page = {"base": made["revision"], "data": {"sizes": [PLUSH, TALLER]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    tall = studio.ask("POST", f"/designs/{made['id']}/sizes/taller/make", status=201)
    assert tall["origin"]["id"] == made["id"]
    assert tall["brief"]["height_mm"] == 90
    assert tall["parts"][0]["authoritative"]
    assert tall["parts"][0]["recipe"]["form"]["width_mm"] == pytest.approx(50 * 90 / 50, rel=0.1)
    plush = studio.ask("POST", f"/designs/{made['id']}/sizes/plush1/make", status=201)
    assert plush["parts"][0]["counts"] == made["parts"][0]["counts"]
    assert plush["gauge"]["hook_mm"] == 6
    assert plush["assembly"]["eye_mm"] > 8
    studio.ask("POST", f"/designs/{made['id']}/sizes/nosuch/make", status=404)
