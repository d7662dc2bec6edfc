"""The words of the one command: groups of checks, words for pytest, and what is not understood."""

from __future__ import annotations

import pytest

from launch import checks, main


@pytest.fixture
def asked(monkeypatch: pytest.MonkeyPatch) -> list[tuple[list[str], list[str]]]:
    """What the checks were asked to run."""
    seen: list[tuple[list[str], list[str]]] = []
    monkeypatch.setattr(checks, "in_own_var", lambda work: work())
    monkeypatch.setattr(checks, "run", lambda groups, more: seen.append((list(groups), list(more))) or 0)
    return seen


@pytest.mark.parametrize(
    ("words", "groups", "more"),
    [
        ("test", [], []),
        ("test craft studio", ["craft", "studio"], []),
        ("test studio -- -k undo -x", ["studio"], ["-k", "undo", "-x"]),
        ("test -- -x", [], ["-x"]),
    ],
)
def test_words_behind_two_dashes_go_to_pytest(
    asked: list[tuple[list[str], list[str]]], words: str, groups: list[str], more: list[str]
) -> None:
    assert main.main(words.split()) == 0
    assert asked == [(groups, more)]


@pytest.mark.parametrize("words", ["up --nose", "down -- -x", "test --nose", "backup a b"])
def test_what_is_not_understood_is_one_sentence(capsys: pytest.CaptureFixture[str], words: str) -> None:
    assert main.main(words.split()) == 2
    assert "is not understood" in capsys.readouterr().err


def test_a_group_that_is_none_is_named(capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(checks, "in_own_var", lambda work: work())
    assert main.main(["test", "attic"]) == 2
    assert "there is no group 'attic'" in capsys.readouterr().err
