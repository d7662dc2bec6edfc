"""Changes by a base or a piece: each one action, one undo."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from pydantic import ValidationError

from craft.design.design import Design as DesignValue
from craft.design.remix import Adapt, Cut, alone, grafted
from studio.accounts.policy import own_profile
from studio.bases.reading import base_now, change_key, cut_of, source_of
from studio.bases.schemas import GraftIn, TakeIn
from studio.designs.actions import copy_design
from studio.designs.manifest import BaseEntry, SizesPage
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.reading import design_value, noted_value
from studio.designs.recording import record
from studio.designs.rewriting import rewritten, versions_of
from studio.designs.texts import keep_all_typed
from studio.errors import Refusal
from studio.refusals import placed_sentence


@transaction.atomic
def take_from_base(user: User, pk: int, asked: TakeIn) -> Design:
    """Changes of the base taken into a design. Refusal 409 when the base moved on since they were shown."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    found = base_now(user, design)
    places = {change_key(c): n for n, c in enumerate(found.merge.theirs)}
    wanted = set(asked.take)
    if found.now != asked.now or wanted - set(places):
        raise Refusal(
            409, "stale-base", f"{found.origin.name} or this design was changed since you looked; look again."
        )
    if not wanted and not asked.done:
        raise Refusal(422, "invalid", "Choose what to take.", field="take")
    made = found.merge.taking([places[key] for key in wanted])
    name, many = found.origin.name, len(wanted)
    label = f"Took {many} {'change' if many == 1 else 'changes'} of {name}" if many else f"Left what is new in {name}"
    base = BaseEntry(number=found.now, size=found.size, worn=found.worn) if asked.done else None
    _write(design, noted_value(design), made, label, base)
    return design


@transaction.atomic
def graft(user: User, pk: int, asked: GraftIn) -> Design:
    """A design whose part goes on as a piece."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    below = Cut(design_value(design), asked.part, asked.upto)
    above = cut_of(user, asked.taken)
    adapt = None if asked.adapt is None else Adapt(asked.adapt)
    made = grafted(below, above, adapt, source_of(user, asked.taken))
    name = above.run.name
    _write(design, below.design, made.design, f"{below.run.name} goes on as {name} behind R{asked.upto}", None)
    return design


def _write(design: Design, before: DesignValue, made: DesignValue, label: str, base: BaseEntry | None) -> None:
    try:
        manifest = rewritten(design.manifest, before, made, versions_of(design, before, made))
    except ValidationError as error:
        raise Refusal(422, "invalid", f"This cannot be taken: {placed_sentence(error.errors()[0])}") from None
    if base is not None:
        manifest = manifest.model_copy(update={"base": base})
    record(design, manifest, label)


@transaction.atomic
def make_alone(user: User, pk: int, key: str) -> Design:
    """A part that comes off as a design of its own, that says what it fits and whose the figure is; what is new of it there
    can be taken over later."""
    figure = design_of(user, pk, lock=True)
    keep_all_typed(figure)
    made = alone(design_value(figure), key, own_profile(user).studio)
    base = BaseEntry(number=figure.revision.number, worn=key)
    return copy_design(user, pk, made.name, made, {"base": base, "sizes": SizesPage()})
