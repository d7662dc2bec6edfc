"""Designs: revisions, drafts, conflicts, undo, copies, others' rows."""

from __future__ import annotations

from typing import Any

import pytest
from django.contrib.auth.models import User
from django.db import connection
from django.test import Client

from studio.accounts.actions import sign_up
from studio.designs.models import Design, PartVersion, Revision, TypedText
from studio.designs.texts import save_typed
from studio.errors import Refusal
from tests.studio.at_once import at_once
from tests.studio.conftest import BALL, Studio, rounds


def stops(design: dict[str, Any]) -> dict[str, str]:
    return {s["stop"]: s["state"] for s in design["stops"]}


def test_a_design_from_nothing(studio: Studio) -> None:
    made = studio.design("Night Moth")
    assert (made["name"], made["revision"], made["undo"]) == ("Night Moth", 1, None)
    assert set(stops(made).values()) == {"untouched"}
    with_part, _ = studio.with_part()
    assert with_part["parts"][0]["counts"] == [6, 12, 18, 18, 18, 18, 12, 6]
    assert stops(with_part)["rounds"] == "sound"
    shelf = studio.ask("GET", "/designs")
    assert [(d["parts"], d["rounds"], d["stitches"]) for d in shelf] == [(1, 8, 108), (0, 0, 0)]


def test_one_action_is_one_undo(studio: Studio) -> None:
    made, key = studio.with_part()
    path = f"/designs/{made['id']}"
    studio.ask("PUT", f"{path}/parts/{key}", {"name": "Shell", "make": 2, "colour": None})
    studio.ask("PUT", path, {"name": "Snail", "terms": "uk"})
    back = studio.ask("POST", f"{path}/undo")
    assert (back["name"], back["parts"][0]["name"], back["redo"]) == ("Moth", "Shell", "Named it Snail")
    back = studio.ask("POST", f"{path}/undo")
    assert (back["parts"][0]["name"], back["parts"][0]["make"]) == ("Body", 1)
    forth = studio.ask("POST", f"{path}/redo")
    assert forth["parts"][0]["name"] == "Shell"
    for _ in range(2):
        studio.ask("POST", f"{path}/undo")
    studio.ask("POST", f"{path}/undo", status=422)
    history = studio.ask("GET", f"{path}/history")
    assert [h["number"] for h in history] == [4, 3, 2, 1]
    restored = studio.ask("POST", f"{path}/history/3")
    assert (restored["parts"][0]["name"], restored["revision"]) == ("Shell", 5)


def test_drafts_save_cut_and_undo_as_one_action(studio: Studio) -> None:
    made, key = studio.with_part()
    path = f"/designs/{made['id']}"
    etag = made["parts"][0]["etag"]
    for text in ("R1", "R1: 7", "R1: 7 sc in ring [7]\n"):
        etag = studio.ask("PUT", f"{path}/parts/{key}/typed", {"text": text, "etag": etag})["etag"]
    now = studio.ask("GET", path)
    assert now["parts"][0]["text"] == text
    assert now["parts"][0]["etag"] == etag
    assert now["revision"] == made["revision"]
    kept = studio.ask("POST", f"{path}/parts/{key}/versions")
    assert kept["revision"] == made["revision"] + 1
    assert studio.ask("POST", f"{path}/parts/{key}/versions")["revision"] == kept["revision"], "nothing new, no version"
    assert studio.ask("POST", f"{path}/undo")["parts"][0]["text"] == BALL


def test_undo_keeps_what_was_being_typed(studio: Studio) -> None:
    made, key = studio.with_part()
    path = f"/designs/{made['id']}"
    studio.ask("PUT", f"{path}/parts/{key}/typed", {"text": "half a thought", "etag": made["parts"][0]["etag"]})
    assert studio.ask("POST", f"{path}/undo")["parts"][0]["text"] == BALL
    assert studio.ask("POST", f"{path}/redo")["parts"][0]["text"] == "half a thought"


def test_the_second_of_two_windows_gets_both_texts(studio: Studio) -> None:
    made, key = studio.with_part()
    path = f"/designs/{made['id']}/parts/{key}/typed"
    etag = made["parts"][0]["etag"]
    studio.ask("PUT", path, {"text": "typed in the first", "etag": etag})
    refused = studio.ask("PUT", path, {"text": "typed in the second", "etag": etag}, 409)
    assert refused["theirs"] == "typed in the first"
    assert refused["mine"] == "typed in the second"
    studio.ask("PUT", path, {"text": "typed in the second", "etag": refused["etag"]})
    assert TypedText.objects.get().text == "typed in the second"


