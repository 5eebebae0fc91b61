"""The demonstration has work on any day; the bench measures what it says; the one command is whole."""

import math
import sqlite3
import subprocess
from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pytest
from sqlalchemy import text
from typer.testing import CliRunner

from fenwa import bench_large, bench_machine
from fenwa.bench import first_load_kB, named_at_first, needed_by
from fenwa.bench_plain import _plain_loop
from fenwa.bench_rows import NURSERY
from fenwa.bench_schema import EARLIER, commit_ms, filled
from fenwa.bench_schema import POTS as FILLED_POTS
from fenwa.cli import app as commands
from fenwa.core.errors import Conflict
from fenwa.core.library.loader import get_profile, media, profiles
from fenwa.core.pot.ahead import Rhythm, forecast
from fenwa.core.pot.balance import State
from fenwa.core.pot.specification import Medium, PotSpec, members_of
from fenwa.demo.database import fill_if_stale
from fenwa.demo.scenario import WATERS
from fenwa.demo.scenario_pots import POTS
from fenwa.store import models
from fenwa.store.migrate import HEAD, current
from fenwa.store.prepare import prepare_store
from fenwa.store.session import Store
from tests.conftest import TODAY, Client

ROOT = Path(__file__).parents[2]


def test_scenario_names_only_what_the_core_knows() -> None:
    assert len({p.code for p in POTS}) == len(POTS) == 24
    for p in POTS:
        assert p.profile in profiles()
        assert p.medium in media()
        assert 0 < p.offset <= max(p.interval, 30)
        if p.nitrogen:
            assert get_profile(p.profile).feeding.routes[0] == "root"
    assert [w["preference"] for w in WATERS] == [1, 2, 3, 4, 5, 6]


@pytest.mark.parametrize("today", [date(2027, 2, 28), date(2028, 2, 29)])
def test_any_day_of_the_demonstration_has_work_on_it(tmp_path: Path, today: date) -> None:
    store = Store(tmp_path / "demo.sqlite")
    assert fill_if_stale(store, today)
    prepare_store(store)
    client = Client(store, today)
    plan = client.get("/api/round")["plan"]
    assert {"plain", "feed"} <= {c["job"] for c in plan["cans"]}
    assert plan["pots_due"] >= 8
    assert {"Resting", "Arrived"} <= {look["reason"].split()[0] for look in plan["looks"]}
    rows = client.get("/api/pots")["pots"]
    assert all(r["reading_uS_cm"] is not None for r in rows)
    assert max(date.fromisoformat(r["last_pour_on"]) for r in rows) < today
    store.close()


def test_another_day_makes_the_demonstration_anew(tmp_path: Path, demo: Client) -> None:
    with sqlite3.connect(demo.store.path) as made, sqlite3.connect(tmp_path / "demo.sqlite") as copy:
        made.backup(copy)
    store = Store(tmp_path / "demo.sqlite")
    assert not fill_if_stale(store, TODAY)
    assert fill_if_stale(store, date(2027, 3, 1))
    assert len(Client(store, date(2027, 3, 1)).get("/api/pots")["pots"]) == 24
    store.close()


def test_the_demonstration_never_writes_over_a_collection(kept: Client) -> None:
    with pytest.raises(Conflict, match="holds a collection of its own"):
        fill_if_stale(kept.store, date(2026, 11, 23))
    assert len(kept.get("/api/pots")["pots"]) == 1
    path = str(kept.store.path)
    result = CliRunner().invoke(commands, ["demo", "--database", path])
    assert result.exit_code == 2
    assert "Leave --database out" in result.output


def test_the_yardstick_of_the_bench_is_the_same_model() -> None:
    medium = Medium(0.25, 0.55, 1.0, 0.5, 1.1)
    pot = PotSpec(1.0, medium)
    members = members_of([pot])
    start = 400.0 * np.ones_like(members.soil.W_m_cc)
    state = State(members.soil.W_m_cc * 1.0, start, start)
    rhythm = Rhythm(6.0, (0.25,) * 4, (400.0, 400.0, 400.0, 40.0))
    by_arrays = forecast([pot], members, state, [rhythm], 24.0, date(2026, 1, 1)).readings[0, -1, 0]
    W, C, Ci = _plain_loop(0.25, 1.0, 0.55, 0.5, 0.25, math.log(2), 1.1, 24.0)
    W_i, W_cap = 0.55 * 0.25, 0.45 * 0.25
    root = (W * C + W_i * Ci) / (W_cap + W_i)
    x = float(members.leachate_L[0, 0]) / W_cap
    by_loop = 1 + (root - 1) * (1 - math.exp(-0.5 * x)) / x
    assert by_loop == pytest.approx(by_arrays, rel=1e-9)
    assert C < Ci  # the last pour was the rinse: the mobile water is the fresher
    assert pytest.approx(W_cap) == W


