"""Parts on a hook of their own, and sizes whose colour roles are worked in yarns of their own."""

from __future__ import annotations

import json
from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.brought import design_of
from craft.design.design import Design, EyeKind, Eyes
from craft.design.grading import Sized, State, at_size, figures_of, first_size, sized_design, together
from craft.design.joins import Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, OwnHook, Part
from craft.design.remix import difference, said
from craft.design.running import run_parts
from craft.design.seating import estimated_figure
from craft.design.size import RoleYarn, Size, SizeKind
from craft.design.skeins import skein_plans
from craft.design.stored import from_json, to_json
from craft.document.booklet import Imprint, Observed, as_text, compose, manuscript_of
from craft.document.proof import proof_of
from craft.document.templates import templates_of
from craft.errors import CraftError
from craft.gauge import Gauge, estimate_gauge
from craft.rounds.stitches import Language
from craft.text.check import check
from tests.craft.test_cli import validate

WORSTED = DesignYarn("Oat", "#ccbb99", 4, skein_m=100, skein_g=50)
FINE = DesignYarn("Gold", "#ddaa33", 2, skein_m=180, skein_g=50)
BODY = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R9: sc around [18]\nStuff.\n"
EAR = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R5: sc around [12]\nDo not stuff.\n"


def doll(own: OwnHook | None = None, gauge: GaugeInForce | None = None) -> Design:
    """A body in the main yarn, two ears that begin in a finer one."""
    return Design(
        "Doll",
        gauge=gauge or GaugeInForce(GaugeFrom.OWN, 4.0, 1, 6.0, 5.5),
        yarns=(WORSTED, FINE),
        parts=(Part("b", "Body", BODY), Part("e", "Ear", EAR, 2, "Gold", own_hook=own)),
    )


def sized(design: Design, **wish: object) -> Sized:
    first = first_size(design, run_parts(design))
    return at_size(first, Size("s", "s", SizeKind.YARN, **wish)) if wish else first  # type: ignore[arg-type]


class TestGauge:
    def test_without_a_hook_of_its_own_a_part_is_worked_as_the_figure(self) -> None:
        plain = doll()
        assert plain.gauge_of("e") == plain.gauge_of("b") == plain.gauge_now

    def test_the_estimate_is_corrected_as_the_figure_differs_from_its_own(self) -> None:
        """She works 6 mm where 5 would be expected: her other hook is off by the same share."""
        design = doll(OwnHook(2.5))
        her = 6.0 / estimate_gauge(WORSTED.strands(1), 4.0).stitch_mm
        assert design.gauge_of("e").stitch_mm == pytest.approx(her * estimate_gauge(FINE.strands(1), 2.5).stitch_mm)
        assert "corrected" in design.gauge_of("e").how
        assumed = doll(OwnHook(2.5), GaugeInForce(GaugeFrom.ESTIMATE, 4.0))
        assert assumed.gauge_of("e").stitch_mm == pytest.approx(estimate_gauge(FINE.strands(1), 2.5).stitch_mm)

    def test_what_was_measured_there_goes_before_any_estimate(self) -> None:
        found = doll(OwnHook(2.5, 1, 3.3, 3.1)).gauge_of("e")
        assert (found.stitch_mm, found.round_mm) == (3.3, 3.1)

    def test_a_hook_says_nothing_while_no_yarn_is_known(self) -> None:
        bare = replace(doll(OwnHook(2.5)), yarns=())
        assert bare.gauge_of("e") == bare.gauge_now
        assert bare.hook_to_yarn("e") is None

    @pytest.mark.parametrize("wrong", [{"hook_mm": 0}, {"hook_mm": 3, "strands": 0}, {"hook_mm": 3, "stitch_mm": 4}])
    def test_nonsense_is_refused(self, wrong: dict[str, float]) -> None:
        with pytest.raises(CraftError):
            OwnHook(**wrong)  # type: ignore[arg-type]


