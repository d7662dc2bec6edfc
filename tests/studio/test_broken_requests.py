# ruff: noqa: UP031 - bodies full of braces read best with percent signs
"""Requests that once broke the studio, each with the answer that it gets now; found by fuzzing."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from tests.studio.conftest import BALL, GAUGE, Studio, rounds

FOLDABLE = "R1: 6 sc in ring [6]\nR2: sc around [6]\nR3: sc around [6]\nR4: dec x 3 [3]\nClose.\n"
TRACED = {"base": "traced", "front": [[0, 0], [20, 20], [15, 60]], "side": [[0, 0], [20, 20], [0, 60]], "open": True}


@pytest.fixture
def client(studio: Studio) -> Client:
    """The designer's client, to whom a breakdown is an answer and no exception."""
    studio.client.raise_request_exception = False
    return studio.client


def refused(got: Any, *statuses: int) -> dict[str, Any]:
    """A refusal in the one shape."""
    assert got.status_code in statuses, got.content[:300]
    assert got["Content-Type"] == "application/problem+json"
    problem: dict[str, Any] = got.json()
    assert problem["detail"]
    return problem


def test_a_tidied_table_of_rounds_that_fold(studio: Studio, client: Client) -> None:
    made, _ = studio.with_part(FOLDABLE)
    got = client.get(f"/api/bench/file/{made['id']}/csv?tidy=true")
    assert got.status_code == 200
    assert len(got.content.decode().strip().splitlines()) == 5, "a row for every round"


def post(client: Client, path: str, body: str | bytes) -> Any:
    return client.generic("POST", f"/api{path}", body, content_type="application/json")


def shape(**recipe: Any) -> str:
    return json.dumps({"recipe": rounds(**recipe), "gauge": GAUGE, "terms": "us"})


@pytest.mark.parametrize(
    "form",
    [
        TRACED,
        {**TRACED, "front": [[0, 0], [20, 20], [0, 60]]},
        {**TRACED, "base": ["traced"]},
        {**TRACED, "base": {"a": 1}},
        {**TRACED, "base": None},
        {"base": "mesh"},
        {"base": "stack", "solids": [{"kind": ["sphere"]}]},
        {"base": "traced", "front": [[0, 0], [1e308, 20], [0, 60]]},
        {"base": "traced", "front": 3},
        {"base": "box", "height_mm": 1e-320, "width_mm": 5, "depth_mm": 5},
    ],
)
def test_shapes_that_are_none(client: Client, form: dict[str, Any]) -> None:
    for path in ("/shapes/draft", "/shapes/panels"):
        got = post(client, path, shape(form=form))
        assert got.status_code < 500, got.content[:300]
        if got.status_code >= 400:
            refused(got, 422)
    refused(post(client, "/shapes/begin", json.dumps({"form": form, "corner": 10**12})), 422)


OBJ = "v 0 0 0\nv {0} 0 0\nv 0 {0} 0\nv 0 0 {0}\nf 1 2 3\nf 1 2 4\nf 1 3 4\nf 2 3 4\n"


@pytest.mark.parametrize(
    "mesh",
    [
        OBJ.format("1e308"),
        OBJ.format("1e-320"),
        OBJ.format("nan"),
        "v 0 0 0\nv 1 0 0\nv 2 0 0\nf 1 2 3\n",
        "v 0 0 0\nf 1 1 1\n",
        "f 1 2 3\n",
        "",
    ],
)
def test_meshes_that_are_none(client: Client, mesh: str) -> None:
    got = client.post("/api/shapes/mesh", {"file": SimpleUploadedFile("a.obj", mesh.encode())})
    refused(got, 422)


@pytest.mark.parametrize("change", [{"skein_m": 5e-324}, {"wraps": 1e-320}, {"skein_g": 1e-9}])
def test_yarns_so_thin_that_nothing_can_be_reckoned(client: Client, change: dict[str, float]) -> None:
    yarn = {"name": "Moss", "colour": "#77834b", "weight": 3, **change}
    assert "at least" in refused(post(client, "/yarns", json.dumps(yarn)), 422)["detail"]


