"""Designs as values of the craft: gauge, palette, seats, progress; and the words of the booklet."""

from __future__ import annotations

from typing import Any

import pytest
from django.contrib.auth.models import User

from craft.design.design import Posture
from craft.design.parts import colours_of
from craft.design.seating import estimated_figure, seats_of
from craft.document.booklet import Document, Paragraph, Section
from craft.gauge import ASSUMED, Gauge
from studio.booklets.printing import Sheet, as_html, as_pdf
from studio.booklets.templatetags.booklet import css, signed
from studio.demo.studio import load
from studio.designs.assembly_page import AssemblyPage, AssemblyStep
from studio.designs.manifest import DesignYarn, GaugePage, Manifest
from studio.designs.models import Design
from studio.designs.progress import stops_of
from studio.designs.reading import read_design, yarn_names
from studio.designs.values import gauge_value, value_of, yarn_value
from tests.studio.conftest import BALL, Studio

MOSS = DesignYarn(name="Moss", colour="#77834b", weight=3, wraps=13)
OAT = DesignYarn(name="Oat", colour="#e3cda4", weight=3)


def gauge_of(page: GaugePage) -> Gauge:
    return gauge_value(page).gauge(yarn_value(page.yarns[0]) if page.yarns else None)


def palette_of(manifest: Manifest) -> dict[str, str]:
    return colours_of(value_of(manifest, ()).yarns)


def test_gauge_is_assumed_until_there_is_something_to_go_on() -> None:
    assert gauge_of(GaugePage()) is ASSUMED
    assert gauge_of(GaugePage(yarns=[MOSS])) is ASSUMED
    assert gauge_of(GaugePage(yarns=[MOSS], source="estimate")) is ASSUMED, "no hook yet"


def test_estimate_sample_and_own_figures() -> None:
    estimate = gauge_of(GaugePage(yarns=[MOSS], hook_mm=2.5, source="estimate", lean=0.1))
    assert (estimate.spread, estimate.lean) == (0.12, 0.1)
    two = gauge_of(GaugePage(yarns=[MOSS], hook_mm=2.5, strands=2, source="estimate"))
    assert two.stitch_mm > estimate.stitch_mm
    own = gauge_of(GaugePage(source="own", stitch_mm=5, round_mm=4.5))
    sample = gauge_of(GaugePage(source="swatch", stitch_mm=5, round_mm=4.5))
    assert (own.stitch_mm, sample.stitch_mm) == (5, 5)
    assert own.spread > sample.spread
    assert gauge_of(GaugePage(source="own")) is ASSUMED


def test_the_first_yarn_is_the_main_one() -> None:
    manifest = Manifest(name="Moth", gauge=GaugePage(yarns=[MOSS, OAT]))
    assert palette_of(manifest) == {"Moss": "#77834b", "Oat": "#e3cda4", "Main": "#77834b"}
    assert yarn_names(manifest) == ("Moss", "Oat", "Main")
    assert palette_of(Manifest(name="Moth")) == {}
    assert yarn_names(Manifest(name="Moth")) == ()


def test_only_whole_places_become_seats() -> None:
    steps = [
        AssemblyStep(key="aaaa", part="ear1", on="body", round=5, stitch=3, paired=True, tilt=10),
        AssemblyStep(key="bbbb", part="ear1", on="body"),
        AssemblyStep(key="cccc", part="body", on="body", round=3),
        AssemblyStep(key="dddd", text="Fluff it up."),
    ]
    value = value_of(Manifest(name="Moth", assembly=AssemblyPage(steps=steps)), ())
    (seat,) = seats_of(value.joins, {}, Posture.STANDING)
    assert (seat.part, seat.on, seat.round, seat.stitch, seat.paired, seat.tilt) == ("ear1", "body", 5, 3, True, 10)


@pytest.mark.django_db
def test_the_demo_is_in_different_states(user: User) -> None:
    load(user)
    states = {}
    for design in Design.objects.all():
        read = read_design(design)
        parts = read.parts
        states[design.name] = {s.stop: s.state for s in stops_of(design.manifest, read.value, parts)}
        bodies, placed = estimated_figure(read.value, parts)
        assert len(bodies) == len(parts)
        assert len(placed) >= len(parts)
        seated = {p.part for p in placed}
        assert seated == set(bodies), "every part is to be seen"
    hedgehog = states["Dusk Hedgehog"]
    assert {state for stop, state in hedgehog.items() if stop != "bases"} == {"sound", "under-way"}
    assert (hedgehog["bases"], states["Lantern Fox"]["bases"]) == ("untouched", "under-way")
    assert states["Snail with Long Feelers"]["bases"] == "sound"
    assert states["Acorn"]["rounds"] == "faults"
    assert states["Toadstool House"]["sizes"] == "untouched"


