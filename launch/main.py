"""Where `./spirrel` begins: the craft's own command line, or one of the commands, and how each of them ends."""

from __future__ import annotations

import importlib
import os
import subprocess
from collections.abc import Sequence

from launch import tools
from launch.paths import ROOT, VAR, python
from launch.say import Stop, say


def _craft(words: Sequence[str]) -> int:
    tools.virtual_environment()
    return subprocess.run([python(), "-m", "craft", *words], env={**os.environ, "PYTHONPATH": str(ROOT)}).returncode


def _command(argv: list[str]) -> int:
    """The craft's command line needs nothing of what serves the studio, and does not wait until it is loaded."""
    if argv[:1] == ["craft"]:
        return _craft(argv[1:])
    code: int = importlib.import_module("launch.commands").run(argv)
    return code


def main(argv: list[str]) -> int:
    """Run a command; problems end in one sentence."""
    try:
        return _command(argv)
    except Stop as stop:
        say(stop.sentence)
        return stop.code
    except PermissionError as error:
        say(f"{error.filename} is not ours to write; check who owns {VAR}.")
    except OSError as error:
        say(f"{error.strerror or error}{f': {error.filename}' if error.filename else ''}.")
    except KeyboardInterrupt:
        return 130
    return 1
