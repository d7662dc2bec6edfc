"""Tubes rolled up: the words for it, the rounds it names, and the shape that comes of it."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.design.grading import part_size
from craft.errors import CraftError
from craft.figure.body import Placed, body_of
from craft.figure.picture import draw
from craft.figure.settling import Contact, Settled, settle
from craft.figure.settling.coil import roll_up
from craft.figure.spiral import rolled_up
from craft.gauge import Gauge
from craft.rounds.pattern import Coil, StepKind, coil_direction
from craft.rounds.pattern.stored import from_json, to_json
from craft.text.check import check
from craft.text.notation import find_coil, read, step_kind

GAUGE = Gauge(5.6, 5.15, 0.4)


def shell(first: int, rounds: int, direction: str = "Coil the tube and sew it to itself.") -> str:
    """A tube that grows by a stitch every eighth round."""
    lines, live = [f"R1: {first} sc in ring [{first}]"], first
    for n in range(2, rounds + 1):
        grows = n % 8 == 0
        live += grows
        lines.append(f"R{n}: inc, {live - 2} sc [{live}]" if grows else f"R{n}: sc around [{live}]")
    return "\n".join([*lines, "Stuff lightly.", direction]) + "\n"


@pytest.mark.parametrize(
    ("said", "found"),
    [
        ("Fasten off. Coil the tube and sew it to itself, then to the back.", Coil()),
        ("Roll up the strip, wide end inside, and stitch the turns together.", Coil(wide_inside=True)),
        ("Coil the tube from R3, which lies inside, to R40, and sew it to itself.", Coil(3, 40)),
        ("Roll up rounds 2-30 and sew each turn to the one before, together with a long tail.", Coil(2, 30)),
        ("Curl the tail and sew its turns.", Coil()),
        ("Roll the edge outwards.", None),
        ("Sew the shell to itself.", None),
        ("Coil the wire.", None),
    ],
)
def test_her_own_words_are_read(said: str, found: Coil | None) -> None:
    assert find_coil(said) == found
    assert (step_kind(said) is StepKind.COIL) == (found is not None)


coils = st.builds(Coil, wide_inside=st.booleans()) | st.tuples(st.integers(1, 999), st.integers(1, 999)).filter(
    lambda ends: ends[0] != ends[1]
).map(lambda ends: Coil(*ends))


@given(coils)
def test_a_direction_says_what_it_was_made_of(coil: Coil) -> None:
    assert find_coil(coil_direction(coil)) == coil


@pytest.mark.parametrize("ends", [(3, None), (None, 3), (0, 4), (5, 5)])
def test_a_coil_goes_from_a_round_to_another(ends: tuple[int | None, int | None]) -> None:
    with pytest.raises(CraftError):
        Coil(*ends)


def test_the_narrow_end_lies_inside_unless_she_says_otherwise() -> None:
    (grown,) = check(shell(5, 24)).parts
    assert grown.rolled is not None
    assert (grown.rolled.inner, grown.rolled.outer) == (0, 23)
    (turned,) = check(shell(5, 24, "Coil it, wide end inside, and sew it to itself.")).parts
    assert turned.rolled is not None
    assert (turned.rolled.inner, turned.rolled.outer) == (23, 0)
    (plain,) = check(shell(5, 24, "Fasten off.")).parts
    assert plain.rolled is None


def test_a_round_that_is_not_there_is_a_fault() -> None:
    found = check(shell(5, 24, "Coil the tube from R4 to R90 and sew it to itself."))
    (told,) = [p for p in found.problems if p.code == "no-coil-round"]
    assert "R90" in told.message
    assert found.parts[0].rolled is None


def test_a_coil_is_kept_in_the_file() -> None:
    pattern = read(shell(5, 24, "Coil the tube from R4 to R20 and sew it to itself.")).pattern
    assert from_json(to_json(pattern)) == pattern
    assert '"coil"' not in str(to_json(read(shell(5, 24, "Fasten off.")).pattern))


def test_what_is_left_empty_in_part_is_stuffed_all_the_same() -> None:
    (part,) = check(shell(5, 24, "Do not stuff the tip; stuff the rest lightly.")).parts
    assert part.stuffed


@pytest.fixture(scope="module")
def coiled() -> Settled:
    return settle(check(shell(5, 60)).parts[0], GAUGE, frames=4)


def test_a_coil_is_round_and_as_thick_as_its_tube(coiled: Settled) -> None:
    assert coiled.converged
    wide, deep, tall = np.ptp(coiled.x, axis=0)
    assert 0.7 < deep / tall < 1.4
    assert wide < 0.75 * min(deep, tall)
    straight = settle(check(shell(5, 60, "Fasten off.")).parts[0], GAUGE)
    assert max(deep, tall) < 0.45 * float(np.ptp(straight.x[:, 2])), "it goes around more than once"


def test_a_coil_stands_on_its_rim_with_its_opening_low_and_to_the_front(coiled: Settled) -> None:
    last = coiled.net.edges[-1].nodes
    end = coiled.x[last].mean(0)
    assert coiled.x[:, 2].min() == pytest.approx(0, abs=1e-9)
    assert end[2] < coiled.x[:, 2].mean()
    assert (coiled.x[last].mean(0) - coiled.x[coiled.net.edges[-5].nodes].mean(0))[1] < 0, "it looks to the front"


def test_fabric_of_a_coil_lies_on_fabric_and_never_in_it(coiled: Settled) -> None:
    contact = Contact(coiled.net, GAUGE.stitch_mm)
    assert contact.through(coiled.x) == 0
    assert len(contact.near(coiled.x, 1.5 * contact.thick)) > 40, "its turns touch"


def test_what_is_too_short_to_roll_stays_a_tube() -> None:
    settled = settle(
        check("R1: 5 sc in ring [5]\nR2-R3: sc around [5]\nStuff.\nCoil it and sew it to itself.").parts[0], GAUGE
    )
    assert roll_up(settled.net, settled.x, 0, 2) is None
    assert np.ptp(settled.x[:, 2]) > 10


@pytest.mark.parametrize(("length", "thick"), [(200.0, 10.0), (400.0, 8.0), (300.0, 16.0)])
def test_an_even_tube_rolls_up_to_the_disc_that_its_own_area_fills(length: float, thick: float) -> None:
    """Closed form: a strip of length l and width d that fills a disc makes one of a diameter of 2 √(l d / π)."""
    heights = np.arange(0.0, length, 2.0)
    radii = np.full(len(heights), thick / 2)
    coil = rolled_up(heights, radii, 0, len(heights) - 1, np.array([0.0, -1.0, 0.0]))
    assert coil is not None
    wide = np.ptp(coil.places[:, 1:], axis=0).max() + thick
    assert wide == pytest.approx(2 * np.sqrt(length * thick / np.pi), rel=0.16)
    assert np.ptp(coil.places[:, 0]) < 1e-6  # it is flat
    apart = np.linalg.norm(coil.places[:, None] - coil.places[None], axis=2)
    far = np.abs(np.arange(len(heights))[:, None] - np.arange(len(heights))[None]) * 2.0 > 2.5 * thick
    assert apart[far].min() == pytest.approx(thick, rel=0.25)  # a turn lies on the one before it, and not in it
    for turn in coil.turns:
        assert turn @ turn.T == pytest.approx(np.eye(3), abs=1e-9)


@pytest.mark.parametrize(
    "direction", ["Coil the tube and sew it to itself.", "Coil it, wide end inside, and sew it to itself."]
)
def test_a_coil_is_estimated_as_large_as_it_settles(direction: str) -> None:
    (part,) = check(shell(5, 60, direction)).parts
    body = body_of(part, GAUGE)
    x = settle(part, GAUGE).x
    size, settled = np.ptp(body.points(), axis=0), np.ptp(x, axis=0)
    assert size[1:] == pytest.approx(settled[1:], rel=0.3)
    assert body.height_mm == pytest.approx(size[2])
    assert body.points()[:, 2].min() == pytest.approx(0.0, abs=1.0)
    assert part_size(part, GAUGE).height.value == pytest.approx(body.height_mm)
    straight = body.profile.height_mm
    assert body.height_mm < straight / 2


def test_a_coil_is_drawn_and_placed_where_it_lies() -> None:
    (part,) = check(shell(5, 40)).parts
    body = body_of(part, GAUGE)
    points = body.points()
    for at in (0, 12, 30, 39):
        point, out = body.spot(at, 0.4)
        assert np.linalg.norm(out) == pytest.approx(1.0)
        assert np.linalg.norm(points - point, axis=1).min() < 3.0
    drawn = draw({"a": body}, [Placed("a", np.eye(4))], {}, title="Shell")
    height = float(drawn.split('viewBox="')[1].split()[3].rstrip('"'))
    assert height < body.profile.height_mm / 2 + 20


def test_a_tube_that_is_too_short_is_not_rolled_up() -> None:
    heights = np.array([0.0, 5.0, 10.0])
    assert rolled_up(heights, np.full(3, 4.0), 0, 2, np.array([0.0, -1.0, 0.0])) is None
    assert rolled_up(np.arange(0.0, 50, 5), np.full(10, 4.0), 4, 6, np.array([0.0, -1.0, 0.0])) is None
