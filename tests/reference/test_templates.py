"""Templates in true size: measured on the page that is printed, in the PDF's own coordinates."""

from __future__ import annotations

import io
import itertools
import math
import re
from collections.abc import Iterator
from dataclasses import replace

import numpy as np
import pytest
from pypdf import PdfReader
from pypdf.generic import ContentStream

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, MadeOf, Mark
from craft.design.parts import GaugeFrom, GaugeInForce, Part
from craft.design.running import run_parts
from craft.document.booklet import Document
from craft.document.templates import BAR_MM, CARD_MM, Template, TemplateKind, sheets_of, svg_of, templates_of
from craft.errors import CraftError
from craft.figure.placement import Surface
from craft.figure.settling import settle
from studio.booklets.printing import templates_pdf

MM = 72 / 25.4
BASE = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\n"
STEM = BASE + "Lay a felt disc on the inside of the base.\nR5-R9: sc around [24]\n"
OVAL = "Ch 9\nR1: sc in 2nd ch from hook, 6 sc, 3 sc in last ch, along the other side 6 sc, 2 sc in last ch [18]\n"
FOOT = OVAL + "Lay a felt disc, cut to the oval, on the inside of the base.\nR2-R4: sc around [18]\n"
GAUGE = GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.0, 5.0, 0.0, 60, 0.5)


def design(*parts: Part, marks: tuple[Mark, ...] = (), eyes: Eyes = Eyes()) -> Design:  # noqa: B008
    return Design("House", gauge=GAUGE, parts=parts, marks=marks, eyes=eyes)


def templates(of: Design) -> tuple[Template, ...]:
    return templates_of(of, run_parts(of))


def window(wide: float, tall: float, **more: object) -> Mark:
    return replace(Mark("w", "window", Place("stem", 6), made_of=MadeOf.FELT, wide_mm=wide, tall_mm=tall), **more)  # type: ignore[arg-type]


def test_a_felt_oval_is_as_large_as_was_said() -> None:
    (found,) = templates(design(Part("stem", "Stem", BASE), marks=(window(30, 20, paired=True),)))
    assert (found.kind, found.wide_mm, found.tall_mm, found.many) == (TemplateKind.FELT, 30, 20, 2)
    x, y = zip(*found.lines[0].points, strict=True)
    assert (max(x) - min(x), max(y) - min(y)) == (pytest.approx(30, abs=0.02), pytest.approx(20, abs=0.02))
    around = sum(math.dist(a, b) for a, b in zip(found.lines[0].points, found.lines[0].points[1:], strict=False))
    around += math.dist(found.lines[0].points[-1], found.lines[0].points[0])
    # Ramanujan's second approximation of an ellipse's circumference (1914), from memory.
    h = ((15 - 10) / (15 + 10)) ** 2
    assert around == pytest.approx(math.pi * 25 * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h))), rel=1e-3)


def test_a_round_base_has_a_round_disc_that_lies_inside() -> None:
    (found,) = templates(design(Part("stem", "Stem", STEM)))
    # 24 stitches of 5 mm go around a circle of 120 mm.
    assert found.wide_mm == pytest.approx(120 / math.pi - 2, abs=0.01)
    assert found.wide_mm == pytest.approx(found.tall_mm)


def test_an_oval_base_has_an_oval_disc() -> None:
    (found,) = templates(design(Part("foot", "Foot", FOOT)))
    assert found.wide_mm > found.tall_mm * 2
    points = found.lines[0].points
    around = sum(math.dist(a, b) for a, b in zip(points, (*points[1:], points[0]), strict=True))
    assert around == pytest.approx(18 * 5 - 2 * math.pi, rel=0.01), "18 stitches around, and the ease"


def test_an_embroidered_line_is_unrolled_by_the_gauge() -> None:
    line = Mark("m", "smile", Place("stem", 5, 3), to=Place("stem", 7, -1))
    (found,) = templates(design(Part("stem", "Stem", BASE + "R5-R9: sc around [24]\n"), marks=(line,)))
    assert (found.wide_mm, found.tall_mm) == (20, 10)
    assert found.lines[0].points == ((0.0, 0.0), (20.0, 10.0)), "it begins to the viewer's left, and lower"


