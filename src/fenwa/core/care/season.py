"""Where the year stands: days from the shortest day on either hemisphere."""

from __future__ import annotations

from datetime import date
from functools import lru_cache
from typing import Literal

from fenwa.core.climate.light import YEAR
from fenwa.core.errors import InputError

Hemisphere = Literal["north", "south", "none"]  # none: a place without seasons

_SHORTEST = {"north": 355, "south": 172}  # day of the year of the winter solstice


def clock_of(text: str, pointer: str = "/lamps_off") -> tuple[int, int]:
    """Hour and minute of a time typed as ``20:40``. [h, min]

    Raises
    ------
    InputError
        If it is no time of day.
    """
    hour, _, minute = text.strip().partition(":")
    if not (hour.isdecimal() and minute.isdecimal() and len(minute) == 2 and int(hour) < 24 and int(minute) < 60):
        raise InputError(f"Lamps out “{text}” is no time of day. Type it as 20:40.", pointer=pointer, value=text)
    return int(hour), int(minute)


def hemisphere_of(latitude_deg: float) -> Hemisphere:
    """The hemisphere by the sign of the latitude; within five degrees of the equator there are no seasons to go by."""
    return "none" if abs(latitude_deg) < 5 else "north" if latitude_deg > 0 else "south"


@lru_cache(maxsize=4096)
def days_from_shortest(on: date, hemisphere: Hemisphere) -> int | None:
    """Days from the nearest shortest day, -182 to 182; None where there are no seasons. [d]"""
    if hemisphere == "none":
        return None
    gone = (on.timetuple().tm_yday - _SHORTEST[hemisphere]) % YEAR
    return gone if gone <= YEAR // 2 else gone - YEAR


def days_into(window: tuple[int, int], day: int) -> int | None:
    """How far a day lies in a window that may run past the turn of the year; None outside. [d]"""
    into = (day - window[0]) % YEAR
    return into if into < window[1] - window[0] else None
