"""The Mix station through the API: the shelf, the whole screen for a can, recipes, batches, tools."""

from datetime import timedelta
from typing import Any

import pytest

from fenwa.core.library.loader import fertilizers, schools
from tests.conftest import TODAY, Client, pot, pour, reading


def ids(client: Client) -> dict[str, int]:
    return {p["name"]: p["id"] for p in client.get("/api/mix")["products"]}


@pytest.fixture
def feeds(kept: Client) -> dict[str, int]:
    return ids(kept)


NITRATE, LIFT, UREA = (
    "Nitrate feed 13-3-15 with Ca and Mg",
    "Calcium-magnesium supplement",
    "Foliage feed 20-8.7-16.6, urea-rich",
)
CANIT, EPSOM, MKP = "Calcium nitrate, tetrahydrate", "Magnesium sulfate, heptahydrate", "Monopotassium phosphate"


def can(product_id: int | None, **changes: Any) -> dict[str, Any]:
    return {"product_id": product_id, "water_id": 1, "volume": 2, "strength": "nitrogen", "value": 60, **changes}


def made(kept: Client, product_id: int | None = None, **changes: Any) -> Any:
    return kept.made("/api/batches", {**can(product_id or ids(kept)[NITRATE]), "made_on": "2026-11-22", **changes})


# ---- the shelf


def test_a_feed_is_kept_by_label_and_by_formula(kept: Client) -> None:
    by_label = kept.made(
        "/api/products",
        {
            "name": "Half bag",
            "n_nitrate_pct": "8,5",
            "p_pct": 5,
            "k_pct": 12,
            "pk_as": "oxide",
            "fe_pct": 0.1,
            "fe_chelate": "DTPA",
            "label_rate": 2,
            "label_rate_unit": "cap/L",
            "cap_mL": 5,
            "bulk_density_g_mL": 0.9,
            "price": "12,5",
            "pack_amount": 500,
            "opened_on": "2026-10-01",
            "left_amount": 320,
        },
    )["id"]
    salt = kept.made("/api/products", {"name": "Mg nitrate", "formula": "Mg(NO3)2.6H2O"})["id"]
    page = kept.get("/api/shelf")
    row = next(p for p in page["products"] if p["id"] == by_label)
    assert row["elements"]["Fe_mg_g"] == pytest.approx(1.0)
    assert next(p for p in page["products"] if p["id"] == salt)["elements"]["Mg_mg_g"] == pytest.approx(94.8, abs=0.05)
    pack = next(p for p in page["packs"] if p["product_id"] == by_label)
    assert (pack["left_now"], pack["left_on"], pack["unit"]) == (320, "2026-11-23", "g")
    full = kept.made("/api/mix/preview", can(by_label, strength="fraction", value="1/4"))["dose"]["result"]
    assert full["dose_g_L"] == pytest.approx(2 * 5 * 0.9 / 4)


@pytest.mark.parametrize(
    ("body", "pointer", "says"),
    [
        ({"name": ""}, "/name", "Name is empty"),
        ({"name": "x", "n_total_pct": 60, "k_pct": 50, "pk_as": "oxide"}, "/n_total_pct", "add up to 110 %"),
        ({"name": "x", "formula": "Kalk"}, "/formula", "is not understood"),
        ({"name": "x", "kind": "prill", "n_total_pct": 14}, "/longevity_days", "How long the prills last"),
        ({"name": "x", "kind": "no ppm", "k_pct": 1}, "/kind", "recorded without a strength"),
        (
            {"name": "x", "label_rate": 1, "label_rate_unit": "g/gal"},
            "/label_rate_unit",
            "US and imperial gallons differ",
        ),
        ({"name": "x", "label_rate": 1, "label_rate_unit": "cap/L"}, "/cap_mL", "How much a cap holds"),
        ({"name": "x", "k_pct": 5}, "/pk_as", "P2O5 and K2O, or P and K"),
        ({"name": "x", "mg_pct": 5}, "/others_as", "CaO, MgO and SO3, or Ca, Mg and S"),
        ({"name": "x", "form": "liquid", "n_total_pct": 5}, "/basis", "Grams in 100 g (w/w) or in 100 mL (w/v)"),
        (
            {"name": "x", "form": "liquid", "basis": "w/w", "n_total_pct": 5},
            "/density_g_mL",
            "choose the usual 1.15 g/mL",
        ),
        ({"name": "x", "price": -1}, "/price", "Price -1 cannot be"),
        ({"name": "x", "opened_on": "2027-01-01"}, "/opened_on", "lies in the future"),
    ],
)
def test_a_wrong_label_names_its_field_and_changes_nothing(
    still: Client, body: dict[str, Any], pointer: str, says: str
) -> None:
    before = len(still.get("/api/shelf")["products"])
    refused = still.refused("/api/products", body)
    assert says in refused["detail"] or any(says in e["detail"] for e in refused["errors"])
    assert any(e["pointer"] == pointer for e in refused["errors"]), refused["errors"]
    assert len(still.get("/api/shelf")["products"]) == before


