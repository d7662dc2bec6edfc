"""Eyes in a part's text and on its surface: the one follows the other."""

from __future__ import annotations

from typing import Any

import pytest

from tests.studio.conftest import Studio
from tests.studio.test_assembly import HEAD

SAID = HEAD.replace("Insert the eyes.", "Insert the 8 mm eyes between R8 and R9, with 6 stitches visible between.")
GAUGE = {"stitch_mm": 5.6, "round_mm": 5.15}

pytestmark = pytest.mark.django_db


class Bench:
    """A design with a head whose direction says where the eyes are."""

    def __init__(self, studio: Studio, text: str) -> None:
        self.studio = studio
        made, self.key = studio.with_part(text)
        self.id = made["id"]

    def look(self) -> dict[str, Any]:
        return self.studio.ask("GET", f"/designs/{self.id}")  # type: ignore[no-any-return]

    def text(self) -> str:
        return str(self.look()["parts"][0]["text"])

    def write(self, text: str) -> None:
        self.studio.ask("PUT", f"/designs/{self.id}/parts/{self.key}/text", {"text": text})

    def put(self, round_at: int, between: int, **more: Any) -> dict[str, Any]:
        eyes = {"part": self.key, "round": round_at, "between": between}
        data = {"steps": [], "eye_kind": "safety", "eye_mm": 8, "eyes": eyes, **more}
        body = {"base": self.look()["revision"], "data": data}
        return self.studio.ask("PUT", f"/designs/{self.id}/pages", {"page": "assembly", **body})  # type: ignore[no-any-return]

    def hints(self, **more: Any) -> list[dict[str, Any]]:
        eyes = self.look()["assembly"]["eyes"]
        asked = {"here": True, **{k: eyes[k] for k in ("round", "between", "share")}, "eye_mm": 8, **more}
        body = {"text": self.text(), "terms": "us", "gauge": GAUGE, "eyes": asked}
        found = self.studio.ask("POST", "/bench/preview", body)["problems"]
        return [p for p in found if p["code"] == "eyes-elsewhere"]


@pytest.fixture
def bench(studio: Studio) -> Bench:
    return Bench(studio, SAID)


def test_a_part_that_comes_with_a_direction_has_its_eyes(bench: Bench) -> None:
    page = bench.look()["assembly"]
    assert (page["eyes"]["round"], page["eyes"]["between"], page["eye_kind"], page["eye_mm"]) == (8, 6, "safety", 8)


def test_placing_the_eyes_says_so_in_the_rounds_and_is_one_undo(bench: Bench) -> None:
    before = bench.put(8, 6)
    assert bench.text() == SAID, "the direction says it already"
    after = bench.put(9, 8, eye_mm=10)
    assert after["revision"] == before["revision"] + 1
    assert "Insert the 10 mm eyes between R9 and R10, with 8 stitches visible between." in bench.text()
    bench.studio.ask("POST", f"/designs/{bench.id}/undo")
    assert bench.text() == SAID
    assert bench.look()["assembly"]["eyes"]["round"] == 8


def test_editing_the_direction_moves_the_eyes(bench: Bench) -> None:
    bench.put(8, 6)
    bench.write(SAID.replace("R8 and R9, with 6", "R7 and R8, with 9").replace("8 mm", "6 mm"))
    page = bench.look()["assembly"]
    assert (page["eyes"]["round"], page["eyes"]["between"], page["eye_mm"]) == (7, 9, 6)
    assert page["eyes"]["share"] == pytest.approx(6.5 / 14)
    bench.studio.ask("POST", f"/designs/{bench.id}/undo")
    assert bench.look()["assembly"]["eyes"]["round"] == 8


def test_what_was_typed_moves_them_when_it_is_kept(bench: Bench) -> None:
    part = bench.put(8, 6)["parts"][0]
    typed = {"text": SAID.replace("R8 and R9", "R6 and R7"), "etag": part["etag"]}
    bench.studio.ask("PUT", f"/designs/{bench.id}/parts/{bench.key}/typed", typed)
    assert bench.look()["assembly"]["eyes"]["round"] == 8, "a half typed number moves nothing"
    bench.studio.ask("POST", f"/designs/{bench.id}/parts/{bench.key}/versions")
    assert bench.look()["assembly"]["eyes"]["round"] == 6


def test_a_first_direction_places_them_and_a_place_that_is_none_does_not(studio: Studio) -> None:
    bench = Bench(studio, HEAD)
    bench.write(SAID.replace("8 mm eyes between R8 and R9", "eyes between R40 and R41"))
    assert bench.look()["assembly"]["eyes"] is None
    bench.write(SAID.replace("Insert the 8 mm eyes", "Embroider the eyes"))
    page = bench.look()["assembly"]
    assert (page["eyes"]["part"], page["eyes"]["round"], page["eye_kind"]) == (bench.key, 8, "embroidered")


def test_other_rounds_leave_them_in_place_and_a_mend_says_where_that_is_now(bench: Bench) -> None:
    bench.put(8, 6)
    assert bench.hints() == []
    longer = SAID.replace("R6-R10: sc around [30]", "R6-R16: sc around [30]")
    for old, new in ((11, 17), (12, 18), (13, 19), (14, 20)):
        longer = longer.replace(f"R{old}:", f"R{new}:")
    bench.write(longer)
    assert bench.look()["assembly"]["eyes"]["round"] == 8, "kept as it was last said"
    (hint,) = bench.hints()
    assert hint["severity"] == "hint"
    assert "above R11 now" in hint["message"]
    text = bench.text()
    assert text[hint["start"] : hint["end"]].startswith("Insert the 8 mm eyes between R8")
    bench.write(text[: hint["fix"]["start"]] + hint["fix"]["text"] + text[hint["fix"]["end"] :])
    assert "between R11 and R12, with 6 stitches" in bench.text()
    assert bench.hints() == []
    assert bench.look()["assembly"]["eyes"]["round"] == 11
    (elsewhere,) = bench.hints(here=False)
    assert elsewhere["fix"] is None


def test_a_direction_is_written_in_where_there_is_none(studio: Studio) -> None:
    bench = Bench(studio, HEAD.replace("Insert the eyes.\n", ""))
    refused = studio.ask("POST", f"/designs/{bench.id}/eyes/tell", status=422)
    assert refused["type"] == "/problems/no-eyes"
    bench.put(8, 6)
    told = studio.ask("POST", f"/designs/{bench.id}/eyes/tell")
    direction = "Insert the 8 mm eyes between R8 and R9, with 6 stitches visible between.\n"
    assert told["parts"][0]["text"] == HEAD.replace("Insert the eyes.\n", direction)
    again = studio.ask("POST", f"/designs/{bench.id}/eyes/tell")
    assert again["revision"] == told["revision"]


def test_the_booklet_prints_the_direction_from_the_place(bench: Bench) -> None:
    bench.put(8, 6)
    longer = SAID.replace("R6-R10: sc around [30]", "R6-R16: sc around [30]")
    for old, new in ((11, 17), (12, 18), (13, 19), (14, 20)):
        longer = longer.replace(f"R{old}:", f"R{new}:")
    bench.write(longer)
    printed = bench.studio.raw("GET", f"/designs/{bench.id}/booklet.md").content.decode()
    assert "between R11 and R12, with 6 stitches visible between" in printed
    assert "between R8 and R9" not in printed
