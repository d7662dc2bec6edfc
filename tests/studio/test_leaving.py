"""Taking everything along, what a studio holds, where it is open, and closing it."""

from __future__ import annotations

import io
import json
from datetime import timedelta
from pathlib import Path
from typing import Any
from zipfile import ZipFile

import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.db.models import F
from django.test import Client
from django.utils import timezone

from craft.design.stored import read_design
from studio.accounts.models import OwnSession
from studio.accounts.sessions import told_device
from studio.backups.tables import TABLES
from studio.demo.makings import prove_all
from studio.demo.studio import load
from studio.designs.models import Design, Picture
from studio.errors import Refusal
from studio.leaving.models import Departure
from studio.links.actions import holder_of, make_link
from studio.making.models import MakingEvent
from studio.policy import Purpose, rules
from tests.studio.conftest import BALL, Studio
from tests.studio.test_pictures import picture

NOT_WORK = {"jobs.Job", "leaving.Departure", "accounts.OwnSession"}
"""What is kept for her and is none of her work."""

FIREFOX = "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0"


def packed(studio: Studio) -> ZipFile:
    got = studio.client.get("/api/studio/everything.zip")
    assert got.status_code == 200
    assert got["Cache-Control"] == "no-store"
    assert got["Content-Disposition"].endswith('.zip"')
    return ZipFile(io.BytesIO(b"".join(got.streaming_content)))  # type: ignore[attr-defined]


def with_body(studio: Studio, name: str) -> dict[str, Any]:
    made = studio.design(name)
    return studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Body", "text": BALL}, 201)  # type: ignore[no-any-return]


def rows(archive: ZipFile, name: str) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = json.loads(archive.read(f"rows/{name}.json"))
    return found


def test_everything_goes_along_and_is_read_without_us(studio: Studio, user: User, other: Studio) -> None:
    load(user)
    prove_all(user)
    made = with_body(studio, "Ömür's Moth")
    studio.client.post(f"/api/designs/{made['id']}/pictures", {"file": SimpleUploadedFile("m.png", picture())})
    with_body(other, "Hers alone")
    archive = packed(studio)
    assert archive.testzip() is None
    names = archive.namelist()
    said = archive.read("README.txt").decode()
    assert "could not be put into words" not in said
    folders = {name.split("/")[1] for name in names if name.startswith("designs/")}
    assert len(folders) == Design.objects.filter(owner=user).count()
    folder = next(f for f in folders if f.endswith("mür-s-Moth"))
    assert read_design(archive.read(f"designs/{folder}/design.json").decode()).name == "Ömür's Moth"
    assert "18" in archive.read(f"designs/{folder}/pattern.txt").decode()
    assert any(name.startswith(f"designs/{folder}/pictures/") for name in names)
    events = MakingEvent.objects.filter(making__design__owner=user).count()
    assert len(rows(archive, "making.makingevent")) == events > 100
    assert all(row["content"] in names for row in rows(archive, "making.makingpicture"))
    everything = b"".join(archive.read(name) for name in names)
    assert b"Hers alone" not in everything, "nothing of anybody else"
    assert b"token_hash" not in everything
    assert b"argon2" not in everything


def test_every_table_of_a_backup_is_taken_along(studio: Studio) -> None:
    """A new model that belongs to somebody is in the archive by itself, or this fails."""
    names = {name.removeprefix("rows/") for name in packed(studio).namelist() if name.startswith("rows/")}
    whole = {f"{model._meta.label_lower}.json" for model in TABLES if model is not User}
    assert names == whole
    assert {m for m in rules() if m._meta.label not in NOT_WORK} <= set(TABLES)


def test_one_design_that_cannot_be_read_does_not_keep_the_others_here(studio: Studio) -> None:
    good, bad = with_body(studio, "Good"), with_body(studio, "Bad")
    design = Design.objects.get(pk=bad["id"])
    type(design.revision).objects.filter(pk=design.revision.pk).update(data={"format": 99})
    archive = packed(studio)
    assert "Bad could not be put into words" in archive.read("README.txt").decode()
    assert any(name.endswith("Good/pattern.txt") for name in archive.namelist())
    assert {row["id"] for row in rows(archive, "designs.design")} == {good["id"], bad["id"]}


def test_what_is_used_is_shown_with_what_to_do(studio: Studio) -> None:
    with_body(studio, "Moth")
    held = {one["name"]: one for one in studio.ask("GET", "/studio")["holdings"]}
    assert held["Designs"] == {
        "name": "Designs",
        "used": 1,
        "most": 2000,
        "unit": "",
        "full": "Take everything along, then remove designs that you are done with.",
    }
    assert all(one["most"] > 0 and one["full"] for one in held.values())
    assert held["Steps of history of the design that has most"]["used"] >= 2
    assert held["Links of the design that has most"]["used"] == 0
    assert {"Swatches", "Files of releases", "Releases of the design that has most"} <= set(held)


