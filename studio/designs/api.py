"""Routes of designs, their parts, pages, history and pictures."""

from __future__ import annotations

from django.http import FileResponse, HttpRequest
from ninja import File, Router, Status
from ninja.files import UploadedFile
from pydantic import ValidationError

from craft.design.intake import design_in_file
from craft.design.stored import MOST_JSON
from studio.accounts.policy import own_profile
from studio.designs import actions, bringing, hooks, pages, texts, uploads
from studio.designs.models import Picture
from studio.designs.policy import design_of, picture_of, visible_designs, whole_design_of, with_texts
from studio.designs.schemas import (
    AnyPage,
    BringIn,
    DesignOut,
    DesignRow,
    HookChange,
    NewDesign,
    NewPart,
    NewParts,
    PartChange,
    PartText,
    PictureOut,
    Rename,
    RevisionRow,
    TypedIn,
    TypedOut,
)
from studio.designs.shown import as_read, shelf_rows, shown
from studio.errors import Refusal
from studio.guard import designer
from studio.refusals import placed_sentence

router = Router(tags=["designs"])


@router.get("", response=list[DesignRow])
def read_shelf(request: HttpRequest) -> list[DesignRow]:
    """All designs, last changed first."""
    return shelf_rows(with_texts(visible_designs(designer(request))))


@router.post("", response={201: DesignOut})
def create_design(request: HttpRequest, payload: NewDesign) -> Status[DesignOut]:
    """Start a design."""
    user = designer(request)
    return Status(201, shown(actions.create_design(user, payload.name, own_profile(user).terms)))


@router.get("/{int:design_id}", response=DesignOut)
def read_design(request: HttpRequest, design_id: int) -> DesignOut:
    """One design, whole."""
    return as_read(whole_design_of(designer(request), design_id))


@router.put("/{int:design_id}", response=DesignOut)
def rename_design(request: HttpRequest, design_id: int, payload: Rename) -> DesignOut:
    """Change name and terms."""
    return shown(
        texts.rename_design(designer(request), design_id, payload.name, payload.terms, convert=payload.convert)
    )


@router.delete("/{int:design_id}", response={204: None})
def remove_design(request: HttpRequest, design_id: int) -> Status[None]:
    """Remove a design for good."""
    actions.remove_design(designer(request), design_id)
    return Status(204, None)


@router.post("/{int:design_id}/copy", response={201: DesignOut})
def copy_design(request: HttpRequest, design_id: int) -> Status[DesignOut]:
    """Make a copy."""
    return Status(201, shown(actions.copy_design(designer(request), design_id)))


@router.post("/{int:design_id}/parts", response={201: DesignOut})
def add_part(request: HttpRequest, design_id: int, payload: NewPart) -> Status[DesignOut]:
    """Add a part."""
    design, _ = actions.add_part(designer(request), design_id, payload.dict())
    return Status(201, shown(design))


@router.post("/{int:design_id}/parts/several", response={201: DesignOut})
def add_parts(request: HttpRequest, design_id: int, payload: NewParts) -> Status[DesignOut]:
    """Add several parts as one change: panels, pieces of a cut shape."""
    parts = [p.dict() for p in payload.parts]
    design, _ = actions.add_parts(designer(request), design_id, parts)
    return Status(201, shown(design))


@router.post("/from-file", response={201: DesignOut})
def create_from_file(request: HttpRequest, file: File[UploadedFile]) -> Status[DesignOut]:
    """Make a design of a file: of a design's own, or of a pattern written in any manner."""
    value = design_in_file(file.name or "pattern", file.read(MOST_JSON * 4 + 1))
    try:
        return Status(201, shown(actions.create_from_value(designer(request), value)))
    except ValidationError as error:
        raise Refusal(422, "invalid", f"The design's file is damaged: {placed_sentence(error.errors()[0])}") from None


@router.post("/brought", response={201: DesignOut})
def create_from_text(request: HttpRequest, payload: BringIn) -> Status[DesignOut]:
    """Make a design of a written pattern, with what she says of its lines."""
    return Status(201, shown(bringing.bring_in_new(designer(request), payload)))


@router.post("/{int:design_id}/brought", response={201: DesignOut})
def bring_in(request: HttpRequest, design_id: int, payload: BringIn) -> Status[DesignOut]:
    """Bring a written pattern into a design, as one change."""
    return Status(201, shown(bringing.bring_in(designer(request), design_id, payload)))


@router.put("/{int:design_id}/parts/{key}", response=DesignOut)
def change_part(request: HttpRequest, design_id: int, key: str, payload: PartChange) -> DesignOut:
    """Change a part's name or number."""
    return shown(actions.change_part(designer(request), design_id, key, payload.dict()))


