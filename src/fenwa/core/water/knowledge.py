"""What is known of a source today, from what was typed, tested, reported and done to it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from fenwa.core.entry import Span
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kind_checks import Disinfectant, KnownOfWater, Treatment
from fenwa.core.water.kinds import BaseWater, WaterKind, composition_of
from fenwa.core.water.quantities import QUANTITIES
from fenwa.core.water.report import charge_balance

CARBON_DAYS = 180  # a cartridge is assumed spent after half a year; its own leaflet comes first
STEP_DAYS = 7  # a jug that stood a week ago has been filled again, unless its collection day says otherwise
ALTERS = ("boiled", "acidified")  # after these, alkalinity, hardness, calcium and pH measured before are no longer true
_ALTERED = ("alkalinity", "hardness", "Ca", "pH")


@dataclass(frozen=True)
class TreatmentStep:
    """A treatment on a day."""

    on: date
    kind: Treatment


@dataclass(frozen=True)
class Measured:
    """A quantity measured on a day, as a range in its canonical unit."""

    on: date
    quantity: str
    span: Span


def treatments_in_force(
    steps: Sequence[TreatmentStep], today: date, collected_on: date | None
) -> tuple[TreatmentStep, ...]:
    """Steps that still act: after the last collection, or recent; a carbon cartridge for half a year."""

    def acts(s: TreatmentStep) -> bool:
        if s.kind == "carbon":
            return (today - s.on).days <= CARBON_DAYS
        return s.on >= collected_on if collected_on is not None else (today - s.on).days <= STEP_DAYS

    return tuple(s for s in steps if s.on <= today and acts(s))


def newest_tests(tests: Sequence[Measured], steps: Sequence[TreatmentStep]) -> dict[str, Measured]:
    """Newest value of each quantity that a later treatment has not overtaken."""
    altered = max((s.on for s in steps if s.kind in ALTERS), default=None)
    out: dict[str, Measured] = {}
    for t in sorted(tests, key=lambda t: t.on):
        if altered is None or t.quantity not in _ALTERED or t.on >= altered:
            out[t.quantity] = t
    return out


def known_of(
    kind: WaterKind,
    disinfectant: Disinfectant,
    stated: dict[str, float | None],
    tests: dict[str, Measured],
    steps: Sequence[TreatmentStep],
) -> KnownOfWater:
    """What is known beside the conductivity: tests first, else what was stated with the source."""
    values: dict[str, Any] = {k: v for k, v in stated.items() if v is not None}
    half: dict[str, float] = {}
    for name, t in tests.items():
        field = QUANTITIES[name].known_field
        if field:
            values[field] = t.span.middle
            half.pop(field, None)
            if t.span.high > t.span.low:
                half[field] = 0.5 * (t.span.high - t.span.low)
    return KnownOfWater(
        kind=kind, disinfectant=disinfectant, treatments=tuple(s.kind for s in steps), half_widths=half, **values
    )


def ions_known(water: BaseWater, known: KnownOfWater) -> WaterIons:
    """Ions of a water with what was measured in place of what its kind usually holds; alkalinity only if measured."""
    usual = composition_of(water)[0]
    measured = {
        "Ca_mg_L": known.calcium_mg_L,
        "Mg_mg_L": known.magnesium_mg_L,
        "Na_mg_L": known.sodium_mg_L,
        "Cl_mg_L": known.chloride_mg_L,
        "F_mg_L": known.fluoride_mg_L,
        "pH": known.pH,
    }
    if water.ions is not None:
        usual, measured = water.ions, {}
    alkalinity = known.alkalinity_mg_L_CaCO3
    if alkalinity is None and water.ions is not None:
        alkalinity = water.ions.alkalinity_mg_L_CaCO3
    given = {k: v for k, v in measured.items() if v is not None}
    return replace(usual, **given, alkalinity_mg_L_CaCO3=alkalinity)


def ions_to_mix(ions: WaterIons | None) -> WaterIons | None:
    """A report's ions if they may be built on: both sides filled in and no more than 10 % out of balance."""
    if ions is None or not any(v for k, v in vars(ions).items() if k != "pH"):
        return None
    return ions if charge_balance(ions=ions).result.verdict in ("fine", "warn") else None
