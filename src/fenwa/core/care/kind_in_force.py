"""Several plants in a pot, and a grower's own version of a kind."""

from __future__ import annotations

from dataclasses import asdict, dataclass, replace
from typing import Any

from fenwa.core.care.cans import SLOPE_uS_PER_mg_N
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.library.profile import FlushHabit, OptIn, PhaseFeeding, Profile, profile_from

_ABOVE = ("never", "tray_change", "water_change", "soak_rinse", "rim_only", "yes_or_dunk", "yes")  # strictest first
NAMELESS = "unknown"
EDITABLE = {
    "source_water": ("ec_ideal_max_uS_cm", "ec_max_uS_cm", "ec_short_term_max_uS_cm", "alkalinity_ceiling_mg_L"),
    "root_zone": ("ec_low_warn_uS_cm", "ec_ideal_uS_cm", "ec_ceiling_uS_cm"),
    "feeding": ("root_pour_ec_max_uS_cm", "routes"),
    "climate": ("minimum_C",),
    "flush": ("cadence_days",),
    "rest": ("root_gate_cm", "gate_roots", "gate_growth_cm"),
    "phases": ("feed", "n_ideal_mg_L", "n_ceiling_mg_L", "ec_ideal_uS_cm", "ec_ceiling_uS_cm"),
}


def strictest_of(profiles: list[Profile]) -> Profile:
    """Plants that share a pot drink and eat by the strictest of them; the first one leads in all else.

    A companion nobody named sets no limit: it does not silence the known ones.
    """
    lead = profiles[0]
    others = {id(p): p for p in profiles[1:] if p is not lead and p.id != NAMELESS}  # of one kind by the hundred
    profiles = [lead, *others.values()]
    if len(profiles) == 1:
        return lead
    waters, roots = [p.source_water for p in profiles], [p.root_zone for p in profiles]
    high = min(r.ec_ideal_uS_cm[1] for r in roots)
    most = [p.feeding.root_pour_ec_max_uS_cm for p in profiles if p.feeding.root_pour_ec_max_uS_cm is not None]
    carnivore = any(p.carnivore for p in profiles)
    strict = next((p for p in profiles if p.carnivore), lead)
    return replace(
        lead,
        carnivore=carnivore,
        source_water=replace(
            lead.source_water,
            ec_ideal_max_uS_cm=min(w.ec_ideal_max_uS_cm for w in waters),
            ec_max_uS_cm=min(w.ec_max_uS_cm for w in waters),
            ec_short_term_max_uS_cm=min(w.ec_short_term_max_uS_cm for w in waters),
            alkalinity_ceiling_mg_L=min(w.alkalinity_ceiling_mg_L for w in waters),
            alkalinity_ideal_max_mg_L=min(w.alkalinity_ideal_max_mg_L for w in waters),
        ),
        root_zone=replace(
            lead.root_zone,
            ec_ideal_uS_cm=(min(min(r.ec_ideal_uS_cm[0] for r in roots), high), high),
            ec_ceiling_uS_cm=min(r.ec_ceiling_uS_cm for r in roots),
            ec_low_warn_uS_cm=min(r.ec_low_warn_uS_cm for r in roots),
        ),
        sensitivity=replace(
            lead.sensitivity,
            **{
                k: max(getattr(p.sensitivity, k) for p in profiles) for k in ("fluoride", "chlorine", "sodium", "boron")
            },
        ),
        feeding=replace(strict.feeding, root_pour_ec_max_uS_cm=min(most) if most else None),
        flush=FlushHabit(
            min((p.flush.from_above for p in profiles), key=_ABOVE.index), lead.flush.how, lead.flush.cadence_days
        ),
        opt_in=_shared_opt_in([p for p in profiles if p.carnivore]),
        phases={
            name: _strictest_phase(row, [p.phases.get(name) for p in profiles]) for name, row in lead.phases.items()
        },
    )


