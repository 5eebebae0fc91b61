"""The cheapest sufficient remedy for a water a plant may not drink as it is."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import require
from fenwa.core.registry import calculation
from fenwa.core.water.kind_checks import (
    SAR_LIMIT,
    BORON_mg_L,
    CHLORIDE_mg_L,
    FLUORIDE_mg_L,
    IRON_mg_L,
    KnownOfWater,
    LEAF_SPOT_mg_L,
    PH_DRIFT_mg_L,
    PlantNeeds,
    SODIUM_mg_L,
    check_known,
    kind_findings,
    sar_of,
)
from fenwa.core.water.kinds import is_thin
from fenwa.core.water.verdict import MARGIN_SHARE, water_verdict
from fenwa.core.working import Computed, Ledger

Action = Literal["as it is", "stand", "conditioner", "blend", "use another", "none known"]

BENT = 1.09  # a straight line reads up to 9 % low for a blend of hard and pure water
LEAST_SHARE = 0.05  # less than this of the source is another water with a trace of it


MOST_PRICE = 10_000.0  # a litre


@dataclass(frozen=True)
class Candidate:
    """A water at hand: newest reading, what is known, price. None price: not known, counted last."""

    name: str
    ec25_uS_cm: float
    known: KnownOfWater
    half_width_uS_cm: float = 0.0
    price_per_L: float | None = None


@dataclass(frozen=True)
class Remedy:
    """What to do, the share kept of the source if it is a blend, the price of a litre if known.

    ``alternative``: the cheapest blend with the source, when another water alone is cheaper still.
    """

    action: Action
    sentence: str
    other: str | None
    source_share: float | None
    price_per_L: float | None
    alternative: str = ""


def limits_of(p: PlantNeeds) -> dict[str, float]:
    """Limits in mg/L of what mixes linearly, by field of ``KnownOfWater``; the same ones the verdict uses."""
    ceiling = p.alkalinity_ceiling_mg_L
    return {
        "sodium_mg_L": SODIUM_mg_L[p.sodium_sensitivity],
        "fluoride_mg_L": FLUORIDE_mg_L[p.fluoride_sensitivity],
        "boron_mg_L": BORON_mg_L[p.boron_sensitivity],
        "chloride_mg_L": CHLORIDE_mg_L,
        "iron_mg_L": IRON_mg_L,
        "alkalinity_mg_L_CaCO3": ceiling if ceiling is not None else PH_DRIFT_mg_L,
        # stands in for alkalinity while only hardness is known
        "hardness_mg_L_CaCO3": ceiling if ceiling is not None else LEAF_SPOT_mg_L,
    }


def amounts_of(known: KnownOfWater) -> dict[str, float]:
    """What is known of a water that mixes, mg/L. The trace a nearly pure water carries counts as none."""
    values = {name: getattr(known, name) for name in limits_of(PlantNeeds(1.0))}
    if values["alkalinity_mg_L_CaCO3"] is not None:
        values["hardness_mg_L_CaCO3"] = 0.0  # alkalinity decides
    thin = is_thin(known.kind)
    return {name: value or 0.0 for name, value in values.items() if value is not None or thin}


def _share(source: Candidate, other: Candidate, p: PlantNeeds) -> tuple[float, str]:
    """Largest share of the source in a blend that keeps every known limit, and the one that rules."""
    margin = max(MARGIN_SHARE * p.ec_max_uS_cm, source.half_width_uS_cm, other.half_width_uS_cm)
    target = (p.ec_max_uS_cm - margin) / BENT
    best, rules = 1.0, "amount"
    if source.ec25_uS_cm > target:
        best = max(0.0, (target - other.ec25_uS_cm) / (source.ec25_uS_cm - other.ec25_uS_cm))
    mine, theirs = amounts_of(source.known), amounts_of(other.known)
    for name, limit in limits_of(p).items():
        if mine.get(name, 0.0) <= limit:
            continue
        if name not in theirs:
            return 0.0, name
        f = max(0.0, (limit - theirs[name]) / (mine[name] - theirs[name])) if mine[name] > theirs[name] else 0.0
        if f < best:
            best, rules = f, name
    sar, most = sar_of(source.known), SAR_LIMIT[p.sodium_sensitivity]
    if sar is not None and sar > most and (most / sar) ** 2 < best:  # SAR falls with the root of the share
        best, rules = (most / sar) ** 2, "sodium"
    return best * (1 - 1e-9), rules  # a hair below, so that rounding cannot step over a limit


_DISSOLVED = {"sodium", "fluoride", "hardness", "chloride", "boron", "iron"}


@calculation("cheapest-remedy", title="What to do about this water", station="water")
def cheapest_remedy(*, source: Candidate, plant: PlantNeeds, others: list[Candidate]) -> Computed[Remedy]:
    """The cheapest way to make a water fit for a plant, or another water that is.

    Parameters
    ----------
    source : Candidate
        The water in question. [µS/cm, mg/L]
    plant : PlantNeeds
        Ceilings and sensitivities of the group. [µS/cm, mg/L]
    others : list
        The other waters at hand. [µS/cm, mg/L]

    Returns
    -------
    Computed
        The remedy, the share of the source in a blend, the price of a litre.

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Standing and conditioner take out disinfectant only. A blend must bring every known limit into reach: of
    several the smallest share rules (E1.17), with 9 % in hand for the bend of the mixing line. What is
    unknown stays unknown in a blend.

    References
    ----------
    mass-balance; E1.17; fao-29
    """
    for at, candidate in (("/source", source), *((f"/others/{i}", o) for i, o in enumerate(others))):
        check_known(candidate.known, f"{at}/known")
        if candidate.price_per_L is not None:
            require(candidate.price_per_L, "Price", "a litre", low=0, high=MOST_PRICE, pointer=f"{at}/price_per_L")
    own = water_verdict(
        ec25_uS_cm=source.ec25_uS_cm, half_width_uS_cm=source.half_width_uS_cm, water=source.known, plant=plant
    ).result
    ledger = Ledger(
        "What to do about this water",
        "For what is known; a blend is reckoned by the straight line.",
        ("mass-balance", "fao-29"),
    )
    ledger.take("EC", source.name, source.ec25_uS_cm, "µS/cm", "measured")
    ledger.take("limit", f"the most {plant.name} may drink", plant.ec_max_uS_cm, "µS/cm", "table:profile")
    ledger.step("room", "limit - EC", "µS/cm", "room to the limit")
    bad = {k.agent for k in own.kinds if k.state == "known bad" and not k.minor}
    options: list[Remedy] = []
    if own.amount == "within" and not bad:
        options.append(Remedy("as it is", "Use it as it is.", None, None, source.price_per_L))
    elif own.amount == "within" and bad == {"disinfectant"}:
        options.append(_disinfectant(source))
    if not options or options[0].action != "as it is":
        options += [r for o in others for r in _with(source, o, plant, own.amount, bad)]
    if not options:
        return ledger.close(Remedy("none known", _none_words(own.amount, bad), None, None, None))
    options.sort(key=lambda r: (r.price_per_L is None, r.price_per_L or 0.0, -(r.source_share or 0.0)))
    best = options[0]
    if best.action == "use another":
        blends = [r for r in options if r.action == "blend"]
        best = replace(best, alternative=blends[0].sentence) if blends else best
    if best.source_share is not None and best.other is not None:
        other = next(o for o in others if o.name == best.other)
        ledger.take("C_o", other.name, other.ec25_uS_cm, "µS/cm", "measured")
        ledger.found("f", f"share of {source.name}: the smallest any limit allows", best.source_share, "", "E1.17")
        ledger.step("C", "f * EC + (1 - f) * C_o", "µS/cm", "the blend by the straight line")
        if source.price_per_L is not None and other.price_per_L is not None:
            ledger.take("p", f"price of {source.name}", source.price_per_L, "per litre")
            ledger.take("p_o", f"price of {other.name}", other.price_per_L, "per litre")
            ledger.step("cost", "f * p + (1 - f) * p_o", "per litre", "price of the blend")
    return ledger.close(best)


def _disinfectant(source: Candidate) -> Remedy:
    stands = source.known.disinfectant == "free chlorine"
    if stands:
        return Remedy("stand", "Let it stand open for a day: free chlorine leaves.", None, None, source.price_per_L)
    return Remedy(
        "conditioner", "Add conditioner: chloramine does not leave on standing.", None, None, source.price_per_L
    )


def _with(source: Candidate, other: Candidate, plant: PlantNeeds, amount: str, bad: set[str]) -> list[Remedy]:
    """The other water instead, or mixed in; none when it does not help, or is itself for a few weeks only."""
    if other.name == source.name or water_kinds()[other.known.kind].short_term:
        return []
    theirs = water_verdict(
        ec25_uS_cm=other.ec25_uS_cm, half_width_uS_cm=other.half_width_uS_cm, water=other.known, plant=plant
    ).result
    if theirs.amount != "within" or theirs.kind == "known bad":
        return []
    instead = Remedy("use another", f"Use {other.name} instead.", other.name, None, other.price_per_L)
    share, rules = _share(source, other, plant)
    curable = bad <= _DISSOLVED | {"disinfectant"}
    if curable and share >= LEAST_SHARE and (amount != "within" or bad & _DISSOLVED):
        parts = _parts(share)
        price = (
            None
            if source.price_per_L is None or other.price_per_L is None
            else share * source.price_per_L + (1 - share) * other.price_per_L
        )
        why = "" if rules == "amount" else f"; {rules.split('_')[0]} rules"
        treat = " and conditioner" if "disinfectant" in bad else ""
        sentence = f"Blend {parts} with {other.name} ({100 * share:.0f} % of this){treat}{why}."
        return [instead, Remedy("blend", sentence, other.name, share, price)]
    return [instead]


def _parts(share: float) -> str:
    """A share as whole parts a bucket can measure, never more than it."""
    n = max(1, -int(-(1 - share) // share))
    return f"1 part to {n}"


def _none_words(amount: str, bad: set[str]) -> str:
    reason = "salt" if amount != "within" else ", ".join(sorted(bad))
    return f"No water at hand mends it ({reason}): bring rain, permeate or distilled water."


def suits(known: KnownOfWater, plant: PlantNeeds, ec25_uS_cm: float) -> bool:
    """Whether nothing known stands against this water that no blend would mend: for sharing out."""
    sar = sar_of(known)
    if sar is not None and sar > SAR_LIMIT[plant.sodium_sensitivity]:
        return False  # a ratio: the litres of a share-out cannot promise it
    against = {k.agent for k in kind_findings(known, plant, ec25_uS_cm) if k.state == "known bad" and not k.minor}
    return against <= _DISSOLVED
