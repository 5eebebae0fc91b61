"""The strongest feed the chosen pots allow, and one strength under all its names."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible, InputError
from fenwa.core.mix.dose import dose
from fenwa.core.mix.elements import ions_per_gram
from fenwa.core.mix.feed import Feed, FeedModel, ProductSlope, elements_of, sum_ions
from fenwa.core.mix.label import Label, full_rate_per_L
from fenwa.core.mix.rates import IMP_GAL_L, US_GAL_L, OZ_g
from fenwa.core.mix.strength import ELEMENTS, StrengthMode, ambiguity_of, read_strength
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class PotCeiling:
    """A pot and the strongest feed it takes. [µS/cm]"""

    name: str
    ceiling_uS_cm: float


@dataclass(frozen=True, kw_only=True)
class Headroom:
    """The largest dose under the strictest ceiling, and what leaving that pot out would allow."""

    dose_g_L: float
    nitrogen_mg_L: float
    ec_uS_cm: float
    strictest: str
    ceiling_uS_cm: float
    fraction: float | None
    next_strictest: str
    next_ceiling_uS_cm: float | None
    sentence: str


def strictest(pots: Sequence[PotCeiling]) -> PotCeiling | None:
    """The pot that takes the weakest feed, the first of equals; None where none is limited."""
    return min(pots, key=lambda p: p.ceiling_uS_cm, default=None)


@calculation("headroom", title="Largest dose under the ceiling", station="mix")
def headroom(
    *,
    label: Label,
    base: BaseWater,
    pots: list[PotCeiling],
    also: list[Feed] | None = None,
    slope: ProductSlope | None = None,
) -> Computed[Headroom]:
    """The largest dose of a product that keeps the strictest of the chosen pots.

    Parameters
    ----------
    label : Label
        The product. [%]
    base : BaseWater
        The water. [µS/cm]
    pots : list[PotCeiling]
        Pots with their feed ceilings, at least one. [µS/cm]
    also : list[Feed]
        Other products of the can at fixed doses. [g/L]
    slope : ProductSlope
        The product's own measured slope. [µS/cm per g/L]

    Returns
    -------
    Computed
        Dose, nitrogen and EC at the ceiling, whose ceiling it is, and the next one. [g/L, mg/L, µS/cm]

    Raises
    ------
    Infeasible
        If the water, with what stays in it, is over the ceiling already: with the nearest that is possible.
    InputError
        If no pot is given.

    References
    ----------
    E1.6; profile
    """
    if not pots:
        raise InputError("No pot is chosen, so there is no ceiling. Choose the pots.", pointer="/pots")
    for i, p in enumerate(pots):
        require(
            p.ceiling_uS_cm, f"Ceiling of {p.name}", "µS/cm", low=0, high=20_000, pointer=f"/pots/{i}/ceiling_uS_cm"
        )
    ranked = sorted(pots, key=lambda p: p.ceiling_uS_cm)
    first = ranked[0]
    following = next((p for p in ranked if p.ceiling_uS_cm > first.ceiling_uS_cm), None)
    e = elements_of(label)
    rest = [(ions_per_gram(elements_of(f.label)), f.dose_g_L) for f in also or []]
    can = FeedModel(base, ions_per_gram(e), sum_ions(rest), slope.factor if slope else 1.0)
    fixed = base.ec25_uS_cm + can.rise(0.0)
    if fixed > first.ceiling_uS_cm + 1e-9:
        what = base.name if not rest else f"{base.name} with the other products"
        way = (
            f" Without {first.name} the next, {following.name}, allows {following.ceiling_uS_cm:.0f} µS/cm."
            if following and following.ceiling_uS_cm > fixed
            else ""
        )
        raise Infeasible(
            f"{what} alone reads {fixed:.0f} µS/cm, over the {first.ceiling_uS_cm:.0f} µS/cm of {first.name}: "
            f"no feed fits. The nearest possible is {fixed:.0f} µS/cm, nothing added; "
            f"use a purer water or a blend.{way}",
            pointer="/water_id",
            low=fixed,
            high=first.ceiling_uS_cm,
        )
    most = can.dose_for_rise(first.ceiling_uS_cm - base.ec25_uS_cm)
    if most is None:
        raise Infeasible(
            f"{label.name} carries too little that conducts to reach {first.ceiling_uS_cm:.0f} µS/cm: EC cannot "
            "limit it. Name the strength in mg/L N.",
            pointer="/strength",
        )
    ledger = Ledger("Largest dose under the ceiling", "Feeds below 3000 µS/cm.", ("profile", "robinson-stokes"))
    ledger.assume(can.how)
    ledger.take("C_max", f"feed ceiling of {first.name}", first.ceiling_uS_cm, "µS/cm", "table:profile")
    ledger.take("C_w", base.name, base.ec25_uS_cm, "µS/cm", "measured")
    ledger.step("room", "C_max - C_w", "µS/cm", "what feed may add")
    ledger.found("d", "dose that adds it", most, "g/L", "ion model")
    ledger.take("N_g", "nitrogen in a gram", e.N_mg_g, "mg/g", "label")
    ledger.take(
        "N_o",
        "nitrogen of the other products",
        sum(elements_of(f.label).N_mg_g * f.dose_g_L for f in also or []),
        "mg/L",
        "label",
    )
    nitrogen = ledger.step("N", "d * N_g + N_o", "mg/L", "nitrogen at the ceiling")
    rate = full_rate_per_L(label)
    per_L = most / e.density_g_mL if e.density_g_mL else most
    sentence = f"{first.name} takes {first.ceiling_uS_cm:.0f} µS/cm: at most {most:.3g} g/L, {nitrogen:.3g} mg/L N."
    return ledger.close(
        Headroom(
            dose_g_L=most,
            nitrogen_mg_L=nitrogen,
            ec_uS_cm=first.ceiling_uS_cm,
            strictest=first.name,
            ceiling_uS_cm=first.ceiling_uS_cm,
            fraction=per_L / rate if rate else None,
            next_strictest=following.name if following else "",
            next_ceiling_uS_cm=following.ceiling_uS_cm if following else None,
            sentence=sentence,
        )
    )


@dataclass(frozen=True, kw_only=True)
class Equivalents:
    """One strength under all its names. None: that name means nothing for this label."""

    fraction: float | None
    nitrogen_mg_L: float
    elements_mg_L: dict[str, float]
    ec_added_uS_cm: float
    ec_total_uS_cm: float
    dose_g_L: float
    dose_mL_L: float | None
    per_us_gal: float
    per_imp_gal: float
    oz_per_100_us_gal: float
    sentences: tuple[str, ...]


@calculation("strength-equivalents", title="One strength, all its names", station="mix")
def strength_equivalents(
    *, label: Label, base: BaseWater, strength: StrengthMode, value: str | float, element: str = "N"
) -> Computed[Equivalents]:
    """A strength named in one way, in all the others, with what may be misheard spelled out.

    Parameters
    ----------
    label : Label
        The product. [%]
    base : BaseWater
        The water. [µS/cm]
    strength : str
        Which way it is named: fraction, nitrogen, element, ec_added, ec_total or dose.
    value : str
        The strength as typed; a fraction may be "1/4", "25 %" or "reduce by three quarters". [as named]
    element : str
        The element meant when it is named by element.

    Returns
    -------
    Computed
        Share of the label, mg/L of every element, EC added and in all, g or mL a litre and a gallon. [as named]

    Raises
    ------
    InputError
        If the strength is not understood.
    Infeasible
        If no dose gives it.

    Notes
    -----
    A US gallon is 3.785 L, an imperial one 4.546 L: a fifth more.

    References
    ----------
    E1.4; E1.5; E1.6
    """
    number, echo = read_strength(strength, value)
    found = dose(label=label, base=base, volume_L=1.0, strength=strength, value=number, element=element)
    d, e = found.result, elements_of(label)
    ledger = Ledger("One strength, all its names", found.working.validity, found.working.sources)
    amount = d.dose_mL_L if d.dose_mL_L is not None else d.dose_g_L
    unit = "g" if d.dose_mL_L is None else "mL"
    ledger.take("d", "dose", amount, f"{unit}/L", "computed:dose")
    ledger.take("G_us", "US gallon", US_GAL_L, "L", "definition")
    ledger.take("G_imp", "imperial gallon", IMP_GAL_L, "L", "definition")
    us = ledger.step("d_us", "d * G_us", f"{unit}/US gal", "for a US gallon")
    imp = ledger.step("d_imp", "d * G_imp", f"{unit}/imp gal", "for an imperial gallon")
    ledger.take("w", "dose by weight", d.dose_g_L, "g/L", "computed:dose")
    ledger.take("oz", "an ounce", OZ_g, "g", "definition")
    ounces = ledger.step("d_oz", "w * 100 * G_us / oz", "oz/100 US gal", "for 100 US gallons")
    sentences = [s for s in (echo or ambiguity_of(d.fraction),) if s]
    sentences.append(f"{us:.3g} {unit} for a US gallon, {imp:.3g} {unit} for an imperial one: say which.")
    if e.N_urea_mg_g > 0:
        sentences.append("EC leaves out urea: by EC this feed looks thinner than its nitrogen.")
    levels = {name: e.of(name) * d.dose_g_L for name in ELEMENTS if e.of(name) > 0}
    return ledger.close(
        Equivalents(
            fraction=d.fraction,
            nitrogen_mg_L=d.nitrogen_mg_L,
            elements_mg_L=levels,
            ec_added_uS_cm=d.ec_added_uS_cm,
            ec_total_uS_cm=d.ec_total_uS_cm,
            dose_g_L=d.dose_g_L,
            dose_mL_L=d.dose_mL_L,
            per_us_gal=us,
            per_imp_gal=imp,
            oz_per_100_us_gal=ounces,
            sentences=tuple(sentences),
        )
    )
