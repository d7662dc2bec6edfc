"""Putting together: settled scenes, eyes, places that survive edits, limbs worked in, order, face."""

from __future__ import annotations

import io
from typing import Any

import pytest
from django.contrib.auth.models import User
from PIL import Image

from studio.demo.studio import load
from studio.designs.models import Design
from tests.studio.conftest import Studio

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)

HEAD = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: (3 sc, inc) x 6 [30]\n"
    "R6-R10: sc around [30]\nInsert the eyes.\nR11: (3 sc, dec) x 6 [24]\nR12: (2 sc, dec) x 6 [18]\nStuff.\n"
    "R13: (sc, dec) x 6 [12]\nR14: dec x 6 [6]\nClose.\n"
)
ARM = "R1: 6 sc in ring [6]\nR2: (2 sc, inc) x 2 [8]\nR3-R8: sc around [8]\nStuff lightly.\nLeave a long tail for sewing.\n"


class Desk:
    """A design with a head and arms, and its assembly page."""

    def __init__(self, studio: Studio) -> None:
        self.studio = studio
        made, self.head = studio.with_part(HEAD)
        self.id = made["id"]
        after = studio.ask("POST", f"/designs/{self.id}/parts", {"name": "Arms", "make": 2, "text": ARM}, 201)
        self.arms = after["parts"][1]["key"]

    def look(self) -> dict[str, Any]:
        return self.studio.ask("GET", f"/designs/{self.id}")  # type: ignore[no-any-return]

    def page(self, **data: Any) -> dict[str, Any]:
        now = self.look()
        body = {"base": now["revision"], "data": data}
        return self.studio.ask("PUT", f"/designs/{self.id}/pages", {"page": "assembly", **body})["assembly"]  # type: ignore[no-any-return]

    def scene(self) -> dict[str, Any]:
        """The scene once everything is settled; jobs are worked out where they are asked for."""
        self.studio.ask("POST", f"/bench/figure/{self.id}")
        return self.studio.ask("GET", f"/bench/figure/{self.id}")  # type: ignore[no-any-return]

    def rounds(self, key: str, text: str) -> None:
        self.studio.ask("PUT", f"/designs/{self.id}/parts/{key}/text", {"text": text})


@pytest.fixture
def desk(studio: Studio) -> Desk:
    return Desk(studio)


def step(desk: Desk, **more: Any) -> dict[str, Any]:
    return {"key": "arms1", "part": desk.arms, "on": desk.head, "round": 9, "stitch": 7.5, "paired": True, **more}


def test_a_scene_is_settled_and_measured(desk: Desk) -> None:
    desk.page(steps=[step(desk)])
    scene = desk.scene()
    assert scene["whole"]
    assert [p["part"] for p in scene["placed"]] == [desk.head, desk.arms, desk.arms]
    left, right = ([p["matrix"][3], p["matrix"][7], p["matrix"][11]] for p in scene["placed"][1:])
    assert left[0] == pytest.approx(-right[0], abs=3)
    assert left[0] < 0
    assert scene["width_mm"] > 80
    assert scene["balance"]["verdict"] in ("steady", "wobbly", "tips")
    (row,) = scene["steps"]
    assert row["seam_mm"] == pytest.approx(8 * 5.6, rel=0.25)
    assert row["tail_mm"] == pytest.approx(3 * row["seam_mm"] + 150)
    assert len(scene["centre"][desk.head]["front"]) == 14


def test_eyes_are_placed_said_and_warned_about(desk: Desk) -> None:
    desk.page(steps=[])
    guess = desk.scene()["guess"]
    assert guess["part"] == desk.head
    desk.page(steps=[], eye_kind="safety", eye_mm=8, eyes={"part": desk.head, "round": 8, "between": 6})
    eyes = desk.scene()["eyes"]
    assert len(eyes["points"]) == 2
    assert eyes["points"][0][1] < 0
    assert "between R8 and R9" in eyes["words"]
    assert "6 stitches visible between" in eyes["words"]
    assert (eyes["after"][1] - eyes["after"][0]) % 30 == 6
    late = HEAD.replace("Insert the eyes.\n", "").replace("R14: dec", "Insert the eyes.\nR14: dec")
    desk.rounds(desk.head, late)
    desk.page(steps=[], eye_kind="safety", eye_mm=30, eyes={"part": desk.head, "round": 8, "between": 6})
    assert "washer" in {w["code"] for w in desk.scene()["eyes"]["warnings"]}
    desk.page(steps=[], eye_kind="embroidered", eye_mm=30, eyes={"part": desk.head, "round": 8, "between": 6})
    assert desk.scene()["eyes"]["warnings"] == []
    desk.page(steps=[], eye_kind="safety", eye_mm=8, eyes={"part": desk.head, "round": 1, "between": 40})
    assert desk.scene()["eyes"]["warnings"][0]["code"] == "no-room"


