"""`craft yarn`: yarn, filling, tails and hours of a written pattern."""

from __future__ import annotations

import argparse
from dataclasses import asdict

from craft.cli.answers import Answer, gauge_arguments, gauge_of, number, refused
from craft.cli.files import read_checked
from craft.design.grading import profile_of
from craft.figure.materials import filling_of, hours, tails, yarn_use


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--per-stitch", type=number, metavar="MM", help="yarn in one single crochet, measured")
    of.add_argument("--force", action="store_true")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """Yarn, filling, tails and hours of a file."""
    found, _ = read_checked(args.file, None)
    if not found.sound and not args.force:
        return refused(found)
    gauge = gauge_of(args)
    uses = yarn_use(found.parts, gauge, args.per_stitch)
    filling = filling_of([(p, profile_of(p, gauge)) for p in found.parts])
    data = {
        "format": 1,
        "colours": [{"colour": u.colour, "stitches": u.stitches, "metres": asdict(u.metres)} for u in uses],
        "filling_g": asdict(filling),
        "hours": asdict(hours(uses)),
        "tails": [asdict(t) for t in tails(found.parts, gauge)],
    }
    lines = "".join(
        f"{u.colour}: {u.stitches} stitches, {u.metres.value:.1f} m ({u.metres.low:.1f} to {u.metres.high:.1f})\n"
        for u in uses
    )
    return Answer(0, f"{lines}filling {filling.value:.0f} g ({filling.low:.0f} to {filling.high:.0f})\n", data)
