"""Upgrades of stored manifests: one pure step from each format to the next, tested on frozen studios of each."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from craft.formats import Upgrade, upgraded
from craft.gauge import LEAST_GAUGE_MM


def _workable(data: dict[str, Any], names: Sequence[str], least: float) -> dict[str, Any]:
    """The values without those that are too small to mean anything: they made sizes and booklets fail for good."""
    return {k: None if k in names and isinstance(v, int | float) and v < least else v for k, v in data.items()}


def _yarn(data: dict[str, Any]) -> dict[str, Any]:
    return _workable(data, ("skein_m", "skein_g"), 0.1)


def _to_2(data: dict[str, Any]) -> dict[str, Any]:
    """Testers and the making log became rows of their own (the migration proving.0001 carries them over)."""
    gauge = _workable(dict(data.get("gauge") or {}), ("stitch_mm", "round_mm"), LEAST_GAUGE_MM)
    gauge = _workable(gauge, ("hook_mm",), 0.3)
    if gauge.get("yarns"):
        gauge["yarns"] = [_yarn(y) for y in gauge["yarns"]]
    sizes = dict(data.get("sizes") or {})
    if sizes.get("sizes"):
        sizes["sizes"] = [
            {**_workable(s, ("hook_mm",), 0.3), "yarn": s.get("yarn") and _yarn(s["yarn"])} for s in sizes["sizes"]
        ]
    proving = {k: v for k, v in (data.get("proving") or {}).items() if k == "blockers"}
    return {**data, "gauge": gauge, "sizes": sizes, "proving": proving}


def _to_3(data: dict[str, Any]) -> dict[str, Any]:
    """What was a 'sample' is a swatch."""
    gauge = dict(data.get("gauge") or {})
    if "sample_id" in gauge:
        gauge["swatch_id"] = gauge.pop("sample_id")
    if gauge.get("source") == "sample":
        gauge["source"] = "swatch"
    return {**data, "gauge": gauge}


STEPS: Sequence[Upgrade] = (_to_2, _to_3)
"""STEPS[k] turns format k + 1 into k + 2."""


def newest(data: Mapping[str, Any]) -> dict[str, Any]:
    """A stored manifest in the format of today; CraftError when it was written by a newer Spirrel."""
    return upgraded(data, STEPS, "This design")
