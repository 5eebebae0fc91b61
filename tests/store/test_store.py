"""The database file: pragmas, one transaction, migrations that keep every row."""

import re
import sqlite3
from contextlib import closing
from datetime import date
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import inspect, text
from sqlalchemy.exc import IntegrityError, OperationalError

from fenwa.core.errors import Conflict
from fenwa.demo.database import fill_if_stale
from fenwa.store import migrate
from fenwa.store.collection import pots_today, refresh_stale
from fenwa.store.models import Base, Event, Place, Pot, PotSummary, Pour
from fenwa.store.session import Store
from fenwa.store.water_state import waters_today
from tests.conftest import TODAY, Client, pour

TABLES = {
    "place",
    "pot",
    "plant",
    "growth",
    "leaf",
    "water",
    "reading",
    "meter",
    "product",
    "recipe",
    "recipe_version",
    "batch",
    "pour",
    "runoff",
    "look",
    "event",
    "decision",
}


def test_first_schema_separates_what_later_issues_need(store: Store) -> None:
    assert set(inspect(store.engine).get_table_names()) >= TABLES


def test_file_is_opened_safely(store: Store) -> None:
    with store.reading() as session:
        assert session.execute(text("PRAGMA journal_mode")).scalar() == "wal"
        assert session.execute(text("PRAGMA foreign_keys")).scalar() == 1
        session.add(Place(name="x"))
        with pytest.raises(OperationalError, match="readonly"):
            session.flush()


def test_a_write_is_one_transaction(store: Store) -> None:
    def half() -> None:
        with store.writing() as session:
            session.add(Place(name="kept?"))
            session.flush()
            raise RuntimeError("stop")

    with pytest.raises(RuntimeError, match="stop"):
        half()
    with store.reading() as session:
        assert session.query(Place).count() == 0


def test_rows_without_parent_are_refused(store: Store) -> None:
    def orphan() -> None:
        with store.writing() as session:
            session.add(Pot(code="P", name="", place_id=77, medium_id="peat", volume_L=1, interval_days=3))

    with pytest.raises(IntegrityError, match="FOREIGN KEY"):
        orphan()


def test_head_equals_models_and_the_newest_migration(store: Store) -> None:
    with store.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
    scripts = ScriptDirectory(str(migrate.MIGRATIONS))
    assert scripts.get_current_head() == migrate.HEAD
    assert {s.revision for s in scripts.walk_revisions()} == set(migrate.KNOWN)


def _laid_out(path: Path) -> dict[str, list[str]]:
    """How each table, index and trigger was made; a table's columns and constraints in no order."""
    with closing(sqlite3.connect(path)) as connection:
        made = connection.execute("SELECT name, sql FROM sqlite_master WHERE sql IS NOT NULL").fetchall()
    found = {}
    for name, sql in made:
        as_said = " ".join(sql.split()).replace('TABLE "', "TABLE ").replace('" (', " (", 1).replace("('')", "''")
        head, _, rest = as_said.partition("(")
        inner, _, tail = rest.rpartition(")")
        # a comma ends a column or a constraint where no parenthesis is open
        parts = re.findall(r"(?:[^,()]|\((?:[^()]|\([^()]*\))*\))+", inner)
        found[name] = [head.strip(), *sorted(part.strip() for part in parts), tail.strip()]
    return found


def test_a_new_database_is_laid_out_as_one_that_walked_through_every_migration(tmp_path: Path) -> None:
    new, walked = tmp_path / "new.sqlite", tmp_path / "walked.sqlite"
    migrate.to_revision(walked, migrate.KNOWN[-2])
    for path in (new, walked):
        Store(path).close()
    assert _laid_out(new) == _laid_out(walked)
    assert len(_laid_out(new)) > 100
    assert "CONSTRAINT fk_pot_place_id FOREIGN KEY(place_id) REFERENCES place (id)" in _laid_out(new)["pot"]


@pytest.mark.parametrize("revision", migrate.KNOWN[:-1])
def test_every_earlier_schema_reaches_head_with_its_rows(tmp_path: Path, revision: str) -> None:
    """From a dump of each released schema, with a row in every table."""
    path = tmp_path / "old.sqlite"
    old = sqlite3.connect(path)
    old.executescript((Path(__file__).parent / "schemas" / f"{revision}.sql").read_text("utf-8"))
    names = [n for (n,) in old.execute("SELECT name FROM sqlite_master WHERE type = 'table'") if n != "alembic_version"]

    def rows(connection: sqlite3.Connection) -> dict[str, list[dict[str, object]]]:
        connection.row_factory = sqlite3.Row
        return {n: [dict(r) for r in connection.execute(f'SELECT * FROM "{n}" ORDER BY rowid')] for n in names}

    before = rows(old)
    old.close()
    assert all(before.values()), "a table of the dump is empty"
    store = Store(path)
    assert migrate.current(store.engine) == migrate.HEAD
    with store.reading() as session:
        assert session.execute(text("PRAGMA foreign_key_check")).fetchall() == []
        assert len(waters_today(session, TODAY)) == 2
    with store.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
    store.close()
    new = sqlite3.connect(path)
    after = rows(new)
    new.close()
    for name, kept in before.items():
        assert [{k: r[k] for k in kept[0]} for r in after[name]] == kept, name
    copy = sqlite3.connect(path.with_suffix(f".before-{migrate.HEAD}.sqlite"))
    assert rows(copy) == before
    copy.close()


