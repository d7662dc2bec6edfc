"""Booklets at a size, and in one text for all sizes: every size stands in it, whole."""

from __future__ import annotations

import json
import re
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.design.design import Design
from craft.design.grading import Sized, asked_for, figure_size, first_size
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.design.size import Size, SizeKind
from craft.design.stored import written
from craft.document.booklet import (
    CountTable,
    Document,
    Facts,
    Imprint,
    Paragraph,
    Rounds,
    Section,
    Steps,
    as_html,
    as_text,
    edition_for_all,
    edition_of,
)
from craft.errors import CraftError
from craft.rounds.stitches import Language, Terms
from craft.text.check import check
from craft.text.several_sizes import head_line, of_size, said_for_all
from tests.craft.figures import figure
from tests.craft.test_cli import as_json, run
from tests.craft.test_grading import demo, first

IMPRINT = Imprint("Lanternwick", Terms.US, "2026-11-29")
NAMES = ("S", "M", "L")


def sizes_of(design: Design, *times: float) -> list[Sized]:
    one = first_size(design, run_parts(design))
    height = figure_size(one)[1]
    wishes = (Size("z", "z", SizeKind.HEIGHT, height_mm=height * by) for by in times)
    return [one, *(asked_for(one, wish) for wish in wishes)]


def section(document: Document, key: str) -> Section:
    return next(s for s in document.sections if s.key == key)


def facts(document: Document, key: str) -> dict[str, str]:
    found = next(b for b in section(document, key).blocks if isinstance(b, Facts))
    return dict(found.rows)


def read_back(document: Document, key: str, name: str) -> str:
    """The lines of a part for one of its sizes."""
    rounds = next(b for b in section(document, key).blocks if isinstance(b, Rounds))
    lines = "".join(f"{line.text}\n" for line in rounds.lines)
    return of_size(f"{head_line(NAMES)}\n{lines}", name)


@pytest.mark.parametrize("language", [None, *Language])
@pytest.mark.parametrize("name", ["Garden Snail", "Bat"])
def test_every_size_reads_back_in_every_language(name: str, language: Language | None) -> None:
    """Chosen out of the text for all sizes and read as that language is read: the same counts of the whole figure."""
    design = demo(name)
    sizes = sizes_of(design, 1.4, 1.8)
    document = edition_for_all(sizes, NAMES, replace(IMPRINT, language=language))
    assert document.language == (language or "en")
    for size, called in zip(sizes, NAMES, strict=True):
        text = "".join(
            f"# {p.name} (make {p.make})\n{read_back(document, f'part-{p.name}', called)}" for p in design.parts
        )
        again = check(text)
        assert again.sound, (called, again.problems[:2])
        assert {p.name: p.counts for p in again.parts} == {p.source.name: p.worked.counts for p in size.parts}


@pytest.mark.parametrize("language", list(Language))
def test_how_to_read_it_is_said_in_the_language(language: Language) -> None:
    document = edition_for_all(sizes_of(figure(), 1.3, 1.6), NAMES, replace(IMPRINT, language=language))
    how = section(document, "sizes")
    assert how.title != "Sizes"
    assert isinstance(how.blocks[0], Paragraph)
    assert "S (M, L)" in how.blocks[0].text
    assert "Written for" not in as_text(document)
    steps = next(b for b in section(document, "assembly").blocks if isinstance(b, Steps))
    assert any(line.startswith("Brush it. [") for line in steps.lines), "her own words say that they are hers"


def test_a_count_stands_apart_only_where_it_is_that_of_all_sizes() -> None:
    document = edition_for_all(sizes_of(demo("Garden Snail"), 1.6, 2.4), NAMES, IMPRINT)
    rounds = [ln for s in document.sections for b in s.blocks if isinstance(b, Rounds) for ln in b.lines]
    by_size = [ln for ln in rounds if ln.kind == "round" and re.search(r"(?:^|; )L: ", ln.work)]
    assert by_size
    assert not any(ln.count for ln in by_size)
    body = next(b for b in section(document, "part-Body").blocks if isinstance(b, Rounds))
    assert next(ln.label for ln in body.lines if ln.label) in ("R1", "R1 (R1, R1)")


def test_measures_and_yarn_stand_size_by_size() -> None:
    document = edition_for_all(sizes_of(figure(), 1.3, 1.6), NAMES, IMPRINT)
    assert "(" in facts(document, "materials")["Filling"]
    assert facts(document, "materials")["Hook"] == "3 mm", "what is alike stands once"
    eyes = facts(document, "materials")["Eyes"]
    assert eyes.startswith("two safety eyes of 8 (10, 14) mm")
    steps = next(b for b in section(document, "assembly").blocks if isinstance(b, Steps))
    assert "Brush it." in steps.lines
    how = section(document, "sizes").blocks[0]
    assert isinstance(how, Paragraph)
    assert "S (M, L)" in how.text
    assert how.text.startswith("Written for 3 sizes")
    tables = [b for b in section(document, "part-Head").blocks if isinstance(b, CountTable)]
    assert len(tables) == 3, "one count table a size"


