"""'Repeat from * n times': n in all or n more, settled by what the round below and the count fit."""

from __future__ import annotations

from dataclasses import replace

from craft.rounds.arithmetic import round_sum
from craft.rounds.pattern import Instruction, Repeat
from craft.text.notation.marks import StarRepeat


def settle_stars(
    body: tuple[Instruction | StarRepeat, ...], live: int, count: int | None
) -> tuple[tuple[Instruction, ...], StarRepeat | None]:
    """Choose the reading of 'repeat from * n times' that fits the round below and the count.

    Returns the body and the star whose reading stays open, None when all are settled.
    """
    star = next((i for i in body if isinstance(i, StarRepeat)), None)
    if star is None:
        return _plain(body), None
    fits: list[tuple[Instruction, ...]] = []
    readings = [
        _plain(
            tuple(
                Repeat(_plain(i.body), n, None, i.span, i.times_span) if isinstance(i, StarRepeat) else i for i in body
            )
        )
        for n in (star.said, star.said + 1)
    ]
    for reading in readings:
        sums = round_sum(reading, live)
        if (not live or sums.rest == 0) and (count is None or sums.total.gives == count):
            fits.append(reading)
    return (fits[0], None) if len(fits) == 1 else (readings[0], star)


def _plain(body: tuple[Instruction | StarRepeat, ...]) -> tuple[Instruction, ...]:
    """The body with every star within brackets read as so many in all."""
    out: list[Instruction] = []
    for item in body:
        if isinstance(item, StarRepeat):
            out.append(Repeat(_plain(item.body), item.said, None, item.span, item.times_span))
        elif isinstance(item, Repeat):
            out.append(replace(item, body=_plain(item.body)))
        else:
            out.append(item)
    return tuple(out)
