"""Writes the word lists of the editor's completion, from the registry of stitches."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from craft.rounds.stitches import STITCHES, Terms


def word_lists() -> str:
    """Words by terms: the abbreviation, its name, how it is worked, what it takes and gives."""
    lists = {
        terms.value: [
            {
                "word": s.name(terms),
                "name": s.called(terms),
                "how": s.explained(terms),
                "takes": s.takes,
                "gives": s.gives,
            }
            for s in STITCHES.values()
        ]
        for terms in Terms
    }
    return json.dumps(lists, indent=1, ensure_ascii=False) + "\n"


class Command(BaseCommand):
    """`export_words FILE`."""

    help = "Write the word lists for completion."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, **options: Any) -> None:
        path = Path(options["file"])
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(word_lists(), encoding="utf-8")
