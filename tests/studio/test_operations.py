"""For whoever runs the studio: well, ready, measured, numbered, logged without anybody's data."""

from __future__ import annotations

import json
import logging
import os
import subprocess
import sys
from secrets import token_urlsafe
from typing import Any

import pytest
from django.db.migrations.recorder import MigrationRecorder
from django.test import Client

from studio.operations.logs import AsJson, WithNumber
from tests.studio.conftest import BALL, Studio


@pytest.mark.django_db
def test_well_and_ready() -> None:
    client = Client()
    assert client.get("/api/health").json() == {"status": "well"}
    assert client.get("/api/ready").json() == {"status": "ready"}


@pytest.mark.django_db
def test_not_ready_while_tables_are_old_or_the_disk_is_full(monkeypatch: pytest.MonkeyPatch) -> None:
    MigrationRecorder.Migration.objects.filter(app="leaving").delete()
    monkeypatch.setattr("studio.operations.state.LEAST_FREE", 2**62)
    got = Client().get("/api/ready")
    assert got.status_code == 503
    assert "run migrate" in got.json()["why"][0]
    assert "are free" in got.json()["why"][1]


def test_measures_are_for_whoever_holds_their_token(studio: Studio, settings: Any) -> None:
    assert studio.client.get("/api/metrics").status_code == 404
    settings.METRICS_TOKEN = "token-of-a-test"
    made, _ = studio.with_part()
    studio.ask("GET", f"/designs/{made['id']}")
    studio.ask("POST", "/bench/preview", {"text": BALL, "terms": "us", "gauge": {"stitch_mm": 5, "round_mm": 5}})
    assert studio.client.get("/api/metrics", headers={"authorization": "Bearer another"}).status_code == 404
    said = studio.client.get("/api/metrics", headers={"authorization": "Bearer token-of-a-test"}).content.decode()
    route = 'method="GET",route="api/designs/<int:design_id>",status="200"'
    assert f"spirrel_answers_total{{{route}}}" in said
    assert "spirrel_answer_seconds_bucket" in said
    assert "spirrel_job_waits_seconds 0.0" in said
    assert f"designs/{made['id']}" not in said, "routes, never addresses"


def test_every_answer_has_a_number_of_its_own(studio: Studio) -> None:
    numbers = {studio.raw("GET", "/designs")["X-Request-Id"] for _ in range(3)}
    assert len(numbers) == 3


def test_what_breaks_is_logged_with_its_number_and_without_anybodys_words(
    studio: Studio, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    made, key = studio.with_part()

    def breaks(*_: Any, **__: Any) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr("studio.designs.texts.save_typed", breaks)
    caplog.handler.addFilter(WithNumber())
    caplog.handler.setFormatter(AsJson())
    got = studio.client.put(
        f"/api/designs/{made['id']}/parts/{key}/typed",
        json.dumps({"text": "my secret moth", "etag": made["parts"][0]["etag"]}),
        content_type="application/json",
    )
    assert got.status_code == 500
    record = next(r for r in caplog.records if r.name == "studio")
    line = json.loads(AsJson().format(record))
    assert line["request"] == got["X-Request-Id"]
    assert "ZeroDivisionError" in line["trace"]
    assert "secret moth" not in json.dumps(line)
    assert "fern" not in json.dumps(line)
    assert isinstance(record, logging.LogRecord)


def test_no_token_of_a_link_is_logged(
    monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture, db: None
) -> None:
    def breaks(*_: Any, **__: Any) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr("studio.releases.reading.holder_of", breaks)
    monkeypatch.setattr("studio.links.pages.holder_of", breaks)
    client = Client(raise_request_exception=False)
    assert client.get("/read/a-secret-token").status_code == 500
    assert client.get("/agree/a-secret-token").status_code == 500
    assert client.get("/translate/a-secret-token").status_code == 500
    assert len([r for r in caplog.records if r.name == "django.request"]) == 3
    assert not [r for r in caplog.records if "a-secret-token" in r.getMessage()]


def test_nothing_is_wrong_where_it_is_deployed() -> None:
    environment = {
        **os.environ,
        "SPIRREL_ORIGIN": "https://studio.example.org",
        "DJANGO_SETTINGS_MODULE": "studio.settings",
    }
    environment["SPIRREL_SECRET_KEY"] = token_urlsafe(50)
    line = [sys.executable, "-m", "django", "check", "--deploy", "--fail-level", "WARNING"]
    done = subprocess.run(line, env=environment, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
