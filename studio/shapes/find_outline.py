"""Run as a process of its own, with limits set by its parent: a picture in, the outline of what stands on it out.

Standard input: PNG or JPEG. Standard output: one JSON object with `left`, `right`, `rows` in pixels, or `error`.
Imports nothing of the studio.
"""

import io
import json
import sys
from collections.abc import Sequence

import numpy as np
from PIL import Image
from skimage import color, filters, measure, morphology

SIDE = 700


def main(_words: Sequence[str] = ()) -> int:
    """Tell figure from ground by what the picture's rim looks like, and follow its sides row by row."""
    try:
        with Image.open(io.BytesIO(sys.stdin.buffer.read()), formats=("PNG", "JPEG")) as opened:
            image = opened.convert("RGBA")
            full = image.width
            image.thumbnail((SIDE, SIDE))
        pixels = np.asarray(image, float) / 255
    except Exception:
        return _say({"error": "The picture could not be read."})
    shrunk = full / image.width
    lab = color.rgb2lab(pixels[..., :3] * pixels[..., 3:] + (1 - pixels[..., 3:]))
    edge = np.concatenate(
        [lab[:3].reshape(-1, 3), lab[-3:].reshape(-1, 3), lab[:, :3].reshape(-1, 3), lab[:, -3:].reshape(-1, 3)]
    )
    ground = np.median(edge, axis=0)
    away = filters.gaussian(np.linalg.norm(lab - ground, axis=2), 1.5)
    if float(away.max() - away.min()) < 6:
        return _say({"error": "Nothing stands out from the ground of this picture: trace it by hand."})
    mask = away > filters.threshold_otsu(away)
    mask = morphology.closing(morphology.opening(mask, morphology.disk(2)), morphology.disk(4))
    labels = measure.label(mask)
    if not labels.max():
        return _say({"error": "Nothing stands out from the ground of this picture: trace it by hand."})
    sizes = np.bincount(labels.ravel())[1:]
    body = labels == int(np.argmax(sizes)) + 1
    share = float(body.mean())
    if share > 0.92 or share < 0.004:
        return _say({"error": "The figure can't be told from the ground here: trace it by hand."})
    rows = np.flatnonzero(body.any(axis=1))
    left = [int(np.flatnonzero(body[r])[0]) for r in rows]
    right = [int(np.flatnonzero(body[r])[-1]) + 1 for r in rows]
    touches = bool(body[0].any() or body[-1].any() or body[:, 0].any() or body[:, -1].any())
    return _say(
        {
            "rows": [round(float(r) * shrunk, 1) for r in (*rows, rows[-1] + 1)],
            "left": [round(v * shrunk, 1) for v in (*left, left[-1])],
            "right": [round(v * shrunk, 1) for v in (*right, right[-1])],
            "touches": touches,
            "others": int((sizes > 0.1 * sizes.max()).sum()) - 1,
        }
    )


def _say(answer: dict[str, object]) -> int:
    json.dump(answer, sys.stdout)
    return 0


if __name__ == "__main__":
    sys.exit(main())