def test_a_grade_is_read_and_a_label_shown_while_typed(still: Client) -> None:
    found = still.made("/api/products/grade", {"text": "161616"})["result"]
    assert (found["n_pct"], found["p_pct"], found["k_pct"]) == (16, 16, 16)
    shown = still.made("/api/products/elements", {"name": "x", "n_nitrate_pct": 16, "p_pct": 16, "pk_as": "oxide"})[
        "result"
    ]
    assert shown["P_mg_g"] == pytest.approx(16 * 4.364)


def test_a_corrected_label_leaves_old_cans_their_version(kept: Client, feeds: dict[str, int]) -> None:
    first = made(kept)
    label = {"name": "Nitrate feed, new bag", "n_nitrate_pct": 12, "k_pct": 20, "pk_as": "oxide"}
    kept.made(f"/api/products/{feeds[NITRATE]}/correct", label)
    second = made(kept, feeds[NITRATE])
    assert (first["recipe_version"], second["recipe_version"]) == (1, 1)  # another name, another recipe
    assert second["dose_g_L"] == pytest.approx(0.5)
    kept.made(f"/api/products/{feeds[NITRATE]}/correct", {**label, "n_nitrate_pct": 15})
    assert made(kept, feeds[NITRATE])["recipe_version"] == 2
    listed = {b["id"]: b for b in kept.get("/api/batches")}
    assert listed[first["id"]]["dose_g_L"] == pytest.approx(60 / 130)
    assert "13-3-15" in listed[first["id"]]["recipe"]


def test_measures_are_weighed_and_teach_the_label(kept: Client, feeds: dict[str, int]) -> None:
    body = {
        "name": "blue spoon",
        "product_id": feeds[NITRATE],
        "weighings": ["1,1", 1.2, 1.0, 1.2, "1.2", None],
        "volume_mL": 1.25,
    }
    preview = kept.made("/api/measures/preview", body)["result"]
    assert preview["each"] == pytest.approx(1.14)
    kept.made("/api/measures", body)
    page = kept.get("/api/shelf")
    assert page["measures"][0]["product"] == NITRATE
    label = next(p for p in page["products"] if p["id"] == feeds[NITRATE])["label"]
    assert label["bulk_density_g_mL"] == pytest.approx(0.912)
    answer = kept.made("/api/mix/preview", can(feeds[NITRATE], volume=5))
    assert answer["measures"] == ["or 2 × blue spoon, level (2.28 g, ±7 %)"]
    drops = {"name": "dropper", "kind": "dropper", "product_id": feeds[LIFT], "weighings": [24, 26]}
    kept.made("/api/measures", drops)
    assert next(p for p in kept.get("/api/shelf")["products"] if p["id"] == feeds[LIFT])["label"][
        "drop_mL"
    ] == pytest.approx(0.04)
    few = kept.refused("/api/measures", {**body, "weighings": [1, 1.1]})
    assert few["errors"][0]["pointer"] == "/weighings"


