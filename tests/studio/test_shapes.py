"""Shapes over the wire: forms drafted, fitted and compensated, meshes brought in, outlines found, files written."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
import pytest
import trimesh

from craft.fitting.panels import recipe_json, recipe_of
from studio.jobs.models import Job
from tests.studio.conftest import Studio, rounds
from tests.studio.shapes import CRATE, GAUGE, PEAR, answer, drafted

BENT = {"kind": "capsule", "height_mm": 110, "width_mm": 45, "modifiers": [{"kind": "bend", "degrees": 90}]}

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)


@pytest.mark.parametrize(
    ("recipe", "wide", "tall"),
    [
        ({"form": {"base": "traced", "front": PEAR}}, 82, 120),
        ({"form": {"base": "traced", "front": PEAR, "side": PEAR, "axis": [[0, 0], [15, 120]]}}, 82, 120),
        (
            {
                "form": {
                    "base": "stack",
                    "solids": [
                        {"kind": "sphere", "height_mm": 60, "width_mm": 60},
                        {"kind": "sphere", "height_mm": 40, "width_mm": 40},
                    ],
                }
            },
            60,
            None,
        ),
        (BENT, 45, None),
    ],
)
def test_every_base_is_drafted_and_its_recipe_read_back(
    studio: Studio, recipe: dict[str, Any], wide: float, tall: float | None
) -> None:
    got = drafted(studio, recipe)
    assert got["preview"]["sound"]
    assert got["size_mm"][0] == pytest.approx(wide, abs=2)
    if tall:
        assert got["size_mm"][2] == pytest.approx(tall, abs=2)
    assert bool(got["outline"]) != bool(got["sides"])
    made = studio.design()
    part = {"name": "Body", "text": got["text"], "recipe": got["recipe"]}
    kept = studio.ask("POST", f"/designs/{made['id']}/parts", part, 201)["parts"][0]
    assert kept["authoritative"]
    assert kept["recipe"] == got["recipe"]


def test_a_flat_end_is_told_with_the_disc_that_keeps_it_flat(studio: Studio) -> None:
    drum = {"kind": "cylinder", "height_mm": 50, "width_mm": 60}
    assert drafted(studio, drum)["disc_mm"] == pytest.approx(60 - 5.6, abs=0.5)
    assert drafted(studio, {"kind": "sphere", "width_mm": 60, "height_mm": 60})["disc_mm"] is None
    assert drafted(studio, {**drum, "width_mm": 18})["disc_mm"] is None


@pytest.mark.parametrize(
    ("recipe", "words"),
    [
        ({"form": {"base": "traced", "front": [[0, 0], [1, 1]]}}, "handles"),
        ({"form": {"base": "cloud"}}, "cloud"),
        ({"modifiers": [{"kind": "melt"}]}, "melt"),
        ({"modifiers": [{"kind": "bend", "degrees": 4000}]}, "-150 to 150"),
        ({"redrawn": {"corners": "!", "faces": "!", "reach_mm": 9, "pole": 0}}, "damaged"),
    ],
)
def test_what_makes_no_shape_says_so(studio: Studio, recipe: dict[str, Any], words: str) -> None:
    assert words in drafted(studio, recipe, 422)["detail"]


def test_a_fit_lays_the_target_on_what_is_settled(studio: Studio) -> None:
    got = answer(studio, "fit", BENT)
    assert got["error"]["rms_w"] < 0.45
    assert got["error"]["volume_ratio"] == pytest.approx(1, abs=0.1)
    assert got["settled"]["stitches"] > 300
    assert len(got["off"]) > 1000
    assert got["aim"]["scale"] > 0
    assert Job.objects.filter(kind="fit").count() == 1
    answer(studio, "fit", BENT)
    assert Job.objects.filter(kind="fit").count() == 1, "the same question is answered once"


def test_compensation_comes_nearer_and_its_recipe_drafts(studio: Studio) -> None:
    strong = {**BENT, "height_mm": 130, "modifiers": [{"kind": "bend", "degrees": 130}]}
    got = answer(studio, "compensate", strong)
    assert got["after"]["rms_w"] < 0.75 * got["before"]["rms_w"]
    assert got["turns"] >= 1
    redrawn = {**strong, "redrawn": got["recipe"]["redrawn"]}
    assert drafted(studio, redrawn)["text"] != drafted(studio, strong)["text"]
    assert answer(studio, "fit", redrawn)["error"]["rms_w"] == pytest.approx(got["after"]["rms_w"], abs=0.02)


def test_a_bend_is_worked_with_short_rows_on_request(studio: Studio) -> None:
    made = drafted(studio, {**BENT, "short_rows": True})
    assert made["preview"]["problems"] == []
    assert "turn" in made["text"]
    assert made["recipe"]["short_rows"] is True
    assert answer(studio, "fit", {**BENT, "short_rows": True})["error"]["rms_w"] < 0.5


def test_a_flat_shape_is_kept_flat_by_threads_that_its_rounds_name(studio: Studio) -> None:
    tail = {"kind": "ellipsoid", "height_mm": 80, "width_mm": 50, "modifiers": [{"kind": "flatten", "depth": 40}]}
    plain, *ways = answer(studio, "flat", tail)["ways"]
    assert plain["threads"] == []
    best = ways[0]
    assert best["error"]["rms_w"] < 0.65 * plain["error"]["rms_w"]
    sewn = {**tail, "threads": best["threads"]}
    made = drafted(studio, sewn)
    assert "Sew through and draw in: R" in made["text"]
    assert made["recipe"]["threads"] == best["threads"]
    assert made["preview"]["problems"] == []
    assert answer(studio, "fit", sewn)["error"] == best["error"]
    assert "between 0 and 1" in drafted(studio, {**tail, "threads": [[0, 0, 9, 0, 5]]}, 422)["detail"]


def test_ways_to_work_a_shape_are_compared(studio: Studio) -> None:
    egg = {"kind": "egg", "height_mm": 60, "width_mm": 46, "point": 0.3}
    got = answer(studio, "compare", egg)
    assert {(w["end"], w["start"]) for w in got["ways"]} == {("foot", 6), ("foot", 8), ("top", 6), ("top", 8)}
    errors = [w["error"]["rms_w"] for w in got["ways"]]
    assert errors == sorted(errors)
    over = drafted(studio, {"form": got["top"]})
    assert over["size_mm"] == pytest.approx([46, 46, 60], abs=0.5)
    open_end = answer(studio, "compare", {"kind": "dome", "height_mm": 30, "width_mm": 45, "open": True})
    assert open_end["top"] is None


def test_targets_are_written_as_files_that_others_read(studio: Studio) -> None:
    obj = studio.raw("POST", "/shapes/target.obj", rounds(**BENT)).content.decode()
    read = trimesh.load(io.StringIO(obj), file_type="obj", process=False)
    assert read.is_watertight
    assert read.volume > 0
    assert np.ptp(read.vertices[:, 0]) == pytest.approx(45, abs=0.5)
    svg = studio.raw("POST", "/shapes/target.svg", rounds(**BENT)).content.decode()
    assert 'id="front"' in svg
    assert 'id="side"' in svg


def test_modifiers_are_told_with_their_numbers(studio: Studio) -> None:
    found = {m["key"]: m for m in studio.ask("GET", "/shapes/modifiers")}
    assert {"bend", "taper", "flatten", "square", "belly", "brow", "ridge", "dent"} == set(found)
    (knob,) = found["bend"]["knobs"]
    assert (knob["least"], knob["most"]) == (-150, 150)


def test_a_box_is_told_as_panels_that_match_and_lie_side_by_side(studio: Studio) -> None:
    asked = {"recipe": rounds(**CRATE), "gauge": GAUGE, "terms": "us"}
    got = studio.ask("POST", "/shapes/panels", asked)
    assert [(p["name"], p["make"]) for p in got["parts"]] == [
        ("Left and right", 2), ("Front and back", 2), ("Base and top", 2),
    ]  # fmt: skip
    assert len(got["seams"]) == 12
    letters = [side["letter"] for panel in got["panels"] for side in panel["sides"]]
    assert all(letters.count(s["letter"]) == 2 for s in got["seams"])
    assert got["too_round"] == []
    assert "Sew the panels together" in got["parts"][-1]["text"]
    for part in got["parts"]:
        seen = studio.ask(
            "POST", "/bench/preview", {"text": part["text"], "terms": "us", "gauge": GAUGE, "colours": []}
        )
        assert seen["problems"] == []
    uk = studio.ask("POST", "/shapes/panels", {**asked, "terms": "uk"})
    assert " dc" in uk["parts"][0]["text"]


def test_panels_keep_their_recipe_and_follow_other_sizes(studio: Studio) -> None:
    parts = studio.ask("POST", "/shapes/panels", {"recipe": rounds(**CRATE), "gauge": GAUGE, "terms": "us"})["parts"]
    design = studio.design("Crate")
    for part in parts:
        wanted = {name: part[name] for name in ("name", "make", "text", "recipe")}
        design = studio.ask("POST", f"/designs/{design['id']}/parts", wanted, 201)
    assert all(p["authoritative"] for p in design["parts"])
    assert all(recipe_json(recipe_of(p["recipe"])) == p["recipe"] for p in design["parts"])


def test_panels_sewn_together_bulge_when_stuffed_and_not_over_inlays(studio: Studio) -> None:
    got = answer(studio, "sewn", CRATE)
    assert got["inlaid"]["error"]["rms_w"] < 0.35
    assert got["stuffed"]["error"]["rms_w"] > 2 * got["inlaid"]["error"]["rms_w"]
    assert got["stuffed"]["settled"]["stuffed"]
    assert not got["inlaid"]["settled"]["stuffed"]
    assert "Front, Row 1" in got["inlaid"]["settled"]["labels"]
    assert len(got["inlaid"]["off"]) > 1000


def test_what_makes_no_panels_says_so(studio: Studio) -> None:
    dome = {"kind": "dome", "height_mm": 30, "width_mm": 45, "open": True}
    refused = studio.ask("POST", "/shapes/panels", {"recipe": rounds(**dome), "gauge": GAUGE, "terms": "us"}, 422)
    assert "closed shape" in refused["detail"]
    tiny = {"form": {"base": "box", "width_mm": 60, "depth_mm": 50, "height_mm": 12}}
    refused = studio.ask("POST", "/shapes/panels", {"recipe": rounds(**tiny), "gauge": GAUGE, "terms": "us"}, 422)
    assert "too small" in refused["detail"]
    assert "between 5 mm and 2 m" in drafted(studio, {"form": {**CRATE["form"], "width_mm": 1}}, 422)["detail"]
