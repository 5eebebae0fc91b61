"""What a flush begins with, and what it has achieved at its end."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible
from fenwa.core.pot.flush import (
    FlushPlan,
    FromAbove,
    flush_plan,
    root_zone_for,
    stop_runoff_uS_cm,
    usual_pause_min,
    usual_round_L,
)
from fenwa.core.pot.live import LiveStatus
from fenwa.core.pot.live_passes import FlushPass
from fenwa.core.pot.specification import PotSpec, capacity_L

FlushEnd = Literal["reached", "flattened", "ended", "interrupted"]
ENDS: dict[LiveStatus, FlushEnd] = {"target reached": "reached", "flattened out": "flattened"}
PLAIN_FIRST = 1  # waterings with plain water after a flush, then feed
FIRST_FEED_SHARE = 0.5  # of the usual strength, once; judgement


@dataclass(frozen=True, kw_only=True)
class FlushBegin:
    """The stop, the rounds and the soak a flush begins with. [µS/cm, L, min, 1/L]"""

    stop_runoff_uS_cm: float
    first_runoff_uS_cm: float
    root_zone_full_uS_cm: float
    slope_per_L: float
    round_L: float
    pause_min: float
    refill_L: float
    plan: FlushPlan


def begin_flush(
    *,
    pot: PotSpec,
    root_zone_uS_cm: float,
    target_reading_uS_cm: float,
    water_uS_cm: float,
    deficit_L: float = 0.0,
    from_above: FromAbove = "yes",
    target_runoff_uS_cm: float | None = None,
    round_L: float | None = None,
) -> FlushBegin:
    """The stop and the rounds of a flush of one pot, E4.1b and E4.2.

    ``target_runoff_uS_cm``: the grower's own stop, a runoff; else it follows from the reading wanted. [µS/cm]

    Raises
    ------
    Infeasible
        If the kind must not be wetted from above, or this water cannot get there.
    """
    plan = flush_plan(
        pot=pot,
        root_zone_uS_cm=root_zone_uS_cm,
        target_reading_uS_cm=target_reading_uS_cm,
        water_uS_cm=water_uS_cm,
        round_L=round_L,
        deficit_L=deficit_L,
        from_above=from_above,
    ).result
    if plan.status == "forbidden":
        raise Infeasible(plan.sentence, pointer="/way")
    eta, W = pot.medium.eta, capacity_L(pot)
    W_m = (1 - pot.medium.phi) * W
    stop = stop_runoff_uS_cm(root_zone_for(pot, target_reading_uS_cm), water_uS_cm, eta)
    if target_runoff_uS_cm is not None:
        require(target_runoff_uS_cm, "Runoff to stop at", "µS/cm", low=1, high=20_000, pointer="/target_runoff")
        stop = target_runoff_uS_cm
        if stop <= water_uS_cm:
            raise Infeasible(
                f"This water cannot get there: it reads {water_uS_cm:.0f} µS/cm itself, "
                f"the target is {stop:.0f} µS/cm. Use a purer water or a higher target.",
                pointer="/target_runoff",
            )
    elif plan.status == "impossible" or stop <= water_uS_cm:
        raise Infeasible(f"This water cannot get there. {plan.sentence}", pointer="/water_id")
    held = W_m + pot.medium.R * pot.medium.phi * W
    full = (root_zone_uS_cm * (held - deficit_L) + water_uS_cm * deficit_L) / held
    volume = round_L if round_L is not None else (plan.round_L or usual_round_L(pot))
    pause = plan.pause_min if 0 < plan.pause_min < 24 * 60 else usual_pause_min(pot)
    return FlushBegin(
        stop_runoff_uS_cm=stop,
        first_runoff_uS_cm=water_uS_cm + eta * max(0.0, full - water_uS_cm),
        root_zone_full_uS_cm=full,
        slope_per_L=eta / W_m,
        round_L=volume,
        pause_min=pause,
        refill_L=deficit_L,
        plan=plan,
    )


@dataclass(frozen=True)
class AfterFlush:
    """What follows a flush: when feed resumes and at what share of its strength."""

    feed_on: date
    feed_share: float
    sentence: str


def after_flush(on: date, interval_days: float, complete: bool) -> AfterFlush | None:
    """One watering plain, then feed at half strength once; None where the flush was broken off: it is still due."""
    if not complete:
        return None
    feed_on = on + timedelta(days=max(2, math.ceil((1 + PLAIN_FIRST) * interval_days)))
    return AfterFlush(
        feed_on,
        FIRST_FEED_SHARE,
        f"Plain water next; feed again from {feed_on.isoformat()}, the first at half strength.",
    )


def ended_as(status: LiveStatus, broken_off: bool) -> FlushEnd:
    """How a flush ended, by what its runoffs said last; one broken off is still due."""
    if broken_off:
        return "interrupted"
    return ENDS.get(status, "ended")


def achieved_efficiency(pot: PotSpec, passes: Sequence[FlushPass], water: float) -> float | None:
    """The leaching efficiency a flush had, over what was poured between its first and its last reading.

    What it washed out over what full mixing would; None: cannot be told.
    """
    read = [i for i, x in enumerate(passes) if x.runoff_uS_cm is not None]
    if len(read) < 2:
        return None
    before, after = passes[read[0]].runoff_uS_cm or 0.0, passes[read[-1]].runoff_uS_cm or 0.0
    litres = sum(x.volume_L for x in passes[read[0] + 1 : read[-1] + 1])
    mobile_L = (1 - pot.medium.phi) * capacity_L(pot)
    if litres <= 0 or before <= after or after <= water or mobile_L <= 0:
        return None
    return math.log((before - water) / (after - water)) * mobile_L / litres
