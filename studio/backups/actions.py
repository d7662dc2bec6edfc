"""Taking a backup while people work, and putting one back, or changing nothing."""

from __future__ import annotations

import json
import shutil
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core import serializers
from django.db import connection, models, transaction

from craft.errors import CraftError
from studio.backups.archive import Archive, BackupError, read, write
from studio.backups.tables import TABLES, Record
from studio.designs.manifest import Manifest
from studio.designs.models import Design, PartVersion, Picture, Revision
from studio.designs.picture_files import kept_for_now
from studio.designs.reading import read_text
from studio.designs.upgrades import newest

_DESIGN, _REVISION, _VERSION = (m._meta.label_lower for m in (Design, Revision, PartVersion))
_READ = (_DESIGN, _REVISION, _VERSION)


def _snapshot() -> list[Record]:
    """Every row as it is in one moment, whoever writes meanwhile."""
    with connection.cursor() as cursor:
        cursor.execute("SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ")
        try:
            cursor.execute("START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY")
            rows = [row for model in TABLES for row in model._default_manager.order_by("pk").iterator()]
        finally:
            cursor.execute("COMMIT")
            cursor.execute("SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED")
    found: list[Record] = json.loads(serializers.serialize("json", rows))
    return found


def folder() -> Path:
    """Where backups go that are given no name."""
    return Path(settings.VAR) / "backups"


def take(path: Path | None) -> tuple[Path, int, int]:
    """Write a backup; its path, and how many rows and pictures it holds. BackupError says why it cannot be."""
    stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S")
    path = path or folder() / f"spirrel-{stamp}.tar.gz"
    path.parent.mkdir(parents=True, exist_ok=True)
    with kept_for_now():
        records = _snapshot()
        names = [r["fields"]["file"] for r in records if r["model"] == Picture._meta.label_lower]
        root = Path(settings.MEDIA_ROOT)
        pictures = {name: (root / name).read_bytes() for name in names if (root / name).is_file()}
    write(Archive(records, pictures), path, stamp)
    return path, len(records), len(pictures)


def verify(path: Path) -> dict[str, int]:
    """Read a backup in full as restoring would, every design of it with its rounds, and change nothing; how many rows,
    pictures and designs it holds. BackupError says what is wrong with it."""
    archive = read(path)
    rows = {model: [r for r in archive.records if r["model"] == model] for model in _READ}
    texts = {row["pk"]: row["fields"]["text"] for row in rows[_VERSION]}
    heads = {row["pk"]: row["fields"]["data"] for row in rows[_REVISION]}
    for design in rows[_DESIGN]:
        name = design["fields"]["name"]
        try:
            manifest = Manifest.model_validate(newest(heads[design["fields"]["head"]]))
            for part in manifest.parts:
                read_text(manifest, part, texts[part.version])
        except (CraftError, ValueError, KeyError) as error:
            raise BackupError(f"{path}: the design {name!r} cannot be read ({error}).") from None
    return {"rows": len(archive.records), "pictures": len(archive.pictures), "designs": len(rows[_DESIGN])}


def rotate(folder: Path, keep: int) -> int:
    """Throw away all but the latest backups that were written into a folder by themselves; how many went."""
    old = sorted(folder.glob("spirrel-*.tar.gz"))[: -keep or None]
    for path in old:
        path.unlink()
    return len(old)


def put_back(path: Path) -> int:
    """Replace all rows and pictures by those of a backup; how many rows. Nothing changes when anything is wrong."""
    archive = read(path)
    swap = _PictureSwap(archive.pictures)
    try:
        with transaction.atomic():
            _replace_rows(archive.records)
            swap.put_in()
    except BaseException:
        swap.put_back()
        raise
    swap.finish()
    return len(archive.records)


def _replace_rows(records: list[Record]) -> None:
    """All rows anew. Sessions and jobs belong to the rows that were there: they are cleared with them."""
    with connection.cursor() as cursor:
        cursor.execute("SET FOREIGN_KEY_CHECKS=0")
        try:
            for table in ("jobs_job", "django_tasks_database_dbtaskresult", "accounts_ownsession"):
                cursor.execute(f"DELETE FROM {connection.ops.quote_name(table)}")  # noqa: S608 - fixed names
            for model in reversed(TABLES):
                cursor.execute(f"DELETE FROM {connection.ops.quote_name(model._meta.db_table)}")  # noqa: S608
            for row in serializers.deserialize("json", json.dumps(records)):
                row.save()
        except (serializers.base.DeserializationError, ValueError) as error:
            raise BackupError(f"The backup's rows cannot be put back ({error}).") from None
        finally:
            cursor.execute("SET FOREIGN_KEY_CHECKS=1")
    _created_as_they_were(records)
    connection.check_constraints([m._meta.db_table for m in TABLES])


def _created_as_they_were(records: list[Record]) -> None:
    """Days that Django sets by itself on saving, put back as they stand in the rows."""
    by_model = {m._meta.label_lower: m for m in TABLES}
    for record in records:
        model = by_model[record["model"]]
        days: dict[str, Any] = {
            f.name: record["fields"][f.name]
            for f in model._meta.get_fields()
            if isinstance(f, models.DateTimeField) and (f.auto_now or f.auto_now_add) and f.name in record["fields"]
        }
        if days:
            model._default_manager.filter(pk=record["pk"]).update(**days)


class _PictureSwap:
    """The folder of pictures exchanged for another one, and back when the rows could not be."""

    def __init__(self, pictures: dict[str, bytes]) -> None:
        self.root = Path(settings.MEDIA_ROOT)
        self.fresh = self.root.with_name(self.root.name + ".new")
        self.old = self.root.with_name(self.root.name + ".old")
        self.done = False
        shutil.rmtree(self.fresh, ignore_errors=True)
        shutil.rmtree(self.old, ignore_errors=True)
        for name, body in pictures.items():
            target = self.fresh / name
            target.parent.mkdir(parents=True, exist_ok=True)
            target.write_bytes(body)
        self.fresh.mkdir(parents=True, exist_ok=True)

    def put_in(self) -> None:
        """The new folder takes the place of the old one."""
        if self.root.exists():
            self.root.replace(self.old)
        self.fresh.replace(self.root)
        self.done = True

    def put_back(self) -> None:
        """The old folder back in its place."""
        if self.done:
            shutil.rmtree(self.root, ignore_errors=True)
            if self.old.exists():
                self.old.replace(self.root)
        shutil.rmtree(self.fresh, ignore_errors=True)

    def finish(self) -> None:
        """Throw the old folder away."""
        shutil.rmtree(self.old, ignore_errors=True)
