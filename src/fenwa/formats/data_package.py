"""A collection as a Frictionless data package: one zip of CSV tables with their schemas, and photos. Or as one JSON.

Readable without Fenwa: cells are plain (days and moments by ISO 8601, true and false, JSON where a cell holds a list).
An empty cell is "not known"; a text that is there and empty is written as one apostrophe.
"""

from __future__ import annotations

import csv
import hashlib
import io
import json
import re
import zipfile
import zlib
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from pathlib import Path
from typing import IO, Any, Literal

from fenwa.core.errors import InputError
from fenwa.formats.table import FORMULA_STARTS

Kind = Literal["integer", "number", "boolean", "date", "datetime", "string", "object", "array", "any"]
DESCRIPTOR = "datapackage.json"
MOST_BYTES = 4_000_000_000  # unpacked: more is no collection
MOST_PHOTO_BYTES = 60_000_000
UNITS = {
    "_uS_cm": "µS/cm",
    "_mg_L_CaCO3": "mg/L as CaCO3",
    "_mg_L": "mg/L",
    "_g_L": "g/L",
    "_mL_per_L": "mL/L",
    "_per_L": "1/L",
    "_mL": "mL",
    "_L": "L",
    "_kPa": "kPa",
    "_per_C": "1/°C",
    "_C": "°C",
    "_cm": "cm",
    "_mm": "mm",
    "_px": "px",
    "_pct": "%",
    "_days": "d",
    "_hours": "h",
    "_min": "min",
    "_deg": "°",
    "_g": "g",
}
_PHOTO = re.compile(r"photos/([0-9a-f]{64})\.(jpg|png|webp)")
_SAFE = (*FORMULA_STARTS, "'")


@dataclass(frozen=True)
class Column:
    """A column of a table. ``refers``: table and column it points at."""

    name: str
    kind: Kind
    refers: tuple[str, str] | None = None

    @property
    def unit(self) -> str:
        """Its unit by the end of its name; empty: none."""
        return next((u for end, u in UNITS.items() if self.name.endswith(end)), "")


@dataclass(frozen=True)
class Sheet:
    """A table: its rows as the database holds them, in the order of their key."""

    name: str
    about: str
    columns: tuple[Column, ...]
    key: tuple[str, ...]
    rows: list[tuple[Any, ...]]


@dataclass(frozen=True)
class Collection:
    """Everything of a collection. ``photos``: where each file of its hash can be read."""

    schema: str
    version: str
    made_at: str
    sheets: list[Sheet]
    photos: Mapping[str, Callable[[], bytes]] = field(default_factory=dict)
    title: str = "A collection of Fenwa"


def cell(value: Any, kind: Kind) -> str:
    """A value as a cell; a text that a spreadsheet would run is set behind an apostrophe."""
    if value is None:
        return ""
    if kind == "boolean":
        return "true" if value else "false"
    if kind == "datetime":
        day, _, time = str(value).partition(" ")
        return f"{day}T{time.removesuffix('.000000')}"
    if kind in ("integer", "number"):
        return repr(value)
    text = str(value)
    return f"'{text}" if kind == "string" and (not text or text.startswith(_SAFE)) else text


def value(text: str, kind: Kind) -> Any:
    """A cell as the database holds it.

    Raises
    ------
    ValueError
        If it is not of its kind.
    """
    if text == "":
        return None
    if kind == "boolean":
        return {"true": 1, "false": 0}[text.lower()]
    if kind == "integer":
        return int(text)
    if kind == "number":
        return float(text)
    if kind == "date":
        return date.fromisoformat(text).isoformat()
    if kind == "datetime":
        datetime.fromisoformat(text)
        day, _, time = text.partition("T")
        return f"{day} {time if '.' in time else time + '.000000'}"
    if kind in ("object", "array", "any"):
        json.loads(text)
        return text
    return text[1:] if kind == "string" and text.startswith("'") else text


def _csv(sheet: Sheet) -> bytes:
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow([c.name for c in sheet.columns])
    kinds = [c.kind for c in sheet.columns]
    writer.writerows([cell(v, k) for v, k in zip(row, kinds, strict=True)] for row in sheet.rows)
    return out.getvalue().encode("utf-8")


