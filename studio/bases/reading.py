"""A design's base: as it was taken in, and as it is now."""

from __future__ import annotations

import hashlib
import json
from dataclasses import dataclass, replace

from django.contrib.auth.models import User

from craft.design.design import Design as DesignValue
from craft.design.design import Source
from craft.design.remix import Change, Cut, Difference, Merge, Worn, alone, merged, worn_again, worn_of
from craft.design.remix.stored import to_json
from craft.document.booklet import TheBase
from studio.accounts.policy import own_profile
from studio.bases.schemas import TakenFrom
from studio.designs.manifest import SizeEntry
from studio.designs.models import Design
from studio.designs.policy import design_of, revision_of, visible_designs
from studio.designs.reading import design_value, noted_value, revision_value
from studio.errors import NOT_FOUND, Refusal
from studio.pieces.policy import piece_of
from studio.pieces.values import piece_value
from studio.sizes.actions import value_at_size

NOT_WORN = "{figure} does not wear what {part} was made from any more; nothing new can come from it."
GONE = "The design that this one was made from is not there any more; nothing new can come from it."


@dataclass(frozen=True)
class BaseNow:
    """A base that moves on. taken, now: numbers of its revisions. size: at which size the design was made of it. worn:
    the part that comes off there, where the design is that alone; fits: what it goes around there by now."""

    origin: Design
    taken: int
    now: int
    size: SizeEntry | None
    merge: Merge
    worn: str | None = None
    fits: Worn | None = None


def base_of(user: User, design: Design) -> Design | None:
    """The design that one was made from, None where it is gone or not hers."""
    return visible_designs(user).filter(pk=design.origin_id).first() if design.origin_id else None


def base_now(user: User, design: Design) -> BaseNow:
    """What became of a design's base since it was taken in. Refusal for a design without one."""
    origin = base_of(user, design)
    if origin is None or design.origin_number is None:
        raise Refusal(404, "no-base", GONE if design.origin_name else "This design was made from nothing else.")
    entry = design.manifest.base
    taken = entry.number if entry else design.origin_number
    size = entry.size if entry else None
    before, after = (revision_value(r) for r in (revision_of(origin, taken), origin.revision))
    if entry is not None and entry.worn is not None:
        return _worn_now(user, design, origin, entry.worn, (taken, before, after))
    if size is not None:
        before, after = (value_at_size(user, v, size) for v in (before, after))
        if size.kind == "yarn":  # it has a yarn and a gauge of its own
            after = replace(after, yarns=before.yarns, gauge=before.gauge)
    return BaseNow(origin, taken, origin.revision.number, size, merged(before, noted_value(design), after))


def _worn_now(
    user: User, design: Design, origin: Design, key: str, figures: tuple[int, DesignValue, DesignValue]
) -> BaseNow:
    """What became of the figure that something was made for: of the part itself, and of what it goes around there."""
    taken, before, after = figures
    hers = noted_value(design)
    if not any(w.key == key for w in worn_of(after)):
        raise Refusal(404, "no-base", NOT_WORN.format(figure=origin.name, part=design.name))
    studio = own_profile(user).studio
    merge = merged(alone(before, key, studio), hers, alone(after, key, studio))
    return BaseNow(origin, taken, origin.revision.number, None, merge, key, worn_again(after, key, hers))


def change_key(change: Change) -> str:
    """What a change is called between a screen that shows it and the request that takes it: by what it says."""
    said = json.dumps(to_json(Difference("", (change,)))["changes"], ensure_ascii=False, sort_keys=True)
    return hashlib.sha256(said.encode()).hexdigest()[:16]


def other_value(user: User, pk: int, revision: int | None, size: str | None) -> DesignValue:
    """Another of her designs as a value: as it is, at an earlier revision, or at one of its sizes."""
    design = design_of(user, pk)
    value = design_value(design) if revision is None else revision_value(revision_of(design, revision))
    if size is None:
        return value
    entry = next((s for s in design.manifest.sizes.sizes if s.key == size), None)
    if entry is None:
        raise Refusal(404, "not-found", NOT_FOUND)
    return value_at_size(user, value, entry)


def cut_of(user: User, asked: TakenFrom) -> Cut:
    """Where a piece is taken from: one of her designs, or of the pieces she can use."""
    if asked.piece is not None:
        kept = piece_value(piece_of(user, asked.piece))
        return Cut(kept.design, kept.main if asked.part is None else asked.part, asked.first)
    if asked.design is None or asked.part is None:
        raise Refusal(422, "invalid", "Say which part goes on from there.", field="part")
    return Cut(design_value(design_of(user, asked.design)), asked.part, asked.first)


def source_of(user: User, asked: TakenFrom) -> Source:
    """Whom to credit for a piece."""
    if asked.piece is not None:
        return piece_value(piece_of(user, asked.piece)).source
    design = design_of(user, asked.design or 0)
    return Source(design.name, version=design.manifest.booklet.version, own=True)


def published_base(user: User, design: Design) -> tuple[DesignValue, TheBase]:
    """The base that a difference is printed from, and how a maker finds it. Refusal for a design without one."""
    found = base_now(user, design)
    base = found.merge.base
    whole = next((s for s in base.sources if not s.own and not s.parts), None)
    if whole is not None:
        return base, TheBase(whole.title, whole.version, whole.designer)
    return base, TheBase(found.origin.name, base.printed.version, own_profile(user).studio)
