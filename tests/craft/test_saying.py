"""What is done in putting together in words, what is still loose, and where it mostly goes."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.assembly import Assembled, parts_with_wire, put_together
from craft.design.design import Design, Step
from craft.design.grading.sized import design_at, first_size, scaled
from craft.design.joins import EdgeOf, Fixing, Join, Manner, bends_at
from craft.design.parts import Part
from craft.design.running import run_parts, worked_parts
from craft.design.saying import disagrees, place_said, step_said
from craft.design.steps import loose_parts, steps_now
from craft.errors import CraftError
from craft.figure.placement import Bend, Proposal, Towards, clear_of, propose_seat
from craft.rounds.fabric import WorkedPart
from craft.text.check import check

BODY = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R9: 24 sc [24]
R10: (2 sc, dec) x 6 [18]
R11: (sc, dec) x 6 [12]
"""
SMALL = "R1: 6 sc in ring [6]\nR2-R4: 6 sc [6]\n"


def figure(*names: str, **joins: Join) -> Design:
    parts = [Part("body", "Body", BODY), *(Part(n.lower(), n, SMALL, 2 if n.endswith("s") else 1) for n in names)]
    return Design("Figure", parts=tuple(parts), joins=tuple(joins.values()))


def said(join: Join, text: str = "") -> str:
    design = replace(figure("Ears"), joins=(join,))
    return step_said(design, Step("s", text, "ears", join.key), worked_parts(run_parts(design)))


EARS = Join("j", "ears", "body", Place("body", 9, 4), paired=True)


@pytest.mark.parametrize(
    ("join", "words"),
    [
        (EARS, "Sew Ears on Body, R9, 4 stitches to either side of the front middle."),
        (
            replace(EARS, manner=Manner.PINCHED, paired=False),
            "Press the opening of Ears flat and sew it on Body, R9, 4 stitches to the left of the front middle as you look "
            "at it, pinched flat.",
        ),
        (replace(EARS, place=Place("body", 9, -12), paired=False), "Sew Ears on Body, R9, at the back, in the middle."),
        (
            replace(EARS, place=Place("body", 11, 0), paired=False, manner=Manner.EDGE),
            "Join Ears stitch to stitch on Body, R11, at the top.",
        ),
        (replace(EARS, manner=Manner.WORKED_IN), "Worked in, not sewn: Ears."),
        (
            replace(EARS, place=Place("body", 5), paired=False, fixing=Fixing.SLIPPED),
            "Slip Ears on Body, R5, at the front, in the middle.",
        ),
        (
            replace(EARS, edge=EdgeOf.START, manner=Manner.LAID),
            "Sew Ears on Body, R9, 4 stitches to either side of the front middle, upside down, on its first round.",
        ),
        (
            replace(EARS, bends=(Bend(3, 45), Bend(1, 20, Towards.IN))),
            "Sew Ears on Body, R9, 4 stitches to either side of the front middle, bent forwards by 45° at its R3, bent inwards "
            "by 20° at its R1.",
        ),
    ],
)
def test_a_step_says_itself(join: Join, words: str) -> None:
    assert said(join) == words


def test_a_step_about_nothing_says_nothing() -> None:
    design = figure()
    assert step_said(design, Step("s"), worked_parts(run_parts(design))) == ""
    gone = Place("gone", 3)
    assert place_said(design, gone, {}).startswith("on a part that is gone, R3")


@pytest.mark.parametrize(
    ("text", "agrees"),
    [
        ("Sew on the ears.", True),
        ("Sew on between R8 and R9.", True),
        ("Sew on over rounds 7-12.", True),
        ("Sew on at rnd 10.", True),
        ("Sew on at R4.", False),
        ("Sew on over R12 to R14.", False),
        ("Use a 9 mm eye and 24 cm of yarn.", True),
    ],
)
def test_her_own_sentence_is_held_against_the_place(text: str, agrees: bool) -> None:
    assert (disagrees(text, 9) is None) == agrees
    if not agrees:
        assert "it sits at R9" in (disagrees(text, 9) or "")


