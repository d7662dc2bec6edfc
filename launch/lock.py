"""Only one launcher works on a `var/` at a time."""

from __future__ import annotations

import fcntl
from collections.abc import Iterator
from contextlib import contextmanager

from launch.paths import VAR
from launch.say import Stop


@contextmanager
def alone(what: str) -> Iterator[None]:
    """Hold the lock while `what` runs, or stop with a sentence."""
    try:
        VAR.mkdir(parents=True, exist_ok=True)
        file = (VAR / "lock").open("a")
    except OSError as error:
        raise Stop(f"{VAR / 'lock'} cannot be opened: {error.strerror}.") from None
    with file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            raise Stop(f"another spirrel is at work on {VAR}; wait for it, or run ./spirrel down ({what}).") from None
        yield
