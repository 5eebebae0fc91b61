"""Page data and the Mix screen over a large collection, as the bench measures them."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from datetime import date, timedelta
from functools import partial
from pathlib import Path
from statistics import quantiles
from typing import Any

TODAY = date(2026, 11, 23)
CANS = 726  # a can a day for two years


def timed(run: Callable[[], Any]) -> float:
    start = time.perf_counter()
    run()
    return time.perf_counter() - start


def _big_collection(path: Path) -> Any:
    """500 pots and 100 000 log rows, written in bulk and folded once."""
    from sqlalchemy import insert

    from fenwa.api.app import create_app
    from fenwa.demo.scenario_pots import POTS
    from fenwa.store import models
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    store = Store(path)
    pots, per_pot = 500, 170
    with store.writing() as s:
        s.add(models.Place(id=1, name="Bench"))
        s.add_all(
            [
                models.Water(id=1, name="Rain", kind="rain", preference=1, disinfectant="none"),
                models.Water(id=2, name="Borehole", kind="borehole", preference=2, disinfectant="none"),
            ]
        )
        s.flush()
        for i in range(pots):
            d = POTS[i % len(POTS)]
            s.add(
                models.Pot(
                    id=i + 1,
                    code=f"K-{i + 1:03}",
                    name="",
                    place_id=1,
                    shelf_order=i,
                    medium_id=d.medium,
                    volume_L=d.volume_L,
                    drainage=d.drainage,
                    route=d.route,
                    interval_days=d.interval,
                    plain_every=d.plain_every,
                )
            )
            s.flush()
            s.add(models.Plant(id=i + 1, pot_id=i + 1, profile_id=d.profile))
            s.flush()
            s.add(models.Growth(id=i + 1, plant_id=i + 1))
        s.flush()
        days = [TODAY - timedelta(days=4 * n + 1) for n in range(per_pot)]
        s.execute(
            insert(models.Pour),
            [
                {
                    "pot_id": p + 1,
                    "water_id": 1,
                    "on": d,
                    "job": "plain" if n % 4 == 0 else "feed",
                    "route": "top",
                    "volume_L": 0.2,
                    "ec_uS_cm": 40.0 if n % 4 == 0 else 380.0,
                    "note": "",
                }
                for p in range(pots)
                for n, d in enumerate(days)
            ],
        )
        _log_cans(s, pots)
        s.execute(
            insert(models.Look),
            [
                {
                    "pot_id": p + 1,
                    "plant_id": p + 1,
                    "on": TODAY - timedelta(days=20 * n + 3),
                    "leaves_count": 5,
                    "newest_leaf_mm": 100.0,
                    "new_leaf": n % 3 == 0,
                    "marks": [],
                    "marks_looked_for": True,
                    "unknown": [],
                    "note": "",
                }
                for p in range(pots)
                for n in range(28)
            ],
        )
        s.execute(
            insert(models.Reading),
            [
                {
                    "water_id": 1 + n % 2,
                    "on": TODAY - timedelta(days=n % 700),
                    "value": 35.0,
                    "unit": "µS/cm",
                    "compensated": True,
                    "ec25_uS_cm": 35.0 + 700 * (n % 2),
                    "half_width_uS_cm": 2.0,
                    "refusal": "",
                    "note": "",
                    "on_precision": "day",
                }
                for n in range(1000)
            ],
        )
    prepare_store(store)
    return create_app(store, lambda: TODAY)


def _log_cans(s: Any, pots: int) -> None:
    """A can a day for two years, each poured on a few pots: what is left of them is asked on every page of cans."""
    from dataclasses import asdict

    from sqlalchemy import insert

    from fenwa.core.library.loader import fertilizers
    from fenwa.store import models

    label = fertilizers()["balanced_13_3_15_ca_mg"].label
    s.add(models.Product(id=1, library_id="balanced_13_3_15_ca_mg", name=label.name, label=asdict(label)))
    s.flush()
    s.add(models.Recipe(id=1, name="thin"))
    s.flush()
    s.add(
        models.RecipeVersion(
            id=1,
            recipe_id=1,
            version=1,
            made_on=TODAY - timedelta(days=CANS),
            product_id=1,
            label=asdict(label),
            strength="nitrogen",
            value=40.0,
        )
    )
    s.flush()
    s.execute(
        insert(models.Batch),
        [
            {
                "id": n + 1,
                "made_on": TODAY - timedelta(days=n),
                "name": "",
                "water_id": 1,
                "water_ec_uS_cm": 40.0,
                "product_id": 1,
                "recipe_version_id": 1,
                "volume_L": 5.0,
                "dose_g_L": 0.31,
                "nitrogen_mg_L": 40.0,
                "predicted_uS_cm": 380.0,
                "predicted_low_uS_cm": 360.0,
                "predicted_high_uS_cm": 400.0,
                "model_added_uS_cm": 340.0,
                "measured_uS_cm": 385.0,
                "verdict": "fine",
            }
            for n in range(CANS)
        ],
    )
    s.execute(
        insert(models.Pour),
        [
            {
                "pot_id": 1 + (7 * n + k) % pots,
                "batch_id": n + 1,
                "on": TODAY - timedelta(days=n),
                "job": "feed",
                "route": "top",
                "volume_L": 0.2,
                "ec_uS_cm": 380.0,
                "note": "",
            }
            for n in range(CANS)
            for k in range(10)
        ],
    )


def pages() -> None:
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
            times = [timed(partial(client.get, page.format(7 * i % 500 + 1))) * 1000 for i in range(20)]
            everything += times
            print(f"  {page:16} median {sorted(times)[10]:.0f} ms, p95 {quantiles(times, n=20)[-1]:.0f} ms")
        _mix_screen(client)
        feed = {"pot_ids": [1], "on": TODAY.isoformat(), "water_id": 1, "volume": 200, "note": "bench"}
        after = []
        for i in range(20):
            feed["pot_ids"] = [i + 1]
            client.post("/api/pours", json=feed, headers={"Idempotency-Key": f"bench-{i:04}"}).raise_for_status()
            after += [timed(partial(client.get, page)) * 1000 for page in ("/api/round", "/api/stations")]
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
        (
            "four products in a blend",
            {
                "product_id": ids["Calcium nitrate, tetrahydrate"],
                "water_id": 1,
                "volume": 5,
                "blend": [{"water_id": 1, "share": 3}, {"water_id": 2, "share": 1}],
                "pot_ids": [2, 5, 9],
                "also": [{"product_id": i, "dose": 0.1} for i in salts],
            },
        ),
    ]
    whole = []
    for name, can in cans:
        times = []
        for i in range(60):
            strength, value = (("nitrogen", 40 + 1.3 * i), ("ec_added", 350 + 7.0 * i))[i % 2]
            body = {**can, "strength": strength, "value": value}
            times.append(timed(partial(_asked, client, body)) * 1000)
        whole += times
        print(f"  Mix screen, {name:26} median {sorted(times)[30]:.0f} ms, p95 {quantiles(times, n=20)[-1]:.0f} ms")
    print(f"whole Mix screen worked out anew: p95 {quantiles(whole, n=20)[-1]:.0f} ms (target 50 ms)")
