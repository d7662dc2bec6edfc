"""Writes everything to one file."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from studio.backups.actions import folder, rotate, take
from studio.backups.archive import BackupError


class Command(BaseCommand):
    """`backup [FILE] [--keep N]`: a tar.gz with data.json, pictures/ and a list with checksums."""

    help = "Write everything to one file."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?")
        parser.add_argument("--keep", type=int, help="throw away all but so many of those that were given no name")

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            path, rows, pictures = take(Path(options["file"]) if options["file"] else None)
        except (BackupError, OSError) as error:
            raise CommandError(str(error)) from None
        self.stdout.write(f"{path}: {rows} rows, {pictures} pictures")
        keep = options["keep"]
        if keep is not None and not options["file"]:
            if keep < 1:
                raise CommandError("at least one backup is kept")
            self.stdout.write(f"{rotate(folder(), keep)} older ones were thrown away")
