"""The basket, samples, sizes, and making a size a design."""

from __future__ import annotations

import json
import re
from dataclasses import replace
from typing import Any

import pytest

from craft.design.size import Size, SizeKind
from craft.design.stored import to_json
from craft.text.several_sizes import names_in, of_size
from studio.designs.models import Design
from studio.designs.reading import design_value
from studio.jobs.kinds import Stopped
from studio.sizes import drafting
from tests.studio.conftest import BALL, Studio, rounds

MOSS = {"name": "Moss", "colour": "#77834b", "weight": 3, "wraps": 13, "skein_m": 125, "skein_g": 50}
PLUSH = {
    "key": "plush1",
    "name": "in plush",
    "kind": "yarn",
    "hook_mm": 6,
    "strands": 1,
    "yarn": {"name": "Fog", "colour": "#9aa6a8", "weight": 5, "plush": True},
}
TALLER = {"key": "taller", "name": "taller", "kind": "height", "height_mm": 90}


def gauged(studio: Studio) -> dict[str, Any]:
    recipe = rounds(height_mm=50, width_mm=50, start=6)
    text = studio.ask(
        "POST", "/shapes/draft", {"recipe": recipe, "terms": "us", "gauge": {"stitch_mm": 5.0, "round_mm": 4.6}}
    )["text"]
    made, _ = studio.with_part(text, recipe=recipe)
    page = {"yarns": [MOSS], "hook_mm": 3, "source": "own", "stitch_mm": 5.0, "round_mm": 4.6}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "gauge", "base": made["revision"], "data": page})
    eyes = {"eye_kind": "safety", "eye_mm": 8, "steps": []}
    return studio.ask(
        "PUT", f"/designs/{made['id']}/pages", {"page": "assembly", "base": made["revision"], "data": eyes}
    )  # type: ignore[no-any-return]


def test_sizes_side_by_side(studio: Studio) -> None:
    made = gauged(studio)
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [PLUSH, TALLER]})
    base, plush, taller = table["columns"]
    assert plush["parts"][0]["counts"] == base["parts"][0]["counts"]
    ratio = plush["gauge"]["stitch_mm"] / base["gauge"]["stitch_mm"]
    assert plush["height"]["value"] / base["height"]["value"] == pytest.approx(ratio, rel=0.02)
    assert plush["eye_mm"] in (12, 14)
    assert taller["parts"][0]["how"] == "drafted"
    assert taller["height"]["value"] == pytest.approx(90, rel=0.05)
    assert max(taller["parts"][0]["counts"]) > 1.6 * max(base["parts"][0]["counts"])
    assert taller["yarns"][0]["skeins"] >= 1


@pytest.mark.django_db(transaction=True)
def test_many_rounds_are_drafted_by_a_worker_to_the_same_table(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    made = gauged(studio)
    asked = {"sizes": [PLUSH, TALLER]}
    at_once = studio.ask("POST", f"/designs/{made['id']}/sizes", asked)
    monkeypatch.setattr(drafting, "MOST_AT_ONCE", 10)
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", asked)
    assert (table["columns"], table["job"]["state"]) == ([], "done")
    answer = studio.ask("GET", f"/jobs/{table['job']['id']}/answer")
    assert answer == {"job": "sizes", "table": at_once}
    again = studio.ask("POST", f"/designs/{made['id']}/sizes", asked)
    assert again["job"]["id"] == table["job"]["id"]


def test_a_worker_tells_how_many_sizes_are_drafted_and_stops_when_told(studio: Studio) -> None:
    made = gauged(studio)
    value = design_value(Design.objects.get(pk=made["id"]))
    sizes = tuple(Size(f"s{k}", f"{mm} mm", SizeKind.HEIGHT, height_mm=mm) for k, mm in enumerate((60.0, 80.0, 90.0)))
    question = json.dumps({"design": to_json(replace(value, sizes=sizes)), "left": {}})
    seen: list[int] = []
    drafting.work(question, lambda percent: seen.append(percent) is None)
    assert seen == [25, 50, 75]
    with pytest.raises(Stopped):
        drafting.work(question, lambda percent: percent < 50)


def test_sizes_that_cannot_be_say_why_in_their_column(studio: Studio) -> None:
    made = gauged(studio)
    tiny = {**TALLER, "height_mm": 5}
    bare = {**PLUSH, "yarn": None}
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [tiny, bare]})
    assert [bool(c["problem"]) for c in table["columns"]] == [False, True, True]
    empty = studio.design()
    assert studio.ask("POST", f"/designs/{empty['id']}/sizes", {"sizes": []})["columns"][0]["parts"] == []


