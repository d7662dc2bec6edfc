"""Brings the tables up to date and loads the demo studio: one process, since each start costs seconds."""

from __future__ import annotations

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser

from studio.designs.picture_files import sweep
from studio.jobs.actions import resume


class Command(BaseCommand):
    """`make_ready [--demo]`: what a start needs before it serves."""

    help = "Bring the tables up to date, and load the demo studio once."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--demo", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        call_command("migrate", interactive=False, verbosity=0)
        call_command("prune_db_task_results", verbosity=0)
        resume()
        sweep()
        call_command("tidy_up", stdout=self.stdout)
        if options["demo"]:
            call_command("load_demo", stdout=self.stdout)
