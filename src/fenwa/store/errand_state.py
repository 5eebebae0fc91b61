"""Jobs besides water, from the log: what pots, meters, waters and membranes will ask for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.errands import (
    Errand,
    PotFacts,
    Said,
    ThingFacts,
    errands,
    membrane_change,
    meter_check,
    rinsed_on,
    still_asked,
    water_retest,
)
from fenwa.core.care.on_trial import OnTrial, trial_look_due
from fenwa.core.care.ramp import Ramp, run
from fenwa.core.care.vocabulary import DONE, LATER
from fenwa.core.leaf.series import Dose, series_days
from fenwa.core.leaf.timing import expected_by
from fenwa.core.library.loader import media
from fenwa.core.pace import in_steps
from fenwa.core.water.membrane import DEFAULT_FLOOR_PCT, MembranePair, membrane_trend
from fenwa.core.water.watch import water_watch
from fenwa.store import models
from fenwa.store.care_state import house_of
from fenwa.store.collection import kept_of_pots
from fenwa.store.leaf_rows import opened_days, series_kept
from fenwa.store.memory import EVERYTHING, remembered, rests_on
from fenwa.store.pot_today import PotToday
from fenwa.store.seen_of_pots import LookAgain, put_off
from fenwa.store.water_rows import membrane_pairs, open_meters, past_readings
from fenwa.store.water_state import WaterToday, calibration_of, waters_as_found

_RAMP = TypeAdapter(Ramp)


def errands_due(session: Session, pots: list[PotToday], today: date, until: date) -> list[Errand]:
    """Jobs due up to a day that nobody has done or put off, the oldest first."""

    def made(s: Session) -> list[Errand]:
        rests_on({EVERYTHING})  # the pots handed in
        return _errands_due(s, pots, today, until)

    return remembered(session, f"errands {until - today}", today, made)


def _errands_due(session: Session, pots: list[PotToday], today: date, until: date) -> list[Errand]:
    events = list(
        session.scalars(
            select(models.Event).where(
                models.Event.archived_at.is_(None), models.Event.kind.in_((DONE, LATER)), models.Event.on <= today
            )
        )
    )
    said = [_said(e=e) for e in events]
    rinsed = rinsed_on(said)
    given = series_at(session, pots)
    facts = _facts_kept(session, pots, today)
    dated = [
        replace(facts[i], rinsed_on=rinsed.get(i), series=given.get(i, ())) if i in rinsed or i in given else facts[i]
        for i in (p.id for p in in_steps(pots))
    ]
    return still_asked(errands(dated, _things_kept(session, today), until), said, today)


def _facts_kept(session: Session, pots: list[PotToday], today: date) -> dict[int, PotFacts]:
    """Dates of every pot but what jobs said and series ask; worked out anew where something of the pot was written."""

    def made(new: Sequence[PotToday]) -> dict[int, PotFacts]:
        _, again = put_off(session, today, {p.pot.id for p in new})
        trials: dict[int, OnTrial] = house_of(session, today)["trials"]
        leaf_by = leaf_expected(session, new, today)
        return {p.id: facts_of(p, again.get(p.id), trials.get(p.id), leaf_by.get(p.id)) for p in new}

    return kept_of_pots(session, "errand facts", pots, made)


def _said(e: models.Event) -> Said:
    return Said(
        errand_id=e.errand_id or "",
        kind=e.errand_kind,  # type: ignore[arg-type]  # checked when it was stored
        on=e.on,
        pot_id=e.pot_id,
        put_off_days=(e.days or 1) if e.kind == LATER else None,
    )


def leaf_expected(session: Session, pots: Sequence[PotToday], today: date) -> dict[int, date]:
    """The last day the next leaf of each pot's plant is expected, of those that grow."""
    opened = opened_days(session, today, [p.plant.id for p in pots])
    out = {}
    for p in pots:
        if p.day.unseen_since is not None and (by := expected_by(opened.get(p.plant.id, ()))) is not None:
            out[p.pot.id] = by
    return out


