"""What a making measured, kept as a sample of its yarn."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from craft.making import sample_of
from studio.designs.models import Design
from studio.errors import Refusal
from studio.making.models import Kind, Making
from studio.making.shown import read
from studio.policy import Owner, Verb, demand, visible
from studio.yarns.actions import add_swatch
from studio.yarns.models import Swatch, Yarn


@transaction.atomic
def keep_sample(user: User, design: Design, making: Making) -> Swatch:
    """A making's measures as a stuffed sample. Refusal where no length was measured, or its yarn is not in the basket."""
    demand(Owner(user), Verb.CHANGE, making)
    if making.kind == Kind.TESTER:
        raise Refusal(422, "not-hers", "A tester's hand is not yours: only what you made is a sample of your gauge.")
    one = read(making)
    sample = sample_of(one.sheet, one.pairs)
    if sample is None:
        raise Refusal(
            422, "invalid", "No length of it was measured yet: measure its height, its width, or around a round."
        )
    page = design.manifest.gauge
    pk = page.yarns[0].yarn_id if page.yarns else None
    yarn = visible(Owner(user), Verb.CHANGE, Yarn).filter(pk=pk).first() if pk else None
    if yarn is None:
        raise Refusal(422, "invalid", "Its yarn is not in your basket: choose one at Gauge first.")
    values = {
        "hook_mm": one.progress.hook_mm or one.sheet.hook_mm or 3.0,
        "strands": page.strands,
        "kind": "stuffed",
        "stitches": sample.stitches,
        "across_mm": round(sample.across_mm, 1),
        "rounds": sample.rounds,
        "up_mm": round(sample.up_mm, 1),
    }
    return add_swatch(user, yarn, values)
