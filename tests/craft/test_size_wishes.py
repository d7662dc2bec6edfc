"""Sizes as she asks for them: a height, a count, a girth, another part, the yarn at hand."""

from __future__ import annotations

import itertools
import math
from dataclasses import replace

import pytest

from craft.design.design import Design
from craft.design.grading import (
    THINGS,
    Sized,
    Wish,
    asked_for,
    at_size,
    figure_size,
    girth_around,
    girth_of,
    part_size,
    share_that_meets,
    wish_of,
)
from craft.design.grading.asked import weight_of
from craft.design.parts import DesignYarn, Part
from craft.design.size import Size, SizeKind
from craft.errors import CraftError
from craft.yarn import held_together
from tests.craft.test_grading import BALL, GAUGE, demo, first, neck

YARN = DesignYarn("Oat", "#ccbb99", 4, skein_m=100, skein_g=50)


def asked(design: Design, **wish: object) -> Sized:
    return asked_for(first(design), Size("s", "s", **wish))  # type: ignore[arg-type]


def test_sizes_are_asked_for_in_her_ways() -> None:
    doll = neck(None)
    taller = asked(doll, kind=SizeKind.HEIGHT, height_mm=60.0, part="h")
    head = taller.parts[0].worked
    assert max(asked(doll, kind=SizeKind.COUNT, count=36, part="h").parts[0].worked.counts) == pytest.approx(36, abs=1)
    assert len(head.rounds) < 40
    fits = asked(doll, kind=SizeKind.FIT, girth_mm=200.0, ease_mm=-10, part="h")
    assert girth_of(fits.parts[0]) == pytest.approx(190, rel=0.08)


HAT = "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\nR5-R8: sc around [24]\n"


