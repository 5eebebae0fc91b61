"""Every refusal of the calculations of care: the sentence names the field, the value and the way out."""

from datetime import date
from typing import Any

import pytest

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.calculations import list_calculations
from fenwa.core.errors import DomainError

BARK = {"theta_cc": 0.25, "phi": 0.55, "t_half_h": 1.0, "eta": 0.5, "R": 1.1, "name": "bark"}
WEIGHTS = {"drained_g": 850, "dry_g": 600, "now_g": 700}
NEED = {"id": 1, "n_low_mg_L": 40, "n_high_mg_L": 60, "ceiling_uS_cm": 900, "water_ids": [1]}
WATER = {"id": 1, "ec_uS_cm": 30}
AWAY_POT = {
    "id": 1,
    "code": "F-01",
    "name": "fern",
    "place": "sill",
    "shelf_order": 1,
    "interval_days": 6,
    "low_days": 4,
    "high_days": 8,
    "amount_mL": 100,
    "water": "Rain",
    "route": "top",
}
JOURNEY = {"pots": [AWAY_POT], "leaving": "2026-12-20", "back": "2027-01-03"}
PLAN: dict[str, Any] = {"plan": {}, "water_on": "2026-11-23", "interval_days": 6, "today": "2026-11-23"}
RAMP = {"what": "bag", "unit": "quarters", "start_on": "2027-03-07", "start": 1, "step": 1, "target": 4}
ASKS = {"humidity_pct": [50, 70], "night_C": [15, 20], "minimum_C": 12, "water_max_uS_cm": 300}
SHOP: dict[str, Any] = {"kind": ASKS, "choice": {"ids": [1]}}
COUNT = {"kind": "count", "cycle": 4, "feeds": 3}

