"""A logger's file as CSV: one row a reading, local time."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from fenwa.core.entry import read_number
from fenwa.core.errors import DomainError
from fenwa.formats.table import Row, read_table, refuse, write_table

NEEDED = ("time",)
WARMTH, HUMIDITY = "temperature (°C)", "humidity (%)"
LIMITS = {WARMTH: (-40.0, 60.0), HUMIDITY: (0.0, 100.0)}


@dataclass(frozen=True)
class AirRow:
    """A reading of a file. None: not in it. [°C, %]"""

    at: datetime
    celsius: float | None
    humidity_pct: float | None


def read_air(text: str, now: datetime) -> list[AirRow]:
    """Readings of a logger's file, all of it good or none taken.

    Raises
    ------
    InputError
        With row, column and reason.
    """
    header, rows = read_table(text, NEEDED)
    for name in header:
        if name not in (*NEEDED, *LIMITS):
            raise refuse(1, name, f"is not known. Columns: time, {WARMTH}, {HUMIDITY}.")
    if not set(header) & set(LIMITS):
        raise refuse(1, "", f"has no column of air. Add {WARMTH} or {HUMIDITY}.")
    return [_row(r, now) for r in rows]


def _row(row: Row, now: datetime) -> AirRow:
    try:
        at = datetime.fromisoformat(row.cells["time"])
    except ValueError as error:
        raise refuse(row.line, "time", f"“{row.cells['time']}” is no time. Write it as 2026-11-23T06:30.") from error
    if at.tzinfo is not None:  # a logger that says its zone is read in the clock of this machine, as a pack is
        at = at.astimezone().replace(tzinfo=None)
    if at > now:
        raise refuse(row.line, "time", f"{row.cells['time']} lies in the future. Set the logger’s clock.")

    def number(name: str) -> float | None:
        text = row.cells.get(name, "")
        if not text:
            return None
        try:
            value = read_number(text, name)
        except DomainError as error:
            raise refuse(row.line, name, error.detail) from error
        low, high = LIMITS[name]
        if not low <= value <= high:
            raise refuse(row.line, name, f"{value:g} cannot be: {low:g} to {high:g}.")
        return value

    celsius, humidity = number(WARMTH), number(HUMIDITY)
    if celsius is None and humidity is None:
        raise refuse(row.line, "", "holds no reading.")
    return AirRow(at, celsius, humidity)


def write_air(rows: list[AirRow]) -> str:
    """Readings as the same file."""
    return write_table(
        [*NEEDED, WARMTH, HUMIDITY], [[r.at.isoformat(timespec="minutes"), r.celsius, r.humidity_pct] for r in rows]
    )
