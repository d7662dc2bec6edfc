"""The demo's makings, its test and its commission: what a new user looks at first has to be sound."""

from __future__ import annotations

import json

import pytest
from django.contrib.auth.models import User

from studio.commissions.models import Commission
from studio.demo.makings import DATA, prove_all
from studio.demo.studio import load
from studio.designs.models import Design
from studio.making.models import Making
from tests.studio.conftest import Studio

TREE = json.loads(DATA.read_text("utf-8"))


@pytest.fixture
def proved(user: User) -> User:
    load(user)
    prove_all(user)
    return user


def test_the_demo_has_a_making_half_done_five_testers_and_a_commission(proved: User, studio: Studio) -> None:
    hedgehog = Design.objects.get(owner=proved, name=TREE["test"]["design"])
    makings = studio.ask("GET", f"/designs/{hedgehog.pk}/makings")
    half = next(m for m in makings["makings"] if m["title"] == "Second sample")
    assert 0.3 < half["done"] / half["stitches"] < 0.8
    assert not half["finished"]
    assert {d["verdict"] for d in half["deviations"]} == {None}
    assert len(half["deviations"]) == 3
    assert half["hook_mm"] == 2.75
    assert {q["quantity"]: q["makers"] for q in makings["learned"]}["height"] == 4
    (call,) = studio.ask("GET", f"/designs/{hedgehog.pk}/tests")["calls"]
    assert [t["state"] for t in call["testers"]] == ["done", "making", "done", "done", "asked"]
    assert call["groups"][0]["place"] == "Face R5"
    assert call["groups"][0]["testers"] == 3
    order = Commission.objects.get()
    assert [a.state for a in order.agreements.all()] == ["yes", "asked"]
    assert Making.objects.count() == 7


def test_every_deviation_of_the_demo_can_be_written_or_says_why_not(proved: User, studio: Studio) -> None:
    hedgehog = Design.objects.get(owner=proved, name=TREE["making"]["design"])
    path = f"/designs/{hedgehog.pk}/makings"
    half = next(m for m in studio.ask("GET", path)["makings"] if m["title"] == "Second sample")
    told = [
        studio.raw("PUT", f"{path}/{half['id']}/deviations/{d['key']}", {"verdict": "text"}) for d in half["deviations"]
    ]
    assert {got.status_code for got in told} <= {200, 422}
    assert [got.status_code for got in told].count(200) >= 2
    assert studio.ask("GET", f"/designs/{hedgehog.pk}")["parts"][0]["faults"] == 0
