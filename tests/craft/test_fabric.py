"""Running rounds: counts, verdicts, mends, conventions."""

from __future__ import annotations

from itertools import pairwise

import pytest

from craft.problems import CODES, Problem, Severity
from craft.rounds.fabric import LOOP_ORDER, EdgeKind
from craft.rounds.stitches import Loops
from craft.text.check import check

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R7: sc around [24]
R8: (2 sc, dec) x 6 [18]
Stuff firmly.
R9: (sc, dec) x 6 [12]
R10: dec x 6 [6]
Close."""


def swap(old: str, new: str, text: str = BALL) -> str:
    assert old in text
    return text.replace(old, new, 1)


def only(text: str) -> Problem:
    found = [p for p in check(text).problems if p.severity is not Severity.HINT]
    assert len(found) == 1, found
    return found[0]


def mended(text: str) -> str:
    fix = only(text).fix
    assert fix is not None
    return text[: fix.start] + fix.text + text[fix.end :]


def test_a_ball_adds_up() -> None:
    found = check(BALL)
    assert found.sound
    assert not found.problems
    (part,) = found.parts
    assert part.counts == (6, 12, 18, 24, 24, 24, 24, 18, 12, 6)
    assert part.closed
    assert [(s.kind.value, s.after, s.live) for s in part.steps] == [("stuff", 8, 18), ("close", 10, 6)]
    assert part.rounds[2].marks == ((1, 1), (4, 1), (7, 1), (10, 1), (13, 1), (16, 1))
    assert part.rounds[7].marks[0] == (2, -1)


def test_the_repeat_that_fits_is_offered() -> None:
    broken = swap("(2 sc, inc) x 6 [24]", "(2 sc, inc) x 7 [24]")
    problem = only(broken)
    assert problem.code == "short"
    assert "fits 18 six times: x 6?" in problem.message
    assert mended(broken) == BALL


def test_a_wrong_bracket_is_found_by_the_next_round() -> None:
    broken = swap("(2 sc, inc) x 6 [24]", "(2 sc, inc) x 6 [25]")
    problem = only(broken)
    assert (problem.code, problem.place.round) == ("sum", "R4")
    assert "the bracket is wrong" in problem.message
    assert mended(broken) == BALL


def test_wrong_stitches_are_found_by_bracket_and_next_round() -> None:
    broken = swap("R3: (sc, inc) x 6 [18]", "R3: (sc, inc, sc, sc) x 3 [18]")
    problem = only(broken)
    assert (problem.code, problem.place.round) == ("sum", "R3")
    assert "the stitches are wrong" in problem.message
    assert problem.fix is None


def test_nobody_can_know_without_evidence() -> None:
    text = "R1: 6 sc in ring\nR2: inc x 6 [13]\nR3: sc around"
    problem = only(text)
    assert problem.code == "sum"
    assert "likelier" in problem.message


def test_left_over_and_misfit() -> None:
    assert only(swap("R8: (2 sc, dec) x 6 [18]", "R8: (2 sc, dec) x 5 [18]")).code == "left-over"
    uneven = only("R1: 7 sc in ring [7]\nR2: (sc, inc) around")
    assert uneven.code == "misfit"
    assert "3 times use 6, 1 are left" in uneven.message
    plain = swap("R5-R7: sc around [24]", "R5-R7: 23 sc [24]")
    assert mended(plain) == swap("R5-R7: sc around [24]", "R5-R7: 24 sc [24]")


def test_one_slip_is_one_problem() -> None:
    """A fault does not drag the rounds above it along."""
    assert only(swap("R2: inc x 6 [12]", "R2: inc x 5 [12]")).place.round == "R2"


def test_numbers_missing_and_doubled() -> None:
    assert only(swap("R9:", "R10:").replace("R10: dec", "R11: dec")).code == "skipped-number"
    assert only(swap("R9:", "R8:").replace("R10: dec", "R9: dec")).code == "double-number"
    assert check("R1: 6 sc in ring\nR2: sc around\nNext round: sc around\nR4: sc around").sound


def test_starts() -> None:
    assert only("R1: 30 sc [30]\nR2: sc around [30]").code == "no-start"
    assert check("R1: 6 sc [6]\nR2: sc around [6]").sound, "a small first round says its ring by its count"
    assert only("R1: 6 sc in ring [6]\nR2: 6 sc in ring [6]\nR3: sc around [6]").code == "second-start"
    assert check("R1: ch 2, 6 sc in 2nd ch from hook [6]\nR2: ch 1, inc around, join [12]").sound


def test_order_of_work() -> None:
    late = only(swap("R10: dec x 6 [6]\n", "R10: dec x 6 [6]\nInsert the eyes.\n"))
    assert (late.code, late.place.line) == ("eyes-late", 10)
    inside = only(BALL + "\nStuff a little more.")
    assert inside.code == "after-close"
    early = swap("R5-R7: sc around [24]", "R5-R7: sc around [24]\nInsert the eyes between R5 and R6.")
    assert check(early).sound
    assert not check(early).problems


def test_invisible_decreases_need_their_front_loops() -> None:
    assert only(swap("R8: (2 sc, dec) x 6 [18]", "R8: BLO: (2 sc, inv dec) x 6 [18]")).code == "loops"


def test_colours_are_looked_up_only_when_there_is_a_list() -> None:
    coloured = swap("R5-R7", "Change to Oat\nR5-R7")
    assert check(coloured).sound
    assert not check(coloured).problems
    assert only("Yarn: Moss, Bark\n" + coloured).code == "unlisted-colour"
    assert not check("Yarn: Moss, Oat\n" + coloured).problems
    graph = check(coloured).parts[0].graph
    assert graph.colours == ("Main", "Oat")
    assert int((graph.colour == 0).sum()) == 60


def test_a_part_with_a_plural_name_made_once_is_a_hint() -> None:
    codes = [p.code for p in check("Arms (make 1)\n" + BALL).problems]
    assert codes == ["make-one"]
    assert not check("Arms (make 2)\n" + BALL).problems


def test_ruffles_are_no_fault() -> None:
    found = check("R1: 6 sc in ring [6]\nR2: 3 sc in each st [18]\nR3: sc around [18]")
    assert found.sound
    assert [p.code for p in found.problems] == ["steep"]


def test_no_rounds_is_told() -> None:
    assert [p.code for p in check("Dear diary,\nnothing today.").problems] == ["no-rounds"]


def test_faulty_fabric_still_holds_together() -> None:
    found = check(swap("R4: (2 sc, inc) x 6", "R4: (2 sc, inc) x 40"))
    graph = found.parts[0].graph
    assert graph.parents.max() < len(graph)
    assert len(graph.parents_of(len(graph) - 1)) == 2


@pytest.mark.parametrize("code", sorted(CODES))
def test_codes_have_a_meaning(code: str) -> None:
    severity, meaning = CODES[code]
    assert isinstance(severity, Severity)
    assert meaning.endswith(".")


def test_a_bridge_in_a_front_loop_round_goes_into_no_loop() -> None:
    graph = check("R1: 6 sc in ring [6]\nR2: FLO: 4 sc, ch 2, skip 2 [6]").parts[0].graph
    into = [LOOP_ORDER[n] for n in graph.loops[6:]]
    assert into == [Loops.FRONT] * 4 + [Loops.BOTH] * 2


def test_edges_are_noted_as_they_lay_after_every_round() -> None:
    panel = "Ch 5\nRow 1: sc in 2nd ch from hook and in each ch across [4]\nRow 2: ch 1, turn, 4 sc [4]"
    graph = check(panel).parts[0].graph
    edges = [graph.edges[a:b].tolist() for a, b in pairwise(graph.first_edge.tolist())]
    kinds = [EdgeKind(k) for k in graph.edge_kind]
    made = [e for e in edges if len(e) == 4]
    assert len(made) == 2
    assert set(kinds) == {EdgeKind.OPEN}
    assert graph.parents[graph.first_parent[made[1][0]]] == made[0][-1], "a turned row starts over the last stitch"


def test_a_part_that_is_closed_ends_in_a_shut_edge() -> None:
    graph = check("R1: 6 sc in ring [6]\nR2: 6 sc [6]\nClose.").parts[0].graph
    assert [EdgeKind(k) for k in graph.edge_kind] == [EdgeKind.ROUND, EdgeKind.ROUND, EdgeKind.SHUT]
