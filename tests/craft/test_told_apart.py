"""Rounds told beside their labels or without any: a ring ahead of the numbers, counts line by line, parts in one line."""

from __future__ import annotations

import pytest

from benchmarks.reading import counts_of
from craft.text.check import check
from craft.text.checked import Checked


def _told(text: str) -> list[str]:
    translation = check(text).translation
    return [] if translation is None else [line.text for line in translation.lines]


def _plainly(checked: Checked) -> list[str]:
    return [p.message for p in checked.problems]


@pytest.mark.parametrize(
    ("text", "counts"),
    [
        ("WING\nWork 5dc into a slip ring.\n1st round: 1dc into each dc.\n2nd round: 2dc into each dc. 10dc.\n", (5, 5, 10)),
        ("BALL\nWork 6dc into a slip ring. 1st round: 2dc into each dc (12dc). 2nd round: dc into each dc.\n", (6, 12, 12)),
        ("BALL\n6 fM in einen Fadenring.\n1. Rd: jede M verdoppeln (12)\n2. Rd: fM (12)\n", (6, 12, 12)),
        ("BALLE\n6 ms dans un cercle magique.\n1er tour : 2 ms dans chaque maille (12)\n2e tour : ms (12)\n", (6, 12, 12)),
    ],
)  # fmt: skip
def test_rounds_that_are_numbered_from_the_one_behind_the_ring(text: str, counts: tuple[int, ...]) -> None:
    found = check(text)
    assert found.sound, _plainly(found)
    assert counts_of(found) == (counts,)
    assert any("The ring is R1 here" in message for message in _plainly(found))


def test_a_round_that_is_spoken_of_is_counted_from_the_ring_too() -> None:
    text = "BALL\n6 dc into a slip ring.\nRound 1: 2 dc into each dc (12)\nRound 2: dc into each dc (12)\nRound 3: as round 2\n"
    assert "R4: sc around [12]" in _told(text)


@pytest.mark.parametrize(
    "text",
    [
        "BALL\nMake a magic ring.\nRound 1: 6 sc into the ring (6)\nRound 2: inc in each (12)\n",
        "BALL\n6 fM in Fadenring.\n1. Rd: 6 fM\n2. Rd: jede M verdoppeln (12)\n",
    ],
)
def test_a_ring_that_is_the_first_round_is_counted_once(text: str) -> None:
    found = check(text)
    assert found.sound, _plainly(found)
    assert counts_of(found) == ((6, 12),)


@pytest.mark.parametrize(
    ("text", "counts"),
    [
        ("egg\n6\n12 (inc all)\n18 (every 2nd)\n18 for 2 more rounds\n12\n6\n", (6, 12, 18, 18, 18, 12, 6)),
        ("Snowball\nStart: 6\nR2: 12\nR3: 18\nR4: 18\n", (6, 12, 18, 18)),
        ("acorn\nnut, tan: MR5 / inc5 (10) / 15 x2 / 10\n", (5, 10, 15, 15, 10)),
        ("PILZ\nHut (rot): 6 fM im Fadenring (6) - 6x Zun (12) - 2 Rd fM (12)\n", (6, 12, 12, 12)),
        ("TOY\nr1 mr6\nr2 inc (12)\nr3 sc-inc (18)\nr4 2sc-inc (24)\n", (6, 12, 18, 24)),
        ("HEN\nBody: make a loop, 2ch, work 6dc in first ch made.\nRound 2: 2dc in each dc (12)\n", (6, 12)),
        ("FOX\n☐ R1 6sc mr\n☐ R2 inc ×6 (12)\n☑ R3→R5 12sc\n", (6, 12, 12, 12, 12)),
        ("Bal\n1. 6 v in magische ring\n2. 6 meerd (12)\n3 + 4. v\n", (6, 12, 12, 12)),
        ("Hat\nMagic ring of 6 sc.\nRound two is two sc in each stitch (12). Round three takes no increases.\n", (6, 12, 12)),
        ("BEE\nA: With 6 sc in a magic ring, then R2 inc in each (12), R3 sc, inc around (18).\n", (6, 12, 18)),
    ],
)  # fmt: skip
def test_rounds_told_without_labels_of_their_own(text: str, counts: tuple[int, ...]) -> None:
    found = check(text)
    assert found.sound, _plainly(found)
    assert counts_of(found) == (counts,)


@pytest.mark.parametrize(
    "text",
    [
        "bee\nR1 6mr\nR2 6zz 12\nR3 (s i)6 18\nR4 18s\n",
        "egg\n6\n12 (inc all)\n18\n25 for 4 more rounds\n18\n",
        "acorn\nnut, tan: MR5 / inc5 (10) / 11 / 10\n",
        "Snow\nR2: 12\nR3: 18\n",
        "Arm\nRing of 6 sc.\nNext round, inc in each so you have 13. Then work even for two rounds.\n",
    ],
)
def test_what_is_not_understood_there_is_never_sound(text: str) -> None:
    assert not check(text).sound


def test_pairs_explain_words_without_a_sign() -> None:
    legend = "legend: s sc, i inc, d dec, mr magic ring, blk black, yel yellow"
    text = f"bee\nR1 6mr\nR2 6i 12\nR3 blk (s i)6 18\nR4 yel 18s\nR5 (s d)6 12\n{legend}\n"
    found = check(text)
    assert found.sound, _plainly(found)
    assert counts_of(found) == ((6, 12, 18, 18, 12),)
    assert any("Yellow" in line for line in _told(text))


def test_a_line_that_says_the_yarn_is_kept_names_no_part() -> None:
    text = (
        "Been 1\n1: 6 v in mr\n2: 6 x meerderen (12)\nKnip de draad af.\nBeen 2\n1: 6 v in mr\n2: 6 x meerderen (12)\n"
        "Knip de draad niet af, we haken nu verder aan het lijf.\n3: 12 v over been 2, 12 v over been 1 (24)\n"
    )
    assert counts_of(check(text)) == ((6, 12), (6, 12, 24))
