"""Shapes over the wire: forms drafted, fitted and compensated, meshes brought in, outlines found, files written."""

from __future__ import annotations

import io
import json
import math
from typing import Any

import numpy as np
import pytest
import trimesh
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image, ImageDraw

from craft.fitting.panels import recipe_json, recipe_of
from craft.shape.stored import form_of
from studio.jobs.models import Job
from tests.craft.bodies import LEGS_RODS, Y_RODS, rods
from tests.studio.conftest import Studio, rounds

GAUGE = {"stitch_mm": 5.6, "round_mm": 5.15}
PEAR = [[0, 0], [30, 5], [40, 40], [20, 80], [25, 100], [0, 120]]
BENT = {"kind": "capsule", "height_mm": 110, "width_mm": 45, "modifiers": [{"kind": "bend", "degrees": 90}]}

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)


def drafted(studio: Studio, recipe: dict[str, Any], status: int = 200) -> dict[str, Any]:
    body = {"recipe": rounds(**recipe), "gauge": GAUGE, "terms": "us"}
    return studio.ask("POST", "/shapes/draft", body, status)  # type: ignore[no-any-return]


def answer(studio: Studio, path: str, recipe: dict[str, Any]) -> dict[str, Any]:
    job = studio.ask("POST", f"/shapes/{path}", {"recipe": rounds(**recipe), "gauge": GAUGE, "terms": "us"})
    answered = json.loads(studio.raw("GET", f"/jobs/{job['id']}/answer").content)
    assert answered["job"] == path
    return answered.get("fitted", answered)  # type: ignore[no-any-return]


def brought(studio: Studio, raw: bytes, name: str, status: int = 200, **how: Any) -> dict[str, Any]:
    got = studio.client.post("/api/shapes/mesh", {"file": SimpleUploadedFile(name, raw), **how})
    assert got.status_code == status, got.content[:400]
    return got.json()  # type: ignore[no-any-return]


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


@pytest.mark.parametrize("ending", ["obj", "stl", "ply", "glb"])
def test_meshes_of_every_format_come_in(studio: Studio, ending: str) -> None:
    body = trimesh.creation.icosphere(subdivisions=3, radius=1.0)
    body.apply_scale([1.0, 0.7, 1.3])
    got = brought(studio, body.export(file_type=ending) if ending != "obj" else body.export(file_type="obj").encode(),
                  f"body.{ending}", height_mm=130)  # fmt: skip
    assert got["size_mm"] == pytest.approx([100, 70, 130], abs=1.5)
    assert got["faces"] == len(body.faces)
    made = drafted(studio, {"form": got["form"]})
    assert made["preview"]["sound"]
    assert max(r["live"] for r in made["preview"]["part"]["rounds"]) == pytest.approx(
        math.pi * (100 + 70) / 2 / 5.6, rel=0.06
    )


def test_a_mesh_stands_up_and_begins_where_it_is_told(studio: Studio) -> None:
    cone = trimesh.creation.cone(radius=30, height=80, sections=48)
    cone = cone.subdivide().subdivide()
    raw = cone.export(file_type="stl")
    foot = drafted(studio, {"form": brought(studio, raw, "c.stl", height_mm=80)["form"]})
    top = drafted(studio, {"form": brought(studio, raw, "c.stl", height_mm=80, pole="top")["form"]})
    counts = [[r["live"] for r in made["preview"]["part"]["rounds"]] for made in (foot, top)]
    assert counts[1].index(max(counts[1])) > len(counts[1]) / 2, "the tip first, the wide foot last"
    assert counts[0].index(max(counts[0])) < len(counts[0]) / 2
    lying = cone.copy()
    lying.apply_transform(trimesh.transformations.rotation_matrix(-math.pi / 2, [1, 0, 0]))
    stood = brought(studio, lying.export(file_type="stl"), "c.stl", height_mm=80, up="y")
    assert stood["size_mm"] == pytest.approx([60, 60, 80], abs=1)


