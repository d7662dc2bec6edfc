"""What became of everything that a part holds when it was made at another size."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum


class State(StrEnum):
    """Kept as it was, moved with the shape, changed, or lost."""

    KEPT = "kept"
    MOVED = "moved"
    CHANGED = "changed"
    LOST = "lost"


@dataclass(frozen=True, slots=True)
class Feature:
    """One thing of a part. kind: what it is, in a word or two. before, after: how it is said at both sizes, empty where
    it is not there. why: in a sentence, where it did not simply stay."""

    part: str
    kind: str
    state: State
    before: str = ""
    after: str = ""
    why: str = ""

    @property
    def words(self) -> str:
        """The row as a sentence."""
        change = f"{self.before} → {self.after}" if self.before and self.after else self.before or self.after
        change = change.rstrip(".")
        said = f"{self.part}: {self.kind} {self.state.value}" + (f", {change}" if change else "")
        return f"{said}. {self.why}" if self.why else f"{said}."


def notes_of(features: Iterable[Feature]) -> tuple[str, ...]:
    """What did not stay, in sentences."""
    return tuple(f.words for f in features if f.state in (State.CHANGED, State.LOST))
