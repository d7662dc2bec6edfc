"""Sewn limbs turned into limbs that are worked in, and back."""

from __future__ import annotations

import math

from django.contrib.auth.models import User

from craft.design.anchors import PlaceNow
from craft.design.assembly import Assembled
from craft.design.joins import Join, as_worked
from craft.design.running import OtherText, RunPart, checked_text
from craft.errors import CraftError
from craft.figure.placement import Surface
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart, singular
from craft.rounds.stitches import Terms
from craft.text.reshaping import Limb, fold_flat, open_flat, take_out, work_in
from studio.bench.scenes import staged
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.texts import rewrite_parts
from studio.errors import NOT_FOUND, Refusal

BEGUN = "The figure is still settling, and the place is found on it: try again in a moment."


WORKED_IN = "Worked in, not sewn:"
"""How the step of a part begins that is worked in."""


def join_in(user: User, pk: int, step_key: str) -> Design:
    """The design with a step's part worked into its host; one revision.

    Refused with a sentence when the place, the limb or the round do not allow it.
    """
    design = design_of(user, pk)
    found = staged(user, design, ask=True).assembled
    if all(s.key != step_key for s in found.design.steps):
        raise Refusal(404, "not-found", NOT_FOUND)
    join = found.design.join(step_key)
    if join is not None and as_worked(join, found.worked) is not join:
        return _said_worked_in(user, design, found, join)
    if join is None or join.place is None or join.part not in found.worked or join.host not in found.worked:
        raise CraftError("Say first which part goes on which round of another.", field="step")
    surface = found.surfaces.get(join.host)
    if surface is None:
        raise Refusal(409, "not-done", BEGUN)
    parts = {p.key: p for p in found.parts}
    limb, host = parts[join.part], parts[join.host]
    terms = found.design.terms
    limb_text, edge = _folded(limb, found.worked[join.part], terms)
    now = join.place.now(found.worked)
    limbs = _limbs(now, surface, limb.name, edge // 2, paired=join.paired)
    at = min(now.round, surface.rounds)
    host_text = work_in(host.part.text, terms, at, limbs)
    _must_be_sound(found, host, {limb.key: limb_text}, host_text, "Worked in")
    label = surface.labels[at - 1]
    said = f"{WORKED_IN} {limb.name} joined with {label} of {host.name}."
    page = design.manifest.assembly
    steps = [
        s.model_copy(update={"no_sew": True, "text": said, "before_closing": False}) if s.key == step_key else s
        for s in page.steps
    ]
    order = [p.key for p in found.parts if p.key != limb.key]
    order.insert(order.index(host.key), limb.key)
    return rewrite_parts(
        user, pk, {limb.key: limb_text, host.key: host_text}, page.model_copy(update={"steps": steps}), order,
        f"Worked {limb.name} into {host.name}",
    )  # fmt: skip


def _said_worked_in(user: User, design: Design, found: Assembled, join: Join) -> Design:
    """The design with a step said as its rounds have it already: only the step is another, and no round."""
    names = {p.key: p.name for p in found.parts}
    page = design.manifest.assembly
    steps = [
        s.model_copy(update={"no_sew": True, "text": "", "before_closing": False}) if s.key == join.key else s
        for s in page.steps
    ]
    return rewrite_parts(
        user, design.pk, {}, page.model_copy(update={"steps": steps}), [p.key for p in found.parts],
        f"{names[join.part]} is worked into {names[join.host]} by its rounds",
    )  # fmt: skip


def sew_again(user: User, pk: int, step_key: str) -> Design:
    """The design with a part that is worked in sewn on instead, in its place; one revision. The other way of `join_in`.

    Refused with a sentence when no round of its host works it in.
    """
    design = design_of(user, pk)
    found = staged(user, design, ask=False).assembled
    step = next((s for s in design.manifest.assembly.steps if s.key == step_key), None)
    if step is None:
        raise Refusal(404, "not-found", NOT_FOUND)
    parts = {p.key: p for p in found.parts}
    limb, host = parts.get(step.part or ""), parts.get(step.on or "")
    if limb is None or host is None:
        raise CraftError("Say first which part goes on which round of another.", field="step")
    terms = found.design.terms
    host_text, limb_text = take_out(host.part.text, terms, limb.name), open_flat(limb.part.text, terms)
    _must_be_sound(found, host, {limb.key: limb_text}, host_text, "Sewn on")
    # What was said of the working in is over: the step says itself again, with its place.
    said = "" if (step.text or "").startswith(WORKED_IN) else step.text
    page = design.manifest.assembly
    steps = [s.model_copy(update={"no_sew": False, "text": said}) if s.key == step_key else s for s in page.steps]
    return rewrite_parts(
        user, pk, {limb.key: limb_text, host.key: host_text}, page.model_copy(update={"steps": steps}),
        [p.key for p in found.parts], f"Sewed {limb.name} to {host.name}",
    )  # fmt: skip


def _folded(limb: RunPart, worked: WorkedPart, terms: Terms) -> tuple[str, int]:
    """The limb's text closed flat, and the stitches of its opening."""
    last = worked.rounds[-1]
    if worked.closed:
        raise CraftError(f"{limb.name} is drawn shut: only an open tube can be folded and worked in.", field="step")
    if last.flat or last.live * 2 == last.taken:
        return limb.part.text, last.live * 2
    return fold_flat(limb.part.text, terms, last.live), last.live


def _limbs(now: PlaceNow, surface: Surface, name: str, many: int, *, paired: bool) -> list[Limb]:
    """Where the limb's copies go into the round, the first in working order first."""
    at = min(now.round, surface.rounds) - 1
    count = surface.count_of(at)
    sides = (1.0, -1.0) if paired else (1.0,)
    firsts = sorted(_first(surface, at, sign * 2 * math.pi * now.stitch / count, many) for sign in sides)
    said = singular(name.lower())
    if len(firsts) == 1:
        return [Limb(said, firsts[0], many)]
    if firsts[1] - firsts[0] < many:
        raise CraftError(f"The two would overlap: {many} stitches each do not fit there.", field="step")
    return [Limb(f"{which} {said}", first, many) for which, first in zip(("first", "second"), firsts, strict=True)]


def _first(surface: Surface, at: int, angle: float, many: int) -> int:
    """First stitch (from 0) of `many` centred on an angle; not across the start of the round."""
    count = surface.count_of(at)
    if many > count // 2:
        raise CraftError(
            f"{many} stitches are more than half of {surface.labels[at]}; choose a wider round.", field="step"
        )
    middle = surface.place_at(at, angle) % count
    return int(min(max(round(middle - (many - 1) / 2), 0), count - many))


def _must_be_sound(found: Assembled, host: RunPart, changed: dict[str, str], text: str, how: str) -> None:
    """Refuse what would not add up, with the first fault."""
    others = tuple(
        OtherText(p.name, p.part.make, changed.get(p.key, p.part.text), p.part.colour or MAIN_COLOUR)
        for p in found.parts
        if p.key != host.key
    )
    design = found.design
    checked = checked_text(text, design.terms.value, design.yarn_names, host.part.colour or MAIN_COLOUR, others)
    if not checked.sound:
        first = next(p for p in checked.problems if p.severity.value == "fault")
        raise CraftError(f"{how} here it would not add up: {first.message}", field="step")
