"""A settled part drawn so far as it is worked: every stitch as a face with its round, from where a maker looks at it."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from craft.figure.placement.skin import Skin

ABOVE_DEGREES = 24.0
"""She looks at her work from the front and somewhat from above."""

_LIGHT = np.array([-0.4, -0.75, 0.55])


@dataclass(frozen=True, slots=True)
class Stages:
    """Faces from the farthest to the nearest. corners: x and height of four corners each, in tenths of a mm, the height
    upwards. rounds: of each, from 1; one more than the last for what closes the part. shades: light on it, 0 to 99. fills: its
    colour, an index into `colours`."""

    corners: tuple[tuple[int, ...], ...]
    rounds: tuple[int, ...]
    shades: tuple[int, ...]
    fills: tuple[int, ...]
    colours: tuple[str, ...]


def stages_of(skin: Skin, palette: Mapping[str, str]) -> Stages:
    """A part as faces by rounds. palette: yarn names to '#rrggbb'. Nothing where its rounds are not known."""
    if skin.rounds is None:
        return Stages((), (), (), (), ())
    faces = skin.faces(np.eye(4), palette)
    own = skin.rounds[skin.below[:, 0] >= 0]
    last = int(skin.rounds.max(initial=0)) + 1
    rounds = np.concatenate([own, np.full(len(faces.corners) - len(own), last)]) + 1
    a = math.radians(ABOVE_DEGREES)
    up = np.array([0.0, math.sin(a), math.cos(a)])
    away = np.array([0.0, math.cos(a), -math.sin(a)])
    seen = np.stack([faces.corners[:, :, 0], faces.corners @ up], axis=2)
    order = np.argsort(-(faces.corners.mean(axis=1) @ away), kind="stable")
    normal = faces.outward / np.maximum(np.linalg.norm(faces.outward, axis=1), 1e-9)[:, None]
    light = _LIGHT / np.linalg.norm(_LIGHT)
    inside = normal @ away > 0
    shade = np.where(inside, 0.45, 0.6 + 0.4 * np.clip(normal @ light, 0, 1))
    colours = sorted(set(faces.fills))
    at = {c: i for i, c in enumerate(colours)}
    corners = np.rint(seen * 10).astype(int).reshape(len(seen), 8)
    return Stages(
        tuple(tuple(int(v) for v in corners[i]) for i in order),
        tuple(int(rounds[i]) for i in order),
        tuple(int(99 * shade[i]) for i in order),
        tuple(at[faces.fills[i]] for i in order),
        tuple(colours),
    )
