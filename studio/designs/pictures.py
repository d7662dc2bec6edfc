"""Reference pictures: decoded in a process of its own with limits, and written anew.

What comes out is a plain JPEG or PNG without metadata, whatever went in.
"""

from __future__ import annotations

import io
import resource
import subprocess
import sys

from studio.errors import Refusal

MOST_BYTES = 10 * 2**20
MOST_PIXELS = 40_000_000
LARGEST_SIDE = 2_000
SECONDS = 15
_REFUSED = "This is no picture that can be read; PNG, JPEG and WebP are."


def _limits() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (1_500 * 2**20, 1_500 * 2**20))
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS))
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))


def reencoded(raw: bytes) -> tuple[bytes, str, int, int]:
    """The picture written anew: bytes, 'jpg' or 'png', width, height. Refusal when it is none."""
    if len(raw) > MOST_BYTES:
        raise Refusal(422, "invalid", f"A picture is at most {MOST_BYTES // 2**20} MB.", field="file")
    try:
        done = subprocess.run(
            [sys.executable, "-m", "studio.designs.pictures"],
            input=raw,
            capture_output=True,
            timeout=SECONDS + 5,
            preexec_fn=_limits,
            check=False,
        )
    except subprocess.TimeoutExpired:
        raise Refusal(422, "invalid", _REFUSED, field="file") from None
    head, _, body = done.stdout.partition(b"\n")
    if done.returncode or not body:
        raise Refusal(422, "invalid", _REFUSED, field="file")
    kind, width, height = head.decode().split()
    return body, kind, int(width), int(height)


def _main() -> int:
    from PIL import Image, ImageOps  # noqa: PLC0415 - only the limited process loads the decoder

    Image.MAX_IMAGE_PIXELS = MOST_PIXELS
    raw = sys.stdin.buffer.read(MOST_BYTES + 1)
    try:
        with Image.open(io.BytesIO(raw), formats=("PNG", "JPEG", "WEBP")) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                return 1
            upright = ImageOps.exif_transpose(opened)
            clear = upright.mode in ("RGBA", "LA", "PA") or "transparency" in upright.info
            image = upright.convert("RGBA" if clear else "RGB")
            image.thumbnail((LARGEST_SIDE, LARGEST_SIDE))
    except Exception:
        return 1
    out = io.BytesIO()
    image.save(out, "PNG" if clear else "JPEG", **({} if clear else {"quality": 88}))
    sys.stdout.buffer.write(f"{'png' if clear else 'jpg'} {image.width} {image.height}\n".encode() + out.getvalue())
    return 0


if __name__ == "__main__":
    sys.exit(_main())
