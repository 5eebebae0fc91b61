"""Speed and honesty of evidence: every change of 400 pots over fourteen months, and answers whose truth is known."""

from __future__ import annotations

import math
import tempfile
import time
from datetime import date, timedelta
from functools import partial
from pathlib import Path
from typing import Any

from fenwa.bench_honesty import diagnose, honesty
from fenwa.bench_pages import timed
from fenwa.bench_rows import TODAY
from fenwa.bench_scroll import PLANTS, collection

MONTHS_14 = 425
QUESTIONS, ILL = 3000, 4000


def _changed(path: Path) -> None:
    """Fourteen months of waterings with flushes, repottings and decisions for every plant of the collection."""
    from sqlalchemy import delete, insert

    from fenwa.store import models
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    store = Store(path)
    pours: list[dict[str, Any]] = []
    events: list[dict[str, Any]] = []
    decisions: list[dict[str, Any]] = []
    for pot in range(1, PLANTS + 1):
        for n, days in enumerate(range(MONTHS_14, 0, -9)):
            job = "flush" if (n + pot) % 16 == 5 else "plain"
            pours.append(
                {"pot_id": pot, "water_id": 1, "on": TODAY - timedelta(days=days), "job": job, "route": "top"}
                | {"volume_L": 0.2, "ec_uS_cm": 40.0, "ec_estimated": False, "note": ""}
            )
        events.append({"pot_id": pot, "on": TODAY - timedelta(days=60 + pot % 200), "kind": "repotted", "note": ""})
        on: date = TODAY - timedelta(days=30 + pot % 250)
        decisions.append({"pot_id": pot, "on": on, "what": "wait", "why": "", "look_again_on": on + timedelta(days=40)})
    with store.writing() as s:
        s.execute(insert(models.Pour), pours)
        s.execute(insert(models.Event), events)
        s.execute(insert(models.Decision), decisions)
        s.execute(delete(models.PotSummary))
    prepare_store(store)
    store.close()


def answers() -> None:
    """Print how long every change takes, and how often the answers are right."""
    from fastapi.testclient import TestClient

    from fenwa.api.app import create_app
    from fenwa.store.session import Store

    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "answers.sqlite"
        collection(database)
        _changed(database)
        store = Store(database)
        client = TestClient(create_app(store, lambda: TODAY), base_url="http://127.0.0.1")
        client.get("/api/pots")
        first = timed(partial(client.get, "/api/changes"))
        times = []
        for i in range(5):
            decided = {"on": TODAY.isoformat(), "what": f"note {i}"}
            client.post(
                f"/api/pots/{i + 1}/decisions", json=decided, headers={"Idempotency-Key": f"bench-answers-{i:03}"}
            ).raise_for_status()
            client.get("/api/pots")
            times.append(timed(partial(client.get, "/api/changes")) * 1000)
        page = client.get("/api/changes").json()
        again = timed(partial(client.get, "/api/changes")) * 1000
        store.close()
    said = f"{page['total']} changes of {PLANTS} pots over 14 months"
    print(
        f"{said}: {sorted(times)[2]:.0f} ms straight after a write (target 300 ms), {again:.0f} ms again, "
        f"{first:.1f} s the first time after a start"
    )
    _honest()


def _honest() -> None:
    start = time.perf_counter()
    for pairs in (1, 6, 8, 12):
        h = honesty(QUESTIONS, pairs, 0.0)
        print(f"  no effect, {pairs} pairs: fair or better in {100 * h.fair_or_better:.1f} of 100 (under 5)")
    seen = honesty(QUESTIONS, 6, math.log(1.25))
    print(f"  25 % longer, six pairs: fair or better in {100 * seen.fair_or_better:.0f} of 100 (over 60)")
    for pairs in (1, 2, 6):
        h = honesty(QUESTIONS, pairs, None)
        print(f"  80 % ranges of {pairs} pairs hold the truth in {100 * h.covered:.1f} of 100 (75 to 85)")
    told = diagnose(ILL)
    print(
        f"  {ILL} ill plants: the cause among three in {100 * told.in_best_three:.1f} of 100 (85), its opposite "
        f"advised in {100 * told.harmful:.2f}, a cause dated after the sign led {told.later_led} times"
    )
    print(f"  asked in {time.perf_counter() - start:.0f} s")
