"""The whole collection on a day, as core types: pots with today's predicted reading."""

from __future__ import annotations

import gc
from dataclasses import replace
from datetime import date
from itertools import pairwise
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.holds import Condition, holds
from fenwa.core.care.interval import Gap, drying_rate, learnt_days, warmth_on
from fenwa.core.care.pattern import every_nth, pattern_of
from fenwa.core.care.phase import PhaseFound, Seen, phase_of
from fenwa.core.care.season import Hemisphere, day_length_h, hemisphere_of
from fenwa.core.care.together import strictest_of
from fenwa.core.data.profile import Profile
from fenwa.core.pot.fold import reading_of, rested, state_of
from fenwa.core.pot.specification import PotSpec, band, capacity_L, members_of
from fenwa.core.pot.weights import PotWater, Weighed, depleted_share, pot_water_from_weights
from fenwa.core.water.kind_checks import PlantNeeds
from fenwa.store.care_state import CareRows, Warmth, load_care
from fenwa.store.models import Place, Plant, Pot, PotSummary, Weight
from fenwa.store.pot_today import Interval, PotToday, day_of
from fenwa.store.session import Store
from fenwa.store.summary import CORE_VERSION, pot_spec, refresh

FORMING_DAYS = 30  # a leaf or spike seen this lately is still forming; judgement


def needs_of(profile: Profile) -> PlantNeeds:
    """What a profile asks of water."""
    s = profile.source_water
    return PlantNeeds(
        s.ec_max_uS_cm, s.ec_short_term_max_uS_cm, s.alkalinity_ceiling_mg_L, profile.sensitivity.fluoride,
        profile.sensitivity.chlorine, profile.sensitivity.sodium, profile.sensitivity.boron, profile.short,
    )  # fmt: skip


def stale_summaries(session: Session) -> list[int]:
    """Pots whose folded row is missing or made by other figures."""
    rows = session.execute(
        select(Pot.id).outerjoin(PotSummary, PotSummary.pot_id == Pot.id).where(
            Pot.archived_at.is_(None),
            (PotSummary.pot_id.is_(None)) | (PotSummary.core_version != CORE_VERSION),
        )
    )  # fmt: skip
    return [r[0] for r in rows]


def refresh_stale(session: Session) -> int:
    """Fold again what is stale; returns how many."""
    stale = stale_summaries(session)
    for pot_id in stale:
        refresh(session, pot_id)
    return len(stale)


def pots_today(session: Session, today: date, only: set[int] | None = None) -> list[PotToday]:
    """Every pot kept, in walking order, with today's predicted reading.

    A reading session uses what was computed before and loads only the pots written since.
    """
    store = session.info.get("store")
    if store is None:
        return _load_pots(session, today, only)
    known = _remembered(store, today)
    if only is not None:
        return [known[i] for i in known if i in only]
    return list(known.values())


def _remembered(store: Store, today: date) -> dict[int, PotToday]:
    memory = store.changed.memory
    with store.changed.filling:
        changed = store.changed.take()  # before the snapshot below, so that no committed write is missed
        known: dict[int, PotToday] | None = memory.get("pots") if memory.get("day") == today else None
        if known is not None and not changed:
            return known
        with store.reading() as fresh:
            loaded = _load_pots(fresh, today, changed if known is not None else None)
        kept = [p for i, p in (known or {}).items() if i not in changed]
        ordered = sorted([*kept, *loaded], key=lambda p: (p.pot.shelf_order, p.pot.code))
        memory["pots"], memory["day"] = {p.pot.id: p for p in ordered}, today
        if known is None:
            gc.collect()
            gc.freeze()  # lasting objects by the thousand: the collector would walk them at every turn
        return dict(memory["pots"])


