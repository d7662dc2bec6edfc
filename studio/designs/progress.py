"""How far each stop of the thread is: untouched, under way, with faults, or sound."""

from __future__ import annotations

from collections.abc import Sequence

from craft.design.design import Design
from craft.design.remix import credits_of
from craft.design.running import RunPart
from studio.designs.manifest import BookletPage, BriefPage, Manifest, ProvingPage
from studio.designs.schemas import StopState


def _brief(page: BriefPage) -> str:
    if page == BriefPage():
        return "untouched"
    return "sound" if page.intro and page.height_mm else "under-way"


def _gauge(manifest: Manifest) -> str:
    if not manifest.gauge.yarns and manifest.gauge.source == "assumed":
        return "untouched"
    return "sound" if manifest.gauge.source in ("swatch", "own") else "under-way"


def _shapes(parts: Sequence[RunPart]) -> str:
    drafted = [p for p in parts if p.part.recipe is not None]
    return "sound" if drafted else "under-way" if parts else "untouched"


def _rounds(parts: Sequence[RunPart]) -> str:
    if not parts:
        return "untouched"
    if any(p.faults for p in parts):
        return "faults"
    return "sound" if all(p.worked for p in parts) else "under-way"


def _assembly(manifest: Manifest) -> str:
    steps = manifest.assembly.steps
    if not steps:
        return "untouched"
    keys = {p.key for p in manifest.parts}
    if any((s.part and s.part not in keys) or (s.on and s.on not in keys) for s in steps):
        return "faults"
    return "sound" if all(s.text for s in steps) else "under-way"


def _bases(value: Design) -> str:
    """Untouched while everything was made here; under way while terms stand in the way of publishing it."""
    found = credits_of(value)
    if not found.sources:
        return "untouched"
    return "under-way" if found.blocked or found.conflicts else "sound"


def _proving(page: ProvingPage) -> str:
    if page == ProvingPage():
        return "untouched"
    return "under-way" if page.blockers.strip() else "sound"


def stops_of(manifest: Manifest, value: Design, parts: Sequence[RunPart]) -> list[StopState]:
    """The nine stops in order."""
    rounds = _rounds(parts)
    booklet = "untouched" if manifest.booklet == BookletPage() else "sound" if rounds == "sound" else "under-way"
    states = {
        "brief": _brief(manifest.brief),
        "gauge": _gauge(manifest),
        "shapes": _shapes(parts),
        "rounds": rounds,
        "bases": _bases(value),
        "assembly": _assembly(manifest),
        "sizes": "sound" if manifest.sizes.sizes else "untouched",
        "booklet": booklet,
        "proving": _proving(manifest.proving),
    }
    return [StopState.model_validate({"stop": stop, "state": state}) for stop, state in states.items()]
