"""When a settled figure may be taken for another text's: only where nothing that settling looks at is different."""

from __future__ import annotations

import pytest

from craft.gauge import Gauge
from studio.bench.figures import Settling

ROUNDS = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: sc around [12]\n"


def identity(text: str) -> str:
    wanted = Settling(text, "us", (), "Main", (), Gauge(5.6, 5.15, 0.4), 0.5)
    assert wanted.worked is not None
    return wanted.identity(wanted.worked)


@pytest.mark.parametrize("other", [ROUNDS.replace("inc x 6", "2 sc in each st"), f"{ROUNDS}Hum a little.\n"])
def test_other_words_for_the_same_stitches_settle_once(other: str) -> None:
    assert identity(other) == identity(ROUNDS)


@pytest.mark.parametrize(
    ("one", "other"),
    [
        (f"{ROUNDS}Do not stuff.\n", f"{ROUNDS}Do not stuff: press it flat.\n"),
        (f"{ROUNDS}Do not stuff.\n", f"{ROUNDS}Stuff.\n"),
        (
            "R1: 6 sc in ring\nR2: 6 inc\nInsert the base disc.\nR3: sc around\n",
            "R1: 6 sc in ring\nR2: 6 inc\nR3: sc around\nInsert the base disc.\n",
        ),
        (ROUNDS, ROUNDS.replace("sc around", "BLO: sc around")),
    ],
)
def test_what_settles_otherwise_is_another_question(one: str, other: str) -> None:
    assert identity(one) != identity(other)
