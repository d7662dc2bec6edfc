"""The registry: adding a stitch is adding an entry, and nothing else."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

import craft
from craft.rounds.stitches import MOST_INTO_ONE, STITCHES, Loops, Terms, decrease_of, increase_of
from craft.text.check import check
from craft.text.notation import read

ENTRY = '''
    Stitch(
        "mothst", 1, 1, ("moth st", "moth stitch"), ("moth st", "moth stitch"), ("moth stitch", "moth stitch"),
        ("Flutter the hook twice.",) * 2, ("MoM", "mmo", "pmo"), Sign.POST1, "Y", 1.2, postable=True,
    ),
)
"""Stitches in the order'''


def test_adding_a_stitch_touches_its_entry_and_nothing_else(tmp_path: Path) -> None:
    """A copy of the craft with one entry more reads, counts, raises, prints, charts and explains it."""
    home = Path(craft.__file__).parent
    shutil.copytree(home, tmp_path / "craft", ignore=shutil.ignore_patterns("__pycache__"))
    path = tmp_path / "craft" / "rounds" / "stitches" / "entries.py"
    text = path.read_text("utf-8")
    marker = ')\n"""Stitches in the order'
    assert text.count(marker) == 1
    path.write_text(text.replace(marker, ENTRY.lstrip("\n")), "utf-8")
    (tmp_path / "moth.txt").write_text("R1: 6 sc in ring [6]\nR2: 6 moth stitch [6]\nR3: FPmoth st around [6]\n")

    # Grammar tables are kept beside the bytecode, where that may be written.
    env = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}

    def run(*words: str) -> str:
        line = [sys.executable, "-m", "craft", *words]
        done = subprocess.run(line, cwd=tmp_path, env=env, capture_output=True, text=True, check=True)
        return done.stdout

    found = json.loads(run("run", "moth.txt", "--json"))
    kinds = [s["kind"] for s in found["parts"][0]["stitches"]]
    assert kinds == ["sc"] * 6 + ["mothst"] * 12
    assert {s["loop"] for s in found["parts"][0]["stitches"][12:]} == {"front-post"}
    assert "R2: 6Y" in run("convert", "moth.txt", "--to", "text", "--to-terms", "letters")
    assert "6 MoM" in run("convert", "moth.txt", "--to", "text", "--language", "de")
    assert "moth stitch" in run("convert", "moth.txt", "--to", "svg")


@pytest.mark.parametrize("terms", list(Terms))
def test_every_spelling_of_every_stitch_is_read_as_it(terms: Terms) -> None:
    for key, entry in STITCHES.items():
        if key == "ch":
            continue
        for word in entry.spellings(terms):
            text = f"R1: 12 sc in ring\nR2: {word}" if terms is not Terms.UK else f"R1: 12 dc in ring\nR2: {word}"
            reading = read(text, terms)
            bodies = [r.body for p in reading.pattern.parts for r in p.rounds]
            assert len(bodies) == 2
            (item,) = bodies[1]
            assert getattr(item, "stitch", None) == key, (word, terms, item)


@pytest.mark.parametrize("n", range(2, MOST_INTO_ONE + 1))
@pytest.mark.parametrize("base", ["sc", "hdc", "dc", "tr", "dtr"])
def test_increases_of_every_order(base: str, n: int) -> None:
    entry = increase_of(base, n)
    assert entry is not None
    assert (entry.takes, entry.gives, entry.base) == (1, n, base)
    found = check(f"R1: 6 sc in ring [6]\nR2: {n} {base} in each st [{6 * n}]", Terms.US)
    assert found.parts[0].counts == (6, 6 * n)
    assert found.sound


@pytest.mark.parametrize("n", range(2, 10))
def test_decreases_of_every_order(n: int) -> None:
    entry = decrease_of("hdc", n)
    assert entry is not None
    assert check(f"R1: {3 * n} sc in ring [{3 * n}]\nR2: hdc{n}tog x 3 [3]").sound
    assert check(f"R1: {3 * n} sc in ring [{3 * n}]\nR2: dec over next {3 * n} sts\n").parts[0].rounds


@pytest.mark.parametrize(
    ("word", "terms", "loops"),
    [
        ("FPsc", Terms.US, Loops.FRONT_POST),
        ("bp dc", Terms.US, Loops.BACK_POST),
        ("front post hdc", Terms.US, Loops.FRONT_POST),
        ("FPdc", Terms.UK, Loops.FRONT_POST),
        ("raised back tr", Terms.UK, Loops.BACK_POST),
        ("rtrf", Terms.UK, Loops.FRONT_POST),
    ],
)
def test_raised_stitches(word: str, terms: Terms, loops: Loops) -> None:
    start = "dc" if terms is Terms.UK else "sc"
    graph = check(f"R1: 6 {start} in ring [6]\nR2: {word} around [6]", terms).parts[0].graph
    assert {list(Loops)[code] for code in graph.loops[6:]} == {loops}