@pytest.mark.parametrize("around", [30, 42, 60])
def test_a_hat_follows_its_head(around: int) -> None:
    """It is made to whatever the head comes to; the head stays as it is."""
    head = "R1: 6 sc in ring\n" + "".join(
        f"R{n}: {'inc x 6' if n == 2 else f'({n - 2} sc, inc) x 6'} [{6 * n}]\n" for n in range(2, around // 6 + 1)
    )
    design = Design("Doll", parts=(Part("h", "Head", head), Part("t", "Hat", HAT)))
    found = asked(design, kind=SizeKind.FIT, part="t", fits="h", ease_mm=GAUGE.stitch_mm, alone=True)
    assert found.parts[0].worked.counts == found.parts[0].source.worked.counts  # type: ignore[union-attr]
    assert found.parts[1].worked.counts[-1] == pytest.approx(around + 1, abs=max(2, 0.07 * around))
    with pytest.raises(CraftError, match="fit itself"):
        asked(design, kind=SizeKind.FIT, part="t", fits="t")
    with pytest.raises(CraftError, match="gone"):
        asked(design, kind=SizeKind.FIT, part="t", fits="x")


@pytest.mark.parametrize("across", [40.0, 65.0, 90.0])
def test_it_goes_around_something_round(across: float) -> None:
    design = Design("Cosy", parts=(Part("t", "Hat", HAT),))
    found = asked(design, kind=SizeKind.FIT, part="t", across_mm=across, ease_mm=5.0)
    stitches = (math.pi * across + 5) / GAUGE.stitch_mm
    assert found.parts[0].worked.counts[-1] == pytest.approx(stitches, abs=max(2, 0.07 * stitches))
    with pytest.raises(CraftError, match="how wide"):
        asked(design, kind=SizeKind.FIT, part="t", across_mm=0.0)


def test_things_are_as_large_as_their_rules_say() -> None:
    """Balls by the rules of their games (from memory), between the least and the most they allow."""
    girths = {t.key: t.girth_mm / math.pi for t in THINGS}
    assert 65.41 <= girths["tennis"] <= 68.58
    assert 40.0 <= girths["table-tennis"] <= 40.6
    assert girths["golf"] >= 42.67 - 0.01
    assert len({t.key for t in THINGS}) == len(THINGS)
    assert all(t.source for t in THINGS)


@pytest.mark.parametrize("height", [50.0, 72.0, 100.0, 140.0])
def test_easy_counts_come_first_where_she_says_so(height: float) -> None:
    """The widest round is a multiple of the first; the height is as near as that allows."""
    ball = Design("Ball", parts=(Part("b", "Ball", BALL),))
    plain = asked(ball, kind=SizeKind.HEIGHT, height_mm=height)
    easy = asked(ball, kind=SizeKind.HEIGHT, height_mm=height, easy=True)
    assert max(easy.parts[0].worked.counts) % 6 == 0
    step = 6 * GAUGE.stitch_mm / math.pi
    assert figure_size(easy)[1] == pytest.approx(figure_size(plain)[1], abs=0.75 * step + GAUGE.round_mm)


@pytest.mark.parametrize("run", [(60.0, 90.0, 120.0, 150.0), (50.0, 70.0, 90.0), (60.0, 80.0, 100.0, 120.0, 140.0)])
def test_counts_of_a_run_step_evenly(run: tuple[float, ...]) -> None:
    """Sizes that step evenly have widest rounds that do, all of them multiples of the first round."""
    ball = Design("Ball", parts=(Part("b", "Ball", BALL),))
    made = [asked(ball, kind=SizeKind.HEIGHT, height_mm=mm, easy=True, among_mm=run) for mm in run]
    widest = [max(sized.parts[0].worked.counts) for sized in made]
    assert all(n % 6 == 0 for n in widest)
    assert len({b - a for a, b in itertools.pairwise(widest)}) == 1
    for sized, mm in zip(made, run, strict=True):
        assert figure_size(sized)[1] == pytest.approx(mm, abs=6 * GAUGE.stitch_mm / math.pi + GAUGE.round_mm)


def test_heights_that_do_not_step_evenly_are_met_one_by_one() -> None:
    ball = Design("Ball", parts=(Part("b", "Ball", BALL),))
    for mm in (60.0, 70.0, 140.0):
        alone = asked(ball, kind=SizeKind.HEIGHT, height_mm=mm, easy=True)
        among = asked(ball, kind=SizeKind.HEIGHT, height_mm=mm, easy=True, among_mm=(60.0, 70.0, 140.0))
        assert among.parts[0].worked.counts == alone.parts[0].worked.counts


@pytest.mark.parametrize(("settled", "meets"), [(84.0, 90 / 84), (110.0, 90 / 110), (90.4, None), (88.5, None)])
def test_a_height_is_met_as_it_settles(settled: float, meets: float | None) -> None:
    size = Size("s", "s", SizeKind.HEIGHT, height_mm=90.0)
    found = share_that_meets(size, Wish(90.0), settled, GAUGE)
    assert found == (meets if meets is None else pytest.approx(meets))
    ball = Design("Ball", parts=(Part("b", "Ball", BALL),))
    if found is not None:
        again = asked(ball, kind=SizeKind.HEIGHT, height_mm=90.0, settled_share=found)
        assert figure_size(again)[1] == pytest.approx(90.0 * found, abs=GAUGE.round_mm)
        twice = share_that_meets(replace(size, settled_share=found), Wish(90.0), settled, GAUGE)
        assert twice == pytest.approx(found**2)  # what is still off is put on top of what was met before


@pytest.mark.parametrize(
    "wish", [{"kind": SizeKind.COUNT}, {"kind": SizeKind.GRAMS}, {"easy": True}, {"height_mm": None}]
)
def test_what_asks_for_no_measure_is_not_met(wish: dict[str, object]) -> None:
    size = replace(Size("s", "s", SizeKind.HEIGHT, height_mm=90.0), **wish)  # type: ignore[arg-type]
    assert wish_of(first(Design("Ball", parts=(Part("b", "Ball", BALL),))), size) is None


def test_a_part_s_height_and_a_girth_are_met_as_they_settle() -> None:
    ball = first(Design("Ball", parts=(Part("b", "Ball", BALL), Part("h", "Hat", BALL))))
    tall = Size("s", "s", SizeKind.HEIGHT, height_mm=70.0, part="h")
    assert wish_of(ball, tall) == Wish(70.0, "h")
    hat = Size("s", "s", SizeKind.FIT, part="h", fits="b", ease_mm=6.0, alone=True)
    around = girth_around(ball.parts[0])
    assert wish_of(ball, hat) == Wish(around + 6.0, "h", around=True)
    settled = wish_of(ball, hat, settled_girth_mm=212.0)  # stuffing stretches the head: the hat fits it as it settled
    assert settled == Wish(218.0, "h", around=True)
    share = share_that_meets(hat, settled, 198.0, GAUGE)
    assert share == pytest.approx(218 / 198)
    wider = at_size(ball, replace(hat, settled_share=share))
    assert max(wider.parts[1].worked.counts) > max(at_size(ball, hat).parts[1].worked.counts)
    assert wider.parts[0].worked.counts == ball.parts[0].worked.counts
    assert share_that_meets(hat, settled, 217.0, GAUGE) is None


THIN, THICK = DesignYarn("Thin", "#ccbb99", 2, wraps=14.0), DesignYarn("Thick", "#445566", 4)


def test_two_yarns_together_are_as_thick_as_both_and_no_surer_than_the_less_known() -> None:
    ball = first(Design("Ball", parts=(Part("b", "Ball", BALL),)))
    both = at_size(ball, Size("s", "s", SizeKind.YARN, yarn=THIN, second=THICK, hook_mm=5.0))
    turned = at_size(ball, Size("s", "s", SizeKind.YARN, yarn=THICK, second=THIN, hook_mm=5.0))
    alone = at_size(ball, Size("s", "s", SizeKind.YARN, yarn=THICK, hook_mm=5.0))
    across = math.hypot(THIN.strands(1).diameter_mm, THICK.strands(1).diameter_mm)
    assert held_together(THIN.strands(1), THICK.strands(1)).diameter_mm == pytest.approx(across)
    assert both.gauge.stitch_mm == pytest.approx(0.84 * (5.0 + across))
    assert both.gauge.stitch_mm == pytest.approx(turned.gauge.stitch_mm)
    assert both.gauge.spread == alone.gauge.spread == 0.20
    assert both.fabric is not None
    assert "As many metres of Thick as of Thin" in both.fabric


@pytest.mark.parametrize("grams", [4.0, 10.0, 42.0])
def test_as_large_as_the_yarn_at_hand_allows(grams: float) -> None:
    design = Design("Doll", parts=neck(None).parts, yarns=(YARN,))
    assert 0.75 * grams < weight_of(asked(design, kind=SizeKind.GRAMS, grams=grams)) <= grams


@pytest.mark.parametrize(
    ("wish", "field"),
    [
        ({"kind": SizeKind.HEIGHT}, "height_mm"),
        ({"kind": SizeKind.COUNT}, "count"),
        ({"kind": SizeKind.FIT}, "girth_mm"),
        ({"kind": SizeKind.GRAMS}, "grams"),
        ({"kind": SizeKind.GRAMS, "grams": 20.0}, "grams"),
        ({"kind": SizeKind.COUNT, "count": 12, "part": "gone"}, "part"),
        ({"kind": SizeKind.HEIGHT, "height_mm": 9_000.0}, "scale"),
    ],
)
def test_what_is_missing_in_a_wish_is_named(wish: dict[str, object], field: str) -> None:
    with pytest.raises(CraftError) as refused:
        asked(neck(None), **wish)
    assert refused.value.field == field


@pytest.mark.parametrize("scale", [0.75, 1.2, 1.5, 2.0])
@pytest.mark.parametrize("name", ["Garden Snail", "Bat"])
def test_a_height_is_met_to_a_round(name: str, scale: float) -> None:
    figure = first(demo(name))
    wanted = scale * figure_size(figure)[1]
    made = asked_for(figure, Size("s", "s", SizeKind.HEIGHT, height_mm=wanted))
    assert figure_size(made)[1] == pytest.approx(wanted, abs=max(figure.gauge.round_mm, 0.03 * wanted))
    part = figure.parts[0]
    tall = 1.3 * part_size(part.worked, figure.gauge).height.value
    one = asked_for(figure, Size("s", "s", SizeKind.HEIGHT, height_mm=tall, part=part.source.key))
    assert part_size(one.parts[0].worked, one.gauge).height.value == pytest.approx(tall, abs=figure.gauge.round_mm)


def snail() -> Sized:
    return first(demo("Garden Snail"))


@pytest.mark.parametrize("height", [50.0, 60.0, 120.0])
def test_a_figure_is_made_as_high_as_it_is_asked_for_all_of_it(height: float) -> None:
    sized = at_size(snail(), Size("key00001", "x", SizeKind.HEIGHT, height_mm=height))
    assert not [p.source.name for p in sized.parts if p.how == "not sized"]
    assert figure_size(sized)[1] == pytest.approx(height, rel=0.06)
    assert not [f for f in sized.joined if f.kind == "height"]


def test_a_height_that_a_figure_cannot_have_is_come_near_to_and_the_reason_said() -> None:
    """Its shell alone, made a third as large, would come to that height: that is no smaller snail."""
    sized = at_size(snail(), Size("key00001", "x", SizeKind.HEIGHT, height_mm=30))
    assert {p.how for p in sized.parts if p.source.name in ("Body", "Shell")} == {"resampled"}
    (row,) = [f for f in sized.joined if f.kind == "height"]
    reached = figure_size(sized)[1]
    assert (row.before, row.after) == ("3 cm asked for", f"{reached / 10:.3g} cm")
    assert row.why.startswith("Body")
    assert reached > 40
