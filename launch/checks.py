"""`./spirrel test`: every check there is, with a summary at the end."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import time
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from launch import database, packages, server, tools, web
from launch.paths import FRONTEND, ROOT, VENV, python
from launch.say import Stop, say

GROUPS = ("craft", "studio", "frontend", "browser")


@dataclass(frozen=True)
class Check:
    """A named check: the line to run, in which group, and where. light: it keeps one core busy, no more."""

    name: str
    group: str
    line: list[str]
    cwd: Path = ROOT
    light: bool = False


def _bin(name: str) -> str:
    return str(VENV / "bin" / name)


def _npx(*words: str) -> list[str]:
    return ["npx", "--no-install", *words]


def _checks(more: Sequence[str]) -> list[Check]:
    pytest = [python(), "-m", "pytest", "-q", *more]
    # Two cores are what a change is checked on. Studios that start are tried one after the other, as each takes the
    # machine's ports as it finds them; they wait more than they work, so that the light checks go on beside them.
    side_by_side = [*pytest, "-n", "2", "--dist", "worksteal"]
    return [
        Check("lint", "craft", [_bin("ruff"), "check", "."], light=True),
        Check("format", "craft", [_bin("ruff"), "format", "--check", "."], light=True),
        Check("import contracts", "craft", [_bin("lint-imports"), "--no-cache"], light=True),
        Check("types", "craft", [_bin("mypy"), "craft", "studio", "launch"], light=True),
        Check("craft tests", "craft", [*side_by_side, "tests/craft", "tests/reference"]),
        Check(
            "migrations are whole",
            "studio",
            [python(), "-m", "django", "makemigrations", "--check", "--dry-run"],
            light=True,
        ),
        Check("studio tests", "studio", [*side_by_side, "tests/studio"]),
        Check("launch tests", "studio", [*pytest, "tests/launch"], light=True),
        Check("front-end lint and format", "frontend", _npx("biome", "ci", "."), FRONTEND, light=True),
        Check("front-end types", "frontend", _npx("tsc", "--noEmit"), FRONTEND, light=True),
        Check("front-end tests", "frontend", _npx("vitest", "run"), FRONTEND, light=True),
        Check("browser tests", "browser", [*side_by_side, "tests/browser"]),
    ]


def run(groups: Sequence[str], more: Sequence[str]) -> int:
    """Install what the checks need, run them all, and sum up; 0 when every one passed."""
    unknown = [g for g in groups if g not in GROUPS]
    if unknown:
        raise Stop(f"there is no group {unknown[0]!r}; the groups are {', '.join(GROUPS)}.", 2)
    chosen = tuple(groups) or GROUPS
    packages.install(packages.SERVE + (packages.BROWSER if {"studio", "browser"} & set(chosen) else ()))
    tools.virtual_environment(dev=True)
    env = {**(tools.node_packages() if {"frontend", "browser"} & set(chosen) else os.environ)}
    if "browser" in chosen:
        tools.build_frontend()
    env |= {"SPIRREL_ORIGIN": "http://127.0.0.1", "PYTHONDONTWRITEBYTECODE": "1", "OPENBLAS_NUM_THREADS": "1"}
    needs_database = {"studio", "browser"} & set(chosen)
    try:
        if needs_database:
            database.start(durable=False)
        if needs_database or "craft" in chosen:
            env |= database.environment() | {"DJANGO_SETTINGS_MODULE": "studio.settings_test"}
        return _run_all([c for c in _checks(more) if c.group in chosen], env)
    finally:
        database.stop()


@dataclass(frozen=True)
class Result:
    """What became of a check."""

    name: str
    passed: bool
    seconds: float


def _run(check: Check, env: Mapping[str, str], *, quiet: bool = False) -> Result:
    """Run a check; quiet: what it prints is shown at its end, so that two at once can be read."""
    say(f"{check.name} …")
    begun = time.monotonic()
    out = subprocess.PIPE if quiet else None
    done = subprocess.run(check.line, cwd=check.cwd, env=env, stdout=out, stderr=subprocess.STDOUT if quiet else None)
    if done.stdout:
        print(f"{check.name}:\n{done.stdout.decode('utf-8', 'replace')}", end="", flush=True)
    return Result(check.name, done.returncode == 0, time.monotonic() - begun)


def _run_side_by_side(checks: Sequence[Check], env: Mapping[str, str]) -> list[Result]:
    """Light checks: those of a group one after the other, the groups at once."""
    groups = [[c for c in checks if c.group == group] for group in dict.fromkeys(c.group for c in checks)]
    with ThreadPoolExecutor(max_workers=max(len(groups), 1)) as pool:
        done = pool.map(lambda group: [_run(c, env, quiet=len(groups) > 1) for c in group], groups)
        return [result for results in done for result in results]


def _run_all(checks: Sequence[Check], env: Mapping[str, str]) -> int:
    results = _run_side_by_side([c for c in checks if c.light], env)
    results += [_run(c, env) for c in checks if not c.light]
    print("\nSummary", flush=True)
    for result in results:
        print(f"  {'passed' if result.passed else 'FAILED'}  {result.name}  ({result.seconds:.0f} s)")
    failed = sum(not result.passed for result in results)
    print(f"{len(results) - failed} passed, {failed} failed", flush=True)
    return 1 if failed else 0


OWN_VAR = ROOT / "var" / "test"


def in_own_var(work: Callable[[], int]) -> int:
    """Run in a `var/` of the tests' own, so that a running studio is never touched."""
    if os.environ.get("SPIRREL_VAR") is None:
        os.environ["SPIRREL_VAR"] = str(OWN_VAR)
        os.execv(sys.executable, [sys.executable, str(ROOT / "spirrel"), *sys.argv[1:]])
    return work()


def beside_demo(module: str, port: int, words: Sequence[str] = (), *, durable: bool = False) -> int:
    """Run a module of Python against a fresh demo studio; it is told the studio's address and the words.

    What an earlier one left in the tests' own `var/` goes; a folder that somebody else named stays as it is.
    durable: every commit reaches the disk, as for a studio that is worked in.
    """
    if os.environ.get("SPIRREL_VAR") == str(OWN_VAR):
        server.down()
        shutil.rmtree(OWN_VAR, ignore_errors=True)
    packages.install(packages.BROWSER)
    tools.virtual_environment(dev=True)
    try:
        server.ready(port, demo=True, durable=durable)
        sock = web.listen(port)
        server.serve(sock)
        asked = subprocess.Popen(
            [python(), "-m", module, f"http://127.0.0.1:{port}", *words], cwd=ROOT, env=server.environment(port)
        )
        while (code := asked.poll()) is None:
            time.sleep(0.5)
            server.watch(sock)
        return code
    finally:
        server.down()
