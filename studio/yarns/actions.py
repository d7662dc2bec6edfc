"""Changes of the basket."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from studio.errors import Refusal
from studio.yarns.gauges import craft_yarn, swatch_gauge
from studio.yarns.models import Swatch, Yarn

MOST_YARNS = 500
MOST_SWATCHES = 2_000


@transaction.atomic
def add_yarn(user: User, values: dict[str, Any]) -> Yarn:
    """A new yarn; CraftError when its thickness makes no sense."""
    if user.yarns.count() >= MOST_YARNS:
        raise Refusal(422, "invalid", f"The basket holds at most {MOST_YARNS} yarns.")
    yarn = Yarn(owner=user, **values)
    craft_yarn(yarn)
    yarn.save()
    return yarn


@transaction.atomic
def change_yarn(yarn: Yarn, values: dict[str, Any]) -> Yarn:
    """Change a yarn; designs keep the copy they were made with."""
    for name, value in values.items():
        setattr(yarn, name, value)
    craft_yarn(yarn)
    yarn.save()
    return yarn


def remove_yarn(yarn: Yarn) -> None:
    """Take a yarn and its swatches out of the basket."""
    yarn.delete()


@transaction.atomic
def add_swatch(user: User, yarn: Yarn, values: dict[str, Any]) -> Swatch:
    """A new swatch; CraftError when its measures give no gauge, Refusal when there are too many."""
    if user.swatches.count() >= MOST_SWATCHES:
        raise Refusal(422, "full", f"The basket holds at most {MOST_SWATCHES:,} swatches: throw old ones away first.")
    swatch = Swatch(owner=user, yarn=yarn, **values)
    swatch_gauge(swatch)
    swatch.save()
    return swatch


def remove_swatch(swatch: Swatch) -> None:
    """Throw a swatch away; gauges taken from it stay as they are."""
    swatch.delete()
