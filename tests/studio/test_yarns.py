"""The basket: yarns, and swatches with the gauge that they give."""

from __future__ import annotations

from typing import Any

import pytest

from tests.studio.conftest import Studio
from tests.studio.test_yarns_and_sizes import MOSS


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


def test_swatches_that_differ_on_one_hook_are_doubted(studio: Studio) -> None:
    yarn = studio.ask("POST", "/yarns", MOSS, 201)["id"]
    body = {"yarn_id": yarn, "hook_mm": 3, "kind": "stuffed", "stitches": 30, "rounds": 10, "up_mm": 40}
    first = studio.ask("POST", "/yarns/swatches", {**body, "across_mm": 129}, 201)
    assert studio.ask("GET", "/yarns")["swatches"][0]["doubt"] is None
    second = studio.ask("POST", "/yarns/swatches", {**body, "across_mm": 155}, 201)
    told = {s["id"]: s["doubt"] for s in studio.ask("GET", "/yarns")["swatches"]}
    assert told[second["id"]] == (
        "Its stitches are 20 % wider than your other swatches of it on this hook: a 4 mm hook would explain that."
    )
    assert "narrower" in told[first["id"]]
    studio.ask("DELETE", f"/yarns/swatches/{first['id']}", status=204)
    assert studio.ask("GET", "/yarns")["swatches"][0]["doubt"] is None
