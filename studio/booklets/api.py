"""Routes of the booklet: as a tree for the page, as PDF, text, Markdown and JSON."""

from __future__ import annotations

import json
import re
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from craft.document.booklet import Document, as_markdown, as_text
from craft.rounds.stitches import Terms
from studio.accounts.policy import own_profile
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


def _composed(request: HttpRequest, design_id: int, terms: TermsName) -> tuple[Design, Document]:
    user = designer(request)
    design = design_of(user, design_id)
    return design, document(design, own_profile(user).studio, Terms(terms))


@router.get("/{int:design_id}/booklet", response=BookletOut)
def read_booklet(request: HttpRequest, design_id: int, terms: TermsName = "us") -> dict[str, Any]:
    """The booklet for the page."""
    return _composed(request, design_id, terms)[1].to_json()


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
    terms: TermsName = "us",
    paper: Literal["a4", "letter"] = "a4",
    large: bool = False,
    low_ink: bool = False,
) -> HttpResponse:
    """The booklet as PDF."""
    design, composed = _composed(request, design_id, terms)
    body = as_pdf(composed, cover(design), paper=paper, large=large, low_ink=low_ink)
    return _file(body, "application/pdf", design.name, "pdf")


@router.get("/{int:design_id}/booklet.{ending}", response=None)
def read_file(
    request: HttpRequest, design_id: int, ending: Literal["txt", "md", "json"], terms: TermsName = "us"
) -> HttpResponse:
    """The booklet as plain text, Markdown or JSON."""
    design, composed = _composed(request, design_id, terms)
    if ending == "json":
        return _file(
            json.dumps(composed.to_json(), ensure_ascii=False, indent=1), "application/json", design.name, ending
        )
    body, kind = (as_text(composed), "text/plain") if ending == "txt" else (as_markdown(composed), "text/markdown")
    return _file(body, f"{kind}; charset=utf-8", design.name, ending)
