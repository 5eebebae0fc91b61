"""A flush round: many pots in an order, on days that water and time allow."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.flush import FromAbove
from fenwa.core.pot.flush_methods import Way
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MOST_POTS = 5000
OVERLAP = 0.35  # of a pot's minutes are the grower's own: others are poured while one soaks; judgement


@dataclass(frozen=True, kw_only=True)
class FlushJob:
    """A pot that could be flushed. ``share``: its reading over its ceiling; ``held``: why not, empty: nothing holds it.

    [L, min]
    """

    pot_id: int
    code: str
    name: str
    share: float
    way: Way
    litres: float
    minutes: float
    from_above: FromAbove = "yes"
    healthy: bool = True
    held: str = ""
    ends: str = ""


@dataclass(frozen=True)
class FlushStop:
    """A pot in its place of the round, and the bath it may share; None: none. [L, min]"""

    pot_id: int
    code: str
    name: str
    way: Way
    litres: float
    minutes: float
    bath: int | None


@dataclass(frozen=True)
class FlushDay:
    """A day of the round. [L, min]"""

    on: date
    stops: tuple[FlushStop, ...]
    litres: float
    minutes: float


@dataclass(frozen=True)
class LeftOut:
    """A pot that is not flushed, why, and what ends that."""

    pot_id: int
    code: str
    name: str
    reason: str
    ends: str


@dataclass(frozen=True)
class FlushRoundPlan:
    """Days in order, who is left out, litres in all against those at hand. [L, min]"""

    days: tuple[FlushDay, ...]
    left_out: tuple[LeftOut, ...]
    litres: float
    minutes: float
    enough: bool
    sentence: str


NEVER_WHY: dict[str, str] = {
    "never": "Its top must stay dry: it is soaked from below, never rinsed from above.",
    "tray_change": "It is never rinsed from above: the water in its tray is changed.",
    "water_change": "It lives in water: that is changed.",
}


def why_no_rinse(from_above: FromAbove, crown: str, drains: bool, each_days: int | None) -> str:
    """Why a pot is left out of a calendar of rinses; empty: it is rinsed."""
    if from_above in NEVER_WHY:
        return NEVER_WHY[from_above]
    if crown == "dry" and not drains:
        return "Its crown must stay dry: its tray is changed instead, never rinsed from above."
    return "" if each_days is not None else "Its kind names no cadence: flush it by reading or by forecast."


def rinse_dates(start: date, each_days: int, until: date) -> tuple[date, ...]:
    """Days of a calendar of flushes from a start on, that day included."""
    out, on = [], start
    while on <= until:
        out.append(on)
        on += timedelta(days=each_days)
    return tuple(out)


@calculation("flush-round", title="A flush round", station="flush", many_rows=True)
def flush_round(
    *,
    jobs: list[FlushJob],
    today: date,
    litres_at_hand: float | None = None,
    litres_a_day: float | None = None,
    minutes_a_day: float | None = None,
) -> Computed[FlushRoundPlan]:
    """The order in which many pots are flushed, spread over days where water or time is short.

    Parameters
    ----------
    jobs : list[FlushJob]
        Pots with the way, litres and minutes each takes, at most 5 000. [L, min]
    today : date
        The first day.
    litres_at_hand : float
        Water there is today, 0 to 100 000; empty: enough. [L]
    litres_a_day : float
        Water that comes in a day, 0 to 100 000; empty: as much as there is at hand, once more each day. [L]
    minutes_a_day : float
        Time for it on a day, 5 to 1 440; empty: no matter. [min]

    Returns
    -------
    Computed
        Days with pots in order, who is left out with reason and end, litres in all. [L, min]

    Raises
    ------
    OutOfRange, InputError
        If a number cannot be.

    Notes
    -----
    The saltiest goes first; one that is not healthy goes last and never shares a bath. Pots soak while others are
    poured, so a third of the minutes of each counts.

    References
    ----------
    section 4; E4.6 (fresh water for every plant that is not sound)
    """
    if len(jobs) > MOST_POTS:
        raise InputError(f"{len(jobs)} pots are too many. Choose a place or a kind.", pointer="/jobs")
    for i, j in enumerate(jobs):
        require(j.litres, "Litres", "L", low=0, high=1000, pointer=f"/jobs/{i}/litres")
        require(j.minutes, "Minutes", "min", low=0, high=100_000, pointer=f"/jobs/{i}/minutes")
        require(j.share, "Share of its ceiling", "", low=0, high=1000, pointer=f"/jobs/{i}/share")
    if litres_at_hand is not None:
        require(litres_at_hand, "Water at hand", "L", low=0, high=100_000, pointer="/litres_at_hand")
    if litres_a_day is not None:
        require(litres_a_day, "Water a day", "L", low=0, high=100_000, pointer="/litres_a_day")
    if minutes_a_day is not None:
        require(minutes_a_day, "Time a day", "min", low=5, high=1440, pointer="/minutes_a_day")
    out = tuple(LeftOut(j.pot_id, j.code, j.name, j.held, j.ends) for j in jobs if j.held)
    going = sorted((j for j in jobs if not j.held), key=lambda j: (not j.healthy, -j.share, j.code))
    days = _spread(going, today, litres_at_hand, litres_a_day, minutes_a_day)
    ledger = Ledger("A flush round", "The saltiest first; those not sound last, each in its own water.", ("judgement",))
    for i, d in enumerate(days[:20]):
        ledger.found(f"V{i}", f"water on {d.on.isoformat()}", d.litres, "L", "litres of its pots, added")
    litres, minutes = sum(j.litres for j in going), sum(OVERLAP * j.minutes for j in going)
    ledger.found("V", "litres in all", litres, "L", "litres of all pots, added")
    if litres_at_hand is not None:
        ledger.take("H", "at hand", litres_at_hand, "L")
        ledger.step("short", "max(0, V - H)", "L", "short today")
    enough = litres_at_hand is None or litres <= litres_at_hand
    ledger.caution("Runoff goes on lawn or tolerant garden plants, not into ponds or drains. Local rules go first.")
    return ledger.close(
        FlushRoundPlan(days, out, litres, minutes, enough, _sentence(going, days, out, litres, litres_at_hand))
    )


def _spread(
    going: list[FlushJob], today: date, at_hand: float | None, a_day: float | None, time: float | None
) -> tuple[FlushDay, ...]:
    days: list[FlushDay] = []
    stops: list[FlushStop] = []
    litres = minutes = 0.0
    water, bath = at_hand, 0
    on = today
    for j in going:
        effort = OVERLAP * j.minutes
        dry = water is not None and litres + j.litres > water + 1e-9
        late = time is not None and minutes + effort > time
        if stops and (dry or late):
            days.append(FlushDay(on, tuple(stops), litres, minutes))
            on += timedelta(days=1)
            left = None if water is None else max(0.0, water - litres)
            water = None if left is None else left + (a_day if a_day is not None else at_hand or 0.0)
            stops, litres, minutes, bath = [], 0.0, 0.0, 0
        shared = None
        if j.way == "baths":
            if j.healthy:
                shared = 1
                bath = max(bath, 1)
            else:
                bath += 1
                shared = max(bath, 2)
        stops.append(FlushStop(j.pot_id, j.code, j.name, j.way, j.litres, j.minutes, shared))
        litres += j.litres
        minutes += effort
    if stops:
        days.append(FlushDay(on, tuple(stops), litres, minutes))
    return tuple(days)


def _sentence(
    going: list[FlushJob], days: tuple[FlushDay, ...], out: tuple[LeftOut, ...], litres: float, at_hand: float | None
) -> str:
    if not going:
        return "Nothing is to be flushed." + (f" {len(out)} held." if out else "")
    said = f"{len(going)} pot{'s' if len(going) != 1 else ''}, {litres:.1f} L"
    if at_hand is not None and litres > at_hand:
        said += f", {at_hand:g} L at hand"
    said += f", over {len(days)} days." if len(days) > 1 else "."
    return said + (f" {len(out)} left out." if out else "")