def _table_schema(sheet: Sheet) -> dict[str, Any]:
    fields = [{"name": c.name, "type": c.kind} | ({"unit": c.unit} if c.unit else {}) for c in sheet.columns]
    foreign = [
        {
            "fields": [c.name],
            "reference": {"resource": "" if c.refers[0] == sheet.name else c.refers[0], "fields": [c.refers[1]]},
        }
        for c in sheet.columns
        if c.refers
    ]
    found: dict[str, Any] = {"fields": fields, "primaryKey": list(sheet.key), "missingValues": [""]}
    return found | ({"foreignKeys": foreign} if foreign else {})


def descriptor_of(collection: Collection, resources: list[dict[str, Any]]) -> dict[str, Any]:
    """The descriptor of a package, with a seal over itself."""
    told = {
        "profile": "data-package",
        "name": "fenwa-collection",
        "title": collection.title,
        "created": f"{collection.made_at}Z",
        "fenwa": {"schema": collection.schema, "version": collection.version},
        "resources": resources,
    }
    told["fenwa"]["seal"] = _seal(told)  # type: ignore[index]
    return told


def _seal(told: Mapping[str, Any]) -> str:
    bare = {**told, "fenwa": {k: v for k, v in told["fenwa"].items() if k != "seal"}}
    return hashlib.sha256(json.dumps(bare, sort_keys=True, ensure_ascii=False).encode()).hexdigest()


def write_package(collection: Collection, out: IO[bytes]) -> None:
    """Write the zip; photos go through one at a time."""
    resources: list[dict[str, Any]] = []
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as pack:
        for sheet in collection.sheets:
            data, path = _csv(sheet), f"data/{sheet.name}.csv"
            pack.writestr(path, data)
            resources.append(
                {"name": sheet.name, "path": path, "profile": "tabular-data-resource", "description": sheet.about}
                | {"format": "csv", "mediatype": "text/csv", "encoding": "utf-8"}
                | {"bytes": len(data), "hash": f"sha256:{hashlib.sha256(data).hexdigest()}", "rows": len(sheet.rows)}
                | {"schema": _table_schema(sheet)}
            )
        for name, read in sorted(collection.photos.items()):
            data, path = read(), f"photos/{name}"
            pack.writestr(zipfile.ZipInfo(path), data)
            resources.append(
                {"name": f"photo-{name.split('.')[0]}", "path": path, "bytes": len(data)}
                | {"hash": f"sha256:{hashlib.sha256(data).hexdigest()}"}
            )
        told = descriptor_of(collection, resources)
        pack.writestr(DESCRIPTOR, json.dumps(told, indent=1, ensure_ascii=False))


def write_json(collection: Collection) -> str:
    """The same tables as one JSON, photos by name only."""
    resources = [
        {"name": s.name, "description": s.about, "rows": len(s.rows), "schema": _table_schema(s)}
        | {"data": [[cell(v, c.kind) for v, c in zip(row, s.columns, strict=True)] for row in s.rows]}
        for s in collection.sheets
    ]
    return json.dumps(descriptor_of(collection, resources), ensure_ascii=False, indent=1)


def _refuse(place: str, why: str) -> InputError:
    return InputError(f"{place}: {why} Nothing was imported; export it again.", pointer="/file", place=place)


def _told(data: bytes | str) -> dict[str, Any]:
    try:
        told = json.loads(data)
        assert told["name"] == "fenwa-collection"
        assert isinstance(told["resources"], list)
        assert {"schema", "version", "seal"} <= set(told["fenwa"])
        seal = _seal(told)
    except (ValueError, KeyError, TypeError, AssertionError, RecursionError) as error:
        raise _refuse(DESCRIPTOR, "is no description of a collection of Fenwa’s.") from error
    if seal != told["fenwa"]["seal"]:
        raise _refuse(DESCRIPTOR, "was altered after it was written.")
    return dict(told)


