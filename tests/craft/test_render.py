"""Painted pictures: true in size, side and colour, without holes, on any ground, the same every time."""

from __future__ import annotations

import io
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from functools import cache

import numpy as np
import pytest
from numpy.typing import NDArray
from PIL import Image
from scipy.ndimage import binary_fill_holes
from skimage.color import deltaE_ciede2000, rgb2lab

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, Mark
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.portrait import portrait_of, settled_figure
from craft.errors import CraftError
from craft.figure.render import Look, PaintingError, Side, Subject, Thread, gl, render
from craft.figure.render.solids import bead_mesh, thread_mesh

HEAD = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6-R11: 30 sc [30]
R12: (3 sc, dec) x 6 [24]
R13: (2 sc, dec) x 6 [18]
Stuff.
R14: (sc, dec) x 6 [12]
R15: dec x 6 [6]
Close.
"""
SMALL = {"width": 240, "height": 240}


@cache
def head(colour: str = "#6f8f4e", *, plush: bool = False) -> Subject:
    """A head with eyes and a mouth."""
    mouth = Mark("m1", "mouth", Place("head", 9, 2), Place("head", 9, -2))
    design = Design(
        "Head",
        gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.6, 5.15, 0.4),
        yarns=(DesignYarn("Moss", colour, 3, plush=plush),),
        parts=(Part("head", "Head", HEAD),),
        eyes=Eyes(EyeKind.SAFETY, 8, Place("head", 7), 6),
        marks=(mouth,),
    )
    figure, skins = settled_figure(design)
    return portrait_of(figure, skins)


def pixels(subject: Subject, look: Look) -> NDArray[np.uint8]:
    return np.asarray(Image.open(io.BytesIO(render(subject, look))))


@pytest.mark.parametrize("side", [Side.FRONT, Side.LEFT, Side.TOP])
def test_it_is_as_large_as_it_is(side: Side) -> None:
    subject = head()
    look = Look(side, mm_across=120, shadow=False, **SMALL)
    own = subject.points @ look.axes().T
    wide, tall = np.ptp(own[:, :2], axis=0) / 120 * 240
    body = pixels(subject, look)[:, :, 3] > 128
    seen = np.ptp(np.flatnonzero(body.any(0))), np.ptp(np.flatnonzero(body.any(1)))
    assert seen[0] == pytest.approx(wide, rel=0.06), "and the relief of its stitches more"
    assert seen[1] == pytest.approx(tall, rel=0.06)


def test_nothing_shows_through_it() -> None:
    for side in Side:
        body = pixels(head(), Look(side, shadow=False, **SMALL))[:, :, 3] > 0
        assert (binary_fill_holes(body) == body).all(), side


def test_the_front_is_square_to_the_front() -> None:
    """Both eyes stand as far from the middle, and are as wide; from the side one of them hides."""
    subject = head("#e8dcc0")
    dark = pixels(subject, Look(Side.FRONT, shadow=False, **SMALL))[:, :, :3].sum(2) < 130
    columns = np.flatnonzero(dark.any(0))
    left, right = columns[columns < 120], columns[columns >= 120]
    assert len(left)
    assert len(right)
    assert (240 - 1) / 2 - left.mean() == pytest.approx(right.mean() - (240 - 1) / 2, abs=6)


@pytest.mark.parametrize("colour", ["#c97b4a", "#6f8f4e", "#e3cda4", "#4b4a78", "#b5453f"])
def test_colours_are_true_to_hers(colour: str) -> None:
    """The lit part of the fabric, against the colour that she chose, by CIEDE2000 (judged by scikit-image)."""
    got = pixels(replace(head(colour), beads=(), threads=()), Look(Side.FRONT, shadow=False, **SMALL))
    lit = got[60:130, 70:150, :3].reshape(-1, 3) / 255
    hers = np.array([int(colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255
    apart = deltaE_ciede2000(rgb2lab(np.median(lit, axis=0)[None]), rgb2lab(hers[None]))[0]
    assert apart < 9, (colour, np.median(lit, axis=0) * 255)


def test_grounds() -> None:
    clear = pixels(head(), Look(**SMALL))
    assert clear.shape == (240, 240, 4)
    assert clear[0, 0, 3] == 0
    paper = pixels(head(), Look(ground="#f6f1e6", **SMALL))
    assert paper.shape == (240, 240, 3)
    assert tuple(paper[0, 0]) == (0xF6, 0xF1, 0xE6)


def test_the_shadow_lies_on_the_table_and_fades_before_the_edge() -> None:
    bare = pixels(head(), Look(shadow=False, **SMALL))[:, :, 3].astype(int)
    shaded = pixels(head(), Look(**SMALL))[:, :, 3].astype(int)
    more = shaded - bare
    assert more[150:].max() > 15
    assert not more[:40].any()
    assert max(shaded[-1].max(), shaded[:, 0].max(), shaded[:, -1].max()) <= 2
    assert (pixels(head(), Look(Side.TOP, **SMALL)) == pixels(head(), Look(Side.TOP, shadow=False, **SMALL))).all()


def test_the_same_picture_every_time() -> None:
    assert render(head(), Look(**SMALL)) == render(head(), Look(**SMALL))


def test_plush_is_softer_than_smooth_yarn() -> None:
    """Less contrast between stitches."""
    look = Look(Side.FRONT, shadow=False, **SMALL)
    spread = []
    for plush in (False, True):
        grey = pixels(replace(head(plush=plush), beads=(), threads=()), look)[90:150, 90:150, :3].mean(2)
        spread.append(float(grey.std()))
    assert spread[1] < spread[0]


def test_embroidery_lies_on_the_fabric() -> None:
    subject = head()
    (mouth,) = subject.threads
    points = np.array(mouth.points)
    off = np.linalg.norm(points[:, None] - subject.cloths[0].x[None], axis=2).min(1)
    assert off.max() < 5.6, "at most a stitch from the nearest one"
    assert len(points) > 3


def test_small_solids_face_outwards() -> None:
    for x, normal, triangles in (
        bead_mesh(np.array([0.0, 0, 0]), np.array([0.0, -1, 0]), 8.0),
        thread_mesh(np.array([[0.0, 0, 0], [4, 0, 1], [9, 0, 0]]), 1.6),
        thread_mesh(np.array([[1.0, 2, 3]]), 1.6),
    ):
        assert np.isfinite(x).all()
        assert np.linalg.norm(normal, axis=1) == pytest.approx(1.0)
        assert triangles.max() < len(x)


def test_a_picture_of_nothing_is_empty() -> None:
    assert not pixels(Subject(()), Look(shadow=False, **SMALL))[:, :, 3].any()
    alone = Subject((), threads=(Thread(((0.0, 0, 0), (20.0, 0, 0))),))
    assert pixels(alone, Look(Side.FRONT, shadow=False, **SMALL))[:, :, 3].any()


@pytest.mark.parametrize("wrong", [{"width": 8}, {"height": 9_000}, {"mm_across": 0.0}])
def test_a_look_that_cannot_be_says_so(wrong: dict[str, float]) -> None:
    with pytest.raises(CraftError):
        Look(**wrong)  # type: ignore[arg-type]


def test_a_machine_that_cannot_paint_says_what_is_missing(monkeypatch: pytest.MonkeyPatch) -> None:
    def none(**_: object) -> None:
        raise RuntimeError("no display")

    gl.context.cache_clear()
    monkeypatch.setattr("moderngl.create_standalone_context", none)
    with pytest.raises(PaintingError, match="libegl1"):
        render(head(), Look(**SMALL))
    monkeypatch.undo()
    gl.context.cache_clear()
    gl.program.cache_clear()
    assert render(head(), Look(**SMALL))


def test_several_threads_paint_one_after_the_other() -> None:
    """One context serves a process: whoever paints beside another waits, and gets the same picture."""
    look = Look(**SMALL)
    alone = render(head(), look)
    with ThreadPoolExecutor(4) as pool:
        found = list(pool.map(lambda _: render(head(), look), range(8)))
    assert all(png == alone for png in found)
