"""May this plant drink it? Two lines: the amount a pen sees, and the kinds it cannot."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import WaterKind
from fenwa.core.working import Computed, Ledger

Amount = Literal["within", "borderline", "over"]
KindState = Literal["known good", "known bad", "unknown"]
Disinfectant = Literal["none", "free chlorine", "chloramine", "unknown"]

MARGIN_SHARE = 0.05  # of the limit: two careful readings of one water differ by about this much
# mg/L limits by the plant's sensitivity 0..3; guideline values for container irrigation (fao-29, tightened)
SODIUM_mg_L = (100.0, 70.0, 50.0, 20.0)
FLUORIDE_mg_L = (1.5, 1.0, 1.0, 0.25)
CHLORINE_mg_L = 2.0


@dataclass(frozen=True)
class KindFinding:
    """One thing a pen cannot see."""

    agent: str
    state: KindState
    reason: str


@dataclass(frozen=True)
class WaterVerdict:
    """Both lines of the verdict. Margin and headroom in µS/cm."""

    amount: Amount
    amount_line: str
    limit_uS_cm: float
    margin_uS_cm: float
    headroom_uS_cm: float
    short_term_only: bool
    kind: KindState
    kind_line: str
    kinds: tuple[KindFinding, ...]


@dataclass(frozen=True)
class KnownOfWater:
    """What is known of a water beside its conductivity. None means not measured."""

    kind: WaterKind = "other"
    disinfectant: Disinfectant = "unknown"
    free_chlorine_mg_L: float | None = None
    sodium_mg_L: float | None = None
    fluoride_mg_L: float | None = None
    hardness_mg_L_CaCO3: float | None = None
    alkalinity_mg_L_CaCO3: float | None = None


@dataclass(frozen=True)
class PlantNeeds:
    """What a plant group asks of its water. Sensitivities 0 none known to 3 high."""

    ec_max_uS_cm: float
    ec_short_term_max_uS_cm: float | None = None
    alkalinity_ceiling_mg_L: float | None = None
    fluoride_sensitivity: int = 1
    chlorine_sensitivity: int = 1
    sodium_sensitivity: int = 1
    name: str = "this plant"


_CLEAN_KINDS = ("rain", "permeate", "distilled")


def _disinfectant(w: KnownOfWater, p: PlantNeeds) -> KindFinding:
    agent = "disinfectant"
    if w.disinfectant == "none":
        return KindFinding(agent, "known good", "no disinfectant")
    if w.disinfectant == "unknown":
        if w.kind in ("rain", "borehole", "distilled", "condensate"):
            return KindFinding(agent, "known good", f"{w.kind} water is not disinfected")
        return KindFinding(agent, "unknown", "disinfectant not known; a pen cannot see it")
    if w.disinfectant == "chloramine":
        bad = p.chlorine_sensitivity >= 2
        return KindFinding(agent, "known bad" if bad else "known good",
                           "chloramine, which does not leave on standing")  # fmt: skip
    if w.free_chlorine_mg_L is None:
        return KindFinding(agent, "unknown", "free chlorine, amount not measured; it leaves on standing a day")
    bad = w.free_chlorine_mg_L >= (CHLORINE_mg_L if p.chlorine_sensitivity < 2 else CHLORINE_mg_L / 2)
    return KindFinding(agent, "known bad" if bad else "known good", f"free chlorine {w.free_chlorine_mg_L:g} mg/L")


def _limited(agent: str, value: float | None, limit: float, clean: bool, clean_reason: str, what: str) -> KindFinding:
    if value is not None:
        state: KindState = "known bad" if value > limit else "known good"
        relation = "over" if value > limit else "within"
        return KindFinding(agent, state, f"{what} {value:g} mg/L, {relation} {limit:g}")
    if clean:
        return KindFinding(agent, "known good", clean_reason)
    return KindFinding(agent, "unknown", f"{agent} not measured")


def _sodium(w: KnownOfWater, p: PlantNeeds) -> KindFinding:
    if w.kind == "softened" and w.sodium_mg_L is None:
        return KindFinding("sodium", "known bad", "softened water carries sodium in place of hardness")
    limit = SODIUM_mg_L[min(p.sodium_sensitivity, 3)]
    return _limited("sodium", w.sodium_mg_L, limit, w.kind in _CLEAN_KINDS, f"{w.kind} carries little sodium", "sodium")


def _hardness(w: KnownOfWater, p: PlantNeeds) -> KindFinding:
    if p.alkalinity_ceiling_mg_L is not None and w.alkalinity_mg_L_CaCO3 is not None:
        return _limited("hardness", w.alkalinity_mg_L_CaCO3, p.alkalinity_ceiling_mg_L, False, "",
                        "alkalinity as CaCO3")  # fmt: skip
    if w.hardness_mg_L_CaCO3 is not None:
        limit = p.alkalinity_ceiling_mg_L if p.alkalinity_ceiling_mg_L is not None else 120.0
        return _limited("hardness", w.hardness_mg_L_CaCO3, limit, False, "", "hardness as CaCO3")
    clean = w.kind in _CLEAN_KINDS or w.kind == "condensate"
    return _limited("hardness", None, 0, clean, f"{w.kind} is not hard", "hardness")


@calculation("water-verdict", title="May this plant drink it?", station="water")
def water_verdict(
    *, ec25_uS_cm: float, half_width_uS_cm: float = 0.0, water: KnownOfWater, plant: PlantNeeds
) -> Computed[WaterVerdict]:
    """Two-line verdict on a water for a plant group.

    Parameters
    ----------
    ec25_uS_cm : float
        Newest reading of the water at 25 °C, 0 to 200 000. [µS/cm]
    half_width_uS_cm : float
        What the meter leaves open. [µS/cm]
    water : KnownOfWater
        Kind of source and what is known beside the conductivity. [mg/L]
    plant : PlantNeeds
        Ceilings and sensitivities of the group. [µS/cm, mg/L]

    Returns
    -------
    Computed
        Amount: within, borderline or over, with the margin used; kind: known good,
        known bad or unknown for disinfectant, sodium, fluoride and hardness. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    The margin is the larger of 5 % of the limit and the meter's half-width; a reading
    nearer to the limit than that is borderline, on either side.

    References
    ----------
    fao-29; household guideline values
    """
    require(ec25_uS_cm, "Conductivity", "µS/cm", low=0, high=200_000, pointer="/ec25_uS_cm")
    require(half_width_uS_cm, "Half-width", "µS/cm", low=0, high=200_000, pointer="/half_width_uS_cm")
    require(plant.ec_max_uS_cm, "Limit", "µS/cm", low=0, open_low=True, high=20_000, pointer="/plant/ec_max_uS_cm")
    ledger = Ledger(
        "May this plant drink it?",
        "Limits are starting values, not proven by trial; a water report outranks a pen.",
        ("fao-29", "profile"),
    )
    ledger.take("EC", "water at 25 °C", ec25_uS_cm, "µS/cm", "measured")
    ledger.take("limit", f"the most {plant.name} may drink for good", plant.ec_max_uS_cm, "µS/cm", "table:profile")
    ledger.take("U", "half-width of the reading", half_width_uS_cm, "µS/cm", "measured")
    margin = ledger.step("margin", f"max({MARGIN_SHARE} * limit, U)", "µS/cm", "margin used")
    headroom = ledger.step("room", "limit - EC", "µS/cm", "room to the limit")
    amount: Amount = "within" if headroom > margin else ("over" if headroom < -margin else "borderline")
    short = bool(
        amount == "over" and plant.ec_short_term_max_uS_cm is not None and ec25_uS_cm <= plant.ec_short_term_max_uS_cm
    )
    line = f"{ec25_uS_cm:.0f} of at most {plant.ec_max_uS_cm:.0f} µS/cm, margin {margin:.0f}"
    if short:
        line += "; for a few weeks at most"
    clean_fluoride = water.kind in (*_CLEAN_KINDS, "condensate")
    kinds = (
        _disinfectant(water, plant),
        _sodium(water, plant),
        _limited("fluoride", water.fluoride_mg_L, FLUORIDE_mg_L[min(plant.fluoride_sensitivity, 3)],
                 clean_fluoride, f"{water.kind} carries no fluoride", "fluoride"),
        _hardness(water, plant),
    )  # fmt: skip
    bad = [k for k in kinds if k.state == "known bad"]
    unknown = [k for k in kinds if k.state == "unknown"]
    if bad:
        state: KindState = "known bad"
        kind_line = "; ".join(k.reason for k in bad)
    elif unknown:
        state = "unknown"
        kind_line = ", ".join(k.agent for k in unknown) + " not known"
    else:
        state, kind_line = "known good", "nothing known against it"
    if unknown:
        ledger.caution("A pen sees the amount of salt, not its kind: " + ", ".join(k.agent for k in unknown) + ".")
    return ledger.close(
        WaterVerdict(amount, line, plant.ec_max_uS_cm, margin, headroom, short, state, kind_line, kinds)
    )


def amounts_line(amounts: list[Amount]) -> str:
    """One line over all groups present: "within for all 11", "over for 5 of 12"."""
    n = len(amounts)
    if n == 0:
        return "no plants yet"
    counts = {a: amounts.count(a) for a in ("over", "borderline", "within")}
    parts = [
        f"{name} for all {n}" if count == n else f"{name} for {count} of {n}"
        for name, count in counts.items()
        if count and (name != "within" or count == n)
    ]
    return ", ".join(parts) or f"within for all {n}"
