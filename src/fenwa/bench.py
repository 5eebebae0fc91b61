"""Speed measured in one run: forecasts, ion model, page data, first-load JavaScript."""

from __future__ import annotations

import gzip
import math
import re
import tempfile
import time
from collections.abc import Callable
from datetime import date, timedelta
from functools import partial
from pathlib import Path
from statistics import quantiles
from typing import Any

import numpy as np

TODAY = date(2026, 11, 23)
CANS = 726  # a can a day for two years


def _timed(run: Callable[[], Any]) -> float:
    start = time.perf_counter()
    run()
    return time.perf_counter() - start


def _plain_loop(
    theta: float, volume: float, phi: float, eta: float, u: float, k: float, R: float, days: float
) -> tuple[float, float, float]:
    """The same balance for one member in plain Python, as a yardstick: mobile water, its EC, the immobile EC."""
    W_cc = theta * volume
    W_i, W_cap = phi * W_cc, (1 - phi) * W_cc
    W, C, Ci, t = W_cap, 400.0, 400.0, 0.0
    pours = (400.0, 400.0, 400.0, 40.0)
    n = 0
    while t < days:
        t += 6.0
        left = max(W - 0.05 * W_cc * 6.0, 0.1 * W_cap)
        C *= (left / W) ** (u - 1)
        W = left
        weight = R * W_i
        mean = (W * C + weight * Ci) / (W + weight)
        gap = (Ci - C) * math.exp(-k * 144.0)
        C, Ci = mean - gap * weight / (W + weight), mean + gap * W / (W + weight)
        C_in = pours[n % 4]
        n += 1
        refill = min(0.25, W_cap - W)
        C = (W * C + refill * C_in) / (W + refill)
        W += refill
        C = C_in + (C - C_in) * math.exp(-eta * max(0.25 - refill, 0.0) / W)
    return W, C, Ci


def _forecasts() -> None:
    from fenwa.core.pot.balance import State
    from fenwa.core.pot.fold import Rhythm, forecast
    from fenwa.core.pot.specification import MEMBERS, Medium, PotSpec, members_of

    n = 2000
    pots = [PotSpec(1.0, Medium(0.25, 0.55, 1.0, 0.5, 1.1))] * n
    members = members_of(pots)
    start = 400.0 * members.start_factor * np.ones_like(members.soil.W_m_cc)
    rhythms = [Rhythm(6.0, (0.25,) * 4, (400.0, 400.0, 400.0, 40.0))] * n
    state = State(members.soil.W_m_cc * 1.0, start, start)
    fast = min(_timed(lambda: forecast(pots, members, state, rhythms, 365)) for _ in range(3))
    sample = 40

    def loop() -> None:
        for _ in range(sample * MEMBERS):
            _plain_loop(0.25, 1.0, 0.55, 0.5, 0.25, math.log(2), 1.1, 365.0)

    slow = _timed(loop) * n / sample
    print(f"root-zone forecasts, {n} pots x 365 days x {MEMBERS} members: {fast:.2f} s (target 1 s)")
    print(f"  the same as a plain Python loop (from {sample} pots): {slow:.1f} s, ratio {slow / fast:.0f}")


def _ions() -> None:
    from fenwa.core.water.conductivity import ec_of, ion_conductivity
    from fenwa.core.water.ions import AddedIons
    from fenwa.core.water.kinds import SHAPES

    feed = AddedIons(NO3_N_mg_L=54.0, NH4_N_mg_L=6.0, P_mg_L=6.0, K_mg_L=57.0, Ca_mg_L=37.0, Mg_mg_L=9.0, S_mg_L=8.0)
    ec_of(SHAPES["mains"], feed)  # loads the optimiser
    runs = 200
    bare = _timed(lambda: [ec_of(SHAPES["mains"], feed.scaled(1 + i / 500)) for i in range(runs)])
    full = _timed(
        lambda: [ion_conductivity(water=SHAPES["mains"], added=feed.scaled(1 + i / 500)) for i in range(runs)]
    )
    print(
        f"ion-conductivity, feed in hard water: {runs / bare:.0f} per second; with working {runs / full:.0f} per second"
    )
    _many_ions(feed)


