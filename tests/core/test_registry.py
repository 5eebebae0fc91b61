"""Each registered calculation: documented, runnable from JSON, its working replayed line by line."""

import math
from collections.abc import Iterator
from typing import Any

import pytest

from fenwa.api.calc.calculations import describe, run_calculation
from fenwa.core.calculations import get_calculation, list_calculations
from fenwa.core.errors import NotFound
from fenwa.core.library.loader import sources
from tests.core.test_cases import CASES

NAMES = [c.name for c in list_calculations()]
FIRST = {
    "ec-at-25",
    "tds-to-ec",
    "ec-to-tds",
    "ion-conductivity",
    "water-verdict",
    "label-to-elements",
    "dose",
    "stock-solution",
    "batch-check",
    "blend",
    "root-zone",
    "flush-plan",
}

BARK = {"theta_cc": 0.25, "phi": 0.55, "t_half_h": 1.0, "eta": 0.5, "R": 1.1, "name": "bark"}
LABEL = {
    "name": "13-3-15",
    "n_nitrate_pct": 11.6,
    "n_ammonium_pct": 1.4,
    "p_pct": 3,
    "k_pct": 15,
    "ca_pct": 8,
    "mg_pct": 2,
    "label_rate": 1,
}
REST = {
    "kind": "dry",
    "enter": "leaves fall",
    "restart": "roots",
    "window_days": [-30, 75],
    "slowing_days": [-70, -30],
    "root_gate_cm": 8,
}
POT = {"volume_L": 1.0, "medium": BARK}
EVENTS = [
    {
        "on": f"2026-{m:02}-{d:02}",
        "volume_L": 0.25,
        "ec_uS_cm": 420 if d % 4 else 40,
        "runoff_ec_uS_cm": 500 if (m, d) == (9, 13) else None,
    }
    for m in (8, 9, 10)
    for d in (1, 7, 13, 19, 25)
]
LEAVES_SEEN = [
    {"on": f"2026-{m:02}-05", "value": v, "begun_on": f"2026-{m - 1:02}-06"}
    for m, v in ((2, 140.0), (3, 150.0), (4, 141.0), (5, 137.0), (6, 130.0), (8, 150.0), (9, 162.0))
]
EXAMPLES: dict[str, dict[str, Any]] = {
    "first-plan": {
        "lines": [{"line": "6 masdevallia"}],
        "waters": [{"kind": "rain", "low_uS_cm": 8, "high_uS_cm": 45}],
    },
    "said-pots": {"line": "6 Phalaenopsis in bark, 12 cm"},
    "did-it-help": {
        "change_on": "2026-06-20",
        "words": "flush",
        "treated": LEAVES_SEEN,
        "control": [{**x, "value": 150.0} for x in LEAVES_SEEN],
        "lag_low_days": 10,
        "lag_high_days": 28,
        "today": "2026-11-23",
        "others": [{"on": "2026-07-01", "words": "feed cut", "whose": "one"}],
    },
    "next-checks": {"weights": [{"cause": "salt", "weight": 0.5}, {"cause": "wet", "weight": 0.4}]},
    "fit-of-kind": {
        "kind": {"humidity_pct": [50, 70], "night_C": [16, 20], "minimum_C": 12, "water_max_uS_cm": 300},
        "home": {"humidity_low_pct": 35, "humidity_high_pct": 45, "night_C": 15},
        "choice": {"ids": [1]},
        "waters": [{"name": "Rain", "may": True, "price_per_L": 0.4}],
        "litres_month": 4,
        "price_kWh": 0.3,
        "light_mol": 2,
        "asks_light_mol": 8,
    },
    "leaf-line": {
        "leaves": [
            {"opened_on": "2026-05-02", "lengths": [{"on": "2026-05-02", "mm": 150.0}]},
            {"opened_on": "2026-07-01", "lengths": [{"on": "2026-07-20", "mm": 160.0, "growing": False}]},
            {"opened_on": "2026-11-01", "lengths": [{"on": "2026-11-09", "mm": 60.0, "growing": True}]},
        ],
        "changes": [{"on": "2026-09-08", "words": "flush", "lag_low_days": 10, "lag_high_days": 28}],
        "today": "2026-11-23",
    },
    "rhythms-together": {
        "pots": [
            {"change": "as it is", "crosses": True, "litres_month": 2.0},
            {"change": "the purest water", "crosses": False, "litres_month": 2.0},
        ]
    },
    "schools-together": {
        "pots": [
            {"school": "as logged", "flushes": 0, "litres": 0.0, "days_over": 90},
            {"school": "by forecast", "flushes": 4, "litres": 6.5, "days_over": 0},
        ]
    },
    "water-verdict": {
        "ec25_uS_cm": 34,
        "half_width_uS_cm": 2,
        "water": {"kind": "rain"},
        "plant": {"ec_max_uS_cm": 80, "fluoride_sensitivity": 1},
    },
    "cheapest-remedy": {
        "source": {
            "name": "Borehole",
            "ec25_uS_cm": 754,
            "known": {"kind": "borehole", "alkalinity_mg_L_CaCO3": 265},
            "price_per_L": 0,
        },
        "plant": {"ec_max_uS_cm": 250, "alkalinity_ceiling_mg_L": 100},
        "others": [{"name": "Rain", "ec25_uS_cm": 34, "known": {"kind": "rain"}, "price_per_L": 0}],
    },
    "share-out": {
        "supplies": [
            {"name": "Rain", "ec25_uS_cm": 34, "litres": 20},
            {"name": "Jug", "ec25_uS_cm": 20, "litres": 0, "price_per_L": 0.3},
        ],
        "demands": [
            {"name": "Ferns", "litres": 10, "ec_max_uS_cm": 250, "suits": [True, True]},
            {"name": "Sundews", "litres": 15, "ec_max_uS_cm": 60, "suits": [True, True]},
        ],
    },
    "water-watch": {
        "kind": "rain",
        "today": "2026-11-23",
        "readings": [{"on": f"2026-{m:02}-01", "ec25_uS_cm": 20 + 6 * m} for m in (8, 9, 10, 11)],
    },
    "pen-settled": {"samples": [{"t_s": 0.25 * i, "ec_uS_cm": 400 + (i % 3) - 90 * 0.5**i} for i in range(20)]},
    "treatment-effect": {"before_uS_cm": 600, "after_uS_cm": 576},
    "root-zone": {"pot": POT, "events": EVENTS, "today": "2026-11-01", "ceiling_uS_cm": 300},
    "calibrate-pot": {"pot": POT, "events": EVENTS, "today": "2026-11-01"},
    "calibrate-cycle": {
        "feed_uS_cm": 450,
        "start_uS_cm": 500,
        "lost_share": 0.3,
        "drained_share": 0.3,
        "runoffs_uS_cm": [560, None, 529, None, 629, 591],
    },
    "flush-methods": {
        "pot": {**POT, "volume_L": 2.0},
        "root_zone_uS_cm": 1800,
        "target_reading_uS_cm": 400,
        "waters": [{"name": "rain", "ec_uS_cm": 40, "left_L": 1}, {"name": "osmosis", "ec_uS_cm": 15}],
        "crust": True,
    },
    "flush-schools": {
        "pot": POT,
        "events": EVENTS,
        "today": "2026-11-01",
        "ceiling_uS_cm": 300,
        "target_uS_cm": 200,
        "water_uS_cm": 30,
    },
    "rhythm-change": {"pot": POT, "events": EVENTS, "today": "2026-11-01", "ceiling_uS_cm": 300},
    "flush-round": {
        "jobs": [
            {"pot_id": 1, "code": "A", "name": "x", "share": 1.1, "way": "rounds", "litres": 1, "minutes": 60},
            {"pot_id": 2, "code": "B", "name": "y", "share": 0.9, "way": "baths", "litres": 3, "minutes": 60},
        ],
        "today": "2026-11-01",
        "litres_at_hand": 3,
    },
    "flush-plan": {
        "pot": {**POT, "volume_L": 2.0},
        "root_zone_uS_cm": 1800,
        "target_reading_uS_cm": 400,
        "water_uS_cm": 40,
    },
    "round": {"pots": [], "waters": [], "feeds": [{"id": 1, "name": "x", "label": LABEL}], "today": "2026-11-23"},
    "phase": {"rest": REST, "today": "2026-11-23", "hemisphere": "south"},
    "growth-gate": {"needed_cm": 8, "roots_cm": 3, "new_growth": True},
    "holds": {
        "condition": {
            "phase": "rest",
            "phase_since": "2026-11-01",
            "rest_kind": "plain",
            "restart": "new growth",
            "last_reading_uS_cm": 950,
            "last_reading_on": "2026-11-20",
            "ceiling_uS_cm": 900,
        },
        "today": "2026-11-23",
    },
    "feeding-pattern": {
        "pattern": {"kind": "days", "every_days": 28},
        "fed": {"last_feed_on": "2026-11-01"},
        "today": "2026-11-23",
    },
    "check-interval": {
        "gaps": [{"days": 5}, {"days": 6}, {"days": 5}, {"days": 7}],
        "fallback_days": 7,
        "forming": True,
    },
    "pot-water-from-weights": {
        "drained_g": 850,
        "dry_g": 600,
        "now_g": 700,
        "weights": [
            {"on": "2026-11-20", "grams": 850},
            {"on": "2026-11-21", "grams": 800},
            {"on": "2026-11-23", "grams": 700},
        ],
    },
    "medium-properties": {"parts": [{"medium": BARK, "parts": 2}, {"medium": {**BARK, "theta_cc": 0.5}, "parts": 1}]},
    "cans": {
        "needs": [{"id": 1, "n_low_mg_L": 40, "n_high_mg_L": 60, "ceiling_uS_cm": 500, "water_ids": [1]}],
        "waters": [{"id": 1, "ec_uS_cm": 30}],
    },
    "away-risk": {"pots": [], "leaving": "2026-12-20", "back": "2027-01-03"},
}


