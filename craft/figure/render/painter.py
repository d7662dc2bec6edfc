"""Painting a subject: the shadow pass, the table, the fabric, the stitches, eyes and threads."""

from __future__ import annotations

import io
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import moderngl
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from craft.figure.render.camera import lit_by, seen_by
from craft.figure.render.gl import context, painting, program, run, run_instances, tell
from craft.figure.render.look import Look, Side
from craft.figure.render.shadow import ground_shadow
from craft.figure.render.solids import bead_mesh, thread_mesh
from craft.figure.render.subject import Cloth, Subject, veiled
from craft.figure.settling import rgb_of

Vector = NDArray[np.float64]

OVER = 1.5
"""How much finer it is painted than it is shown; several samples a pixel take the software driver twice as long."""

SHADOW_PIXELS = 1_024
BEHIND = 0.72
"""Light on the fabric that shows between stitches."""

Common = dict[str, Any]


def render(subject: Subject, look: Look | None = None) -> bytes:
    """The subject as a PNG. PaintingError where this machine cannot paint."""
    look = look or Look()
    to_clip, towards = seen_by(subject.points, look)
    size = round(look.width * OVER), round(look.height * OVER)
    with painting() as here, _shadow_of(subject) as to_light, _canvas(size) as target:
        target.use()
        r, g, b = (c / 255 for c in rgb_of(look.ground)) if look.ground else (0.0, 0.0, 0.0)
        target.clear(r, g, b, 1.0 if look.ground else 0.0, depth=1.0)
        here.enable(moderngl.DEPTH_TEST)
        here.disable(moderngl.CULL_FACE)
        if look.shadow and look.side is not Side.TOP:
            _paint_table(subject, to_clip, size)
        common: Common = {"to_clip": to_clip, "to_light": to_light, "towards": towards, "towards_eye": towards}
        veils = [s for s in subject.sheets if s.covers < 1.0]
        for cloth in subject.cloths:
            _paint_cloth(veiled(cloth, veils) if veils else cloth, common)
        _paint_trimmings(subject, common)
        raw = target.read(components=4)
    image = Image.frombytes("RGBA", size, raw).transpose(Image.Transpose.FLIP_TOP_BOTTOM)
    image = image.resize((look.width, look.height), Image.Resampling.BILINEAR)
    out = io.BytesIO()
    (image.convert("RGB") if look.ground else image).save(out, "PNG", compress_level=2)
    return out.getvalue()


@contextmanager
def _canvas(size: tuple[int, int]) -> Iterator[moderngl.Framebuffer]:
    """What is painted on."""
    here = context()
    colour, depth = here.renderbuffer(size), here.depth_renderbuffer(size)
    target = here.framebuffer(color_attachments=[colour], depth_attachment=depth)
    try:
        yield target
    finally:
        target.release()
        colour.release()
        depth.release()


@contextmanager
def _shadow_of(subject: Subject) -> Iterator[Vector]:
    """The depth of the fabric as the light sees it, at texture place 0; hands out the light's matrix."""
    here, to_light = context(), lit_by(subject.points)
    texture = here.depth_texture((SHADOW_PIXELS, SHADOW_PIXELS))
    texture.compare_func = "<="
    texture.repeat_x = texture.repeat_y = False
    frame = here.framebuffer(depth_attachment=texture)
    try:
        frame.use()
        frame.clear(depth=1.0)
        here.enable(moderngl.DEPTH_TEST)
        made = program("depth")
        tell(made, to_light=to_light)
        for cloth in subject.cloths:
            run(made, cloth.x, "3f", ["place"], cloth.triangles)
        texture.use(0)
        yield to_light
    finally:
        frame.release()
        texture.release()


def _paint_mesh(x: Vector, normal: Vector, rgb: Any, triangles: Any, **values: Any) -> None:
    made = program("plain")
    tell(made, **values)
    rows = np.column_stack([x, normal, np.asarray(rgb, np.float64) / 255])
    run(made, rows, "3f 3f 3f", ["place", "facing", "rgb"], triangles)


