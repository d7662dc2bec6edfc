"""Run as a process of its own, with limits set by its parent: `pdf`, `docx` or `html`, a document on standard input.

Prints lines of JSON: the progress, and last what was read, or `error` with a sentence.
"""

from __future__ import annotations

import importlib
import json
import sys
from collections.abc import Sequence

from craft.errors import CraftError


def _tell(progress: int) -> None:
    print(json.dumps({"progress": progress}), flush=True)


def main(words: Sequence[str]) -> int:
    """Read standard input as the kind of document that it is said to be."""
    # Each reader loads its own library, and takes as long to start.
    read = importlib.import_module(f"craft.text.intake.{words[0]}_text").read_text
    try:
        text, notes = read(sys.stdin.buffer.read(), _tell)
        answer: dict[str, object] = {"text": text, "notes": notes}
    except CraftError as error:
        answer = {"error": error.message}
    print(json.dumps(answer), flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
