"""A figure laid on its back or hung up: turned as one piece, resting or hanging where it would."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from craft.design.anchors import Place
from craft.design.assembly import Assembled, eyes_placed
from craft.design.design import Design, EyeKind, Eyes, Posture, Step
from craft.design.joins import Join
from craft.design.parts import GaugeFrom, GaugeInForce, Part
from craft.design.portrait import Moment, portrait_of, settled_figure, subject_of, view_of
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.figure.placement import Surface, balance, hung_by
from craft.figure.placement.balance import weight_of
from craft.figure.placement.posture import ABOVE_TABLE_MM
from craft.figure.render import Cloth, Look, Side

BODY = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R12: 24 sc [24]
R13: (2 sc, dec) x 6 [18]
Stuff.
R14: (sc, dec) x 6 [12]
R15: dec x 6 [6]
Close.
"""
NOSE = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R6: 12 sc [12]\nStuff.\n"


@cache
def figure(posture: Posture) -> Assembled:
    """A body with a heavy nose, so that it hangs aslant."""
    design = Design(
        "Anteater",
        gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.6, 5.15, 0.4),
        parts=(Part("body", "Body", BODY), Part("nose", "Nose", NOSE)),
        joins=(Join("j", "nose", "body", Place("body", 9)),),
        eyes=Eyes(EyeKind.SAFETY, 8, Place("body", 10), 6),
    )
    return settled_figure(replace(design, posture=posture))[0]


def points(found: Assembled) -> np.ndarray:
    own = [found.posed[p.part].points() @ p.matrix[:3, :3].T + p.matrix[:3, 3] for p in found.placed]
    return np.concatenate(own)


@pytest.mark.parametrize("posture", [Posture.LYING, Posture.HANGING])
def test_it_is_turned_as_one_piece(posture: Posture) -> None:
    standing, turned = figure(Posture.STANDING), figure(posture)
    step = [np.linalg.inv(a.matrix) @ b.matrix for a, b in zip(standing.placed, standing.placed[1:], strict=False)]
    again = [np.linalg.inv(a.matrix) @ b.matrix for a, b in zip(turned.placed, turned.placed[1:], strict=False)]
    assert np.allclose(step, again, atol=1e-6)
    assert all(np.linalg.det(p.matrix[:3, :3]) == pytest.approx(1.0) for p in turned.placed)


def test_lying_it_looks_up_and_rests_on_the_table() -> None:
    standing, lying = figure(Posture.STANDING), figure(Posture.LYING)
    assert points(lying)[:, 2].min() == pytest.approx(0.0, abs=1e-6)
    depth = standing.size_mm[1]
    assert lying.size_mm[2] == pytest.approx(depth, rel=0.25), "as high as it was deep, but for its roll"
    weighed = balance(dict(lying.surfaces), lying.placed)
    assert weighed is not None
    assert weighed.verdict != "tips"
    eyes = eyes_placed(lying)
    assert eyes is not None
    matrix = next(p.matrix for p in lying.placed if p.part == eyes.part)
    assert all((matrix[:3, :3] @ np.array(out))[2] > 0.5 for out in eyes.out)


def test_hanging_its_weight_is_below_where_it_hangs() -> None:
    hanging = figure(Posture.HANGING)
    assert points(hanging)[:, 2].min() == pytest.approx(ABOVE_TABLE_MM, abs=1e-6)
    surfaces: dict[str, Surface] = dict(hanging.surfaces)
    weight = weight_of(surfaces, [replace(p, x=None) for p in hanging.placed])
    lying = weight_of(surfaces, hanging.placed)
    assert weight is not None
    assert lying is not None
    assert np.linalg.norm(weight - lying) < 1.0, "where fabric gives way its weight hardly moves"
    upright = figure(Posture.STANDING)
    before = weight_of(dict(upright.surfaces), [replace(p, x=None) for p in upright.placed])
    top = hung_by(upright.posed, upright.placed)
    assert before is not None
    assert np.linalg.norm((before - top)[:2]) > 0.5, "upright it is not"
    # The point that it hung by moved along with it: as far above the weight as it was away from it.
    moved = hanging.placed[0].matrix @ np.linalg.inv(upright.placed[0].matrix) @ [*top, 1.0]
    assert np.linalg.norm((weight - moved[:3])[:2]) < 1e-6


