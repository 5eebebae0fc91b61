"""Every calculation of the Mix station refuses what cannot be, naming field, value and way out."""

from typing import Any

import pytest
from pydantic import ValidationError

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.errors import DomainError

FEED = {"name": "13-3-15", "n_nitrate_pct": 13, "k_pct": 15, "label_rate": 1}
SALT = {"name": "Ca nitrate", "formula": "Ca(NO3)2.4H2O"}
UREA = {"name": "Urea", "formula": "CO(NH2)2"}
PREY = {"name": "Prey", "kind": "no ppm"}
PRILL = {"name": "Prills", "kind": "prill", "n_total_pct": 14, "longevity_days": 180}
RAIN = {"ec25_uS_cm": 34, "kind": "rain", "name": "Rain"}
CAN = {"label": FEED, "base": RAIN, "volume_L": 2, "strength": "nitrogen", "value": 40}
MADE = [{"label": SALT, "dose_g_L": 0.5}]
FIT = {"base": RAIN, "products": [FEED, SALT], "targets": [{"element": "N", "mg_L": 60}]}
SCHOOL = {
    "id": "x",
    "name": "x",
    "group": "",
    "definition": "",
    "in_favour": "",
    "against": "",
    "n_mg_L": 50,
    "n_low_mg_L": 30,
    "n_high_mg_L": 60,
    "cycle": 4,
    "feeds": 3,
    "route": "root",
    "source": "judgement",
    "confidence": "M",
    "checked_by": "x",
}
RESCUE = {"label": FEED, "base": RAIN, "volume_L": 2, "measured_uS_cm": 400, "target_g_L": 0.4}
STOCK = {"feeds": MADE, "volume_L": 2}

