"""Routes of the bench: questions that compute and keep nothing, and the whole figure of a design."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Query, Router, UploadedFile
from pydantic import Field

from craft.design.hazards import hazards_of
from craft.errors import CraftError
from craft.gauge import Estimate, estimate_gauge, fabric_outlook
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.pattern import folded
from craft.rounds.stitches import Language, Terms
from craft.text.exchange import MOST_FILE
from craft.text.notation import print_part, read
from craft.yarn import Yarn
from studio.bench import boards, figures, portraits, previews, scenes, workings
from studio.bench.files import design_file
from studio.bench.joining import join_in, sew_again
from studio.bench.scene_schemas import HazardOut, LookIn, NoSewIn, SceneOut, SettlingOut
from studio.bench.schemas import (
    BoardIn,
    BoardOut,
    ChartIn,
    DryRunOut,
    FabricOut,
    FileTextOut,
    PreviewIn,
    PreviewOut,
    ReshapeIn,
    TidyIn,
    TidyOut,
    YarnQuestion,
)
from studio.designs.fields import TermsName
from studio.designs.policy import design_of
from studio.designs.reading import design_value, read_design
from studio.designs.schemas import DesignOut
from studio.designs.shown import shown
from studio.errors import Refusal
from studio.guard import designer
from studio.jobs.schemas import JobOut
from studio.jobs.shown import job_shown
from studio.sent import sent, stem_of

Across = Annotated[int, Field(ge=10, le=10_000)]
"""Millimetres across a picture."""

router = Router(tags=["bench"])
pictures = Router(tags=["designs"])


@router.post("/preview", response=PreviewOut)
def preview(request: HttpRequest, payload: PreviewIn) -> PreviewOut:
    """Read and run a part's text."""
    return previews.preview(payload)


@router.post("/picture", response=None)
def picture(request: HttpRequest, payload: PreviewIn) -> HttpResponse:
    """A part's text as an SVG picture, for where there is no 3D."""
    return HttpResponse(previews.picture(payload), content_type="image/svg+xml")


@router.post("/fabric", response=FabricOut)
def fabric(request: HttpRequest, payload: YarnQuestion) -> FabricOut:
    """What a yarn on a hook will make."""
    yarn = Yarn("yarn", payload.weight, payload.wraps, payload.strands, payload.plush)
    gauge, outlook = estimate_gauge(yarn, payload.hook_mm), fabric_outlook(yarn, payload.hook_mm)
    width, height = (Estimate.around(v, gauge.spread, gauge.how) for v in (gauge.stitch_mm, gauge.round_mm))
    return FabricOut(
        stitch_mm=previews.estimate(width),
        round_mm=previews.estimate(height),
        diameter_mm=yarn.diameter_mm,
        ratio=outlook.ratio,
        verdict=outlook.verdict.value,
        words=outlook.words,
    )


@router.post("/tidy", response=TidyOut)
def tidy(request: HttpRequest, payload: TidyIn) -> TidyOut:
    """Print a text in its canonical way; refused while some of it is not understood."""
    reading = read(payload.text, Terms(payload.terms))
    if any(p.code in ("unread", "bracket", "too-large") for p in reading.problems):
        raise CraftError("Tidying waits until every round is understood: mend the faults first.")
    parts = reading.pattern.parts
    if payload.fold:
        parts = tuple(replace(p, items=folded(p.items)) for p in parts)
    return TidyOut(text="\n".join(print_part(p, Terms(payload.terms)) for p in parts))


@router.post("/reshape", response=TidyOut)
def reshape(request: HttpRequest, payload: ReshapeIn) -> TidyOut:
    """Change rounds as on the ladder; lines that are not touched come back as they were."""
    return TidyOut(text=workings.reshaped(payload))


@router.post("/chart", response=None)
def chart(request: HttpRequest, payload: ChartIn) -> HttpResponse:
    """A part's text as a round chart, in SVG."""
    return HttpResponse(workings.chart(payload), content_type="image/svg+xml")


@router.post("/settle", response=JobOut)
def settle(request: HttpRequest, payload: PreviewIn) -> JobOut:
    """Have a part's text settled; how far that is. The answer is the job's."""
    gauge = previews.craft_gauge(payload.gauge)
    wanted = figures.Settling(
        payload.text,
        payload.terms,
        previews.yarns_of(payload),
        payload.colour or MAIN_COLOUR,
        previews.others_of(payload),
        gauge,
        payload.gauge.firmness,
    )
    job = figures.ask(designer(request), wanted)
    if job is None:
        raise CraftError("There is no round to settle yet.")
    return job_shown(job)


@router.post("/settle/{int:design_id}/{key}/{int:number}", response=JobOut)
def settle_version(request: HttpRequest, design_id: int, key: str, number: int) -> JobOut:
    """Have a part settled as it was in revision `number`, to lay over what it is now."""
    user = designer(request)
    job = scenes.settle_version(user, design_of(user, design_id), key, number)
    return job_shown(job)


@router.post("/dry-run", response=DryRunOut)
def dry_run(request: HttpRequest, payload: PreviewIn) -> DryRunOut:
    """Work a part's text movement by movement."""
    return workings.dry_run(payload)


@router.post("/text", response=FileTextOut)
def text_of_file(request: HttpRequest, file: File[UploadedFile]) -> FileTextOut:
    """The text of a file, or the job that reads it out of a document; nothing else is kept."""
    return boards.text_of_file(designer(request), file.name or "text", file.read(MOST_FILE + 1))


