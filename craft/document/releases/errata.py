"""Errata: what of a pattern is different from an earlier release of it, by part and round, with old and new."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from craft.design.design import Design
from craft.design.remix import Change, Kind, difference, said
from craft.design.running import run_parts, worked_parts
from craft.design.saying import step_said

_DESK = {
    ("brief", "notes"),
    ("brief", "height_mm"),
    ("printed", "version"),
    ("printed", "changes"),
    ("printed", "count_table"),
    ("printed", "charts"),
    ("printed", "order"),
}
"""Fields that no maker sees, or that say nothing of the pattern."""

_LABEL = re.compile(r"\s*((?:R|Rnds?|Rounds?|Rows?)\s?\d+(?:\s?-\s?(?:R|Row)?\s?\d+)?)\s*:", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Erratum:
    """One thing that is otherwise. part: its name, '' for the whole figure. at: round's label or what it is about. before,
    after: as it was and as it is, '' for what was not or is no longer there."""

    part: str
    at: str
    before: str
    after: str


def errata(old: Design, new: Design) -> tuple[Erratum, ...]:
    """Everything that a maker with the old pattern has to know of the new one, in its order."""
    return tuple(_found(old, new))


def _found(old: Design, new: Design) -> Iterator[Erratum]:
    for change in difference(old, new).changes:
        if change.kind is Kind.KEYS or change.page == "sizes" or (change.page, change.field) in _DESK:
            continue
        if change.kind in (Kind.ROUNDS, Kind.SHAPE) and change.page == "parts":
            yield from _of_part(change, old, new)
        elif change.page == "steps":
            yield from _of_step(change, old, new)
        elif change.page == "parts" and change.field in ("recipe", "drafted", "text"):
            continue
        else:
            yield Erratum(_about(change), "", "", said(change, old, new))


def _about(change: Change) -> str:
    return change.part if change.page == "parts" and change.part else ""


def _of_part(change: Change, old: Design, new: Design) -> Iterator[Erratum]:
    """Lines that go beside lines that come, by the rounds that they are."""
    was, now = (d.part(change.key) for d in (old, new))
    name = now.name if now else change.part or ""
    if change.kind is Kind.SHAPE and was is not None and now is not None:
        before, after = _only(was.text.splitlines(), now.text.splitlines())
    else:
        before, after = list(change.before), list(change.after)
    gone = [t for t in before if t.strip()]
    came = [t for t in after if t.strip()]
    for label in dict.fromkeys([*map(_label, gone), *map(_label, came)]):
        one = " / ".join(_work(t) for t in gone if _label(t) == label)
        two = " / ".join(_work(t) for t in came if _label(t) == label)
        if one != two:
            yield Erratum(name, label, one, two)


def _only(a: Sequence[str], b: Sequence[str]) -> tuple[list[str], list[str]]:
    """The lines that stand in one of two texts alone."""
    return [t for t in a if t not in b], [t for t in b if t not in a]


def _label(line: str) -> str:
    found = _LABEL.match(line)
    return found[1] if found else ""


def _work(line: str) -> str:
    found = _LABEL.match(line)
    return line[found.end() :].strip() if found else line.strip()


def _of_step(change: Change, old: Design, new: Design) -> Iterator[Erratum]:
    before, after = _step(old, change.key), _step(new, change.key)
    number = next((n for n, s in enumerate(new.steps, 1) if s.key == change.key), None)
    if before != after:
        yield Erratum("", f"Step {number}" if number else "A step", before, after)


def _step(design: Design, key: str) -> str:
    step = next((s for s in design.steps if s.key == key), None)
    if step is None:
        return ""
    return step.text or step_said(design, step, worked_parts(run_parts(design)))


def as_lines(found: Sequence[Erratum]) -> tuple[str, ...]:
    """Errata as the lines of a list of changes, one each."""
    return tuple(_line(e) for e in found)


def _line(e: Erratum) -> str:
    where = ", ".join(filter(None, (e.part, e.at)))
    if not e.before or not e.after:
        what = e.after if e.after else f"“{e.before}” is taken out"
        new = f"new: “{e.after}”" if e.after and e.at else what
        return f"{where}: {new if e.after else what}" if where else what
    return f"{where}: “{e.before}” is now “{e.after}”"
