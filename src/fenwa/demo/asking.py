"""What the demonstration's grower asks: a flush with a twin, trials, an ill plant of two causes, two seasons."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime, timedelta
from math import exp, pi, sin
from typing import Any

import numpy as np
from pydantic import TypeAdapter
from sqlalchemy.orm import Session

from fenwa.core.climate.days import DRY_PCT
from fenwa.core.evidence.trial import Design, TrialPlan, TrialPlant, trial_plan
from fenwa.demo.scenario_pots import GARDEN
from fenwa.devices.simulated_logger import DEVICE, air_at
from fenwa.store import models
from fenwa.store.air_rows import keep_samples
from fenwa.store.summary import refresh

SEED = 16_016
PAIRS = (("M-04", "M-07"), ("P-01", "P-02"), ("N-03", "N-04"), ("G-01", "G-02"), ("F-01", "F-02"), ("S-01", "S-02"))
HEATED_DAYS = 52  # before today the heating of the winter garden was turned on
_PLAN: TypeAdapter[TrialPlan] = TypeAdapter(TrialPlan)
Can = Callable[[date, float], models.Batch]


def furnish_questions(
    session: Session,
    today: date,
    places: dict[str, models.Place],
    pots: dict[str, models.Pot],
    waters: dict[str, models.Water],
    can: Can,
) -> None:
    """Add it all, by a seed of its own."""
    rng = np.random.default_rng(SEED)
    _twin(session, today, pots)
    _two_causes(session, today, pots["C-03"], waters)
    _limp(session, today, pots["A-05"])
    _two_seasons(session, today, pots["D-09"], waters, can, rng)
    _trials(session, today, pots)
    _air(session, today, places[GARDEN])
    for code in ("P-06", "P-07", "C-03", "A-05", "D-09"):
        refresh(session, pots[code].id)


def _plant(pot: models.Pot) -> models.Plant:
    return min(pot.plants, key=lambda p: p.id)


def _growth(session: Session, plant: models.Plant) -> models.Growth:
    return session.query(models.Growth).filter_by(plant_id=plant.id, leads=True).one()


def _leaf(session: Session, pot: models.Pot, on: date, mm: float, **more: Any) -> models.Look:
    """A look that found a new leaf of its finished size."""
    plant = _plant(pot)
    growth = _growth(session, plant)
    number = session.query(models.Leaf).filter_by(growth_id=growth.id).count() + 1
    leaf = models.Leaf(growth_id=growth.id, opened_on=on, number=number)
    session.add(leaf)
    session.flush()
    look = models.Look(
        pot_id=pot.id, plant_id=plant.id, leaf_id=leaf.id, on=on, new_leaf=True, newest_leaf_mm=mm, marks=[], **more
    )
    session.add(look)
    session.flush()
    return look


def _twin(session: Session, today: date, pots: dict[str, models.Pot]) -> None:
    """P-07 is a division of P-06, stood beside it and was not flushed; it opened a leaf since."""
    twin = _plant(pots["P-07"])
    twin.parent_plant_id, twin.parent_relation = _plant(pots["P-06"]).id, "division"
    _leaf(session, pots["P-07"], today - timedelta(days=5), 217)


def _mark(session: Session, pot: models.Pot, days: int, today: date, leaf: models.Leaf) -> None:
    """A crisp brown tip of a leaf, seen on a day."""
    on = today - timedelta(days=days)
    look = models.Look(pot_id=pot.id, plant_id=_plant(pot).id, on=on, marks=["tip"], leaf_id=None)
    session.add(look)
    session.flush()
    session.add(
        models.MarkRow(
            look_id=look.id, leaf_id=leaf.id, kind="tip", place="tip", texture="crisp", mm=float(4 + days % 4)
        )
    )


def _two_causes(session: Session, today: date, pot: models.Pot, waters: dict[str, models.Water]) -> None:
    """Tips on leaves that formed on the town's water, then on a leaf that formed in heated, dry air."""
    town = waters["Town water"]
    plant = _plant(pot)
    pours = session.query(models.Pour).filter(
        models.Pour.pot_id == pot.id,
        models.Pour.on >= today - timedelta(days=140),
        models.Pour.on <= today - timedelta(days=60),
    )
    for pour in pours:
        pour.water_id, pour.batch_id, pour.job, pour.ec_uS_cm = town.id, None, "plain", 404.0
    leaves = (
        session.query(models.Leaf)
        .join(models.Growth, models.Growth.id == models.Leaf.growth_id)
        .filter(models.Growth.plant_id == plant.id)
        .order_by(models.Leaf.opened_on)
        .all()
    )
    for look in session.query(models.Look).filter_by(plant_id=plant.id):
        look.marks = []
        session.query(models.MarkRow).filter_by(look_id=look.id).delete()
    for leaf, days in zip(leaves[-3:], (88, 50, 13), strict=True):
        _mark(session, pot, days, today, leaf)
    session.add(
        models.Runoff(
            pot_id=pot.id, on=today - timedelta(days=12), ec_uS_cm=620.0, method="pour-through", volume_L=0.05
        )
    )
    session.add(models.Feel(pot_id=pot.id, on=today - timedelta(days=1), moist="moist"))
    session.add(models.IllCase(pot_id=pot.id, plant_id=plant.id, opened_on=today - timedelta(days=13)))


