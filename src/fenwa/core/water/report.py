"""A water report judged: does it balance, does it agree with its own conductivity, what follows, what is missing."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from fenwa.core.entry import require, signed
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.ions import MOLAR_MASS, MEQ_CaCO3, WaterIons, check_ions
from fenwa.core.working import Computed, Ledger

BalanceVerdict = Literal["fine", "warn", "stop", "cannot tell"]

FINE_PCT, WARN_PCT = 5.0, 10.0
CAUSE_PCT = 3.0  # a changed reading of one line explains the error when it brings the balance below this
RATIO_LOW, RATIO_HIGH = 0.9, 1.1
EC20 = 1 / 1.116  # a report at 20 °C reads this share of the same water at 25 °C, iso-7888
NITRATE_AS_N, SULFATE_AS_S, CALCIUM_AS_CaCO3 = 4.427, 2.996, 0.4005
MAIN = ("Ca", "Mg", "Na", "Cl", "SO4", "NO3")
_CATIONS = (("Ca", 2), ("Mg", 2), ("Na", 1), ("K", 1), ("NH4", 1))
_ANIONS = (("Cl", 1), ("NO3", 1), ("SO4", 2), ("F", 1), ("P", 1))


@dataclass(frozen=True, kw_only=True)
class ChargeBalance:
    """Sums in meq/L, error in %. ``limit_pct`` is the laboratory's own for such a water."""

    cations_meq_L: float
    anions_meq_L: float
    error_pct: float
    verdict: BalanceVerdict
    limit_pct: float
    within_laboratory_limit: bool
    causes: tuple[str, ...]
    missing: tuple[str, ...]
    sentence: str


@dataclass(frozen=True, kw_only=True)
class ReportReview:
    """What a report says beyond its lines. µS/cm; mg/L as CaCO3; SAR has no unit; None: cannot be derived."""

    balance: ChargeBalance
    computed_uS_cm: float
    reported_uS_cm: float | None
    ratio: float | None
    hardness_mg_L_CaCO3: float | None
    alkalinity_mg_L_CaCO3: float | None
    carbonate_hardness_mg_L_CaCO3: float | None
    sar: float | None
    sentences: tuple[str, ...]


def _meq(ions: WaterIons, name: str, z: int) -> float:
    return z * (getattr(ions, f"{name}_mg_L") or 0.0) / MOLAR_MASS[name]


def missing_of(ions: WaterIons) -> tuple[str, ...]:
    """Main lines a report lacks, in words."""
    gone = [name for name in MAIN if getattr(ions, f"{name}_mg_L") is None]
    return (*gone, *(["alkalinity"] if ions.alkalinity_mg_L_CaCO3 is None else []))


def hardness_of(ions: WaterIons) -> float | None:
    """Calcium and magnesium as CaCO3; None when either is not measured. [mg/L CaCO3]"""
    if ions.Ca_mg_L is None or ions.Mg_mg_L is None:
        return None
    return 2.497 * ions.Ca_mg_L + 4.118 * ions.Mg_mg_L


def sar_of(ions: WaterIons) -> float | None:
    """Sodium adsorption ratio; None when Na, Ca or Mg is not measured or there is no hardness at all."""
    if ions.Na_mg_L is None or ions.Ca_mg_L is None or ions.Mg_mg_L is None:
        return None
    hard = _meq(ions, "Ca", 2) + _meq(ions, "Mg", 2)
    return _meq(ions, "Na", 1) / (hard / 2) ** 0.5 if hard > 0 else None


def _error(ions: WaterIons) -> tuple[float, float, float]:
    cations = sum(_meq(ions, name, z) for name, z in _CATIONS)
    anions = sum(_meq(ions, name, z) for name, z in _ANIONS) + (ions.alkalinity_mg_L_CaCO3 or 0.0) / MEQ_CaCO3
    both = cations + anions
    return cations, anions, 100 * (cations - anions) / both if both > 0 else 0.0


