"""Sound patterns of our own invention, over all constructions known so far: none raises an alarm."""

from __future__ import annotations

from pathlib import Path

import pytest

from craft.text.check import check
from craft.text.notation import print_pattern, read

FOLDER = Path(__file__).parent

CORPUS = {
    "a pea": "R1: 4 sc in ring [4]\nR2: inc x 4 [8]\nR3: sc around [8]\nStuff.\nR4: dec x 4 [4]\nClose.",
    "rounds written out": "Round 1: 6 single crochets in a magic ring (6 stitches)\nRound 2: increase x 6 (12)\nRound 3: (1 single crochet, "
    "increase) x 6 (18)\nRounds 4 to 6: single crochet around (18)",
    "short labels": "1) MR 6 [6]\n2) 6 inc [12]\n3) (sc, inc) x 6 [18]\n4-6) sc around [18]\n7) (sc, dec) x 6 [12]\n8) 6 dec [6]",
    "bullets and bold": "- **Rnd 1:** 6 sc in magic circle (6)\n- **Rnd 2:** inc in each st (12)\n- **Rnd 3:** sc in each st around (12)",
    "equals": "R1 6 sc in ring = 6\nR2 2 sc in each st = 12\nR3 (2 sc in next st, sc in next st) x 6 = 18",
    "dashes": "Rnd 1 - 6 sc in ring - 6 sts\nRnd 2 - inc around - 12 sts\nRnd 3 – sc around – 12 sts",
    "stars closed": "R1: 6 sc in ring (6)\nR2: *inc* x 6 (12)\nR3: *1 sc, inc* x 6 (18)\nR4: *sc, inc, sc* repeat 6 times (24)",
    "stars from": "R1: 6 sc in ring (6)\nR2: *inc, rep from * around (12)\nR3: *sc, inc; rep from * to end (18)\nR4: *4 sc, dec; rep from * twice more (15)",
    "nested": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: ((sc, inc) x 2, 2 inc) x 2 [20]\nR4: (((sc) x 2, dec) x 2, 2 sc) x 2 [16]",
    "mixed shaping": "R1: 5 sc in ring [5]\nR2: 5 inc [10]\nR3: inc, 3 sc, dec, 3 sc, inc [11]\nR4: sc around [11]",
    "one-sided": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 3 inc, 9 sc [15]\nR4: 15 sc [15]\nR5: 3 dec, 9 sc [12]",
    "two-sided": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (3 inc, 6 sc) x 2 [24]\nR5-R8: sc around [24]",
    "no counts at all": "R1: 6 sc in ring\nR2: inc around\nR3: (sc, inc) around\nR4: sc around\nR5: dec around",
    "joined": "R1: ch 2, 8 sc in 2nd ch from hook, sl st to first sc [8]\nR2: ch 1, inc x 8, join [16]\nR3: ch 1, sc around, join with sl st to first st [16]",
    "taller stitches": "R1: 11 dc in ring [11]\nR2: ch 3, 22 dc, join\n".replace(
        "R2: ch 3, 22 dc, join\n", "R2: hdc around [11]\nR3: tr around [11]"
    ),
    "uk declared": "Terms: UK\nR1: 6 dc in ring [6]\nR2: inc x 6 [12]\nR3: (dc, dc2tog) x 4 [8]\nR4: htr around [8]",
    "uk by word": "R1: 6 dc in ring [6]\nR2: 12 dc in each st\n".replace(
        "R2: 12 dc in each st\n", "R2: 2 dc in each st [12]\nR3: (dc, dc2tog) x 4 [8]"
    ),
    "letters": "R1: 6X in ring (6)\nR2: 6V (12)\nR3: (X, V) * 6 (18)\nR4: 18X (18)\nR5: (X, A) * 6 (12)\nR6: 6A (6)",
    "letters with more": "R1: 5X in ring (5)\nR2: 5W (15)\nR3: (2X, M) * 3 (9)\nR4: 9T (9)",
    "triples": "R1: 6 sc in ring [6]\nR2: 3 sc in each st [18]\nR3: sc3tog x 6 [6]\n".replace(
        "3 sc in each st", "(inc3, inc) x 3"
    )
    .replace("[18]", "[15]")
    .replace("sc3tog x 6 [6]", "sc3tog x 5 [5]"),
    "slip stitches": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 6 sl st, 6 sc [12]\nR4: slip stitch around [12]",
    "loops": "R1: 6 sc in ring [6]\nR2: inc around [12]\nR3: BLO sc around [12]\nR4: in the front loops only, sc around [12]\nR5: sc around in BLO [12]",
    "invisible": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (inv dec, 2 sc) x 3 [9]\nR4: inv dec 3, 3 sc [6]",
    "stripes": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nChange to Moss\nR3-R4: sc around [12]\nChange colour to Oat\nR5-R6: sc around [12]",
    "colours within": "Yarn: Moss, Oat\nR1: with Moss, 6 sc in ring [6]\nR2: 3 inc, change to Oat, 3 inc [12]\nR3: (sc, with Moss, sc, with Oat, sc) x 4 [12]",
    "counts around curly": "R1: 6 sc in ring {6}\nR2: inc x 6 <12>\nR3: [sc, inc] x 6 {18}",
    "folds three ways": "R1: 6 sc in ring [6]\nR2-R4: sc around [6]\nR5–7: sc around [6] (3 rounds)\nR8: sc around for 3 rounds [6]\nR11: inc around [12]",
    "next rounds": "R1: 6 sc in ring [6]\nNext round: inc x 6 [12]\nNext rnd: sc around [12]",
    "restart": "Foot (make 2)\nR1: 6 sc in ring [6]\nR2: sc around [6]\n\nBody (make 1)\nR1: 8 sc in ring [8]\nR2: inc around [16]",
    "three parts": "Name: Bat\nBody\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\n\nWINGS - make 2\nR1: 3 sc in ring [3]\nR2: inc x 3 [6]\n\nEars: make two\n"
    "R1: 4 sc in ring [4]\nR2: sc around [4]",
    "eyes in time": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: sc around [18]. Insert the eyes between R3 and R4.\nR5: (sc, dec) x 6 [12]\n"
    "Stuff.\nR6: dec x 6 [6]\nClose.",
    "words between": "This is the best part.\n\nR1: 6 sc in ring [6]\nIt will curl; that is as it should be.\nR2: inc x 6 [12]\n> Breathe.\nR3: sc around [12]\nPlace a marker.",
    "crlf and blanks": "R1:  6 sc in ring  [6]\r\nR2:\tinc x 6 [12]\r\n\r\nR3: (\u00a0sc,\u202finc ) x 6 [18]\r\n",
    "capitals": "RND 1: 6 SC IN MAGIC RING (6)\nRND 2: INC X 6 (12)\nRND 3: (SC, INC) X 6 (18)",
    "then and and": "R1: 6 sc in ring [6]\nR2: inc 3 then sc 3 [9]\nR3: sc in next 3 sts and dec 3 [6]",
    "over": "R1: 8 sc in ring [8]\nR2: dec over next 4 sts, 4 sc [6]\nR3: dec over next 6 sts [3]",
    "once and twice": "R1: 6 sc in ring [6]\nR2: (sc, inc) twice, (sc, inc) once [9]\nR3: (2 sc, inc) three times [12]\n".replace(
        "three times", "3 times"
    ),
    "semicolons": "R1: 6 sc in ring; [6]\nR2: 2 sc; inc; 3 sc; [7]\nR3: 7 sc. [7]",
    "curl": "R1: 5 sc in ring [5]\nR2: sc around [5]\nR3-R12: sc around [5]\nFasten off, leaving a tail.",
    "big disc": "\n".join(
        ["R1: 6 sc in ring [6]", "R2: inc x 6 [12]", *(f"R{n}: ({n - 2} sc, inc) x 6 [{6 * n}]" for n in range(3, 20))]
    ),
}


