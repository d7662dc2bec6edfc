"""Two designs from one base, brought together: what the base has that is new, taken into hers.

A merge is a set of changes to the base: hers, and those of the other that are taken. What both changed, each otherwise,
is a conflict: she has hers or the other.
"""

from __future__ import annotations

import copy
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace

from craft.design.brought import parts_in_terms
from craft.design.design import Design
from craft.design.remix.applying import put_into
from craft.design.remix.changes import WHOLE, Change, Kind
from craft.design.remix.difference import difference
from craft.design.remix.likeness import Json, names_like, renamed
from craft.design.stored import from_json, to_json
from craft.errors import require
from craft.rounds.stitches import Terms


@dataclass(frozen=True, slots=True)
class Conflict:
    """What both changed: numbers of changes in `Merge.hers` and in `Merge.theirs`."""

    hers: tuple[int, ...]
    theirs: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Merge:
    """What can be taken. base: of both; mine, theirs_now: what became of it. hers, theirs: what each changed in it; what
    both did alike is in hers alone."""

    base: Design
    mine: Design
    theirs_now: Design
    hers: tuple[Change, ...]
    theirs: tuple[Change, ...]
    conflicts: tuple[Conflict, ...]

    def taking(self, numbers: Collection[int]) -> Design:
        """Hers with the chosen changes of the other; in a conflict a chosen one goes before hers. CraftError for a number
        that there is not, or for what does not make a design any more."""
        require(all(0 <= n < len(self.theirs) for n in numbers), "There is no such change to take.", field="take")
        if not numbers:
            return self.mine
        out = {n for c in self.conflicts if set(c.theirs) & set(numbers) for n in c.hers}
        chosen = [c for n, c in enumerate(self.hers) if n not in out]
        chosen += [c for n, c in enumerate(self.theirs) if n in numbers]
        made = put_into(copy.deepcopy(to_json(self.base)), _together(chosen))
        return from_json(_sound(made))

    @property
    def free(self) -> tuple[int, ...]:
        """The changes of the other that are in nobody's way."""
        taken = {n for c in self.conflicts for n in c.theirs}
        return tuple(n for n in range(len(self.theirs)) if n not in taken)


def merged(base: Design, mine: Design, theirs: Design) -> Merge:
    """What became of `base` in hers and in the other, held against each other. Members keep the base's keys."""
    base, theirs = in_terms(base, mine.terms), in_terms(theirs, mine.terms)
    like = to_json(base)
    mine_now, theirs_now = (from_json(renamed(d, names_like(d, like))) for d in (to_json(mine), to_json(theirs)))
    hers, others = difference(base, mine_now).changes, difference(base, theirs_now).changes
    others = tuple(c for c in others if not _same_as(c, hers) and c.page != "name")
    return Merge(base, mine, theirs, hers, others, _conflicts(hers, others))


def in_terms(design: Design, terms: Terms) -> Design:
    """A design in other terms, with the same meaning. CraftError names the part that is unclear."""
    if design.terms == terms:
        return design
    return replace(design, parts=parts_in_terms(design.parts, design.terms, terms), terms=terms)


def _same_as(change: Change, others: Iterable[Change]) -> bool:
    return any(replace(c, part=change.part) == change for c in others)


def _conflicts(hers: Sequence[Change], theirs: Sequence[Change]) -> tuple[Conflict, ...]:
    """Changes in each other's way, with all that hang together through them."""
    pairs = [(a, b) for b, other in enumerate(theirs) for a, own in enumerate(hers) if _clash(own, other)]
    groups: list[tuple[set[int], set[int]]] = []
    for a, b in pairs:
        near = [g for g in groups if a in g[0] or b in g[1]]
        fresh = ({a}.union(*(g[0] for g in near)), {b}.union(*(g[1] for g in near)))
        groups = [g for g in groups if g not in near] + [fresh]
    return tuple(Conflict(tuple(sorted(a)), tuple(sorted(b))) for a, b in groups)


def _clash(a: Change, b: Change) -> bool:
    """Whether only one of the two can be."""
    if a.page != b.page or Kind.KEYS in (a.kind, b.kind):
        return False
    if WHOLE in (a.key, b.key):
        return True
    if a.key != b.key:
        return False
    if Kind.REMOVED in (a.kind, b.kind):
        return Kind.MOVED not in (a.kind, b.kind) and a.kind != b.kind
    if Kind.SHAPE in (a.kind, b.kind):
        shape = ("text", "recipe", "drafted")
        return Kind.MOVED not in (a.kind, b.kind) and a.field in shape and b.field in shape
    if a.kind is Kind.ROUNDS and b.kind is Kind.ROUNDS:
        numbers_only = not (a.before or a.after) or not (b.before or b.after)
        return not numbers_only and _meet(a.span, b.span)
    return a.kind is b.kind and a.field == b.field


def _meet(a: tuple[int, int], b: tuple[int, int]) -> bool:
    """Whether two runs of lines share a line, or begin at the same place."""
    return a[0] == b[0] or (a[0] < b[1] and b[0] < a[1])


def _together(changes: Sequence[Change]) -> list[Change]:
    """Changes of both, without those that are said twice."""
    out: list[Change] = []
    for change in changes:
        if not _same_as(change, out):
            out.append(change)
    return out


def _sound(design: Json) -> Json:
    """A design whose steps name only joins that there are."""
    joins = {j["key"] for j in design["joins"]}
    steps = [{**s, "join": s["join"] if s["join"] in joins else None} for s in design["steps"]]
    return {**design, "steps": steps}
