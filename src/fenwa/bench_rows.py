"""A collection of any size, written in bulk: what the bench measures over, in rows of the kinds a grower keeps."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import asdict, dataclass
from datetime import date, timedelta
from itertools import islice
from pathlib import Path
from typing import Any

TODAY = date(2026, 11, 23)
IN_ONE_GO = 20_000  # rows


@dataclass(frozen=True)
class Size:
    """How large a collection is; per pot unless it says otherwise."""

    pots: int
    pours: int
    looks: int
    runoffs: int = 0
    feels: int = 0
    waters: int = 2  # in all
    water_readings: int = 500  # of each water
    places: int = 1  # in all
    climate_days: int = 0  # of each place
    cans: int = 0  # in all, one a day
    leaves: int = 0  # in all, each with a photo's record

    @property
    def rows(self) -> int:
        """Rows of the log."""
        per_pot = self.pours + self.looks + self.runoffs + self.feels
        return self.pots * per_pot + self.waters * self.water_readings + self.places * self.climate_days + self.leaves


HOUSE = Size(pots=500, pours=170, looks=28, cans=726)
NURSERY = Size(
    pots=5_000,
    pours=160,
    looks=24,
    runoffs=6,
    feels=6,
    waters=40,
    water_readings=120,
    places=10,
    climate_days=1_200,
    cans=3_600,
    leaves=20_000,
)
KINDS = ("rain", "borehole", "mains", "permeate", "distilled")


def written(path: Path, size: Size) -> int:
    """Write a collection of this size, not folded yet; returns the rows of its log."""
    from sqlalchemy import Insert, insert

    from fenwa.store import models
    from fenwa.store.session import Store

    store = Store(path)
    with store.writing() as s:

        def put(model: type[models.Base], rows: Iterable[dict[str, Any]]) -> None:
            what: Insert = insert(model)
            left = iter(rows)
            while some := list(islice(left, IN_ONE_GO)):
                s.execute(what, some)

        put(models.Place, ({"id": n + 1, "name": f"Bench {n + 1}"} for n in range(size.places)))
        put(models.Water, _waters(size))
        put(models.Pot, _pots(size))
        put(models.Plant, _plants(size))
        put(models.Growth, ({"id": n + 1, "plant_id": n + 1} for n in range(size.pots)))
        _cans(put, size)
        put(models.Pour, _pours(size))
        put(models.Runoff, _runoffs(size))
        put(models.Look, _looks(size))
        put(models.Feel, _feels(size))
        put(models.Reading, _water_readings(size))
        put(models.Climate, _climate(size))
        put(models.Leaf, _leaves(size))
        put(models.Photo, _photos(size))
    store.close()
    return size.rows


def ago(days: int) -> date:
    """A day before today."""
    return TODAY - timedelta(days=days)


def _waters(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.waters):
        kind = KINDS[n % len(KINDS)]
        yield {"id": n + 1, "name": f"{kind} {n + 1}", "kind": kind, "preference": n + 1, "disinfectant": "none"}


def _pots(size: Size) -> Iterator[dict[str, Any]]:
    from fenwa.demo.scenario_pots import POTS

    for n in range(size.pots):
        d = POTS[n % len(POTS)]
        yield {
            "id": n + 1,
            "code": f"K-{n + 1:04}",
            "name": "",
            "place_id": 1 + n % size.places,
            "shelf_order": n,
            "medium_id": d.medium,
            "volume_L": d.volume_L,
            "drainage": d.drainage,
            "route": d.route,
            "interval_days": d.interval,
            "plain_every": d.plain_every,
        }


def _plants(size: Size) -> Iterator[dict[str, Any]]:
    from fenwa.demo.scenario_pots import POTS

    return ({"id": n + 1, "pot_id": n + 1, "profile_id": POTS[n % len(POTS)].profile} for n in range(size.pots))


def _pours(size: Size) -> Iterator[dict[str, Any]]:
    """Each pot every fourth day or so, every fourth time plain; then the cans, each on ten pots."""
    for n in range(size.pours):
        for pot in range(size.pots):
            plain = n % 4 == 0
            yield {
                "pot_id": pot + 1,
                "batch_id": None,
                "water_id": 1,
                "on": ago(4 * (size.pours - n - 1) + 1 + pot % 4),
                "job": "plain" if plain else "feed",
                "route": "top",
                "volume_L": 0.2,
                "ec_uS_cm": 40.0 if plain else 380.0,
                "note": "",
            }
    for n in range(size.cans):
        for k in range(10):
            yield {
                "pot_id": 1 + (7 * n + k) % size.pots,
                "batch_id": n + 1,
                "water_id": None,
                "on": ago(n),
                "job": "feed",
                "route": "top",
                "volume_L": 0.2,
                "ec_uS_cm": 380.0,
                "note": "",
            }


def _runoffs(size: Size) -> Iterator[dict[str, Any]]:
    every = max(1, size.pours // max(1, size.runoffs))
    for n in range(0, size.runoffs * every, every):
        for pot in range(size.pots):
            yield {
                "pour_id": n * size.pots + pot + 1,
                "ec_uS_cm": 350.0 + (37 * n + 11 * pot) % 400,
                "volume_L": 0.04,
                "method": "pour-through",
            }


def _looks(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.looks):
        for pot in range(size.pots):
            yield {
                "pot_id": pot + 1,
                "plant_id": pot + 1,
                "on": ago(20 * (size.looks - n - 1) + 3 + pot % 20),
                "leaves_count": 5 + n % 3,
                "newest_leaf_mm": 100.0 + n,
                "new_leaf": n % 3 == 0,
                "marks": [],
                "marks_looked_for": True,
                "unknown": [],
                "note": "",
            }


def _feels(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.feels):
        for pot in range(size.pots):
            yield {"pot_id": pot + 1, "on": ago(60 * n + 5 + pot % 9), "moist": ("moist", "barely damp")[n % 2]}


def _water_readings(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.waters * size.water_readings):
        ec = 35.0 + 700 * (n % size.waters % 2)
        yield {
            "water_id": 1 + n % size.waters,
            "on": ago(n // size.waters % 700),
            "value": ec,
            "unit": "µS/cm",
            "compensated": True,
            "ec25_uS_cm": ec,
            "half_width_uS_cm": 2.0,
            "refusal": "",
            "note": "",
            "on_precision": "day",
        }


def _climate(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.climate_days):
        for place in range(size.places):
            yield {
                "place_id": place + 1,
                "on": ago(n),
                "night_C": 14.0 + n % 5,
                "day_C": 22.0 + n % 6,
                "humidity_pct": 60.0 + n % 20,
                "note": "",
            }


def _leaves(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.leaves):
        pot, leaf = n % size.pots, n // size.pots
        yield {"id": n + 1, "growth_id": pot + 1, "opened_on": ago(400 - 70 * leaf), "number": leaf + 1}


def _photos(size: Size) -> Iterator[dict[str, Any]]:
    for n in range(size.leaves):
        pot = n % size.pots
        yield {
            "pot_id": pot + 1,
            "plant_id": pot + 1,
            "on": ago(380 - 70 * (n // size.pots)),
            "sha256": f"{n:064x}",
            "media": "image/jpeg",
            "width_px": 3000,
            "height_px": 2000,
            "bytes": 2_000_000,
        }


def _cans(put: Any, size: Size) -> None:
    """A can a day: what is left of them is asked on every page of cans."""
    from fenwa.core.library.loader import fertilizers
    from fenwa.store import models

    if not size.cans:
        return
    item = fertilizers()["balanced_13_3_15_ca_mg"]
    label = asdict(item.label)
    put(models.Product, [{"id": 1, "library_id": item.id, "name": item.label.name, "label": label}])
    put(models.Recipe, [{"id": 1, "name": "thin"}])
    put(
        models.RecipeVersion,
        [
            {
                "id": 1,
                "recipe_id": 1,
                "version": 1,
                "made_on": ago(size.cans),
                "product_id": 1,
                "label": label,
                "strength": "nitrogen",
                "value": 40.0,
            }
        ],
    )
    put(
        models.Batch,
        (
            {
                "id": n + 1,
                "made_on": ago(n),
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
            for n in range(size.cans)
        ),
    )