def test_an_embroidered_line_is_unrolled_from_the_settled_part_where_it_is_settled() -> None:
    body = (
        BASE
        + "R5: (3 sc, inc) x 6 [30]\nR6-R9: sc around [30]\nR10: (3 sc, dec) x 6 [24]\nStuff.\nR11: (2 sc, dec) x 6 [18]\n"
    )
    line = Mark("m", "smile", Place("stem", 9, 4), to=Place("stem", 9, -4))
    of = design(Part("stem", "Stem", body + "R12: (sc, dec) x 6 [12]\nR13: dec x 6 [6]\n"), marks=(line,))
    run = run_parts(of)
    assert run[0].worked is not None
    surface = Surface.of(settle(run[0].worked, of.gauge_of("stem")))
    (found,) = templates_of(of, run, {"stem": surface})
    points = found.lines[0].points
    half = 2 * math.pi * 4 / 30
    there = [surface.spot(8, angle)[0] for angle in np.linspace(half, -half, 200)]
    along = sum(math.dist(a, b) for a, b in itertools.pairwise(there))
    assert sum(math.dist(a, b) for a, b in itertools.pairwise(points)) == pytest.approx(along, rel=0.01)
    assert points[0][0] < points[-1][0], "it begins to the viewer's left"
    assert points[0][1] == pytest.approx(points[-1][1], abs=2.0), "a smile lies level on the page"
    assert points[len(points) // 2][1] < points[0][1] - 2, "and bends around the pole above it, as its round does"


def test_a_strip_has_the_eyes_where_they_are() -> None:
    eyes = Eyes(EyeKind.SAFETY, 8, Place("stem", 6), 4)
    (found,) = templates(design(Part("stem", "Stem", BASE + "R5-R9: sc around [24]\n"), eyes=eyes))
    holes = [line for line in found.lines if line.closed][1:]
    middles = [sum(x for x, _ in hole.points) / len(hole.points) for hole in holes]
    assert abs(middles[0] - middles[1]) == pytest.approx(4 * 5.0)
    assert sum(middles) / 2 == pytest.approx(found.wide_mm / 2)


def printed(svg: str, paper: str) -> bytes:
    return templates_pdf(Document("House", "", "Version 1", "us", ()), [svg], paper)


def paths(pdf: bytes) -> Iterator[list[tuple[float, float]]]:
    """Every stroked path of the first page in mm, with all transformations of the page's own coordinates worked out."""
    page = PdfReader(io.BytesIO(pdf)).pages[0]
    yield from _paths(page, page.get_contents(), (1, 0, 0, 1, 0, 0))


Matrix = tuple[float, float, float, float, float, float]


def _times(m: Matrix, n: Matrix) -> Matrix:
    a, b, c, d, e, f = m
    g, h, i, j, k, o = n
    return a * g + b * i, a * h + b * j, c * g + d * i, c * h + d * j, e * g + f * i + k, e * h + f * j + o


def _moved(m: Matrix, x: float, y: float) -> tuple[float, float]:
    """A point in mm on the page."""
    return (x * m[0] + y * m[2] + m[4]) / MM, (x * m[1] + y * m[3] + m[5]) / MM


def _paths(owner: object, content: object, matrix: Matrix) -> Iterator[list[tuple[float, float]]]:
    stack, points, start = [matrix], [], []
    here = matrix
    for operands, operator in ContentStream(content, None).operations:
        op, n = operator.decode(), [float(v) for v in operands if isinstance(v, int | float)]
        if op == "q":
            stack.append(here)
        elif op == "Q":
            here = stack.pop()
        elif op == "cm":
            here = _times(tuple(n), here)  # type: ignore[arg-type]
        elif op == "m":
            start = [_moved(here, *n)]  # where nothing is drawn to, nothing is
        elif op == "l":
            points += [*start, _moved(here, *n)]
            start = []
        elif op == "re":
            x, y, w, h = n
            corners = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
            points += [_moved(here, a, b) for a, b in corners]
        elif op in ("S", "s", "f", "n", "B", "b", "f*"):
            if points:
                yield points
            points = []
        elif op == "Do":
            form = owner["/Resources"]["/XObject"][operands[0]].get_object()  # type: ignore[index]
            if form["/Subtype"] == "/Form":
                inner = tuple(float(v) for v in form.get("/Matrix", [1, 0, 0, 1, 0, 0]))
                yield from _paths(form, form, _times(inner, here))  # type: ignore[arg-type]


def extent(points: list[tuple[float, float]]) -> tuple[float, float]:
    x, y = zip(*points, strict=True)
    return max(x) - min(x), max(y) - min(y)


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_on_paper_everything_is_in_true_size(paper: str) -> None:
    found = templates(design(Part("stem", "Stem", STEM), marks=(window(30, 20),)))
    (sheet,) = sheets_of(found, paper)
    sizes = [extent(p) for p in paths(printed(svg_of(sheet, "House", "Version 1"), paper))]

    def there(wide: float, tall: float | None = None) -> bool:
        return any(abs(w - wide) < 0.2 and (tall is None or abs(h - tall) < 0.2) for w, h in sizes)

    assert there(BAR_MM), sizes
    assert there(CARD_MM[0]) or there(CARD_MM[0] - 6.36), sizes  # its corners are round
    assert there(30, 20), sizes
    disc = 120 / math.pi - 2
    assert there(disc, disc), sizes


def test_many_templates_take_several_pages_and_lie_apart() -> None:
    marks = tuple(
        Mark(f"m{n}", f"leaf {n}", Place("stem", 6), made_of=MadeOf.FELT, wide_mm=50 + n, tall_mm=40) for n in range(20)
    )
    found = templates(design(Part("stem", "Stem", BASE), marks=marks))
    pages = sheets_of(found)
    assert len(pages) > 1
    assert sum(len(p.laid) for p in pages) == 20
    for page in pages:
        boxes = [(i.x, i.y - i.template.tall_mm, i.x + i.template.wide_mm, i.y) for i in page.laid]
        for a, one in enumerate(boxes):
            assert one[0] >= 0
            assert one[2] <= page.wide_mm
            assert one[3] <= page.tall_mm
            for two in boxes[a + 1 :]:
                assert one[2] <= two[0] or two[2] <= one[0] or one[3] <= two[1] or two[3] <= one[1]


def test_what_no_page_holds_is_said() -> None:
    with pytest.raises(CraftError, match="larger than the page"):
        sheets_of(templates(design(Part("stem", "Stem", BASE), marks=(window(250, 20),))))
    with pytest.raises(CraftError, match="A4 or Letter"):
        sheets_of((), "papyrus")


def test_words_of_hers_are_escaped() -> None:
    found = templates(design(Part("stem", "Stem", BASE), marks=(window(30, 20, name="<window> & co"),)))
    assert "&lt;window&gt; &amp; co" in svg_of(sheets_of(found)[0], "<b>", "x")
    assert not re.search(r"<b>", svg_of(sheets_of(found)[0], "<b>", "x"))
