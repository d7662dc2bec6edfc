"""Painting, measured: a figure of so many stitches as a picture of 800 × 800, by software, once the programs are there."""

from __future__ import annotations

import statistics
import time

import numpy as np

from craft.figure.placement import Skin
from craft.figure.render import Look, Side, Subject, cloth_of, render
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft
from craft.shape.target import Form, Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.15, 0.4)
ASKED = {3_000: 500}
"""Milliseconds asked for, by stitches."""

GOES = 5


def _subject(height_mm: float) -> tuple[Subject, int]:
    made = draft(Recipe(Form(Solid("ellipsoid", height_mm, height_mm * 0.8))), GAUGE)
    settled = settle(check(print_rounds(made.part)).parts[0], GAUGE)
    cloth = cloth_of(Skin.of("Body", settled), np.eye(4), {"Main": "#c97b4a"})
    return Subject((cloth,)), len(settled.net.stitch)


def pictures_table() -> str:
    """Milliseconds a picture, the median of five; the first one of a process, with its context and programs, apart."""
    lines = ["stitches   first   then   asked"]
    for height in (75, 185, 340):
        subject, stitches = _subject(height)
        spent = []
        for _ in range(GOES + 1):
            begun = time.perf_counter()
            render(subject, Look(Side.BETWEEN))
            spent.append((time.perf_counter() - begun) * 1_000)
        near = next((ms for n, ms in ASKED.items() if abs(n - stitches) < n * 0.2), None)
        lines.append(f"{stitches:8} {spent[0]:7.0f} {statistics.median(spent[1:]):6.0f}   {near or '':>5}")
    return "Pictures of 800 × 800\n" + "\n".join(lines)
