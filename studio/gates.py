"""Work that is heavy and cannot wait for a job: a few at a time in each web process, a few in line, the rest later.

Without a gate a handful of such requests would take every thread, and whoever only reads would wait for them.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from threading import BoundedSemaphore, Semaphore

from studio.errors import Refusal

AGAIN_SECONDS = 2
"""When somebody who found no place should ask again; the application does so by itself."""


class Gate:
    """at_once: how many pass at a time. in_line: how many wait, each with its thread. work: what it is, for the sentence."""

    def __init__(self, at_once: int, in_line: int, work: str) -> None:
        self._passing = BoundedSemaphore(at_once)
        self._places = Semaphore(at_once + in_line)
        self._work = work

    @contextmanager
    def passed(self) -> Iterator[None]:
        """Pass, after those before; Refusal 503 with the time to ask again when even the line is full."""
        if not self._places.acquire(blocking=False):
            raise Refusal(
                503, "busy", f"Many are {self._work} just now: try again in a moment.", retry_after=AGAIN_SECONDS
            )
        try:
            with self._passing:
                yield
        finally:
            self._places.release()
