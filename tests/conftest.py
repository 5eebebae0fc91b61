"""Shared fixtures: an empty store, a demo store, clients on both."""

import atexit
import gc
import os
import shutil
import tempfile
from collections.abc import Iterator
from datetime import date
from functools import cache
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from anyio.from_thread import BlockingPortal, start_blocking_portal
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import settings
from starlette.types import Receive, Scope, Send

from fenwa.api.app import create_app
from fenwa.demo.database import fill_if_stale
from fenwa.devices.pen_session import PenSession
from fenwa.store.backup import Backups
from fenwa.store.prepare import prepare_store
from fenwa.store.session import Store

TODAY = date(2026, 11, 23)
gc.set_threshold(50_000, 20, 20)  # thousands of lasting objects: to look through them often takes time

# what is tried is the same in every run, so that a landing tells of the change and not of chance;
# FENWA_RANDOM=1 tries other inputs each time
settings.register_profile("same", derandomize=True, deadline=None)  # a busy machine is no finding
if not os.environ.get("FENWA_RANDOM"):
    settings.load_profile("same")


@cache
def the_app() -> FastAPI:
    """One application for all clients; each sets its own store before a request."""
    folder = tempfile.TemporaryDirectory()
    atexit.register(folder.cleanup)
    return create_app(Store(Path(folder.name) / "unused.sqlite"), lambda: TODAY)


@cache
def the_loop() -> BlockingPortal:
    """One event loop for all requests: a thread and a loop of its own for each took a quarter of a short one."""
    portal = start_blocking_portal()
    atexit.register(portal.__exit__, None, None, None)
    return portal.__enter__()


class Client:
    """A test client whose writes carry a fresh idempotency key unless one is given."""

    def __init__(self, store: Store, today: date = TODAY) -> None:
        self.store = store
        self.state: dict[str, Any] = {
            "store": store,
            "clock": lambda: today,
            "pen": PenSession("none", lambda: today),
            "door": None,
            "backups": Backups(store.path),
            "demonstration": None,
        }

        async def own(scope: Scope, receive: Receive, send: Send) -> None:
            """The one application with this client's state: making an application anew takes a second."""
            app = the_app()
            for name, value in self.state.items():
                setattr(app.state, name, value)
            await app(scope, receive, send)

        self.http = TestClient(
            own, base_url="http://127.0.0.1", raise_server_exceptions=False, client=("127.0.0.1", 50_000)
        )
        self.http.portal = the_loop()

    def get(self, path: str) -> Any:
        answer = self.http.get(path)
        assert answer.status_code == 200, answer.text
        return answer.json()

    def send(
        self, path: str, body: dict[str, Any] | None = None, *, key: str | None = None, method: str = "POST"
    ) -> Any:
        return self.http.request(method, path, json=body, headers={"Idempotency-Key": key or uuid4().hex})

    def made(self, path: str, body: dict[str, Any] | None = None, *, key: str | None = None) -> Any:
        answer = self.send(path, body, key=key)
        assert answer.status_code in (200, 201), answer.text
        return answer.json()

    def refused(self, path: str, body: dict[str, Any], status: int = 422) -> Any:
        answer = self.send(path, body)
        assert answer.status_code == status, answer.text
        assert answer.headers["content-type"] == "application/problem+json"
        return answer.json()


@pytest.fixture(scope="session")
def empty(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty, prepared database, made once and copied for each test."""
    path = tmp_path_factory.mktemp("empty") / "empty.sqlite"
    store = Store(path)
    prepare_store(store)
    store.close()
    return path


@pytest.fixture(scope="session")
def begun(tmp_path_factory: pytest.TempPathFactory, empty: Path) -> Path:
    """A database with a rain water, its reading, a pot and a feed, made once and copied for each test."""
    path = tmp_path_factory.mktemp("begun") / "begun.sqlite"
    shutil.copy(empty, path)
    store = Store(path)
    furnished(Client(store))
    store.close()
    return path


@pytest.fixture
def store(tmp_path: Path, request: pytest.FixtureRequest) -> Iterator[Store]:
    made = "begun" if "kept" in request.fixturenames else "empty"
    shutil.copy(request.getfixturevalue(made), tmp_path / "fenwa.sqlite")
    store = Store(tmp_path / "fenwa.sqlite")
    yield store
    store.close()


@pytest.fixture
def client(store: Store) -> Client:
    return Client(store)


@pytest.fixture(scope="session")
def demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Client]:
    """The demonstration, for tests that only read."""
    store = Store(tmp_path_factory.mktemp("demo") / "demo.sqlite")
    fill_if_stale(store, TODAY)
    prepare_store(store)
    yield Client(store)
    store.close()


@pytest.fixture
def kept(client: Client) -> Client:
    """A client with a rain water of 34 µS/cm, a pot P-01 and a feed on the shelf; see ``begun``."""
    return client


@pytest.fixture(scope="session")
def still(tmp_path_factory: pytest.TempPathFactory, begun: Path) -> Iterator[Client]:
    """The same, opened once, for tests in which nothing may be stored."""
    path = tmp_path_factory.mktemp("still") / "fenwa.sqlite"
    shutil.copy(begun, path)
    store = Store(path)
    yield Client(store)
    store.close()


def furnished(client: Client) -> Client:
    """A rain water, its reading, a pot, a feed."""
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain", "disinfectant": "none"})["id"]
    client.made(f"/api/waters/{water}/readings", {"on": "2026-11-20", "value": 34, "unit": "µS/cm"})
    client.made("/api/pots", pot())
    buy(client)
    return client


NITRATE = "Nitrate feed 13-3-15 with Ca and Mg"


def buy(client: Client, name: str = NITRATE) -> int:
    """Put a feed of the shipped labels on the shelf."""
    product = next(p["id"] for p in client.get("/api/mix")["products"] if p["name"] == name)
    client.made(f"/api/products/{product}/owned", {"owned": True})
    return int(product)


def pot(**changes: Any) -> dict[str, Any]:
    return {
        "code": "P-01",
        "profile_id": "paphiopedilum",
        "medium_id": "bark_mix",
        "volume": "0,9",
        "interval_days": 6,
        "phase": "active",
        **changes,
    }


def reading(**changes: Any) -> dict[str, Any]:
    return {"on": "2026-11-22", "value": 412, "unit": "µS/cm", "compensated": True, **changes}


def told(job: dict[str, Any]) -> dict[str, Any]:
    """What the page sends of a job that is done or put off."""
    return {key: job[key] for key in ("id", "kind", "due_on")}


def pour(**changes: Any) -> dict[str, Any]:
    return {"pot_ids": [1], "on": "2026-11-22", "water_id": 1, "volume": 250, "volume_unit": "mL", **changes}
