"""Two phones and a laptop: an edit made on an old state loses nothing, and is told where both changed one field."""

from typing import Any

import pytest

from fenwa.api.typed import unit_of
from tests.conftest import Client, pot


def opened_water(kept: Client) -> dict[str, Any]:
    return dict(kept.get("/api/waters/1"))


def put(client: Client, path: str, body: dict[str, Any]) -> Any:
    return client.send(path, body, method="PUT")


def test_each_of_two_changes_another_field_of_a_water(kept: Client) -> None:
    seen = opened_water(kept)
    assert put(kept, "/api/waters/1", {**seen, "name": "Rain butt", "seen": seen}).status_code == 200
    assert put(kept, "/api/waters/1", {**seen, "preference": 7, "seen": seen}).status_code == 200
    stands = opened_water(kept)
    assert (stands["name"], stands["preference"]) == ("Rain butt", 7)


def test_one_field_changed_twice_is_told_with_both_and_stored_when_sent_again(kept: Client) -> None:
    seen = opened_water(kept)
    put(kept, "/api/waters/1", {**seen, "name": "Rain butt", "hardness_mg_L_CaCO3": 12, "seen": seen})
    mine = {**seen, "name": "Barrel", "preference": 3}
    told = put(kept, "/api/waters/1", {**mine, "seen": seen})
    assert told.status_code == 409
    problem = told.json()
    assert problem["code"] == "changed-elsewhere"
    assert [e["pointer"] for e in problem["errors"]] == ["/name"]
    assert "it is “Rain butt” now" in problem["errors"][0]["detail"]
    assert problem["facts"] == {"now": {"name": "Rain butt"}}
    assert opened_water(kept)["preference"] == seen["preference"], "a refusal changes nothing"
    again = put(kept, "/api/waters/1", {**mine, "seen": {**seen, **problem["facts"]["now"]}})
    assert again.status_code == 200
    stands = opened_water(kept)
    assert (stands["name"], stands["preference"], stands["hardness_mg_L_CaCO3"]) == ("Barrel", 3, 12)


def test_without_what_was_seen_the_last_one_stands(kept: Client) -> None:
    seen = opened_water(kept)
    put(kept, "/api/waters/1", {**seen, "name": "Rain butt"})
    put(kept, "/api/waters/1", {**seen, "preference": 9})
    assert opened_water(kept)["name"] == seen["name"]


def test_litres_poured_since_the_form_was_opened_are_not_given_back(kept: Client) -> None:
    put(kept, "/api/waters/1", {**opened_water(kept), "on_hand_L": 50})
    seen = opened_water(kept)
    kept.made("/api/pours", {"pot_ids": [1], "on": "2026-11-23", "water_id": 1, "volume": 2000})
    put(kept, "/api/waters/1", {**seen, "name": "Rain butt", "seen": seen})
    assert opened_water(kept)["on_hand_L"] == pytest.approx(48)


def test_a_meter(kept: Client) -> None:
    made = kept.made("/api/meters", {"name": "Pen", "unit": "µS/cm"})["id"]
    row = next(m for m in kept.get("/api/meters")["meters"] if m["id"] == made)
    seen = {k: row[k] for k in ("name", "unit", "scale", "compensation", "alpha_pct_per_C", "resolution", "device")}
    assert put(kept, f"/api/meters/{made}", {**seen, "device": "usb", "seen": seen}).status_code == 200
    assert put(kept, f"/api/meters/{made}", {**seen, "name": "Blue pen", "seen": seen}).status_code == 200
    told = put(kept, f"/api/meters/{made}", {**seen, "name": "Red pen", "seen": seen})
    assert told.status_code == 409
    assert told.json()["facts"] == {"now": {"name": "Blue pen"}}
    row = next(m for m in kept.get("/api/meters")["meters"] if m["id"] == made)
    assert (row["name"], row["device"]) == ("Blue pen", "usb")


def test_settings(kept: Client) -> None:
    out = kept.get("/api/settings")
    seen = {k: v for k, v in out.items() if k not in ("display", "fallen_back")}
    assert put(kept, "/api/settings", {**seen, "theme": "dark", "seen": seen}).status_code == 200
    assert put(kept, "/api/settings", {**seen, "scale_step_g": 0.01, "seen": seen}).status_code == 200
    now = kept.get("/api/settings")
    assert (now["theme"], now["scale_step_g"]) == ("dark", 0.01)
    assert put(kept, "/api/settings", {**seen, "theme": "light", "seen": seen}).status_code == 409