def _shared_opt_in(carnivores: list[Profile]) -> tuple[OptIn, ...]:
    """Only a way of feeding that every carnivore of the pot may be given, under the lowest of their ceilings."""
    if not carnivores:
        return ()
    ways = [{o.route: o for o in p.opt_in} for p in carnivores]
    return tuple(
        replace(
            o,
            n_max_mg_L=min(w[o.route].n_max_mg_L for w in ways),
            ec_ceiling_uS_cm=min(w[o.route].ec_ceiling_uS_cm for w in ways),
        )
        for o in carnivores[0].opt_in
        if all(o.route in w for w in ways)
    )


def _strictest_phase(row: PhaseFeeding, others: list[PhaseFeeding | None]) -> PhaseFeeding:
    known = [r for r in others if r is not None]
    ceilings = [r.ec_ceiling_uS_cm for r in known if r.ec_ceiling_uS_cm is not None]
    high = min(r.n_ideal_mg_L[1] for r in known)
    return replace(
        row,
        feed=all(r.feed for r in known),
        n_ideal_mg_L=(min(row.n_ideal_mg_L[0], high), high),
        ec_ceiling_uS_cm=min(ceilings) if ceilings else None,
    )


@dataclass(frozen=True)
class OwnLimits:
    """A grower's own limits of a kind; None leaves one as it is. [µS/cm, mg/L, °C, d]"""

    water_max: float | None = None
    alkalinity_max: float | None = None
    reading_low: float | None = None
    reading_high: float | None = None
    reading_ceiling: float | None = None
    nitrogen_low: float | None = None
    nitrogen_high: float | None = None
    feed_ceiling: float | None = None
    minimum_C: float | None = None
    flush_each_days: float | None = None
    gate_root_cm: float | None = None
    gate_roots: float | None = None
    gate_growth_cm: float | None = None


def limits_of(now: Profile) -> OwnLimits:
    """The limits in force of a kind, as its grower would set them: nitrogen and feed of the active phase."""
    water, zone, rest = now.source_water, now.root_zone, now.rest
    fed = None if now.carnivore else now.phases.get("active")
    return OwnLimits(
        water_max=water.ec_max_uS_cm,
        alkalinity_max=water.alkalinity_ceiling_mg_L,
        reading_low=zone.ec_ideal_uS_cm[0],
        reading_high=zone.ec_ideal_uS_cm[1],
        reading_ceiling=zone.ec_ceiling_uS_cm,
        nitrogen_low=fed.n_ideal_mg_L[0] if fed else None,
        nitrogen_high=fed.n_ideal_mg_L[1] if fed else None,
        feed_ceiling=fed.ec_ceiling_uS_cm if fed else None,
        minimum_C=now.climate.minimum_C,
        flush_each_days=now.flush.cadence_days[1] if now.flush.cadence_days else None,
        gate_root_cm=rest.root_gate_cm,
        gate_roots=rest.gate_roots,
        gate_growth_cm=rest.gate_growth_cm,
    )


# what a kind's figure can be at all: words, unit, least, most
OWN_RANGES = {
    "water_max": ("EC of the water", "µS/cm", 1.0, 10_000.0),
    "alkalinity_max": ("Alkalinity of the water", "mg/L CaCO3", 0.0, 2000.0),
    "reading_low": ("Lower reading", "µS/cm", 0.0, 20_000.0),
    "reading_high": ("Upper reading", "µS/cm", 1.0, 20_000.0),
    "reading_ceiling": ("Ceiling of the reading", "µS/cm", 1.0, 20_000.0),
    "nitrogen_low": ("Least nitrogen", "mg/L N", 0.0, 400.0),
    "nitrogen_high": ("Most nitrogen", "mg/L N", 0.0, 400.0),
    "feed_ceiling": ("Ceiling of the feed", "µS/cm", 20.0, 5000.0),
    "minimum_C": ("Never below", "°C", -30.0, 30.0),
    "flush_each_days": ("Flush each", "d", 3.0, 730.0),
    "gate_root_cm": ("Roots long", "cm", 0.0, 50.0),
    "gate_roots": ("Roots so long", "", 1.0, 20.0),
    "gate_growth_cm": ("New growth", "cm", 0.0, 200.0),
}


