"""Pages are worked out one after the other, each once for all who ask; calculations are built when first asked for."""

import asyncio
from collections.abc import Awaitable, Callable
from types import SimpleNamespace
from typing import Any

import pytest

from fenwa.api import kept_answers
from fenwa.api.calc.routes import route_of
from fenwa.api.kept_answers import KeptAnswers
from fenwa.store.session import Store
from tests.conftest import TODAY, Client, the_app

Answer = Callable[[str], Awaitable[bytes]]


async def asked(app: KeptAnswers, store: Store, path: str) -> bytes:
    state = SimpleNamespace(store=store, clock=lambda: TODAY, demonstration=None)
    scope: dict[str, Any] = {
        "type": "http",
        "method": "GET",
        "path": path,
        "query_string": b"",
        "headers": [],
        "app": SimpleNamespace(state=state),
    }
    heard: list[bytes] = []

    async def send(message: Any) -> None:
        heard.append(message.get("body", b""))

    async def receive() -> Any:
        return {"type": "http.request"}

    await app(scope, receive, send)
    return b"".join(heard)


def pages(make: Answer) -> KeptAnswers:
    async def app(scope: Any, _receive: Any, send: Any) -> None:
        body = await make(scope["path"])
        await send({"type": "http.response.start", "status": 200, "headers": [(b"content-type", b"application/json")]})
        await send({"type": "http.response.body", "body": body})

    return KeptAnswers(app)


def test_asked_for_together_a_page_is_worked_out_once(store: Store) -> None:
    made: list[str] = []

    async def make(path: str) -> bytes:
        made.append(path)
        await asyncio.sleep(0.01)
        return b"{}"

    async def four() -> list[bytes]:
        app = pages(make)
        return await asyncio.gather(*(asked(app, store, "/api/round") for _ in range(4)))

    assert asyncio.run(four()) == [b"{}"] * 4
    assert made == ["/api/round"]


def test_a_write_between_makes_it_anew(store: Store) -> None:
    made: list[int] = []

    async def make(_path: str) -> bytes:
        made.append(store.changed.writes)
        if len(made) == 1:
            store.changed.note({1})
        return str(len(made)).encode()

    async def three() -> list[bytes]:
        app = pages(make)
        return [await asked(app, store, "/api/round") for _ in range(3)]

    assert asyncio.run(three()) == [b"1", b"2", b"2"]  # the first was of before the write


def test_one_is_worked_out_at_a_time(store: Store) -> None:
    busy, most = 0, 0

    async def make(_path: str) -> bytes:
        nonlocal busy, most
        busy += 1
        most = max(most, busy)
        await asyncio.sleep(0.005)
        busy -= 1
        return b"{}"

    async def several() -> None:
        app = pages(make)
        await asyncio.gather(*(asked(app, store, f"/api/pots/{n}") for n in range(5)))

    asyncio.run(several())
    assert most == 1


def test_nobody_waits_long_behind_a_page_that_takes_long(store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(kept_answers, "PATIENCE_s", 0.02)

    async def two() -> bytes:
        ended = asyncio.Event()

        async def make(path: str) -> bytes:
            if path == "/api/changes":
                await ended.wait()
            return path.encode()

        app = pages(make)
        slow = asyncio.create_task(asked(app, store, "/api/changes"))
        await asyncio.sleep(0)
        quick = await asked(app, store, "/api/round")
        ended.set()
        return quick + await slow

    assert asyncio.run(two()) == b"/api/round/api/changes"


def test_a_page_that_breaks_gives_its_turn_back(store: Store, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(kept_answers, "PATIENCE_s", 60.0)

    async def make(path: str) -> bytes:
        if path == "/api/changes":
            raise ValueError("broken")
        return b"{}"

    async def two() -> bytes:
        app = pages(make)
        with pytest.raises(ValueError, match="broken"):
            await asked(app, store, "/api/changes")
        return await asyncio.wait_for(asked(app, store, "/api/round"), 5)

    assert asyncio.run(two()) == b"{}"


def test_a_calculation_is_built_when_it_is_first_asked_for(client: Client) -> None:
    the_app()
    route_of.cache_clear()
    client.get("/api/stations")
    assert route_of.cache_info().currsize == 0
    body = {"value": 57.7, "compensated": True, "accuracy_pct_fs": 0.1, "range_uS_cm": 2000.0}
    assert client.made("/api/calc/ec-at-25", body)["result"]
    assert route_of.cache_info().currsize == 1
    assert client.send("/api/calc/no-such", {}).status_code == 404
    assert client.http.get("/api/calc/ec-at-25").status_code == 405
    assert client.http.post("/api/calc/ec-at-25/more", json=body).status_code == 404
