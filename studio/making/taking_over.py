"""What makings measured, taken over: as a sample of a yarn, as the finished size that the booklet prints."""

from __future__ import annotations

from dataclasses import asdict

from django.contrib.auth.models import User
from django.db import transaction

from craft.making import Quantity, learned, sample_of
from studio.designs.manifest import MadeEntry
from studio.designs.models import Design
from studio.designs.pages import set_page
from studio.errors import Refusal
from studio.making.editions import predicted_size
from studio.making.models import Kind, Making
from studio.making.shown import read, read_all
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


PRINTED = {Quantity.HEIGHT: "height_made", Quantity.WIDTH: "width_made"}
"""Where the booklet's page keeps what makings taught, by the length."""


@transaction.atomic
def print_size(user: User, design: Design, quantity: Quantity) -> Design:
    """Have the booklet print a length as makings measured it. Refusal where too few have."""
    demand(Owner(user), Verb.CHANGE, design)
    tall, wide = predicted_size(user, design)
    predicted = tall if quantity is Quantity.HEIGHT else wide
    if not predicted:
        raise Refusal(422, "invalid", "The figure has no size yet: write its rounds first.")
    found = learned([p for one in read_all(design) for p in one.pairs])
    made = next((one.made(predicted) for one in found if one.quantity is quantity), None)
    if made is None:
        raise Refusal(422, "too-few", "From fewer than three makings nothing is told: it stays an estimate.")
    page = design.manifest.booklet.model_copy(update={PRINTED[quantity]: MadeEntry(**asdict(made))})
    return set_page(user, design.pk, "booklet", design.revision.number, page)