def own_limits(now: Profile, own: OwnLimits) -> dict[str, Any]:
    """Figures of a kind that change with a grower's own limits, those that must move along included.

    A lower most of water lowers what is comfortable; a higher one lifts what is borne for a while. A lower
    start of the comfortable range lowers where too little is warned of. Nitrogen and the feed's ceiling are
    those of the active phase; more nitrogen than the kind's most lifts that too.

    Raises
    ------
    InputError
        If nothing is changed, or feed is set for a carnivore.
    """
    for name, (words, unit, low, high) in OWN_RANGES.items():
        value = getattr(own, name)
        if value is not None:
            require(value, words, unit, low=low, high=high, pointer=f"/{name}")
    figures: dict[str, Any] = {}
    if own.water_max is not None or own.alkalinity_max is not None:
        water = now.source_water
        most = own.water_max if own.water_max is not None else water.ec_max_uS_cm
        figures["source_water"] = {
            "ec_max_uS_cm": most,
            "ec_short_term_max_uS_cm": max(water.ec_short_term_max_uS_cm, most),
            "ec_ideal_max_uS_cm": min(water.ec_ideal_max_uS_cm, most),
            "alkalinity_ceiling_mg_L": water.alkalinity_ceiling_mg_L
            if own.alkalinity_max is None
            else own.alkalinity_max,
        }
    if (own.reading_low, own.reading_high, own.reading_ceiling) != (None, None, None):
        zone = now.root_zone
        low = own.reading_low if own.reading_low is not None else zone.ec_ideal_uS_cm[0]
        high = own.reading_high if own.reading_high is not None else zone.ec_ideal_uS_cm[1]
        figures["root_zone"] = {
            "ec_ideal_uS_cm": [low, high],
            "ec_low_warn_uS_cm": min(zone.ec_low_warn_uS_cm, low),
            "ec_ceiling_uS_cm": own.reading_ceiling if own.reading_ceiling is not None else zone.ec_ceiling_uS_cm,
        }
    if (own.nitrogen_low, own.nitrogen_high, own.feed_ceiling) != (None, None, None):
        figures["phases"] = {"active": _own_feed(now, own)}
    if now.id == NAMELESS and {"source_water", "phases"} & set(figures):
        figures["feeding"] = _own_roots(now, own)
    if own.minimum_C is not None:
        figures["climate"] = {"minimum_C": own.minimum_C}
    if own.flush_each_days is not None:
        days = round(own.flush_each_days)
        figures["flush"] = {"cadence_days": [days, days]}
    if (own.gate_root_cm, own.gate_roots, own.gate_growth_cm) != (None, None, None):
        figures["rest"] = {
            "root_gate_cm": own.gate_root_cm if own.gate_root_cm is not None else now.rest.root_gate_cm or 0.0,
            "gate_roots": now.rest.gate_roots if own.gate_roots is None else round(own.gate_roots),
            "gate_growth_cm": own.gate_growth_cm if own.gate_growth_cm is not None else now.rest.gate_growth_cm,
        }
    if not figures:
        raise InputError("No figure is changed. Change at least one, or leave the kind as it is.", pointer="/water_max")
    return figures


def _own_roots(now: Profile, own: OwnLimits) -> dict[str, Any]:
    """A plant without a kind of its own lives by its grower's figures: they open its root to water and feed."""
    feeds = own.nitrogen_high is not None or now.phases["active"].feed
    most = None if feeds else max(now.feeding.root_pour_ec_max_uS_cm or 0.0, own.water_max or 0.0)
    return {"root_pour_ec_max_uS_cm": most, "routes": ["root"] if feeds else list(now.feeding.routes)}


