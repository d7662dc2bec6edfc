"""Old work opens: a database of an earlier tag is brought up to date, and manifests of every format are read."""

from __future__ import annotations

import json
import tarfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import Client

from craft.errors import CraftError
from studio.designs.manifest import Manifest
from studio.designs.models import Design, Revision, TypedText
from studio.designs.upgrades import STEPS, newest
from studio.proving import models as proving
from studio.yarns.models import Swatch

FIXTURES = Path(__file__).parents[1] / "fixtures"
OLD_TABLES = [("designs", "0001_initial"), ("yarns", "0001_initial"), ("accounts", "0001_initial"), ("proving", None)]


def old_rows(number: int = 1) -> list[dict[str, Any]]:
    """Rows of the demo studio as a backup of that format holds them."""
    with tarfile.open(FIXTURES / f"studio-format-{number}.tar.gz") as tar:
        body = tar.extractfile("data.json")
        assert body is not None
        return json.loads(body.read())  # type: ignore[no-any-return]


@pytest.fixture
def old_database(transactional_db: None) -> Iterator[None]:
    """The tables as they were, with the demo studio of then in them."""
    executor = MigrationExecutor(connection)
    executor.migrate(OLD_TABLES)
    apps = MigrationExecutor(connection).loader.project_state([t for t in OLD_TABLES if t[1]]).apps
    with connection.constraint_checks_disabled(), connection.cursor() as cursor:
        cursor.execute("SET FOREIGN_KEY_CHECKS=0")
        for record in old_rows():
            model = apps.get_model(record["model"])
            values = {model._meta.get_field(k).attname: v for k, v in record["fields"].items() if v != []}
            model._default_manager.bulk_create([model(pk=record["pk"], **values)])
        cursor.execute("SET FOREIGN_KEY_CHECKS=1")
    yield
    call_command("migrate", verbosity=0)


def holds(now: Any, old: Any) -> bool:
    """Whether everything of `old` is in `now` as it was; fields that came since may stand beside it."""
    if isinstance(old, dict):
        return isinstance(now, dict) and all(key in now and holds(now[key], old[key]) for key in old)
    if isinstance(old, list):
        return isinstance(now, list) and len(now) == len(old) and all(map(holds, now, old))
    return bool(now == old)


def test_an_installation_of_an_earlier_tag_comes_up_with_nothing_lost(old_database: None) -> None:
    before = {r["pk"]: r["fields"] for r in old_rows() if r["model"] == "designs.revision"}
    call_command("migrate", verbosity=0)
    assert Revision.objects.count() == len(before)
    for revision in Revision.objects.all():
        old, now = before[revision.pk]["data"], revision.manifest.model_dump(mode="json")
        assert now["name"] == old["name"]
        assert holds(now["parts"], old["parts"])
        for page in ("brief", "sizes", "booklet"):
            assert holds(now[page], old[page]), f"{revision}: {page}"
        source = old["gauge"]["source"]
        assert now["gauge"]["source"] == ("swatch" if source == "sample" else source)
        assert now["gauge"]["swatch_id"] == old["gauge"]["sample_id"]
        assert now["gauge"]["stitch_mm"] == old["gauge"]["stitch_mm"]
        assert [s["text"] for s in now["assembly"]["steps"]] == [s["text"] for s in old["assembly"]["steps"]]
    assert {e.text for e in proving.LogEntry.objects.all()} == {
        e["text"] for fields in before.values() for e in fields["data"]["proving"]["log"]
    }
    assert proving.Tester.objects.count() == 2
    call_command("migrate", verbosity=0)
    assert proving.Tester.objects.count() == 2, "bringing it up again carries nothing over twice"
    assert Swatch.objects.count() == sum(r["model"] == "yarns.sample" for r in old_rows()) == 1
    assert TypedText.objects.count() == sum(r["model"] == "designs.draft" for r in old_rows()) == 1
    client = Client()
    client.force_login(Design.objects.first().owner)  # type: ignore[union-attr]
    for design in Design.objects.all():
        for path in ("", "/booklet.txt", "/proving", "/history"):
            assert client.get(f"/api/designs/{design.pk}{path}").status_code == 200


def manifests() -> list[dict[str, Any]]:
    return [r["fields"]["data"] for n in (1, 2) for r in old_rows(n) if r["model"] == "designs.revision"]


def test_every_stored_manifest_is_read_and_reading_again_changes_nothing() -> None:
    for data in manifests():
        now = newest(data)
        assert now["format"] == len(STEPS) + 1
        assert newest(now) == now
        assert Manifest.model_validate(now).model_dump(mode="json")["format"] == now["format"]


def test_what_is_newer_is_refused_in_a_sentence() -> None:
    data = manifests()[0]
    for given in (len(STEPS) + 2, 99):
        with pytest.raises(CraftError, match="newer Spirrel"):
            newest({**data, "format": given})
    for odd in (0, -1, "2", True, None):
        with pytest.raises(CraftError, match="no format"):
            newest({**data, "format": odd})


def test_values_that_broke_a_design_for_good_are_let_go() -> None:
    """Gauges of 1e-320 and skeins of 5e-324 m were once taken, and made sizes and booklet fail."""
    yarn = {"name": "Moss", "colour": "#77834b", "weight": 3, "skein_m": 5e-324}
    data = {
        "name": "Moth",
        "gauge": {"yarns": [yarn], "source": "own", "stitch_mm": 1e-320, "round_mm": 5.0, "hook_mm": 1e-9},
        "sizes": {"sizes": [{"key": "abcd", "name": "S", "kind": "yarn", "yarn": yarn, "hook_mm": 3}]},
        "proving": {"log": [], "testers": [], "blockers": "x"},
    }
    now = Manifest.model_validate(newest(data))
    assert (now.gauge.stitch_mm, now.gauge.round_mm, now.gauge.hook_mm) == (None, 5.0, None)
    assert now.gauge.yarns[0].skein_m is None
    assert now.sizes.sizes[0].yarn is not None
    assert now.sizes.sizes[0].yarn.skein_m is None


@pytest.mark.django_db
def test_one_design_that_cannot_be_read_never_takes_the_shelf_down(studio: Any) -> None:
    good, bad = studio.design("Good"), studio.design("Bad")
    Revision.objects.filter(design_id=bad["id"]).update(data={"format": 99})
    rows = {r["name"]: r for r in studio.ask("GET", "/designs")}
    assert rows["Good"]["problem"] is None
    assert "newer Spirrel" in rows["Bad"]["problem"]
    studio.ask("GET", f"/designs/{bad['id']}", status=422)
    Revision.objects.filter(design_id=bad["id"]).update(data={"name": ["nonsense"]})
    rows = {r["name"]: r for r in studio.ask("GET", "/designs")}
    assert "cannot be read" in rows["Bad"]["problem"]
    assert good["id"] == rows["Good"]["id"]
    studio.ask("DELETE", f"/designs/{bad['id']}", status=204)