def test_first_load_stays_within_its_target() -> None:
    assert 150 < first_load_kB(ROOT / "web" / "dist") <= 200


def test_what_is_worked_out_first_waits_for_no_script_of_the_page() -> None:
    """Styles are laid out while the page is on its way: a library that is moved about must not tie them to it."""
    web = ROOT / "web" / "dist"
    first = named_at_first(web)
    assert needed_by(web, first) == first
    assert {name.split("-")[0] for name in first} == {"index", "first", "system"}
    assert sum((web / "assets" / name).stat().st_size for name in first) < 120_000


def test_the_one_command_is_sound_and_ci_calls_it() -> None:
    script = ROOT / "fenwa"
    subprocess.run(["bash", "-n", str(script)], check=True)
    said = subprocess.run([str(script), "help"], capture_output=True, text=True, check=True).stdout
    for command in ("demo", "serve", "calc", "test", "check", "bench", "types", "pictures"):
        assert f"./fenwa {command}" in said
    assert (ROOT / ".ci" / "run").read_text().rstrip().endswith("./fenwa test")


def test_requirements_in_are_all_locked() -> None:
    locked = (ROOT / "requirements.txt").read_text() + (ROOT / "requirements-dev.txt").read_text()
    for name in ("requirements.in", "requirements-dev.in"):
        for row in (ROOT / name).read_text().splitlines():
            if row and not row.startswith("-r"):
                assert f"\n{row} \\\n" in f"\n{locked}", row


def test_the_large_bench_measures_what_it_says_over_a_small_house(monkeypatch: pytest.MonkeyPatch) -> None:
    """The same run as ``./fenwa bench --large``, over a small one."""
    monkeypatch.setattr(bench_large, "TIMES", 2)
    monkeypatch.setattr(bench_large, "POURS", 3)
    monkeypatch.setattr(bench_large, "STARTS", 2)
    monkeypatch.setattr(bench_machine, "TRIES", 1)
    monkeypatch.setattr(bench_machine, "_left_s", 0.0)
    monkeypatch.setenv("PYTHONPATH", str(ROOT / "src"))
    size = replace(NURSERY, pots=40, pours=9, looks=1, runoffs=1, feels=1, climate_days=5, cans=5, leaves=10)
    lines, after = bench_large.measured(size)
    found = {x.what: x for x in lines}
    assert set(after) == set(bench_large.PAGES)
    assert found["pots, rows of the log"].found == f"40, {size.rows:,}"
    for what in (
        "start until it answers, median of 2",
        "pages when nothing changed, p95",
        "the round of tomorrow, first asked",
        "a pour while four readers read, pour after pour, p95",
    ):
        assert found[what].target
        assert float(found[what].found.split()[0]) > 0
        assert float(found[what].machine.split()[0]) > 0, "how the machine was meanwhile"
    assert found["`/api/round?rows=40` straight after a pour"].found == f"{after['/api/round?rows=40']:.0f} ms"
    assert bench_large.table(list(found.values())).startswith("| | found | target | ratio | walk and sum, taken |")


@pytest.mark.parametrize("revision", EARLIER)
def test_the_bench_brings_rows_of_each_earlier_schema_to_this_one(tmp_path: Path, revision: str) -> None:
    """What it times is a whole migration: every row is there afterwards, with its pot."""
    filled(tmp_path / "old.sqlite", revision, 300)
    store = Store(tmp_path / "old.sqlite")
    assert current(store.engine) == HEAD
    with store.reading() as session:
        assert session.query(models.Pour).count() == 300
        assert session.query(models.Pot).count() == FILLED_POTS
        assert session.execute(text("PRAGMA foreign_key_check")).fetchall() == []
    store.close()


def test_a_commit_is_timed() -> None:
    assert commit_ms("FULL") > 0
