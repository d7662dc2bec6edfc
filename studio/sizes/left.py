"""What is left in the basket of a figure's yarns."""

from __future__ import annotations

from collections.abc import Mapping

from django.contrib.auth.models import User

from studio.designs.manifest import Manifest
from studio.yarns.policy import visible_yarns

Left = Mapping[str, float]
"""What is left of yarns in the basket, in grams, by the names that a figure has for them."""


def left_of(user: User, manifest: Manifest) -> dict[str, float]:
    """Grams that are left of the yarns of a figure, by their names there; without those of which it is not told."""
    told = {y.pk: y.left_g for y in visible_yarns(user) if y.left_g is not None}
    return {y.name: told[y.yarn_id] for y in manifest.gauge.yarns if y.yarn_id in told}
