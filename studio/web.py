"""A web process: `python -m studio.web`, on a listening socket that whoever starts it holds and hands on.

Waitress reads a request as a whole before a thread works on it, and sends an answer as fast as its reader takes it:
whoever stalls holds a connection, never a thread. The socket outlives the process, so nothing is refused while one
takes the place of another.
"""

from __future__ import annotations

import logging
import os
import signal
import socket
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from types import FrameType
from typing import Any

from waitress import create_server, wasyncore
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser

from studio.garbage import look_seldom
from studio.wsgi import application

log = logging.getLogger("studio")

FIRST_HANDED_ON = 3
"""The descriptor at which a service manager that opens the socket itself hands it on."""

LINGER_SECONDS, DRAIN_SECONDS = 4.0, 30.0
"""A process that ends takes no new connection at once, keeps a silent one for the first, and ends after the second
whatever still runs."""


@dataclass(frozen=True, slots=True)
class Bounds:
    """What a web process is held to. memory_mb: it makes place for a fresh one once it holds more."""

    threads: int = 8
    connections: int = 1_000
    stalled_seconds: int = 20
    body_bytes: int = 24 * 2**20
    memory_mb: float = 400.0


def options(bounds: Bounds, proxy: str = "") -> dict[str, Any]:
    """What the server is made with. proxy: the address of a reverse proxy whose word about its clients is taken."""
    trusted = {"trusted_proxy": proxy, "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"}}
    return {
        "threads": bounds.threads,
        "connection_limit": bounds.connections,
        "channel_timeout": bounds.stalled_seconds,
        "cleanup_interval": 5,
        "max_request_body_size": bounds.body_bytes,
        "asyncore_use_poll": True,
        "ident": None,
        "clear_untrusted_proxy_headers": True,
        **(trusted if proxy else {}),
    }


def resident_mb() -> float:
    """Memory of this process that stands in RAM."""
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 2**20


class Serving:
    """One server and its loop, until it is told to end or has grown too large; then it drains."""

    def __init__(self, app: Callable[..., Any], sock: socket.socket, bounds: Bounds, proxy: str = "") -> None:
        self.bounds = bounds
        self.channels: dict[int, Any] = {}
        self.server = create_server(app, map=self.channels, sockets=[sock], **options(bounds, proxy))
        self.server.channel_class = self._channels()
        self.ending: float | None = None

    def _channels(self) -> type[HTTPChannel]:
        """Connections that are given up after the next answer once this process ends, so that nobody asks into a door that
        closes."""
        serving = self

        class Request(HTTPRequestParser):  # type: ignore[misc]
            def parse_header(self, header_plus: bytes) -> None:
                super().parse_header(header_plus)
                if serving.ending is not None:
                    self.headers["CONNECTION"] = "close"

        class Connection(HTTPChannel):  # type: ignore[misc]
            parser_class = Request

        return Connection

    def end(self, *_: int | FrameType | None) -> None:
        """Take no new connection; those that are at work are answered."""
        if self.ending is None:
            self.ending = time.monotonic()
            self.server.accepting = False
            self.server.adj.channel_timeout = LINGER_SECONDS
            self.server.adj.cleanup_interval = 1
            self.server.next_channel_cleanup = 0

    def run(self, most_mb: Callable[[], float] = resident_mb) -> None:
        """Serve until the end. most_mb: how much memory is held, in MB."""
        looked = time.monotonic()
        while not self._drained():
            wasyncore.loop(timeout=0.5, use_poll=True, map=self.channels, count=1)
            if self.ending is None and time.monotonic() - looked > 2:
                looked = time.monotonic()
                if most_mb() > self.bounds.memory_mb:
                    log.warning("a web process holds %.0f MB and makes place for a fresh one", most_mb())
                    self.end()
        self.server.task_dispatcher.shutdown(timeout=1)
        wasyncore.close_all(self.channels)

    def _drained(self) -> bool:
        if self.ending is None:
            return False
        waited = time.monotonic() - self.ending
        return waited > DRAIN_SECONDS or not self.server.active_channels


def main() -> int:
    """Serve on the socket that was handed on."""
    handed_on = int(os.environ.get("SPIRREL_WEB_SOCKET", FIRST_HANDED_ON))
    try:
        sock = socket.socket(fileno=handed_on)
    except OSError:
        print(
            "studio.web: no listening socket was handed on; ./spirrel up opens one, see docs/deploy.md", file=sys.stderr
        )
        return 2
    sock.setblocking(False)
    look_seldom()
    usual = Bounds()
    bounds = Bounds(
        threads=int(os.environ.get("SPIRREL_WEB_THREADS", usual.threads)),
        memory_mb=float(os.environ.get("SPIRREL_WEB_MB", usual.memory_mb)),
    )
    serving = Serving(application, sock, bounds, os.environ.get("SPIRREL_TRUSTED_PROXY", ""))
    for told in (signal.SIGTERM, signal.SIGINT):
        signal.signal(told, serving.end)
    serving.run()
    return 0


if __name__ == "__main__":
    sys.exit(main())
