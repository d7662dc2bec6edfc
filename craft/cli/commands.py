"""The commands: each turns arguments into an answer, as an object and as lines for people."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from dataclasses import asdict
from typing import Any

from craft.cli.answers import Answer, gauge_of, problem_row, refused
from craft.cli.files import read_bytes, read_checked, read_given
from craft.cli.settling import form_in
from craft.design.grading import profile_of
from craft.design.stored import written
from craft.document.export import export
from craft.errors import CraftError
from craft.figure.materials import filling_of, hours, tails, yarn_use
from craft.fitting.panels import draft_panels
from craft.gauge import Estimate, Gauge, estimate_gauge, fabric_outlook
from craft.problems import CODES
from craft.rounds.fabric import KIND_KEYS, LOOP_ORDER, WorkedPart, movements, place_of
from craft.rounds.stitches import Language, Terms
from craft.shape.drafting import BranchedError, Recipe, Shaping, draft, suggested_start
from craft.shape.intake import ENDINGS, half_outline, mesh_form, read_drawing, read_mesh
from craft.shape.stored import form_json
from craft.shape.target import SOLIDS, Form, Solid, Traced, patches_of
from craft.text.check import Checked
from craft.text.notation import Wording, print_rounds
from craft.yarn import Yarn, combined_wraps


def _checked(found: Checked) -> dict[str, Any]:
    terms = found.reading.found
    return {
        "format": 1,
        "sound": found.sound,
        "terms": {"used": terms.used.value, "how": terms.how, "evidence": terms.evidence},
        "parts": [
            {
                "name": part.name,
                "make": part.make,
                "rounds": [
                    {
                        "label": t.label,
                        "line": _line_of(found, t.span.start),
                        "taken": t.taken,
                        "made": t.made,
                        "counted": t.live,
                        "stated": t.stated,
                    }
                    for t in part.rounds
                ],
            }
            for part in found.parts
        ],
        "problems": [problem_row(p) for p in found.problems],
    }


def _line_of(found: Checked, start: int) -> int:
    return next((line.number for line in reversed(found.reading.lines) if line.span.start <= start), 1)


def check_command(args: argparse.Namespace) -> Answer:
    """Check a file, or list every code."""
    if args.codes:
        rows = [{"code": c, "severity": s.value, "meaning": m} for c, (s, m) in CODES.items()]
        lines = "".join(f"{r['code']:<18}{r['severity']:<9}{r['meaning']}\n" for r in rows)
        return Answer(0, lines, {"format": 1, "codes": rows})
    if args.file is None:
        raise CraftError("check needs a FILE, or --codes.")
    found, _ = read_checked(args.file, Terms(args.from_terms) if args.from_terms else None)
    no_rounds = not any(part.rounds for part in found.parts)
    return Answer(0 if found.sound and not no_rounds else 1, "".join(_check_lines(found)), _checked(found))


def _check_lines(found: Checked) -> Iterator[str]:
    for p in found.problems:
        yield f"line {p.place.line}, column {p.place.column}: {p.severity.value}: {p.message} [{p.code}]\n"
    for part in found.parts:
        yield f"{part.name or 'Part'} (make {part.make}): {len(part.rounds)} rounds, {sum(part.counts)} stitches\n"
    yield "sound\n" if found.sound else "not sound\n"


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


MOST_SHAPE_BYTES = 20 * 2**20


def _branched(error: BranchedError, gauge: Gauge) -> Answer:
    """The answer for a shape that divides: where, and into how many loops."""
    branches = [
        {"round": max(round(b.distance_mm / gauge.round_mm), 1), "loops": len(b.middles)} for b in error.branches
    ]
    where = ", ".join(f"R{b['round']} into {b['loops']}" for b in branches)
    data = {"format": 1, "text": "", "counts": [], "target": None, "count_rms": None, "branches": branches}
    return Answer(1, f"{error.message} It divides at {where}; --split works it in one piece.\n", data)


def draft_command(args: argparse.Namespace) -> Answer:
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


def _estimate(e: Estimate) -> dict[str, Any]:
    return asdict(e)


def gauge_command(args: argparse.Namespace) -> Answer:
    """Estimate gauge and fabric from yarn and hook."""
    if not args.wpi and args.weight is None:
        raise CraftError("gauge needs --wpi or --class.")
    wraps = combined_wraps(*args.wpi) if args.wpi else None
    yarn = Yarn("yarn", args.weight, wraps)
    gauge, outlook = estimate_gauge(yarn, args.hook), fabric_outlook(yarn, args.hook)
    width, height = (Estimate.around(v, gauge.spread, gauge.how) for v in (gauge.stitch_mm, gauge.round_mm))
    data = {
        "format": 1,
        "stitch_mm": _estimate(width),
        "round_mm": _estimate(height),
        "fabric": {"ratio": outlook.ratio, "verdict": outlook.verdict.value, "words": outlook.words},
    }
    lines = "".join(
        f"{name} {e.value:.2f} mm ({e.low:.2f} to {e.high:.2f}), {e.how}\n"
        for name, e in (("stitch width", width), ("round height", height))
    )
    return Answer(0, f"{lines}{outlook.words}\n", data)


def yarn_command(args: argparse.Namespace) -> Answer:
    """Yarn, filling, tails and hours of a file."""
    found, _ = read_checked(args.file, None)
    if not found.sound and not args.force:
        return refused(found)
    gauge = gauge_of(args)
    uses = yarn_use(found.parts, gauge, args.per_stitch)
    filling = filling_of([(p, profile_of(p, gauge)) for p in found.parts])
    data = {
        "format": 1,
        "colours": [{"colour": u.colour, "stitches": u.stitches, "metres": _estimate(u.metres)} for u in uses],
        "filling_g": _estimate(filling),
        "hours": _estimate(hours(uses)),
        "tails": [asdict(t) for t in tails(found.parts, gauge)],
    }
    lines = "".join(
        f"{u.colour}: {u.stitches} stitches, {u.metres.value:.1f} m ({u.metres.low:.1f} to {u.metres.high:.1f})\n"
        for u in uses
    )
    return Answer(0, f"{lines}filling {filling.value:.0f} g ({filling.low:.0f} to {filling.high:.0f})\n", data)


def convert_command(args: argparse.Namespace) -> Answer:
    """Write a file in another form, in other terms, or for left-handed makers."""
    given = read_given(args.file, Terms(args.from_terms) if args.from_terms else None)
    found, typed = given.checked, given.text
    if not found.sound and not args.force:
        return refused(found)
    if args.to == "design":
        text = written(given.as_design)
        return Answer(0, text, {"format": 1, "to": args.to, "text": text})
    terms = Terms(args.to_terms) if args.to_terms else found.reading.pattern.terms
    wording = Wording(terms, args.spelled, Language(args.language) if args.language else None)
    text = export(found, typed, args.to, wording=wording, left=args.left_handed, tidy=args.tidy)
    return Answer(0, text, {"format": 1, "to": args.to, "text": text})


def run_command(args: argparse.Namespace) -> Answer:
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
