"""Bases: what is new in them, taken over; designs compared; parts gone on as others."""

from __future__ import annotations

from typing import Any

import pytest

from tests.studio.conftest import BALL, Studio

LONGER = BALL.replace("R4-R6", "R4-R9").replace("R7:", "R10:").replace("R8:", "R11:")
OWN_END = BALL.replace("R8: dec x 6 [6]", "R8: inv dec x 6 [6]")
TALL = {"key": "taller", "name": "taller", "kind": "height", "height_mm": 90}


def text(studio: Studio, made: dict[str, Any], words: str, at: int = 0) -> dict[str, Any]:
    key = made["parts"][at]["key"]
    return studio.ask("PUT", f"/designs/{made['id']}/parts/{key}/text", {"text": words})  # type: ignore[no-any-return]


def keys(found: dict[str, Any]) -> list[str]:
    return [c["key"] for c in found["changes"]]


@pytest.fixture
def pair(studio: Studio) -> tuple[dict[str, Any], dict[str, Any]]:
    """A base and a copy of it."""
    base, _ = studio.with_part()
    return base, studio.ask("POST", f"/designs/{base['id']}/copy", status=201)


# --- what is new in the base ------------------------------------------------------------------


def test_a_base_that_stands_still_has_nothing_new(studio: Studio, pair: Any) -> None:
    found = studio.ask("GET", f"/designs/{pair[1]['id']}/base")
    assert (found["changes"], found["conflicts"], found["name"]) == ([], [], pair[0]["name"])


def test_what_is_new_in_the_base_is_taken_as_one_step_and_undone_as_one(studio: Studio, pair: Any) -> None:
    base, copy = pair
    text(studio, copy, OWN_END)
    text(studio, base, LONGER)
    found = studio.ask("GET", f"/designs/{copy['id']}/base")
    (change,) = found["changes"]
    assert change["said"] == "Body: 1 line written otherwise."
    assert (change["before"], change["after"]) == (["R4-R6: sc around [18]"], ["R4-R9: sc around [18]"])
    assert change["conflict"] is None
    made = studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": keys(found), "now": found["now"]})
    body = made["parts"][0]["text"]
    assert "R4-R9: sc around [18]" in body
    assert "R11: inv dec x 6 [6]" in body, "hers stays, with the number it has now"
    assert made["undo"] == f"Took 1 change of {base['name']}"
    assert studio.ask("GET", f"/designs/{copy['id']}/base")["changes"] == []
    undone = studio.ask("POST", f"/designs/{copy['id']}/undo")
    assert undone["parts"][0]["text"] == OWN_END
    assert len(studio.ask("GET", f"/designs/{copy['id']}/base")["changes"]) == 1, "it is offered again"


def test_a_conflict_shows_both_and_she_has_the_word(studio: Studio, pair: Any) -> None:
    base, copy = pair
    hers = BALL.replace("R4-R6: sc around [18]", "R4-R6: hdc around [18]")
    text(studio, copy, hers)
    text(studio, base, LONGER)
    found = studio.ask("GET", f"/designs/{copy['id']}/base")
    assert [c["conflict"] for c in found["changes"]] == [0]
    assert found["conflicts"][0]["hers"][0]["after"] == ["R4-R6: hdc around [18]"]
    taken = studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": keys(found), "now": found["now"]})
    assert taken["parts"][0]["text"] == LONGER


def test_what_is_left_is_not_offered_again_once_she_says_so(studio: Studio, pair: Any) -> None:
    base, copy = pair
    text(studio, base, LONGER)
    now = studio.ask("GET", f"/designs/{copy['id']}/base")["now"]
    studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": [], "now": now}, 422)
    left = studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": [], "now": now, "done": True})
    assert left["parts"][0]["text"] == BALL
    assert studio.ask("GET", f"/designs/{copy['id']}/base")["changes"] == []
    studio.ask("POST", f"/designs/{copy['id']}/undo")
    assert studio.ask("GET", f"/designs/{copy['id']}/base")["changes"]


def test_a_base_that_moved_on_since_it_was_looked_at_is_looked_at_again(studio: Studio, pair: Any) -> None:
    base, copy = pair
    text(studio, base, LONGER)
    seen = studio.ask("GET", f"/designs/{copy['id']}/base")
    now = seen["now"]
    text(studio, base, LONGER.replace("R1: 6", "R1: 7"))
    refused = studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": keys(seen), "now": now}, 409)
    assert "look again" in refused["detail"]
    studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": ["nosuch"], "now": now + 1}, 409)


