"""Rounds that join: a limb worked in instead of sewn, and plain stitches that bring the start back.

Both change one round of a fold, which is written out for it; every other line stays as typed.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from craft.errors import CraftError, require
from craft.rounds.fabric import stem
from craft.rounds.pattern import Instruction, Repeat, Round, Work
from craft.rounds.stitches import Terms, stitch
from craft.rounds.unrolled import counted, gathered, written_out
from craft.text.check import check
from craft.text.notation import print_item, print_round
from craft.text.reshaping.changes import reshape
from craft.text.reshaping.commands import Rotate
from craft.text.reshaping.whole import TAIL
from craft.text.reshaping.written import (
    Written,
    applied,
    is_plain,
    line_edit,
    round_at,
    unfolded,
    with_shift,
    written_rounds,
)


@dataclass(frozen=True, slots=True)
class Limb:
    """A limb to be worked in: its name as the text says it, the first stitch of its place (from 0), how many."""

    name: str
    at: int
    stitches: int


def _found(text: str, terms: Terms, number: int) -> tuple[Written, int]:
    """The written round that holds the worked round `number` (from 1), and which of its fold that is."""
    checked = check(text, terms)
    if not checked.sound and any(p.code in ("unread", "bracket", "too-large") for p in checked.problems):
        raise CraftError("Mend the faults of this part first.")
    return round_at(written_rounds(checked), number)


def work_in(text: str, terms: Terms, number: int, limbs: Sequence[Limb]) -> str:
    """The text with `limbs` worked into its round `number` (from 1).

    CraftError when the round is not plain single stitches where a limb goes, or limbs overlap.
    """
    written, which = _found(text, terms, number)
    if not is_plain(written):
        raise CraftError(f"{written.made.label} is more than plain stitches once around; choose another round.")
    stitches = written_out(written.made.body, written.before)
    for limb in sorted(limbs, key=lambda x: x.at):
        own = stitches[limb.at : limb.at + limb.stitches]
        # Of a round that shapes, places count what it makes, and more or fewer stitches are worked.
        shapes = len(own) < limb.stitches and any(_is_other(item) for item in stitches)
        if shapes or any(_is_other(item) for item in own):
            raise CraftError(
                f"Where the {limb.name} goes, {written.made.label} increases, decreases or works something in already: move "
                "the place, or choose a plain round.",
                field="round",
            )
        room = f"The {limb.name} has {limb.stitches} stitches, and {written.made.label} only {len(own)} from there on."
        require(len(own) == limb.stitches, room, field="round")
        stitches[limb.at : limb.at + limb.stitches] = [
            replace(i, through=limb.name) for i in own if isinstance(i, Work)
        ]
    body = _said(stitches)
    return applied(text, [unfolded(text, written, which, replace(written.made, body=body, count=written.after), terms)])


def _is_other(item: Instruction) -> bool:
    """Whether an item of a round is more than a plain stitch of its own part."""
    return not isinstance(item, Work) or bool(item.through) or bool(stitch(item.stitch).change)


def take_out(text: str, terms: Terms, limb: str) -> str:
    """The text without a limb that its rounds work in: they go through this part alone there.

    CraftError when no round works it in.
    """
    checked = check(text, terms)
    edits = []
    for written in written_rounds(checked):
        body = tuple(_alone(i, limb) for i in written.made.body)
        if body != written.made.body:
            edits.append(line_edit(written, terms, tuple(counted(body)), written.after))
    require(bool(edits), f"No round works {limb} in.", field="step")
    return applied(text, edits)


def _alone(item: Instruction, limb: str) -> Instruction:
    """An instruction without the limb in it."""
    if isinstance(item, Repeat):
        return replace(item, body=tuple(_alone(i, limb) for i in item.body))
    if isinstance(item, Work) and item.through and stem(item.through) == stem(limb):
        return replace(item, through=None)
    return item


def open_flat(text: str, terms: Terms) -> str:
    """A limb's text with its folded end left open, and a tail to sew it on; the other way of `fold_flat`.

    A text whose end is not folded comes back as it is.
    """
    checked = check(text, terms)
    rounds = written_rounds(checked)
    last = rounds[-1] if rounds else None
    if last is None or not any(isinstance(i, Work) and i.through == "" for i in last.made.body):
        return text
    kept = [ln for ln in text[: last.made.span.start].rstrip().split("\n") if not _about_the_end(ln)]
    return "\n".join([*kept, print_item(TAIL, terms)]) + "\n"


def _said(stitches: Sequence[Instruction]) -> tuple[Instruction, ...]:
    """Stitches in the shortest way, with what is worked through something kept apart."""
    out: list[Instruction] = []
    run: list[Instruction] = []
    for item in stitches:
        if isinstance(item, Work) and item.through:
            out += gathered(run)
            run = []
            above = out[-1] if out else None
            if isinstance(above, Work) and above.through == item.through:
                out[-1] = replace(above, count=above.count + 1)
            else:
                out.append(item)
        else:
            run.append(item)
    return (*out, *gathered(run))


def keep_sides(text: str, terms: Terms, first: int, last: int, lean: float) -> str:
    """The text with the shaping of the rounds on lines `first` to `last` moved along so that it stays on its side.

    Every round drifts by its lean; bunched increases are moved on by what the start has wandered
    since the first of these rounds (2π·lean / n a round, common practice). CraftError when none of
    them has shaping, or drifts by half a stitch.
    """
    checked = check(text, terms)
    lines = {n.span.start: n.number for n in checked.reading.lines}
    angle, moved = 0.0, 0
    for worked in checked.parts:
        for tally in worked.rounds:
            line = lines.get(tally.span.start, 0)
            if not first <= line <= last or not tally.live:
                continue
            by = math.floor(angle * tally.live + 0.5)
            if by and tally.marks:
                text = reshape(text, terms, Rotate(line, line, by))
                moved += 1
            angle += lean / tally.live
    if not moved:
        raise CraftError("No shaping of these rounds drifts by half a stitch: there is nothing to move.")
    return text


def fold_flat(text: str, terms: Terms, edge: int) -> str:
    """A limb's text that ends with its tube of `edge` stitches folded and closed."""
    require(edge >= 2 and edge % 2 == 0, f"A tube of {edge} stitches cannot be folded: it needs an even number.")
    closing = Round(None, None, (Work("sc", edge // 2, through=""),), edge // 2)
    line = f"Fold flat: {print_round(closing, terms, label=False)}"
    kept = [ln for ln in text.rstrip().split("\n") if not _about_the_end(ln)]
    return "\n".join([*kept, line, "Fasten off."]) + "\n"


def _about_the_end(line: str) -> bool:
    said = line.strip().lower()
    return said.startswith(("leave a long tail", "fasten off")) or "tail for sewing" in said


def add_shift(text: str, terms: Terms, number: int, many: int) -> str:
    """The text with `many` plain stitches after round `number` that bring the start back."""
    require(1 <= many <= 200, "Shift by 1 to 200 stitches.", field="many")
    written, which = _found(text, terms, number)
    body = with_shift(written, many)
    return applied(text, [unfolded(text, written, which, replace(written.made, body=body, count=written.after), terms)])
