"""What a write takes back of what readers keep: the tables it wrote, all of them, and no others."""

from __future__ import annotations

import threading
from datetime import date
from pathlib import Path

import pytest
from sqlalchemy import delete, insert, select, text, update
from sqlalchemy.orm import Session

from fenwa.store.base import Base
from fenwa.store.collection import pots_as_read, pots_today
from fenwa.store.memory import EVERYTHING, Changed, remembered, rests_on, tables_named, tables_written, undisturbed
from fenwa.store.models import PotStanding, Reading, Setting, Water
from fenwa.store.session import Store
from fenwa.store.water_state import waters_today
from tests.conftest import TODAY, Client, pot, pour

EVERY = frozenset(Base.metadata.tables)
STANDING = PotStanding.__tablename__


@pytest.mark.parametrize(
    ("statement", "tables"),
    [
        ("INSERT INTO pour (id) VALUES (?)", {"pour", STANDING}),
        ('insert into "water" (id) values (?)', {"water", STANDING}),
        ("INSERT OR REPLACE INTO setting (key, value) VALUES (?, ?)", {"setting", STANDING}),
        ("REPLACE INTO setting VALUES (?, ?)", {"setting", STANDING}),
        ("UPDATE batch SET volume_L=? WHERE batch.id = ?", {"batch", STANDING}),
        ("UPDATE OR IGNORE batch SET volume_L=?", {"batch", STANDING}),
        ("\n  DELETE FROM look WHERE look.id = ?", {"look", STANDING}),
        ("SELECT pour.id FROM pour", set()),
        ("BEGIN IMMEDIATE", set()),
        ("SAVEPOINT sa_savepoint_1", set()),
        ("PRAGMA foreign_keys=ON", set()),
    ],
)
def test_a_statement_tells_what_it_writes(statement: str, tables: set[str]) -> None:
    assert tables_written(statement) == tables


@pytest.mark.parametrize(
    "statement", ["WITH gone AS (SELECT 1) DELETE FROM pour", "ALTER TABLE pour ADD x", "VACUUM", "MERGE INTO pour", ""]
)
def test_what_cannot_be_told_takes_everything_back(statement: str) -> None:
    assert tables_written(statement) == EVERY


def test_a_statement_tells_what_it_reads() -> None:
    assert tables_named('SELECT * FROM pour JOIN "water" ON pour.water_id = water.id') == {"pour", "water"}
    assert tables_named("SELECT count(*) FROM (SELECT id FROM look)") == {"look"}
    assert tables_named("SELECT waters.id FROM waters_seen AS waters") == frozenset()


def test_all_statements_of_the_orm_are_told(tmp_path: Path) -> None:
    store = Store(tmp_path / "told.sqlite")
    with store.writing() as session:
        session.add(Water(id=1, name="Rain", kind="rain"))
        session.flush()
        assert store.changed.touched == {"water", STANDING}
        session.execute(insert(Setting), [{"key": "a", "value": 1}, {"key": "b", "value": 2}])
        session.execute(update(Reading).values(note="x"))
        session.execute(delete(Reading))
        session.execute(text("DELETE FROM look"))
        assert store.changed.touched == {"water", "setting", "reading", "look", STANDING}
    assert store.changed.touched == set()
    assert {t for t, n in store.changed.tables.items() if n == 1} == {
        "water",
        "setting",
        "reading",
        "look",
        STANDING,
        EVERYTHING,
    }
    store.close()


class Counted:
    """A value that is made again each time it was taken back."""

    def __init__(self, store: Store) -> None:
        self.store, self.made = store, 0

    def names(self, stamp: object = None) -> list[str]:
        def make(session: Session) -> list[str]:
            self.made += 1
            return list(session.scalars(select(Water.name).order_by(Water.id)))

        with self.store.reading() as session:
            return remembered(session, "names", stamp, make)

    def nested(self) -> int:
        def make(session: Session) -> int:
            self.made += 100
            return len(remembered(session, "names", None, lambda s: list(s.scalars(select(Water.name)))))

        with self.store.reading() as session:
            return remembered(session, "nested", None, make)


