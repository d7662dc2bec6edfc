"""`craft draft`: a shape as written rounds."""

from __future__ import annotations

import argparse

from craft.cli.answers import Answer, gauge_arguments, gauge_of, number
from craft.cli.files import read_bytes
from craft.cli.settling import form_in
from craft.errors import CraftError
from craft.fitting.panels import draft_panels
from craft.gauge import Gauge
from craft.shape.drafting import BranchedError, Recipe, Shaping, draft, suggested_start
from craft.shape.intake import ENDINGS, POLES, half_outline, mesh_form, read_drawing, read_mesh
from craft.shape.stored import form_json
from craft.shape.target import SOLIDS, Form, Solid, Traced, patches_of
from craft.text.notation import print_rounds

MOST_SHAPE_BYTES = 20 * 2**20


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("shape", metavar="SOLID|form|FILE", help=f"{', '.join(SOLIDS)}, form, or a mesh or SVG drawing")
    of.add_argument("--pole", choices=tuple(POLES), default="foot", help="where the rounds of a mesh begin")
    of.add_argument("--up", choices=("z", "y"), default="z", help="which way is up in a mesh file")
    of.add_argument("--form", metavar="FILE", help="a shape as JSON: traced, stacked, a mesh, with modifiers")
    of.add_argument("--height", type=number, metavar="MM")
    of.add_argument("--width", type=number, metavar="MM")
    of.add_argument("--opening", type=number, metavar="MM")
    of.add_argument("--point", type=number, default=0.2, metavar="0…0.5", help="how pointed an egg is")
    of.add_argument("--start", type=int)
    of.add_argument(
        "--simplicity", "--ease", type=number, default=0.85, metavar="0…1", help="0 true to the shape, 1 easy"
    )
    of.add_argument("--split", action="store_true", help="work a shape that divides in one piece")
    of.add_argument("--panels", action="store_true", help="as flat panels in rows, edged and sewn together")
    of.add_argument("--open", action="store_true")
    of.add_argument("--stacked", action="store_true")
    of.add_argument("--first", action="store_true", help="increase before the plain stitches")
    of.add_argument("--decrease", choices=("dec", "invdec"), default="dec")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """Draft a shape to rounds."""
    if args.stitch is None or args.round is None:
        raise CraftError("draft needs --stitch and --round, both in mm.")
    form = _form(args)
    gauge = gauge_of(args)
    if args.panels:
        return _panels(form, gauge)
    start = args.start or suggested_start(form, gauge)
    shaping = Shaping(args.stacked, args.first, args.decrease)
    recipe = Recipe(form, start, args.simplicity, shaping, split=args.split)
    try:
        made = draft(recipe, gauge)
    except BranchedError as error:
        return _branched(error, gauge)
    data = {
        "format": 1,
        "text": print_rounds(made.part),
        "counts": list(made.counts),
        "target": form_json(form),
        "count_rms": made.count_rms,
        "different_rounds": made.different_rounds,
        "branches": [],
    }
    return Answer(0, print_rounds(made.part), data)


def _form(args: argparse.Namespace) -> Form:
    """What is to be drafted: a solid of the words given, the form of a file, a mesh or a drawing."""
    if args.shape in SOLIDS:
        if args.height is None:
            raise CraftError("draft needs --height in mm.")
        return Form(Solid(args.shape, args.height, args.width or args.height, args.open, args.opening, args.point))
    if args.shape == "form":
        if not args.form:
            raise CraftError("draft form needs --form FILE: a JSON file as docs/file-format.md describes.")
        try:
            return form_in(args.form)
        except OSError as error:
            raise CraftError(f"{args.form}: {error.strerror or error}.") from None
    return _form_of_file(args.shape, args)


def _form_of_file(name: str, args: argparse.Namespace) -> Form:
    """A mesh or an SVG drawing, so many mm tall."""
    ending = name.rsplit(".", 1)[-1].lower() if "." in name else ""
    if ending not in (*ENDINGS, "svg"):
        raise CraftError(
            f"{name!r} is no solid ({', '.join(SOLIDS)}), and no file that ends in .{', .'.join((*ENDINGS, 'svg'))}."
        )
    if args.height is None:
        raise CraftError("draft FILE needs --height in mm.")
    raw = read_bytes(name, MOST_SHAPE_BYTES)
    if len(raw) > MOST_SHAPE_BYTES:
        raise CraftError(f"{name}: a shape's file is at most {MOST_SHAPE_BYTES // 2**20} MB.")
    if ending != "svg":
        found = read_mesh(raw, ending)
        return mesh_form(found.x, found.faces, args.height, up=args.up, pole=args.pole)
    drawing = read_drawing(raw)
    half = half_outline(drawing.rows, drawing.left, drawing.right)
    tall = max(z for _, z in half.handles)
    return Form(Traced(tuple((r * args.height / tall, z * args.height / tall) for r, z in half.handles)))


def _branched(error: BranchedError, gauge: Gauge) -> Answer:
    """The answer for a shape that divides: where, and into how many loops."""
    branches = [
        {"round": max(round(b.distance_mm / gauge.round_mm), 1), "loops": len(b.middles)} for b in error.branches
    ]
    where = ", ".join(f"R{b['round']} into {b['loops']}" for b in branches)
    data = {"format": 1, "text": "", "counts": [], "target": None, "count_rms": None, "branches": branches}
    return Answer(1, f"{error.message} It divides at {where}; --split works it in one piece.\n", data)


def _panels(form: Form, gauge: Gauge) -> Answer:
    """A shape as flat panels: a part for those that are worked alike, then its seams."""
    panels = draft_panels(patches_of(form.mesh), gauge)
    blocks = []
    for group in panels.alike:
        names = " and ".join(panels.panels[k].name for k in group)
        blocks.append(f"{names} (make {len(group)})\n{print_rounds(panels.panels[group[0]].part)}")
    seams = [{"letter": a, "one": b, "other": c, "stitches": n} for a, b, c, n in panels.seams]
    said = [f"{s['letter']}: {s['one']} to {s['other']}, {s['stitches']} stitches" for s in seams]
    text = "\n".join(blocks) + "\nSeams\n" + "\n".join(said) + "\n"
    return Answer(0, text, {"format": 1, "text": text, "seams": seams})
