"""Places that survive changes of the rounds: kept on the surface, said anew in the rounds as they are."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from craft.figure.placement import expressed, kept
from craft.rounds.fabric import WorkedPart
from studio.designs.manifest import AssemblyPage, AssemblyStep, EyesEntry


@dataclass(frozen=True, slots=True)
class Now:
    """A place in the rounds as they are now. moved: they say it otherwise than when it was set."""

    round: int
    stitch: float
    moved: bool


def shown_rounds(worked: WorkedPart) -> tuple[list[int], list[float]]:
    """Live stitches and heights of the rounds that have stitches."""
    shown = [t for t in worked.rounds if t.live > 0]
    return [t.live for t in shown], [t.height for t in shown]


def located(page: AssemblyPage, before: AssemblyPage, worked: Mapping[str, WorkedPart]) -> AssemblyPage:
    """The page with the surface's place of everything that was set or moved since `before`."""
    old_steps = {s.key: s for s in before.steps}
    steps = [_located_step(s, old_steps.get(s.key), worked) for s in page.steps]
    eyes = page.eyes
    if eyes is not None and eyes.part in worked:
        old = before.eyes
        if old is None or (old.part, old.round) != (eyes.part, eyes.round) or eyes.share is None:
            share, _ = kept(*shown_rounds(worked[eyes.part]), eyes.round, 0.0)
            eyes = eyes.model_copy(update={"share": share})
    return page.model_copy(update={"steps": steps, "eyes": eyes})


def _located_step(step: AssemblyStep, old: AssemblyStep | None, worked: Mapping[str, WorkedPart]) -> AssemblyStep:
    if not (step.on and step.round) or step.on not in worked:
        return step.model_copy(update={"share": None, "angle": None}) if step.share is not None else step
    same = old is not None and (old.on, old.round, old.stitch) == (step.on, step.round, step.stitch)
    if same and step.share is not None:
        return step
    share, angle = kept(*shown_rounds(worked[step.on]), step.round, step.stitch)
    return step.model_copy(update={"share": share, "angle": angle})


def step_now(step: AssemblyStep, worked: Mapping[str, WorkedPart]) -> Now | None:
    """Where a step's place is now, None when it has none."""
    if not (step.on and step.round):
        return None
    if step.share is None or step.angle is None or step.on not in worked:
        return Now(step.round, step.stitch, moved=False)
    counts, heights = shown_rounds(worked[step.on])
    at, stitch = expressed(counts, heights, step.share, step.angle)
    if min(step.round, len(counts)) == at and abs(stitch - step.stitch) < 1:
        return Now(step.round, step.stitch, moved=False)
    return Now(at, round(stitch * 2) / 2, moved=True)


def eyes_now(eyes: EyesEntry, worked: Mapping[str, WorkedPart]) -> Now:
    """Above which round the eyes are now."""
    if eyes.share is None or eyes.part not in worked:
        return Now(eyes.round, 0.0, moved=False)
    at, _ = expressed(*shown_rounds(worked[eyes.part]), eyes.share, 0.0)
    return Now(at, 0.0, moved=at != eyes.round)