def runs() -> Iterator[tuple[str, dict[str, Any]]]:
    for case in CASES:
        yield case["calc"], case["input"]
    yield from EXAMPLES.items()
    yield (
        "dose",
        {
            "label": LABEL,
            "base": {"ec25_uS_cm": 34, "kind": "rain"},
            "volume_L": 3,
            "strength": "ec_total",
            "value": 412,
            "ceiling_uS_cm": 500,
            "scale_step_g": 1,
        },
    )


def test_the_first_calculations_are_registered() -> None:
    assert set(NAMES) >= FIRST
    with pytest.raises(NotFound, match=r"no calculation named “ec”"):
        get_calculation("ec")


@pytest.mark.parametrize("name", NAMES)
def test_every_parameter_is_documented_and_in_the_schema(name: str) -> None:
    entry = get_calculation(name)
    schema = describe(entry)["input_schema"]
    assert set(schema["properties"]) == set(entry.parameters)
    assert entry.summary.endswith(".")
    for part in ("Returns", "Raises", "References"):
        assert f"\n{part}\n" in (entry.function.__doc__ or "").replace("    ", ""), f"{name} lacks {part}"


@pytest.mark.parametrize("name", NAMES)
def test_every_calculation_has_a_case_or_an_example(name: str) -> None:
    assert name in {n for n, _ in runs()}


