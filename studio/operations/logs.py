"""What is logged: each line with the number of the request that it is about, as text or as JSON."""

from __future__ import annotations

import json
import logging
from contextvars import ContextVar
from typing import Any

NUMBER: ContextVar[str] = ContextVar("request", default="-")
"""The number of the request that is being answered."""


class WithNumber(logging.Filter):
    """Gives every record the number of the request that it is about."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Let it pass, with its number."""
        record.request_id = NUMBER.get()
        return True


class NoAddress(logging.Filter):
    """Takes the address out of what Django says of a request: a page's address may hold the token of a link."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Let it pass without."""
        record.msg, record.args = "a page could not be answered (%s)", (getattr(record, "status_code", "?"),)
        return True


class AsJson(logging.Formatter):
    """A record as one line of JSON, for programs that collect logs."""

    def format(self, record: logging.LogRecord) -> str:
        """The line."""
        said: dict[str, Any] = {
            "at": self.formatTime(record, "%Y-%m-%dT%H:%M:%S%z"),
            "level": record.levelname,
            "logger": record.name,
            "request": getattr(record, "request_id", "-"),
            "message": record.getMessage(),
        }
        if record.exc_info:
            said["trace"] = self.formatException(record.exc_info)
        return json.dumps(said, ensure_ascii=False)
