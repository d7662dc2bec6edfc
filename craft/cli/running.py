"""`craft run`: a pattern stitch by stitch."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from typing import Any

from craft.cli.answers import Answer
from craft.cli.files import TERMS, read_checked
from craft.rounds.fabric import KIND_KEYS, LOOP_ORDER, WorkedPart, movements, place_of
from craft.rounds.stitches import Terms
from craft.text.check import Checked


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--from-terms", choices=TERMS)
    of.add_argument("--graph", action="store_true", help="every stitch with what it goes into")


def run(args: argparse.Namespace) -> Answer:
    """Run a file: every stitch with what it goes into."""
    found, _ = read_checked(args.file, Terms(args.from_terms) if args.from_terms else None)
    no_rounds = not any(part.rounds for part in found.parts)
    data = {"format": 1, "sound": found.sound, "parts": [_graph(part) for part in found.parts]}
    return Answer(0 if found.sound and not no_rounds else 1, "".join(_run_lines(found, graph=args.graph)), data)


def _graph(part: WorkedPart) -> dict[str, Any]:
    graph = part.graph
    return {
        "name": part.name,
        "make": part.make,
        "rounds": [t.label for t in part.rounds],
        "colours": list(graph.colours),
        "pieces": list(graph.pieces),
        "stitches": [
            {
                "kind": KIND_KEYS[graph.kind[i]],
                "round": int(graph.round[i]),
                "colour": int(graph.colour[i]),
                "loop": LOOP_ORDER[graph.loops[i]].value,
                "piece": int(graph.piece[i]),
                "front": bool(graph.front[i]),
                "live": bool(graph.live[i]),
                "parents": graph.parents_of(i),
            }
            for i in range(len(graph))
        ],
        "joins": graph.joins.tolist(),
    }


def _run_lines(found: Checked, *, graph: bool) -> Iterator[str]:
    for part in found.parts:
        yield f"{part.name or 'Part'} (make {part.make}): {len(part.rounds)} rounds, {len(part.graph)} stitches\n"
        for at, tally in enumerate(part.rounds):
            yield f"  {tally.label}: took {tally.taken}, made {tally.made}, live {tally.live}\n"
            if graph:
                for move in movements(part, at):
                    into = " and ".join("{} of {}".format(*reversed(place_of(part, i))) for i in move.into) or "nothing"
                    yield f"    {move.stitch} into {into}\n"
