"""The whole collection on a day, as core types: pots with today's predicted reading."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any, TypeVar

from sqlalchemy import select, true
from sqlalchemy.orm import Session

from fenwa.core.care.day import phase_on, pot_day
from fenwa.core.care.feeding import plan_in_force
from fenwa.core.care.kept import Chosen, KeptPot, PlaceFacts, Predicted
from fenwa.core.care.kind_in_force import strictest_of
from fenwa.core.care.on_trial import plan_on_trial
from fenwa.core.care.plan import plan_of_pot
from fenwa.core.library.profile import Profile
from fenwa.core.pot.balance import State
from fenwa.core.pot.fold import rested
from fenwa.core.pot.folded import reading_of, state_of
from fenwa.core.pot.learning import Pooled, with_pooled
from fenwa.core.pot.specification import Members, PotSpec, band
from fenwa.core.pot.weights import PotWater, Weighed, pot_water_from_weights
from fenwa.store.care_state import CareRows, load_care
from fenwa.store.core_version import CORE_VERSION
from fenwa.store.giving_way import InTurns
from fenwa.store.memory import EVERYTHING, Readable, rests_on, undisturbed
from fenwa.store.mixes import told_by_others
from fenwa.store.models import Place, Plant, Pot, PotSummary
from fenwa.store.pot_today import PotToday, facts_from_plain
from fenwa.store.salt_of_pots import pot_spec
from fenwa.store.seen_of_pots import OnScale
from fenwa.store.summary import refresh_many

T = TypeVar("T")
AT_ONCE = 500  # pots whose logs are read together: all at once they would not fit the memory of a small machine


def batched(rows: Sequence[T], size: int) -> Iterator[Sequence[T]]:
    """A long list in pieces."""
    for i in range(0, len(rows), size):
        yield rows[i : i + size]


@dataclass(frozen=True)
class _Known:
    """Every pot on a day, in walking order, as of a count of writes."""

    day: date
    at: int
    pots: dict[int, PotToday]


def stale_summaries(session: Session, only: set[int] | None = None) -> list[int]:
    """Pots whose folded row is missing or made by other figures; all, or among those named."""
    rows = session.execute(
        select(Pot.id)
        .outerjoin(PotSummary, PotSummary.pot_id == Pot.id)
        .where(
            Pot.archived_at.is_(None),
            (PotSummary.pot_id.is_(None)) | (PotSummary.core_version != CORE_VERSION),
            Pot.id.in_(only) if only is not None else true(),
        )
    )
    return [r[0] for r in rows]


def is_being_folded(session: Session, pot_id: int) -> bool:
    """Whether a pot is kept and its log waits to be folded by new figures."""
    folded = select(PotSummary.core_version).where(PotSummary.pot_id == pot_id)
    kept = session.get(Pot, pot_id)
    return kept is not None and kept.archived_at is None and session.scalar(folded) != CORE_VERSION


def refresh_stale(session: Session) -> int:
    """Fold again what is stale; returns how many."""
    stale = stale_summaries(session)
    refresh_many(session, stale)
    return len(stale)


def pots_today(session: Session, today: date, only: set[int] | None = None) -> list[PotToday]:
    """Every pot kept, in walking order, with today's predicted reading.

    A reading session uses what was computed before and loads only the pots written since.
    """
    store = session.info.get("store")
    if store is None:
        if only is not None:  # a write sees its pots, whatever is still to be folded
            refresh_many(session, stale_summaries(session, only))
        return _load_pots(session, today, only)
    rests_on({EVERYTHING})
    known = _remembered(store, today)
    if only is not None:
        return [known[i] for i in known if i in only]
    return InTurns(known.values())


def kept_of_pots(
    session: Session,
    key: str,
    pots: Sequence[PotToday],
    make: Callable[[Sequence[PotToday]], dict[int, T]],
    beside: tuple[str, ...] = (),
) -> dict[int, T]:
    """What ``make`` works out of pots, by their number. What was worked out of one serves until something of it, of
    its mix or of its rules is written: then it is another object. ``make`` leaves out what has none.
    ``beside``: tables it rests on besides.
    """
    store = session.info.get("store")
    rests_on({EVERYTHING})
    kept: dict[int, tuple[PotToday, T | None]] = {}
    if store is not None:
        marks = [session.info["tables"].get(table, 0) for table in beside]
        if (was_kept := store.changed.memory.get(key)) is None or was_kept[0] != marks:
            was_kept = store.changed.memory[key] = (marks, kept)
        kept = was_kept[1]
    out, new = dict[int, T](), list[PotToday]()
    for p in pots:
        was = kept.get(p.id)
        if was is None or was[0] is not p:
            new.append(p)
        elif was[1] is not None:
            out[p.id] = was[1]
    found = make(new) if new else {}
    if store is None or store.changed.writes == session.info["writes"]:
        # a write since: this session may read from before it what the pot, loaded after it, is to be kept with
        kept.update({p.id: (p, found.get(p.id)) for p in new})
    return out | found


def _remembered(store: Readable, today: date) -> dict[int, PotToday]:
    changed = store.changed
    with changed.filling:
        at = changed.writes  # before the snapshot below, so that no committed write is missed
        known: _Known | None = changed.memory.get("pots")
        written = changed.pots_since(known.at) if known is not None and known.day == today else None
        if known is not None and written is not None and not written:
            return known.pots
        with store.reading() as fresh:
            loaded = _load_pots(fresh, today, written)
        before = known.pots if known is not None and written is not None else {}
        now = changed.memory["pots"] = _Known(today, at, _in_order(before, loaded, written or set()))
        return now.pots


def pots_as_read(session: Session, today: date, only: set[int]) -> list[PotToday]:
    """Pots for a write that only looks at them: as readers keep them where nothing of them was written since.

    Nothing may be written on their rows: they may not be this session's.
    """
    store = undisturbed(session)
    known: _Known | None = None if store is None else store.changed.memory.get("pots")
    if store is not None and known is not None and known.day == today and only <= known.pots.keys():
        written = store.changed.pots_since(known.at)
        if written is not None and not written & only:
            return [known.pots[i] for i in only]
    return pots_today(session, today, only)


def _in_order(known: dict[int, PotToday], loaded: list[PotToday], changed: set[int]) -> dict[int, PotToday]:
    """Pots in walking order; where none came, went or moved they are in it already."""

    def place(p: PotToday) -> tuple[int, str]:
        return p.pot.shelf_order, p.pot.code

    new = {p.pot.id: p for p in loaded}
    if all(i in new for i in changed & known.keys()) and all(
        i in known and place(known[i]) == place(p) for i, p in new.items()
    ):
        return known | new
    kept = [p for i, p in known.items() if i not in changed]
    return {p.pot.id: p for p in sorted([*kept, *loaded], key=place)}


def _load_pots(session: Session, today: date, only: set[int] | None) -> list[PotToday]:
    """Pots from the database; those of a piece go through the core in one call."""
    query = (
        select(Pot, PotSummary.mix)
        .join(PotSummary, PotSummary.pot_id == Pot.id)
        .where(Pot.archived_at.is_(None), PotSummary.core_version == CORE_VERSION)  # folded by other figures: not yet
        .order_by(Pot.shelf_order, Pot.code)
    )
    living = select(Plant).where(Plant.archived_at.is_(None)).order_by(Plant.id)
    if only is not None:
        query, living = query.where(Pot.id.in_(only)), living.where(Plant.pot_id.in_(only))
    plants: dict[int, list[Plant]] = {}
    for plant in session.scalars(living):
        plants.setdefault(plant.pot_id, []).append(plant)
    found = [(pot, mix) for pot, mix in session.execute(query).all() if pot.id in plants]
    if not found:
        return []
    care = load_care(session, today, only)
    told = told_by_others(session, {pot.id: mix for pot, mix in found})
    out = []
    for some in batched(found, AT_ONCE):
        ids = [pot.id for pot, _ in some]
        stored = session.execute(select(PotSummary.pot_id, PotSummary.data).where(PotSummary.pot_id.in_(ids)))
        data = {pot_id: x for pot_id, x in stored}  # noqa: C416 - a result would be taken for a mapping
        rows = [(pot, data[pot.id], plants[pot.id]) for pot, _ in some]
        out += _on_the_day(rows, care, [told.get(i, ()) for i in ids], today)
    return out


def _on_the_day(
    rows: list[tuple[Pot, dict[str, Any], list[Plant]]], care: CareRows, told: list[tuple[Pooled, ...]], today: date
) -> list[PotToday]:
    """Pots with what their logs left and the plants that live in them, on a day."""
    kinds = [strictest_of([care.profile(x.profile_id, x.id) for x in mine]) for _, _, mine in rows]
    places = {place_id: _place_facts(place, care) for place_id, place in care.places.items()}
    logs = [facts_from_plain(data["facts"]) for _, data, _ in rows]
    pots = [_kept(pot, mine[0], care) for pot, _, mine in rows]
    chosen = [_chosen(pot, mine[0], kind, care) for (pot, _, mine), kind in zip(rows, kinds, strict=True)]
    where = [places[pot.place_id] for pot, _, _ in rows]
    found = [
        phase_on(log, place, kept, kind, by.phase_by.value, today)
        for log, place, kept, kind, by in zip(logs, where, pots, kinds, chosen, strict=True)
    ]
    specs = [
        pot_spec(pot, kind, f.phase, care.prill_salt(pot))
        for (pot, _, _), kind, f in zip(rows, kinds, found, strict=True)
    ]
    readings = _predicted([data for _, data, _ in rows], specs, today, told)
    out = []
    for i, (pot, _, mine) in enumerate(rows):
        day = pot_day(
            kept=pots[i],
            log=logs[i],
            place=where[i],
            profile=kinds[i],
            spec=specs[i],
            chosen=chosen[i],
            predicted=readings[i],
            found=found[i],
            today=today,
        )
        own = any(care.is_own(x.profile_id, x.id) for x in mine)
        out.append(PotToday(pot, mine[0], tuple(mine), care.places[pot.place_id], own, day))
    return out


def states_of(session: Session, pots: list[PotToday], today: date) -> tuple[Members, State]:
    """Members and states of many pots today, with what their readings and those of their mixes taught."""
    rows = select(PotSummary.pot_id, PotSummary.data, PotSummary.mix).where(
        PotSummary.pot_id.in_([p.pot.id for p in pots])
    )
    found = {r.pot_id: r for r in session.execute(rows)}
    told = told_by_others(session, {p.pot.id: found[p.pot.id].mix for p in pots})
    stored, of = [found[p.pot.id].data for p in pots], [told.get(p.pot.id, ()) for p in pots]
    return _states(stored, [p.spec for p in pots], today, of)


def _states(
    stored: list[dict[str, Any]], specs: list[PotSpec], today: date, told: list[tuple[Pooled, ...]]
) -> tuple[Members, State]:
    members, state = state_of(specs, [data["state"] for data in stored])
    if any(told):
        members, state = with_pooled(specs, members, state, told)
    as_of = [date.fromisoformat(data["as_of"]) if data["as_of"] else None for data in stored]
    return members, rested(specs, members, state, as_of, today)


def _predicted(
    stored: list[dict[str, Any]], specs: list[PotSpec], today: date, told: list[tuple[Pooled, ...]]
) -> list[Predicted]:
    """Today's predicted reading of every pot, all in one call; none for a pot never poured.

    ``told``: what other pots of its mix tell of each.
    """
    as_of = [data["as_of"] for data in stored]
    members, state = _states(stored, specs, today, told)
    bands = zip(as_of, *band(reading_of(members, state)), strict=True)
    return [Predicted(float(m), float(a), float(b)) if on is not None else Predicted() for on, m, a, b in bands]


def _place_facts(place: Place, care: CareRows) -> PlaceFacts:
    """A place as the core reads it."""
    c = care.climate.get(place.id)
    return PlaceFacts(
        name=place.name,
        hemisphere=place.hemisphere,  # type: ignore[arg-type]  # checked when stored
        latitude_deg=place.latitude_deg,
        lamp_hours=place.lamp_hours,
        lamp_dli=place.lamp_dli,
        night_C=c.night_C if c else None,
        day_C=c.day_C if c else None,
        medium_C=c.medium_C if c else None,
        humidity_pct=c.humidity_pct if c else None,
        climate_on=c.on if c else None,
        nights=care.nights.get(place.id, ()),
        days=care.days.get(place.id, ()),
        warmth=care.warmth.get(place.id, ()),
        on_display=place.on_display,
        lamps_off=place.lamps_off,
    )


def _kept(pot: Pot, plant: Plant, care: CareRows) -> KeptPot:
    """A pot as the core reads it."""
    water, treated = _by_weight(pot, care.weights.get(pot.id, [])), care.treated.get(pot.id)
    trial = care.trials.get(pot.id)
    return KeptPot(
        id=pot.id,
        code=pot.code,
        name=pot.name,
        spot=pot.spot,
        shelf_order=pot.shelf_order,
        isolated=pot.isolated,
        route=pot.route,  # type: ignore[arg-type]  # checked when it was stored
        interval_days=pot.interval_days,
        interval_by=pot.interval_by,
        plain_every=pot.plain_every,
        usual_volume_L=pot.usual_volume_L,
        medium_charged=pot.medium_charged,
        medium_since=pot.medium_since,
        repotted_on=pot.repotted_on,
        entered_on=pot.entered_on,
        watered_on=pot.watered_on,
        fed_on=pot.fed_on,
        arrived_on=plant.arrived_on,
        trial=trial.words if trial else plant.trial,
        trial_feed=trial.feed if trial else "as planned",
        trial_flush=bool(trial and trial.flush_now),
        rule=care.ready_rule(pot),
        felt=care.felt_of(pot, water.left_share if water else None),
        water=water,
        overrides=care.overrides.get(pot.id, ()),
        prills=care.newest_prills(pot),
        treated_on=treated.on if treated else None,
        treated_days=(treated.days or 0) if treated else 0,
        skipped_until=care.skipped.get(pot.id),
        crown=pot.crown,
        filled=pot.filled,
        soak_min=pot.soak_min,
        stand_min=pot.stand_min,
        check_most_days=pot.check_most_days,
        water_id=trial.water_id if trial and trial.water_id is not None else pot.water_id,
    )


def _chosen(pot: Pot, plant: Plant, profile: Profile, care: CareRows) -> Chosen:
    """What rules the pot by choice."""
    plan, school, by = care.feeding_of(pot, profile)
    trial = care.trials.get(pot.id)
    if trial is not None and trial.feed == "share":
        plan = plan_on_trial(plan_in_force(plan, school, plan_of_pot(pot.plain_every)), trial)
    told_by = care.phase_school_of(pot, plant.phase_school, profile)
    return Chosen(school, by, told_by, plan, care.products_of(pot, profile))


def _by_weight(pot: Pot, weights: list[OnScale]) -> PotWater | None:
    """Water left by the scale, once a drained, a dry and a weight since are known."""
    newest = {w.kind: w for w in weights}
    drained, dry = newest.get("drained"), newest.get("dry")
    if drained is None or dry is None or drained.grams <= dry.grams:
        return None
    now = weights[-1]
    return pot_water_from_weights(
        drained_g=drained.grams, dry_g=dry.grams, now_g=now.grams, weights=[Weighed(w.on, w.grams) for w in weights]
    ).result
