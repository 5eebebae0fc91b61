"""One strength with several names: what was typed, and what it keeps."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fenwa.core.entry import read_number, shown
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.water.tds import possible_conductivities

StrengthMode = Literal["fraction", "nitrogen", "element", "ec_added", "ec_total", "dose"]
ELEMENTS = ("N", "P", "K", "Ca", "Mg", "S", "Fe", "Mn", "Zn", "Cu", "B", "Mo")

_WORDS = {
    "full": 1.0,
    "whole": 1.0,
    "half": 0.5,
    "third": 1 / 3,
    "a third": 1 / 3,
    "two thirds": 2 / 3,
    "quarter": 0.25,
    "a quarter": 0.25,
    "one quarter": 0.25,
    "three quarters": 0.75,
    "three quarter": 0.75,
    "two third": 2 / 3,
    "eighth": 0.125,
    "an eighth": 0.125,
    "a half": 0.5,
    "fifth": 0.2,
    "a fifth": 0.2,
    "one fifth": 0.2,
    "two fifths": 0.4,
    "three fifths": 0.6,
    "four fifths": 0.8,
    "one half": 0.5,
    "a tenth": 0.1,
    "tenth": 0.1,
    "one tenth": 0.1,
    "one third": 1 / 3,
    "one eighth": 0.125,
}
_REDUCED = re.compile(
    r"^(?:reduced?|cut|lower(?:ed)?|less|thin(?:ned)?|weaken(?:ed)?|take(?:n)? away|take(?:n)? off|removed?|minus)"
    r"\s+(?:it\s+)?(?:by\s+)?(.+)$"
)
_KEPT = re.compile(
    r"^(?:(?:reduced?|cut|lower(?:ed)?|thin(?:ned)?|weaken(?:ed)?)\s+(?:it\s+)?to|to|keep|kept|leave)\s+(.+)$"
)
PERCENT_FROM = 10.0  # "cut it by 80" can only mean per cent
_RATIO = re.compile(r"^(\d+)\s*/\s*(\d+)$")
_PPM = re.compile(r"^([\d.,\s]+?)\s*ppm$", re.IGNORECASE)
_NAMED = {
    0.25: "one quarter",
    0.5: "one half",
    0.75: "three quarters",
    0.125: "one eighth",
    1.0: "the whole",
    1 / 3: "one third",
    2 / 3: "two thirds",
    0.2: "one fifth",
    0.4: "two fifths",
    0.6: "three fifths",
    0.8: "four fifths",
    0.1: "one tenth",
}

FIRST_N_mg_L = 40.0  # weak for most kinds, a start for all that are fed at the root; judgement
FIRST_ELEMENT = "K"


@dataclass(frozen=True)
class ShareKept:
    """Share of the label rate kept, said both ways."""

    share: float
    sentence: str


def in_words(share: float) -> str:
    """A share as it is spoken: a simple fraction where there is one, else per cent."""
    for value, words in _NAMED.items():
        if abs(share - value) < 1e-9:
            return words
    simple = Fraction(share).limit_denominator(12)
    if 0 < share < 1 and abs(float(simple) - share) < 1e-6:
        return f"{simple.numerator}/{simple.denominator}"
    return f"{100 * share:.3g} %"


def read_share(raw: str | float, *, pointer: str = "/value") -> ShareKept:
    """A share of the label rate as typed: ``0.25``, ``1/4``, ``25 %``, ``quarter``, ``reduce by three quarters``.

    The echo names the fraction kept and the reading it is taken for, because "reduce by three
    quarters" and "three-quarter strength" differ threefold.

    Raises
    ------
    InputError
        If it is not a share.
    """
    if isinstance(raw, int | float):
        return ShareKept(float(raw), _echo(float(raw)))
    text = (
        re.sub(r"[\s-]+", " ", raw.strip().lower().replace("\u2212", "-")) if not raw.strip().startswith("-") else raw
    )
    kept = _KEPT.match(text)
    reduced = None if kept else _REDUCED.match(text)
    body = (kept or reduced).group(1) if (kept or reduced) else text  # type: ignore[union-attr]
    body = re.sub(r"\s*(strength|of the label|of label|the label|label rate)$", "", body).strip()
    share = _number(body, raw, pointer)
    if (kept or reduced) and PERCENT_FROM <= share <= 100 and not body.endswith("%"):
        share /= 100
    if reduced:
        if not 0 <= share <= 1:
            raise InputError(
                f"“{raw}” takes away more than there is. Name the fraction to keep, such as 1/4.",
                pointer=pointer,
                value=raw,
            )
        left = 1 - share
        return ShareKept(left, f"“Reduce by {in_words(share)}” keeps {in_words(left)}. {_times(share, left)}")
    return ShareKept(share, _echo(share))


def _times(other: float, kept: float) -> str:
    if kept <= 0 or other <= 0 or abs(other - kept) < 1e-9:
        return ""
    ratio = other / kept
    word = f"{ratio:.3g} times as strong" if ratio > 1 else f"{1 / ratio:.3g} times weaker"
    return f"Keeping {in_words(other)} would be {word}."


def _echo(share: float) -> str:
    if not 0 < share < 1:
        return f"Keeps {in_words(share)} of the label rate."
    return f"Keeps {in_words(share)} of the label rate; the same as “reduce by {in_words(1 - share)}”."


def _number(text: str, raw: str, pointer: str) -> float:
    if text in _WORDS:
        return _WORDS[text]
    ratio = _RATIO.match(text)
    if ratio and int(ratio.group(2)) > 0:
        return int(ratio.group(1)) / int(ratio.group(2))
    if text.endswith("%"):
        return read_number(text[:-1], "Share of the label rate", pointer=pointer) / 100
    try:
        return read_number(text, "Share of the label rate", pointer=pointer)
    except InputError as error:
        if not text:
            raise
        raise InputError(
            f"Share of the label rate “{raw}” is not understood. Type the part to keep, such as 1/4, 25 % or 0.25.",
            pointer=pointer,
            value=raw,
        ) from error


def read_strength(mode: StrengthMode, raw: str | float) -> tuple[float, str]:
    """A strength as typed in one of its names, and the sentence that echoes it ("" where none is needed)."""
    if mode == "fraction":
        kept = read_share(raw)
        return kept.share, kept.sentence
    words = {
        "nitrogen": "Nitrogen",
        "element": "Element",
        "ec_added": "EC added",
        "ec_total": "EC in the can",
        "dose": "Dose",
    }[mode]
    if isinstance(raw, str) and _PPM.match(raw.strip()):
        return _read_ppm(mode, raw), ""
    return read_number(raw, words, pointer="/value"), ""


def _read_ppm(mode: StrengthMode, raw: str) -> float:
    """A strength in "ppm": of an element it is mg/L; of all salts it depends on the meter's scale and is asked."""
    number = _PPM.match(raw.strip())
    assert number is not None
    value = read_number(number.group(1), "Strength", pointer="/value")
    if mode in ("nitrogen", "element"):
        return value
    salts = ", ".join(f"{ec:.0f} µS/cm on the {name} scale" for name, ec in possible_conductivities(value).items())
    raise Underspecified(
        f"“{raw}” can be all salts, as a meter shows them ({salts}), or nitrogen alone ({value:g} mg/L N). "
        "Type it as EC or as nitrogen.",
        pointer="/value",
    )


def ambiguity_of(share: float | None) -> str:
    """What a share of the label keeps, and how it is misheard; None: the label names no rate."""
    if share is None:
        return "The label states no rate: a share of it means nothing."
    return f"{_echo(share)}" + (
        f" “Three-quarter strength” would be {0.75 / share:.3g} times this." if abs(share - 0.25) < 1e-9 else ""
    )


def check_mode(mode: StrengthMode, element: str) -> None:
    """Refuse an element that is not one."""
    if mode == "element" and element not in ELEMENTS:
        raise InputError(
            f"Element “{element}” is not a choice. Choose one of {', '.join(ELEMENTS)}.", pointer="/element"
        )


def shown_strength(mode: StrengthMode, value: float, element: str = "N") -> str:
    """A strength as a list shows it."""
    unit = {
        "fraction": "of the label",
        "nitrogen": "mg/L N",
        "element": f"mg/L {element}",
        "ec_added": "µS/cm added",
        "ec_total": "µS/cm in the can",
        "dose": "g/L",
    }[mode]
    return f"{shown(value)} {unit}"
