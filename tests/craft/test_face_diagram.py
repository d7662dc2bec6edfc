"""The face on its grid: as many stitches between the eyes as are said, marks where they sit, words that say the same."""

from __future__ import annotations

import re
from dataclasses import replace
from xml.etree import ElementTree

import pytest

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, Mark
from craft.design.running import run_parts, worked_parts
from craft.document.face_diagram import CELL, FaceDiagram, face_diagram
from tests.craft.figures import figure

SVG = "{http://www.w3.org/2000/svg}"


def drawn(design: Design) -> FaceDiagram | None:
    return face_diagram(design, worked_parts(run_parts(design)))


def eyes(between: int) -> Design:
    return replace(figure(), eyes=Eyes(EyeKind.SAFETY, 8, Place("head", 6), between), marks=())


@pytest.mark.parametrize("between", [1, 4, 5, 8])
def test_the_stitches_between_the_eyes_are_counted(between: int) -> None:
    found = drawn(eyes(between))
    assert found is not None
    root = ElementTree.fromstring(found.svg)
    x = sorted(float(c.get("cx", "")) for c in root.iter(f"{SVG}circle"))
    assert x[1] - x[0] == pytest.approx(between * CELL)
    numbers = [t.text for t in root.iter(f"{SVG}text") if (t.text or "").isdigit()]
    assert numbers == [str(n + 1) for n in range(between)]
    assert f"{between} stitch" in found.alt
    columns = {float(r.get("x", "")) for r in root.iter(f"{SVG}rect")}
    assert all(any(abs(at - c) < 0.01 for c in columns) for at in x), "an eye sits in a hole between two stitches"


def test_rounds_are_labelled_with_their_counts() -> None:
    found = drawn(eyes(4))
    assert found is not None
    words = re.findall(r">([^<]+)</text>", found.svg)
    assert "R6" in words
    assert words[words.index("R6") + 1] == "[18]"


def test_a_mark_stands_on_its_side() -> None:
    found = drawn(replace(figure(), marks=(Mark("m", "Freckle", Place("head", 7, 3)),), eyes=Eyes()))
    assert found is not None
    root = ElementTree.fromstring(found.svg)
    line = next(root.iter(f"{SVG}line"))
    circle = next(root.iter(f"{SVG}circle"))
    assert float(circle.get("cx", "")) == pytest.approx(float(line.get("x1", "")) - 3 * CELL)
    assert "Freckle at R7, 3 to the left" in found.alt
    assert found.caption.startswith("Head on its stitches")


def test_no_face_no_diagram() -> None:
    assert drawn(replace(figure(), marks=(), eyes=Eyes())) is None
    assert drawn(replace(figure(), marks=(), eyes=Eyes(EyeKind.SAFETY, 8, Place("gone", 6), 4))) is None
