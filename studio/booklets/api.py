"""Routes of the booklet: as a tree for the page, its pictures, what its proof-reader finds, and its files."""

from __future__ import annotations

from typing import Annotated, Literal

from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from craft.document.booklet import Kind, Shown
from studio.bench.scene_schemas import SettlingOut
from studio.booklets import album
from studio.booklets.album import Taken
from studio.booklets.files import ENDINGS, BookFile, Ending, book_file
from studio.booklets.manuscripts import Booklet, booklet, figure_of, original
from studio.booklets.printing import templates_pdf
from studio.booklets.proofs import proof, prose
from studio.booklets.schemas import BookletOut, EditionIn, FindingOut, ProseOut, SheetIn
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.errors import Refusal
from studio.guard import designer
from studio.sent import sent

router = Router(tags=["booklets"])

EditionQuery = Annotated[EditionIn, Query()]
SheetQuery = Annotated[SheetIn, Query()]


def _composed(request: HttpRequest, design_id: int, asked: EditionIn) -> tuple[User, Design, Booklet]:
    user = designer(request)
    design = design_of(user, design_id)
    return user, design, booklet(user, design, asked.value())


@router.get("/{int:design_id}/booklet", response=BookletOut)
def read_booklet(request: HttpRequest, design_id: int, asked: EditionQuery) -> BookletOut:
    """The booklet for the page, as the design is, at one of its sizes, or for all of them."""
    user, _, made = _composed(request, design_id, asked)
    ready = album.keys_ready(user, made.value, made.document)
    return BookletOut.of(made.document.to_json(), ready, len(made.templates(user, "a4")))


@router.post("/{int:design_id}/booklet/pictures", response=SettlingOut)
def ask_for_pictures(request: HttpRequest, design_id: int, asked: EditionIn) -> SettlingOut:
    """Have every picture of a booklet painted that is not; how far that is."""
    user, _, made = _composed(request, design_id, asked)
    return album.ask(user, made.value, made.document)


@router.get("/{int:design_id}/booklet/picture", response=None)
def read_booklet_picture(request: HttpRequest, design_id: int, asked: EditionQuery, key: str = "") -> HttpResponse:
    """A picture of a booklet by its key. Refused while it is not painted."""
    user = designer(request)
    design = design_of(user, design_id)
    source, shown = original(user, design), Shown.of(key)
    if shown.kind is Kind.PHOTO:
        taken = album.photographs(design, source.photos, [shown]).get(key)
    else:
        png = album.painted_already(user, figure_of(source, asked.edition), [shown], left=asked.left).get(key)
        taken = None if png is None else Taken(png, "image/png")
    if taken is None:
        raise Refusal(409, "not-done", "This picture is not painted yet: ask for it first.")
    return HttpResponse(taken.content, content_type=taken.kind, headers={"Cache-Control": "no-store"})


@router.get("/{int:design_id}/prose", response=list[ProseOut])
def read_prose(request: HttpRequest, design_id: int) -> list[ProseOut]:
    """Every piece of her own prose in the booklet, as it is to be translated."""
    user = designer(request)
    return prose(user, design_of(user, design_id))


@router.get("/{int:design_id}/proof", response=list[FindingOut])
def read_proof(request: HttpRequest, design_id: int) -> list[FindingOut]:
    """What is to be looked at before the booklet is printed; what blocks its release comes first."""
    user = designer(request)
    return proof(user, design_of(user, design_id))


@router.get("/{int:design_id}/booklet.{ending}", response=None)
def read_file(request: HttpRequest, design_id: int, ending: Ending, asked: SheetQuery) -> HttpResponse:
    """The booklet as PDF, one page of HTML, EPUB, plain text, Markdown or JSON, with the pictures that are there."""
    user, design, made = _composed(request, design_id, asked)
    wanted = [Shown.of(p.key) for p in made.document.pictures] if ENDINGS[ending].pictures else []
    pictures = pictures_of(user, design, made, wanted)
    return download(book_file(user, made, ending, pictures, asked.sheet), design.name)


@router.get("/{int:design_id}/templates.{ending}", response=None)
def read_templates(
    request: HttpRequest,
    design_id: int,
    ending: Literal["pdf", "svg"],
    asked: EditionQuery,
    paper: Literal["a4", "letter"] = "a4",
    page: Annotated[int, Query(ge=1, le=40)] = 1,
) -> HttpResponse:
    """The templates of a booklet in true size: all pages as PDF, or one of them as SVG. Refused where it has none."""
    user, design, made = _composed(request, design_id, asked)
    pages = made.templates(user, paper)
    if len(pages) < page:
        raise Refusal(404, "no-templates", "Nothing of this figure is cut, laid in or stitched along a line there.")
    if ending == "svg":
        return download(BookFile(pages[page - 1].encode(), "svg"), f"{design.name} templates {page}")
    return download(BookFile(templates_pdf(made.document, pages, paper), "pdf"), f"{design.name} templates")


def pictures_of(user: User, design: Design, made: Booklet, wanted: list[Shown]) -> dict[str, Taken]:
    """Those of the pictures of a booklet that are there by now, by key."""
    painted = [s for s in wanted if s.kind is not Kind.PHOTO]
    taken = album.photographs(design, made.photos, wanted)
    pngs = album.painted_already(user, made.value, painted, left=made.left) if painted else {}
    return taken | {key: Taken(album.as_jpeg(png)) for key, png in pngs.items()}


def download(file: BookFile, name: str) -> HttpResponse:
    """A file of a booklet as an answer that is saved and not kept by the browser."""
    return sent(file.content, file.kind, file.named(name))
