"""Lets holders of links ask routes that are theirs."""

from __future__ import annotations

from django.http import HttpRequest
from ninja.security import APIKeyHeader

from studio.links.actions import holder_of
from studio.policy import LinkHolder


class ByLink(APIKeyHeader):
    """The token of a link, in a header of its own: no other site's page can make a browser send it."""

    param_name = "X-Link"

    def authenticate(self, request: HttpRequest, key: str | None) -> LinkHolder | None:
        """Whoever holds the link; None without a token. Refusal where no link has it."""
        return holder_of(key) if key else None


by_link = ByLink()
