"""How many requests a running studio answers, at thirty clients: `./spirrel bench load` runs it.

The clients are processes on the same machine and take their share of its two cores.
"""

from __future__ import annotations

import multiprocessing
import sys
import threading
import time
from collections import Counter
from collections.abc import Callable
from typing import Any

from benchmarks.visitor import Visitor, quantile

CLIENTS, PROCESSES = 30, 3
SECONDS = 8.0

TEXT = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: (3 sc, inc) x 6 [30]\n"
    "R6-R11: sc around [30]\nEyes between R7 and R8.\nStuff.\nR12: (3 sc, dec) x 6 [24]\nR13: (2 sc, dec) x 6 [18]\n"
    "R14: (sc, dec) x 6 [12]\nR15: dec x 6 [6]\n"
)
GAUGE = {"stitch_mm": 5.2, "round_mm": 4.9}

Client = Callable[[Visitor, dict[str, Any], int], int]


def _read(visitor: Visitor, design: dict[str, Any], n: int) -> int:
    path = ("/session", "/designs", f"/designs/{design['id']}")[n % 3]
    return visitor.ask("GET", path)[0]


def _autosave(visitor: Visitor, design: dict[str, Any], n: int) -> int:
    part = design["parts"][0]
    body = {"text": f"{TEXT}Note {n}.\n", "etag": design["etag"]}
    status, got = visitor.ask("PUT", f"/designs/{design['id']}/parts/{part['key']}/typed", body)
    if status == 200:
        design["etag"] = got["etag"]
    return status


def _preview(visitor: Visitor, design: dict[str, Any], n: int) -> int:
    text = TEXT.replace("R6-R11", f"R6-R{11 + n % 40}")
    return visitor.ask("POST", "/bench/preview", {"text": text, "terms": "us", "gauge": GAUGE})[0]


KINDS: dict[str, Client] = {"reads": _read, "autosaves": _autosave, "previews": _preview}


def _prepared(url: str, name: str) -> tuple[Visitor, dict[str, Any]]:
    visitor = Visitor(url).signed_up(name)
    _, design = visitor.ask("POST", "/designs", {"name": "Moth", "terms": "us"})
    body = {"name": "Body", "make": 1, "colour": None, "text": TEXT, "recipe": None}
    _, design = visitor.ask("POST", f"/designs/{design['id']}/parts", body)
    return visitor, design | {"etag": design["parts"][0]["etag"]}


def _clients(url: str, stamp: int, first: int, many: int, start: Any, out: Any) -> None:
    """One process of clients: each its own account; all kinds one after the other, begun together."""
    ready = [_prepared(url, f"load{stamp}x{first + n}") for n in range(many)]
    for kind, client in KINDS.items():
        times: list[float] = []
        wrong: Counter[int] = Counter()
        start.wait()
        end = time.monotonic() + SECONDS

        def run(
            visitor: Visitor,
            design: dict[str, Any],
            client: Client,
            end: float,
            times: list[float],
            wrong: Counter[int],
        ) -> None:
            n = 0
            while time.monotonic() < end:
                begun = time.monotonic()
                if (status := client(visitor, design, n)) != 200:
                    wrong[status] += 1
                times.append(time.monotonic() - begun)
                n += 1

        threads = [threading.Thread(target=run, args=(*one, client, end, times, wrong)) for one in ready]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        out.put((kind, times, wrong))


def main(url: str) -> int:
    """Print a line for each kind of request."""
    stamp = time.monotonic_ns()
    start, out = multiprocessing.Barrier(PROCESSES), multiprocessing.Queue()
    each = CLIENTS // PROCESSES
    running = [
        multiprocessing.Process(target=_clients, args=(url, stamp, n * each, each, start, out))
        for n in range(PROCESSES)
    ]
    for process in running:
        process.start()
    times: dict[str, list[float]] = {kind: [] for kind in KINDS}
    wrong: dict[str, Counter[int]] = {kind: Counter() for kind in KINDS}
    for _ in range(PROCESSES * len(KINDS)):
        kind, some, bad = out.get(timeout=300)
        times[kind] += some
        wrong[kind] += bad
    for process in running:
        process.join()
    print(f"{CLIENTS} clients, {SECONDS:.0f} s each        a second     p50 ms     p99 ms   worst ms  other answers")
    for kind, all_of in times.items():
        ms = [t * 1000 for t in all_of]
        print(
            f"{kind:<28} {len(ms) / SECONDS:11.0f} {quantile(ms, 0.5):10.0f} {quantile(ms, 0.99):10.0f} "
            f"{max(ms):10.0f} {dict(wrong[kind]) or '-'!s:>14}"
        )
    return 0


sys.exit(main(sys.argv[1]))
