"""The brief: its plan of work, its client, what each costs, and what leaves the studio of it."""

from __future__ import annotations

import json
from typing import Any

import pytest

from tests.studio.conftest import Studio

PLANNED = {
    "key": "a1b2c3d4",
    "name": "Head",
    "make": 1,
    "solid": "sphere",
    "open": False,
    "empty": False,
    "wide_mm": 45,
    "tall_mm": 44,
    "box": {"picture": 7, "left": 0.1, "top": 0.2, "wide": 0.3, "tall": 0.25},
    "part": None,
}
CLIENT = {
    "client": "A neighbour",
    "until": "2027-03-01",
    "hour": 12,
    "yarn_100g": 8,
    "extra": 4,
    "currency": "EUR",
    "agreed": [{"key": "b1b2c3d4", "on": "2026-12-02", "text": "Blue, not green."}],
}


def with_brief(studio: Studio, **fields: Any) -> dict[str, Any]:
    made, _ = studio.with_part()
    page = {**made["brief"], **fields}
    return studio.ask(  # type: ignore[no-any-return]
        "PUT", f"/designs/{made['id']}/pages", {"page": "brief", "base": made["revision"], "data": page}
    )


def test_a_plan_and_a_client_are_kept(studio: Studio) -> None:
    saved = with_brief(studio, plan=[PLANNED], commission=CLIENT)
    again = studio.ask("GET", f"/designs/{saved['id']}")["brief"]
    assert again["plan"] == [PLANNED]
    assert again["commission"] == CLIENT
    undone = studio.ask("POST", f"/designs/{saved['id']}/undo")["brief"]
    assert (undone["plan"], undone["commission"]) == ([], None)


def test_a_copy_has_the_plan_without_pictures_and_no_client(studio: Studio) -> None:
    saved = with_brief(studio, plan=[PLANNED], commission=CLIENT)
    copy = studio.ask("POST", f"/designs/{saved['id']}/copy", {}, 201)
    assert copy["brief"]["plan"] == [{**PLANNED, "box": None}]
    assert copy["brief"]["commission"] is None


def test_no_booklet_carries_the_client(studio: Studio) -> None:
    saved = with_brief(studio, plan=[PLANNED], commission=CLIENT)
    for ending in ("txt", "md", "json"):
        got = studio.raw("GET", f"/designs/{saved['id']}/booklet.{ending}")
        assert got.status_code == 200
        text = got.content.decode()
        assert "neighbour" not in text
        assert "Blue, not green" not in text


@pytest.mark.parametrize(
    ("field", "wrong"),
    [
        ("plan", [{**PLANNED, "wide_mm": 4}]),
        ("plan", [{**PLANNED, "make": 0}]),
        ("plan", [{**PLANNED, "box": {**PLANNED["box"], "left": 1.5}}]),  # type: ignore[dict-item]
        ("plan", [{**PLANNED, "solid": "x" * 21}]),
        ("plan", [PLANNED] * 61),
        ("commission", {**CLIENT, "hour": -1}),
        ("commission", {**CLIENT, "until": "soon"}),
        ("commission", {**CLIENT, "agreed": [{"key": "a", "on": "2026-13-40", "text": ""}]}),
    ],
)
def test_nonsense_is_refused_at_its_field(studio: Studio, field: str, wrong: object) -> None:
    made, _ = studio.with_part()
    page = {**made["brief"], field: wrong}
    body = {"page": "brief", "base": made["revision"], "data": page}
    refused = studio.ask("PUT", f"/designs/{made['id']}/pages", body, 422)
    assert field in json.dumps(refused)


def test_the_price_follows_the_rates_and_the_rounds(studio: Studio) -> None:
    saved = with_brief(studio, commission=CLIENT)
    found = studio.ask("GET", f"/designs/{saved['id']}/price")
    hours = found["hours"]["value"]
    grams = found["grams"]["value"]
    assert found["price"]["value"] == pytest.approx(12 * hours + 0.08 * grams + 4)
    assert found["price"]["low"] < found["price"]["value"] < found["price"]["high"]
    dearer = {**saved["brief"], "commission": {**CLIENT, "hour": 24}}
    body = {"page": "brief", "base": saved["revision"], "data": dearer}
    studio.ask("PUT", f"/designs/{saved['id']}/pages", body)
    twice = studio.ask("GET", f"/designs/{saved['id']}/price")
    assert twice["price"]["value"] == pytest.approx(found["price"]["value"] + 12 * hours)


def test_there_is_no_price_without_a_client_or_without_rounds(studio: Studio) -> None:
    made, _ = studio.with_part()
    assert studio.ask("GET", f"/designs/{made['id']}/price")["price"] is None
    empty = studio.design("Nothing yet")
    page = {**empty["brief"], "commission": CLIENT}
    body = {"page": "brief", "base": empty["revision"], "data": page}
    studio.ask("PUT", f"/designs/{empty['id']}/pages", body)
    assert studio.ask("GET", f"/designs/{empty['id']}/price")["price"] is None


def test_a_solid_is_proposed(studio: Studio) -> None:
    found = studio.ask("POST", "/shapes/propose", {"name": "Left wing", "wide_mm": 60, "tall_mm": 40})
    assert (found["kind"], found["open"], found["empty"]) == ("drop", True, True)
    refused = studio.ask("POST", "/shapes/propose", {"name": "Head", "wide_mm": 1, "tall_mm": 40}, 422)
    assert "5 to 600 mm" in refused["detail"]
