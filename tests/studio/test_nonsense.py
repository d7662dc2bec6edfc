"""Nonsense in every field of every route that takes JSON: a sentence comes back, never a breakdown."""

from __future__ import annotations

import copy
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from tests.studio.conftest import Studio

API = json.loads((Path(__file__).resolve().parents[2] / "docs/openapi.json").read_text())
TEXTS: list[Any] = ["", "\u0000", "🦔" * 300, "<script>", "../..", "9" * 5000, None, 5, [], {}]
NUMBERS: list[Any] = [-1, 0, 1e308, 10**30, True, "pear", "9" * 5000, None, [], {}]
CONTAINERS: list[Any] = [None, True, 10**30, "pear", [], {}, [[]]]


def nonsense_for(value: Any) -> list[Any]:
    """What stands in the place of a value: of its kind but out of reach, and of other kinds."""
    if isinstance(value, str):
        return TEXTS
    return CONTAINERS if isinstance(value, list | dict) else NUMBERS


def _at(body: Any, at: tuple[Any, ...]) -> Any:
    for key in at:
        body = body[key]
    return body


def _example(schema: dict[str, Any], depth: int = 0) -> Any:
    """A value of about the right form."""
    if ref := schema.get("$ref"):
        return _example(API["components"]["schemas"][ref.split("/")[-1]], depth + 1)
    if options := schema.get("anyOf") or schema.get("oneOf"):
        return _example(options[0], depth)
    if "const" in schema:
        return schema["const"]
    if "enum" in schema:
        return schema["enum"][0]
    match schema.get("type"):
        case "object":
            return {k: _example(v, depth + 1) for k, v in schema.get("properties", {}).items()} if depth < 6 else {}
        case "array":
            return [_example(schema["items"], depth + 1)] if "items" in schema else []
        case "number" | "integer":
            return 5
        case "boolean":
            return False
        case _:
            return "#aabbcc" if "#" in schema.get("pattern", "") else "abcd"


def _places(value: Any, whole: frozenset[str], at: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Every place of a body; what stands under the keys in `whole` is one place."""
    yield at
    if at and at[0] in whole:
        return
    inside = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, item in inside:
        yield from _places(item, whole, (*at, key))


def _spoilt(body: Any, at: tuple[Any, ...], value: Any) -> Any:
    if not at:
        return value
    made = copy.deepcopy(body)
    home = made
    for key in at[:-1]:
        home = home[key]
    home[at[-1]] = value
    return made


ROUTES = [
    (method, path, kind)
    for path, methods in API["paths"].items()
    for method, operation in methods.items()
    if (schema := operation.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema"))
    for kind in schema.get("oneOf", [schema])
]


def _tried_elsewhere() -> dict[tuple[str, str], frozenset[str]]:
    """By route the fields of a schema that an earlier route takes, too: inside they are tried there, once."""
    seen: set[str] = set()
    found = {}
    for method, path, schema in ROUTES:
        named = API["components"]["schemas"].get(schema.get("$ref", "").split("/")[-1], {}).get("properties", {})
        refs = {key: value["$ref"] for key, value in named.items() if "$ref" in value}
        found[method, path] = frozenset(key for key, ref in refs.items() if ref in seen)
        seen.update(refs.values())
    return found


TRIED_ELSEWHERE = _tried_elsewhere()
IDS = dict.fromkeys(("entry_id", "tester_id"), "7f2f4d4e-58a5-4a0b-8c44-0f6b3b9f3a01")


def _made_for(studio: Studio, design: int, path: str) -> dict[str, Any]:
    """Rows that a route names beside those that every test has."""
    own, named = f"/designs/{design}", {}
    if "{making_id}" in path:
        named["making_id"] = studio.ask("POST", f"{own}/makings", {"title": "First"}, 201)["id"]
        named["deviation"] = "body-3-more-1"
    if "{call_id}" in path:
        call = studio.ask("POST", f"{own}/tests", {"title": "Test", "opens": "2026-11-30"}, 201)
        named["call_id"] = call["calls"][0]["id"]
    if "{commission_id}" in path:
        order = studio.ask("POST", f"{own}/commissions", {"client": "Juniper"}, 201)
        named["commission_id"] = order["commissions"][0]["id"]
    return named


@pytest.mark.django_db
@pytest.mark.parametrize(("method", "path", "schema"), ROUTES, ids=[f"{m} {p}" for m, p, _ in ROUTES])
def test_every_field_of_every_route(studio: Studio, user: User, method: str, path: str, schema: dict[str, Any]) -> None:
    made, key = studio.with_part()
    client = Client(raise_request_exception=False)
    client.force_login(user)
    named = {"design_id": made["id"], "key": key, "yarn_id": 1, "number": 1, **IDS}
    if "{piece_id}" in path:
        kept = {"design": made["id"], "parts": [key], "main": key, "title": "Ball"}
        named["piece_id"] = studio.ask("POST", "/pieces", kept, 201)["id"]
    named |= _made_for(studio, made["id"], path)
    body = _example(schema)
    for at in _places(body, TRIED_ELSEWHERE.get((method, path), frozenset())):
        for value in nonsense_for(_at(body, at)):
            sent = json.dumps(_spoilt(body, at, value))
            got = client.generic(method.upper(), path.format(**named), sent, content_type="application/json")
            assert got.status_code < 500, (path, at, str(value)[:40])
            assert b"Traceback" not in got.content
            if got.status_code >= 400:
                assert got.json()["detail"]
            if got.status_code == 401:
                client.force_login(user)  # what was sent signed her out