def test_a_copy_of_a_copy_is_not_told_of_credits_that_are_nobody_s_change(studio: Studio, pair: Any) -> None:
    base, copy = pair
    third = studio.ask("POST", f"/designs/{copy['id']}/copy", status=201)
    assert studio.ask("GET", f"/designs/{third['id']}/base")["changes"] == []
    source = {"title": "Owl", "designer": "Odo Brand"}
    studio.ask("PUT", f"/designs/{copy['id']}/credits", {"sources": [source]})
    found = studio.ask("GET", f"/designs/{third['id']}/base")
    assert [(c["said"], c["conflict"]) for c in found["changes"]] == [("Sources: changed.", None)]
    made = studio.ask("POST", f"/designs/{third['id']}/base/take", {"take": keys(found), "now": found["now"]})
    called = [s["called"] for s in studio.ask("GET", f"/designs/{made['id']}/credits")["sources"]]
    assert called == [copy["name"], "Owl, by Odo Brand"]
    assert base["id"] != third["id"]


def test_a_part_that_came_into_the_base_comes_with_its_join(studio: Studio, pair: Any) -> None:
    base, copy = pair
    base = studio.ask("POST", f"/designs/{base['id']}/parts", {"name": "Ear", "text": BALL, "make": 2}, 201)
    ear, body = base["parts"][1]["key"], base["parts"][0]["key"]
    step = {"key": "abcd0001", "text": "Sew on.", "part": ear, "on": body, "round": 2, "paired": True}
    page = {"page": "assembly", "base": base["revision"], "data": {"steps": [step]}}
    studio.ask("PUT", f"/designs/{base['id']}/pages", page)
    found = studio.ask("GET", f"/designs/{copy['id']}/base")
    made = studio.ask("POST", f"/designs/{copy['id']}/base/take", {"take": keys(found), "now": found["now"]})
    assert [p["name"] for p in made["parts"]] == ["Body", "Ear"]
    assert made["assembly"]["steps"][0]["on"] == body
    assert made["assembly"]["steps"][0]["share"] is not None


def test_a_change_of_the_base_reaches_a_design_made_of_one_of_its_sizes(studio: Studio) -> None:
    base, _ = studio.with_part()
    page = {"page": "sizes", "base": base["revision"], "data": {"sizes": [TALL]}}
    studio.ask("PUT", f"/designs/{base['id']}/pages", page)
    tall = studio.ask("POST", f"/designs/{base['id']}/sizes/taller/make", status=201)
    counts = tall["parts"][0]["counts"]
    assert studio.ask("GET", f"/designs/{tall['id']}/base")["changes"] == [], "made of the base as it is"
    text(studio, base, BALL.replace("Stuff firmly.", "Stuff very lightly."))
    found = studio.ask("GET", f"/designs/{tall['id']}/base")
    assert found["size"] == "taller"
    assert [c["after"] for c in found["changes"]] == [["Stuff very lightly."]]
    made = studio.ask("POST", f"/designs/{tall['id']}/base/take", {"take": keys(found), "now": found["now"]})
    assert "Stuff very lightly." in made["parts"][0]["text"]
    assert made["parts"][0]["counts"] == counts


def test_a_design_without_a_base_and_one_whose_base_is_gone_say_so(studio: Studio, pair: Any) -> None:
    base, copy = pair
    assert "made from nothing else" in studio.ask("GET", f"/designs/{base['id']}/base", status=404)["detail"]
    studio.ask("DELETE", f"/designs/{base['id']}", status=204)
    assert "not there any more" in studio.ask("GET", f"/designs/{copy['id']}/base", status=404)["detail"]


def test_a_copy_starts_with_a_fresh_proving(studio: Studio) -> None:
    base, _ = studio.with_part()
    page = {"page": "proving", "base": base["revision"], "data": {"blockers": "Waiting for the last tester."}}
    studio.ask("PUT", f"/designs/{base['id']}/pages", page)
    copy = studio.ask("POST", f"/designs/{base['id']}/copy", status=201)
    assert copy["proving"]["blockers"] == ""


# --- compared -----------------------------------------------------------------------------------


def test_two_designs_are_compared_round_by_round_and_in_words(studio: Studio, pair: Any) -> None:
    base, copy = pair
    text(studio, copy, LONGER)
    found = studio.ask("GET", f"/designs/{copy['id']}/comparison?other={base['id']}")
    (part,) = found["parts"]
    assert part["words"] == ["3 rounds more behind R6: R7 to R9."]
    assert sum(not r["same"] for r in part["rounds"]) == 3
    assert "54 stitches more" in found["sums"]
    assert found["b_comes"]["stitches"] - found["a_comes"]["stitches"] == 54