def _many_ions(feed: Any) -> None:
    import numpy as np

    from fenwa.core.water.kinds import SHAPES
    from fenwa.core.water.many import ec_of_many

    n = 4000
    rng = np.random.default_rng(5)
    waters = {k: v * rng.uniform(0.3, 1.2, n) for k, v in vars(SHAPES["mains"]).items() if v is not None and k != "pH"}
    fed = {k: v * rng.uniform(0.2, 1.5, n) for k, v in vars(feed).items()}
    plain = min(_timed(lambda: ec_of_many(waters)) for _ in range(3))
    dosed = min(_timed(lambda: ec_of_many(waters, fed)) for _ in range(3))
    print(f"  as arrays: {n / plain:.0f} waters per second, {n / dosed:.0f} feeds per second (target 20000)")


def _big_collection(path: Path) -> Any:
    """500 pots and 100 000 log rows, written in bulk and folded once."""
    from sqlalchemy import insert

    from fenwa.api.app import create_app, prepare_store
    from fenwa.demo.scenario import POTS
    from fenwa.store import models
    from fenwa.store.session import Store

    store = Store(path)
    pots, per_pot = 500, 170
    with store.writing() as s:
        s.add(models.Place(id=1, name="Bench"))
        s.add_all([models.Water(id=1, name="Rain", kind="rain", preference=1, disinfectant="none"),
                   models.Water(id=2, name="Borehole", kind="borehole", preference=2, disinfectant="none")])  # fmt: skip
        s.flush()
        for i in range(pots):
            d = POTS[i % len(POTS)]
            s.add(models.Pot(id=i + 1, code=f"K-{i + 1:03}", name="", place_id=1, shelf_order=i, medium_id=d.medium,
                             volume_L=d.volume_L, drainage=d.drainage, route=d.route, interval_days=d.interval,
                             plain_every=d.plain_every))  # fmt: skip
            s.flush()
            s.add(models.Plant(id=i + 1, pot_id=i + 1, profile_id=d.profile))
            s.flush()
            s.add(models.Growth(id=i + 1, plant_id=i + 1))
        s.flush()
        days = [TODAY - timedelta(days=4 * n + 1) for n in range(per_pot)]
        s.execute(insert(models.Pour), [
            {"pot_id": p + 1, "water_id": 1, "on": d, "job": "plain" if n % 4 == 0 else "feed", "route": "top",
             "volume_L": 0.2, "ec_uS_cm": 40.0 if n % 4 == 0 else 380.0, "note": ""}
            for p in range(pots) for n, d in enumerate(days)
        ])  # fmt: skip
        _log_cans(s, pots)
        s.execute(insert(models.Look), [
            {"pot_id": p + 1, "plant_id": p + 1, "on": TODAY - timedelta(days=20 * n + 3), "leaves_count": 5,
             "newest_leaf_mm": 100.0, "new_leaf": n % 3 == 0, "marks": [], "marks_looked_for": True, "unknown": [],
             "note": ""}
            for p in range(pots) for n in range(28)
        ])  # fmt: skip
        s.execute(insert(models.Reading), [
            {"water_id": 1 + n % 2, "on": TODAY - timedelta(days=n % 700), "value": 35.0, "unit": "µS/cm",
             "compensated": True, "ec25_uS_cm": 35.0 + 700 * (n % 2), "half_width_uS_cm": 2.0, "refusal": "", "note": "",
             "on_precision": "day"}
            for n in range(1000)
        ])  # fmt: skip
    prepare_store(store)
    return create_app(store, lambda: TODAY)


def _log_cans(s: Any, pots: int) -> None:
    """A can a day for two years, each poured on a few pots: what is left of them is asked on every page of cans."""
    from dataclasses import asdict

    from sqlalchemy import insert

    from fenwa.core.data.loader import fertilizers
    from fenwa.store import models

    label = fertilizers()["balanced_13_3_15_ca_mg"].label
    s.add(models.Product(id=1, library_id="balanced_13_3_15_ca_mg", name=label.name, label=asdict(label)))
    s.flush()
    s.add(models.Recipe(id=1, name="thin"))
    s.flush()
    s.add(models.RecipeVersion(id=1, recipe_id=1, version=1, made_on=TODAY - timedelta(days=CANS), product_id=1,
                               label=asdict(label), strength="nitrogen", value=40.0))  # fmt: skip
    s.flush()
    s.execute(insert(models.Batch), [
        {"id": n + 1, "made_on": TODAY - timedelta(days=n), "name": "", "water_id": 1, "water_ec_uS_cm": 40.0, "product_id": 1,
         "recipe_version_id": 1, "volume_L": 5.0, "dose_g_L": 0.31, "nitrogen_mg_L": 40.0, "predicted_uS_cm": 380.0,
         "predicted_low_uS_cm": 360.0, "predicted_high_uS_cm": 400.0, "model_added_uS_cm": 340.0, "measured_uS_cm": 385.0,
         "verdict": "fine"}
        for n in range(CANS)
    ])  # fmt: skip
    s.execute(insert(models.Pour), [
        {"pot_id": 1 + (7 * n + k) % pots, "batch_id": n + 1, "on": TODAY - timedelta(days=n), "job": "feed", "route": "top",
         "volume_L": 0.2, "ec_uS_cm": 380.0, "note": ""}
        for n in range(CANS) for k in range(10)
    ])  # fmt: skip


