"""Backup and restore: everything comes back, taken while people work; a damaged file changes nothing. Demo data."""

from __future__ import annotations

import io
import json
import re
import stat
import tarfile
import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import Client

from studio.backups.archive import read
from studio.backups.tables import broken_references
from studio.designs.models import Design, Picture, Revision, TypedText
from studio.jobs.models import Job
from studio.pieces.models import Piece
from studio.proving import models as proving
from studio.yarns.models import Swatch
from tests.studio.conftest import BALL, GAUGE, Studio
from tests.studio.test_pictures import picture, upload

# A backup reads in a transaction of its own, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)

OLD = Path(__file__).parents[1] / "fixtures" / "studio-format-1.tar.gz"


def rewritten(whole: Path, to: Path, change: Callable[[dict[str, bytes]], None]) -> Path:
    """A backup with its files changed, its list left as it was unless that is changed too."""
    with tarfile.open(whole) as old:
        files = {m.name: body.read() for m in old.getmembers() if (body := old.extractfile(m))}
    change(files)
    with tarfile.open(to, "w:gz") as new:
        for name, body in files.items():
            info = tarfile.TarInfo(name)
            info.size = len(body)
            new.addfile(info, io.BytesIO(body))
    return to


def test_everything_comes_back(studio: Studio, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    made, key = studio.with_part()
    path = f"/designs/{made['id']}"
    studio.ask("PUT", f"{path}/parts/{key}/typed", {"text": "half", "etag": made["parts"][0]["etag"]})
    studio.ask(
        "PUT",
        f"{path}/proving/log/7f2f4d4e-58a5-4a0b-8c44-0f6b3b9f3a01",
        {"date": "2026-10-02", "text": "First sample."},
    )
    url = upload(studio, made["id"], picture()).json()["url"]
    before, log = studio.ask("GET", path), studio.ask("GET", f"{path}/proving")
    file = tmp_path / "spirrel.tar.gz"
    call_command("backup", str(file))
    assert stat.S_IMODE(file.stat().st_mode) == 0o600, "passwords' hashes are for nobody else's eyes"
    studio.ask("DELETE", path, status=204)
    call_command("restore", str(file))
    studio.client.force_login(User.objects.get(username="fern"))
    assert studio.ask("GET", path) == before
    assert studio.ask("GET", f"{path}/proving") == log
    assert b"".join(studio.client.get(url).streaming_content) != b""  # type: ignore[attr-defined]
    assert TypedText.objects.get().text == "half"
    assert "rows are back" in capsys.readouterr().out


def test_a_backup_is_verified_with_every_design_of_it(
    studio: Studio, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    studio.with_part()
    whole = tmp_path / "whole.tar.gz"
    call_command("backup", str(whole))
    call_command("verify", str(whole))
    assert re.search(r"is whole: \d+ rows, 0 pictures, 1 designs", capsys.readouterr().out)
    call_command("verify", str(OLD))
    assert "is whole" in capsys.readouterr().out, "of the first format, too"
    damaged = rewritten(whole, tmp_path / "damaged.tar.gz", lambda files: files.update({"data.json": b"[]"}))
    with pytest.raises(CommandError, match="is damaged"):
        call_command("verify", str(damaged))
    head = Design.objects.get().revision
    Revision.objects.filter(pk=head.pk).update(data=head.data | {"terms": "of nobody"})
    call_command("backup", str(tmp_path / "odd.tar.gz"))
    with pytest.raises(CommandError, match="'Moth' cannot be read"):
        call_command("verify", str(tmp_path / "odd.tar.gz"))


def test_old_backups_make_room(
    studio: Studio, tmp_path: Path, settings: Any, capsys: pytest.CaptureFixture[str]
) -> None:
    settings.VAR = tmp_path
    (tmp_path / "backups").mkdir()
    for day in range(1, 5):
        (tmp_path / "backups" / f"spirrel-2026010{day}-000000.tar.gz").write_text("old")
    (tmp_path / "backups" / "mine.tar.gz").write_text("hers")
    call_command("backup", "--keep", "2")
    left = sorted(p.name for p in (tmp_path / "backups").iterdir())
    assert left[:2] == ["mine.tar.gz", "spirrel-20260104-000000.tar.gz"]
    assert len(left) == 3, "the new one, one older, and what was named by hand"
    with pytest.raises(CommandError, match="at least one"):
        call_command("backup", "--keep", "0")


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
    swapped = rewritten(file, tmp_path / "swapped.tar.gz", lambda files: files.update({"data.json": b"[]"}))
    with pytest.raises(CommandError, match="damaged"):
        call_command("restore", str(swapped))
    more = rewritten(file, tmp_path / "more.tar.gz", lambda files: files.update({"pictures/x.sh": b"hello"}))
    with pytest.raises(CommandError, match="not on its list"):
        call_command("restore", str(more))
    with pytest.raises(CommandError):
        call_command("restore", str(tmp_path / "nowhere.tar.gz"))
    assert Design.objects.count() == 1


def _with_list(files: dict[str, bytes], records: list[dict[str, Any]]) -> None:
    import hashlib  # noqa: PLC0415

    files["data.json"] = json.dumps(records).encode()
    listing = json.loads(files["manifest.json"])
    listing["sha256"]["data.json"] = hashlib.sha256(files["data.json"]).hexdigest()
    files["manifest.json"] = json.dumps(listing).encode()


@pytest.mark.parametrize("lost", ["designs.partversion", "designs.revision", "auth.user"])
def test_rows_that_point_at_nothing_are_refused(studio: Studio, tmp_path: Path, lost: str) -> None:
    studio.with_part()
    file = tmp_path / "spirrel.tar.gz"
    call_command("backup", str(file))

    def without(files: dict[str, bytes]) -> None:
        _with_list(files, [r for r in json.loads(files["data.json"]) if r["model"] != lost])

    with pytest.raises(CommandError, match="not whole"):
        call_command("restore", str(rewritten(file, tmp_path / "less.tar.gz", without)))
    assert Design.objects.count() == 1


def test_a_picture_whose_file_is_lost_is_told_at_the_backup(studio: Studio, tmp_path: Path) -> None:
    made = studio.design()
    upload(studio, made["id"], picture())
    Path(Picture.objects.get().file.path).unlink()
    with pytest.raises(CommandError, match="file of picture"):
        call_command("backup", str(tmp_path / "spirrel.tar.gz"))


def test_jobs_and_sessions_go_with_the_rows_they_belonged_to(studio: Studio, tmp_path: Path) -> None:
    studio.with_part()
    file = tmp_path / "spirrel.tar.gz"
    call_command("backup", str(file))
    job = studio.ask("POST", "/bench/settle", {"text": BALL, "terms": "us", "gauge": GAUGE})
    call_command("restore", str(file))
    assert not Job.objects.exists()
    studio.ask("GET", "/designs", status=401)
    studio.client.force_login(User.objects.get(username="fern"))
    studio.ask("GET", f"/jobs/{job['id']}", status=404)


def test_a_backup_taken_while_people_work_is_one_moment(studio: Studio, tmp_path: Path) -> None:
    """Two hands write all the while; every backup is whole, and can be put back."""
    made, key = studio.with_part()
    stop = threading.Event()
    failures: list[str] = []

    def write(at: int) -> None:
        client = Client()
        client.force_login(User.objects.get(username="fern"))
        hand = Studio(client)
        try:
            while not stop.is_set():
                hand.ask("PUT", f"/designs/{made['id']}/parts/{key}/text", {"text": BALL + f"Note {at}.\n" * at})
                other = hand.design(f"Moth {at}")
                hand.ask("POST", f"/designs/{other['id']}/parts", {"name": "Wing", "text": BALL}, 201)
                upload(hand, other["id"], picture())
                hand.ask("DELETE", f"/designs/{other['id']}", status=204)
        except Exception as error:
            failures.append(repr(error))
        finally:
            connection.close()

    hands = [threading.Thread(target=write, args=(at,)) for at in (1, 2)]
    for hand in hands:
        hand.start()
    files = []
    try:
        for at in range(6):
            files.append(tmp_path / f"{at}.tar.gz")
            call_command("backup", str(files[-1]))
    finally:
        stop.set()
        for hand in hands:
            hand.join()
    assert not failures
    for file in files:
        archive = read(file)
        assert not broken_references(archive.records)
    call_command("restore", str(files[-1]))
    assert Design.objects.get(pk=made["id"]).manifest.parts


def test_a_backup_of_the_second_format_comes_up_with_typed_texts_and_swatches(studio: Studio) -> None:
    """tests/fixtures/studio-format-2.tar.gz: the demo studio as it was while texts were drafts and swatches samples."""
    call_command("restore", str(OLD.with_name("studio-format-2.tar.gz")))
    assert TypedText.objects.get().text.endswith("Half a thought.")
    assert Swatch.objects.get().yarn.name
    studio.client.force_login(User.objects.get(username="lanternwick"))
    shelf = studio.ask("GET", "/designs")
    assert len(shelf) == 6
    assert not [row["problem"] for row in shelf if row["problem"]]
    gauges = [studio.ask("GET", f"/designs/{row['id']}")["gauge"] for row in shelf]
    measured = [g for g in gauges if g["source"] == "swatch"]
    assert {g["swatch_id"] for g in measured} == {Swatch.objects.get().pk}


def test_a_backup_of_the_first_format_comes_up_with_nothing_lost(studio: Studio) -> None:
    """tests/fixtures/studio-format-1.tar.gz: the demo studio as it was before testers and log were rows."""
    call_command("restore", str(OLD))
    studio.client.force_login(User.objects.get(username="lanternwick"))
    shelf = studio.ask("GET", "/designs")
    assert len(shelf) == 7
    assert not [row["problem"] for row in shelf if row["problem"]]
    designs = {row["name"]: studio.ask("GET", f"/designs/{row['id']}") for row in shelf}
    hedgehog = designs["Dusk Hedgehog"]
    assert [p["name"] for p in hedgehog["parts"]] == ["Body", "Face", "Ear", "Foot"]
    assert hedgehog["parts"][2]["text"].endswith("Leave a tail of a hand's length.\n"), "what was typed last"
    assert hedgehog["undo"] == "Typing"
    assert hedgehog["proving"] == {"blockers": "A picture for sewing on the feet."}
    assert [e.text[:12] for e in proving.LogEntry.objects.all()] == ["First sample", "Second sampl"]
    assert [(t.name, t.state) for t in proving.Tester.objects.all()] == [
        ("Wren Applegarth", "done"),
        ("Tansy Moorcroft", "making"),
    ]
    (picture_id,) = hedgehog["brief"]["pictures"]
    assert b"".join(studio.client.get(f"/api/designs/pictures/{picture_id}").streaming_content)[:4]  # type: ignore[attr-defined]
    copy = designs["Acorn copy"]
    assert copy["origin"]["name"] == "Acorn"
    assert studio.ask("POST", f"/designs/{copy['id']}/redo")["terms"] == "uk", "what was undone can be done again"
    for row in shelf:
        for entry in studio.ask("GET", f"/designs/{row['id']}/history"):
            Revision.objects.get(design_id=row["id"], number=entry["number"]).manifest  # noqa: B018
        assert studio.raw("GET", f"/designs/{row['id']}/booklet.txt").status_code == 200


def test_the_demo_studio_is_loaded_once() -> None:
    call_command("load_demo")
    call_command("load_demo")
    designs = {d.name: d for d in Design.objects.all()}
    own = {"Acorn", "Bat", "Brook Otter", "Dusk Hedgehog", "Garden Snail", "Toadstool House"}
    assert set(designs) == own | {"Lantern Fox", "Snail with Long Feelers"}
    assert Piece.objects.count() == 14
    assert proving.Tester.objects.count() == 2 + 5, "noted by hand, and of the test"
    count = Revision.objects.count()
    call_command("load_demo", "--again")
    assert Design.objects.count() == len(designs)
    assert Revision.objects.count() == count
    assert Piece.objects.count() == 14
