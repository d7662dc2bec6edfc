"""Run as a process of its own, with limits set by its parent: an SVG drawing in, its largest closed outline out.

Standard input: SVG. Standard output: one JSON object with `rows`, `left`, `right` in the drawing's units, `mm` a unit
where the drawing says so, `notes`, or `error`. Imports nothing of the studio; follows no reference, reads no entity.
"""

import json
import re
import sys
from xml.etree import ElementTree

import numpy as np
from svg.path import parse_path

ROWS, SAMPLES = 240, 1_500
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
        moved = any("transform" in node.attrib for node in root.iter())
        found = [p for node in root.iter() if (p := _outline(node)) is not None and len(p) > 2 and np.isfinite(p).all()]
        found = [p for p in found if _area(p) > 0 and np.ptp(p[:, 1]) > 0]
        if not found:
            return _say({"error": "There is no closed outline in this drawing."})
        largest = max(found, key=_area)
        notes = ["Transforms in the drawing were not followed: apply them before saving."] if moved else []
        if len(found) > 1:
            notes.append(f"The largest of {len(found)} outlines was taken.")
        return _say({**_sides(largest), "mm": _scale(root), "notes": notes})
    except Exception:
        return _say({"error": "This is no SVG drawing that can be read."})


def _say(answer: dict[str, object]) -> int:
    json.dump(answer, sys.stdout)
    return 0


if __name__ == "__main__":
    sys.exit(main())
