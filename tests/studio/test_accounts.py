"""Signing up, in and out; throttling; cookies, CSRF and headers."""

from __future__ import annotations

import json

import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.test import Client

from tests.studio.conftest import Studio


def post(client: Client, path: str, body: object, **more: str) -> tuple[int, dict[str, object]]:
    got = client.post(f"/api{path}", json.dumps(body), content_type="application/json", headers=more or None)
    return got.status_code, got.json()


@pytest.mark.django_db
def test_a_new_designer_signs_up_out_and_in() -> None:
    client = Client()
    status, made = post(
        client, "/accounts", {"username": "wren", "password": "dusk-and-dew-7", "studio": "Wren's nest"}
    )
    assert status == 200
    assert made["me"] == {"username": "wren", "studio": "Wren's nest", "terms": "us", "left_handed": False}
    assert User.objects.get(username="wren").password != "dusk-and-dew-7"
    assert client.delete("/api/session").json()["me"] is None
    assert client.get("/api/designs").status_code == 401
    assert post(client, "/session", {"username": "wren", "password": "dusk-and-dew-7"})[0] == 200
    assert client.get("/api/designs").status_code == 200


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"username": "wren", "password": "12345678", "studio": "W"}, "password"),
        ({"username": "wren", "password": "password", "studio": "W"}, "password"),
        ({"username": "wren wren", "password": "dusk-and-dew-7", "studio": "W"}, "username"),
        ({"username": "fern", "password": "dusk-and-dew-7", "studio": "W"}, "username"),
        ({"username": "wren", "password": "wrenwren1", "studio": "W"}, None),
    ],
)
def test_what_is_wrong_is_said_at_its_field(user: User, body: dict[str, str], field: str | None) -> None:
    status, problem = post(Client(), "/accounts", body)
    if field is None:
        assert status in (200, 422)
        return
    assert (status, problem["field"]) == (422, field)
    assert User.objects.count() == 1


def test_wrong_passwords_are_throttled(user: User) -> None:
    client = Client()
    wrong = {"username": "fern", "password": "not-it"}
    statuses = [post(client, "/session", wrong)[0] for _ in range(settings.AXES_FAILURE_LIMIT + 1)]
    assert statuses[0] == 422
    assert statuses[-1] == 429
    right = {"username": "fern", "password": "velvet-lantern-9"}
    assert post(client, "/session", right)[0] == 429, "the right password waits, too"


def test_changing_the_password_keeps_the_session(studio: Studio, user: User) -> None:
    body = {"present": "velvet-lantern-9", "next": "another-lantern-4"}
    studio.ask("PUT", "/session/password", body)
    studio.ask("GET", "/designs")
    assert studio.ask("PUT", "/session/password", body, 422)["field"] == "present"
    easy = {"present": "another-lantern-4", "next": "qwerty"}
    assert studio.ask("PUT", "/session/password", easy, 422)["field"] == "next"


def test_preferences(studio: Studio) -> None:
    body = {"studio": "Fernwick", "terms": "uk", "left_handed": True}
    assert studio.ask("PUT", "/session/preferences", body)["me"]["terms"] == "uk"
    assert studio.design()["terms"] == "uk"
    studio.ask("PUT", "/session/preferences", {**body, "terms": "klingon"}, 422)


def test_changes_need_the_token(user: User) -> None:
    client = Client(enforce_csrf_checks=True)
    client.force_login(user)
    status, problem = post(client, "/designs", {"name": "Moth"})
    assert status == 403
    assert problem["type"] == "/problems/stale-page" or problem["status"] == 403
    assert post(client, "/session", {"username": "fern", "password": "velvet-lantern-9"})[0] == 403
    client.get("/api/session")
    token = client.cookies["csrftoken"].value
    assert post(client, "/designs", {"name": "Moth"}, **{"X-CSRFToken": token})[0] == 201


def test_headers_keep_others_out(studio: Studio) -> None:
    got = studio.client.get("/api/session")
    policy = got["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "script-src 'self'" in policy
    assert "unsafe-eval" not in policy
    assert got["X-Content-Type-Options"] == "nosniff"
    assert got["X-Frame-Options"] == "DENY"
    assert settings.SESSION_COOKIE_HTTPONLY
    assert not settings.SESSION_COOKIE_SECURE, "served over http on loopback"
