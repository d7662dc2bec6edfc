"""Bringing patterns in: the correction board by mouse and by keys, documents, terms, and back out of it by undo."""

from __future__ import annotations

from pathlib import Path

from playwright.sync_api import Locator, Page, expect
from weasyprint import HTML

from studio.designs.models import Design, PartVersion

EARS = "Ears (make 2)\nRnd 1: MR, 6 sc (6)\nRnd 2: inc x 6 (13)\nRnd 3: sc around (12)\n\nTail\nR1: 4 sc in ring\n"
MISREAD = "Hat\nBrim first\nR1: 6 sc in ring (6)\nR2: 6 zog (12)\n\nTip\nR1: 5 sc in ring (5)\n"


def read(page: Page, text: str) -> Locator:
    page.get_by_role("button", name="Bring in").click()
    page.get_by_label("Or pasted").fill(text)
    page.get_by_role("button", name="Read it").click()
    lines = page.get_by_role("list", name="Line by line")
    expect(lines).to_be_visible()
    return lines


def names(design: Design) -> list[str]:
    return [p.name for p in Design.objects.get(pk=design.pk).manifest.parts]


def test_a_pasted_text_is_shown_line_by_line_before_it_is_kept(bench: Page, design: Design) -> None:
    lines = read(bench, EARS)
    expect(lines.get_by_text("R1: 6 sc in ring [6]")).to_be_visible()
    expect(lines.get_by_text("R2 says 13, but its stitches make 12")).to_be_visible()
    assert names(design) == ["Body"]
    bench.get_by_role("checkbox", name="Tail").uncheck()
    bench.get_by_role("button", name="Bring in 1 part").click()
    bench.get_by_role("button", name="Ears × 2").wait_for()
    assert names(design) == ["Body", "Ears"]
    bench.get_by_role("button", name="Undo: Brought in Ears").click()
    expect(bench.get_by_role("button", name="Ears × 2")).to_have_count(0)


def test_a_misread_heading_is_corrected_by_mouse(bench: Page, design: Design) -> None:
    lines = read(bench, MISREAD)
    found = bench.get_by_role("region", name="Parts found")
    expect(found.get_by_role("checkbox", name="Brim first")).to_be_visible()
    lines.get_by_role("button", name="Line 2, Part heading").click()
    bench.get_by_role("menuitem", name="Note").click()
    expect(found.get_by_role("checkbox", name="Hat")).to_be_visible()
    bench.get_by_role("region", name="Doubts").get_by_role("button", name="zog").click()
    lines.get_by_role("button", name="Line 4, Round").click()
    bench.get_by_role("menuitem", name="Explain a word").click()
    bench.get_by_label("Means").fill("increase")
    bench.get_by_role("button", name="Explain it").click()
    expect(bench.get_by_text("Everything was understood")).to_be_visible()
    bench.get_by_role("button", name="Undo the last correction").click()
    expect(bench.get_by_role("region", name="Doubts")).to_be_visible()
    bench.get_by_role("button", name="Do it again").click()
    expect(bench.get_by_text("Everything was understood")).to_be_visible()
    bench.get_by_role("button", name="Bring in 2 parts").click()
    bench.get_by_role("button", name="Tip", exact=True).wait_for()
    assert names(design) == ["Body", "Hat", "Tip"]
    hat = Design.objects.get(pk=design.pk).manifest.parts[1]
    assert PartVersion.objects.get(pk=hat.version).text.splitlines()[1:] == ["R1: 6 sc in ring [6]", "R2: inc x 6 [12]"]


def test_a_misread_heading_is_corrected_by_keys_alone(bench: Page, design: Design) -> None:
    lines = read(bench, MISREAD)
    expect(lines.get_by_role("button", name="Line 1,")).to_be_focused()
    bench.keyboard.press("ArrowDown")
    bench.keyboard.press("n")
    expect(lines.get_by_role("button", name="Line 2, Note")).to_be_focused()
    bench.keyboard.press("ArrowDown")
    bench.keyboard.press("ArrowDown")
    bench.keyboard.press("e")
    bench.keyboard.type("increase")
    bench.keyboard.press("Enter")
    expect(bench.get_by_text("Everything was understood")).to_be_visible()
    expect(lines.get_by_role("button", name="Line 4, Round")).to_be_focused()
    bench.keyboard.press("Control+z")
    expect(bench.get_by_role("region", name="Doubts")).to_be_visible()
    assert names(design) == ["Body"], "undo on the board is not undo of the design under it"
    bench.keyboard.press("Control+Shift+z")
    expect(bench.get_by_text("Everything was understood")).to_be_visible()
    bring = bench.get_by_role("button", name="Bring in 2 parts")
    expect(bring).to_be_enabled()
    bring.focus()
    bench.keyboard.press("Enter")
    bench.get_by_role("button", name="Tip", exact=True).wait_for()
    assert names(design) == ["Body", "Hat", "Tip"]


