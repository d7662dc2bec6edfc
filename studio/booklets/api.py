"""Routes of the booklet: as a tree for the page, as PDF, text, Markdown and JSON."""

from __future__ import annotations

import json
import re
from typing import Annotated, Any, Literal

from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Schema

from craft.document.booklet import Document, as_markdown, as_text
from craft.rounds.stitches import Terms
from studio.booklets.manuscripts import cover, document
from studio.booklets.printing import as_pdf
from studio.designs.manifest import TermsName
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.guard import designer

router = Router(tags=["booklets"])


class BookletOut(Schema):
    """The booklet as a tree; see docs/file-format.md."""

    format: int
    title: str
    byline: str
    stamp: str
    terms: TermsName
    sections: list[dict[str, Any]]


Edition = Annotated[
    str, Query("as-it-is", max_length=40, description="'as-it-is', 'all' for all sizes, or the key of a size")
]


def _composed(request: HttpRequest, design_id: int, terms: TermsName, edition: str) -> tuple[User, Design, Document]:
    user = designer(request)
    design = design_of(user, design_id)
    return user, design, document(user, design, Terms(terms), edition)


@router.get("/{int:design_id}/booklet", response=BookletOut)
def read_booklet(request: HttpRequest, design_id: int, edition: Edition, terms: TermsName = "us") -> dict[str, Any]:
    """The booklet for the page, as the design is, at one of its sizes, or for all of them."""
    return _composed(request, design_id, terms, edition)[2].to_json()


def _file(body: bytes | str, kind: str, name: str, ending: str) -> HttpResponse:
    safe = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "pattern"
    return HttpResponse(
        body,
        content_type=kind,
        headers={"Content-Disposition": f'attachment; filename="{safe}.{ending}"', "Cache-Control": "no-store"},
    )


@router.get("/{int:design_id}/booklet.pdf", response=None)
def read_pdf(
    request: HttpRequest,
    design_id: int,
    edition: Edition,
    terms: TermsName = "us",
    paper: Literal["a4", "letter"] = "a4",
    large: bool = False,
    low_ink: bool = False,
) -> HttpResponse:
    """The booklet as PDF."""
    user, design, composed = _composed(request, design_id, terms, edition)
    body = as_pdf(composed, cover(user, design, edition, low_ink=low_ink), paper=paper, large=large, low_ink=low_ink)
    return _file(body, "application/pdf", design.name, "pdf")


@router.get("/{int:design_id}/booklet.{ending}", response=None)
def read_file(
    request: HttpRequest,
    design_id: int,
    ending: Literal["txt", "md", "json"],
    edition: Edition,
    terms: TermsName = "us",
) -> HttpResponse:
    """The booklet as plain text, Markdown or JSON."""
    _, design, composed = _composed(request, design_id, terms, edition)
    if ending == "json":
        return _file(
            json.dumps(composed.to_json(), ensure_ascii=False, indent=1), "application/json", design.name, ending
        )
    body, kind = (as_text(composed), "text/plain") if ending == "txt" else (as_markdown(composed), "text/markdown")
    return _file(body, f"{kind}; charset=utf-8", design.name, ending)
