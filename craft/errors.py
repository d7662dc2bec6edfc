"""The one root of everything the craft refuses."""

from __future__ import annotations


class CraftError(ValueError):
    """A value or a request the craft cannot use.

    The message is one sentence in the trade's words, fit to be shown to a designer.
    `field` names the value that is wrong, in the caller's terms, where there is one.
    """

    def __init__(self, message: str, *, field: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.field = field


class TooLargeError(CraftError):
    """Text or work beyond the limits that keep an answer quick."""


def require(condition: bool, message: str, *, field: str | None = None) -> None:
    """Raise CraftError with `message` unless `condition` holds."""
    if not condition:
        raise CraftError(message, field=field)
