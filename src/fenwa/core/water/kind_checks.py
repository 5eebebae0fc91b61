"""What a pen cannot see in a water, agent by agent: guideline limits, reasons, what is not known."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import brief, require
from fenwa.core.water.ions import MOLAR_MASS
from fenwa.core.water.kinds import WaterKind

KindState = Literal["known good", "known bad", "unknown"]
Disinfectant = Literal["none", "free chlorine", "chloramine", "unknown"]
Treatment = Literal["stood", "aerated", "carbon", "conditioner", "boiled", "acidified"]

# mg/L limits by the plant's sensitivity 0..3; guideline values for container irrigation (fao-29, tightened)
SODIUM_mg_L = (100.0, 70.0, 50.0, 20.0)
FLUORIDE_mg_L = (1.5, 1.0, 1.0, 0.25)
BORON_mg_L = (1.0, 0.5, 0.5, 0.3)
SAR_LIMIT = (9.0, 6.0, 3.0, 3.0)
CHLORIDE_mg_L = 70.0
IRON_mg_L = 0.3  # above it rusty films on leaves and in tubes
CHLORINE_mg_L = 2.0
LEAF_SPOT_mg_L = 120.0  # hardness that leaves white marks where drops dry
PH_DRIFT_mg_L = 150.0  # alkalinity that lifts the pH of organic media over a season
PH_LOW, PH_HIGH = 5.0, 8.5
PURE_uS_cm = 30.0  # below it a pH says nothing: no buffer
COMBINED_SEEN_mg_L = 0.1


@dataclass(frozen=True)
class KindFinding:
    """One thing a pen cannot see. A ``minor`` one is told and does not decide."""

    agent: str
    state: KindState
    reason: str
    minor: bool = False


@dataclass(frozen=True)
class KnownOfWater:
    """What is known of a water beside its conductivity. None means not measured. mg/L.

    ``half_widths`` holds the half-width of a value that came as a range (a strip, a drop test),
    by field name; a limit inside the range leaves the matter unknown.
    """

    kind: WaterKind = "other"
    disinfectant: Disinfectant = "unknown"
    free_chlorine_mg_L: float | None = None
    total_chlorine_mg_L: float | None = None
    sodium_mg_L: float | None = None
    chloride_mg_L: float | None = None
    fluoride_mg_L: float | None = None
    boron_mg_L: float | None = None
    iron_mg_L: float | None = None
    calcium_mg_L: float | None = None
    magnesium_mg_L: float | None = None
    hardness_mg_L_CaCO3: float | None = None
    alkalinity_mg_L_CaCO3: float | None = None
    pH: float | None = None
    treatments: tuple[Treatment, ...] = ()
    half_widths: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class PlantNeeds:
    """What a plant group asks of its water. Sensitivities 0 none known to 3 high."""

    ec_max_uS_cm: float
    ec_short_term_max_uS_cm: float | None = None
    alkalinity_ceiling_mg_L: float | None = None
    fluoride_sensitivity: int = 1
    chlorine_sensitivity: int = 1
    sodium_sensitivity: int = 1
    boron_sensitivity: int = 1
    name: str = "this plant"


MOST_SENSITIVE = 3
MOST_mg_L = 200_000.0


def check_needs(p: PlantNeeds) -> None:
    """Refuse a plant whose limit or sensitivities cannot be; fields are named below ``/plant``."""
    require(p.ec_max_uS_cm, "Limit", "µS/cm", low=0, open_low=True, high=20_000, pointer="/plant/ec_max_uS_cm")
    if (short := p.ec_short_term_max_uS_cm) is not None:
        require(short, "Limit for a while", "µS/cm", low=0, high=20_000, pointer="/plant/ec_short_term_max_uS_cm")
    if (alkaline := p.alkalinity_ceiling_mg_L) is not None:
        require(alkaline, "Most alkalinity", "mg/L", low=0, high=5_000, pointer="/plant/alkalinity_ceiling_mg_L")
    for ion in ("fluoride", "chlorine", "sodium", "boron"):
        require(
            getattr(p, f"{ion}_sensitivity"),
            f"Sensitivity to {ion}",
            "",
            low=0,
            high=MOST_SENSITIVE,
            pointer=f"/plant/{ion}_sensitivity",
            hint="0 is none known, 3 is high.",
        )


def check_known(w: KnownOfWater, at: str = "/water") -> None:
    """Refuse what cannot be in a water; fields are named below ``at``. A brine may be asked about."""
    for name, value in vars(w).items():
        if name == "pH" and value is not None:
            require(value, "pH", "", low=0, high=14, pointer=f"{at}/pH")
        elif isinstance(value, int | float):
            words = name.split("_mg_L")[0].replace("_", " ").capitalize()
            require(value, words, "mg/L", low=0, high=MOST_mg_L, pointer=f"{at}/{name}")
    for name, half in w.half_widths.items():
        require(half, "Half-width", "mg/L", low=0, high=MOST_mg_L, pointer=f"{at}/half_widths/{name}")


def against(w: KnownOfWater, name: str, limit: float) -> KindState | None:
    """A measured value against a limit, its range reckoned with; None when it was not measured."""
    value = getattr(w, name)
    if value is None:
        return None
    half = w.half_widths.get(name, 0.0)
    if value - half > limit:
        return "known bad"
    return "known good" if value + half <= limit else "unknown"


def _told(w: KnownOfWater, name: str) -> str:
    """A measured value in words, with its range."""
    value, half = getattr(w, name), w.half_widths.get(name, 0.0)
    return f"{brief(value - half)} to {brief(value + half)}" if half else brief(value)


_RELATION = {"known bad": "over", "known good": "within", "unknown": "its range spans"}


def _limited(
    w: KnownOfWater, agent: str, name: str, limit: float, clean: str, what: str = "", minor: bool = False
) -> KindFinding:
    state = against(w, name, limit)
    if state is not None:
        return KindFinding(
            agent, state, f"{what or agent} {_told(w=w, name=name)} mg/L, {_RELATION[state]} {limit:g}", minor
        )
    if clean:
        return KindFinding(agent, "known good", clean)
    return KindFinding(agent, "unknown", f"{agent} not measured", minor)


def _clean(w: KnownOfWater, words: str) -> str:
    """Words for what this kind is free of by its making; empty when it is not."""
    row = water_kinds()[w.kind]
    return f"{row.label} {words}" if row.thin else ""


def _disinfectant(w: KnownOfWater, p: PlantNeeds) -> KindFinding:
    agent = "disinfectant"
    free, total = w.free_chlorine_mg_L, w.total_chlorine_mg_L
    limit = CHLORINE_mg_L if p.chlorine_sensitivity < 2 else CHLORINE_mg_L / 2
    taken_out = next((t for t in ("conditioner", "carbon") if t in w.treatments), None)
    if taken_out and (total is None or total < COMBINED_SEEN_mg_L):
        return KindFinding(agent, "known good", f"{taken_out} takes it out")
    if total is not None:
        combined = total - (free or 0.0)
        bound = w.disinfectant == "chloramine" or (free is not None and combined > COMBINED_SEEN_mg_L)
        bad = total >= limit or (bound and p.chlorine_sensitivity >= 2)
        words = f"chloramine {combined:.2g} mg/L" if bound else f"total chlorine {total:g} mg/L"
        return KindFinding(agent, "known bad" if bad else "known good", words)
    if w.disinfectant == "none":
        return KindFinding(agent, "known good", "no disinfectant")
    if w.disinfectant == "unknown":
        row = water_kinds()[w.kind]
        if row.disinfected == "no":
            return KindFinding(agent, "known good", f"{row.label} water is not disinfected")
        return KindFinding(agent, "unknown", "disinfectant not known; a pen cannot see it")
    if w.disinfectant == "chloramine":
        bad = p.chlorine_sensitivity >= 2
        return KindFinding(agent, "known bad" if bad else "known good", "chloramine, which does not leave on standing")
    if "stood" in w.treatments or "aerated" in w.treatments:
        return KindFinding(agent, "known good", "free chlorine, stood or aerated away")
    if free is None:
        return KindFinding(agent, "unknown", "free chlorine, amount not measured; it leaves on standing a day")
    return KindFinding(agent, "known bad" if free >= limit else "known good", f"free chlorine {free:g} mg/L")


def sar_of(w: KnownOfWater) -> float | None:
    """Sodium adsorption ratio from what is known; None when a part is missing."""
    if w.sodium_mg_L is None or w.calcium_mg_L is None or w.magnesium_mg_L is None:
        return None
    hard = w.calcium_mg_L / MOLAR_MASS["Ca"] + w.magnesium_mg_L / MOLAR_MASS["Mg"]
    return float(w.sodium_mg_L / MOLAR_MASS["Na"] / hard**0.5) if hard > 0 else None


def _sodium(w: KnownOfWater, p: PlantNeeds) -> KindFinding:
    if w.kind == "softened" and w.sodium_mg_L is None:
        return KindFinding("sodium", "known bad", "softened water carries sodium in place of hardness")
    level = p.sodium_sensitivity
    found = _limited(w, "sodium", "sodium_mg_L", SODIUM_mg_L[level], _clean(w, "carries little sodium"))
    sar = sar_of(w)
    if sar is not None and found.state == "known good" and sar > SAR_LIMIT[level]:
        return KindFinding(
            "sodium", "known bad", f"sodium outweighs hardness, SAR {sar:.1f}, over {SAR_LIMIT[level]:g}"
        )
    return found


def _hardness(w: KnownOfWater, p: PlantNeeds) -> KindFinding:
    """Alkalinity against the plant's ceiling; hardness stands in for it when only that is known."""
    ceiling = p.alkalinity_ceiling_mg_L
    if w.alkalinity_mg_L_CaCO3 is not None:
        limit = ceiling if ceiling is not None else PH_DRIFT_mg_L
        found = _limited(w, "hardness", "alkalinity_mg_L_CaCO3", limit, "", "alkalinity as CaCO3")
        drift = w.alkalinity_mg_L_CaCO3 > PH_DRIFT_mg_L
        return KindFinding(found.agent, found.state, found.reason + ("; lifts the pH of the medium" if drift else ""))
    if w.hardness_mg_L_CaCO3 is not None:
        limit = ceiling if ceiling is not None else LEAF_SPOT_mg_L
        return _limited(w, "hardness", "hardness_mg_L_CaCO3", limit, "", "hardness as CaCO3")
    return _limited(w, "hardness", "alkalinity_mg_L_CaCO3", 0.0, _clean(w, "is not hard"))