def test_a_bent_part_is_made_larger_from_its_form(studio: Studio) -> None:
    recipe: dict[str, Any] = {
        "kind": "capsule",
        "height_mm": 80,
        "width_mm": 36,
        "modifiers": [{"kind": "bend", "degrees": 60}],
    }
    asked = {"recipe": rounds(**recipe), "gauge": {"stitch_mm": 5.6, "round_mm": 5.15}, "terms": "us"}
    drafted = studio.ask("POST", "/shapes/draft", asked)
    made, _ = studio.with_part(drafted["text"], recipe=drafted["recipe"])
    tall = {**TALLER, "height_mm": 130}
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [tall]})
    base, larger = table["columns"]
    assert larger["parts"][0]["how"] == "drafted"
    assert max(larger["parts"][0]["counts"]) > 1.3 * max(base["parts"][0]["counts"])
    page = {"base": made["revision"], "data": {"sizes": [tall]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    copy = studio.ask("POST", f"/designs/{made['id']}/sizes/taller/make", status=201)
    assert copy["parts"][0]["recipe"]["form"]["modifiers"] == [{"kind": "bend", "degrees": 60}]
    assert copy["parts"][0]["authoritative"]


def test_flat_panels_are_made_larger_from_their_box(studio: Studio) -> None:
    box = {"form": {"base": "box", "width_mm": 60, "depth_mm": 50, "height_mm": 70}}
    asked = {"recipe": rounds(**box), "gauge": {"stitch_mm": 5.6, "round_mm": 5.15}, "terms": "us"}
    made = studio.design("Crate")
    for part in studio.ask("POST", "/shapes/panels", asked)["parts"]:
        wanted = {name: part[name] for name in ("name", "make", "text", "recipe")}
        made = studio.ask("POST", f"/designs/{made['id']}/parts", wanted, 201)
    tall = {**TALLER, "height_mm": 110}
    table = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [tall]})
    base, larger = table["columns"]
    assert larger["problem"] is None
    assert [p["how"] for p in larger["parts"]] == ["drafted"] * 3
    rows = [[len(p["counts"]) for p in column["parts"]] for column in (base, larger)]
    assert all(b > a for a, b in zip(*rows, strict=True))
    page = {"base": made["revision"], "data": {"sizes": [tall]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    copy = studio.ask("POST", f"/designs/{made['id']}/sizes/taller/make", status=201)
    assert copy["parts"][2]["recipe"]["panel"] == "Base"
    assert all(p["authoritative"] for p in copy["parts"])


def test_a_size_becomes_a_design(studio: Studio) -> None:
    made = gauged(studio)
    page = {"base": made["revision"], "data": {"sizes": [PLUSH, TALLER]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "sizes", **page})
    tall = studio.ask("POST", f"/designs/{made['id']}/sizes/taller/make", status=201)
    assert tall["origin"]["id"] == made["id"]
    assert tall["brief"]["height_mm"] == 90
    assert tall["parts"][0]["authoritative"]
    assert tall["parts"][0]["recipe"]["form"]["width_mm"] == pytest.approx(50 * 90 / 50, rel=0.1)
    plush = studio.ask("POST", f"/designs/{made['id']}/sizes/plush1/make", status=201)
    assert plush["parts"][0]["counts"] == made["parts"][0]["counts"]
    assert plush["gauge"]["hook_mm"] == 6
    assert plush["assembly"]["eye_mm"] > 8
    studio.ask("POST", f"/designs/{made['id']}/sizes/nosuch/make", status=404)


TYPED = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5-R8: sc around [24]\n"
    "Insert the 6 mm eyes between R6 and R7, with 5 stitches visible between.\nR9: 16 sc, turn, leave the rest [24]\n"
    "R10: ch 1, 10 sc, turn [24]\nR11-R12: sc around [24]\nWrap 12 cm of wire and lay it over R5-R8.\n"
    "R13: (2 sc, dec) x 6 [18]\nR14: (sc, dec) x 6 [12]\nR15: dec x 6 [6]\nFasten off and close the hole.\n"
)


def size_of(studio: Studio, made: dict[str, Any], **wish: Any) -> dict[str, Any]:
    """The column of one size that is asked for."""
    asked = {"key": "asked01", "name": "asked", **wish}
    columns = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [asked]})["columns"]
    return columns[1]  # type: ignore[no-any-return]


def test_a_size_is_asked_for_in_any_of_her_ways(studio: Studio) -> None:
    made = gauged(studio)
    key = made["parts"][0]["key"]
    tall = size_of(studio, made, kind="height", height_mm=80, part=key)
    assert tall["parts"][0]["height"]["value"] == pytest.approx(80, abs=3)
    on = size_of(studio, made, kind="count", count=48, part=key)
    assert max(on["parts"][0]["counts"]) == pytest.approx(48, abs=3)
    jar = size_of(studio, made, kind="fit", girth_mm=200, ease_mm=10, part=key)
    assert max(jar["parts"][0]["counts"]) * 5.0 == pytest.approx(210, abs=12)
    skein = size_of(studio, made, kind="grams", grams=10)
    used = skein["yarns"][0]["metres"]["value"] * 50 / 125
    assert 7.5 < used <= 10
    gone = size_of(studio, made, kind="count", count=48, part="gone0000")
    assert "gone" in gone["problem"]


