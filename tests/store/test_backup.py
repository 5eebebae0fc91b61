"""Backups: read back, thinned by age, restored in one transaction, and whole after any kill."""

import os
import random
import shutil
import signal
import sqlite3
import time
from collections.abc import Callable
from contextlib import closing, suppress
from datetime import datetime, timedelta
from pathlib import Path

import pytest

from fenwa.core.errors import Conflict, NotFound
from fenwa.store import backup as backup_module
from fenwa.store.backup import Backups, check_whole, copy_of, photo_names, to_keep
from fenwa.store.backup_keeper import BackupKeeper
from fenwa.store.models import Place, Setting
from fenwa.store.session import Store

NOW = datetime(2026, 11, 23, 7, 0)
BENCH = {"Home", "Ansa bench"}
SCHEMAS = Path(__file__).parent / "schemas"


def place(store: Store, name: str) -> None:
    with store.writing() as session:
        session.add(Place(name=name))


def places(store: Store) -> set[str]:
    with store.reading() as session:
        return {p.name for p in session.query(Place)}


@pytest.fixture
def kept(store: Store) -> Backups:
    place(store, "Ansa bench")
    return Backups(store.path)


# which are kept


def test_a_year_of_daily_backups_leaves_seven_days_four_weeks_twelve_months() -> None:
    made = [NOW - timedelta(days=d) for d in range(500)]
    kept = sorted(to_keep(made), reverse=True)
    assert kept[:7] == made[:7]
    assert {at.strftime("%G-%V") for at in kept} >= {(NOW - timedelta(weeks=w)).strftime("%G-%V") for w in range(4)}
    assert len({at.strftime("%Y-%m") for at in kept}) == 12
    assert len(kept) <= 7 + 4 + 12
    assert min(kept) > NOW - timedelta(days=366)


def test_several_of_one_day_leave_the_newest_three_and_every_earlier_day() -> None:
    made = [NOW + timedelta(minutes=m) for m in range(0, 60, 10)] + [NOW - timedelta(days=1)]
    assert sorted(to_keep(made)) == sorted(
        [NOW - timedelta(days=1), *(NOW + timedelta(minutes=m) for m in (30, 40, 50))]
    )


@pytest.mark.parametrize("seed", range(5))
def test_thinning_again_takes_no_more_and_never_the_newest(seed: int) -> None:
    chance = random.Random(seed)
    made = [NOW - timedelta(hours=chance.randrange(20_000)) for _ in range(80)]
    once = to_keep(made)
    assert max(made) in once
    assert to_keep(sorted(once)) == once


# made and read back


def test_a_backup_holds_what_was_committed_and_only_its_owner_reads_it(store: Store, kept: Backups) -> None:
    made = kept.make("by-hand", NOW)
    path = kept.place(made.name)
    with closing(sqlite3.connect(path)) as copy, closing(sqlite3.connect(store.path)) as live:
        assert list(copy.iterdump()) == list(live.iterdump())
    assert (made.at, made.why) == (NOW, "by-hand")
    assert path.stat().st_mode & 0o077 == 0
    assert kept.folder.stat().st_mode & 0o077 == 0
    assert [p.name for p in kept.folder.iterdir()] == [made.name], "no companion and no half is left"


def test_a_writer_in_the_midst_is_not_waited_for_and_not_in_it(store: Store, kept: Backups) -> None:
    with store.writing() as session:
        session.add(Place(name="not committed"))
        session.flush()
        made = kept.make("daily", NOW)
    with closing(sqlite3.connect(kept.place(made.name))) as copy:
        assert {n for (n,) in copy.execute("SELECT name FROM place")} == BENCH


def test_old_ones_go_when_a_new_one_is_made_and_other_files_are_left(kept: Backups) -> None:
    first = kept.make("start", NOW)
    (kept.folder / "my own notes.sqlite").write_text("mine")
    for m in range(1, 5):
        kept.make("start", NOW + timedelta(minutes=m))
    assert len(kept.listed()) == 3
    assert first.name not in {b.name for b in kept.listed()}
    assert (kept.folder / "my own notes.sqlite").read_text() == "mine"


def test_a_half_left_by_a_stopped_machine_is_swept(kept: Backups) -> None:
    kept.make("start", NOW)
    lost, fresh = kept.folder / "a.1.half", kept.folder / "b.2.half"
    for half in (lost, fresh):
        half.write_bytes(b"half")
    os.utime(lost, (0, 0))
    kept.make("start", NOW + timedelta(minutes=1))
    assert (lost.exists(), fresh.exists()) == (False, True)