WRONG: list[tuple[str, dict[str, Any], str, str]] = [
    ("dose", {**CAN, "volume_L": 0}, "/volume_L", "Volume 0 L cannot be"),
    ("dose", {**CAN, "value": -1}, "/value", "Nitrogen -1 mg/L cannot be. Enter a value from 0 to 2000"),
    (
        "dose",
        {**CAN, "strength": "fraction", "value": 0.5, "label": {**FEED, "label_rate": None}},
        "/strength",
        "a share of it means nothing",
    ),
    ("dose", {**CAN, "strength": "fraction", "value": 9}, "/value", "Share of the label rate 9 cannot be"),
    ("dose", {**CAN, "strength": "element", "element": "X"}, "/element", "Element “X” is not a choice"),
    ("dose", {**CAN, "strength": "element", "element": "Ca"}, "/strength", "holds no Ca, so no dose gives 40 mg/L Ca"),
    ("dose", {**CAN, "strength": "dose", "value": 25}, "/value", "Dose 25 g/L cannot be meant for a feed"),
    ("dose", {**CAN, "strength": "ec_total", "value": 20}, "/value", "below Rain itself, 34 µS/cm"),
    ("dose", {**CAN, "label": UREA, "strength": "ec_added", "value": 300}, "/value", "urea is invisible to a pen"),
    ("dose", {**CAN, "label": PREY}, "/product_id", "Prey has no ppm"),
    ("dose", {**CAN, "also": [{"label": PRILL, "dose_g_L": 1}]}, "/product_id", "Prills releases over months"),
    (
        "dose",
        {**CAN, "also": [{"label": SALT, "dose_g_L": -1}]},
        "/also/0/dose_g_L",
        "Dose of Ca nitrate -1 g/L cannot be",
    ),
    ("dose", {**CAN, "also": [{"label": SALT, "dose_g_L": 0}] * 6}, "/also", "at most 6 products"),
    ("dose", {**CAN, "scale_step_g": 0}, "/scale_step_g", "Scale step 0 g cannot be"),
    ("dose", {**CAN, "ceiling_uS_cm": -5}, "/ceiling_uS_cm", "Ceiling -5 µS/cm cannot be"),
    ("feed-conductivity", {"base": RAIN, "feeds": []}, "/feeds", "takes 1 to 6 products; 0 given"),
    (
        "feed-conductivity",
        {"base": RAIN, "feeds": [{"label": SALT, "dose_g_L": 99}]},
        "/feeds/0/dose_g_L",
        "99 g/L cannot be",
    ),
    ("feed-conductivity", {"base": {**RAIN, "ec25_uS_cm": -1}, "feeds": MADE}, "/base/ec25_uS_cm", "EC of Rain -1"),
    ("headroom", {"label": FEED, "base": RAIN, "pots": []}, "/pots", "No pot is chosen"),
    (
        "headroom",
        {"label": FEED, "base": RAIN, "pots": [{"name": "P", "ceiling_uS_cm": 20}]},
        "/water_id",
        "no feed fits",
    ),
    (
        "headroom",
        {"label": UREA, "base": RAIN, "pots": [{"name": "P", "ceiling_uS_cm": 400}]},
        "/strength",
        "EC cannot limit it",
    ),
    (
        "headroom",
        {"label": FEED, "base": RAIN, "pots": [{"name": "P", "ceiling_uS_cm": -4}]},
        "/pots/0/ceiling_uS_cm",
        "Ceiling of P",
    ),
    (
        "strength-equivalents",
        {"label": FEED, "base": RAIN, "strength": "fraction", "value": "some"},
        "/value",
        "is not understood",
    ),
    (
        "strength-equivalents",
        {"label": FEED, "base": RAIN, "strength": "nitrogen", "value": "1,200"},
        "/value",
        "can be read two ways",
    ),
    ("recipe-fit", {**FIT, "products": []}, "/products", "takes 1 to 6 products"),
    ("recipe-fit", {**FIT, "products": [FEED, FEED]}, "/products", "chosen twice"),
    ("recipe-fit", {**FIT, "targets": []}, "/targets", "No target is given"),
    ("recipe-fit", {**FIT, "targets": [{"element": "Pb", "mg_L": 3}]}, "/targets/0", "Element “Pb” is not a choice"),
    ("recipe-fit", {**FIT, "targets": [{"element": "N", "mg_L": 0}]}, "/targets/0", "leave out what does not matter"),
    ("recipe-fit", {**FIT, "targets": [{"element": "N", "mg_L": 5}] * 2}, "/targets", "aimed at twice"),
    ("recipe-fit", {**FIT, "nitrate_share_min": 2}, "/nitrate_share_min", "Nitrate share 2 cannot be"),
    ("recipe-fit", {**FIT, "ec_cap_uS_cm": 20}, "/ec_cap_uS_cm", "over the cap of 20"),
    ("recipe-fit", {**FIT, "cost_max_per_L": 0.1}, "/cost_max_per_L", "A price is not known"),
    ("recipe-fit", {**FIT, "volume_L": -1}, "/volume_L", "Volume -1 L cannot be"),
    ("stock-solution", {"volume_L": 2}, "/dose_g_L", "Nothing to dissolve is named"),
    ("stock-solution", {**STOCK, "volume_L": 0}, "/volume_L", "Volume 0 L cannot be"),
    ("stock-solution", {**STOCK, "storage_C": 60}, "/storage_C", "Coldest store 60 °C cannot be"),
    ("stock-solution", {"dose_g_L": 0.001, "volume_L": 0.1}, "/volume_L", "No stock fits 0.001 g/L"),
    (
        "stock-solution",
        {
            "feeds": [{"label": {"name": "K2SO4", "formula": "K2SO4", "solubility_g_L": 110}, "dose_g_L": 5}],
            "volume_L": 2,
            "draw_mL_per_L": 10,
        },
        "/draw_mL_per_L",
        "K2SO4 at 500 g/L would not all dissolve",
    ),
    ("injector", {"base": RAIN, "feeds": [], "ratio": 100}, "/feeds", "takes 1 to 6 products; 0 given"),
    ("injector", {"base": RAIN, "feeds": MADE, "ratio": 1}, "/ratio", "Ratio 1 cannot be. Enter a value from 2 to 500"),
    ("injector", {"base": RAIN, "feeds": MADE, "ratio": 100, "tank_L": 0}, "/tank_L", "Tank 0 L cannot be"),
    ("serial-dilution", {"stock_g_L": 20}, "/target_mg_L", "Neither a strength nor steps"),
    (
        "serial-dilution",
        {"stock_g_L": 2, "target_mg_L": 5000},
        "/target_mg_L",
        "Enter less than the stock itself, 2000 mg/L",
    ),
    (
        "serial-dilution",
        {"stock_g_L": 20, "steps": [{"draw_mL": 50, "to_mL": 20}]},
        "/steps/0/to_mL",
        "Fill up to more than is drawn",
    ),
    (
        "serial-dilution",
        {"stock_g_L": 900, "target_mg_L": 0.01, "final_mL": 20},
        "/final_mL",
        "No two steps bring 900 g/L",
    ),
    (
        "dose-curve",
        {"low": {"dose_g_L": 1, "rise_uS_cm": 900}, "high": {"dose_g_L": 0.5, "rise_uS_cm": 500}, "dose_g_L": 0.6},
        "/high/dose_g_L",
        "Swap them",
    ),
    (
        "dose-curve",
        {"low": {"dose_g_L": 0.25, "rise_uS_cm": 100}, "high": {"dose_g_L": 1, "rise_uS_cm": 900}, "dose_g_L": 0.6},
        "/high/rise_uS_cm",
        "bend the wrong way",
    ),
    (
        "slopes-of-two",
        {"batches": [{"first_g_L": 1, "second_g_L": 1, "rise_uS_cm": 900}]},
        "/batches",
        "different proportions are needed",
    ),
    (
        "slopes-of-two",
        {"batches": [{"first_g_L": 1, "second_g_L": 1, "rise_uS_cm": 900}] * 2},
        "/batches",
        "cannot be told apart",
    ),
    ("urea-turned", {"ec_uS_cm": 300, "urea_N_mg_L": -1}, "/urea_N_mg_L", "Urea nitrogen -1 mg/L cannot be"),
    (
        "precipitation-check",
        {"base": RAIN, "feeds": MADE, "times": 0.5},
        "/times",
        "Strength of the stock over the can 0.5 times",
    ),
    (
        "precipitation-check",
        {"base": RAIN, "feeds": MADE, "storage_C": -5},
        "/storage_C",
        "Coldest store -5 °C cannot be",
    ),
    ("acid-base-tendency", {"feeds": []}, "/feeds", "takes 1 to 6 products"),
    (
        "acid-base-tendency",
        {"feeds": MADE, "alkalinity_mg_L_CaCO3": -1},
        "/alkalinity_mg_L_CaCO3",
        "Alkalinity -1 mg/L CaCO3",
    ),
    ("calcium-lift", {"calcium_mg_L": 4, "nitrogen_mg_L": 60, "supplement": FEED}, "/supplement", "holds no calcium"),
    (
        "calcium-lift",
        {"calcium_mg_L": -4, "nitrogen_mg_L": 60, "supplement": SALT},
        "/calcium_mg_L",
        "Calcium -4 mg/L cannot be",
    ),
    ("batch-rescue", {**RESCUE, "volume_L": 0}, "/volume_L", "In the can 0 L cannot be"),
    ("batch-rescue", {**RESCUE, "measured_uS_cm": 0}, "/measured_uS_cm", "Reading 0 µS/cm cannot be"),
    ("batch-rescue", {**RESCUE, "target_g_L": 99}, "/target_g_L", "Dose wanted 99 g/L cannot be"),
    ("batch-rescue", {**RESCUE, "vessel_L": 0}, "/vessel_L", "Vessel 0 L cannot be"),
    ("batch-rescue", {**RESCUE, "age_days": -1}, "/age_days", "Age -1 d cannot be"),
    ("spoon-calibration", {"kind": "spoon", "weighings": [1, 1.1]}, "/weighings", "weigh five level ones, at least 3"),
    ("spoon-calibration", {"kind": "dropper", "weighings": []}, "/weighings", "Count the drops in one millilitre"),
    ("spoon-calibration", {"kind": "cap", "weighings": [1, 0, 1]}, "/weighings/1", "Weighing 2 0 g cannot be"),
    (
        "spoon-calibration",
        {"kind": "spoon", "weighings": [1, 1, 1], "volume_mL": 0},
        "/volume_mL",
        "Volume of the measure 0 mL",
    ),
    (
        "spoon-calibration",
        {"kind": "spoon", "weighings": [1, 1, 1], "levels_each": 0},
        "/levels_each",
        "Level measures in each weighing 0",
    ),
    (
        "compare-feeds",
        {"first": FEED, "second": SALT, "base": RAIN, "basis": "cost", "value": 1},
        "/first",
        "Enter it on the shelf",
    ),
    (
        "compare-feeds",
        {
            "first": FEED,
            "second": {"name": "Epsom", "formula": "MgSO4.7H2O"},
            "base": RAIN,
            "basis": "nitrogen",
            "value": 50,
        },
        "/second",
        "Epsom holds no nitrogen: compare by EC",
    ),
    (
        "compare-feeds",
        {"first": UREA, "second": FEED, "base": RAIN, "basis": "ec_added", "value": 50},
        "/first",
        "compare by nitrogen",
    ),
    (
        "compare-feeds",
        {"first": FEED, "second": SALT, "base": RAIN, "basis": "nitrogen", "value": 0},
        "/value",
        "Nitrogen 0 mg/L cannot be",
    ),
    (
        "school-load",
        {"school": {**SCHOOL, "feeds": 5}, "pot": {}},
        "/school/feeds",
        "5 waterings with feed out of 4 cannot be",
    ),
    ("school-load", {"school": {**SCHOOL, "cycle": 0}, "pot": {}}, "/school/cycle", "Waterings in a cycle 0 cannot be"),
    ("school-load", {"school": SCHOOL, "pot": {"volume_L": 0}}, "/pot/volume_L", "Pot 0 L cannot be"),
    ("school-load", {"school": SCHOOL, "pot": {}, "water_uS_cm": -1}, "/water_uS_cm", "EC of the water -1"),
    (
        "cost-and-stock",
        {"dose_per_L": -1, "litres_per_month": 4, "today": "2026-11-23"},
        "/dose_per_L",
        "Dose -1 g/L cannot be",
    ),
    (
        "cost-and-stock",
        {"dose_per_L": 1, "litres_per_month": 4, "today": "2026-11-23", "pack_amount": 0},
        "/pack_amount",
        "Pack 0 g cannot be",
    ),
    ("product-slope", {"batches": []}, "/batches", "needs 3 measured batches; 0 logged"),
    (
        "product-slope",
        {"batches": [{"dose_g_L": 0.3, "model_rise_uS_cm": 0, "measured_rise_uS_cm": 5}] * 3},
        "/batches/0",
        "Batch 1 adds no conductivity",
    ),
    (
        "product-slope",
        {"batches": [{"dose_g_L": 0, "model_rise_uS_cm": 1, "measured_rise_uS_cm": 5}] * 3},
        "/batches/0/dose_g_L",
        "Dose 0 g/L cannot be",
    ),
    ("read-grade", {"text": " "}, "/text", "Grade is empty"),
    ("read-grade", {"text": "60-60-60"}, "/text", "adds up to 180 %"),
    ("label-to-elements", {"label": {"name": "x", "formula": "Q2"}}, "/label/formula", "is not understood"),
    (
        "batch-check",
        {
            "predicted_uS_cm": 400,
            "predicted_low_uS_cm": 380,
            "predicted_high_uS_cm": 420,
            "measured_uS_cm": 410,
            "water_uS_cm": 34,
            "volume_L": 1,
            "ceiling_uS_cm": -1,
        },
        "/ceiling_uS_cm",
        "Ceiling -1 µS/cm cannot be",
    ),
]


