"""Settling, measured: how true drafts settle to their targets, and how long it takes by size."""

from __future__ import annotations

import resource
import time

import numpy as np

from craft.errors import CraftError
from craft.figure.settling import Contact, Settled, round_nodes, settle, shape_error
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.shape.drafting import Recipe, draft, suggested_start
from craft.shape.profile import inflated_profile
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGES = (Gauge(8.0, 7.4), Gauge(5.6, 5.15), Gauge(3.2, 2.95))

SUITE = (
    *(Solid("sphere", d, d) for d in (30, 50, 80, 120, 200)),
    *(Solid("ellipsoid", h, w) for h, w in ((63, 70), (75, 50), (120, 60), (160, 80))),
    *(Solid("egg", h, w) for h, w in ((60, 45), (110, 90))),
    *(Solid("capsule", h, w) for h, w in ((70, 35), (120, 50))),
    *(Solid("cone", h, w) for h, w in ((60, 50), (120, 80))),
    *(Solid("dome", h, w) for h, w in ((45, 90), (80, 80))),
)

ROUND_KINDS = ("sphere", "ellipsoid", "egg", "capsule")
MOST_STITCHES = 9_000


def _drafted(solid: Solid, gauge: Gauge, simplicity: float) -> WorkedPart | None:
    try:
        made = draft(Recipe(solid, suggested_start(solid, gauge), simplicity), gauge)
    except CraftError:
        return None
    return check(print_rounds(made.part)).parts[0] if sum(made.counts) <= MOST_STITCHES else None


def _aim(solid: Solid, stitches: int) -> float | None:
    if solid.kind not in ROUND_KINDS:
        return None
    return 0.25 if stitches >= 300 else 0.4


def settling_table() -> str:
    """Draft, settle, compare over the suite at three gauges, true to the shape (simplicity 0)."""
    head = f"{'target mm':<20}{'w mm':>5}{'stitches':>9}{'steps':>6}{'s':>6}{'rms mm':>8}{'rms w':>7}{'aim':>6}{'volume':>8}"
    lines = ["Settled against targets (shape error as docs/settling.md defines it)", head]
    kept = [0, 0]
    for solid in SUITE:
        for gauge in GAUGES:
            part = _drafted(solid, gauge, 0.0)
            if part is None:
                continue
            begin = time.perf_counter()
            settled = settle(part, gauge)
            seconds = time.perf_counter() - begin
            error = shape_error(settled, solid)
            aim = _aim(solid, len(part.graph))
            if aim is not None:
                kept[0] += error.rms_w <= aim
                kept[1] += 1
            lines.append(
                f"{f'{solid.kind} {solid.height_mm:g}×{solid.width_mm:g}':<20}{gauge.stitch_mm:>5}{len(part.graph):>9}"
                f"{settled.steps:>6}{seconds:>6.2f}{error.rms_mm:>8.2f}{error.rms_w:>7.3f}"
                f"{'' if aim is None else ('≤' + str(aim)):>6}{error.volume_ratio:>8.3f}"
            )
    lines.append(f"aims kept: {kept[0]} of {kept[1]}")
    lines += ["", *_bulges()]
    return "\n".join(lines)


def _bulges() -> list[str]:
    """How far flat ends bulge beyond their last widest round: settled, and by the axisymmetric estimate."""
    lines = [f"{'flat ends':<20}{'settled':>9}{'estimate mm':>12}{'off':>7}"]
    gauge = GAUGES[1]
    for kind, height, width in (("cone", 100.0, 70.0), ("cone", 60.0, 80.0), ("dome", 45.0, 90.0), ("dome", 70.0, 70.0),
                                ("cylinder", 80.0, 70.0), ("cylinder", 40.0, 90.0)):  # fmt: skip
        made = draft(Recipe(Solid(kind, height, width), simplicity=0.0), gauge)
        settled = settle(check(print_rounds(made.part)).parts[0], gauge)
        z = [settled.x[nodes][:, 2].mean() for _, (nodes, _) in sorted(round_nodes(settled).items())]
        rim = max(i for i, n in enumerate(made.counts) if n == max(made.counts))
        found = inflated_profile(made.counts, gauge, closed=True).height
        bulge, wanted = z[-1] - z[rim], found[-1] - found[rim]
        lines.append(f"{f'{kind} {height:g}×{width:g}':<20}{bulge:>9.1f}{wanted:>12.1f}{bulge / wanted - 1:>+7.0%}")
    return lines


def _ball(stitches: int) -> tuple[WorkedPart, Gauge]:
    """A ball of about so many stitches."""
    gauge = GAUGES[1]
    across = float(np.sqrt(stitches * gauge.stitch_mm * gauge.round_mm / np.pi))
    part = check(print_rounds(draft(Recipe(Solid("sphere", across, across), simplicity=0.0), gauge).part)).parts[0]
    return part, gauge


def settling_speed_table() -> str:
    """Seconds to rest by size, factorisation included, and the memory of the process."""
    lines = ["Settling speed (one thread)", f"{'stitches':>9}{'steps':>7}{'seconds':>9}{'budget':>8}{'memory MB':>11}"]
    for wanted, budget in ((120, ""), (500, "0.1"), (1_500, ""), (3_000, "0.5"), (6_000, ""), (10_000, "2")):
        part, gauge = _ball(wanted)
        settle(part, gauge)
        begin = time.perf_counter()
        settled: Settled = settle(part, gauge)
        seconds = time.perf_counter() - begin
        memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
        lines.append(f"{len(part.graph):>9}{settled.steps:>7}{seconds:>9.2f}{budget:>8}{memory:>11.0f}")
    return "\n".join(lines)


def _tube(rounds: int, direction: str) -> str:
    """A tube that grows by a stitch every eighth round, from 5."""
    lines, live = ["R1: 5 sc in ring [5]"], 5
    for n in range(2, rounds + 1):
        grows = n % 8 == 0
        live += grows
        lines.append(f"R{n}: inc, {live - 2} sc [{live}]" if grows else f"R{n}: sc around [{live}]")
    return "\n".join([*lines, "Stuff lightly.", direction])


def settling_touching_table() -> str:
    """Fabric that touches fabric: tubes rolled up, pieces pressed flat; layers that lie in each other at the end."""
    gauge = GAUGES[1]
    texts = [(f"coil of {n} rounds", _tube(n, "Coil the tube and sew it to itself.")) for n in (30, 60, 90)]
    for high, wide in ((30, 20), (60, 45), (120, 80)):
        made = draft(Recipe(Solid("drop", high, wide, open=True), empty=True), gauge)
        texts.append((f"flat drop {high}×{wide}", print_rounds(made.part)))
    lines = ["Fabric that touches", f"{'piece':<22}{'stitches':>9}{'steps':>7}{'seconds':>9}{'in each other':>15}"]
    for name, text in texts:
        part = check(text).parts[0]
        settle(part, gauge)
        begin = time.perf_counter()
        settled = settle(part, gauge)
        seconds = time.perf_counter() - begin
        through = Contact(settled.net, gauge.stitch_mm).through(settled.x)
        lines.append(f"{name:<22}{len(part.graph):>9}{settled.steps:>7}{seconds:>9.2f}{through:>15}")
    return "\n".join(lines)
