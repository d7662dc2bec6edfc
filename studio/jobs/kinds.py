"""Kinds of jobs: apps above register what they can work out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

Watch = Callable[[int], bool]
"""Told the progress in percent; answers whether to go on."""

Worker = Callable[[str, Watch], bytes]
"""From a question (JSON) to its answer; may raise CraftError with a sentence for the designer."""


@dataclass(frozen=True, slots=True)
class Kind:
    """How jobs of a kind are worked out. version: goes up whenever the same question gets another answer, so that
    answers kept from before are not taken for new ones; tests/studio/test_answers.py holds it to that. forgets: the
    question is large, and not kept once it is answered. long: it often takes more than some ten seconds, and goes
    after what is short."""

    worker: Worker
    version: int
    forgets: bool = False
    long: bool = False


_KINDS: dict[str, Kind] = {}


class Stopped(Exception):  # noqa: N818 - it is no error to stop when asked to
    """Raised by a worker whose watch said that it should not go on."""


def register(name: str, worker: Worker, version: int, *, forgets: bool = False, long: bool = False) -> None:
    """Make a kind of job known; called when its app is ready."""
    _KINDS[name] = Kind(worker, version, forgets, long)


def kind_of(name: str) -> Kind:
    """The kind of job of a name."""
    return _KINDS[name]


def is_long(name: str) -> bool:
    """Whether work of a kind takes long; False for one that is not known any more, which will fail at once."""
    kind = _KINDS.get(name)
    return kind is not None and kind.long


def names() -> tuple[str, ...]:
    """Every kind there is."""
    return tuple(_KINDS)