PROBED: dict[str, Any] = {"rule": {"by": "probe", "at": 3, "probe": {"name": "short probe"}}, "today": "2026-11-23"}
PRILLS: dict[str, Any] = {"given_on": "2026-04-08", "today": "2026-06-01", "label_days": 140, "celsius": 14}
JOB = {"pot_id": 1, "code": "A", "name": "x", "share": 1.1, "way": "rounds", "litres": 1, "minutes": 60}
FLUSHES: dict[str, Any] = {"jobs": [JOB], "today": "2026-11-23"}
FIT: dict[str, Any] = {**SHOP, "home": {}, "waters": [{"name": "Rain", "may": True}]}
DRINK: dict[str, Any] = {"low_uS_cm": 100, "high_uS_cm": 200}
SEA = {"kind": "other", "low_uS_cm": 40, "high_uS_cm": 50_000}
REFUSALS: list[tuple[str, dict[str, Any], str, str]] = [
    ("first-plan", {"lines": [{"line": "6 roses"}], "waters": []}, "/line", "“roses” is no kind"),
    ("first-plan", {"lines": [], "waters": [SEA]}, "/waters/0/high_uS_cm", "Upper end 50"),
    ("said-pots", {"line": "disa", "kind": "masdevallia"}, "/kind", "is none that the line names"),
    ("said-pots", {"line": "  "}, "/line", "The line is empty"),
    ("said-pots", {"line": "6"}, "/line", "Which kind?"),
    ("said-pots", {"line": "in bark, 12 cm"}, "/line", "Which kind?"),
    ("said-pots", {"line": "6 roses"}, "/line", "“roses” is no kind that is known"),
    ("said-pots", {"line": "6 phal in gravy"}, "/line", "“gravy” is no medium that is known"),
    ("said-pots", {"line": "0 phal"}, "/line", "0 pots"),
    ("said-pots", {"line": "201 phal"}, "/line", "201 pots: at most 200"),
    ("said-pots", {"line": "phal " * 41}, "/line", "205 characters"),
    ("said-pots", {"line": "phal, 1 cm"}, "/line", "Top diameter 1 cm"),
    ("said-pots", {"line": "phal, 0 L"}, "/line", "Volume 0 L"),
    ("who-may-drink", {**DRINK, "low_uS_cm": -1}, "/low_uS_cm", "Lower end -1"),
    ("who-may-drink", {**DRINK, "high_uS_cm": 99}, "/high_uS_cm", "Upper end 99"),
    ("who-may-drink", {**DRINK, "thinner_uS_cm": 20_001}, "/thinner_uS_cm", "Water to thin with 20"),
    ("who-may-drink", {**DRINK, "kind": "rose"}, "/kind", "“rose” is not known"),
    ("fit-of-kind", {**FIT, "litres_month": -1}, "/litres_month", "Litres a month -1"),
    ("fit-of-kind", {**FIT, "price_kWh": -1}, "/price_kWh", "Price of a kWh -1"),
    ("fit-of-kind", {**FIT, "light_mol": 81}, "/light_mol", "Daily light 81"),
    ("fit-of-kind", {**FIT, "asks_light_mol": 0}, "/asks_light_mol", "Light it asks 0"),
    ("fit-of-kind", {**FIT, "home": {"humidity_low_pct": 120}}, "/humidity_low", "Humidity 120"),
    (
        "fit-of-kind",
        {**FIT, "waters": [{"name": "Rain", "may": True, "price_per_L": -1}]},
        "/waters/0/price_per_L",
        "Price of a litre -1",
    ),
    ("prill-release", {**PRILLS, "given_on": "2026-06-02"}, "/given_on", "after today"),
    ("prill-release", {**PRILLS, "label_days": 3}, "/label_days", "Longevity 3"),
    ("prill-release", {**PRILLS, "celsius": 60}, "/celsius", "Warmth 60"),
    ("prill-release", {**PRILLS, "label_celsius": 5}, "/label_celsius", "Warmth of the label 5"),
    ("prill-release", {**PRILLS, "share": 1}, "/share", "Share 1"),
    ("prill-release", {**PRILLS, "grams": 0}, "/grams", "Prills 0"),
    ("prill-release", {**PRILLS, "nitrogen_pct": 51}, "/nitrogen_pct", "Nitrogen 51"),
    ("prill-release", {**PRILLS, "water_L": 0}, "/water_L", "Water in the pot 0"),
    ("flush-round", {**FLUSHES, "jobs": [{**JOB, "litres": -1}]}, "/jobs/0/litres", "Litres -1"),
    ("flush-round", {**FLUSHES, "jobs": [{**JOB, "minutes": -1}]}, "/jobs/0/minutes", "Minutes -1"),
    ("flush-round", {**FLUSHES, "jobs": [{**JOB, "share": -1}]}, "/jobs/0/share", "Share of its ceiling -1"),
    ("flush-round", {**FLUSHES, "litres_at_hand": -1}, "/litres_at_hand", "Water at hand -1"),
    ("flush-round", {**FLUSHES, "litres_a_day": -1}, "/litres_a_day", "Water a day -1"),
    ("flush-round", {**FLUSHES, "minutes_a_day": 1}, "/minutes_a_day", "Time a day 1"),
    ("growth-gate", {"needed_cm": -1}, "/needed_cm", "Roots needed"),
    ("growth-gate", {"needed_cm": 31}, "/needed_cm", "30"),
    ("growth-gate", {"needed_cm": 8, "roots_cm": -2}, "/roots_cm", "Root length"),
    ("growth-gate", {"needed_cm": 8, "roots_cm": 900}, "/roots_cm", "200"),
    (
        "feeding-pattern",
        {"pattern": {**COUNT, "cycle": 0}, "today": "2026-11-23"},
        "/pattern/cycle",
        "Waterings in a cycle",
    ),
    (
        "feeding-pattern",
        {"pattern": {**COUNT, "feeds": 61}, "today": "2026-11-23"},
        "/pattern/feeds",
        "Waterings with feed",
    ),
    (
        "feeding-pattern",
        {"pattern": {**COUNT, "feeds": 5}, "today": "2026-11-23"},
        "/pattern/feeds",
        "out of 4 cannot be",
    ),
    (
        "feeding-pattern",
        {"pattern": {"kind": "days"}, "today": "2026-11-23"},
        "/pattern/every_days",
        "Days between feeds",
    ),
    (
        "feeding-pattern",
        {"pattern": {"kind": "leaf spray", "every_days": 400}, "today": "2026-11-23"},
        "/pattern/every_days",
        "366",
    ),
    ("feeding-plan", {**PLAN, "plan": {"every_days": 90}}, "/every_days", "Days between feeds"),
    ("feeding-plan", {**PLAN, "plan": {"season": ["04-31", "08-01"]}}, "/season/0", "04-31"),
    ("feeding-plan", {**PLAN, "interval_days": 0}, "/interval_days", "Days between waterings"),
    ("feeding-plan", {**PLAN, "days": 400}, "/days", "Days ahead"),
    ("check-interval", {"gaps": [], "fallback_days": 0}, "/fallback_days", "Days between waterings"),
    ("check-interval", {"gaps": [], "fallback_days": 200}, "/fallback_days", "120"),
    ("check-interval", {"gaps": [], "fallback_days": 7, "rate_now": 0}, "/rate_now", "Rate now"),
    ("check-interval", {"gaps": [{"days": -1}], "fallback_days": 7}, "/gaps/0/days", "Gap"),
    ("check-interval", {"gaps": [{"days": 5, "rate": 9}], "fallback_days": 7}, "/gaps/0/rate", "Rate of a gap"),
    ("pot-water-from-weights", {**WEIGHTS, "drained_g": 0}, "/drained_g", "Weight after draining"),
    ("pot-water-from-weights", {**WEIGHTS, "dry_g": -5}, "/dry_g", "Weight at dry"),
    ("pot-water-from-weights", {**WEIGHTS, "now_g": 300_000}, "/now_g", "Weight now"),
    ("pot-water-from-weights", {**WEIGHTS, "dry_g": 900}, "/dry_g", "Swap them, or weigh again"),
    ("medium-properties", {"parts": []}, "/parts", "1 to 8 parts, not 0"),
    ("medium-properties", {"parts": [{"medium": BARK, "parts": 1}] * 9}, "/parts", "not 9"),
    ("medium-properties", {"parts": [{"medium": BARK, "parts": 0}]}, "/parts/0/parts", "Parts"),
    (
        "medium-properties",
        {"parts": [{"medium": {**BARK, "theta_cc": 2}, "parts": 1}]},
        "/parts/0/medium/theta_cc",
        "Water held",
    ),
    (
        "medium-properties",
        {"parts": [{"medium": {**BARK, "t_half_h": 0}, "parts": 1}]},
        "/parts/0/medium/t_half_h",
        "Half time",
    ),
    ("cans", {"needs": [NEED, NEED], "waters": [WATER]}, "/needs", "named twice"),
    ("cans", {"needs": [{**NEED, "n_low_mg_L": 80}], "waters": [WATER]}, "/needs/0/n_low_mg_L", "Put the lower first"),
    ("cans", {"needs": [{**NEED, "n_low_mg_L": -1}], "waters": [WATER]}, "/needs/0/n_low_mg_L", "cannot be"),
    ("cans", {"needs": [NEED], "waters": [WATER], "slope_uS_per_mg_N": 0}, "/slope_uS_per_mg_N", "EC for a mg/L"),
    ("coming-rounds", {"pots": [], "today": "2026-11-23", "days": 0}, "/days", "Days ahead"),
    (
        "coming-rounds",
        {"pots": [{"id": 1, "code": "F-01", "first_on": None, "interval_days": 0}], "today": "2026-11-23"},
        "/pots/0/interval_days",
        "Interval of F-01",
    ),
    ("readiness", {**PROBED, "rule": {"by": "probe", "at": 3}}, "/probe", "Choose the probe"),
    ("readiness", {**PROBED, "rule": {"by": "probe", "probe": {"name": "short probe"}}}, "/at", "at which reading"),
    (
        "readiness",
        {**PROBED, "rule": {"by": "probe", "at": 11, "probe": {"name": "short probe"}}},
        "/at",
        "Reading of short probe",
    ),
    (
        "readiness",
        {**PROBED, "rule": {"by": "probe", "at": 3, "probe": {"name": "p", "lowest": 9, "highest": 1}}},
        "/probe/lowest",
        "Put the lower end first",
    ),
    ("readiness", {**PROBED, "felt": {"probe_value": 12}}, "/felt/probe_value", "Reading of short probe"),
    ("readiness", {"rule": {"by": "weight", "at": 1.5}, "today": "2026-11-23"}, "/at", "Share of water left"),
    ("readiness", {"rule": {"by": "finger", "at": 7}, "today": "2026-11-23"}, "/at", "Dryness"),
    (
        "readiness",
        {"rule": {"by": "weight"}, "felt": {"left_share": 9}, "today": "2026-11-23"},
        "/felt/left_share",
        "Share of water left",
    ),
    ("resting-gate", {"root_cm": 60}, "/root_cm", "Roots long"),
    ("resting-gate", {"root_cm": 9, "roots": 0}, "/roots", "Roots so long"),
    ("resting-gate", {"root_cm": 9, "growth_needed_cm": 300}, "/growth_needed_cm", "Growth needed"),
    ("resting-gate", {"root_cm": 9, "roots_found_cm": [-1]}, "/roots_found_cm/0", "Root"),
    ("resting-gate", {"root_cm": 9, "growth_cm": 900}, "/growth_cm", "Growth"),
    ("arrival-ramp", {"ramp": {**RAMP, "target": 1}, "today": "2027-03-09"}, "/ramp/target", "is no rise"),
    ("arrival-ramp", {"ramp": {**RAMP, "step": 0}, "today": "2027-03-09"}, "/ramp/step", "never gets there"),
    ("arrival-ramp", {"ramp": {**RAMP, "every_days": 0}, "today": "2027-03-09"}, "/ramp/every_days", "Days between"),
    ("arrival-ramp", {"ramp": {**RAMP, "start": -1}, "today": "2027-03-09"}, "/ramp/start", "Start"),
    ("will-it-live", {**SHOP, "home": {"humidity_low_pct": 101}}, "/humidity_low", "Humidity"),
    ("will-it-live", {**SHOP, "home": {"humidity_low_pct": 60, "humidity_high_pct": 40}}, "/humidity_low", "turned"),
    ("will-it-live", {**SHOP, "home": {"night_C": -60}}, "/night", "Coldest night"),
    ("will-it-live", {**SHOP, "kind": {**ASKS, "minimum_C": 90}, "home": {}}, "/kind/minimum_C", "Least warmth"),
    ("first-pour", {"capacity_L": 0}, "/capacity_L", "Water held"),
    ("first-pour", {"capacity_L": 1, "leached": 0.9}, "/leached", "Share that drains"),
    ("first-pour", {"capacity_L": 1, "tray_cm2": 0, "depth_cm": 3}, "/tray_cm2", "Area of the tray"),
    ("first-pour", {"capacity_L": 1, "tray_cm2": 60}, "/depth_cm", "Depth in the tray"),
    ("signs-agree", {"signs": [], "today": "2026-11-23"}, "/least", "cannot agree"),
    ("signs-agree", {"signs": ["roots"], "least": 2, "today": "2026-11-23"}, "/least", "2 signs out of 1"),
    ("signs-agree", {"signs": ["roots", "roots"], "least": 1, "today": "2026-11-23"}, "/least", "out of 1"),
    ("signs-agree", {"signs": ["roots", "wall"], "least": 0, "today": "2026-11-23"}, "/least", "0 signs"),
    ("away-risk", {**JOURNEY, "back": "2026-12-20"}, "/back", "1 to 120 days after leaving"),
    ("away-risk", {**JOURNEY, "back": "2027-12-20"}, "/back", "365 days"),
    ("away-risk", {**JOURNEY, "pots": [{**AWAY_POT, "interval_days": 0}]}, "/pots/0/interval_days", "Interval of F-01"),
    ("away-risk", {**JOURNEY, "pots": [{**AWAY_POT, "low_days": 0}]}, "/pots/0/low_days", "Shortest interval of F-01"),
    (
        "away-risk",
        {**JOURNEY, "pots": [{**AWAY_POT, "high_days": 900}]},
        "/pots/0/high_days",
        "Longest interval of F-01",
    ),
]


