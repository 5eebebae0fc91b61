"""Pages and lists: their facts agree with each other, their forms offer what the core knows."""

from typing import Any, get_args

import pytest

from fenwa.core.care.condition import Phase
from fenwa.core.library.loader import media, profiles
from fenwa.core.mix.rates import RATE_UNITS
from fenwa.core.pot.specification import Route
from fenwa.core.units import DISPLAY, to_canonical
from tests.conftest import Client, pot, reading

PAGES = [
    "/api/stations",
    "/api/round",
    "/api/water",
    "/api/mix",
    "/api/pots",
    "/api/pots/6",
    "/api/kinds",
    "/api/kinds/disa",
    "/api/places",
    "/api/pots/6/care",
    "/api/options",
    "/api/people",
    "/api/timers",
    "/api/lan",
    "/api/settings",
    "/api/calc",
    "/api/health",
]


@pytest.mark.parametrize("page", PAGES)
def test_pages_are_not_kept_by_the_browser(demo: Client, page: str) -> None:
    assert demo.http.get(page).headers["cache-control"] == "no-store"


def test_openapi_names_every_route_once_with_a_summary(demo: Client) -> None:
    document = demo.get("/api/openapi.json")
    operations = [(path, verb, op) for path, verbs in document["paths"].items() for verb, op in verbs.items()]
    assert len({op["operationId"] for *_, op in operations}) == len(operations)
    assert all(op["summary"] for *_, op in operations)
    writes = [(path, op) for path, verb, op in operations if verb in ("post", "put") and "/calc/" not in path]
    previews = {
        "/api/mix/dose",
        "/api/candidates/fit",
        "/api/trials/preview",
        "/api/pots/{pot_id}/flush-plan",
        "/api/reports/preview",
        "/api/water/blend",
        "/api/water/dechlorinate",
        "/api/water/boil",
        "/api/water/acidify",
        "/api/meters/{meter_id}/scale-guess",
        "/api/mix/preview",
        "/api/mix/names",
        "/api/mix/fit",
        "/api/mix/compare",
        "/api/mix/stock",
        "/api/mix/clear",
        "/api/mix/injector",
        "/api/mix/serial",
        "/api/mix/schools/load",
        "/api/products/grade",
        "/api/products/elements",
        "/api/measures/preview",
        "/api/plans/preview",
        "/api/mix/pots",
        "/api/batches/{batch_id}/rescue",
        "/api/media/mixture",
        "/api/media/litres",
        "/api/water/need",
        "/api/candidates/judge",
        "/api/flush/round",
        "/api/photos/{photo_id}/measured/preview",
        "/api/photos/{photo_id}/marks/preview",
        "/api/archive/preview",
        "/api/pots/said",
        "/api/start/drawn",
        "/api/sums/water",
        "/api/sums/feed",
        "/api/sums/blend",
        "/api/sums/flush",
    }
    # the pen stores nothing; a logger's pack names itself and is stored once whatever it sends
    # and a passphrase leaves no quick hash in the record of submissions
    devices = {"/api/pen/start", "/api/pen/simulated", "/api/inbox/senml", "/api/lan/passphrase"}
    devices |= {"/api/backups/{name}/restore", "/api/archive/import"}  # the record of submissions is replaced as well
    devices |= {"/api/demonstration"}  # of this browser, stored nowhere
    for path, op in writes:
        keyed = any(p["name"] == "idempotency-key" for p in op.get("parameters", []))
        assert keyed is (path not in previews | devices), path


def test_options_are_the_cores_own_lists(demo: Client) -> None:
    options = demo.get("/api/options")
    assert {c["value"] for c in options["media"]} == set(media())
    assert {c["value"] for c in options["profiles"]} == set(profiles())
    assert options["phases"] == list(get_args(Phase))
    assert options["routes"] == list(get_args(Route))
    assert options["rate_units"] == list(RATE_UNITS)
    assert options["today"] == "2026-11-23"


