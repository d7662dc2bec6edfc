"""Puts everything back from a backup, or changes nothing."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import IntegrityError

from studio.backups.actions import put_back
from studio.backups.archive import BackupError


class Command(BaseCommand):
    """`restore FILE`: all rows and pictures are replaced by those of the backup, in one transaction."""

    help = "Put everything back from a backup."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, **options: Any) -> None:
        path = Path(options["file"])
        try:
            rows = put_back(path)
        except (BackupError, OSError) as error:
            raise CommandError(str(error)) from None
        except IntegrityError as error:
            raise CommandError(f"{path} is not whole: {error}") from None
        self.stdout.write(f"{path}: {rows} rows are back")
