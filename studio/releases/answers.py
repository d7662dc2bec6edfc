"""What a job of the releases answers."""

from __future__ import annotations

from typing import Literal

from ninja import Schema


class ReleaseAnswer(Schema):
    """A release that is printed: its number, and how many files it has."""

    job: Literal["release"] = "release"
    release: int
    files: int
