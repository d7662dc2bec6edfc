"""Families of writing that failed on patterns nobody had seen, each in a few of its ways."""

from __future__ import annotations

import pytest

from craft.text.check import check


@pytest.mark.parametrize(
    ("line", "made"),
    [
        ("Ears – make 2, green", ("Ears", 2)),
        ("Eyes – make 2, green", ("Eyes", 2)),
        ("EYES: make two", ("EYES", 2)),
        ("Arms, 2 pieces, brown", ("Arms", 2)),
        ("Eyes: 2 x 6 mm", None),
        ("Eyes: embroider two", None),
    ],
)
def test_how_many_are_made_is_never_passed_over(line: str, made: tuple[str, int] | None) -> None:
    text = f"Frog\n\n{line}\nRnd 1: 6 sc in a magic ring\nRnd 2: (inc) 6 times – 12\n\nHead – green\nRnd 1: 6 sc in a magic ring\n"
    found = [(part.name, part.make) for part in check(text).parts if part.make > 1]
    assert found == ([] if made is None else [made])


LOBES = "Heart\nLobes (make 2)\nR1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 12 sc [12]\n\nJoin the two lobes:\n"


@pytest.mark.parametrize(
    "joined",
    [
        "R4: 12 sc around the first lobe, 12 sc around the second lobe [24]",
        "R4: 12 sc in the first lobe and 12 sc in the second [24]",
    ],
)
def test_several_of_a_part_are_joined_into_another(joined: str) -> None:
    found = check(f"{LOBES}{joined}\nR5: 24 sc [24]\n")
    assert found.sound
    assert [part.counts for part in found.parts if part.rounds] == [(6, 12, 12), (24, 24)]


def test_stitches_that_are_counted_and_not_named_are_single_crochets() -> None:
    german = check("Raupe\nRd 1: 6 M in FR\nRd 2: 3x (1 M, 1 Zun) [9]\nRd 3-5: je 9 M\nRd 6: 3x (1 M, 1 Abn) [6]\n")
    assert german.sound
    assert german.parts[0].counts == (6, 9, 9, 9, 9, 6)
    assert not check("Raupe\nRd 1: 6 M in FR\nRd 2: 3x (2 M, 1 Zun) [9]\n").sound


def test_labels_one_behind_the_other_are_a_range() -> None:
    found = check("Radish\nR1 magic ring 6 sc\nR2 inc in each 12\nR3 R4 sc around 12\nR5 dec around 6\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12, 12, 12, 6)


def test_labels_behind_the_work_are_read_where_they_go_on() -> None:
    text = "Peach\n6 sc in ring – round 1\ninc x 6 – round 2 (12)\nsc around – rounds 3 and 4 (12)\ndec x 6 – round 5 (6)\n"
    found = check(text)
    assert found.sound
    assert found.parts[0].counts == (6, 12, 12, 12, 6)


def test_a_letter_that_has_no_colour_is_told_where_others_have_one() -> None:
    text = "Penguin (A = black, B = white)\nRnd 1: with V, 6 sc in magic ring\nRnd 2: with B, inc x 6 (12)\n"
    told = [p for p in check(text).problems if p.code == "unlisted-colour"]
    assert [p.message for p in told] == ["V is no colour of this text, which has A and B."]
    assert told[0].place.line == 2


@pytest.mark.parametrize("count", [16, 17, 19, 24])
def test_the_two_that_tells_an_increase_tells_nothing_else(count: int) -> None:
    text = (
        "CAP\nMake a magic ring and work 6 single crochets into it. (6 sts)\n2nd round - two single crochets in every stitch "
        f"(12 sts)\n3rd round - *sc in the next st, 2 sc in the one after* and keep repeating that all the way around ({count} "
        "sts)\n4th round - *sc in the next 2 sts, 2 sc in the one after* all the way around (24 sts)\n"
    )
    assert not check(text).sound
    assert check(text.replace(f"({count} sts)\n4th", "(18 sts)\n4th")).sound


START = "Ball\nRnd 1: 6 sc in magic ring (6)\nRnd 2: inc around (12)\nRnd 3: (1 sc, inc) x 6 (18)\n"


@pytest.mark.parametrize(
    ("line", "counts"),
    [
        ("Rnd 4: decrease after every stitch (12)", (12,)),
        ("Rnd 4: *1, 2 in next* x9 (27)", (27,)),
        ("In the fourth and fifth rounds you make one single crochet in every stitch (18).", (18, 18)),
        ("• Rnd 4 • 18sc • 18", (18,)),
        ("Rnd 4: decrease twice, evenly spaced (16)", (16,)),
    ],
)
def test_a_fourth_round_in_other_words(line: str, counts: tuple[int, ...]) -> None:
    found = check(f"{START}{line}\n")
    assert found.sound
    assert found.parts[0].counts == (6, 12, 18, *counts)


def test_plain_rounds_of_which_the_number_and_the_count_are_all_that_is_said() -> None:
    text = "tomato [red]\nmr w/ 6\n2 in ea (12)\n*1, 2 in next* x6 (18)\n18 around x2\n*1, dec* x6 (12)\ndec x6 (6)\n"
    found = check(text)
    assert found.sound
    assert found.parts[0].counts == (6, 12, 18, 18, 18, 12, 6)
    assert not check(text.replace("18 around x2", "17 around x2")).sound


def test_decreases_told_by_every_so_many_stitches_in_french() -> None:
    text = (
        "Boule\nTour 1 : 6 ms dans un cercle magique\nTour 2 : 6 aug (12)\nTour 3 : (1 ms, aug) x 6 (18)\n"
        "Tour 4 : (2 ms, aug) x 6 (24)\nTour 5 : écouler 2 mailles ensemble toutes les 2 mailles (18)\n"
        "Tour 6 : écouler 2 mailles ensemble après chaque maille (12)\n"
    )
    found = check(text)
    assert found.sound
    assert found.parts[0].counts == (6, 12, 18, 24, 18, 12)
    assert not check(text.replace("les 2 mailles (18)", "les 5 mailles (18)")).sound
