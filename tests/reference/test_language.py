"""The language of rounds against facts of the trade and against a second, simple-minded hook.

Counts below are common practice (no source). The second hook keeps the live edge as a list and works
one stitch at a time; it shares nothing with the craft's interpreter but the registry's takes and gives.
"""

from __future__ import annotations

from collections import deque

import numpy as np
import pytest
from hypothesis import given, settings
from scipy.sparse import csr_array
from scipy.sparse.csgraph import connected_components

from craft.rounds.fabric import ARRAYS, KIND_KEYS, StitchGraph, run_pattern
from craft.rounds.pattern import Chain, Cluster, Instruction, Join, Pattern, Repeat, Same, Start, Work
from craft.rounds.stitches import STITCHES
from craft.text.check import check
from tests.craft.programs import patterns

# --- common practice, no source -------------------------------------------------------------


@pytest.mark.parametrize("chain", range(4, 30))
def test_an_oval_along_both_sides_of_a_chain_has_twice_its_length(chain: int) -> None:
    text = (
        f"Ch {chain}\nR1: sc in 2nd ch from hook, {chain - 3} sc, 3 sc in last ch, along the other side {chain - 3} sc, "
        f"2 sc in last ch\nR2: inc, {chain - 3} sc, 3 inc, {chain - 3} sc, 2 inc\n"
    )
    found = check(text)
    assert found.sound
    assert found.parts[0].counts == (2 * chain, 2 * chain + 6)


@pytest.mark.parametrize("leg", [8, 12, 15, 18])
@pytest.mark.parametrize("bridge", [0, 1, 3, 5])
def test_two_legs_and_a_bridge(leg: int, bridge: int) -> None:
    """12 + 3 + 12 + 3 = 30: both sides of the chain count; without a chain 24."""
    chain = f"ch {bridge}, " if bridge else ""
    back = f", {bridge} sc along the chain" if bridge else ""
    text = (
        f"Legs (make 2)\nR1: {leg} sc in ring\nR2: sc around\nFasten off.\n\nBody\n"
        f"R1: {leg} sc around the first leg, {chain}{leg} sc around the second leg{back}\n"
    )
    found = check(text)
    assert not [p for p in found.problems if p.code != "make-one"]
    assert found.parts[1].counts == (2 * leg + 2 * bridge,)


@pytest.mark.parametrize("shared", [1, 2, 3])
def test_legs_that_overlap_lose_the_shared_stitches_twice(shared: int) -> None:
    text = (
        "Legs (make 2)\nR1: 12 sc in ring\nFasten off.\n\nBody\n"
        f"R1: {shared} sl st through both legs, {12 - shared} sc around the first leg, {12 - shared} sc around the second leg\n"
    )
    assert check(text).parts[1].counts == (24 - 2 * shared,)


@pytest.mark.parametrize(("tube", "flat"), [(6, 3), (8, 4), (12, 6), (9, 4)])
def test_a_tube_closed_flat_has_half_its_stitches(tube: int, flat: int) -> None:
    text = f"R1: {tube} sc in ring\nR2: sc around\nPress flat and work {flat} sc through both layers [{flat}]\n"
    found = check(text)
    assert found.sound, found.problems
    graph = found.parts[0].graph
    last = found.parts[0].rounds[-1]
    assert all(len(graph.parents_of(i)) == 2 for i in range(last.first, last.end))


def test_a_stitch_through_limb_and_body_has_parents_on_both() -> None:
    text = (
        "Arm (make 2)\nR1: 8 sc in ring\nR2: sc around\nPress flat, 4 sc through both layers [4]\n\n"
        "Body\nR1: 20 sc in ring\nR2: 3 sc, 4 sc through the first arm and body, 6 sc, 4 sc through the second arm and body, 3 sc\n"
    )
    body = check(text).parts[1]
    graph = body.graph
    on_two = [i for i in range(len(graph)) if {int(graph.piece[p]) for p in graph.parents_of(i)} >= {0, 1}]
    assert len(on_two) == 4
    assert body.counts == (20, 20)


@pytest.mark.parametrize("loops", ["front", "back"])
def test_a_round_in_one_loop_leaves_the_other_free(loops: str) -> None:
    worked = "BLO" if loops == "front" else "FLO"
    text = (
        f"R1: 12 sc in ring\nR2: {worked}: sc around\nR3: sc around\nFasten off.\n"
        f"R1: in the free {loops} loops of R1, sc around [12]\n"
    )
    assert check(text).sound
    other = "back" if loops == "front" else "front"
    wrong = text.replace(f"free {loops}", f"free {other}")
    assert [p.code for p in check(wrong).problems if p.severity == "fault"] == ["free-loops"]


def test_a_sideways_hem_takes_two_edge_stitches_a_pair_of_rows() -> None:
    edge = 24
    rows = edge // 2
    text = [
        f"Ch {edge}, join.",
        "R1: sc around",
        "Ch 6.",
        "Row 1: from 2nd ch, 5 sc, 2 sl st in the edge sts, turn [5]",
    ]
    for n in range(2, 2 * rows, 2):
        text.append(f"Row {n}: skip the sl sts, 5 sc in BLO, turn [5]")
        text.append(f"Row {n + 1}: ch 1, 5 sc in BLO, 2 sl st in the edge sts, turn [5]")
    assert check("\n".join(text)).sound
    assert [p.code for p in check("\n".join(text[:-2])).problems] == ["held-left"]