def series_at(session: Session, pots: list[PotToday]) -> dict[int, tuple[tuple[int, str, Dose], ...]]:
    """Treatments given several times, of each pot and of its place."""
    out: dict[int, tuple[tuple[int, str, Dose], ...]] = {}
    for row in series_kept(session):
        doses = tuple((row.id, row.what, dose) for dose in series_days(row.on, row.days))
        for p in pots:
            if p.pot.id == row.pot_id or (row.place_id is not None and p.pot.place_id == row.place_id):
                out[p.pot.id] = (*out.get(p.pot.id, ()), *doses)
    return out


def facts_of(
    p: PotToday, again: LookAgain | None = None, trial: OnTrial | None = None, leaf_by: date | None = None
) -> PotFacts:
    """A pot's dates; ``again``: a decision to be looked at again, ``leaf_by``: when its next leaf is expected."""
    prills = p.day.kept.prills
    return PotFacts(
        id=p.pot.id,
        code=p.pot.code,
        name=p.name,
        drains=p.spec.drains,
        route=p.pot.route,
        from_above=p.profile.flush.from_above,
        cadence_days=p.profile.flush.cadence_days,
        kept_since=p.plant.arrived_on or p.log.kept_since,
        last_flush_on=p.log.last_flush_on,
        isolated=p.pot.isolated,
        isolated_since=p.pot.isolated_since or p.plant.arrived_on,
        look_again_on=again.on if again else None,
        look_again_for=again.why if again else "",
        look_again_what=again.what if again else "",
        prill_until=prills.until if prills else None,
        medium_since=p.pot.medium_since,
        medium_life_months=media()[p.pot.medium_id].life_months if p.pot.medium_id in media() else None,
        dormant=p.phase == "dormant",
        looked_on=p.day.unseen_since,
        phase_asked_on=p.pot.entered_on if p.day.phase_is_asked else None,
        died_back_on=p.day.died_back_on,
        ramps=tuple((r.what, run(r, p.log.limp_days, p.log.firm_on, p.today)) for r in ramps_of(p.plant)),
        leaf_by=leaf_by,
        trial_look_on=trial_look_due(trial.looks, p.log.last_look_on) if trial else None,
        arrived_on=p.plant.arrived_on if any(h.id == "just arrived" for h in p.holds) else None,
    )


def ramps_of(plant: models.Plant) -> list[Ramp]:
    """The ramps of a plant as the core reads them."""
    return [_RAMP.validate_python(r) for r in (plant.ramp or {}).get("ramps", [])]


def _things_kept(session: Session, today: date) -> list[ThingFacts]:
    return remembered(session, "things", today, lambda s: _things(s, waters_as_found(s, today), today))


def _things(session: Session, waters: Sequence[WaterToday], today: date) -> list[ThingFacts]:
    """Meters to check, waters to read again, membranes to change."""
    out = []
    for meter in open_meters(session):
        checked = calibration_of(session, meter, today)
        if checked is not None:  # one never checked says so at the Water station
            out.append(meter_check(meter.id, meter.name, checked.result.next_check_on))
    for w in waters:
        past = past_readings(session, w.water.id, today)
        watch = water_watch(kind=w.known.kind, readings=past, today=today, collected_on=w.water.collected_on).result
        out.append(water_retest(w.water.id, w.water.name, watch.retest_on))
        out.append(membrane_change(w.water.id, w.water.name, _membrane_on(session, w.water, today)))
    return out


def _membrane_on(session: Session, water: models.Water, today: date) -> date | None:
    rows = membrane_pairs(session, water.id, today)
    if not rows:
        return None
    floor = water.membrane_floor_pct if water.membrane_floor_pct is not None else DEFAULT_FLOOR_PCT
    pairs = [MembranePair(r.on, r.feed_uS_cm, r.permeate_uS_cm) for r in rows]
    return membrane_trend(pairs=pairs, today=today, floor_pct=floor).result.below_floor_on