def _own_feed(now: Profile, own: OwnLimits) -> dict[str, Any]:
    """Feed of the active phase; its comfortable EC is told anew from the nitrogen, as the shipped figures are."""
    if now.carnivore:
        raise InputError(
            f"{now.name} is a carnivore: it is fed only by a school you choose at the pot, under "
            "that way’s own ceiling.",
            pointer="/nitrogen_high",
        )
    row = now.phases["active"]
    low = own.nitrogen_low if own.nitrogen_low is not None else row.n_ideal_mg_L[0]
    high = own.nitrogen_high if own.nitrogen_high is not None else row.n_ideal_mg_L[1]
    ceiling = own.feed_ceiling if own.feed_ceiling is not None else row.ec_ceiling_uS_cm
    source = now.feeding.reference_source_uS_cm
    return {
        "feed": row.feed or high > 0,
        "n_ideal_mg_L": [low, high],
        "n_ceiling_mg_L": None if row.n_ceiling_mg_L is None else max(row.n_ceiling_mg_L, high),
        "ec_ideal_uS_cm": [round(source + SLOPE_uS_PER_mg_N * low), round(source + SLOPE_uS_PER_mg_N * high)],
        "ec_ceiling_uS_cm": ceiling,
    }


def own_version(profile: Profile, figures: dict[str, Any]) -> Profile:
    """A grower's figures over a kind's own; what they do not name stays, and the order of limits is kept.

    Raises
    ------
    InputError
        If a figure is not one that may be changed, or limits stand in the wrong order.
    """
    raw = asdict(profile)
    raw["opt_in"] = list(raw["opt_in"])
    for part, rows in figures.items():
        if part not in EDITABLE:
            raise InputError(
                f"“{part}” cannot be changed in your own version. Changeable: {', '.join(EDITABLE)}.",
                pointer=f"/figures/{part}",
            )
        if part == "phases":
            for name, row in rows.items():
                if name not in raw["phases"]:
                    raise InputError(f"{profile.name} has no phase “{name}”.", pointer=f"/figures/phases/{name}")
                _put(raw["phases"][name], row, "phases", f"/figures/phases/{name}")
        else:
            _put(raw[part], rows, part, f"/figures/{part}")
    made = profile_from(raw, profile.name, checked=False)  # a grower's figures are refused in a grower's words
    check_order(made)
    return made


def _put(into: dict[str, Any], values: dict[str, Any], part: str, pointer: str) -> None:
    for key, value in values.items():
        if key not in EDITABLE[part]:
            raise InputError(
                f"“{key}” cannot be changed in your own version. Changeable: {', '.join(EDITABLE[part])}.",
                pointer=f"{pointer}/{key}",
            )
        into[key] = tuple(value) if isinstance(value, list) else value


def check_order(p: Profile) -> None:
    """Limits from low to high, or the pair that stands the wrong way round."""
    s, r = p.source_water, p.root_zone
    rising = (
        (
            "Comfortable water",
            s.ec_ideal_max_uS_cm,
            "lasting limit of the water",
            s.ec_max_uS_cm,
            "source_water/ec_ideal_max_uS_cm",
        ),
        (
            "Lasting limit of the water",
            s.ec_max_uS_cm,
            "emergency limit",
            s.ec_short_term_max_uS_cm,
            "source_water/ec_max_uS_cm",
        ),
        (
            "Low warning",
            r.ec_low_warn_uS_cm,
            "bottom of the comfortable range",
            r.ec_ideal_uS_cm[0],
            "root_zone/ec_low_warn_uS_cm",
        ),
        (
            "Bottom of the comfortable range",
            r.ec_ideal_uS_cm[0],
            "its top",
            r.ec_ideal_uS_cm[1],
            "root_zone/ec_ideal_uS_cm",
        ),
        (
            "Top of the comfortable range",
            r.ec_ideal_uS_cm[1],
            "ceiling",
            r.ec_ceiling_uS_cm,
            "root_zone/ec_ceiling_uS_cm",
        ),
    )
    for low_name, low, high_name, high, pointer in rising:
        if low < 0 or low > high:
            raise InputError(
                f"{low_name} {low:g} µS/cm is above the {high_name} {high:g} µS/cm. Lower one or raise the other.",
                pointer=f"/figures/{pointer}",
                value=low,
            )
    for name, row in p.phases.items():
        if not 0 <= row.n_ideal_mg_L[0] <= row.n_ideal_mg_L[1] <= 400:
            raise InputError(
                f"Nitrogen {row.n_ideal_mg_L[0]:g} to {row.n_ideal_mg_L[1]:g} mg/L cannot be. "
                "Put the lower first, 0 to 400.",
                pointer=f"/figures/phases/{name}/n_ideal_mg_L",
            )