def test_what_became_of_typed_rounds_is_in_the_report(studio: Studio) -> None:
    made, _ = studio.with_part(TYPED)
    column = size_of(studio, made, kind="height", height_mm=2 * 70)
    assert column["problem"] is None
    rows = {(f["kind"], f["state"]) for f in column["features"]}
    assert {("short rows", "moved"), ("words", "moved")} <= rows
    assert not [f for f in column["features"] if f["state"] == "lost"]
    text = column["parts"][0]["text"]
    assert "12 cm of wire" not in text
    assert "cm of wire and lay it over R" in text


def test_typed_rounds_become_a_design_at_another_size(studio: Studio) -> None:
    made, key = studio.with_part(TYPED)
    step = {"key": "st000001", "text": "Sew a button over R7.", "part": key, "on": key, "round": 7}
    page = {"page": "assembly", "base": made["revision"], "data": {"steps": [step]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    asked = {"key": "larger01", "name": "12.8 cm", "kind": "height", "height_mm": 128}
    page = {"page": "sizes", "base": made["revision"], "data": {"sizes": [asked]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    larger = studio.ask("POST", f"/designs/{made['id']}/sizes/larger01/make", status=201)
    part = larger["parts"][0]
    assert part["faults"] == 0
    assert max(part["counts"]) > 1.3 * 24
    assert larger["assembly"]["steps"][0]["text"] != "Sew a button over R7."
    assert larger["brief"]["height_mm"] == 128


def test_the_same_counts_in_another_yarn_carry_lengths(studio: Studio) -> None:
    made, _ = studio.with_part(TYPED)
    column = size_of(studio, made, **{k: v for k, v in PLUSH.items() if k not in ("key", "name")})
    assert column["parts"][0]["counts"] == made["parts"][0]["counts"]
    wire = next(f for f in column["features"] if "wire" in f["before"])
    assert wire["state"] == "moved"
    assert "R5-R8" in wire["after"]
    assert "12 cm" not in wire["after"]


def test_her_samples_come_first_and_correct_what_is_estimated(studio: Studio) -> None:
    made = gauged(studio)
    wish = {k: v for k, v in PLUSH.items() if k not in ("key", "name")}
    guessed = size_of(studio, made, **wish)["gauge"]
    yarn = studio.ask("POST", "/yarns", MOSS, 201)
    estimate = 0.84 * (3 + 25.4 / 13)
    stitches, across = 36, 36 * estimate * 1.12
    piece = {"kind": "stuffed", "stitches": stitches, "across_mm": across, "rounds": 10, "up_mm": 46}
    studio.ask("POST", "/yarns/swatches", {"yarn_id": yarn["id"], "hook_mm": 3, **piece}, 201)
    corrected = size_of(studio, made, **wish)["gauge"]
    assert corrected["stitch_mm"] == pytest.approx(1.12 * guessed["stitch_mm"], rel=0.01)
    assert "corrected by your 1 sample" in corrected["how"]
    measured = {**wish, "hook_mm": 3, "yarn": {**MOSS, "yarn_id": yarn["id"]}}
    assert size_of(studio, made, **measured)["gauge"]["how"] == "measured on your swatch"


def test_one_pattern_for_all_sizes(studio: Studio) -> None:
    made, _ = studio.with_part(TYPED)
    sizes = [
        {"key": "large001", "name": "large (tall)", "kind": "height", "height_mm": 120},
        {"key": "large002", "name": "large, tall", "kind": "height", "height_mm": 140},
    ]
    found = studio.ask("POST", f"/designs/{made['id']}/sizes/pattern", {"sizes": sizes})
    assert found["names"] == ["first", "large tall no 2", "large tall no 3"]
    assert names_in(found["text"]) == tuple(found["names"])
    assert "R3: (sc, inc) x 6 [18]" in of_size(found["text"], "first")
    refused = studio.ask("POST", f"/designs/{made['id']}/sizes/pattern", {"sizes": []}, 422)
    assert "two or more" in refused["detail"]


def test_a_size_is_drawn_in_its_own_measure(studio: Studio) -> None:
    made = gauged(studio)

    def drawn(*sizes: dict[str, Any], status: int = 200) -> Any:
        return studio.ask("POST", f"/designs/{made['id']}/sizes/picture", {"sizes": list(sizes)}, status)

    def tall(svg: str) -> float:
        return float(re.search(r'viewBox="[-\d.]+ [-\d.]+ [\d.]+ ([\d.]+)"', svg)[1]) - 12  # type: ignore[index]

    base, larger = drawn()["svg"], drawn({**TALLER, "height_mm": 100})["svg"]
    assert tall(larger) / tall(base) == pytest.approx(2, rel=0.08)
    assert "as taller, from the front" in larger
    assert "one size" in drawn(TALLER, PLUSH, status=422)["detail"]


def test_a_part_is_made_to_fit_a_part_of_another_design(studio: Studio, other: Studio) -> None:
    hat = gauged(studio)
    head, _ = studio.with_part(f"{BALL}\n")
    key, target = hat["parts"][0]["key"], head["parts"][0]["key"]
    wish = {"kind": "fit", "fits": target, "fits_design": head["id"], "ease_mm": 6, "part": key}
    found = size_of(studio, hat, **wish)
    girth = max(head["parts"][0]["counts"]) * head["gauge_now"]["stitch_mm"]
    assert max(found["parts"][0]["counts"]) * 5.0 == pytest.approx(girth + 6, abs=15)
    wider = "R1: 9 sc in ring\nR2: inc x 9\nR3: (sc, inc) x 9\nR4: (2 sc, inc) x 9\nR5: (3 sc, inc) x 9\n"
    studio.ask("PUT", f"/designs/{head['id']}/parts/{target}/text", {"text": wider})
    now = size_of(studio, hat, **wish)
    assert max(now["parts"][0]["counts"]) > max(found["parts"][0]["counts"])
    studio.ask("DELETE", f"/designs/{head['id']}", status=204)
    assert "gone" in size_of(studio, hat, **wish)["problem"]
    theirs, _ = other.with_part(f"{BALL}\n")
    stranger = size_of(studio, hat, kind="fit", fits=theirs["parts"][0]["key"], fits_design=theirs["id"], part=key)
    assert "gone" in stranger["problem"]


def test_two_yarns_together_become_a_design_with_their_gauge(studio: Studio) -> None:
    made = gauged(studio)
    both = {**PLUSH, "key": "both01", "name": "both", "second": MOSS}
    column = size_of(studio, made, **{**both, "key": "asked01"})
    alone = size_of(studio, made, **{**PLUSH, "key": "asked01"})
    assert column["gauge"]["stitch_mm"] > alone["gauge"]["stitch_mm"]
    assert "As many metres of Moss as of Fog" in column["fabric"]
    page = {"page": "sizes", "base": made["revision"], "data": {"sizes": [both]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    size = studio.ask("POST", f"/designs/{made['id']}/sizes/both01/make", status=201)
    assert size["gauge_now"]["stitch_mm"] == pytest.approx(column["gauge"]["stitch_mm"])


def test_both_ladders_of_a_size_come_with_its_column(studio: Studio) -> None:
    made = gauged(studio)
    taller = size_of(studio, made, kind="height", height_mm=80)
    part = taller["parts"][0]
    assert part["before"] == made["parts"][0]["counts"]
    assert part["links"][0] == [0, 0]
    assert all(b < len(part["before"]) and a < len(part["counts"]) for b, a in part["links"])


def test_what_is_left_of_a_yarn_is_held_against_what_a_size_takes(studio: Studio) -> None:
    yarn = studio.ask("POST", "/yarns", {**MOSS, "left_g": 500}, 201)
    assert yarn["left_g"] == 500
    studio.ask("POST", "/yarns", {**MOSS, "left_g": -1}, 422)
    made = gauged(studio)
    page = {**made["gauge"], "yarns": [{**MOSS, "yarn_id": yarn["id"]}]}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "gauge", "base": made["revision"], "data": page})

    def said(**yarn_now: Any) -> list[tuple[float | None, str | None]]:
        studio.ask("PUT", f"/yarns/{yarn['id']}", {**MOSS, **yarn_now})
        columns = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": [TALLER, PLUSH]})["columns"]
        return [(c["yarns"][0]["left_g"], c["yarns"][0]["enough"]) for c in columns]

    assert said(left_g=500) == [(500, "yes"), (500, "yes"), (None, None)], "of another yarn nothing is known"
    assert said(left_g=0)[0] == (0, "no")
    assert said()[0] == (None, None)
    needs = studio.ask("POST", f"/designs/{made['id']}/sizes", {"sizes": []})["columns"][0]["yarns"][0]["grams"]
    assert said(left_g=needs["value"] + 0.01)[0][1] == "maybe"
    assert said(left_g=needs["high"])[0][1] == "yes"
    assert said(left_g=needs["value"] - 0.01)[0][1] == "no"
