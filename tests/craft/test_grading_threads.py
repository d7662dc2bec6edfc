"""Threads sewn through a typed part, at other sizes: where they lay, and as short against the figure."""

from __future__ import annotations

import numpy as np
import pytest

from craft.design.grading import State, regrade
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.rounds.pattern import Step
from craft.text.check import check
from craft.text.notation import resewn

GAUGE = Gauge(5.6, 5.15)
BALL = (
    "R1: 6 sc in ring [6]\nR2: inc around [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5-R9: sc around [24]\n"
    "Stuff.\nSew through and draw in: R6 st 1 to R6 st 13, 20 mm; R8 st 4 to st 16 (18 mm), and knot.\n"
    "R10: (2 sc, dec) x 6 [18]\nR11: (sc, dec) x 6 [12]\nR12: dec around [6]\n"
)


@pytest.mark.parametrize("scale", [0.6, 0.8, 1.25, 1.5, 2.0])
def test_a_thread_lies_where_it_lay_around_and_is_as_long_against_the_figure(scale: float) -> None:
    before = check(BALL).reading.pattern.parts[0]
    made = regrade(before, scale, GAUGE)
    (was,) = (item for item in before.items if isinstance(item, Step) and item.threads)
    (now,) = (item for item in made.part.items if isinstance(item, Step) and item.threads)
    stitches = {t.number: t.made for t in made.worked.rounds}
    first = {t.number: t.made for t in check(BALL).parts[0].rounds}
    for old, new in zip(was.threads, now.threads, strict=True):
        share = new.length_mm / old.length_mm
        assert share == pytest.approx(scale, abs=0.6 / old.length_mm)
        for there, here in (
            ((old.from_round, old.from_stitch), (new.from_round, new.from_stitch)),
            ((old.to_round, old.to_stitch), (new.to_round, new.to_stitch)),
        ):
            around = (there[1] - 0.5) / first[there[0]], (here[1] - 0.5) / stitches[here[0]]
            assert around[1] == pytest.approx(around[0], abs=1 / stitches[here[0]])
            assert here[0] / len(stitches) == pytest.approx(there[0] / len(first), abs=1.5 / len(stitches))
    (row,) = (f for f in made.features if f.kind == "sewn threads")
    assert row.state is State.MOVED
    assert "and knot" in row.after


def test_a_graded_ball_is_drawn_in_by_its_threads() -> None:
    made = regrade(check(BALL).reading.pattern.parts[0], 1.5, GAUGE)
    settled = settle(made.worked, GAUGE)
    thread = made.worked.threads[0]
    node = {int(s): i for i, s in enumerate(settled.net.stitch)}
    between = float(np.linalg.norm(settled.x[node[thread.first]] - settled.x[node[thread.last]]))
    assert between == pytest.approx(30, abs=2.5)


def test_her_words_between_the_threads_stay() -> None:
    said = "Sew through and draw in: round 8, stitch 3 to round 9 stitch 15 (4,5 mm). Knot."
    again = resewn(said, lambda end: (end[0] + 1, end[1] * 2), 2, lambda words: words.upper())
    assert again == "SEW THROUGH AND DRAW IN: round 9, stitch 6 to round 10 stitch 30 (9 mm). KNOT."
