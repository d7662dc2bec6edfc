"""Routes of makings: the designer's over hers, and those that whoever makes it may ask, signed in or by a link."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import File, Router, Status
from ninja.files import UploadedFile

from craft.making import event_json
from studio.designs.policy import design_of
from studio.guard import actor, designer, signed_in
from studio.links.guard import by_link
from studio.making import actions
from studio.making.models import MakingPicture
from studio.making.policy import making_of
from studio.making.schemas import (
    BothFigures,
    LogOut,
    MakingFigure,
    MakingIn,
    MakingOut,
    Makings,
    MakingSummary,
    MakingTitle,
    PhotoKept,
    PrintSize,
    RefusedEvent,
    SampleKept,
    SyncIn,
    SyncOut,
    VerdictIn,
)
from studio.making.shown import both_figures, figure_shown, making_shown, makings_shown, read, summary
from studio.making.taking_over import keep_sample, print_size
from studio.policy import Verb, visible

in_designs = Router(tags=["making"])
"""Routes of the designer, under her designs."""

makings = Router(tags=["making"], auth=[by_link, signed_in])
"""Routes of whoever makes it."""

PRIVATE = {"Cache-Control": "private, no-store", "X-Content-Type-Options": "nosniff"}


@in_designs.get("/{int:design_id}/makings", response=Makings)
def read_makings(request: HttpRequest, design_id: int) -> Makings:
    """All makings of a design, and what they teach."""
    return makings_shown(design_of(designer(request), design_id))


@in_designs.post("/{int:design_id}/makings", response={201: MakingSummary})
def begin(request: HttpRequest, design_id: int, payload: MakingIn) -> Status[MakingSummary]:
    """Begin a making of a design as it is, or of a release of it."""
    user = designer(request)
    design = design_of(user, design_id)
    made = actions.begin(user, design, payload.title, payload.kind, payload.release, payload.size)
    return Status(201, summary(design, read(made)))


@in_designs.put("/{int:design_id}/makings/{uuid:making_id}", response=Makings)
def rename(request: HttpRequest, design_id: int, making_id: UUID, payload: MakingTitle) -> Makings:
    """Call a making otherwise."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.rename(user, get_object_or_404(design.makings, pk=making_id), payload.title)
    return makings_shown(design)


@in_designs.delete("/{int:design_id}/makings/{uuid:making_id}", response=Makings)
def remove(request: HttpRequest, design_id: int, making_id: UUID) -> Makings:
    """Throw a making away with all that was noted in it."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.remove(user, get_object_or_404(design.makings, pk=making_id))
    return makings_shown(design)


@in_designs.put("/{int:design_id}/makings/{uuid:making_id}/deviations/{deviation}", response=Makings)
def decide(request: HttpRequest, design_id: int, making_id: UUID, deviation: str, payload: VerdictIn) -> Makings:
    """Make something that was done otherwise the pattern's text, a remark, or nothing."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.decide(user, get_object_or_404(design.makings, pk=making_id), deviation, payload.verdict)
    return makings_shown(design_of(user, design_id))


@in_designs.get("/{int:design_id}/makings/{uuid:making_id}/as-made", response=BothFigures)
def read_as_made(request: HttpRequest, design_id: int, making_id: UUID) -> BothFigures:
    """The parts in which something was done otherwise, as they are written and as they were made, as far as they settled."""
    user = designer(request)
    return both_figures(user, get_object_or_404(design_of(user, design_id).makings, pk=making_id), ask=False)


@in_designs.post("/{int:design_id}/makings/{uuid:making_id}/as-made", response=BothFigures)
def settle_as_made(request: HttpRequest, design_id: int, making_id: UUID) -> BothFigures:
    """Have those parts settled, as they are written and as they were made."""
    user = designer(request)
    return both_figures(user, get_object_or_404(design_of(user, design_id).makings, pk=making_id), ask=True)


@in_designs.post("/{int:design_id}/makings/{uuid:making_id}/sample", response={201: SampleKept})
def sample(request: HttpRequest, design_id: int, making_id: UUID) -> Status[SampleKept]:
    """Keep what a making measured as a sample of its yarn in the basket."""
    user = designer(request)
    design = design_of(user, design_id)
    kept = keep_sample(user, design, get_object_or_404(design.makings, pk=making_id))
    return Status(201, SampleKept(id=kept.pk, yarn=kept.yarn.name))


