"""Meshes over the wire: of every format, mended or refused, stood up, cut and worked."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import trimesh
from django.core.files.uploadedfile import SimpleUploadedFile

from craft.shape.stored import form_of
from tests.craft.bodies import LEGS_RODS, Y_RODS, rods
from tests.studio.conftest import Studio, rounds
from tests.studio.shapes import CRATE, answer, drafted

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)


def brought(studio: Studio, raw: bytes, name: str, status: int = 200, **how: Any) -> dict[str, Any]:
    got = studio.client.post("/api/shapes/mesh", {"file": SimpleUploadedFile(name, raw), **how})
    assert got.status_code == status, got.content[:400]
    return got.json()  # type: ignore[no-any-return]


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