def test_vessels_and_feeds_without_a_ppm_are_recorded(kept: Client, feeds: dict[str, int]) -> None:
    kept.made("/api/vessels", {"name": "Mist bottle", "kind": "mist bottle", "volume_L": "0,5"})
    assert kept.get("/api/mix")["vessels"][0]["volume_L"] == 0.5
    given = {"pot_ids": [1], "product_id": feeds["Prey: insects to traps"], "on": "2026-11-20", "amount": 2}
    kept.made("/api/feedings", given)
    row = kept.get("/api/feedings?pot_id=1")[0]
    assert (row["product"], row["amount"], row["unit"]) == ("Prey: insects to traps", 2, "items")
    assert "is dissolved in a can" in kept.refused("/api/feedings", {**given, "product_id": feeds[NITRATE]})["detail"]
    for name, says in (
        ("Prey: insects to traps", "has no ppm"),
        ("Prills 14-8-11, six months", "releases over months"),
    ):
        assert says in kept.refused("/api/mix/preview", can(feeds[name]))["detail"]


# ---- the whole screen


def test_one_answer_holds_the_whole_screen(kept: Client, feeds: dict[str, int]) -> None:
    answer = kept.made(
        "/api/mix/preview", can(feeds[NITRATE], pot_ids=[1], strength="fraction", value="reduce by three quarters")
    )
    assert answer["dose"]["result"]["fraction"] == pytest.approx(0.25)
    assert answer["echo"].startswith("“Reduce by three quarters” keeps one quarter")
    assert answer["headroom"]["result"]["strictest"] == "P-01 Paphiopedilum"
    assert answer["clear"]["result"]["verdict"] == "clear"
    assert answer["tendency"]["result"]["confidence"] in ("fair", "low")
    assert [s["act"] for s in answer["bench"]] == ["half fill", "weigh", "fill", "read"] or answer["bench"][1][
        "act"
    ] == "draw"
    assert answer["calcium"]["result"]["thin"] is False
    for part in ("dose", "headroom", "clear", "tendency", "calcium", "cost"):
        assert answer[part]["working"]["formula_id"]


def test_several_products_stand_in_mixing_order(kept: Client, feeds: dict[str, int]) -> None:
    also = [{"product_id": feeds[EPSOM], "dose": 0.1}, {"product_id": feeds[MKP], "dose": "0,05"}]
    answer = kept.made("/api/mix/preview", can(feeds[CANIT], volume=50, value=40, also=also))
    weighed = [s["what"] for s in answer["bench"] if s["act"] == "weigh"]
    assert weighed == [EPSOM, MKP, CANIT]
    assert "Calcium last" in next(s for s in answer["bench"] if s["what"] == CANIT)["caution"]
    assert [p["rounded"] for p in answer["dose"]["result"]["parts"]] == pytest.approx([16.9, 5.0, 2.5])


def test_a_blend_is_a_base_water(kept: Client, feeds: dict[str, int]) -> None:
    hard = kept.made("/api/waters", {"name": "Bore", "kind": "borehole"})["id"]
    kept.made(f"/api/waters/{hard}/readings", reading(value=740))
    blend = [{"water_id": 1, "share": 3}, {"water_id": hard, "share": 1}]
    answer = kept.made("/api/mix/preview", can(feeds[NITRATE], blend=blend))
    assert answer["dose"]["result"]["ec_total_uS_cm"] - answer["dose"]["result"]["ec_added_uS_cm"] == pytest.approx(
        0.75 * 34 + 0.25 * 740
    )
    assert [s["what"] for s in answer["bench"] if s["act"] == "half fill"] == ["Rain", "Bore"]
    batch = kept.made("/api/batches", {**can(feeds[NITRATE], blend=blend), "made_on": "2026-11-22"})
    assert batch["predicted_uS_cm"] == pytest.approx(answer["dose"]["result"]["ec_total_uS_cm"])
    assert (
        "add up to nothing"
        in kept.refused("/api/mix/preview", can(feeds[NITRATE], blend=[{**b, "share": 0} for b in blend]))["detail"]
    )