def test_files_of_releases_have_a_bound_that_is_said(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    made = with_body(studio, "Moth")
    monkeypatch.setattr("studio.releases.actions.QUOTA_BYTES", 0)
    told = studio.ask("POST", f"/designs/{made['id']}/releases", {"prints": [{}], "reason": "for a friend"}, 422)
    assert "room for" in told["detail"]
    assert "Take everything along" in told["detail"]


def test_swatches_have_a_bound_that_is_said(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    yarn = studio.ask("POST", "/yarns", {"name": "Moss", "colour": "#77834b", "weight": 3}, 201)
    monkeypatch.setattr("studio.yarns.actions.MOST_SWATCHES", 0)
    body = {
        "yarn_id": yarn["id"],
        "hook_mm": 3,
        "kind": "flat",
        "stitches": 20,
        "across_mm": 100,
        "rounds": 20,
        "up_mm": 100,
    }
    assert "at most 0 swatches" in studio.ask("POST", "/yarns/swatches", body, 422)["detail"]


def test_a_studio_is_open_where_she_signed_in_and_closed_where_she_says(studio: Studio, user: User) -> None:
    elsewhere = Client(headers={"user-agent": FIREFOX})
    body = {"username": "fern", "password": "velvet-lantern-9"}
    assert elsewhere.post("/api/session", json.dumps(body), content_type="application/json").status_code == 200
    seen = studio.ask("GET", "/studio")["sessions"]
    assert [one["here"] for one in seen].count(True) == 1
    other = next(one for one in seen if not one["here"])
    assert other["device"] == "Firefox on Linux"
    assert OwnSession.objects.filter(user=user).count() == 2
    key = OwnSession.objects.values_list("session_key", flat=True)
    assert other["id"] not in key, "what opens a session never leaves the database"
    assert len(studio.ask("DELETE", f"/studio/sessions/{other['id']}")["sessions"]) == 1
    assert elsewhere.get("/api/designs").status_code == 401
    studio.ask("DELETE", f"/studio/sessions/{other['id']}", status=404)
    assert elsewhere.post("/api/session", json.dumps(body), content_type="application/json").status_code == 200
    assert len(studio.ask("DELETE", "/studio/sessions")["sessions"]) == 1
    assert elsewhere.get("/api/designs").status_code == 401
    studio.ask("GET", "/designs")


def test_another_password_ends_all_other_sessions(studio: Studio, user: User) -> None:
    elsewhere = Client()
    elsewhere.force_login(user)
    studio.ask("PUT", "/session/password", {"present": "velvet-lantern-9", "next": "another-lantern-4"})
    assert OwnSession.objects.filter(user=user).count() == 1
    assert elsewhere.get("/api/designs").status_code == 401


@pytest.mark.parametrize(
    ("agent", "told"),
    [
        (FIREFOX, "Firefox on Linux"),
        ("Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Version/19.0 Safari/604.1", "Safari on iPhone"),
        ("Mozilla/5.0 (Windows NT 10.0) Chrome/150.0 Safari/537.36 Edg/150.0", "Edge on Windows"),
        ("curl/8", "Another program"),
        ("", "Another program"),
    ],
)
def test_a_device_is_told_in_two_words(agent: str, told: str) -> None:
    assert told_device(agent) == told


def test_leaving_wants_the_password_and_can_be_taken_back(studio: Studio, user: User) -> None:
    assert studio.ask("POST", "/studio/leave", {"present": "not-it"}, 422)["field"] == "present"
    assert studio.ask("GET", "/studio")["leaves"] is None
    assert studio.ask("POST", "/studio/leave", {"present": "velvet-lantern-9"})["leaves"] is not None
    call_command("tidy_up")
    assert User.objects.filter(pk=user.pk).exists(), "there is time to think again"
    assert studio.ask("DELETE", "/studio/leave")["leaves"] is None


def test_a_studio_that_is_closed_is_gone_with_all_it_held_and_no_other(
    studio: Studio, user: User, other: Studio, django_capture_on_commit_callbacks: Any
) -> None:
    load(user)
    prove_all(user)
    made = with_body(studio, "Moth")
    studio.client.post(f"/api/designs/{made['id']}/pictures", {"file": SimpleUploadedFile("m.png", picture())})
    file = Path(settings.MEDIA_ROOT) / str(Picture.objects.get(design_id=made["id"]).file)
    kept = with_body(other, "Hers")
    studio.ask("POST", "/studio/leave", {"present": "velvet-lantern-9"})
    Departure.objects.update(due=F("due") - timedelta(days=20))
    assert file.exists()
    with django_capture_on_commit_callbacks(execute=True):
        call_command("tidy_up")
    assert not file.exists()
    for model in TABLES:
        if model in rules():
            assert not model._default_manager.filter(**{rules()[model].owner: user.pk}).exists(), model._meta.label
    assert studio.client.get("/api/designs").status_code == 401
    assert [row["id"] for row in other.ask("GET", "/designs")] == [kept["id"]]


def test_what_is_over_is_tidied_up(studio: Studio) -> None:
    OwnSession.objects.update(expire_date=timezone.now() - timedelta(days=1))
    call_command("tidy_up")
    assert not OwnSession.objects.exists()


def test_links_that_ran_out_long_ago_are_forgotten(studio: Studio, user: User) -> None:
    design = Design.objects.get(pk=with_body(studio, "Moth")["id"])
    old, token = make_link(user, design, Purpose.READ, days=1, note="for Rowan")
    fresh, fresh_token = make_link(user, design, Purpose.READ, days=1, note="for Hazel")
    type(old).objects.filter(pk=old.pk).update(expires=timezone.now() - timedelta(days=91))
    call_command("tidy_up")
    call_command("tidy_up")
    with pytest.raises(Refusal):
        holder_of(token)
    assert holder_of(fresh_token).link == fresh.pk
    old.refresh_from_db()
    assert (old.note, old.token_hash) == ("", f"gone-{old.pk}")