def _load_pots(session: Session, today: date, only: set[int] | None) -> list[PotToday]:
    """Pots from the database; all go through the core in one call."""
    query = (
        select(Pot, PotSummary.data)
        .join(PotSummary, PotSummary.pot_id == Pot.id)
        .where(Pot.archived_at.is_(None))
        .order_by(Pot.shelf_order, Pot.code)
    )
    living = select(Plant).where(Plant.archived_at.is_(None)).order_by(Plant.id)
    if only is not None:
        query, living = query.where(Pot.id.in_(only)), living.where(Plant.pot_id.in_(only))
    plants: dict[int, list[Plant]] = {}
    for plant in session.scalars(living):
        plants.setdefault(plant.pot_id, []).append(plant)
    rows = [(pot, data, plants[pot.id]) for pot, data in session.execute(query).all() if pot.id in plants]
    if not rows:
        return []
    care = load_care(session, today, only)
    kinds = [strictest_of([care.profile(x.profile_id, x.id) for x in mine]) for _, _, mine in rows]
    phases = [
        _phase(pot, mine[0], kind, data, care, today) for (pot, data, mine), kind in zip(rows, kinds, strict=True)
    ]
    specs = [pot_spec(pot, kind, found.phase) for (pot, _, _), kind, found in zip(rows, kinds, phases, strict=True)]
    members = members_of(specs)
    as_of = [day_of(data["as_of"]) for _, data, _ in rows]
    days = [max(0, (today - d).days) if d else 0 for d in as_of]
    state = rested(specs, members, state_of([data["state"] for _, data, _ in rows]), days)
    middle, low, high = band(reading_of(members, state))
    out = []
    for i, (pot, data, mine) in enumerate(rows):
        known = as_of[i] is not None
        readings = tuple(float(v[i]) if known else None for v in (middle, low, high))
        out.append(_one(pot, mine, kinds[i], specs[i], data, readings, phases[i], care, today))  # type: ignore[arg-type]
    return out


def _one(
    pot: Pot, plants: list[Plant], profile: Profile, spec: PotSpec, data: dict[str, Any],
    readings: tuple[float | None, float | None, float | None], found: PhaseFound, care: CareRows, today: date,
) -> PotToday:  # fmt: skip
    school, school_by = care.school_of(pot, profile)
    phase_by = care.phase_school_of(pot, plants[0].phase_school, profile)
    warmth = care.warmth.get(pot.place_id, ())
    pattern = pattern_of(school) if school else every_nth(pot.plain_every)
    water = _by_weight(pot, care.weights.get(pot.id, []))
    p = PotToday(
        pot, plants[0], tuple(plants), care.places[pot.place_id], profile,
        any(care.is_own(x.profile_id, x.id) for x in plants), spec, data, *readings, (), found, school, school_by, phase_by,
        pattern, _interval(pot, data, care.places[pot.place_id], warmth, today), warmth, water, care.ready_rule(pot),
        care.felt_of(pot, water.left_share if water else None), care.skipped.get(pot.id), today,
    )  # fmt: skip
    return replace(p, holds=holds(_condition(p, care), today))


def _phase(pot: Pot, plant: Plant, profile: Profile, data: dict[str, Any], care: CareRows, today: date) -> PhaseFound:
    place, climate = care.places[pot.place_id], care.climate.get(pot.place_id)
    seen = Seen(
        data["phase"], day_of(data["phase_since"]), plant.arrived_on, day_of(data["growth_on"]), day_of(data["stopped_on"]),
        day_of(data["spike_on"]), data["root_cm"], day_of(data["root_on"]), day_of(data["new_growth_on"]),
        climate.night_C if climate else None, profile.climate.night_C[0], place.lamp_hours, place.lamp_dli,
    )  # fmt: skip
    school = care.phase_school_of(pot, plant.phase_school, profile).value
    return phase_of(profile.rest, school, seen, today, hemisphere_at(place))  # type: ignore[arg-type]


def hemisphere_at(place: Place) -> Hemisphere:
    """By the latitude where it is known, else as chosen."""
    return hemisphere_of(place.latitude_deg) if place.latitude_deg is not None else place.hemisphere  # type: ignore[return-value]


def light_h(place: Place, on: date) -> float | None:
    """Hours of light: the lamps', or the day's by latitude; None where neither is known. [h]"""
    if place.lamp_hours:
        return place.lamp_hours
    return day_length_h(place.latitude_deg, on) if place.latitude_deg is not None else None


