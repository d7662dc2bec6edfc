"""`craft materials`: all that a figure takes, by colour: stitches, metres, grams, skeins; eyes, filling, tails, hours."""

from __future__ import annotations

import argparse
from dataclasses import asdict
from typing import Any

from craft.cli.answers import Answer, gauge_arguments, number
from craft.cli.grading import first_given
from craft.design.grading import Sized, figures_of, grams_per_metre
from craft.figure.materials import tails
from craft.gauge import Estimate


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--firmness", type=number, default=0.5, metavar="0…1")
    of.add_argument("--force", action="store_true", help="go on with faults")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """What a file takes."""
    first = first_given(args)
    if isinstance(first, Answer):
        return first
    data = materials_of(first)
    return Answer(0, "".join(_lines(data)), data)


def materials_of(sized: Sized) -> dict[str, Any]:
    """All that a size takes. grams and skeins are None where no yarn says what a skein holds."""
    found = figures_of(sized)
    weighs = grams_per_metre(sized)
    main = next(iter(weighs.values()), None)
    colours = []
    for use, skeins in found.yarns:
        per_metre = weighs.get(use.colour, main)
        grams = None if per_metre is None else asdict(use.metres.times(per_metre))
        row = {"colour": use.colour, "stitches": use.stitches, "metres": asdict(use.metres)}
        colours.append({**row, "grams": grams, "skeins": skeins})
    return {
        "format": 1,
        "colours": colours,
        "filling_g": asdict(found.filling_g),
        "eye_mm": found.eye_mm,
        "tails": [asdict(t) for p in sized.parts for t in tails([p.worked], p.gauge)],
        "hours": asdict(found.hours),
    }


def _lines(data: dict[str, Any]) -> list[str]:
    out = []
    for row in data["colours"]:
        said = [f"{row['stitches']} stitches", _range(row["metres"], "m")]
        said += [_range(row["grams"], "g")] if row["grams"] else []
        said += [f"{row['skeins']} {'skein' if row['skeins'] == 1 else 'skeins'}"] if row["skeins"] else []
        out.append(f"{row['colour']}: {', '.join(said)}\n")
    out.append(f"filling: {_range(data['filling_g'], 'g')}\n")
    if data["eye_mm"]:
        out.append(f"eyes: two of {data['eye_mm']} mm\n")
    out += [f"tail of {t['part']}: {t['millimetres']:.0f} mm\n" for t in data["tails"]]
    out.append(f"work: {_range(data['hours'], 'h')}\n")
    return out


def _range(estimate: dict[str, Any], unit: str) -> str:
    found = Estimate(**estimate)
    return f"{found.value:.1f} {unit} ({found.low:.1f} to {found.high:.1f})"
