"""Pots as a grower says them: "6 phalaenopsis in bark, 12 cm"."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from difflib import get_close_matches

from fenwa.core.care.descent import MAX_AT_ONCE
from fenwa.core.constants import INCH_cm
from fenwa.core.entry import require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.library.loader import habits, kind_words, media, profiles
from fenwa.core.pot.geometry import pot_volume
from fenwa.core.pot.specification import Drainage
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

USUAL_TOP_cm = 12.0  # where nobody said; judgement
HEIGHT_SHARE = 0.9  # of the top diameter: a usual pot; judgement
ALIKE = 0.78  # how near a misspelt word has to be
LONGEST = 200
_NUMBERS = ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
_COUNT = re.compile(r"^\s*(\d{1,4}|a|an|" + "|".join(_NUMBERS) + r")\s*(?:x|×|pots?\s+of|pots?)?\s+", re.IGNORECASE)
_TOP = re.compile(r"(\d+(?:[.,]\d+)?)[\s-]*(cm|inch(?:es)?|\")(?![a-z])", re.IGNORECASE)
_LITRES = re.compile(r"(\d+(?:[.,]\d+)?)\s*(L|litres?|liters?|mL)(?![a-z])", re.IGNORECASE)
_POT = re.compile(r"\b(?:an?|the|pots?|wide|each|of)\b")
_IN = re.compile(r"\b(?:in|on)\s+(.+)$", re.IGNORECASE)
_MEDIA = {  # words for what is mostly meant by them; the full name of any medium is understood as well
    "bark": "bark_mix",
    "moss": "sphagnum_loose",
    "sphagnum": "sphagnum_loose",
    "peat": "peat",
    "peat and perlite": "carn_peat_perlite",
    "peat and sand": "carn_peat_sand",
    "soil": "peat_perlite",
    "potting soil": "peat_perlite",
    "compost": "peat_perlite",
    "coir": "coir_perlite",
    "coconut": "coir_chips",
    "clay": "clay_balls",
    "clay balls": "clay_balls",
    "leca": "clay_balls",
    "akadama": "baked_clay_soil",
    "kanuma": "baked_clay_soil",
}


@dataclass(frozen=True)
class SaidPots:
    """Pots as understood, to be looked at before they are kept. ``others``: kinds it could also be. [cm, L, d]"""

    count: int
    kind: str
    kind_name: str
    others: tuple[str, ...]
    stem: str
    medium: str
    medium_name: str
    top_cm: float
    height_cm: float
    volume_L: float
    drainage: Drainage
    interval_days: float
    sentence: str


def usual_height_cm(top_cm: float) -> float:
    """Height of a usual pot of that width. [cm]"""
    return HEIGHT_SHARE * top_cm


def _taken(pattern: re.Pattern[str], text: str) -> tuple[re.Match[str] | None, str]:
    found = pattern.search(text)
    return found, (f"{text[: found.start()]} {text[found.end() :]}" if found else text)


def _plain(text: str) -> str:
    return " ".join(re.sub(r"[^\w'’\- ]", " ", text).replace("’", "'").lower().split())


def _called() -> dict[str, tuple[str, ...]]:
    """Every word for a kind: its names, the genera in them, what else growers call it."""
    called: dict[str, list[str]] = {}
    for p in profiles().values():
        if p.id == "unknown":
            continue
        genera = re.findall(r"[A-Z][a-z]{3,}", p.name)
        for word in {p.short.lower(), _plain(p.name), *(g.lower() for g in genera)}:
            called.setdefault(word, []).append(p.id)
    return {k: tuple(v) for k, v in called.items()} | {"unknown": ("unknown",), **kind_words()}


def kinds_called(words: str) -> tuple[str, ...]:
    """Kinds meant by a name, the strictest first; empty: none is.

    >>> kinds_called("paphs")
    ('paphiopedilum',)
    """
    called, text = _called(), _plain(words)
    tries = [text, text.rstrip("s"), *text.split(), *(w.rstrip("s") for w in text.split())]
    found = next((called[t] for t in tries if t in called), ())
    if not found:
        long = next((c for c in sorted(called, key=len, reverse=True) if " " in c and c in text), "")
        near = [long] if long else get_close_matches(text, called, 1, ALIKE)
        near = near or [m for w in text.split() if len(w) > 4 for m in get_close_matches(w, called, 1, ALIKE)][:1]
        found = called[near[0]] if near else ()
    return tuple(sorted(dict.fromkeys(found), key=lambda i: profiles()[i].source_water.ec_max_uS_cm))


def _medium(words: str) -> str | None:
    text = _POT.sub("", _plain(words)).strip()
    if text in _MEDIA:
        return _MEDIA[text]
    names = {_plain(m.name): m.id for m in media().values()}
    if text in names:
        return names[text]
    first = next((w for w in sorted(_MEDIA, key=len, reverse=True) if re.search(rf"\b{w}\b", text)), None)
    if first:
        return _MEDIA[first]
    near = get_close_matches(text, names, 1, 0.6)
    return names[near[0]] if near else None


@calculation("said-pots", title="Pots as they are said", station="pots")
def said_pots(*, line: str, kind: str = "") -> Computed[SaidPots]:
    """Count, kind, medium and size from one line, to be looked at before anything is kept.

    Parameters
    ----------
    line : str
        As one would say it: a count, a kind, what it stands in, how wide or large the pot is.
    kind : str
        Which of them, where the name is of several kinds; empty: the strictest.

    Returns
    -------
    Computed
        What was understood, with what was assumed where nothing was said. [cm, L, d]

    Raises
    ------
    Underspecified
        If nothing was typed.
    InputError
        If it is too long, names no kind or no medium that is known, or more pots than go at once.
    OutOfRange
        If the pot cannot be so large.

    Notes
    -----
    A name that several kinds share is read as the strictest of them; the others are named. The height of a usual
    pot is nine tenths of its width.

    References
    ----------
    judgement
    """
    if not line.strip():
        raise Underspecified("The line is empty. Type for example: 6 Phalaenopsis in bark, 12 cm.", pointer="/line")
    if len(line) > LONGEST:
        raise InputError(f"The line has {len(line)} characters. Type at most {LONGEST}.", pointer="/line")
    rest, assumed = line, []
    top, rest = _taken(_TOP, rest)
    litres, rest = _taken(_LITRES, rest)
    counted, rest = _taken(_COUNT, rest)
    word = counted[1].lower() if counted else "1"
    count = int(word) if word.isdigit() else 1 if word in ("a", "an") else _NUMBERS.index(word) + 1
    if not 1 <= count <= MAX_AT_ONCE:
        raise InputError(f"{count} pots: at most {MAX_AT_ONCE} at once. Enter them in parts.", pointer="/line")
    stands, rest = _taken(_IN, rest)
    if stands and not _POT.sub("", _plain(stands[1])).strip():
        stands = None  # "in a pot": of the size, not of the medium
    kinds = kinds_called(rest)
    if not re.search(r"[^\W\d_]", rest):
        raise Underspecified("Which kind? Name it, for example: 6 Phalaenopsis. “Unknown” is one.", pointer="/line")
    if not kinds:
        raise InputError(
            f"“{rest.strip(' ,.')}” is no kind that is known. Type another name of it, or “unknown”.", pointer="/line"
        )
    if kind:
        if kind not in kinds:
            raise InputError(f"Kind “{kind}” is none that the line names. Choose one of those.", pointer="/kind")
        kinds = (kind, *(k for k in kinds if k != kind))
    p = profiles()[kinds[0]]
    habit = habits()[p.habit]
    medium = _medium(stands[1]) if stands else habit.usual_medium
    if medium is None:
        said = stands[1].strip(" ,.") if stands else ""
        raise InputError(f"“{said}” is no medium that is known. Type for example: in bark.", pointer="/line")
    if not stands:
        assumed.append("the medium")
    if top is None:
        top_cm = USUAL_TOP_cm
        if litres is None:
            assumed.append(f"{USUAL_TOP_cm:.0f} cm wide")
    else:
        top_cm = float(top[1].replace(",", ".")) * (1.0 if top[2].lower() == "cm" else INCH_cm)
    ledger = Ledger("Pots as they are said", "What was assumed is named.", ("judgement",))
    ledger.take("d", "top diameter", top_cm, "cm", "entered" if top else "judgement")
    if litres:
        volume = float(litres[1].replace(",", ".")) * (0.001 if litres[2] == "mL" else 1.0)
        ledger.take("V", "volume", volume, "L", "entered")
        if top is None:  # a pot of that volume and usual shape
            top_cm = USUAL_TOP_cm * math.cbrt(volume / _usual_volume(USUAL_TOP_cm)) if volume > 0 else USUAL_TOP_cm
    require(top_cm, "Top diameter", "cm", low=2, high=200, pointer="/line")
    height = ledger.step("h", f"d * {HEIGHT_SHARE}", "cm", "height of a usual pot")
    if top is None and litres:
        height = usual_height_cm(top_cm)
    if not litres:
        volume = ledger.found("V", "volume of such a pot", _usual_volume(top_cm), "L", "pot-volume")
    require(volume, "Volume", "L", low=0, open_low=True, high=500, pointer="/line")
    drainage: Drainage = "tray" if p.habit == "carnivore_tray" else "drains"
    low, high = habit.interval_days
    what = p.short if count == 1 else f"{count} pots of {p.short}"
    sentence = f"{what}, {volume:.2g} L, in {media()[medium].name}."
    if assumed:
        sentence += f" Assumed: {', '.join(assumed)}."
    if len(kinds) > 1 and not kind:
        sentence += f" Read as the strictest of {len(kinds)} kinds of that name."
    return ledger.close(
        SaidPots(
            count,
            p.id,
            p.name,
            kinds[1:],
            f"{p.short[0].upper()}-01",
            medium,
            media()[medium].name,
            round(top_cm, 1),
            round(height, 1),
            volume,
            drainage,
            (low + high) / 2,
            sentence,
        )
    )


def _usual_volume(top_cm: float) -> float:
    return pot_volume(top_cm=top_cm, height_cm=usual_height_cm(top_cm)).result.volume_L
