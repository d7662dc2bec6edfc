"""The command line: answers, exit codes, JSON that keeps its schema, one line for every trouble."""

from __future__ import annotations

import csv
import io
import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from jsonschema import Draft202012Validator

from craft.cli import main
from craft.document.booklet import Manuscript, PartLine, YarnLine, as_markdown, as_text, compose
from craft.figure.materials import yarn_use
from craft.gauge import ASSUMED, Estimate
from craft.rounds.pattern.stored import from_json
from craft.rounds.stitches import Terms
from craft.text.check import check

ROOT = Path(__file__).resolve().parents[2]
BALL = "Moth (make 2)\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R4: sc around [12]\nStuff.\nR5: dec x 6 [6]\nClose.\n"


@pytest.fixture
def ball(tmp_path: Path) -> str:
    path = tmp_path / "ball.txt"
    path.write_text(BALL)
    return str(path)


def run(capsys: pytest.CaptureFixture[str], *words: str) -> tuple[int, str, str]:
    code = main(words)
    said = capsys.readouterr()
    return code, said.out, said.err


def as_json(capsys: pytest.CaptureFixture[str], schema: str, *words: str, code: int = 0) -> dict[str, Any]:
    got, out, err = run(capsys, *words, "--json")
    assert (got, err) == (code, "")
    data: dict[str, Any] = json.loads(out)
    validate(schema, data)
    return data


def validate(schema: str, data: object) -> None:
    rules = json.loads((ROOT / f"docs/schemas/{schema}.schema.json").read_text())
    Draft202012Validator.check_schema(rules)
    Draft202012Validator(rules).validate(data)


def test_check(capsys: pytest.CaptureFixture[str], ball: str, tmp_path: Path) -> None:
    data = as_json(capsys, "check", "check", ball)
    assert data["sound"]
    assert [(r["label"], r["line"], r["counted"]) for r in data["parts"][0]["rounds"]] == [
        ("R1", 2, 6),
        ("R2", 3, 12),
        ("R3", 4, 12),
        ("R4", 4, 12),
        ("R5", 6, 6),
    ]
    broken = tmp_path / "broken.txt"
    broken.write_text(BALL.replace("inc x 6 [12]", "inc x 7 [12]"))
    bad = as_json(capsys, "check", "check", str(broken), code=1)
    assert bad["problems"][0]["fix"]["text"] == "inc x 6"
    code, out, _ = run(capsys, "check", str(broken))
    assert code == 1
    assert "line 3, column 5: fault" in out
    assert as_json(capsys, "codes", "check", "--codes")["codes"][0]["code"] == "unread"
    uk = tmp_path / "uk.txt"
    uk.write_text(BALL.replace("sc", "dc"))
    assert as_json(capsys, "check", "check", str(uk))["terms"]["used"] == "uk"
    assert as_json(capsys, "check", "check", str(uk), "--from-terms", "us", code=0)["terms"]["how"] == "chosen"


def test_draft(capsys: pytest.CaptureFixture[str]) -> None:
    data = as_json(
        capsys, "draft", "draft", "egg", "--height", "70", "--width", "55", "--stitch", "5", "--round", "4.6"
    )
    assert data["counts"][0] == 6
    true = as_json(
        capsys,
        "draft",
        "draft",
        "egg",
        "--height",
        "70",
        "--width",
        "55",
        "--stitch",
        "5",
        "--round",
        "4.6",
        "--simplicity",
        "0",
        "--stacked",
        "--first",
        "--decrease",
        "invdec",
        "--start",
        "8",
    )
    assert true["counts"][0] == 8
    assert "inv dec" in true["text"]
    assert true["count_rms"] < data["count_rms"]


def test_gauge_and_yarn(capsys: pytest.CaptureFixture[str], ball: str) -> None:
    data = as_json(capsys, "gauge", "gauge", "--wpi", "12", "--wpi", "12", "--hook", "5")
    assert data["stitch_mm"]["value"] == pytest.approx(0.84 * (5 + 25.4 * 2**0.5 / 12))
    assert as_json(capsys, "gauge", "gauge", "--class", "3", "--hook", "3")["fabric"]["verdict"] in ("right", "loose")
    yarn = as_json(capsys, "yarn", "yarn", ball, "--stitch", "5", "--round", "4.6", "--per-stitch", "30")
    assert yarn["colours"][0]["stitches"] == 2 * 48


