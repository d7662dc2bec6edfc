"""Answers that are remembered within bounds, so that no flood of questions fills the memory.

A count of answers bounds nothing where one may be a thousand times as large as another: large ones are bounded by
their bytes, and of small ones only those to short questions are kept.
"""

from __future__ import annotations

from collections.abc import Callable, Sized
from functools import lru_cache, update_wrapper
from threading import RLock
from typing import Any, Concatenate, ParamSpec, TypeVar, cast

from cachetools import LRUCache, cached
from cachetools.keys import hashkey

Asked = ParamSpec("Asked")
Answer = TypeVar("Answer")
Work = TypeVar("Work", bound=Callable[..., Any])
First = TypeVar("First", bound=Sized)

LONG = 1_000
"""Characters of a text, or items of a sequence, beyond which an answer is worked out anew each time."""


def by_bytes(most: int, weigh: Callable[[Any], int]) -> Callable[[Work], Work]:
    """Remember answers of up to `most` bytes together, those used longest ago going first.

    weigh: about how many bytes an answer takes. One that is larger than all room is not kept. What comes back has its
    `cache` and a `cache_clear`.
    """

    def around(work: Work) -> Work:
        cache: LRUCache[Any, Any] = LRUCache(most, getsizeof=weigh)
        return cast(Work, cached(cache, key=hashkey, lock=RLock())(work))

    return around


def of_short(
    most: int, longest: int = LONG
) -> Callable[[Callable[Concatenate[First, Asked], Answer]], Callable[Concatenate[First, Asked], Answer]]:
    """Remember up to `most` answers to questions whose first argument is no longer than `longest`."""

    def around(work: Callable[Concatenate[First, Asked], Answer]) -> Callable[Concatenate[First, Asked], Answer]:
        known = lru_cache(maxsize=most)(work)

        def asked(first: First, /, *more: Asked.args, **named: Asked.kwargs) -> Answer:
            if len(first) > longest:
                return work(first, *more, **named)
            return known(first, *more, **named)  # type: ignore[arg-type]

        update_wrapper(asked, work)
        asked.cache_info = known.cache_info  # type: ignore[attr-defined]
        asked.cache_clear = known.cache_clear  # type: ignore[attr-defined]
        return asked

    return around