def _care() -> None:
    """A year of 500 pots, and one day's round for 5,000."""
    from fenwa.core.care.day import Chosen, KeptPot, PlaceFacts
    from fenwa.core.care.due import RoundPot
    from fenwa.core.care.pattern import FedSoFar, every_nth
    from fenwa.core.care.round import RoundWater, rise_per_mg_N, round_plan
    from fenwa.core.care.standing import InForce
    from fenwa.core.care.year import YearPot, YearWater, days_of
    from fenwa.core.data.loader import fertilizers, habits, media, profiles, schools
    from fenwa.core.pot.specification import PotSpec
    from fenwa.core.water.kinds import BaseWater

    kinds, soils = list(profiles().values()), list(media().values())
    label = fertilizers()["balanced_13_3_15_ca_mg"].label
    rise = rise_per_mg_N(label)
    pots = []
    for i in range(500):
        kind = kinds[i % len(kinds)]
        habit = habits()[kind.habit]
        spec = PotSpec(
            0.3 + 0.1 * (i % 9), soils[i % len(soils)].medium(), habit.u, habit.loss_per_day, u_ballast=habit.u_ballast
        )
        pots.append(YearPot(KeptPot(i, interval_days=sum(habit.interval_days) / 2), kind, spec,
                            PlaceFacts(hemisphere=("north", "south")[i % 2]),
                            Chosen(schools()["thin_and_constant"], phase_by=InForce("calendar", "own"))))  # fmt: skip
    waters = [YearWater(1, 15.0), YearWater(2, 180.0), YearWater(3, 450.0)]
    year = _timed(lambda: list(days_of(pots, waters, date(2026, 1, 5), 365, lambda n: rise * n)))
    print(f"a year of 500 pots, day by day: {year:.1f} s (target 10 s)")
    due = []
    for i in range(5000):
        feeding = kinds[i % len(kinds)].phases["active"]
        low, high = feeding.n_ideal_mg_L
        due.append(RoundPot(i, f"K-{i}", "", "bench", i, i % 50 == 0, 5, every_nth(4), FedSoFar(), None, None, feeding.feed, low, high,
                            feeding.ec_ceiling_uS_cm, kinds[i % len(kinds)].carnivore, 0.2, "top", 300.0, 1e4, 0, 0, 0, "", False, (1, 2)))  # fmt: skip
    base = [RoundWater(1, "Rain", BaseWater(34.0, "rain")), RoundWater(2, "Well", BaseWater(180.0, "borehole"))]
    round_plan(pots=due, waters=base, label=label, today=TODAY)
    times = [_timed(lambda: round_plan(pots=due, waters=base, label=label, today=TODAY)) * 1000 for _ in range(8)]
    print(f"a day's round for 5000 pots: median {sorted(times)[4]:.0f} ms, most {max(times):.0f} ms (target 300 ms)")


def floor_ms(address: str, requests: int) -> tuple[float, float]:
    """Median and 95th percentile of the smallest question, asked by a real client over one kept line. [ms]"""
    import http.client
    from urllib.parse import urlsplit

    where = urlsplit(address)
    line = http.client.HTTPConnection(str(where.hostname), where.port)

    def ask() -> None:
        line.request("GET", "/api/health")
        line.getresponse().read()

    ask()
    times = [_timed(ask) * 1000 for _ in range(requests)]
    line.close()
    return sorted(times)[requests // 2], quantiles(times, n=20)[-1]


def _floor() -> None:
    """What every request costs whatever it asks: a server of its own, a real socket."""
    import os
    import subprocess
    import sys

    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "fenwa.cli", "serve", "--port", "0", "--database", f"{folder}/floor.sqlite"]
        process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=dict(os.environ))  # noqa: S603 - our own
        try:
            assert process.stdout is not None
            said = re.search(r"https?://\S+:\d+", process.stdout.readline())
            assert said, "the server did not say where it answers"
            middle, most = floor_ms(said.group(), 200)
        finally:
            process.terminate()
            process.wait(timeout=10)
    print(f"a request's floor from a real client: median {middle:.1f} ms, p95 {most:.1f} ms (target 5 ms)")