@pytest.mark.parametrize(("name", "inputs"), list(runs()), ids=lambda v: v if isinstance(v, str) else "")
def test_working_replays_from_its_own_lines(name: str, inputs: dict[str, Any]) -> None:
    working = run_calculation(name, inputs)["working"]
    scope: dict[str, Any] = {
        "ln": math.log,
        "lg": math.log10,
        "exp": math.exp,
        "sqrt": math.sqrt,
        "min": min,
        "max": max,
        "abs": abs,
        "ceil": math.ceil,
        "floor": math.floor,
    }
    for term in working["inputs"]:
        assert term["origin"]
        assert not term["origin"].startswith("solved"), "what is found is no input"
        scope[term["symbol"]] = term["value"]
    for step in working["steps"]:
        if step["formula"]:
            value = eval(step["formula"], {"__builtins__": {}}, scope)
            assert value == pytest.approx(step["value"], rel=1e-12), step["symbol"]
            assert not step["by"]
        else:
            assert step["by"], "a statement says by what its value was found"
        scope[step["symbol"]] = step["value"]
    assert working["steps"]
    assert set(working["sources"]) <= set(sources())
    module, function = working["formula_id"].rsplit(".", 1)
    assert getattr(__import__(f"fenwa.core.{module}", fromlist=[function]), function)


def test_the_last_steps_are_the_result() -> None:
    answer = run_calculation("root-zone", EXAMPLES["root-zone"])
    steps = {s["symbol"]: s["value"] for s in answer["working"]["steps"]}
    r = answer["result"]
    assert steps["reading"] == pytest.approx(r["reading_uS_cm"], rel=1e-9)
    assert steps["C_root"] == pytest.approx(r["root_zone_uS_cm"], rel=1e-9)
    assert steps["low"] == pytest.approx(r["reading_low_uS_cm"], rel=1e-9)
