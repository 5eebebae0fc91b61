"""Page data and the Mix screen over a large collection, as the bench measures them."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from statistics import quantiles
from typing import Any

from fenwa.bench_rows import HOUSE, TODAY, written


def timed(run: Callable[[], Any]) -> float:
    start = time.perf_counter()
    run()
    return time.perf_counter() - start


def _big_collection(path: Path) -> Any:
    """500 pots and 100 000 log rows, written in bulk and folded once."""
    from fenwa.api.app import create_app
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    written(path, HOUSE)
    store = Store(path)
    prepare_store(store)
    return create_app(store, lambda: TODAY)


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
