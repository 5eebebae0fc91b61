"""A pot's day as the round needs it."""

from __future__ import annotations

from functools import lru_cache

from fenwa.core.care.acts import wrong_way
from fenwa.core.care.day import PotDay
from fenwa.core.care.due import RoundPot
from fenwa.core.care.felt import since_pour
from fenwa.core.care.pattern import feed_is_next
from fenwa.core.constants import FLUSH_SHARE
from fenwa.core.pot.flush import NOT_FROM_ABOVE, FlushPlan, FromAbove, flush_plan, root_zone_for
from fenwa.core.pot.specification import PotSpec
from fenwa.core.water.choice import WaterChoice


@lru_cache(maxsize=4096)
def near_flush(spec: PotSpec, reading: float, target: float, water_ec: float, from_above: FromAbove) -> FlushPlan:
    """A flush for a predicted reading: a pure calculation, remembered, for a pot is asked about on every page of a
    day.
    """
    return flush_plan(
        pot=spec,
        root_zone_uS_cm=root_zone_for(spec, reading),
        target_reading_uS_cm=target,
        water_uS_cm=water_ec,
        from_above=from_above,
    ).result


def round_pot(d: PotDay, choice: WaterChoice, first_uS_cm: float | None) -> RoundPot:
    """A pot as the round needs it; a flush is worked out only where one is near.

    ``first_uS_cm``: the first water it may have.
    """
    kept, rz, from_above = d.kept, d.profile.root_zone, d.profile.flush.from_above
    rounds, litres, pause, sentence = 0, 0.0, 0.0, ""
    reading = d.predicted.reading
    if reading is not None and first_uS_cm is not None and reading >= FLUSH_SHARE * rz.ec_ceiling_uS_cm:
        plan = near_flush(d.spec, reading, rz.ec_ideal_uS_cm[1], first_uS_cm, from_above)
        rounds, litres, pause, sentence = plan.rounds, plan.round_L, plan.pause_min, plan.sentence
        if plan.stop_runoff_uS_cm is not None:
            sentence += f" Stop when the runoff reads {plan.stop_runoff_uS_cm:.0f} µS/cm after a pause."
    low, high = d.nitrogen_range
    leaf, feeding, way = d.opted("leaf spray"), d.feeding, d.feeding.poured_by
    return RoundPot(
        id=kept.id,
        code=kept.code,
        name=kept.name or d.profile.short,
        place=f"{d.place.name}, {kept.spot}" if kept.spot else d.place.name,
        shelf_order=kept.shelf_order,
        isolated=kept.isolated,
        interval_days=d.interval.days,
        pattern=d.pattern,
        fed=d.fed,
        last_pour_on=d.last_pour_on,
        last_flush_on=d.log.last_flush_on,
        feeds_at_root=d.feeds_at_root and d.may_feed and not d.feed_waits,
        n_low_mg_L=low,
        n_high_mg_L=high,
        feed_ceiling_uS_cm=d.feed_ceiling_uS_cm,
        carnivore=d.profile.carnivore,
        volume_L=d.volume_L,
        route=kept.route,
        reading_uS_cm=reading,
        ceiling_uS_cm=rz.ec_ceiling_uS_cm,
        flush_rounds=rounds,
        flush_round_L=litres,
        flush_pause_min=pause,
        flush_sentence=sentence,
        flush_forbidden=from_above in NOT_FROM_ABOVE,
        water_ids=choice.ids,
        water_note=choice.note,
        holds=d.holds,
        spray_n_mg_L=0.0 if d.is_first_day else feeding.spray_mg_L,
        spray_ceiling_uS_cm=leaf.ec_ceiling_uS_cm if leaf else None,
        spray_mL=feeding.spray_mL,
        skipped_until=kept.skipped_until,
        ready=d.ready,
        product_id=feeding.product_id,
        asked=feeding.asked,
        urgent=_urgent(d),
        asked_share=feeding.share if feeding.asked is not None and feeding.asked[0] == "ec_total" else 1.0,
        n_most_mg_L=feeding.most_mg_L,
        feed_held=_feed_held(d),
        crown=d.crown,
        soak_min=kept.soak_min,
        stand_min=kept.stand_min,
        feed_route=None if way is None or wrong_way(way, d.crown, way) else way,
    )


def _urgent(d: PotDay) -> str:
    """A plant that sleeps when it dries, found dry in growth, goes to sleep again."""
    felt, last = d.kept.felt, d.last_pour_on
    dry = felt.moist == "dry" and since_pour(felt.moist_on, last)
    if dry and d.profile.rest.kind == "dry" and d.found.phase in ("active", "flowering"):
        return "Urgent: dry in growth, it may go back to rest."
    return ""


def _feed_held(d: PotDay) -> str:
    """Why a feed that its plan would give now is held, and what ends it; empty where none is due."""
    kind = d.feeding.of_phase
    if kind is None or not feed_is_next(d.pattern, d.fed, d.today):
        return ""
    hold = next((h for h in d.holds if "feed" in h.blocks and not h.word and not h.standing), None)
    if hold is None or (not kind.feed and not hold.quiet):
        return ""
    return f"Feed held: {hold.reason} {hold.release}"
