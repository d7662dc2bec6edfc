"""A worker: works out what stands in line, and looks after what other workers left behind."""

from __future__ import annotations

import logging
import threading
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import DatabaseError, close_old_connections, connection
from django.utils import timezone

from studio.garbage import look_seldom
from studio.jobs.actions import resume

LOOK_SECONDS = 5.0

log = logging.getLogger("studio")


def _look_after(stopped: threading.Event) -> None:
    """Every few seconds, begin again what a worker that is gone was at."""
    while not stopped.wait(LOOK_SECONDS):
        try:
            close_old_connections()
            resume()
        except DatabaseError:
            log.warning("could not look after jobs left behind; trying again")
        finally:
            connection.close()


class Command(BaseCommand):
    """`work_jobs [--first]`: until it is told to stop."""

    help = "Work out jobs."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "--first", action="store_true", help="no worker ran before: what is running was left behind"
        )

    def handle(self, *args: Any, **options: Any) -> None:
        if options["first"]:
            resume(timezone.now())
        look_seldom()
        stopped = threading.Event()
        watcher = threading.Thread(target=_look_after, args=(stopped,), daemon=True)
        watcher.start()
        try:
            call_command("db_worker", interval=0.1, startup_delay=False, verbosity=0)
        finally:
            stopped.set()
