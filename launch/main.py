"""Where `./spirrel` begins: the craft's own command line, or one of the commands, and how each of them ends."""

from __future__ import annotations

import importlib
import os
from collections.abc import Sequence
from typing import NoReturn

from launch.paths import ROOT, VAR, python
from launch.say import Stop, say
from launch.stamps import has_packages


def _craft(words: Sequence[str]) -> NoReturn:
    """The craft's command line in this process's place: it takes half a second, and nothing here waits for it.

    It may keep its bytecode and its grammar's tables even where Python is told to keep none: they lie in this folder,
    and without them every command takes twice as long.
    """
    if not has_packages():
        importlib.import_module("launch.tools").virtual_environment()
    kept = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    os.execve(python(), [python(), "-m", "craft", *words], {**kept, "PYTHONPATH": str(ROOT)})


def _command(argv: list[str]) -> int:
    """The craft's command line needs nothing of what serves the studio, and does not wait until it is loaded."""
    if argv[:1] == ["craft"]:
        _craft(argv[1:])
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