def _limp(session: Session, today: date, pot: models.Pot) -> None:
    """Limp, the medium moist, and the runoff says salt."""
    on = today - timedelta(days=1)
    look = models.Look(pot_id=pot.id, plant_id=_plant(pot).id, on=on, marks=["limp"])
    session.add(look)
    session.flush()
    session.add(models.MarkRow(look_id=look.id, kind="limp"))
    session.add(models.Feel(pot_id=pot.id, on=on, moist="moist"))
    session.add(models.Runoff(pot_id=pot.id, on=on, ec_uS_cm=2950.0, method="pour-through", volume_L=0.06))


def _two_seasons(
    session: Session,
    today: date,
    pot: models.Pot,
    waters: dict[str, models.Water],
    can: Can,
    rng: np.random.Generator,
) -> None:
    """A Dendrobium that woke twice: the same nitrogen, last year spread longer, this year's canes taller."""
    plant = _plant(pot)
    growth = _growth(session, plant)
    session.query(models.PhaseSpan).filter_by(growth_id=growth.id).delete()
    for phase, days in (
        ("rest", 790),
        ("active", 755),
        ("slowing", 520),
        ("rest", 470),
        ("active", 400),
        ("slowing", 110),
        ("rest", 24),
    ):
        session.add(models.PhaseSpan(growth_id=growth.id, phase=phase, since=today - timedelta(days=days)))
    for n, days in enumerate(range(755, 430, -7)):
        on = today - timedelta(days=days)
        feeds = days > 520 and n % 2 == 0
        batch = can(on, 52.0) if feeds else None
        session.add(
            models.Pour(
                pot_id=pot.id,
                batch_id=batch.id if batch else None,
                water_id=waters["Rain cistern"].id,
                on=on,
                job="feed" if feeds else "plain",
                route="top",
                volume_L=round(0.25 * float(exp(rng.normal(0, 0.06))), 2),
                ec_uS_cm=batch.ec_uS_cm if batch else 30.0,
            )
        )
    for pour in session.query(models.Pour).filter(
        models.Pour.pot_id == pot.id,
        models.Pour.on > today - timedelta(days=440),
        models.Pour.on < today - timedelta(days=400),
    ):
        pour.job, pour.batch_id, pour.ec_uS_cm = "plain", None, 30.0
    for woke, tall, until in ((755, 29.0, 470), (400, 34.0, 24)):
        for days in range(woke - 20, until, -26):
            grown = tall / (1 + exp(-((woke - days) - 110) / 32))
            session.add(
                models.Look(
                    pot_id=pot.id,
                    plant_id=plant.id,
                    growth_id=growth.id,
                    on=today - timedelta(days=days),
                    growth_cm=round(grown, 1),
                    marks=[],
                    marks_looked_for=False,
                )
            )
    for n, days in enumerate(range(735, 560, -38)):
        _leaf(session, pot, today - timedelta(days=days), 118 - 2 * n)


def _trials(session: Session, today: date, pots: dict[str, models.Pot]) -> None:
    """Six pairs half way, and one pair that could not answer and was ended."""
    started = today - timedelta(days=95)
    chosen = [pots[code] for pair in PAIRS for code in pair]
    families = {code: f"pair {i}" for i, pair in enumerate(PAIRS) for code in pair}
    _trial(session, "A cover at night: larger leaves?", "pairs", chosen, families, started, None, 3)
    pair = [pots["A-05"], pots["A-06"]]
    ended = today - timedelta(days=20)
    _trial(session, "Moss on top: larger leaves?", "pairs", pair, {}, today - timedelta(days=120), ended, 5)


def _trial(
    session: Session,
    question: str,
    design: Design,
    pots: list[models.Pot],
    families: dict[str, str],
    started: date,
    ended: date | None,
    seed: int,
) -> None:
    plan = trial_plan(
        plants=[
            TrialPlant(p.id, f"{p.code} {p.name}", _plant(p).profile_id, None, families.get(p.code, "")) for p in pots
        ],
        design=design,
        seed=seed,
        starts_on=started,
        lag_low_days=14.0,
        lag_high_days=40.0,
        days_between_leaves=55.0,
    ).result
    session.add(
        models.Trial(
            question=question,
            kind="humidity",
            measure="leaf length",
            design=design,
            seed=seed,
            started_on=started,
            ends_on=plan.ends_on,
            lag_low_days=14.0,
            lag_high_days=40.0,
            plan=_PLAN.dump_python(plan, mode="json"),
            members=[
                {
                    "pot_id": p.id,
                    "plant_id": _plant(p).id,
                    "changed": p.id in plan.changed,
                    "water_id": None,
                    "feed": "as planned",
                    "share": 1.0,
                    "left_out": "",
                }
                for p in pots
            ],
            ended_on=ended,
            ended_why="One pair cannot answer: p is 1 at best." if ended else "",
        )
    )


def _air(session: Session, today: date, garden: models.Place) -> None:
    """Heated since the autumn, so dry; a logger hangs there and posts every hour."""
    for row in session.query(models.Climate).filter(
        models.Climate.place_id == garden.id, models.Climate.on > today - timedelta(days=HEATED_DAYS)
    ):
        days = (today - row.on).days
        row.humidity_pct = round(35 + 2 * sin(2 * pi * days / 11), 1)
    session.add(models.Logger(device=DEVICE, place_id=garden.id, bound_on=today - timedelta(days=9)))
    session.flush()
    first = datetime.combine(today - timedelta(days=8), datetime.min.time())
    rows = [(at, *air_at(at)) for at in (first + timedelta(hours=h) for h in range(8 * 24))]
    keep_samples(session, garden.id, DEVICE, rows, DRY_PCT)
