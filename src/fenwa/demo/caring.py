"""How the orangery is cared for: warmth and changes of its places, a probe, weights, what tells that a pot is ready."""

from __future__ import annotations

from datetime import date, timedelta
from math import cos, pi

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.plan import FeedingPlan, PlanProduct
from fenwa.demo.scenario_pots import GARDEN, ROOM
from fenwa.store import models
from fenwa.store.care_state import plan_as_plain

CLIMATE_EVERY_DAYS = 9
# mean night and day, their swing over the year, humidity [°C, %]
WARMTH = {ROOM: (14.0, 20.5, 2.5, 68.0), GARDEN: (17.5, 25.0, 3.5, 60.0)}
CHANGES = (
    (ROOM, 40, "heating on", ""),
    (ROOM, 36, "humidifier on", ""),
    (GARDEN, 52, "heating on", ""),
    (GARDEN, 170, "shaded", "whitewash on the south panes"),
)


def furnish_care(session: Session, today: date, places: dict[str, models.Place], pots: dict[str, models.Pot]) -> None:
    """Add it all, relative to today."""
    places[ROOM].lamp_hours, places[ROOM].lamp_dli = 13.0, 5.5
    places[GARDEN].latitude_deg = 57.0
    for name, (night, day, swing, humidity) in WARMTH.items():
        for days in range(396, 0, -CLIMATE_EVERY_DAYS):
            on = today - timedelta(days=days)
            season = -cos(2 * pi * (on.timetuple().tm_yday - 20) / 365)
            session.add(
                models.Climate(
                    place_id=places[name].id,
                    on=on,
                    night_C=round(night + swing * season, 1),
                    day_C=round(day + swing * season, 1),
                    humidity_pct=humidity,
                )
            )
    for name, days, kind, note in CHANGES:
        session.add(models.Event(place_id=places[name].id, on=today - timedelta(days=days), kind=kind, note=note))
    probe = models.Probe(name="Short probe", lowest=1, highest=10, dry_end="low")
    session.add(probe)
    session.flush()
    _ready(session, today, pots, probe.id)
    session.add(models.StandingRule(scope="group", key="carnivore", school_id="never_at_the_root"))
    _plans(session, today)
    for code in ("F-01", "F-02", "P-06", "P-07"):
        pots[code].interval_by = "learnt"


def _plans(session: Session, today: date) -> None:
    """One plan for all, and one for the Calatheas: a third of the label in the light half of the year."""
    ids = {p.library_id: p.id for p in session.scalars(select(models.Product))}
    house = FeedingPlan(name="House plan", cycle=4, feeds=3, products=(PlanProduct("", ids["balanced_13_3_15_ca_mg"]),))
    foliage = FeedingPlan(
        name="A third, April to mid-August",
        season=("04-01", "08-15"),
        rhythm="days",
        every_days=24,
        strength="fraction",
        value=1 / 3,
        products=(PlanProduct("", ids["foliage_20_8_16_urea"]),),
    )
    for scope, key, plan in (("all", "", house), ("kind", "ctenanthe", foliage)):
        session.add(models.FeedingPlanRow(scope=scope, key=key, plan=plan_as_plain(plan), made_on=today))


def _ready(session: Session, today: date, pots: dict[str, models.Pot], probe_id: int) -> None:
    """One pot by probe, one by weight, one by finger, one by its roots."""
    p02, a06, b11, m04 = (pots[code] for code in ("P-02", "A-06", "B-11", "M-04"))
    p02.ready_by, p02.ready_at, p02.probe_id = "probe", 3.0, probe_id
    session.add(models.Feel(pot_id=p02.id, on=today, probe_id=probe_id, probe_value=2.0))
    a06.ready_by, a06.ready_at = "weight", 0.1
    for days, grams, kind in ((26, 1880.0, "dry"), (5, 2090.0, "drained"), (2, 1985.0, "now"), (0, 1895.0, "now")):
        session.add(models.Weight(pot_id=a06.id, on=today - timedelta(days=days), grams=grams, kind=kind))
    b11.ready_by, b11.ready_at = "finger", 2.0
    m04.ready_by = "roots"
