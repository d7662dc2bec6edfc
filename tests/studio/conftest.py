"""A designer, a client that speaks JSON, and designs made through the API."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from studio.accounts.actions import sign_up

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4-R6: sc around [18]
R7: (sc, dec) x 6 [12]
Stuff firmly.
R8: dec x 6 [6]
Close.
"""


class Studio:
    """The API as the front end uses it."""

    def __init__(self, client: Client) -> None:
        self.client = client

    def ask(self, method: str, path: str, body: Any = None, status: int = 200) -> Any:
        """Send a request and hand out the answer's JSON; fails on another status."""
        got = self.client.generic(
            method, f"/api{path}", json.dumps(body) if body is not None else "", content_type="application/json"
        )
        assert got.status_code == status, (path, got.status_code, got.content[:500])
        if status >= 400:
            assert got["Content-Type"] == "application/problem+json"
        return got.json() if got.content and "json" in got["Content-Type"] else got

    def raw(self, method: str, path: str, body: Any = None) -> Any:
        """Send a request and hand out the answer itself."""
        text = json.dumps(body) if body is not None else ""
        return self.client.generic(method, f"/api{path}", text, content_type="application/json")

    def send(self, path: str, name: str, raw: bytes, status: int = 200) -> Any:
        """Send a file as a form."""
        got = self.client.post(f"/api{path}", {"file": SimpleUploadedFile(name, raw)})
        assert got.status_code == status, (path, got.status_code, got.content[:500])
        return got.json()

    def design(self, name: str = "Moth") -> dict[str, Any]:
        """A new design."""
        return self.ask("POST", "/designs", {"name": name}, 201)  # type: ignore[no-any-return]

    def with_part(self, text: str = BALL, **more: Any) -> tuple[dict[str, Any], str]:
        """A design with one part, and the part's key."""
        made = self.design()
        made = self.ask("POST", f"/designs/{made['id']}/parts", {"name": "Body", "text": text, **more}, 201)
        return made, made["parts"][0]["key"]


@pytest.fixture
def user(db: None) -> User:
    return sign_up("fern", "velvet-lantern-9", "Fern & Moss")


@pytest.fixture
def studio(user: User) -> Studio:
    client = Client()
    client.force_login(user)
    return Studio(client)


@pytest.fixture
def other(db: None) -> Studio:
    """Another designer."""
    client = Client()
    client.force_login(sign_up("nettle", "velvet-lantern-9", "Nettle"))
    return Studio(client)


GAUGE = {"stitch_mm": 5.6, "round_mm": 5.15, "lean": 0.4, "spread": 0.12, "how": "as given", "firmness": 0.5}


SIZES = ("height_mm", "width_mm", "open", "opening_mm", "point")


def rounds(
    form: dict[str, Any] | None = None, *, kind: str = "sphere", modifiers: Sequence[Any] = (), **how: Any
) -> dict[str, Any]:
    """A recipe of rounds for a form, or for a solid of that kind and size; how: whatever else it says."""
    sizes = {"height_mm": 60, "width_mm": 60, **{name: how.pop(name) for name in SIZES if name in how}}
    shape = {"base": "solid", "kind": kind, **sizes} if form is None else form
    return {"kind": "rounds", "form": {**shape, "modifiers": [*modifiers]} if modifiers else shape, "start": 0, **how}
