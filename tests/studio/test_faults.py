"""A full disk and a database that is away are told as what they are, and nothing is called saved that was not."""

from __future__ import annotations

import errno
from typing import Any

import pytest
from django.db import OperationalError

from studio.designs.models import Design, TypedText
from tests.studio.conftest import Studio
from tests.studio.test_pictures import picture, upload


@pytest.mark.parametrize(
    ("error", "status", "words"),
    [
        (OperationalError(1021, "Disk full (/tmp/x); waiting"), 507, "disk is full"),
        (OperationalError(1114, "The table is full"), 507, "disk is full"),
        (OSError(errno.ENOSPC, "No space left on device", "x"), 507, "disk is full"),
        (OSError(errno.EROFS, "Read-only file system", "x"), 507, "disk is full"),
        (OperationalError(2006, "Server has gone away"), 503, "database is starting"),
        (OperationalError(1205, "Lock wait timeout"), 503, "same moment"),
        (OperationalError(1213, "Deadlock found"), 503, "same moment"),
        (OperationalError(1064, "You have an error in your SQL syntax"), 500, "Something broke here"),
        (OSError(errno.EIO, "Input/output error"), 500, "Something broke here"),
    ],
)
def test_what_the_machine_cannot_do_is_said(
    studio: Studio, monkeypatch: pytest.MonkeyPatch, error: Exception, status: int, words: str
) -> None:
    made, key = studio.with_part()
    etag = made["parts"][0]["etag"]

    def fails(*_: Any, **__: Any) -> None:
        raise error

    with monkeypatch.context() as broken:
        broken.setattr(TypedText, "save", fails)
        broken.setattr(TypedText.objects, "update_or_create", fails)
        broken.setattr("studio.designs.texts.save_typed", fails)
        path = f"/designs/{made['id']}/parts/{key}/typed"
        got = studio.ask("PUT", path, {"text": "R1: 7 sc in ring [7]", "etag": etag}, status)
    assert words in got["detail"]
    assert "Errno" not in got["detail"]
    assert studio.ask("GET", f"/designs/{made['id']}")["parts"][0]["etag"] == etag, (
        "nothing was saved, and nothing says so"
    )


def test_a_picture_that_finds_no_room_leaves_no_row(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    made = studio.design()

    def full(*_: Any, **__: Any) -> None:
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr("django.core.files.storage.FileSystemStorage._save", full)
    got = upload(studio, made["id"], picture())
    assert got.status_code == 507
    assert not Design.objects.get(pk=made["id"]).pictures.exists()
