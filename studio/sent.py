"""Files that are sent: private, kept by nobody, with a name in whatever script the design has."""

from __future__ import annotations

import re

from django.http import HttpResponse
from django.utils.http import content_disposition_header


def stem_of(name: str, otherwise: str) -> str:
    """A name as the beginning of a file's: letters and digits of every script, and nothing that a system stumbles over."""
    return re.sub(r"[^\w-]+", "-", name.lower()).strip("-_") or otherwise


def sent(content: bytes | str, kind: str, name: str, *, shown: bool = False) -> HttpResponse:
    """A file as an answer. name: with its ending, in any script. shown: in the browser, and not saved."""
    disposition = content_disposition_header(not shown, name)
    return HttpResponse(
        content, content_type=kind, headers={"Content-Disposition": disposition, "Cache-Control": "private, no-store"}
    )
