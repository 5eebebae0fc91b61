"""Salt in the root zone today, the reading it predicts, and when that reading crosses the pot's ceiling."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

import numpy as np

from fenwa.core.constants import Z80
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.ahead import Rhythm, forecast, present_rhythm
from fenwa.core.pot.balance import at_capacity, root_zone_ec
from fenwa.core.pot.fold import fold
from fenwa.core.pot.folded import Folded, Observation, Point, reading_of, salt
from fenwa.core.pot.methods import OF_A_POUR, WORDS
from fenwa.core.pot.release import salt_given
from fenwa.core.pot.specification import PotReading, PotSpec, WaterEvent, band, capacity_L, check_pot
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

HORIZON_DAYS = 365

CrossingStatus = Literal["already over", "crosses", "not within a year", "no rhythm", "no ceiling"]


@dataclass(frozen=True)
class Crossing:
    """When the predicted reading crosses the ceiling at the present rhythm."""

    status: CrossingStatus
    on: date | None
    earliest: date | None
    latest: date | None
    sentence: str


@dataclass(frozen=True, kw_only=True)
class RootZone:
    """Root zone and predicted reading with 80 % bands; history, forecast and crossing. [µS/cm]"""

    root_zone_uS_cm: float
    root_zone_low_uS_cm: float
    root_zone_high_uS_cm: float
    at_capacity_uS_cm: float
    reading_uS_cm: float
    reading_low_uS_cm: float
    reading_high_uS_cm: float
    deficit_L: float
    ballast_uS_cm: float
    crossing: Crossing
    rhythm: Rhythm | None
    history: tuple[Point, ...]
    ahead: tuple[Point, ...]
    observations: tuple[Observation, ...]
    pours_used: int


def check_readings(readings: Sequence[PotReading], today: date) -> None:
    """Refuse readings between pours that cannot be."""
    for i, r in enumerate(readings):
        at = f"/readings/{i}"
        if r.on > today:
            raise InputError(
                f"Reading on {r.on.isoformat()} lies after today, {today.isoformat()}.", pointer=f"{at}/on"
            )
        if r.ec_uS_cm is not None:
            require(r.ec_uS_cm, "Reading", "µS/cm", low=0, open_low=True, high=50_000, pointer=f"{at}/ec_uS_cm")
            if r.method in OF_A_POUR:
                raise InputError(
                    f"“{WORDS[r.method]}” runs out of a pour: enter it with its pour.", pointer=f"{at}/method"
                )


def check_events(events: list[WaterEvent], today: date) -> None:
    """Refuse pours that cannot be."""
    for i, e in enumerate(events):
        at = f"/events/{i}"
        if e.on > today:
            raise InputError(f"Pour on {e.on.isoformat()} lies after today, {today.isoformat()}.", pointer=f"{at}/on")
        if e.volume_L is not None:
            require(e.volume_L, "Volume", "L", low=0, high=1000, pointer=f"{at}/volume_L")
        if e.ec_uS_cm is not None:
            require(e.ec_uS_cm, "EC of the pour", "µS/cm", low=0, high=20_000, pointer=f"{at}/ec_uS_cm")
        if e.runoff_ec_uS_cm is not None:
            require(
                e.runoff_ec_uS_cm,
                "EC of the runoff",
                "µS/cm",
                low=0,
                open_low=True,
                high=50_000,
                pointer=f"{at}/runoff_ec_uS_cm",
            )
        if e.ballast_share is not None:
            require(e.ballast_share, "Share of ballast", "", low=0, high=1, pointer=f"{at}/ballast_share")
        require(e.soak_h, "Soak before the pour", "h", low=0, high=72, pointer=f"{at}/soak_h")
        if e.runoff_L is not None:
            require(e.runoff_L, "Runoff", "L", low=0, high=1000, pointer=f"{at}/runoff_L")
        if e.runoff_L is not None and e.volume_L is not None and e.runoff_L > e.volume_L:
            raise InputError(
                f"Runoff {e.runoff_L:g} L is more than the {e.volume_L:g} L poured. Check both volumes.",
                pointer=f"{at}/runoff_L",
            )


@calculation("root-zone", title="Salt in the root zone", station="pots")
def root_zone(
    *,
    pot: PotSpec,
    events: list[WaterEvent],
    today: date,
    ceiling_uS_cm: float | None = None,
    horizon_days: int = HORIZON_DAYS,
    readings: list[PotReading] | None = None,
) -> Computed[RootZone]:
    """Root-zone EC today, the pour-through reading it predicts, and the date of the ceiling.

    Parameters
    ----------
    pot : PotSpec
        Volume, medium, uptake and losses. [L, 1/d]
    events : list[WaterEvent]
        Pours in any order, with runoffs where measured. [L, µS/cm]
    today : date
        The day to report for.
    ceiling_uS_cm : float
        The pot's ceiling, a reading. [µS/cm]
    horizon_days : int
        How far to look ahead, 1 to 730. [d]
    readings : list[PotReading]
        Readings between pours, and crusts seen. [µS/cm]

    Returns
    -------
    Computed
        Root zone and reading with 80 % bands, history, forecast, crossing. [µS/cm]

    Raises
    ------
    OutOfRange
        If the pot or an event cannot be.
    InputError
        If a pour lies after today or more ran out than was poured.

    Notes
    -----
    Uncalibrated: medium defaults, good to about -25/+40 %. The ceiling is compared with
    the predicted reading, never with the root-zone concentration. Trays and reservoirs
    have no exit: salt only gathers there.

    References
    ----------
    E2.5; E3.2; E3.3; E3.4; E3.8b; E3.10; E3.12; E3.13; E3.15
    """
    check_pot(pot)
    check_events(events, today)
    if ceiling_uS_cm is not None:
        require(ceiling_uS_cm, "Ceiling", "µS/cm", low=0, open_low=True, high=20_000, pointer="/ceiling_uS_cm")
    require(horizon_days, "Horizon", "d", low=1, high=730, pointer="/horizon_days")
    readings = readings or []
    check_readings(readings, today)
    return report(pot, fold(pot, events, today, readings), events, today, ceiling_uS_cm, horizon_days)


def told_apart(z: RootZone) -> str:
    """The newest reading, what it stands for, and what was expected of it, in one line; empty: nothing was read."""
    o = z.observations[-1] if z.observations else None
    if o is None:
        return ""
    said = (
        f"{o.on.day} {o.on:%b}: read {o.runoff_ec:.0f} µS/cm ({WORDS[o.method]}), which stands for "
        f"{o.equivalent_reading:.0f} µS/cm; {o.expected_runoff_ec:.0f} µS/cm was expected"
    )
    if not o.taught:
        return said + ". Left out: it teaches nothing."
    return said + ("." if o.fits else ": it does not fit and counts for less.")


def report(
    pot: PotSpec, folded: Folded, events: list[WaterEvent], today: date, ceiling_uS_cm: float | None, horizon_days: int
) -> Computed[RootZone]:
    """What a fold that reaches today says: bands, forecast, crossing; ``events`` give the present rhythm."""
    members, soil, state = folded.members, folded.members.soil, folded.state
    root, root_low, root_high = (float(v[0]) for v in band(salt(root_zone_ec(soil, state))))
    ledger = Ledger(
        "Salt in the root zone",
        "By medium good to about -25/+40 %; its own readings narrow it, and those of its like.",
        ("van-genuchten-wierenga-1976", "pour-through", "judgement"),
    )
    for sentence in folded.said:
        ledger.caution(sentence)
    reading, low, high = _write_working(ledger, pot, folded)
    rhythm = present_rhythm(events, today, pot)
    ahead: tuple[Point, ...] = ()
    if rhythm is not None:
        run = forecast([pot], members, state, [rhythm], horizon_days, today)
        middle, lows, highs = band(run.readings[0])
        dates = [today + timedelta(days=round(d)) for d in run.days[0]]
        ahead = tuple(
            Point(d, float(m), float(a), float(b)) for d, m, a, b in zip(dates, middle, lows, highs, strict=True)
        )
        ledger.assume(
            f"Ahead: a pour each {rhythm.interval_d:g} days, repeating the last {len(rhythm.volumes_L)} pours."
        )
    if pot.prills:
        week = salt_given(pot.prills, today, today + timedelta(days=7)) / capacity_L(pot)
        ledger.assume(f"Prills give {week:.0f} µS/cm in the coming week, by thermal time; so they do ahead.")
    crossing = find_crossing(reading, low, high, ahead, ceiling_uS_cm, today)
    deficit = float(np.maximum(soil.W_m_cc - state.W_m, 0.0)[0, 0])
    return ledger.close(
        RootZone(
            root_zone_uS_cm=root,
            root_zone_low_uS_cm=root_low,
            root_zone_high_uS_cm=root_high,
            at_capacity_uS_cm=float(salt(at_capacity(soil, state))[0, 0]),
            reading_uS_cm=reading,
            reading_low_uS_cm=low,
            reading_high_uS_cm=high,
            deficit_L=deficit,
            ballast_uS_cm=float(root_zone_ec(soil, state)[1, 0, 0]),
            crossing=crossing,
            rhythm=rhythm,
            history=tuple(folded.points),
            ahead=ahead,
            observations=tuple(folded.observations),
            pours_used=folded.used,
        )
    )


def _write_working(ledger: Ledger, pot: PotSpec, folded: Folded) -> tuple[float, float, float]:
    """Today's state to the predicted reading, in the symbols of E2.5; returns reading, low, high."""
    m, state = folded.members, folded.state
    what = f"salt balance over {folded.used} pours (E3.2 to E3.13)"
    ledger.take("V_pot", "volume of the pot", pot.volume_L, "L")
    ledger.take("theta", f"water held by {pot.medium.name}", pot.medium.theta_cc, "L/L", "table:media")
    ledger.take("phi", "immobile share of it", pot.medium.phi, "", "table:media")
    eta, held = float(m.soil.eta[0, 0]), float((m.soil.W_m_cc + m.soil.W_i)[0, 0])
    learnt = not np.isclose(eta, pot.medium.eta) or not np.isclose(held, capacity_L(pot))
    origin = "learnt:its readings" if learnt else "table:media"
    ledger.take("eta", "leaching efficiency", eta, "", origin)
    ledger.take("w", "water held, over what the medium's table says", held / capacity_L(pot), "", origin)
    ledger.found("W_m", "mobile water now", float(state.W_m[0, 0]), "L", what)
    ledger.found("C_m", "EC of the mobile water", float(salt(state.C_m)[0, 0]), "µS/cm", what)
    ledger.found("C_i", "EC of the immobile water", float(salt(state.C_i)[0, 0]), "µS/cm", what)
    ledger.step("W_cc", "theta * V_pot * w", "L", "water at capacity")
    ledger.step("W_i", "phi * W_cc", "L", "immobile water")
    ledger.step("W_c", "(1 - phi) * W_cc", "L", "mobile water at capacity")
    ledger.step("C_root", "(W_m * C_m + W_i * C_i) / (W_m + W_i)", "µS/cm", "root zone now")
    ledger.step("C_cap", "(W_m * C_m + W_i * C_i) / W_cc", "µS/cm", "root zone once at capacity")
    ledger.take("V_L", "water a pour-through collects", float(m.leachate_L[0, 0]), "L", "table:pour-through")
    ledger.take("C_DI", "EC of the pure water poured", 1.0, "µS/cm", "default:protocol")
    ledger.step("x", "V_L / W_c", "", "collected over mobile water")
    reading = ledger.step("reading", "C_DI + (C_cap - C_DI) * (1 - exp(-eta * x)) / x", "µS/cm", "predicted reading")
    middle, low, high = (float(v[0]) for v in band(reading_of(m, state)))
    ledger.found("s_low", "spread below (SD of ln)", float(np.log(middle / low) / Z80), "", "one-SD members")
    ledger.found("s_high", "spread above (SD of ln)", float(np.log(high / middle) / Z80), "", "one-SD members")
    ledger.take("z", "SDs of the central 80 %", Z80, "", "definition")
    low = ledger.step("low", "reading * exp(-z * s_low)", "µS/cm", "80 % band, lower end")
    high = ledger.step("high", "reading * exp(z * s_high)", "µS/cm", "80 % band, upper end")
    ledger.assume("A reading is predicted for the pour-through protocol: brought to capacity and read with pure water.")
    if pot.u_ballast not in (None, pot.u):
        ballast = float(root_zone_ec(folded.members.soil, folded.state)[1, 0, 0])
        ledger.assume(
            f"Of the root zone {ballast:.0f} µS/cm is ballast (sodium, chloride, sulfate, bicarbonate, calcium of "
            "hard water), which the plant hardly takes up."
        )
    if pot.drainage == "plunged":
        ledger.caution(
            "Sunk in a bed it drinks from there too: the bed's own salt comes with it and is not counted. "
            "Rinse the bed with the pot, or lift it out to flush it."
        )
    if not pot.drains:
        ledger.caution(
            "Nothing leaves a tray or reservoir: salt only gathers, and the surface is saltier than the mean."
        )
    return reading, low, high


