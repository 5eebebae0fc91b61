"""The server as a process: its file, its lock, its orderly end, and how soon it answers."""

import http.client
import logging
import os
import signal
import sqlite3
import stat
import subprocess
import sys
import time
from pathlib import Path
from urllib.parse import urlsplit

import pytest

from fenwa.bench import floor_ms
from fenwa.core.errors import Conflict
from fenwa.store.file import APPLICATION_ID, hold
from fenwa.store.log_file import PrivateLog
from fenwa.store.session import Store
from tests.browser.server import ROOT, running


def start(database: Path) -> tuple[subprocess.Popen[str], str]:
    process = subprocess.Popen(
        [sys.executable, "-m", "fenwa.cli", "serve", "--port", "0", "--database", str(database)],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        cwd=ROOT,
        env={**os.environ, "PYTHONPATH": str(ROOT / "src")},
    )
    assert process.stdout is not None
    return process, process.stdout.readline()


def ended(process: subprocess.Popen[str]) -> tuple[int, str]:
    _, error = process.communicate(timeout=20)
    return process.returncode, error


@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGINT])
def test_an_orderly_end_leaves_everything_in_the_file(tmp_path: Path, how: signal.Signals) -> None:
    database = tmp_path / "house" / "fenwa.sqlite"
    process, said = start(database)
    address = urlsplit(said.split(" at ")[1].split()[0])
    line = http.client.HTTPConnection(str(address.hostname), address.port)
    line.request(
        "POST", "/api/people", '{"name": "Ada"}', {"Content-Type": "application/json", "Idempotency-Key": "abcdefgh"}
    )
    assert line.getresponse().status == 201
    line.close()
    process.send_signal(how)
    code, error = ended(process)
    assert (code, error) == (0, "")
    left = {p.name for p in database.parent.iterdir()} - {"fenwa.backups"}  # of a start that took longer
    assert left == {"fenwa.sqlite", "fenwa.sqlite.lock"}
    copy = sqlite3.connect(f"file:{database}?immutable=1", uri=True)
    assert copy.execute("SELECT name FROM person").fetchall() == [("Ada",)]
    assert copy.execute("PRAGMA application_id").fetchone() == (APPLICATION_ID,)
    copy.close()


def test_only_the_owner_reads_the_file(tmp_path: Path) -> None:
    database = tmp_path / "house" / "fenwa.sqlite"
    store = Store(database)
    with store.reading() as session:
        assert session.connection().exec_driver_sql("PRAGMA synchronous").scalar() == 2
        for file in database.parent.iterdir():
            assert stat.S_IMODE(file.stat().st_mode) == 0o600, file.name
    assert stat.S_IMODE(database.parent.stat().st_mode) == 0o700
    store.close()
    database.chmod(0o644)
    Store(database).close()
    assert stat.S_IMODE(database.stat().st_mode) == 0o600


def test_a_second_server_on_the_same_file_is_refused(tmp_path: Path) -> None:
    database = tmp_path / "fenwa.sqlite"
    with running("serve", database):
        second, _ = start(database)
        code, error = ended(second)
        assert code == 2
        assert "Another Fenwa already serves fenwa.sqlite" in error
    lock = hold(database)  # let go of with the process
    lock.release()


def foreign(path: Path) -> None:
    other = sqlite3.connect(path)
    other.execute("CREATE TABLE recipes (name TEXT)")
    other.execute("INSERT INTO recipes VALUES ('soup')")
    other.commit()
    other.close()


def numbered(path: Path) -> None:
    foreign(path)
    other = sqlite3.connect(path)
    other.execute("PRAGMA application_id=77")
    other.close()


@pytest.mark.parametrize(
    ("make", "says"),
    [
        (foreign, "another program’s database"),
        (numbered, "another program’s database"),
        (lambda p: p.write_text("Dear diary"), "not a database of Fenwa’s"),
        (lambda p: p.mkdir(), "not a file"),
    ],
)
def test_a_file_of_others_is_refused_untouched(tmp_path: Path, make: object, says: str) -> None:
    path = tmp_path / "mine.sqlite"
    make(path)  # type: ignore[operator]
    before = path.read_bytes() if path.is_file() else b""
    with pytest.raises(Conflict, match=says):
        Store(path)
    assert (path.read_bytes() if path.is_file() else b"") == before
    assert [p.name for p in tmp_path.iterdir()] == ["mine.sqlite"]
    process, _ = start(path)
    code, error = ended(process)
    assert code == 2
    assert says in error


def test_a_database_from_before_the_mark_is_taken_and_marked(tmp_path: Path) -> None:
    path = tmp_path / "fenwa.sqlite"
    Store(path).close()
    old = sqlite3.connect(path)
    old.execute("PRAGMA application_id=0")
    old.close()
    Store(path).close()
    assert sqlite3.connect(path).execute("PRAGMA application_id").fetchone() == (APPLICATION_ID,)


def test_answers_are_sent_at_once(tmp_path: Path) -> None:
    """44 ms an answer with Nagle's algorithm on, 3 without; the loose bound holds on a busy machine too."""
    with running("serve", tmp_path / "fenwa.sqlite") as address:
        time.sleep(0.2)
        assert floor_ms(address, 30)[0] < 25


def test_the_log_is_the_owners_and_turns_over(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("fenwa.store.log_file.LOG_BYTES", 2_000)
    handler = PrivateLog(tmp_path / "fenwa.log")
    log = logging.Logger("alone")
    log.addHandler(handler)
    assert not list(tmp_path.iterdir()), "no file where nothing went wrong"
    for n in range(200):
        log.error("a word %d", n)
    handler.close()
    files = sorted(p.name for p in tmp_path.iterdir())
    assert files == ["fenwa.log", "fenwa.log.1", "fenwa.log.2", "fenwa.log.3"]
    assert all(stat.S_IMODE(p.stat().st_mode) == 0o600 and p.stat().st_size <= 2_000 for p in tmp_path.iterdir())
    assert "a word 199" in (tmp_path / "fenwa.log").read_text("utf-8")


@pytest.mark.parametrize("broken", ["damaged", "folder"])
def test_a_start_that_cannot_be_says_why_in_one_sentence(tmp_path: Path, broken: str) -> None:
    database = tmp_path / "fenwa.sqlite"
    if broken == "damaged":
        Store(database).close()
        content = bytearray(database.read_bytes())
        content[4096:] = b"\xff" * (len(content) - 4096)
        database.write_bytes(bytes(content))
    else:
        database.mkdir()
    process, said = start(database)
    code, error = ended(process)
    assert said == ""
    assert code == 2
    assert "Traceback" not in error
    assert "fenwa.sqlite" in error
    assert len(error.strip().splitlines()) == 1
