"""Whose designs, and what a link opens of them."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from studio.designs.manifest import PartEntry
from studio.designs.models import Design, Picture, Revision
from studio.errors import NOT_FOUND, Refusal
from studio.policy import Owner, Purpose, Rule, Verb, register, visible

register(
    Design,
    Rule(
        "owner",
        "pk",
        {
            Purpose.READ: frozenset({Verb.READ_BOOKLET}),
            Purpose.TEST: frozenset({Verb.READ_BOOKLET, Verb.REPORT}),
            Purpose.CLIENT: frozenset(),
            Purpose.TRANSLATE: frozenset(),
        },
    ),
)
register(Revision, Rule("design__owner", "design_id"))
register(Picture, Rule("owner", "design_id"))


def with_texts(designs: QuerySet[Design]) -> QuerySet[Design]:
    """Designs with what was typed into their parts, looked up with them."""
    return designs.prefetch_related("typed_texts")


def visible_designs(user: User) -> QuerySet[Design]:
    """Her designs."""
    return visible(Owner(user), Verb.SEE, Design).select_related("head")


def design_of(user: User, pk: int, *, lock: bool = False) -> Design:
    """One of her designs, else 404. lock: hold its row until the transaction ends."""
    rows = visible(Owner(user), Verb.CHANGE, Design).select_for_update() if lock else visible_designs(user)
    return get_object_or_404(rows, pk=pk)


def whole_design_of(user: User, pk: int) -> Design:
    """One of her designs with what was typed into its parts, else 404."""
    return get_object_or_404(with_texts(visible_designs(user)), pk=pk)


def part_of(design: Design, key: str) -> PartEntry:
    """A part of the shown revision, else 404."""
    for part in design.manifest.parts:
        if part.key == key:
            return part
    raise Refusal(404, "not-found", NOT_FOUND)


def revision_of(design: Design, number: int) -> Revision:
    """A revision by its number, else 404."""
    return get_object_or_404(design.revisions, number=number)


def picture_of(user: User, pk: int) -> Picture:
    """One of her pictures, else 404."""
    return get_object_or_404(visible(Owner(user), Verb.SEE, Picture), pk=pk)
