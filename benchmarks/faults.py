"""Processes killed while designers edit and makers sync: `./spirrel bench faults [KILLS]`, 40 where nothing is said.

Each kill takes the next process of the studio (web, worker, database) with SIGKILL, after a pause by chance. Printed: how often, how long the
studio was away, and whether anything that was acknowledged is lost.
"""

from __future__ import annotations

import os
import random
import signal
import sys
import threading
import time
import uuid
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from benchmarks.visitor import Visitor, quantile
from launch import processes, web
from launch.server import JOB_WORKERS

PROCESSES = (*web.PROCESSES, *JOB_WORKERS, "mariadb")
PATIENCE = 60.0
ROUND = "R1: 6 sc in ring [6]\n"


@dataclass
class Editor:
    """A designer who saves without pause, and knows what was told as saved."""

    url: str
    name: str
    ended: threading.Event
    saved: list[str] = field(default_factory=list)
    visitor: Visitor = field(init=False)
    design: dict[str, Any] = field(init=False)

    def prepare(self) -> None:
        """An account, a design, a part, a making."""
        self.visitor = Visitor(self.url, timeout=10).signed_up(self.name)
        _, made = self.visitor.ask("POST", "/designs", {"name": "Moth"})
        body = {"name": "Body", "make": 1, "colour": None, "text": ROUND, "recipe": None}
        _, self.design = self.visitor.ask("POST", f"/designs/{made['id']}/parts", body)

    def edit(self) -> None:
        """Save, until the end; whatever was not acknowledged may or may not be there."""
        key, etag = self.design["parts"][0]["key"], self.design["parts"][0]["etag"]
        path = f"/designs/{self.design['id']}"
        n = 0
        while not self.ended.is_set():
            n += 1
            text = f"{ROUND}save {n}\n"
            status, got = self.visitor.ask("PUT", f"{path}/parts/{key}/typed", {"text": text, "etag": etag})
            if status == 200:
                etag = got["etag"]
                self.saved.append(text)
            elif status == 409:
                etag = got["etag"]  # an answer was lost on its way: what it acknowledged is there
            else:
                time.sleep(0.05)

    def read(self, path: str) -> Any:
        """An answer, by a connection of its own: the one before may have died with a process."""
        for _ in range(20):
            status, got = self.visitor.ask("GET", path)
            if status == 200:
                return got
            time.sleep(0.5)
        raise TimeoutError(f"{path} was not answered")

    def lost(self) -> int:
        """How many acknowledged saves are behind what is there now, of the last one."""
        got = self.read(f"/designs/{self.design['id']}")
        there = int(got["parts"][0]["text"].rsplit("save ", 1)[1])
        return max(0, int(self.saved[-1].rsplit("save ", 1)[1]) - there) if self.saved else 0


@dataclass
class Maker(Editor):
    """A maker who syncs without pause; what was not acknowledged is sent again, as a phone does."""

    events: set[str] = field(default_factory=set)
    written: int = 0
    making: str = ""

    def prepare(self) -> None:
        """A making besides."""
        super().prepare()
        _, making = self.visitor.ask("POST", f"/designs/{self.design['id']}/makings", {"title": "First"})
        self.making = making["id"]

    def edit(self) -> None:
        """Write events by fives, and send each five until they are acknowledged."""
        key = self.design["parts"][0]["key"]
        while not self.ended.is_set():
            batch = [self._event(key) for _ in range(5)]
            while True:
                body = {"events": batch, "known": 0}
                if self.visitor.ask("POST", f"/makings/{self.making}/sync", body)[0] == 200:
                    self.events.update(str(e["id"]) for e in batch)
                    break
                time.sleep(0.05)

    def _event(self, key: str) -> dict[str, Any]:
        self.written += 1
        head = {"id": str(uuid.uuid4()), "device": self.name, "seq": self.written}
        at = 1_790_000_000_000 + self.written
        return {**head, "at": at, "kind": "stitched", "part": key, "piece": 1, "round": 1, "stitches": 1}

    def lost(self) -> int:
        """How many acknowledged events are not there, or there twice."""
        got = self.read(f"/makings/{self.making}/log")
        there = Counter(str(e["id"]) for e in got["events"])
        return len(self.events - set(there)) + sum(n - 1 for n in there.values())


def _away(url: str) -> float:
    """Seconds until the studio answers a read again."""
    begun = time.monotonic()
    while time.monotonic() - begun < PATIENCE:
        if Visitor(url, timeout=5).ask("GET", "/health")[0] == 200:
            return time.monotonic() - begun
        time.sleep(0.02)
    return PATIENCE


def main(url: str, kills: int) -> int:
    """Kill, and print what became of it."""
    ended = threading.Event()
    stamp = time.monotonic_ns()
    people: list[Editor] = [Editor(url, f"editor{stamp}x{n}", ended) for n in range(3)]
    people += [Maker(url, f"maker{stamp}x{n}", ended) for n in range(3)]
    for one in people:
        one.prepare()
    threads = [threading.Thread(target=one.edit) for one in people]
    for thread in threads:
        thread.start()
    chance = random.Random(stamp)
    away: dict[str, list[float]] = {name: [] for name in PROCESSES}
    for kill in range(kills):
        name = PROCESSES[kill % len(PROCESSES)]
        pid = processes.remembered(name)
        if pid is not None:
            os.kill(pid, signal.SIGKILL)
            away[name].append(_away(url))
        time.sleep(chance.uniform(0.5, 2.0))
    _away(url)
    ended.set()
    for thread in threads:
        thread.join(PATIENCE)
    times = [t for of_one in away.values() for t in of_one]
    saves = sum(len(one.saved) for one in people)
    events = sum(len(one.events) for one in people if isinstance(one, Maker))
    print(f"{len(times)} kills: " + ", ".join(f"{len(of_one)} of {name}" for name, of_one in away.items()))
    print(f"acknowledged: {saves} saves, {events} events; lost or doubled: {sum(one.lost() for one in people)}")
    print(f"away: p50 {quantile(times, 0.5):.2f} s, p95 {quantile(times, 0.95):.2f} s, longest {max(times):.2f} s")
    return 0


sys.exit(main(sys.argv[1], int(sys.argv[2]) if len(sys.argv) > 2 else 40))
