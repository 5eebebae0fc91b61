"""A server tidies in a quiet moment: not while it is asked, not for little, and never so that a write is lost."""

from __future__ import annotations

import gc
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest

from fenwa.api import quiet
from fenwa.api.quiet import OLD, WHOLE_EVERY, WORTH_CARRYING, Tidying
from fenwa.store.engine import CARRIED_AT_pages
from fenwa.store.models import Setting
from fenwa.store.session import Store


class Asked:
    """A server that is asked, or not."""

    def __init__(self) -> None:
        self.requests, self.busy = 0, False


@pytest.fixture
def asked() -> Asked:
    return Asked()


@pytest.fixture
def tidying(store: Store, asked: Asked) -> Tidying:
    return Tidying(store, lambda: asked.requests, lambda: asked.busy)


@pytest.fixture(autouse=True)
def as_it_was() -> Iterator[None]:
    """The searches of this process as they were."""
    threshold, on = gc.get_threshold(), gc.isenabled()
    yield
    gc.unfreeze()
    gc.set_threshold(*threshold)
    (gc.enable if on else gc.disable)()


def rubbish_for_long(monkeypatch: pytest.MonkeyPatch) -> list[int]:
    """Searches of everything that are made from now on; there is always reason for one."""
    made: list[int] = []
    monkeypatch.setattr(gc, "get_count", lambda: (0, 0, OLD))
    monkeypatch.setattr(gc, "collect", lambda: made.append(1))
    return made


def write(store: Store, n: int) -> None:
    for k in range(n):
        with store.writing() as session:
            session.merge(Setting(key=f"k{k}", value="x" * 500))


def in_the_file(path: Path, copied_to: Path) -> int:
    """Settings in the file itself, the write-ahead log left out."""
    copied_to.write_bytes(path.read_bytes())
    with closing(sqlite3.connect(copied_to)) as c:
        (n,) = c.execute("SELECT count(*) FROM setting WHERE key LIKE 'k%'").fetchone()
        return int(n)


def test_it_searches_when_nobody_has_asked_between_two_looks(
    tidying: Tidying, asked: Asked, monkeypatch: pytest.MonkeyPatch
) -> None:
    made = rubbish_for_long(monkeypatch)
    tidying.look()
    assert made == [], "whether it is quiet is not known yet"
    asked.requests += 1
    tidying.look()
    assert made == [], "somebody asked meanwhile"
    asked.busy = True
    tidying.look()
    assert made == [], "and is not answered yet"
    asked.busy = False
    tidying.look()
    assert made == [1]


def test_little_is_left_alone(tidying: Tidying, monkeypatch: pytest.MonkeyPatch) -> None:
    made = rubbish_for_long(monkeypatch)
    monkeypatch.setattr(gc, "get_count", lambda: (600, 9, 9))
    for _ in range(3):
        tidying.look()
    assert made == []


def test_what_was_set_aside_is_searched_now_and_then(tidying: Tidying, monkeypatch: pytest.MonkeyPatch) -> None:
    rubbish_for_long(monkeypatch)
    taken_up: list[int] = []
    monkeypatch.setattr(gc, "unfreeze", lambda: taken_up.append(tidying.searches))
    for _ in range(1 + 2 * WHOLE_EVERY):
        tidying.look()
    assert taken_up == [WHOLE_EVERY, 2 * WHOLE_EVERY]


def test_rubbish_that_refers_to_itself_goes(tidying: Tidying, monkeypatch: pytest.MonkeyPatch) -> None:
    class Ring:
        gone = 0

        def __init__(self) -> None:
            self.me = self

        def __del__(self) -> None:
            Ring.gone += 1

    gc.disable()
    monkeypatch.setattr(gc, "get_count", lambda: (0, 0, OLD))
    Ring()
    assert Ring.gone == 0
    tidying.look()
    tidying.look()
    assert Ring.gone == 1
    assert gc.get_freeze_count() > 0


def test_started_it_looks_by_itself_and_python_searches_seldom(tidying: Tidying) -> None:
    tidying.start()
    try:
        assert gc.get_threshold()[2] == OLD
        assert gc.isenabled()
    finally:
        tidying.stop()


def test_files_of_photos_deleted_long_ago_go_once(
    store: Store, tidying: Tidying, monkeypatch: pytest.MonkeyPatch
) -> None:
    swept: list[Store] = []
    monkeypatch.setattr(quiet, "sweep_photos", swept.append)
    tidying.look()
    assert swept == []
    tidying.look()
    tidying.look()
    assert swept == [store]


def test_the_log_is_carried_over_and_every_write_is_there(
    store: Store, tidying: Tidying, asked: Asked, tmp_path: Path
) -> None:
    write(store, WORTH_CARRYING - 1)
    tidying.look()
    tidying.look()
    assert in_the_file(store.path, tmp_path / "copy") == 0, "few writes wait for more"
    write(store, WORTH_CARRYING)
    asked.requests += 1
    tidying.look()
    assert in_the_file(store.path, tmp_path / "copy") == 0
    tidying.look()
    assert in_the_file(store.path, tmp_path / "copy") == WORTH_CARRYING


def test_carrying_over_waits_for_no_reader_and_no_writer(store: Store, tmp_path: Path) -> None:
    write(store, 3)
    with store.reading() as reader, store.writing() as writer:
        assert reader.get(Setting, "k0") is not None
        writer.add(Setting(key="open", value="x"))
        writer.flush()
        store.carry_over()
    assert in_the_file(store.path, tmp_path / "copy") == 3
    with store.reading() as reader:
        assert reader.get(Setting, "open") is not None


def test_a_disk_that_cannot_take_it_is_told_to_the_log(
    store: Store, tidying: Tidying, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def full() -> None:
        raise sqlite3.OperationalError("database or disk is full")

    write(store, WORTH_CARRYING)
    monkeypatch.setattr(store, "carry_over", full)
    tidying.look()
    tidying.look()
    assert "could not be carried over: database or disk is full" in caplog.text


def test_no_write_carries_over_itself_before_the_log_is_long(store: Store) -> None:
    with store.reading() as session:
        (pages,) = session.connection().exec_driver_sql("PRAGMA wal_autocheckpoint").one()
    assert pages == CARRIED_AT_pages
