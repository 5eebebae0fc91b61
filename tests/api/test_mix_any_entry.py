"""Whatever is typed at the Mix station: an answer or a sentence with its field, and previews store nothing."""

from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from tests.conftest import Client
from tests.core.test_cases import at

QUIET = settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
typed = st.one_of(
    st.floats(allow_nan=False, allow_infinity=False, width=32),
    st.integers(-10, 10_000),
    st.sampled_from(
        ["", " ", "0,5", "1/4", "25 %", "half", "reduce by 3/4", "1,200", "a pinch", "−3", "1e3", "٣", "0"]
    ),
)
ids = st.integers(-1, 22)


def rows(client: Client) -> dict[str, int]:
    with client.store.reading() as session:
        names = [r[0] for r in session.execute(text("SELECT name FROM sqlite_master WHERE type = 'table'"))]
        return {n: session.execute(text(f'SELECT count(*) FROM "{n}"')).scalar() or 0 for n in names}


def answered(client: Client, path: str, body: dict[str, Any]) -> Any:
    """Sends it; a refusal must be a problem document in whole sentences."""
    answer = client.send(path, body)
    assert answer.status_code in (200, 404, 422), (answer.status_code, answer.text[:300])
    if answer.status_code != 200:
        problem = answer.json()
        assert answer.headers["content-type"] == "application/problem+json"
        assert problem["detail"].strip()
        assert "Traceback" not in answer.text
        return None
    return answer.json()


@given(
    product=ids,
    water=st.integers(0, 3),
    volume=typed,
    value=typed,
    element=st.sampled_from(["N", "K", "Ca", "X", ""]),
    strength=st.sampled_from(["nitrogen", "fraction", "element", "ec_added", "ec_total", "dose"]),
    also=st.lists(st.tuples(ids, typed), max_size=2),
)
@QUIET
def test_any_can_is_answered_or_refused(
    still: Client,
    product: int,
    water: int,
    volume: Any,
    value: Any,
    element: str,
    strength: str,
    also: list[tuple[int, Any]],
) -> None:
    before = rows(still)
    body = {
        "product_id": product,
        "water_id": water,
        "volume": volume,
        "value": value,
        "element": element,
        "strength": strength,
        "pot_ids": [1],
        "also": [{"product_id": p, "dose": d} for p, d in also],
    }
    found = answered(still, "/api/mix/preview", body)
    if found is not None:
        d = found["dose"]["result"]
        assert d["ec_low_uS_cm"] <= d["ec_total_uS_cm"] <= d["ec_high_uS_cm"]
        assert d["nitrogen_mg_L"] >= 0
        assert found["bench"][0]["act"] == "half fill"
        assert found["bench"][-1]["act"] == "read"
        for part in d["parts"]:
            assert abs(part["rounded"] - part["amount"]) <= part["step"] / 2 * (1 + 1e-6)
    assert rows(still) == before


@given(
    products=st.lists(ids, max_size=4),
    targets=st.lists(st.tuples(st.sampled_from(["N", "P", "K", "Ca", "Mg", "S"]), typed), max_size=4),
    volume=typed,
    cap=typed,
    nitrate=typed,
)
@QUIET
def test_any_fit_is_answered_or_refused(
    still: Client, products: list[int], targets: list[tuple[str, Any]], volume: Any, cap: Any, nitrate: Any
) -> None:
    body = {
        "water_id": 1,
        "product_ids": products,
        "volume": volume,
        "ec_cap": cap,
        "nitrate_share_pct": nitrate,
        "targets": [{"element": e, "mg_L": x} for e, x in targets],
    }
    found = answered(still, "/api/mix/fit", body)
    if found is not None:
        r = found["result"]
        assert all(p["rounded"] >= 0 for p in r["parts"])
        assert {e["element"] for e in r["elements"]} <= {e for e, _ in targets}
        assert r["sentence"]


@given(
    feeds=st.lists(st.tuples(ids, typed), min_size=1, max_size=3),
    draw=typed,
    bottle=typed,
    cold=typed,
    volume=typed,
    ratio=typed,
)
@QUIET
def test_any_stock_is_answered_or_refused(
    still: Client, feeds: list[tuple[int, Any]], draw: Any, bottle: Any, cold: Any, volume: Any, ratio: Any
) -> None:
    shared = {"water_id": 1, "feeds": [{"product_id": p, "dose": d} for p, d in feeds], "storage_C": cold}
    found = answered(still, "/api/mix/stock", {**shared, "volume": volume, "draw_mL_per_L": draw, "bottle_mL": bottle})
    if found is not None:
        r = found["stock"]["result"]
        assert r["draw_mL"] <= r["bottle_mL"] * (1 + 1e-9)
        assert found["clear"]["result"]["bottles"]
    made = answered(still, "/api/mix/injector", {**shared, "ratio": ratio})
    if made is not None:
        assert made["result"]["litres_per_litre"] >= 2