@pytest.mark.parametrize(("calc", "inputs", "pointer", "says"), REFUSALS)
def test_refusal_names_field_and_way_out(calc: str, inputs: dict[str, Any], pointer: str, says: str) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(calc, inputs)
    assert refused.value.pointer == pointer
    assert says in refused.value.detail
    assert refused.value.detail.endswith((".", "?"))


def test_every_calculation_of_a_pot_that_takes_a_number_is_in_the_table() -> None:
    only_plain_values = {"phase", "holds"}  # their inputs are dates, words and figures that any value may take
    mine = {c.name for c in list_calculations() if c.function.__module__.startswith("fenwa.core.care")} - {"round"}
    assert mine - only_plain_values <= {row[0] for row in REFUSALS}


@pytest.mark.parametrize("never_dry", [True, False])
@pytest.mark.parametrize("interval", [1, 3, 6, 14, 40])
def test_a_helper_comes_before_any_pot_is_dry_and_never_for_one_at_rest(interval: float, never_dry: bool) -> None:
    pots = [
        {
            **AWAY_POT,
            "id": i,
            "interval_days": interval + i,
            "low_days": 0.7 * (interval + i),
            "high_days": 1.4 * (interval + i),
            "never_dry": never_dry,
            "keep_dry": i == 3,
            "hold": "Dormant." if i == 3 else "",
        }
        for i in range(4)
    ]
    plan = run_calculation("away-risk", {**JOURNEY, "pots": pots})["result"]
    assert all(3 not in v["pot_ids"] for v in plan["visits"])
    days = [date.fromisoformat(v["on"]) for v in plan["visits"]]
    assert days == sorted(set(days))
    assert all(date(2026, 12, 20) < d < date(2027, 1, 3) for d in days)
    for row in plan["rows"]:
        if row["risk"] == "high":
            visits = [date.fromisoformat(v["on"]) for v in plan["visits"] if row["pot_id"] in v["pot_ids"]]
            assert visits
            assert all(any(0 <= (date.fromisoformat(d) - v).days <= 1 for v in visits) for d in row["days"])
