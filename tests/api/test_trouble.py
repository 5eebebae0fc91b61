"""A disk that is full, a file that is read-only, held, damaged: a sentence with the way out, and reading goes on."""

from __future__ import annotations

import errno
import logging
import sqlite3
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy.exc import OperationalError

from fenwa.api.safety import HEADERS
from fenwa.store.trouble import said_at_start, trouble_of
from tests.conftest import Client, pour, reading


def full(client: Client) -> None:
    pages = client.store.engine.raw_connection().cursor().execute("PRAGMA page_count").fetchone()[0]
    _on_writer(client, f"PRAGMA max_page_count={pages}")


def read_only(client: Client) -> None:
    _on_writer(client, "PRAGMA query_only=ON")


def _on_writer(client: Client, pragma: str) -> None:
    connection = client.store.engine.raw_connection()
    connection.cursor().execute(pragma)
    connection.close()


def held(client: Client) -> sqlite3.Connection:
    _on_writer(client, "PRAGMA busy_timeout=50")
    other = sqlite3.connect(client.store.path, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    return other


@pytest.mark.parametrize(
    ("stand_in_the_way", "code", "way_out"),
    [(full, "disk-full", "Make room"), (read_only, "read-only", "Give its file"), (held, "locked", "Close it")],
)
def test_a_write_is_refused_in_words_nothing_is_half_written_and_reading_goes_on(
    kept: Client, stand_in_the_way: Callable[[Client], Any], code: str, way_out: str
) -> None:
    before = kept.get("/api/pots/1")
    other = stand_in_the_way(kept)
    long_note = "n" * 60_000  # a full disk still has room for a word
    for path, body in (("/api/pours", pour(note=long_note)), ("/api/waters/1/readings", reading(note=long_note))):
        told = kept.refused(path, body, 503)
        assert told["code"] == code
        assert way_out in told["detail"]
        assert "Nothing was stored" in told["detail"]
        assert "Traceback" not in str(told)
        assert "sqlite" not in told["detail"].lower()
    for page in ("/api/round", "/api/pots", "/api/water", "/api/mix", "/api/stations"):
        assert kept.http.get(page).status_code == 200
    assert kept.get("/api/pots/1") == before
    if other is not None:
        other.rollback()
        other.close()
        assert kept.send("/api/pours", pour()).status_code == 201, "once it is gone, it is stored"


def test_a_damaged_file_is_told_and_names_the_restore(kept: Client, tmp_path: Path) -> None:
    kept.store.close()
    path = kept.store.path
    content = bytearray(path.read_bytes())
    for page in range(2, len(content) // 4096):
        content[page * 4096 : page * 4096 + 64] = b"\xff" * 64
    path.write_bytes(bytes(content))
    answer = kept.http.get("/api/pots")
    assert answer.status_code == 500
    assert answer.json()["code"] == "corrupt"
    assert "./fenwa restore" in answer.json()["detail"]
    for name, value in HEADERS.items():
        assert answer.headers[name] == value, "an error carries the headers too"


@pytest.mark.parametrize(
    ("error", "code"),
    [
        (OSError(errno.ENOSPC, "no space"), "disk-full"),
        (OSError(errno.EROFS, "read-only"), "read-only"),
        (PermissionError(errno.EACCES, "denied"), "read-only"),
        (OSError(errno.EIO, "input/output"), "disk"),
        (FileNotFoundError(errno.ENOENT, "gone"), "gone"),
    ],
)
def test_what_the_system_says_becomes_a_sentence_for_the_terminal(error: OSError, code: str) -> None:
    found = trouble_of(error)
    assert found is not None
    assert found.code == code
    said = said_at_start(error, Path("garden.sqlite"))
    assert said is not None
    assert said.startswith("garden.sqlite: ")
    assert "Nothing was stored" not in said
    assert "send again" not in said
    assert trouble_of(ValueError("ours")) is None
    assert trouble_of(OperationalError("SELECT", {}, ValueError("ours"))) is None


def test_an_error_of_ours_names_the_log_that_has_it(kept: Client, tmp_path: Path, monkeypatch: Any) -> None:
    handler = logging.FileHandler(tmp_path / "fenwa.log")
    logging.getLogger("fenwa").addHandler(handler)
    monkeypatch.setattr("fenwa.api.round.round.round_plan", lambda **_: 1 / 0)
    try:
        answer = kept.http.get("/api/round")
    finally:
        logging.getLogger("fenwa").removeHandler(handler)
        handler.close()
    assert answer.status_code == 500
    assert answer.headers["content-type"] == "application/problem+json"
    detail = answer.json()["detail"]
    assert "fenwa.log" in detail
    reference = detail.split(" under ")[1].rstrip(".")
    assert reference in (tmp_path / "fenwa.log").read_text("utf-8")
    assert all(answer.headers[name] == value for name, value in HEADERS.items())


def test_large_answers_are_packed_on_the_wire(kept: Client) -> None:
    packed = kept.http.get("/api/mix", headers={"Accept-Encoding": "gzip"})
    assert packed.headers["content-encoding"] == "gzip"
    plain = kept.http.get("/api/mix", headers={"Accept-Encoding": "identity"})
    assert packed.json() == plain.json()
    assert int(packed.headers["content-length"]) < len(plain.content) / 3


def test_every_endpoint_documents_the_problems_it_answers(kept: Client) -> None:
    document = kept.http.get("/api/openapi.json").json()
    for path, verbs in document["paths"].items():
        for verb, operation in verbs.items():
            problems = {s: r for s, r in operation["responses"].items() if s.startswith(("4", "5"))}
            assert {"401", "403", "404", "409", "422", "500", "503"} <= problems.keys(), path
            assert verb == "get" or {"400", "408", "411", "413"} <= problems.keys(), path
            for answer in problems.values():
                assert list(answer["content"]) == ["application/problem+json"], path
