"""The whole API against its own description: whatever is sent, an answer in a known form, and never a 5xx.

Requests are made by Schemathesis from docs/openapi.json: such as the description allows, and such as it does not.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator
from schemathesis import Case, GenerationMode

from studio.designs.models import Design
from tests.studio.conftest import BALL, Studio

DESCRIPTION = json.loads((Path(__file__).parents[2] / "docs/openapi.json").read_text())
OPERATIONS = [found.ok() for found in schemathesis.openapi.from_dict(DESCRIPTION).get_all_operations()]

LEAVES = {"DELETE /api/session", "PUT /api/session/password", "DELETE /api/designs/{design_id}"}
"""Operations that end the session or take away what the others need; each has tests of its own."""


@pytest.fixture
def asked(studio: Studio, user: User, settings: Any) -> tuple[Client, dict[str, Any]]:
    """A designer's client, and numbers of what she has. Jobs are put in line and not worked out."""
    settings.TASKS = {"default": {"BACKEND": "django_tasks.backends.dummy.DummyBackend"}}
    made, key = studio.with_part()
    client = Client(raise_request_exception=False)
    client.force_login(user)
    return client, {"design_id": made["id"], "key": key, "number": 1}


def sent(client: Client, case: Case) -> Any:
    """The answer to a case."""
    address = case.formatted_path
    query = {k: v for k, v in (case.query or {}).items() if v is not None}
    if case.media_type == "multipart/form-data":
        return client.post(address, {"file": SimpleUploadedFile("a.txt", BALL.encode())}, query_params=query)
    body = b""
    if not isinstance(case.body, schemathesis.core.NotSet):
        body = json.dumps(case.body, default=str).encode()
    method = case.method.upper()
    return client.generic(method, address, body, content_type="application/json", query_params=query)


def checked(operation: Any, got: Any) -> None:
    """Never a breakdown; a refusal is a problem with a sentence; what is answered is what the description says."""
    assert got.status_code < 500, got.content
    if got.status_code >= 400:
        assert got["Content-Type"] == "application/problem+json"
        problem = got.json()
        assert problem["status"] == got.status_code
        assert problem["detail"]
        assert "[^" not in problem["detail"], "no pattern of ours reaches anybody"
        assert "should match" not in problem["detail"]
        return
    documented = DESCRIPTION["paths"][operation.path][operation.method.lower()]["responses"]
    assert str(got.status_code) in documented, f"{got.status_code} is not documented"
    schema = documented[str(got.status_code)].get("content", {}).get("application/json", {}).get("schema")
    if schema and "json" in got["Content-Type"]:
        Draft202012Validator({**schema, "components": DESCRIPTION["components"]}).validate(got.json())


def says_something(operation: Any) -> bool:
    """Whether a request has anything in it that could be wrong."""
    return bool(operation.body) or bool(operation.query) or bool(operation.path_parameters)


CASES = [
    (o, mode)
    for o in OPERATIONS
    for mode in GenerationMode
    if o.label not in LEAVES and (mode is GenerationMode.POSITIVE or says_something(o))
]


@pytest.mark.django_db
@pytest.mark.parametrize(("operation", "mode"), CASES, ids=[f"{o.label} {m.value}" for o, m in CASES])
def test_whatever_is_sent(operation: Any, mode: GenerationMode, asked: tuple[Client, dict[str, Any]]) -> None:
    client, known = asked

    @settings(
        max_examples=5,
        deadline=None,
        database=None,
        derandomize=True,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(case=operation.as_strategy(generation_mode=mode), own=st.booleans())
    def walk(case: Case, own: bool) -> None:
        if own and case.path_parameters:
            case.path_parameters.update({k: v for k, v in known.items() if k in case.path_parameters})
        got = sent(client, case)
        checked(operation, got)
        if got.streaming:
            b"".join(got.streaming_content)  # as a server does: a file that is sent is open until then

    walk()
    assert Design.objects.filter(pk=known["design_id"]).exists()
