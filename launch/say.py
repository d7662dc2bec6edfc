"""What the launcher says, and how it gives up: one clear sentence, never a traceback."""

from __future__ import annotations

import sys


class Stop(Exception):  # noqa: N818 - it is an ending, not always an error
    """Give up with one sentence and an exit code."""

    def __init__(self, sentence: str, code: int = 1) -> None:
        super().__init__(sentence)
        self.sentence = sentence
        self.code = code


def say(text: str) -> None:
    """Progress, on standard error so that answers stay alone on standard output."""
    print(f"spirrel: {text}", file=sys.stderr, flush=True)
