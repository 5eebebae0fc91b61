"""Wrong input: a sentence that names field, value and way out."""

from typing import Any

import pytest

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.entry import read_number
from fenwa.core.errors import DomainError, Infeasible, InputError, OutOfRange, Overspecified, Underspecified

RAIN = {"ec25_uS_cm": 34, "kind": "rain", "name": "rain"}
N20 = {"name": "20 % N", "n_nitrate_pct": 20}
CAN = {"label": N20, "base": RAIN, "volume_L": 2, "strength": "nitrogen", "value": 50}
ANY = {"ec25_uS_cm": 50}

HARD = {
    "Ca_mg_L": 100,
    "Mg_mg_L": 6,
    "Na_mg_L": 20,
    "Cl_mg_L": 24.6,
    "SO4_mg_L": 45,
    "alkalinity_mg_L_CaCO3": 220,
    "pH": 7.4,
}
REFUSED: list[tuple[str, dict[str, Any], type[DomainError], str]] = [
    ("ec-at-25", {"value": -5}, OutOfRange, "Reading -5 µS/cm cannot be"),
    ("ec-at-25", {"value": 0}, OutOfRange, "Reading 0 µS/cm cannot be"),
    ("ec-at-25", {"value": 9000, "unit": "mS/cm"}, OutOfRange, "Check the unit"),
    ("ec-at-25", {"value": 300, "temperature_C": -40, "compensated": False}, OutOfRange, "temperature -40 °C.*0 to 60"),
    ("ec-at-25", {"value": 300, "compensated": False}, Underspecified, "temperature is missing.*Enter the temperature"),
    (
        "ec-at-25",
        {"value": 60, "unit": "ppm", "scale": "unknown"},
        Underspecified,
        "120 µS/cm on the 0.5.*94 µS/cm.*86 µS/cm on the 0.7",
    ),
    ("tds-to-ec", {"tds_ppm": 60, "scale": "unknown"}, Underspecified, "until then nothing is computed"),
    ("ion-conductivity", {"water": {"Ca_mg_L": -1}}, OutOfRange, "Ca -1 mg/L"),
    (
        "ion-conductivity",
        {"water": {"Ca_mg_L": 10, "pH": 15}},
        OutOfRange,
        "pH 15 cannot be. Enter a value from 0 to 14",
    ),
    ("ion-conductivity", {"water": {"pH": 7}}, InputError, "No ion is given"),
    ("label-to-elements", {"label": {"name": "x", "n_nitrate_pct": 60, "k_pct": 50}}, InputError, "add up to 110 %"),
    (
        "label-to-elements",
        {"label": {"name": "x", "n_total_pct": 20, "n_nitrate_pct": 5}},
        Overspecified,
        "add up to 5 %.*says 20",
    ),
    ("label-to-elements", {"label": {"name": " "}}, Underspecified, "Name is empty"),
    ("dose", {**CAN, "volume_L": 0}, OutOfRange, "Volume 0 L"),
    ("dose", {**CAN, "strength": "ec_total", "value": 20}, Infeasible, "Target 20 µS/cm is below rain itself, 34"),
    ("dose", {**CAN, "label": {"name": "Epsom", "mg_pct": 9.86, "s_pct": 13}}, Infeasible, "holds no nitrogen"),
    ("dose", {**CAN, "strength": "fraction", "value": 0.5}, Underspecified, "Label rate is not stated"),
    (
        "dose",
        {**CAN, "label": {"name": "Urea", "n_urea_pct": 46}, "strength": "ec_total", "value": 400},
        Infeasible,
        "urea is invisible",
    ),
    ("stock-solution", {"dose_g_L": 0.001, "volume_L": 0.05, "scale_step_g": 5}, Infeasible, "No stock fits"),
    (
        "blend",
        {
            "waters": [{"water": {"ec25_uS_cm": 400, "name": "Tap"}}, {"water": {**ANY, "name": "Rain"}}],
            "targets": [{"quantity": "ec", "value": 20}],
        },
        Infeasible,
        "EC 20 µS/cm cannot be blended: these waters reach 50 to 400",
    ),
    (
        "blend",
        {
            "waters": [{"water": {"ec25_uS_cm": 400, "name": "Tap"}}, {"water": {**ANY, "name": "Rain"}}],
            "targets": [{"quantity": "alkalinity", "value": 20}],
        },
        Underspecified,
        "Alkalinity of Tap is not known. Measure it",
    ),
    (
        "blend",
        {
            "waters": [
                {"water": {"ec25_uS_cm": 400, "name": "Tap"}, "on_hand_L": 1},
                {"water": {**ANY, "name": "Rain"}, "on_hand_L": 2},
            ],
            "targets": [{"quantity": "ec", "value": 200}],
            "volume_L": 10,
        },
        Infeasible,
        "Only 3 L are on hand and 10 L are wanted",
    ),
    (
        "blend",
        {"waters": [{"water": {"ec25_uS_cm": 400, "name": "Tap"}}], "targets": [{"quantity": "ec", "value": 200}]},
        InputError,
        "takes 2 to 6 waters",
    ),
    ("meter-calibration", {"points": [], "today": "2026-11-23"}, Underspecified, "No check yet"),
    (
        "meter-calibration",
        {"points": [{"on": "2026-11-20", "standard_uS_cm": 1413, "shown_uS_cm": 1.41}], "today": "2026-11-23"},
        InputError,
        "1.41 µS/cm in a 1413 µS/cm standard cannot be a check",
    ),
    (
        "meter-calibration",
        {
            "points": [{"on": "2026-11-20", "standard_uS_cm": 84, "shown_uS_cm": 80}],
            "today": "2026-11-23",
            "traits": {"compensation": "none"},
        },
        Underspecified,
        "Temperature of the standard is missing",
    ),
    (
        "meter-calibration",
        {"points": [{"on": "2026-11-25", "standard_uS_cm": 84, "shown_uS_cm": 80}], "today": "2026-11-23"},
        OutOfRange,
        "lies in the future",
    ),
    (
        "temperature-compensation",
        {"ec_uS_cm": 300, "temperature_C": 40, "method": "natural-water"},
        OutOfRange,
        "40 °C.*0 to 35",
    ),
    ("hardness-units", {"value": 900, "unit": "°dH"}, OutOfRange, "Hardness 900 °dH cannot be"),
    ("charge-balance", {"ions": {"pH": 7}}, InputError, "No ion is given"),
    ("membrane-trend", {"pairs": [], "today": "2026-11-23"}, Underspecified, "No pair yet"),
    (
        "membrane-trend",
        {"pairs": [{"on": "2026-11-20", "feed_uS_cm": 20, "permeate_uS_cm": 500}], "today": "2026-11-23"},
        OutOfRange,
        "reads more than its feed.*swapped",
    ),
    (
        "membrane-trend",
        {
            "pairs": [{"on": "2026-11-20", "feed_uS_cm": 500, "permeate_uS_cm": 20}],
            "today": "2026-11-23",
            "permeate_L": 5,
        },
        Underspecified,
        "needs both volumes",
    ),
    (
        "dechlorinate",
        {"volume_L": 10, "free_mg_L": 2, "total_mg_L": 1},
        InputError,
        "Free chlorine 2 mg/L is more than total, 1",
    ),
    (
        "acidify",
        {"ions": HARD, "volume_L": 10, "acid": "nitric", "strength_pct": 50, "value": 60},
        InputError,
        "Density of nitric acid at 50 % is not in the table",
    ),
    (
        "acidify",
        {"ions": HARD, "volume_L": 10, "acid": "nitric", "value": 60},
        Underspecified,
        "Strength of the nitric acid is missing",
    ),
    (
        "acidify",
        {"ions": HARD, "volume_L": 10, "acid": "citric", "value": 300},
        Infeasible,
        "220 mg/L of alkalinity already, not more than 300",
    ),
    (
        "acidify",
        {"ions": HARD, "volume_L": 10, "acid": "citric", "target": "pH", "value": 8},
        Infeasible,
        "at pH 7.4 already",
    ),
    (
        "acidify",
        {"ions": HARD, "volume_L": 10, "acid": "vinegar", "value": 60},
        InputError,
        "Acid “vinegar” is not known. Choose citric",
    ),
    (
        "acidify",
        {"ions": {"Ca_mg_L": 20}, "volume_L": 10, "acid": "citric", "value": 60},
        Underspecified,
        "Alkalinity of this water is not known",
    ),
    ("boil-and-settle", {"ions": {"Ca_mg_L": 20}}, Underspecified, "Calcium or alkalinity of this water is not known"),
    (
        "batch-check",
        {
            "predicted_uS_cm": 400,
            "predicted_low_uS_cm": 380,
            "predicted_high_uS_cm": 420,
            "measured_uS_cm": -1,
            "water_uS_cm": 40,
            "volume_L": 1,
        },
        OutOfRange,
        "Measured EC -1",
    ),
    ("pot-volume", {"top_cm": 10, "bottom_cm": 40, "height_cm": 10}, InputError, "Swap them"),
]


