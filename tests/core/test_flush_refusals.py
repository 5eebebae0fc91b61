"""Every refusal of the calculations of what comes out and of the flush: the sentence names field, value, way out."""

from typing import Any

import pytest

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.errors import DomainError

BARK = {"theta_cc": 0.25, "phi": 0.55, "t_half_h": 1.0, "eta": 0.5, "R": 1.1, "name": "bark"}
POT: dict[str, Any] = {"volume_L": 1.0, "medium": BARK}
POURS = [{"on": f"2026-10-{d:02}", "volume_L": 0.25, "ec_uS_cm": 420} for d in (1, 8, 15)]
LOG: dict[str, Any] = {"pot": POT, "events": POURS, "today": "2026-11-01"}
BATH = {"pot_water_L": 0.35, "start_uS_cm": 1500, "bath_L": 2, "water_uS_cm": 40, "target_uS_cm": 100}
TRAY = {"store_L": 1.2, "start_uS_cm": 20, "water_uS_cm": 40, "used_L": 3}
ROOM: dict[str, Any] = {"room_L": 1.2, "today": "2026-11-01", "events": []}
FULL = {"on": "2026-10-01", "did": "filled", "added_L": 1.0, "ec_uS_cm": 400}
RAIN = {"name": "rain", "ec_uS_cm": 40}
WAYS: dict[str, Any] = {"pot": POT, "root_zone_uS_cm": 1800, "target_reading_uS_cm": 400, "waters": [RAIN]}
YEAR: dict[str, Any] = {**LOG, "ceiling_uS_cm": 300, "target_uS_cm": 200, "water_uS_cm": 30}
AHEAD: dict[str, Any] = {**LOG, "ceiling_uS_cm": 300}
EQUAL = {"feed_uS_cm": 450, "start_uS_cm": 500, "lost_share": 0.3, "drained_share": 0.3, "runoffs_uS_cm": [560]}
RUNS: dict[str, Any] = {
    "passes": [],
    "water_uS_cm": 60,
    "stop_runoff_uS_cm": 330,
    "slope_per_L": 1.1,
    "round_L": 0.3,
    "pause_min": 20,
}


def read(**more: Any) -> dict[str, Any]:
    return {**LOG, "readings": [{"on": "2026-10-20", "ec_uS_cm": 500, **more}]}


def with_pour(**more: Any) -> dict[str, Any]:
    return {**LOG, "events": [{**POURS[0], **more}]}