def test_a_pot(kept: Client) -> None:
    kept.made("/api/pots", pot(code="P-02"))
    row = next(p for p in kept.get("/api/pots")["pots"] if p["id"] == 1)
    seen = {k: row[k] for k in ("code", "place", "spot", "drainage", "route", "isolated")} | {"name": ""}
    mine = {"pot_ids": [1], **seen, "seen": seen}
    kept.made("/api/pots/change", {**mine, "spot": "left"})
    kept.made("/api/pots/change", {**mine, "name": "the big one"})
    row = next(p for p in kept.get("/api/pots")["pots"] if p["id"] == 1)
    assert (row["spot"], row["name"]) == ("left", "the big one")
    problem = kept.refused("/api/pots/change", {**mine, "spot": "right"}, 409)
    assert problem["facts"] == {"now": {"spot": "left"}}
    kept.made("/api/pots/change", {**mine, "spot": "right", "seen": {**seen, "spot": "left"}})
    row = next(p for p in kept.get("/api/pots")["pots"] if p["id"] == 1)
    assert (row["spot"], row["name"], row["code"]) == ("right", "the big one", "P-01")


@pytest.mark.parametrize(
    ("field", "theirs", "mine", "said"),
    [
        ("on_hand_L", 50, 40, "it is 50 L now"),
        ("hardness_mg_L_CaCO3", 12, 20, "it is 12 mg/L now"),
        ("price_per_L", 0.02, 0.03, "it is 0.02 a litre now"),
        ("preference", 7, 8, "it is 7 now"),
        ("name", "Rain butt", "Barrel", "it is “Rain butt” now"),
    ],
)
def test_what_stands_is_told_with_its_unit(kept: Client, field: str, theirs: object, mine: object, said: str) -> None:
    seen = opened_water(kept)
    assert put(kept, "/api/waters/1", {**seen, field: theirs, "seen": seen}).status_code == 200
    told = put(kept, "/api/waters/1", {**seen, field: mine, "seen": seen})
    assert told.status_code == 409
    assert said in told.json()["errors"][0]["detail"]


def test_and_in_the_units_of_the_one_who_reads_it(kept: Client) -> None:
    seen = opened_water(kept)
    put(kept, "/api/waters/1", {**seen, "on_hand_L": 50, "seen": seen})
    settings = {k: v for k, v in kept.get("/api/settings").items() if k not in ("display", "fallen_back")}
    assert put(kept, "/api/settings", {**settings, "volume_unit": "US gal"}).status_code == 200
    told = put(kept, "/api/waters/1", {**seen, "on_hand_L": 40, "seen": seen})
    assert "it is 13 US gal now" in told.json()["errors"][0]["detail"]


@pytest.mark.parametrize(
    ("name", "unit"),
    [
        ("alpha_pct_per_C", "% per °C"),
        ("accuracy_pct_fs", "% of the range"),
        ("range_uS_cm", "µS/cm"),
        ("label_rate_mL_L", "mL/L"),
        ("dose_g_L", "g/L"),
        ("volume_L", "L"),
        ("syringe_step_mL", "mL"),
        ("scale_step_g", "g"),
        ("top_cm", "cm"),
        ("newest_leaf_mm", "mm"),
        ("minimum_C", "°C"),
        ("humidity_pct", "%"),
        ("check_days", "d"),
        ("resolution", ""),
        ("water_id", ""),
    ],
)
def test_a_unit_is_read_off_the_end_of_a_name(name: str, unit: str) -> None:
    assert unit_of(name) == unit


def test_a_school(kept: Client) -> None:
    school_id = next(s["school"]["id"] for s in kept.get("/api/mix")["schools"] if s["school"]["n_low_mg_L"] > 0)

    def stands() -> dict[str, Any]:
        found = next(s["school"] for s in kept.get("/api/mix")["schools"] if s["school"]["id"] == school_id)
        return {k: v for k, v in found.items() if k in FIGURES}

    path, seen = f"/api/mix/schools/{school_id}", stands()
    low, high = seen["n_low_mg_L"], seen["n_high_mg_L"]
    first = {**seen, "name": "Weak and often", "seen": seen}
    assert put(kept, path, first).status_code == 200
    second = {**seen, "n_low_mg_L": low + 1, "seen": seen}
    assert put(kept, path, second).status_code == 200
    assert (stands()["name"], stands()["n_low_mg_L"], stands()["n_high_mg_L"]) == ("Weak and often", low + 1, high)
    told = put(kept, path, {**seen, "name": "Weakly", "n_low_mg_L": low + 1, "seen": seen})
    assert told.status_code == 409
    assert [e["pointer"] for e in told.json()["errors"]] == ["/name"], "the same figure twice is no quarrel"
    assert "it is “Weak and often” now" in told.json()["detail"]
    again = {**seen, "name": "Weakly", "seen": {**seen, **told.json()["facts"]["now"]}}
    assert put(kept, path, again).status_code == 200
    assert (stands()["name"], stands()["n_low_mg_L"]) == ("Weakly", low + 1)
    own = {**seen, "name": "Aunt’s way", "seen": seen}
    assert put(kept, "/api/mix/schools/own_one", own).status_code == 200, "a school that is new was changed by nobody"


FIGURES = {
    "name",
    "n_mg_L",
    "n_low_mg_L",
    "n_high_mg_L",
    "cycle",
    "feeds",
    "plain_times",
    "route",
    "season",
    "label_share",
    "prill_g_L",
    "prill_n_pct",
    "prill_days",
    "spray_mL",
    "when",
}


