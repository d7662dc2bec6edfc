"""What testers say: grouped where they say the same of the same place, and as heat on the ladder."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from craft.making.deviations import deviations
from craft.making.folding import Progress
from craft.making.happenings import Remark, Remarked
from craft.making.worksheet import Worksheet

OTHERWISE = "otherwise"
"""What was done otherwise, beside the kinds of remarks."""


@dataclass(frozen=True, slots=True)
class Said:
    """What one tester says. by: her name. event: the id of where she says it."""

    by: str
    text: str
    event: str
    at: int


@dataclass(frozen=True, slots=True)
class Group:
    """Everything of one kind that is said of one place. part: '' for a step of the assembly, or for the whole pattern."""

    part: str
    round: int
    place: str
    what: str
    says: str
    said: tuple[Said, ...]

    @property
    def key(self) -> str:
        """The same as long as the place and the kind are."""
        return f"{self.part or 'steps'}-{self.round}-{self.what}"

    @property
    def asks(self) -> bool:
        """Whether it asks for an answer: praise does not."""
        return self.what != Remark.LIKED.value

    @property
    def testers(self) -> int:
        """How many different testers say so."""
        return len({s.by for s in self.said})


def grouped(sheet: Worksheet, makings: Iterable[tuple[str, Progress]]) -> tuple[Group, ...]:
    """All remarks, and what was done otherwise, of all testers: what most of them say first. makings: (name, what her log
    comes to)."""
    found: dict[tuple[str, int, str], list[Said]] = {}
    for name, progress in makings:
        for told in progress.remarks:
            what = told.event.what
            assert isinstance(what, Remarked)
            said = Said(name, what.text, told.event.id, told.event.at)
            found.setdefault((what.part, what.round, what.what.value), []).append(said)
        for one in deviations(sheet, progress):
            at = next((t.event.at for t in progress.otherwise if t.event.id == one.events[0]), 0)
            found.setdefault((one.part, one.round, OTHERWISE), []).append(Said(name, one.told, one.events[0], at))
    order = {p.key: i for i, p in enumerate(sheet.parts)}
    groups = [_group(sheet, place, said) for place, said in found.items()]
    return tuple(sorted(groups, key=lambda g: (-g.testers, order.get(g.part, len(order)), g.round, g.what)))


def _group(sheet: Worksheet, place: tuple[str, int, str], said: Sequence[Said]) -> Group:
    part, round_, what = place
    told = tuple(sorted(said, key=lambda s: (s.at, s.event)))
    own, rung = sheet.part(part), sheet.rung(part, round_)
    if rung is not None and own is not None:
        return Group(part, round_, f"{own.name} {rung.label}", what, f"{rung.work} [{rung.count}]", told)
    if own is not None:
        return Group(part, round_, own.name, what, "", told)
    if 1 <= round_ <= len(sheet.steps):
        return Group("", round_, f"Step {round_}", what, sheet.steps[round_ - 1], told)
    return Group("", 0, "The whole pattern", what, "", told)


def heat(groups: Iterable[Group], part: str, rounds: int) -> tuple[int, ...]:
    """How many testers stumbled at each round of a part, praise left out."""
    stumbled: dict[int, set[str]] = {}
    for group in groups:
        if group.part == part and group.asks:
            stumbled.setdefault(group.round, set()).update(s.by for s in group.said)
    return tuple(len(stumbled.get(at, ())) for at in range(1, rounds + 1))
