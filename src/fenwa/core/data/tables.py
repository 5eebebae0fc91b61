"""Data files as frozen rows: unknown and missing keys, wrong types, words and amounts are refused by name."""

from __future__ import annotations

import tomllib
from collections.abc import Iterable
from dataclasses import MISSING, fields
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Any, Protocol, TypeVar, get_type_hints

from pydantic import AfterValidator, Field, TypeAdapter, ValidationError

from fenwa.core.errors import InputError

DATA = Path(__file__).parent
T = TypeVar("T")


def _ascending(span: tuple[float, ...]) -> tuple[float, ...]:
    if list(span) != sorted(span):
        raise ValueError("the lower end comes first")
    return span


Rising = AfterValidator(_ascending)
Named = Annotated[str, Field(min_length=1)]
EC = Annotated[float, Field(ge=0, le=20_000)]
ECs = Annotated[tuple[EC, EC], Rising]
Amount = Annotated[float, Field(ge=0, le=5_000)]  # mg/L
Amounts = Annotated[tuple[Amount, Amount], Rising]
Days = Annotated[int, Field(ge=0, le=3_650)]
DaySpan = Annotated[tuple[Days, Days], Rising]
DayOfYear = Annotated[int, Field(ge=-366, le=732)]
Window = Annotated[tuple[DayOfYear, DayOfYear], Rising]
Warmth = Annotated[float, Field(ge=-30, le=60)]
WarmthSpan = Annotated[tuple[Warmth, Warmth], Rising]
Percent = Annotated[float, Field(ge=0, le=100)]
PercentSpan = Annotated[tuple[Percent, Percent], Rising]
Acidity = Annotated[float, Field(ge=0, le=14)]
AciditySpan = Annotated[tuple[Acidity, Acidity], Rising]
Share = Annotated[float, Field(ge=0, le=1)]
Level = Annotated[int, Field(ge=0, le=3)]


class Identified(Protocol):
    """A row with an id."""

    @property
    def id(self) -> str:
        """What other files and rows of the log name it by."""


Row = TypeVar("Row", bound=Identified)


@lru_cache(maxsize=64)
def _checks(kind: Any) -> dict[str, TypeAdapter[Any]]:
    return {name: TypeAdapter(hint) for name, hint in get_type_hints(kind, include_extras=True).items()}


def build_row(kind: type[T], raw: dict[str, Any], where: str, *, checked: bool = True) -> T:
    """A frozen row from a table; what is not known, missing, of a wrong type, no word of the list or out of range is
    refused by its key. Without ``checked`` only the keys are looked at: whoever asks refuses values in its own words.
    """
    names = {f.name: f for f in fields(kind)}  # type: ignore[arg-type]
    for key in raw:
        if key not in names:
            raise InputError(f"{where}: key “{key}” is not known. Known keys: {', '.join(names)}.")
    for name, f in names.items():
        if name not in raw and f.default is MISSING:
            raise InputError(f"{where}: key “{name}” is missing. Add it with its unit as named.")
    if not checked:
        return kind(**{key: tuple(v) if isinstance(v, list) else v for key, v in raw.items()})
    checks = _checks(kind)  # type: ignore[arg-type]
    values = {}
    for key, given in raw.items():
        try:
            values[key] = checks[key].validate_python(tuple(given) if isinstance(given, list) else given, strict=True)
        except ValidationError as error:
            first = error.errors()[0]
            inner = "".join(f"[{part}]" for part in first["loc"] if isinstance(part, int))
            reason = first["msg"].removeprefix("Value error, ")
            raise InputError(
                f"{where}: key “{key}”{inner} is {first['input']!r}: {reason[:1].lower()}{reason[1:]}."
            ) from error
    return kind(**values)


def by_id(rows: Iterable[tuple[str, Row]]) -> dict[str, Row]:
    """Rows by id, each with the file it stands in; an id that stands twice is refused with both files."""
    out: dict[str, Row] = {}
    places: dict[str, str] = {}
    for where, row in rows:
        if row.id in out:
            raise InputError(f"{where}: key “id” is {row.id!r}, which stands in {places[row.id]} too. Name it anew.")
        out[row.id], places[row.id] = row, where
    return out


def one_of(word: str, known: Iterable[str], where: str, key: str) -> None:
    """Refuse a word that names nothing in another file."""
    words = sorted(known)
    if word not in words:
        raise InputError(f"{where}: key “{key}” is {word!r}: choose one of {', '.join(words)}.")


def read_toml(path: Path) -> dict[str, Any]:
    """A TOML file as plain values; an error names the file."""
    try:
        return tomllib.loads(path.read_text("utf-8"))
    except tomllib.TOMLDecodeError as error:
        raise InputError(f"{path.name}: not valid TOML: {error}.") from error
