"""Reads a backup in full, as restoring would, and changes nothing."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from studio.backups import actions
from studio.backups.archive import BackupError


class Command(BaseCommand):
    """`verify FILE`: whether a backup is whole: its list, its rows, its pictures, every design with its rounds."""

    help = "Read a backup in full, and change nothing."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, **options: Any) -> None:
        path = Path(options["file"])
        try:
            found = actions.verify(path)
        except (BackupError, OSError) as error:
            raise CommandError(str(error)) from None
        self.stdout.write(f"{path} is whole: " + ", ".join(f"{n} {what}" for what, n in found.items()))
