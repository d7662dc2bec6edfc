"""Asking the Shapes stop for a draft and for the answers of its jobs."""

from __future__ import annotations

import json
from typing import Any

from tests.studio.conftest import Studio, rounds

GAUGE = {"stitch_mm": 5.6, "round_mm": 5.15}


PEAR = [[0, 0], [30, 5], [40, 40], [20, 80], [25, 100], [0, 120]]
CRATE = {"form": {"base": "box", "width_mm": 60, "depth_mm": 50, "height_mm": 70}}


def drafted(studio: Studio, recipe: dict[str, Any], status: int = 200) -> dict[str, Any]:
    body = {"recipe": rounds(**recipe), "gauge": GAUGE, "terms": "us"}
    return studio.ask("POST", "/shapes/draft", body, status)  # type: ignore[no-any-return]


def answer(studio: Studio, path: str, recipe: dict[str, Any]) -> dict[str, Any]:
    job = studio.ask("POST", f"/shapes/{path}", {"recipe": rounds(**recipe), "gauge": GAUGE, "terms": "us"})
    answered = json.loads(studio.raw("GET", f"/jobs/{job['id']}/answer").content)
    assert answered["job"] == path
    return answered.get("fitted", answered)  # type: ignore[no-any-return]
