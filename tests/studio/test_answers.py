"""Kept answers are never taken for those of another version: what a kind answers and its version change together.

tests/golden/answers.json holds, for one question of every kind, its version and the measures of its answer. Where the
measures move, raise the version where the kind is registered, and write the file anew with `SPIRREL_GOLDEN=write`.
"""

from __future__ import annotations

import json
import os
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from studio.jobs import kinds
from studio.jobs.models import Job
from studio.sizes import drafting
from tests.studio.conftest import BALL, GAUGE, Studio, rounds

GOLDEN = Path(__file__).parent.parent / "golden" / "answers.json"
SHARE = 0.01
"""A measure that moves by more than this share has another value; less is the machine's rounding."""

EGG: dict[str, Any] = {"kind": "egg", "height_mm": 44, "width_mm": 36, "point": 0.3}
TAIL: dict[str, Any] = {
    "kind": "ellipsoid",
    "height_mm": 50,
    "width_mm": 34,
    "modifiers": [{"kind": "flatten", "depth": 30}],
}
BENT: dict[str, Any] = {
    "kind": "capsule",
    "height_mm": 60,
    "width_mm": 28,
    "modifiers": [{"kind": "bend", "degrees": 60}],
}
BOX = {"form": {"base": "box", "width_mm": 50, "depth_mm": 40, "height_mm": 50}}

QUESTIONS: dict[str, tuple[str, dict[str, Any]]] = {
    "settle": ("/bench/settle", {"text": BALL, "terms": "us", "gauge": GAUGE}),
    "fit": ("/shapes/fit", {"recipe": rounds(**BENT), "gauge": GAUGE, "terms": "us"}),
    "compensate": ("/shapes/compensate", {"recipe": rounds(**BENT), "gauge": GAUGE, "terms": "us"}),
    "compare": ("/shapes/compare", {"recipe": rounds(**EGG), "gauge": GAUGE, "terms": "us"}),
    "flat": ("/shapes/flat", {"recipe": rounds(**TAIL), "gauge": GAUGE, "terms": "us"}),
    "document": ("/bench/text", {"file": "<h1>Ball</h1><ol><li>6 sc in ring [6]</li></ol>"}),
    "portrait": ("/designs/{}/settle", {}),
    "release": ("/designs/{}/releases", {"prints": [{"files": ["txt"]}]}),
    "sizes": ("/designs/{}/sizes", {"sizes": [{"key": "taller", "name": "taller", "kind": "height", "height_mm": 90}]}),
    "stages": ("/makings/{}/figure", {}),
    "sewn": ("/shapes/sewn", {"recipe": rounds(**BOX), "gauge": GAUGE, "terms": "us"}),
}


def measures(answer: Any, at: str = "") -> Iterator[tuple[str, Any]]:
    """Where every key stands, and the numbers that are no arrays: what a reader of the answer relies on."""
    if isinstance(answer, dict):
        for key, value in answer.items():
            yield from measures(value, f"{at}.{key}")
    elif isinstance(answer, bool | int | float):
        yield at, answer
    elif isinstance(answer, list) and answer and isinstance(answer[0], dict):
        yield from measures(answer[0], f"{at}[0]")
    else:
        yield at, type(answer).__name__


def test_every_kind_is_held_to_its_version() -> None:
    assert set(QUESTIONS) == set(kinds.names())


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("kind", QUESTIONS)
def test_another_answer_is_another_version(studio: Studio, kind: str, monkeypatch: pytest.MonkeyPatch) -> None:
    path, question = QUESTIONS[kind]
    monkeypatch.setattr(drafting, "MOST_AT_ONCE", 0)
    if kind in ("portrait", "release", "sizes"):
        made, _ = studio.with_part()
        studio.ask("POST", path.format(made["id"]), question, 201 if kind == "release" else 200)
        job = {"id": Job.objects.get(kind=kind).pk}
    elif kind == "stages":
        made, _ = studio.with_part()
        making = studio.ask("POST", f"/designs/{made['id']}/makings", {"title": "First sample"}, 201)
        studio.ask("POST", f"/designs/{made['id']}/settle", {})
        studio.ask("POST", path.format(making["id"]), question)
        job = {"id": Job.objects.get(kind=kind).pk}
    elif kind == "document":
        job = studio.send(path, "ball.html", question["file"].encode())["job"]
    else:
        job = studio.ask("POST", path, question)
    now = {
        "version": kinds.kind_of(kind).version,
        "measures": dict(measures(studio.ask("GET", f"/jobs/{job['id']}/answer"))),
    }
    kept = json.loads(GOLDEN.read_text()) if GOLDEN.exists() else {}
    if os.environ.get("SPIRREL_GOLDEN") == "write":
        kept[kind] = now
        GOLDEN.write_text(json.dumps(kept, indent=1, sort_keys=True) + "\n")
        return
    golden = kept[kind]
    assert golden["version"] == now["version"], "the version was raised: write tests/golden/answers.json anew"
    assert set(golden["measures"]) == set(now["measures"]), "the answer has other fields: raise the kind's version"
    for at, value in golden["measures"].items():
        wanted = pytest.approx(value, rel=SHARE, abs=0.02) if isinstance(value, int | float) else value
        assert now["measures"][at] == wanted, f"{kind}{at} moved: raise the kind's version"