@pytest.mark.parametrize(("name", "inputs", "kind", "says"), REFUSED, ids=[f"{r[0]}: {r[3][:30]}" for r in REFUSED])
def test_refusal_names_value_and_way_out(name: str, inputs: dict[str, Any], kind: type[DomainError], says: str) -> None:
    with pytest.raises(kind, match=says) as refused:
        run_calculation(name, inputs)
    assert refused.value.detail.rstrip().endswith((".", "?"))


@pytest.mark.parametrize(
    ("typed", "value"),
    [
        ("0,41", 0.41),
        ("412", 412.0),
        (" 1 413 ", 1413.0),
        (".5", 0.5),
        ("-3", -3.0),
        ("\u22123", -3.0),
        (7, 7.0),
        ("12,3456", 12.3456),
        ("0,002", 0.002),
    ],
)
def test_numbers_are_read_as_typed(typed: str | float, value: float) -> None:
    assert read_number(typed, "Value") == value


@pytest.mark.parametrize(
    ("typed", "kind", "says"),
    [
        ("", Underspecified, "Value is empty"),
        (None, Underspecified, "Value is empty"),
        ("abc", InputError, "“abc” is not a number"),
        ("1e3", InputError, "is not a number"),
        ("1,413", InputError, "Write 1413 or 1.413"),
        (True, InputError, "not yes or no"),
        (float("nan"), InputError, "not a finite number"),
    ],
)
def test_what_is_no_number_is_said_so(typed: str | float | None, kind: type[DomainError], says: str) -> None:
    with pytest.raises(kind, match=says):
        read_number(typed, "Value")
