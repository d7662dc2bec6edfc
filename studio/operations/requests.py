"""Every request has a number, which its answer and everything logged about it carry; and it is measured."""

from __future__ import annotations

import time
import uuid
from collections.abc import Callable

from django.http import HttpRequest
from django.http.response import HttpResponseBase

from studio.operations.logs import NUMBER
from studio.operations.measures import ANSWERS, SECONDS


def numbered(get_response: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware, outermost."""

    def answered(request: HttpRequest) -> HttpResponseBase:
        token = NUMBER.set(uuid.uuid4().hex[:12])
        begun = time.perf_counter()
        try:
            response = get_response(request)
            response["X-Request-Id"] = NUMBER.get()
            _measure(request, response.status_code, time.perf_counter() - begun)
            return response
        finally:
            NUMBER.reset(token)

    return answered


def _measure(request: HttpRequest, status: int, seconds: float) -> None:
    """By route, never by address: an address may hold a token, and there is no end of them."""
    route = request.resolver_match.route if request.resolver_match else "file"
    ANSWERS.labels(request.method or "", route, str(status)).inc()
    SECONDS.labels(request.method or "", route).observe(seconds)
