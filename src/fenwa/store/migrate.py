"""Bringing a database to the present schema, with a copy kept from before."""

from __future__ import annotations

import sqlite3
import tempfile
import threading
from collections.abc import Callable
from contextlib import closing
from functools import cache
from pathlib import Path

from sqlalchemy import Connection, Engine, create_engine, inspect, text

from fenwa.core.errors import Conflict
from fenwa.store.file import make_private
from fenwa.store.models import Base

HEAD = "0015"  # a test holds it against the newest migration
KNOWN = (
    "0001",
    "0002",
    "0003",
    "0004",
    "0005",
    "0006",
    "0007",
    "0008",
    "0009",
    "0010",
    "0011",
    "0012",
    "0013",
    "0014",
    "0015",
)
_ONE_AT_A_TIME = threading.Lock()  # alembic keeps its operations in a place of the whole process
MIGRATIONS = Path(__file__).parent / "migrations"


def current(engine: Engine) -> str | None:
    """Revision of the database, None for an empty one."""
    with engine.connect() as connection:
        if not inspect(connection).has_table("alembic_version"):
            return None
        found = connection.execute(text("SELECT version_num FROM alembic_version")).scalar()
        return str(found) if found is not None else None


def upgrade(path: Path, engine: Engine, say: Callable[[str], None] | None = None) -> None:
    """Bring a database to head, in one transaction: ended on the way, it is as it was. Alembic is loaded only when
    there is something to migrate: it slows a start. ``say``: hears how far it is.

    Raises
    ------
    Conflict
        If the database was made by a newer Fenwa.
    """
    now = current(engine)
    if now == HEAD:
        return
    if now is None:
        _lay_out(engine)
        return
    if now not in KNOWN:
        raise Conflict(
            f"The database {path.name} was made by a newer Fenwa (schema {now}, this one knows {HEAD}). "
            "Update Fenwa, or open another database."
        )
    if say:
        say(f"Bringing {path.name} from schema {now} to {HEAD}; a copy from before is kept beside it.")
    _copy(path, path.with_suffix(f".before-{HEAD}.sqlite"))
    _migrate(path, engine, "head", say)


def _lay_out(engine: Engine) -> None:
    """A new database has its tables from the models: every migration, one after the other, takes a second."""
    with engine.begin() as connection:
        Base.metadata.create_all(connection, checkfirst=False)
        version = "version_num VARCHAR(32) NOT NULL, CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num)"
        connection.exec_driver_sql(f"CREATE TABLE alembic_version ({version})")
        connection.execute(text("INSERT INTO alembic_version VALUES (:head)"), {"head": HEAD})


def to_revision(path: Path, revision: str) -> None:
    """Lay out an empty file as a schema had it, to be filled with rows of that time."""
    make_private(path)
    path.write_bytes(_laid_out_as(revision))


@cache
def _laid_out_as(revision: str) -> bytes:
    """The file of an empty database as a schema had it."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "empty.sqlite"
        engine = create_engine(f"sqlite:///{path}")
        try:
            if revision == HEAD:
                _lay_out(engine)
            else:
                _migrate(path, engine, revision)
        finally:
            engine.dispose()
        return path.read_bytes()


def _migrate(path: Path, engine: Engine, revision: str, say: Callable[[str], None] | None = None) -> None:
    with _ONE_AT_A_TIME:
        _migrate_alone(path, engine, revision, say)


def _migrate_alone(path: Path, engine: Engine, revision: str, say: Callable[[str], None] | None) -> None:
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.connect() as connection:
        # Tables are rebuilt in batch mode: with foreign keys on, rows that point at them would cascade away. Said to
        # the driver itself: through SQLAlchemy a transaction would begin first, and in one the pragma does nothing.
        _say(connection, "PRAGMA foreign_keys=OFF")
        config.attributes["connection"] = connection
        if say:
            config.attributes["say"] = say
        command.upgrade(config, revision)
        broken = connection.exec_driver_sql("PRAGMA foreign_key_check").fetchall()
        if broken:
            raise Conflict(
                f"Migration of {path.name} left {len(broken)} rows without their parent; the copy is intact."
            )
        connection.commit()
        _say(connection, "PRAGMA foreign_keys=ON")


def _say(connection: Connection, pragma: str) -> None:
    driver = connection.connection.driver_connection
    assert driver is not None
    driver.execute(pragma)


def _copy(path: Path, to: Path) -> None:
    """A copy of all that was committed, the write-ahead log included, which copying the file would leave out."""
    to.unlink(missing_ok=True)
    make_private(to)
    with closing(sqlite3.connect(path)) as old, closing(sqlite3.connect(to)) as new:
        old.backup(new)
