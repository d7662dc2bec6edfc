"""Writes everything to one file: rows as JSON, pictures as they are."""

from __future__ import annotations

import hashlib
import io
import json
import tarfile
import time
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core import serializers
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from studio.designs.management.tables import TABLES

FORMAT = 1


def _add(tar: tarfile.TarFile, name: str, body: bytes) -> None:
    info = tarfile.TarInfo(name)
    info.size, info.mtime = len(body), int(time.time())
    tar.addfile(info, io.BytesIO(body))


class Command(BaseCommand):
    """`backup [FILE]`: a tar.gz with data.json, pictures/ and a manifest with checksums."""

    help = "Write everything to one file."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?")

    def handle(self, *args: Any, **options: Any) -> None:
        stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S")
        path = Path(options["file"] or settings.VAR / "backups" / f"spirrel-{stamp}.tar.gz")
        path.parent.mkdir(parents=True, exist_ok=True)
        partial = path.with_name(path.name + ".part")
        with transaction.atomic():
            rows = [row for model in TABLES for row in model._default_manager.order_by("pk").iterator()]
            data = serializers.serialize("json", rows).encode()
        sums = {"data.json": hashlib.sha256(data).hexdigest()}
        try:
            with tarfile.open(partial, "w:gz") as tar:
                _add(tar, "data.json", data)
                for picture in sorted((Path(settings.MEDIA_ROOT)).rglob("*")):
                    if picture.is_file():
                        name = f"pictures/{picture.relative_to(settings.MEDIA_ROOT)}"
                        body = picture.read_bytes()
                        sums[name] = hashlib.sha256(body).hexdigest()
                        _add(tar, name, body)
                _add(tar, "manifest.json", json.dumps({"format": FORMAT, "made": stamp, "sha256": sums}).encode())
        except OSError as error:
            partial.unlink(missing_ok=True)
            raise CommandError(f"The backup could not be written: {error.strerror or error}.") from None
        partial.replace(path)
        self.stdout.write(f"{path}: {len(rows)} rows, {len(sums) - 1} pictures")
