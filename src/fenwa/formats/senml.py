"""SenML (RFC 8428) JSON packs of conductivity, temperature, pH and humidity."""

from __future__ import annotations

import json
import math
import re
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from fenwa.core.errors import InputError

_NAME = re.compile(r"^[A-Za-z0-9][A-Za-z0-9\-:./_]*$")
_RELATIVE_BELOW = 2**28  # RFC 8428, 4.5.3: smaller times count from now
_KNOWN_LABELS = {"bn", "bt", "bu", "bv", "bs", "bver", "n", "u", "v", "vs", "vb", "vd", "s", "t", "ut"}
_NUMBERS = {"bt", "bv", "bs", "bver", "v", "s", "t", "ut"}
VERSION = 10
# unit -> (quantity, factor to µS/cm, °C, pH or %); mS/m is a secondary unit of RFC 8798
UNITS = {
    "S/m": ("ec", 10_000.0),
    "mS/m": ("ec", 10.0),
    "Cel": ("temperature", 1.0),
    "pH": ("pH", 1.0),
    "%RH": ("humidity", 1.0),
}
MAX_RECORDS = 2000
LIMITS = {"ec": 200_000.0, "temperature": 60.0, "pH": 14.0, "humidity": 100.0}
LEAST = {"temperature": -40.0}  # the air of a glasshouse freezes; nothing else goes under zero


@dataclass(frozen=True)
class SenmlValue:
    """One resolved record, in µS/cm, °C or pH."""

    device: str
    quantity: str
    value: float
    at: datetime
    record: int


def _refuse(line: int, record: int, reason: str) -> InputError:
    return InputError(f"Line {line}, record {record}: {reason}", pointer="/pack", line=line, record=record)


def _reject_constant(name: str) -> float:
    raise ValueError(f"{name} is not JSON")


def _unique(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for key, value in pairs:
        if key in out:
            raise ValueError(f"label “{key}” stands twice")
        out[key] = value
    return out


def _records(text: str) -> list[tuple[int, Any]]:
    """Records of the array with the line each begins on."""
    decoder = json.JSONDecoder(object_pairs_hook=_unique, parse_constant=_reject_constant)

    def line_of(at: int) -> int:
        return text.count("\n", 0, at) + 1

    at = _skip(text, 0)
    if text[at : at + 1] != "[":
        raise _refuse(line_of(at), 0, "a SenML pack is a JSON array: it begins with “[”.")
    at = _skip(text, at + 1)
    found: list[tuple[int, Any]] = []
    while text[at : at + 1] != "]":
        if found:
            if text[at : at + 1] != ",":
                raise _refuse(line_of(at), len(found), "a comma or “]” is missing after it.")
            at = _skip(text, at + 1)
        try:
            value, end = decoder.raw_decode(text, at)
        except (ValueError, RecursionError) as error:
            reason = error.msg if isinstance(error, json.JSONDecodeError) else str(error) or "nested too deeply"
            where = error.pos if isinstance(error, json.JSONDecodeError) else at
            raise _refuse(line_of(min(where, len(text))), len(found) + 1, f"not valid JSON: {reason}.") from error
        found.append((line_of(at), value))
        if len(found) > MAX_RECORDS:
            raise _refuse(line_of(at), len(found), f"at most {MAX_RECORDS} records are taken at once.")
        at = _skip(text, end)
    if _skip(text, at + 1) != len(text):
        raise _refuse(line_of(at), len(found), "something stands after the closing “]”.")
    if not found:
        raise _refuse(1, 0, "the pack is empty.")
    return found


def _skip(text: str, at: int) -> int:
    while at < len(text) and text[at] in " \t\r\n":
        at += 1
    return at


def _checked(line: int, n: int, raw: Any) -> dict[str, Any]:
    if not isinstance(raw, dict):
        raise _refuse(line, n, "a record is an object in braces.")
    for label, value in raw.items():
        if label.endswith("_") and label not in _KNOWN_LABELS:
            raise _refuse(line, n, f"label “{label}” must be understood (RFC 8428) and is not.")
        if label in _NUMBERS:
            bad = isinstance(value, bool) or not isinstance(value, int | float)
            if bad or not math.isfinite(float(value) if abs(value) < 1e300 else math.inf):
                raise _refuse(line, n, f"“{label}” must be a number.")
        if label in ("bn", "n", "bu", "u") and not isinstance(value, str):
            raise _refuse(line, n, f"“{label}” must be text.")
    if raw.get("bver", VERSION) > VERSION:
        raise _refuse(line, n, f"SenML version {raw['bver']} is newer than {VERSION}.")
    return raw


def parse_senml(text: str, now: datetime) -> list[SenmlValue]:
    """Resolved values of a pack; all of it is good or none is taken.

    Parameters
    ----------
    text : str
        The pack, JSON.
    now : datetime
        Aware; relative times count from it.

    Raises
    ------
    InputError
        With line, record and reason, for whatever cannot be used.
    """
    base: dict[str, Any] = {"bn": "", "bt": 0.0, "bu": "", "bv": 0.0}
    out: list[SenmlValue] = []
    for n, (line, raw) in enumerate(_records(text), 1):
        record = _checked(line, n, raw)
        base |= {k: record[k] for k in base if k in record}
        present = [k for k in ("v", "vs", "vb", "vd", "s") if k in record]
        if not present:
            if not any(k in record for k in ("bn", "bt", "bu", "bv", "bver")):
                raise _refuse(line, n, "it holds no value.")
            continue
        if present != ["v"]:
            raise _refuse(line, n, f"“{present[0]}” is not taken: readings are numbers in “v”.")
        name = str(base["bn"]) + str(record.get("n", ""))
        if not _NAME.match(name) or len(name) > 200:
            raise _refuse(line, n, f"name “{name[:60]}” is not a SenML name: letters, digits and - : . / _ only.")
        out.append(_value(line, n, record, base, name, now))
    if not out:
        raise _refuse(1, 1, "the pack holds no value.")
    return out


def _value(line: int, n: int, record: dict[str, Any], base: dict[str, Any], name: str, now: datetime) -> SenmlValue:
    unit = record.get("u", base["bu"])
    if unit not in UNITS:
        raise _refuse(line, n, f"unit “{unit}” is not taken. Send {', '.join(UNITS)}.")
    quantity, factor = UNITS[unit]
    value = (base["bv"] + record["v"]) * factor
    if not LEAST.get(quantity, 0.0) <= value <= LIMITS[quantity]:
        raise _refuse(line, n, f"{quantity} {record['v']:g} {unit} cannot be.")
    seconds = base["bt"] + record.get("t", 0.0)
    stamp = now.timestamp() + seconds if seconds < _RELATIVE_BELOW else seconds
    try:
        at = datetime.fromtimestamp(stamp, UTC)
    except (OverflowError, OSError, ValueError) as error:
        raise _refuse(line, n, f"time {seconds:g} cannot be.") from error
    if (at - now).total_seconds() > 3600:
        raise _refuse(line, n, f"time {at.isoformat(timespec='seconds')} lies in the future: set the logger's clock.")
    return SenmlValue(_device(name), quantity, float(value), at, n)


def _device(name: str) -> str:
    """Name of the device: what stands before the last separator, or the whole."""
    cut = max(name.rfind(":"), name.rfind("/"))
    return name[:cut] if cut > 0 else name
