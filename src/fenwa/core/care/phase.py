"""What a plant is doing: the grower's word, what is seen, light and warmth, the calendar; and when a dry rest may
end.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import lru_cache
from typing import Literal

from fenwa.core.care.condition import Phase
from fenwa.core.care.season import Hemisphere, days_from_shortest, days_into
from fenwa.core.climate.light import YEAR
from fenwa.core.entry import require
from fenwa.core.library.profile import Rest
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

PhaseSchool = Literal["noted", "calendar", "growth", "warmth", "lamps"]

SEEN_DAYS = 45  # a new leaf or root tip speaks for this long; judgement, the usual time to the next leaf
SPIKE_DAYS = 90
SPIKE_SEEN = "a spike seen"  # not yet a bloom
STOPPED_DAYS = 30  # growth that stopped this long ago is rest, where the kind rests
ESTABLISHING_DAYS = 45
DARK_WINDOW = (-45, 45)  # kinds without a rest of their own slow in the dark weeks
LAMP_HOURS, LAMP_DLI = 12.0, 3.0  # lamps at least this long and bright hold a plant in growth
COLD_MARGIN_C = 2.0


@dataclass(frozen=True)
class GrowthMeasured:
    """The leading growth as a look measured it: its roots, and its length where that was taken. [cm]"""

    on: date
    roots_cm: tuple[float, ...]
    growth_cm: float | None = None


@dataclass(frozen=True, kw_only=True)
class Seen:
    """What is known of the leading growth and its place on a day. None: not known. [°C, h, mol/m²/day, cm]"""

    noted: Phase | None = None
    noted_on: date | None = None
    arrived_on: date | None = None
    growth_on: date | None = None
    stopped_on: date | None = None
    looked_on: date | None = None
    spike_on: date | None = None
    roots_cm: float | None = None
    roots_on: date | None = None
    all_roots_cm: tuple[float, ...] = ()
    growth_cm: float | None = None
    measured: tuple[GrowthMeasured, ...] = ()  # every look at its roots, oldest first
    new_growth_on: date | None = None
    night_C: float | None = None
    night_low_C: float | None = None
    lamp_hours: float | None = None
    lamp_dli: float | None = None


@dataclass(frozen=True)
class PhaseFound:
    """The phase, since when, by which rule, and why in a sentence; the day a dry rest was seen to be over."""

    phase: Phase
    since: date | None
    by: str
    sentence: str
    opened_on: date | None = None


@dataclass(frozen=True)
class GrowthGate:
    """Whether a dry rest may end, and what is still missing. [cm]"""

    open: bool
    missing: tuple[str, ...]
    sentence: str


def gate_of(
    needed_cm: float,
    roots_cm: float | None,
    new_growth: bool | None,
    *,
    roots: int = 1,
    all_cm: tuple[float, ...] = (),
    growth_needed_cm: float = 0.0,
    growth_cm: float | None = None,
) -> GrowthGate:
    """A dry rest ends when a new growth is seen and its own roots are long enough; unknown keeps it shut.

    ``roots``: how many must be so long, of ``all_cm``. ``growth_needed_cm``: how long the growth itself.
    """
    missing = []
    measured = all_cm or (() if roots_cm is None else (roots_cm,))
    if growth_needed_cm > 0 and (growth_cm is None or growth_cm < growth_needed_cm):
        tall = "not measured" if growth_cm is None else f"{growth_cm:g} cm now"
        missing.append(f"growth {growth_needed_cm:g} cm long ({tall})")
    if roots > 1 and needed_cm > 0:
        long_enough = sum(cm >= needed_cm for cm in measured)
        if long_enough < roots:
            short = roots - long_enough
            words = {1: "one", 2: "two", 3: "three", 4: "four"}.get(short, str(short))
            missing.append(f"{words} root{'' if short == 1 else 's'} short of {needed_cm:g} cm")
        needed_cm = 0.0
    if not new_growth:
        missing.append("a new growth seen" if new_growth is False else "a look: is there a new growth?")
    if needed_cm > 0 and (roots_cm is None or roots_cm < needed_cm):
        now = "not measured" if roots_cm is None else f"{roots_cm:g} cm now"
        missing.append(f"roots {needed_cm:g} cm long ({now})")
    if missing:
        return GrowthGate(False, tuple(missing), f"Stay dry. Still missing: {', '.join(missing)}.")
    return GrowthGate(True, (), "New growth has roots to drink with: begin with plain water, feed later.")


@calculation("growth-gate", title="May the dry rest end?", station="pots")
def growth_gate(
    *, needed_cm: float, roots_cm: float | None = None, new_growth: bool | None = None
) -> Computed[GrowthGate]:
    """Whether a plant in dry rest may be watered again.

    Parameters
    ----------
    needed_cm : float
        Roots the kind needs on its new growth, 0 to 30; 0 where a shoot is enough. [cm]
    roots_cm : float
        Longest root of the new growth; empty: not measured. [cm]
    new_growth : bool
        Whether a new growth was seen; empty: nobody looked.

    Returns
    -------
    Computed
        Open or shut, and what is missing. [cm]

    Raises
    ------
    OutOfRange
        If a length cannot be.

    References
    ----------
    table of holds, restart cue; care profile
    """
    require(needed_cm, "Roots needed", "cm", low=0, high=30, pointer="/needed_cm")
    if roots_cm is not None:
        require(roots_cm, "Root length", "cm", low=0, high=200, pointer="/roots_cm")
    ledger = Ledger("May the dry rest end?", "Both: a new growth, and roots of its own.", ("profile", "judgement"))
    ledger.take("need", "roots needed", needed_cm, "cm", "profile")
    if roots_cm is not None:
        ledger.take("have", "longest root of the new growth", roots_cm, "cm", "measured")
        ledger.step("left", "max(0, need - have)", "cm", "still to grow")
    else:
        ledger.step("left", "need - 0", "cm", "still to grow, as nobody measured")
        ledger.assume("Roots were not measured: taken as not there.")
    ledger.caution("Water on an early shoot without roots rots it.")
    return ledger.close(gate_of(needed_cm, roots_cm, new_growth))


def resting_phase(rest: Rest) -> Phase:
    """What this kind does when it rests: stay barely damp, or dry."""
    return "dormant" if rest.kind in ("dry", "summer") else "rest"


@calculation("resting-gate", title="May this growth wake?", station="pots")
def resting_gate(
    *,
    root_cm: float,
    roots: int = 1,
    growth_needed_cm: float = 0.0,
    roots_found_cm: tuple[float, ...] = (),
    growth_cm: float | None = None,
    leads: bool = True,
) -> Computed[GrowthGate]:
    """Whether a resting growth may be watered again by its grower's own numbers.

    Parameters
    ----------
    root_cm : float
        How long its roots must be, 0 to 50. [cm]
    roots : int
        How many of them, 1 to 20.
    growth_needed_cm : float
        How long the growth itself must be, 0 to 200; 0: it is not asked. [cm]
    roots_found_cm : tuple[float]
        Roots measured on that growth, each 0 to 200; empty: not measured. [cm]
    growth_cm : float
        The growth, 0 to 500; empty: not measured. [cm]
    leads : bool
        Whether it is the leading growth: a side growth wakes nothing.

    Returns
    -------
    Computed
        Open or shut, and what is missing. [cm]

    Raises
    ------
    OutOfRange
        If a length or a number cannot be.

    References
    ----------
    table of holds, restart cue; care profile
    """
    require(root_cm, "Roots long", "cm", low=0, high=50, pointer="/root_cm")
    require(roots, "Roots so long", "", low=1, high=20, pointer="/roots")
    require(growth_needed_cm, "Growth needed", "cm", low=0, high=200, pointer="/growth_needed_cm")
    for i, cm in enumerate(roots_found_cm):
        require(cm, "Root", "cm", low=0, high=200, pointer=f"/roots_found_cm/{i}")
    if growth_cm is not None:
        require(growth_cm, "Growth", "cm", low=0, high=500, pointer="/growth_cm")
    ledger = Ledger("May this growth wake?", "All of the grower's own numbers.", ("profile", "judgement"))
    ledger.take("need", "roots asked for", roots, "", "entered")
    ledger.take("have", f"roots of {root_cm:g} cm or more", sum(cm >= root_cm for cm in roots_found_cm), "", "measured")
    ledger.step("short", "max(0, need - have)", "", "roots still short")
    if not leads:
        ledger.caution("A side growth wakes nothing: the leading one rules.")
        shut = GrowthGate(False, ("a look at the leading growth",), "Seen on a side growth: the leading one rests on.")
        return ledger.close(shut)
    longest = max(roots_found_cm, default=None)
    gate = gate_of(
        root_cm,
        longest,
        True,
        roots=roots,
        all_cm=roots_found_cm,
        growth_needed_cm=growth_needed_cm,
        growth_cm=growth_cm,
    )
    return ledger.close(gate)


@lru_cache(maxsize=4096)  # a day asks it for every pot of a kind
def by_calendar(rest: Rest, today: date, hemisphere: Hemisphere) -> PhaseFound:
    """Phase by the distance from the shortest day, the same on both hemispheres."""
    day = days_from_shortest(today, hemisphere)
    if day is None:
        return PhaseFound("active", None, "calendar", "No seasons here: active all year.")
    if rest.kind == "none" or rest.window_days is None:
        into = days_into(DARK_WINDOW, day)
        if into is not None:
            return PhaseFound("slowing", today - timedelta(days=into), "calendar", "The dark weeks: slower, fed less.")
        since = today - timedelta(days=(day - DARK_WINDOW[1]) % YEAR)
        return PhaseFound("active", since, "calendar", "Long enough days: active.")
    into = days_into(rest.window_days, day)
    if into is not None:
        return PhaseFound(resting_phase(rest), today - timedelta(days=into), "calendar", "Its season of rest.")
    if rest.slowing_days is not None and (into := days_into(rest.slowing_days, day)) is not None:
        return PhaseFound("slowing", today - timedelta(days=into), "calendar", "Its rest is near: slowing.")
    since = today - timedelta(days=(day - rest.window_days[1]) % YEAR)
    return PhaseFound("active", since, "calendar", "Its season of growth.")


def _by_growth(rest: Rest, seen: Seen, today: date, hemisphere: Hemisphere) -> PhaseFound:
    growth, stopped = seen.growth_on, seen.stopped_on
    if growth is None and stopped is None:
        found = by_calendar(rest, today, hemisphere)
        return PhaseFound(
            found.phase, found.since, "calendar", f"No growth noted yet, so by the calendar. {found.sentence}"
        )
    if stopped is not None and (growth is None or stopped >= growth):
        if rest.kind != "none" and (today - stopped).days >= STOPPED_DAYS:
            return PhaseFound(
                resting_phase(rest),
                stopped + timedelta(days=STOPPED_DAYS),
                "growth",
                f"Growth stopped on {_said(on=stopped)} and this kind rests.",
            )
        return PhaseFound("slowing", stopped, "growth", f"Growth stopped on {_said(on=stopped)}.")
    assert growth is not None
    if (today - growth).days <= SEEN_DAYS:
        return PhaseFound("active", growth, "growth", f"Growth seen on {_said(on=growth)}: fed while it grows.")
    if seen.looked_on is None or seen.looked_on <= growth or (today - seen.looked_on).days > SEEN_DAYS:
        found = by_calendar(rest, today, hemisphere)  # that nobody looked says nothing of the plant
        said = f"Growth seen on {_said(on=growth)}, and nobody looked since: by the calendar, look at it."
        return PhaseFound(found.phase, found.since, "calendar", f"{said} {found.sentence}")
    return PhaseFound(
        "slowing", growth + timedelta(days=SEEN_DAYS), "growth", f"No growth seen since {_said(on=growth)}."
    )


def _by_warmth(rest: Rest, seen: Seen, today: date, hemisphere: Hemisphere) -> PhaseFound:
    if seen.night_C is None or seen.night_low_C is None:
        found = by_calendar(rest, today, hemisphere)
        return PhaseFound(
            found.phase, found.since, "calendar", f"No nights measured, so by the calendar. {found.sentence}"
        )
    if seen.night_C >= seen.night_low_C:
        return PhaseFound("active", None, "warmth", f"Nights of {seen.night_C:g} °C are warm enough to grow.")
    if rest.kind in ("plain", "dry") and seen.night_C <= seen.night_low_C - COLD_MARGIN_C:
        return PhaseFound(resting_phase(rest), None, "warmth", f"Nights of {seen.night_C:g} °C: this kind rests.")
    return PhaseFound("slowing", None, "warmth", f"Nights of {seen.night_C:g} °C are cool for it.")


def _by_lamps(rest: Rest, seen: Seen, today: date, hemisphere: Hemisphere) -> PhaseFound:
    long, bright = seen.lamp_hours, seen.lamp_dli
    found = by_calendar(rest, today, hemisphere)
    if rest.needs_cold:
        return PhaseFound(found.phase, found.since, "calendar", f"Lamps cannot replace its cold rest. {found.sentence}")
    if long is None or long < LAMP_HOURS or (bright is not None and bright < LAMP_DLI):
        return PhaseFound(found.phase, found.since, "calendar", f"Lamps too short or dim to count. {found.sentence}")
    return PhaseFound("active", None, "lamps", f"Lamps {long:g} h a day hold it in growth.")


def _said(on: date) -> str:
    return f"{on.day} {on:%b}"


def phase_of(rest: Rest, school: PhaseSchool, seen: Seen, today: date, hemisphere: Hemisphere) -> PhaseFound:
    """The phase by a school; the newer of the grower's word and the school's change rules, and a shut gate keeps a
    dry rest.
    """
    noted = PhaseFound(seen.noted or "active", seen.noted_on, "your note", "As you noted.")
    if seen.noted is None and school == "noted":  # nobody told: a form's default is no observation
        found = by_calendar(rest, today, hemisphere)
        untold = PhaseFound(found.phase, found.since, "calendar", f"Not told, so by the season. {found.sentence}")
        return _behind_gate(_with_arrival(untold, seen, today), rest, seen, today, hemisphere)
    if school == "noted":
        return noted
    rules = {"calendar": None, "growth": _by_growth, "warmth": _by_warmth, "lamps": _by_lamps}
    rule = rules[school]
    found = rule(rest, seen, today, hemisphere) if rule else by_calendar(rest, today, hemisphere)
    if seen.noted is not None and seen.noted_on is not None and (found.since is None or seen.noted_on > found.since):
        found = noted
    if (
        seen.spike_on is not None
        and found.phase in ("active", "slowing")
        and (today - seen.spike_on).days <= SPIKE_DAYS
    ):
        found = PhaseFound("flowering", seen.spike_on, SPIKE_SEEN, f"Spike or buds seen on {_said(on=seen.spike_on)}.")
    return _behind_gate(_with_arrival(found, seen, today), rest, seen, today, hemisphere)


def _with_arrival(found: PhaseFound, seen: Seen, today: date) -> PhaseFound:
    fresh = seen.arrived_on is not None and 0 <= (today - seen.arrived_on).days < ESTABLISHING_DAYS
    noted_since = seen.noted_on is not None and seen.arrived_on is not None and seen.noted_on > seen.arrived_on
    if fresh and found.phase in ("active", "slowing") and not noted_since:
        assert seen.arrived_on is not None
        return PhaseFound(
            "establishing", seen.arrived_on, "arrival", f"Arrived on {_said(on=seen.arrived_on)}: settling in."
        )
    return found


def _gate_at(rest: Rest, seen: Seen, look: GrowthMeasured, growth: bool, measured: bool) -> GrowthGate:
    """What one look at the roots says of the gate; the newest one where nothing else was measured."""
    longest = max(look.roots_cm, default=seen.roots_cm)
    return gate_of(
        rest.root_gate_cm or 0.0,
        longest if measured else None,
        True if growth else None,
        roots=rest.gate_roots,
        all_cm=look.roots_cm if measured else (),
        growth_needed_cm=rest.gate_growth_cm,
        growth_cm=(look.growth_cm if look.growth_cm is not None else seen.growth_cm) if measured else None,
    )


def rest_began_on(rest: Rest, today: date, hemisphere: Hemisphere) -> date | None:
    """The day the last season of rest began; None where the kind has none, or the place no seasons."""
    day = days_from_shortest(today, hemisphere)
    if day is None or rest.window_days is None:
        return None
    return today - timedelta(days=(day - rest.window_days[0]) % YEAR)


def _behind_gate(found: PhaseFound, rest: Rest, seen: Seen, today: date, hemisphere: Hemisphere) -> PhaseFound:
    """A dry rest ends by roots and growth, never by the date alone."""
    day = days_from_shortest(today, hemisphere)
    if rest.root_gate_cm is None or rest.window_days is None or day is None:
        return found
    if found.phase != "active" or found.by == "your note":
        return found
    begun = rest_began_on(rest, today, hemisphere)
    assert begun is not None

    def since_then(on: date | None) -> bool:
        return on is not None and on >= begun

    if since_then(seen.arrived_on) or (seen.noted == "active" and since_then(seen.noted_on)):
        return found
    newest = GrowthMeasured(seen.roots_on or begun, seen.all_roots_cm, seen.growth_cm)
    looks = [m for m in (*seen.measured, newest) if since_then(m.on)] or [GrowthMeasured(begun, ())]
    gates = [_gate_at(rest, seen, m, since_then(seen.new_growth_on), since_then(seen.roots_on)) for m in looks]
    first = next((n for n, g in enumerate(gates) if g.open), None)  # once open, a small root later shuts it no more
    if first is None:
        return PhaseFound("dormant", begun, "growth gate", gates[-1].sentence)
    by_date = (
        found.since if found.by == "calendar" and found.since else begun
    )  # other schools' days move on with growth
    return replace(found, opened_on=max(looks[first].on, by_date))


@calculation("phase", title="What the plant is doing", station="pots")
def phase(
    *,
    rest: Rest,
    today: date,
    school: PhaseSchool = "calendar",
    seen: Seen = Seen(),
    hemisphere: Hemisphere = "north",
) -> Computed[PhaseFound]:
    """Phase of the leading growth by the grower's own school.

    Parameters
    ----------
    rest : Rest
        How the kind rests, from its profile. [d, cm]
    today : date
        The day asked about.
    school : PhaseSchool
        noted: only what you note; calendar; growth: what is seen growing; warmth: nights; lamps.
    seen : Seen
        What was noted of the growth and the place. [°C, h, cm]
    hemisphere : Hemisphere
        north, south, or none for a place without seasons.

    Returns
    -------
    Computed
        Phase, since when, by which rule and why.

    Raises
    ------
    InputError
        If a value is of another kind.

    Notes
    -----
    The grower's word rules until the school's own phase next changes. A dry rest ends by roots and
    growth, never by the date alone.

    References
    ----------
    E9.1, E9.2; order of phase rules; care profile
    """
    ledger = Ledger(
        "What the plant is doing", "One growth leads and rules watering and rest.", ("profile", "judgement")
    )
    day = days_from_shortest(today, hemisphere)
    if day is not None:
        ledger.take("d", "days from the shortest day", day, "d", "definition")
    window = rest.window_days if rest.kind != "none" and rest.window_days else DARK_WINDOW
    name = "rest" if rest.kind != "none" and rest.window_days else "the dark weeks"
    ledger.take("a", f"{name}: first day from the shortest day", window[0], "d", "profile")
    ledger.take("b", f"{name}: first day after", window[1], "d", "profile")
    ledger.step("whole", "b - a", "d", f"length of {name}")
    if seen.lamp_hours is not None:
        ledger.take("lamps", "lamps a day", seen.lamp_hours, "h", "measured")
    if rest.optional:
        ledger.assume("Growers differ whether this kind needs its rest.")
    return ledger.close(phase_of(rest, school, seen, today, hemisphere))
