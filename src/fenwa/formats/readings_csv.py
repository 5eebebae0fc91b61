"""Readings as CSV: one row a reading, the way it was typed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import get_args

from fenwa.core.entry import read_number
from fenwa.core.errors import DomainError
from fenwa.core.water.quantities import QUANTITIES, MeasuredAmount, read_amount
from fenwa.core.water.tds import TdsScale
from fenwa.core.water.temperature import EcUnit
from fenwa.formats.table import Row, read_day, read_table, refuse, unsafe, write_table

NEEDED = ("water", "date")
OWN = ("value", "unit", "scale", "temperature (°C)", "compensated", "note")
_YES, _NO = ("yes", "true", "1", ""), ("no", "false", "0")


@dataclass(frozen=True, kw_only=True)
class ReadingRow:
    """A reading from a file. ``value`` is None when only other quantities were tested."""

    line: int
    water: str
    on: date
    value: float | None
    unit: str
    scale: str | None
    temperature_C: float | None
    compensated: bool
    note: str
    amounts: tuple[MeasuredAmount, ...]


def column_of(quantity: str, unit: str) -> str:
    """Header of a quantity's column: its name and unit."""
    return f"{quantity} ({unit})" if unit else quantity


def quantity_columns(header: list[str], own: tuple[str, ...]) -> dict[str, tuple[str, str]]:
    """Header -> (quantity, unit) for the columns that are not the table's own."""
    known = {column_of(q.id, u).lower(): (q.id, u) for q in QUANTITIES.values() for u in q.units}
    known |= {q.id.lower(): (q.id, q.unit) for q in QUANTITIES.values()}
    out: dict[str, tuple[str, str]] = {}
    for name in header:
        if name in own:
            continue
        found = known.get(name.lower())
        if found is None:
            example = column_of("Ca", "mg/L")
            raise refuse(1, name, f"is not known. A quantity's column has its unit with it, for example “{example}”.")
        if found[0] in {q for q, _ in out.values()}:
            raise refuse(1, name, "its quantity has another column already.")
        out[name] = found
    return out


def read_amounts(row: Row, columns: dict[str, tuple[str, str]]) -> tuple[MeasuredAmount, ...]:
    """Quantities of a row; an empty cell is not measured."""
    out = []
    for name, (quantity, unit) in columns.items():
        if row.cells[name]:
            try:
                out.append(read_amount(quantity, unsafe(row.cells[name]), unit))
            except DomainError as error:
                raise refuse(row.line, name, error.detail) from error
    return tuple(out)


def read_readings(text: str, today: date) -> list[ReadingRow]:
    """Readings of a file, all of it good or none taken.

    Raises
    ------
    InputError
        With row, column and reason.
    """
    header, rows = read_table(text, NEEDED)
    columns = quantity_columns(header, (*NEEDED, *OWN))
    return [_reading(row, columns, today) for row in rows]


def _reading(row: Row, columns: dict[str, tuple[str, str]], today: date) -> ReadingRow:
    def cell(name: str) -> str:
        return row.cells.get(name, "")

    def number(name: str, label: str) -> float | None:
        if not cell(name):
            return None
        try:
            return read_number(cell(name), label)
        except DomainError as error:
            raise refuse(row.line, name, error.detail) from error

    if not cell("water"):
        raise refuse(row.line, "water", "is empty. Name the source.")
    unit, scale, compensated = cell("unit") or "µS/cm", cell("scale") or None, cell("compensated").lower()
    if unit not in get_args(EcUnit):
        raise refuse(row.line, "unit", f"“{unit}” is not a unit of a meter. Use {', '.join(get_args(EcUnit))}.")
    if scale is not None and scale not in get_args(TdsScale):
        raise refuse(row.line, "scale", f"“{scale}” is not a scale. Use {', '.join(get_args(TdsScale))}.")
    if unit == "ppm" and scale is None:
        raise refuse(row.line, "scale", "is empty. A ppm has a scale: 0.5, 0.64, 0.7, or unknown.")
    if compensated not in (*_YES, *_NO):
        raise refuse(row.line, "compensated", f"“{compensated}” is neither yes nor no.")
    value, amounts = number("value", "Value"), read_amounts(row, columns)
    if value is None and not amounts:
        raise refuse(row.line, "value", "is empty, and nothing else was measured. Enter one of them.")
    return ReadingRow(
        line=row.line,
        water=unsafe(cell("water")),
        on=read_day(cell("date"), row.line, "date", today),
        value=value,
        unit=unit,
        scale=scale,
        temperature_C=number("temperature (°C)", "Temperature"),
        compensated=compensated in _YES,
        note=unsafe(cell("note")),
        amounts=amounts,
    )


def amount_columns(rows: Iterable[tuple[MeasuredAmount, ...]]) -> dict[str, str]:
    """Quantity -> unit of its column: as typed where one unit serves all rows, else the canonical one."""
    units: dict[str, set[str]] = {}
    for amounts in rows:
        for a in amounts:
            units.setdefault(a.quantity, set()).add(a.unit)
    return {q: next(iter(u)) if len(u) == 1 else QUANTITIES[q].unit for q, u in units.items()}


def amount_cells(amounts: tuple[MeasuredAmount, ...], columns: dict[str, str]) -> list[str]:
    """A row's cells for these columns; not measured is empty."""
    typed = {a.quantity: a for a in amounts}
    return [_in_unit(typed[q], u) if q in typed else "" for q, u in columns.items()]


def _in_unit(a: MeasuredAmount, unit: str) -> str:
    if a.unit == unit:
        return a.typed
    factor = QUANTITIES[a.quantity].units[unit]
    low, high = a.span.low / factor, a.span.high / factor
    return f"{low:.6g}" if low == high else f"{low:.6g}-{high:.6g}"


def write_readings(rows: list[ReadingRow]) -> str:
    """Readings as CSV that ``read_readings`` takes back."""
    columns = amount_columns(r.amounts for r in rows)
    body = [
        [
            r.water,
            r.on.isoformat(),
            r.value,
            r.unit,
            r.scale,
            r.temperature_C,
            "yes" if r.compensated else "no",
            r.note,
            *amount_cells(r.amounts, columns),
        ]
        for r in rows
    ]
    return write_table([*NEEDED, *OWN, *(column_of(q, u) for q, u in columns.items())], body)