def test_a_full_disk_is_told_and_leaves_the_backups_there_are(kept: Backups, monkeypatch: pytest.MonkeyPatch) -> None:
    kept.make("start", NOW)
    usage = shutil.disk_usage(kept.folder)
    monkeypatch.setattr(backup_module.shutil, "disk_usage", lambda _: usage._replace(free=1000))
    with pytest.raises(Conflict, match=r"is full: no backup was made\. Free some space"):
        kept.make("daily", NOW + timedelta(days=1))
    assert "is full" in kept.problem
    monkeypatch.undo()
    kept.make("daily", NOW + timedelta(days=1))
    assert (kept.problem, len(kept.listed())) == ("", 2)


def test_a_folder_that_cannot_be_made_is_told_with_the_way_out(store: Store, tmp_path: Path) -> None:
    (tmp_path / "taken").write_text("a file")
    with pytest.raises(Conflict, match="--backups"):
        Backups(store.path, tmp_path / "taken").make("start", NOW)


def test_a_copy_that_does_not_read_back_is_not_kept(kept: Backups, monkeypatch: pytest.MonkeyPatch) -> None:
    def cut(source: Path, to: Path) -> dict[str, int]:
        rows = copy_of(source, to)
        to.write_bytes(to.read_bytes()[: to.stat().st_size // 2])
        return rows

    monkeypatch.setattr(backup_module, "copy_of", cut)
    with pytest.raises(Conflict):
        kept.make("start", NOW)
    assert list(kept.folder.iterdir()) == []


# by themselves


def test_one_at_the_start_then_one_a_day(store: Store, kept: Backups) -> None:
    at = [NOW]
    keeper = BackupKeeper(kept, lambda: at[0], every_s=3600, after_s=0.01)
    keeper.start()
    for _ in range(200):
        if kept.listed():
            break
        time.sleep(0.05)
    keeper.stop()
    assert [b.why for b in kept.listed()] == ["start"]
    at[0] += timedelta(hours=23)
    keeper.look()
    assert len(kept.listed()) == 1
    at[0] += timedelta(hours=1)
    keeper.look()
    assert [b.why for b in kept.listed()] == ["daily", "start"]


def test_a_server_stopped_at_once_leaves_no_half_backup(kept: Backups) -> None:
    keeper = BackupKeeper(kept, lambda: NOW, after_s=60)
    began = time.perf_counter()
    keeper.start()
    keeper.stop()
    assert time.perf_counter() - began < 10
    assert kept.listed() == []


def test_a_failed_one_is_tried_again_at_the_next_look(kept: Backups, monkeypatch: pytest.MonkeyPatch) -> None:
    keeper = BackupKeeper(kept, lambda: NOW)
    with monkeypatch.context() as full:
        full.setattr(backup_module.shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(1, 1, 0))  # type: ignore[attr-defined]
        keeper.look()
        assert "is full" in kept.problem
    keeper.look()
    assert [b.why for b in kept.listed()] == ["daily"]


# restored


def test_a_restore_turns_everything_back_and_keeps_what_stood_before(store: Store, kept: Backups) -> None:
    made = kept.make("start", NOW)
    place(store, "Cold house")
    with store.reading() as old_reader:
        assert old_reader.query(Place).count() == 3
    before = kept.restore(store, kept.place(made.name), NOW + timedelta(hours=1))
    assert places(store) == BENCH
    assert before.why == "before-restore"
    place(store, "Third")
    kept.restore(store, kept.place(before.name), NOW + timedelta(hours=2))
    assert places(store) == BENCH | {"Cold house"}
    assert {b.why for b in kept.listed()} == {"start", "before-restore"}


def test_who_may_come_in_is_not_turned_back(store: Store, kept: Backups) -> None:
    def settings(**rows: str) -> None:
        with store.writing() as session:
            for key, value in rows.items():
                session.merge(Setting(key=key.replace("_", "."), value=value))

    settings(lan_secret="old", house="A")
    made = kept.make("start", NOW)
    settings(lan_secret="new", lan_hash="h", house="B")
    kept.restore(store, kept.place(made.name), NOW)
    with store.reading() as session:
        kept_now = {s.key: s.value for s in session.query(Setting)}
    assert kept_now == {**kept_now, "lan.secret": "new", "lan.hash": "h", "house": "A"}


@pytest.mark.parametrize("revision", [p.stem for p in sorted(SCHEMAS.glob("*.sql"))])
def test_a_backup_of_an_older_schema_is_brought_to_the_present_one(
    store: Store, kept: Backups, tmp_path: Path, revision: str
) -> None:
    old = tmp_path / f"old-{revision}.sqlite"
    with closing(sqlite3.connect(old)) as c:
        c.executescript((SCHEMAS / f"{revision}.sql").read_text("utf-8"))
    before = old.read_bytes()
    kept.restore(store, old, NOW)
    assert places(store) != BENCH
    assert old.read_bytes() == before
    assert not list(kept.folder.glob("*.half*")), "no copy of the copy is left"
    with closing(sqlite3.connect(store.path)) as c:
        assert c.execute("PRAGMA integrity_check").fetchone() == ("ok",)


def test_what_cannot_be_restored_is_refused_and_changes_nothing(store: Store, kept: Backups, tmp_path: Path) -> None:
    made = kept.make("start", NOW)
    whole = kept.place(made.name).read_bytes()

    def refused(name: str, content: bytes, words: str) -> None:
        file = tmp_path / name
        file.write_bytes(content)
        with pytest.raises(Conflict, match=words):
            kept.restore(store, file, NOW)
        assert places(store) == BENCH
        assert [b.why for b in kept.listed()] == ["start"]
        assert not list(kept.folder.glob("*.half*"))

    refused("words.sqlite", b"not a database", "not a database of Fenwa")
    refused("empty.sqlite", b"", "holds no collection|damaged")
    refused("cut.sqlite", whole[: len(whole) // 2], "damaged")
    scratched = bytearray(whole)
    scratched[len(whole) // 2 : len(whole) // 2 + 8192] = b"\xa5" * 8192
    refused("scratched.sqlite", bytes(scratched), "damaged")
    newer = tmp_path / "n.sqlite"
    newer.write_bytes(whole)
    with closing(sqlite3.connect(newer)) as c:
        c.execute("UPDATE alembic_version SET version_num = '9999'")
        c.commit()
    refused("newer.sqlite", newer.read_bytes(), "newer Fenwa")


def test_only_names_of_backups_are_looked_up(kept: Backups) -> None:
    kept.make("start", NOW)
    for name in ("../fenwa.sqlite", "fenwa.sqlite", "fenwa-20261123T070000Z-start.sqlite/../x", ""):
        with pytest.raises(NotFound):
            kept.place(name)


def test_a_schema_before_photos_names_none(tmp_path: Path) -> None:
    with closing(sqlite3.connect(tmp_path / "old.sqlite")) as c:
        c.executescript((SCHEMAS / "0001.sql").read_text("utf-8"))
    assert photo_names(tmp_path / "old.sqlite") == []
    assert check_whole(tmp_path / "old.sqlite")


# killed


def killed(work: Callable[[], None], after_s: float) -> None:
    """Do ``work`` in a process of its own and kill it after a while, wherever it is."""
    child = os.fork()
    if child == 0:
        with suppress(BaseException):
            work()
        os._exit(0)
    time.sleep(after_s)
    with suppress(ProcessLookupError):
        os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)


def filled(path: Path, rows: int) -> None:
    with closing(sqlite3.connect(path)) as c:
        c.executemany("INSERT INTO setting (key, value) VALUES (?, ?)", [(f"k{i}", "x" * 200) for i in range(rows)])
        c.commit()


def test_fifty_kills_while_backing_up_leave_every_named_backup_whole(store: Store, kept: Backups) -> None:
    filled(store.path, 4000)
    began = time.perf_counter()
    kept.make("start", NOW)
    takes = time.perf_counter() - began
    chance = random.Random(17)
    for i in range(50):
        killed(
            lambda i=i: Backups(store.path).make("daily", NOW + timedelta(minutes=i + 1)), chance.random() * takes * 1.3
        )  # type: ignore[misc]
    made = kept.listed()
    assert made
    for b in made:
        assert check_whole(kept.place(b.name))["setting"] >= 4000
    assert check_whole(store.path)["place"] == 2
    kept.make("daily", NOW + timedelta(days=1))


def test_twenty_kills_while_restoring_leave_the_old_or_the_new(store: Store, kept: Backups) -> None:
    filled(store.path, 4000)
    made = kept.make("start", NOW)
    place(store, "Cold house")
    path = store.path
    store.close()
    chance = random.Random(18)

    def turn_back() -> None:
        own = Store(path)
        Backups(path).restore(own, kept.place(made.name), NOW + timedelta(minutes=1))
        own.close()

    began = time.perf_counter()
    turn_back()
    takes = time.perf_counter() - began
    for _ in range(20):
        again = Store(path)
        if "Cold house" not in places(again):
            place(again, "Cold house")
        again.close()
        killed(turn_back, chance.random() * takes * 1.2)
        check_whole(path)
        again = Store(path)
        assert places(again) in (BENCH, BENCH | {"Cold house"})
        again.close()
        assert all(check_whole(kept.place(b.name)) for b in kept.listed())
    turn_back()
    again = Store(path)
    assert places(again) == BENCH
    again.close()
