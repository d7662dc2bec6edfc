"""`./spirrel bench attacks [NAME…]`: each attack on a fresh demo studio on loopback, and how it went."""

from __future__ import annotations

import os
import socket
import statistics
import sys
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from io import BytesIO
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image

from benchmarks.visitor import PASSWORD, Visitor, at_once, quantile, timed
from launch import processes, web

BALL = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R{last}: sc around [18]\n"
    "R{then}: (sc, dec) x 6 [12]\nR{end}: dec x 6 [6]\n"
)
GAUGE = {"stitch_mm": 5.2, "round_mm": 4.9}


def ball(rounds: int) -> str:
    """A sound text that settles; another one for every number of rounds."""
    return BALL.format(last=rounds, then=rounds + 1, end=rounds + 2)


def question(text: str) -> dict[str, Any]:
    """A part's text as it is asked about on the bench."""
    return {"text": text, "terms": "us", "gauge": GAUGE}


class Bystander:
    """Somebody who only wants her shelf, every 100 ms, while others attack."""

    def __init__(self, url: str) -> None:
        self.visitor = Visitor(url, timeout=30).signed_up(f"bystander{time.monotonic_ns()}")
        self.times: list[float] = []
        self.lost = 0
        self.ended = threading.Event()

    def look(self) -> None:
        """Until the attack has ended."""
        while not self.ended.wait(0.1):
            begun = time.monotonic()
            status, _ = self.visitor.ask("GET", "/designs")
            self.times.append(time.monotonic() - begun)
            self.lost += status != 200


@contextmanager
def beside(url: str) -> Iterator[Bystander]:
    """A bystander who looks on while an attack is made."""
    one = Bystander(url)
    thread = threading.Thread(target=one.look)
    thread.start()
    try:
        yield one
    finally:
        one.ended.set()
        thread.join()


def fared(one: Bystander) -> str:
    """How a bystander fared."""
    ms = [t * 1000 for t in one.times]
    return (
        f"a bystander's reads: {len(ms)}, p50 {statistics.median(ms):.0f} ms, p99 {quantile(ms, 0.99):.0f} ms, "
        f"worst {max(ms):.0f} ms, lost {one.lost}"
    )


def stalled(url: str) -> str:
    """Sixty connections that begin a request and never end it, half of them in the head and half in the body."""
    host, port = url.removeprefix("http://").split(":")
    head = f"POST /api/session HTTP/1.1\r\nHost: {host}:{port}\r\n".encode()
    half = head + b"Content-Type: application/json\r\nContent-Length: 5000\r\n\r\n{"
    with beside(url) as one:
        open_ones = []
        for n in range(60):
            made = socket.create_connection((host, int(port)), timeout=10)
            made.sendall(half if n % 2 else head)
            open_ones.append(made)
        time.sleep(8)
        for made in open_ones:
            made.close()
    return fared(one)


def line(url: str) -> str:
    """A hundred figures of one designer in line; another one settles hers."""
    greedy, other = (Visitor(url).signed_up(f"{name}{time.monotonic_ns()}") for name in ("greedy", "other"))
    for n in range(100):
        greedy.ask("POST", "/bench/settle", question(ball(20 + n)))
    waited = timed(lambda: _settled(other, ball(19)))
    return f"the other one waited {waited:.1f} s"


def _settled(visitor: Visitor, text: str) -> None:
    _, job = visitor.ask("POST", "/bench/settle", question(text))
    while visitor.ask("GET", f"/jobs/{job['id']}")[1]["state"] in ("waiting", "running"):
        time.sleep(0.1)


def sign_ups(url: str) -> str:
    """Eighty accounts made at once."""
    stamp = time.monotonic_ns()

    def one_more(n: int) -> int:
        visitor = Visitor(url, timeout=120, source="127.0.0.9")
        visitor.ask("GET", "/session")
        body = {"username": f"many{stamp}x{n}", "password": PASSWORD, "studio": "Many"}
        return visitor.ask("POST", "/accounts", body)[0]

    with beside(url) as one:
        answers = at_once([lambda n=n: one_more(n) for n in range(80)])  # type: ignore[misc]
    told = ", ".join(f"{answers.count(s)} × {s}" for s in sorted(set(answers)))
    return f"answers {told}; {fared(one)}"


def web_pids() -> list[int]:
    """Every process of the web server."""
    found = []
    for name in web.PROCESSES:
        if (pid := processes.remembered(name)) is not None:
            found += [pid, *_children(pid)]
    return found


def _children(pid: int) -> list[int]:
    try:
        return [int(c) for c in Path(f"/proc/{pid}/task/{pid}/children").read_text().split()]
    except OSError:
        return []


def resident_mb(pid: int) -> float:
    """Memory of a process that stands in RAM, in MB; 0 when it is gone."""
    try:
        rows = Path(f"/proc/{pid}/status").read_text().splitlines()
    except OSError:
        return 0.0
    return next((int(row.split()[1]) / 1024 for row in rows if row.startswith("VmRSS")), 0.0)


