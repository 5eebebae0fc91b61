"""Reading what a grower typed: numbers with their field, range and way out."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, fields, is_dataclass
from datetime import date
from typing import Any

import numpy as np

from fenwa.core.errors import InputError, OutOfRange, Underspecified

MAX_NUMBER = 1e15  # far beyond anything measured, and within what a float and a database hold exactly
MAX_DEPTH = 40
FIRST_YEAR, LAST_YEAR = 1900, 2200  # of any day of a log; a year's arithmetic never leaves the calendar
_NAMES: dict[type, tuple[str, ...]] = {}  # fields of each dataclass met so far
_DAY = re.compile(r"\d{4}-\d{2}-\d{2}")
_ENDLESS = re.compile(r"\s*[+-]?\d{19,}\s*")  # as a number it fits no database

_PLAIN = re.compile(r"^[+-]?(\d+([.]\d*)?|[.]\d+)$")
_COMMA = re.compile(r"^[+-]?\d*,\d+$")
_RANGE = re.compile(r"^(\S+?)\s*(?:-|–|\.\.|\bto\b)\s*(\S+)$")
_THOUSANDS = re.compile(r"^[+-]?[1-9]\d{0,2}(,\d{3})+$")  # 0,002 can only be a decimal


def shown(value: float) -> str:
    """A number as a sentence quotes it, and as it can be typed again: no exponent, no trailing zeros."""
    return _plain(value, 6) if abs(value) < 1e6 else f"{value:.0f}"


def brief(value: float) -> str:
    """A measured value as a sentence quotes it: four figures, no exponent."""
    return _plain(value, 4) if abs(value) < 9999.5 else f"{value:.0f}"


def signed(value: float, digits: int = 0) -> str:
    """A change as a sentence quotes it: +6, −14 with the minus of print, 0 without any sign."""
    text = f"{abs(value):.{digits}f}"
    return text if not float(text) else f"{'−' if value < 0 else '+'}{text}"


def capital(words: str) -> str:
    """Words as a sentence begins with them; the rest stays as it is, where ``str.capitalize`` would lower a name."""
    return words[:1].upper() + words[1:]


def _plain(value: float, figures: int) -> str:
    text = f"{value:.{figures}g}"
    return text if "e" not in text else np.format_float_positional(float(text), trim="-")


def check_plain(value: Any, pointer: str = "", depth: int = 0) -> None:
    """Refuse in a sentence what no calculation and no row can hold, anywhere in a tree of plain values.

    Raises
    ------
    OutOfRange
        If a number is not finite or beyond any measure, or a day beyond the years of a log.
    InputError
        If a text holds half a character, or the tree is nested beyond reason.
    """
    if value is None or isinstance(value, bool):
        return
    if isinstance(value, int | float):
        if not abs(value) <= MAX_NUMBER:  # written so that NaN fails
            raise OutOfRange(
                f"{_field(pointer)} is beyond anything measured. Enter a number up to {MAX_NUMBER:.0f}.",
                pointer=pointer,
            )
    elif isinstance(value, date):
        if not FIRST_YEAR <= value.year <= LAST_YEAR:
            raise _no_day(pointer, value.isoformat())
    elif isinstance(value, str):
        if not value.isascii() and any("\ud800" <= sign <= "\udfff" for sign in value):
            raise InputError(f"{_field(pointer)} holds half a character. Type it again.", pointer=pointer)
        if _ENDLESS.fullmatch(value):
            raise OutOfRange(f"{_field(pointer)} has too many digits. Shorten it.", pointer=pointer)
        if _DAY.fullmatch(value) and not FIRST_YEAR <= int(value[:4]) <= LAST_YEAR:
            raise _no_day(pointer, value)
    elif depth >= MAX_DEPTH:
        raise InputError(f"{_field(pointer)} is nested too deep. Send fewer levels.", pointer="")
    elif isinstance(value, dict):
        for key, inner in value.items():
            check_plain(key, f"{pointer}/…", depth + 1)
            if not _is_fine(inner):
                check_plain(inner, f"{pointer}/{key}", depth + 1)
    elif isinstance(value, list | tuple):
        for n, inner in enumerate(value):
            if not _is_fine(inner):
                check_plain(inner, f"{pointer}/{n}", depth + 1)
    elif is_dataclass(value):
        for name in _names_of(type(value)):
            inner = getattr(value, name)
            if not _is_fine(inner):
                check_plain(inner, f"{pointer}/{name}", depth + 1)


def _is_fine(value: Any) -> bool:
    """Whether it is a number or day that can be, told without saying where it stands: most of a tree is."""
    kind = type(value)
    if kind is float or kind is int:
        return bool(-MAX_NUMBER <= value <= MAX_NUMBER)
    if kind is date:
        return bool(FIRST_YEAR <= value.year <= LAST_YEAR)
    return value is None or kind is bool


def _names_of(kind: type) -> tuple[str, ...]:
    names = _NAMES.get(kind)
    if names is None:
        names = _NAMES[kind] = tuple(f.name for f in fields(kind))
    return names


def _no_day(pointer: str, text: str) -> OutOfRange:
    return OutOfRange(
        f"{_field(pointer)} {text} is no day of a log. Use a year from {FIRST_YEAR} to {LAST_YEAR}.", pointer=pointer
    )


def _field(pointer: str) -> str:
    words = pointer.rsplit("/", 1)[-1].split("_")[0]
    return capital(words) if words and not words.isdigit() else "An entry"


def read_number(raw: str | float | int | None, label: str, *, pointer: str = "") -> float:
    """A typed number as a float.

    Decimal points and decimal commas are understood; ``1,413`` could be either
    a decimal or a thousand and is asked about, never guessed.

    Raises
    ------
    Underspecified
        If nothing was typed.
    InputError
        If it is not a number, or is ambiguous.
    """
    if raw is None or (isinstance(raw, str) and not raw.strip()):
        raise Underspecified(f"{label} is empty. Enter a number.", pointer=pointer)
    if isinstance(raw, bool):
        raise InputError(f"{label} must be a number, not yes or no.", pointer=pointer)
    if isinstance(raw, int | float):
        value = float(raw) if abs(raw) <= MAX_NUMBER else math.inf
    elif not isinstance(raw, str):
        raise InputError(f"{label} must be one number, not a list or a group.", pointer=pointer)
    else:
        text = re.sub(r"[\s\u00a0\u202f']", "", raw).replace("\u2212", "-")
        if _THOUSANDS.match(text):
            plain, decimal = text.replace(",", ""), text.replace(",", ".", 1)
            raise InputError(
                f"{label} “{raw}” can be read two ways. Write {plain} or {decimal}.", pointer=pointer, value=raw
            )
        if _COMMA.match(text):
            text = text.replace(",", ".")
        if not _PLAIN.match(text):
            raise InputError(
                f"{label} “{raw}” is not a number. Use digits and one decimal point.", pointer=pointer, value=raw
            )
        value = float(text)
    if not abs(value) <= MAX_NUMBER:  # written so that NaN fails
        raise InputError(f"{label} is not a finite number. Enter a plain number.", pointer=pointer)
    return value


@dataclass(frozen=True)
class Span:
    """What a test told: from ``low`` to ``high``, equal when it was one number."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        """Middle of the range."""
        return 0.5 * (self.low + self.high)

    def scaled(self, factor: float) -> Span:
        """Both ends times ``factor``."""
        return Span(self.low * factor, self.high * factor)


def read_span(raw: str | float | int | None, label: str, *, pointer: str = "") -> Span:
    """A typed number or range: ``7``, ``5-10``, ``5 to 10``, ``7 ± 1``, ``<0.02``.

    Below a detection limit means from nothing to that limit.

    Raises
    ------
    Underspecified
        If nothing was typed, or only a lower end (``>50``).
    InputError
        If it is neither a number nor a range, or its ends are swapped.
    """
    if raw is None or isinstance(raw, bool | int | float):
        value = read_number(raw, label, pointer=pointer)
        return Span(value, value)
    text = raw.strip().replace("\u2212", "-")
    if text.startswith(("<", "≤")):
        return Span(0.0, read_number(text[1:].lstrip("= "), label, pointer=pointer))
    if text.startswith((">", "≥")):
        raise Underspecified(
            f"{label} “{raw}” has no upper end. Dilute the sample and test again, or enter a range such as 50-100.",
            pointer=pointer,
            value=raw,
        )
    for mark in ("±", "+/-"):
        if mark in text:
            middle, half = (read_number(part, label, pointer=pointer) for part in text.split(mark, 1))
            return Span(middle - half, middle + half)
    parts = _RANGE.match(text)
    if parts is None:
        value = read_number(text, label, pointer=pointer)
        return Span(value, value)
    low, high = (read_number(part, label, pointer=pointer) for part in parts.groups())
    if low > high:
        raise InputError(
            f"{label} “{raw}” runs downwards. Write {shown(high)}-{shown(low)}.", pointer=pointer, value=raw
        )
    return Span(low, high)


def require(
    value: float,
    label: str,
    unit: str,
    *,
    low: float,
    high: float,
    pointer: str = "",
    open_low: bool = False,
    hint: str = "",
) -> float:
    """The value if it lies in its range; else a sentence with field, value and way out."""
    inside = (low < value if open_low else low <= value) and value <= high
    if not inside:  # written so that NaN fails
        unit_text = f" {unit}" if unit else ""
        bound = f"above {shown(low)}" if open_low else f"from {shown(low)}"
        way_out = hint or f"Enter a value {bound} to {shown(high)}{unit_text}."
        raise OutOfRange(
            f"{label} {shown(value)}{unit_text} cannot be. {way_out}",
            pointer=pointer,
            value=value,
            low=low,
            high=high,
            unit=unit,
        )
    return value


def require_not_future(on: date, today: date, label: str, *, pointer: str = "") -> date:
    """The date if it is not after today."""
    if on > today:
        raise OutOfRange(
            f"{label} {on.isoformat()} lies in the future. Enter today, {today.isoformat()}, or an earlier day.",
            pointer=pointer,
            value=on.isoformat(),
            high=today.isoformat(),
        )
    return on
