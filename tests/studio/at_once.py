"""The same moment for several: windows, strangers and workers that come at once."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier
from typing import TypeVar

from django.db import connection

T = TypeVar("T")

PATIENCE = 30
"""Seconds after which whoever waits for another is taken to wait for ever."""


def at_once(many: int, work: Callable[[int], T]) -> list[T]:
    """What each of `many` threads answers that begin `work` together, each with its number and a connection of its own.

    Raises what one of them raised, or TimeoutError when they wait for each other.
    """
    begun = Barrier(many)

    def one(number: int) -> T:
        begun.wait(PATIENCE)
        try:
            return work(number)
        finally:
            connection.close()

    with ThreadPoolExecutor(many) as pool:
        return list(pool.map(one, range(many), timeout=PATIENCE))
