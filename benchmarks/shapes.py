"""Any shape: how near drafts settle to it, before and after compensation, and how long drafting takes."""

from __future__ import annotations

import time
from dataclasses import replace

import numpy as np

from craft.errors import CraftError
from craft.figure.settling import ShapeError, fit
from craft.fitting.compensation import compensate
from craft.fitting.outcome import outcome
from craft.fitting.panels import draft_panels, settle_sewn
from craft.fitting.threads import remedies
from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft, straightened
from craft.shape.target import Form, Modifier, Solid, Stack, Traced, TriangleMesh, patches_of, revolved

GAUGE = Gauge(5.6, 5.15, 0.4)
SIMPLICITY = 0.5

ROUND, BENT, FLAT = 0.25, 0.4, 0.6
"""Aims in stitch widths: for round shapes, for bent and bellied ones, and for flat and boxy ones after compensation."""

PEAR = ((0, 0), (30, 6), (40, 38), (25, 74), (22, 96), (0, 110))
BEAN = ((0, 0), (24, 6), (30, 30), (27, 60), (29, 90), (22, 112), (0, 118))


def _solid(kind: str, height: float, width: float, **modifiers: dict[str, float]) -> Form:
    return Form(Solid(kind, height, width), tuple(Modifier(k, v) for k, v in modifiers.items()))


def _heart() -> Form:
    """Two lobes over a point: a ball pulled down at the foot and pressed in between the lobes, a little flat."""
    ball = revolved(Solid("sphere", 90, 90).outline(), closed=True)
    x = ball.x - np.array([0, 0, 45])
    side = np.abs(x[:, 0]) / 45
    x[:, 2] += 14 * side * (x[:, 2] > 0) - 10 * np.exp(-((x[:, 0] / 14) ** 2)) * np.clip(x[:, 2] / 45, 0, 1)
    x[:, 2] += -16 * np.exp(-((x[:, 0] / 22) ** 2)) * np.clip(-x[:, 2] / 45, 0, 1)
    x[:, 1] *= 0.7
    return Form(ball.with_corners(x + np.array([0, 0, 61])))


def _mesh(mesh: TriangleMesh) -> Form:
    return Form(mesh)


TARGETS: tuple[tuple[str, Form, float], ...] = (
    ("ball 80", _solid("sphere", 80, 80, taper={"amount": 0}), ROUND),
    ("egg 100×75", _solid("egg", 100, 75, taper={"amount": 0}), ROUND),
    ("long ellipsoid 120×60", _solid("ellipsoid", 120, 60, taper={"amount": 0}), ROUND),
    ("tapered egg", _solid("egg", 100, 75, taper={"amount": 50}), ROUND),
    ("traced pear", Form(Traced(PEAR)), ROUND),
    ("traced pear as a mesh", _mesh(Traced(PEAR).mesh()), ROUND),
    ("stack, head on body", Form(Stack((Solid("sphere", 70, 70), Solid("sphere", 50, 50)), 0.6)), BENT),
    ("bent capsule, 45°", _solid("capsule", 130, 55, bend={"degrees": 45}), BENT),
    ("bent capsule, 90°", _solid("capsule", 130, 50, bend={"degrees": 90}), BENT),
    ("trunk, 140°", _solid("capsule", 150, 45, bend={"degrees": 140}), BENT),
    ("bean", Form(Traced(BEAN, (), ((0, 0), (26, 59), (0, 118)))), BENT),
    ("pear with belly", Form(Traced(PEAR), (Modifier("belly", {"amount": 14, "at": 35}),)), BENT),
    ("egg with belly", _solid("egg", 110, 80, belly={"amount": 18}), BENT),
    ("head with brow", _solid("sphere", 85, 85, brow={"amount": 7}), BENT),
    ("back with ridge", _solid("ellipsoid", 110, 80, ridge={"amount": 9}), BENT),
    ("tail up, tapered and bent", _solid("capsule", 120, 40, taper={"amount": 60}, bend={"degrees": 70}), BENT),
    ("oval head, 85 % deep", _solid("sphere", 85, 85, flatten={"depth": 85}), BENT),
    ("flat egg, 70 % deep", _solid("egg", 100, 80, flatten={"depth": 70}), FLAT),
    ("flat body, 55 % deep", _solid("ellipsoid", 100, 80, flatten={"depth": 55}), FLAT),
    ("flat tail, 40 % deep", _solid("ellipsoid", 110, 60, flatten={"depth": 40}), FLAT),
    ("heart", _heart(), FLAT),
    ("boxy body", _solid("capsule", 95, 65, square={"amount": 60}), FLAT),
    ("block", _solid("cylinder", 70, 70, square={"amount": 100}), FLAT),
    ("bent and flat", _solid("capsule", 120, 55, flatten={"depth": 70}, bend={"degrees": 60}), FLAT),
)


