"""An entry goes first: readers stand aside while one is handled, not for long, and never for their own."""

from __future__ import annotations

import time
from collections.abc import Iterator
from concurrent.futures import Future, ThreadPoolExecutor, wait
from contextvars import copy_context
from datetime import date, timedelta

import pytest
from sqlalchemy import text

from fenwa.core.pace import AT_A_TIME, between_steps, step_done
from fenwa.core.pot.fold import fold
from fenwa.core.pot.specification import Medium, PotSpec, WaterEvent
from fenwa.store import giving_way
from fenwa.store.giving_way import InTurns, entry, give_way
from fenwa.store.session import Store

LONG_s = 60.0  # longer than any test waits
ENDS_s = 30.0


@pytest.fixture
def elsewhere() -> Iterator[ThreadPoolExecutor]:
    """Another thread, that has stood aside for nobody yet."""
    with ThreadPoolExecutor(1) as thread:
        yield thread


@pytest.fixture
def patient(monkeypatch: pytest.MonkeyPatch) -> None:
    """Readers that stand aside for as long as an entry takes."""
    monkeypatch.setattr(giving_way, "PATIENCE_s", LONG_s)
    monkeypatch.setattr(giving_way, "MOST_s", LONG_s)


def waits(reader: Future[object]) -> bool:
    return not wait([reader], timeout=0.2).done


@pytest.mark.usefixtures("patient")
def test_a_reader_goes_on_when_the_entry_is_in(elsewhere: ThreadPoolExecutor) -> None:
    elsewhere.submit(give_way).result(timeout=ENDS_s)  # nothing is entered
    with entry():
        reader = elsewhere.submit(give_way)
        assert waits(reader)
    reader.result(timeout=ENDS_s)


@pytest.mark.usefixtures("patient")
def test_an_entry_does_not_wait_for_itself_nor_do_the_threads_it_asks(elsewhere: ThreadPoolExecutor) -> None:
    with entry():
        give_way()
        elsewhere.submit(copy_context().run, give_way).result(timeout=ENDS_s)
        with entry():
            give_way()
        reader = elsewhere.submit(give_way)
        assert waits(reader), "an inner one ended, the outer did not"
    reader.result(timeout=ENDS_s)


@pytest.mark.usefixtures("patient")
def test_of_two_entries_the_last_one_lets_readers_go(elsewhere: ThreadPoolExecutor) -> None:
    first, second = entry(), entry()
    with ThreadPoolExecutor(1) as other:
        other.submit(first.__enter__).result(timeout=ENDS_s)
        with second:
            reader = elsewhere.submit(give_way)
        assert waits(reader)
        other.submit(first.__exit__, None, None, None).result(timeout=ENDS_s)
    reader.result(timeout=ENDS_s)


def test_no_reader_waits_for_a_long_entry_to_end(elsewhere: ThreadPoolExecutor) -> None:
    with entry():
        elsewhere.submit(give_way).result(timeout=ENDS_s)
        assert elsewhere.submit(give_way).result(timeout=ENDS_s) is None


def test_a_machine_that_was_just_started_lets_entries_go_first(
    elsewhere: ThreadPoolExecutor, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(giving_way.time, "monotonic", lambda: 0.5)  # seconds since it was switched on
    monkeypatch.setattr(giving_way, "PATIENCE_s", LONG_s)
    monkeypatch.setattr(giving_way, "MOST_s", LONG_s)
    with entry():
        reader = elsewhere.submit(give_way)
        assert waits(reader)
    reader.result(timeout=ENDS_s)


def test_where_entry_follows_entry_pages_go_on(elsewhere: ThreadPoolExecutor, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(giving_way, "PATIENCE_s", LONG_s)
    monkeypatch.setattr(giving_way, "MOST_s", 0.2)
    monkeypatch.setattr(giving_way, "IN_s", LONG_s)

    def hundred_times() -> float:
        begun = time.monotonic()
        for _ in range(100):
            give_way()
        return time.monotonic() - begun

    with entry():  # it never ends, and is always new
        assert elsewhere.submit(hundred_times).result(timeout=ENDS_s) >= 0.2  # not a hundred times as long


@pytest.mark.usefixtures("patient")
def test_what_is_read_of_the_database_stands_aside(store: Store, elsewhere: ThreadPoolExecutor) -> None:
    def read() -> object:
        with store.reading() as session:
            return session.execute(text("SELECT 1")).scalar()

    with entry():
        assert read() == 1  # what an entry reads itself
        reader = elsewhere.submit(read)
        assert waits(reader)
    assert reader.result(timeout=ENDS_s) == 1


@pytest.mark.usefixtures("patient")
def test_a_write_of_any_thread_is_an_entry(store: Store, elsewhere: ThreadPoolExecutor) -> None:
    with store.writing():
        reader = elsewhere.submit(give_way)
        assert waits(reader)
    reader.result(timeout=ENDS_s)


def test_many_are_gone_through_whole_and_in_order() -> None:
    done: list[int] = []
    between_steps(lambda: done.append(1))
    try:
        many = InTurns(range(3 * AT_A_TIME + 1))
        assert [*iter(many)] == [*range(3 * AT_A_TIME + 1)]
        assert sum(done) >= 4
        assert [*InTurns[int]()] == []
        assert sorted(InTurns([3, 1, 2])) == [1, 2, 3]
        assert many[-1] == 3 * AT_A_TIME
    finally:
        between_steps(give_way)


def test_a_fold_says_when_a_step_is_done_and_is_the_same_for_it() -> None:
    day, pot = date(2026, 11, 23), PotSpec(1.0, Medium(0.33, 0.45, 0.7, 0.55, 1.1, "bark mix"), 0.25, 0.05)
    events = [WaterEvent(day - timedelta(days=6 * n), 0.16, 300.0 + n) for n in range(20, 0, -1)]
    plain = fold(pot, events, day)
    done: list[int] = []
    between_steps(lambda: done.append(1))
    try:
        paced = fold(pot, events, day)
        step_done()
    finally:
        between_steps(give_way)
    assert len(done) > len(events)
    assert paced.points == plain.points
