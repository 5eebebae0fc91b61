"""What a meter reads in a can: water, one or several products, and a grower's own measured slope."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.mix.elements import Elements, closing_sentence, ions_per_gram, label_to_elements
from fenwa.core.mix.label import Label
from fenwa.core.registry import calculation
from fenwa.core.roots import root_between
from fenwa.core.water.conductivity import conductance_uS_cm, dissolve, prepared
from fenwa.core.water.ions import MOLAR_MASS, AddedIons
from fenwa.core.water.kinds import BaseWater, composition_of
from fenwa.core.working import Computed, Ledger

DOSE_MAX_g_L = 20.0  # far above any feed; keeps a slipped decimal out
MODEL_ERROR = 0.05  # of the ion model below 3000 µS/cm
CLOSURE_ERROR = 0.10  # of what the label leaves unlisted
OWN_SLOPE = (0.2, 5.0)  # times the ion model's: beyond that the label is another product's
MAX_PRODUCTS = 6
_NEAR_uS_cm = 1e-4
_MOST_SECANTS = 12
# to weigh parts of a can by what they add to the reading; infinite dilution is near enough for that
_IDEAL = {
    "NO3_N_mg_L": 71.4 / 14.007,
    "NH4_N_mg_L": 73.5 / 14.007,
    "P_mg_L": 33.0 / 30.974,
    "K_mg_L": 73.5 / 39.098,
    "C_mg_L": 44.5 / 12.011,
    "Ca_mg_L": 119.0 / 40.078,
    "Mg_mg_L": 106.0 / 24.305,
    "S_mg_L": 160.0 / 32.06,
    "Na_mg_L": 50.1 / 22.99,
    "Cl_mg_L": 76.3 / 35.453,
}


@dataclass(frozen=True)
class Feed:
    """A product in a can. Dose in grams of product a litre of can, liquids too. [g/L]"""

    label: Label
    dose_g_L: float


@dataclass(frozen=True)
class ProductSlope:
    """A product's own slope from logged batches: ``factor`` times what the ion model says. [µS/cm per g/L]"""

    factor: float
    factor_low: float
    factor_high: float
    slope_uS_per_g_L: float
    batches: int


@dataclass(frozen=True)
class FeedConductivity:
    """What the can should read, and where the reading comes from. [µS/cm]"""

    ec25_uS_cm: float
    low_uS_cm: float
    high_uS_cm: float
    water_uS_cm: float
    added_uS_cm: float
    pH_closed: float
    by: str
    urea_N_mg_L: float


@lru_cache(maxsize=512)
def elements_of(label: Label) -> Elements:
    """Elements of a soluble product; prills and feeds without ppm are refused in plain words.

    A label is a value that does not change, and one can asks for its elements thirty times.
    """
    if label.kind == "no ppm":
        raise InputError(
            f"{label.name} has no ppm: it is recorded, never given a number. Choose a soluble feed.",
            pointer="/product_id",
        )
    if label.kind == "prill":
        raise InputError(
            f"{label.name} releases over months: it is counted by grams in a litre of medium, not in a can. "
            "Choose a soluble feed.",
            pointer="/product_id",
        )
    return label_to_elements(label=label).result


def sum_ions(parts: list[tuple[AddedIons, float]]) -> AddedIons:
    """Ions of several products at their doses. [mg/L]"""
    total = AddedIons()
    for per_gram, dose in parts:
        total = total.plus(per_gram.scaled(dose))
    return total


def ideal_rise(ions: AddedIons) -> float:
    """Conductivity at infinite dilution, only to compare parts with each other. [µS/cm]"""
    return float(sum(factor * getattr(ions, name) for name, factor in _IDEAL.items()))


def relative_error(e: Elements) -> float:
    """Model and label: what a label leaves without a partner counts a tenth."""
    m = MOLAR_MASS
    listed = (
        e.N_nitrate_mg_g / m["N"]
        + e.K_mg_g / m["K"]
        + 2 * e.Ca_mg_g / m["Ca"]
        + 2 * e.Mg_mg_g / m["Mg"]
        + e.P_mg_g / m["P"]
        + 0.1
    )
    return float((MODEL_ERROR**2 + (CLOSURE_ERROR * min(1.0, abs(e.unlisted_meq_g) / listed)) ** 2) ** 0.5)


@dataclass
class FeedModel:
    """Reading of a can as the dose of its leading product changes; the others stay at their doses."""

    base: BaseWater
    lead: AddedIons
    also: AddedIons = field(default_factory=AddedIons)
    factor: float = 1.0

    def __post_init__(self) -> None:
        """Solve the water once, alone and with the products that stay."""
        require(
            self.factor,
            "Own slope over the model’s",
            "",
            low=OWN_SLOPE[0],
            high=OWN_SLOPE[1],
            pointer="/slope/factor",
            hint="Batches that far off tell of the scale or the meter, not of the product: leave the slope out.",
        )
        self.water_ions, self.how = composition_of(self.base)
        self._prepared = prepared(self.water_ions)
        self.water_model = float(conductance_uS_cm(dissolve(self._prepared, None)))
        empty = not any(vars(self.also).values())
        self.also_model = self.water_model if empty else self.model(0.0)

    def model(self, dose_g_L: float) -> float:
        """The ion model's reading of everything together. [µS/cm]"""
        feed = self.also.plus(self.lead.scaled(dose_g_L))
        return float(conductance_uS_cm(dissolve(self._prepared, feed)))

    def rise(self, dose_g_L: float) -> float:
        """What all products add to the water's reading. [µS/cm]"""
        lead = self.factor * (self.model(dose_g_L) - self.also_model) if dose_g_L > 0 else 0.0
        return self.also_model - self.water_model + lead

    def dose_for_rise(self, rise_uS_cm: float) -> float | None:
        """Dose of the leading product that adds this much, or None if no sensible dose does. [g/L]"""
        here = self.rise(0.0)
        if rise_uS_cm <= here + 1e-9:
            return 0.0
        slope = self.factor * ideal_rise(self.lead)
        if slope <= 0:
            return None
        # the curve bends little: a secant from the slope at infinite dilution is there in three or four steps
        d0, f0, d = 0.0, here - rise_uS_cm, (rise_uS_cm - here) / slope
        for _ in range(_MOST_SECANTS):
            if d > DOSE_MAX_g_L:
                return None
            f = self.rise(d) - rise_uS_cm
            if abs(f) < _NEAR_uS_cm:
                return d
            d0, f0, d = d, f, max(d - f * (d - d0) / (f - f0), 0.5 * d)
        return root_between(lambda x: self.rise(x) - rise_uS_cm, 0.0, DOSE_MAX_g_L, xtol=1e-6)


