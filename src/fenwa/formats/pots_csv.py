"""The collection as CSV: one row a pot, its plants in one cell."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any, get_args

from fenwa.core.care.condition import Phase
from fenwa.core.entry import read_number
from fenwa.core.errors import DomainError
from fenwa.core.pot.specification import Drainage, Route
from fenwa.formats.table import Row, read_day, read_table, refuse, unsafe, write_table

NEEDED = ("code",)
COLUMNS = (
    "code",
    "name",
    "plants",
    "place",
    "spot",
    "medium",
    "medium charged",
    "medium limed",
    "volume (L)",
    "top (cm)",
    "height (cm)",
    "drainage",
    "route",
    "interval (days)",
    "interval by",
    "school",
    "phase",
    "arrived",
    "isolated",
    "tags",
)
FIELDS = {
    "name": "name",
    "place": "place",
    "spot": "spot",
    "volume (L)": "volume",
    "top (cm)": "top_cm",
    "height (cm)": "height_cm",
    "drainage": "drainage",
    "route": "route",
    "interval (days)": "interval_days",
    "interval by": "interval_by",
    "school": "school_id",
    "phase": "phase",
    "arrived": "arrived_on",
    "isolated": "isolated",
    "tags": "tags",
    "medium": "medium_id",
    "medium charged": "medium_charged",
    "medium limed": "medium_limed",
    "code": "code",
    "plants": "profile_id",
}
_CHOICES: dict[str, tuple[str, ...]] = {
    "drainage": get_args(Drainage),
    "route": get_args(Route),
    "phase": get_args(Phase),
    "interval by": ("set", "learnt"),
}
_NUMBERS = ("volume (L)", "top (cm)", "height (cm)", "interval (days)")
_TRUTH = {"yes": True, "true": True, "1": True, "no": False, "false": False, "0": False}


@dataclass(frozen=True)
class PotRow:
    """A row: the line it stands on and the fields its cells name; an empty cell names nothing."""

    line: int
    fields: dict[str, Any]


def column_of(pointer: str) -> str:
    """The column an entry's field stands in."""
    name = pointer.strip("/").split("/")[0]
    alike = {"others": "plants", "count": "plants", "label": "plants", "medium_parts": "medium", "parts": "medium"}
    return alike.get(name) or next((c for c, f in FIELDS.items() if f == name), "")


def read_pots(text: str, today: date) -> list[PotRow]:
    """Rows of a file, all of them good or none taken.

    Raises
    ------
    InputError
        With row, column and reason.
    """
    header, rows = read_table(text, NEEDED)
    for name in header:
        if name not in COLUMNS:
            raise refuse(1, name, f"is not known. Columns are {', '.join(COLUMNS)}.")
    seen: dict[str, int] = {}
    out = []
    for row in rows:
        fields = _fields(row, today)
        twin = seen.setdefault(fields["code"], row.line)
        if twin != row.line:
            raise refuse(row.line, "code", f"{fields['code']} stands in row {twin} too.")
        out.append(PotRow(row.line, fields))
    return out


def _fields(row: Row, today: date) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for column, cell in row.cells.items():
        text = unsafe(cell)
        if not text:
            continue
        if column in _CHOICES:
            if text not in _CHOICES[column]:
                raise refuse(row.line, column, f"“{text}” is not one of {', '.join(_CHOICES[column])}.")
            out[FIELDS[column]] = text
        elif column in _NUMBERS:
            try:
                out[FIELDS[column]] = read_number(text, column.split(" ")[0].capitalize())
            except DomainError as error:
                raise refuse(row.line, column, error.detail) from error
        elif column in ("isolated", "medium charged", "medium limed"):
            if text.lower() not in _TRUTH:
                raise refuse(row.line, column, f"“{text}” is neither yes nor no.")
            out[FIELDS[column]] = _TRUTH[text.lower()]
        elif column == "arrived":
            out[FIELDS[column]] = read_day(text, row.line, column, today)
        elif column == "tags":
            out["tags"] = [t.strip() for t in text.split(";")]
        elif column == "plants":
            out |= _plants(text, row.line)
        elif column == "medium":
            out |= _medium(text, row.line)
        else:
            out[FIELDS[column]] = text
    if "code" not in out:
        raise refuse(row.line, "code", "is empty. Every pot has a code.")
    return out


def _plants(text: str, line: int) -> dict[str, Any]:
    """Plants of a pot: "paphiopedilum: the old one x3; masdevallia"."""
    plants = []
    for part in text.split(";"):
        found = re.fullmatch(r"\s*([a-z_]+)\s*(?::\s*(.*?))?\s*(?:x\s*(\d{1,5}))?\s*", part)
        if found is None:
            raise refuse(
                line,
                "plants",
                f"“{part.strip()}” is not understood. Write the kind, then “: name”, then “x3” for three.",
            )
        plants.append({"profile_id": found.group(1), "label": found.group(2) or "", "count": int(found.group(3) or 1)})
    return {**plants[0], "others": plants[1:]}


def _medium(text: str, line: int) -> dict[str, Any]:
    """A medium of the table, or parts: "2 bark_fine + 1 perlite"."""
    if "+" not in text:
        return {"medium_id": text, "medium_parts": []}
    parts = []
    for part in text.split("+"):
        found = re.fullmatch(r"\s*(\d+(?:[.,]\d+)?)\s+([a-z_]+)\s*", part)
        if found is None:
            raise refuse(
                line, "medium", f"“{part.strip()}” is not understood. Write parts like “2 bark_fine + 1 perlite”."
            )
        parts.append({"medium_id": found.group(2), "parts": float(found.group(1).replace(",", "."))})
    return {"medium_id": parts[0]["medium_id"], "medium_parts": parts}


def plants_cell(plants: Sequence[tuple[str, str, int]]) -> str:
    """Kind, name and count of each plant as one cell; what would divide the cell is left out of a name."""
    return "; ".join(
        kind + (f": {re.sub(r'[;]', ',', label)}" if label else "") + (f" x{count}" if count > 1 else "")
        for kind, label, count in plants
    )


def medium_cell(medium_id: str, parts: Sequence[dict[str, Any]] | None) -> str:
    """A medium as one cell."""
    return " + ".join(f"{p['parts']:g} {p['medium_id']}" for p in parts) if parts else medium_id


def write_pots(rows: Sequence[Sequence[object]]) -> str:
    """Rows in the order of ``COLUMNS`` as CSV that ``read_pots`` takes back."""
    return write_table(COLUMNS, rows)