class TestFigure:
    def test_only_that_part_is_smaller(self) -> None:
        small, plain = doll(OwnHook(2.5, 1, 3.0, 2.75)), doll()
        bodies, _ = estimated_figure(small, run_parts(small))
        before, _ = estimated_figure(plain, run_parts(plain))
        assert bodies["b"].profile.width_mm == before["b"].profile.width_mm
        assert bodies["e"].profile.width_mm == pytest.approx(before["e"].profile.width_mm / 2, rel=0.02)

    def test_its_yarn_is_that_of_its_stitches(self) -> None:
        """Ears of half the stitch take half the metres, the body as many as before."""
        uses = [
            {u.colour: u.metres.value for u, _ in figures_of(sized(d)).yarns}
            for d in (doll(), doll(OwnHook(2, 1, 3.0, 2.75)))
        ]
        assert uses[1]["Gold"] == pytest.approx(uses[0]["Gold"] / 2)
        assert [v for k, v in uses[1].items() if k != "Gold"] == [v for k, v in uses[0].items() if k != "Gold"]
        plans = skein_plans(sized(doll(OwnHook(2, 1, 3.0, 2.75))))
        assert set(plans) == {"Oat", "Gold"}

    def test_a_disc_in_it_is_cut_by_its_own_stitches(self) -> None:
        base = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\n"
        text = base + "Lay a felt disc on the inside of the base.\nR4: blo sc around [18]\n"
        plain = replace(doll(), parts=(Part("b", "Foot", text),))
        fine = replace(plain, parts=(replace(plain.parts[0], own_hook=OwnHook(2, 1, 3.0, 2.75)),))
        found = [[t.wide_mm for t in templates_of(d, run_parts(d))] for d in (plain, fine)]
        plain_mm, fine_mm = (wide for (wide,) in found)
        assert fine_mm < plain_mm / 2 + 1


class TestSizes:
    def test_a_part_keeps_its_proportion_in_another_yarn(self) -> None:
        design = doll(OwnHook(2.5, 1, 3.0, 2.75))
        found = sized(design, yarn=WORSTED, hook_mm=8.0, gauge=Gauge(12.0, 11.0))
        assert found.gauge_of("e").stitch_mm == pytest.approx(6.0)
        ear = found.part_at("e")
        assert ear is not None
        assert ear.hook is not None
        assert ear.hook.hook_mm == 5
        assert any(f.kind == "hook" and f.state is State.MOVED for f in found.features)
        again = sized_design(found)
        assert again.gauge_of("e").stitch_mm == pytest.approx(6.0)
        assert again.gauge_of("b").stitch_mm == pytest.approx(12.0)

    def test_a_colour_role_has_a_yarn_a_hook_and_a_gauge_of_its_own(self) -> None:
        gold = RoleYarn("Gold", replace(FINE, weight=5, skein_m=60), 6.0, 2, Gauge(9.0, 8.0))
        found = sized(doll(), yarn=WORSTED, hook_mm=5.0, gauge=Gauge(7.0, 6.4), others=(gold,))
        assert (found.gauge_of("b").stitch_mm, found.gauge_of("e").stitch_mm) == (7.0, 9.0)
        skeins = {u.colour: n for u, n in figures_of(found).yarns}
        assert found.yarn_named("Gold") is gold.yarn
        assert skeins["Gold"] == 1
        made = sized_design(found)
        assert made.gauge_of("e").stitch_mm == pytest.approx(9.0)

    def test_a_role_without_a_sample_is_estimated(self) -> None:
        found = sized(doll(), yarn=WORSTED, hook_mm=5.0, others=(RoleYarn("Gold", FINE, 2.0, 2, None, WORSTED),))
        assert found.gauge_of("e").how.endswith("both yarns together")
        assert "As many metres of Oat as of Gold" in (found.fabric or "").partition("Gold:")[2]

    def test_what_cannot_be_is_said(self) -> None:
        twice = RoleYarn("Gold", FINE, 2.0)
        with pytest.raises(CraftError, match="one yarn"):
            sized(doll(), yarn=WORSTED, hook_mm=5.0, others=(twice, twice))
        gone = sized(doll(), yarn=WORSTED, hook_mm=5.0, others=(replace(twice, role="Silver"),))
        assert [f for f in gone.features if f.state is State.LOST and f.before == "Silver"]

    def test_two_thicknesses_in_one_fabric_are_told(self) -> None:
        striped = replace(doll(), parts=(Part("b", "Body", BODY.replace("R4-R9", "Change to Gold.\nR4-R9")),))
        role = RoleYarn("Gold", FINE, 2.0, gauge=Gauge(3.0, 2.8))
        found = sized(striped, yarn=WORSTED, hook_mm=5.0, gauge=Gauge(7.0, 6.4), others=(role,))
        (row,) = [f for f in found.features if f.kind == "yarn"]
        assert row.before == "Gold beside Oat"
        assert "narrower" in row.why
        assert not [f for f in sized(striped, yarn=WORSTED, hook_mm=5.0).features if f.kind == "yarn"]

    def test_edges_that_no_longer_are_as_wide_are_told(self) -> None:
        head = BODY.replace("Stuff.\n", "")
        neck = replace(
            doll(),
            parts=(Part("b", "Body", BODY), Part("e", "Head", head, 1, "Gold")),
            joins=(Join("j", "e", "b", Place("b", 9), manner=Manner.EDGE),),
        )
        role = RoleYarn("Gold", FINE, 2.0, gauge=Gauge(3.5, 3.2))
        found = sized(neck, yarn=WORSTED, hook_mm=5.0, gauge=Gauge(7.0, 6.4), others=(role,))
        (row,) = [f for f in found.features if f.kind == "join" and f.state is State.CHANGED]
        assert (row.before, row.after) == ("as wide", "50% narrower")

    def test_eyes_follow_the_part_that_they_are_on(self) -> None:
        eyes = Eyes(EyeKind.SAFETY, 6.0)
        plain = replace(doll(), eyes=eyes)
        role = RoleYarn("Gold", FINE, 2.0, gauge=Gauge(12.0, 11.0))
        found = sized(plain, yarn=WORSTED, hook_mm=4.0, gauge=Gauge(6.0, 5.5), others=(role,))
        assert found.scale_of(None) == pytest.approx(1.0)
        assert found.scale_of("e") == pytest.approx(2.0)
        assert figures_of(found).eye_mm == 6