def _minor(w: KnownOfWater, ec25_uS_cm: float) -> list[KindFinding]:
    """What is told beside the verdict: leaf spots, pH."""
    out = []
    if w.hardness_mg_L_CaCO3 is not None and w.hardness_mg_L_CaCO3 > LEAF_SPOT_mg_L:
        out.append(
            KindFinding(
                "leaf spots",
                "known bad",
                f"hardness {_told(w=w, name='hardness_mg_L_CaCO3')} mg/L: white spots where drops dry",
                True,
            )
        )
    if w.pH is not None and ec25_uS_cm < PURE_uS_cm:
        out.append(
            KindFinding(
                "pH",
                "known good",
                f"pH {w.pH:g} says nothing in water this pure: it has no buffer, a breath of air moves it",
                True,
            )
        )
    elif w.pH is not None and not PH_LOW <= w.pH <= PH_HIGH:
        out.append(KindFinding("pH", "known bad", f"pH {w.pH:g}, outside {PH_LOW:g} to {PH_HIGH:g}", True))
    return out


def kind_findings(w: KnownOfWater, p: PlantNeeds, ec25_uS_cm: float) -> tuple[KindFinding, ...]:
    """Every check, those that decide first."""
    row = water_kinds()[w.kind]
    pure = ec25_uS_cm < PURE_uS_cm or row.thin
    found = [
        _disinfectant(w, p),
        _sodium(w, p),
        _limited(
            w,
            "fluoride",
            "fluoride_mg_L",
            FLUORIDE_mg_L[p.fluoride_sensitivity],
            _clean(w, "carries no fluoride"),
        ),
        _hardness(w, p),
        # seldom in the way where they are not suspected: told when unknown, deciding when measured
        _limited(
            w,
            "chloride",
            "chloride_mg_L",
            CHLORIDE_mg_L,
            "too little salt for it" if pure else "",
            minor=w.chloride_mg_L is None,
        ),
        _limited(
            w,
            "boron",
            "boron_mg_L",
            BORON_mg_L[p.boron_sensitivity],
            _clean(w, "carries little boron"),
            minor=w.boron_mg_L is None and p.boron_sensitivity < 2,
        ),
        _limited(
            w,
            "iron",
            "iron_mg_L",
            IRON_mg_L,
            "" if w.kind in ("borehole", "other") else "seldom in this water",
            minor=w.iron_mg_L is None,
        ),
    ]
    if row.short_term:
        found.append(KindFinding("metals", "unknown", "copper and zinc from the coil not known: a few weeks at most"))
    return (*found, *_minor(w, ec25_uS_cm))
