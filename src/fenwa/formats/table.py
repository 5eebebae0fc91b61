"""CSV tables with a header row: read strictly, each refusal with its row and column; written so that every program
opens them.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from fenwa.core.errors import DomainError, InputError

MAX_ROWS = 20_000
FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r")


@dataclass(frozen=True)
class Row:
    """A row and the line of the file it begins on."""

    line: int
    cells: dict[str, str]


def refuse(line: int, column: str, reason: str) -> InputError:
    """A refusal that names row and column."""
    where = f"Row {line}, column “{column}”" if column else f"Row {line}"
    return InputError(f"{where}: {reason}", pointer="/text", line=line, column=column)


def because(line: int, column: str, error: DomainError) -> InputError:
    """A domain refusal with the row and column it came from."""
    return refuse(line, column, error.detail)


def read_table(text: str, needed: Sequence[str]) -> tuple[list[str], list[Row]]:
    """Header and rows. Semicolons and tabs are understood as well as commas.

    Raises
    ------
    InputError
        If it is no table, a needed column is missing, a column stands twice or a row has too many cells.
    """
    text = text.lstrip("\ufeff")
    if "\x00" in text:
        raise refuse(text.count("\n", 0, text.index("\x00")) + 1, "", "holds a zero byte: this is not a text file.")
    first = text.split("\n", 1)[0]
    if not first.strip():
        raise refuse(1, "", f"is empty. The first row names the columns: {', '.join(needed)}.")
    delimiter = max((",", ";", "\t"), key=first.count)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    header: list[str] = []
    rows: list[Row] = []
    try:
        line = 1
        for cells in reader:
            start, line = line, reader.line_num + 1
            if not header:
                header = _header(cells, needed)
            elif any(c.strip() for c in cells):
                if len(cells) > len(header):
                    raise refuse(start, "", f"has {len(cells)} cells, the header {len(header)}.")
                padded = [*cells, *[""] * (len(header) - len(cells))]
                rows.append(Row(start, {h: c.strip() for h, c in zip(header, padded, strict=True)}))
                if len(rows) > MAX_ROWS:
                    raise refuse(start, "", f"at most {MAX_ROWS} rows are taken at once. Split the file.")
    except csv.Error as error:
        raise refuse(reader.line_num, "", f"is not CSV: {error}.") from error
    if not rows:
        raise refuse(2, "", "is missing: the file has a header and no rows.")
    return header, rows


def _header(cells: list[str], needed: Sequence[str]) -> list[str]:
    names = [c.strip() for c in cells]
    for name in names:
        if names.count(name) > 1:
            raise refuse(1, name, "stands twice in the header." if name else "a column has no name.")
    for name in needed:
        if name not in names:
            raise refuse(1, name, "is missing in the header.")
    return names


def read_day(text: str, line: int, column: str, today: date) -> date:
    """An ISO day that is not in the future."""
    try:
        day = date.fromisoformat(text)
    except ValueError as error:
        raise refuse(line, column, f"“{text}” is not a day. Write it as 2026-11-23.") from error
    if day > today:
        raise refuse(line, column, f"{text} lies in the future.")
    return day


def write_table(header: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """CSV with CRLF ends. A text that a spreadsheet would run as a formula is set in quotes of its own."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(header)
    for row in rows:
        writer.writerow(["" if c is None else _safe(c) if isinstance(c, str) else c for c in row])
    return out.getvalue()


def _safe(text: str) -> str:
    return f"'{text}" if _like_a_formula(text) else text


def _like_a_formula(text: str) -> bool:
    """Also one that stands in quotes already: else reading would take its own quote away."""
    return text.lstrip("'").startswith(FORMULA_STARTS)


def unsafe(text: str) -> str:
    """What ``write_table`` made safe, as it was."""
    return text[1:] if text.startswith("'") and _like_a_formula(text) else text
