"""What is entered goes before pages; what is only worked out for a form waits its turn like one."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

import pytest

from fenwa.api import intake
from tests.conftest import Client, pour


@pytest.fixture
def entered(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """Requests that readers stood aside for."""
    begun: list[str] = []

    @contextmanager
    def entry() -> Iterator[None]:
        begun.append("entry")
        yield

    monkeypatch.setattr(intake, "entry", entry)
    return begun


def test_a_pour_is_an_entry(kept: Client, entered: list[str]) -> None:
    kept.made("/api/pours", pour())
    assert entered == ["entry"]


def test_a_refused_pour_is_one_too(kept: Client, entered: list[str]) -> None:
    assert kept.send("/api/pours", {**pour(), "pot_ids": []}).status_code == 422
    assert entered == ["entry"]


@pytest.mark.parametrize("path", ["/api/round", "/api/pots", "/api/mix"])
def test_a_page_is_none(kept: Client, entered: list[str], path: str) -> None:
    kept.get(path)
    assert entered == []


def test_nor_is_what_a_form_asks_while_it_is_typed(kept: Client, entered: list[str]) -> None:
    assert kept.http.post("/api/pots/said", json={"line": "6 masdevallia"}).status_code in (200, 422)
    assert entered == []


def test_a_pot_never_poured_is_not_among_the_saltiest(kept: Client) -> None:
    shown = kept.get("/api/pots")["pots"]
    named = {r["id"] for r in kept.get("/api/round")["salt"]}
    assert named == {r["id"] for r in shown if r["reading_uS_cm"] is not None}
