"""Facts of the trade: words, starts, arithmetic. Common practice, no source, unless a line says more."""

from __future__ import annotations

import pytest

from craft.rounds.stitches import STITCHES, Terms, stitch
from craft.text.check import check


@pytest.mark.parametrize(
    ("key", "us", "uk"),
    [
        ("sc", "sc", "dc"),
        ("hdc", "hdc", "htr"),
        ("dc", "dc", "tr"),
        ("tr", "tr", "dtr"),
        ("slst", "sl st", "ss"),
        ("inc", "inc", "inc"),
        ("dec", "dec", "dec"),
        ("invdec", "inv dec", "inv dec"),
    ],
)
def test_us_and_uk_words(key: str, us: str, uk: str) -> None:
    assert (stitch(key).name(Terms.US), stitch(key).name(Terms.UK)) == (us, uk)


@pytest.mark.parametrize(
    ("letter", "key"),
    [("X", "sc"), ("V", "inc"), ("A", "dec"), ("W", "inc3"), ("M", "dec3"), ("T", "hdc"), ("F", "dc")],
)
def test_letters(letter: str, key: str) -> None:
    assert stitch(key).letter == letter


@pytest.mark.parametrize(
    ("key", "takes", "gives"),
    [("sc", 1, 1), ("inc", 1, 2), ("inc3", 1, 3), ("dec", 2, 1), ("invdec", 2, 1), ("dec3", 3, 1)],
)
def test_what_stitches_do_to_the_round(key: str, takes: int, gives: int) -> None:
    assert (stitch(key).takes, stitch(key).gives) == (takes, gives)


def test_heights_in_single_crochets() -> None:
    assert [STITCHES[k].height for k in ("sc", "hdc", "dc", "tr")] == [1, 1.5, 2, 3]


def test_ring_and_chain_two_give_the_same_count() -> None:
    ring = check("R1: 6 sc in magic ring [6]\nR2: inc x 6 [12]")
    chain = check("R1: ch 2, 6 sc in 2nd ch from hook [6]\nR2: inc x 6 [12]")
    assert ring.sound
    assert chain.sound
    assert ring.parts[0].counts == chain.parts[0].counts


def test_dc_in_six_twelve_eighteen_is_uk() -> None:
    found = check("R1: 6 dc in ring [6]\nR2: inc x 6 [12]\nR3: (dc, inc) x 6 [18]")
    assert found.reading.found.used is Terms.UK
    assert found.sound


@pytest.mark.parametrize("text", ["2 sc in next st", "inc", "2 single crochets into the same stitch"])
def test_two_in_one_is_an_increase(text: str) -> None:
    assert check(f"R1: 6 sc in ring [6]\nR2: {text}, 5 sc [7]").sound


def test_six_n_rounds_add_six() -> None:
    lines = ["R1: 6 sc in ring [6]", "R2: inc x 6 [12]"]
    lines += [f"R{n}: ({n - 2} sc, inc) x 6 [{6 * n}]" for n in range(3, 15)]
    assert check("\n".join(lines)).parts[0].counts == tuple(6 * n for n in range(1, 15))
