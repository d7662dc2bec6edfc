"""A tube rolled up: which of the rounds that were worked lie on its spiral."""

from __future__ import annotations

from dataclasses import dataclass

from craft.rounds.fabric.hook import Hook
from craft.rounds.pattern import Step


@dataclass(frozen=True, slots=True)
class Rolling:
    """A part that is rolled up: indices of the rounds at the coil's middle and at its end, among those worked."""

    inner: int
    outer: int


def rolling_of(hook: Hook, step: Step) -> Rolling | None:
    """What a direction rolls up of what has been worked so far; rounds that are not there are told."""
    coil = step.coil
    tallies = hook.tallies
    if coil is None or not tallies:
        return None
    if coil.inner is None or coil.outer is None:
        first, last = 0, len(tallies) - 1
        turned = tallies[0].live > tallies[last].live
        return Rolling(last, first) if turned != coil.wide_inside else Rolling(first, last)
    found: list[int] = []
    for number in (coil.inner, coil.outer):
        at = next((i for i, t in enumerate(tallies) if t.number == number), None)
        if at is None:
            hook.tell(
                "no-coil-round", f"The coil begins or ends at R{number}, which is not worked yet.", None, step.span
            )
            return None
        found.append(at)
    return Rolling(found[0], found[1])