@pytest.fixture
def bare(tmp_path: Path) -> Store:
    made = Store(tmp_path / "memory.sqlite")
    with made.writing() as session:
        session.add(Water(id=1, name="Rain", kind="rain"))
    return made


def _write(bare: Store, row: object) -> None:
    with bare.writing() as session:
        session.add(row)


def test_only_a_write_to_a_table_that_was_read_takes_a_value_back(bare: Store) -> None:
    c = Counted(bare)
    assert [c.names() for _ in range(3)] == [["Rain"]] * 3
    _write(bare, Setting(key="x", value=1))
    assert (c.names(), c.made) == (["Rain"], 1)
    _write(bare, Water(id=2, name="Tap", kind="tap"))
    assert (c.names(), c.made) == (["Rain", "Tap"], 2)
    assert (c.names("another day"), c.made) == (["Rain", "Tap"], 3), "whatever else it rests on"
    bare.changed.note(set(), whole=True)
    assert (c.names("another day"), c.made) == (["Rain", "Tap"], 4), "all was replaced"


def test_a_value_made_of_another_rests_on_what_that_one_read_even_where_it_was_kept(bare: Store) -> None:
    c = Counted(bare)
    c.names()
    assert (c.nested(), c.made) == (1, 101), "the inner value was kept: nothing was read to make the outer one"
    _write(bare, Water(id=2, name="Tap", kind="tap"))
    assert c.nested() == 2


def test_a_value_can_say_that_it_rests_on_everything(bare: Store) -> None:
    made = []

    def make(_session: Session) -> int:
        rests_on({EVERYTHING})
        made.append(1)
        return len(made)

    def asked() -> int:
        with bare.reading() as session:
            return remembered(session, "all", None, make)

    assert [asked(), asked()] == [1, 1]
    _write(bare, Setting(key="y", value=1))
    assert asked() == 2
    rests_on({"pour"})  # outside of the making of a value nobody listens


def test_an_older_reader_is_given_what_a_newer_one_found_and_never_hides_it(bare: Store) -> None:
    c = Counted(bare)
    with bare.reading() as early:
        _write(bare, Water(id=2, name="Tap", kind="tap"))
        assert c.names() == ["Rain", "Tap"]
        assert remembered(early, "names", None, lambda s: ["never made"]) == ["Rain", "Tap"]
    assert (c.names(), c.made) == (["Rain", "Tap"], 1)


def test_a_value_made_while_a_write_commits_is_made_again(bare: Store) -> None:
    """The marks are taken before the snapshot: what was read before a commit cannot pass for what is after it."""
    c, began, go_on = Counted(bare), threading.Event(), threading.Event()

    def slow(session: Session) -> list[str]:
        found = list(session.scalars(select(Water.name)))
        began.set()
        go_on.wait(20)
        return found

    def read() -> None:
        with bare.reading() as session:
            remembered(session, "names", None, slow)

    reader = threading.Thread(target=read)
    reader.start()
    assert began.wait(20)
    _write(bare, Water(id=2, name="Tap", kind="tap"))
    go_on.set()
    reader.join()
    assert c.names() == ["Rain", "Tap"]


def test_a_write_uses_what_readers_keep_until_it_has_written_there_itself(bare: Store) -> None:
    def names(session: Session) -> list[str]:
        return remembered(session, "names", None, lambda s: list(s.scalars(select(Water.name))), also_writing=True)

    with bare.reading() as session:
        kept = names(session)
    with bare.writing() as session:
        assert names(session) is kept
        assert undisturbed(session) is bare
        session.add(Water(id=2, name="Tap", kind="tap"))  # not yet sent to the database
        assert undisturbed(session) is None
        assert names(session) == ["Rain", "Tap"]
    with bare.writing() as session:
        assert names(session) == ["Rain", "Tap"], "readers keep the old one, which does not hold"
        assert remembered(session, "names", None, lambda s: ["of its own"]) == ["of its own"]


