"""The arithmetic of a round's repeats in words, for whoever points at one."""

from __future__ import annotations

from craft.problems import Span
from craft.remembered import of_short
from craft.rounds.arithmetic import round_sum, settled, sum_of
from craft.rounds.pattern import Instruction, Repeat, Round


def repeats_said(made: Round, live: int) -> tuple[tuple[Span, str], ...]:
    """Every repeat of a round worked on `live` stitches: its raw place, and its sum in words."""
    return tuple((made.within(span), said) for span, said in _said(made.body, live))


@of_short(4_096)
def _said(body: tuple[Instruction, ...], live: int) -> tuple[tuple[Span, str], ...]:
    fill = round_sum(body, live).fill
    found: list[tuple[Span, str]] = []
    for item in settled(body):
        if isinstance(item, Repeat):
            unit = sum_of(item.body)
            times = fill if item.times is None else item.times
            if times is None:
                continue
            found.append(
                (
                    item.span,
                    f"takes {unit.takes} × {times} = {unit.takes * times} stitches, "
                    f"gives {unit.gives} × {times} = {unit.gives * times}",
                )
            )
    return tuple(found)
