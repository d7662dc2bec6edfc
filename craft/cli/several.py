"""`craft sizes`: one pattern for several sizes, or one of its sizes by itself."""

from __future__ import annotations

import argparse
from typing import Any

from craft.cli.answers import Answer, gauge_arguments, number
from craft.cli.files import read_given
from craft.cli.grading import design_of, first_given, measures
from craft.design.grading import Sized, asked_for, figure_size, pattern_for_all
from craft.design.size import Size, SizeKind
from craft.errors import CraftError
from craft.text.several_sizes import of_size

MOST_HEIGHTS = 12


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--heights", metavar="MM,MM,…", help="of the whole figure, smallest first or in any order")
    of.add_argument("--names", metavar="S,M,…", help="what the sizes are called")
    of.add_argument("--only", metavar="NAME", help="of a pattern for several sizes, the one with this name")
    of.add_argument("--firmness", type=number, default=0.5, metavar="0…1")
    of.add_argument("--force", action="store_true", help="go on with faults")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """Write a file for several sizes, or read one of them."""
    if args.only is not None:
        text = of_size(read_given(args.file).text, args.only)
        return Answer(0, text, {"format": 1, "text": text, "sizes": [{"name": args.only}]})
    heights = _heights(args.heights)
    names = _names(args.names, heights)
    first = first_given(args)
    if isinstance(first, Answer):
        return first
    sizes = [asked_for(first, Size("s", "s", SizeKind.HEIGHT, height_mm=mm)) for mm in heights]
    text = pattern_for_all(sizes, names)
    data = {"format": 1, "text": text, "sizes": [_size(n, s) for n, s in zip(names, sizes, strict=True)]}
    return Answer(0, text, data)


def _heights(said: str | None) -> list[float]:
    try:
        found = [float(h) for h in (said or "").split(",") if h.strip()]
    except ValueError:
        raise CraftError("--heights are numbers in mm with commas between them, such as 60,90,120.") from None
    if not 2 <= len(found) <= MOST_HEIGHTS:
        raise CraftError(f"sizes needs --heights with 2 to {MOST_HEIGHTS} heights in mm, or --only with a size's name.")
    return found


def _names(said: str | None, heights: list[float]) -> list[str]:
    names = [n.strip() for n in said.split(",")] if said else [f"{h / 10:g} cm" for h in heights]
    if len(names) != len(heights):
        raise CraftError(f"--names names {len(names)} sizes, --heights asks for {len(heights)}.")
    return names


def _size(name: str, sized: Sized) -> dict[str, Any]:
    width, height = figure_size(sized)
    parts = [{"name": p.source.name, "how": p.how, **measures(sized, k)} for k, p in enumerate(sized.parts)]
    return {"name": name, "height_mm": height, "width_mm": width, "parts": parts, "design": design_of(sized)}