def test_places_survive_changes_of_the_rounds(desk: Desk) -> None:
    page = desk.page(steps=[step(desk)], eye_kind="safety", eyes={"part": desk.head, "round": 8, "between": 6})
    assert page["steps"][0]["share"] == pytest.approx(8.5 / 14)
    assert page["steps"][0]["angle"] == pytest.approx(90)
    longer = HEAD.replace("R6-R10: sc around [30]", "R6-R16: sc around [30]")
    for old, new in ((11, 17), (12, 18), (13, 19), (14, 20)):
        longer = longer.replace(f"R{old}:", f"R{new}:")
    desk.rounds(desk.head, longer)
    scene = desk.scene()
    (row,) = scene["steps"]
    assert row["moved"]
    assert row["round"] == round(8.5 / 14 * 20 + 0.5)
    assert scene["eyes"]["moved"]
    assert scene["eyes"]["round"] > 8
    settled = desk.page(steps=[step(desk, round=row["round"])])
    assert settled["steps"][0]["round"] == row["round"]
    assert not desk.scene()["steps"][0]["moved"], "set anew, it is where it says"


def test_a_sewn_arm_becomes_one_that_is_worked_in(desk: Desk) -> None:
    desk.page(steps=[step(desk)])
    desk.scene()
    before = desk.look()
    after = desk.studio.ask("POST", f"/bench/no-sew/{desk.id}", {"step": "arms1"})
    assert after["revision"] == before["revision"] + 1
    assert [p["name"] for p in after["parts"]] == ["Arms", "Body"], "the limb is made before what works it in"
    arms, body = after["parts"]
    assert "4 sc through both layers [4]" in arms["text"]
    assert "tail for sewing" not in arms["text"]
    assert "4 sc through the first arm" in body["text"]
    assert "4 sc through the second arm" in body["text"]
    assert (arms["faults"], body["faults"]) == (0, 0)
    assert after["assembly"]["steps"][0]["no_sew"]
    # Rounds that take the arms in already need no others: only the step is said anew.
    desk.page(steps=[step(desk) | {"text": "Sew the arms on."}])
    assert any("already" in note for note in desk.scene()["steps"][0]["notes"])
    said = desk.studio.ask("POST", f"/bench/no-sew/{desk.id}", {"step": "arms1"})
    assert [p["text"] for p in said["parts"]] == [arms["text"], body["text"]]
    assert said["assembly"]["steps"][0]["no_sew"]
    desk.studio.ask("POST", f"/designs/{desk.id}/undo")
    desk.studio.ask("POST", f"/designs/{desk.id}/undo")
    scene = desk.scene()
    assert [p["part"] for p in scene["placed"]] == [desk.head], "arms that are worked in are not placed again"
    assert scene["width_mm"] > 60
    sewn = desk.studio.ask("POST", f"/bench/sew/{desk.id}", {"step": "arms1"})
    assert not sewn["assembly"]["steps"][0]["no_sew"]
    assert sewn["assembly"]["steps"][0]["text"] == "", "the step says itself again"
    assert desk.scene()["steps"][0]["said"].startswith("Sew Arms on Body, R")
    assert [p["faults"] for p in sewn["parts"]] == [0, 0]
    assert not any("through" in p["text"] for p in sewn["parts"])
    assert sorted(p["counts"] for p in sewn["parts"]) == sorted(p["counts"] for p in before["parts"])
    assert "No round works" in desk.studio.ask("POST", f"/bench/sew/{desk.id}", {"step": "arms1"}, 422)["detail"]
    desk.studio.ask("POST", f"/designs/{desk.id}/undo")
    back = desk.studio.ask("POST", f"/designs/{desk.id}/undo")
    assert [p["text"] for p in back["parts"]] == [HEAD, ARM]


