"""A visitor of a running studio, who keeps one connection and her cookies: the client of load and attacks."""

from __future__ import annotations

import json
import os
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from http.client import HTTPConnection, HTTPException
from http.cookies import SimpleCookie
from itertools import count
from typing import Any
from urllib.parse import urlsplit

PASSWORD = "velvet-lantern-9"


_PLACES = count(os.getpid() % 250 * 250)


def place() -> str:
    """Where a visitor comes from: an address of its own on the loopback network."""
    at = next(_PLACES) % 62_500
    return f"127.1.{at // 250 + 1}.{at % 250 + 1}"


class Visitor:
    """One client, by an address of her own. ask answers status and body; nothing is raised for a refusal."""

    def __init__(self, url: str, timeout: float = 60.0, source: str = "") -> None:
        self.address = urlsplit(url).netloc
        self.connection = HTTPConnection(self.address, timeout=timeout, source_address=(source or place(), 0))
        self.cookies: dict[str, str] = {}

    def ask(
        self, method: str, path: str, body: Any = None, raw: bytes | None = None, kind: str = ""
    ) -> tuple[int, Any]:
        """A request; body goes as JSON, raw as it is with its kind. (0, None) when there was no answer."""
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        if token := self.cookies.get("csrftoken"):
            headers["X-CSRFToken"] = token
        if raw is None and body is not None:
            raw, kind = json.dumps(body).encode(), "application/json"
        if kind:
            headers["Content-Type"] = kind
        try:
            self.connection.request(method, f"/api{path}", raw, headers)
            answer = self.connection.getresponse()
            data = answer.read()
        except (OSError, HTTPException):
            self.connection.close()
            return 0, None
        for line in answer.headers.get_all("Set-Cookie", []):
            self.cookies.update({name: morsel.value for name, morsel in SimpleCookie(line).items()})
        is_json = "json" in answer.headers.get("Content-Type", "")
        return answer.status, json.loads(data) if is_json else data

    def signed_up(self, name: str) -> Visitor:
        """This visitor with an account of her own."""
        self.ask("GET", "/session")
        body = {"username": name, "password": PASSWORD, "studio": name}
        for _ in range(60):
            status, got = self.ask("POST", "/accounts", body)
            if status != 503:
                break
            time.sleep(0.5)
        assert status == 200, got
        return self

    def signed_in(self, name: str, password: str) -> Visitor:
        """This visitor with an account that there is."""
        self.ask("GET", "/session")
        status, got = self.ask("POST", "/session", {"username": name, "password": password})
        assert status == 200, got
        return self


def quantile(times: list[float], share: float) -> float:
    """The time within which a share of all lies, in the unit of the times."""
    ordered = sorted(times)
    return ordered[min(len(ordered) - 1, int(len(ordered) * share))] if ordered else float("nan")


def timed(work: Callable[[], object]) -> float:
    """Seconds that work takes."""
    begun = time.monotonic()
    work()
    return time.monotonic() - begun


def at_once(works: list[Callable[[], Any]]) -> list[Any]:
    """What works answer that are done at the same time, each in a thread of its own."""
    with ThreadPoolExecutor(max_workers=max(len(works), 1)) as pool:
        return [future.result() for future in [pool.submit(work) for work in works]]