def test_headroom_refuses_with_the_nearest_and_the_dose_stays(kept: Client, feeds: dict[str, int]) -> None:
    hard = kept.made("/api/waters", {"name": "Bore", "kind": "borehole"})["id"]
    kept.made(f"/api/waters/{hard}/readings", reading(value=1500))
    answer = kept.made("/api/mix/preview", can(feeds[NITRATE], water_id=hard, pot_ids=[1]))
    assert answer["headroom"] is None
    assert "Bore alone reads 1500 µS/cm, over the 820 µS/cm of P-01" in answer["headroom_refusal"]
    assert answer["dose"]["result"]["over_ceiling"]


def test_three_own_batches_give_the_slope(kept: Client, feeds: dict[str, int]) -> None:
    before = kept.made("/api/mix/preview", can(feeds[NITRATE]))
    assert before["slope"] is None
    for value in (40, 50, 60):
        b = made(kept, value=value)
        true = 34 + 0.93 * (b["predicted_uS_cm"] - 34)
        kept.made(f"/api/batches/{b['id']}/reading", reading(value=round(true, 1)))
    after = kept.made("/api/mix/preview", can(feeds[NITRATE]))
    assert after["slope"]["result"]["batches"] == 3
    assert after["slope"]["result"]["factor"] == pytest.approx(0.93, abs=0.002)
    assert after["dose"]["result"]["predicted_by"] == "your own batches"
    assert after["dose"]["result"]["ec_added_uS_cm"] == pytest.approx(
        0.93 * before["dose"]["result"]["ec_added_uS_cm"], rel=0.003
    )


# ---- recipes and batches


def test_a_recipe_is_kept_under_its_name_and_versioned(kept: Client, feeds: dict[str, int]) -> None:
    body = {
        **can(
            feeds[NITRATE],
            value=30,
            also=[{"product_id": feeds[LIFT], "dose": 0.1}],
            route="leaf",
            school_id="leaf_before_dark",
        ),
        "name": "Thin mist",
    }
    kept.made("/api/recipes", body)
    kept.made("/api/recipes", body)
    kept.made("/api/recipes", {**body, "value": 20})
    recipe = kept.get("/api/mix")["recipes"][0]
    assert (recipe["name"], recipe["version"], recipe["value"], recipe["route"]) == ("Thin mist", 2, 20, "leaf")
    assert recipe["also"][0]["name"] == LIFT
    batch = kept.made("/api/batches", {**body, "value": 30, "made_on": "2026-11-22", "recipe": "Thin mist", "name": ""})
    assert (batch["recipe"], batch["recipe_version"]) == ("Thin mist", 3)
    assert batch["name"].startswith("Thin mist, 30 mg/L N")
    kept.made(f"/api/log/recipe/{recipe['id']}/archive")
    assert all(r["name"] != "Thin mist" for r in kept.get("/api/mix")["recipes"])


def test_named_recipes_are_told_from_those_of_single_cans(kept: Client, feeds: dict[str, int]) -> None:
    made(kept)
    kept.made("/api/recipes", {**can(feeds[NITRATE]), "name": "Thin, for the shelf"})
    assert {r["name"]: r["named"] for r in kept.get("/api/mix")["recipes"]} == {
        "Thin, for the shelf": True,
        f"{NITRATE}, nitrogen": False,
    }


def test_a_can_is_rescued_after_its_feed_left_the_shelf(kept: Client, feeds: dict[str, int]) -> None:
    batch = made(kept)
    kept.made(f"/api/log/product/{feeds[NITRATE]}/archive")
    assert kept.made(f"/api/batches/{batch['id']}/rescue", {"reading": 1100})["result"]["act"] == "add water"


def test_what_is_left_follows_the_pours_and_what_was_seen(kept: Client, feeds: dict[str, int]) -> None:
    kept.made(
        f"/api/products/{feeds[NITRATE]}/correct",
        {"name": NITRATE, "n_nitrate_pct": 13, "price": 20, "pack_amount": 1000, "left_amount": 100},
    )
    batch = made(kept, made_on="2026-11-23")
    kept.made("/api/pours", pour(batch_id=batch["id"], water_id=None, on="2026-11-23"))
    assert kept.get("/api/batches")[0]["left_L"] == pytest.approx(1.75)
    kept.made(f"/api/batches/{batch['id']}/left", {"left": 1.2, "on": "2026-11-23"})
    assert kept.get("/api/batches")[0]["left_L"] == pytest.approx(1.2)
    assert (
        "enter 0 to that" in kept.refused(f"/api/batches/{batch['id']}/left", {"left": 3, "on": "2026-11-23"})["detail"]
    )
    answer = kept.made("/api/mix/preview", can(feeds[NITRATE]))
    cost = answer["cost"]["result"]
    assert cost["cost_per_L"] == pytest.approx(60 / 130 * 0.02)
    assert cost["runs_out_on"] > "2026-12-01"


