"""Writes the API's description, from which the front end's types are made."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from studio.api import api


def description() -> str:
    """The OpenAPI document as it is checked in."""
    return json.dumps(api.get_openapi_schema(), indent=1, ensure_ascii=False, sort_keys=True) + "\n"


class Command(BaseCommand):
    """`export_openapi FILE`."""

    help = "Write the API's description."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, **options: Any) -> None:
        Path(options["file"]).write_text(description(), encoding="utf-8")
