"""Outlines over the wire: found on pictures, read from drawings."""

from __future__ import annotations

import io

import numpy as np
import pytest
from PIL import Image, ImageDraw

from tests.studio.conftest import Studio
from tests.studio.shapes import PEAR, drafted

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)


def silhouette(ground: str = "#f4f0e6", figure: str = "#6a4a33") -> bytes:
    """A pear on plain ground, 300 px tall and 200 px wide."""
    image = Image.new("RGB", (400, 420), ground)
    draw = ImageDraw.Draw(image)
    draw.ellipse((100, 160, 300, 360), fill=figure)
    draw.ellipse((140, 60, 260, 200), fill=figure)
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


def test_an_outline_is_found_on_a_plain_ground(studio: Studio) -> None:
    made = studio.design()
    picture = studio.send(f"/designs/{made['id']}/pictures", "pear.png", silhouette(), 201)
    got = studio.ask("POST", "/shapes/outline", {"picture": picture["id"]})
    handles = np.array(got["handles"])
    assert tuple(handles[0]) == (0, 0)
    assert handles[:, 0].max() == pytest.approx(100, abs=3)
    assert handles[-1, 1] == pytest.approx(300, abs=4)
    assert got["pole"] == pytest.approx([200, 360], abs=3)
    assert 5 <= len(handles) <= 14
    scaled = (handles / 3).tolist()
    shape = drafted(studio, {"form": {"base": "traced", "front": scaled}})
    assert shape["size_mm"][0] == pytest.approx(200 / 3, abs=3)
    assert shape["size_mm"][2] == pytest.approx(100, abs=3)


DRAWING = (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 300" width="100mm" height="150mm">'
    '<rect x="0" y="0" width="4" height="4"/><path d="M100 20 C160 20 130 120 170 200 S150 290 100 290 '
    'S0 280 30 200 S40 20 100 20 Z"/></svg>'
)


def test_an_outline_is_read_from_a_drawing(studio: Studio) -> None:
    got = studio.send("/shapes/drawing", "pear.svg", DRAWING.encode())
    assert got["mm"] == pytest.approx(0.5)
    handles = np.array(got["handles"])
    assert handles[-1, 1] == pytest.approx(270, abs=3)
    assert "largest of 2" in got["notes"][0]
    front = (handles * got["mm"]).tolist()
    shape = drafted(studio, {"form": {"base": "traced", "front": front}})
    assert shape["size_mm"][2] == pytest.approx(135, rel=0.03)
    circle = b'<svg xmlns="http://www.w3.org/2000/svg"><circle cx="50" cy="50" r="40"/></svg>'
    ball = studio.send("/shapes/drawing", "ball.svg", circle)
    assert max(h[0] for h in ball["handles"]) == pytest.approx(40, abs=0.5)


@pytest.mark.parametrize(
    ("drawn", "wide", "tall"),
    [
        ('<g transform="translate(9 9) scale(2)"><rect width="40" height="60"/></g>', 80, 120),
        ('<rect width="40" height="60" transform="rotate(90)"/>', 60, 40),
        ('<rect width="40" height="60" transform="rotate(90 20 30), scale(1 2)"/>', 120, 40),
        ('<g transform="matrix(0 1 -1 0 5 5)"><rect width="40" height="60" transform="scale(3)"/></g>', 180, 120),
        ('<ellipse rx="30" ry="30" transform="scale(1,1.5)"/>', 60, 90),
        ('<defs><rect width="900" height="900"/></defs><rect width="40" height="60"/>', 40, 60),
    ],
)
def test_transforms_in_a_drawing_are_followed(studio: Studio, drawn: str, wide: float, tall: float) -> None:
    svg = f'<svg xmlns="http://www.w3.org/2000/svg">{drawn}</svg>'
    got = studio.send("/shapes/drawing", "a.svg", svg.encode())
    assert 2 * max(h[0] for h in got["handles"]) == pytest.approx(wide, rel=0.03)
    assert got["handles"][-1][1] == pytest.approx(tall, rel=0.03)


def test_a_drawing_is_also_a_cross_section_where_it_is_seen_whole_from_its_middle(studio: Studio) -> None:
    oval = b'<svg xmlns="http://www.w3.org/2000/svg"><ellipse cx="60" cy="50" rx="50" ry="30"/></svg>'
    section = studio.send("/shapes/drawing", "oval.svg", oval)["section"]
    assert len(section) == 48
    assert section[12] == pytest.approx(1, abs=0.01)
    assert section[0] == pytest.approx(0.6, abs=0.01)
    shape = drafted(studio, {"form": {"base": "traced", "front": PEAR, "section": section}})
    assert shape["size_mm"][1] == pytest.approx(0.6 * shape["size_mm"][0], rel=0.03)
    # The foot of the drawing is the front: a drop that points down points forward.
    drop = b'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 L30 -40 A50 50 0 1 0 -30 -40 Z"/></svg>'
    reach = studio.send("/shapes/drawing", "drop.svg", drop)["section"]
    assert reach[0] == max(reach)
    spiral = b'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 H90 V90 H0 V60 H60 V30 H0 Z"/></svg>'
    assert studio.send("/shapes/drawing", "hook.svg", spiral)["section"] is None


@pytest.mark.parametrize(
    ("raw", "name", "words"),
    [
        (b"", "a.svg", "no SVG"),
        (b"<html/>", "a.svg", "no SVG"),
        (b"<svg><path d='M0 0'/></svg>", "a.svg", "no closed outline"),
        (b"<svg><path d='M0 0 L 1e999 4 Z'/></svg>", "a.svg", "no"),
        (b"<!DOCTYPE svg [<!ENTITY a 'b'>]><svg>&a;</svg>", "a.svg", "entities"),
        (b"<svg/>", "a.png", "SVG drawing"),
    ],
)
def test_drawings_that_hold_no_outline_say_so(studio: Studio, raw: bytes, name: str, words: str) -> None:
    assert words in studio.send("/shapes/drawing", name, raw, 422)["detail"]


def test_where_nothing_stands_out_it_says_so_and_others_pictures_are_not_there(studio: Studio, other: Studio) -> None:
    made = studio.design()
    plain = studio.send(f"/designs/{made['id']}/pictures", "plain.png", silhouette(figure="#f4f0e6"), 201)
    refused = studio.ask("POST", "/shapes/outline", {"picture": plain["id"]}, 422)
    assert "by hand" in refused["detail"]
    other.ask("POST", "/shapes/outline", {"picture": plain["id"]}, 404)
