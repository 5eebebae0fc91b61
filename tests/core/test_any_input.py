"""Every registered calculation, fed from its own JSON schema at the edges and beyond: an answer or a sentence."""

import math
import os
import re
from typing import Any

import pytest
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from fenwa.api.calc.calculations import describe, run_calculation
from fenwa.core.calculations import get_calculation, list_calculations
from fenwa.core.errors import DomainError
from tests.core.test_registry import runs
from tests.from_schema import altered, from_schema

PHASES = (
    Phase.explicit,
    Phase.reuse,
    Phase.generate,
)  # a found fault is shown as found: making it smaller takes minutes
TRIES = int(os.environ.get("FENWA_TRIES", "15"))  # more by hand, over a night
NAMES = [c.name for c in list_calculations()]
GOOD: dict[str, list[dict[str, Any]]] = {name: [inputs for n, inputs in runs() if n == name] for name in NAMES}
# amounts end in these; what may be below nothing is named in full
AMOUNTS = ("_L", "_mL", "_g", "_g_L", "_mL_per_L", "_min", "_days", "_uS_cm", "rounds", "litres", "_weeks", "_mg")
SIGNED = {
    "added_uS_cm",
    "gap_uS_cm",
    "offset_uS_cm",
    "drift_uS_cm",
    "step_uS_cm",
    "change_uS_cm",
    "difference_uS_cm",
    "left_days",
    "net_mg_L",
    "high_mg_L",
    "headroom_uS_cm",
    "headroom_mg_L",
    "headroom_nitrogen_mg_L",
    "ec_added_uS_cm",
    "feed_acidity_mg_L",
    "unlisted_meq_g",
    "low_mg_L",
    "acidity_mg_L",
    "slowing_days",
    "window_days",
}


def faults(value: Any, path: str = "") -> list[str]:
    """What no answer may hold: numbers that are none, endless ones, amounts below nothing."""
    if isinstance(value, dict):
        return [f for k, v in value.items() for f in faults(v, f"{path}/{k}")]
    if isinstance(value, list):
        return [f for i, v in enumerate(value) for f in faults(v, f"{path}/{i}")]
    if isinstance(value, bool) or not isinstance(value, int | float):
        return []
    if not math.isfinite(value):
        return [f"{path.rsplit('/', 2)[-2:]} is {value}"]
    name = path.rsplit("/", 1)[-1]
    below = value < -1e-9 and path.startswith("/result") and name.endswith(AMOUNTS) and name not in SIGNED
    return [f"{name} at {path} is {value}"] if below else []


def answered(name: str, inputs: Any) -> None:
    try:
        answer = run_calculation(name, inputs)
    except ValidationError:
        return
    except DomainError as refused:
        assert_plain(refused.detail)
        return
    assert faults(answer) == []


def assert_plain(sentence: str) -> None:
    """A refusal is a whole sentence without a number nobody could type again."""
    assert sentence.strip().endswith((".", "?")), sentence
    assert len(sentence) < 900
    assert not re.search(r"\bnan\b|\binf\b|Traceback|\de[+-]\d", sentence), sentence


@pytest.mark.parametrize("name", NAMES)
@given(data=st.data())
@settings(max_examples=TRIES, deadline=None, suppress_health_check=list(HealthCheck), phases=PHASES)
def test_an_answer_or_a_refusal_never_a_crash(name: str, data: st.DataObject) -> None:
    schema = describe(get_calculation(name))["input_schema"]
    defs = schema.get("$defs", {})
    near = altered(data.draw(st.sampled_from(GOOD[name])), schema, defs)
    answered(name, data.draw(near if data.draw(st.integers(0, 3)) else from_schema(schema, defs)))


@pytest.mark.parametrize(
    ("name", "changes", "says"),
    [
        ("flush-plan", {"deficit_L": -3}, "Refill before it drains -3 L cannot be"),
        ("flush-plan", {"round_L": 1e-6}, "Water of one round 0.000001 L cannot be"),
        ("ion-conductivity", {"added": {"K_mg_L": -5}}, "Added K -5 mg/L cannot be"),
        ("root-zone", {"today": "9999-12-31"}, "no day of a log"),
        (
            "feed-conductivity",
            {"slope": {"factor": -3, "factor_low": -3, "factor_high": -3, "slope_uS_per_g_L": -900, "batches": 3}},
            "Own slope over the model’s -3",
        ),
    ],
)
def test_what_was_taken_is_refused(name: str, changes: dict[str, Any], says: str) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(name, {**GOOD[name][0], **changes})
    assert says in refused.value.detail
    assert refused.value.pointer


@pytest.mark.parametrize("alkalinity", [5100, 5199, 5200, 5201, 5250, 5299, 5300, 5400, 20_000])
def test_acid_for_any_alkalinity_is_an_answer_or_a_sentence(alkalinity: float) -> None:
    ions = {"Ca_mg_L": 100, "Na_mg_L": 2000, "alkalinity_mg_L_CaCO3": alkalinity, "pH": 8}
    for target, value in (("alkalinity", 60), ("pH", 6.0)):
        answered(
            "acidify",
            {"ions": ions, "volume_L": 10, "acid": "nitric", "strength_pct": 38, "target": target, "value": value},
        )
