"""Which skein of a figure's yarns serves which piece, margin and tails included."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from craft.design.grading import Sized, part_yarn
from craft.design.joins import loose_copies
from craft.figure.materials import SKEIN_MARGIN, PieceNeed, SkeinPlan, skein_plan
from craft.rounds.fabric import MAIN_COLOUR
from craft.text.catalogue import ENGLISH, Words

MOST_PLANNED = 400
"""Pieces of a colour beyond which nobody follows a plan."""


def skein_plans(sized: Sized) -> Mapping[str, SkeinPlan]:
    """The plan of every yarn whose length on a skein is known, by its name. Pieces of a part are named 'Spine 3'."""
    design = sized.design
    needs: dict[str, list[PieceNeed]] = {}
    for key, worked in loose_copies(sized.worked).items():
        name = worked.name or "Part"
        for use in part_yarn(sized, key, replace(worked, make=1)):
            metres = max(use.metres.value * SKEIN_MARGIN, use.metres.high)
            colour = design.yarns[0].name if use.colour == MAIN_COLOUR and design.yarns else use.colour
            called = [name] if worked.make == 1 else [f"{name} {n}" for n in range(1, worked.make + 1)]
            needs.setdefault(colour, []).extend(PieceNeed(c, metres) for c in called)
    lengths = {y.name: sized.bought.get(y.name, y).skein_m for y in design.yarns}
    return {
        colour: skein_plan(pieces, length)
        for colour, pieces in needs.items()
        if (length := lengths.get(colour)) is not None and len(pieces) <= MOST_PLANNED
    }


def plan_said(plan: SkeinPlan, words: Words = ENGLISH) -> str:
    """A plan in words: 'skein 1: Body; skein 2: Face, Spine 1 to 6'; empty where one skein serves all."""
    if len(plan.skeins) < 2:
        return ""
    said = [
        words.say("skein {n}: {pieces}", n=n, pieces=", ".join(_runs(s.pieces, words)))
        for n, s in enumerate(plan.skeins, 1)
    ]
    if plan.joined:
        said.append(words.say("join yarn within {pieces}: more than one skein", pieces=words.listed(plan.joined)))
    return "; ".join(said)


def _runs(pieces: tuple[str, ...], words: Words) -> list[str]:
    """Pieces of one part that follow each other as 'Spine 2 to 5'."""
    runs: list[tuple[str, int, int]] = []
    for piece in pieces:
        stem, _, tail = piece.rpartition(" ")
        number = int(tail) if stem and tail.isdigit() else 0
        if number and runs and runs[-1][0] == stem and runs[-1][2] + 1 == number:
            runs[-1] = (stem, runs[-1][1], number)
        else:
            runs.append((stem, number, number) if number else (piece, 0, 0))
    return [_run(*run, words) for run in runs]


def _run(name: str, first: int, last: int, words: Words) -> str:
    if not first:
        return name
    return f"{name} {first}" if first == last else words.say("{name} {a} to {b}", name=name, a=first, b=last)
