"""What is not for a child under three is told where it stands."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.assembly import put_together
from craft.design.design import Audience, Brief, Design, EyeKind, Eyes, Printed, Step
from craft.design.hazards import hazards_of
from craft.design.joins import Fixing, Join
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.design.steps import steps_now

BODY = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nInsert the wire.\nR3: 12 sc [12]\nSew on two beads.\n"
HAT = "R1: 6 sc in ring [6]\nR2: 6 sc [6]\n"


def figure(audience: Audience = Audience.UNDER_THREE) -> Design:
    return Design(
        "Figure",
        parts=(Part("body", "Body", BODY), Part("hat", "Hat", HAT)),
        joins=(Join("j", "hat", "body", Place("body", 3), fixing=Fixing.SNAPS),),
        steps=(Step("s1", "Glue on the hat.", "hat", "j"), Step("s2", "Embroider a smile.")),
        eyes=Eyes(EyeKind.SAFETY, 8),
        printed=Printed(notions=("yarn needle", "two 8 mm safety eyes")),
        brief=Brief(audience=audience),
    )


def told(design: Design) -> list[tuple[str, str]]:
    return [(h.stop, h.what.split(":")[0]) for h in hazards_of(design, run_parts(design))]


def test_every_place_is_told_with_its_stop() -> None:
    assert told(figure()) == [
        ("assembly", "safety eyes are a small part that can choke"),
        ("rounds", "wire"),
        ("rounds", "beads"),
        ("assembly", "glue"),
        ("assembly", "snaps are a small part that can choke"),
        ("booklet", "safety eyes"),
    ]


@pytest.mark.parametrize("audience", [Audience.PLAY, Audience.DISPLAY])
def test_others_may_have_them(audience: Audience) -> None:
    assert told(figure(audience)) == []


def test_a_harmless_figure_is_told_nothing() -> None:
    plain = Design("Plain", parts=(Part("hat", "Hat", HAT),), brief=Brief(audience=Audience.UNDER_THREE))
    assert told(plain) == []
    words = replace(plain, steps=(Step("s", "Sew on the beaded-looking ears, like a wireframe."),))
    assert told(words) == []


def test_the_step_itself_says_so() -> None:
    design = figure()
    first, second = steps_now(put_together(design, run_parts(design), {}))
    assert any(note.startswith("Under three: glue") for note in first.notes)
    assert not any("Under three" in note for note in second.notes)