@given(
    weighings=st.lists(typed, max_size=6),
    levels=st.integers(-1, 20),
    volume=typed,
    kind=st.sampled_from(["spoon", "cap", "dropper"]),
)
@QUIET
def test_any_weighing_is_answered_or_refused(
    still: Client, weighings: list[Any], levels: int, volume: Any, kind: str
) -> None:
    body = {
        "name": "x",
        "kind": kind,
        "product_id": 2,
        "weighings": weighings,
        "levels_each": levels,
        "volume_mL": volume,
    }
    found = answered(still, "/api/measures/preview", body)
    if found is not None:
        assert found["result"]["each"] > 0
        assert found["result"]["sentence"].endswith(".")


@given(
    label=st.fixed_dictionaries(
        {"name": st.sampled_from(["x", "", "Old tin"])},
        optional={
            "n_total_pct": typed,
            "n_nitrate_pct": typed,
            "p_pct": typed,
            "k_pct": typed,
            "label_rate": typed,
            "density_g_mL": typed,
            "label_rate_unit": st.sampled_from(["g/L", "mL/L", "cap/L", "g/gal", "", "drops/US gal"]),
            "formula": st.text(max_size=8),
            "kind": st.sampled_from(["soluble", "prill", "no ppm"]),
            "form": st.sampled_from(["powder", "liquid"]),
        },
    )
)
@QUIET
def test_any_label_is_shown_or_refused(still: Client, label: dict[str, Any]) -> None:
    before = rows(still)
    found = answered(still, "/api/products/elements", label)
    if found is not None:
        assert found["result"]["N_mg_g"] >= 0
        assert found["working"]["formula_id"] == "mix.elements.label_to_elements"
    assert rows(still) == before


def test_every_number_of_the_preview_can_be_replayed(still: Client) -> None:
    """The text of each step computes the value that is shown."""
    from fenwa.core.working import FUNCTIONS

    names = {p["name"]: p["id"] for p in still.get("/api/mix")["products"]}
    can = {
        "product_id": names["Calcium nitrate, tetrahydrate"],
        "water_id": 1,
        "volume": 2,
        "value": 40,
        "pot_ids": [1],
        "also": [{"product_id": names["Monopotassium phosphate"], "dose": 0.05}],
    }
    answer = still.made("/api/mix/preview", can)
    for part in ("dose", "headroom", "clear", "tendency", "calcium", "cost"):
        working = answer[part]["working"]
        scope: dict[str, Any] = {
            "__builtins__": {},
            **FUNCTIONS,
            **{t["symbol"]: t["value"] for t in working["inputs"]},
        }
        for step in working["steps"]:
            if step["formula"]:
                value = eval(step["formula"], scope)
                assert value == pytest.approx(step["value"], rel=1e-9, abs=1e-9), (part, step["symbol"])
            scope[step["symbol"]] = step["value"]


@pytest.mark.parametrize(
    ("path", "body", "shown"),
    [
        ("/api/mix/names", {"product_id": 2, "water_id": 1, "volume": 1, "value": 60}, "result.per_us_gal"),
        (
            "/api/mix/compare",
            {"water_id": 1, "first_id": 2, "second_id": 8, "value": 60},
            "result.rows.1.ec_added_uS_cm",
        ),
        ("/api/mix/serial", {"stock_g_L": 20, "target_mg_L": 100}, "result.final_mg_L"),
        (
            "/api/mix/clear",
            {"water_id": 1, "feeds": [{"product_id": 2, "dose": 0.5}], "times": 20},
            "result.strongest_times",
        ),
        ("/api/products/grade", {"text": "555"}, "result.k_pct"),
    ],
)
def test_tools_answer_the_same_twice(still: Client, path: str, body: dict[str, Any], shown: str) -> None:
    first, second = (still.made(path, body) for _ in range(2))
    assert first == second
    assert at(first, shown) > 0