class TestPrinted:
    def test_the_booklet_says_the_hook_where_it_is_needed(self) -> None:
        design = doll(OwnHook(2.0, 2, 3.0, 2.75))
        text = as_text(compose(manuscript_of(design, run_parts(design), Imprint("Fern", design.terms, "2 May 2026"))))
        assert "Hook for Ear" in text
        assert "2 mm, 2 strands together" in text
        assert "17 stitches and 18 rounds measure 5 cm" in text
        assert "Hook for this part: 2 mm" in text
        found = check(text)
        assert found.sound, found.problems[:3]
        assert {p.name: p.counts[-1] for p in found.parts if p.counts} == {"Body": 18, "Ear": 12}

    def test_a_finer_yarn_on_the_figures_hook_is_asked_after(self) -> None:
        plain, told = doll(), doll(OwnHook(2.0))
        codes = [[f.code for f in proof_of(d, run_parts(d), Observed())] for d in (plain, told)]
        assert "hook-untold" in codes[0]
        assert "hook-untold" not in codes[1]


def whole() -> Design:
    """With every field of hooks and roles in use."""
    role = RoleYarn("Gold", FINE, 2.0, 2, None, WORSTED)
    return replace(
        doll(OwnHook(2.0, 2, 3.0, 2.75)),
        sizes=(
            Size("z1", "Big", SizeKind.YARN, WORSTED, 6, 2, second=FINE, others=(role,)),
            Size("z2", "Tall", SizeKind.HEIGHT, height_mm=200, apart=True, among_mm=(200, 300), settled_share=1.1),
        ),
    )


def test_its_file_holds_it() -> None:
    design = whole()
    assert from_json(json.loads(json.dumps(to_json(design)))) == design
    validate("design", to_json(design))


def test_a_difference_says_it() -> None:
    before, after = doll(), doll(OwnHook(2.0))
    told = [said(c, before, after) for c in difference(before, after).changes]
    assert any("hook of its own" in text for text in told), told


@pytest.mark.parametrize("language", [None, *Language])
def test_a_printed_hook_comes_back_to_its_part(language: Language | None) -> None:
    """In every language that a booklet is printed in; the sentence is not kept twice."""
    design = doll(OwnHook(2.0, 2))
    imprint = Imprint("Fern", design.terms, "2 May 2026", language=language)
    text = as_text(compose(manuscript_of(design, run_parts(design), imprint)))
    ear = next(p for p in design_of(check(text), text).parts if p.text.count("\n") > 2 and p.own_hook is not None)
    assert ear.own_hook == OwnHook(2.0, 2)
    assert "2 mm" not in ear.text
    assert ear.make == 2


def test_a_hook_that_nobody_sells_is_kept_as_words() -> None:
    text = "# Ear\nHook for this part: 0.1 mm.\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\n"
    (ear,) = design_of(check(text), text).parts
    assert ear.own_hook is None
    assert "0.1 mm" in ear.text


def test_a_colour_that_nobody_listed_is_no_other_yarn() -> None:
    """Its metres are not those of the main yarn; skeins of a figure without yarns are those of the yarn it is made in."""
    unlisted = replace(doll(), parts=(Part("b", "Body", BODY.replace("R4-R9", "Change to Coal.\nR4-R9")),))
    found = sized(unlisted)
    assert found.yarn_named("Coal") is None
    whole = together([(found, 1)])
    metres = {y.name: y.metres.value for y in whole.yarns}
    used = {u.colour: u.metres.value for u, _ in figures_of(found).yarns}
    assert sorted(metres.values()) == pytest.approx(sorted(used.values()))
    bare = replace(doll(), yarns=(), parts=(Part("b", "Body", BODY),))
    assert [n for _, n in figures_of(sized(bare, yarn=WORSTED, hook_mm=5.0)).yarns] == [1]