def test_a_mesh_is_mended_where_that_is_safe_and_says_so(studio: Studio) -> None:
    ball = trimesh.creation.icosphere(subdivisions=3, radius=40)
    faces = ball.faces[np.arange(len(ball.faces)) != 100].copy()
    faces[:40] = faces[:40, ::-1]
    broken = trimesh.Trimesh(ball.vertices, np.vstack([faces, faces[:1]]), process=False)
    got = brought(studio, broken.export(file_type="ply"), "ball.ply", height_mm=80)
    notes = " ".join(got["notes"])
    assert "left out" in notes
    assert "closed" in notes or "turned round" in notes
    assert drafted(studio, {"form": got["form"]})["preview"]["sound"]


def two_bodies() -> trimesh.Trimesh:
    ball = trimesh.creation.icosphere(subdivisions=2)
    other = ball.copy()
    other.apply_translation([5, 0, 0])
    return trimesh.util.concatenate([ball, other])


@pytest.mark.parametrize(
    ("raw", "name", "words"),
    [
        (b"", "a.obj", "no faces"),
        (b"solid nothing", "a.stl", "no faces"),
        (b"\x00" * 400, "a.glb", "no mesh"),
        (b"hello", "a.txt", "no mesh"),
        (b"hello", "obj", "no mesh"),
        (trimesh.creation.torus(40, 10).export(file_type="ply"), "ring.ply", "handle"),
        (two_bodies().export(file_type="ply"), "two.ply", "2 bodies"),
        (b"mtllib ../../secret.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", "a.obj", "flat"),
    ],
)
def test_meshes_that_cannot_be_worked_say_why(studio: Studio, raw: bytes, name: str, words: str) -> None:
    assert words in brought(studio, raw, name, 422)["detail"]


def test_a_large_mesh_is_gathered_and_a_huge_one_refused(studio: Studio) -> None:
    fine = trimesh.creation.icosphere(subdivisions=6, radius=50)
    got = brought(studio, fine.export(file_type="stl"), "fine.stl", height_mm=100)
    assert got["faces"] <= 12_000
    assert "gathered" in " ".join(got["notes"])
    assert got["size_mm"] == pytest.approx([100, 100, 100], abs=1.5)
    assert "at most" in brought(studio, b"v 1 1 1\n" * 3_000_000, "huge.obj", 422)["detail"]


def test_a_shape_with_two_arms_says_where_it_branches(studio: Studio) -> None:
    x, faces = rods(Y_RODS)
    shape = trimesh.Trimesh(x, faces)
    got = brought(studio, shape.export(file_type="ply"), "y.ply", height_mm=160)
    detail = drafted(studio, {"form": got["form"]}, 422)["detail"]
    assert "divides into 2 at" in detail


def test_a_shape_is_cut_into_parts_whose_openings_fit(studio: Studio) -> None:
    body = {"kind": "egg", "height_mm": 110, "width_mm": 80, "modifiers": [{"kind": "belly", "amount": 12}]}
    low, high = studio.ask("POST", "/shapes/cut", {"recipe": rounds(**body), "height_mm": 70})
    assert (low["above"], high["above"]) == (False, True)
    counts = [
        [r["live"] for r in drafted(studio, {"form": piece["form"]})["preview"]["part"]["rounds"]]
        for piece in (low, high)
    ]
    assert counts[0][-1] == counts[1][-1]
    refused = studio.ask("POST", "/shapes/cut", {"recipe": rounds(**body), "height_mm": 400}, 422)
    assert "Cut between" in refused["detail"]
    x, faces = rods(Y_RODS)
    fork = brought(studio, trimesh.Trimesh(x, faces).export(file_type="ply"), "y.ply", height_mm=115)
    pieces = studio.ask("POST", "/shapes/cut", {"recipe": rounds(fork["form"]), "height_mm": 82})
    assert [p["above"] for p in pieces] == [False, True, True]
    assert all(drafted(studio, {"form": p["form"]})["preview"]["sound"] for p in pieces)