@calculation("feed-conductivity", title="What the can should read", station="mix")
def feed_conductivity(
    *, base: BaseWater, feeds: list[Feed], slope: ProductSlope | None = None
) -> Computed[FeedConductivity]:
    """Conductivity of a can from the ions of its water and its products, with its range.

    Parameters
    ----------
    base : BaseWater
        The water. [µS/cm]
    feeds : list[Feed]
        One to six products with their doses. [g/L]
    slope : ProductSlope
        The first product's own slope, if three batches or more were logged. [µS/cm per g/L]

    Returns
    -------
    Computed
        EC at 25 °C, its range, what the feed adds, pH of the closed can. [µS/cm]

    Raises
    ------
    InputError
        If there is no product, too many, or one that has no ppm.
    OutOfRange
        If a dose cannot be.

    Notes
    -----
    Urea adds nothing. Below 3000 µS/cm; stocks are measured after dilution, never predicted.

    References
    ----------
    E1.6; E1.8; robinson-stokes ch. 7
    """
    if not 1 <= len(feeds) <= MAX_PRODUCTS:
        raise InputError(f"A can takes 1 to {MAX_PRODUCTS} products; {len(feeds)} given.", pointer="/feeds")
    require(base.ec25_uS_cm, f"EC of {base.name}", "µS/cm", low=0, high=20_000, pointer="/base/ec25_uS_cm")
    elements = [elements_of(f.label) for f in feeds]
    for i, f in enumerate(feeds):
        require(f.dose_g_L, f"Dose of {f.label.name}", "g/L", low=0, high=DOSE_MAX_g_L, pointer=f"/feeds/{i}/dose_g_L")
    per_gram = [ions_per_gram(e) for e in elements]
    also = sum_ions([(i, f.dose_g_L) for i, f in zip(per_gram[1:], feeds[1:], strict=True)])
    can = FeedModel(base, per_gram[0], also, slope.factor if slope else 1.0)
    ledger = Ledger(
        "What the can should read", "Feeds below 3000 µS/cm; stocks are never predicted.", ("label", "robinson-stokes")
    )
    ledger.assume(can.how)
    if slope:
        ledger.assume(
            f"{feeds[0].label.name}: the slope of your own {slope.batches} batches replaces the label's ions."
        )
    for f, e in zip(feeds, elements, strict=True):
        if e.closed_with:
            ledger.assume(closing_sentence(f.label.name, e.unlisted_meq_g, e.closed_with))
    ledger.take("C_w", base.name, base.ec25_uS_cm, "µS/cm", base.origin)
    ledger.take("U_w", f"left open of {base.name}", base.half_width_uS_cm, "µS/cm", base.origin)
    ledger.found("C_0", "the water alone by the ion model", can.water_model, "µS/cm", "ion model")
    ledger.found("C_a", "with the other products", can.also_model, "µS/cm", "ion model")
    ledger.found("C_m", "with everything", can.model(feeds[0].dose_g_L), "µS/cm", "ion model (ion-conductivity)")
    ledger.take(
        "k", "own slope over the model's", can.factor, "", "measured:batches" if slope else "default:no own slope"
    )
    added = ledger.step("C_add", "C_a - C_0 + k * (C_m - C_a)", "µS/cm", "EC added")
    total = ledger.step("C", "C_w + C_add", "µS/cm", "EC in the can")
    worst = max(relative_error(e) for e in elements)
    if slope and len(feeds) == 1:
        worst = max(0.02, (slope.factor_high - slope.factor_low) / 2 / slope.factor)
    ledger.take(
        "p",
        "relative half-width",
        worst,
        "",
        "measured:batches" if slope else "default:5 % and a tenth of what is unlisted",
    )
    low = ledger.step(
        "C_low", "max(0, C - abs(C_add) * min(1, p) - max(0.02 * C_w, U_w))", "µS/cm", "lower end to expect"
    )
    high = ledger.step("C_high", "C + abs(C_add) * p + max(0.02 * C_w, U_w)", "µS/cm", "upper end to expect")
    urea = sum(e.N_urea_mg_g * f.dose_g_L for e, f in zip(elements, feeds, strict=True))
    if urea > 0:
        ledger.caution("Part of the nitrogen is urea, which a pen cannot see: the feed is stronger than it reads.")
    whole = sum_ions([(i, f.dose_g_L) for i, f in zip(per_gram, feeds, strict=True)])
    pH = dissolve(prepared(can.water_ions), whole).pH
    by = "your own batches" if slope else "ion model"
    return ledger.close(FeedConductivity(total, low, high, base.ec25_uS_cm, added, pH, by, urea))