def _sheet(told: Mapping[str, Any], rows: Iterable[tuple[int, list[str]]]) -> Sheet:
    schema, name = told["schema"], str(told["name"])
    refers = {
        f["fields"][0]: (f["reference"]["resource"] or name, f["reference"]["fields"][0])
        for f in schema.get("foreignKeys", ())
    }
    columns = tuple(Column(f["name"], f["type"], refers.get(f["name"])) for f in schema["fields"])
    found = []
    for line, cells in rows:
        if len(cells) != len(columns):
            raise _refuse(f"{name}, row {line}", f"has {len(cells)} cells, the table {len(columns)}.")
        row = []
        for text, c in zip(cells, columns, strict=True):
            try:
                row.append(value(text, c.kind))
            except (ValueError, KeyError) as error:
                raise _refuse(
                    f"{name}, row {line}, column {c.name}", f"“{text[:40]}” is not of type {c.kind}."
                ) from error
        found.append(tuple(row))
    if len(found) != told["rows"]:
        raise _refuse(name, f"has {len(found)} rows, {told['rows']} were written.")
    return Sheet(name, str(told.get("description", "")), columns, tuple(schema["primaryKey"]), found)


def read_package(file: IO[bytes] | Path) -> Collection:
    """A collection from its zip. Everything is checked against its hash before anything is believed.

    Raises
    ------
    InputError
        If it is no zip, cut, altered, or lacks a table or a photo it names: with the place.
    """
    try:
        pack = zipfile.ZipFile(file)
        if sum(i.file_size for i in pack.infolist()) > MOST_BYTES:
            raise _refuse("The file", "unpacks to more than any collection.")
        told = _told(_inside(pack, DESCRIPTOR))
        sheets, photos = [], {}
        for r in told["resources"]:
            path = str(r["path"])
            if found := _PHOTO.fullmatch(path):
                data = _checked(pack, r)
                if hashlib.sha256(data).hexdigest() != found[1]:
                    raise _refuse(path, "is another picture than its name says.")
                photos[path.removeprefix("photos/")] = _reader(pack, path)
            else:
                lines = csv.reader(io.StringIO(_checked(pack, r).decode("utf-8"), newline=""))
                next(lines, None)
                sheets.append(_sheet(r, enumerate(lines, start=2)))
    except (zipfile.BadZipFile, zipfile.LargeZipFile, EOFError, OSError) as error:
        raise _refuse("The file", "is cut or no zip.") from error
    except (KeyError, TypeError, IndexError, UnicodeDecodeError, csv.Error) as error:
        raise _refuse(DESCRIPTOR, f"does not describe its tables ({error}).") from error
    return Collection(str(told["fenwa"]["schema"]), str(told["fenwa"]["version"]), told["created"], sheets, photos)


def _reader(pack: zipfile.ZipFile, path: str) -> Callable[[], bytes]:
    return lambda: pack.read(path)


def _inside(pack: zipfile.ZipFile, path: str) -> bytes:
    try:
        return pack.read(path)
    except KeyError as error:
        raise _refuse(path, "is missing.") from error
    except (zipfile.BadZipFile, zlib.error, RuntimeError) as error:  # RuntimeError: locked, or packed as none knows
        raise _refuse(path, "is damaged.") from error


def _checked(pack: zipfile.ZipFile, told: Mapping[str, Any]) -> bytes:
    path = str(told["path"])
    data = _inside(pack, path)
    if len(data) != told["bytes"] or f"sha256:{hashlib.sha256(data).hexdigest()}" != told["hash"]:
        raise _refuse(path, "was altered after it was written.")
    return data


def read_json(text: str | bytes) -> Collection:
    """A collection from its JSON, without photos.

    Raises
    ------
    InputError
        If it is no collection, or was altered.
    """
    told = _told(text)
    try:
        sheets = [_sheet(r, enumerate(r["data"], start=1)) for r in told["resources"]]
    except (KeyError, TypeError, IndexError, AttributeError) as error:
        raise _refuse(DESCRIPTOR, f"does not describe its tables ({error}).") from error
    return Collection(str(told["fenwa"]["schema"]), str(told["fenwa"]["version"]), told["created"], sheets)