@pytest.mark.parametrize(
    ("change", "status", "said"),
    [
        ({"round": 4}, 422, "increases"),
        ({"stitch": 1}, 422, "overlap"),
        ({"on": None, "round": None}, 422, "which round of another"),
        ({"key": "other"}, 404, "not"),
    ],
)
def test_a_limb_that_cannot_be_worked_in_says_why(desk: Desk, change: dict[str, Any], status: int, said: str) -> None:
    desk.page(steps=[step(desk) | change])
    desk.scene()
    got = desk.studio.ask("POST", f"/bench/no-sew/{desk.id}", {"step": "arms1"}, status)
    assert said in got["detail"]


def test_a_closed_limb_cannot_be_worked_in(desk: Desk) -> None:
    desk.rounds(desk.arms, ARM.replace("Leave a long tail for sewing.", "R9: dec x 4 [4]\nClose."))
    desk.page(steps=[step(desk)])
    desk.scene()
    got = desk.studio.ask("POST", f"/bench/no-sew/{desk.id}", {"step": "arms1"}, 422)
    assert "drawn shut" in got["detail"]


def test_a_wrong_order_is_a_fault_and_the_right_one_is_offered(desk: Desk) -> None:
    eyes = {"key": "eyes1", "text": "Insert the eyes.", "part": desk.head, "before_closing": True}
    desk.page(steps=[step(desk), eyes])
    scene = desk.scene()
    assert scene["steps"][0]["fault"] is None
    assert "before step 1" in scene["steps"][1]["fault"]
    assert scene["order"] == ["eyes1", "arms1"]
    desk.page(steps=[eyes, step(desk)])
    scene = desk.scene()
    assert [s["fault"] for s in scene["steps"]] == [None, None]
    assert (scene["steps"][0]["first"], scene["steps"][0]["last"]) == (0, 0)
    assert (scene["steps"][1]["first"], scene["steps"][1]["last"]) == (1, 1)


def test_points_and_lines_of_a_face_lie_on_the_part(desk: Desk) -> None:
    mouth = {
        "key": "mark1",
        "name": "mouth",
        "part": desk.head,
        "round": 6,
        "stitch": 2,
        "to_round": 6,
        "to_stitch": -2,
    }
    brow = {"key": "mark2", "name": "brow", "part": desk.head, "round": 10, "stitch": 3, "paired": True}
    desk.page(steps=[], marks=[mouth, brow])
    first, second = desk.scene()["marks"]
    assert first["points"][0][0] == pytest.approx(-first["ends"][0][0], abs=2)
    assert len(second["points"]) == 2
    assert all(p[1] < 0 for p in (*first["points"], *second["points"]))


def test_the_booklet_says_places_as_the_rounds_are_now(desk: Desk) -> None:
    desk.page(
        steps=[step(desk, text="Sew on the arms.", seat="pinched")],
        eye_kind="safety",
        eye_mm=8,
        eyes={"part": desk.head, "round": 8, "between": 6},
    )
    html = desk.studio.raw("GET", f"/designs/{desk.id}/booklet").content.decode()
    assert "R9, 7.5 stitches to either side of the front middle, pinched flat" in html
    assert "on Body between R8 and R9, with 6 stitches visible between" in html


def test_the_settled_figure_is_painted_and_saved(desk: Desk) -> None:
    desk.page(steps=[step(desk)])
    path = f"/designs/{desk.id}/picture?revision=1"
    first = desk.studio.raw("GET", path)
    desk.scene()
    settled = desk.studio.raw("GET", path)
    for drawn in (first, settled):
        assert (drawn["Content-Type"], drawn["Cache-Control"]) == ("image/svg+xml", "no-store")
    assert 300 < settled.content.decode().count("<path") < 9_000
    assert desk.studio.ask("POST", f"/designs/{desk.id}/settle")["whole"]
    painted = desk.studio.raw("GET", path)
    assert painted["Content-Type"] == "image/png"
    assert painted["Cache-Control"].startswith("private, max-age")
    image = Image.open(io.BytesIO(painted.content))
    assert (image.mode, image.size) == ("RGBA", (640, 640))
    for ending, mark in (("obj", b"# Moth"), ("stl", b"Settled figure"), ("glb", b"glTF")):
        got = desk.studio.raw("GET", f"/bench/model/{desk.id}/{ending}")
        assert got.content.startswith(mark)
        assert f'"moth.{ending}"' in got["Content-Disposition"]
    desk.studio.ask("GET", f"/bench/model/{desk.id}/fbx", status=422)


