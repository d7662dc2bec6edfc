"""Readers of what others made, run as processes of their own with limits on memory, time and files.

A reader is a module that reads standard input and prints lines of JSON: `{"progress": 40}` as often as it likes, and
last one object that is its answer, or `{"error": sentence}`.
"""

from __future__ import annotations

import json
import resource
import subprocess
import sys
import threading
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import IO, Any

from craft.errors import CraftError

SECONDS = 20
"""Processor time that a reader may take; it is stopped a few seconds of waiting later."""

_ROOT = str(Path(__file__).resolve().parent.parent)


def _limits(memory_mb: int, seconds: int) -> Callable[[], None]:
    def limit() -> None:
        resource.setrlimit(resource.RLIMIT_AS, (memory_mb * 2**20, memory_mb * 2**20))
        resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds))
        resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))

    return limit


def _fed(into: IO[bytes], raw: bytes) -> None:
    try:
        with into:
            into.write(raw)
    except BrokenPipeError:
        pass  # the reader has seen enough; what it says of it comes on its output


def answer_of(
    module: str,
    raw: bytes,
    words: Sequence[str] = (),
    *,
    memory_mb: int,
    refused: str,
    seconds: int = SECONDS,
    watch: Callable[[int], None] = lambda _: None,
) -> dict[str, Any]:
    """The answer of a reader to a file. CraftError with its `error`, or `refused` when it fails or takes too long.

    module: full name of a module with a `main(words)`. words: its command line. watch: told the progress in percent;
    what it raises stops the reader.
    """
    start = f"import sys; sys.path.insert(0, {_ROOT!r}); from {module} import main; sys.exit(main(sys.argv[1:]))"
    process = subprocess.Popen(  # noqa: S603 - our own modules, with fixed words
        [sys.executable, "-I", "-c", start, *words],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        preexec_fn=_limits(memory_mb, seconds),  # noqa: PLW1509 - it only sets limits, and takes no lock
        env={"OPENBLAS_NUM_THREADS": "1"},
    )
    assert process.stdin is not None
    assert process.stdout is not None
    feeder = threading.Thread(target=_fed, args=(process.stdin, raw), daemon=True)
    clock = threading.Timer(seconds + 5, process.kill)
    feeder.start()
    clock.start()
    answer: dict[str, Any] = {}
    try:
        for line in process.stdout:
            answer = json.loads(line)
            if "progress" in answer:
                watch(int(answer["progress"]))
    except json.JSONDecodeError:
        answer = {}
    finally:
        clock.cancel()
        process.kill()
        process.stdout.close()
        failed = process.wait() not in (0, -9) or not answer or "progress" in answer
        feeder.join(1)
    if failed:
        raise CraftError(refused, field="file")
    if "error" in answer:
        raise CraftError(str(answer["error"]), field="file")
    return answer
