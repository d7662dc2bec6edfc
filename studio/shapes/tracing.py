"""Outlines found on reference pictures and in drawings: the sides of what is there, as a few handles."""

from __future__ import annotations

import itertools
from typing import Any

import numpy as np
from numpy.typing import NDArray

from studio.designs.models import Picture
from studio.errors import Refusal
from studio.shapes.limited import answer_of
from studio.shapes.schemas import TracingOut

_REFUSED = "No outline could be found on this picture: trace it by hand."

MOST_SVG_BYTES = 2 * 2**20

HANDLES = 14
"""Most handles of a found outline, pole and end among them: few enough to take in hand."""

ENOUGH = 0.006
"""Share of the height by which the line through the handles may miss the outline."""


def found_outline(picture: Picture) -> TracingOut:
    """The half outline on a picture, the foot as its pole. Refusal with a sentence when there is none."""
    with picture.file.open("rb") as opened:
        raw = opened.read()
    answer = answer_of("find_outline.py", raw, memory_mb=2_500, refused=_REFUSED, kind="no-outline")
    notes = []
    if answer["touches"]:
        notes.append("The figure runs over the picture's edge there.")
    if answer["others"] > 0:
        notes.append("Only the largest thing on the picture was followed.")
    return _half(answer, notes, picture.width, picture.height)


def drawn_outline(raw: bytes, name: str) -> TracingOut:
    """The half outline of an SVG drawing's largest closed shape. Refusal with a sentence when there is none."""
    if not name.lower().endswith(".svg") or len(raw) > MOST_SVG_BYTES:
        raise Refusal(422, "invalid", "An outline is an SVG drawing of up to 2 MB.", field="file")
    answer = answer_of("read_svg.py", raw, memory_mb=1_500, refused=_REFUSED, kind="no-outline")
    made = _half(answer, list(answer["notes"]), 0, 0)
    made.mm, made.section = answer["mm"], answer["section"]
    return made


def _half(answer: dict[str, Any], notes: list[str], width: int, height: int) -> TracingOut:
    rows, left, right = (np.asarray(answer[name], float) for name in ("rows", "left", "right"))
    middle = float(np.average((left + right) / 2, weights=np.maximum(right - left, 1.0)))
    half, up = ((right - left) / 2)[::-1], (rows[-1] - rows)[::-1]
    off = np.abs((left + right) / 2 - middle)
    if float(np.average(off, weights=np.maximum(half, 1.0))) > 0.12 * float(half.max()):
        notes.append("It is not the same on both sides: the outline is the mean of both.")
    line = np.column_stack([np.concatenate([[0.0], half, [0.0]]), np.concatenate([[0.0], up, [up[-1] + 0.5]])])
    handles = [(round(float(r), 1), round(float(z), 1)) for r, z in _few(line)]
    return TracingOut(
        handles=handles, pole=(round(middle, 1), round(float(rows[-1]), 1)), width=width, height=height, notes=notes
    )


def _few(line: NDArray[np.float64]) -> NDArray[np.float64]:
    """The fewest points of a line that keep it (Douglas and Peucker, 1973), at most HANDLES."""
    keep = {0, len(line) - 1}
    enough = ENOUGH * float(np.ptp(line[:, 1]))
    while len(keep) < HANDLES:
        order = sorted(keep)
        worst, at = 0.0, -1
        for a, b in itertools.pairwise(order):
            if b - a < 2:
                continue
            inside, way = line[a + 1 : b], line[b] - line[a]
            gap = inside - line[a]
            size = max(float(np.hypot(*way)), 1e-9)
            off = np.abs(gap[:, 0] * way[1] - gap[:, 1] * way[0]) / size
            if float(off.max()) > worst:
                worst, at = float(off.max()), a + 1 + int(np.argmax(off))
        if at < 0 or worst < enough:
            break
        keep.add(at)
    return line[sorted(keep)]
