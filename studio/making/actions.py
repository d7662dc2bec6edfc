"""Changes of makings: begun, written to, decided on. Each is checked, and made in one transaction."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Sum
from django.utils import timezone

from craft.errors import CraftError
from craft.making import Event, as_text, deviations, event_json, event_of, fold
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.stitches import Terms
from studio.designs.models import Design, PartVersion
from studio.designs.pictures import reencoded
from studio.designs.policy import part_of
from studio.designs.texts import keep_version, set_text
from studio.errors import Refusal
from studio.making.editions import freeze, settle, sheet_of
from studio.making.models import Decision, FrozenEdition, Kind, Making, MakingEvent, MakingPicture, Verdict
from studio.policy import Actor, Owner, Verb, demand

MOST_MAKINGS, MOST_EVENTS, MOST_PICTURES = 200, 20_000, 80
MOST_PICTURE_BYTES = 200 * 2**20
"""Photographs of all makings of a designer, together."""

HANDED_OUT = 2_000
"""Events that one answer hands out."""


@transaction.atomic
def begin(user: User, design: Design, title: str, kind: str, release: int | None, size: str) -> Making:
    """Begin a making of a design as it is, or of a release."""
    demand(Owner(user), Verb.CHANGE, design)
    edition = freeze(user, design, release, size)
    making = begin_with(design, edition, title, kind)
    settle(user, edition)
    return making


def begin_with(design: Design, edition: FrozenEdition, title: str, kind: str) -> Making:
    """Begin a making of an edition that is frozen already; within a transaction."""
    if design.makings.count() >= MOST_MAKINGS:
        raise Refusal(422, "full", f"A design has at most {MOST_MAKINGS} makings: remove some first.")
    return Making.objects.create(design=design, edition=edition, title=title, kind=Kind(kind))


@transaction.atomic
def rename(user: User, making: Making, title: str) -> None:
    """Call a making otherwise."""
    demand(Owner(user), Verb.CHANGE, making)
    Making.objects.filter(pk=making.pk).update(title=title)


@transaction.atomic
def remove(user: User, making: Making) -> None:
    """Throw a making away, with its log and its photographs. What its maker holds elsewhere stays there."""
    demand(Owner(user), Verb.REMOVE, making)
    edition = making.edition
    making.delete()
    if not edition.makings.exists():
        edition.delete()


@dataclass(frozen=True, slots=True)
class Synced:
    """What came of a sync: the studio's events that the device did not know, up to which number, whether there are more, and
    what could not be taken, by id, with the reason."""

    events: tuple[Mapping[str, Any], ...]
    known: int
    more: bool
    refused: Mapping[UUID, str]


@transaction.atomic
def sync(actor: Actor, making: Making, brought: Sequence[Mapping[str, Any]], known: int) -> Synced:
    """Take the events of a device and hand out those that it does not know. An event that is here already is taken once.

    The making is held meanwhile: rows become visible in the order of their numbers, so that no device ever passes one over.
    """
    demand(actor, Verb.REPORT, making)
    Making.objects.select_for_update().get(pk=making.pk)
    refused: dict[UUID, str] = {}
    events: dict[str, Event] = {}
    for data in brought:
        try:
            event = event_of(_not_later_than_now(data))
        except CraftError as error:
            refused[UUID(str(data["id"]))] = error.message
            continue
        events.setdefault(event.id, event)
    there = {str(u) for u in making.events.filter(uuid__in=list(events)).values_list("uuid", flat=True)}
    fresh = [e for e in events.values() if e.id not in there]
    room = MOST_EVENTS - making.events.count()
    for late in fresh[max(room, 0) :]:
        refused[UUID(late.id)] = f"A making's log holds {MOST_EVENTS:,} events: begin another making."
    MakingEvent.objects.bulk_create([_row(making, e) for e in fresh[: max(room, 0)]])
    rows = list(making.events.filter(pk__gt=known)[: HANDED_OUT + 1])
    given = rows[:HANDED_OUT]
    return Synced(
        tuple({**r.data, "id": str(r.uuid)} for r in given),
        given[-1].pk if given else known,
        len(rows) > HANDED_OUT,
        refused,
    )


A_MINUTE = 60_000


def _not_later_than_now(data: Mapping[str, Any]) -> dict[str, Any]:
    """An event from a clock that runs ahead is dated now: nothing has happened tomorrow."""
    now = int(timezone.now().timestamp() * 1000)
    at = data.get("at")
    return {**data, "at": now} if isinstance(at, int) and at > now + A_MINUTE else dict(data)


def _row(making: Making, event: Event) -> MakingEvent:
    data = event_json(event)
    return MakingEvent(making=making, uuid=UUID(data.pop("id")), data=data)


def events_of(making: Making) -> list[Event]:
    """The log of a making."""
    return log_of(making.pk)


def log_of(making: UUID) -> list[Event]:
    """The log of a making by its id."""
    rows = MakingEvent.objects.filter(making_id=making)
    return [event_of({**data, "id": str(pk)}) for pk, data in rows.values_list("uuid", "data")]


@transaction.atomic
def keep_picture(actor: Actor, making: Making, pk: UUID, raw: bytes) -> MakingPicture:
    """Keep a photograph; sent again under the same id, it is the same one."""
    demand(actor, Verb.REPORT, making)
    Making.objects.select_for_update().get(pk=making.pk)
    if (known := making.pictures.filter(pk=pk).defer("content").first()) is not None:
        return known
    if making.pictures.count() >= MOST_PICTURES:
        raise Refusal(422, "full", f"A making holds {MOST_PICTURES} photographs: remove some first.", field="file")
    owner = making.design.owner
    used = MakingPicture.objects.filter(making__design__owner=owner).aggregate(total=Sum("size"))["total"] or 0
    body, kind, width, height = reencoded(raw)
    if used + len(body) > MOST_PICTURE_BYTES:
        raise Refusal(
            422, "full", "The designer's room for photographs is full: she has to remove some first.", field="file"
        )
    if MakingPicture.objects.filter(pk=pk).exists():  # an id that somebody else's has
        pk = uuid.uuid4()
    return MakingPicture.objects.create(
        pk=pk, making=making, content=body, kind=kind, width=width, height=height, size=len(body)
    )


@transaction.atomic
def remove_picture(actor: Actor, picture: MakingPicture) -> None:
    """Throw a photograph away for good."""
    demand(actor, Verb.REPORT, picture)
    picture.delete()


@transaction.atomic
def forget(actor: Actor, making: Making) -> None:
    """Delete all that was given in a making: its log and its photographs."""
    demand(actor, Verb.REPORT, making)
    making.events.all().delete()
    making.pictures.all().delete()


@transaction.atomic
def decide(user: User, making: Making, key: str, verdict: Verdict | None) -> None:
    """Say what becomes of something done otherwise: the pattern's text, a remark, or nothing. Taking the text back is undone in
    the design, where its revision stands."""
    demand(Owner(user), Verb.CHANGE, making)
    design = Design.objects.select_for_update().get(pk=making.design_id)
    known = making.decisions.filter(key=key).first()
    if known is not None and holds(design, known):
        raise Refusal(409, "done", "The text says so already: undo the change in the design to have it back.")
    if verdict is None:
        making.decisions.filter(key=key).delete()
        return
    revision = _write(user, design, making, key) if verdict is Verdict.TEXT else None
    Decision.objects.update_or_create(making=making, key=key, defaults={"verdict": verdict, "revision": revision})


def holds(design: Design, decision: Decision) -> bool:
    """Whether a deviation stands in the text as it is shown now: its revision was not undone since."""
    if decision.verdict != Verdict.TEXT or decision.revision is None:
        return False
    parents = dict(design.revisions.values_list("pk", "parent_id"))
    wanted = design.revisions.filter(number=decision.revision).values_list("pk", flat=True).first()
    at = design.head_id
    while at is not None and at != wanted:
        at = parents.get(at)
    return at is not None


def _write(user: User, design: Design, making: Making, key: str) -> int:
    """A deviation written into the rounds of its part; the number of the revision that does."""
    sheet = sheet_of(making.edition)
    found = next((d for d in deviations(sheet, fold(events_of(making))) if d.key == key), None)
    rung = sheet.rung(found.part, found.round) if found else None
    if found is None or rung is None:
        raise Refusal(404, "not-found", "That is no longer in the log: it was taken back there.")
    if all(p.key != found.part for p in design.manifest.parts):
        raise Refusal(409, "gone", "The part is no longer in the design.")
    if making.edition.size:
        raise Refusal(
            409,
            "other-size",
            "This was made in another size than the rounds are written in: keep it as a remark, and change the rounds by hand.",
        )
    keep_version(design, found.part)
    entry, manifest = part_of(design, found.part), design.manifest
    text = PartVersion.objects.get(pk=entry.version).text
    changed = as_text(text, Terms(manifest.terms), found, rung, entry.colour or MAIN_COLOUR)
    changed_design = set_text(user, design.pk, entry.key, changed, None, f"{making.title}: {found.told}"[:120])
    return changed_design.revision.number
