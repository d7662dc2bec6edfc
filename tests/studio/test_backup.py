"""Backup and restore: everything comes back, and a damaged file changes nothing. Demo data."""

from __future__ import annotations

import io
import tarfile
from pathlib import Path

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command

from studio.designs.models import Design, Draft, Revision
from tests.studio.conftest import Studio
from tests.studio.test_pictures import picture, upload


def test_everything_comes_back(studio: Studio, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    made, key = studio.with_part()
    studio.ask("PUT", f"/designs/{made['id']}/parts/{key}/draft", {"text": "half", "etag": made["parts"][0]["etag"]})
    url = upload(studio, made["id"], picture()).json()["url"]
    before = studio.ask("GET", f"/designs/{made['id']}")
    file = tmp_path / "spirrel.tar.gz"
    call_command("backup", str(file))
    studio.ask("DELETE", f"/designs/{made['id']}", status=204)
    call_command("restore", str(file))
    user = User.objects.get(username="fern")
    studio.client.force_login(user)
    assert studio.ask("GET", f"/designs/{made['id']}") == before
    assert b"".join(studio.client.get(url).streaming_content) != b""  # type: ignore[attr-defined]
    assert Draft.objects.get().text == "half"
    assert "rows are back" in capsys.readouterr().out


def test_a_damaged_backup_changes_nothing(studio: Studio, tmp_path: Path) -> None:
    studio.with_part()
    file = tmp_path / "spirrel.tar.gz"
    call_command("backup", str(file))
    whole = file.read_bytes()
    for damaged in (whole[: len(whole) // 2], b"nothing", b""):
        bad = tmp_path / "bad.tar.gz"
        bad.write_bytes(damaged)
        with pytest.raises(CommandError, match="no backup"):
            call_command("restore", str(bad))
    swapped = tmp_path / "swapped.tar.gz"
    with tarfile.open(file) as old, tarfile.open(swapped, "w:gz") as new:
        for member in old.getmembers():
            body = old.extractfile(member)
            assert body is not None
            if member.name == "data.json":
                member.size = 2
                body = io.BytesIO(b"[]")
            new.addfile(member, body)
    with pytest.raises(CommandError, match="damaged"):
        call_command("restore", str(swapped))
    with pytest.raises(CommandError):
        call_command("restore", str(tmp_path / "nowhere.tar.gz"))
    assert Design.objects.count() == 1


@pytest.mark.django_db
def test_the_demo_studio_is_loaded_once() -> None:
    call_command("load_demo")
    call_command("load_demo")
    designs = {d.name: d for d in Design.objects.all()}
    assert set(designs) == {"Acorn", "Bat", "Brook Otter", "Dusk Hedgehog", "Garden Snail", "Toadstool House"}
    count = Revision.objects.count()
    call_command("load_demo", "--again")
    assert Design.objects.count() == len(designs)
    assert Revision.objects.count() == count
