"""The shelf of pieces: kept, brought in, used; credits and terms that add up."""

from __future__ import annotations

import json
from typing import Any

import pytest

from tests.studio.conftest import BALL, Studio

EAR = "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R4: 9 sc [9]\n"
FREE = {"change": True, "selling": "yes", "rounds": True, "difference": True, "alike": False, "credit": "", "words": ""}


@pytest.fixture
def owl(studio: Studio) -> dict[str, Any]:
    """A head with two ears that are sewn on."""
    made, head = studio.with_part()
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Ear", "text": EAR, "make": 2}, 201)
    step = {
        "key": "abcd0001",
        "text": "Sew on.",
        "part": made["parts"][1]["key"],
        "on": head,
        "round": 3,
        "paired": True,
    }
    page = {"page": "assembly", "base": made["revision"], "data": {"steps": [step]}}
    return studio.ask("PUT", f"/designs/{made['id']}/pages", page)  # type: ignore[no-any-return]


def keep(studio: Studio, design: dict[str, Any], *names: str, status: int = 201, **more: Any) -> Any:
    keys = [p["key"] for p in design["parts"] if p["name"] in names]
    body = {"design": design["id"], "parts": keys, "main": keys[0], "title": "Owl head", **more}
    return studio.ask("POST", "/pieces", body, status)


def test_parts_are_kept_with_what_is_between_them(studio: Studio, other: Studio, owl: dict[str, Any]) -> None:
    piece = keep(studio, owl, "Body", "Ear", slot="head", tags=["owl"])
    assert piece["parts"] == ["Body", "Ear"]
    assert [(p["name"], p["count"]) for p in piece["ports"]] == [("Ear", 9)]
    assert piece["own"]
    assert [p["title"] for p in studio.ask("GET", "/pieces")] == ["Owl head"]
    assert other.ask("GET", "/pieces") == []
    for path in ("", "/file", "/picture", f"/ports/{piece['main']}"):
        other.ask("GET" if path else "DELETE", f"/pieces/{piece['id']}{path}", status=404)
    picture = studio.raw("GET", f"/pieces/{piece['id']}/picture")
    assert picture["Content-Type"] == "image/svg+xml"
    ports = studio.ask("GET", f"/pieces/{piece['id']}/ports/{piece['main']}")
    assert [p["count"] for p in ports] == [6, 12, 18, 18, 18, 18, 12, 6]
    studio.ask("DELETE", f"/pieces/{piece['id']}", status=204)
    assert studio.ask("GET", "/pieces") == []


def test_a_piece_is_put_into_a_figure_as_one_step(studio: Studio, owl: dict[str, Any]) -> None:
    piece = keep(studio, owl, "Body", "Ear", designer="Maren Vik", version="1.2", permissions=FREE)
    made, body = studio.with_part()
    use = {"piece": piece["id"], "on": body, "round": 8}
    made = studio.ask("POST", f"/designs/{made['id']}/pieces", use, 201)
    assert [(p["name"], p["make"], p["faults"]) for p in made["parts"]] == [
        ("Body", 1, 0),
        ("Body 2", 1, 0),
        ("Ear", 2, 0),
    ]
    steps = {s["part"]: s["on"] for s in made["assembly"]["steps"]}
    keys = [p["key"] for p in made["parts"]]
    assert steps == {keys[2]: keys[1], keys[1]: keys[0]}
    credits = studio.ask("GET", f"/designs/{made['id']}/credits")
    assert [(s["called"], s["parts"]) for s in credits["sources"]] == [
        ("Owl head, version 1.2, by Maren Vik", ["Body 2", "Ear"])
    ]
    assert credits["blocked"] == []
    undone = studio.ask("POST", f"/designs/{made['id']}/undo")
    assert len(undone["parts"]) == 1
    assert studio.ask("GET", f"/designs/{made['id']}/credits")["sources"] == []


