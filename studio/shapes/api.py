"""Routes of shapes: drafting, fitting, compensating, tracing, meshes, files."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router, UploadedFile

from craft.shape.proposed import proposed_solid
from craft.shape.target import MODIFIERS, SOLIDS
from studio.designs.policy import picture_of
from studio.designs.recipes import RoundsRecipe
from studio.guard import designer
from studio.jobs.schemas import JobOut
from studio.jobs.shown import job_shown
from studio.shapes import drafts, files, fits, meshes, panels, tracing
from studio.shapes.schemas import (
    BeginIn,
    CutIn,
    KnobOut,
    MeshOut,
    ModifierOut,
    PanelsOut,
    PieceOut,
    ProposedOut,
    ProposeIn,
    ShapeIn,
    ShapeOut,
    SolidOut,
    TracingIn,
    TracingOut,
)

router = Router(tags=["shapes"])

Up = Literal["z", "y"]
Pole = Literal["foot", "top", "front", "back", "left", "right"]


@router.post("/draft", response=ShapeOut)
def draft(request: HttpRequest, payload: ShapeIn) -> ShapeOut:
    """Draft a shape."""
    return drafts.shape(payload)


@router.post("/fit", response=JobOut)
def fit(request: HttpRequest, payload: ShapeIn) -> JobOut:
    """Draft and settle a shape, and lay it on its target: as a job."""
    return job_shown(fits.ask_fit(designer(request), payload))


@router.post("/compensate", response=JobOut)
def compensate(request: HttpRequest, payload: ShapeIn) -> JobOut:
    """Redraw a shape so that it settles nearest: as a job."""
    return job_shown(fits.ask_compensation(designer(request), payload))


@router.post("/compare", response=JobOut)
def compare(request: HttpRequest, payload: ShapeIn) -> JobOut:
    """Work a shape in every way there is: as a job."""
    return job_shown(fits.ask_comparison(designer(request), payload))


@router.post("/flat", response=JobOut)
def flat(request: HttpRequest, payload: ShapeIn) -> JobOut:
    """Try what keeps a shape flat when it is stuffed: as a job."""
    return job_shown(fits.ask_flat(designer(request), payload))


@router.post("/panels", response=PanelsOut)
def flat_panels(request: HttpRequest, payload: ShapeIn) -> PanelsOut:
    """Cut a shape into flat panels that are worked in rows."""
    return panels.panels_out(payload)


@router.post("/sewn", response=JobOut)
def sewn(request: HttpRequest, payload: ShapeIn) -> JobOut:
    """Sew a shape's panels together and settle the whole: as a job."""
    return job_shown(panels.ask_sewn(designer(request), payload))


@router.post("/propose", response=ProposedOut)
def propose(request: HttpRequest, payload: ProposeIn) -> ProposedOut:
    """Propose a solid for a part by its name and size; nothing is kept."""
    found = proposed_solid(payload.name, payload.wide_mm, payload.tall_mm)
    proposal: ProposedOut = ProposedOut.model_validate(found, from_attributes=True)
    return proposal


@router.get("/solids", response=list[SolidOut])
def solids(request: HttpRequest) -> list[SolidOut]:
    """The kinds of solids there are."""
    return [SolidOut(key=s.key, title=s.title, use=s.use) for s in SOLIDS.values()]


@router.get("/modifiers", response=list[ModifierOut])
def modifiers(request: HttpRequest) -> list[ModifierOut]:
    """What can be done to a shape."""
    return [
        ModifierOut(
            key=m.key,
            title=m.title,
            use=m.use,
            knobs=[
                KnobOut(name=n, title=k.title, unit=k.unit, least=k.least, most=k.most, usual=k.usual)
                for n, k in m.knobs.items()
            ],
        )
        for m in MODIFIERS.values()
    ]


@router.post("/mesh", response=MeshOut)
def mesh(
    request: HttpRequest,
    file: File[UploadedFile],
    up: Form[Up] = "z",
    pole: Form[Pole] = "foot",
    height_mm: Form[float] = 100.0,
) -> MeshOut:
    """Read a mesh; nothing is kept."""
    designer(request)
    return meshes.mesh(file.read(meshes.MOST_BYTES + 1), file.name or "", up=up, pole=pole, height_mm=height_mm)


@router.post("/begin", response=MeshOut)
def begin(request: HttpRequest, payload: BeginIn) -> MeshOut:
    """Stand a mesh on the corner at which its rounds shall begin."""
    return meshes.begun_at(payload.form, payload.corner)


@router.post("/cut", response=list[PieceOut])
def cut(request: HttpRequest, payload: CutIn) -> list[PieceOut]:
    """Cut a shape into pieces whose openings fit."""
    return drafts.cut_pieces(payload.recipe, payload.height_mm)


@router.post("/outline", response=TracingOut)
def outline(request: HttpRequest, payload: TracingIn) -> TracingOut:
    """Find the outline of what stands on a reference picture."""
    return tracing.found_outline(picture_of(designer(request), payload.picture))


@router.post("/drawing", response=TracingOut)
def drawing(request: HttpRequest, file: File[UploadedFile]) -> TracingOut:
    """Read the outline of an SVG drawing; nothing is kept."""
    designer(request)
    return tracing.drawn_outline(file.read(tracing.MOST_SVG_BYTES + 1), file.name or "")


@router.post("/target.obj", response=None)
def target_obj(request: HttpRequest, payload: RoundsRecipe) -> HttpResponse:
    """The surface aimed at as a file."""
    return HttpResponse(files.as_obj(drafts.recipe_of(payload).form, "target"), content_type="model/obj")


@router.post("/target.svg", response=None)
def target_svg(request: HttpRequest, payload: RoundsRecipe) -> HttpResponse:
    """The outlines aimed at as a file."""
    return HttpResponse(files.as_svg(drafts.recipe_of(payload).form), content_type="image/svg+xml")