def _causes(ions: WaterIons, error: float) -> tuple[str, ...]:
    """Usual slips that would bring this report into balance, each tried."""
    tried: list[tuple[str, WaterIons]] = []
    if ions.alkalinity_mg_L_CaCO3:
        tried.append(
            (
                "alkalinity may be given as HCO3, not as CaCO3",
                replace(ions, alkalinity_mg_L_CaCO3=ions.alkalinity_mg_L_CaCO3 / 1.219),
            )
        )
        tried.append(
            (
                "alkalinity may be in mmol/L or °dKH, not in mg/L CaCO3",
                replace(ions, alkalinity_mg_L_CaCO3=ions.alkalinity_mg_L_CaCO3 * MEQ_CaCO3),
            )
        )
    if ions.NO3_mg_L:
        tried.append(("nitrate may be given as N", replace(ions, NO3_mg_L=ions.NO3_mg_L * NITRATE_AS_N)))
    if ions.SO4_mg_L:
        tried.append(("sulfate may be given as S", replace(ions, SO4_mg_L=ions.SO4_mg_L * SULFATE_AS_S)))
    if ions.Ca_mg_L:
        tried.append(
            ("calcium may be given as CaCO3 (calcium hardness)", replace(ions, Ca_mg_L=ions.Ca_mg_L * CALCIUM_AS_CaCO3))
        )
    found = [words for words, other in tried if abs(_error(other)[2]) < min(CAUSE_PCT, abs(error) / 2)]
    if error < 0 and ions.Na_mg_L is None:
        found.append("sodium is missing")
    if error > 0 and ions.alkalinity_mg_L_CaCO3 is None:
        found.append("alkalinity is missing")
    return tuple(found)


def _laboratory_limit_pct(anions: float, both: float) -> float:
    """SM 1030 E: ±0.2 meq/L below 3 meq/L of anions, 2 % to 10, 5 % above."""
    if anions < 3:
        return 100 * 0.2 / both if both > 0 else 100.0
    return 2.0 if anions <= 10 else 5.0


@calculation("charge-balance", title="Does the report balance?", station="water")
def charge_balance(*, ions: WaterIons) -> Computed[ChargeBalance]:
    """Charge balance of a water report, its verdict and the usual causes of an error.

    Parameters
    ----------
    ions : WaterIons
        The report; what is not measured stays empty and is named. [mg/L]

    Returns
    -------
    Computed
        Sums of cations and anions, the error, fine to 5 %, warn to 10 %, stop beyond. [meq/L]

    Raises
    ------
    InputError
        If no ion is given.
    OutOfRange
        If an amount is negative or absurd.

    References
    ----------
    sm-1030e
    """
    check_ions(ions, "/ions")
    ledger = Ledger(
        "Does the report balance?", "Charges only: two errors of one size can hide each other.", ("sm-1030e",)
    )
    for group, symbol, words in ((_CATIONS, "cat", "cations"), (_ANIONS, "an", "anions")):
        parts = []
        for name, z in group:
            amount = getattr(ions, f"{name}_mg_L")
            if amount is not None:
                ledger.take(name, name, amount, "mg/L", "report")
                parts.append(f"{name} * {z} / {MOLAR_MASS[name]}")
        if symbol == "an" and ions.alkalinity_mg_L_CaCO3 is not None:
            ledger.take("alk", "alkalinity as CaCO3", ions.alkalinity_mg_L_CaCO3, "mg/L", "report")
            parts.append(f"alk / {MEQ_CaCO3}")
        ledger.step(symbol, " + ".join(parts) or "0", "meq/L", f"sum of {words}")
    cations, anions, error = _error(ions)
    if cations + anions <= 0:
        raise InputError("No ion is given. Enter at least one amount in mg/L.", pointer="/ions")
    ledger.step("error", "100 * (cat - an) / (cat + an)", "%", "charge error")
    missing = missing_of(ions)
    limit = _laboratory_limit_pct(anions, cations + anions)
    if cations == 0 or anions == 0:
        verdict: BalanceVerdict = "cannot tell"
        sentence = "Only one side of the report is filled in: it cannot be balanced."
    else:
        verdict = "fine" if abs(error) <= FINE_PCT else "warn" if abs(error) <= WARN_PCT else "stop"
        small = "" if abs(error) <= limit else f", outside a laboratory's own ±{limit:.1f} %"
        sentence = {
            "fine": f"Balances within 5 % ({signed(error, 1)} %{small}).",
            "warn": f"Out of balance by {signed(error, 1)} %: look at the units before using it.",
            "stop": f"Out of balance by {signed(error, 1)} %: something is wrong or missing. Do not build on it.",
        }[verdict]
    causes = _causes(ions, error) if verdict in ("warn", "stop") else ()
    for cause in causes:
        ledger.caution(f"Possible cause: {cause}.")
    if missing:
        ledger.caution("Not in the report: " + ", ".join(missing) + ".")
    return ledger.close(
        ChargeBalance(
            cations_meq_L=cations,
            anions_meq_L=anions,
            error_pct=error,
            verdict=verdict,
            limit_pct=limit,
            within_laboratory_limit=abs(error) <= limit,
            causes=causes,
            missing=missing,
            sentence=sentence,
        )
    )