def test_a_piece_is_used_inside_out_in_another_yarn_and_more_than_once(studio: Studio) -> None:
    made, _ = studio.with_part()
    yarns = [{"name": "Moss", "colour": "#77834b", "weight": 3}, {"name": "Rust", "colour": "#b5453f", "weight": 3}]
    page = {"page": "gauge", "base": made["revision"], "data": {"yarns": yarns}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    piece = keep(studio, made, "Body")
    use = {"piece": piece["id"], "colours": {"Moss": "Rust"}, "copies": 3, "inside_out": True}
    made = studio.ask("POST", f"/designs/{made['id']}/pieces", use, 201)
    part = made["parts"][1]
    assert (part["make"], part["colour"]) == (3, "Rust")
    assert part["text"].endswith("Turn inside out.\n")
    studio.ask("POST", f"/designs/{made['id']}/pieces", {**use, "colours": {"Moss": "Nowhere"}}, 422)
    studio.ask("POST", f"/designs/{made['id']}/pieces", {**use, "on": "nosuch00", "round": 3}, 422)


def test_a_piece_goes_out_as_a_file_and_comes_in_the_same(studio: Studio, owl: dict[str, Any]) -> None:
    piece = keep(
        studio, owl, "Body", "Ear", designer="Maren Vik", tags=["owl"], permissions={**FREE, "words": "Say hello."}
    )
    raw = studio.raw("GET", f"/pieces/{piece['id']}/file").content
    assert json.loads(raw)["permissions"]["words"] == "Say hello."
    again = studio.send("/pieces/from-file", "piece.json", raw, 201)
    assert {**again, "id": 0} == {**piece, "id": 0}


def test_designs_and_written_patterns_come_in_as_somebody_else_s(studio: Studio, owl: dict[str, Any]) -> None:
    raw = studio.raw("GET", f"/bench/file/{owl['id']}/design").content
    made = studio.send("/pieces/from-file", "owl.json", raw, 201)
    assert (made["own"], made["parts"]) == (False, ["Body", "Ear"])
    written = studio.send("/pieces/from-file", "bell.txt", f"# Bell\n{BALL}".encode(), 201)
    assert (written["title"], written["own"], written["permissions"]["rounds"]) == ("bell", False, False)


@pytest.mark.parametrize(
    ("raw", "said"),
    [
        (b"{", "no readable JSON"),
        (b'{"kind": "cake"}', "no Spirrel piece"),
        (b'{"kind": "piece", "format": 7}', "newer Spirrel"),
        (b'{"kind": "piece", "title": "x", "main": "y", "design": {}}', "no Spirrel design"),
        (b"Once upon a time.", "no round was found"),
    ],
)
def test_a_file_that_is_no_piece_is_a_sentence(studio: Studio, raw: bytes, said: str) -> None:
    assert said in studio.send("/pieces/from-file", "x.json" if raw[:1] == b"{" else "x.txt", raw, 422)["detail"]


def test_rounds_that_may_not_be_published_again_block_and_offer_the_difference(
    studio: Studio, owl: dict[str, Any]
) -> None:
    piece = keep(studio, owl, "Body", designer="Odo Brand", permissions={**FREE, "rounds": False})
    made, _ = studio.with_part()
    studio.ask("POST", f"/designs/{made['id']}/pieces", {"piece": piece["id"]}, 201)
    found = studio.ask("GET", f"/designs/{made['id']}/credits")
    assert found["blocked"] == [
        "Owl head, version 1.0, by Odo Brand: its rounds may not be published again; publish yours as a difference."
    ]
    assert "no legal advice" in found["advice"]


def test_what_is_kept_of_a_piece_keeps_its_source(studio: Studio, owl: dict[str, Any]) -> None:
    first = keep(studio, owl, "Body", designer="Odo Brand", permissions=FREE)
    made = studio.design()
    made = studio.ask("POST", f"/designs/{made['id']}/pieces", {"piece": first["id"]}, 201)
    second = keep(studio, made, "Body", title="Again")
    assert (first["made_from"], second["made_from"]) == ([], ["Owl head, version 1.0, by Odo Brand"])
    last = studio.design()
    studio.ask("POST", f"/designs/{last['id']}/pieces", {"piece": second["id"]}, 201)
    called = [s["called"] for s in studio.ask("GET", f"/designs/{last['id']}/credits")["sources"]]
    assert called == ["Owl head, version 1.0, by Odo Brand", "Again, version 1.0"]


def test_a_part_that_there_is_not_cannot_be_kept(studio: Studio, owl: dict[str, Any]) -> None:
    body = {"design": owl["id"], "parts": ["nosuch00"], "main": "nosuch00", "title": "None"}
    assert "at least one part" in studio.ask("POST", "/pieces", body, 422)["detail"]


def test_a_piece_goes_on_above_a_cut(studio: Studio, owl: dict[str, Any]) -> None:
    piece = keep(studio, owl, "Body", designer="Maren Vik", permissions=FREE)
    made, body = studio.with_part()
    then = {"piece": piece["id"], "first": 5}
    made = studio.ask("POST", f"/designs/{made['id']}/graft", {"part": body, "upto": 5, "taken": then}, 201)
    assert made["parts"][0]["faults"] == 0
    (source,) = studio.ask("GET", f"/designs/{made['id']}/credits")["sources"]
    assert (source["called"], source["parts"]) == ("Owl head, version 1.0, by Maren Vik", ["Body"])


# --- credits that she notes, and what is published --------------------------------------------------


MOTH = {"title": "Moth", "designer": "Odo Brand", "version": "2", "permissions": {**FREE, "rounds": False}}


def test_sources_are_noted_changed_and_taken_off(studio: Studio) -> None:
    made, _ = studio.with_part()
    path = f"/designs/{made['id']}/credits"
    noted = studio.ask("PUT", path, {"sources": [MOTH]})
    assert noted["undo"] == "Noted what it was made from"
    found = studio.ask("GET", path)
    assert [(s["called"], s["noted"]) for s in found["sources"]] == [("Moth, version 2, by Odo Brand", 0)]
    assert [s["stop"] for s in noted["stops"] if s["state"] == "under-way"].count("bases") == 1, (
        "its terms are in the way"
    )
    studio.ask("PUT", path, {"sources": [{**MOTH, "title": ""}]}, 422)
    studio.ask("PUT", path, {"sources": []})
    assert studio.ask("GET", path)["sources"] == []


def test_a_booklet_of_rounds_that_may_not_be_published_says_so_first(studio: Studio) -> None:
    made, _ = studio.with_part()
    studio.ask("PUT", f"/designs/{made['id']}/credits", {"sources": [MOTH]})
    booklet = studio.ask("GET", f"/designs/{made['id']}/booklet")
    assert booklet["sections"][0]["key"] == "private"
    assert "Worked from Moth, version 2, by Odo Brand." in str(booklet["sections"])


def test_a_copy_is_published_as_a_difference_from_whose_it_is(studio: Studio) -> None:
    base, _ = studio.with_part()
    studio.ask("PUT", f"/designs/{base['id']}/credits", {"sources": [MOTH]})
    copy = studio.ask("POST", f"/designs/{base['id']}/copy", status=201)
    key = copy["parts"][0]["key"]
    longer = BALL.replace("R4-R6", "R4-R9").replace("R7:", "R10:").replace("R8:", "R11:")
    studio.ask("PUT", f"/designs/{copy['id']}/parts/{key}/text", {"text": longer})
    raw = studio.raw("GET", f"/designs/{copy['id']}/booklet.txt?edition=difference").content.decode()
    assert "You need Moth, version 2, by Odo Brand." in raw
    assert "R1 to R3: work as there." in raw
    assert "R4-R9: sc around [18] (6 rounds)" in raw
    assert "R7 to R8: work as there, with what stands between; here they are R10 to R11." in raw
    assert "not to be passed on" not in raw
    assert studio.raw("GET", f"/designs/{copy['id']}/booklet.pdf?edition=difference").content[:4] == b"%PDF"


def test_terms_that_forbid_it_block_the_difference_and_nothing_is_one_without_a_base(studio: Studio) -> None:
    base, _ = studio.with_part()
    assert (
        "made from nothing"
        in studio.ask("GET", f"/designs/{base['id']}/booklet?edition=difference", status=404)["detail"]
    )
    strict = {**MOTH, "permissions": {**FREE, "difference": False}}
    studio.ask("PUT", f"/designs/{base['id']}/credits", {"sources": [strict]})
    copy = studio.ask("POST", f"/designs/{base['id']}/copy", status=201)
    refused = studio.ask("GET", f"/designs/{copy['id']}/booklet?edition=difference", status=422)
    assert "changes to it may not be published" in refused["detail"]


# --- drawn by lot -----------------------------------------------------------------------------------


def test_a_figure_is_drawn_shown_and_made_a_design(studio: Studio, other: Studio, owl: dict[str, Any]) -> None:
    keep(studio, owl, "Body", title="Ball", slot="body", designer="Odo Brand", permissions=FREE)
    keep(studio, owl, "Ear", title="Ears", slot="limb", designer="Maren Vik", permissions=FREE)
    asked = {"seeds": {"body": 1, "limb": 4, "head": 2}}
    found = studio.ask("POST", "/pieces/draw", asked)
    assert [(lot["slot"], lot["title"]) for lot in found["lots"]] == [("body", "Ball"), ("head", ""), ("limb", "Ears")]
    assert found["picture"].startswith("data:image/svg+xml;base64,")
    assert studio.ask("POST", "/pieces/draw", asked) == found, "the same numbers draw the same"
    made = studio.ask("POST", "/pieces/draw/make", {**asked, "name": "Lot"}, 201)
    assert [p["name"] for p in made["parts"]] == ["Body", "Ear"]
    assert len(studio.ask("GET", f"/designs/{made['id']}/credits")["sources"]) == 2
    assert other.ask("POST", "/pieces/draw", asked)["stitches"] == 0
    other.ask("POST", "/pieces/draw/make", asked, 422)
    studio.ask("POST", "/pieces/draw", {"seeds": {"body": 99_999}}, 422)
    studio.ask("POST", "/pieces/draw", {"seeds": {"tail": 1}}, 422)


def test_a_pattern_that_is_somebody_else_s_is_brought_in_for_her_alone(studio: Studio) -> None:
    text = f"# Bell\n{BALL}"
    made = studio.ask("POST", "/designs/brought", {"name": "bell.txt", "text": text, "theirs": "Odo Brand"}, 201)
    found = studio.ask("GET", f"/designs/{made['id']}/credits")
    assert [s["called"] for s in found["sources"]] == ["bell, by Odo Brand"]
    assert "terms are not known" in found["blocked"][0]
    copy = studio.ask("POST", f"/designs/{made['id']}/copy", status=201)
    raw = studio.raw("GET", f"/designs/{copy['id']}/booklet.txt?edition=difference").content.decode()
    assert "You need bell, by Odo Brand." in raw
    into, _ = studio.with_part()
    grown = studio.ask("POST", f"/designs/{into['id']}/brought", {"text": text, "theirs": ""}, 201)
    assert len(grown["parts"]) == 2
    (source,) = studio.ask("GET", f"/designs/{into['id']}/credits")["sources"]
    assert source["parts"] == ["Bell"]
    assert not source["own"]


def test_what_is_said_of_a_piece_is_changed_and_its_rounds_stay(
    studio: Studio, other: Studio, owl: dict[str, Any]
) -> None:
    piece = keep(studio, owl, "Body", "Ear", tags=["owl"])
    said = {k: piece[k] for k in ("title", "slot", "version", "designer", "own", "tags", "permissions")}
    other.ask("PUT", f"/pieces/{piece['id']}", said, 404)
    terms = {**FREE, "selling": "no"}
    now = {**said, "designer": "Maren Vik", "own": False, "slot": "head", "permissions": terms}
    changed = studio.ask("PUT", f"/pieces/{piece['id']}", now)
    assert (changed["designer"], changed["own"], changed["slot"]) == ("Maren Vik", False, "head")
    assert "What is made may not be sold." in changed["terms"]
    assert changed["stitches"] == piece["stitches"]
    file = json.loads(studio.raw("GET", f"/pieces/{piece['id']}/file").content)
    assert file["permissions"]["selling"] == "no"
    both = studio.ask("PUT", f"/pieces/{piece['id']}", {**now, "own": True}, 422)
    assert "no other designer" in both["detail"]


def test_a_piece_is_joined_upside_down(studio: Studio, owl: dict[str, Any]) -> None:
    piece = keep(studio, owl, "Body", "Ear")
    made, body = studio.with_part()
    use = {"piece": piece["id"], "on": body, "round": 8, "upside_down": True}
    made = studio.ask("POST", f"/designs/{made['id']}/pieces", use, 201)
    step = next(s for s in made["assembly"]["steps"] if s["on"] == body)
    assert step["seat"] == "start"
