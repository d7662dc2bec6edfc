"""Sizes settled: by jobs, to a height or a girth, with what comes out otherwise than its counts say."""

from __future__ import annotations

from typing import Any

import pytest

from studio.bench.scenes import Staged
from tests.studio.conftest import BALL, Studio


@pytest.mark.django_db(transaction=True)
def test_a_size_is_settled_with_all_its_parts(studio: Studio) -> None:
    """Jobs are worked out where they are asked for, so that the second look finds them done."""
    made, _ = studio.with_part(BALL)
    path = f"/designs/{made['id']}/sizes/settle"
    larger = {"sizes": [{"key": "large001", "name": "large", "kind": "height", "height_mm": 60}]}
    for body in ({"sizes": []}, larger):
        studio.ask("POST", path, body)
    base, found = studio.ask("POST", path, {"sizes": []}), studio.ask("POST", path, larger)
    assert base["whole"]
    assert (found["whole"], found["parts"], found["under_way"]) == (True, 1, 0)
    assert base["proportion"] is None
    assert found["height_mm"] == pytest.approx(60, rel=0.08)
    shape = (found["height_mm"] / found["width_mm"]) / (base["height_mm"] / base["width_mm"])
    assert found["proportion"] == pytest.approx(shape - 1, abs=1e-6)
    assert base["told"] == []
    assert len(found["told"]) == (abs(shape - 1) > 0.05)
    assert "as large, settled, from the front" in found["svg"]
    assert base["meets"] is None
    if found["meets"] is not None:
        met = {"sizes": [{**larger["sizes"][0], "settled_share": found["meets"]["share"]}]}
        studio.ask("POST", path, met)
        again = studio.ask("POST", path, met)
        assert abs(again["height_mm"] - 60) < abs(found["height_mm"] - 60)
    small = {"sizes": [{**larger["sizes"][0], "settled_share": 0.8}]}
    studio.ask("POST", path, small)
    short = studio.ask("POST", path, small)
    assert short["meets"]["share"] == pytest.approx(0.8 * 60 / short["height_mm"])
    assert (short["meets"]["mm"], short["meets"]["around"], short["meets"]["part"]) == (60, False, None)
    two = {"sizes": [*larger["sizes"], {**larger["sizes"][0], "key": "large002"}]}
    assert "one size" in studio.ask("POST", path, two, 422)["detail"]


@pytest.mark.django_db(transaction=True)
def test_a_part_that_settles_otherwise_than_its_counts_say_is_told(
    studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    made, key = studio.with_part(BALL)
    path = f"/designs/{made['id']}/sizes/settle"
    larger = {"sizes": [{"key": "large001", "name": "large", "kind": "height", "height_mm": 60}]}
    for body in ({"sizes": []}, larger):
        studio.ask("POST", path, body)
    whole = studio.ask("POST", path, larger)["height_mm"]
    plain = Staged.height_mm

    def taller(staged: Staged, part: str) -> float | None:
        """The larger one as if it had settled a fifth higher than it did."""
        height = plain(staged, part)
        return height * 1.2 if height is not None and height > whole * 0.8 else height

    monkeypatch.setattr(Staged, "height_mm", taller)
    (said,) = studio.ask("POST", path, larger)["told"]
    assert said.startswith(f"{made['parts'][0]['name']}: proportions changed, settles ")
    assert "slimmer" in said
    assert "fewer where it is straight would bring it back." in said
    assert key == made["parts"][0]["key"]


@pytest.mark.django_db(transaction=True)
def test_a_hat_comes_to_fit_the_head_as_that_one_settled(studio: Studio) -> None:
    made, head = studio.with_part(BALL)
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Hat", "text": BALL}, 201)
    hat = made["parts"][1]["key"]
    path = f"/designs/{made['id']}/sizes/settle"
    wish = {"key": "hat00001", "name": "hat", "kind": "fit", "part": hat, "fits": head, "ease_mm": 25, "alone": True}

    def settled(**more: Any) -> Any:
        studio.ask("POST", path, {"sizes": [{**wish, **more}]})
        return studio.ask("POST", path, {"sizes": [{**wish, **more}]})

    tight = settled(settled_share=0.75)["meets"]
    assert (tight["around"], tight["part"]) == (True, "Hat")
    counts = max(made["parts"][0]["counts"])
    estimated = counts * made["gauge_now"]["stitch_mm"] + 25
    assert tight["mm"] == pytest.approx(estimated, rel=0.15)
    assert tight["mm"] != pytest.approx(estimated, abs=0.01)  # as the head settled, and not as it was estimated
    met = settled(settled_share=tight["share"])["meets"]
    assert met is None or abs(met["share"] / tight["share"] - 1) < abs(tight["share"] / 0.75 - 1)


def test_a_size_without_rounds_cannot_be_settled(studio: Studio) -> None:
    made = studio.design()
    refused = studio.ask("POST", f"/designs/{made['id']}/sizes/settle", {"sizes": []}, 422)
    assert "no rounds yet" in refused["detail"]