def test_what_is_loose_is_told_with_its_place() -> None:
    design = figure("Head", "Ears", "Tail", "Arms")
    found = put_together(design, run_parts(design), {})
    loose = {row.part: row for row in loose_parts(found)}
    assert set(loose) == {"head", "ears", "tail", "arms"}
    assert loose["head"].host == "body"
    assert loose["ears"].host == "head", "where there is a head, ears go on it"
    assert loose["tail"].guess is not None
    assert not loose["tail"].guess.paired
    joined = replace(design, joins=(Join("j", "tail", "body", Place("body", 4, 12)),))
    assert {row.part for row in loose_parts(put_together(joined, run_parts(joined), {}))} == {"head", "ears", "arms"}


def test_a_figure_of_one_part_has_nothing_loose() -> None:
    design = figure()
    assert loose_parts(put_together(design, run_parts(design), {})) == ()


def test_every_step_is_said_and_held_against_its_place() -> None:
    join = replace(EARS, key="j")
    steps = (Step("a", "", "ears", "j"), Step("b", "Sew the ears on at R3.", "ears", "j"))
    design = replace(figure("Ears"), joins=(join,), steps=steps)
    first, second = steps_now(put_together(design, run_parts(design), {}))
    assert first.said.startswith("Sew Ears on Body, R9")
    assert (first.differs is None, second.differs is None) == (True, False)


COUNTS = [6, 12, 18, 24, 30, 36, *[36] * 8, 33, 30, 27, 24, 21, 18, 12, 6]


@pytest.mark.parametrize(
    "name", ["Ears", "Arms", "Wings", "Legs", "Tail", "Nose", "Beak", "Hat", "Spines", "Tuft", "Belly"]
)
def test_two_of_a_name_never_go_to_one_place(name: str) -> None:
    first = propose_seat(name, COUNTS)
    taken = [(first.round, first.stitch), (first.round, -first.stitch)]
    second = clear_of(first, COUNTS, taken)
    assert second.round != first.round
    assert "taken" in second.why
    assert clear_of(first, COUNTS, []) == first


def test_names_of_the_trade_have_places_of_their_own() -> None:
    places = {n: propose_seat(n, COUNTS) for n in ("Wings", "Arms", "Hat", "Beak", "Spines", "Tail")}
    assert abs(places["Wings"].stitch) > abs(places["Arms"].stitch), "behind the arms"
    assert places["Hat"].round == len(COUNTS)
    assert places["Beak"].stitch == 0
    assert places["Spines"].stitch == 18, "at the back"
    assert places["Spines"].round > places["Tail"].round


def test_a_full_host_keeps_the_usual_place() -> None:
    everywhere = [(r, s) for r in range(1, len(COUNTS) + 1) for s in range(-18, 19, 2)]
    usual = Proposal(8, 0.0, False, 0.0, "why")
    assert clear_of(usual, COUNTS, everywhere) == usual


def _joined(make: int, *joins: Join) -> Assembled:
    design = figure("Ears")
    parts = tuple(replace(p, make=make) if p.key == "ears" else p for p in design.parts)
    design = replace(design, parts=parts, joins=joins)
    return put_together(design, run_parts(design), {})


@pytest.mark.parametrize(
    ("make", "joins", "over"),
    [
        (2, (Join("j", "ears", "body", Place("body", 9, 4), paired=True),), 0),
        (2, (Join("j", "ears", "body", Place("body", 11, 0)),), 1),
        (5, (Join("j", "ears", "body", Place("body", 6, 0), spread=3),), 2),
        (2, (Join("j", "ears", "body", Place("body", 9, 4)), Join("k", "ears", "body", Place("body", 9, -4))), 0),
        (1, (Join("j", "ears", "body", Place("body", 9, 4), paired=True),), 0),
    ],
)
def test_pieces_that_no_place_holds_lie_loose_and_are_told(make: int, joins: tuple[Join, ...], over: int) -> None:
    found = _joined(make, *joins)
    loose = [row for row in loose_parts(found) if row.part == "ears"]
    assert [row.many for row in loose] == ([over] if over else [])
    assert found.joined is (over == 0)
    beside = [p for p in found.placed if p.part == "ears" and not p.join]
    assert len(beside) == over


def test_each_of_several_hosts_carries_its_own() -> None:
    design = figure("Ears", "Lanterns")
    spots = Join("k", "lanterns", "ears", Place("ears", 1, 0))
    design = replace(design, joins=(EARS, spots))
    assert loose_parts(put_together(design, run_parts(design), {})) == ()
    alone = replace(design, joins=(EARS, replace(spots, host="body", place=Place("body", 2, 0))))
    assert [(row.part, row.many) for row in loose_parts(put_together(alone, run_parts(alone), {}))] == [("lanterns", 1)]


