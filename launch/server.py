"""Serving: the production server behind one loopback port."""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import time
from collections.abc import Callable

from launch import database, packages, processes, tools, web
from launch.lock import alone
from launch.paths import ROOT, VAR, python
from launch.say import Stop, say
from studio.demo.login import PASSWORD, USERNAME

JOBS_LOG = VAR / "log" / "jobs.log"
MEASURES = VAR / "run" / "measures"
"""Where the web processes put their measures together; new at each start."""
JOB_WORKERS = ("jobs-1", "jobs-2")
TIDY_SECONDS = 3_600.0
PATIENCE_SECONDS = 5.0
"""Between two tries to start a database that does not start."""


def environment(port: int) -> dict[str, str]:
    """The studio's settings for a server on a loopback port."""
    return {
        **os.environ,
        **database.environment(),
        "SPIRREL_ORIGIN": f"http://127.0.0.1:{port}",
        "SPIRREL_JOB_WORKERS": str(len(JOB_WORKERS)),
        "DJANGO_SETTINGS_MODULE": "studio.settings",
        "OPENBLAS_NUM_THREADS": "1",
        "OMP_NUM_THREADS": "1",
        # Memory that threads gave back is used by the others, and not kept by each.
        "MALLOC_ARENA_MAX": "2",
        "PROMETHEUS_MULTIPROC_DIR": str(MEASURES),
    }


def manage(env: dict[str, str], *words: str) -> subprocess.CompletedProcess[str]:
    """Run a management command of the studio."""
    return subprocess.run([python(), "-m", "django", *words], env=env, cwd=ROOT, capture_output=True, text=True)


def _managed(env: dict[str, str], failure: str, *words: str) -> str:
    done = manage(env, *words)
    if done.returncode:
        raise Stop(f"{failure}\n{(done.stderr or done.stdout).strip()[-800:]}")
    return done.stdout.strip()


def start_workers(port: int) -> None:
    """Start the processes that work out jobs; they give way to the web server. None may be running."""
    for at, name in enumerate(JOB_WORKERS):
        first = [] if at else ["--first"]
        processes.spawn(
            name,
            ["nice", "-n", "10", python(), "-m", "django", "work_jobs", *first],
            env=environment(port),
            log=JOBS_LOG,
            cwd=ROOT,
        )


def stop_workers() -> bool:
    """Stop them; what they were at is begun again at the next start."""
    stopped = [processes.stop(name) for name in JOB_WORKERS]
    return any(stopped)


def ready(port: int, *, demo: bool, durable: bool = True) -> None:
    """Everything short of serving: packages, database, tables, demo studio."""
    packages.install(packages.SERVE)
    tools.virtual_environment()
    tools.build_frontend()
    database.start(durable=durable)
    env = environment(port)
    words = ["make_ready", "--demo"] if demo else ["make_ready"]
    if said := _managed(env, "the database could not be made ready:", *words):
        say(said)


def up(port: int, *, demo: bool = True) -> int:
    """Serve until Ctrl-C, then stop what was started."""
    with alone("up"):
        stop_workers()
        if web.stop():
            say("a server left behind was stopped")
        sock = web.listen(port)
        processes.remember("launcher", os.getpid())
        for asked in (signal.SIGTERM, signal.SIGINT):
            signal.signal(asked, _interrupt)
        try:
            ready(port, demo=demo)
            serve(sock)
            print(f"\nSpirrel is at http://127.0.0.1:{port}")
            if demo:
                print(f"Demo studio: sign in as  {USERNAME}  with  {PASSWORD}")
            print("Ctrl-C stops it; everything saved stays.\n", flush=True)
            while True:
                time.sleep(0.5)
                watch(sock)
        except KeyboardInterrupt:
            say("stopping")
        finally:
            signal.signal(signal.SIGINT, signal.SIG_IGN)
            stop_workers()
            web.stop()
            database.stop()
    return 0


def _interrupt(*_: object) -> None:
    raise KeyboardInterrupt


def serve(sock: socket.socket) -> None:
    """Start the web processes and the workers, and wait until the studio answers."""
    shutil.rmtree(MEASURES, ignore_errors=True)
    MEASURES.mkdir(parents=True)
    port = sock.getsockname()[1]
    web.start(sock, environment(port))
    web.wait(sock)
    start_workers(port)


def watch(sock: socket.socket) -> None:
    """Look once whether everything runs, and start again what has ended."""
    port = sock.getsockname()[1]
    if processes.remembered("mariadb") is None:
        _database_again()
    if web.missing():
        web.start(sock, environment(port))
    if any(processes.remembered(name) is None for name in JOB_WORKERS):
        stop_workers()
        start_workers(port)
    _tidy_now_and_then(port)


def _tidy_now_and_then(port: int) -> None:
    """Once an hour, in a process of its own, so that nothing here waits for it."""
    note = VAR / "run" / "tidied"
    if note.exists() and time.time() - note.stat().st_mtime < TIDY_SECONDS:
        return
    note.touch()
    line = ["nice", "-n", "10", python(), "-m", "django", "tidy_up"]
    processes.spawn("tidy", line, env=environment(port), log=JOBS_LOG, cwd=ROOT)


def _database_again() -> None:
    """Start the database anew; what stands in its way now (a full disk) may be gone at the next look."""
    say("the database ended by itself; starting it again")
    try:
        database.start()
    except Stop as stop:
        say(f"{stop.sentence} It is tried again.")
        time.sleep(PATIENCE_SECONDS)


def down() -> int:
    """Stop a running `up` with all it started, or what one that crashed left behind."""
    if processes.stop("launcher", patience=60.0):
        say("stopped: the running spirrel with its web server and database")
        return 0
    stop_workers()
    ran = [name for name, ended in (("web server", web.stop()), ("database", database.stop())) if ended]
    say(f"stopped: {' and '.join(ran)}" if ran else "nothing was running")
    return 0


def with_database(work: Callable[[dict[str, str]], int], port: int = 8770) -> int:
    """Run `work` while the database runs; stop it afterwards if it did not run before."""
    running = processes.remembered("mariadb") is not None
    packages.install(packages.SERVE)
    tools.virtual_environment()
    database.start()
    try:
        return work(environment(port))
    finally:
        if not running:
            database.stop()
