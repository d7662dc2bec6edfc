"""Starting, stopping, starting again; and kill -9 in the middle of editing."""

from __future__ import annotations

import contextlib
import os
import signal
import threading
import time
import urllib.error
import uuid
from pathlib import Path

from tests.launch.conftest import Browser, Running

STARTED = ("web-1", "web-2", "jobs-1", "jobs-2", "mariadb")
"""Everything that `up` starts."""

ME = {"username": "wren", "password": "dusk-and-dew-7", "studio": "Wren"}


def alive(pid: int) -> bool:
    return (
        Path(f"/proc/{pid}").exists() and "Z" not in Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0]
    )


def test_kill_nine_loses_nothing_that_was_shown_as_saved(running: Running) -> None:
    running.up()
    browser = Browser(running.port)
    browser.ask("POST", "/accounts", ME)
    design = browser.ask("POST", "/designs", {"name": "Moth"})
    design = browser.ask("POST", f"/designs/{design['id']}/parts", {"name": "Body", "text": ""})
    key, etag = design["parts"][0]["key"], design["parts"][0]["etag"]
    path = f"/designs/{design['id']}"
    saved: list[str] = []
    stopped = threading.Event()

    def edit() -> None:
        tag = etag
        for n in range(100_000):
            if stopped.is_set():
                return
            text = "R1: 6 sc in ring [6]\n" * (n % 5) + f"save {n}\n"
            with contextlib.suppress(urllib.error.URLError, OSError):
                tag = browser.ask("PUT", f"{path}/parts/{key}/typed", {"text": text, "etag": tag})["etag"]
                saved.append(text)
                if n % 7 == 6:
                    tag = browser.ask("POST", f"{path}/parts/{key}/versions")["parts"][0]["etag"]

    editing = threading.Thread(target=edit)
    editing.start()
    while len(saved) < 40:
        time.sleep(0.02)
    victims = [pid for name in STARTED for pid in running.pids(name)]
    assert running.process is not None
    os.kill(running.process.pid, signal.SIGKILL)
    for pid in victims:
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    stopped.set()
    editing.join()
    last = saved[-1]
    running.process.wait()

    running.up()
    browser = Browser(running.port)
    browser.ask("POST", "/session", {"username": "wren", "password": ME["password"]})
    text = browser.ask("GET", path)["parts"][0]["text"]
    assert text == last or int(text.rsplit("save ", 1)[1]) == int(last.rsplit("save ", 1)[1]) + 1
    assert len(browser.ask("GET", f"{path}/history")) >= 5
    pids = [pid for name in STARTED for pid in running.pids(name)]
    assert running.stop() == 0
    assert not any(alive(p) for p in pids), "Ctrl-C stops all that was started"


ROUND = "R1: 6 sc in ring [6]\n"


def _making(browser: Browser) -> tuple[str, str]:
    """A making of a part with one round: its number, and the part's key."""
    design = browser.ask("POST", "/designs", {"name": "Moth"})
    design = browser.ask("POST", f"/designs/{design['id']}/parts", {"name": "Body", "text": ROUND})
    making = browser.ask("POST", f"/designs/{design['id']}/makings", {"title": "First sample"})
    return str(making["id"]), str(design["parts"][0]["key"])


def _written(device: str, seq: int, key: str) -> dict[str, object]:
    at = 1_790_000_000_000 + seq * 1_000
    head = {"id": str(uuid.uuid4()), "device": device, "seq": seq, "at": at}
    return {**head, "kind": "stitched", "part": key, "piece": 1, "round": 1, "stitches": seq % 7}


def test_kill_nine_in_the_middle_of_syncs_loses_no_event_and_doubles_none(running: Running) -> None:
    """Two devices bring what they wrote; server and database die in the middle; what was not acknowledged is sent again."""
    running.up()
    browser = Browser(running.port)
    browser.ask("POST", "/accounts", ME)
    making, key = _making(browser)
    acknowledged: set[str] = set()
    waiting: dict[str, list[dict[str, object]]] = {"phone": [], "tablet": []}
    everything: set[str] = set()
    stopped = threading.Event()

    def write(device: str) -> None:
        other = Browser(running.port)
        other.ask("POST", "/session", {"username": "wren", "password": ME["password"]})
        for n in range(100_000):
            if stopped.is_set():
                return
            batch = waiting[device] = [_written(device, 5 * n + i, key) for i in range(5)]
            everything.update(str(e["id"]) for e in batch)
            try:
                other.ask("POST", f"/makings/{making}/sync", {"events": batch, "known": 0})
            except (urllib.error.URLError, OSError):
                return  # as a phone, which keeps what was not acknowledged
            acknowledged.update(str(e["id"]) for e in batch)
            waiting[device] = []

    devices = [threading.Thread(target=write, args=(name,)) for name in waiting]
    for one in devices:
        one.start()
    while len(acknowledged) < 150:
        time.sleep(0.02)
    victims = [pid for name in STARTED for pid in running.pids(name)]
    assert running.process is not None
    os.kill(running.process.pid, signal.SIGKILL)
    for pid in victims:
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    stopped.set()
    for one in devices:
        one.join()
    running.process.wait()

    running.up()
    browser = Browser(running.port)
    browser.ask("POST", "/session", {"username": "wren", "password": ME["password"]})

    def there() -> list[str]:
        return [e["id"] for e in browser.ask("GET", f"/makings/{making}/log")["events"]]

    assert acknowledged <= set(there()), "what was acknowledged is there"
    for batch in (*waiting.values(), *waiting.values()):
        browser.ask("POST", f"/makings/{making}/sync", {"events": batch, "known": 0})
    assert sorted(there()) == sorted(everything), "every event once, and no other"


