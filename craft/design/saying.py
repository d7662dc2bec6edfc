"""What is done in putting together, and where, in the trade's words, in the language of whoever reads it."""

from __future__ import annotations

import re
from collections.abc import Mapping

from craft.design.anchors import Place
from craft.design.design import Design, MadeOf, Mark, Step
from craft.design.joins import EdgeOf, Fixing, Join, Manner, as_worked
from craft.figure.placement import Towards
from craft.rounds.fabric import WorkedPart
from craft.text.catalogue import ENGLISH, Words

_SEATS = {Manner.PINCHED: ", pinched flat", Manner.OPEN: ", open edge down", Manner.LAID: ", laid on"}

_BENT = {
    Towards.FRONT: ", bent forwards by {n}° at its {round}",
    Towards.BACK: ", bent backwards by {n}° at its {round}",
    Towards.UP: ", bent upwards by {n}° at its {round}",
    Towards.DOWN: ", bent downwards by {n}° at its {round}",
    Towards.IN: ", bent inwards by {n}° at its {round}",
    Towards.OUT: ", bent outwards by {n}° at its {round}",
}

_DEEDS = {
    None: "Sew on",
    Manner.OPEN: "Sew on",
    Manner.LAID: "Sew on",
    Manner.PINCHED: "Press the opening flat and sew on",
    Manner.EDGE: "Join the two openings stitch to stitch",
    Manner.WORKED_IN: "Worked in, not sewn",
    Manner.MERGED: "Worked on together, not sewn",
}
"""What a step does that has no words of its own, by the manner of its join."""

_FASTENED = {
    Fixing.SNAPS: "Sew one half of each snap fastener to either part and snap it on",
    Fixing.TAPE: "Sew hook-and-loop tape to either part and press it on",
    Fixing.SLIPPED: "Slip on",
}
"""The same for what comes off again."""


def deed_said(join: Join, words: Words = ENGLISH) -> str:
    """What a join asks for: 'Sew on', 'Press the opening flat and sew on'."""
    return words.say(_FASTENED.get(join.fixing) or _DEEDS[join.manner])


def place_said(
    design: Design,
    at: Place,
    worked: Mapping[str, WorkedPart],
    join: Join | None = None,
    words: Words = ENGLISH,
    *,
    bare: bool = False,
) -> str:
    """A place in words, and how a part that is joined there sits: 'on Body, R12, 4 stitches to either side of the front
    middle, pinched flat'. bare: without the 'on'."""
    host = design.part(at.on)
    now = at.now(worked)
    name = host.name if host else words.say("a part that is gone")
    where = words.say("{part}, {round}" if bare else "on {part}, {round}", part=name, round=words.round(now.round))
    if join is not None and join.spread > 1:
        where = words.say("{where}, {n} spread evenly around, the first", where=where, n=join.spread)
    run = worked.get(at.on)
    return f"{where}, {_side(now.round, now.stitch, run, join, words)}{seat_said(join, words) if join else ''}"


def _side(round_: int, stitch: float, run: WorkedPart | None, join: Join | None, words: Words) -> str:
    if not stitch:
        top = run is not None and round_ >= len(run.counts)
        return words.say("at the top") if top else words.say("at the front, in the middle")
    if run and abs(stitch) >= run.counts[min(round_, len(run.counts)) - 1] / 2:
        return words.say("at the back, in the middle")
    away = words.many("{n} stitch", "{n} stitches", abs(stitch))
    if join is not None and join.paired:
        return words.say("{away} to either side of the front middle", away=away)
    if stitch > 0:
        return words.say("{away} to the left of the front middle as you look at it", away=away)
    return words.say("{away} to the right of the front middle as you look at it", away=away)


def seat_said(join: Join, words: Words = ENGLISH) -> str:
    """How the part sits there, as far as she said it."""
    return f"{_edge_said(join, words)}{_bends_said(join, words)}"


def _bends_said(join: Join, words: Words = ENGLISH) -> str:
    return "".join(
        words.say(_BENT[bend.towards], n=f"{bend.degrees:g}", round=words.round(bend.round)) for bend in join.bends
    )


