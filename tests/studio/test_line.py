"""The line: designers take turns, short work goes before long, nobody fills it."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.utils import timezone
from django_tasks_db.models import DBTaskResult
from hypothesis import given
from hypothesis import strategies as st

from studio.errors import Refusal
from studio.jobs import actions, kinds, line
from studio.jobs.line import Waiting, in_turn
from studio.jobs.models import Job, Line, State
from studio.jobs.working import work_next
from tests.studio.at_once import at_once
from tests.studio.conftest import Studio

DATABASE = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "ENQUEUE_ON_COMMIT": True}}


@pytest.fixture(autouse=True)
def echo(monkeypatch: pytest.MonkeyPatch) -> None:
    """Two kinds: what is short, and what is long."""
    monkeypatch.setattr(kinds, "_KINDS", dict(kinds._KINDS))
    kinds.register("echo", lambda q, w: q.encode(), version=1)
    kinds.register("slow", lambda q, w: q.encode(), version=1, long=True)


@pytest.fixture
def waiting_line(settings: Any) -> None:
    """Jobs wait: nobody works them out by itself."""
    settings.TASKS = DATABASE


def test_one_who_asks_for_much_waits_for_one_who_asks_for_little() -> None:
    hundred = [Waiting(n, owner=1, long=False) for n in range(100)]
    order = in_turn([*hundred, Waiting(100, owner=2, long=False)], [], {})
    assert order[:3] == [0, 100, 1]


def test_what_runs_already_was_a_turn() -> None:
    both = [Waiting(1, 1, False), Waiting(2, 1, False), Waiting(3, 2, False)]
    assert in_turn(both, [1, 1], {})[0] == 3


def test_whoever_was_served_longest_ago_is_first() -> None:
    now = datetime.now(UTC)
    both = [Waiting(1, 1, False), Waiting(2, 2, False)]
    assert in_turn(both, [], {1: now, 2: now - timedelta(minutes=1)}) == [2, 1]


def test_short_goes_before_long_whoever_asks() -> None:
    assert in_turn([Waiting(1, 1, True), Waiting(2, 1, False), Waiting(3, 2, False)], [], {}) == [2, 3, 1]


@given(st.lists(st.tuples(st.integers(1, 4), st.booleans()), max_size=40), st.lists(st.integers(1, 4), max_size=4))
def test_nobody_is_passed_over_twice(asked: list[tuple[int, bool]], at_work: list[int]) -> None:
    """Before a job of one owner are, of any other owner, at most as many as of her own, and one."""
    waiting = [Waiting(n, owner, long) for n, (owner, long) in enumerate(asked)]
    order = in_turn(waiting, at_work, {})
    assert sorted(order) == [w.job for w in waiting], "each once"
    owner_of = {w.job: w.owner for w in waiting}
    for at, job in enumerate(order):
        before = [owner_of[j] for j in order[:at]]
        mine = before.count(owner_of[job]) + at_work.count(owner_of[job])
        for other in {1, 2, 3, 4} - {owner_of[job]}:
            assert before.count(other) == 0 or before.count(other) + at_work.count(other) <= mine + 1


@pytest.mark.django_db(transaction=True)
def test_workers_take_turns_between_designers(waiting_line: None, user: User, other: Studio) -> None:
    stranger = User.objects.exclude(pk=user.pk).get()
    for n in range(4):
        actions.ask(user, "echo", f"hers {n}")
    late = actions.ask(stranger, "echo", "his")
    assert line.ahead(late) == 1
    work_next()
    work_next()
    late.refresh_from_db()
    assert late.state == State.DONE
    assert line.ahead(late) is None, "it waits no more"
    assert Job.objects.filter(owner=user, state=State.DONE).count() == 1


@pytest.mark.django_db(transaction=True)
def test_long_work_leaves_a_worker_to_short(waiting_line: None, user: User) -> None:
    slow = [actions.ask(user, "slow", str(n)) for n in range(2)]
    taken = line.take()
    assert taken is not None
    assert taken.pk == slow[0].pk
    assert line.take() is None, "one runs: the other waits, though a worker is free"
    quick = actions.ask(user, "echo", "q")
    got = line.take()
    assert got is not None
    assert got.pk == quick.pk


@pytest.mark.django_db(transaction=True)
def test_long_work_that_was_held_back_gets_another_ticket(waiting_line: None, user: User) -> None:
    """A ticket that found only work that had to wait is gone; the end of what held it back draws another."""
    first, second = (actions.ask(user, "slow", str(n)) for n in range(2))
    assert work_next() is True
    second.refresh_from_db()
    assert (second.state, DBTaskResult.objects.count()) == (State.WAITING, 2)
    assert first.pk != second.pk


@pytest.mark.django_db(transaction=True)
def test_nobody_fills_the_line(waiting_line: None, user: User, other: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(actions, "MOST_WAITING", 3)
    for n in range(3):
        actions.ask(user, "echo", str(n))
    with pytest.raises(Refusal, match="3 of your figures wait"):
        actions.ask(user, "echo", "one more")
    assert actions.ask(user, "echo", "1").state == State.WAITING, "what stands in line already may be asked for again"
    actions.ask(User.objects.exclude(pk=user.pk).get(), "echo", "another's line is her own")
    monkeypatch.setattr(actions, "MOST_WAITING_BYTES", 20)
    monkeypatch.setattr(actions, "MOST_WAITING", 100)
    with pytest.raises(Refusal) as refused:
        actions.ask(user, "echo", "x" * 20)
    assert refused.value.status == 429


@pytest.mark.django_db(transaction=True)
def test_the_screen_is_told_the_place_in_line(waiting_line: None, studio: Studio, user: User) -> None:
    jobs = [actions.ask(user, "echo", str(n)) for n in range(3)]
    assert [studio.ask("GET", f"/jobs/{job.pk}")["ahead"] for job in jobs] == [0, 1, 2]


@pytest.mark.django_db(transaction=True)
def test_work_of_a_kind_that_is_gone_does_not_stop_the_line(waiting_line: None, user: User) -> None:
    gone = Job.objects.create(owner=user, key="k", kind="of old", question="", begun=timezone.now())
    after = actions.ask(user, "echo", "q")
    while work_next() or Job.objects.filter(state=State.WAITING).exists():
        pass
    gone.refresh_from_db()
    after.refresh_from_db()
    assert (gone.state, after.state) == (State.FAILED, State.DONE)


@pytest.mark.django_db(transaction=True)
def test_workers_that_come_at_once_to_a_new_line_take_a_job_each(waiting_line: None, user: User) -> None:
    """Nobody has made the row that is held before, and nobody waits for another for ever over it."""
    for turn in range(3):
        Line.objects.all().delete()
        jobs = {actions.ask(user, "echo", f"{turn} {n}").pk for n in range(4)}
        taken = at_once(4, lambda _: line.take())
        assert {job.pk for job in taken if job is not None} == jobs


@pytest.mark.django_db(transaction=True)
def test_a_ticket_that_was_lost_is_drawn_again(waiting_line: None, user: User) -> None:
    jobs = [actions.ask(user, "echo", str(n)) for n in range(3)]
    DBTaskResult.objects.all().delete()
    assert actions.resume() == 0, "they do not wait long yet"
    Job.objects.update(heartbeat=timezone.now() - actions.LOST_IN_LINE - timedelta(seconds=1))
    assert [actions.resume() for _ in range(4)] == [1, 1, 1, 0], "one at each look"
    assert DBTaskResult.objects.count() == len(jobs)


@pytest.mark.django_db(transaction=True)
def test_windows_that_ask_the_same_at_once_have_one_job_and_none_is_sent_away(waiting_line: None, user: User) -> None:
    """A page that is loaded again asks what the one before asked, and so does every window beside it."""
    for turn in range(10):
        asked = at_once(6, lambda _, question=str(turn): actions.ask(user, "echo", question).pk)  # type: ignore[misc]
        assert len(set(asked)) == 1
    assert Job.objects.count() == DBTaskResult.objects.count() == 10, "and a ticket each"
