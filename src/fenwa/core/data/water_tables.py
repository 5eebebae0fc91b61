"""Kinds of source water and acids, from their reviewed files."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Literal

from pydantic import Field

from fenwa.core.data.tables import DATA, EC, Days, Named, Rising, build_row, read_toml
from fenwa.core.errors import InputError

MolarMass = Annotated[float, Field(gt=0, le=1_000)]
Shape = Literal["thin", "soft", "hard", "softened"]


@dataclass(frozen=True)
class WaterKindRow:
    """A row of data/water_kinds.toml. [d]

    ``disinfected``: "no" or "ask"; ``runs``: comes from a pipe as needed; ``falls``: costs nothing; ``needs_reading``:
    its kind says little of what is in it; ``most_age_days``: not to be kept longer.
    """

    id: Named
    label: Named
    usual_uS_cm: Annotated[tuple[EC, EC, EC], Rising]
    shape: Shape
    disinfected: Literal["no", "ask"]
    retest_days: Annotated[int, Field(ge=1, le=3_650)]
    rising: str
    runs: bool = False
    falls: bool = False
    needs_reading: bool = False
    short_term: bool = False
    most_age_days: Days | None = None
    note: str = ""

    @property
    def thin(self) -> bool:
        """Free of salt by its making: rain, permeate, distilled and the like."""
        return self.shape == "thin"


@dataclass(frozen=True)
class AcidStrength:
    """A strength an acid is sold at. [% w/w, g/mL]"""

    pct: Annotated[float, Field(gt=0, le=100)]
    density_g_mL: Annotated[float, Field(ge=0.5, le=3)]


@dataclass(frozen=True)
class AcidRow:
    """A row of data/acids.toml: what it is, what it brings, what it may be sold at."""

    id: Named
    label: Named
    state: Literal["liquid", "dry"]
    molar_mass_g_mol: MolarMass
    adds: Literal["N", "P", "S", "citrate"]
    adds_g_mol: Annotated[float, Field(ge=0, le=1_000)]
    strengths: tuple[AcidStrength, ...]
    household: bool
    note: str
    source: str


@lru_cache(maxsize=1)
def water_kinds() -> dict[str, WaterKindRow]:
    """Kinds of source water by id."""
    raw = read_toml(DATA / "water_kinds.toml")["kinds"]
    return {key: build_row(WaterKindRow, {"id": key, **row}, "water_kinds.toml") for key, row in raw.items()}


@lru_cache(maxsize=1)
def acids() -> dict[str, AcidRow]:
    """Acids by id."""
    out = {}
    for key, row in read_toml(DATA / "acids.toml")["acids"].items():
        strengths = [build_row(AcidStrength, s, f"acids.toml [{key}]") for s in row.pop("strengths", [])]
        out[key] = build_row(AcidRow, {"id": key, **row, "strengths": strengths}, "acids.toml")
    return out


def get_acid(acid_id: str) -> AcidRow:
    """The acid of that id."""
    found = acids().get(acid_id)
    if found is None:
        raise InputError(f"Acid “{acid_id}” is not known. Choose {', '.join(acids())}.", pointer="/acid")
    return found
