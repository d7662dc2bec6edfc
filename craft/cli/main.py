"""Arguments, exit codes and output of the command line.

Exit 0 done, 1 faults found, 2 unreadable input, limits or wrong usage, with one line on stderr.
"""

from __future__ import annotations

import argparse
import json
import math
import sys
from collections.abc import Sequence
from typing import NoReturn

from craft.cli.answers import Answer
from craft.cli.commands import check_command, convert_command, draft_command, gauge_command, run_command, yarn_command
from craft.cli.grading import grade_command
from craft.cli.settling import settle_command
from craft.document.export import FORMATS
from craft.errors import CraftError
from craft.rounds.stitches import Language
from craft.shape.intake.standing import POLES
from craft.shape.target import SOLIDS

TERMS = ("us", "uk", "letters")


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        raise CraftError(f"{message}; '{self.prog} --help' lists what there is.")


def _number(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"{text!r} is no number") from None
    if not math.isfinite(value):
        raise argparse.ArgumentTypeError(f"{text!r} is no finite number")
    return value


class _Commands:
    """Adds commands that share what every command has."""

    def __init__(self) -> None:
        self.parser = _Parser(prog="craft", description="Read, check, draft, settle and convert amigurumi rounds.")
        self._commands = self.parser.add_subparsers(dest="command", required=True, parser_class=_Parser)

    def add(self, name: str, run: object, words: str) -> _Parser:
        """A command with its words for people."""
        made = self._commands.add_parser(name, help=words, description=words)
        made.add_argument("--json", action="store_true", help="print one JSON object")
        made.set_defaults(run=run)
        return made


def _gauge(of: _Parser) -> None:
    of.add_argument("--stitch", type=_number, metavar="MM", help="stitch width")
    of.add_argument("--round", type=_number, metavar="MM", help="round height")
    of.add_argument("--lean", type=_number, metavar="X", help="stitches of drift a round")


def _parser() -> _Parser:
    commands = _Commands()
    _planning(commands)
    _working(commands)
    return commands.parser


def _planning(commands: _Commands) -> None:
    check = commands.add("check", check_command, "check every count of a written pattern")
    check.add_argument("file", nargs="?")
    check.add_argument("--from-terms", choices=TERMS)
    check.add_argument("--codes", action="store_true", help="list every problem code")

    draft = commands.add("draft", draft_command, "draft a shape to written rounds")
    draft.add_argument("shape", metavar="SOLID|form|FILE", help=f"{', '.join(SOLIDS)}, form, or a mesh or SVG drawing")
    draft.add_argument("--pole", choices=tuple(POLES), default="foot", help="where the rounds of a mesh begin")
    draft.add_argument("--up", choices=("z", "y"), default="z", help="which way is up in a mesh file")
    draft.add_argument("--form", metavar="FILE", help="a shape as JSON: traced, stacked, a mesh, with modifiers")
    draft.add_argument("--height", type=_number, metavar="MM")
    draft.add_argument("--width", type=_number, metavar="MM")
    draft.add_argument("--opening", type=_number, metavar="MM")
    draft.add_argument("--point", type=_number, default=0.2, metavar="0…0.5", help="how pointed an egg is")
    draft.add_argument("--start", type=int)
    draft.add_argument(
        "--simplicity", "--ease", type=_number, default=0.85, metavar="0…1", help="0 true to the shape, 1 easy"
    )
    draft.add_argument("--split", action="store_true", help="work a shape that divides in one piece")
    draft.add_argument("--panels", action="store_true", help="as flat panels in rows, edged and sewn together")
    draft.add_argument("--open", action="store_true")
    draft.add_argument("--stacked", action="store_true")
    draft.add_argument("--first", action="store_true", help="increase before the plain stitches")
    draft.add_argument("--decrease", choices=("dec", "invdec"), default="dec")
    _gauge(draft)

    estimate = commands.add("gauge", gauge_command, "estimate gauge from yarn and hook")
    estimate.add_argument("--wpi", type=_number, action="append", metavar="N", help="wraps per inch, once a strand")
    estimate.add_argument("--class", dest="weight", type=int, metavar="0…7")
    estimate.add_argument("--hook", type=_number, required=True, metavar="MM")

    yarn = commands.add("yarn", yarn_command, "yarn, filling and tails of a written pattern")
    yarn.add_argument("file")
    yarn.add_argument("--per-stitch", type=_number, metavar="MM", help="yarn in one single crochet, measured")
    yarn.add_argument("--force", action="store_true")
    _gauge(yarn)


def _working(commands: _Commands) -> None:
    settle = commands.add("settle", settle_command, "bring every part to rest, and measure it")
    settle.add_argument("file")
    settle.add_argument("--firmness", type=_number, default=0.5, metavar="0…1", help="0 softly filled, 1 hard")
    settle.add_argument("--against", metavar="TARGET", help="sphere:100, ellipsoid:90x60, or the JSON of a draft")
    settle.add_argument("--mesh", metavar="OUT", help="write a mesh: .obj, .stl or .glb")
    settle.add_argument("--force", action="store_true", help="go on with faults")
    _gauge(settle)

    run = commands.add("run", run_command, "work a pattern stitch by stitch")
    run.add_argument("file")
    run.add_argument("--from-terms", choices=TERMS)
    run.add_argument("--graph", action="store_true", help="every stitch with what it goes into")

    grade = commands.add("grade", grade_command, "a pattern at another size, or in another yarn")
    grade.add_argument("file")
    grade.add_argument("--scale", type=_number, metavar="X")
    grade.add_argument("--height", type=_number, metavar="MM", help="of the figure, or of --part")
    grade.add_argument("--to-stitch", type=_number, metavar="MM", help="stitch width of the other yarn")
    grade.add_argument("--to-round", type=_number, metavar="MM", help="round height of the other yarn")
    grade.add_argument("--peak", type=int, metavar="N", help="widest count of --part, or of the widest part")
    grade.add_argument("--grams", type=_number, metavar="G", help="yarn at hand")
    grade.add_argument("--part", metavar="NAME")
    grade.add_argument("--firmness", type=_number, default=0.5, metavar="0…1")
    grade.add_argument("--force", action="store_true", help="go on with faults")
    _gauge(grade)

    convert = commands.add("convert", convert_command, "write a pattern in another form")
    convert.add_argument("file")
    convert.add_argument("--to", required=True, choices=(*FORMATS, "design"))
    convert.add_argument("--from-terms", choices=TERMS)
    convert.add_argument("--to-terms", choices=TERMS)
    convert.add_argument("--tidy", action="store_true", help="fold equal rounds")
    convert.add_argument("--left-handed", action="store_true", help="exchange left and right, mirror charts")
    convert.add_argument("--spelled", action="store_true", help="stitches by their full names")
    convert.add_argument("--language", "--tongue", choices=tuple(Language), help="rounds in German, French or Spanish")
    convert.add_argument("--force", action="store_true", help="go on with faults")


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command line; the exit code."""
    try:
        args = _parser().parse_args(argv)
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