def test_the_demo_comes_together(user: User, studio: Studio) -> None:
    load(user)
    for design in Design.objects.all():
        studio.ask("POST", f"/bench/figure/{design.pk}")
        scene = studio.ask("GET", f"/bench/figure/{design.pk}")
        assert scene["placed"]
        assert all(s["job"]["state"] == "done" for s in scene["settled"])
        if design.name == "Bat":
            assert len(scene["placed"]) == 3, "a body with its ears and legs, and two wings"
            assert scene["eyes"]["points"][0][1] < 0
        if design.name == "Dusk Hedgehog":
            assert scene["whole"]
            assert scene["eyes"]["words"].startswith("between R8 and R9")


def test_others_designs_are_not_there(desk: Desk, other: Studio) -> None:
    other.ask("GET", f"/bench/figure/{desk.id}", status=404)
    other.ask("POST", f"/bench/no-sew/{desk.id}", {"step": "arms1"}, 404)


def test_yarn_and_hook_say_when_filling_shows(desk: Desk) -> None:
    def above(hook: float) -> float:
        yarn = {"name": "Moss", "colour": "#77834b", "weight": 3, "wraps": 12.0}
        now = desk.look()
        data = {"yarns": [yarn], "hook_mm": hook, "source": "estimate"}
        made = desk.studio.ask(
            "PUT", f"/designs/{desk.id}/pages", {"page": "gauge", "base": now["revision"], "data": data}
        )
        return float(made["shows_above"])

    assert desk.look()["shows_above"] == pytest.approx(0.12), "middling while nothing is known"
    assert above(2.5) > above(3.0) > above(4.0), "the looser the fabric, the sooner"


def test_a_part_is_settled_as_it_once_was(desk: Desk, other: Studio) -> None:
    first = desk.look()["revision"]
    desk.rounds(desk.head, ARM)
    path = f"/bench/settle/{desk.id}/{desk.head}"
    job = desk.studio.ask("POST", f"{path}/{first}")
    got = desk.studio.ask("GET", f"/jobs/{job['id']}/answer")
    assert len(got["settled"]["labels"]) == 14, "as many rounds as there were then"
    assert "not there yet" in desk.studio.ask("POST", f"{path}/1", status=404)["detail"]
    desk.studio.ask("POST", f"{path}/999", status=404)
    other.ask("POST", f"{path}/{first}", status=404)


def test_a_sitting_figure_is_measured_with_its_legs_in_front(desk: Desk) -> None:
    desk.studio.ask("PUT", f"/designs/{desk.id}/parts/{desk.arms}", {"name": "Legs", "make": 2, "colour": None})
    legs = step(desk, round=4, stitch=4, tilt=-60)
    desk.page(steps=[legs])
    standing = desk.scene()
    desk.page(steps=[legs], posture="sitting")
    sitting = desk.scene()
    assert (standing["swung"], sitting["swung"]) == (0, 1)
    assert sitting["depth_mm"] > standing["depth_mm"] + 10
    assert sitting["height_mm"] < standing["height_mm"] - 5
    desk.page(steps=[{**legs, "seat": "open"}], posture="sitting")
    stiff = desk.scene()
    assert stiff["swung"] == 0
    assert stiff["height_mm"] == pytest.approx(standing["height_mm"])


def test_a_figure_lies_or_hangs_as_she_says(desk: Desk) -> None:
    desk.page(steps=[step(desk)])
    standing = desk.scene()
    desk.page(steps=[step(desk)], posture="lying")
    lying = desk.scene()
    assert lying["height_mm"] == pytest.approx(standing["depth_mm"], rel=0.3)
    assert lying["balance"]["verdict"] != "tips"
    desk.page(steps=[step(desk)], posture="hanging")
    hanging = desk.scene()
    assert hanging["balance"] is None, "what hangs does not tip over"
    assert "hanging" in desk.studio.raw("GET", f"/designs/{desk.id}/booklet").content.decode()


def test_a_picture_of_a_step_is_another_picture(desk: Desk) -> None:
    desk.page(steps=[step(desk)])
    path = f"/bench/picture/{desk.id}"
    pictures = []
    for more in ({}, {"step": "arms1"}):
        assert desk.studio.ask("POST", path, {"width": 200, **more})["whole"]
        got = desk.studio.raw("GET", path + "?width=200" + "".join(f"&{k}={v}" for k, v in more.items()))
        assert got["Content-Type"] == "image/png"
        pictures.append(got.content)
    assert pictures[0] != pictures[1]
