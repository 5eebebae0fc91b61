"""What a water is to the diagnosis: thin, softened, alkaline or treated, or not known."""

from __future__ import annotations

from fenwa.core.library.profile import Profile
from fenwa.core.water.kind_checks import KnownOfWater

THIN_uS_cm = 60.0  # section 8: under it a water brings nothing of its own
FLUORIDATED_mg_L = 0.25  # what leaves of sensitive kinds mind, over months
PURE_KINDS = ("rain", "permeate", "distilled", "deionised", "condensate")
CLEARING = ("carbon", "conditioner")


def water_facts(
    known: KnownOfWater, ec25_uS_cm: float | None, profile: Profile
) -> tuple[bool | None, bool | None, bool | None, bool | None]:
    """Thin, softened, alkaline over the kind's ceiling, fluoridated or chloraminated; None: not tested. [µS/cm]"""
    pure = known.kind in PURE_KINDS
    thin = ec25_uS_cm < THIN_uS_cm if ec25_uS_cm is not None else (True if pure else None)
    softened = known.kind == "softened"
    alkalinity = known.alkalinity_mg_L_CaCO3
    alkaline = (
        alkalinity > profile.source_water.alkalinity_ceiling_mg_L
        if alkalinity is not None
        else (False if pure or thin else None)
    )
    fluoride = known.fluoride_mg_L is not None and known.fluoride_mg_L >= FLUORIDATED_mg_L
    cleared = any(t in CLEARING for t in known.treatments)
    if fluoride or (known.disinfectant in ("chloramine", "free chlorine") and not cleared):
        treated: bool | None = True
    elif pure or known.disinfectant == "none" or (cleared and known.fluoride_mg_L is not None):
        treated = False
    else:
        treated = None
    return thin, softened, alkaline, treated