@router.put("/{int:design_id}/parts/{key}/hook", response=DesignOut)
def change_hook(request: HttpRequest, design_id: int, key: str, payload: HookChange) -> DesignOut:
    """Have a part worked on a hook of its own, or as the figure."""
    return shown(hooks.change_hook(designer(request), design_id, key, payload.own_hook))


@router.delete("/{int:design_id}/parts/{key}", response=DesignOut)
def remove_part(request: HttpRequest, design_id: int, key: str) -> DesignOut:
    """Remove a part."""
    return shown(actions.remove_part(designer(request), design_id, key))


@router.put("/{int:design_id}/parts/{key}/typed", response=TypedOut)
def save_typed(request: HttpRequest, design_id: int, key: str, payload: TypedIn) -> TypedOut:
    """Autosave a part's text."""
    typed = texts.save_typed(designer(request), design_id, key, payload.text, payload.etag)
    return TypedOut(etag=typed.etag, saved=typed.changed)


@router.post("/{int:design_id}/parts/{key}/versions", response=DesignOut)
def keep_typed(request: HttpRequest, design_id: int, key: str) -> DesignOut:
    """Make a version of what was typed."""
    return shown(texts.keep_typed(designer(request), design_id, key))


@router.put("/{int:design_id}/parts/{key}/text", response=DesignOut)
def set_text(request: HttpRequest, design_id: int, key: str, payload: PartText) -> DesignOut:
    """Replace a part's text as one action."""
    return shown(
        texts.set_text(designer(request), design_id, key, payload.text, payload.dict()["recipe"], payload.label)
    )


@router.put("/{int:design_id}/pages", response=DesignOut)
def set_page(request: HttpRequest, design_id: int, payload: AnyPage) -> DesignOut:
    """Write a page of notes."""
    return shown(pages.set_page(designer(request), design_id, payload.page, payload.base, payload.data))


@router.post("/{int:design_id}/eyes/tell", response=DesignOut)
def tell_eyes(request: HttpRequest, design_id: int) -> DesignOut:
    """Write the direction for the placed eyes into their part's rounds."""
    return shown(pages.tell_eyes(designer(request), design_id))


@router.post("/{int:design_id}/undo", response=DesignOut)
def undo(request: HttpRequest, design_id: int) -> DesignOut:
    """One action back."""
    return shown(actions.undo(designer(request), design_id))


@router.post("/{int:design_id}/redo", response=DesignOut)
def redo(request: HttpRequest, design_id: int) -> DesignOut:
    """One action forth."""
    return shown(actions.redo(designer(request), design_id))


@router.get("/{int:design_id}/history", response=list[RevisionRow])
def read_history(request: HttpRequest, design_id: int) -> list[RevisionRow]:
    """The last 200 actions, newest first."""
    design = design_of(designer(request), design_id)
    return [
        RevisionRow(number=r.number, label=r.label, created=r.created, shown=r.pk == design.head_id)
        for r in design.revisions.all()[:200]
    ]


@router.post("/{int:design_id}/history/{int:number}", response=DesignOut)
def go_back(request: HttpRequest, design_id: int, number: int) -> DesignOut:
    """Go back to an earlier state, as a new action."""
    return shown(actions.go_back(designer(request), design_id, number))


def _picture(picture: Picture) -> PictureOut:
    return PictureOut(
        id=picture.pk, url=f"/api/designs/pictures/{picture.pk}", width=picture.width, height=picture.height
    )


@router.get("/{int:design_id}/pictures", response=list[PictureOut])
def read_pictures(request: HttpRequest, design_id: int) -> list[PictureOut]:
    """Reference pictures of a design."""
    return [_picture(p) for p in design_of(designer(request), design_id).pictures.order_by("id")]


@router.post("/{int:design_id}/pictures", response={201: PictureOut})
def add_picture(request: HttpRequest, design_id: int, file: File[UploadedFile]) -> Status[PictureOut]:
    """Upload a reference picture."""
    return Status(201, _picture(uploads.add_picture(designer(request), design_id, file.read(uploads.QUOTA_BYTES))))


@router.get("/pictures/{int:picture_id}", response=None)
def read_picture(request: HttpRequest, picture_id: int) -> FileResponse:
    """A reference picture's bytes."""
    picture = picture_of(designer(request), picture_id)
    try:
        body = picture.file.open()
    except FileNotFoundError:
        raise Refusal(404, "not-found", "This picture's file is lost.") from None
    kind = "image/png" if str(picture.file.name).endswith("png") else "image/jpeg"
    return FileResponse(
        body,
        content_type=kind,
        headers={"Content-Security-Policy": "sandbox; default-src 'none'", "Cache-Control": "private, max-age=86400"},
    )


@router.delete("/pictures/{int:picture_id}", response={204: None})
def remove_picture(request: HttpRequest, picture_id: int) -> Status[None]:
    """Remove a reference picture."""
    uploads.remove_picture(picture_of(designer(request), picture_id))
    return Status(204, None)
