"""Outlines found on reference pictures and in drawings: the sides of what is there, as a few handles."""

from __future__ import annotations

from typing import Any

import numpy as np

from craft.shape.intake import half_outline
from studio.designs.models import Picture
from studio.errors import Refusal
from studio.shapes.limited import answer_of
from studio.shapes.schemas import TracingOut

_REFUSED = "No outline could be found on this picture: trace it by hand."

MOST_SVG_BYTES = 2 * 2**20


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
    answer = answer_of("drawing", raw, memory_mb=1_500, refused=_REFUSED, kind="no-outline")
    made = _half(answer, list(answer["notes"]), 0, 0)
    made.mm, made.section = answer["mm"], answer["section"]
    return made


def _half(answer: dict[str, Any], notes: list[str], width: int, height: int) -> TracingOut:
    found = half_outline(*(np.asarray(answer[name], float) for name in ("rows", "left", "right")))
    return TracingOut(
        handles=list(found.handles), pole=found.pole, width=width, height=height, notes=[*notes, *found.notes]
    )