def test_the_same_text_twice_is_no_conflict(studio: Studio) -> None:
    """A save whose answer was lost is sent again."""
    made, key = studio.with_part()
    path = f"/designs/{made['id']}/parts/{key}/typed"
    body = {"text": "once", "etag": made["parts"][0]["etag"]}
    studio.ask("PUT", path, body)
    studio.ask("PUT", path, body)


def test_pages_refuse_what_was_filled_in_on_an_older_state(studio: Studio) -> None:
    made = studio.design()
    path = f"/designs/{made['id']}/pages"
    first = studio.ask("PUT", path, {"page": "brief", "base": 1, "data": {"intro": "first", "audience": "display"}})
    assert first["brief"]["audience"] == "display"
    refused = studio.ask("PUT", path, {"page": "brief", "base": 1, "data": {"intro": "second"}}, 409)
    assert refused["theirs"]["intro"] == "first"
    other_page = studio.ask(
        "PUT", f"/designs/{made['id']}/pages", {"page": "proving", "base": 1, "data": {"blockers": "none"}}
    )
    assert other_page["proving"]["blockers"] == "none", "another page may be older"
    studio.ask("PUT", path, {"page": "brief", "base": refused["revision"], "data": {"intro": "second"}})


@pytest.mark.parametrize(
    ("page", "data"),
    [
        ("brief", {"audience": "cats"}),
        ("brief", {"height_mm": -4}),
        ("brief", {"unknown": 1}),
        ("gauge", {"yarns": [{"name": "x", "colour": "red", "weight": 3}]}),
        ("gauge", {"hook_mm": 0}),
        ("assembly", {"steps": [{"key": "nope!", "text": "x"}]}),
        ("assembly", {"steps": [{"key": "abcd", "round": 0}]}),
        ("sizes", {"sizes": [{"key": "abcd", "name": "x", "kind": "colour"}]}),
        ("proving", {"log": [{"key": "abcd", "date": "yesterday", "text": "x"}]}),
        ("booklet", {"version": "x" * 500}),
    ],
)
def test_pages_refuse_nonsense_and_say_where(studio: Studio, page: str, data: dict[str, Any]) -> None:
    made = studio.design()
    refused = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": page, "base": 1, "data": data}, 422)
    assert refused["detail"]
    assert studio.ask("GET", f"/designs/{made['id']}")["revision"] == 1


def test_a_copy_knows_its_origin_and_stands_alone(studio: Studio) -> None:
    made, key = studio.with_part()
    copy = studio.ask("POST", f"/designs/{made['id']}/copy", status=201)
    assert copy["origin"] == {"id": made["id"], "name": "Moth", "revision": made["revision"]}
    studio.ask("PUT", f"/designs/{copy['id']}/parts/{key}/text", {"text": "R1: 5 sc in ring [5]\n"})
    assert studio.ask("GET", f"/designs/{made['id']}")["parts"][0]["text"] == BALL
    studio.ask("DELETE", f"/designs/{made['id']}", status=204)
    again = studio.ask("GET", f"/designs/{copy['id']}")
    assert again["origin"] == {"id": None, "name": "Moth", "revision": made["revision"]}
    assert not Revision.objects.filter(design_id=made["id"]).exists()


def test_a_hand_edit_ends_the_shapes_authority(studio: Studio) -> None:
    recipe = rounds(height_mm=50, width_mm=50, start=6)
    made, key = studio.with_part(recipe=recipe)
    assert made["parts"][0]["authoritative"]
    path = f"/designs/{made['id']}/parts/{key}"
    edited = studio.ask("PUT", f"{path}/text", {"text": BALL + "Fasten off.\n"})
    assert not edited["parts"][0]["authoritative"]
    assert edited["parts"][0]["recipe"] is not None
    again = studio.ask("PUT", f"{path}/text", {"text": BALL, "recipe": recipe})
    assert again["parts"][0]["authoritative"]
    refused = studio.ask("PUT", f"{path}/text", {"text": BALL, "recipe": {**recipe, "start": 1}}, 422)
    assert "start" in refused["detail"].lower()
    assert PartVersion.objects.latest("pk").craft_version