def _edge_said(join: Join, words: Words) -> str:
    if join.edge is EdgeOf.START:
        return words.say(", upside down, on its first round")
    return words.say(_SEATS[join.manner]) if join.manner in _SEATS else ""


_SENTENCES = {
    Manner.PINCHED: "Press the opening of {} flat and sew it",
    Manner.EDGE: "Join {} stitch to stitch",
    Manner.WORKED_IN: "Worked in, not sewn: {}",
    Manner.MERGED: "Worked on together, not sewn: {}",
    Fixing.SNAPS: "Sew snap fasteners to both and snap {}",
    Fixing.TAPE: "Sew hook-and-loop tape to both and press {}",
    Fixing.SLIPPED: "Slip {}",
}


def step_said(design: Design, step: Step, worked: Mapping[str, WorkedPart]) -> str:
    """A step as a sentence of its own, from what was placed: 'Sew Ears on Head, R5, 4 stitches to either side of the front
    middle.' Empty for a step about nothing."""
    join, part = design.join(step.join), design.part(step.part or "")
    at = join.place if join else step.place
    if part is None:
        return ""
    join = join and as_worked(join, worked)
    sewn = at is not None and (join is None or not join.worked)
    where = f" {place_said(design, at, worked, join)}" if sewn and at else _bends_said(join) if join else ""
    if join is None:
        return f"Attach {part.name}{where}."
    deed = _SENTENCES.get(join.fixing) or _SENTENCES.get(join.manner or Manner.OPEN, "Sew {}")
    return f"{deed.format(part.name)}{where}."


def mark_said(design: Design, mark: Mark, worked: Mapping[str, WorkedPart], words: Words = ENGLISH) -> str:
    """A mark of the face as a sentence: 'Embroider the nose, 8 mm wide and 5 mm high, on Body, R9, at the front …'."""
    name = mark.name or words.say("a point")
    size = words.say("{wide} mm wide and {tall} mm high", wide=f"{mark.wide_mm:g}", tall=f"{mark.tall_mm:g}")
    at = place_said(design, mark.place, worked, words=words)
    if mark.to is not None:
        ends = [place_said(design, p, worked, words=words, bare=True) for p in (mark.place, mark.to)]
        said = words.say("Embroider {name}: a line from {at} to {to}", name=name, at=ends[0], to=ends[1])
    elif mark.made_of is MadeOf.FELT:
        one, two = (
            "Cut an oval of felt for {name}, {size}, and sew it {at}",
            "Cut two ovals of felt for {name}, {size}, and sew them {at}",
        )
        said = words.say(two if mark.paired else one, name=name, size=size, at=at)
    elif mark.made_of is MadeOf.BLUSH:
        said = words.say("Brush on {name}, {size}, {at}", name=name, size=size, at=at)
    elif mark.covers:
        said = words.say("Embroider {name}, {size}, {at}", name=name, size=size, at=at)
    else:
        said = words.say("Embroider {name} {at}", name=name, at=at)
    return said + (words.say(", and the same on the other side") if mark.paired else "") + "."


_ROUND = re.compile(r"(?i)\b(?:r|rnds?|rounds?)\s?(\d{1,4})(?:\s?(?:-|–|to|and|/)\s?(?:r|rnds?|rounds?)?\s?(\d{1,4}))?")


def disagrees(text: str, round_now: int) -> str | None:
    """Why her own sentence does not say where the part is, None when it does or names no round."""
    named = [(int(m[1]), int(m[2] or m[1])) for m in _ROUND.finditer(text)]
    if not named or any(low - 1 <= round_now <= high + 1 for low, high in named):
        return None
    said = " and ".join(f"R{low}" if low == high else f"R{low} to R{high}" for low, high in named)
    return f"Your sentence says {said}, but it sits at R{round_now}."


def counted(many: float, one: str, more: str) -> str:
    """A number with its noun: '1 stitch', '2.5 stitches'."""
    return f"{many:g} {one if many == 1 else more}"