def test_a_write_uses_what_readers_keep_of_tables_it_has_not_written(bare: Store) -> None:
    def everything(s: Session) -> list[str]:
        rests_on({EVERYTHING})
        return list(s.scalars(select(Water.name)))

    def both(session: Session) -> tuple[list[str], list[str]]:
        names = remembered(session, "names", None, lambda s: list(s.scalars(select(Water.name))), also_writing=True)
        return names, remembered(session, "all", None, everything, also_writing=True)

    with bare.reading() as session:
        names, rested = both(session)
    with bare.writing() as session:
        session.add(Setting(key="x", value=1))
        now = both(session)
        assert now[0] is names
        assert now[1] is not rested, "it rests on whatever is written"
        session.execute(update(Water).values(name="Well"))
        assert both(session) == (["Well"], ["Well"])


def test_pots_written_are_told_by_a_count_of_writes() -> None:
    changed = Changed()
    changed.note({1, 2})
    mark = changed.writes
    assert changed.pots_since(mark) == set()
    changed.note({2, 5})
    changed.note(set())
    assert changed.pots_since(mark) == {2, 5}
    assert changed.pots_since(0) == {1, 2, 5}
    assert changed.pots_since(changed.writes) == set()
    changed.note({7}, every=True)
    assert changed.pots_since(mark) is None, "what rules all of them was written"
    assert changed.pots_since(changed.writes) == set()


def test_a_pour_looks_at_the_pot_as_it_is_whatever_readers_keep(kept: Client) -> None:
    other = kept.made("/api/pots", pot(code="M-02"))["id"]
    kept.get("/api/pots")

    def seen(session: Session, pot_id: int) -> date | None:
        (p,) = pots_as_read(session, TODAY, {pot_id})
        return p.day.last_pour_on

    with kept.store.reading() as session:
        known = {p.id: p for p in pots_today(session, TODAY)}
    with kept.store.writing() as session:
        (again,) = pots_as_read(session, TODAY, {1})
        assert again is known[1], "as readers keep it"
    kept.made("/api/pours", pour())
    with kept.store.writing() as session:
        assert seen(session, 1) == date(2026, 11, 22), "poured since, and no page was asked"
        (untouched,) = pots_as_read(session, TODAY, {other})
        assert untouched is known[other]
        session.add(Setting(key="z", value=1))
        (own,) = pots_as_read(session, TODAY, {other})
        assert own is not known[other], "a write that has written reads its own"
    with kept.store.writing() as session:
        (tomorrow,) = pots_as_read(session, date.fromordinal(TODAY.toordinal() + 1), {other})
        assert tomorrow.today > TODAY


def test_a_pour_changes_no_kept_water_but_the_litres_that_are_left(kept: Client) -> None:
    kept.made("/api/waters", {"name": "Barrel", "kind": "rain", "on_hand_L": "20"})

    def barrel() -> tuple[object, float | None]:
        with kept.store.reading() as session:
            (w,) = [w for w in waters_today(session, TODAY) if w.water.name == "Barrel"]
        return w.water, w.left_L

    row, left = barrel()
    assert left == 20.0
    water_id = row.id  # type: ignore[attr-defined]
    kept.made("/api/pours", pour(water_id=water_id, volume=1500, on=TODAY.isoformat()))
    again, now = barrel()
    assert again is row
    assert now == pytest.approx(18.5)
    kept.made(f"/api/waters/{water_id}/readings", {"on": TODAY.isoformat(), "value": 31, "unit": "µS/cm"})
    assert barrel()[0] is not row


def test_forty_readers_at_once_never_wait_for_each_other(bare: Store) -> None:
    """Each holds a connection while it makes a value by another, and that one by a third."""
    at_once = 40
    together = threading.Barrier(at_once, timeout=60)

    def inner(session: Session) -> int:
        together.wait()
        return len(session.scalars(select(Water.name)).all())

    found: list[int] = []

    def asked(n: int) -> None:
        with bare.reading() as session:
            session.scalars(select(Setting.key)).all()
            found.append(remembered(session, f"outer {n}", None, lambda s: remembered(s, f"inner {n}", None, inner)))

    readers = [threading.Thread(target=asked, args=(n,)) for n in range(at_once)]
    for reader in readers:
        reader.start()
    for reader in readers:
        reader.join(60)
    assert found == [1] * at_once
