"""What goes over the wire about jobs."""

from __future__ import annotations

from typing import Literal

from ninja import Schema


class JobOut(Schema):
    """A job: how far it is, and what went wrong. ahead: while it waits, how many are taken before it."""

    id: int
    state: Literal["waiting", "running", "done", "failed", "cancelled"]
    progress: int
    error: str
    ahead: int | None