@router.post("/board", response=BoardOut)
def read_text(request: HttpRequest, payload: BoardIn) -> BoardOut:
    """Say what a written text holds, line by line; nothing is kept."""
    return boards.board(payload)


@router.get("/file/{int:design_id}/{to}", response=None)
def file_of(
    request: HttpRequest,
    design_id: int,
    to: Literal["text", "md", "json", "csv", "svg", "design"],
    terms: TermsName | None = None,
    language: Literal["de", "fr", "es", "it", "nl"] | None = None,
    spelled: bool = False,
    left: bool = False,
    tidy: bool = False,
) -> HttpResponse:
    """A design as a file in an open format."""
    content, kind, name = design_file(
        design_of(designer(request), design_id),
        to,
        Terms(terms) if terms else None,
        Language(language) if language else None,
        spelled=spelled,
        left=left,
        tidy=tidy,
    )
    return sent(content, kind, name)


@router.get("/hazards/{int:design_id}", response=list[HazardOut])
def hazards(request: HttpRequest, design_id: int) -> list[HazardOut]:
    """What of a figure that is made for a child under three should not be in it; empty for other audiences."""
    read = read_design(design_of(designer(request), design_id))
    return [HazardOut.model_validate(h, from_attributes=True) for h in hazards_of(read.value, read.parts)]


@router.get("/figure/{int:design_id}", response=SceneOut)
def figure(request: HttpRequest, design_id: int) -> SceneOut:
    """The whole figure of a design, pieces in their places, as far as it is settled; nothing is begun."""
    user = designer(request)
    return scenes.scene(user, design_of(user, design_id))


@router.post("/figure/{int:design_id}", response=SceneOut)
def settle_figure(request: HttpRequest, design_id: int) -> SceneOut:
    """Have every part of a design settled that is not yet, and show the figure as far as it is."""
    user = designer(request)
    return scenes.settle_all(user, design_of(user, design_id))


@router.post("/no-sew/{int:design_id}", response=DesignOut)
def no_sew(request: HttpRequest, design_id: int, payload: NoSewIn) -> DesignOut:
    """Have a part worked in by its host's round instead of sewn on; one change, one undo."""
    return shown(join_in(designer(request), design_id, payload.step))


@router.post("/sew/{int:design_id}", response=DesignOut)
def sew(request: HttpRequest, design_id: int, payload: NoSewIn) -> DesignOut:
    """Have a part that its host's round works in sewn on instead; one change, one undo."""
    return shown(sew_again(designer(request), design_id, payload.step))


@pictures.post("/{int:design_id}/settle", response=SettlingOut)
def settle_design(request: HttpRequest, design_id: int, across: Across | None = None) -> SettlingOut:
    """Have every part settled that is not yet, and the figure painted, with `across` mm across its picture; how far that
    is."""
    user = designer(request)
    return portraits.painting(user, design_value(design_of(user, design_id)), portraits.on_scale(across))


@pictures.get("/{int:design_id}/picture", response=None)
def read_figure_picture(request: HttpRequest, design_id: int, across: Across | None = None) -> HttpResponse:
    """The figure as a picture: painted, PNG, once it is settled, else drawn, SVG; kept by the browser only when painted."""
    user = designer(request)
    design = design_of(user, design_id)
    title = f"{design.name}, drawn from its rounds"
    found = portraits.pictured(user, design_value(design), title, portraits.on_scale(across))
    kept = found.whole and "revision" in request.GET
    return HttpResponse(
        found.content,
        content_type=found.kind,
        headers={"Cache-Control": "private, max-age=31536000" if kept else "no-store"},
    )


@router.post("/picture/{int:design_id}", response=SettlingOut)
def take_picture(request: HttpRequest, design_id: int, payload: LookIn) -> SettlingOut:
    """Have a picture of the whole figure painted as it is asked for; how far that is."""
    user = designer(request)
    value = design_value(design_of(user, design_id))
    return portraits.painting(user, value, portraits.look_of(payload), portraits.moment_of(payload))


@router.get("/picture/{int:design_id}", response=None)
def read_picture(request: HttpRequest, design_id: int, look: Query[LookIn]) -> HttpResponse:
    """A picture of the whole figure that was painted, as PNG. Refused while it is not."""
    user = designer(request)
    design = design_of(user, design_id)
    found = portraits.pictured(
        user, design_value(design), design.name, portraits.look_of(look), portraits.moment_of(look)
    )
    if not found.whole or found.kind != "image/png":
        raise Refusal(409, "not-done", "This picture is not painted yet: ask for it first.")
    return sent(found.content, found.kind, f"{stem_of(design.name, 'figure')}-{look.side}.png", shown=True)


@router.get("/model/{int:design_id}/{ending}", response=None)
def model(request: HttpRequest, design_id: int, ending: Literal["obj", "stl", "glb"]) -> HttpResponse:
    """The whole settled figure as a mesh file, in mm."""
    user = designer(request)
    design = design_of(user, design_id)
    kinds = {"obj": "model/obj", "stl": "model/stl", "glb": "model/gltf-binary"}
    return sent(scenes.model(user, design, ending), kinds[ending], f"{stem_of(design.name, 'figure')}.{ending}")