def test_the_board_outlives_a_reload_and_nonsense(bench: Page) -> None:
    read(bench, MISREAD)
    bench.keyboard.press("ArrowDown")
    bench.keyboard.press("n")
    expect(bench.get_by_role("button", name="Line 2, Note")).to_be_visible()
    bench.reload()
    bench.get_by_role("button", name="Bring in").click()
    expect(bench.get_by_role("button", name="Line 2, Note")).to_be_visible()
    bench.get_by_role("button", name="Another text").click()
    bench.get_by_label("Or pasted").fill("Dear diary, nothing today.")
    bench.get_by_role("button", name="Read it").click()
    expect(bench.get_by_text("No round was found").first).to_be_visible()
    expect(bench.get_by_role("button", name="Bring in 0 parts")).to_be_disabled()


def test_a_uk_pdf_comes_into_a_us_design_with_every_stitch_what_it_was(
    bench: Page, design: Design, tmp_path: Path
) -> None:
    pdf = tmp_path / "paw.pdf"
    rounds = ["6 dc in adjustable ring [6]", "2 dc in each st [12]", "12 htr [12]"]
    body = "".join(f"<p>Round {n}: {work}</p>" for n, work in enumerate(rounds, 1))
    HTML(string=f"<h1>Badger</h1><p>UK terms</p><h2>Paw (make 4)</h2>{body}").write_pdf(pdf)
    bench.get_by_role("button", name="Bring in").click()
    bench.get_by_label("A file").set_input_files(pdf)
    expect(bench.get_by_text("Every stitch stays what it was")).to_be_visible()
    bench.get_by_role("button", name="Bring in 1 part").click()
    bench.get_by_role("button", name="Paw × 4").wait_for()
    paw = Design.objects.get(pk=design.pk).manifest.parts[1]
    text = PartVersion.objects.get(pk=paw.version).text
    assert [line for line in text.splitlines() if line][-3:] == [
        "Round 1: 6 sc in adjustable ring [6]",
        "Round 2: 2 sc in each st [12]",
        "Round 3: 12 hdc [12]",
    ]


def test_a_pattern_in_german_becomes_parts_with_the_reason_for_every_reading(bench: Page, design: Design) -> None:
    lines = read(
        bench,
        "Erstes Bein\n1. Rd: 6 fM in einen Fadenring (6)\n2. Rd: jede M verdoppeln (12)\n3.-5. Rd: in jede M 1 fM (12)\n\n"
        "Zweites Bein\nWie das erste Bein bis zur 5. Rd, aber den Faden nicht abschneiden.\n",
    )
    expect(bench.get_by_label("Read in")).to_contain_text("the words are German")
    expect(lines.get_by_text("R3-R5: sc around [12]").first).to_be_visible()
    expect(lines.get_by_text("as it is written elsewhere").first).to_be_visible()
    bench.get_by_role("button", name="Bring in 2 parts").click()
    bench.get_by_role("button", name="Zweites Bein", exact=True).wait_for()
    parts = Design.objects.get(pk=design.pk).manifest.parts
    assert [p.name for p in parts] == ["Body", "Erstes Bein", "Zweites Bein"]
    assert "R2: inc around [12]" in PartVersion.objects.get(pk=parts[2].version).text


def test_a_file_that_has_no_text_says_so(bench: Page, tmp_path: Path) -> None:
    bench.get_by_role("button", name="Bring in").click()
    picture = tmp_path / "owl.png"
    picture.write_bytes(b"\x89PNG\r\n\x1a\n" + bytes(200))
    bench.get_by_label("A file").set_input_files(picture)
    expect(bench.get_by_role("alert")).to_contain_text("not UTF-8 text")
    damaged = tmp_path / "moth.pdf"
    damaged.write_bytes(b"%PDF-1.7 torn")
    bench.get_by_label("A file").set_input_files(damaged)
    expect(bench.get_by_role("alert")).to_contain_text("this PDF is damaged")