@in_designs.post("/{int:design_id}/makings/size", response=Makings)
def print_as_made(request: HttpRequest, design_id: int, payload: PrintSize) -> Makings:
    """Have the booklet print the finished size as makings measured it."""
    user = designer(request)
    return makings_shown(print_size(user, design_of(user, design_id), payload.quantity))


@makings.get("/{uuid:making_id}", response=MakingOut)
def read_making(request: HttpRequest, making_id: UUID) -> MakingOut:
    """A making with what is worked from."""
    return making_shown(making_of(actor(request), making_id))


@makings.post("/{uuid:making_id}/sync", response=SyncOut)
def sync(request: HttpRequest, making_id: UUID, payload: SyncIn) -> SyncOut:
    """Bring events and fetch those that others wrote; sent twice, nothing is there twice."""
    who = actor(request)
    brought = [e.model_dump(mode="json") for e in payload.events]
    done = actions.sync(who, making_of(who, making_id, Verb.REPORT), brought, payload.known)
    return SyncOut(
        events=list(done.events),
        known=done.known,
        more=done.more,
        now=int(timezone.now().timestamp() * 1000),
        refused=[RefusedEvent(id=i, why=why) for i, why in done.refused.items()],
    )


@makings.post("/{uuid:making_id}/figure", response=MakingFigure)
def ask_figure(request: HttpRequest, making_id: UUID) -> MakingFigure:
    """The parts as they look while they are worked, those that have settled; what has not on its way is asked for."""
    making = making_of(actor(request), making_id)
    return figure_shown(making.design.owner, making)


@makings.get("/{uuid:making_id}/edition")
def read_edition(request: HttpRequest, making_id: UUID) -> HttpResponse:
    """The booklet that is worked from, as one page of HTML without script."""
    making = making_of(actor(request), making_id)
    return HttpResponse(bytes(making.edition.page), content_type="text/html; charset=utf-8", headers=PRIVATE)


@makings.post("/{uuid:making_id}/pictures/{uuid:photo_id}", response=PhotoKept)
def keep_picture(request: HttpRequest, making_id: UUID, photo_id: UUID, file: File[UploadedFile]) -> PhotoKept:
    """Keep a photograph under the id that its device gave it."""
    who = actor(request)
    made = actions.keep_picture(who, making_of(who, making_id, Verb.REPORT), photo_id, file.read())
    return PhotoKept(id=made.pk, width=made.width, height=made.height)


@makings.get("/{uuid:making_id}/pictures/{uuid:photo_id}")
def read_picture(request: HttpRequest, making_id: UUID, photo_id: UUID) -> HttpResponse:
    """A photograph of a making."""
    who = actor(request)
    making = making_of(who, making_id)
    picture = get_object_or_404(visible(who, Verb.SEE, MakingPicture), pk=photo_id, making=making)
    media = "image/png" if picture.kind == "png" else "image/jpeg"
    return HttpResponse(bytes(picture.content), content_type=media, headers=PRIVATE)


@makings.delete("/{uuid:making_id}/pictures/{uuid:photo_id}", response={204: None})
def remove_picture(request: HttpRequest, making_id: UUID, photo_id: UUID) -> Status[None]:
    """Throw a photograph away for good."""
    who = actor(request)
    making = making_of(who, making_id, Verb.REPORT)
    picture = get_object_or_404(visible(who, Verb.REPORT, MakingPicture), pk=photo_id, making=making)
    actions.remove_picture(who, picture)
    return Status(204, None)


@makings.delete("/{uuid:making_id}/log", response={204: None})
def forget(request: HttpRequest, making_id: UUID) -> Status[None]:
    """Delete everything that was given in a making: its log and its photographs."""
    who = actor(request)
    actions.forget(who, making_of(who, making_id, Verb.REPORT))
    return Status(204, None)


@makings.get("/{uuid:making_id}/log", response=LogOut)
def read_log(request: HttpRequest, making_id: UUID) -> LogOut:
    """The whole log of a making, to be taken away."""
    making = making_of(actor(request), making_id)
    return LogOut(
        title=making.title, edition=making.edition.title, events=[event_json(e) for e in actions.events_of(making)]
    )
