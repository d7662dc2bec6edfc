"""From base to figure, measured: the difference of two designs, their merge, a graft with adapter rounds."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from dataclasses import replace

from benchmarks.grading import typed_designs
from craft.design.design import Design
from craft.design.parts import Part
from craft.design.remix import Adapt, Cut, compared, difference, grafted, merged
from craft.design.running import forget_texts

GOES = 7
ASKED_MS = 50


def _eight() -> tuple[Design, Design]:
    """Eight parts with features, and the same with a round changed, one more and one gone in every part."""
    parts = [p for _, design in typed_designs() for p in design.parts]
    parts = [*parts, *parts][:8]
    made = tuple(Part(f"k{k}", f"{p.name} {k}", p.text, p.make) for k, p in enumerate(parts))
    other = tuple(replace(p, text=_changed(p.text)) for p in made)
    return Design("Eight", parts=made), Design("Eight otherwise", parts=other)


def _changed(text: str) -> str:
    lines = text.split("\n")
    at = len(lines) // 2
    return "\n".join([*lines[:at], "A line of hers.", *lines[at + 1 :]])


def _spent(work: Callable[[], object], before: Callable[[], object] = lambda: None) -> str:
    spent = []
    for _ in range(GOES):
        before()
        begun = time.perf_counter()
        work()
        spent.append(1000 * (time.perf_counter() - begun))
    return f"{statistics.median(spent):6.0f} ms  (at most {max(spent):.0f})"


def remix_table() -> str:
    """Medians of seven goes; texts that were read before are remembered, as in the studio."""
    one, two = _eight()
    body = "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\nR5-R12: sc around\nR13: (2 sc, dec) x 6\n"
    here = Design("Base", parts=(Part("b", "Body", body), *one.parts[:7]))
    there = Design("Piece", parts=(Part("p", "Head", body), *two.parts[:7]))
    rows = [
        ("difference of two designs of 8 parts", _spent(lambda: difference(one, two))),
        ("merge of three", _spent(lambda: merged(one, two, replace(one, name="Mine")))),
        ("compared in words, with what each takes", _spent(lambda: compared(one, two))),
        (
            "graft with adapter rounds, texts known",
            _spent(lambda: grafted(Cut(here, "b", 8), Cut(there, "p", 3), Adapt.ROUNDS)),
        ),
        (
            "graft with adapter rounds, texts new",
            _spent(lambda: grafted(Cut(here, "b", 8), Cut(there, "p", 3), Adapt.ROUNDS), forget_texts),
        ),
    ]
    head = f"From base to figure (asked: at most {ASKED_MS} ms for a difference and for a graft)"
    return "\n".join([head, *(f"  {name:45} {spent}" for name, spent in rows)])