def test_others_designs_are_not_there(studio: Studio, other: Studio) -> None:
    made, key = studio.with_part()
    i = made["id"]
    tries = [
        ("GET", f"/designs/{i}", None),
        ("PUT", f"/designs/{i}", {"name": "Mine", "terms": "us"}),
        ("DELETE", f"/designs/{i}", None),
        ("POST", f"/designs/{i}/copy", None),
        ("POST", f"/designs/{i}/undo", None),
        ("POST", f"/designs/{i}/redo", None),
        ("GET", f"/designs/{i}/history", None),
        ("POST", f"/designs/{i}/history/1", None),
        ("POST", f"/designs/{i}/parts", {"name": "X"}),
        ("PUT", f"/designs/{i}/parts/{key}", {"name": "X", "make": 1, "colour": None}),
        ("DELETE", f"/designs/{i}/parts/{key}", None),
        ("PUT", f"/designs/{i}/parts/{key}/typed", {"text": "x", "etag": "x"}),
        ("POST", f"/designs/{i}/parts/{key}/versions", None),
        ("PUT", f"/designs/{i}/parts/{key}/text", {"text": "x"}),
        ("PUT", f"/designs/{i}/pages", {"page": "brief", "base": 1, "data": {}}),
        ("GET", f"/designs/{i}/picture", None),
        ("GET", f"/designs/{i}/pictures", None),
        ("GET", f"/bench/figure/{i}", None),
        ("POST", f"/designs/{i}/sizes", {"sizes": []}),
        ("POST", f"/designs/{i}/sizes/abcd/make", None),
        ("GET", f"/designs/{i}/booklet", None),
        ("GET", f"/designs/{i}/booklet.pdf", None),
        ("GET", f"/designs/{i}/booklet.txt", None),
    ]
    for method, path, body in tries:
        assert other.ask(method, path, body, 404)["title"] == "not found"
    studio.ask("GET", f"/designs/{i}")
    studio.ask("GET", f"/designs/{i}/parts/ffff0000", status=405)
    studio.ask("PUT", f"/designs/{i}/parts/ffff0000", {"name": "X", "make": 1, "colour": None}, 404)


def test_nobody_gets_in_without_signing_in(studio: Studio) -> None:
    made, _ = studio.with_part()
    nobody = Studio(Client())
    for path in (
        "/designs",
        f"/designs/{made['id']}",
        "/yarns",
        f"/designs/{made['id']}/booklet.pdf",
        "/shapes/solids",
    ):
        assert nobody.ask("GET", path, status=401)["type"] == "/problems/signed-out"


@pytest.mark.parametrize("name", ["", "   ", "x" * 61, "two\nlines", "bell\x07", "right\u202eto left"])
def test_names_that_are_none(studio: Studio, name: str) -> None:
    studio.ask("POST", "/designs", {"name": name}, 422)


@pytest.mark.parametrize(
    "body", ["", "{", "[]", "null", '{"name": 5}', '{"nom": "x"}', "\x00\xff", '{"name": "' + "x" * 200_000 + '"}']
)
def test_broken_requests_get_a_sentence(studio: Studio, body: str) -> None:
    got = studio.client.post("/api/designs", body.encode("utf-8", "surrogatepass"), content_type="application/json")
    assert got.status_code in (400, 422)
    assert got.json()["detail"]
    assert b"Traceback" not in got.content


@pytest.mark.parametrize(
    "path", ["/designs/999999", "/designs/0", "/designs/abc", "/nowhere", "/designs/1/booklet.exe"]
)
def test_addresses_that_lead_nowhere(studio: Studio, path: str) -> None:
    got = studio.client.get(f"/api{path}")
    assert got.status_code in (404, 422)
    assert b"Traceback" not in got.content


def test_a_part_may_be_anything_that_is_text(studio: Studio) -> None:
    for text in ("", "🦔" * 500, "R1: " + "(" * 90, "\u202e\u0000\ufffd".replace("\u0000", ""), "R1-R999999999: sc"):
        made, _ = studio.with_part(text)
        assert made["parts"][0]["text"] == text
        studio.ask("GET", f"/designs/{made['id']}/booklet")
        studio.ask("GET", f"/bench/figure/{made['id']}")
    studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Huge", "text": "x" * 400_001}, 422)


@pytest.mark.django_db(transaction=True)
def test_two_saves_at_once_leave_one_winner_and_one_choice() -> None:
    user = sign_up("twin", "velvet-lantern-9", "Twins")
    client = Client()
    client.force_login(user)
    made, key = Studio(client).with_part()

    def save(number: int) -> str:
        try:
            save_typed(user, made["id"], key, f"text {number}", made["parts"][0]["etag"])
        except Refusal as refused:
            return refused.kind
        return "saved"

    assert sorted(at_once(4, save)) == ["saved", "stale-text", "stale-text", "stale-text"]


def test_the_shelf_asks_the_database_little(studio: Studio, user: User) -> None:
    for _ in range(5):
        studio.with_part()
    counter = _Counter()
    with connection.execute_wrapper(counter):
        studio.ask("GET", "/designs")
    assert counter.count <= 4 + 2 * Design.objects.count()


class _Counter:
    def __init__(self) -> None:
        self.count = 0

    def __call__(self, execute: Any, sql: str, params: Any, many: bool, context: Any) -> Any:
        self.count += 1
        return execute(sql, params, many, context)
