"""A design's history says what changed."""

from __future__ import annotations

from typing import Any

import pytest

from studio.designs.assembly_page import AssemblyPage, AssemblyStep, BendEntry, EyesEntry, FaceMark
from studio.designs.labels import MOST, assembly_label

NAMES = {"head0001": "Head", "ears0001": "Ears"}
EARS = AssemblyStep(key="step0001", part="ears0001", on="head0001", round=9, stitch=4)
BASE = AssemblyPage(steps=[EARS])


def now(**changed: Any) -> AssemblyPage:
    return BASE.model_copy(update={"steps": [EARS.model_copy(update=changed)]})


@pytest.mark.parametrize(
    ("after", "said"),
    [
        (now(round=12, share=0.4), "Moved Ears to R12"),
        (now(stitch=5.0), "Moved Ears"),
        (now(tilt=15.0), "Tilted Ears"),
        (now(turn=5.0), "Turned Ears"),
        (now(bends=[BendEntry(round=3)]), "Bent Ears"),
        (now(fixing="snaps"), "Changed how Ears sits"),
        (now(text="Sew on the ears."), "Worded the step of Ears"),
        (now(picture=True), "Changed the step of Ears"),
        (now(round=12, text="Sew."), "Moved Ears to R12, and 1 more change"),
        (now(round=12, text="Sew.", tilt=5.0), "Moved Ears to R12, and 2 more changes"),
        (BASE.model_copy(update={"steps": []}), "Removed the step of Ears"),
        (BASE.model_copy(update={"posture": "sitting"}), "Finished size sitting"),
        (
            BASE.model_copy(update={"eye_kind": "safety", "eyes": EyesEntry(part="head0001", round=8, between=6)}),
            "Put the eyes on Head, above R8",
        ),
        (
            BASE.model_copy(update={"marks": [FaceMark(key="mark0001", name="nose", part="head0001", round=5)]}),
            "Added to the face",
        ),
        (BASE, "Changed the assembly"),
    ],
)
def test_what_changed_is_said(after: AssemblyPage, said: str) -> None:
    assert assembly_label(BASE, after, NAMES) == said


def test_what_comes_is_said() -> None:
    bare = AssemblyPage()
    assert assembly_label(bare, BASE, NAMES) == "Placed Ears on Head"
    assert assembly_label(bare, AssemblyPage(steps=[AssemblyStep(key="step0009")]), NAMES) == "Added a step"
    unplaced = AssemblyPage(steps=[EARS.model_copy(update={"on": None, "round": None})])
    assert assembly_label(unplaced, BASE, NAMES) == "Placed Ears on Head"
    other = AssemblyStep(key="step0002", text="Stuff.")
    two = AssemblyPage(steps=[EARS, other])
    assert assembly_label(two, AssemblyPage(steps=[other, EARS]), NAMES) == "Put the steps in another order"


def test_a_label_is_never_too_long() -> None:
    names = {"head0001": "H" * 60, "ears0001": "E" * 60}
    changed = AssemblyPage(steps=[EARS], posture="sitting")
    assert len(assembly_label(AssemblyPage(), changed, names)) <= MOST