@calculation("water-report", title="What a report says", station="water")
def water_report(*, ions: WaterIons, reported_uS_cm: float | None = None) -> Computed[ReportReview]:
    """Hardness, carbonate hardness, SAR and conductivity that follow from a report.

    Parameters
    ----------
    ions : WaterIons
        The report. [mg/L]
    reported_uS_cm : float
        Conductivity the report states, at 25 °C. [µS/cm]

    Returns
    -------
    Computed
        Derived quantities beside the balance; what cannot be derived stays empty. [mg/L CaCO3]

    Raises
    ------
    InputError
        If no ion is given.

    References
    ----------
    hardness-definition; usda-sar; robinson-stokes ch. 7
    """
    balance = charge_balance(ions=ions).result
    ledger = Ledger(
        "What a report says",
        "Computed EC within about 5 % when the report balances.",
        ("hardness-definition", "usda-sar", "robinson-stokes", "iso-7888"),
    )
    computed = ledger.found("EC_c", "conductivity computed from the ions", ec_of(ions), "µS/cm", "ion model")
    hardness, sar = hardness_of(ions), sar_of(ions)
    if hardness is not None:
        ledger.take("Ca", "calcium", ions.Ca_mg_L or 0, "mg/L", "report")
        ledger.take("Mg", "magnesium", ions.Mg_mg_L or 0, "mg/L", "report")
        hardness = ledger.step("H", "2.497 * Ca + 4.118 * Mg", "mg/L CaCO3", "hardness")
    carbonate = None
    if hardness is not None and ions.alkalinity_mg_L_CaCO3 is not None:
        ledger.take("alk", "alkalinity as CaCO3", ions.alkalinity_mg_L_CaCO3, "mg/L", "report")
        carbonate = ledger.step("KH", "min(H, alk)", "mg/L CaCO3", "hardness that boiling can settle")
    if sar is not None:
        ledger.take("Na", "sodium", ions.Na_mg_L or 0, "mg/L", "report")
        formula = f"Na / {MOLAR_MASS['Na']} / sqrt(Ca / {MOLAR_MASS['Ca']} + Mg / {MOLAR_MASS['Mg']})"
        sar = ledger.step("SAR", formula, "", "sodium against hardness, (mmol/L)^½")
    sentences = [balance.sentence]
    ratio = None
    if reported_uS_cm is not None:
        require(reported_uS_cm, "Conductivity reported", "µS/cm", low=0, high=200_000, pointer="/reported_uS_cm")
    if reported_uS_cm:
        ledger.take("EC_r", "conductivity reported", reported_uS_cm, "µS/cm", "report")
        ratio = ledger.step("q", "EC_r / EC_c", "", "reported over computed")
        if abs(ratio - EC20) < 0.025 and abs(balance.error_pct) <= FINE_PCT:
            sentences.append("Reported EC is about nine tenths of the computed one: it may be given at 20 °C, not 25.")
        elif not RATIO_LOW <= ratio <= RATIO_HIGH:
            word = "more" if ratio > 1 else "less"
            sentences.append(
                f"The report's EC is {word} than its ions account for (ratio {ratio:.2f}): "
                "an ion is missing, or a unit is wrong."
            )
        else:
            sentences.append(f"Its EC and its ions agree (ratio {ratio:.2f}).")
    if hardness is not None and hardness < 20 and (ions.Na_mg_L or 0) > 60:
        sentences.append("Little hardness and much sodium: this is softened water.")
    return ledger.close(
        ReportReview(
            balance=balance,
            computed_uS_cm=computed,
            reported_uS_cm=reported_uS_cm,
            ratio=ratio,
            hardness_mg_L_CaCO3=hardness,
            alkalinity_mg_L_CaCO3=ions.alkalinity_mg_L_CaCO3,
            carbonate_hardness_mg_L_CaCO3=carbonate,
            sar=sar,
            sentences=tuple(sentences),
        )
    )
