"""What is done in putting together, and where, in the trade's words."""

from __future__ import annotations

import re
from collections.abc import Mapping

from craft.design.anchors import Place
from craft.design.design import Design, MadeOf, Mark, Step
from craft.design.joins import EdgeOf, Fixing, Join, Manner
from craft.rounds.fabric import WorkedPart

_SEATS = {Manner.PINCHED: ", pinched flat", Manner.OPEN: ", open edge down", Manner.LAID: ", laid on"}

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


def deed_said(join: Join) -> str:
    """What a join asks for: 'Sew on', 'Press the opening flat and sew on'."""
    return _FASTENED.get(join.fixing) or _DEEDS[join.manner]


def place_said(design: Design, at: Place, worked: Mapping[str, WorkedPart], join: Join | None = None) -> str:
    """A place in words, and how a part that is joined there sits: 'on Body, R12, 4 stitches to either side of the front
    middle, pinched flat'."""
    host = design.part(at.on)
    now = at.now(worked)
    where = f"on {host.name if host else 'a part that is gone'}, R{now.round}"
    run = worked.get(at.on)
    if join is not None and join.spread > 1:
        where = f"{where}, {join.spread} spread evenly around, the first"
    if not now.stitch:
        side = "at the top" if run and now.round >= len(run.counts) else "at the front, in the middle"
    elif run and abs(now.stitch) >= run.counts[min(now.round, len(run.counts)) - 1] / 2:
        side = "at the back, in the middle"
    else:
        many = counted(abs(now.stitch), "stitch", "stitches")
        if join is not None and join.paired:
            side = f"{many} to either side of the front middle"
        else:
            side = f"{many} to the {'left' if now.stitch > 0 else 'right'} of the front middle as you look at it"
    return f"{where}, {side}{seat_said(join) if join else ''}"


def seat_said(join: Join) -> str:
    """How the part sits there, as far as she said it."""
    if join.edge is EdgeOf.START:
        return ", upside down, on its first round"
    return _SEATS.get(join.manner, "") if join.manner else ""


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
    where = f" {place_said(design, at, worked, join)}" if at is not None and (join is None or not join.worked) else ""
    if join is None:
        return f"Attach {part.name}{where}."
    deed = _SENTENCES.get(join.fixing) or _SENTENCES.get(join.manner or Manner.OPEN, "Sew {}")
    return f"{deed.format(part.name)}{where}."


def mark_said(design: Design, mark: Mark, worked: Mapping[str, WorkedPart]) -> str:
    """A mark of the face as a sentence: 'Embroider the nose, 8 mm wide and 5 mm high, on Body, R9, at the front …'."""
    name = mark.name or "a point"
    size = f"{mark.wide_mm:g} mm wide and {mark.tall_mm:g} mm high"
    at = place_said(design, mark.place, worked)
    both = ", and the same on the other side" if mark.paired else ""
    if mark.to is not None:
        return f"Embroider {name}: a line from {_bare(at)} to {_bare(place_said(design, mark.to, worked))}{both}."
    if mark.made_of is MadeOf.FELT:
        many = "two ovals" if mark.paired else "an oval"
        return f"Cut {many} of felt for {name}, {size}, and sew {'them' if mark.paired else 'it'} {at}{both}."
    if mark.made_of is MadeOf.BLUSH:
        return f"Brush on {name}, {size}, {at}{both}."
    return f"Embroider {name}{f', {size},' if mark.covers else ''} {at}{both}."


def _bare(place: str) -> str:
    return place.removeprefix("on ")


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
