"""The command line on whole designs: graded, checked, converted, and drafted from files of shapes."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import trimesh

from craft.design.stored import read_design, written
from tests.craft.figures import figure
from tests.craft.test_cli import as_json, run, validate
from tests.craft.test_design import EVERYDAY

BALL = """# Ball
R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R8: sc around [24]
R9: (2 sc, dec) x 6 [18]
R10: (sc, dec) x 6 [12]
R11: dec x 6 [6]
"""
AT = ("--stitch", "5", "--round", "4.6")


@pytest.fixture
def design(tmp_path: Path) -> str:
    path = tmp_path / "gloomcap.json"
    path.write_text(written(figure()))
    return str(path)


@pytest.fixture
def ball(tmp_path: Path) -> str:
    path = tmp_path / "ball.txt"
    path.write_text(BALL)
    return str(path)


def graded(capsys: pytest.CaptureFixture[str], *words: str) -> dict[str, Any]:
    data = as_json(capsys, "grade", "grade", *words)
    validate("design", data["design"])
    return data


# --- grade --------------------------------------------------------------------------------


def test_a_ball_twice_as_high_has_twice_the_rounds_and_the_widest_round(
    capsys: pytest.CaptureFixture[str], ball: str
) -> None:
    (part,) = graded(capsys, ball, *AT, "--scale", "2")["parts"]
    before, after = part["before"], part["after"]
    assert after["height_mm"] == pytest.approx(2 * before["height_mm"], rel=0.06)
    assert max(after["counts"]) == pytest.approx(2 * max(before["counts"]), abs=6)
    assert len(after["counts"]) == pytest.approx(2 * len(before["counts"]), abs=3)


def test_a_height_is_met_within_a_round(capsys: pytest.CaptureFixture[str], ball: str) -> None:
    (part,) = graded(capsys, ball, *AT, "--height", "90")["parts"]
    assert part["after"]["height_mm"] == pytest.approx(90, abs=4.6)


@pytest.mark.parametrize("peak", [18, 36, 42])
def test_a_widest_round_is_met_to_the_increment_of_the_part(
    capsys: pytest.CaptureFixture[str], ball: str, peak: int
) -> None:
    (part,) = graded(capsys, ball, *AT, "--peak", str(peak))["parts"]
    assert max(part["after"]["counts"]) == pytest.approx(peak, abs=3)


def test_another_yarn_keeps_the_counts_and_changes_the_size(capsys: pytest.CaptureFixture[str], ball: str) -> None:
    data = graded(capsys, ball, *AT, "--to-stitch", "10", "--to-round", "9.2")
    (part,) = data["parts"]
    assert part["after"]["counts"] == part["before"]["counts"]
    assert part["after"]["height_mm"] == pytest.approx(2 * part["before"]["height_mm"], rel=0.01)
    assert data["design"]["gauge"]["stitch_mm"] == 10


def test_a_design_keeps_its_joins_steps_and_eyes_when_it_is_graded(
    capsys: pytest.CaptureFixture[str], design: str
) -> None:
    data = graded(capsys, design, "--scale", "1.5")
    made = read_design(json.dumps(data["design"]))
    first = figure()
    assert [(p.name, p.make) for p in made.parts] == [(p.name, p.make) for p in first.parts]
    assert [j.key for j in made.joins] == [j.key for j in first.joins]
    assert [s.key for s in made.steps] == [s.key for s in first.steps]
    assert made.eyes.place is not None
    assert made.eyes.between % 2 == first.eyes.between % 2
    (join,) = data["joins"]
    assert (join["a"], join["b"]) == ("Leg (left)", "Head")
    assert join["after"][0] > join["before"][0]
    code, out, _ = run(capsys, "grade", design, "--scale", "1.5")
    assert (code, "Head: " in out) == (0, True)


def test_the_yarn_at_hand_is_not_exceeded(capsys: pytest.CaptureFixture[str], design: str) -> None:
    data = graded(capsys, design, "--grams", "12")
    heights = [(p["before"]["height_mm"], p["after"]["height_mm"]) for p in data["parts"]]
    assert len({after > before for before, after in heights}) == 1, "all parts grow, or all shrink"
    code, _, err = run(capsys, "grade", design, "--grams", "0.01")
    assert (code, "less than the smallest size" in err) == (2, True)


@pytest.mark.parametrize(
    ("words", "says"),
    [
        ((), "one of --scale"),
        (("--scale", "2", "--height", "90"), "one of --scale"),
        (("--to-stitch", "9"), "go together"),
        (("--scale", "two"), "is no number"),
        (("--height", "90", "--part", "Tail"), "No part is called 'Tail'"),
        (("--grams", "40"), "metres and grams"),
    ],
)
def test_a_wish_that_is_none_is_one_line(
    capsys: pytest.CaptureFixture[str], ball: str, words: tuple[str, ...], says: str
) -> None:
    code, out, err = run(capsys, "grade", ball, *AT, *words)
    assert (code, out, err.count("\n")) == (2, "", 1)
    assert says in err


def test_faults_stop_a_grading_unless_it_is_forced(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "bad.txt"
    path.write_text(BALL.replace("[18]\nR4", "[17]\nR4"))
    assert run(capsys, "grade", str(path), *AT, "--scale", "2")[0] == 1
    assert run(capsys, "grade", str(path), *AT, "--scale", "2", "--force")[0] == 0


# --- designs everywhere -------------------------------------------------------------------


def test_a_design_is_checked_settled_and_converted(capsys: pytest.CaptureFixture[str], design: str) -> None:
    assert as_json(capsys, "check", "check", design)["sound"]
    text = as_json(capsys, "convert", "convert", design, "--to", "text")["text"]
    assert "Leg (left) (make 2)" in text
    settled = as_json(capsys, "settle", "settle", design)
    assert [p["name"] for p in settled["parts"]] == ["Head", "Leg (left)"]
    again = as_json(capsys, "convert", "convert", design, "--to", "design")["text"]
    assert read_design(again) == figure(), "nothing is lost"


def test_a_text_becomes_a_design(capsys: pytest.CaptureFixture[str], ball: str) -> None:
    data = as_json(capsys, "convert", "convert", ball, "--to", "design")
    validate("design", json.loads(data["text"]))
    made = read_design(data["text"])
    assert [p.name for p in made.parts] == ["Ball"]
    assert made.parts[0].text == BALL.partition("\n")[2]


@pytest.mark.parametrize("name", EVERYDAY)
def test_a_design_of_any_name_holds_to_the_schema(name: str) -> None:
    validate("design", json.loads(written(figure()).replace("Gloomcap", name)))


@pytest.mark.parametrize(
    "text", ['{"kind": "design"', '{"kind": "design", "format": 9}', '{"kind": "design", "format": 1}']
)
def test_a_damaged_design_is_one_line(capsys: pytest.CaptureFixture[str], tmp_path: Path, text: str) -> None:
    path = tmp_path / "x.json"
    path.write_text(text)
    for words in (("check",), ("settle",), ("convert", "--to", "text"), ("grade", "--scale", "2")):
        code, out, err = run(capsys, words[0], str(path), *words[1:])
        assert (code, out, err.count("\n")) == (2, "", 1), err
        assert "Traceback" not in err


# --- shapes from files --------------------------------------------------------------------


@pytest.mark.parametrize("ending", ["obj", "stl", "ply", "glb"])
def test_a_mesh_is_drafted(capsys: pytest.CaptureFixture[str], tmp_path: Path, ending: str) -> None:
    body = trimesh.creation.icosphere(subdivisions=3, radius=30.0)
    path = tmp_path / f"pebble.{ending}"
    body.export(path)
    data = as_json(capsys, "draft", "draft", str(path), "--height", "60", *AT)
    counts = data["counts"]
    assert max(counts) == pytest.approx(2 * np.pi * 30 / 5, abs=6)
    assert counts[0] <= 8
    assert counts[-1] <= 8


def test_an_outline_is_drafted(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "pebble.svg"
    path.write_text('<svg xmlns="http://www.w3.org/2000/svg"><circle cx="40" cy="40" r="30"/></svg>')
    data = as_json(capsys, "draft", "draft", str(path), "--height", "60", "--stitch", "5", "--round", "4.6")
    assert max(data["counts"]) == pytest.approx(2 * np.pi * 30 / 5, abs=6)


@pytest.mark.parametrize(
    ("name", "raw"), [("x.obj", b""), ("x.stl", b"\x00" * 90), ("x.svg", b"<svg/>"), ("x.glb", b"glTF")]
)
def test_a_file_of_no_shape_is_one_line(
    capsys: pytest.CaptureFixture[str], tmp_path: Path, name: str, raw: bytes
) -> None:
    path = tmp_path / name
    path.write_bytes(raw)
    code, out, err = run(capsys, "draft", str(path), "--height", "60", *AT)
    assert (code, out, err.count("\n")) == (2, "", 1), err
