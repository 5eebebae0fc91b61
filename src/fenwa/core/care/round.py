"""The day's round: what is due, which cans it takes, who gets what in walking order."""

from __future__ import annotations

from datetime import date

from fenwa.core.care.due import Job, RoundPot, job_of, sprays_today
from fenwa.core.care.feed_cans import benches, by_product, feed_cans, feed_for, spray_cans, which_feed
from fenwa.core.care.round_parts import (
    Can,
    CanPot,
    PotToCheck,
    RoundFeed,
    RoundPlan,
    RoundWater,
    can_pot,
    legs_of,
    made_for,
    shares_of,
    walk_of,
)
from fenwa.core.mix.can import litres_for
from fenwa.core.once import changed, once_for
from fenwa.core.pace import in_steps
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MINUTES_A_POT, MINUTES_A_CAN, MINUTES_A_ROUND = 0.75, 2.5, 2.0  # judgement
CLEAN_HANDS = "Isolated pots last: wash hands and blades before and after them, and let nothing drip from pot to pot."


@calculation("round", title="Today's round", station="round", many_rows=True)
def round_plan(
    *,
    pots: list[RoundPot],
    waters: list[RoundWater],
    feeds: list[RoundFeed],
    today: date,
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
) -> Computed[RoundPlan]:
    """What is due today, grouped into as few cans as the pots' ranges allow.

    Parameters
    ----------
    pots : list[RoundPot]
        Every pot kept. [L, mg/L, µS/cm, d]
    waters : list[RoundWater]
        Waters in the grower's own order, first choice first. [µS/cm]
    feeds : list[RoundFeed]
        Feeds their grower owns, each with its own measured slope if it has one. [%, µS/cm per g/L]
    today : date
        The day to plan for.
    scale_step_g : float
        Smallest step of the scale. [g]
    syringe_step_mL : float
        Smallest division of the syringe. [mL]

    Returns
    -------
    Computed
        Cans with volumes and weighings, pots in walking order, holds with reasons. [L, min]

    Raises
    ------
    OutOfRange
        If a volume or strength cannot be.

    Notes
    -----
    A pot gets the feed its plan names; where it names none, the only feed there is. Nobody chooses between several,
    and nothing is weighed that is not owned: those pots get plain water and are told. A missed feed is never
    doubled. Plain water goes out first, then feed from weak
    to strong, flushes last; carnivores never share a can with others.

    References
    ----------
    judgement; interval rule; E1.4
    """
    ledger = Ledger(
        "Today's round",
        "Interval rule; lift or feel the pot before pouring.",
        ("judgement", "profile", "interval-stabbing"),
    )
    at_hand = {w.id: w for w in waters}
    plain, feed, flush, sprays = list[RoundPot](), list[RoundPot](), list[RoundPot](), list[RoundPot]()
    to_see, noted, no_water = list[RoundPot](), list[RoundPot](), list[RoundPot]()
    by_job: dict[Job, list[RoundPot]] = {"plain": plain, "feed": feed, "flush": flush}
    for p in pots:  # once through thousands
        job, is_sprayed = _due(p, today)
        if job is not None and job in by_job:
            by_job[job].append(p)
        if is_sprayed:
            sprays.append(p)
        if p.to_see is not None:
            to_see.append(p)
        if p.water_note:
            noted.append(p)
    strengths: list[Can] = []
    mist: list[Can] = []
    saving: list[str] = []
    at_bench, asked = benches(feeds, waters, scale_step_g, syringe_step_mL), []
    usual = feed_for(None, feeds)
    for product_id, (fed, sprayed) in by_product(feed, sprays, usual.id if usual else None).items():
        bench = at_bench.get(product_id) if product_id is not None else None
        if bench is None:
            asked += [(p, which_feed(product_id, feeds)) for p in walk_of(fed + [p for p in sprayed if p not in fed])]
            plain = plain + fed
            continue
        for way in dict.fromkeys(made_for(p) for p in fed):
            made, unfed, saved = feed_cans([p for p in fed if made_for(p) == way], waters, bench, ledger)
            strengths += made
            plain = plain + unfed
            saving += [saved] if saved else []
        mist += spray_cans(sprayed, waters, bench, ledger)
    cans: list[Can] = []
    for carnivore in (True, False):
        by_water: dict[int, list[RoundPot]] = {}
        for p in in_steps(plain):
            if p.carnivore is carnivore:
                first = next((i for i in p.water_ids if i in at_hand), None)
                if first is None:
                    no_water.append(p)
                else:
                    by_water.setdefault(first, []).append(p)
        cans.extend(_plain_can(by_water[w.id], w, carnivore) for w in waters if w.id in by_water)
    cans.extend(sorted(strengths, key=lambda c: c.ec_uS_cm))
    for p in walk_of(flush):
        flush_water = next((at_hand[i] for i in p.water_ids if i in at_hand), None)
        if flush_water is None:
            no_water.append(p)
        else:
            cans.append(_flush_can(p, flush_water))
    cans.extend(mist)
    looks = [seen for p in walk_of(to_see) if (seen := _to_see(p)) is not None]
    looks += [PotToCheck(p.id, p.code, p.name, "Due for feed; plain water today.", way) for p, way in asked]
    looks += [
        PotToCheck(
            p.id,
            p.code,
            p.name,
            "Due for water, and no water at hand may be given to it.",
            p.water_note or "Enter a water, or a purer one.",
        )
        for p in walk_of(no_water)
    ]
    poured = {share.pot_id for c in cans for share in c.pots}
    looks += [
        PotToCheck(p.id, p.code, p.name, p.water_note, "Give purer water as soon as there is any.")
        for p in walk_of(noted)
        if p.id in poured
    ]
    lettered = tuple([changed(c, letter=_letter(i)) for i, c in enumerate(in_steps(cans))])
    due = len({p.pot_id for c in lettered for p in c.pots})
    ledger.take("n_pots", "pots due", due, "")
    ledger.take("n_cans", "cans", len(lettered), "")
    ledger.take("n_rounds", "flush rounds", sum(p.flush_rounds for p in flush), "")
    minutes = ledger.step(
        "minutes", f"{MINUTES_A_POT} * n_pots + {MINUTES_A_CAN} * n_cans + {MINUTES_A_ROUND} * n_rounds", "min", "about"
    )
    isolated = any(p.isolated for c in lettered for p in c.pots)
    return ledger.close(
        RoundPlan(
            lettered, tuple(looks), due, minutes, legs_of(lettered), " ".join(saving), CLEAN_HANDS if isolated else ""
        )
    )


