"""A difference between two designs: the changes that make one of the other."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from craft.errors import require

MOST_CHANGES = 20_000

KEYED = {"parts": "key", "joins": "key", "steps": "key", "marks": "key", "sizes": "key", "yarns": "name"}
"""Lists of a design, and the field that tells their members apart."""

FIELDS = ("gauge", "eyes", "brief", "printed")
"""Pages of a design whose fields change one by one."""

PLAIN = ("name", "terms", "hand", "posture", "sources")
"""What of a design changes as a whole."""

WHOLE = "whole"
"""The key of a list whose members cannot be told apart, and which therefore changes as a whole."""


class Kind(StrEnum):
    """What a change is.

    ADDED, REMOVED, MOVED: a member of a list; it stands behind another. CHANGED: one field. ROUNDS: lines of a part's
    text. SHAPE: a part is drafted otherwise: its shape and all of its rounds. KEYS: other names for the same members.
    """

    ADDED = "added"
    REMOVED = "removed"
    MOVED = "moved"
    CHANGED = "changed"
    ROUNDS = "rounds"
    SHAPE = "shape"
    KEYS = "keys"


@dataclass(frozen=True, slots=True)
class Change:
    """One change. page: field of the design. key: of the member of a list, empty elsewhere. field: of that member.

    before, after: plain JSON values; of ROUNDS the lines that go and those that come. at: of ROUNDS, the line of the
    base's text before which it begins, counted from 0. behind: of ADDED and MOVED, the member it stands behind, None for
    the first place. numbers: rounds are numbered in order once all lines are in place. part: name of the part that it is
    about, for people.
    """

    kind: Kind
    page: str
    key: str = ""
    field: str = ""
    before: Any = None
    after: Any = None
    at: int | None = None
    behind: str | None = None
    numbers: bool = False
    part: str | None = None

    def __post_init__(self) -> None:
        require(self.page in (*KEYED, *FIELDS, *PLAIN), f"A design has no {self.page!r}.", field="page")
        if self.kind in (Kind.ADDED, Kind.REMOVED, Kind.MOVED):
            require(self.page in KEYED and bool(self.key), "Only members of lists come, go or move.", field="kind")
        if self.kind is Kind.KEYS:
            fit = isinstance(self.after, dict) and all(isinstance(v, str) for v in self.after.values())
            require(fit, "Other names are given as text.", field="after")
        if self.kind in (Kind.ROUNDS, Kind.SHAPE):
            require(self.page == "parts" and bool(self.key), "Only parts have rounds.", field="page")
        if self.kind is Kind.ROUNDS:
            require(self.at is not None and self.at >= 0, "Lines begin somewhere.", field="at")
            for lines in (self.before, self.after):
                fit = isinstance(lines, list) and all(isinstance(line, str) for line in lines)
                require(fit, "Lines are given as text.", field="after")
        if self.kind is Kind.SHAPE:
            fit = all(
                isinstance(v, dict) and {"text", "recipe", "drafted"} == set(v) for v in (self.before, self.after)
            )
            require(fit, "A shape is given with its rounds.", field="after")

    @property
    def span(self) -> tuple[int, int]:
        """Of ROUNDS, from which line of the base to which it reaches."""
        start = self.at or 0
        return start, start + len(self.before)


@dataclass(frozen=True, slots=True)
class Difference:
    """The changes that make one design of another. base: name of the one that they start from."""

    base: str
    changes: tuple[Change, ...] = ()

    def __post_init__(self) -> None:
        require(len(self.changes) <= MOST_CHANGES, f"A difference holds at most {MOST_CHANGES:,} changes.")

    def __bool__(self) -> bool:
        return bool(self.changes)
