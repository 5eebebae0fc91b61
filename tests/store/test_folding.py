"""New figures: long folds go on beside the open port, a few pots a write, and a start goes on where one ended."""

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from sqlalchemy import text

from fenwa.store.collection import pots_today, stale_summaries
from fenwa.store.core_version import CORE_VERSION
from fenwa.store.prepare import AT_ONCE, WAITED_FOR, Folding, prepare_to_serve
from fenwa.store.session import Store
from tests.conftest import TODAY, Client, pot, pour

POTS = WAITED_FOR + 20


@pytest.fixture(scope="module")
def house(empty: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """More pots than a start waits for, each poured once."""
    path = Path(shutil.copy(empty, tmp_path_factory.mktemp("house") / "house.sqlite"))
    store = Store(path)
    client = Client(store)
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    client.made("/api/pots", pot(code="F-001", alike=POTS))
    client.made("/api/pours", pour(pot_ids=list(range(1, POTS + 1))))
    store.close()
    return path


@pytest.fixture
def aged(house: Path, tmp_path: Path) -> Iterator[Client]:
    """The same, folded by other figures."""
    store = Store(Path(shutil.copy(house, tmp_path / "house.sqlite")))
    age(store, POTS)
    yield Client(store)
    store.close()


def age(store: Store, pots: int) -> None:
    with store.writing() as session:
        session.execute(text("UPDATE pot_summary SET core_version = 'older' WHERE pot_id <= :n"), {"n": pots})
    store.changed.note(set(), every=True)


def started(client: Client) -> Folding:
    folding = prepare_to_serve(client.store)
    assert folding is not None
    return folding


def test_a_few_are_folded_before_the_port_opens(aged: Client) -> None:
    with aged.store.writing() as session:
        session.execute(text("UPDATE pot_summary SET core_version = :v WHERE pot_id > 5"), {"v": CORE_VERSION})
    assert prepare_to_serve(aged.store) is None
    with aged.store.reading() as session:
        assert stale_summaries(session) == []
    assert aged.get("/api/folding") == {"done": 0, "total": 0, "sentence": ""}


def test_many_are_folded_beside_the_pages_that_say_how_far_it_is(aged: Client, house: Path) -> None:
    folding = started(aged)
    said = aged.get("/api/folding")
    assert (said["done"], said["total"]) == (0, POTS)
    assert f"0 of {POTS} pots" in said["sentence"]
    assert aged.get("/api/pots")["kept"] == 0  # what other figures folded is shown nowhere as if these had
    missing = aged.http.get("/api/pots/7")
    assert missing.status_code == 404
    assert "being read anew" in missing.json()["detail"]
    assert "archived" in aged.http.get("/api/pots/999").json()["detail"]
    folding.start()
    folding.wait()
    assert aged.get("/api/folding") == {"done": POTS, "total": POTS, "sentence": ""}
    untouched = Store(house)
    with aged.store.reading() as now, untouched.reading() as before:
        assert [(p.pot.code, p.reading) for p in pots_today(now, TODAY)] == [
            (p.pot.code, p.reading) for p in pots_today(before, TODAY)
        ]
    untouched.close()


def test_a_pour_in_between_is_stored_and_folds_its_own_pot(aged: Client) -> None:
    folding = started(aged)
    aged.made("/api/pours", pour(pot_ids=[9], on="2026-11-23"))
    assert [p["id"] for p in aged.get("/api/pots")["pots"]] == [9]
    folding.start()
    folding.wait()
    assert aged.get("/api/pots")["kept"] == POTS
    assert aged.get("/api/pots/9")["row"]["last_pour_on"] == "2026-11-23"


def test_a_start_goes_on_where_the_last_one_ended(aged: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    folding = started(aged)
    monkeypatch.setattr("fenwa.store.prepare.PAUSE_s", 0.0)
    turns = iter([False, False, True])
    monkeypatch.setattr(folding._end, "wait", lambda _s: next(turns))
    folding.start()
    folding.wait()
    with aged.store.reading() as session:
        left = stale_summaries(session)
    assert len(left) == POTS - 2 * AT_ONCE
    again = prepare_to_serve(aged.store)
    assert again is None, "what is left is few enough to be waited for"
    assert aged.get("/api/pots")["kept"] == POTS
