"""The demo's shelf of pieces: sound, of several designers, on several terms."""

from __future__ import annotations

import json

import pytest

from craft.design.running import run_parts
from studio.demo.pieces import DATA, piece_of_tree

TREE = json.loads(DATA.read_text("utf-8"))


@pytest.mark.parametrize("tree", TREE["pieces"], ids=[t["title"] for t in TREE["pieces"]])
def test_every_piece_of_the_demo_is_sound(tree: dict[str, object]) -> None:
    piece = piece_of_tree(tree, TREE["colours"])
    for run in run_parts(piece.design):
        assert run.worked is not None
        assert not run.checked.problems, (run.name, [p.message for p in run.checked.problems])


def test_there_are_at_least_twelve_by_three_designers_on_different_terms() -> None:
    pieces = TREE["pieces"]
    assert len(pieces) >= 12
    designers = {p["designer"] for p in pieces if p["designer"]}
    assert len(designers) == 3
    terms = {d: json.dumps(next(p["permissions"] for p in pieces if p["designer"] == d)) for d in designers}
    assert len(set(terms.values())) == 3
