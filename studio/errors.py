"""The one shape of every error: RFC 9457 problem details."""

from __future__ import annotations

import errno
import logging
from collections.abc import Callable
from typing import Any

from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.core.exceptions import ValidationError as DjangoValidationError
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.http.multipartparser import MultiPartParserError
from django.http.response import HttpResponseBase
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError
from ninja.errors import ValidationError as RequestValidationError

from craft.errors import CraftError
from studio.refusals import field_of, sentence_of

log = logging.getLogger("studio")


class Refusal(Exception):  # noqa: N818 - the studio's word for a request it does not carry out
    """A request that is not carried out: status, a stable type, one sentence, and more for the screen."""

    def __init__(self, status: int, kind: str, detail: str, **more: Any) -> None:
        super().__init__(detail)
        self.status, self.kind, self.detail, self.more = status, kind, detail, more


def problem(status: int, kind: str, detail: str, **more: Any) -> HttpResponse:
    """A response of problem details; `kind` is the last part of its type. retry_after, in seconds, is a header, too."""
    body = {"type": f"/problems/{kind}", "title": kind.replace("-", " "), "status": status, "detail": detail, **more}
    response = JsonResponse(body, status=status, content_type="application/problem+json")
    if "retry_after" in more:
        response["Retry-After"] = str(more["retry_after"])
    return response


_SENTENCES = {
    400: "The request could not be read.",
    403: "This page is out of date: reload it and try again.",
    405: "This address does not take that kind of request.",
    413: "That is too much for one request.",
}


def one_shape(get_response: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: refusals of the API that come from elsewhere get the one shape, too, and what it answers is kept by
    nobody where nothing else is said."""

    def shaped(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        foreign = not response.get("Content-Type", "").startswith("application/problem+json")
        if response.status_code >= 400 and foreign and request.path.startswith("/api/"):
            sentence = _SENTENCES.get(response.status_code, NOT_FOUND)
            return problem(response.status_code, "refused", sentence)
        if request.path.startswith("/api/") and "Cache-Control" not in response:
            response["Cache-Control"] = "private, no-store"
        return response

    return shaped


NO_ROOM = (
    "The studio's disk is full, so this was not saved. What was saved before is safe; keep this page open, and try again "
    "when whoever runs the studio has made room."
)
_FULL = frozenset({1021, 1030, 1114, 1290, 1836})
"""What MariaDB says when its disk or a table's is full, or may not be written."""
_AWAY = frozenset({2002, 2003, 2006, 2013})
"""What its client says when the database is not there, or went away in the middle."""
_MET = frozenset({1205, 1213})
"""What it says when two changes waited for each other: all of this one was taken back, so it may be made once more."""
AWAY_SECONDS = 2

NOT_FOUND = "There is nothing here, or it is not yours."


def _fields(errors: Any) -> list[dict[str, str]]:
    return [{"field": field_of(e), "message": sentence_of(e)} for e in errors]


def register(api: NinjaAPI) -> None:
    """Turn everything that can be raised on the way into the one shape."""

    @api.exception_handler(Refusal)
    def _refusal(_: HttpRequest, error: Refusal) -> HttpResponse:
        return problem(error.status, error.kind, error.detail, **error.more)

    @api.exception_handler(CraftError)
    def _craft(_: HttpRequest, error: CraftError) -> HttpResponse:
        return problem(422, "not-possible", error.message, field=error.field)

    @api.exception_handler(RequestValidationError)
    def _invalid(_: HttpRequest, error: RequestValidationError) -> HttpResponse:
        fields = _fields(error.errors)
        first = fields[0] if fields else {"field": "", "message": "The request could not be read."}
        return problem(
            422, "invalid", f"{first['field']}: {first['message']}".lstrip(": "), field=first["field"], errors=fields
        )

    @api.exception_handler(DjangoValidationError)
    def _checked(_: HttpRequest, error: DjangoValidationError) -> HttpResponse:
        return problem(422, "invalid", " ".join(error.messages))

    @api.exception_handler(AuthenticationError)
    def _anonymous(_: HttpRequest, __: AuthenticationError) -> HttpResponse:
        return problem(401, "signed-out", "You are signed out. Sign in to go on.")

    @api.exception_handler(Http404)
    def _missing(_: HttpRequest, __: Http404) -> HttpResponse:
        return problem(404, "not-found", NOT_FOUND)

    @api.exception_handler(RequestDataTooBig)
    def _too_much(_: HttpRequest, __: RequestDataTooBig) -> HttpResponse:
        return problem(413, "too-much", _SENTENCES[413])

    @api.exception_handler(MultiPartParserError)
    def _no_form(_: HttpRequest, __: MultiPartParserError) -> HttpResponse:
        return problem(400, "refused", _SENTENCES[400])

    @api.exception_handler(SuspiciousOperation)
    def _odd(_: HttpRequest, __: SuspiciousOperation) -> HttpResponse:
        return problem(400, "refused", _SENTENCES[400])

    @api.exception_handler(HttpError)
    def _http(_: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, "refused", str(error))

    _register_faults(api)


def _register_faults(api: NinjaAPI) -> None:
    """What the machine cannot do, and what broke."""

    @api.exception_handler(OperationalError)
    def _database(request: HttpRequest, error: OperationalError) -> HttpResponse:
        code = error.args[0] if error.args else 0
        if code in _FULL:
            return problem(507, "no-room", NO_ROOM)
        if code in _AWAY:
            log.warning("%s %s found no database", request.method, request.path)
            return problem(503, "busy", "The studio's database is starting: a moment.", retry_after=AWAY_SECONDS)
        if code in _MET:
            log.warning("%s %s met another change", request.method, request.path)
            return problem(503, "busy", "Two changes came at the same moment: once more.", retry_after=1)
        return _broken(request, error)

    @api.exception_handler(OSError)
    def _disk(request: HttpRequest, error: OSError) -> HttpResponse:
        if error.errno in (errno.ENOSPC, errno.EDQUOT, errno.EROFS):
            log.error("%s %s: the disk takes nothing more", request.method, request.path)
            return problem(507, "no-room", NO_ROOM)
        return _broken(request, error)

    @api.exception_handler(Exception)
    def _broken(request: HttpRequest, error: Exception) -> HttpResponse:
        log.error("%s %s failed", request.method, request.path, exc_info=error)
        return problem(500, "broken", "Something broke here. What was saved is safe; try again in a moment.")
