"""In which order parts are made: what another one takes in comes before it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from craft.design.joins import joins_in_rounds
from craft.rounds.fabric import WorkedPart


def part_order(worked: Mapping[str, WorkedPart], wished: Sequence[str] = ()) -> tuple[str, ...]:
    """Keys of the parts in the order of the booklet: as `wished`, those it does not name behind in their own order; each
    after the parts that its rounds take in, whatever was wished."""
    keys = [*(k for k in dict.fromkeys(wished) if k in worked), *(k for k in worked if k not in set(wished))]
    needs: dict[str, list[str]] = {}
    for part, host in joins_in_rounds(worked):
        needs.setdefault(host, []).append(part)
    order: list[str] = []

    def put(key: str, waiting: tuple[str, ...]) -> None:
        if key in order or key in waiting:  # parts that take in each other stay in their order
            return
        for first in sorted(needs.get(key, []), key=keys.index):
            put(first, (*waiting, key))
        order.append(key)

    for key in keys:
        put(key, ())
    return tuple(order)