def find_crossing(
    reading: float, low: float, high: float, ahead: tuple[Point, ...], ceiling: float | None, today: date
) -> Crossing:
    """First day the predicted reading reaches the ceiling, with the band's earliest and latest day."""
    if ceiling is None:
        return Crossing("no ceiling", None, None, None, "This pot has no ceiling for its reading.")
    if reading >= ceiling:
        return Crossing(
            "already over", today, today, today, f"The predicted reading is over {ceiling:.0f} µS/cm already."
        )
    if not ahead:
        return Crossing("no rhythm", None, None, None, "Log two pours, and the date can be computed.")
    on = next((p.on for p in ahead if p.reading >= ceiling), None)
    earliest = today if high >= ceiling else next((p.on for p in ahead if p.high >= ceiling), None)
    latest = next((p.on for p in ahead if p.low >= ceiling), None)
    if on is None:
        tail = ""
        if earliest is not None:
            tail = "; at worst it is over already" if earliest == today else f"; at worst from {earliest.isoformat()}"
        return Crossing(
            "not within a year",
            None,
            earliest,
            None,
            f"Stays below {ceiling:.0f} µS/cm for a year at the present rhythm{tail}.",
        )
    until = f" and {latest.isoformat()}" if latest else " and beyond a year"
    span = f", between {earliest.isoformat()}{until}" if earliest else ""
    return Crossing("crosses", on, earliest, latest, f"Crosses {ceiling:.0f} µS/cm about {on.isoformat()}{span}.")
