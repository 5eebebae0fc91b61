"""Waters that several tests of the core mix with."""

from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kinds import BaseWater

PURE = BaseWater(0.0, "deionised", None, "pure water")
HARD = BaseWater(
    611.0,
    "borehole",
    WaterIons(
        Ca_mg_L=100,
        Mg_mg_L=6,
        Na_mg_L=20,
        K_mg_L=3,
        Cl_mg_L=24.6,
        NO3_mg_L=25,
        SO4_mg_L=45,
        alkalinity_mg_L_CaCO3=220,
        pH=7.4,
    ),
    "Borehole",
)