def silhouette(ground: str = "#f4f0e6", figure: str = "#6a4a33") -> bytes:
    """A pear on plain ground, 300 px tall and 200 px wide."""
    image = Image.new("RGB", (400, 420), ground)
    draw = ImageDraw.Draw(image)
    draw.ellipse((100, 160, 300, 360), fill=figure)
    draw.ellipse((140, 60, 260, 200), fill=figure)
    out = io.BytesIO()
    image.save(out, "PNG")
    return out.getvalue()


def test_an_outline_is_found_on_a_plain_ground(studio: Studio) -> None:
    made = studio.design()
    picture = studio.send(f"/designs/{made['id']}/pictures", "pear.png", silhouette(), 201)
    got = studio.ask("POST", "/shapes/outline", {"picture": picture["id"]})
    handles = np.array(got["handles"])
    assert tuple(handles[0]) == (0, 0)
    assert handles[:, 0].max() == pytest.approx(100, abs=3)
    assert handles[-1, 1] == pytest.approx(300, abs=4)
    assert got["pole"] == pytest.approx([200, 360], abs=3)
    assert 5 <= len(handles) <= 14
    scaled = (handles / 3).tolist()
    shape = drafted(studio, {"form": {"base": "traced", "front": scaled}})
    assert shape["size_mm"][0] == pytest.approx(200 / 3, abs=3)
    assert shape["size_mm"][2] == pytest.approx(100, abs=3)


DRAWING = (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 300" width="100mm" height="150mm">'
    '<rect x="0" y="0" width="4" height="4"/><path d="M100 20 C160 20 130 120 170 200 S150 290 100 290 '
    'S0 280 30 200 S40 20 100 20 Z"/></svg>'
)


def test_an_outline_is_read_from_a_drawing(studio: Studio) -> None:
    got = studio.send("/shapes/drawing", "pear.svg", DRAWING.encode())
    assert got["mm"] == pytest.approx(0.5)
    handles = np.array(got["handles"])
    assert handles[-1, 1] == pytest.approx(270, abs=3)
    assert "largest of 2" in got["notes"][0]
    front = (handles * got["mm"]).tolist()
    shape = drafted(studio, {"form": {"base": "traced", "front": front}})
    assert shape["size_mm"][2] == pytest.approx(135, rel=0.03)
    circle = b'<svg xmlns="http://www.w3.org/2000/svg"><circle cx="50" cy="50" r="40"/></svg>'
    ball = studio.send("/shapes/drawing", "ball.svg", circle)
    assert max(h[0] for h in ball["handles"]) == pytest.approx(40, abs=0.5)


@pytest.mark.parametrize(
    ("drawn", "wide", "tall"),
    [
        ('<g transform="translate(9 9) scale(2)"><rect width="40" height="60"/></g>', 80, 120),
        ('<rect width="40" height="60" transform="rotate(90)"/>', 60, 40),
        ('<rect width="40" height="60" transform="rotate(90 20 30), scale(1 2)"/>', 120, 40),
        ('<g transform="matrix(0 1 -1 0 5 5)"><rect width="40" height="60" transform="scale(3)"/></g>', 180, 120),
        ('<ellipse rx="30" ry="30" transform="scale(1,1.5)"/>', 60, 90),
        ('<defs><rect width="900" height="900"/></defs><rect width="40" height="60"/>', 40, 60),
    ],
)
def test_transforms_in_a_drawing_are_followed(studio: Studio, drawn: str, wide: float, tall: float) -> None:
    svg = f'<svg xmlns="http://www.w3.org/2000/svg">{drawn}</svg>'
    got = studio.send("/shapes/drawing", "a.svg", svg.encode())
    assert 2 * max(h[0] for h in got["handles"]) == pytest.approx(wide, rel=0.03)
    assert got["handles"][-1][1] == pytest.approx(tall, rel=0.03)