def _letter(i: int) -> str:
    return chr(65 + i) if i < 26 else f"{chr(64 + i // 26)}{chr(65 + i % 26)}"


def _plain_can(pots: list[RoundPot], w: RoundWater, carnivore: bool) -> Can:
    volume = litres_for(p.volume_L for p in pots)
    why = "Its own can: carnivores never share one with feed." if carnivore else "Plain water, nothing added."
    return _water_can("plain", f"{volume:g} L {w.name}, nothing added", w, volume, "", why, shares_of(pots, "plain"))


@once_for
def _due(p: RoundPot, today: date) -> tuple[Job | None, bool]:
    return job_of(p, today), sprays_today(p, today)


@once_for
def _to_see(p: RoundPot) -> PotToCheck | None:
    h = p.to_see
    return None if h is None else PotToCheck(p.id, p.code, p.name, h.reason, h.release)


@once_for
def _flush_can(p: RoundPot, w: RoundWater) -> Can:
    volume = round(p.flush_rounds * p.flush_round_L, 2)
    share = can_pot(p, "flush", volume * 1000, "top", p.flush_sentence)
    reading = (
        f"Reading about {p.reading_uS_cm:.0f} µS/cm, ceiling {p.ceiling_uS_cm:.0f} µS/cm."
        if p.reading_uS_cm is not None
        else ""
    )
    return _water_can("flush", f"Flush {p.code}", w, volume, p.flush_sentence, reading, (share,))


def _water_can(
    job: Job,
    title: str,
    w: RoundWater,
    volume_L: float,
    weighing: str,
    why: str,
    pots: tuple[CanPot, ...],
) -> Can:
    """A can of water with nothing weighed into it, its letter still to come. [L]"""
    ec, open_to = w.base.ec25_uS_cm, w.base.half_width_uS_cm
    return Can(
        letter="",
        job=job,
        title=title,
        water_id=w.id,
        water_name=w.name,
        volume_L=volume_L,
        ec_uS_cm=ec,
        ec_low_uS_cm=max(0.0, ec - open_to),
        ec_high_uS_cm=ec + open_to,
        nitrogen_mg_L=0.0,
        strength=None,
        strength_value=0.0,
        weighing=weighing,
        why=why,
        dose=None,
        working=None,
        pots=pots,
        water_measured=w.base.measured,
        to_mix=False,
    )