def test_one_size_is_a_booklet_of_its_own() -> None:
    one, tall = sizes_of(figure(), 1.6)
    document = edition_of(tall, IMPRINT)
    assert facts(document, "about")["Finished size"] != facts(edition_of(one, IMPRINT), "about")["Finished size"]
    text = as_text(document)
    for part in tall.parts:
        assert f"[{part.worked.rounds[-1].live}]" in text
    assert "R8 (" not in text, "nothing of other sizes"


def test_a_booklet_for_all_needs_two_sizes_with_names_that_differ() -> None:
    sizes = sizes_of(figure(), 1.5)
    with pytest.raises(CraftError, match="two or more"):
        edition_for_all(sizes[:1], ["S"], IMPRINT)
    with pytest.raises(CraftError, match="one name"):
        edition_for_all(sizes, ["S", "S"], IMPRINT)
    with pytest.raises(CraftError, match="brackets"):
        edition_for_all(sizes, ["S", "M (tall)"], IMPRINT)


def test_a_part_that_only_some_sizes_change_keeps_its_words() -> None:
    design = Design("Duck", parts=(Part("b", "Body", "R1: 6 sc in ring\nR2-R4: sc around\nStuff it well.\n"),))
    document = edition_for_all([first(design), *sizes_of(design, 2.0)[1:]], ["S", "L"], IMPRINT)
    lines = next(b for b in section(document, "part-Body").blocks if isinstance(b, Rounds)).lines
    assert [line.text for line in lines if line.kind == "step"] == ["Stuff it well."]
    assert all(line.label for line in lines if line.kind == "round")


TEXTS = st.lists(
    st.sampled_from(["4 cm tall", "5.5 cm tall", "1½ in tall", "as it is", "2 of 3"]), min_size=2, max_size=4
)


@given(TEXTS)
def test_nothing_that_a_size_says_is_lost(texts: list[str]) -> None:
    """Law: every number and every word of every size stands in the sentence for all."""
    said = said_for_all(texts, [f"N{k}" for k in range(len(texts))])
    for text in texts:
        for word in text.split():
            assert word in said.replace("(", " ").replace(")", " ").replace(",", " ").replace(";", " ").split()


# --- the command line -----------------------------------------------------------------------


@pytest.fixture
def file(tmp_path: Path) -> str:
    path = tmp_path / "gloomcap.json"
    path.write_text(written(figure()))
    return str(path)


def test_materials_by_colour_with_their_spread(capsys: pytest.CaptureFixture[str], file: str) -> None:
    data = as_json(capsys, "materials", "materials", file)
    assert [c["colour"] for c in data["colours"]] == ["Main", "Moss"]
    main = data["colours"][0]
    assert main["metres"]["low"] < main["metres"]["value"] < main["metres"]["high"]
    assert main["grams"]["value"] == pytest.approx(main["metres"]["value"] * 50 / 105)
    assert main["skeins"] == 1
    assert data["eye_mm"] == 8
    assert {t["part"] for t in data["tails"]} == {"Head", "Leg (left)"}
    _, lines, _ = run(capsys, "materials", file)
    assert "eyes: two of 8 mm" in lines
    assert "1 skein\n" in lines


def test_materials_of_plain_rounds_know_no_grams(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    ball = tmp_path / "ball.txt"
    ball.write_text("R1: 6 sc in ring [6]\nR2: 6 inc [12]\n")
    data = as_json(capsys, "materials", "materials", str(ball), "--stitch", "5", "--round", "4.6")
    assert data["colours"][0]["grams"] is None
    assert data["eye_mm"] is None


@pytest.mark.parametrize("to", ["text", "md", "html", "json"])
def test_a_booklet_in_every_form(capsys: pytest.CaptureFixture[str], file: str, to: str) -> None:
    as_json(capsys, "booklet", "booklet", file)
    code, out, err = run(capsys, "booklet", file, "--to", to, "--designer", "Fern", "--date", "2026-11-29")
    assert (code, err) == (0, "")
    for words in (
        "GLOOMCAP" if to == "text" else "Gloomcap",
        "A pattern by Fern",
        "Version 1.1, draft of 2026-11-29",
        "18 sc",
    ):
        assert words in out
    if to == "json":
        assert json.loads(out)["format"] == 1


def test_a_page_of_html_holds_no_markup_of_hers() -> None:
    sized = first(Design("Moth <b>", parts=(Part("b", "Body", "R1: 6 sc in ring\n> & <i>soft</i>\n"),)))
    page = as_html(edition_of(sized, IMPRINT))
    assert "<i>" not in page
    assert "&lt;i&gt;soft" in page
    assert "Moth &lt;b&gt;" in page


def test_the_edition_is_chosen_by_the_size_s_name(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    design = figure()
    tall = Size("z2", "Tall (60 mm)", SizeKind.HEIGHT, height_mm=60)
    file = tmp_path / "two.json"
    file.write_text(written(Design(design.name, gauge=design.gauge, parts=design.parts, sizes=(tall,))))
    _, one, _ = run(capsys, "booklet", str(file), "--size", "tall (60 mm)")
    _, both, _ = run(capsys, "booklet", str(file), "--size", "all")
    assert "Written for 2 sizes: first (Tall 60 mm)" in both
    assert "Written for" not in one
    code, _, err = run(capsys, "booklet", str(file), "--size", "huge")
    assert code == 2
    assert "its sizes are: Tall (60 mm)" in err