def test_a_hanging_figure_shows_its_thread_and_its_table() -> None:
    design = figure(Posture.HANGING).design
    found, skins = settled_figure(design)
    subject = portrait_of(found, skins)
    (thread,) = subject.threads
    assert thread.points[1][2] - thread.points[0][2] == pytest.approx(40.0)
    assert subject.floor == 0.0
    standing, skins = settled_figure(replace(design, posture=Posture.STANDING))
    assert portrait_of(standing, skins).threads == ()


def test_a_step_shows_what_it_adds_in_colour_and_nothing_that_comes_later() -> None:
    design = figure(Posture.STANDING).design
    tail = Join("k", "tail", "nose", Place("nose", 3))
    steps = (Step("s1", "", "nose", "j"), Step("s2", "", "tail", "k"))
    whole = replace(design, parts=(*design.parts, Part("tail", "Tail", NOSE)), joins=(*design.joins, tail), steps=steps)
    found, skins = settled_figure(whole)
    full = portrait_of(found, skins)
    first, last = (portrait_of(found, skins, step=key) for key in ("s1", "s2"))
    assert (len(full.cloths), len(first.cloths), len(last.cloths)) == (3, 2, 3)

    def pale(cloth: Cloth) -> bool:
        return bool(cloth.rgb.mean() > full.cloths[0].rgb.mean() + 10)

    assert [pale(c) for c in first.cloths] == [True, False], "the nose is new"
    assert [pale(c) for c in last.cloths] == [True, True, False], "then the tail"
    assert len(portrait_of(found, skins, step="gone").cloths) == 3


def put_on_twice() -> Design:
    """A body with the same part put on by two steps: in front, and behind."""
    design = figure(Posture.STANDING).design
    body = design.join("j").host if design.join("j") else ""
    around = run_parts(design)
    counts = next(p.worked.counts for p in around if p.key == body and p.worked)
    behind = Join("k", "nose", body, Place(body, 4, counts[3] / 2))
    parts = tuple(replace(p, make=2) if p.key == "nose" else p for p in design.parts)
    steps = (Step("s1", "", "nose", "j"), Step("s2", "", "nose", "k"))
    return replace(design, parts=parts, joins=(*design.joins, behind), steps=steps)


def test_pieces_of_one_part_come_with_their_own_steps() -> None:
    found, skins = settled_figure(put_on_twice())
    many = [len(portrait_of(found, skins, step=key).cloths) for key in ("s1", "s2")]
    assert many == [2, 3]
    last = portrait_of(found, skins, step="s2").cloths
    pale = [bool(c.rgb.mean() > portrait_of(found, skins).cloths[0].rgb.mean() + 10) for c in last]
    assert pale.count(False) == 1, "only the second one is new"


def test_a_step_is_looked_at_from_where_it_is_seen() -> None:
    found, skins = settled_figure(put_on_twice())
    asked = Look(Side.BETWEEN)
    assert view_of(found, skins, "s1", asked) == asked
    assert view_of(found, skins, "s2", asked).side is Side.BACK
    assert view_of(found, skins, "gone", asked) == asked


def test_a_part_on_the_way_ends_at_its_round() -> None:
    found, skins = settled_figure(figure(Posture.STANDING).design)
    key = found.placed[0].part
    counts = found.worked[key].counts
    for after in (3, 5, len(counts)):
        cloth = subject_of(found, skins, Moment(part=key, after=after)).cloths[0]
        assert len(cloth.corners) == sum(counts[:after])
    with pytest.raises(CraftError):
        subject_of(found, skins, Moment(part="gone", after=2))
    with pytest.raises(CraftError):
        Moment(part=key)


def test_feet_under_a_body_are_looked_at_from_below() -> None:
    """In front of it they stand towards the viewer, and the body hides them all the same."""
    design = figure(Posture.STANDING).design
    join = design.join("j")
    assert join is not None
    under = replace(join, place=Place(join.host, 2, 3), paired=True)
    parts = tuple(replace(p, make=2) if p.key == "nose" else p for p in design.parts)
    found, skins = settled_figure(replace(design, parts=parts, joins=(under,), steps=(Step("s1", "", "nose", "j"),)))
    below = view_of(found, skins, "s1", Look(Side.BETWEEN))
    assert below.above < -30
    assert not below.shadow
