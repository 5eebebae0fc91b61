"""Water reports as CSV: one row a report, the unit of each ion in its column's header."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from fenwa.core.entry import read_number, require
from fenwa.core.errors import DomainError
from fenwa.core.water.quantities import MeasuredAmount
from fenwa.formats.readings_csv import amount_cells, amount_columns, column_of, quantity_columns, read_amounts
from fenwa.formats.table import Row, read_day, read_table, refuse, unsafe, write_table

NEEDED = ("water", "date")
OWN = ("laboratory", "EC (µS/cm)", "note")


@dataclass(frozen=True)
class ReportRow:
    """A report from a file."""

    line: int
    water: str
    on: date
    laboratory: str
    reported_uS_cm: float | None
    note: str
    amounts: tuple[MeasuredAmount, ...]


def read_reports(text: str, today: date) -> list[ReportRow]:
    """Reports of a file, all of it good or none taken.

    Raises
    ------
    InputError
        With row, column and reason.
    """
    header, rows = read_table(text, NEEDED)
    columns = quantity_columns(header, (*NEEDED, *OWN))
    return [_report(row, columns, today) for row in rows]


def _report(row: Row, columns: dict[str, tuple[str, str]], today: date) -> ReportRow:
    cells = row.cells
    if not cells["water"]:
        raise refuse(row.line, "water", "is empty. Name the source.")
    amounts = read_amounts(row, columns)
    if not amounts:
        raise refuse(row.line, "", "holds no measured quantity.")
    reported = None
    if cells.get("EC (µS/cm)"):
        try:
            reported = require(read_number(cells["EC (µS/cm)"], "EC"), "EC", "µS/cm", low=0, high=200_000)
        except DomainError as error:
            raise refuse(row.line, "EC (µS/cm)", error.detail) from error
    return ReportRow(
        row.line,
        unsafe(cells["water"]),
        read_day(cells["date"], row.line, "date", today),
        unsafe(cells.get("laboratory", "")),
        reported,
        unsafe(cells.get("note", "")),
        amounts,
    )


def write_reports(rows: list[ReportRow]) -> str:
    """Reports as CSV that ``read_reports`` takes back."""
    columns = amount_columns(r.amounts for r in rows)
    body = [
        [r.water, r.on.isoformat(), r.laboratory, r.reported_uS_cm, r.note, *amount_cells(r.amounts, columns)]
        for r in rows
    ]
    return write_table([*NEEDED, *OWN, *(column_of(q, u) for q, u in columns.items())], body)
