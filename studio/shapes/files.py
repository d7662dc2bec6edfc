"""Targets as files: the surface as OBJ, the front and side outlines as SVG."""

from __future__ import annotations

import trimesh
from trimesh.exchange.obj import export_obj

from craft.shape.target import Form
from studio.shapes.drafts import sides_of


def as_obj(form: Form, name: str) -> str:
    """The surface in mm, z up, as a Wavefront OBJ file."""
    surface = trimesh.Trimesh(form.mesh.x, form.mesh.faces, process=False)
    head = f"{name}: shape aimed at, in mm, z up, front towards -y"
    return str(
        export_obj(surface, include_normals=False, include_texture=False, include_color=False, digits=3, header=head)
    )


def as_svg(form: Form) -> str:
    """Front and side outlines side by side, one unit a millimetre."""
    rows = sides_of(form.mesh)
    low, high = rows[0][0], rows[-1][0]
    wide = max(r[2] for r in rows) - min(r[1] for r in rows)
    deep = max(r[4] for r in rows) - min(r[3] for r in rows)
    gap = 10.0

    def path(at: int, shift: float) -> str:
        left = [f"{r[at] + shift:.2f} {high - r[0]:.2f}" for r in rows]
        right = [f"{r[at + 1] + shift:.2f} {high - r[0]:.2f}" for r in reversed(rows)]
        return f"M{'L'.join([*left, *right])}Z"

    front, side = -min(r[1] for r in rows) + gap, -min(r[3] for r in rows) + wide + 2 * gap
    total, tall = wide + deep + 3 * gap, high - low + gap
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {total:.2f} {tall:.2f}" '
        f'width="{total:.2f}mm" height="{tall:.2f}mm"><title>Front and side outline, mm</title>'
        f'<g fill="none" stroke="#2d2621" stroke-width="0.5"><path id="front" d="{path(1, front)}"/>'
        f'<path id="side" d="{path(3, side)}"/></g></svg>\n'
    )
