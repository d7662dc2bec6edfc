"""`craft graft`: a base to one of its rounds, then a piece from one of its own."""

from __future__ import annotations

import argparse

from craft.cli.answers import Answer, gauge_arguments, number
from craft.cli.designs import as_design
from craft.cli.files import read_given
from craft.cli.grading import at_gauge
from craft.design.design import Design, Source
from craft.design.parts import Part
from craft.design.remix import Adapt, Cut, grafted
from craft.design.stored import to_json
from craft.design.written import pattern_text
from craft.errors import CraftError


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("base", metavar="BASE")
    of.add_argument("--part", required=True, metavar="NAME", help="the base's part that goes on otherwise")
    of.add_argument("--upto", required=True, type=int, metavar="K", help="its last round that stays")
    of.add_argument("--then", required=True, metavar="FILE", help="what it goes on as")
    of.add_argument("--piece", metavar="NAME", help="which part of that file; its first one when unsaid")
    of.add_argument(
        "--from", dest="first", required=True, type=int, metavar="J", help="the first round of it that is taken"
    )
    of.add_argument("--adapt", choices=[a.value for a in Adapt], help="what to do where the counts differ")
    of.add_argument("--firmness", type=number, default=0.5, metavar="0…1")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """Graft one file onto another."""
    base = as_design(read_given(args.base))
    base = base if args.stitch is None and args.round is None else at_gauge(base, args)
    piece = as_design(read_given(args.then))
    adapt = None if args.adapt is None else Adapt(args.adapt)
    below = Cut(base, _named(base, args.part).key, args.upto)
    above = Cut(piece, _named(piece, args.piece).key, args.first)
    made = grafted(below, above, adapt, Source(piece.name))
    text = pattern_text(made.design)
    data = {
        "format": 1,
        "text": text,
        "design": to_json(made.design),
        "port": {"base": made.graft.base, "piece": made.graft.piece, "adapter_rounds": made.graft.adapters},
        "scale": made.graft.scale,
        "notes": list(made.told),
    }
    return Answer(0, "".join([*(f"note: {t}\n" for t in made.told), "\n", text]), data)


def _named(design: Design, name: str | None) -> Part:
    if not design.parts:
        raise CraftError("There are no parts in it.")
    if name is None:
        return design.parts[0]
    found = next((p for p in design.parts if p.name.lower() == name.lower()), None)
    if found is None:
        raise CraftError(f"No part is called {name!r}; there are {', '.join(p.name for p in design.parts)}.")
    return found
