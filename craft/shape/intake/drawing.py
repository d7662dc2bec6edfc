"""An SVG drawing's largest closed outline; svgelements follows paths, transforms and units."""

from __future__ import annotations

import io
import re
from dataclasses import dataclass
from xml.etree import ElementTree

import numpy as np
from numpy.typing import NDArray
from svgelements import SVG, Path, Shape

from craft.errors import CraftError, require

Vector = NDArray[np.float64]

ROWS, SAMPLES, SECTION = 240, 1_500, 48
_UNITS = {"mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72, "px": 25.4 / 96}
UNREADABLE = "This is no SVG drawing that can be read."


@dataclass(frozen=True)
class Drawing:
    """An outline row by row, downwards, in the drawing's units.

    section: the outline as a cross-section, None where it is none. mm: a unit, where the drawing says so. notes: what
    was chosen, in words.
    """

    rows: Vector
    left: Vector
    right: Vector
    section: tuple[float, ...] | None
    mm: float | None
    notes: tuple[str, ...]


def read_drawing(raw: bytes) -> Drawing:
    """The largest closed outline of an SVG. Follows no reference, reads no entity. CraftError when there is none."""
    plain = raw.replace(b"\0", b"")
    # In an encoding of another family than ASCII's a document type would not be seen here.
    require(plain.lstrip(b"\xef\xbb\xbf\xff\xfe \t\r\n").startswith(b"<"), UNREADABLE, field="file")
    if b"<!DOCTYPE" in plain or b"<!ENTITY" in plain:
        raise CraftError("Drawings with a document type or entities are not read: save it as plain SVG.", field="file")
    try:
        root = ElementTree.fromstring(raw)  # noqa: S314 - entities were refused above
    except (ElementTree.ParseError, ValueError, LookupError):
        raise CraftError(UNREADABLE, field="file") from None
    require(root.tag.rsplit("}", 1)[-1] == "svg", "This is no SVG drawing.", field="file")
    mm = _millimetres(root)
    # Sizes are worked out by the drawing's own units: the page it is laid on only says how long one is.
    for name in ("width", "height", "viewBox"):
        root.attrib.pop(name, None)
    try:
        outlines = _outlines(ElementTree.tostring(root))
    except (ValueError, TypeError, ArithmeticError, AttributeError, IndexError, KeyError, RecursionError):
        raise CraftError(UNREADABLE, field="file") from None
    require(bool(outlines), "There is no closed outline in this drawing.", field="file")
    largest = max(outlines, key=_area)
    notes = (f"The largest of {len(outlines)} outlines was taken.",) if len(outlines) > 1 else ()
    return Drawing(*_sides(largest), _section(largest), mm, notes)


def _outlines(raw: bytes) -> list[Vector]:
    """Closed outlines of all that is drawn, where it is drawn, (n, 2) each."""
    found = []
    for element in SVG.parse(io.BytesIO(raw), reify=True).elements():
        if not isinstance(element, Shape):
            continue
        path = abs(Path(element))
        if not len(path):
            continue
        points = np.array(path.npoint(np.linspace(0, 1, SAMPLES)), float)
        if points.ndim == 2 and np.isfinite(points).all() and _area(points) > 0 and np.ptp(points[:, 1]) > 0:
            found.append(np.vstack([points, points[:1]]))
    return found


def _section(points: Vector) -> tuple[float, ...] | None:
    """How far an outline reaches from its middle at even angles, as shares of half its width; from the foot of the
    drawing on, to its left. None for one that is not seen whole from its middle."""
    low, high = points.min(0), points.max(0)
    p = points - (low + high) / 2
    turn = np.unwrap(np.arctan2(-p[:, 0], p[:, 1]))
    steps = np.diff(turn)
    steps = steps if steps.sum() > 0 else -steps
    if abs(abs(float(steps.sum())) - 2 * np.pi) > 0.1 or float(steps.min()) < -0.02:
        return None
    angle = np.mod(turn, 2 * np.pi)
    order = np.argsort(angle)
    reach = np.interp(np.arange(SECTION) * 2 * np.pi / SECTION, angle[order], np.hypot(*p.T)[order], period=2 * np.pi)
    return tuple(round(float(r), 4) for r in reach / ((high[0] - low[0]) / 2))


def _area(points: Vector) -> float:
    x, y = points.T
    return abs(float(np.sum(x * np.roll(y, -1) - y * np.roll(x, -1)))) / 2


def _millimetres(root: ElementTree.Element) -> float | None:
    """Millimetres a unit, where width and viewBox say so."""
    size = re.fullmatch(r"\s*(\d+(?:\.\d+)?)\s*(mm|cm|in|pt|px)\s*", root.attrib.get("width", ""))
    box = re.findall(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?", root.attrib.get("viewBox", ""))
    if size is None or len(box) != 4 or float(box[2]) <= 0:
        return None
    return float(size.group(1)) * _UNITS[size.group(2)] / float(box[2])


def _sides(points: Vector) -> tuple[Vector, Vector, Vector]:
    """Heights, and the leftmost and the rightmost place at each."""
    a, b = points[:-1], points[1:]
    low, high = float(points[:, 1].min()), float(points[:, 1].max())
    rows, left, right = [], [], []
    for y in np.linspace(low, high, ROWS + 2)[1:-1]:
        hit = (a[:, 1] <= y) != (b[:, 1] <= y)
        if not hit.any():
            continue
        x = a[hit, 0] + (b[hit, 0] - a[hit, 0]) * (y - a[hit, 1]) / (b[hit, 1] - a[hit, 1])
        rows.append(float(y))
        left.append(float(x.min()))
        right.append(float(x.max()))
    require(bool(rows), "There is no closed outline in this drawing.", field="file")
    return np.array([*rows, high]), np.array([*left, left[-1]]), np.array([*right, right[-1]])