def _as_panels(form: Form) -> ShapeError | None:
    """How far the shape's panels, sewn together and stuffed, lie from it; None where it makes none."""
    try:
        panels = draft_panels(patches_of(form.mesh), GAUGE)
        return fit(settle_sewn(panels), form.mesh).error
    except CraftError:
        return None


def shapes_table() -> str:
    """Root mean square distance in stitch widths, drafted and redrawn, of bent ones with short rows, of flat ones with threads sewn
    through and as panels sewn together, against the aims; filled at firmness 0.5."""
    lines = [
        f"{'target':<26}{'rounds':>7}{'sts':>6}{'differ':>7}{'drafted w':>10}{'redrawn w':>10}{'short w':>9}{'sewn w':>8}{'threads':>8}{'panels w':>9}{'volume':>8}{'aim':>6}  kept"
    ]
    kept = 0
    for name, form, aim in TARGETS:
        found = compensate(Recipe(form, simplicity=SIMPLICITY), GAUGE)
        before, after = found.before.error, found.after.error
        best, sewn, threads, panels, short = before, "", "", "", ""
        if straightened(form) is not None:
            wedged = outcome(Recipe(form, simplicity=SIMPLICITY, short_rows=True), GAUGE).error
            best, short = min(before, wedged, key=lambda e: e.rms_w), f"{wedged.rms_w:.2f}"
        if aim == FLAT:
            ways = [r for r in remedies(found.recipe, GAUGE) if r.threads]
            held = min((r.outcome.error for r in ways), key=lambda e: e.rms_w, default=after)
            flat = _as_panels(form)
            panels = "" if flat is None else f"{flat.rms_w:.2f}"
            best = min((e for e in (after, held, flat) if e is not None), key=lambda e: e.rms_w)
            if ways:
                sewn, threads = f"{held.rms_w:.2f}", str(next(r.threads for r in ways if r.outcome.error == held))
        good = best.rms_w <= aim
        kept += good
        made = found.before.draft
        lines.append(
            f"{name:<26}{len(made.counts):>7}{sum(made.counts):>6}{made.different_rounds:>7}{before.rms_w:>10.2f}"
            f"{after.rms_w:>10.2f}{short:>9}{sewn:>8}{threads:>8}{panels:>9}{best.volume_ratio:>8.2f}{aim:>6.2f}  {'yes' if good else 'NO'}"
        )
    lines.append(f"{kept} of {len(TARGETS)} within their aims")
    return "\n".join(lines)


def shapes_speed_table() -> str:
    """Milliseconds to draft, nothing remembered: a traced silhouette, and meshes by their faces."""
    lines = [f"{'shape':<34}{'ms':>8}{'budget':>8}"]
    pear = tuple((r, z) for r, z in PEAR)
    spent = []
    for n in range(12):
        moved = tuple((r + (0.1 * n if i == 2 else 0), z) for i, (r, z) in enumerate(pear))
        begun = time.perf_counter()
        draft(Recipe(Form(Traced(moved))), GAUGE)
        spent.append((time.perf_counter() - begun) * 1000)
    lines.append(f"{'traced silhouette, one handle moved':<34}{np.median(spent):>8.0f}{100:>8}")
    for around, along in ((40, 40), (60, 84), (100, 100)):
        outline = Solid("egg", 110, 85).outline()
        mesh = revolved(outline, closed=True, around=around, along=along)
        x = Modifier("bend", {"degrees": 50}).moved(mesh.x)
        spent = []
        for n in range(3):
            fresh = Form(mesh.with_corners(x * (1 + 0.001 * n)))
            begun = time.perf_counter()
            draft(replace(Recipe(fresh), start=6), GAUGE)
            spent.append((time.perf_counter() - begun) * 1000)
        budget = 1000 if len(mesh.faces) <= 10_100 else ""
        lines.append(f"{f'bent mesh, {len(mesh.faces):,} faces':<34}{np.median(spent):>8.0f}{budget:>8}")
    return "\n".join(lines)