def test_short_rows_keep_the_live_count() -> None:
    rows = "".join(f"R{n}: ch 1, {many} sc, turn [24]\n" for n, many in enumerate((10, 8, 6, 4), 2))
    text = f"R1: 24 sc in ring [24]\n{rows}R6: sc around [24]\n"
    found = check(text)
    assert found.sound
    assert sum(t.made for t in found.parts[0].rounds) == 24 + 10 + 8 + 6 + 4 + 24


# --- a second hook --------------------------------------------------------------------------


def _naive(
    body: tuple[Instruction, ...], edge: list[int], next_id: int
) -> tuple[list[int], list[tuple[int, list[int]]]]:
    """Work a plain round one stitch at a time: the new edge, and (stitch, parents) in order."""
    waiting = deque(edge)
    made: list[tuple[int, list[int]]] = []
    live: list[int] = []

    def stitch(key: str) -> None:
        entry = STITCHES[key]
        parents = [waiting.popleft() for _ in range(entry.takes)]
        for _ in range(entry.gives):
            made.append((next_id + len(made), parents))
            live.append(made[-1][0])

    def work(items: tuple[Instruction, ...]) -> None:
        for item in items:
            match item:
                case Work():
                    for _ in range(item.count):
                        stitch(item.stitch)
                case Repeat() if item.times is not None:
                    for _ in range(item.times):
                        work(item.body)
                case Repeat():
                    while len(waiting) > (item.leave or 0):
                        work(item.body)
                case Start():
                    for _ in range(item.count):
                        made.append((next_id + len(made), []))
                        live.append(made[-1][0])
                case _:
                    pass

    work(body)
    assert not waiting
    return live, made


def _simple(body: tuple[Instruction, ...]) -> bool:
    return all(
        (isinstance(i, Work) and i.through is None)
        or isinstance(i, Start | Join)
        or (isinstance(i, Chain) and i is body[0])
        or (isinstance(i, Repeat) and _simple(i.body) and not any(isinstance(b, Chain) for b in i.body))
        for i in body
    ) and not any(isinstance(i, Cluster | Same) for i in body)


@settings(max_examples=120, deadline=None)
@given(patterns())
def test_the_second_hook_makes_the_same_graph(pattern: Pattern) -> None:
    for part, worked in zip(pattern.parts, run_pattern(pattern)[0], strict=True):
        graph = worked.graph
        rounds = part.rounds
        edge: list[int] = []
        next_id = 0
        for tally in worked.rounds:
            body = rounds[tally.source].body
            on_chain = tally.start and not any(isinstance(i, Start) for i in body)
            if on_chain or not _simple(body) or tally.section or graph.pieces or next_id != tally.first:
                break
            edge, made = _naive(body, edge, next_id)
            assert [parents for _, parents in made] == [graph.parents_of(i) for i in range(tally.first, tally.end)]
            next_id += len(made)
            assert len(edge) == tally.live


# --- the graph as a general-purpose library sees it ------------------------------------------


def _neighbours(graph: StitchGraph) -> csr_array:
    """Which stitches touch: parents, the one made before, and ends that are joined."""
    pairs = [(i, p) for i in range(len(graph)) for p in graph.parents_of(i)]
    own = [i for i in range(1, len(graph)) if graph.round[i] >= 0 and graph.piece[i] == graph.piece[i - 1]]
    pairs += [(i, i - 1) for i in own] + [(int(a), int(b)) for a, b in graph.joins]
    rows, columns = np.array(pairs, int).reshape(-1, 2).T
    return csr_array((np.ones(len(rows)), (rows, columns)), shape=(len(graph), len(graph)))


@settings(max_examples=60, deadline=None)
@given(patterns())
def test_fabric_hangs_together(pattern: Pattern) -> None:
    """SciPy's graph routines: every part is one connected piece, limbs and pieces worked in included."""
    for part in run_pattern(pattern)[0]:
        if len(part.graph):
            many, _ = connected_components(_neighbours(part.graph), directed=False)
            assert many == 1


def test_a_bridge_leaves_a_hole_that_a_plain_round_does_not() -> None:
    """Euler: as many stitches, but three joints fewer than over a closed round, so the mesh has a gap."""
    head = "R1: 12 sc in ring\nR2: sc around\n"
    plain = check(head + "R3: sc around\nR4: sc around\n").parts[0]
    holed = check(head + "R3: 5 sc, ch 3, skip 3, 4 sc\nR4: sc around\n").parts[0]
    assert len(plain.graph) == len(holed.graph)
    assert _neighbours(plain.graph).nnz - _neighbours(holed.graph).nnz == 3
    assert [(h.at, h.chains, h.passed) for h in holed.rounds[2].holes] == [(5, 3, 3)]


def test_arrays_are_read_only_and_of_one_length() -> None:
    graph = check("R1: 6 sc in ring\nR2: inc x 6").parts[0].graph
    assert all(not getattr(graph, name).flags.writeable for name in ARRAYS)
    assert {len(getattr(graph, n)) for n in ("kind", "round", "colour", "loops", "piece", "front", "live")} == {18}
    assert KIND_KEYS[int(graph.kind[-1])] == "inc"
    with pytest.raises(ValueError, match="read-only"):
        graph.parents[0] = 3
    assert np.array_equal(np.diff(graph.first_parent), [0] * 6 + [1] * 12)
