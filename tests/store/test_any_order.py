"""Whatever a grower does, in whatever order: the stored fold equals a fresh one, and nothing is lost or doubled."""

import atexit
import shutil
import tempfile
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule

from fenwa.core.pot.root_zone import root_zone
from fenwa.store.log_rows import as_event, readings_of
from fenwa.store.models import Pour
from fenwa.store.pot_rows import looks_until
from fenwa.store.prepare import prepare_store
from fenwa.store.salt_of_pots import BallastShares
from fenwa.store.session import Store
from fenwa.store.summary import open_pours
from tests.conftest import TODAY, Client, pot, pour

DAYS = st.integers(0, 60).map(lambda n: (TODAY - timedelta(days=n)).isoformat())
VOLUMES = st.one_of(st.none(), st.integers(20, 600))
_template: Path | None = None


def template() -> Path:
    """An empty database with a water and two pots, made once."""
    global _template
    if _template is None:
        folder = Path(tempfile.mkdtemp())
        atexit.register(shutil.rmtree, folder, ignore_errors=True)
        store = Store(folder / "template.sqlite")
        prepare_store(store)
        client = Client(store)
        client.made("/api/waters", {"name": "Rain", "kind": "rain", "disinfectant": "none"})
        client.made("/api/waters/1/readings", {"on": "2026-08-01", "value": 34})
        client.made("/api/pots", pot())
        client.made(
            "/api/pots", pot(code="S-01", profile_id="sarracenia", medium_id="peat", drainage="tray", route="tray")
        )
        store.close()
        _template = folder / "template.sqlite"
    return _template


class AnyOrder(RuleBasedStateMachine):
    """Pours, looks, phases, archives, corrections and repeats over two pots."""

    @initialize()
    def start(self) -> None:
        self.folder = Path(tempfile.mkdtemp())
        shutil.copy(template(), self.folder / "own.sqlite")
        self.store = Store(self.folder / "own.sqlite")
        self.client = Client(self.store)
        self.open: dict[int, set[int]] = {1: set(), 2: set()}
        self.archived: list[tuple[int, int]] = []
        self.sent: list[tuple[str, dict[str, Any], Any]] = []

    @rule(on=DAYS, volume=VOLUMES, pots=st.sampled_from([[1], [2], [1, 2]]))
    def pours(self, on: str, volume: int | None, pots: list[int]) -> None:
        body = pour(on=on, volume=volume, pot_ids=pots, note="any")
        key = f"key-{len(self.sent):06}"
        answer = self.client.made("/api/pours", body, key=key)
        self.sent.append((key, body, answer))
        for pot_id, pour_id in zip(pots, answer["pour_ids"], strict=True):
            self.open[pot_id].add(pour_id)

    @rule(data=st.data())
    def sends_again(self, data: st.DataObject) -> None:
        if self.sent:
            key, body, answer = data.draw(st.sampled_from(self.sent))
            assert self.client.made("/api/pours", body, key=key) == answer

    @rule(data=st.data())
    def takes_back(self, data: st.DataObject) -> None:
        choices = [(p, i) for p, ids in self.open.items() for i in sorted(ids)]
        if choices:
            pot_id, pour_id = data.draw(st.sampled_from(choices))
            self.client.made(f"/api/log/pour/{pour_id}/archive")
            self.open[pot_id].discard(pour_id)
            self.archived.append((pot_id, pour_id))

    @rule(data=st.data())
    def restores(self, data: st.DataObject) -> None:
        if self.archived:
            pot_id, pour_id = data.draw(st.sampled_from(self.archived))
            self.client.made(f"/api/log/pour/{pour_id}/restore")
            self.open[pot_id].add(pour_id)
            self.archived.remove((pot_id, pour_id))

    @rule(data=st.data(), ec=st.integers(10, 900), volume=st.floats(0.05, 0.5))
    def corrects(self, data: st.DataObject, ec: int, volume: float) -> None:
        choices = sorted(i for ids in self.open.values() for i in ids)
        if choices:
            pour_id = data.draw(st.sampled_from(choices))
            self.client.made(f"/api/log/pour/{pour_id}/correct", {"ec_uS_cm": ec, "volume_L": volume})

    @rule(on=DAYS, phase=st.sampled_from(["active", "slowing", "flowering"]))
    def notes_a_phase(self, on: str, phase: str) -> None:
        self.client.made("/api/pots/1/phase", {"phase": phase, "since": on})
        assert self.client.get("/api/pots/1")["row"]["phase"] == phase

    @rule(on=DAYS, marks=st.lists(st.sampled_from(["tip", "rim", "crust"]), unique=True))
    def looks(self, on: str, marks: list[str]) -> None:
        self.client.made("/api/pots/1/looks", {"on": on, "marks": marks, "leaves_count": 4})

    @rule(volume=st.sampled_from([-1, 0, "x", 1e9]))
    def is_refused(self, volume: Any) -> None:
        assert self.client.send("/api/pours", pour(volume=volume)).status_code == 422

    @invariant()
    def stored_fold_equals_a_fresh_one(self) -> None:
        if not hasattr(self, "client"):
            return
        for pot_id, ids in self.open.items():
            page = self.client.get(f"/api/pots/{pot_id}")
            assert {p["id"] for p in page["pours"]} == ids
            with self.store.reading() as session:
                pours = open_pours(session, pot_id)
                shares = BallastShares(session, pours)
                events = [as_event(p, shares) for p in pours]
                readings = readings_of(session, pot_id, looks_until(session, pot_id, TODAY))
            spec = self.spec(pot_id)
            fresh = root_zone(pot=spec, events=events, today=TODAY, readings=readings).result
            assert page["root_zone"]["reading_uS_cm"] == pytest.approx(fresh.reading_uS_cm, rel=1e-9)
            assert page["root_zone"]["reading_high_uS_cm"] == pytest.approx(fresh.reading_high_uS_cm, rel=1e-9)
            row = next(p for p in self.client.get("/api/pots")["pots"] if p["id"] == pot_id)
            shown = row["reading_uS_cm"]
            assert shown is None if not ids else shown == pytest.approx(fresh.reading_uS_cm, rel=1e-9)

    def spec(self, pot_id: int) -> Any:
        from fenwa.store.collection import pots_today

        with self.store.reading() as session:
            return next(p.spec for p in pots_today(session, TODAY) if p.pot.id == pot_id)

    def teardown(self) -> None:
        if hasattr(self, "store"):
            with self.store.reading() as session:
                stored = {p.id for p in session.query(Pour)}
            assert stored == {i for ids in self.open.values() for i in ids} | {i for _, i in self.archived}
            self.store.close()
            shutil.rmtree(self.folder)


AnyOrder.TestCase.settings = settings(
    max_examples=8, stateful_step_count=14, deadline=None, suppress_health_check=list(HealthCheck)
)
TestAnyOrder = AnyOrder.TestCase


def test_pours_logged_out_of_order_fold_by_their_day(kept: Client) -> None:
    for day in ("2026-11-20", "2026-11-02", "2026-11-11"):
        kept.made("/api/pours", pour(on=day))
    late_first = kept.get("/api/pots/1")
    assert [p["on"] for p in late_first["pours"]] == ["2026-11-02", "2026-11-11", "2026-11-20"]
    history = [p["on"] for p in late_first["root_zone"]["history"]]
    assert history == sorted(history)
    assert date.fromisoformat(late_first["row"]["last_pour_on"]) == date(2026, 11, 20)
