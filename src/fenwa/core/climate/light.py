"""Hours of daylight by latitude, and the light of a day by lamp hours and a reading."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date

from fenwa.core.entry import require
from fenwa.core.errors import InputError, Overspecified, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

YEAR = 365
HORIZON_DEG = -0.833  # refraction and the sun's radius
LUX_A_umol = {"daylight": 54.0, "white lamp": 65.0}  # lux of one µmol/m² s; white lamps differ by a tenth or so


def declination_rad(on: date) -> float:
    """The sun's declination by Spencer's series. [rad]"""
    turn = 2 * math.pi * (on.timetuple().tm_yday - 1) / YEAR
    return (
        0.006918
        - 0.399912 * math.cos(turn)
        + 0.070257 * math.sin(turn)
        - 0.006758 * math.cos(2 * turn)
        + 0.000907 * math.sin(2 * turn)
        - 0.002697 * math.cos(3 * turn)
        + 0.00148 * math.sin(3 * turn)
    )


def day_length_h(latitude_deg: float, on: date) -> float:
    """Hours between sunrise and sunset, 0 to 24, E9.1 with Spencer's declination. [h]"""
    sun, place = declination_rad(on), math.radians(latitude_deg)
    horizon = math.radians(HORIZON_DEG)
    angle = (math.sin(horizon) - math.sin(place) * math.sin(sun)) / (math.cos(place) * math.cos(sun))
    return 24 / math.pi * math.acos(max(-1.0, min(1.0, angle)))


@dataclass(frozen=True)
class DayLength:
    """Hours between sunrise and sunset, and how they change in a week. [h]"""

    hours: float
    change_week_h: float
    sentence: str


@calculation("day-length", title="Hours of daylight", station="leaf")
def day_length(*, latitude_deg: float, on: date) -> Computed[DayLength]:
    """Hours between sunrise and sunset on a day; the southern hemisphere by the sign of its latitude.

    Parameters
    ----------
    latitude_deg : float
        North positive, -89 to 89. [°]
    on : date
        The day.

    Returns
    -------
    Computed
        Hours of daylight. [h]

    Raises
    ------
    OutOfRange
        If the latitude cannot be.

    References
    ----------
    E9.1; Spencer 1971
    """
    require(latitude_deg, "Latitude", "°", low=-89, high=89, pointer="/latitude_deg")
    ledger = Ledger("Hours of daylight", "Flat horizon; hills and walls take more.", ("spencer-1971",))
    ledger.take("phi", "latitude", math.radians(latitude_deg), "rad")
    ledger.take("h_0", "sun at the horizon, with refraction", math.radians(HORIZON_DEG), "rad", "definition")
    sun = declination_rad(on)
    ledger.found("delta", "declination", sun, "rad", f"Spencer's series for {on.isoformat()}")
    # sines and cosines of the three angles
    for symbol, value, label in (
        ("s_h", math.sin(math.radians(HORIZON_DEG)), "sine of the horizon"),
        ("s_p", math.sin(math.radians(latitude_deg)), "sine of the latitude"),
        ("c_p", math.cos(math.radians(latitude_deg)), "its cosine"),
        ("s_d", math.sin(sun), "sine of the declination"),
        ("c_d", math.cos(sun), "its cosine"),
    ):
        ledger.found(symbol, label, value, "", "table of sines")
    ledger.step("c", "max(-1, min(1, (s_h - s_p * s_d) / (c_p * c_d)))", "", "cosine of the half day")
    hours = ledger.found("H", "daylight", day_length_h(latitude_deg, on), "h", "24 / pi times the arc of c, E9.1")
    week = day_length_h(latitude_deg, date.fromordinal(on.toordinal() + 7)) - hours
    way = "longer" if week > 0 else "shorter"
    return ledger.close(DayLength(hours, week, f"{hours:.1f} hours; in a week {abs(60 * week):.0f} minutes {way}."))


@dataclass(frozen=True)
class DailyLight:
    """Light of a day. [mol/m² d]"""

    mol: float
    ppfd_umol: float
    sentence: str


@calculation("daily-light", title="Light of a day", station="leaf")
def daily_light(
    *, hours: float, ppfd_umol: float | None = None, lux: float | None = None, light: str = "white lamp"
) -> Computed[DailyLight]:
    """Light of a day from the hours a lamp burns and one reading at the leaf.

    Parameters
    ----------
    hours : float
        Hours it shines at that strength, 0 to 24. [h]
    ppfd_umol : float
        A reading of photons, 0 to 3 000; empty: ``lux`` is given. [µmol/m² s]
    lux : float
        A reading in lux, 0 to 150 000, turned by the kind of light. [lx]
    light : str
        ``daylight`` or ``white lamp``.

    Returns
    -------
    Computed
        Daily light. [mol/m² d]

    Raises
    ------
    OutOfRange, InputError
        If hours or a reading cannot be, none or both are given, or the kind of light is unknown.

    References
    ----------
    E9.2
    """
    require(hours, "Hours", "h", low=0, high=24, pointer="/hours")
    if ppfd_umol is None and lux is None:
        raise Underspecified("No light was read. Enter µmol or lux at the leaf.", pointer="/ppfd_umol")
    if ppfd_umol is not None and lux is not None:
        raise Overspecified("Both µmol and lux were given. Leave one empty.", pointer="/lux")
    if light not in LUX_A_umol:
        raise InputError(f"Light “{light}” is not known. Choose {' or '.join(LUX_A_umol)}.", pointer="/light")
    ledger = Ledger(
        "Light of a day", "One reading stands for all hours; clouds and dust are not in it.", ("mass-balance",)
    )
    ledger.take("h", "hours", hours, "h")
    if ppfd_umol is not None:
        require(ppfd_umol, "Light", "µmol/m² s", low=0, high=3000, pointer="/ppfd_umol")
        ledger.take("P", "photons", ppfd_umol, "µmol/m² s")
        ppfd = ppfd_umol
    else:
        assert lux is not None
        require(lux, "Light", "lx", low=0, high=150_000, pointer="/lux")
        ledger.take("E", "light", lux, "lx")
        ledger.take("k", f"lux of a µmol, {light}", LUX_A_umol[light], "lx m² s/µmol", "table")
        ppfd = ledger.step("P", "E / k", "µmol/m² s", "photons")
        ledger.caution("Turned from lux: right to a tenth for white light, not at all for coloured.")
    mol = ledger.step("DLI", "P * h * 0.0036", "mol/m² d", "daily light")
    return ledger.close(DailyLight(mol, ppfd, f"{mol:.1f} mol/m² in {hours:g} hours."))
