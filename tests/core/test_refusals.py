"""Wrong input: a sentence that names field, value and way out."""

from typing import Any

import pytest

from fenwa.api.calculations import run_calculation
from fenwa.core.entry import read_number
from fenwa.core.errors import DomainError, Infeasible, InputError, OutOfRange, Overspecified, Underspecified

RAIN = {"ec25_uS_cm": 34, "kind": "rain", "name": "rain"}
N20 = {"name": "20 % N", "n_nitrate_pct": 20}
CAN = {"label": N20, "base": RAIN, "volume_L": 2, "strength": "nitrogen", "value": 50}
ANY = {"ec25_uS_cm": 50}

REFUSED: list[tuple[str, dict[str, Any], type[DomainError], str]] = [
    ("ec-at-25", {"value": -5}, OutOfRange, "Reading -5 µS/cm cannot be"),
    ("ec-at-25", {"value": 0}, OutOfRange, "Reading 0 µS/cm cannot be"),
    ("ec-at-25", {"value": 9000, "unit": "mS/cm"}, OutOfRange, "Check the unit"),
    ("ec-at-25", {"value": 300, "temperature_C": -40, "compensated": False}, OutOfRange, "temperature -40 °C.*0 to 60"),
    ("ec-at-25", {"value": 300, "compensated": False}, Underspecified, "temperature is missing.*Enter the temperature"),
    ("ec-at-25", {"value": 60, "unit": "ppm", "scale": "unknown"}, Underspecified, "120 µS/cm on the 0.5.*94 µS/cm.*86 µS/cm on the 0.7"),
    ("tds-to-ec", {"tds_ppm": 60, "scale": "unknown"}, Underspecified, "until then nothing is computed"),
    ("ion-conductivity", {"water": {"Ca_mg_L": -1}}, OutOfRange, "Ca -1 mg/L"),
    ("ion-conductivity", {"water": {"Ca_mg_L": 10, "pH": 15}}, OutOfRange, "pH 15 cannot be. Enter a value from 0 to 14"),
    ("ion-conductivity", {"water": {"pH": 7}}, InputError, "No ion is given"),
    ("label-to-elements", {"label": {"name": "x", "n_nitrate_pct": 60, "k_pct": 50}}, InputError, "add up to 110 %"),
    ("label-to-elements", {"label": {"name": "x", "n_total_pct": 20, "n_nitrate_pct": 5}}, Overspecified, "add up to 5 %.*says 20"),
    ("label-to-elements", {"label": {"name": " "}}, Underspecified, "Name is empty"),
    ("dose", {**CAN, "volume_L": 0}, OutOfRange, "Volume 0 L"),
    ("dose", {**CAN, "strength": "ec_total", "value": 20}, Infeasible, "Target 20 µS/cm is below rain itself, 34"),
    ("dose", {**CAN, "label": {"name": "Epsom", "mg_pct": 9.86, "s_pct": 13}}, Infeasible, "holds no nitrogen"),
    ("dose", {**CAN, "strength": "fraction", "value": 0.5}, Underspecified, "Label rate is not stated"),
    ("dose", {**CAN, "label": {"name": "Urea", "n_urea_pct": 46}, "strength": "ec_total", "value": 400}, Infeasible, "urea is invisible"),
    ("stock-solution", {"dose_g_L": 0.001, "volume_L": 0.05, "scale_step_g": 5}, Infeasible, "No stock fits"),
    ("blend-two", {"salty": {"ec25_uS_cm": 400}, "pure": ANY, "target_uS_cm": 20}, Infeasible, "cannot be blended from 50 and 400"),
    ("batch-check", {"predicted_uS_cm": 400, "predicted_low_uS_cm": 380, "predicted_high_uS_cm": 420, "measured_uS_cm": -1, "water_uS_cm": 40, "volume_L": 1}, OutOfRange, "Measured EC -1"),
    ("pot-volume", {"top_cm": 10, "bottom_cm": 40, "height_cm": 10}, InputError, "Swap them"),
]  # fmt: skip


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