def test_settle_measures_and_compares(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    drafted = as_json(capsys, "draft", "draft", "sphere", "--height", "60", "--stitch", "5", "--round", "4.6")
    rounds, target = tmp_path / "ball.txt", tmp_path / "ball.json"
    rounds.write_text(drafted["text"])
    target.write_text(json.dumps(drafted))
    words = ["settle", str(rounds), "--stitch", "5", "--round", "4.6"]
    by_file = as_json(capsys, "settle", *words, "--against", str(target), "--mesh", str(tmp_path / "ball.glb"))
    row = by_file["parts"][0]
    assert row["converged"]
    assert row["stitches"] == sum(drafted["counts"])
    assert row["width_mm"] == pytest.approx(60, abs=3)
    assert row["shape_rms_w"] < 0.3
    assert (tmp_path / "ball.glb").read_bytes().startswith(b"glTF")
    by_words = as_json(capsys, "settle", *words, "--against", "sphere:60")
    assert by_words["parts"][0]["shape_rms_mm"] == row["shape_rms_mm"]
    code, out, _ = run(capsys, *words, "--against", "ellipsoid:60x50")
    assert code == 0
    assert "off its target" in out


def test_settle_writes_one_mesh_a_part_and_refuses_faults(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    two = tmp_path / "two.txt"
    two.write_text("Ear\nR1: 6 sc in ring [6]\nR2: 6 sc [6]\n\nNose\nR1: 5 sc in ring [5]\nR2: 5 sc [5]\n")
    assert run(capsys, "settle", str(two), "--mesh", str(tmp_path / "m.stl"))[0] == 0
    assert (tmp_path / "m-1.stl").exists()
    assert (tmp_path / "m-2.stl").exists()
    two.write_text("R1: 6 sc in ring [6]\nR2: 5 sc [6]\n")
    assert run(capsys, "settle", str(two))[0] == 1
    assert run(capsys, "settle", str(two), "--force")[0] == 0


@pytest.mark.parametrize("to", ["text", "json", "csv", "svg", "md"])
def test_convert(capsys: pytest.CaptureFixture[str], ball: str, to: str) -> None:
    text = as_json(capsys, "convert", "convert", ball, "--to", to)["text"]
    if to == "json":
        data = json.loads(text)
        validate("pattern", data)
        assert from_json(data).parts[0].make == 2
    if to == "csv":
        rows = list(csv.DictReader(io.StringIO(text)))
        assert [r["stitches"] for r in rows] == ["6", "12", "12", "12", "6"]
    if to == "md":
        assert "## Moth (make 2)" in text
        assert "- [ ] R2: inc x 6 [12]" in text
    if to == "svg":
        assert text.startswith("<svg")


@pytest.mark.parametrize("name", ["oval", "merge", "flat-limbs", "short-rows", "ribbed-edge", "hair"])
def test_run_tells_every_stitch(capsys: pytest.CaptureFixture[str], name: str) -> None:
    path = str(ROOT / f"tests/craft/sound/{name}.txt")
    data = as_json(capsys, "run", "run", path)
    for part in data["parts"]:
        assert all(parent < i for i, s in enumerate(part["stitches"]) for parent in s["parents"])
    _, out, _ = run(capsys, "run", path, "--graph")
    assert "into" in out


def test_run_names_the_stitches_gone_into(capsys: pytest.CaptureFixture[str], ball: str) -> None:
    _, out, _ = run(capsys, "run", ball, "--graph")
    assert "    inc into 1 of R1\n" in out
    assert "  R2: took 6, made 12, live 12\n" in out


@pytest.mark.parametrize("to", ["text", "md", "json", "csv", "svg"])
def test_convert_for_other_hands_and_languages(capsys: pytest.CaptureFixture[str], ball: str, to: str) -> None:
    for more in (["--left-handed"], ["--spelled"], ["--language", "fr"], ["--tidy"]):
        code, out, err = run(capsys, "convert", ball, "--to", to, *more)
        assert (code, err) == (0, "")
        assert out


def test_convert_changes_terms_and_folds(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "long.txt"
    path.write_text("R1: 6 sc in ring\nR2: sc around\nR3: sc around\n")
    _, out, _ = run(capsys, "convert", str(path), "--to", "text", "--to-terms", "uk", "--tidy")
    assert out == "Terms: UK\n\nR1: 6 dc in ring\nR2-R3: dc around\n"
    stored = tmp_path / "long.json"
    stored.write_text(run(capsys, "convert", str(path), "--to", "json")[1])
    assert run(capsys, "convert", str(path), "--to", "text")[1] == path.read_text()
    tidy = ("--to", "text", "--tidy")
    assert run(capsys, "convert", str(stored), *tidy)[1] == run(capsys, "convert", str(path), *tidy)[1]


@pytest.mark.parametrize(
    "words",
    [
        [],
        ["frobnicate"],
        ["check"],
        ["check", "/nowhere"],
        ["check", "/"],
        ["draft", "teapot", "--height", "5"],
        ["draft", "sphere", "--height", "50"],
        ["draft", "sphere", "--height", "nan", "--stitch", "5", "--round", "5"],
        ["draft", "sphere", "--height", "5", "--stitch", "5", "--round", "5"],
        ["gauge", "--hook", "3"],
        ["draft", "sphere", "--height", "50", "--stitch", "5", "--round", "5", "--start", "2"],
        ["gauge", "--class", "9", "--hook", "3"],
        ["gauge", "--class", "3", "--hook", "-3"],
        ["yarn", "/nowhere"],
        ["convert", "/nowhere", "--to", "docx"],
        ["settle", "/nowhere"],
        ["settle", "/dev/null", "--firmness", "soft"],
        ["check", "/dev/null", "--from-terms", "klingon"],
    ],
)
def test_wrong_use_is_one_line_and_exit_2(capsys: pytest.CaptureFixture[str], words: list[str]) -> None:
    code, out, err = run(capsys, *words)
    assert (code, out) == (2, "")
    assert err.startswith("craft: ")
    assert err.count("\n") == 1


def test_bytes_that_are_no_text(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    for raw in (
        b"\xff\xfe\x00R1",
        b"R1: 6 sc\x00",
        b"{broken",
        b'{"schema": 1}',
        b'{"schema": 1, "parts": 5}',
        b'{"schema": 9}',
    ):
        path = tmp_path / "odd"
        path.write_bytes(raw)
        code, _, err = run(capsys, "check", str(path))
        assert code == 2
        assert err.count("\n") == 1
    path.write_text("R1: 6 sc in ring\nR2: 5 sc\n")
    assert run(capsys, "yarn", str(path))[0] == 1
    assert run(capsys, "yarn", str(path), "--force")[0] == 0
    assert run(capsys, "convert", str(path), "--to", "text")[0] == 1
    path.write_text("")
    assert run(capsys, "check", str(path))[0] == 1


def test_standard_input_and_the_module() -> None:
    done = subprocess.run(
        [sys.executable, "-m", "craft", "check", "-"], input=BALL, capture_output=True, text=True, cwd=ROOT, check=False
    )
    assert done.returncode == 0
    assert done.stdout.endswith("sound\n")


def test_a_booklet_of_the_craft_alone() -> None:
    found = check(BALL)
    part, worked = found.reading.pattern.parts[0], found.parts[0]
    estimate = Estimate.around(40, 0.1, "estimated")
    uses = yarn_use([worked], ASSUMED)
    document = compose(
        Manuscript(
            "Moth",
            "Fern",
            "Version 1",
            Terms.LETTERS,
            "easy",
            "play",
            "",
            (PartLine(part, worked),),
            ASSUMED,
            3.0,
            (YarnLine("Moss", 3, 2, uses[0], 1),),
            estimate,
            estimate,
            estimate,
            "standing",
            "",
            (),
            (),
            "",
            "",
        )
    )
    validate("booklet", json.loads(json.dumps(document.to_json())))
    text, marked = as_text(document), as_markdown(document)
    assert "R3-R4: X around (12) (2 rounds)" in text
    assert "tall standing" in text
    assert "2 strands together" in text
    assert "- [ ] R1: 6X in ring (6)" in marked
    assert "choke" not in text, "no small parts, no caution about them"
    assert "certifies nothing" in text


def test_draft_and_settle_take_a_form_from_a_file(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    bend = {"kind": "bend", "degrees": 40}
    form = {"base": "traced", "front": [[0, 0], [30, 20], [20, 60], [0, 80]], "modifiers": [bend]}
    path = tmp_path / "moon.json"
    path.write_text(json.dumps(form))
    at = ("--stitch", "5.6", "--round", "5.1")
    data = as_json(capsys, "draft", "draft", "form", "--form", str(path), *at)
    assert data["target"]["base"] == "traced"
    written = tmp_path / "moon.txt"
    written.write_text(data["text"])
    settled = as_json(capsys, "settle", "settle", str(written), *at, "--against", str(path))
    assert settled["parts"][0]["shape_rms_w"] < 0.4
    for words, says in (
        (["form"], "--form FILE"),
        (["form", "--form", str(tmp_path / "none.json")], "No such file"),
        (["form", "--form", str(written)], "no JSON of a shape"),
        (["egg"], "--height"),
    ):
        code, _, err = run(capsys, "draft", *words, *at)
        assert (code, says in err) == (2, True), err


def test_a_box_is_drafted_as_panels_that_can_be_checked(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "box.json"
    path.write_text(json.dumps({"base": "box", "width_mm": 60, "depth_mm": 50, "height_mm": 70}))
    data = as_json(
        capsys, "panels", "draft", "form", "--form", str(path), "--stitch", "5.6", "--round", "5.15", "--panels"
    )
    assert [s["letter"] for s in data["seams"]] == list("ABCDEFGHIJKL")
    written = tmp_path / "box.txt"
    written.write_text(data["text"].split("Seams")[0])
    checked = as_json(capsys, "check", "check", str(written))
    assert checked["problems"] == []
    assert [(p["name"], p["make"]) for p in checked["parts"]] == [
        ("Left and Right", 2), ("Front and Back", 2), ("Base and Top", 2),
    ]  # fmt: skip


def test_checking_a_text_loads_none_of_what_it_does_not_need(tmp_path: Path) -> None:
    file = tmp_path / "ball.txt"
    file.write_text("R1: 6 sc in ring (6)\nR2: inc x 6 (12)\n")
    asked = (
        "import sys; from craft.cli import main; main(['check', sys.argv[1]]); "
        "print(sorted({'cattrs', 'scipy', 'trimesh', 'django', 'lxml'} & set(sys.modules)))"
    )
    done = subprocess.run([sys.executable, "-c", asked, str(file)], capture_output=True, text=True, check=True)
    assert done.stdout.splitlines()[-1] == "[]"
