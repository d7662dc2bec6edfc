"""What every command has in common: its answer, the gauge it is given, the refusal of faulty input."""

from __future__ import annotations

import argparse
import math
from dataclasses import dataclass
from typing import Any

from craft.gauge import ASSUMED, Gauge
from craft.problems import Problem
from craft.text.check import Checked


@dataclass(frozen=True, slots=True)
class Answer:
    """What a command found: exit code, lines for people, the JSON object."""

    code: int
    lines: str
    data: dict[str, Any]


def problem_row(p: Problem) -> dict[str, Any]:
    """A problem as plain JSON values."""
    fix = p.fix and {"start": p.fix.start, "end": p.fix.end, "text": p.fix.text, "label": p.fix.label}
    return {
        "code": p.code,
        "severity": p.severity.value,
        "part": p.place.part,
        "round": p.place.round,
        "line": p.place.line,
        "column": p.place.column,
        "message": p.message,
        "fix": fix,
    }


def gauge_of(args: argparse.Namespace) -> Gauge:
    """The gauge given on the command line, or the assumed one."""
    return Gauge(
        args.stitch or ASSUMED.stitch_mm,
        args.round or ASSUMED.round_mm,
        ASSUMED.lean if args.lean is None else args.lean,
        0.05 if args.stitch else ASSUMED.spread,
        "as given" if args.stitch else ASSUMED.how,
    )


def refused(found: Checked) -> Answer:
    """The answer to a pattern with faults where a sound one is needed."""
    first = next(p for p in found.problems if p.severity.value == "fault")
    line = f"not sound, line {first.place.line}: {first.message} Use --force to go on.\n"
    return Answer(1, line, {"format": 1, "sound": False, "problems": [problem_row(p) for p in found.problems]})


def number(text: str) -> float:
    """A number of the command line, in whatever it counts."""
    try:
        value = float(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"{text!r} is no number") from None
    if not math.isfinite(value):
        raise argparse.ArgumentTypeError(f"{text!r} is no finite number")
    return value


def gauge_arguments(of: argparse.ArgumentParser) -> None:
    """A gauge on the command line, in mm."""
    of.add_argument("--stitch", type=number, metavar="MM", help="stitch width")
    of.add_argument("--round", type=number, metavar="MM", help="round height")
    of.add_argument("--lean", type=number, metavar="X", help="stitches of drift a round")
