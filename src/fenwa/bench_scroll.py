"""The Leaf station scrolled from end to end with 400 plants in a real browser, as the bench measures it."""

from __future__ import annotations

import tempfile
from datetime import timedelta
from pathlib import Path
from statistics import quantiles
from typing import Any

from fenwa.bench_rows import TODAY
from fenwa.bench_served import Served

PLANTS, LEAVES = 400, 12  # scrolled by 100 px a frame: a fast flick of 6 000 px a second
FRAMES = """async () => {
  const times = []
  let last = performance.now()
  const end = document.documentElement.scrollHeight - window.innerHeight
  for (let y = 0; y < end; y += 100) {
    window.scrollTo(0, y)
    await new Promise(requestAnimationFrame)
    const now = performance.now()
    times.push(now - last)
    last = now
  }
  return times.slice(2)
}"""


def collection(path: Path) -> None:
    """400 plants, each with a year of leaves."""
    from sqlalchemy import insert

    from fenwa.demo.scenario_pots import POTS
    from fenwa.store import models
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    store = Store(path)
    with store.writing() as s:
        s.add(models.Place(id=1, name="Bench"))
        s.add(models.Water(id=1, name="Rain", kind="rain", preference=1, disinfectant="none"))
        s.flush()
        rows: dict[Any, list[dict[str, Any]]] = {
            m: [] for m in (models.Pot, models.Plant, models.Growth, models.Leaf, models.Look)
        }
        for i in range(1, PLANTS + 1):
            d = POTS[i % len(POTS)]
            rows[models.Pot].append(
                {"id": i, "code": f"K-{i:03}", "name": "", "place_id": 1, "shelf_order": i, "medium_id": d.medium}
                | {"volume_L": d.volume_L, "drainage": d.drainage, "route": d.route, "interval_days": d.interval}
                | {"plain_every": 4, "spot": "", "isolated": False}
            )
            rows[models.Plant].append({"id": i, "pot_id": i, "profile_id": d.profile, "label": "", "source": ""})
            rows[models.Growth].append({"id": i, "plant_id": i, "name": "", "leads": True})
            for n in range(LEAVES):
                leaf, on = i * 100 + n, TODAY - timedelta(days=28 * n + i % 20)
                number = LEAVES - n
                rows[models.Leaf].append(
                    {"id": leaf, "growth_id": i, "organ": "leaf", "opened_on": on, "number": number}
                )
                rows[models.Look].append(
                    {"pot_id": i, "plant_id": i, "leaf_id": leaf, "on": on, "newest_leaf_mm": 100.0 + 7 * n % 13}
                    | {"new_leaf": True, "marks": [], "marks_looked_for": True, "unknown": [], "note": ""}
                )
        for model, values in rows.items():
            s.execute(insert(model), values)
            s.flush()
    prepare_store(store)
    store.close()


def scroll() -> None:
    """Print how long the frames take."""
    try:
        from playwright.sync_api import sync_playwright
    except ImportError:
        print("scrolling 400 plants: not measured, Playwright is not installed")
        return
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "leaves.sqlite"
        collection(database)
        server = Served(database)
        try:
            with sync_playwright() as play:
                browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                page.goto(f"http://{server.where.netloc}/leaf")
                page.get_by_role("heading", level=1).wait_for()
                page.wait_for_load_state("networkidle")
                folded = page.get_by_role("button", expanded=False)
                while folded.count():
                    folded.first.click()
                rows = page.get_by_role("region").get_by_role("listitem").count()
                times = page.evaluate(FRAMES)
                browser.close()
        finally:
            server.end()
    cuts = quantiles(times, n=20)
    print(
        f"Leaf station, {rows} plants scrolled: a frame takes {cuts[9]:.0f} ms, p95 {cuts[-1]:.0f} ms, "
        f"longest {max(times):.0f} ms (target 50 ms)"
    )
