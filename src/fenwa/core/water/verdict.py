"""May this plant drink it? Two lines: the amount a pen sees, and the kinds it cannot."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import capital, require
from fenwa.core.registry import calculation
from fenwa.core.water.kind_checks import (
    KindFinding,
    KindState,
    KnownOfWater,
    PlantNeeds,
    check_known,
    check_needs,
    kind_findings,
)
from fenwa.core.water.usual import UsualWater
from fenwa.core.working import Computed, Ledger

Amount = Literal["within", "borderline", "over", "not measured"]
STRICTEST = PlantNeeds(60.0, None, 30.0, 3, 3, 3, 3, "the strictest plant")  # for listing what is not known
MARGIN_SHARE = 0.05  # of the limit: two careful readings of one water differ by about this much


@dataclass(frozen=True, kw_only=True)
class WaterVerdict:
    """Both lines of the verdict. Margin and headroom in µS/cm."""

    amount: Amount
    amount_line: str
    margin_line: str
    limit_uS_cm: float
    margin_uS_cm: float
    headroom_uS_cm: float
    short_term_only: bool
    kind: KindState
    kind_line: str
    limiting: str
    kinds: tuple[KindFinding, ...]


def may_be_given(v: WaterVerdict) -> bool:
    """Whether the round may pour it: neither too much for the plant nor known to harm it; unmeasured is not bad."""
    return v.amount != "over" and v.kind != "known bad"


def unmeasured_verdict(
    usual: UsualWater, water: KnownOfWater, plant: PlantNeeds, by_reading: bool = False
) -> Computed[WaterVerdict]:
    """Both lines for a water whose conductivity is known as a range alone: never unfit because nobody measured it.

    ``by_reading``: the range comes from a pen of unknown scale; then it is over where it is over on every scale, and
    within where it is within on every scale. A range of its kind decides nothing.
    """
    limit = plant.ec_max_uS_cm
    measured = water_verdict(ec25_uS_cm=usual.usual_uS_cm, water=water, plant=plant)
    amount: Amount = "not measured"
    if by_reading:
        amount = "over" if usual.low_uS_cm > limit else "within" if usual.high_uS_cm <= limit else "borderline"
    found = f"{usual.low_uS_cm:.0f} to {usual.high_uS_cm:.0f} of at most {limit:.0f} µS/cm"
    kinds = measured.result.kinds
    bad = [k for k in kinds if k.state == "known bad" and not k.minor]
    result = replace(
        measured.result,
        amount=amount,
        amount_line=f"{found}, {'on a scale not known' if by_reading else 'not measured'}",
        margin_line="on a scale not known"
        if by_reading
        else f"usually {usual.low_uS_cm:.0f} to {usual.high_uS_cm:.0f} µS/cm",
        short_term_only=False,
        limiting="amount" if amount == "over" else bad[0].agent if bad else "",
    )
    working = replace(
        measured.working, assumptions=(*measured.working.assumptions, f"{usual.sentence} Its middle stands here.")
    )
    return Computed(result, working)


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
        known bad or unknown for disinfectant, sodium with SAR, fluoride, hardness and alkalinity,
        chloride, boron and iron; leaf spots and pH told beside them. [µS/cm]

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
    check_needs(plant)
    check_known(water)
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
    margin_line = f"margin {margin:.0f} µS/cm" + ("; for a few weeks at most" if short else "")
    line = f"{ec25_uS_cm:.0f} of at most {plant.ec_max_uS_cm:.0f} µS/cm, {margin_line}"
    kinds = kind_findings(water, plant, ec25_uS_cm)
    deciding = [k for k in kinds if not k.minor]
    bad = [k for k in deciding if k.state == "known bad"]
    unknown = [k for k in deciding if k.state == "unknown"]
    if water_kinds()[water.kind].short_term:
        short = True
    if bad:
        state: KindState = "known bad"
        kind_line = "; ".join(k.reason for k in bad)
    elif unknown:
        state = "unknown"
        kind_line = ", ".join(k.agent for k in unknown) + " not known"
        if all(k.reason.startswith(k.agent) is False for k in unknown) and len(unknown) == 1:
            kind_line = unknown[0].reason
    else:
        state, kind_line = "known good", "nothing known against it"
    if unknown:
        ledger.caution("A pen sees the amount of salt, not its kind: " + ", ".join(k.agent for k in unknown) + ".")
    for k in kinds:
        if k.minor and k.state == "known bad":
            ledger.caution(capital(k.reason) + ".")
    limiting = "amount" if amount == "over" else bad[0].agent if bad else "amount" if amount == "borderline" else ""
    return ledger.close(
        WaterVerdict(
            amount=amount,
            amount_line=line,
            margin_line=margin_line,
            limit_uS_cm=plant.ec_max_uS_cm,
            margin_uS_cm=margin,
            headroom_uS_cm=headroom,
            short_term_only=short,
            kind=state,
            kind_line=kind_line,
            limiting=limiting,
            kinds=kinds,
        )
    )


def in_a_word(verdict: WaterVerdict, too_old: bool = False) -> str:
    """A verdict for a table cell: yes, near or no with its reason; a star where something is not known."""
    if too_old:
        return "no: too old"
    if verdict.amount == "over":
        return "no"
    if verdict.amount == "not measured" and verdict.kind != "known bad":
        return "not measured"
    if verdict.kind == "known bad":
        return f"no: {verdict.limiting}"
    return ("yes" if verdict.amount == "within" else "near") + (" *" if verdict.kind == "unknown" else "")


def amounts_line(amounts: list[Amount]) -> str:
    """One line over all groups present: "within for all 11", "over for 5 of 12"."""
    n = len(amounts)
    if n == 0:
        return "no plants yet"
    if "not measured" in amounts:
        return "not measured"
    counts = {a: amounts.count(a) for a in ("over", "borderline", "within")}
    parts = [
        f"{name} for all {n}" if count == n else f"{name} for {count} of {n}"
        for name, count in counts.items()
        if count and (name != "within" or count == n)
    ]
    return ", ".join(parts) or f"within for all {n}"
