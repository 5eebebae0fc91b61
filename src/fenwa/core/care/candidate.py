"""Will it live here? A kind against the air, the nights and the waters of a home, before any pot exists."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.library.profile import PetHazard, Profile
from fenwa.core.registry import calculation
from fenwa.core.water.choice import WaterChoice
from fenwa.core.working import Computed, Ledger

Fit = Literal["fits", "with help", "misfit", "not known"]
_WORST: tuple[Fit, ...] = ("misfit", "with help", "not known", "fits")

HUMIDIFIER_LIFTS_PCT = 20.0  # what a humidifier keeps a room above its own air; judgement
HUMIDIFIER_W = 30.0  # an ultrasonic one for a room; judgement
COLD_NEAR_C = 2.0  # a mat or a warmer spot makes up so much; judgement
WEEK_H = 168


@dataclass(frozen=True, kw_only=True)
class Home:
    """What a home has. None: not measured. [%, °C]"""

    humidity_low_pct: float | None = None
    humidity_high_pct: float | None = None
    night_C: float | None = None
    pets: bool = False


@dataclass(frozen=True, kw_only=True)
class Asks:
    """What a kind asks of a home. None: the air is not asked. [%, °C, µS/cm]"""

    humidity_pct: tuple[float, float] | None
    night_C: tuple[float, float]
    minimum_C: float
    water_max_uS_cm: float
    pets: PetHazard = "unknown"


def asks_of(profile: Profile) -> Asks:
    """What a kind asks, from its profile."""
    c = profile.climate
    return Asks(
        humidity_pct=c.humidity_pct,
        night_C=c.night_C,
        minimum_C=c.minimum_C,
        water_max_uS_cm=profile.source_water.ec_max_uS_cm,
        pets=profile.hazard.pets,
    )


@dataclass(frozen=True)
class Aspect:
    """One thing the kind asks of a home: whether it has it, what helps, and what that costs.

    ``asks``, ``has``: the spans drawn beside each other. [of its own unit]
    """

    name: str
    fit: Fit
    line: str
    remedy: str = ""
    cost: str = ""
    asks: tuple[float, float] | None = None
    has: tuple[float, float] | None = None


@dataclass(frozen=True)
class HomeVerdict:
    """The verdict with its aspects, what stands worst first."""

    fit: Fit
    sentence: str
    aspects: tuple[Aspect, ...]


def _air(kind: Asks, home: Home) -> Aspect:
    asks = kind.humidity_pct
    if asks is None:
        return Aspect("air", "fits", "Lives in water: the air is not asked.")
    low, high = home.humidity_low_pct, home.humidity_high_pct
    if low is None or high is None:
        return Aspect(
            "air", "not known", f"Asks {asks[0]:g} to {asks[1]:g} %; the air here was not measured.", asks=asks
        )
    line = f"Asks {asks[0]:g} to {asks[1]:g} % humidity; the air here has {low:g} to {high:g} %."
    kWh = HUMIDIFIER_W * WEEK_H / 1000
    if low >= asks[0]:
        return Aspect("air", "fits", line, asks=asks, has=(low, high))
    lifted = low + HUMIDIFIER_LIFTS_PCT
    if lifted >= asks[0]:
        return Aspect(
            "air",
            "with help",
            line,
            "A humidifier in the dry months.",
            f"About {kWh:.0f} kWh a week while it runs, and filling it daily.",
            asks,
            (low, high),
        )
    return Aspect(
        "air",
        "misfit",
        line,
        "A closed case or cabinet: a humidifier in an open room does not bridge it.",
        f"The case once, its light and fan by the week; a humidifier beside it about {kWh:.0f} kWh a week.",
        asks,
        (low, high),
    )


def _nights(kind: Asks, home: Home) -> Aspect:
    asks, least = kind.night_C, kind.minimum_C
    if home.night_C is None:
        return Aspect(
            "nights", "not known", f"Asks nights of {asks[0]:g} to {asks[1]:g} °C; not measured here.", asks=asks
        )
    line = f"Asks nights of {asks[0]:g} to {asks[1]:g} °C, never under {least:g} °C; here {home.night_C:g} °C."
    has = (home.night_C, home.night_C)
    if home.night_C < least - COLD_NEAR_C:
        return Aspect("nights", "misfit", line, "A heated case.", "Its heat by the week.", asks, has)
    if home.night_C < asks[0] or home.night_C < least:
        return Aspect("nights", "with help", line, "A warmer spot, or a mat under the pot.", "", asks, has)
    if home.night_C > asks[1] + 2 * COLD_NEAR_C:
        return Aspect("nights", "with help", line, "A cooler room at night.", "", asks, has)
    return Aspect("nights", "fits", line, "", "", asks, has)


def _water(kind: Asks, choice: WaterChoice, first: str) -> Aspect:
    limit = kind.water_max_uS_cm
    if not choice.ids:
        why = f" {choice.note}" if choice.note else " No water is entered."
        return Aspect(
            "water",
            "not known" if not choice.refused else "misfit",
            f"Takes at most {limit:g} µS/cm.{why}",
            "Rain, distilled or permeate.",
        )
    if choice.least_bad is not None:
        return Aspect("water", "with help", choice.least_bad.sentence, "Rain, distilled or permeate, or a blend.")
    return Aspect("water", "fits", f"Takes at most {limit:g} µS/cm: {first} may be given.")


def _pets(kind: Asks, home: Home) -> Aspect | None:
    told = kind.pets
    if not home.pets:
        return None
    if told in ("unknown", "none_known"):
        return Aspect(
            "pets", "not known", "Nothing certain is known of it: never taken for safe.", "Keep it out of reach."
        )
    return Aspect("pets", "with help", f"To pets: {told.replace('_', ' ')}.", "Out of their reach, always.")


@calculation("will-it-live", title="Will it live here?", station="pots")
def will_it_live(
    *, kind: Asks, home: Home, choice: WaterChoice, water_name: str = "a water here"
) -> Computed[HomeVerdict]:
    """A kind against what a home has, before it is bought.

    Parameters
    ----------
    kind : Asks
        What the kind asks; a plant nobody named asks what the strictest do. [%, °C, µS/cm]
    home : Home
        Air, coldest nights and whether pets live there; empty: not measured. [%, °C]
    choice : WaterChoice
        The waters of the home that this kind may have.
    water_name : str
        What the first of them is called.

    Returns
    -------
    Computed
        Fits, with help, misfit or not known; each aspect with its remedy and what that costs.

    Raises
    ------
    OutOfRange, InputError
        If a humidity or a temperature cannot be, or a span is turned round.

    Notes
    -----
    Light is not judged: nobody measures it in a shop.

    References
    ----------
    care profile; judgement
    """
    for value, name, low, high, unit, pointer in (
        (kind.minimum_C, "Least warmth", -40, 40, "°C", "/kind/minimum_C"),
        (kind.water_max_uS_cm, "Water, at most", 0, 50_000, "µS/cm", "/kind/water_max_uS_cm"),
        *((c, "Nights", -40, 45, "°C", "/kind/night_C") for c in kind.night_C),
        *((pct, "Humidity", 0, 100, "%", "/kind/humidity_pct") for pct in kind.humidity_pct or ()),
        (home.humidity_low_pct, "Humidity", 0, 100, "%", "/humidity_low"),
        (home.humidity_high_pct, "Humidity", 0, 100, "%", "/humidity_high"),
        (home.night_C, "Coldest night", -30, 45, "°C", "/night"),
    ):
        if value is not None:
            require(value, name, unit, low=low, high=high, pointer=pointer)
    span = (home.humidity_low_pct, home.humidity_high_pct)
    if span[0] is not None and span[1] is not None and span[0] > span[1]:
        raise InputError(f"Humidity from {span[0]:g} to {span[1]:g} % is turned round.", pointer="/humidity_low")
    ledger = Ledger(
        "Will it live here?", "Profile against the home, aspect by aspect; the worst rules.", ("profile", "judgement")
    )
    asks = kind.humidity_pct
    if asks is not None and home.humidity_low_pct is not None:
        ledger.take("asks", "least humidity it asks", asks[0], "%", "profile")
        ledger.take("has", "least humidity here", home.humidity_low_pct, "%", "entered")
        ledger.take("lift", "what a humidifier adds", HUMIDIFIER_LIFTS_PCT, "%", "judgement")
        ledger.step("short", "max(0, asks - has - lift)", "%", "still short with a humidifier")
        ledger.take("P", "power of a humidifier", HUMIDIFIER_W, "W", "judgement")
        ledger.step("E", f"P * {WEEK_H} / 1000", "kWh", "a week of it")
    if home.night_C is not None:
        ledger.take("least", "never colder than", kind.minimum_C, "°C", "profile")
        ledger.take("night", "coldest night here", home.night_C, "°C", "entered")
        ledger.step("cold", "max(0, least - night)", "°C", "too cold by")
    ledger.assume("Light is not judged.")
    found = [_air(kind, home), _nights(kind, home), _water(kind, choice, water_name), _pets(kind, home)]
    aspects = sorted((a for a in found if a is not None), key=lambda a: _WORST.index(a.fit))
    fit = aspects[0].fit
    first = aspects[0]
    words = {
        "fits": "It fits: air, nights and water are what it asks.",
        "with help": f"It can live here with help, {first.name} first.",
        "misfit": f"A misfit here, {first.name} first.",
        "not known": f"Not known: {first.name} first.",
    }
    return ledger.close(HomeVerdict(fit, words[fit], tuple(aspects)))