@pytest.mark.parametrize("of", ["kind", "plant"])
def test_own_figures(kept: Client, of: str) -> None:
    plant = {} if of == "kind" else {"plant_id": kept.get("/api/pots/1/plants")[0]["id"]}
    page = "/api/kinds/paphiopedilum" + ("" if of == "kind" else f"?plant_id={plant['plant_id']}")
    path = "/api/kinds/paphiopedilum/own"
    seen = kept.get(page)["limits"]
    kept.made(path, {"water_max": "250", **plant, "seen": seen})
    kept.made(path, {"minimum_C": "9", **plant, "seen": seen})
    now = kept.get(page)["limits"]
    assert (now["water_max"], now["minimum_C"]) == (250, 9), "each changed another"
    told = kept.send(path, {"water_max": "200", "reading_high": "600", **plant, "seen": seen})
    assert told.status_code == 409
    assert [e["pointer"] for e in told.json()["errors"]] == ["/water_max"]
    assert told.json()["facts"] == {"now": {"water_max": 250}}
    assert kept.get(page)["limits"] == now, "a refusal changes nothing"
    kept.made(path, {"water_max": "200", **plant, "seen": {**seen, "water_max": 250}})
    assert kept.get(page)["limits"]["water_max"] == 200
    kept.made(path, {"water_max": "190", **plant})
    assert kept.get(page)["limits"]["water_max"] == 190, "without what was seen the last one stands"
    if of == "plant":
        assert kept.get("/api/kinds/paphiopedilum")["limits"]["water_max"] == seen["water_max"], (
            "its kind keeps its own"
        )


LABEL = {
    "name": "Own mix",
    "basis": "w/w",
    "pk_as": "oxide",
    "others_as": "element",
    "n_nitrate_pct": "8",
    "n_ammonium_pct": "4",
    "p_pct": "5",
    "k_pct": "12",
}


def test_the_label_of_a_feed(kept: Client) -> None:
    made = kept.made("/api/products", {**LABEL, "price": "10", "left_amount": "500"})["id"]
    path = f"/api/products/{made}/correct"
    seen = {**LABEL, "price": "10", "left_amount": "500"}

    def stands() -> tuple[Any, ...]:
        shelf = kept.get("/api/shelf")
        label = next(p["label"] for p in shelf["products"] if p["id"] == made)
        pack = next(p for p in shelf["packs"] if p["product_id"] == made)
        return label["name"], label["p_pct"], label["k_pct"], pack["price"], pack["left_amount"]

    kept.made(path, {**seen, "p_pct": "6", "seen": seen})
    kept.made(path, {**seen, "price": "12.5", "seen": seen})
    kept.made(path, {**seen, "name": "Own mix, new bag", "seen": seen})
    kept.made(path, {**seen, "left_amount": "450", "seen": seen})
    assert stands() == ("Own mix, new bag", 6, 12, 12.5, 450), "each changed another"
    told = kept.send(path, {**seen, "p_pct": "7", "price": "12.5", "seen": seen})
    assert told.status_code == 409
    assert [e["pointer"] for e in told.json()["errors"]] == ["/p_pct"]
    assert "Phosphorus was changed elsewhere meanwhile: it is 6 % now" in told.json()["detail"]
    kept.made(path, {**seen, "p_pct": "7", "seen": {**seen, **told.json()["facts"]["now"]}})
    assert stands() == ("Own mix, new bag", 7, 12, 12.5, 450)
    refused = kept.send(path, {**seen, "k_pct": "99", "seen": seen})
    assert refused.status_code == 422, "what was merged is checked like any label"
    assert stands()[2] == 12
    kept.made(path, seen)
    assert stands() == ("Own mix", 5, 12, 10, 500), "without what was seen the last one stands"


def test_a_feeding_plan_is_replaced_whole_and_told_in_a_sentence(kept: Client) -> None:
    plan = {"scope": "plant", "key": "1", "rhythm": "days", "every_days": "7", "strength": "nitrogen", "value": 40}
    first = kept.made("/api/plans", {**plan, "seen": 0})["id"]
    told = kept.send("/api/plans", {**plan, "every_days": "10", "seen": 0})
    assert told.status_code == 409, "another made one meanwhile"
    problem = told.json()
    assert (problem["code"], problem["facts"]) == ("changed-elsewhere", {"now": {"seen": first}})
    (kept_plan,) = kept.get("/api/plans")
    assert kept_plan["sentence"] in problem["detail"]
    assert problem["detail"].endswith("Save again to store yours, or Cancel to keep that.")
    second = kept.made("/api/plans", {**plan, "every_days": "10", "seen": problem["facts"]["now"]["seen"]})["id"]
    kept.made(f"/api/log/plan/{second}/archive")
    gone = kept.send("/api/plans", {**plan, "every_days": "12", "seen": second})
    assert gone.status_code == 409
    assert "The plan was taken away." in gone.json()["detail"]
    kept.made("/api/plans", {**plan, "every_days": "12"})
    assert [p["plan"]["every_days"] for p in kept.get("/api/plans")] == [12], (
        "without what was seen the last one stands"
    )
