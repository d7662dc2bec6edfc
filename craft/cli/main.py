"""Arguments, exit codes and output of the command line.

Exit 0 done, 1 faults found, 2 unreadable input, limits or wrong usage, with one line on stderr.
"""

from __future__ import annotations

import argparse
import importlib
import json
import sys
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import NoReturn

from craft.cli.answers import Answer
from craft.errors import CraftError

COMMANDS: Mapping[str, tuple[str, str]] = MappingProxyType(
    {
        "check": ("checking", "check every count of a written pattern"),
        "draft": ("drafting", "draft a shape to written rounds"),
        "gauge": ("estimating", "estimate gauge from yarn and hook"),
        "yarn": ("measuring", "yarn, filling and tails of a written pattern"),
        "settle": ("settling", "bring every part to rest, and measure it"),
        "run": ("running", "work a pattern stitch by stitch"),
        "grade": ("grading", "a pattern at another size, or in another yarn"),
        "sizes": ("several", "one pattern for several sizes, 'S (M, L)'"),
        "materials": ("materials", "all that a figure takes: yarn by colour, eyes, filling, tails, hours"),
        "booklet": ("printing", "the written pattern as it is published, in an edition"),
        "graft": ("grafting", "a base to one of its rounds, then a piece from one of its own"),
        "diff": ("comparing", "what differs between two patterns"),
        "apply": ("applying", "put the changes that diff found into a base"),
        "convert": ("converting", "write a pattern in another form"),
    }
)
"""Every command: the module beside this one that has its `arguments` and its `run`, and what it does.

Only the module of the command that is asked for is loaded: checking a text needs none of the figure's libraries.
"""


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        raise CraftError(f"{message}; '{self.prog} --help' lists what there is.")


def _parser(asked: str | None) -> _Parser:
    """The parser; of commands that are not asked for it knows the names."""
    parser = _Parser(prog="craft", description="Read, check, draft, settle and convert amigurumi rounds.")
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)
    for name, (module, words) in COMMANDS.items():
        made = commands.add_parser(name, help=words, description=words)
        if name == asked:
            loaded = importlib.import_module(f"craft.cli.{module}")
            made.add_argument("--json", action="store_true", help="print one JSON object")
            loaded.arguments(made)
            made.set_defaults(run=loaded.run)
    return parser


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command line; the exit code."""
    words = list(sys.argv[1:] if argv is None else argv)
    try:
        args = _parser(next((w for w in words if not w.startswith("-")), None)).parse_args(words)
        answer: Answer = args.run(args)
        text = json.dumps(answer.data, ensure_ascii=False) + "\n" if args.json else answer.lines
        sys.stdout.write(text)
        sys.stdout.flush()
    except CraftError as error:
        print(f"craft: {error.message}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        return 0
    return answer.code
