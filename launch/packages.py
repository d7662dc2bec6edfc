"""Debian packages: what is missing is installed once, with apt, as root or through sudo."""

from __future__ import annotations

import os
import shutil
import subprocess
from pathlib import Path

from launch.say import Stop, say

SERVE = (
    "python3-venv",
    "mariadb-server-core",
    "mariadb-client-core",
    "libmariadb-dev",
    "pkg-config",
    "gcc",
    "python3-dev",
    "libpango-1.0-0",
    "libpangoft2-1.0-0",
    "libegl1",
    "libgl1-mesa-dri",
)
BROWSER = ("chromium", "poppler-utils")


def _has(package: str) -> bool:
    done = subprocess.run(["dpkg-query", "-W", "-f=${db:Status-Status}", package], capture_output=True, text=True)
    return done.returncode == 0 and done.stdout == "installed"


def missing(wanted: tuple[str, ...]) -> list[str]:
    """Packages of `wanted` that are not installed, less those whose work another install does already."""
    lacking = [package for package in wanted if not _has(package)]
    if "gcc" in lacking and shutil.which("cc"):
        lacking.remove("gcc")
    return lacking


def install(wanted: tuple[str, ...]) -> None:
    """Install what is missing, or stop with the one line to type."""
    if shutil.which("dpkg-query") is None:
        raise Stop("this needs Debian 12 or a system with its packages (dpkg and apt were not found).")
    lacking = missing(wanted)
    if not lacking:
        return
    line = ["apt-get", "install", "-y", "-q", "--no-install-recommends", *lacking]
    prefix: list[str] = []
    if os.geteuid() != 0:
        if subprocess.run(["sudo", "-n", "true"], capture_output=True).returncode if shutil.which("sudo") else True:
            raise Stop(f"some Debian packages are missing; install them with: sudo {' '.join(line)}")
        prefix = ["sudo", "-n"]
    say(f"installing Debian packages: {' '.join(lacking)}")
    quiet = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    if not any(Path("/var/lib/apt/lists").glob("*_Packages*")):
        subprocess.run([*prefix, "apt-get", "update", "-q"], env=quiet, stdout=subprocess.DEVNULL)
    if _apt(prefix, line, quiet) and _refreshed(prefix, line, quiet):
        raise Stop(f"apt could not install the packages; try it yourself to see why: {' '.join(line)}")


def _apt(prefix: list[str], line: list[str], env: dict[str, str]) -> int:
    return subprocess.run([*prefix, *line], env=env, stdout=subprocess.DEVNULL).returncode


def _refreshed(prefix: list[str], line: list[str], env: dict[str, str]) -> int:
    """Lists that are there may be stale: fetch them anew and try once more."""
    subprocess.run([*prefix, "apt-get", "update", "-q"], env=env, stdout=subprocess.DEVNULL)
    return _apt(prefix, line, env)
