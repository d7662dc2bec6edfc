"""Order of work: what must come before what, and how far a step can be moved."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from craft.errors import require


@dataclass(frozen=True, slots=True)
class Job:
    """A step as far as order goes: its words, the part, what it is joined to, whether it needs a hand inside."""

    text: str
    part: str | None = None
    on: str | None = None
    inside: bool = False

    @property
    def joins(self) -> bool:
        """Whether it joins a part to another."""
        return self.on is not None and self.part is not None

    @property
    def wires(self) -> bool:
        """Whether it puts wire in."""
        return puts_in_wire(self.text)


_WIRE = re.compile(r"(?i)\b(wire|wires|pipe cleaner|armature)\b")


def puts_in_wire(text: str) -> bool:
    """Whether the words of a step put wire into a part."""
    return _WIRE.search(text) is not None


@dataclass(frozen=True, slots=True)
class Misplaced:
    """A step that comes too late: its index, the one it must precede, and why."""

    step: int
    before: int
    why: str


def _must_precede(a: Job, b: Job) -> str | None:
    """Why `a` must come before `b`, None when it need not."""
    if a.inside and not b.inside and a.part is not None and b.joins and a.part in (b.part, b.on):
        return "what goes inside comes before the part is closed and sewn on"
    if a.wires and a.part is not None and b.joins and not b.wires and b.part == a.part:
        return "wire goes in before the part is sewn on"
    if a.wires and b.text.strip().lower().startswith(("close", "sew shut")) and a.part == b.part:
        return "wire goes in before the part is closed"
    return None


def misplaced(jobs: Sequence[Job]) -> tuple[Misplaced, ...]:
    """Every step that comes after one it must precede."""
    found: list[Misplaced] = []
    for late in range(len(jobs)):
        for early in range(late):
            why = _must_precede(jobs[late], jobs[early])
            if why is not None:
                found.append(Misplaced(late, early, why))
                break
    return tuple(found)


def room(jobs: Sequence[Job], step: int) -> tuple[int, int]:
    """First and last place (from 0) that a step can be moved to without breaking an order that holds now."""
    require(0 <= step < len(jobs), "There is no such step.", field="step")
    first, last = 0, len(jobs) - 1
    for other in range(len(jobs)):
        if other < step and _must_precede(jobs[other], jobs[step]) is not None:
            first = max(first, other + 1)
        if other > step and _must_precede(jobs[step], jobs[other]) is not None:
            last = min(last, other - 1)
    return first, last


_RANKS = (
    (0, re.compile(r"(?i)\b(stuff|base disc|pellets)\b")),
    (1, re.compile(r"(?i)\b(head)\b")),
    (2, re.compile(r"(?i)\b(arm|wing|flipper)s?\b")),
    (3, re.compile(r"(?i)\b(leg|foot|feet|paw)s?\b")),
    (4, re.compile(r"(?i)\b(ear|horn|antler|feeler|antenna)s?\b")),
    (5, re.compile(r"(?i)\b(tail|shell|cap|hat)s?\b")),
    (6, re.compile(r"(?i)\b(nose|mouth|brow|cheek|embroider|face|snout)s?\b")),
)


def _rank(job: Job, name: str) -> int:
    if job.inside or job.wires:
        return -1
    return next((rank for rank, said in _RANKS if said.search(f"{name} {job.text}")), 3)


def arranged(jobs: Sequence[Job], names: Sequence[str]) -> tuple[int, ...]:
    """The order a maker would choose, as indices: inside first, body to head, arms, legs, ears, tail, face last.

    names: of each step's part, '' for none. Steps of one kind keep their order; whatever must
    precede another does.
    """
    require(len(jobs) == len(names), "Every step has a name or an empty one.")
    wanted = sorted(range(len(jobs)), key=lambda i: (_rank(jobs[i], names[i]), i))
    out: list[int] = []
    while wanted:
        free = next(
            (i for i in wanted if all(_must_precede(jobs[o], jobs[i]) is None for o in wanted if o != i)), wanted[0]
        )
        out.append(free)
        wanted.remove(free)
    return tuple(out)