def walk(studio: Studio, made: dict[str, Any], page: str, data: dict[str, Any]) -> dict[str, str]:
    now = studio.ask("GET", f"/designs/{made['id']}")
    after = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": page, "base": now["revision"], "data": data})
    return {s["stop"]: s["state"] for s in after["stops"]}


def test_stops_tell_how_far_they_are(studio: Studio) -> None:
    made, key = studio.with_part(BALL)
    assert walk(studio, made, "brief", {"intro": "x"})["brief"] == "under-way"
    assert walk(studio, made, "brief", {"intro": "x", "height_mm": 50})["brief"] == "sound"
    assert walk(studio, made, "gauge", {"hook_mm": 3, "source": "estimate"})["gauge"] == "under-way"
    assert walk(studio, made, "gauge", {"source": "own", "stitch_mm": 5, "round_mm": 5})["gauge"] == "sound"
    assert walk(studio, made, "assembly", {"steps": [{"key": "aaaa"}]})["assembly"] == "under-way"
    assert walk(studio, made, "assembly", {"steps": [{"key": "aaaa", "text": "Sew."}]})["assembly"] == "sound"
    gone = {"steps": [{"key": "aaaa", "text": "Sew.", "part": "ffff0000"}]}
    assert walk(studio, made, "assembly", gone)["assembly"] == "faults"
    assert walk(studio, made, "booklet", {"version": "2"})["booklet"] == "sound"
    assert walk(studio, made, "proving", {"blockers": "pictures"})["proving"] == "under-way"
    broken = studio.ask("PUT", f"/designs/{made['id']}/parts/{key}/text", {"text": BALL.replace("[18]", "[17]", 1)})
    assert {s["stop"]: s["state"] for s in broken["stops"]}["rounds"] == "faults"
    assert broken["parts"][0]["faults"] == 1


@pytest.mark.parametrize(
    ("step", "words"),
    [
        ({"round": 3}, "(on Body, R3, at the front, in the middle)"),
        ({"round": 8}, "(on Body, R8, at the top)"),
        ({"round": 3, "stitch": 4, "paired": True}, "(on Body, R3, 4 stitches to either side of the front middle)"),
        ({"round": 3, "stitch": 4}, "(on Body, R3, 4 stitches to the left of the front middle as you look at it)"),
        ({"round": 3, "stitch": -2}, "(on Body, R3, 2 stitches to the right of the front middle as you look at it)"),
    ],
)
def test_places_are_told_in_words(studio: Studio, step: dict[str, Any], words: str) -> None:
    made, key = studio.with_part(BALL)
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Ear", "text": BALL}, 201)
    ear = made["parts"][1]["key"]
    walk(studio, made, "assembly", {"steps": [{"key": "aaaa", "text": "Sew it on.", "part": ear, "on": key, **step}]})
    text = studio.ask("GET", f"/designs/{made['id']}/booklet.txt").content.decode()
    assert f"1. Ear: Sew it on. {words}" in text


def test_a_part_begins_with_its_own_yarn(studio: Studio) -> None:
    made, key = studio.with_part(BALL)
    yarns = [y.model_dump() for y in (MOSS, OAT)]
    walk(studio, made, "gauge", {"yarns": yarns, "hook_mm": 3, "source": "estimate"})
    studio.ask("PUT", f"/designs/{made['id']}/parts/{key}", {"name": "Body", "make": 1, "colour": "Oat"})
    text = studio.ask("GET", f"/designs/{made['id']}/booklet.txt").content.decode()
    assert "With Oat\nR1:" in text
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": []})
    assert [y["colour"] for y in table["columns"][0]["yarns"]] == ["Oat"]
    scene = studio.ask("GET", f"/bench/figure/{made['id']}")
    assert scene["parts"][key]["colours"] == ["#e3cda4"]


HOSTILE = '</style><script>alert(1)</script><img src="http://example.invalid/x.png"> & "quotes" \\ end'


def test_nothing_typed_becomes_markup_in_print() -> None:
    section = Section("about", HOSTILE, (Paragraph(HOSTILE),))
    document = Document(HOSTILE, HOSTILE, HOSTILE, "us", (section,))
    cover = "data:image/svg+xml;base64,PHN2Zy8+"
    html = as_html(document, cover, {}, Sheet())
    assert "<script>" not in html
    assert html.count("<img") == 1, "the cover's alone"
    assert f'<img src="{cover}"' in html
    assert html.count("</style>") == 1
    assert as_pdf(document, "", {}, Sheet("letter", large=True, low_ink=True)).startswith(b"%PDF")


def test_filters() -> None:
    assert css("Moth 2") == "Moth 2"
    assert css('"\n\\') == "\\22 \\a \\5c "
    assert css("Version 1.0, 2026") == "Version 1\\2e 0\\2c  2026", "an escape's own blank is not the text's"
    assert [signed(n) for n in (6, 0, -6)] == ["+6", "=", "\N{MINUS SIGN}6"]