def test_the_copy_holds_what_is_still_in_the_write_ahead_log(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite"
    writer = sqlite3.connect(path)
    writer.executescript("PRAGMA journal_mode=WAL; CREATE TABLE t (x); INSERT INTO t VALUES (7);")
    assert path.with_suffix(".sqlite-wal").stat().st_size > 0
    migrate._copy(path, tmp_path / "copy.sqlite")
    writer.close()
    copy = sqlite3.connect(tmp_path / "copy.sqlite")
    assert copy.execute("SELECT x FROM t").fetchall() == [(7,)]
    copy.close()


def test_a_newer_schema_is_refused(tmp_path: Path) -> None:
    store = Store(tmp_path / "new.sqlite")
    with store.engine.begin() as connection:
        connection.execute(text("UPDATE alembic_version SET version_num = '9999'"))
    store.close()
    with pytest.raises(Conflict, match="made by a newer Fenwa"):
        Store(tmp_path / "new.sqlite")


def test_remembered_pots_follow_every_write(kept: Client) -> None:
    assert kept.get("/api/pots")["pots"][0]["last_pour_on"] is None
    kept.made("/api/pours", pour())
    assert kept.get("/api/pots")["pots"][0]["last_pour_on"] == "2026-11-22"
    with kept.store.reading() as session:
        known = pots_today(session, TODAY)
        assert pots_today(session, TODAY)[0] is known[0]
        fresh = pots_today(session, TODAY.replace(day=24))
        assert fresh[0].reading is not None
        assert fresh[0] is not known[0]


def test_stale_summaries_are_folded_again(kept: Client) -> None:
    kept.made("/api/pours", pour())
    with kept.store.writing() as session:
        session.query(PotSummary).update({"core_version": "old"})
    with kept.store.writing() as session:
        assert refresh_stale(session) == 1
        assert refresh_stale(session) == 0


def test_demo_is_made_once_a_day_and_is_the_same_each_time(tmp_path: Path, demo: Client) -> None:
    store = Store(tmp_path / "again.sqlite")
    assert fill_if_stale(store, TODAY)
    assert not fill_if_stale(store, TODAY)
    sums = []
    for made in (store, demo.store):
        with made.reading() as session:
            sums.append(sum(p.volume_L or 0 for p in session.query(Pour)))
    assert sums[0] == sums[1]
    assert Client(store).get("/api/water") == demo.get("/api/water")
    store.close()


def test_what_a_job_was_moves_from_its_note_into_columns(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite"
    old = sqlite3.connect(path)
    old.executescript((Path(__file__).parent / "schemas" / "0005.sql").read_text("utf-8"))
    old.close()
    store = Store(path)
    with store.reading() as session:
        found = [(e.errand_id, e.errand_kind, e.errand_due_on) for e in session.query(Event).order_by(Event.id)]
    store.close()
    assert found == [
        (None, None, None),
        ("pot-1-end-of-quarantine-2026-11-02", "end of quarantine", date(2026, 11, 2)),
        ("water-1-read", "water re-test", None),
    ]


def test_old_marks_become_rows_with_unknown_place_where_nobody_told_it(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite"
    old = sqlite3.connect(path)
    old.executescript((Path(__file__).parent / "schemas" / "0010.sql").read_text("utf-8"))
    old.close()
    store = Store(path)
    with store.reading() as session:
        rows = session.execute(
            text("SELECT look_id, kind, place, archived_at IS NOT NULL, old FROM mark ORDER BY id")
        ).fetchall()
        numbers = session.execute(text("SELECT number FROM leaf ORDER BY id")).scalars().all()
        kept = session.execute(text("SELECT id, marks FROM look ORDER BY id")).fetchall()
    store.close()
    assert [tuple(r) for r in rows] == [
        (2, "tip", "tip", 0, 0),
        (2, "spot", "unknown", 0, 0),
        (3, "rot", "unknown", 1, 0),
    ]
    assert numbers == [1]
    assert [tuple(r) for r in kept] == [(1, "[]"), (2, '["tip", "spot"]'), (3, '["rot"]')]