def memory(url: str) -> str:
    """Two hundred large texts, each another one, read and run: what the web server keeps of them."""
    one = Visitor(url, timeout=120).signed_up(f"large{time.monotonic_ns()}")
    highest = 0.0
    lost = 0
    for n in range(200):
        wide = 60 + n
        text = "\n".join(
            [f"R1: {wide} sc in ring [{wide}]"] + [f"R{r}: {wide} sc [{wide}]" for r in range(2, 8200 // wide + n)]
        )
        status, _ = one.ask("POST", "/bench/preview", question(text))
        lost += status == 0
        highest = max(highest, *map(resident_mb, web_pids()))
    now = sorted((round(resident_mb(p)) for p in web_pids()), reverse=True)
    return f"largest web process {highest:.0f} MB, at the end {now} MB, {lost} answers lost"


def lockout(url: str) -> str:
    """A stranger tries forty wrong passwords for a known name; then its owner signs in, from elsewhere."""
    name = f"known{time.monotonic_ns()}"
    Visitor(url).signed_up(name)
    stranger = Visitor(url)
    stranger.ask("GET", "/session")
    tried = [stranger.ask("POST", "/session", {"username": name, "password": f"no-{n}"})[0] for n in range(40)]
    owner = Visitor(url)
    owner.ask("GET", "/session")
    status, _ = owner.ask("POST", "/session", {"username": name, "password": PASSWORD})
    told = ", ".join(f"{tried.count(s)} × {s}" for s in sorted(set(tried)))
    return f"the stranger got {told}; the owner {status}"


def pictures(url: str) -> str:
    """Twelve pictures of twenty megapixels at once."""
    one = Visitor(url).signed_up(f"painter{time.monotonic_ns()}")
    _, design = one.ask("POST", "/designs", {"name": "Moth", "terms": "us"})
    noise = np.random.default_rng(1).integers(0, 255, (4000, 5000, 3), np.uint8)
    out = BytesIO()
    Image.fromarray(noise // 16 * 16).save(out, "JPEG", quality=60)
    head = b'--b\r\nContent-Disposition: form-data; name="file"; filename="m.jpg"\r\nContent-Type: image/jpeg\r\n\r\n'
    body = head + out.getvalue() + b"\r\n--b--\r\n"

    def send() -> tuple[int, Any]:
        each = Visitor(url, timeout=180)
        each.cookies = dict(one.cookies)
        path = f"/designs/{design['id']}/pictures"
        return each.ask("POST", path, raw=body, kind="multipart/form-data; boundary=b")

    with beside(url) as looker:
        answers = at_once([send] * 12)
    statuses = [status for status, _ in answers]
    told = ", ".join(f"{statuses.count(s)} × {s}" for s in sorted(set(statuses)))
    refused = {got["detail"] for status, got in answers if status >= 400}
    return f"{len(body) / 2**20:.0f} MB each: {told} {refused or ''}; {fared(looker)}"


def many_texts(url: str) -> str:
    """A preview that brings sixty other parts, as large as one request may be."""
    one = Visitor(url, timeout=180).signed_up(f"wide{time.monotonic_ns()}")
    others = [{"name": f"P{n}", "make": 1, "text": ball(20 + n) * 1500} for n in range(60)]
    body = question(ball(9)) | {"others": others}
    with beside(url) as looker:
        begun = time.monotonic()
        status, got = one.ask("POST", "/bench/preview", body)
        took = time.monotonic() - begun
    said = got["detail"] if status >= 400 and got else ""
    return f"answered {status} after {took:.1f} s {said}; {fared(looker)}"


def killed(url: str) -> str:
    """Every process of the web server killed, one after the other: how long the shelf is away."""
    one = Visitor(url, timeout=5).signed_up(f"patient{time.monotonic_ns()}")
    away = []
    for _ in range(2):
        for pid in web_pids():
            try:
                os.kill(pid, 9)
            except ProcessLookupError:
                continue
            begun = time.monotonic()
            while one.ask("GET", "/designs")[0] != 200:
                if time.monotonic() - begun > 30:
                    return "the web server did not come back within 30 s"
                time.sleep(0.02)
            away.append(time.monotonic() - begun)
            time.sleep(3)
    return f"{len(away)} kills, away at most {max(away):.1f} s"


ATTACKS: dict[str, Callable[[str], str]] = {
    "stalled": stalled,
    "line": line,
    "sign-ups": sign_ups,
    "lockout": lockout,
    "pictures": pictures,
    "texts": many_texts,
    "memory": memory,
    "killed": killed,
}


def main(url: str, names: list[str]) -> int:
    """Make the named attacks, or all."""
    for name in names or ATTACKS:
        attack = ATTACKS[name]
        print(f"{name}: {attack.__doc__}", flush=True)
        print(f"    {attack(url)}\n", flush=True)
    return 0


sys.exit(main(sys.argv[1], sys.argv[2:]))
