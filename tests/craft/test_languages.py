"""A booklet in another language: every sentence of ours has one, names in braces stay, her prose is translated or marked."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.design import Audience, Brief, EyeKind, Eyes, Made, MadeOf, Mark, Posture, Printed, Step
from craft.design.joins import EdgeOf, Fixing, Join, Manner
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.document.booklet import Imprint, Observed, Picture, as_text, compose, manuscript_of, prose_of
from craft.document.templates import Template, TemplateKind, sheets_of, svg_of
from craft.rounds.stitches import STITCHES, Language, Terms
from craft.text.catalogue import Words, catalogue
from craft.text.check import check
from craft.units import cm
from craft.yarn import WEIGHT_CLASSES
from tests.craft.figures import figure

LANGUAGES = list(Language)
NAMES = re.compile(r"\{(\w*)\}")

ODD = (
    "R1: 6 sc in ring [6]\nR2: 6 hdc-inc [12]\nR3: (bobble, picot, sc) x 6 [12]\nR4: BLO: 12 sc [12]\nR5: (dc, puff) x 6 [12]\n"
    "R6: (tr, popcorn) x 6 [12]\nR7: (spike sc, loop st) x 6 [12]\nR8: (hdc dec, 2 sc) x 3 [9]\nR9: (sc, dec) x 3 [6]\n"
    "Stuff firmly.\nSew on two buttons and use hot glue.\n"
)
ROWS = "Row 1: ch 7, sc in 2nd ch from hook, 5 sc [6]\nRow 2: ch 1, turn, 6 sc [6]\n"


def booklet(
    language: Language | None, told: dict[str, str] | None = None, *, audience: Audience = Audience.PLAY
) -> str:
    base = figure()
    joins = tuple(
        Join(f"k{n}", "leg", "head", Place("head", n + 2, n), manner=manner, fixing=fixing, edge=edge, spread=spread)
        for n, (manner, fixing, edge, spread) in enumerate(
            [
                (Manner.PINCHED, Fixing.SEWN, EdgeOf.END, 1),
                (Manner.LAID, Fixing.SNAPS, EdgeOf.END, 3),
                (Manner.EDGE, Fixing.TAPE, EdgeOf.START, 1),
                (None, Fixing.SLIPPED, EdgeOf.END, 1),
            ]
        )
    )
    marks = (
        Mark("m1", "window", Place("head", 5, -2), made_of=MadeOf.FELT, wide_mm=10, tall_mm=8, paired=True),
        Mark("m2", "cheek", Place("head", 5, 2), made_of=MadeOf.BLUSH, wide_mm=10, tall_mm=8),
        Mark("m3", "smile", Place("head", 5, 2), to=Place("head", 6, -2)),
        Mark("m4", "nose", Place("head", 4), wide_mm=5, tall_mm=4),
        Mark("m5", "", Place("head", 3)),
    )
    design = replace(
        base,
        parts=(*base.parts, Part("odd", "Odd", ODD), Part("rows", "Rows", ROWS)),
        joins=(*base.joins, *joins),
        steps=(*(Step(f"t{n}", "", "leg", j.key, before_closing=n == 0) for n, j in enumerate(joins)), *base.steps),
        marks=marks,
        eyes=Eyes(EyeKind.SAFETY, 8, Place("head", 6), 4),
        posture=Posture.SITTING,
        brief=Brief(audience=audience, intro="A small mushroom."),
        printed=Printed("1.1", count_table=True, charts=True, notions=("stitch marker", "magnets"), permissions="Yes."),
        sources=(),
    )
    imprint = Imprint("Fern", Terms.US, "2026-11-30", language=language, told=told or {})
    seen = Observed(size_mm=(60, 60, 100), photos={"": (Picture("photo:a", "x"),)})
    document = compose(manuscript_of(design, run_parts(design), imprint, seen))
    drawn = [p.alt for p in document.pictures]
    return "\n".join([document.language, as_text(document), *drawn])


@pytest.fixture
def asked(monkeypatch: pytest.MonkeyPatch) -> set[str]:
    """Every sentence that is asked for in another language, and has none."""
    lacking: set[str] = set()
    found = Words._found

    def watched(self: Words, sentence: str) -> str:
        got = found(self, sentence)
        message = catalogue(self.language).get(sentence) if self.language else None
        if self.language is not None and message is None:
            lacking.add(sentence)
        return got

    monkeypatch.setattr(Words, "_found", watched)
    return lacking


PROSE = {"A small mushroom.", "Yes.", "Brush it.", "Stuff firmly.", "Sew on two buttons and use hot glue.", "magnets"}


@pytest.mark.parametrize("language", LANGUAGES)
@pytest.mark.parametrize("audience", [Audience.PLAY, Audience.UNDER_THREE])
def test_no_sentence_of_ours_stays_english(language: Language, audience: Audience, asked: set[str]) -> None:
    text = booklet(language, audience=audience)
    assert asked - PROSE == set()
    assert text.startswith(f"{language.value}\n")
    for english in ("stitches", "Sew on", "Finished size", "Round", "sc in ring", "front middle"):
        assert english not in text.replace("Sew on two buttons", ""), english


@pytest.mark.parametrize("language", LANGUAGES)
@pytest.mark.parametrize(("tall", "wide"), [(True, True), (True, False), (False, True)])
def test_a_measured_size_is_told_in_the_booklets_language(
    language: Language, tall: bool, wide: bool, asked: set[str]
) -> None:
    """Each length by itself: what nobody measured stays an estimate."""
    design = figure()
    parts = run_parts(design)
    size = manuscript_of(design, parts, Imprint("Fern", Terms.US, "2026-11-30"))
    assert size.height is not None
    assert size.width is not None
    made = [Made(1.1, 0.03, 4, e.value) if told else None for told, e in ((tall, size.height), (wide, size.width))]
    printed = replace(design.printed, height_made=made[0], width_made=made[1])
    imprint = Imprint("Fern", Terms.US, "2026-11-30", language=language)
    text = as_text(compose(manuscript_of(replace(design, printed=printed), parts, imprint)))
    assert not {s for s in asked if "measured" in s}
    assert "3%" in text
    for told, length in ((tall, size.height), (wide, size.width)):
        assert (cm(1.1 * length.value) in text) == told


@pytest.mark.parametrize("language", LANGUAGES)
def test_templates_speak_the_booklets_language(language: Language, asked: set[str]) -> None:
    kinds = [Template(kind, "Kopf", 60, 30, many, ()) for kind in TemplateKind for many in (1, 2)]
    words = Words(language)
    pages = "".join(svg_of(sheet, "Igel", "1.0", words) for sheet in sheets_of(kinds, "a4", words))
    assert asked == set()
    for english in ("Felt for", "Print at", "true size", "mirrored", "cut 1", "bank card"):
        assert english not in pages, english


@pytest.mark.parametrize("language", LANGUAGES)
def test_every_stitch_has_a_name_and_an_explanation(language: Language, asked: set[str]) -> None:
    words = Words(language)
    for entry in STITCHES.values():
        if entry.base is None:
            words.say(entry.called(Terms.US))
            words.say(entry.explained(Terms.US))
    assert asked == set()


@pytest.mark.parametrize("language", LANGUAGES)
def test_catalogues_keep_the_names_in_braces(language: Language) -> None:
    for message in catalogue(language):
        if message.id:
            assert message.string, message.id
            assert sorted(NAMES.findall(str(message.id))) == sorted(NAMES.findall(str(message.string))), message.id


def test_all_catalogues_know_the_same_sentences() -> None:
    known = [{m.id for m in catalogue(language)} for language in LANGUAGES]
    assert known[0] == known[1] == known[2]


def test_her_prose_is_translated_or_marked_and_never_lost() -> None:
    plain = booklet(Language.GERMAN)
    assert "A small mushroom. [nicht übersetzt]" in plain
    assert "Maschenmarkierer" in plain, "what everybody needs has its words already"
    told = booklet(Language.GERMAN, {"A small mushroom.": "Ein kleiner Pilz."})
    assert "Ein kleiner Pilz." in told
    assert "A small mushroom." not in told


@pytest.mark.parametrize("language", LANGUAGES)
def test_whoever_translates_every_piece_leaves_nothing_marked(language: Language) -> None:
    """The list that is translated side by side is all that the booklet asks for."""
    design = replace(
        figure(), parts=(*figure().parts, Part("odd", "Odd", ODD)), brief=Brief(intro="A {small} mushroom.")
    )
    parts = run_parts(design)
    plain = Imprint("Fern", Terms.US, "")
    told = {p.text: f"({n})" for n, p in enumerate(prose_of(design, parts, plain))}
    whole = compose(manuscript_of(design, parts, replace(plain, language=language, told=told)))
    mark = Words(language).say("{text} [not translated]", text="").strip()
    assert mark not in as_text(whole)
    half = compose(manuscript_of(design, parts, replace(plain, language=language)))
    assert mark in as_text(half)


def test_rounds_are_in_the_language() -> None:
    text = booklet(Language.GERMAN)
    assert "Rd 1: 6 fM in den Fadenring [6]" in text
    assert "Reihe 2" in text
    assert "Sicherheitsaugen, Knöpfe, Druckknöpfe und Magnete sind Kleinteile" in text, (
        "cautions know what is not said in English"
    )


def test_english_is_as_it_was() -> None:
    text = booklet(None)
    assert "R1: 6 sc in ring [6]" in text
    assert "not translated" not in text
    assert check("# Odd\n" + ODD).sound


def test_braces_of_hers_are_no_names() -> None:
    assert "{odd} words" in Words(Language.FRENCH).say("{text} [not translated]", text="{odd} words")
    imprint = Imprint("x", Terms.US, "", language=Language.FRENCH)
    assert imprint.prose("{odd} words") == "{odd} words [non traduit]"


@pytest.mark.parametrize("language", LANGUAGES)
def test_every_class_of_yarn_has_its_name(language: Language, asked: set[str]) -> None:
    for kind in WEIGHT_CLASSES:
        Words(language).say(kind.name)
    assert asked == set()