def test_stations_agree_with_their_pages(demo: Client) -> None:
    figures = {s["key"]: s for s in demo.get("/api/stations")}
    plan = demo.get("/api/round")["plan"]
    assert figures["round"]["figure"] == f"{plan['pots_due']} pots today"
    assert figures["pots"]["figure"] == f"{len(demo.get('/api/pots')['pots'])} pots"
    assert figures["flush"]["figure"] == f"{sum(c['job'] == 'flush' for c in plan['cans'])} due"
    first = demo.get("/api/water")["waters"][0]
    assert figures["water"]["ec_uS_cm"] == first["ec25_uS_cm"]
    assert list(figures) == ["round", "water", "mix", "pots", "flush", "leaf", "shelf"]


def test_round_keeps_every_ceiling_and_every_hold(demo: Client) -> None:
    rows = {p["id"]: p for p in demo.get("/api/pots")["pots"]}
    mix = {p["id"]: p for p in demo.get("/api/mix")["pots"]}
    seen: list[int] = []
    for can in demo.get("/api/round")["plan"]["cans"]:
        for share in can["pots"]:
            seen.append(share["pot_id"])
            held = {b for h in rows[share["pot_id"]]["holds"] for b in h["blocks"]}
            assert "water" not in held
            if can["job"] == "feed":
                assert "feed" not in held
                assert can["ec_uS_cm"] <= mix[share["pot_id"]]["feed_ceiling_uS_cm"]
                assert mix[share["pot_id"]]["feeds_at_root"]
        assert can["volume_L"] * 1000 >= sum(p["amount_mL"] for p in can["pots"]) * 0.99
    assert len(seen) == len(set(seen))


def test_cans_go_out_from_weak_to_strong_and_flushes_last(demo: Client) -> None:
    cans = demo.get("/api/round")["plan"]["cans"]
    order = {"plain": 0, "feed": 1, "flush": 2}
    assert [order[c["job"]] for c in cans] == sorted(order[c["job"]] for c in cans)
    feeds = [c["ec_uS_cm"] for c in cans if c["job"] == "feed"]
    assert feeds == sorted(feeds)
    assert [c["letter"] for c in cans] == [chr(65 + i) for i in range(len(cans))]


def test_water_page_has_a_verdict_for_every_pair(demo: Client) -> None:
    page = demo.get("/api/water")
    pairs = {(v["water_id"], v["profile_id"]) for v in page["verdicts"]}
    assert pairs == {(w["id"], g["profile_id"]) for w in page["waters"] for g in page["groups"]}
    limits = [g["ec_max_uS_cm"] for g in page["groups"]]
    assert limits == sorted(limits)
    tap = next(w for w in page["waters"] if w["kind"] == "softened")
    assert all(v["kind"] == "known bad" for v in page["verdicts"] if v["water_id"] == tap["id"])


def test_flush_plan_uses_the_chosen_water(demo: Client) -> None:
    row = max(demo.get("/api/pots")["pots"], key=lambda p: (p["reading_uS_cm"] or 0) / p["ceiling_uS_cm"])
    waters = {w["name"]: w["id"] for w in demo.get("/api/water")["waters"]}
    plans = {
        name: demo.http.post(
            f"/api/pots/{row['id']}/flush-plan",
            json={"water_id": waters[name], "target_reading": row["ideal_high_uS_cm"]},
        ).json()["result"]
        for name in ("Rain cistern", "Borehole")
    }
    assert plans["Rain cistern"]["rounds"] <= plans["Borehole"]["rounds"]
    assert plans["Rain cistern"]["one_round_floor_uS_cm"] < plans["Borehole"]["one_round_floor_uS_cm"]


@pytest.mark.parametrize(
    ("body", "pointer"),
    [
        ({"scale_step_g": 0}, "/scale_step_g"),
        ({"syringe_step_mL": -1}, "/syringe_step_mL"),
        ({"ec_unit": "grains"}, "/ec_unit"),
        ({"theme": "pink"}, "/theme"),
        ({"scale_step_g": "a pinch"}, "/scale_step_g"),
    ],
)
def test_settings_refuse_what_cannot_be(client: Client, body: dict[str, Any], pointer: str) -> None:
    answer = client.send("/api/settings", body, method="PUT")
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["pointer"] == pointer
    assert client.get("/api/settings")["scale_step_g"] == 0.1


@pytest.mark.parametrize("kind", sorted(DISPLAY))
def test_display_units_go_there_and_back(kind: str) -> None:
    for name, unit in DISPLAY[kind].items():
        for value in (0.0, 1.0, 437.5):
            assert to_canonical(value * unit.factor + unit.offset, kind, name) == pytest.approx(value)


