"""`craft settle`: parts brought to rest, measured, compared with a target, written as meshes."""

from __future__ import annotations

import argparse
import json
import time
from dataclasses import replace
from pathlib import Path
from typing import Any

from craft.cli.answers import Answer, gauge_arguments, gauge_of, number, refused
from craft.cli.designs import as_design
from craft.cli.files import read_given
from craft.design.design import Design
from craft.design.parts import GaugeFrom
from craft.design.portrait import portrait_of, settled_figure
from craft.errors import CraftError
from craft.figure.render import Look, Side, render
from craft.figure.settling import MESH_FORMATS, Mesh, Settled, measure, mesh_file, settle, shape_error
from craft.rounds.fabric import WorkedPart
from craft.shape.stored import form_of
from craft.shape.target import SOLIDS, Form, Solid


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--firmness", type=number, default=0.5, metavar="0…1", help="0 softly filled, 1 hard")
    of.add_argument("--against", metavar="TARGET", help="sphere:100, ellipsoid:90x60, or the JSON of a draft")
    of.add_argument("--mesh", metavar="OUT", help="write a mesh: .obj, .stl or .glb")
    of.add_argument("--picture", metavar="OUT.png", help="paint the figure, put together where the file says how")
    of.add_argument("--side", choices=list(Side), default=Side.BETWEEN, help="from where it is painted")
    of.add_argument("--force", action="store_true", help="go on with faults")
    gauge_arguments(of)


def target_of(text: str) -> Form:
    """A target from `sphere:100`, `ellipsoid:90x60` (height × width in mm), or a JSON file of a form or `craft draft`."""
    kind, _, size = text.partition(":")
    if kind in SOLIDS and size:
        try:
            sides = [float(side) for side in size.split("x")]
        except ValueError:
            raise CraftError(f"{text!r}: sizes are written like {kind}:90x60, height by width in mm.") from None
        if len(sides) > 2:
            raise CraftError(f"{text!r}: a solid has a height and a width.")
        return Form(Solid(kind, sides[0], sides[-1]))
    try:
        return form_in(text)
    except OSError as error:
        raise CraftError(f"{text}: {error.strerror or error}; a target is a file or like 'sphere:100'.") from None


def form_in(path: str) -> Form:
    """The form of a JSON file: a form, a solid, or what `craft draft --json` printed. OSError when it can't be opened."""
    try:
        data = json.loads(Path(path).read_text(encoding="utf-8"))
        target = data.get("target", data)
        return form_of(target if "base" in target else {"base": "solid", **target})
    except (ValueError, AttributeError, TypeError):
        raise CraftError(f"{path}: the target is no JSON of a shape.") from None


def run(args: argparse.Namespace) -> Answer:
    """Settle every part of a file."""
    given = read_given(args.file)
    found = given.checked
    if not found.sound and not args.force:
        return refused(found)
    target = target_of(args.against) if args.against else None
    ending = Path(args.mesh).suffix[1:].lower() if args.mesh else ""
    if args.mesh and ending not in MESH_FORMATS:
        raise CraftError(f"{args.mesh}: meshes are written as {', '.join(MESH_FORMATS)}.")
    parts = [p for p in found.parts if p.rounds]
    if not parts:
        return Answer(1, "no rounds\n", {"format": 1, "parts": []})
    made: list[tuple[Settled, float]] = []
    for part in parts:
        begin = time.perf_counter()
        made.append((settle(part, gauge_of(args), firmness=args.firmness), time.perf_counter() - begin))
    for at, (settled, _) in enumerate(made):
        if args.mesh:
            _write(
                _path_of(args.mesh, settled.part, at if len(made) > 1 else None),
                mesh_file(Mesh.of(settled, {}), ending),
            )
    if args.picture:
        figure, skins = settled_figure(_at_gauge(as_design(given), args))
        _write(Path(args.picture), render(portrait_of(figure, skins), Look(Side(args.side))))
    rows = [_row(settled, seconds, target if at == 0 else None) for at, (settled, seconds) in enumerate(made)]
    lines = "".join(
        f"{r['name'] or 'Part'}: {r['stitches']} stitches, {r['width_mm']:.0f} × {r['depth_mm']:.0f} × {r['height_mm']:.0f} mm, "
        f"{r['volume_ml']:.0f} ml, at rest after {r['steps']} steps"
        + (
            f", off its target by {r['shape_rms_mm']:.2f} mm ({r['shape_rms_w']:.2f} stitches)"
            if target and not at
            else ""
        )
        + "\n"
        for at, r in enumerate(rows)
    )
    return Answer(0 if all(s.converged for s, _ in made) else 1, lines, {"format": 1, "parts": rows})


def _at_gauge(design: Design, args: argparse.Namespace) -> Design:
    """The design at the gauge and the firmness that were typed."""
    own = gauge_of(args)
    typed = replace(
        design.gauge,
        source=GaugeFrom.OWN,
        stitch_mm=own.stitch_mm,
        round_mm=own.round_mm,
        lean=own.lean,
        firmness=args.firmness,
    )
    return replace(design, gauge=typed)


def _row(settled: Settled, seconds: float, target: Form | None) -> dict[str, Any]:
    m = measure(settled)
    error = shape_error(settled, target) if target else None
    return {
        "name": settled.part.name,
        "stitches": len(settled.graph),
        "height_mm": m.height_mm,
        "width_mm": m.width_mm,
        "depth_mm": m.depth_mm,
        "volume_ml": m.volume_ml,
        "fill_g": m.fill_g,
        "girths_mm": [r.girth_mm for r in m.rounds],
        "seconds": seconds,
        "steps": settled.steps,
        "converged": settled.converged,
        "shape_rms_mm": error.rms_mm if error else None,
        "shape_rms_w": error.rms_w if error else None,
    }


def _path_of(wanted: str, part: WorkedPart, at: int | None) -> Path:
    path = Path(wanted)
    return path if at is None else path.with_name(f"{path.stem}-{at + 1}{path.suffix}")


def _write(path: Path, data: bytes) -> None:
    try:
        path.write_bytes(data)
    except OSError as error:
        raise CraftError(f"{path}: {error.strerror or error}.") from None
