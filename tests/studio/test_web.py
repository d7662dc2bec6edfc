"""A web process: whoever stalls holds no thread, one that ends answers what it took, a proxy is believed where it is set."""

from __future__ import annotations

import socket
import threading
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from http.client import HTTPConnection
from typing import Any

import pytest

from studio.web import Bounds, Serving, resident_mb

App = Callable[[dict[str, Any], Callable[..., Any]], list[bytes]]


def echo(environ: dict[str, Any], start: Callable[..., Any]) -> list[bytes]:
    """Says who asked, by which scheme."""
    body = f"{environ['REMOTE_ADDR']} {environ['wsgi.url_scheme']}".encode()
    start("200 OK", [("Content-Length", str(len(body)))])
    return [body]


class Running:
    """A server in a thread of its own."""

    def __init__(self, app: App, bounds: Bounds, proxy: str = "", most_mb: Callable[[], float] = resident_mb) -> None:
        self.sock = socket.socket()
        self.sock.bind(("127.0.0.1", 0))
        self.sock.listen(64)
        self.port = self.sock.getsockname()[1]
        handed_on = self.sock.dup()
        handed_on.setblocking(False)
        self.serving = Serving(app, handed_on, bounds, proxy)
        self.thread = threading.Thread(target=self.serving.run, args=(most_mb,))
        self.thread.start()

    def ask(self, headers: dict[str, str] | None = None) -> tuple[int, bytes, str]:
        """Status, body and what becomes of the connection."""
        with closing(HTTPConnection("127.0.0.1", self.port, timeout=20)) as asked:
            asked.request("GET", "/", headers=headers or {})
            got = asked.getresponse()
            return got.status, got.read(), got.headers.get("Connection", "")

    def close(self) -> None:
        """End it, and let go of the socket."""
        self.serving.end()
        self.thread.join(60)
        self.sock.close()
        assert not self.thread.is_alive()


@contextmanager
def running(app: App = echo, proxy: str = "", **bounds: Any) -> Iterator[Running]:
    one = Running(app, Bounds(**bounds), proxy)
    try:
        yield one
    finally:
        one.close()


def test_whoever_stalls_holds_no_thread() -> None:
    with running(threads=2) as server:
        stalled = []
        for n in range(20):
            made = socket.create_connection(("127.0.0.1", server.port))
            made.sendall(b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 9\r\n\r\nhalf" if n % 2 else b"GET / HT")
            stalled.append(made)
        assert server.ask()[0] == 200
        for made in stalled:
            with pytest.raises(BlockingIOError):  # still waited for, not one was let go to make room
                made.recv(1, socket.MSG_DONTWAIT)
            made.close()


def test_whoever_stalls_too_long_is_let_go(monkeypatch: pytest.MonkeyPatch) -> None:
    with running(stalled_seconds=1) as server:
        made = socket.create_connection(("127.0.0.1", server.port))
        made.sendall(b"GET / HT")
        made.settimeout(20)
        assert made.recv(10) == b"", "closed from the other side"
        made.close()


def test_a_process_that_ends_answers_what_it_took_and_the_next_takes_the_rest() -> None:
    inside, go = threading.Event(), threading.Event()

    def slow(environ: dict[str, Any], start: Callable[..., Any]) -> list[bytes]:
        inside.set()
        go.wait(20)
        return echo(environ, start)

    got: list[tuple[int, bytes, str]] = []
    first = Running(slow, Bounds(threads=1))
    asking = threading.Thread(target=lambda: got.append(first.ask()))
    asking.start()
    assert inside.wait(10)
    first.serving.end()
    handed_on = first.sock.dup()
    late = threading.Thread(target=lambda: got.append(first.ask()))
    late.start()
    go.set()
    first.thread.join(60)
    asking.join(20)
    assert [status for status, _, _ in got] == [200], "the one at work was answered, the late one waits in the socket"
    handed_on.setblocking(False)
    second = Serving(echo, handed_on, Bounds())
    thread = threading.Thread(target=second.run)
    thread.start()
    late.join(20)
    second.end()
    thread.join(60)
    first.close()
    assert [status for status, _, _ in got] == [200, 200], "nothing was refused"


def test_connections_are_given_up_while_it_ends() -> None:
    with running() as server:
        assert server.ask()[2] == ""
        kept = HTTPConnection("127.0.0.1", server.port, timeout=20)
        kept.request("GET", "/")
        kept.getresponse().read()
        server.serving.end()
        kept.request("GET", "/")
        last = kept.getresponse()
        last.read()
        kept.close()
        assert (last.status, last.headers.get("Connection")) == (200, "close"), (
            "so that nobody asks into a closing door"
        )


def test_one_that_has_grown_too_large_makes_place() -> None:
    large = Running(echo, Bounds(memory_mb=100), most_mb=lambda: 101.0)
    large.thread.join(60)
    assert not large.thread.is_alive()
    large.close()
    assert resident_mb() > 10


@pytest.mark.parametrize(
    ("proxy", "told"), [("", b"127.0.0.1 http"), ("127.0.0.1", b"203.0.113.9 https"), ("10.0.0.1", b"127.0.0.1 http")]
)
def test_a_proxy_is_believed_only_where_it_is_set(proxy: str, told: bytes) -> None:
    with running(proxy=proxy) as server:
        said = {"X-Forwarded-For": "203.0.113.9", "X-Forwarded-Proto": "https"}
        assert server.ask(said)[1] == told
