"""Processes that were started: remembered by pid and start time, so that a reused pid is never hit."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import time
from pathlib import Path

from launch.paths import VAR
from launch.say import Stop

RUN = VAR / "run"


def started_at(pid: int) -> str | None:
    """When a process was started (clock ticks since boot), None when there is none."""
    try:
        stat = Path(f"/proc/{pid}/stat").read_text()
    except OSError:
        return None
    fields = stat.rpartition(")")[2].split()
    return None if fields[0] == "Z" else fields[19]


def remember(name: str, pid: int) -> None:
    """Write down a process that was started."""
    RUN.mkdir(parents=True, exist_ok=True)
    (RUN / f"{name}.json").write_text(json.dumps({"pid": pid, "started": started_at(pid)}))


def remembered(name: str) -> int | None:
    """The pid of a remembered process that still runs, None otherwise; damaged notes are thrown away."""
    note = RUN / f"{name}.json"
    try:
        data = json.loads(note.read_text())
        pid, started = int(data["pid"]), data["started"]
    except (OSError, ValueError, KeyError, TypeError):
        note.unlink(missing_ok=True)
        return None
    return pid if started is not None and started_at(pid) == started else None


def stop(name: str, patience: float = 15.0) -> bool:
    """End a remembered process with SIGTERM, then SIGKILL; True when there was one."""
    pid = remembered(name)
    if pid is None:
        (RUN / f"{name}.json").unlink(missing_ok=True)
        return False
    for sign, wait in ((signal.SIGTERM, patience), (signal.SIGKILL, 5.0)):
        try:
            os.kill(pid, sign)
        except ProcessLookupError:
            break
        except PermissionError:
            raise Stop(f"process {pid} ({name}) belongs to another user and was not stopped.") from None
        end = time.monotonic() + wait
        while time.monotonic() < end and remembered(name) is not None:
            _reap(pid)
            time.sleep(0.05)
        if remembered(name) is None:
            break
    (RUN / f"{name}.json").unlink(missing_ok=True)
    return True


def _reap(pid: int) -> None:
    try:
        os.waitpid(pid, os.WNOHANG)
    except ChildProcessError:
        return


def spawn(
    name: str, line: list[str], *, env: dict[str, str], log: Path, cwd: Path, keep: tuple[int, ...] = ()
) -> subprocess.Popen[bytes]:
    """Start a process in a session of its own, so that Ctrl-C reaches the launcher alone. keep: descriptors that are
    handed on to it."""
    log.parent.mkdir(parents=True, exist_ok=True)
    with log.open("ab") as out:
        process = subprocess.Popen(
            line,
            env=env,
            cwd=cwd,
            stdin=subprocess.DEVNULL,
            stdout=out,
            stderr=subprocess.STDOUT,
            start_new_session=True,
            pass_fds=keep,
        )
    remember(name, process.pid)
    return process


def last_lines(log: Path, most: int = 4) -> str:
    """The end of a log, for a failure's sentence."""
    try:
        return "\n".join(log.read_text(errors="replace").strip().splitlines()[-most:])
    except OSError:
        return ""
