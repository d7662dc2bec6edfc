"""What the proof-reader finds in a booklet, and that it is silent where nothing is wrong."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.design import Audience, Brief, Design, EyeKind, Eyes, Level, Printed, Step
from craft.design.joins import Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.running import run_parts
from craft.design.stored import from_json, to_json
from craft.document.booklet import Imprint, Observed, Picture, as_text, compose, manuscript_of
from craft.document.proof import CODES, Finding, Weight, proof_of
from craft.rounds.stitches import Language, Terms

BODY = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4-R6: sc around [18]
Insert the eyes between R4 and R5.
R7: (sc, dec) x 6 [12]
Stuff firmly.
R8: dec x 6 [6]
Close.
"""
EAR = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3-R4: sc around [12]\nFasten off and leave a tail of 30 cm.\n"
PEAT = DesignYarn("Peat", "#5a4634", 3, wraps=9, skein_m=105, skein_g=50)


def sound() -> Design:
    """A figure with nothing to find."""
    return Design(
        "Moth",
        gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.0, 4.6, 0.3, 60, 0.5),
        yarns=(PEAT,),
        parts=(Part("body", "Body", BODY), Part("ear", "Ears", EAR, 2)),
        joins=(Join("j1", "ear", "body", Place("body", 3, 4), manner=Manner.OPEN, paired=True),),
        steps=(Step("s1", "Sew the ears on, between R2 and R4.", "ear", "j1"),),
        eyes=Eyes(EyeKind.SAFETY, 8, Place("body", 4), 4),
        brief=Brief(level=Level.BASIC),
        printed=Printed("1.0", permissions="For personal use."),
    )


def found(design: Design, observed: Observed | None = None) -> list[Finding]:
    return list(proof_of(design, run_parts(design), observed or Observed()))


def codes(design: Design, observed: Observed | None = None) -> set[str]:
    return {f.code for f in found(design, observed)}


def body(text: str) -> Design:
    design = sound()
    return replace(design, parts=(replace(design.parts[0], text=text), design.parts[1]))


def test_a_sound_figure_has_nothing_to_find() -> None:
    assert found(sound()) == []


BY_CHANGE: dict[str, Design] = {
    "count": body(BODY.replace("[18]\nR4", "[19]\nR4")),
    "no-rounds": Design("Nothing"),
    "eyes-after-closing": body(BODY.replace("Insert the eyes between R4 and R5.\n", "").replace(
        "Close.", "Insert the eyes between R4 and R5.")),
    "next-round": body(BODY.replace("R4-R6: sc around [18]", "Next round: sc around [18]\nNext round: sc around [18]")),
    "no-stuffing": body(BODY.replace("Stuff firmly.\n", "")),
    "unexplained": body(BODY.replace("Stuff firmly.", "Stuff firmly. PM here.")),
    "unused": replace(sound(), printed=Printed("1.0", permissions="Yes.", notes="PM = place a marker")),
    "colour-unused": replace(sound(), yarns=(PEAT, DesignYarn("Moss", "#77834b", 3))),
    "no-yarn": replace(sound(), yarns=()),
    "made-differently": replace(sound(), parts=(sound().parts[0], replace(sound().parts[1], make=1))),
    "no-place": replace(sound(), joins=(Join("j1", "ear", "body"),), steps=(Step("s1", "Sew on the ears.", "ear", "j1"),)),
    "step-differs": replace(sound(), steps=(Step("s1", "Sew the ears to R7.", "ear", "j1"),)),
    "no-step": replace(sound(), joins=(), steps=()),
    "no-tail": replace(sound(), parts=(sound().parts[0], replace(sound().parts[1], text=EAR.replace(
        "Fasten off and leave a tail of 30 cm.\n", "")))),
    "tail-length": replace(sound(), parts=(sound().parts[0], replace(sound().parts[1], text=EAR.replace(
        "of 30 cm", "for sewing")))),
    "no-picture": replace(sound(), steps=(*sound().steps, Step("s2", "Push the wire into the arms."))),
    "picture-promised": replace(sound(), steps=(*sound().steps, Step("s2", "Shape the cheeks.", picture=True))),
    "film-address": replace(sound(), steps=(*sound().steps, Step("s2", "Shape the cheeks.", film="cheeks.mov"))),
    "level": replace(sound(), brief=Brief(level=Level.COMPLEX)),
    "measure": replace(sound(), brief=Brief(level=Level.BASIC, height_mm=300)),
    "gauge-assumed": replace(sound(), gauge=GaugeInForce()),
    "no-permissions": replace(sound(), printed=Printed("1.0")),
    "caution": replace(sound(), brief=Brief(Audience.UNDER_THREE, Level.BASIC)),
}  # fmt: skip