def test_a_loose_piece_lies_beside_the_figure_and_not_inside_it() -> None:
    found = _joined(2, Join("j", "ears", "body", Place("body", 11, 0)))
    lies = [p.in_scene(found.bodies[p.part].points()) for p in found.placed if p.part == "ears" and not p.join]
    others = [p.in_scene(found.bodies[p.part].points()) for p in found.placed if p.join or p.part != "ears"]
    assert min(x[:, 0].min() for x in lies) > max(x[:, 0].max() for x in others)


def test_what_hangs_on_a_limb_that_is_worked_in_is_told_where_it_is_shown() -> None:
    lantern = Join("k", "lantern", "ears", Place("ears", 1, 0))
    design = replace(figure("Ears", "Lantern"), joins=(EARS, lantern), steps=(Step("s", "", "lantern", "k"),))
    found = put_together(design, run_parts(design), {})
    assert not any("worked in" in note for note in steps_now(found)[0].notes)
    alone = replace(found, bodies={key: body for key, body in found.bodies.items() if key != "ears"})
    notes = steps_now(alone)[0].notes
    assert notes == ("Ears is worked in, so the picture shows Lantern beside the figure; the step holds as it is.",)


def bent_figure(*, ears: str = SMALL, step: str = "") -> Assembled:
    join = replace(EARS, bends=(Bend(3, 45),))
    design = Design("Figure", parts=(Part("body", "Body", BODY), Part("ears", "Ears", ears, 2)), joins=(join,))
    design = replace(design, steps=(Step("w", step, "ears"), Step("s", "", "ears", "j")))
    return put_together(design, run_parts(design), {})


@pytest.mark.parametrize(
    ("ears", "step", "keeps"),
    [
        (SMALL, "", False),
        (SMALL, "Put a wire into the ears.", True),
        (f"{SMALL}Insert the wire.\n", "", True),
        (SMALL, "Sew the ears on.", False),
    ],
)
def test_a_bend_that_no_wire_keeps_is_said(ears: str, step: str, *, keeps: bool) -> None:
    found = bent_figure(ears=ears, step=step)
    assert (parts_with_wire(found.design, found.worked) == {"ears"}) is keeps
    notes = next(row.notes for row in steps_now(found) if row.key == "s")
    assert any("Only wire keeps a bend" in note for note in notes) is not keeps


def test_a_limb_is_bent_in_four_places_at_most() -> None:
    assert len(replace(EARS, bends=(Bend(1, 10),) * 4).bends) == 4
    with pytest.raises(CraftError, match="up to 4"):
        replace(EARS, bends=(Bend(1, 10),) * 5)


@pytest.mark.parametrize(
    ("round_", "rounds", "at"), [(10, 40, 20), (10, 10, 5), (1, 40, 2), (20, 10, 10), (20, 40, 40)]
)
def test_an_elbow_stays_an_elbow_at_another_length(round_: int, rounds: int, at: int) -> None:
    def limb(many: int) -> WorkedPart:
        return check(f"R1: 6 sc in ring [6]\nR2-R{many}: sc around [6]\n").parts[0]

    (bend,) = bends_at(replace(EARS, bends=(Bend(round_, 45),)), limb(20), limb(rounds))
    assert bend.round == pytest.approx(at, abs=1)
    assert bends_at(replace(EARS, bends=(bend,)), None, limb(rounds)) == (bend,)


def test_a_larger_size_is_bent_at_its_own_elbow() -> None:
    limb = "R1: 6 sc in ring [6]\nR2-R20: sc around [6]\nInsert the wire.\n"
    join = replace(EARS, bends=(Bend(10, 45),))
    design = Design("Figure", parts=(Part("body", "Body", BODY), Part("ears", "Ears", limb, 2)), joins=(join,))
    twice = scaled(first_size(design, run_parts(design)), 2.0)
    rounds = len(twice.worked["ears"].rounds)
    assert rounds > 30
    (kept,) = design_at(twice).joins
    assert kept.bends[0].degrees == 45
    assert kept.bends[0].round == pytest.approx(rounds / 2, abs=1)