def _interval(pot: Pot, data: dict[str, Any], place: Place, warmth: Warmth, today: date) -> Interval:
    if pot.interval_by != "learnt":
        return Interval(pot.interval_days, 0.7 * pot.interval_days, 1.4 * pot.interval_days, 0)
    days, low, high, n = learnt_days(
        gaps_of(data, place, warmth), rate_on(place, warmth, today), forming(data, today), pot.interval_days
    )
    return Interval(days, low, high, n)


def rate_on(place: Place, warmth: Warmth, on: date) -> float:
    """How fast water goes at a place on a day, by its warmth and light."""
    return drying_rate(warmth_on(warmth, on), light_h(place, on))


def forming(data: dict[str, Any], today: date) -> bool:
    """Whether a leaf or a spike was seen forming within the last weeks."""
    seen = [d for key in ("growth_on", "spike_on") if (d := day_of(data[key])) is not None]
    stopped = day_of(data["stopped_on"])
    return any((today - d).days <= FORMING_DAYS and (stopped is None or d > stopped) for d in seen)


def gaps_of(data: dict[str, Any], place: Place, warmth: Warmth) -> list[Gap]:
    """Days between the pot's last waterings with how fast water went then."""
    on = [date.fromisoformat(d) for d in data["waterings"]]
    return [Gap((b - a).days, rate_on(place, warmth, a + (b - a) / 2)) for a, b in pairwise(on)]


def _by_weight(pot: Pot, weights: list[Weight]) -> PotWater | None:
    """Water left by the scale, once a drained, a dry and a weight since are known."""
    newest = {w.kind: w for w in weights}
    drained, dry = newest.get("drained"), newest.get("dry")
    if drained is None or dry is None or drained.grams <= dry.grams:
        return None
    now = weights[-1]
    return pot_water_from_weights(drained_g=drained.grams, dry_g=dry.grams, now_g=now.grams,
                                  weights=[Weighed(w.on, w.grams) for w in weights]).result  # fmt: skip


def _condition(p: PotToday, care: CareRows) -> Condition:
    pot, plant, profile, data = p.pot, p.plant, p.profile, p.data
    new_leaf, flushed = day_of(data["new_leaf_on"]), day_of(data["last_flush_on"])
    climate, prills, treated = care.climate.get(pot.place_id), care.prills.get(pot.id), care.treated.get(pot.id)
    rest = profile.phases.get("rest")
    return Condition(
        p.found.phase, p.found.since, profile.rest.kind, profile.rest.restart, plant.arrived_on, pot.repotted_on,
        bool(new_leaf and plant.arrived_on and new_leaf > plant.arrived_on), day_of(data["crust_on"]),
        flushed, data["last_equivalent"], day_of(data["last_equivalent_on"]), profile.root_zone.ec_ceiling_uS_cm,
        profile.root_zone.ec_ideal_uS_cm[1], p.reading, rest_feeds=bool(rest and rest.feed), gate_needs=p.found.sentence if p.found.by == "growth gate" else "",
        roots_working=data["roots_working"], roots_moving_on=day_of(data["root_on"]),
        limp_on=day_of(data["limp_on"]), rot_on=day_of(data["rot_on"]),
        dry_share=depleted_share(p.water, capacity_L(p.spec)) if p.water else None,
        medium_charged=pot.medium_charged, medium_since=pot.medium_since,
        prill_share_out=prills.share_out if prills else None, prill_until=prills.until if prills else None,
        night_C=climate.night_C if climate else None, day_C=climate.day_C if climate else None,
        medium_C=climate.medium_C if climate else None, humidity_pct=climate.humidity_pct if climate else None, climate_on=climate.on if climate else None, nights=care.nights.get(pot.place_id, ()), days=care.days.get(pot.place_id, ()),
        minimum_C=profile.climate.minimum_C, day_most_C=profile.climate.day_C[1], carnivore=profile.carnivore,
        root_opt_in=p.opted("root") is not None, wet_leaves_harm=profile.flush.from_above in ("never", "rim_only") and not any(o.route == "leaf spray" for o in profile.opt_in),
        treated_on=treated.on if treated else None, treated_days=(treated.days or 0) if treated else 0,
        trial=plant.trial, overrides=care.overrides.get(pot.id, ()),
    )  # fmt: skip