def _pages() -> None:
    from fastapi.testclient import TestClient

    with tempfile.TemporaryDirectory() as folder:
        start = time.perf_counter()
        client = TestClient(_big_collection(Path(folder) / "bench.sqlite"), base_url="http://127.0.0.1")
        print(f"500 pots and 100 000 log rows stored and folded in {time.perf_counter() - start:.0f} s")
        pages = ["/api/stations", "/api/round", "/api/water", "/api/mix", "/api/pots", "/api/pots/{}", "/api/settings"]
        for page in pages:
            client.get(page.format(1))
        everything = []
        for page in pages:
            times = [_timed(partial(client.get, page.format(7 * i % 500 + 1))) * 1000 for i in range(20)]
            everything += times
            print(f"  {page:16} median {sorted(times)[10]:.0f} ms, p95 {quantiles(times, n=20)[-1]:.0f} ms")
        _mix_screen(client)
        feed = {"pot_ids": [1], "on": TODAY.isoformat(), "water_id": 1, "volume": 200, "note": "bench"}
        after = []
        for i in range(20):
            feed["pot_ids"] = [i + 1]
            client.post("/api/pours", json=feed, headers={"Idempotency-Key": f"bench-{i:04}"}).raise_for_status()
            after += [_timed(partial(client.get, page)) * 1000 for page in ("/api/round", "/api/stations")]
        print(f"  round and stations straight after a pour: p95 {quantiles(after, n=20)[-1]:.0f} ms")
        print(f"page data, all pages: p95 {quantiles(everything, n=20)[-1]:.0f} ms (target 50 ms)")


def _asked(client: Any, body: dict[str, Any]) -> None:
    client.post("/api/mix/preview", json=body).raise_for_status()


def _mix_screen(client: Any) -> None:
    """The whole Mix screen worked out anew while a strength is dragged, for several cans."""
    ids = {p["name"]: p["id"] for p in client.get("/api/mix").json()["products"]}
    lead = ids["Nitrate feed 13-3-15 with Ca and Mg"]
    salts = [ids[n] for n in ("Magnesium sulfate, heptahydrate", "Monopotassium phosphate", "Potassium nitrate")]
    cans: list[tuple[str, dict[str, Any]]] = [
        ("one feed in rain, 0.5 L", {"product_id": lead, "water_id": 1, "volume": 0.5, "pot_ids": [2, 5]}),
        ("one feed in hard water", {"product_id": lead, "water_id": 2, "volume": 5, "pot_ids": [2, 5]}),
        ("four products in a blend", {"product_id": ids["Calcium nitrate, tetrahydrate"], "water_id": 1, "volume": 5,
                                      "blend": [{"water_id": 1, "share": 3}, {"water_id": 2, "share": 1}], "pot_ids": [2, 5, 9],
                                      "also": [{"product_id": i, "dose": 0.1} for i in salts]}),
    ]  # fmt: skip
    whole = []
    for name, can in cans:
        times = []
        for i in range(60):
            strength, value = (("nitrogen", 40 + 1.3 * i), ("ec_added", 350 + 7.0 * i))[i % 2]
            body = {**can, "strength": strength, "value": value}
            times.append(_timed(partial(_asked, client, body)) * 1000)
        whole += times
        print(f"  Mix screen, {name:26} median {sorted(times)[30]:.0f} ms, p95 {quantiles(times, n=20)[-1]:.0f} ms")
    print(f"whole Mix screen worked out anew: p95 {quantiles(whole, n=20)[-1]:.0f} ms (target 50 ms)")


def first_load_kB(web: Path) -> float:
    """Compressed size of the scripts the first page loads. [kB]"""
    html = (web / "index.html").read_text("utf-8")
    names = set(re.findall(r'(?:src|href)="/(assets/[^"]+\.js)"', html))
    return sum(len(gzip.compress((web / n).read_bytes(), 9)) for n in names) / 1000


def run(web: Path) -> None:
    """Print every measure."""
    _forecasts()
    _ions()
    _care()
    _floor()
    _pages()
    if (web / "index.html").exists():
        print(f"first-load JavaScript: {first_load_kB(web):.0f} kB compressed (target 200 kB)")
    else:
        print("first-load JavaScript: the interface is not built; run ./fenwa demo once")
