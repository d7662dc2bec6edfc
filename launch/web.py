"""The web processes: one listening socket, held here, and processes that take connections from it.

The socket outlives each of them, so that a client who comes while one is replaced waits, and is not refused.
"""

from __future__ import annotations

import socket
import time
import urllib.error
import urllib.request

from launch import processes
from launch.paths import ROOT, VAR, python
from launch.say import Stop

LOG = VAR / "log" / "web.log"
PROCESSES = ("web-1", "web-2")
WAITING = 1024
"""Connections that may wait to be taken."""


def listen(port: int) -> socket.socket:
    """The socket of a loopback port; Stop when another program has it."""
    sock = socket.socket()
    sock.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        sock.bind(("127.0.0.1", port))
    except OSError:
        sock.close()
        raise Stop(f"port {port} is taken by another program; choose another with ./spirrel up --port N.") from None
    sock.listen(WAITING)
    return sock


def start(sock: socket.socket, environment: dict[str, str]) -> None:
    """Start those processes that do not run; at the first start, wait until they answer."""
    fresh = [name for name in PROCESSES if processes.remembered(name) is None]
    for name in fresh:
        processes.spawn(
            name,
            [python(), "-m", "studio.web"],
            env={**environment, "SPIRREL_WEB_SOCKET": str(sock.fileno())},
            log=LOG,
            cwd=ROOT,
            keep=(sock.fileno(),),
        )


def wait(sock: socket.socket, patience: float = 60.0) -> None:
    """Wait until the studio answers; Stop with its last words when it does not."""
    end = time.monotonic() + patience
    while not answers(sock):
        gone = all(processes.remembered(name) is None for name in PROCESSES)
        if gone or time.monotonic() > end:
            stop()
            raise Stop(f"the server did not start; its last words, from {LOG}:\n{processes.last_lines(LOG)}")
        time.sleep(0.1)


def answers(sock: socket.socket) -> bool:
    """Whether the studio answers."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{sock.getsockname()[1]}/api/health", timeout=5) as answer:
            return bool(answer.status == 200)
    except (urllib.error.URLError, OSError):
        return False


def missing() -> bool:
    """Whether one of them has ended."""
    return any(processes.remembered(name) is None for name in PROCESSES)


def stop() -> bool:
    """Stop them, and what an earlier version called so; whether one ran."""
    ran = [processes.stop(name) for name in (*PROCESSES, "web")]
    return any(ran)
