"""Credits and terms that add up."""

from __future__ import annotations

from typing import Any

import pytest

from craft.design.design import Design, Printed, Source
from craft.design.permissions import Permissions, Selling
from craft.design.remix import credits_of

# --- credits -------------------------------------------------------------------------------------


def made_of(*sources: Source, permissions: str = "") -> Design:
    return Design("Mix", sources=sources, printed=Printed(permissions=permissions))


def source(title: str, *, parts: tuple[str, ...] = (), **allowed: Any) -> Source:
    return Source(title, f"{title}'s designer", "1.0", permissions=Permissions(**allowed), parts=parts)


def test_sources_add_up_each_once() -> None:
    found = credits_of(made_of(source("Ear", parts=("Ear",)), source("Ear", parts=("Ear 2",)), source("Hat")))
    assert [(s.title, s.parts) for s in found.sources] == [("Ear", ("Ear", "Ear 2")), ("Hat", ())]
    assert found.lines[0] == "Ear and Ear 2 worked from Ear, version 1.0, by Ear's designer."


def test_a_designer_s_own_line_of_credit_is_printed_as_it_is() -> None:
    assert credits_of(made_of(source("Ear", credit="Ears by the sea."))).lines == ("Ears by the sea.",)


@pytest.mark.parametrize(
    ("sources", "permissions", "said"),
    [
        (
            [source("A", selling=Selling.NO)],
            "You may sell what you make.",
            "A, version 1.0, by A's designer forbids it",
        ),
        ([source("A", selling=Selling.ASK)], "You may sell what you make.", "wants to be asked first"),
        ([source("A", selling=Selling.NO), source("B", selling=Selling.YES, alike=True)], "", "forbids it"),
        ([source("A", alike=True), source("B", alike=True, rounds=True)], "", "which differ"),
    ],
)
def test_terms_that_do_not_go_together_are_told_with_what_causes_them(
    sources: list[Source], permissions: str, said: str
) -> None:
    found = credits_of(made_of(*sources, permissions=permissions))
    assert any(said in c for c in found.conflicts), found.conflicts


def test_terms_that_go_together_are_quiet() -> None:
    found = credits_of(
        made_of(source("A", rounds=True), source("B", rounds=True), permissions="You may sell what you make.")
    )
    assert (found.conflicts, found.blocked, found.private) == ((), (), ())


@pytest.mark.parametrize(
    ("one", "blocked", "private"),
    [
        (source("A", change=False), "may not be changed", "may not be changed"),
        (source("A"), "publish yours as a difference", None),
        (source("A", difference=False), "may not be published again", "changes to it may not be published"),
        (Source("A"), "its terms are not known", None),
        (Source("A", own=True), None, None),
        (source("A", rounds=True), None, None),
    ],
)
def test_what_blocks_a_release(one: Source, blocked: str | None, private: str | None) -> None:
    found = credits_of(made_of(one))
    assert (blocked is None) == (found.blocked == ())
    assert (private is None) == (found.private == ())
    assert blocked is None or blocked in found.blocked[0]
    assert private is None or private in found.private[0]


def test_permissions_are_said_in_words() -> None:
    said = " ".join(
        Permissions(change=False, selling=Selling.NO, difference=False, alike=True, words="Ask me.").sentences
    )
    for words in (
        "not be changed",
        "may not be sold",
        "not be published again",
        "Changes to it",
        "same terms",
        "Ask me.",
    ):
        assert words in said
