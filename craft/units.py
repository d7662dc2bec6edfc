"""Lengths: millimetres inside, centimetres and inches at the edges."""

from __future__ import annotations

import math

from craft.errors import CraftError

MM_PER_INCH = 25.4
"""Millimetres in one inch (exact by definition)."""


def positive(value: float, what: str, *, most: float, unit: str = "mm", field: str | None = None) -> float:
    """Return `value` if it is a finite number in (0, most], else raise CraftError naming `what`."""
    if not isinstance(value, (int, float)) or not math.isfinite(value) or not 0 < value <= most:
        raise CraftError(f"{what} must be more than 0 and at most {most:g} {unit}.", field=field or what)
    return float(value)


def within(value: float, what: str, least: float, most: float, *, unit: str = "", field: str | None = None) -> float:
    """Return `value` if it is a finite number from `least` to `most`, else raise CraftError naming `what`."""
    if not isinstance(value, (int, float)) or not math.isfinite(value) or not least <= value <= most:
        raise CraftError(f"{what} runs from {least:g} to {most:g}{f' {unit}' if unit else ''}.", field=field or what)
    return float(value)


def cm(mm: float) -> str:
    """`mm` as centimetres to half a centimetre from 10 cm on, to a millimetre below: '7.4 cm'."""
    value = round(mm / 5) / 2 if mm >= 100 else round(mm / 10, 1)
    return f"{value:g} cm"


def inches(mm: float) -> str:
    """`mm` as inches to the nearest quarter: '2¾ in'."""
    quarters = max(1, round(mm / MM_PER_INCH * 4))
    whole, part = divmod(quarters, 4)
    fraction = ("", "¼", "½", "¾")[part]
    return f"{whole or ''}{fraction} in" if whole or fraction else "0 in"
