"""A studio of its own, started by the start command."""

from __future__ import annotations

import http.client
import http.cookiejar
import json
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

ROOT = Path(__file__).resolve().parents[2]


class Running:
    """`./spirrel up` as a process, with a `var/` and a port of its own."""

    def __init__(self, var: Path) -> None:
        self.var = var
        self.port = _free()
        self.process: subprocess.Popen[str] | None = None

    def run(self, *words: str) -> subprocess.CompletedProcess[str]:
        """Run another command on the same `var/`."""
        return subprocess.run(
            [sys.executable, str(ROOT / "spirrel"), *words],
            env=self._env(),
            capture_output=True,
            text=True,
            timeout=120,
            check=False,
        )

    def _env(self) -> dict[str, str]:
        kept = {k: v for k, v in os.environ.items() if not k.startswith(("SPIRREL_", "DJANGO_"))}
        return {**kept, "SPIRREL_VAR": str(self.var)}

    def up(self) -> None:
        """Start, and wait until the address is printed."""
        with (self.var.parent / "up.log").open("w") as log:
            self.process = subprocess.Popen(
                [sys.executable, str(ROOT / "spirrel"), "up", "--port", str(self.port), "--no-demo"],
                env=self._env(),
                stdout=log,
                stderr=subprocess.STDOUT,
                text=True,
            )
        end = time.monotonic() + 120
        while "Spirrel is at" not in (said := (self.var.parent / "up.log").read_text()):
            assert self.process.poll() is None, said
            assert time.monotonic() < end, said
            time.sleep(0.1)

    def stop(self) -> int:
        """Ctrl-C."""
        assert self.process is not None
        self.process.send_signal(signal.SIGINT)
        return self.process.wait(60)

    def pids(self, name: str) -> list[int]:
        """The remembered process and its children."""
        note = json.loads((self.var / "run" / f"{name}.json").read_text())
        parent = int(note["pid"])
        children = Path(f"/proc/{parent}/task/{parent}/children").read_text().split()
        return [parent, *map(int, children)]


def _free() -> int:
    """A port that nothing listens on, out of those of this worker: two that look at once never find the same."""
    worker = int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"))
    first = 21_000 + 1_000 * (worker % 10)
    for port in range(first, first + 1_000):
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) != 0:
                return port
    raise AssertionError("no free port")


class Browser:
    """As much of a browser as the API needs: cookies and the token."""

    def __init__(self, port: int) -> None:
        self.base = f"http://127.0.0.1:{port}/api"
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.ask("GET", "/session")

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """Send a request; raises as urllib does."""
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "") or ""
        request = urllib.request.Request(
            self.base + path,
            method=method,
            data=json.dumps(body).encode() if body is not None else None,
            headers={"Content-Type": "application/json", "X-CSRFToken": token},
        )
        try:
            with self.opener.open(request, timeout=10) as answer:
                raw = answer.read()
        except http.client.HTTPException as error:
            raise urllib.error.URLError(error) from error  # whoever answered died over it: that is no answer
        return json.loads(raw) if raw else None


@pytest.fixture
def running(tmp_path: Path) -> Iterator[Running]:
    made = Running(tmp_path / "var")
    yield made
    if made.process is not None and made.process.poll() is None:
        made.stop()
    made.run("down")
