"""Pieces, drawn figures and compared shapes, shown settled once they are."""

from __future__ import annotations

import io
from typing import Any

import pytest
from PIL import Image

from tests.studio.conftest import BALL, Studio

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)

LONGER = BALL.replace("R4-R6", "R4-R9").replace("R7:", "R10:").replace("R8:", "R11:")
AT_REST = {"whole": True, "under_way": 0}


def test_a_piece_and_a_drawn_figure_are_shown_settled_once_they_are(studio: Studio) -> None:
    made, key = studio.with_part()
    body = {"design": made["id"], "parts": [key], "main": key, "title": "Ball", "slot": "head"}
    piece = studio.ask("POST", "/pieces", body, 201)
    estimate = studio.raw("GET", f"/pieces/{piece['id']}/picture?settled")
    assert estimate["Cache-Control"] == "no-store"
    drawn = {"seeds": {"head": 5}, "name": "Drawn"}
    assert studio.ask("POST", "/pieces/draw", drawn)["whole"] is False
    assert studio.ask("POST", f"/pieces/{piece['id']}/settle") == AT_REST
    settled = studio.raw("GET", f"/pieces/{piece['id']}/picture?settled")
    assert "max-age" in settled["Cache-Control"]
    assert settled.content != estimate.content
    assert studio.ask("POST", "/pieces/draw/settle", drawn) == AT_REST
    again = studio.ask("POST", "/pieces/draw", drawn)
    assert again["whole"] is True
    assert again["picture"].startswith("data:image/png;base64,")


def test_settled_shapes_are_laid_over_each_other(studio: Studio, other: Studio) -> None:
    base, key = studio.with_part()
    copy = studio.ask("POST", f"/designs/{base['id']}/copy", status=201)

    def write(words: str) -> None:
        studio.ask("PUT", f"/designs/{copy['id']}/parts/{key}/text", {"text": words})

    write(LONGER)
    path = f"/designs/{copy['id']}/comparison/shapes"
    found: dict[str, Any] = studio.ask("POST", path, {"other": base["id"]})
    (body,) = found["parts"]
    assert (body["name"], found["under_way"]) == ("Body", 0)
    assert body["picture"].startswith("<svg")
    rounds_more = 3 * made_round(base)
    assert 0.5 * rounds_more < body["out_mm"] < 1.6 * rounds_more, "three rounds more stand out at the top"
    assert body["usual_mm"] <= max(body["out_mm"], body["in_mm"])
    write(BALL)
    assert studio.ask("POST", path, {"other": base["id"]})["parts"] == [], "what is alike is not shown"
    other.ask("POST", path, {"other": base["id"]}, 404)


def made_round(design: dict[str, Any]) -> float:
    """How high a round comes, in mm."""
    return float(design["gauge_now"]["round_mm"])


def test_a_picture_is_taken_as_it_is_asked_for(studio: Studio, other: Studio) -> None:
    made, _ = studio.with_part()
    path = f"/bench/picture/{made['id']}"
    look = {"side": "front", "width": 400, "ground": "#ffffff", "above": 10}
    query = "?side=front&width=400&ground=%23ffffff&above=10"
    early = studio.ask("GET", path + query, status=409)
    assert "not painted yet" in early["detail"]
    assert studio.ask("POST", path, look) == AT_REST
    got = studio.raw("GET", path + query)
    assert got["Content-Type"] == "image/png"
    assert 'filename="moth-front.png"' in got["Content-Disposition"]
    image = Image.open(io.BytesIO(got.content))
    assert (image.mode, image.size) == ("RGB", (400, 400))
    assert image.getpixel((0, 0)) == (255, 255, 255)
    studio.ask("GET", path + "?side=back", status=409)
    studio.ask("POST", path, {"side": "below"}, 422)
    studio.ask("POST", path, {"width": 9000}, 422)
    other.ask("GET", path + query, status=404)