LITRES: dict[str, Any] = {"pot": POT, "runoff_uS_cm": 1240, "target_uS_cm": 400, "water_uS_cm": 40}
REFUSALS: list[tuple[str, dict[str, Any], str, str]] = [
    ("flush-litres", {**LITRES, "runoff_uS_cm": 0}, "/runoff_uS_cm", "Runoff 0"),
    ("flush-litres", {**LITRES, "target_uS_cm": 20_001}, "/target_uS_cm", "Target 20"),
    ("flush-litres", {**LITRES, "water_uS_cm": -1}, "/water_uS_cm", "EC of the flush water -1"),
    ("flush-litres", {**LITRES, "water_uS_cm": 1200}, "/target_uS_cm", "Use a purer water or repot"),
    ("flush-litres", {**LITRES, "pot": {**POT, "volume_L": 0}}, "/pot/volume_L", "0"),
    ("dunk", {**BATH, "pot_water_L": 0}, "/pot_water_L", "Water in the pot 0"),
    ("dunk", {**BATH, "start_uS_cm": -1}, "/start_uS_cm", "Root zone -1"),
    ("dunk", {**BATH, "bath_L": 0}, "/bath_L", "Bath 0"),
    ("dunk", {**BATH, "water_uS_cm": 20_001}, "/water_uS_cm", "fresh water 20001"),
    ("dunk", {**BATH, "target_uS_cm": 0}, "/target_uS_cm", "Target 0"),
    ("dunk", {**BATH, "half_time_h": 0}, "/half_time_h", "Half time 0"),
    ("tray", {**TRAY, "store_L": 0}, "/store_L", "Water of tray and pot 0"),
    ("tray", {**TRAY, "start_uS_cm": -1}, "/start_uS_cm", "EC at the start -1"),
    ("tray", {**TRAY, "water_uS_cm": -1}, "/water_uS_cm", "EC of the refill -1"),
    ("tray", {**TRAY, "used_L": -1}, "/used_L", "Litres used -1"),
    ("tray", {**TRAY, "pot_L": 0}, "/pot_L", "Water in the pot 0"),
    ("tray", {**TRAY, "limit_uS_cm": 0}, "/limit_uS_cm", "Limit 0"),
    ("tray", {**TRAY, "loss_L_day": 0}, "/loss_L_day", "Loss a day 0"),
    ("tray", {**TRAY, "change_L": 0}, "/change_L", "Water of a change 0"),
    ("tray", {**TRAY, "target_uS_cm": 0}, "/target_uS_cm", "Target 0"),
    ("tray", {**TRAY, "change_water_uS_cm": -1}, "/change_water_uS_cm", "EC of the change -1"),
    ("reservoir", {**ROOM, "room_L": 0}, "/room_L", "Room 0"),
    ("reservoir", {**ROOM, "keep_share": 0}, "/keep_share", "Kept filled to 0"),
    ("reservoir", {**ROOM, "uptake": 2}, "/uptake", "Uptake fraction 2"),
    ("reservoir", {**ROOM, "limit_uS_cm": 0}, "/limit_uS_cm", "Limit 0"),
    ("reservoir", {**ROOM, "refill_uS_cm": -1}, "/refill_uS_cm", "EC of the refill -1"),
    ("reservoir", {**ROOM, "medium_water_L": 0}, "/medium_water_L", "Water in the medium 0"),
    ("reservoir", {**ROOM, "medium_start_uS_cm": -1}, "/medium_start_uS_cm", "EC of the medium -1"),
    ("reservoir", {**ROOM, "drawn_L": -1}, "/drawn_L", "Drawn up -1"),
    ("reservoir", {**ROOM, "events": [{**FULL, "on": "2026-12-01"}]}, "/events/0/on", "after today"),
    ("reservoir", {**ROOM, "events": [{**FULL, "added_L": 2}]}, "/events/0/added_L", "Added 2"),
    ("reservoir", {**ROOM, "events": [{**FULL, "level_before_L": 2}]}, "/events/0/level_before_L", "Level 2"),
    ("reservoir", {**ROOM, "events": [{**FULL, "ec_uS_cm": -1}]}, "/events/0/ec_uS_cm", "EC -1"),
    ("reservoir", {**ROOM, "events": [{**FULL, "reading_uS_cm": 0}]}, "/events/0/reading_uS_cm", "Reading 0"),
    ("flush-methods", {**WAYS, "waters": []}, "/waters", "0 waters"),
    ("flush-methods", {**WAYS, "root_zone_uS_cm": -1}, "/root_zone_uS_cm", "Root zone -1"),
    ("flush-methods", {**WAYS, "waters": [{**RAIN, "ec_uS_cm": -1}]}, "/waters/0/ec_uS_cm", "EC of rain -1"),
    ("flush-methods", {**WAYS, "waters": [{**RAIN, "left_L": -1}]}, "/waters/0/left_L", "Left of rain -1"),
    ("flush-methods", {**WAYS, "waters": [{**RAIN, "price_L": -1}]}, "/waters/0/price_L", "Price of rain -1"),
    ("flush-methods", {**WAYS, "target_reading_uS_cm": 0}, "/target_reading_uS_cm", "Target reading 0"),
    ("flush-methods", {**WAYS, "deficit_L": 5}, "/deficit_L", "Refill before it drains 5"),
    ("flush-methods", {**WAYS, "round_L": 0}, "/round_L", "Water of one round 0"),
    ("flush-methods", {**WAYS, "pause_min": -1}, "/pause_min", "Pause -1"),
    ("flush-schools", {**YEAR, "ceiling_uS_cm": 0}, "/ceiling_uS_cm", "Ceiling 0"),
    ("flush-schools", {**YEAR, "target_uS_cm": 0}, "/target_uS_cm", "Target 0"),
    ("flush-schools", {**YEAR, "water_uS_cm": -1}, "/water_uS_cm", "flush water -1"),
    ("flush-schools", {**YEAR, "days": 3}, "/days", "Days 3"),
    ("flush-schools", {**YEAR, "cadence_days": 1}, "/cadence_days", "Cadence 1"),
    ("flush-schools", {**YEAR, "events": []}, "/events", "Log a pour first"),
    ("rhythm-change", {**AHEAD, "ceiling_uS_cm": 0}, "/ceiling_uS_cm", "Ceiling 0"),
    ("rhythm-change", {**AHEAD, "horizon_days": 5}, "/horizon_days", "Horizon 5"),
    ("rhythm-change", {**AHEAD, "waters_uS_cm": [-1]}, "/waters_uS_cm/0", "Water -1"),
    ("rhythm-change", {**AHEAD, "base_uS_cm": -1}, "/base_uS_cm", "Water of the feed -1"),
    ("rhythm-change", {**AHEAD, "events": POURS[:1]}, "/events", "Log two pours first"),
    ("calibrate-cycle", {**EQUAL, "feed_uS_cm": 0}, "/feed_uS_cm", "EC of the feed 0"),
    ("calibrate-cycle", {**EQUAL, "start_uS_cm": 0}, "/start_uS_cm", "Root zone at the start 0"),
    ("calibrate-cycle", {**EQUAL, "lost_share": 1}, "/lost_share", "Share lost 1"),
    ("calibrate-cycle", {**EQUAL, "drained_share": 0}, "/drained_share", "Drained over held 0"),
    ("calibrate-cycle", {**EQUAL, "runoffs_uS_cm": []}, "/runoffs_uS_cm", "No runoff was read"),
    ("calibrate-cycle", {**EQUAL, "runoffs_uS_cm": [0]}, "/runoffs_uS_cm/0", "Runoff 0"),
    ("calibrate-cycle", {**EQUAL, "runoffs_uS_cm": [500] * 101}, "/runoffs_uS_cm", "101 waterings"),
    ("calibrate-cycle", {**EQUAL, "eta": 0}, "/eta", "Leaching efficiency 0"),
    ("calibrate-cycle", {**EQUAL, "u": 1}, "/u", "Uptake fraction 1"),
    ("calibrate-cycle", {**EQUAL, "reading_sd": 0}, "/reading_sd", "Spread of a reading 0"),
    ("calibrate-cycle", {**EQUAL, "eta_sd_ln": 0}, "/eta_sd_ln", "Spread of the efficiency 0"),
    ("calibrate-cycle", {**EQUAL, "u_sd_logit": 0}, "/u_sd_logit", "Spread of the uptake 0"),
    ("calibrate-pot", read(on="2026-11-02"), "/readings/0/on", "after today"),
    ("calibrate-pot", read(ec_uS_cm=0), "/readings/0/ec_uS_cm", "Reading 0"),
    ("calibrate-pot", read(method="last"), "/readings/0/method", "with its pour"),
    ("calibrate-pot", with_pour(runoff_L=0.4), "/events/0/runoff_L", "more than the 0.25 L poured"),
    ("calibrate-pot", with_pour(soak_h=100), "/events/0/soak_h", "Soak before the pour 100"),
    ("root-zone", read(ec_uS_cm=0), "/readings/0/ec_uS_cm", "Reading 0"),
    ("flush-session", {**RUNS, "water_uS_cm": -1}, "/water_uS_cm", "flush water -1"),
    ("flush-session", {**RUNS, "slope_per_L": 0}, "/slope_per_L", "Slope 0"),
    ("flush-session", {**RUNS, "round_L": 0}, "/round_L", "Water of a pass 0"),
    ("flush-session", {**RUNS, "pause_min": -1}, "/pause_min", "Soak -1"),
    ("flush-session", {**RUNS, "refill_L": -1}, "/refill_L", "Refill -1"),
    ("flush-session", {**RUNS, "expected_first_uS_cm": -1}, "/expected_first_uS_cm", "First runoff expected -1"),
    ("flush-session", {**RUNS, "root_zone_uS_cm": -1, "pot": POT}, "/root_zone_uS_cm", "Root zone -1"),
]


@pytest.mark.parametrize(
    ("name", "inputs", "pointer", "words"), REFUSALS, ids=lambda v: v if isinstance(v, str) else ""
)
def test_what_cannot_be_is_refused_at_its_field(name: str, inputs: dict[str, Any], pointer: str, words: str) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(name, inputs)
    assert refused.value.pointer == pointer
    assert words in str(refused.value)
