"""Documents of the demo's own booklets, read back to the same parts: PDF, HTML, Markdown, plain text, DOCX, a table."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable
from typing import Any

import docx
import pytest
from django.contrib.auth.models import User

from craft.document.booklet import Document, as_markdown, as_text
from craft.rounds.pattern import Way
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.exchange import imported_text
from studio.accounts.actions import sign_up
from studio.booklets import manuscripts, printing
from studio.demo.studio import make_demo
from studio.designs.models import Design

Counts = list[tuple[str, tuple[int, ...]]]


@pytest.fixture
def demo(db: None) -> list[Design]:
    user = sign_up("lanternwick", "glow-by-night", "Lanternwick")
    make_demo(user)
    return list(Design.objects.filter(owner=user).order_by("name"))


def counts(checked: Checked) -> Counts:
    """Every part's name, and its stitches after each round."""
    return [
        (str(p.name), tuple(t.live for t in p.rounds if t.way is not Way.LINE)) for p in checked.parts if p.rounds
    ]
