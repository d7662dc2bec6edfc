"""Run as a process of its own, with limits set by its parent: an SVG drawing in, its largest closed outline out.

Standard input: SVG. Standard output: one JSON object with `rows`, `left`, `right` in the drawing's units, `section`
(the outline as a cross-section, or null), `mm` a unit where the drawing says so, `notes`, or `error`. Imports nothing
of the studio; follows no reference, reads no entity.
"""

import json
import re
import sys
from xml.etree import ElementTree

import numpy as np
from svg.path import parse_path

ROWS, SAMPLES, SECTION = 240, 1_500, 48
_UNITS = {"mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72, "px": 25.4 / 96}


def _numbers(text: str) -> list[float]:
    return [float(n) for n in re.findall(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?", text)]


def _outline(node: ElementTree.Element) -> "np.ndarray | None":
    """Points along a shape, (n, 2); None for what is no closed shape."""
    tag, at = node.tag.rsplit("}", 1)[-1], node.attrib.get
    if tag == "path" and at("d"):
        path = parse_path(at("d") or "")
        points = np.array([path.point(t) for t in np.linspace(0, 1, SAMPLES)])
        return np.column_stack([points.real, points.imag])
    if tag in ("polygon", "polyline") and at("points"):
        flat = _numbers(at("points") or "")
        corners = np.array(flat[: len(flat) // 2 * 2]).reshape(-1, 2)
        return np.vstack([corners, corners[:1]])
    if tag in ("circle", "ellipse"):
        rx, ry = float(at("rx") or at("r") or 0), float(at("ry") or at("r") or 0)
        turn = np.linspace(0, 2 * np.pi, 200)
        return np.column_stack([float(at("cx") or 0) + rx * np.cos(turn), float(at("cy") or 0) + ry * np.sin(turn)])
    if tag == "rect":
        x, y, w, h = (float(at(k) or 0) for k in ("x", "y", "width", "height"))
        return np.array([[x, y], [x + w, y], [x + w, y + h], [x, y + h], [x, y]])
    return None


def _matrix(text: str) -> np.ndarray:
    """The (3, 3) matrix of a transform attribute: its steps from left to right, each before those that follow."""
    whole = np.eye(3)
    for name, inside in re.findall(r"(\w+)\s*\(([^)]*)\)", text):
        n = _numbers(inside)
        step = np.eye(3)
        if name == "matrix" and len(n) == 6:
            step[:2] = np.array(n).reshape(3, 2).T
        elif name == "translate" and n:
            step[:2, 2] = n[0], n[1] if len(n) > 1 else 0.0
        elif name == "scale" and n:
            step[0, 0], step[1, 1] = n[0], n[1] if len(n) > 1 else n[0]
        elif name == "rotate" and len(n) in (1, 3):
            c, s = np.cos(np.radians(n[0])), np.sin(np.radians(n[0]))
            x, y = n[1:] if len(n) == 3 else (0.0, 0.0)
            step[:2] = [[c, -s, x - c * x + s * y], [s, c, y - s * x - c * y]]
        elif name in ("skewX", "skewY") and len(n) == 1:
            step[(0, 1) if name == "skewX" else (1, 0)] = np.tan(np.radians(n[0]))
        whole = whole @ step
    return whole


def _outlines(node: ElementTree.Element, above: np.ndarray) -> "list[np.ndarray]":
    """Closed outlines of an element and all within it, where they are drawn."""
    tag = node.tag.rsplit("}", 1)[-1] if isinstance(node.tag, str) else ""
    if tag in ("defs", "clipPath", "mask", "symbol", "pattern", "marker"):
        return []
    here = above @ _matrix(node.attrib.get("transform", ""))
    own = _outline(node) if tag else None
    found = [] if own is None else [own @ here[:2, :2].T + here[:2, 2]]
    for child in node:
        found += _outlines(child, here)
    return found


def _section(points: np.ndarray) -> list[float] | None:
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
    return [round(float(r), 4) for r in reach / ((high[0] - low[0]) / 2)]


def _area(points: np.ndarray) -> float:
    x, y = points.T
    return abs(float(np.sum(x * np.roll(y, -1) - y * np.roll(x, -1)))) / 2


def _scale(root: ElementTree.Element) -> float | None:
    """Millimetres a unit, where width and viewBox say so."""
    size = re.fullmatch(r"\s*([\d.]+)\s*(mm|cm|in|pt|px)\s*", root.attrib.get("width", ""))
    box = _numbers(root.attrib.get("viewBox", ""))
    if size is None or len(box) != 4 or box[2] <= 0:
        return None
    return float(size.group(1)) * _UNITS[size.group(2)] / box[2]


def _sides(points: np.ndarray) -> dict[str, list[float]]:
    """Leftmost and rightmost place at even heights."""
    a, b = points[:-1], points[1:]
    low, high = float(points[:, 1].min()), float(points[:, 1].max())
    rows, left, right = [], [], []
    for y in np.linspace(low, high, ROWS + 2)[1:-1]:
        hit = (a[:, 1] <= y) != (b[:, 1] <= y)
        if not hit.any():
            continue
        x = a[hit, 0] + (b[hit, 0] - a[hit, 0]) * (y - a[hit, 1]) / (b[hit, 1] - a[hit, 1])
        rows.append(round(float(y), 3))
        left.append(round(float(x.min()), 3))
        right.append(round(float(x.max()), 3))
    return {"rows": [*rows, round(high, 3)], "left": [*left, left[-1]], "right": [*right, right[-1]]}


def main() -> int:
    """The largest closed outline of the drawing."""
    raw = sys.stdin.buffer.read()
    try:
        if b"<!DOCTYPE" in raw or b"<!ENTITY" in raw:
            return _say({"error": "Drawings with a document type or entities are not read: save it as plain SVG."})
        root = ElementTree.fromstring(raw)  # noqa: S314 - entities were refused above, and the process is limited
        if root.tag.rsplit("}", 1)[-1] != "svg":
            return _say({"error": "This is no SVG drawing."})
        found = [p for p in _outlines(root, np.eye(3)) if len(p) > 2 and np.isfinite(p).all()]
        found = [p for p in found if _area(p) > 0 and np.ptp(p[:, 1]) > 0]
        if not found:
            return _say({"error": "There is no closed outline in this drawing."})
        largest = max(found, key=_area)
        notes = [f"The largest of {len(found)} outlines was taken."] if len(found) > 1 else []
        return _say({**_sides(largest), "section": _section(largest), "mm": _scale(root), "notes": notes})
    except Exception:
        return _say({"error": "This is no SVG drawing that can be read."})


def _say(answer: dict[str, object]) -> int:
    json.dump(answer, sys.stdout)
    return 0


if __name__ == "__main__":
    sys.exit(main())
