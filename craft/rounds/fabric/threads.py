"""Threads sewn through a piece: which stitches each holds together, and at what length."""

from __future__ import annotations

from dataclasses import dataclass

from craft.rounds.fabric.hook import Hook
from craft.rounds.pattern import Step


@dataclass(frozen=True, slots=True)
class Thread:
    """A thread through the filling: indices in the graph of the stitches at its ends, and its length in mm."""

    first: int
    last: int
    length_mm: float


def threads_of(hook: Hook, step: Step) -> tuple[Thread, ...]:
    """The threads that a direction sews through what has been worked so far; places that are not there are told."""
    found: list[Thread] = []
    for words in step.threads:
        ends = []
        for number, stitch in ((words.from_round, words.from_stitch), (words.to_round, words.to_stitch)):
            tally = next((t for t in reversed(hook.tallies) if t.number == number), None)
            if tally is None or stitch > tally.end - tally.first:
                made = "is not worked yet" if tally is None else f"has {tally.end - tally.first} stitches"
                said = f"A thread goes through stitch {stitch} of R{number}, which {made}."
                hook.tell("no-thread-place", said, f"R{number}", step.span)
                break
            ends.append(tally.first + stitch - 1)
        if len(ends) == 2 and ends[0] != ends[1]:
            found.append(Thread(ends[0], ends[1], words.length_mm))
    return tuple(found)
