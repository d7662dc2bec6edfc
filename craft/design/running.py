"""A design's parts read and run: each knows the others as pieces that it may take in."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from craft.design.design import Design
from craft.design.parts import Part
from craft.problems import Severity
from craft.remembered import by_bytes
from craft.rounds.fabric import MAIN_COLOUR, Piece, WorkedPart
from craft.rounds.pattern import Part as Written
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.pieces_named import speaks_of_pieces

REMEMBERED = 64 * 2**20
"""Bytes of texts that stay read and run: some hundred parts of a thousand stitches."""


@dataclass(frozen=True, slots=True)
class OtherText:
    """Another part of the design, which a text may work in: its name, how often it is made, its text, its first yarn."""

    name: str
    make: int
    text: str
    colour: str = MAIN_COLOUR


def checked_text(
    text: str, terms: str, yarns: tuple[str, ...], colour: str = MAIN_COLOUR, others: tuple[OtherText, ...] = ()
) -> Checked:
    """A part's text read and run with `colour` on the hook at first, remembered.

    others: the design's other parts. They are run by themselves, so that parts may stand in any order; a text that speaks of
    no piece is the same whatever they are, and is not read anew when one of them changes.
    """
    heard = others if speaks_of_pieces(text, tuple(o.name for o in others)) else ()
    return _remembered(text, terms, yarns, colour, heard)


def _checked(
    text: str, terms: str, yarns: tuple[str, ...], colour: str = MAIN_COLOUR, others: tuple[OtherText, ...] = ()
) -> Checked:
    return check(text, Terms(terms), yarns, colour, _pieces(others, terms, yarns))


_remembered = by_bytes(REMEMBERED, lambda checked: checked.nbytes)(_checked)


def forget_texts() -> None:
    """Forget all texts that were read, so that a measurement begins from nothing."""
    _remembered.cache_clear()  # type: ignore[attr-defined]


def _pieces(others: tuple[OtherText, ...], terms: str, yarns: tuple[str, ...]) -> dict[str, Piece]:
    pieces: dict[str, Piece] = {}
    for other in others:
        worked = first_worked(_remembered(other.text, terms, yarns, other.colour))
        if worked is not None:
            pieces[other.name] = replace(worked, name=other.name, make=other.make).piece
    return pieces


def first_worked(checked: Checked) -> WorkedPart | None:
    """The first part of a text that has rounds, None while there is none."""
    return next((p for p in checked.parts if any(t.live for t in p.rounds)), None)


@dataclass(frozen=True)
class RunPart:
    """A part of a design with its text, read and run."""

    part: Part
    checked: Checked

    @property
    def key(self) -> str:
        """Its key for life."""
        return self.part.key

    @property
    def name(self) -> str:
        """What she calls it."""
        return self.part.name

    @property
    def faults(self) -> int:
        """How many faults it has."""
        return sum(p.severity is Severity.FAULT for p in self.checked.problems)

    @property
    def written(self) -> Written:
        """All that is written as one part, under the design's name for it."""
        parts = self.checked.reading.pattern.parts
        items = tuple(item for part in parts for item in part.items)
        return Written(self.part.name, items, self.part.make)

    @property
    def worked(self) -> WorkedPart | None:
        """The part as run, None while it has no stitches."""
        found = first_worked(self.checked)
        return None if found is None else replace(found, name=self.part.name, make=self.part.make)


def others_of(parts: Sequence[Part], key: str) -> tuple[OtherText, ...]:
    """The parts that the one with `key` may take in."""
    return tuple(OtherText(p.name, p.make, p.text, p.colour or MAIN_COLOUR) for p in parts if p.key != key)


def run_one(design: Design, part: Part) -> RunPart:
    """One part of a design, read and run; of the others only those that it speaks of."""
    colour = part.colour or MAIN_COLOUR
    others = others_of(design.parts, part.key)
    return RunPart(part, checked_text(part.text, design.terms.value, design.yarn_names, colour, others))


def run_parts(design: Design) -> tuple[RunPart, ...]:
    """Every part of a design, read and run, in its order."""
    return tuple(run_one(design, part) for part in design.parts)


class WorkedOnDemand(Mapping[str, WorkedPart]):
    """The parts of a design that have rounds, by key, as `worked_parts` has them: each is read when it is asked for."""

    def __init__(self, design: Design) -> None:
        self.design = design

    def __getitem__(self, key: str) -> WorkedPart:
        part = self.design.part(key)
        worked = None if part is None else run_one(self.design, part).worked
        if worked is None:
            raise KeyError(key)
        return worked

    def __iter__(self) -> Iterator[str]:
        return (part.key for part in self.design.parts if part.key in self)

    def __len__(self) -> int:
        return sum(1 for _ in self)


def worked_parts(parts: Sequence[RunPart]) -> dict[str, WorkedPart]:
    """Parts that have rounds, as run, by key."""
    return {p.key: w for p in parts if (w := p.worked) is not None}
