"""Kinds of source water: what each usually carries, and what a pen cannot see in it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import require
from fenwa.core.water.conductivity import scaled_to
from fenwa.core.water.ions import WaterIons, check_ions

WaterKind = Literal[
    "rain",
    "mains",
    "borehole",
    "permeate",
    "distilled",
    "deionised",
    "jug-filtered",
    "softened",
    "soft",
    "condensate",
    "bottled",
    "blended",
    "other",
]

# shapes of composition, worked examples of standard waters (science of the water, section 8); size comes from the EC
_THIN = WaterIons(
    Ca_mg_L=0.4,
    Mg_mg_L=0.1,
    Na_mg_L=2.47,
    K_mg_L=0.2,
    Cl_mg_L=1.8,
    NO3_mg_L=0.4,
    SO4_mg_L=0.2,
    alkalinity_mg_L_CaCO3=4.0,
    pH=6.3,
)
_HARD = WaterIons(
    Ca_mg_L=100.0,
    Mg_mg_L=6.0,
    Na_mg_L=20.0,
    K_mg_L=3.0,
    Cl_mg_L=24.6,
    NO3_mg_L=25.0,
    SO4_mg_L=45.0,
    alkalinity_mg_L_CaCO3=220.0,
    pH=7.4,
)
_SOFT = WaterIons(
    Ca_mg_L=7.0,
    Mg_mg_L=1.5,
    Na_mg_L=7.0,
    K_mg_L=0.6,
    Cl_mg_L=11.0,
    NO3_mg_L=1.0,
    SO4_mg_L=8.0,
    alkalinity_mg_L_CaCO3=15.0,
    pH=7.3,
)
_SOFTENED = WaterIons(
    Ca_mg_L=2.0,
    Mg_mg_L=0.2,
    Na_mg_L=143.0,
    K_mg_L=3.0,
    Cl_mg_L=24.6,
    NO3_mg_L=25.0,
    SO4_mg_L=45.0,
    alkalinity_mg_L_CaCO3=220.0,
    pH=7.4,
)
_BY_SHAPE = {"thin": _THIN, "soft": _SOFT, "hard": _HARD, "softened": _SOFTENED}
SHAPES: dict[str, WaterIons] = {kind: _BY_SHAPE[row.shape] for kind, row in water_kinds().items()}
ZERO_WATER = WaterIons(alkalinity_mg_L_CaCO3=0.0, pH=7.0)


@dataclass(frozen=True)
class BaseWater:
    """A water to mix with: its conductivity, and its ions if there is a report."""

    ec25_uS_cm: float
    kind: WaterKind = "other"
    ions: WaterIons | None = None
    name: str = "the water"
    half_width_uS_cm: float = 0.0  # what is open where nobody measured it
    measured: bool = True

    @property
    def origin(self) -> str:
        """Where its conductivity comes from, for a working."""
        return "measured" if self.measured else "usual-water: not measured"


@lru_cache(maxsize=512)
def composition_of(water: BaseWater) -> tuple[WaterIons, str]:
    """Ions that add up to the measured conductivity, and the sentence that says how they were found."""
    require(water.ec25_uS_cm, f"EC of {water.name}", "µS/cm", low=0, high=20_000, pointer="/base/ec25_uS_cm")
    require(
        water.half_width_uS_cm, f"Range of {water.name}", "µS/cm", low=0, high=20_000, pointer="/base/half_width_uS_cm"
    )
    if water.ec25_uS_cm < 0.5:
        return ZERO_WATER, f"{water.name.capitalize()} is taken as free of salt."
    if water.ions is not None:
        check_ions(water.ions, "/base/ions")
    if water.ions is not None and any(v for k, v in vars(water.ions).items() if k != "pH"):
        return scaled_to(water.ions, water.ec25_uS_cm), (
            f"Ions of {water.name} come from its report, scaled to the conductivity measured."
        )
    return scaled_to(SHAPES[water.kind], water.ec25_uS_cm), (
        f"No report for {water.name}: ions of a usual {water.kind} water are taken, scaled to its conductivity."
    )


def is_thin(kind: str) -> bool:
    """Nearly free of salt by its making: its usual ions may stand for a missing report."""
    return water_kinds()[kind].thin
