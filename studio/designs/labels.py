"""What a step of a design's history is called: in words that say what changed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from studio.designs.assembly_page import AssemblyPage, AssemblyStep

MOST = 110
"""Characters of a label."""

_SEAT = ("seat", "fixing", "paired", "wide", "spread")
_PLACE = ("on", "round", "stitch", "share", "angle")


def assembly_label(before: AssemblyPage, after: AssemblyPage, names: Mapping[str, str]) -> str:
    """What changed on the page of the assembly. names: of the parts, by key."""
    found = list(dict.fromkeys(_changes(before, after, names)))
    if not found:
        return "Changed the assembly"
    more = len(found) - 1
    rest = "" if not more else f", and {more} more {'change' if more == 1 else 'changes'}"
    return found[0][: MOST - len(rest)] + rest


def _changes(before: AssemblyPage, after: AssemblyPage, names: Mapping[str, str]) -> Iterator[str]:
    old, new = ({s.key: s for s in page.steps} for page in (before, after))
    for key, step in new.items():
        if key not in old:
            placed = step.part and step.on
            yield f"Placed {_name(step, names)} on {names.get(step.on or '', 'a part')}" if placed else "Added a step"
        elif step != old[key]:
            yield from _of_step(old[key], step, names)
    for key, step in old.items():
        if key not in new:
            yield f"Removed the step of {_name(step, names)}" if step.part else "Removed a step"
    if [k for k in old if k in new] != [k for k in new if k in old]:
        yield "Put the steps in another order"
    if (before.eyes, before.eye_kind, before.eye_mm) != (after.eyes, after.eye_kind, after.eye_mm):
        yield _eyes(before, after, names)
    if before.marks != after.marks:
        more = len(after.marks) - len(before.marks)
        yield "Changed the face" if not more else "Added to the face" if more > 0 else "Took something off the face"
    if before.posture != after.posture:
        yield f"Finished size {after.posture}"


def _of_step(old: AssemblyStep, step: AssemblyStep, names: Mapping[str, str]) -> Iterator[str]:
    name = _name(step, names)
    if old.part != step.part:
        yield f"A step is about {name} now"
    elif not old.on and step.on:
        yield f"Placed {name} on {names.get(step.on, 'a part')}"
    elif any(getattr(old, f) != getattr(step, f) for f in _PLACE):
        yield f"Moved {name}" + (f" to R{step.round}" if step.round and step.round != old.round else "")
    if (old.tilt, old.turn) != (step.tilt, step.turn):
        yield f"Tilted {name}" if old.tilt != step.tilt else f"Turned {name}"
    if old.bends != step.bends:
        yield f"Bent {name}" if step.bends else f"Straightened {name}"
    if any(getattr(old, f) != getattr(step, f) for f in _SEAT):
        yield f"Changed how {name} sits"
    if old.text != step.text:
        yield f"Worded the step of {name}" if step.part else "Worded a step"
    if old.film != step.film:
        yield "Named a film clip" if step.film else "Took a film clip out"
    if (old.before_closing, old.picture) != (step.before_closing, step.picture):
        yield f"Changed the step of {name}" if step.part else "Changed a step"


def _name(step: AssemblyStep, names: Mapping[str, str]) -> str:
    return names.get(step.part or "", "a part")


def _eyes(before: AssemblyPage, after: AssemblyPage, names: Mapping[str, str]) -> str:
    if after.eye_kind == "none":
        return "Took the eyes out"
    if after.eyes is None:
        return "Took the eyes off their place"
    if before.eyes != after.eyes:
        return f"Put the eyes on {names.get(after.eyes.part, 'a part')}, above R{after.eyes.round}"
    return "Chose other eyes"