def test_a_can_is_judged_against_its_pots_and_rescued(kept: Client, feeds: dict[str, int]) -> None:
    batch = made(kept, pot_ids=[1])
    judged = kept.made(f"/api/batches/{batch['id']}/reading", reading(value=round(10 * batch["predicted_uS_cm"])))
    assert judged["check"]["verdict"] == "about ten times"
    way = kept.made(f"/api/batches/{batch['id']}/rescue", {"reading": 1100})["result"]
    assert way["act"] == "add water"
    assert way["final_g_L"] == pytest.approx(batch["dose_g_L"], rel=1e-3)
    small = kept.made(f"/api/batches/{batch['id']}/rescue", {"reading": 1100, "vessel": 3})["result"]
    assert (small["act"], small["final_L"]) == ("pour some away", 3)
    again = kept.made(f"/api/batches/{batch['id']}/rescue", {"reading": 250, "left": 1, "wanted": 2})["result"]
    assert again["act"] == "add both"
    hard = kept.made("/api/waters", {"name": "Bore", "kind": "borehole"})["id"]
    kept.made(f"/api/waters/{hard}/readings", reading(value=1200))
    bad = kept.made("/api/batches", {**can(feeds[NITRATE], water_id=hard, pot_ids=[1]), "made_on": "2026-11-22"})
    judged = kept.made(f"/api/batches/{bad['id']}/reading", reading(value=round(bad["predicted_uS_cm"])))
    assert judged["check"]["verdict"] == "water over"
    assert "The water alone, 1200 µS/cm, is already over the 820 µS/cm of P-01" in judged["check"]["sentence"]
    plain = kept.made("/api/batches", {**can(None), "made_on": "2026-11-22"})
    assert "plain water" in kept.refused(f"/api/batches/{plain['id']}/rescue", {"reading": 50})["detail"]


# ---- tools


def test_fit_and_compare(still: Client) -> None:
    feeds = ids(still)
    found = still.made(
        "/api/mix/fit",
        {
            "water_id": 1,
            "product_ids": [feeds[CANIT], feeds["Potassium nitrate"]],
            "volume": 10,
            "targets": [{"element": "N", "mg_L": 60}, {"element": "K", "mg_L": ""}, {"element": "Ca", "mg_L": "40"}],
        },
    )["result"]
    assert [e["element"] for e in found["elements"]] == ["N", "Ca"]
    assert [e["weighed_mg_L"] for e in found["elements"]] == pytest.approx([60, 40], abs=1.5)
    assert (
        still.refused("/api/mix/fit", {"water_id": 1, "product_ids": [], "volume": 1, "targets": []})["errors"][0][
            "pointer"
        ]
        == "/products"
    )
    rows = still.made(
        "/api/mix/compare", {"water_id": 1, "first_id": feeds[NITRATE], "second_id": feeds[UREA], "value": 60}
    )["result"]["rows"]
    assert [r["nitrogen_mg_L"] for r in rows] == pytest.approx([60, 60])
    cost = {"water_id": 1, "first_id": feeds[NITRATE], "second_id": feeds[UREA], "basis": "cost", "value": 1}
    assert "is not known. Enter it on the shelf" in still.refused("/api/mix/compare", cost)["detail"]


