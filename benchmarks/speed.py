"""Speed of what a designer waits for, one thread."""

from __future__ import annotations

import os
import random
import statistics
import time
from collections.abc import Callable

os.environ.setdefault("SPIRREL_SECRET_KEY", "only-for-benchmarks")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")

import django

django.setup()

from craft.design.grading import regrade  # noqa: E402
from craft.document.chart import draw_chart  # noqa: E402
from craft.figure.body import body_of  # noqa: E402
from craft.figure.picture import draw  # noqa: E402
from craft.figure.placement import place  # noqa: E402
from craft.gauge import Gauge  # noqa: E402
from craft.shape.drafting import Recipe, draft  # noqa: E402
from craft.shape.target import Solid  # noqa: E402
from craft.text.check import check  # noqa: E402
from craft.text.notation import read  # noqa: E402
from craft.text.notation.bodies import read_body  # noqa: E402
from studio.bench.previews import preview  # noqa: E402
from studio.bench.schemas import PreviewIn  # noqa: E402

GAUGE = Gauge(5.6, 5.15)
IN = {"stitch_mm": 5.6, "round_mm": 5.15}


def measured(work: Callable[[int], object], times: int) -> tuple[float, float]:
    """Median and worst of `times` runs in ms; `work` gets the number of the run, to make each one new."""
    spent = []
    for n in range(times):
        begun = time.perf_counter()
        work(n)
        spent.append((time.perf_counter() - begun) * 1000)
    return statistics.median(spent), max(spent)


def long_part(rounds: int, n: int) -> str:
    """A part of so many rounds, up to 66 stitches wide; `n` makes it differ by one round."""
    lines = ["R1: 6 sc in ring [6]", *(f"R{i}: inc x 6, sc around [{6 * i}]" for i in range(2, 12))]
    for i in range(12, rounds + 1):
        edited = "(10 sc, inc, dec, 9 sc) x 3" if i != rounds // 2 else f"{n % 60 + 1} sc, {65 - n % 60} sc"
        lines.append(f"R{i}: {edited} [66]")
    return "\n".join(lines)


def _question(text: str) -> PreviewIn:
    return PreviewIn.model_validate({"text": text, "terms": "us", "gauge": IN})


def _json(text: str) -> bytes:
    return preview(_question(text)).model_dump_json().encode()


def _cold(_: int) -> object:
    read_body.cache_clear()
    return check(long_part(130, 0))


def _cold_long(rounds: int) -> object:
    """A part as long as limits allow, with nothing remembered: time grows as the stitches do."""
    read_body.cache_clear()
    return check(long_part(rounds, 0))


def _signs_at_random(n: int) -> str:
    """A text of 400 signs that patterns are made of, in no order: the dearest kind for a reader that guesses."""
    chance = random.Random(n)
    return "".join(chance.choices("R0123456789:.,;()[]*x sciednvl-'\"\n\t mgtoarup{}=<>", k=400))


def speed_table() -> str:
    """Every measured wait beside its budget."""
    check(_signs_at_random(-1))
    part = draft(Recipe(Solid("egg", 90, 70)), GAUGE).part
    body = body_of(check(long_part(60, 0)).parts[0], GAUGE)
    rows = [
        ("preview of an edited part, 60 rounds, JSON out", 20, measured(lambda n: _json(long_part(60, n)), 60)),
        ("parse + run + check, 130 rounds, 8,200 stitches, cold", 250, measured(_cold, 5)),
        ("the same after one edit", 20, measured(lambda n: check(long_part(130, n + 1)), 40)),
        ("50,000 stitches in 760 rounds, cold", None, measured(lambda n: _cold_long(760), 3)),
        ("99,000 stitches in 1,500 rounds, cold", None, measured(lambda n: _cold_long(1_500), 3)),
        ("chart of 60 rounds as SVG", None, measured(lambda n: draw_chart(check(long_part(60, n)).parts[0]), 10)),
        (
            "draft a round solid of 30 rounds",
            10,
            measured(lambda n: draft(Recipe(Solid("egg", 110 + n % 5, 90)), GAUGE), 30),
        ),
        (
            "draft a round solid of 60 rounds",
            40,
            measured(lambda n: draft(Recipe(Solid("egg", 230 + n % 5, 180)), GAUGE), 30),
        ),
        (
            "regrade 8 parts to 6 sizes",
            1000,
            measured(lambda _: [regrade(part, s / 10, GAUGE) for s in (6, 8, 12, 14, 16, 20) for _ in range(8)], 3),
        ),
        (
            "SVG picture, 60 rounds",
            150,
            measured(lambda _: draw({"a": body}, place({"a": body}, {}, ()), {}, title="a"), 10),
        ),
        ("check 400 signs in no order", None, measured(lambda n: check(_signs_at_random(n)), 100)),
        ("read a text of 5,000,000 characters, refused", 1000, measured(lambda _: read("R1: sc\n" * 800_000), 3)),
    ]
    lines = ["Speed (ms, one thread)", f"{'what':<58}{'budget':>8}{'median':>9}{'worst':>9}"]
    lines += [f"{what:<58}{budget or chr(45):>8}{median:>9.1f}{worst:>9.1f}" for what, budget, (median, worst) in rows]
    return "\n".join(lines)
