"""Heavy work passes a few at a time, and never takes every thread."""

from __future__ import annotations

from threading import Event, Thread

import pytest

from studio.errors import Refusal, problem
from studio.gates import Gate


def test_one_passes_one_waits_and_the_third_is_told_to_come_again() -> None:
    gate = Gate(at_once=1, in_line=1, work="drawing")
    inside, go = Event(), Event()
    passed: list[str] = []

    def first() -> None:
        with gate.passed():
            inside.set()
            go.wait(10)
            passed.append("first")

    def second() -> None:
        with gate.passed():
            passed.append("second")

    one, two = Thread(target=first), Thread(target=second)
    one.start()
    assert inside.wait(10)
    two.start()
    while gate._places._value:  # the second has found its place in line
        pass
    with pytest.raises(Refusal, match="Many are drawing just now") as refused, gate.passed():
        passed.append("third")
    go.set()
    one.join(10)
    two.join(10)
    assert passed == ["first", "second"]
    assert refused.value.status == 503
    with gate.passed():
        passed.append("fourth")
    assert passed[-1] == "fourth", "places are given back"


def test_the_answer_says_when_to_come_again() -> None:
    response = problem(503, "busy", "Later.", retry_after=2)
    assert response["Retry-After"] == "2"
