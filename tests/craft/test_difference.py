"""Differences between designs: the laws, what a change is, three ways together."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.design import Design, Eyes
from craft.design.joins import Join
from craft.design.parts import Part
from craft.design.remix import Change, Difference, Kind, applied, difference, merged, read_difference
from craft.design.remix.stored import from_json, to_json
from craft.errors import CraftError
from craft.rounds.stitches import Terms
from tests.craft.figures import HEAD, design_st, figure

LONGER = HEAD.replace("R4-R8: 18 sc [18]\nR9:", "R4-R10: 18 sc [18]\nR11:")
RIDGED = HEAD.replace("R4-R8: 18 sc [18]\nR9:", "R4: 18 sc [18]\nR5: 18 hdc [18]\nR6-R8: 18 sc [18]\nR9:")


def with_head(design: Design, text: str) -> Design:
    return replace(design, parts=tuple(replace(p, text=text) if p.key == "head" else p for p in design.parts))


# --- laws -----------------------------------------------------------------------------------


@given(design_st, design_st)
@settings(max_examples=200, deadline=None)
def test_law_a_difference_put_into_the_one_gives_the_other(a: Design, b: Design) -> None:
    assert applied(difference(a, b), a) == b


@given(design_st)
@settings(max_examples=60, deadline=None)
def test_law_of_a_design_and_itself_there_is_no_difference(a: Design) -> None:
    assert not difference(a, a)


@given(design_st, design_st)
@settings(max_examples=80, deadline=None)
def test_law_a_difference_is_the_same_after_its_file(a: Design, b: Design) -> None:
    found = difference(a, b)
    assert from_json(json.loads(json.dumps(to_json(found)))) == found


rounds_st = st.lists(
    st.sampled_from(["{}: 18 sc [18]", "{}: (sc, inc) x 6", "Stuff it.", "{}: 12 sc in back loops", ""]), max_size=9
)


def numbered(lines: list[str]) -> str:
    n, out = 0, []
    for line in lines:
        n += "{}" in line
        out.append(line.format(f"R{n}"))
    return "\n".join(out)


@given(rounds_st, rounds_st)
@settings(max_examples=150, deadline=None)
def test_law_of_texts_with_rounds_that_move_up(one: list[str], two: list[str]) -> None:
    a, b = (Design("x", parts=(Part("p", "Body", numbered(t)),)) for t in (one, two))
    assert applied(difference(a, b), a) == b


@given(design_st, design_st)
@settings(max_examples=80, deadline=None)
def test_law_taking_all_of_what_is_new_where_she_changed_nothing_gives_the_new_one(base: Design, new: Design) -> None:
    new = replace(new, terms=base.terms)
    found = merged(base, base, new)
    assert not found.conflicts
    taken = found.taking(range(len(found.theirs)))
    assert not difference(replace(new, name=base.name), taken).changes or keys_only(difference(new, taken))


def keys_only(found: Difference) -> bool:
    return all(c.kind is Kind.KEYS or c.page == "name" for c in found.changes)


@given(design_st, design_st, design_st)
@settings(max_examples=120, deadline=None)
def test_law_taking_nothing_leaves_hers_and_all_without_conflict_is_the_same_from_both_sides(
    base: Design, one: Design, two: Design
) -> None:
    one, two = replace(one, terms=base.terms, name=base.name), replace(two, terms=base.terms, name=base.name)
    here, there = merged(base, one, two), merged(base, two, one)
    assert here.taking(()) == one
    if here.conflicts or not here.theirs or not there.theirs:
        return
    assert in_any_order(here.taking(here.free)) == in_any_order(there.taking(there.free)), "hers rebased, both ways"


def in_any_order(design: Design) -> list[Any]:
    """A design without the order of its members: of two that come to one place, either may stand first."""
    pages = (design.parts, design.joins, design.marks, design.yarns)
    return [design.eyes, *(sorted(map(repr, page)) for page in pages)]


@given(design_st, design_st, design_st)
@settings(max_examples=80, deadline=None)
def test_law_every_change_of_the_other_is_free_or_in_one_conflict(base: Design, one: Design, two: Design) -> None:
    one, two = replace(one, terms=base.terms), replace(two, terms=base.terms)
    found = merged(base, one, two)
    in_conflict = [n for c in found.conflicts for n in c.theirs]
    assert sorted([*found.free, *in_conflict]) == list(range(len(found.theirs)))


# --- what a change is -------------------------------------------------------------------------


def test_one_round_more_is_one_change_and_later_rounds_only_have_other_numbers() -> None:
    text = HEAD + "R10: 6 dec [6]\nClose.\n"
    grown = HEAD.replace("R9:", "R9: 18 hdc [18]\nR10:") + "R11: 6 dec [6]\nClose.\n"
    found = difference(with_head(figure(), text), with_head(figure(), grown)).changes
    assert [(c.kind, c.before, c.after) for c in found] == [(Kind.ROUNDS, [], ["R9: 18 hdc [18]"])]
    assert found[0].numbers


def test_a_longer_range_is_a_change_of_that_line_alone() -> None:
    found = difference(figure(), with_head(figure(), LONGER)).changes
    assert [(c.before, c.after, c.part) for c in found] == [(["R4-R8: 18 sc [18]"], ["R4-R10: 18 sc [18]"], "Head")]


def test_parts_of_designs_that_know_nothing_of_each_other_are_paired_by_name() -> None:
    here = figure()
    keys = {"head": "aaaa", "leg": "bbbb"}
    parts = tuple(replace(p, key=keys[p.key]) for p in here.parts)
    place = replace(here.joins[0].place, on="aaaa")  # type: ignore[type-var]
    joins = (replace(here.joins[0], key="zzzz", part="bbbb", host="aaaa", place=place),)
    steps = (replace(here.steps[0], part="bbbb", join="zzzz"), here.steps[1])
    eyes = replace(here.eyes, place=replace(here.eyes.place, on="aaaa"))  # type: ignore[type-var]
    marks = tuple(replace(m, place=replace(m.place, on="aaaa"), to=replace(m.to, on="aaaa")) for m in here.marks)  # type: ignore[type-var]
    there = replace(here, parts=parts, joins=joins, steps=steps, eyes=eyes, marks=marks)
    found = difference(here, there)
    assert {c.kind for c in found.changes} == {Kind.KEYS}, "only the names by which they are kept differ"
    assert applied(found, here) == there


def test_drafting_a_part_anew_is_one_change_of_its_shape() -> None:
    here = replace(figure(), parts=(replace(figure().parts[0], drafted=True), figure().parts[1]))
    there = with_head(here, LONGER)
    (found,) = difference(here, there).changes
    assert (found.kind, found.key) == (Kind.SHAPE, "head")
    assert applied(Difference("x", (found,)), here) == there


def test_of_yarns_with_one_name_the_list_changes_as_a_whole() -> None:
    here = figure()
    there = replace(here, yarns=(here.yarns[0], here.yarns[0]))
    found = difference(here, there)
    assert [(c.kind, c.page, c.key) for c in found.changes] == [(Kind.CHANGED, "yarns", "whole")]
    assert applied(found, here) == there


def test_a_difference_is_refused_by_another_base() -> None:
    found = difference(figure(), with_head(figure(), LONGER))
    with pytest.raises(CraftError, match="Head: it is not there as the difference found it"):
        applied(found, with_head(figure(), RIDGED))
    with pytest.raises(CraftError, match="made for another base"):
        applied(found, Design("Empty"))


def spoilt(**other: Any) -> str:
    data = to_json(difference(figure(), with_head(figure(), LONGER)))
    data["changes"][0] |= other
    return json.dumps(data)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("{", "no readable JSON"),
        ("[]", "no difference"),
        ('{"kind": "difference", "format": 9}', "newer Spirrel"),
        ('{"kind": "difference"}', "is no list"),
        ('{"kind": "difference", "changes": [3]}', r"changes\[0\]"),
        (spoilt(kind="magic"), "no such change"),
        (spoilt(page="cats"), "no 'cats'"),
        (spoilt(page=7), "page"),
        (spoilt(at="3"), "no whole number"),
        (spoilt(at=-1), "begin somewhere"),
        (spoilt(before="R4"), "given as text"),
        (spoilt(after=[4]), "given as text"),
        (spoilt(behind=4), "no text"),
        (spoilt(kind="shape"), "with its rounds"),
        (spoilt(kind="added", page="gauge"), "members of lists"),
    ],
)
def test_a_damaged_difference_is_a_sentence(text: str, said: str) -> None:
    with pytest.raises(CraftError, match=said):
        applied(read_difference(text), figure())


@pytest.mark.parametrize("field", [None, "cats"])
def test_a_field_that_no_member_has_is_refused(field: str | None) -> None:
    with pytest.raises(CraftError):
        applied(Difference("x", (Change(Kind.CHANGED, "parts", "head", field or "", None, 3),)), figure())


# --- three ways -------------------------------------------------------------------------------


def test_what_both_changed_in_different_rounds_comes_together() -> None:
    base = with_head(figure(), HEAD + "R10: 6 dec [6]\n")
    hers = with_head(base, base.parts[0].text.replace("R10: 6 dec [6]", "R10: 6 inv dec [6]"))
    grown = base.parts[0].text.replace("[12]\nR3:", "[12]\nR3: 12 sc [12]\nR4:", 1).replace("R4-R8", "R5-R9")
    new = with_head(base, grown.replace("R9: (", "R10: (").replace("R10: 6", "R11: 6"))
    found = merged(base, hers, new)
    assert not found.conflicts
    text = found.taking(found.free).parts[0].text
    assert "R3: 12 sc [12]\nR4: (sc, inc)" in text
    assert text.endswith("R11: 6 inv dec [6]\n"), "numbers follow what came in above"


def test_what_both_changed_in_one_line_is_a_conflict_and_she_has_the_word() -> None:
    base = figure()
    found = merged(base, with_head(base, LONGER), with_head(base, RIDGED))
    (conflict,) = found.conflicts
    assert (len(conflict.hers), len(conflict.theirs), found.free) == (1, 1, ())
    assert found.taking(()) == with_head(base, LONGER)
    assert found.taking(conflict.theirs) == with_head(base, RIDGED)


def test_a_conflict_leaves_the_rest_of_hers_alone() -> None:
    base = figure()
    hers = replace(with_head(base, LONGER), brief=replace(base.brief, intro="Mine."))
    new = replace(with_head(base, RIDGED), eyes=Eyes(base.eyes.kind, 10, base.eyes.place, 5))
    found = merged(base, hers, new)
    every = found.taking(range(len(found.theirs)))
    assert (every.brief.intro, every.eyes.mm, every.parts[0].text) == ("Mine.", 10, RIDGED)


def test_a_part_that_one_took_out_and_the_other_changed_is_a_conflict() -> None:
    base = figure()
    without = replace(base, parts=base.parts[1:])
    changed = with_head(base, LONGER)
    for hers, new in ((without, changed), (changed, without)):
        assert len(merged(base, hers, new).conflicts) == 1
    assert merged(base, changed, without).taking([0]).parts == base.parts[1:]


def test_the_same_change_on_both_sides_is_nothing_new() -> None:
    base = figure()
    assert not merged(base, with_head(base, LONGER), with_head(base, LONGER)).theirs


def test_a_base_in_other_terms_is_read_in_hers() -> None:
    base = with_head(figure(), HEAD)
    hers = replace(base, terms=Terms.UK, parts=tuple(replace(p, text=p.text.replace("sc", "dc")) for p in base.parts))
    found = merged(base, hers, with_head(base, LONGER))
    assert not found.conflicts
    assert found.taking(found.free).parts[0].text == LONGER.replace("sc", "dc")


def test_a_join_that_went_takes_its_step_s_word_for_it_along() -> None:
    base = figure()
    new = replace(base, joins=(), steps=base.steps[1:])
    hers = replace(base, steps=(replace(base.steps[0], text="Sew it on well."), base.steps[1]))
    found = merged(base, hers, new)
    joins = [n for n, c in enumerate(found.theirs) if c.page == "joins"]
    made = found.taking(joins)
    assert (made.joins, made.steps[0].join, made.steps[0].text) == ((), None, "Sew it on well.")


def test_what_was_added_on_both_sides_is_there_twice_over() -> None:
    base = figure()
    hat, tail = Part("hat", "Hat", HEAD), Part("tail", "Tail", HEAD)
    sewn = Join("j2", "tail", "head", Place("head", 3))
    hers = replace(base, parts=(*base.parts, hat))
    new = replace(base, parts=(*base.parts, tail), joins=(*base.joins, sewn))
    found = merged(base, hers, new)
    assert not found.conflicts
    assert {p.key for p in found.taking(found.free).parts} == {"head", "leg", "hat", "tail"}


def test_numbers_that_there_are_not_cannot_be_taken() -> None:
    with pytest.raises(CraftError, match="no such change"):
        merged(figure(), figure(), with_head(figure(), LONGER)).taking([4])