CORPUS |= {path.stem: path.read_text("utf-8") for path in (FOLDER / "sound").glob("*.txt")}
FAULTY = sorted((FOLDER / "faulty").glob("*.txt"))

MAY_BE_MEANT = ("steep", "chain-counts")


def test_the_corpus_is_wide_enough() -> None:
    assert len(CORPUS) >= 60


@pytest.mark.parametrize("name", sorted(CORPUS))
def test_no_false_alarm(name: str) -> None:
    found = check(CORPUS[name])
    assert [(p.code, p.message) for p in found.problems if p.code not in MAY_BE_MEANT] == []
    assert any(part.rounds for part in found.parts)


@pytest.mark.parametrize("name", sorted(CORPUS))
def test_printed_it_is_the_same(name: str) -> None:
    first = read(CORPUS[name])
    again = read(print_pattern(first.pattern))
    assert [p.counts for p in check(print_pattern(first.pattern)).parts] == [
        p.counts for p in check(CORPUS[name]).parts
    ]
    assert print_pattern(again.pattern) == print_pattern(first.pattern)


@pytest.mark.parametrize("path", FAULTY, ids=lambda p: p.stem)
def test_a_faulty_pattern_is_told_once_and_in_its_place(path: Path) -> None:
    """The file's name says what is to be found: name.code.line.txt."""
    _, code, line = path.stem.rsplit(".", 2)
    found = [p for p in check(path.read_text("utf-8")).problems if p.code not in MAY_BE_MEANT]
    assert (found[0].code, found[0].place.line) == (code, int(line))
    assert all(p.place.line == int(line) for p in found)
