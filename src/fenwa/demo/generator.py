"""Fourteen months of the Ansa Orangery's log, seeded and relative to today.

The log is grown by the same salt balance the application uses, but with each pot's own
"true" parameters, so that predictions meet believable readings and never match them exactly.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import asdict, dataclass
from datetime import date, timedelta
from functools import partial
from itertools import count
from typing import Any

import numpy as np
from sqlalchemy.orm import Session

from fenwa.core.library.loader import fertilizers, get_medium, get_profile, habits
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.dose import dose
from fenwa.core.pot.balance import Soil, State, dry, no_exit, root_zone_ec, water
from fenwa.core.water.kinds import BaseWater
from fenwa.core.water.temperature import ec_at_25
from fenwa.core.working import Computed
from fenwa.demo.answering import furnish_answers
from fenwa.demo.asking import furnish_questions
from fenwa.demo.caring import furnish_care
from fenwa.demo.furnishing import furnish
from fenwa.demo.mixing import furnish_mix
from fenwa.demo.scenario import WATERS
from fenwa.demo.scenario_pots import GARDEN, POTS, ROOM, DemoPot
from fenwa.store import models
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.summary import refresh

DAYS = 425
SEED = 20_262
FEED = "balanced_13_3_15_ca_mg"


@dataclass(kw_only=True)
class _Story:
    """What is shared while the log grows."""

    session: Session
    today: date
    rng: np.random.Generator
    waters: dict[str, models.Water]
    cistern: dict[date, float]
    products: dict[str, models.Product]
    version: dict[float, models.RecipeVersion]
    doses: dict[float, Computed[Dose]]
    cans: dict[tuple[date, float], models.Batch]
    workings: dict[float, dict[str, Any]]
    numbers: Iterator[int]  # of the cans to come, so that a thousand are stored together; afterwards the database's


def seed(session: Session, today: date, photos: PhotoFolder | None = None) -> None:
    """Fill an empty database with the demonstration, the same for the same day; drawn photos into their folder."""
    rng = np.random.default_rng(SEED)
    for key, value in {"collection_name": "Ansa Orangery", "scale_step_g": "1", "syringe_step_mL": "0.5"}.items():
        session.add(models.Setting(key=key, value=value))
    places = {name: models.Place(name=name) for name in (ROOM, GARDEN)}
    waters = {str(w["name"]): models.Water(**w) for w in WATERS}
    pen = models.Meter(name="Pen 1", compensates=True, accuracy_pct_fs=1.0, range_uS_cm=2000.0, resolution_uS_cm=1.0)
    products = {
        item.id: models.Product(library_id=item.id, name=item.label.name, label=asdict(item.label))
        for item in fertilizers().values()
    }
    session.add_all([*places.values(), *waters.values(), pen, *products.values()])
    session.flush()
    cistern = _read_waters(session, today, rng, waters, pen)
    furnish(session, today, waters, pen)
    story = _Story(
        session=session,
        today=today,
        rng=rng,
        waters=waters,
        cistern=cistern,
        products=products,
        version={},
        doses={},
        cans={},
        workings={},
        numbers=count(1),
    )
    for order, p in enumerate(POTS):
        _grow(story, p, places[p.place], order)
    session.flush()
    story.numbers = iter(())
    pots = {pot.code: pot for pot in session.query(models.Pot)}
    furnish_mix(session, today, products, {code: pot.id for code, pot in pots.items()})
    furnish_care(session, today, places, pots)
    furnish_answers(session, today, photos)
    furnish_questions(session, today, places, pots, waters, partial(_can, story))


def _read_waters(
    session: Session, today: date, rng: np.random.Generator, waters: dict[str, models.Water], pen: models.Meter
) -> dict[date, float]:
    """A year of readings; the membrane tires, the cistern swings with the rain."""
    cistern: dict[date, float] = {}
    for days in range(DAYS, -1, -1):
        on = today - timedelta(days=days)
        level = 34 + 9 * np.sin(days / 58) + rng.normal(0, 0.8)
        cistern[on] = round(float(level if days > 2 else 34), 1)
        tired = 11.0 + 13.0 * ((DAYS - days) / DAYS) ** 2
        plan = (
            ("Rain cistern", 7, 2, cistern[on]),
            ("RO unit", 14, 1, tired + rng.normal(0, 0.5)),
            ("Borehole", 45, 12, 742 + rng.normal(0, 6)),
            ("House tap", 60, 20, 598 + rng.normal(0, 8)),
            ("Town water", 60, 9, 404 + 9 * np.sin(days / 70)),
            ("Dehumidifier", 30, 3, 12 + 2 * np.sin(days / 20)),
        )
        for name, every, phase, ec in plan:
            if days % every == phase:
                session.add(_reading(waters[name].id, pen.id, on, round(float(ec), 0 if ec > 100 else 1)))
    unknown = models.Reading(
        water_id=waters["House tap"].id,
        on=today - timedelta(days=200),
        value=310.0,
        unit="ppm",
        scale="unknown",
        compensated=True,
        refusal="Scale of the ppm reading is not known.",
        note="a visitor's pen",
    )
    session.add(unknown)
    session.flush()
    return cistern


def _reading(water_id: int, meter_id: int, on: date, value: float) -> models.Reading:
    computed = ec_at_25(value=value, compensated=True, accuracy_pct_fs=0.1, range_uS_cm=2000.0)
    return models.Reading(
        water_id=water_id,
        meter_id=meter_id,
        on=on,
        value=value,
        unit="µS/cm",
        compensated=True,
        ec25_uS_cm=computed.result.ec25_uS_cm,
        half_width_uS_cm=computed.result.half_width_uS_cm,
        refusal="",
        working=asdict(computed.working),
    )


def _dose(story: _Story, nitrogen: float) -> Computed[Dose]:
    if nitrogen not in story.doses:
        label = fertilizers()[FEED].label
        story.doses[nitrogen] = dose(
            label=label,
            base=BaseWater(34.0, "rain", None, "Rain cistern"),
            volume_L=3.0,
            strength="nitrogen",
            value=nitrogen,
            scale_step_g=1.0,
        )
    return story.doses[nitrogen]


def _can(story: _Story, on: date, nitrogen: float) -> models.Batch:
    """The can of that strength on that day; pots fed alike share it."""
    if (on, nitrogen) in story.cans:
        return story.cans[on, nitrogen]
    computed = _dose(story, nitrogen)
    d, base = computed.result, story.cistern.get(on, 34.0)
    product = story.products[FEED]
    if nitrogen not in story.version:
        recipe = models.Recipe(name=f"Nitrate feed, {nitrogen:g} mg/L N")
        story.session.add(recipe)
        story.session.flush()
        version = models.RecipeVersion(
            recipe_id=recipe.id,
            version=1,
            made_on=on,
            product_id=product.id,
            label=product.label,
            strength="nitrogen",
            value=nitrogen,
        )
        story.session.add(version)
        story.session.flush()
        story.version[nitrogen] = version
    predicted = base + d.ec_added_uS_cm
    measured = round(float(predicted * (1 + story.rng.normal(-0.02, 0.025)))) if story.rng.random() < 0.6 else None
    if nitrogen not in story.workings:
        story.workings[nitrogen] = asdict(computed.working)
    number = next(story.numbers, None)
    batch = models.Batch(
        id=number,
        made_on=on,
        name=f"Nitrate feed, {nitrogen:g} mg/L N",
        water_id=story.waters["Rain cistern"].id,
        water_ec_uS_cm=base,
        product_id=product.id,
        recipe_version_id=story.version[nitrogen].id,
        volume_L=3.0,
        dose_g_L=d.dose_g_L,
        nitrogen_mg_L=nitrogen,
        predicted_uS_cm=predicted,
        predicted_low_uS_cm=d.ec_low_uS_cm,
        predicted_high_uS_cm=d.ec_high_uS_cm,
        measured_uS_cm=measured,
        verdict="fine" if measured else "",
        verdict_sentence="Reads as it should. Pour." if measured else "",
        working=story.workings[nitrogen],
        model_added_uS_cm=d.model_added_uS_cm,
    )
    story.session.add(batch)
    if number is None:
        story.session.flush()
    story.cans[on, nitrogen] = batch
    return batch


def _soil(rng: np.random.Generator, p: DemoPot) -> Soil:
    m = get_medium(p.medium).medium()
    W = m.theta_cc * p.volume_L * float(np.exp(rng.normal(0, 0.08)))
    u = habits()[get_profile(p.profile).habit].u
    return Soil(
        (1 - m.phi) * W,
        m.phi * W,
        m.eta * float(np.exp(rng.normal(0, 0.15))),
        min(0.9, u * float(np.exp(rng.normal(0, 0.2)))),
        float(np.log(2) / m.t_half_h),
        m.R,
    )


def _grow(story: _Story, p: DemoPot, place: models.Place, order: int) -> None:
    s, today = story.session, story.today
    start = today - timedelta(days=9 if p.story == "arrival" else DAYS)
    pot = models.Pot(
        code=p.code,
        name=p.name,
        place_id=place.id,
        spot=p.spot,
        shelf_order=order,
        isolated=p.isolated,
        medium_id=p.medium,
        medium_since=start,
        medium_charged=False,
        volume_L=p.volume_L,
        drainage=p.drainage,
        tray_L=0.4 if p.drainage == "tray" else None,
        route=p.route,
        interval_days=p.interval,
        plain_every=p.plain_every,
    )
    s.add(pot)
    s.flush()
    arrived = start if p.story == "arrival" or p.isolated else None
    if p.isolated:
        arrived = today - timedelta(days=34)
    plant = models.Plant(pot_id=pot.id, profile_id=p.profile, arrived_on=arrived, source="gift" if p.isolated else "")
    s.add(plant)
    s.flush()
    growth = models.Growth(plant_id=plant.id)
    s.add(growth)
    s.flush()
    for phase, days in _phases(p):
        s.add(models.PhaseSpan(growth_id=growth.id, phase=phase, since=max(start, today - timedelta(days=days))))
    salt = _pour_all(story, p, pot, max(start, arrived or start))
    _look_all(story, p, plant, growth, salt)
    refresh(s, pot.id)


def _phases(p: DemoPot) -> list[tuple[str, int]]:
    if p.story == "arrival":
        return [("establishing", 9)]
    if p.story == "resting":
        return [("active", DAYS), ("slowing", 110), ("rest", 24)]
    if p.phase == "slowing":
        return [("active", DAYS), ("slowing", 30)]
    if p.profile == "phragmipedium":
        return [("active", DAYS), ("flowering", 150), ("active", 95)]
    return [("active", DAYS)]


def _pour_all(story: _Story, p: DemoPot, pot: models.Pot, start: date) -> dict[date, float]:
    """Pours and runoffs of a pot; returns its true root zone by day, for the leaves."""
    rng, soil = story.rng, _soil(story.rng, p)
    loss = habits()[get_profile(p.profile).habit].loss_per_day * (soil.W_m_cc + soil.W_i)
    state = State(soil.W_m_cc, 150.0 if p.nitrogen else 40.0, 150.0 if p.nitrogen else 40.0)
    salt: dict[date, float] = {}
    times = (DAYS - p.offset) // p.interval
    days = [p.offset + n * p.interval for n in range(times, -1, -1)]
    last: int | None = None
    for n, ago in enumerate(days):
        on = story.today - timedelta(days=ago)
        if on < start:
            continue
        gap = p.interval if last is None else last - ago
        last = ago
        to_come = len(days) - 1 - n
        job, nitrogen = _job(p, ago, to_come)
        volume = max(0.03, round(loss * gap * p.pour_share * float(np.exp(rng.normal(0, 0.06))), 2))
        if job == "flush":
            volume = round((soil.W_m_cc + soil.W_i) * 3.0, 1)
        batch = _can(story, on, nitrogen) if job == "feed" else None
        ec = batch.ec_uS_cm if batch else story.cistern[on]
        route = "top" if job == "flush" else p.route
        pour = models.Pour(
            pot_id=pot.id,
            batch_id=batch.id if batch else None,
            on=on,
            job=job,
            route=route,
            water_id=story.waters["Rain cistern"].id,
            volume_L=volume,
            ec_uS_cm=ec,
            note="three rounds, ten minutes apart" if job == "flush" else "",
        )
        if p.drainage == "tray" and job != "flush":
            C = float(no_exit(root_zone_ec(soil, state), ec, soil.u, volume / (soil.W_m_cc + soil.W_i + 0.4)))
            state = State(soil.W_m_cc, C, C)
        else:
            dried = dry(soil, state, loss * gap * float(np.exp(rng.normal(0, 0.1))), 24.0 * gap)
            state, drained = water(soil, dried, volume, ec)
            if _measured(rng, p, ago, job):
                pour.runoff = models.Runoff(
                    volume_L=round(float(drained.V_d), 2),
                    ec_uS_cm=round(float(drained.C) * float(np.exp(rng.normal(0, 0.07)))),
                )
        story.session.add(pour)
        salt[on] = float(root_zone_ec(soil, state))
    return salt


def _job(p: DemoPot, ago: int, to_come: int) -> tuple[str, float]:
    """What a pour was: the stories first, then the pot's pattern counted back from today."""
    if p.story == "salted" and 74 <= ago < 74 + p.interval:
        return "flush", 0.0
    if p.story in ("rinsed", "thirsty") and 100 <= ago < 100 + p.interval:
        return "flush", 0.0
    if p.story == "salted" and 78 <= ago < 260:
        return "feed", 110.0  # the strong months without a rinse
    if p.story == "resting" and ago < 110:
        return "plain", 0.0
    if p.story == "arrival" or p.nitrogen <= 0:
        return "plain", 0.0
    if p.plain_every and to_come % p.plain_every == (p.plain_every - 1 if len(p.code) % 2 else 2):
        return "plain", 0.0
    return "feed", p.nitrogen