def _paint_cloth(cloth: Cloth, common: Common) -> None:
    _paint_mesh(cloth.x, cloth.facing, cloth.shade, cloth.triangles, open=BEHIND, gloss=0.0, **common)
    if len(cloth.corners):
        _paint_stitches(cloth, common)


def _fine(stitches: int) -> int:
    """Squares along an edge of a stitch's patch: finer where there are few."""
    return 6 if stitches <= 800 else 4 if stitches <= 4_000 else 3


def _paint_stitches(cloth: Cloth, common: Common) -> None:
    made = program("stitch")
    tell(made, **common)
    n = _fine(len(cloth.corners))
    u, v = np.meshgrid(np.linspace(0, 1, n + 1), np.linspace(0, 1, n + 1))
    at = np.arange(n * (n + 1)).reshape(n, n + 1)[:, :-1].ravel()
    squares = np.column_stack([at, at + 1, at + n + 2, at, at + n + 2, at + n + 1])
    many = len(cloth.corners)
    rows = np.column_stack(
        [
            cloth.corners.reshape(many, 12),
            cloth.normals.reshape(many, 12),
            cloth.rgb / 255,
            np.full(many, cloth.fuzz),
            np.random.default_rng(7).random(many),
        ]
    )
    names = ["c0", "c1", "c2", "c3", "n0", "n1", "n2", "n3", "rgb", "fuzz", "seed"]
    patch = (np.column_stack([u.ravel(), v.ravel()]), "2f", ["uv"])
    run_instances(made, [patch, (rows, "3f 3f 3f 3f 3f 3f 3f 3f 3f 1f 1f/i", names)], squares, many)


def _paint_trimmings(subject: Subject, common: Common) -> None:
    for bead in subject.beads:
        x, normal, triangles = bead_mesh(np.array(bead.at), np.array(bead.out), bead.mm)
        _paint_mesh(x, normal, np.tile(rgb_of(bead.colour), (len(x), 1)), triangles, open=1.0, gloss=0.9, **common)
    for sheet in subject.sheets:
        if sheet.covers == 1.0:
            rgb = np.tile(rgb_of(sheet.colour), (len(sheet.points), 1))
            _paint_mesh(sheet.points, sheet.out, rgb, sheet.triangles, open=1.0, gloss=0.0, **common)
    for thread in subject.threads:
        x, normal, triangles = thread_mesh(np.array(thread.points), thread.mm)
        _paint_mesh(x, normal, np.tile(rgb_of(thread.colour), (len(x), 1)), triangles, open=1.0, gloss=0.0, **common)


def _paint_table(subject: Subject, to_clip: Vector, size: tuple[int, int]) -> None:
    here = context()
    floor = float(subject.points[:, 2].min()) if subject.floor is None else subject.floor
    dark, (x, y, edge) = ground_shadow(subject.points, floor)
    texture = here.texture((dark.shape[1], dark.shape[0]), 1, (dark * 255).astype("u1").tobytes())
    texture.use(1)
    texture.repeat_x = texture.repeat_y = False
    made = program("ground")
    tell(made, to_clip=to_clip, size=size)
    made["dark"] = 1
    corners = np.array([[0, 0], [1, 0], [1, 1], [0, 1]], float)
    rows = np.column_stack([x + corners[:, 0] * edge, y + corners[:, 1] * edge, np.full(4, floor - 0.2), corners])
    here.enable(moderngl.BLEND)
    # Stubs know two factors; the library takes four, those of the share apart.
    here.blend_func = (  # type: ignore[assignment]
        moderngl.SRC_ALPHA,
        moderngl.ONE_MINUS_SRC_ALPHA,
        moderngl.ONE,
        moderngl.ONE_MINUS_SRC_ALPHA,
    )
    run(made, rows, "3f 2f", ["place", "uv"], [[0, 1, 2], [0, 2, 3]])
    here.disable(moderngl.BLEND)
    texture.release()