def test_an_earlier_revision_and_a_size_are_compared_as_well(studio: Studio) -> None:
    made, _ = studio.with_part()
    early = made["revision"]
    made = text(studio, made, LONGER)
    found = studio.ask("GET", f"/designs/{made['id']}/comparison?other={made['id']}&revision={early}")
    assert found["parts"][0]["words"] == ["3 rounds more behind R6: R7 to R9."]
    page = {"page": "sizes", "base": made["revision"], "data": {"sizes": [TALL]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    found = studio.ask("GET", f"/designs/{made['id']}/comparison?other={made['id']}&size=taller")
    assert found["a_comes"]["height_mm"] > found["b_comes"]["height_mm"]
    studio.ask("GET", f"/designs/{made['id']}/comparison?other={made['id']}&size=nosuch", status=404)
    studio.ask("GET", f"/designs/{made['id']}/comparison?other={made['id']}&revision=99", status=404)


def test_nobody_compares_with_a_design_that_is_not_hers(studio: Studio, other: Studio) -> None:
    made, _ = studio.with_part()
    theirs, _ = other.with_part()
    studio.ask("GET", f"/designs/{made['id']}/comparison?other={theirs['id']}", status=404)


# --- grafts -------------------------------------------------------------------------------------


def grafting(made: dict[str, Any], other: dict[str, Any], upto: int, first: int, **more: Any) -> dict[str, Any]:
    then = {"design": other["id"], "part": other["parts"][0]["key"], "first": first}
    return {"part": made["parts"][0]["key"], "upto": upto, "taken": then, **more}


def test_ways_to_go_on_are_shown_beside_each_other(studio: Studio, pair: Any) -> None:
    base, copy = pair
    (way,) = studio.ask("POST", f"/designs/{base['id']}/graft/ways", grafting(base, copy, 5, 4))["ways"]
    assert (way["adapt"], way["adapters"], way["base"], way["piece"]) == (None, 0, 18, 18)
    rounds, grade = studio.ask("POST", f"/designs/{base['id']}/graft/ways", grafting(base, copy, 2, 5))["ways"]
    assert (rounds["adapt"], rounds["adapters"], rounds["counts"][:4]) == ("rounds", 1, [6, 12, 18, 18])
    assert (grade["adapt"], round(grade["scale"], 3)) == ("grade", 0.667)
    assert rounds["comes"]["stitches"] > grade["comes"]["stitches"]
    assert studio.ask("GET", f"/designs/{base['id']}")["revision"] == base["revision"], "nothing is kept"


def test_a_graft_is_one_step(studio: Studio, pair: Any) -> None:
    base, copy = pair
    made = studio.ask("POST", f"/designs/{base['id']}/graft", grafting(base, copy, 2, 5, adapt="rounds"), 201)
    assert made["parts"][0]["faults"] == 0
    assert made["undo"] == "Body goes on as Body behind R2"
    credits = studio.ask("GET", f"/designs/{base['id']}/credits")
    assert [c["own"] for c in credits["sources"]] == [True]
    assert studio.ask("POST", f"/designs/{base['id']}/undo")["parts"][0]["text"] == BALL


def test_a_graft_that_cannot_be_says_why(studio: Studio, pair: Any) -> None:
    base, copy = pair
    refused = studio.ask("POST", f"/designs/{base['id']}/graft", grafting(base, copy, 2, 5), 422)
    assert "Put rounds between" in refused["detail"]
    refused = studio.ask("POST", f"/designs/{base['id']}/graft/ways", grafting(base, copy, 40, 5), 422)
    assert "cannot be cut at R40" in refused["detail"]
    nowhere = {"part": base["parts"][0]["key"], "upto": 2, "taken": {"first": 3}}
    studio.ask("POST", f"/designs/{base['id']}/graft/ways", nowhere, 422)


def test_where_a_part_can_be_cut(studio: Studio) -> None:
    made, key = studio.with_part()
    ports = studio.ask("GET", f"/designs/{made['id']}/parts/{key}/ports")["ports"]
    assert [p["count"] for p in ports] == [6, 12, 18, 18, 18, 18, 12, 6]


# --- several figures ----------------------------------------------------------------------------


def test_what_several_figures_take_together(studio: Studio, other: Studio, pair: Any) -> None:
    base, copy = pair
    empty = studio.design("Empty")
    figures = [{"design": base["id"], "times": 3}, {"design": copy["id"], "times": 1}, {"design": empty["id"]}]
    found = studio.ask("POST", "/designs/together", {"figures": figures})
    assert found["figures"] == 4
    assert found["yarns"][0]["stitches"] == 4 * 108
    assert found["unfit"] == ["Empty"]
    other.ask("POST", "/designs/together", {"figures": figures}, 404)
    studio.ask("POST", "/designs/together", {"figures": []}, 422)
    studio.ask("POST", "/designs/together", {"figures": [{"design": empty["id"]}]}, 422)


def test_every_way_to_go_on_shows_its_shape(studio: Studio, pair: Any) -> None:
    base, copy = pair
    taken = {"design": base["id"], "part": base["parts"][0]["key"], "first": 7}
    asked = {"part": copy["parts"][0]["key"], "upto": 5, "taken": taken}
    (way,) = studio.ask("POST", f"/designs/{copy['id']}/graft/ways", asked)["ways"]
    assert way["picture"].startswith("<svg")


# --- what comes off -----------------------------------------------------------------------------

CAP = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: sc around [18]\n"


def test_what_comes_off_says_what_it_fits_and_becomes_a_design(studio: Studio, other: Studio) -> None:
    made, body = studio.with_part()
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Cap", "text": CAP}, 201)
    cap = made["parts"][1]["key"]
    step = {"key": "abcd0001", "part": cap, "on": body, "round": 8, "fixing": "slipped-on"}
    page = {"page": "assembly", "base": made["revision"], "data": {"steps": [step]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    assert made["assembly"]["steps"][0]["fixing"] == "slipped-on"
    (worn,) = studio.ask("GET", f"/designs/{made['id']}/worn")
    assert (worn["name"], worn["host"], worn["fit"], worn["ease_mm"]) == ("Cap", "Body", "fits", 0)
    alone = studio.ask("POST", f"/designs/{made['id']}/worn/alone", {"part": cap}, 201)
    assert [p["name"] for p in alone["parts"]] == ["Cap"]
    assert alone["brief"]["intro"].startswith("Made for Body of Moth, version 1.0, about")
    assert studio.ask("GET", f"/designs/{alone['id']}/credits")["sources"][0]["called"].startswith("Moth, version 1.0")
    assert "comes off" in studio.ask("POST", f"/designs/{made['id']}/worn/alone", {"part": body}, 422)["detail"]
    other.ask("GET", f"/designs/{made['id']}/worn", status=404)
    other.ask("POST", f"/designs/{made['id']}/worn/alone", {"part": cap}, 404)


def test_what_was_made_alone_follows_what_it_fits(studio: Studio) -> None:
    """The figure grows wider where it is worn: its opening, the words on it and the fit are told anew, and taken over."""
    made, body = studio.with_part()
    made = studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Cap", "text": CAP}, 201)
    cap = made["parts"][1]["key"]
    step = {"key": "abcd0001", "part": cap, "on": body, "round": 8, "fixing": "slipped-on"}
    page = {"page": "assembly", "base": made["revision"], "data": {"steps": [step]}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    alone = studio.ask("POST", f"/designs/{made['id']}/worn/alone", {"part": cap}, 201)
    news = studio.ask("GET", f"/designs/{alone['id']}/base")
    assert news["changes"] == []
    assert news["fits"]["ease_mm"] == 0
    wider = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5-R12: sc around [24]\n"
    text(studio, made, wider)
    news = studio.ask("GET", f"/designs/{alone['id']}/base")
    assert news["fits"]["fit"] == "tight"
    assert news["fits"]["around_mm"] / news["fits"]["own_mm"] == pytest.approx(24 / 18)
    assert any("intro" in c["said"].lower() for c in news["changes"]), news["changes"]
    taken = {"take": [c["key"] for c in news["changes"]], "now": news["now"], "done": True}
    after = studio.ask("POST", f"/designs/{alone['id']}/base/take", taken)
    assert after["brief"]["intro"] != alone["brief"]["intro"]
    assert studio.ask("GET", f"/designs/{alone['id']}/base")["changes"] == []
    made = studio.ask("GET", f"/designs/{made['id']}")
    page = {"page": "assembly", "base": made["revision"], "data": {"steps": []}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    assert "does not wear" in studio.ask("GET", f"/designs/{alone['id']}/base", status=404)["detail"]