def test_a_drawing_is_also_a_cross_section_where_it_is_seen_whole_from_its_middle(studio: Studio) -> None:
    oval = b'<svg xmlns="http://www.w3.org/2000/svg"><ellipse cx="60" cy="50" rx="50" ry="30"/></svg>'
    section = studio.send("/shapes/drawing", "oval.svg", oval)["section"]
    assert len(section) == 48
    assert section[12] == pytest.approx(1, abs=0.01)
    assert section[0] == pytest.approx(0.6, abs=0.01)
    shape = drafted(studio, {"form": {"base": "traced", "front": PEAR, "section": section}})
    assert shape["size_mm"][1] == pytest.approx(0.6 * shape["size_mm"][0], rel=0.03)
    # The foot of the drawing is the front: a drop that points down points forward.
    drop = b'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 L30 -40 A50 50 0 1 0 -30 -40 Z"/></svg>'
    reach = studio.send("/shapes/drawing", "drop.svg", drop)["section"]
    assert reach[0] == max(reach)
    spiral = b'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 H90 V90 H0 V60 H60 V30 H0 Z"/></svg>'
    assert studio.send("/shapes/drawing", "hook.svg", spiral)["section"] is None


@pytest.mark.parametrize(
    ("raw", "name", "words"),
    [
        (b"", "a.svg", "no SVG"),
        (b"<html/>", "a.svg", "no SVG"),
        (b"<svg><path d='M0 0'/></svg>", "a.svg", "no closed outline"),
        (b"<svg><path d='M0 0 L 1e999 4 Z'/></svg>", "a.svg", "no"),
        (b"<!DOCTYPE svg [<!ENTITY a 'b'>]><svg>&a;</svg>", "a.svg", "entities"),
        (b"<svg/>", "a.png", "SVG drawing"),
    ],
)
def test_drawings_that_hold_no_outline_say_so(studio: Studio, raw: bytes, name: str, words: str) -> None:
    assert words in studio.send("/shapes/drawing", name, raw, 422)["detail"]


def test_where_nothing_stands_out_it_says_so_and_others_pictures_are_not_there(studio: Studio, other: Studio) -> None:
    made = studio.design()
    plain = studio.send(f"/designs/{made['id']}/pictures", "plain.png", silhouette(figure="#f4f0e6"), 201)
    refused = studio.ask("POST", "/shapes/outline", {"picture": plain["id"]}, 422)
    assert "by hand" in refused["detail"]
    other.ask("POST", "/shapes/outline", {"picture": plain["id"]}, 404)


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


CRATE = {"form": {"base": "box", "width_mm": 60, "depth_mm": 50, "height_mm": 70}}


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


def test_a_mesh_begins_where_it_is_pointed_at(studio: Studio) -> None:
    body = trimesh.creation.icosphere(subdivisions=3, radius=1.0)
    body.apply_scale([0.6, 0.7, 1.3])
    got = brought(studio, body.export(file_type="stl"), "body.stl", height_mm=120)
    side = int(np.argmax(form_of(got["form"]).mesh.x[:, 0]))
    told = studio.ask("POST", "/shapes/begin", {"form": got["form"], "corner": side})
    assert told["form"]["pole"] == side
    assert told["size_mm"][2] == pytest.approx(got["size_mm"][0], abs=1)
    assert sorted(told["size_mm"]) == pytest.approx(sorted(got["size_mm"]), abs=1)
    assert drafted(studio, {"form": told["form"]})["preview"]["problems"] == []
    refused = studio.ask("POST", "/shapes/begin", {"form": got["form"], "corner": 99_999}, 422)
    assert "none of the shape's" in refused["detail"]
    refused = studio.ask("POST", "/shapes/begin", {"form": CRATE["form"], "corner": 0}, 422)
    assert "none of 'mesh'" in refused["detail"]


def test_a_shape_that_divides_is_worked_as_a_split_on_request(studio: Studio) -> None:
    x, faces = rods(LEGS_RODS)
    body = trimesh.Trimesh(x, faces).export(file_type="stl")
    form = brought(studio, body, "body.stl", height_mm=160)["form"]
    refused = drafted(studio, {"form": form}, 422)
    assert refused["field"] == "branches"
    assert "work it as a split" in refused["detail"]
    made = drafted(studio, {"form": form, "split": True})
    assert made["preview"]["problems"] == []
    assert "Second limb" in made["text"]
    assert made["recipe"]["split"] is True
    assert answer(studio, "fit", {"form": form, "split": True})["error"]["rms_w"] < 0.6
