"""`craft grade`: a design at another size, every part and join before and after."""

from __future__ import annotations

import argparse
from dataclasses import replace
from typing import Any

from craft.cli.answers import Answer, gauge_arguments, gauge_of, number, refused
from craft.cli.designs import as_design
from craft.cli.files import read_given
from craft.design.design import Design
from craft.design.grading import (
    Feature,
    Sized,
    asked_for,
    by_gauge,
    first_size,
    notes_of,
    part_size,
    report_of,
    scaled,
    sized_design,
)
from craft.design.joins import meeting
from craft.design.parts import GaugeFrom
from craft.design.running import run_parts
from craft.design.size import Size, SizeKind
from craft.design.stored import to_json
from craft.design.written import pattern_text
from craft.errors import CraftError
from craft.gauge import Gauge

_WAYS = ("scale", "height", "peak", "grams", "girth")


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--scale", type=number, metavar="X")
    of.add_argument("--height", type=number, metavar="MM", help="of the figure, or of --part")
    of.add_argument("--to-stitch", type=number, metavar="MM", help="stitch width of the other yarn")
    of.add_argument("--to-round", type=number, metavar="MM", help="round height of the other yarn")
    of.add_argument("--peak", type=int, metavar="N", help="widest count of --part, or of the widest part")
    of.add_argument("--grams", type=number, metavar="G", help="yarn at hand")
    of.add_argument("--girth", type=number, metavar="MM", help="that --part, or the widest part, is to fit")
    of.add_argument("--ease", type=number, default=0.0, metavar="MM", help="by which it is to be wider than --girth")
    of.add_argument("--part", metavar="NAME")
    of.add_argument("--apart", action="store_true", help="motifs that repeat keep their distance, not their number")
    of.add_argument("--firmness", type=number, default=0.5, metavar="0…1")
    of.add_argument("--force", action="store_true", help="go on with faults")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """Grade a file."""
    first = first_given(args)
    if isinstance(first, Answer):
        return first
    sized = _asked(first, args)
    made = sized_design(sized)
    parts = [_part(before, after, first, sized) for before, after in zip(first.parts, sized.parts, strict=True)]
    rows = report_of(sized)
    data = {
        "format": 1,
        "text": pattern_text(made),
        "design": to_json(made),
        "parts": parts,
        "joins": _joins(first, sized),
        "features": [_feature(f) for f in rows],
        "notes": list(notes_of(rows)),
    }
    return Answer(0, "".join(_lines(data)), data)


def first_given(args: argparse.Namespace) -> Sized | Answer:
    """The first size of the file that is given, at the gauge that is given; the refusal of one with faults."""
    given = read_given(args.file)
    if not given.checked.sound and not args.force:
        return refused(given.checked)
    design = at_gauge(as_design(given), args)
    first = first_size(design, run_parts(design))
    if not first.parts:
        raise CraftError(f"{args.file}: there are no rounds to be graded.")
    return first


def design_of(sized: Sized) -> dict[str, Any]:
    """The design of a size as plain JSON values."""
    return to_json(sized_design(sized))


def at_gauge(design: Design, args: argparse.Namespace) -> Design:
    """The design at the gauge given, or its own."""
    if args.stitch is None and args.round is None and given_gauge(design):
        return replace(design, gauge=replace(design.gauge, firmness=args.firmness))
    gauge = gauge_of(args)
    own = replace(
        design.gauge,
        source=GaugeFrom.OWN,
        stitch_mm=gauge.stitch_mm,
        round_mm=gauge.round_mm,
        lean=gauge.lean,
        firmness=args.firmness,
    )
    return replace(design, gauge=own)


def given_gauge(design: Design) -> bool:
    """Whether a design says its own gauge."""
    return design.gauge.source is not GaugeFrom.ASSUMED


def _asked(first: Sized, args: argparse.Namespace) -> Sized:
    """The size that the words ask for; exactly one way of asking."""
    chosen = [way for way in _WAYS if getattr(args, way) is not None]
    other = args.to_stitch is not None or args.to_round is not None
    if len(chosen) + other != 1:
        raise CraftError(
            "grade needs one of --scale, --height, --peak, --grams, --girth, or --to-stitch with --to-round."
        )
    if other:
        if args.to_stitch is None or args.to_round is None:
            raise CraftError("--to-stitch and --to-round go together, both in mm.")
        gauge = Gauge(args.to_stitch, args.to_round, first.gauge.lean, first.gauge.spread, "as given")
        return by_gauge(first, gauge)
    if chosen[0] == "scale":
        return scaled(replace(first, apart=args.apart), args.scale)
    return asked_for(first, _size(first, args, chosen[0]))


def _size(first: Sized, args: argparse.Namespace, way: str) -> Size:
    """What the words ask for, as a size of the design."""
    part = None if args.part is None else first.parts[_named(first, args.part)].source.key
    kinds = {"height": SizeKind.HEIGHT, "peak": SizeKind.COUNT, "grams": SizeKind.GRAMS, "girth": SizeKind.FIT}
    return Size(
        "asked",
        "asked",
        kinds[way],
        height_mm=args.height,
        count=args.peak,
        grams=args.grams,
        girth_mm=args.girth,
        ease_mm=args.ease,
        part=part,
        apart=args.apart,
    )


def _named(first: Sized, name: str | None) -> int:
    """Which part is meant: that of the name, else the widest."""
    if name is None:
        widest = [max(p.worked.counts) for p in first.parts]
        return widest.index(max(widest))
    found = next((at for at, p in enumerate(first.parts) if p.source.name.lower() == name.lower()), None)
    if found is None:
        raise CraftError(f"No part is called {name!r}; there are {', '.join(p.source.name for p in first.parts)}.")
    return found


def measures(sized: Sized, at: int) -> dict[str, Any]:
    """Counts, height and width of the part number `at` of a size."""
    part = sized.parts[at]
    size = part_size(part.worked, part.gauge, sized.design.gauge.firmness)
    return {"counts": list(part.worked.counts), "height_mm": size.height.value, "width_mm": size.width.value}


def _part(before: Any, after: Any, first: Sized, sized: Sized) -> dict[str, Any]:
    at = first.parts.index(before)
    return {"name": before.source.name, "how": after.how, "before": measures(first, at), "after": measures(sized, at)}


def _joins(first: Sized, sized: Sized) -> list[dict[str, Any]]:
    rows = []
    for join in first.joins:
        one, two = meeting(join, first.worked), meeting(join, sized.worked)
        part, host = first.design.part(join.part), first.design.part(join.host)
        if one is None or two is None or part is None or host is None:
            continue
        rows.append({"a": part.name, "b": host.name, "before": [one.part, one.host], "after": [two.part, two.host]})
    return rows


def _feature(row: Feature) -> dict[str, str]:
    return {
        "part": row.part,
        "kind": row.kind,
        "before": row.before,
        "after": row.after,
        "state": row.state.value,
        "why": row.why,
    }


def _lines(data: dict[str, Any]) -> list[str]:
    head = [
        f"{p['name']}: {p['how']}, {p['before']['height_mm']:.0f} × {p['before']['width_mm']:.0f} mm to "
        f"{p['after']['height_mm']:.0f} × {p['after']['width_mm']:.0f} mm, "
        f"{len(p['before']['counts'])} to {len(p['after']['counts'])} rounds\n"
        for p in data["parts"]
    ]
    return [*head, *(f"note: {note}\n" for note in data["notes"]), "\n", data["text"]]
