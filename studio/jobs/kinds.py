"""Kinds of jobs: apps above register what they can work out."""

from __future__ import annotations

from collections.abc import Callable

Watch = Callable[[int], bool]
"""Told the progress in percent; answers whether to go on."""

Worker = Callable[[str, Watch], bytes]
"""From a question (JSON) to its answer; may raise CraftError with a sentence for the designer."""

_WORKERS: dict[str, Worker] = {}


class Stopped(Exception):  # noqa: N818 - it is no error to stop when asked to
    """Raised by a worker whose watch said that it should not go on."""


def register(kind: str, worker: Worker) -> None:
    """Make a kind of job known; called when its app is ready."""
    _WORKERS[kind] = worker


def worker_of(kind: str) -> Worker:
    """How jobs of a kind are worked out."""
    return _WORKERS[kind]
