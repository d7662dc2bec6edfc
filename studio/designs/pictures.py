"""Reference pictures: decoded in a process of its own with limits, and written anew.

What comes out is a plain JPEG or PNG without metadata, whatever went in.
"""

from __future__ import annotations

import resource
import subprocess
import sys
from pathlib import Path

from studio.errors import Refusal
from studio.gates import Gate

MOST_BYTES = 10 * 2**20
MOST_PIXELS = 40_000_000
LARGEST_SIDE = 2_000
SECONDS = 15
DECODER = Path(__file__).with_name("decode_picture.py")
DECODING = Gate(at_once=1, in_line=2, work="bringing pictures")
_REFUSED = "This is no picture that can be read; PNG, JPEG and WebP are."


def _limits() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (1_500 * 2**20, 1_500 * 2**20))
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS))
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))


def reencoded(raw: bytes) -> tuple[bytes, str, int, int]:
    """The picture written anew: bytes, 'jpg' or 'png', width, height. Refusal when it is none."""
    if len(raw) > MOST_BYTES:
        raise Refusal(422, "invalid", f"A picture is at most {MOST_BYTES // 2**20} MB.", field="file")
    with DECODING.passed():
        return _decoded(raw)


def _decoded(raw: bytes) -> tuple[bytes, str, int, int]:
    try:
        done = subprocess.run(  # noqa: S603 - our own script, with fixed words
            [sys.executable, "-I", str(DECODER), str(MOST_PIXELS), str(LARGEST_SIDE)],
            input=raw,
            capture_output=True,
            timeout=SECONDS + 5,
            preexec_fn=_limits,
            check=False,
        )
    except subprocess.TimeoutExpired:
        raise Refusal(503, "busy", "Reading this picture took too long: try it again, or a smaller one.") from None
    head, _, body = done.stdout.partition(b"\n")
    if done.returncode or not body:
        raise Refusal(422, "invalid", _REFUSED, field="file")
    kind, width, height = head.decode().split()
    return body, kind, int(width), int(height)
