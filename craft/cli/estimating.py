"""`craft gauge`: gauge and fabric from yarn and hook."""

from __future__ import annotations

import argparse
from dataclasses import asdict

from craft.cli.answers import Answer, number
from craft.errors import CraftError
from craft.gauge import Estimate, estimate_gauge, fabric_outlook
from craft.yarn import Yarn, combined_wraps


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("--wpi", type=number, action="append", metavar="N", help="wraps per inch, once a strand")
    of.add_argument("--class", dest="weight", type=int, metavar="0…7")
    of.add_argument("--hook", type=number, required=True, metavar="MM")


def run(args: argparse.Namespace) -> Answer:
    """Estimate gauge and fabric from yarn and hook."""
    if not args.wpi and args.weight is None:
        raise CraftError("gauge needs --wpi or --class.")
    wraps = combined_wraps(*args.wpi) if args.wpi else None
    yarn = Yarn("yarn", args.weight, wraps)
    gauge, outlook = estimate_gauge(yarn, args.hook), fabric_outlook(yarn, args.hook)
    width, height = (Estimate.around(v, gauge.spread, gauge.how) for v in (gauge.stitch_mm, gauge.round_mm))
    data = {
        "format": 1,
        "stitch_mm": asdict(width),
        "round_mm": asdict(height),
        "fabric": {"ratio": outlook.ratio, "verdict": outlook.verdict.value, "words": outlook.words},
    }
    lines = "".join(
        f"{name} {e.value:.2f} mm ({e.low:.2f} to {e.high:.2f}), {e.how}\n"
        for name, e in (("stitch width", width), ("round height", height))
    )
    return Answer(0, f"{lines}{outlook.words}\n", data)
