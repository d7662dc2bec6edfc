"""Puts everything back from a backup, or changes nothing."""

from __future__ import annotations

import hashlib
import json
import shutil
import tarfile
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core import serializers
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection, transaction

from studio.designs.management.commands.backup import FORMAT
from studio.designs.management.tables import TABLES


def _contents(path: Path) -> dict[str, bytes]:
    """Every file of a backup, checked against its sums; CommandError when it is damaged."""
    try:
        with tarfile.open(path, "r:gz") as tar:
            files = {m.name: body.read() for m in tar.getmembers() if m.isfile() and (body := tar.extractfile(m))}
        manifest = json.loads(files.pop("manifest.json"))
    except (OSError, tarfile.TarError, KeyError, ValueError, EOFError) as error:
        raise CommandError(f"{path} is no backup that can be read ({error}).") from None
    if manifest.get("format") != FORMAT:
        raise CommandError(f"{path} is a backup of another format.")
    for name, expected in manifest["sha256"].items():
        if name not in files or hashlib.sha256(files[name]).hexdigest() != expected:
            raise CommandError(f"{path} is damaged: {name} is not what was written.")
    if any(".." in Path(name).parts or Path(name).is_absolute() for name in files):
        raise CommandError(f"{path} names files outside its own folder.")
    return files


class Command(BaseCommand):
    """`restore FILE`: all rows and pictures are replaced by those of the backup, in one transaction."""

    help = "Put everything back from a backup."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, **options: Any) -> None:
        path = Path(options["file"])
        files = _contents(path)
        with transaction.atomic():
            rows = self._replace(files["data.json"].decode())
            self._pictures({n: b for n, b in files.items() if n.startswith("pictures/")})
        self.stdout.write(f"{path}: {rows} rows are back")

    def _replace(self, data: str) -> int:
        with connection.cursor() as cursor:
            cursor.execute("SET FOREIGN_KEY_CHECKS=0")
            try:
                for model in reversed(TABLES):
                    cursor.execute(f"DELETE FROM {connection.ops.quote_name(model._meta.db_table)}")  # noqa: S608
                cursor.execute("DELETE FROM django_session")
                rows = 0
                for row in serializers.deserialize("json", data):
                    row.save()
                    rows += 1
            finally:
                cursor.execute("SET FOREIGN_KEY_CHECKS=1")
        return rows

    def _pictures(self, files: dict[str, bytes]) -> None:
        root = Path(settings.MEDIA_ROOT)
        fresh = root.with_name(root.name + ".new")
        shutil.rmtree(fresh, ignore_errors=True)
        fresh.mkdir(parents=True)
        for name, body in files.items():
            target = fresh / Path(name).relative_to("pictures")
            target.parent.mkdir(parents=True, exist_ok=True)
            target.write_bytes(body)
        shutil.rmtree(root, ignore_errors=True)
        fresh.replace(root)
