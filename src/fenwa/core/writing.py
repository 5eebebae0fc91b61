"""Sentences in the reader's units: quantities and days taken apart from the words, and written out in one place.

A sentence of the core states a quantity as a number, a space and its canonical unit (µS/cm, °C, L, g, cm, mm), a range
as “8 to 45 µS/cm”, a limit as “34 of at most 300 µS/cm”, a day as 2026-11-23 or 23 Nov. That is a small grammar:
``parts`` takes a sentence apart by it, ``written`` puts it together again for a reader. Millilitres stay: a syringe is
graduated in them everywhere. So do amounts in a volume (mg/L, g/L), which are names of strengths.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from math import floor, log10
from typing import Literal

from fenwa.core.units import CANONICAL, DISPLAY, KIND_OF, DisplayUnit, MM_cm

DateOrder = Literal["day first", "month first", "ISO"]
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
WHOLE = (
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)
_NUMBER = r"[-\u2212]?\d+(?:[\u202f\u00a0]\d{3})*(?:\.\d+)?"
_BETWEEN = r" (?:to|and|or|against|of at most) "
_MONTH = "|".join(MONTHS)
_GRAMMAR = re.compile(
    rf"(?P<numbers>(?<![\w.,/-]){_NUMBER}(?:{_BETWEEN}{_NUMBER}){{0,3}}) (?P<unit>µS/cm|°C|mm|cm|L|g)(?![\w/²³])"
    rf"(?P<step> (?:warmer|colder|apart|more|less|cooler))?"
    rf"|(?P<iso>(?<![\w-])\d{{4}}-\d{{2}}-\d{{2}}(?![\w-]))"
    rf"|(?P<day>(?<![\w.,])\d{{1,2}}) (?P<month>(?:{_MONTH})[a-z]*)(?: (?P<year>\d{{4}}))?(?!\w)"
)


@dataclass(frozen=True)
class Amount:
    """Numbers with the unit they share, and the words ``between`` them. ``step``: a difference, which has no zero
    point of its own.
    """

    numbers: tuple[str, ...]
    between: tuple[str, ...]
    unit: str
    step: str = ""


@dataclass(frozen=True)
class Day:
    """A day; year None: it was not said. ``name``: of the month as it was written, short or whole."""

    day: int
    month: int
    year: int | None
    name: str


@dataclass(frozen=True)
class Reader:
    """How somebody reads: a unit for each kind of quantity, and the order of a date."""

    ec: str = "µS/cm"
    temperature: str = "°C"
    volume: str = "L"
    mass: str = "g"
    length: str = "cm"
    dates: DateOrder = "day first"

    def unit(self, kind: str) -> DisplayUnit:
        """The unit this reader sees such a quantity in."""
        return DISPLAY[kind][getattr(self, kind)]


def parts(text: str) -> tuple[str | Amount | Day, ...]:
    """Words, quantities and days of a sentence, in order.

    >>> parts("On 2026-11-23.")
    ('On ', Day(day=23, month=11, year=2026, name='Nov'), '.')
    """
    found: list[str | Amount | Day] = []
    at = 0
    for m in _GRAMMAR.finditer(text):
        part = _part(m)
        if part is None:
            continue
        found += [text[at : m.start()], part]
        at = m.end()
    return tuple(p for p in (*found, text[at:]) if p != "")


def _part(m: re.Match[str]) -> Amount | Day | None:
    if m["iso"]:
        try:
            on = date.fromisoformat(m["iso"])
        except ValueError:
            return None
        return Day(on.day, on.month, on.year, MONTHS[on.month - 1])
    if m["day"]:
        day, month = int(m["day"]), MONTHS.index(m["month"][:3]) + 1
        known = m["month"] in (MONTHS[month - 1], WHOLE[month - 1], "Sept")
        return Day(day, month, int(m["year"]) if m["year"] else None, m["month"]) if known and 1 <= day <= 31 else None
    numbers = re.findall(_NUMBER, m["numbers"])
    return Amount(tuple(numbers), tuple(re.findall(_BETWEEN, m["numbers"])), m["unit"], m["step"] or "")


def _figures(text: str) -> int:
    """Significant figures a number was written with; of a whole number all of them."""
    digits = re.sub(r"[^\d.]", "", text)
    return len(digits.replace(".", "").lstrip("0")) or 1


def plain(value: float, figures: int) -> str:
    """A number with so many significant figures at most, without exponent and trailing zeros.

    >>> plain(0.15850, 2), plain(1205.0, 3), plain(-0.04, 2)
    ('0.16', '1205', '-0.04')
    """
    if value == 0:
        return "0"
    decimals = max(0, figures - 1 - floor(log10(abs(value))))
    text = f"{value:.{decimals}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text


def _amount(a: Amount, reader: Reader) -> str:
    kind = KIND_OF[a.unit]
    shown = reader.unit(kind)
    if shown.unit in (a.unit, CANONICAL[kind]):
        return f"{_joined(a.numbers, a.between)} {a.unit}{a.step}"
    out = []
    for text in a.numbers:
        value = float(re.sub(r"[\u202f\u00a0]", "", text).replace("\u2212", "-")) * (MM_cm if a.unit == "mm" else 1.0)
        offset = 0.0 if a.step else shown.offset
        whole = kind == "temperature" and "." not in text
        moved = value * shown.factor + offset
        out.append(str(round(moved)) if whole else plain(moved, max(2, _figures(text))))
    return f"{_joined(out, a.between)} {shown.unit}{a.step}"


def _joined(numbers: Sequence[str], between: Sequence[str]) -> str:
    return "".join(f"{n}{word}" for n, word in zip(numbers, (*between, ""), strict=True))


def _day(d: Day, order: DateOrder) -> str:
    month = d.name
    if order == "ISO":
        return f"{d.year}-{d.month:02d}-{d.day:02d}" if d.year else f"{d.day} {month}"
    if order == "month first":
        return f"{month} {d.day}, {d.year}" if d.year else f"{month} {d.day}"
    return f"{d.day} {month} {d.year}" if d.year else f"{d.day} {month}"


@lru_cache(maxsize=8192)
def written(text: str, reader: Reader) -> str:
    """A sentence as this reader reads it.

    >>> written("Nights of 18 °C or more since 2026-11-23.", Reader(temperature="°F", dates="month first"))
    'Nights of 64 °F or more since Nov 23, 2026.'
    """
    return "".join(
        p if isinstance(p, str) else _amount(p, reader) if isinstance(p, Amount) else _day(p, reader.dates)
        for p in parts(text)
    )