@pytest.mark.parametrize(("name", "body", "pointer", "says"), WRONG, ids=[f"{w[0]} {w[3][:32]}" for w in WRONG])
def test_what_cannot_be_is_refused_in_a_plain_sentence(
    name: str, body: dict[str, Any], pointer: str, says: str
) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(name, body)
    assert says in refused.value.detail
    assert refused.value.pointer == pointer
    assert refused.value.detail.endswith((".", ")"))


def test_each_calculation_of_the_station_refuses_something() -> None:
    from fenwa.core.calculations import list_calculations

    of_mix = {c.name for c in list_calculations() if c.station == "mix"}
    assert {w[0] for w in WRONG} >= of_mix


@pytest.mark.parametrize("name", ["dose", "recipe-fit", "school-load", "spoon-calibration"])
def test_a_key_nobody_knows_is_refused(name: str) -> None:
    with pytest.raises(ValidationError, match="Extra inputs are not permitted"):
        run_calculation(name, {"colour": "blue"})


def test_nothing_is_computed_from_what_is_not_a_number() -> None:
    for value in (float("nan"), float("inf")):
        with pytest.raises((DomainError, ValidationError)):
            run_calculation("dose", {**CAN, "value": value})
        with pytest.raises((DomainError, ValidationError)):
            run_calculation("serial-dilution", {"stock_g_L": value, "target_mg_L": 10})
