"""Holds by the climate of a place: cold, heat, dry air, and when each is over."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from functools import lru_cache

from fenwa.core.care.condition import CLIMATE_DAYS, Condition, Hold
from fenwa.core.climate.air import DRY_AIR_kPa, vapour_deficit_kPa

Readings = tuple[tuple[date, float], ...]  # of a place, oldest first [°C]

COLD_MEDIUM_C, COLD_MEDIUM_HARDY_C = 15.0, 10.0

COLD_MARGIN_C, HEAT_MARGIN_C = 2.0, 4.0
WARM_AGAIN_DAYS, COOL_AGAIN_DAYS = 5, 2  # back in range for so long before a cold or hot spell counts as over


@lru_cache(maxsize=1024)  # pots of a place and a kind share the answer
def _cold_spell(nights: Readings, today: date, low: float) -> tuple[date, float] | None:
    """The newest night under a limit, while the cold lasts."""
    return _lasting(nights, today, lambda v: v < low, lambda v: v >= low + COLD_MARGIN_C, WARM_AGAIN_DAYS)


@lru_cache(maxsize=1024)
def _hot_spell(days: Readings, today: date, most: float) -> tuple[date, float] | None:
    """The newest day well over a limit, while the heat lasts."""
    return _lasting(days, today, lambda v: v > most + HEAT_MARGIN_C, lambda v: v <= most, COOL_AGAIN_DAYS)


def _lasting(
    readings: Readings,
    today: date,
    outside: Callable[[float], bool],
    back: Callable[[float], bool],
    for_days: int,
) -> tuple[date, float] | None:
    """The newest reading out of range, unless all since were back in it for long enough; old ones say nothing of
    now.
    """
    recent = [r for r in readings if 0 <= (today - r[0]).days <= CLIMATE_DAYS]
    out = next((r for r in reversed(recent) if outside(r[1])), None)
    if out is None:
        return None
    since = [r for r in recent if r[0] > out[0]]
    over = bool(since) and all(back(v) for _, v in since) and (since[-1][0] - out[0]).days >= for_days
    return None if over else out


def _when(on: date, today: date) -> str:
    return "" if (today - on).days <= 1 else f" on {on.day} {on:%b}"


def of_climate(c: Condition, today: date) -> list[Hold]:
    known = c.climate_on is not None and 0 <= (today - c.climate_on).days <= CLIMATE_DAYS
    out: list[Hold] = []
    if not known:
        return out
    if c.minimum_C is not None:
        low, floor = c.minimum_C, COLD_MEDIUM_HARDY_C if c.minimum_C < COLD_MEDIUM_HARDY_C else COLD_MEDIUM_C
        nights = c.nights or (((c.climate_on, c.night_C),) if c.climate_on and c.night_C is not None else ())
        night = _cold_spell(nights, today, low)
        if night is not None:
            said = f"Night of {night[1]:g} °C{_when(night[0], today)}, below its {low:g} °C"
        else:
            said = f"Medium at {c.medium_C:g} °C" if c.medium_C is not None and c.medium_C < floor else ""
        if said:
            out.append(
                Hold(
                    "cold",
                    ("feed", "flush", "leaf spray"),
                    f"{said}: too cold to drink.",
                    f"Nights of {low + COLD_MARGIN_C:g} °C or more for five days.",
                )
            )
    if c.day_most_C is not None:
        most = c.day_most_C
        days = c.days or (((c.climate_on, c.day_C),) if c.climate_on and c.day_C is not None else ())
        hot = _hot_spell(days, today, most)
        if hot is not None:
            out.append(
                Hold(
                    "heat",
                    ("feed", "leaf spray"),
                    f"Days of {hot[1]:g} °C{_when(hot[0], today)}: plain water only.",
                    "Two days back in its range.",
                )
            )
    if c.day_C is not None and c.humidity_pct is not None:
        deficit = vapour_deficit_kPa(c.day_C, c.humidity_pct)
        if deficit > DRY_AIR_kPa:
            out.append(
                Hold(
                    "dry air",
                    ("feed", "leaf spray"),
                    f"Air of {c.day_C:g} °C and {c.humidity_pct:g} %: vapour deficit "
                    f"{deficit:.1f} kPa. Plain water only.",
                    f"A day with a deficit under {DRY_AIR_kPa:g} kPa.",
                )
            )
    return out
