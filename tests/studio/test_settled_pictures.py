"""Pieces, drawn figures and compared shapes, shown settled once they are."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image

from tests.studio.conftest import BALL, Studio

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)

LONGER = BALL.replace("R4-R6", "R4-R9").replace("R7:", "R10:").replace("R8:", "R11:")


def at_rest(found: dict[str, Any]) -> bool:
    return found["whole"] and not found["under_way"] and found["extent_mm"] > 10


def test_a_piece_and_a_drawn_figure_are_shown_settled_once_they_are(studio: Studio) -> None:
    made, key = studio.with_part()
    body = {"design": made["id"], "parts": [key], "main": key, "title": "Ball", "slot": "head"}
    piece = studio.ask("POST", "/pieces", body, 201)
    estimate = studio.raw("GET", f"/pieces/{piece['id']}/picture?settled")
    assert estimate["Cache-Control"] == "no-store"
    drawn = {"seeds": {"head": 5}, "name": "Drawn"}
    assert studio.ask("POST", "/pieces/draw", drawn)["whole"] is False
    assert at_rest(studio.ask("POST", f"/pieces/{piece['id']}/settle"))
    settled = studio.raw("GET", f"/pieces/{piece['id']}/picture?settled")
    assert "max-age" in settled["Cache-Control"]
    assert settled.content != estimate.content
    assert at_rest(studio.ask("POST", "/pieces/draw/settle", drawn))
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
    assert at_rest(studio.ask("POST", path, look))
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


def test_figures_stand_on_one_scale(studio: Studio) -> None:
    made, _ = studio.with_part()
    path = f"/designs/{made['id']}"
    own = studio.ask("POST", f"{path}/settle")
    assert at_rest(studio.ask("POST", f"{path}/settle?across=200"))
    tall = []
    for across in ("", "&across=200"):
        got = studio.raw("GET", f"{path}/picture?revision=1{across}")
        solid = np.asarray(Image.open(io.BytesIO(got.content)))[:, :, 3] > 250
        tall.append(max(np.ptp(np.flatnonzero(solid.any(axis))) for axis in (0, 1)))
    assert tall[1] / 640 * 200 == pytest.approx(own["extent_mm"], rel=0.2)
    assert tall[0] > 2 * tall[1]
    studio.ask("POST", f"{path}/settle?across=3", status=422)


def test_what_a_small_child_must_not_have_is_told(studio: Studio, other: Studio) -> None:
    made, _ = studio.with_part(BALL.replace("Stuff firmly.", "Insert a wire."))
    path = f"/bench/hazards/{made['id']}"
    assert studio.ask("GET", path) == []
    page = {"page": "brief", "base": made["revision"], "data": {"audience": "under-three"}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    (found,) = studio.ask("GET", path)
    assert (found["stop"], found["where"]) == ("rounds", "Body: “Insert a wire.”")
    other.ask("GET", path, status=404)