@pytest.mark.parametrize("gauge", [{"stitch_mm": 1e-320}, {"round_mm": 5e-324}, {"stitch_mm": -0.0}])
def test_gauges_so_small_that_nothing_can_be_drawn(studio: Studio, client: Client, gauge: dict[str, float]) -> None:
    body = json.dumps({"text": BALL, "terms": "us", "gauge": {**GAUGE, **gauge}})
    refused(post(client, "/bench/preview", body), 422)
    made, _ = studio.with_part()
    page = {"base": made["revision"], "data": {"source": "own", "stitch_mm": 5, "round_mm": 5, **gauge}}
    got = client.generic(
        "PUT",
        f"/api/designs/{made['id']}/pages",
        json.dumps({"page": "gauge", **page}),
        content_type="application/json",
    )
    refused(got, 422)


@pytest.mark.parametrize(
    "number", ["1e400", "-1e400", "9" * 400, "9" * 5000, "NaN", "Infinity", "1e-400", "0." + "0" * 4000 + "1"]
)
def test_numbers_that_no_machine_holds(client: Client, number: str) -> None:
    for body in (
        shape(height_mm=0).replace('"height_mm": 0', f'"height_mm": {number}'),
        '{"form": {"base": "mesh", "pole": %s}, "corner": 0}' % number,
        '{"form": {"base": "mesh"}, "corner": %s}' % number,
    ):
        path = "/shapes/begin" if "corner" in body else "/shapes/draft"
        refused(post(client, path, body), 400, 422)


@pytest.mark.parametrize("text", [r"\ud800", r"R1: 6 sc \udfff [6]", r"\ud83e"])
def test_half_signs(studio: Studio, client: Client, text: str) -> None:
    """Lone surrogates are no text that can be kept."""
    refused(post(client, "/designs", '{"name": "Moth %s"}' % text), 400, 422)
    preview = '{"text": "%s", "terms": "us", "gauge": {"stitch_mm": 5, "round_mm": 5}}' % text
    refused(post(client, "/bench/preview", preview), 400, 422)
    made, key = studio.with_part()
    draft = '{"text": "%s", "etag": "%s"}' % (text, made["parts"][0]["etag"])
    path = f"/api/designs/{made['id']}/parts/{key}/typed"
    refused(client.generic("PUT", path, draft, content_type="application/json"), 400, 422)


@pytest.mark.parametrize(
    "kind", ["multipart/form-data", "multipart/form-data; boundary=", "multipart/form-data; boundary=x"]
)
@pytest.mark.parametrize("path", ["/designs", "/session", "/bench/text", "/bench/preview", "/shapes/mesh"])
def test_forms_without_a_boundary(client: Client, path: str, kind: str) -> None:
    refused(client.generic("POST", f"/api{path}", b"--y\r\nhello", content_type=kind), 400, 403, 422)


def test_file_names_of_any_length(studio: Studio, client: Client) -> None:
    made = studio.design()
    name = "n" * 5_000 + ".txt"
    for path in ("/bench/text", "/shapes/mesh", "/shapes/drawing", f"/designs/{made['id']}/pictures"):
        got = client.post(f"/api{path}", {"file": SimpleUploadedFile(name, BALL.encode())})
        assert got.status_code < 500


def test_bodies_over_the_limit(client: Client, settings: Any) -> None:
    settings.DATA_UPLOAD_MAX_MEMORY_SIZE = 1_000
    refused(post(client, "/bench/preview", b'{"text": "' + b"x" * 5_000 + b'"}'), 413)
    refused(client.generic("POST", "/api/designs", b"x" * 5_000, content_type="application/json"), 413)


def test_brackets_without_end(client: Client) -> None:
    refused(post(client, "/designs", b"[" * 100_000), 400, 422)
