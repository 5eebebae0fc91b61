"""Ways in are built when they are asked for, and answer as if they had been there all along."""

import subprocess
import sys
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from pydantic import Field

from fenwa.api.model import Model
from fenwa.api.ways import OnDemand, Ways


class Pot(Model):
    name: str = Field(min_length=2)


def _app() -> tuple[FastAPI, OnDemand, OnDemand]:
    ways = Ways(prefix="/api", tags=["pots"])

    @ways.post("/pots/{pot_id}", status_code=201)
    def name_it(pot_id: int, body: Pot) -> Pot:
        """Name a pot."""
        return Pot(name=f"{body.name} {pot_id}")

    @ways.get("/pots/{pot_id}/photo")
    def photo(pot_id: int) -> Pot:
        return Pot(name="photo")

    app = FastAPI()
    app.router.routes.extend(ways.routes)
    named, shown = ways.routes
    assert isinstance(named, OnDemand)
    assert isinstance(shown, OnDemand)
    return app, named, shown


def _built(way: OnDemand) -> bool:
    return "dependant" in vars(way)


def test_a_way_is_built_by_its_first_request_and_no_other() -> None:
    app, named, shown = _app()
    asked = TestClient(app)
    assert not _built(named)
    answer = asked.post("/api/pots/7", json={"name": "Pitcher"})
    assert (answer.status_code, answer.json()) == (201, {"name": "Pitcher 7"})
    assert _built(named)
    assert not _built(shown)


@pytest.mark.parametrize(
    ("method", "path", "status"),
    [
        ("POST", "/api/pots/7", 422),  # no body
        ("GET", "/api/pots/7", 405),
        ("POST", "/api/pots/seven", 422),
        ("GET", "/api/pots/7/photo", 200),
        ("GET", "/api/pots/7/photos", 404),
        ("GET", "/api/pot", 404),
    ],
)
def test_it_refuses_what_it_would_have_refused(method: str, path: str, status: int) -> None:
    app, _, _ = _app()
    assert TestClient(app).request(method, path).status_code == status


def test_the_document_tells_of_every_way() -> None:
    app, _, _ = _app()
    told = app.openapi()["paths"]
    assert set(told) == {"/api/pots/{pot_id}", "/api/pots/{pot_id}/photo"}
    assert told["/api/pots/{pot_id}"]["post"]["tags"] == ["pots"]
    assert told["/api/pots/{pot_id}"]["post"]["description"] == "Name a pot."


def test_what_a_way_does_not_have_it_does_not_claim() -> None:
    _, named, _ = _app()
    with pytest.raises(AttributeError, match="colour"):
        named.colour  # noqa: B018 - asked on purpose


def test_the_application_starts_with_none_built(tmp_path: Path) -> None:
    asked = (
        "from datetime import date; from pathlib import Path\n"
        "from fenwa.api.app import create_app; from fenwa.store.session import Store\n"
        f"store = Store(Path({str(tmp_path / 'fenwa.sqlite')!r}))\n"
        "routes = create_app(store, date.today).router.routes\n"
        "store.close()\n"
        "print(len(routes) > 200, [r.path for r in routes if 'dependant' in vars(r)])"
    )
    told = subprocess.run(
        [sys.executable, "-c", asked], capture_output=True, text=True, check=True, env={"PYTHONPATH": "src"}
    )
    assert told.stdout == "True []\n"
