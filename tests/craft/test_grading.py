"""Parts and figures at other sizes: every segment by its rule, edges that still meet, nothing lost in silence."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.design import Design
from craft.design.grading import Feature, Sized, State, first_size, regrade, report_of, scaled
from craft.design.grading.bands import Look, bands_of, shared_out
from craft.design.grading.easy import shared_count
from craft.design.grading.inventory import inventory, unaccounted
from craft.design.grading.words import resaid
from craft.design.joins import Join, Manner
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.gauge import Gauge
from craft.problems import Severity
from craft.rounds.fabric import WorkedPart, run_part
from craft.rounds.pattern import Part as Written
from craft.rounds.stitches import Loops, Terms
from craft.text.check import check
from craft.text.notation import print_part
from tests.craft.programs import parts as random_parts

GAUGE = Gauge(5.6, 5.15)
SCALES = (0.6, 0.8, 1.25, 1.5, 2.0)
DEMO = json.loads((Path(__file__).parents[2] / "studio/demo/lanternwick.json").read_text())["designs"]


def written(text: str) -> Written:
    return check(text).reading.pattern.parts[0]


def at(text: str, scale: float) -> tuple[WorkedPart, tuple[Feature, ...], str]:
    """A part at a scale: run, its report, and printed. It must check without a fault."""
    found = regrade(written(text), scale, GAUGE)
    printed = print_part(found.part, Terms.US)
    assert not [p for p in check(printed).problems if p.severity is Severity.FAULT], printed
    return found.worked, found.features, printed


def demo(name: str) -> Design:
    design = next(d for d in DEMO if d["name"] == name)
    texts = [
        (p["name"], "\n".join(p["text"]) if isinstance(p["text"], list) else p["text"], p) for p in design["parts"]
    ]
    return Design(name, parts=tuple(Part(f"p{k}", n, t, p.get("make", 1)) for k, (n, t, p) in enumerate(texts)))


def first(design: Design) -> Sized:
    return first_size(design, run_parts(design))


# --- plain rounds -----------------------------------------------------------------------------------

BALL = (
    "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\nR5-R8: sc around\n"
    "R9: (2 sc, dec) x 6\nR10: (sc, dec) x 6\nR11: dec x 6\nClose.\n"
)


def test_at_its_own_size_a_part_is_what_it_was() -> None:
    for design in ("Garden Snail", "Bat"):
        for part in scaled(first(demo(design)), 1.0).parts:
            assert part.worked.counts == part.source.worked.counts  # type: ignore[union-attr]
            assert not [f for f in part.features if f.state in (State.LOST, State.CHANGED)]


@pytest.mark.parametrize("scale", SCALES)
def test_a_ball_grows_by_the_same_step_and_closes(scale: float) -> None:
    """A flat disc grows by 2 π h / w a round at every size: here six."""
    ball, _, _ = at(BALL, scale)
    steps = {b - a for a, b in zip(ball.counts, ball.counts[1:], strict=False)}
    assert ball.closed
    assert max(ball.counts) == pytest.approx(24 * scale, abs=3)
    assert {s for s in steps if s > 0} <= {2, 3, 4, 6}
    assert len(ball.rounds) == pytest.approx(12 * scale - 1, abs=1)


def test_shaping_stays_on_its_side() -> None:
    """Increases bunched in front stay there: a belly."""
    belly = "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: 6 sc, 6 inc, 6 sc\nR5-R8: sc around\n"
    for scale in (1.5, 2.0):
        worked, _, _ = at(belly, scale)
        shaped = [t for t in worked.rounds if t.marks and t.live > 18 * scale]
        assert shaped
        for tally in shaped:
            assert all(0.15 < place / tally.made < 0.85 for place, _ in tally.marks), tally


@pytest.mark.parametrize("key", ["hdc", "dc", "loop"])
def test_bands_of_another_stitch_keep_their_share(key: str) -> None:
    name = {"loop": "loop st"}.get(key, key)
    text = f"R1: 6 sc in ring\nR2: inc x 6\nR3-R6: sc around\nR7-R10: {name} around\nR11-R14: sc around\n"
    for scale in (0.6, 1.5, 2.0):
        worked, rows, printed = at(text, scale)
        kinds = worked.graph.kind
        share = sum(worked.graph.kind == kinds[worked.rounds[len(worked.rounds) // 2].first]) / len(kinds)
        assert name in printed
        assert 0.2 < share < 0.5
        assert not [r for r in rows if r.state is State.LOST]


def test_a_ridge_stays_one_round_and_stripes_keep_their_proportion() -> None:
    text = (
        "R1: 6 sc in ring\nR2: inc x 6\nR3: sc around\nR4: BLO: sc around\nR5-R6: sc around\nChange to Moss\nR7-R8: sc around\n"
        "Change to Oat\nR9-R10: sc around\nChange to Moss\nR11-R12: sc around\n"
    )
    worked, _, printed = at(text, 2.0)
    assert [t.loops for t in worked.rounds].count(Loops.BACK) == 1
    stripes = [t.colours for t in worked.rounds]
    assert stripes.count(("Moss",)) == pytest.approx(8, abs=1)
    assert stripes.count(("Oat",)) == pytest.approx(4, abs=1)
    assert "hange to Moss\n" in printed, "her lines of colour stay lines"


def test_bobbles_keep_their_number_and_place() -> None:
    text = "R1: 6 sc in ring\nR2: inc x 6\nR3: (3 sc, inc) x 3\nR4: 5 sc, bobble, 9 sc\nR5-R6: sc around\n"
    for scale in (0.8, 1.5, 2.0):
        worked, rows, printed = at(text, scale)
        assert printed.count("bobble") == 1
        assert not [r for r in rows if r.state is State.LOST]
        tally = next(t for t in worked.rounds if "bobble" in printed.splitlines()[worked.rounds.index(t)])
        line = printed.splitlines()[worked.rounds.index(tally)]
        before = int(line.split(": ")[1].split(" sc")[0])
        assert before / tally.live == pytest.approx(5 / 15, abs=0.08)


# --- more than plain rounds ----------------------------------------------------------------------------


@pytest.mark.parametrize("scale", SCALES)
def test_an_oval_keeps_its_ends_and_its_chain_scales(scale: float) -> None:
    oval = (
        "Ch 10\nR1: sc in 2nd ch from hook, 7 sc, 3 sc in last ch, along the other side 7 sc, 2 sc in last ch [20]\n"
        "R2: inc, 7 sc, 3 inc, 7 sc, 2 inc [26]\nR3: sc, inc, 7 sc, (sc, inc) x 3, 7 sc, (sc, inc) x 2 [32]\nR4-R6: sc around\n"
    )
    worked, _, printed = at(oval, scale)
    assert printed.splitlines()[0] == f"ch {1 + round(9 * scale)}"
    assert worked.counts[0] == 2 * (1 + round(9 * scale))
    assert worked.counts[-1] == pytest.approx(32 * scale, abs=2)


@pytest.mark.parametrize("scale", SCALES)
def test_short_rows_turn_as_far_round(scale: float) -> None:
    heel = (
        "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4-R5: sc around\nR6: 12 sc, turn, leave the rest [18]\n"
        "R7: ch 1, 8 sc, turn [18]\nR8: ch 1, 6 sc, turn [18]\nR9: ch 1, 4 sc, turn [18]\nR10-R12: sc around [18]\n"
    )
    worked, rows, _ = at(heel, scale)
    short = [t for t in worked.rounds if t.made < t.live]
    assert len(short) % 2 == 0, "it ends on the side it began on"
    assert short[0].made / short[0].live == pytest.approx(12 / 18, abs=0.1)
    assert [r.kind for r in rows].count("short rows") == 1


@pytest.mark.parametrize("scale", SCALES)
def test_legs_still_divide(scale: float) -> None:
    split = (
        "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\nR5-R7: sc around [24]\n"
        "R8: 12 sc, skip 12, join [12]\n"
        "R9-R11: sc around [12]\nFasten off.\n## Second leg\nRejoin at the held stitches.\nR8: sc around [12]\n"
        "R9-R11: sc around [12]\n"
        "Fasten off.\n"
    )
    worked, _, printed = at(split, scale)
    ends = [t.live for t in worked.rounds if t.label in (f"R{n}" for n in range(1, 99))]
    trunk = max(worked.counts)
    legs = [t for t in worked.rounds if t.live == trunk // 2]
    assert trunk % 2 == 0
    assert len(legs) >= 2, printed
    assert ends[-1] == trunk // 2


@pytest.mark.parametrize("scale", SCALES)
def test_limbs_that_are_worked_in_still_fold(scale: float) -> None:
    sized = scaled(first(demo("Bat")), scale)
    by_name = {p.source.name: p for p in sized.parts}
    folded = by_name["Ears"].worked.counts[-1]
    assert by_name["Ears"].worked.counts[-2] == 2 * folded
    text = print_part(by_name["Body"].written, Terms.US)
    assert f"{folded} sc through the first ear" in text
    assert f"{by_name['Legs'].worked.counts[-1]} sc around the first leg" in text


@pytest.mark.parametrize("scale", SCALES)
def test_skirts_keep_their_fullness(scale: float) -> None:
    """(3 sc, inc) around: a quarter more at every size, on as many stitches as the round it hangs on."""
    body = next(p for p in scaled(first(demo("Garden Snail")), scale).parts if p.source.name == "Body")
    skirt = [t for t in body.worked.rounds if t.section == "Foot"]
    assert skirt[0].live / skirt[0].taken == pytest.approx(1.25, abs=0.04)


@pytest.mark.parametrize("scale", SCALES)
def test_rows_keep_their_slant(scale: float) -> None:
    wing = "Ch 17\nRow 1: sc in 2nd ch from hook and in each ch across [16]\n" + "".join(
        f"Row {n}: ch 1, turn, {'sc in each st to last 2 sts, dec' if n % 2 == 0 else f'dec, {16 - n} sc'} [{17 - n}]\n"
        for n in range(2, 10)
    )
    worked, _, _ = at(wing, scale)
    assert worked.counts[0] == round(16 * scale)
    assert worked.counts[-1] == pytest.approx(8 * scale, abs=1)
    assert len(worked.rounds) == pytest.approx(9 * scale, abs=1)
    steps = [b - a for a, b in zip(worked.counts, worked.counts[1:], strict=False)]
    assert set(steps) <= {-2, -1, 0}


# --- the whole figure -------------------------------------------------------------------------------------


@pytest.mark.parametrize("scale", [0.6, 1.5, 2.3])
@pytest.mark.parametrize("name", ["Garden Snail", "Bat"])
def test_every_part_of_the_demo_is_made_at_every_size(name: str, scale: float) -> None:
    sized = scaled(first(demo(name)), scale)
    assert {p.how for p in sized.parts} == {"resampled"}
    assert not [f for f in sized.features if f.state is State.LOST]
    pieces = {p.source.name: p.worked.piece for p in sized.parts}
    for part in sized.parts:
        problems = run_part(part.written, pieces=pieces)[1]
        assert not [p for p in problems if p.severity is Severity.FAULT], part.source.name


def neck(manner: Manner | None, arm: str = "") -> Design:
    head = "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\nR5-R8: sc around\nR9: (2 sc, dec) x 6 [18]\n"
    body = (
        "R1: 7 sc in ring\nR2: inc x 7\nR3: (sc, inc) x 7\nR4: (2 sc, inc) x 7\nR5-R9: sc around\n"
        "R10: (2 sc, dec) x 6, 4 sc [22]\nR11: (9 sc, dec) x 2 [20]\nR12: (8 sc, dec) x 2 [18]\n"
    )
    parts = [Part("h", "Head", head), Part("b", "Body", body)]
    joins = [Join("j", "h", "b", Place("b", 12), manner=Manner.EDGE)]
    if arm:
        parts.append(Part("a", "Arm", arm, 2))
        joins.append(Join("k", "a", "b", Place("b", 9), manner=manner, paired=True))
    return Design("Doll", parts=tuple(parts), joins=tuple(joins))


@pytest.mark.parametrize("scale", [0.6, 0.75, 1.1, 1.3, 1.7, 2.0])
def test_a_neck_of_18_on_18_still_meets(scale: float) -> None:
    sized = scaled(first(neck(None)), scale)
    head, body = (p.worked.counts[-1] for p in sized.parts)
    assert head == body == pytest.approx(18 * scale, rel=0.13)
    row = next(f for f in sized.features if f.kind == "join")
    assert (row.state, row.after) == (State.KEPT, f"{head} on {body}")


@pytest.mark.parametrize("scale", [0.8, 1.15, 1.4, 1.9])
def test_an_arm_that_is_pressed_flat_stays_even(scale: float) -> None:
    arm = "R1: 5 sc in ring\nR2: inc x 5 [10]\nR3-R9: sc around [10]\n"
    sized = scaled(first(neck(Manner.PINCHED, arm)), scale)
    assert sized.parts[2].worked.counts[-1] % 2 == 0


def test_a_part_that_cannot_be_made_is_named_and_does_not_refuse_the_others() -> None:
    tiny = Part("t", "Whisker", "R1: 3 sc in ring\nR2-R9: sc around\n")
    design = Design("Doll", parts=(*neck(None).parts, tiny))
    sized = scaled(first(design), 0.5)
    assert [p.how for p in sized.parts] == ["resampled", "resampled", "not sized"]
    assert "chain or a cord" in next(f.why for f in sized.features if f.part == "Whisker")
    with pytest.raises(CraftError, match="so small"):
        scaled(first(Design("One", parts=(tiny,))), 0.5)


def test_a_limb_that_cannot_be_narrower_says_so() -> None:
    limb = Part("t", "Limb", "R1: 6 sc in ring\nR2-R12: sc around\n")
    row = next(f for f in scaled(first(Design("One", parts=(limb,))), 0.6).features if f.kind == "width")
    assert (row.state, row.before, row.after) == (State.CHANGED, "6 around", "5 around")


@pytest.mark.parametrize(("scale", "counts"), [(1.3, [8, 8]), (1.5, [9, 9]), (2.0, [6, 12, 12])])
def test_a_straight_limb_grows_in_width_too(scale: float, counts: list[int]) -> None:
    worked, _, _ = at("R1: 6 sc in ring\nR2-R9: sc around\n", scale)
    assert list(worked.counts[: len(counts)]) == counts
    assert len(worked.rounds) == pytest.approx(9 * scale, abs=1)


# --- words -------------------------------------------------------------------------------------------------

TOPS = {n: round(n * 1.5) for n in range(1, 31)}


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("Insert the eyes between R8 and R9, with 6 stitches visible between.",
         "Insert the eyes between R12 and R13, with 8 stitches visible between."),
        ("Sew the arms over R17-R19.", "Sew the arms over R25-R28."),
        ("Wrap 12 cm of wire, ends turned in.", "Wrap 18 cm of wire, ends turned in."),
        ("With a 3.5 mm hook and 6 mm eyes.", "With a 3.5 mm hook and 9 mm eyes."),
        ("Leave 7 stitches between the ears.", "Leave 11 stitches between the ears."),
        ("Cut a felt disc of 2 in.", "Cut a felt disc of 3 in."),
        ("Round 4 is the belly; see rounds 6 to 8.", "Round 6 is the belly; see rounds 9 to 12."),
        ("Made in 2024 for R2-D2.", "Made in 2024 for R2-D2."),
        ("Stuff firmly.", "Stuff firmly."),
    ],
)  # fmt: skip
def test_her_sentences_name_the_rounds_and_lengths_of_the_size(before: str, after: str) -> None:
    assert resaid(before, TOPS, 1.5) == after


@given(st.text(max_size=200), st.floats(0.3, 4))
def test_words_keep_every_letter(text: str, scale: float) -> None:
    said = resaid(text, TOPS, scale)
    assert [c for c in said if c.isalpha() and c not in "RrVv"] == [
        c for c in text if c.isalpha() and c not in "RrVv"
    ] or ("R" in text or "r" in text)


# --- laws ----------------------------------------------------------------------------------------------------


@given(st.integers(3, 80), st.floats(0.3, 4), st.integers(3, 8))
def test_a_shared_count_is_near_its_size(count: int, scale: float, start: int) -> None:
    found = shared_count(count, scale, start)
    assert found >= 3
    assert found == 3 or abs(found - count * scale) <= max(1.0, 0.12 * count * scale)


@given(
    st.lists(
        st.tuples(st.sampled_from(["sc", "hdc", "dc"]), st.sampled_from(list(Loops)[:3])), min_size=1, max_size=20
    ),
    st.integers(1, 60),
)
def test_rounds_are_shared_out_without_one_too_many(looks: list[tuple[str, Loops]], total: int) -> None:
    bands = bands_of([Look(base, loops, "Main", joined=False) for base, loops in looks])
    ridges = sum(b.ridge for b in bands)
    many = shared_out(bands, total)
    growing = len(bands) - ridges
    assert all(n >= 0 for n in many)
    if total >= ridges + growing:
        assert sum(many) == (total if growing else ridges)
        assert all(many)


@settings(max_examples=60)
@given(random_parts("Part"), st.floats(0.5, 2.2))
def test_nothing_is_lost_in_silence(part: Written, scale: float) -> None:
    """Whatever a part holds is in the part of the other size or in the report; and what is made is sound."""
    before = run_part(part)[1]
    assume(not [p for p in before if p.severity is Severity.FAULT])
    try:
        found = regrade(part, scale, GAUGE)
    except CraftError:
        return  # the whole part is named, with the reason
    problems = run_part(found.part)[1]
    assert not [p for p in problems if p.severity is Severity.FAULT]
    left = inventory(found.part)
    for kind, which in inventory(part):
        told = any(which.lower() in (f.before.lower(), f.kind) or f.kind == kind for f in found.features)
        words = kind == "words" and any(k == "words" for k, _ in left)
        assert left[kind, which] or told or words, (kind, which)


def test_what_is_gone_is_found_missing() -> None:
    before = written("R1: 6 sc in ring\nR2: (sc, bobble) x 3\nMind the gap.\n")
    after = written("R1: 6 sc in ring\nR2: sc around\n")
    rows = unaccounted("Nose", before, after, ())
    assert {(r.kind, r.before) for r in rows} == {("stitch", "bobble"), ("words", "mind the gap#")}
    assert {r.state for r in rows} == {State.LOST}


LIMB = "R1: 6 sc in ring [6]\nR2-R16: sc around [6]\n"
WIDE_LIMB = "R1: 12 sc in ring [12]\nR2-R24: sc around [12]\n"


@pytest.mark.parametrize(
    ("text", "scale", "told"),
    [
        (LIMB, 2.0, ("6 around, bends", "12 around, to be filled")),
        (LIMB + "Do not stuff.\n", 2.0, None),
        (LIMB + "Put a wire of 10 cm in.\n", 2.0, None),
        (LIMB, 1.2, None),
        (WIDE_LIMB, 0.5, ("12 around, filled", "6 around, bends")),
        ("R1: 6 sc in ring [6]\nR2-R4: sc around [6]\n", 2.0, None),
    ],
)  # fmt: skip
def test_what_no_longer_bends_is_told(text: str, scale: float, told: tuple[str, str] | None) -> None:
    design = Design("Doll", parts=(Part("b", "Body", BALL), Part("l", "Limb", text, 2)))
    rows = [f for f in report_of(scaled(first(design), scale)) if f.kind == "bend"]
    assert [(f.part, f.before, f.after) for f in rows] == ([] if told is None else [("Limb", *told)])
