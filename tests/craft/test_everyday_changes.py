"""Everyday changes of a part: another start, stripes, two legs, an open end, a limb sewn again."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.reshaping import Divide, Limb, OpenEnd, StartOn, Stripes, Widen, fold_flat, open_flat, take_out, work_in
from tests.craft.test_reshaping import BALL, done, lines, sound


@pytest.mark.parametrize(
    ("count", "counts"), [(8, (8, 12, 18, 24)), (7, (7, 14, 21, 24)), (5, (5, 10, 20, 24)), (24, None), (6, None)]
)
def test_another_start_comes_to_the_same_count(count: int, counts: tuple[int, ...] | None) -> None:
    if counts is None:
        with pytest.raises(CraftError):
            done(StartOn(count))
        return
    made = done(StartOn(count))
    assert check(made).parts[0].counts == (*counts, 24, 24, 24, 18)
    assert sound(made), made
    assert "and breathe" in made


def test_rounds_from_another_start_are_said_in_whole_repeats() -> None:
    made = done(StartOn(8))
    assert [ln for ln in lines(made) if "inc" in ln][:3] == [
        "R2: (sc, inc) x 4 [12]",
        "R3: (sc, inc) x 6 [18]",
        "Rnd 4: (2 sc, inc) x 6 [24] and breathe",
    ]


def test_a_start_on_a_chain_keeps_its_start() -> None:
    with pytest.raises(CraftError, match="ring"):
        done(
            StartOn(7),
            "R1: ch 6, from 2nd ch, 4 sc, 3 sc in last ch, along the other side of the chain, 3 sc, inc [12]",
        )


def colours(text: str) -> list[str]:
    """The colour that every round begins with."""
    worked = check(text).parts[0]
    return [worked.graph.colours[int(worked.graph.colour[t.first])] for t in worked.rounds]


def test_stripes_cut_folds_and_go_back_to_the_colour_in_hand() -> None:
    made = done(Stripes(4, 6, ("Oat", "Moss"), 2, "Moss"))
    assert [ln for ln in lines(BALL) if ln not in lines(made)] == ["R5-R7: sc around [24]"]
    assert "Rnd 4: (2 sc, inc) x 6 (24) and breathe" in made
    assert made.index("Change to Oat") < made.index("Rnd 4:") < made.index("R5:") < made.index("Change to Moss")
    assert made.rindex("Change to") < made.index("R6-R7:"), "behind the stripes it is Moss again, and says so once"
    assert check(made).parts[0].counts == check(BALL).parts[0].counts
    assert sound(made), made


@given(first=st.integers(1, 8), many=st.integers(0, 7), each=st.integers(1, 4), three=st.booleans())
def test_stripes_colour_every_round_by_turns_and_no_other(first: int, many: int, each: int, three: bool) -> None:
    last = min(first + many, 8)
    striped = ("Oat", "Moss", "Plum")[: 3 if three else 2]
    made = done(Stripes(first, last, striped, each, "Main"))
    assert sound(made), made
    wanted = ["Main"] * 8
    wanted[first - 1 : last] = [striped[k // each % len(striped)] for k in range(last - first + 1)]
    assert colours(made) == wanted


def test_stripes_over_rounds_that_change_colour_are_refused() -> None:
    with pytest.raises(CraftError, match="changes its colour"):
        done(Stripes(1, 2, ("Oat", "Moss"), 1, "Moss"), "R1: 6 sc in ring [6]\nR2: 3 sc in Oat, 3 sc in Moss [6]\n")


@pytest.mark.parametrize(("rounds", "shift"), [(1, 0), (4, 0), (4, 3), (9, 23)])
def test_legs_take_half_each_and_close(rounds: int, shift: int) -> None:
    made = done(Divide(7, rounds, shift))
    worked = check(made).parts[0]
    assert sound(made), made
    assert worked.closed
    legs = [[t.live for t in worked.rounds if t.section == name] for name in ("First leg", "Second leg")]
    assert legs[0] == legs[1] == [12] * rounds + [6]
    assert "R8: (2 sc" not in made
    assert "Stuff as you go" in made
    taken = {
        p for t in worked.rounds[7:] if t.number == 8 for i in range(t.first, t.end) for p in worked.graph.parents_of(i)
    }
    assert len(taken) == 24, "every stitch of the body is in one leg"


@pytest.mark.parametrize("bridge", [1, 3, 12])
def test_chains_between_legs_are_worked_on_both_their_sides(bridge: int) -> None:
    made = done(Divide(7, 4, 0, bridge))
    worked = check(made).parts[0]
    assert sound(made), made
    legs = [[t.live for t in worked.rounds if t.section == name] for name in ("First leg", "Second leg")]
    assert legs[0][:4] == legs[1][:4] == [12 + bridge] * 4
    assert legs[0] == legs[1]
    assert worked.closed


def test_chains_between_legs_are_no_more_than_a_leg_has() -> None:
    with pytest.raises(CraftError, match="at most 12 chains"):
        done(Divide(7, 4, 0, 13))


def test_legs_begin_behind_a_round_within_a_fold() -> None:
    made = done(Divide(5, 3, 2))
    assert sound(made), made
    assert "R5: 24 sc, shift 2 [24]\nStuff." in made
    assert "R5-R7" not in made
    assert done(Divide(6, 3)).count("R5-R6: sc around [24]") == 1


@pytest.mark.parametrize(
    ("number", "said"), [(1, "plain round"), (2, None), (8, None), (9, "no round 9"), (0, "no round 0")]
)
def test_what_cannot_be_divided_says_why(number: int, said: str | None) -> None:
    if said is None:
        assert sound(done(Divide(number, 3)))
        return
    with pytest.raises(CraftError, match=said):
        done(Divide(number, 3))


def test_legs_take_an_even_number() -> None:
    with pytest.raises(CraftError, match="halved"):
        done(Divide(4, 3), done(Widen(5, 25)))


def test_a_part_ends_open_within_a_fold() -> None:
    made = done(OpenEnd(6))
    assert made.endswith("R5-R6: sc around [24]\nStuff.\nLeave a long tail for sewing.\n")


LIMB = "R1: 6 sc in ring [6]\nR2: (inc, 2 sc) x 2 [8]\nR3-R5: sc around [8]\nLeave a long tail for sewing.\n"


def test_a_limb_worked_in_comes_out_again() -> None:
    worked_in = work_in(BALL, Terms.US, 6, [Limb("first arm", 2, 4), Limb("second arm", 14, 4)])
    out = take_out(worked_in, Terms.US, "Arms")
    assert "through" not in out
    assert check(out).parts[0].counts == check(BALL).parts[0].counts
    assert open_flat(fold_flat(LIMB, Terms.US, 8), Terms.US) == LIMB
    assert open_flat(LIMB, Terms.US) == LIMB
    with pytest.raises(CraftError, match="No round works Ears in"):
        take_out(worked_in, Terms.US, "Ears")
