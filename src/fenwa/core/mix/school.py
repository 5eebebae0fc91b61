"""Schools of feeding side by side: nitrogen for the pot in a week, and the salt the root zone tends to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.balance import steady_q
from fenwa.core.pot.release import T_REF_C, released_share
from fenwa.core.pot.specification import PotSpec, capacity_L
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

FeedRoute = Literal["root", "leaf", "cup", "moss pole", "reservoir", "tray"]
Season = Literal["any", "calendar", "growth"]
SLOPE_uS_PER_mg_N = (6.0, 7.0, 9.0)  # urea-free complete feeds: low, usual, high; table of priors


@dataclass(frozen=True, kw_only=True)
class School:
    """A school as a set of defaults anyone may edit: one file in data/schools.

    ``feeds`` of every ``cycle`` waterings carry feed of ``n_mg_L``; the plain ones pour
    ``plain_times`` as much. ``label_share`` is the part of the label it speaks of, if it does.
    ``every_days``: fed by days and not by count of waterings. [d]
    """

    id: str
    name: str
    group: str
    definition: str
    in_favour: str
    against: str
    n_mg_L: float
    n_low_mg_L: float
    n_high_mg_L: float
    cycle: int
    feeds: int
    route: FeedRoute
    source: str
    confidence: str
    checked_by: str
    plain_times: float = 1.0
    season: Season = "any"
    label_share: float | None = None
    prill_g_L: float = 0.0
    prill_n_pct: float = 0.0
    prill_days: float = 180.0
    prill_at_C: float = T_REF_C
    spray_mL: float | None = None
    when: str = ""
    every_days: float | None = None


@dataclass(frozen=True)
class SchoolPot:
    """A pot as the comparison needs it. Volumes in L; defaults are a litre of medium bark."""

    volume_L: float = 1.0
    held_L: float = 0.30
    phi: float = 0.5
    eta: float = 0.5
    u: float = 0.2
    lost_L: float = 0.10
    poured_L: float = 0.25
    interval_days: float = 5.0
    temperature_C: float = 22.0


@dataclass(frozen=True)
class SchoolLoad:
    """Nitrogen a week and the root zone a school tends to. mg N per litre of pot; µS/cm."""

    applied_mg_L_week: float
    retained_mg_L_week: float | None
    root_low_uS_cm: float | None
    root_high_uS_cm: float | None
    root_mean_uS_cm: float | None
    leaf_mg_week: float | None
    sentence: str


@calculation("school-load", title="What a school brings a pot", station="mix")
def school_load(
    *,
    school: School,
    pot: SchoolPot,
    water_uS_cm: float = 60.0,
    slope_uS_per_mg_N: float = 7.0,
    prill_age_days: float = 90.0,
) -> Computed[SchoolLoad]:
    """Weekly nitrogen for a litre of pot, and the steady root zone, of one school on one pot.

    Parameters
    ----------
    school : School
        The school's figures. [mg/L, 1]
    pot : SchoolPot
        Volume, water held, losses, pour and interval. [L, d]
    water_uS_cm : float
        The water, 0 to 5000. [µS/cm]
    slope_uS_per_mg_N : float
        What a milligram of nitrogen adds to the reading, 2 to 20. [µS/cm per mg/L]
    prill_age_days : float
        Days of a prill's life to average over, 7 to 1000. [d]

    Returns
    -------
    Computed
        Applied and retained nitrogen a week, root zone low, high and mean over the cycle. [mg/L/week, µS/cm]

    Raises
    ------
    OutOfRange
        If a figure cannot be.
    InputError
        If more waterings are fed than there are.

    Notes
    -----
    Retained counts the refill only; the plant decides what it takes. A comparison between schools, good to
    about -25/+40 % for any one pot. Leaf sprays never reach the root zone.

    References
    ----------
    E6.1; E6.2; E3.9; E3.11
    """
    _check(school, pot, water_uS_cm, slope_uS_per_mg_N, prill_age_days)
    ledger = Ledger(
        "What a school brings a pot",
        "To compare schools; one pot may differ by -25/+40 %.",
        ("judgement", "mass-balance"),
    )
    ledger.take("V", "pot", pot.volume_L, "L")
    ledger.take("T", "days between waterings", pot.interval_days, "d")
    ledger.take("N", "nitrogen of a feed", school.n_mg_L, "mg/L", "table:school")
    ledger.take("n", "waterings in a cycle", school.cycle, "")
    ledger.take("f", "of them with feed", school.feeds, "")
    if school.route == "leaf":
        return _leaf(ledger, school)
    ledger.take("v", "poured", pot.poured_L, "L")
    ledger.take("E", "kept of it, what was lost before", min(pot.lost_L, pot.poured_L), "L")
    applied = ledger.step("A", "f / n * v * N / V * 7 / T", "mg/L/week", "applied to a litre of pot in a week")
    retained: float | None = ledger.step("R", "f / n * E * N / V * 7 / T", "mg/L/week", "of it kept by the refill")
    prill = 0.0
    if school.prill_g_L > 0:
        ledger.take("g", "prills in a litre of medium", school.prill_g_L, "g/L", "table:school")
        ledger.take("p", "nitrogen in them", school.prill_n_pct, "%", "label")
        share = released_share(prill_age_days, school.prill_days, pot.temperature_C, school.prill_at_C)
        ledger.take(
            "F", f"released in {prill_age_days:g} days at {pot.temperature_C:g} °C", share, "", "computed:E3.11"
        )
        ledger.take("D", "days looked at", prill_age_days, "d")
        prill = ledger.step("P", "g * p * 10 * F / D * 7", "mg/L/week", "released to a litre of pot in a week")
        applied, retained = applied + prill, None if school.feeds == 0 else retained
        ledger.assume("Prills empty faster when warm: half as fast again for each 6 °C; crushed ones at once.")
    low, high, mean = _root_zone(ledger, school, pot, water_uS_cm, slope_uS_per_mg_N, prill)
    if applied <= 0:
        sentence = "No nitrogen at the root: what it eats is counted in items, not in mg."
    else:
        sentence = f"{applied:.3g} mg N for each litre of pot a week; the root zone tends to {mean:.0f} µS/cm."
    return ledger.close(SchoolLoad(applied, retained, low, high, mean, None, sentence))


def _check(school: School, pot: SchoolPot, water: float, slope: float, age: float) -> None:
    require(school.n_mg_L, "Nitrogen of the feed", "mg/L", low=0, high=1000, pointer="/school/n_mg_L")
    require(school.n_low_mg_L, "Least nitrogen", "mg/L", low=0, high=1000, pointer="/school/n_low_mg_L")
    require(school.n_high_mg_L, "Most nitrogen", "mg/L", low=0, high=1000, pointer="/school/n_high_mg_L")
    require(school.cycle, "Waterings in a cycle", "", low=1, high=60, pointer="/school/cycle")
    require(school.feeds, "Waterings with feed", "", low=0, high=60, pointer="/school/feeds")
    if school.feeds > school.cycle:
        raise InputError(
            f"{school.feeds} waterings with feed out of {school.cycle} cannot be. Lower one or raise the other.",
            pointer="/school/feeds",
            value=school.feeds,
        )
    require(school.plain_times, "Volume of a plain watering", "times", low=0.1, high=20, pointer="/school/plain_times")
    require(school.prill_g_L, "Prills", "g/L", low=0, high=20, pointer="/school/prill_g_L")
    require(school.prill_n_pct, "Nitrogen in the prills", "%", low=0, high=50, pointer="/school/prill_n_pct")
    require(school.prill_days, "Longevity of the prills", "d", low=7, high=1000, pointer="/school/prill_days")
    for value, words, unit, low, high, key in (
        (pot.volume_L, "Pot", "L", 0.01, 500, "volume_L"),
        (pot.held_L, "Water held", "L", 0.002, 450, "held_L"),
        (pot.phi, "Immobile share", "", 0, 0.95, "phi"),
        (pot.eta, "Leaching efficiency", "", 0.05, 1.5, "eta"),
        (pot.u, "Uptake fraction", "", 0.001, 0.999, "u"),
        (pot.lost_L, "Lost between waterings", "L", 1e-4, 400, "lost_L"),
        (pot.poured_L, "Poured", "L", 1e-4, 1000, "poured_L"),
        (pot.interval_days, "Days between waterings", "d", 0.2, 120, "interval_days"),
        (pot.temperature_C, "Temperature of the medium", "°C", 0, 45, "temperature_C"),
    ):
        require(value, words, unit, low=low, high=high, pointer=f"/pot/{key}")
    require(water, "EC of the water", "µS/cm", low=0, high=5000, pointer="/water_uS_cm")
    require(slope, "EC for each mg/L N", "µS/cm", low=2, high=20, pointer="/slope_uS_per_mg_N")
    require(age, "Days looked at", "d", low=7, high=1000, pointer="/prill_age_days")


def _leaf(ledger: Ledger, school: School) -> Computed[SchoolLoad]:
    mL = ledger.take("s", "sprayed on a plant", school.spray_mL or 3.0, "mL", "table:school")
    week = ledger.step(
        "L", "s / 1000 * N * f / n * 7", "mg/week", "on the leaves of a plant in a week, sprayed each n days"
    )
    sentence = f"{week:.2g} mg N on the leaves a week from {mL:g} mL a spray; nothing at the root if it does not drip."
    return ledger.close(SchoolLoad(0.0, 0.0, None, None, None, week, sentence))


def _root_zone(
    ledger: Ledger, school: School, pot: SchoolPot, water: float, slope: float, prill_week: float
) -> tuple[float | None, float | None, float | None]:
    """Steady root zone after each watering of the cycle, E3.9 with what prills release between waterings."""
    e = min(pot.lost_L / pot.held_L, 0.99)
    kept = (1 - e) ** pot.u
    salt = prill_week * pot.volume_L * pot.interval_days / 7 * slope / pot.held_L  # µS/cm onto the water held
    ledger.take("W", "water held", pot.held_L, "L")
    ledger.take("C_w", "the water", water, "µS/cm", "measured")
    ledger.take("k", "EC for each mg/L N", slope, "µS/cm", "default:7, 6 to 9 for complete feeds without urea")
    feed = ledger.step("C_f", "C_w + k * N", "µS/cm", "a feed reads about")
    # the plain rinses close the cycle, so that the highest root zone stands after the last feed
    kinds = ["feed"] * school.feeds + ["plain"] * (school.cycle - school.feeds)
    maps = []
    for kind in kinds:
        poured = pot.poured_L * (school.plain_times if kind == "plain" and school.feeds else 1.0)
        q = steady_q(pot.eta, max(0.0, poured - pot.lost_L) / pot.held_L, pot.phi)
        C_in = feed if kind == "feed" else water
        maps.append((q * kept, C_in * (1 - q + e * q) + q * salt))
    A, B = 1.0, 0.0
    for a, b in maps:
        A, B = a * A, a * B + b
    if 1 - A < 1e-9:
        ledger.caution("Nothing drains and nothing is taken up: salt rises without end.")
        return None, None, None
    y, after = B / (1 - A), []
    for a, b in maps:
        y = a * y + b
        after.append(y)
    for i, value in enumerate(after, 1):
        ledger.found(f"y{i}", f"root zone after watering {i} ({kinds[i - 1]})", value, "µS/cm", "repeating cycle, E3.9")
    mean = ledger.step(
        "y", f"({' + '.join(f'y{i}' for i in range(1, len(after) + 1))}) / n", "µS/cm", "mean over the cycle"
    )
    return min(after), max(after), mean


def pot_for_school(spec: PotSpec, poured_L: float, interval_days: float) -> SchoolPot:
    """A pot of the collection as the comparison needs it: what it loses between two of its waterings."""
    held = capacity_L(spec)
    lost = min(spec.loss_per_day * interval_days, 0.9) * held
    return SchoolPot(
        spec.volume_L, held, spec.medium.phi, spec.medium.eta, spec.u, lost, max(poured_L, 1e-4), interval_days
    )