def test_what_is_in_the_way_gets_one_sentence(running: Running, tmp_path: Path) -> None:
    running.up()
    busy = running.run("up", "--port", str(running.port))
    assert busy.returncode == 1
    assert "another spirrel is at work" in busy.stderr
    pids = running.pids("web-1") + running.pids("web-2")
    assert running.process is not None
    os.kill(running.process.pid, signal.SIGKILL)
    running.process.wait()
    assert all(alive(p) for p in pids), "a killed launcher leaves its children"
    down = running.run("down")
    assert "stopped: web server and database" in down.stderr
    assert not any(alive(p) for p in pids)
    assert "nothing was running" in running.run("down").stderr
    (running.var / "run" / "web-1.json").write_text(f'{{"pid": {os.getpid()}, "started": "1"}}')
    running.run("down")
    assert alive(os.getpid()), "a reused pid is never hit"
    keys = running.var / "keys.json"
    whole = keys.read_text()
    keys.write_text("{ half")
    broken = running.run("up", "--port", str(running.port))
    assert broken.returncode == 1
    assert "cannot be read" in broken.stderr
    assert "Traceback" not in broken.stderr
    keys.write_text(whole)
    for words, code in (
        (["up", "--port", "x"], 2),
        (["frobnicate"], 2),
        (["down", "--now"], 2),
        (["test", "moths"], 2),
    ):
        done = running.run(*words)
        assert done.returncode == code
        assert "Traceback" not in done.stderr


def test_a_half_made_database_is_made_anew(running: Running) -> None:
    data = running.var / "mariadb"
    data.mkdir(parents=True)
    (data / "ibdata1").write_bytes(b"half")
    running.up()
    assert Browser(running.port).ask("GET", "/session")["me"] is None
    file = running.var / "backup.tar.gz"
    assert "rows" in running.run("backup", str(file)).stdout
    assert file.exists()


def _settled(browser: Browser, rounds: int) -> str:
    """Have a tube of so many rounds settled; the state its job ends in."""
    text = f"R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R{rounds}: sc around [12]\nStuff.\n"
    gauge = {"stitch_mm": 5.6, "round_mm": 5.2}
    job = browser.ask("POST", "/bench/settle", {"text": text, "terms": "us", "gauge": gauge})
    end = time.monotonic() + 90
    while job["state"] in ("waiting", "running") and time.monotonic() < end:
        time.sleep(0.2)
        job = browser.ask("GET", f"/jobs/{job['id']}")
    return str(job["state"])


def test_workers_settle_and_are_replaced_when_they_are_killed(running: Running) -> None:
    running.up()
    browser = Browser(running.port)
    browser.ask("POST", "/accounts", ME)
    assert _settled(browser, 12) == "done"
    first = running.pids("jobs-1") + running.pids("jobs-2")
    assert first
    for pid in first:
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    assert _settled(browser, 13) == "done", "what waits is worked out by the workers that take their place"
    assert not set(first) & set(running.pids("jobs-1") + running.pids("jobs-2"))
    assert running.stop() == 0


def test_a_job_that_its_worker_died_over_is_begun_again_at_once(running: Running) -> None:
    """The worker is killed in the middle of a long settling; the one in its place finishes it."""
    running.up()
    browser = Browser(running.port)
    browser.ask("POST", "/accounts", ME)
    text = (
        "R1: 6 sc in ring [6]\n"
        + "".join(f"R{n}: ({n - 2} sc, inc) x 6 [{6 * n}]\n" for n in range(2, 21))
        + "R21-R70: sc around [120]\nStuff.\n"
    )
    gauge = {"stitch_mm": 5.6, "round_mm": 5.2}
    job = browser.ask("POST", "/bench/settle", {"text": text, "terms": "us", "gauge": gauge})
    end = time.monotonic() + 60
    while job["state"] != "running" and time.monotonic() < end:
        time.sleep(0.05)
        job = browser.ask("GET", f"/jobs/{job['id']}")
    assert job["state"] == "running"
    for pid in running.pids("jobs-1") + running.pids("jobs-2"):
        with contextlib.suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    while job["state"] in ("waiting", "running") and time.monotonic() < end:
        time.sleep(0.2)
        job = browser.ask("GET", f"/jobs/{job['id']}")
    assert job["state"] == "done"
    assert running.stop() == 0
