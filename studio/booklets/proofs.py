"""A stored design as its proof-reader and its translator see it."""

from __future__ import annotations

from django.contrib.auth.models import User

from craft.design.running import run_parts
from craft.document.booklet import prose_of
from craft.document.proof import Finding, Weight, proof_of
from craft.rounds.stitches import Language
from craft.text.catalogue import Words
from studio.booklets.manuscripts import Edition, Original, observed, original
from studio.booklets.schemas import FindingOut, ProseOut
from studio.designs.models import Design


def findings(user: User, design: Design) -> tuple[Finding, ...]:
    """Everything to look at before a design's booklet is printed, what blocks its release first."""
    return findings_of(user, original(user, design))


def findings_of(user: User, source: Original) -> tuple[Finding, ...]:
    """The same for what booklets are made of."""
    return proof_of(source.value, run_parts(source.value), observed(user, source, source.value))


def proof(user: User, design: Design) -> list[FindingOut]:
    """The same as it goes over the wire."""
    return [shown(f) for f in findings(user, design)]


def shown(found: Finding) -> FindingOut:
    """A finding as it goes over the wire."""
    return FindingOut(
        code=found.code,
        blocks=found.weight is not Weight.LOOK,
        forbids=found.weight is Weight.FORBIDS,
        text=found.text,
        stop=found.stop.value,
        part=found.part,
        round=found.round,
        step=found.step,
    )


def prose(user: User, design: Design) -> list[ProseOut]:
    """Her own prose in the booklet of a design, piece by piece."""
    source = original(user, design)
    found = prose_of(source.value, run_parts(source.value), source.imprint(Edition()))
    known = [Words(language) for language in Language]
    return [ProseOut(where=p.where, text=p.text, everyones=all(w.knows(p.text) for w in known)) for p in found]
