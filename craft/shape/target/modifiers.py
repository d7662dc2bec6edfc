"""Modifiers: what is done to a whole shape after it is chosen. Every one maps places to places.

z runs from the pole (0) to the end (H), the front looks to -y. Formulas stand in docs/drafting.md.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from craft.errors import require

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Knob:
    """A number of a modifier: its name in words, unit, least, most and usual value."""

    title: str
    unit: str
    least: float
    most: float
    usual: float


ModifierKey = Literal["bend", "taper", "flatten", "square", "belly", "brow", "ridge", "dent"]


@dataclass(frozen=True, slots=True)
class ModifierKind:
    """A kind of modifier: its name, what it is good for, its numbers, and what it does."""

    key: ModifierKey
    title: str
    use: str
    knobs: Mapping[str, Knob]
    move: Callable[[Vector, Mapping[str, float]], Vector]


def _bent(x: Vector, k: Mapping[str, float]) -> Vector:
    """Bend the axis forward into an arc of `degrees`; lengths along the middle stay."""
    high = float(np.ptp(x[:, 2])) or 1.0
    turn = math.radians(k["degrees"]) * (x[:, 2] - x[:, 2].min()) / high
    total = math.radians(k["degrees"])
    if abs(total) < 1e-6:
        return x
    radius = high / total
    y = x[:, 1]
    return np.column_stack(
        [x[:, 0], -radius * (1 - np.cos(turn)) + y * np.cos(turn), radius * np.sin(turn) + y * np.sin(turn)]
    )


def _across(x: Vector, factor: Vector) -> Vector:
    """Cross-sections larger by a factor for each place."""
    return np.column_stack([x[:, 0] * factor, x[:, 1] * factor, x[:, 2]])


def _tapered(x: Vector, k: Mapping[str, float]) -> Vector:
    share = (x[:, 2] - x[:, 2].min()) / (float(np.ptp(x[:, 2])) or 1.0)
    factor = 1 + k["amount"] / 100 * (0.5 - share)
    return _across(x, factor)


def _flattened(x: Vector, k: Mapping[str, float]) -> Vector:
    return np.column_stack([x[:, 0], x[:, 1] * (k["depth"] / 100), x[:, 2]])


def _squared(x: Vector, k: Mapping[str, float]) -> Vector:
    """Cross-sections from circles towards squares: |x|^p + |y|^p = r^p, p from 2 to 8."""
    p = 2 + 6 * k["amount"] / 100
    r = np.maximum(np.hypot(x[:, 0], x[:, 1]), 1e-9)
    c, s = np.abs(x[:, 0] / r), np.abs(x[:, 1] / r)
    factor = np.maximum(c**p + s**p, 1e-9) ** (-1 / p)
    factor[np.hypot(x[:, 0], x[:, 1]) < 1e-6] = 1.0
    return _across(x, factor)


def _bump(x: Vector, *, amount: float, at: float, angle: float, wide: float, high: float) -> Vector:
    """Push the surface out by `amount` mm around a place; wide in degrees, high as a share of the height."""
    share = (x[:, 2] - x[:, 2].min()) / (float(np.ptp(x[:, 2])) or 1.0)
    r = np.maximum(np.hypot(x[:, 0], x[:, 1]), 1e-9)
    around = np.degrees(np.arctan2(-x[:, 0], -x[:, 1])) - angle
    around = (around + 180) % 360 - 180
    thin = np.minimum(1.0, r / (0.15 * max(float(r.max()), 1e-9)))  # poles stay where they are
    push = amount * np.exp(-0.5 * (around / wide) ** 2 - 0.5 * ((share - at) / high) ** 2) * thin
    push = np.maximum(push, -0.8 * r)
    return np.column_stack([x[:, 0] * (1 + push / r), x[:, 1] * (1 + push / r), x[:, 2]])


def _belly(x: Vector, k: Mapping[str, float]) -> Vector:
    return _bump(x, amount=k["amount"], at=k["at"] / 100, angle=0.0, wide=50.0, high=0.2)


def _brow(x: Vector, k: Mapping[str, float]) -> Vector:
    return _bump(x, amount=k["amount"], at=k["at"] / 100, angle=0.0, wide=40.0, high=0.07)


def _ridge(x: Vector, k: Mapping[str, float]) -> Vector:
    return _bump(x, amount=k["amount"], at=0.5, angle=180.0, wide=k["wide"], high=0.35)


def _dent(x: Vector, k: Mapping[str, float]) -> Vector:
    return _bump(x, amount=-k["amount"], at=k["at"] / 100, angle=k["angle"], wide=30.0, high=0.12)


_AT = Knob("at the height of", "%", 5, 95, 35)

MODIFIERS: Mapping[str, ModifierKind] = MappingProxyType(
    {
        kind.key: kind
        for kind in (
            ModifierKind(
                "bend", "Bend", "trunks, tails, moons", {"degrees": Knob("forward by", "°", -150, 150, 45)}, _bent
            ),
            ModifierKind(
                "taper",
                "Taper",
                "one end wider",
                {"amount": Knob("narrower at the end by", "%", -150, 150, 40)},
                _tapered,
            ),
            ModifierKind(
                "flatten",
                "Flatten",
                "flat bodies, tails",
                {"depth": Knob("depth", "% of the width", 20, 160, 60)},
                _flattened,
            ),
            ModifierKind("square", "Square off", "boxy bodies", {"amount": Knob("by", "%", 0, 100, 50)}, _squared),
            ModifierKind(
                "belly",
                "Belly",
                "a round front",
                {"amount": Knob("forward by", "mm", -200, 200, 10), "at": _AT},
                _belly,
            ),
            ModifierKind(
                "brow",
                "Brow",
                "a forehead, a beak's root",
                {"amount": Knob("forward by", "mm", -100, 100, 6), "at": Knob("at the height of", "%", 5, 95, 70)},
                _brow,
            ),
            ModifierKind(
                "ridge",
                "Ridge",
                "along the back",
                {"amount": Knob("out by", "mm", 0, 100, 8), "wide": Knob("wide", "°", 8, 60, 16)},
                _ridge,
            ),
            ModifierKind(
                "dent",
                "Dent",
                "eye hollows, a waist",
                {
                    "amount": Knob("in by", "mm", 0, 100, 6),
                    "at": Knob("at the height of", "%", 5, 95, 60),
                    "angle": Knob("from the front", "°", -180, 180, 0),
                },
                _dent,
            ),
        )
    }
)
"""Every kind of modifier by its key."""


@dataclass(frozen=True, slots=True)
class Modifier:
    """A modifier with its numbers; those that are not given are the usual ones."""

    kind: str
    values: Mapping[str, float]

    def __post_init__(self) -> None:
        require(self.kind in MODIFIERS, f"No modifier is called {self.kind!r}.", field="kind")
        knobs = MODIFIERS[self.kind].knobs
        unknown = set(self.values) - set(knobs)
        require(
            not unknown, f"{MODIFIERS[self.kind].title} has no number {', '.join(sorted(unknown))}.", field="values"
        )
        full: dict[str, float] = {}
        for name, knob in knobs.items():
            value = float(self.values.get(name, knob.usual))
            require(
                math.isfinite(value) and knob.least <= value <= knob.most,
                f"{MODIFIERS[self.kind].title}, {knob.title}: from {knob.least:g} to {knob.most:g} {knob.unit}.",
                field=name,
            )
            full[name] = value
        object.__setattr__(self, "values", MappingProxyType(full))

    def __hash__(self) -> int:
        return hash((self.kind, tuple(self.values.items())))

    def moved(self, x: Vector) -> Vector:
        """Places after the modifier."""
        return MODIFIERS[self.kind].move(x, self.values)

    def scaled(self, factor: float) -> Modifier:
        """The same modifier for a shape of another size: lengths change, angles and shares stay."""
        knobs = MODIFIERS[self.kind].knobs
        larger = {
            n: min(max(v * factor, knobs[n].least), knobs[n].most) if knobs[n].unit == "mm" else v
            for n, v in self.values.items()
        }
        return Modifier(self.kind, larger)
