"""Data files as frozen rows: unknown and missing keys are refused by name."""

from __future__ import annotations

import tomllib
from dataclasses import MISSING, fields
from pathlib import Path
from typing import Any, TypeVar

from fenwa.core.errors import InputError

DATA = Path(__file__).parent
T = TypeVar("T")


def build_row(kind: type[T], raw: dict[str, Any], where: str) -> T:
    """A frozen row from a table, refusing unknown and missing keys by name."""
    names = {f.name: f for f in fields(kind)}  # type: ignore[arg-type]
    for key in raw:
        if key not in names:
            raise InputError(f"{where}: key “{key}” is not known. Known keys: {', '.join(names)}.")
    for name, f in names.items():
        if name not in raw and f.default is MISSING:
            raise InputError(f"{where}: key “{name}” is missing. Add it with its unit as named.")
    values = {key: tuple(v) if isinstance(v, list) else v for key, v in raw.items()}
    return kind(**values)


def read_toml(path: Path) -> dict[str, Any]:
    """A TOML file as plain values; an error names the file."""
    try:
        return tomllib.loads(path.read_text("utf-8"))
    except tomllib.TOMLDecodeError as error:
        raise InputError(f"{path.name}: not valid TOML: {error}.") from error