def _measured(rng: np.random.Generator, p: DemoPot, ago: int, job: str) -> bool:
    if job == "flush" or (p.story == "salted" and 78 <= ago < 110):
        return True
    return bool(rng.random() < 0.09)


def _look_all(story: _Story, p: DemoPot, plant: models.Plant, growth: models.Growth, salt: dict[date, float]) -> None:
    """Looks each fortnight or so; leaves formed in salt stay short and their tips brown."""
    s, rng, today = story.session, story.rng, story.today
    ceiling = get_profile(p.profile).root_zone.ec_ceiling_uS_cm
    days = 7 if p.story == "arrival" else DAYS - 10
    leaves, leaf, next_leaf = int(rng.integers(4, 12)), None, days - 12
    while days > 1:
        on = today - timedelta(days=days)
        before = [v for d, v in salt.items() if on - timedelta(days=60) <= d <= on]
        strain = max(0.0, (float(np.mean(before)) if before else 0.0) / ceiling - 1.0)
        new = days <= next_leaf and p.story != "arrival" and not (p.story == "resting" and days < 110)
        if new:
            leaves += 1
            next_leaf = days - int(p.leaf_days * rng.uniform(0.85, 1.2))
            leaf = models.Leaf(growth_id=growth.id, opened_on=on)
            s.add(leaf)
            s.flush()
        length = p.leaf_mm * (1 - min(0.4, 0.35 * strain)) * float(np.exp(rng.normal(0, 0.05))) if new else None
        s.add(
            models.Look(
                pot_id=plant.pot_id,
                plant_id=plant.id,
                leaf_id=leaf.id if leaf else None,
                on=on,
                leaves_count=leaves,
                newest_leaf_mm=round(length) if length else None,
                new_leaf=new,
                marks=_marks(rng, p, strain, days),
            )
        )
        days -= int(rng.integers(11, 18))


def _marks(rng: np.random.Generator, p: DemoPot, strain: float, days: int) -> list[str]:
    out: list[str] = []
    if strain > 0.25 and rng.random() < 0.6:
        out.append("tip")
    if p.story == "salted" and 80 <= days <= 120:
        out.append("crust")
    if p.story == "resting" and days < 60:
        out.append("yellow oldest")
    return out


def demo_facts(session: Session) -> dict[str, Any]:
    """Counts for the command line."""
    return {
        "pots": session.query(models.Pot).count(),
        "pours": session.query(models.Pour).count(),
        "looks": session.query(models.Look).count(),
        "readings": session.query(models.Reading).count(),
    }