@pytest.mark.parametrize(
    ("product", "elements"),
    [
        (
            {"name": "16-16-16", "n_total_pct": 16, "p_pct": 16, "k_pct": 16, "pk_as": "oxide"},
            {"N_mg_g": 160, "P_mg_g": 69.82, "K_mg_g": 132.83},
        ),
        (
            {"name": "AU 10-4-8", "n_total_pct": 10, "p_pct": 4, "k_pct": 8, "pk_as": "element"},
            {"P_mg_g": 40, "K_mg_g": 80},
        ),
        (
            {
                "name": "EU",
                "n_nitrate_pct": 10,
                "mg_pct": 5,
                "others_as": "oxide",
                "acidity_kg_t": 400,
                "acidity_unit": "lb/short ton",
            },
            {"Mg_mg_g": 30.15},
        ),
        (
            {"name": "Liquid", "form": "liquid", "basis": "w/v", "density_g_mL": "1,21", "n_urea_pct": 7.26},
            {"N_mg_g": 60.0, "N_urea_mg_g": 60.0},
        ),
    ],
)
def test_a_feed_on_the_shelf_shows_its_elements(
    client: Client, product: dict[str, Any], elements: dict[str, float]
) -> None:
    stored = client.made("/api/products", product)["id"]
    shown = next(p for p in client.get("/api/mix")["products"] if p["id"] == stored)["elements"]
    for name, value in elements.items():
        assert shown[name] == pytest.approx(value, abs=0.01)
    client.made(f"/api/log/product/{stored}/archive")
    assert stored not in {p["id"] for p in client.get("/api/mix")["products"]}


def test_strictest_of_the_chosen_pots_is_named(kept: Client) -> None:
    kept.made("/api/pots", pot(code="M-01", profile_id="masdevallia"))
    can = {"product_id": 1, "water_id": 1, "volume": 2, "strength": "ec_total", "value": 450}
    alone = kept.made("/api/mix/dose", {**can, "pot_ids": [1]})
    both = kept.made("/api/mix/dose", {**can, "pot_ids": [1, 2]})
    assert alone["result"]["headroom_uS_cm"] == pytest.approx(820 - 450, abs=0.5)
    assert both["result"]["headroom_uS_cm"] == pytest.approx(500 - 450, abs=0.5)
    assert any("M-01 Masdevallia" in t["label"] for t in both["working"]["inputs"])
    assert kept.made("/api/mix/dose", {**can, "pot_ids": []})["result"]["headroom_uS_cm"] is None


def test_a_plain_can_is_the_water_itself(kept: Client) -> None:
    batch = kept.made("/api/batches", {"water_id": 1, "volume": 3, "made_on": "2026-11-22"})
    assert (batch["predicted_uS_cm"], batch["dose_g_L"], batch["name"]) == (34, 0, "Rain, nothing added")
    assert "no usable working" not in str(batch)
    refused = kept.http.get(f"/api/batches/{batch['id']}/working")
    assert refused.status_code == 422
    assert "water's own reading" in refused.json()["detail"]


def test_a_can_cannot_be_judged_on_an_unknown_scale(kept: Client) -> None:
    batch = kept.made("/api/batches", {"water_id": 1, "volume": 3, "made_on": "2026-11-22"})
    answer = kept.refused(f"/api/batches/{batch['id']}/reading", reading(value=20, unit="ppm", scale="unknown"))
    assert answer["errors"][0]["pointer"] == "/scale"
    assert kept.get("/api/mix")["batches"][0]["measured_uS_cm"] is None


@pytest.mark.parametrize(("unit", "litres"), [("L", 1.0), ("US gal", 3.785), ("imp gal", 4.546)])
def test_a_can_may_be_named_in_either_gallon(kept: Client, unit: str, litres: float) -> None:
    can = {"product_id": 1, "water_id": 1, "volume": 1, "volume_unit": unit, "strength": "nitrogen", "value": 40}
    d = kept.made("/api/mix/dose", can)["result"]
    assert d["amount_g"] / d["dose_g_L"] == pytest.approx(litres, abs=5e-4)