def test_stock_bottles_are_split_kept_and_labelled(kept: Client, feeds: dict[str, int]) -> None:
    body = {
        "water_id": 1,
        "feeds": [{"product_id": feeds[CANIT], "dose": 0.8}, {"product_id": feeds[EPSOM], "dose": 0.4}],
        "volume": 2,
    }
    answer = kept.made("/api/mix/stock", body)
    assert [b["letter"] for b in answer["stock"]["result"]["bottles"]] == ["A", "B"]
    assert answer["stock"]["result"]["use_by"] == "2027-01-18"
    kept.made("/api/mix/bottles", body)
    bottles = kept.get("/api/mix/bottles")
    assert {b["letter"] for b in bottles} == {"A", "B"}
    assert all("Keep from children, pets and food" in b["hazard"] for b in bottles)
    clots = kept.made("/api/mix/clear", {"water_id": 1, "feeds": body["feeds"], "times": 100})["result"]
    assert clots["verdict"] == "borderline"
    ratio = kept.made("/api/mix/injector", {"water_id": 1, "feeds": body["feeds"], "ratio": 64, "meaning": "1 plus n"})[
        "result"
    ]
    assert ratio["litres_per_litre"] == 65
    mist = kept.made("/api/mix/serial", {"stock_g_L": 46, "target_mg_L": 120, "final_mL": 500})["result"]
    assert mist["final_mg_L"] == pytest.approx(120)


def test_names_of_a_strength_and_schools(kept: Client, feeds: dict[str, int]) -> None:
    names = kept.made("/api/mix/names", can(feeds[NITRATE], strength="fraction", value="1/4"))["result"]
    assert names["per_imp_gal"] / names["per_us_gal"] == pytest.approx(1.201, abs=0.001)
    page = kept.get("/api/mix")
    assert len(page["schools"]) == len(schools())
    loads = kept.made(
        "/api/mix/schools/load", {"school_ids": ["thin_and_constant", "pulse"], "pot_id": 1, "water_id": 1}
    )
    assert loads[0]["load"]["result"]["applied_mg_L_week"] > loads[1]["load"]["result"]["applied_mg_L_week"]
    figures = {"name": "Thin, my way", "n_mg_L": 25, "n_low_mg_L": 20, "n_high_mg_L": 30, "cycle": 4, "feeds": 3}
    answer = kept.send("/api/mix/schools/thin_and_constant", figures, method="PUT")
    assert answer.status_code == 200
    mine = next(s for s in kept.get("/api/mix")["schools"] if s["school"]["id"] == "thin_and_constant")
    assert (mine["edited"], mine["school"]["n_mg_L"], mine["school"]["definition"] != "") == (True, 25, True)
    wrong = kept.send("/api/mix/schools/thin_and_constant", {**figures, "feeds": 9}, method="PUT")
    assert wrong.status_code == 422
    kept.made(f"/api/log/school/{mine['copy_id']}/archive")
    assert not next(s for s in kept.get("/api/mix")["schools"] if s["school"]["id"] == "thin_and_constant")["edited"]
    unknown = kept.refused("/api/mix/schools/load", {"school_ids": ["none"]}, 404)
    assert "There is no school" in unknown["detail"]


def test_the_library_reaches_an_empty_shelf(client: Client) -> None:
    page = client.get("/api/shelf")
    assert {p["name"] for p in page["products"]} == {f.label.name for f in fertilizers().values()}
    assert all(p["shipped"] for p in page["products"])
    assert client.get("/api/options")["rate_pers"] == ["L", "10 L", "100 L", "US gal", "imp gal", "100 US gal"]


def test_the_round_uses_the_same_slope(kept: Client, feeds: dict[str, int]) -> None:
    kept.made("/api/pots", pot(code="P-09"))
    for on in ("2026-11-02", "2026-11-10"):
        kept.made("/api/pours", pour(pot_ids=[1, 2], on=on))
    for value in (40, 50, 60):
        b = made(kept, value=value, made_on="2026-11-01")
        kept.made(f"/api/batches/{b['id']}/reading", reading(value=round(34 + 0.9 * (b["predicted_uS_cm"] - 34), 1)))
    tomorrow = Client(kept.store, TODAY + timedelta(days=1))  # no feed is due on a pot's first day
    fed = [c for c in tomorrow.get("/api/round")["plan"]["cans"] if c["job"] == "feed"]
    assert fed
    assert all(c["dose"]["predicted_by"] == "your own batches" for c in fed if c["dose"])
