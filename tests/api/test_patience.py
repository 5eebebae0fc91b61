"""A request that does not come whole is not waited for without end; one that takes its time with the answer is."""

from __future__ import annotations

import socket
import threading
import time
from collections.abc import Iterator
from typing import Any

import pytest
import uvicorn

from fenwa.api import intake, patience
from fenwa.api.patience import Patient
from tests.conftest import Client, the_app

SHORT_S = 0.4


@pytest.fixture
def address(kept: Client, monkeypatch: pytest.MonkeyPatch) -> Iterator[tuple[str, int]]:
    """A real server on a real socket, with little patience."""
    for module in (patience, intake):
        monkeypatch.setattr(module, "PATIENCE_S", SHORT_S)
    kept.get("/api/health")  # gives the application this client's state
    server = uvicorn.Server(uvicorn.Config(the_app(), port=0, log_level="error", http=Patient))
    listener = socket.create_server(("127.0.0.1", 0))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]})
    thread.start()
    yield listener.getsockname()
    server.should_exit = True
    thread.join(10)
    listener.close()


def talk(address: tuple[str, int], sent: bytes, then: bytes = b"", after_s: float = 0.0) -> tuple[bytes, float]:
    """What came back until the line was closed, and how long that took."""
    with socket.create_connection(address, timeout=10) as line:
        begun = time.monotonic()
        line.sendall(sent)
        if then:
            time.sleep(after_s)
            line.sendall(then)
        got = b""
        while part := line.recv(65_536):
            got += part
        return got, time.monotonic() - begun


HEAD = (
    b"POST /api/people HTTP/1.1\r\nHost: 127.0.0.1\r\nIdempotency-Key: abcdefgh\r\nContent-Type: application/json\r\n"
)


@pytest.mark.parametrize(
    "sent",
    [b"", b"GET /api/hea", b"GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "],
    ids=["none", "line", "head"],
)
def test_a_line_on_which_nothing_whole_comes_is_closed(address: tuple[str, int], sent: bytes) -> None:
    got, took = talk(address, sent)
    assert got == b""
    assert SHORT_S * 0.8 < took < 5


def test_a_second_request_that_stops_half_way_is_closed_too(address: tuple[str, int]) -> None:
    whole = b"GET /api/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n"
    got, took = talk(address, whole, b"GET /api/hea", 0.1)
    assert got.startswith(b"HTTP/1.1 200")
    assert took < 5


def test_a_body_that_stops_half_way_is_told_and_stores_nothing(address: tuple[str, int], kept: Client) -> None:
    got, took = talk(address, HEAD + b'Content-Length: 20\r\nConnection: close\r\n\r\n{"name": ')
    assert got.startswith(b"HTTP/1.1 408")
    assert b"Nothing was stored" in got
    assert took < 5
    assert kept.get("/api/people") == []


def test_a_body_that_comes_in_pieces_is_waited_for(address: tuple[str, int], kept: Client) -> None:
    head = HEAD + b"Content-Length: 15\r\nConnection: close\r\n\r\n"
    got, _ = talk(address, head + b'{"name"', b': "Ada"}', SHORT_S / 2)
    assert got.startswith(b"HTTP/1.1 201")
    people: Any = kept.get("/api/people")
    assert [p["name"] for p in people] == ["Ada"]


def test_a_line_that_breaks_off_in_the_body_stores_nothing(address: tuple[str, int], kept: Client) -> None:
    """What came reads whole, and is not."""
    with socket.create_connection(address, timeout=10) as line:
        line.sendall(HEAD + b'Content-Length: 60\r\n\r\n{"name": "Ada"}')
    time.sleep(2 * SHORT_S)
    assert kept.get("/api/people") == []
