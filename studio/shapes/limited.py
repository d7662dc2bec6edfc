"""Scripts that read what others made, run as processes of their own with limits on memory, time and files."""

from __future__ import annotations

import json
import resource
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from django.conf import settings

from studio.errors import Refusal

SECONDS = 20


def _limits(memory_mb: int) -> Callable[[], None]:
    def limit() -> None:
        resource.setrlimit(resource.RLIMIT_AS, (memory_mb * 2**20, memory_mb * 2**20))
        resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS))
        resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))

    return limit


_INTAKE = (
    f"import sys; sys.path.insert(0, {str(settings.ROOT)!r}); from craft.shape.intake.__main__ import main; "
    "sys.exit(main(sys.argv[1:]))"
)


def _command(script: str) -> list[str]:
    """A script beside this file, or the craft's own reader of meshes and drawings."""
    if script.endswith(".py"):
        return [str(Path(__file__).with_name(script))]
    return ["-c", _INTAKE, script]


def answer_of(
    script: str, raw: bytes, *words: str, memory_mb: int, refused: str, kind: str = "invalid"
) -> dict[str, Any]:
    """The JSON object that a script beside this file prints, or the craft's reader called `mesh` or `drawing`.

    Refusal with its `error`, or `refused` when it fails.
    """
    try:
        done = subprocess.run(  # noqa: S603 - our own scripts, with fixed words
            [sys.executable, "-I", *_command(script), *words],
            input=raw,
            capture_output=True,
            timeout=SECONDS + 5,
            preexec_fn=_limits(memory_mb),
            env={"OPENBLAS_NUM_THREADS": "1"},
            check=False,
        )
    except subprocess.TimeoutExpired:
        raise Refusal(422, kind, refused, field="file") from None
    if done.returncode or not done.stdout:
        raise Refusal(422, kind, refused, field="file")
    answer: dict[str, Any] = json.loads(done.stdout)
    if "error" in answer:
        raise Refusal(422, kind, str(answer["error"]), field="file")
    return answer