@pytest.mark.parametrize("code", BY_CHANGE)
def test_each_slip_is_found(code: str) -> None:
    assert code in codes(BY_CHANGE[code])


def test_what_is_found_says_where_it_is_mended() -> None:
    fault = next(f for f in found(BY_CHANGE["count"]) if f.code == "count")
    assert (fault.stop.value, fault.part, fault.round) == ("rounds", "body", 3)
    step = next(f for f in found(BY_CHANGE["step-differs"]) if f.code == "step-differs")
    assert (step.stop.value, step.step) == ("assembly", "s1")


def test_what_blocks_comes_first() -> None:
    design = replace(BY_CHANGE["count"], brief=Brief(level=Level.COMPLEX), printed=Printed("1.0"))
    weights = [f.weight for f in found(design)]
    assert weights == sorted(weights, key=lambda w: w is not Weight.BLOCKS)
    assert Weight.BLOCKS in weights
    assert Weight.LOOK in weights


def test_a_photograph_answers_for_its_step() -> None:
    shown = Observed(photos={"s2": (Picture("photo:p", "The wire"),)})
    for code in ("no-picture", "picture-promised"):
        assert code not in codes(BY_CHANGE[code], shown)


def test_a_film_clip_answers_for_its_step_and_is_printed() -> None:
    for code in ("no-picture", "picture-promised"):
        last = BY_CHANGE[code].steps[-1]
        filmed = replace(last, film="https://lanternwick.example/clips/wire")
        design = replace(BY_CHANGE[code], steps=(*BY_CHANGE[code].steps[:-1], filmed))
        assert not {code, "film-address"} & codes(design)
        for words, said in ((None, "Film: https"), (Language.DUTCH, "Filmpje: https")):
            imprint = Imprint("Fern", Terms.US, "2026-11-30", language=words)
            text = as_text(compose(manuscript_of(design, run_parts(design), imprint)))
            assert f"{said}://lanternwick.example/clips/wire" in " ".join(text.split())


@pytest.mark.parametrize(
    "typed", ["cheeks.mov", "javascript:alert(1)", "ftp://x.example/a", "https://", "https://a b.example"]
)
def test_what_is_no_address_is_kept_told_and_not_printed(typed: str) -> None:
    step = Step("s2", "Shape the cheeks.", film=typed)
    design = replace(sound(), steps=(*sound().steps, step))
    assert "film-address" in codes(design)
    assert from_json(to_json(design)).steps[-1].film == typed
    imprint = Imprint("Fern", Terms.US, "2026-11-30")
    assert "Film:" not in as_text(compose(manuscript_of(design, run_parts(design), imprint)))


def test_her_own_blockers_block() -> None:
    assert [f.text for f in found(sound(), Observed(blockers=("wait for Odo",)))] == ["You noted: wait for Odo"]


def test_the_settled_size_is_held_against_the_brief() -> None:
    design = replace(sound(), brief=Brief(level=Level.BASIC, height_mm=80))
    assert "measure" in codes(design)
    assert "measure" not in codes(design, Observed(size_mm=(40, 40, 80)))


@pytest.mark.parametrize("words", ["US terms, 12 EU sizes, EN 71", "It needs 2 st more, sc around", "the BODY in peat"])
def test_everyday_capitals_are_no_abbreviations(words: str) -> None:
    assert "unexplained" not in codes(body(BODY.replace("Stuff firmly.", f"Stuff firmly. {words}.")))


def test_an_abbreviation_of_the_notes_is_explained() -> None:
    design = body(BODY.replace("Stuff firmly.", "Stuff firmly. PM here."))
    noted = replace(design, printed=Printed("1.0", permissions="Yes.", notes="PM = place a marker"))
    assert not codes(noted) & {"unexplained", "unused"}


def test_every_code_has_a_meaning() -> None:
    assert all(meaning.endswith(".") for _, meaning in CODES.values())


def test_a_tail_that_is_missing_is_told_with_its_length() -> None:
    said = next(f.text for f in found(BY_CHANGE["tail-length"]) if f.code == "tail-length")
    # 12 stitches of 5 mm are a seam of 6 cm; three times that and 15 cm (common practice, no source).
    assert said.endswith("its seam takes about 33 cm.")
