"""A grower without any meter: no source was ever read, and nothing is refused, hidden or called safe for that."""

from datetime import date, timedelta
from typing import Any

import pytest

from fenwa.core.data.water_tables import water_kinds
from tests.conftest import TODAY, Client, pot


def add(client: Client, name: str, kind: str, **changes: Any) -> int:
    return int(client.made("/api/waters", {"name": name, "kind": kind, **changes})["id"])


def cans(client: Client) -> list[tuple[str, list[str]]]:
    return [(c["water_name"], [p["code"] for p in c["pots"]]) for c in client.get("/api/round")["plan"]["cans"]]


def looks(client: Client) -> dict[str, str]:
    return {x["code"]: f"{x['reason']} {x['release']}" for x in client.get("/api/round")["plan"]["looks"]}


@pytest.fixture
def house(client: Client) -> Client:
    """Tap (chloramine), a filter jug, shop distilled and a rain barrel, in this order, and one strict plant."""
    add(client, "Tap", "mains", disinfectant="chloramine")
    add(client, "Jug", "jug-filtered", disinfectant="none")
    add(client, "Distilled", "distilled")
    add(client, "Barrel", "rain")
    client.made("/api/pots", pot(code="S-01", profile_id="stromanthe", medium_id="peat_perlite", plain_every=0))
    return client


def test_every_kind_of_source_is_not_measured_and_never_unfit_for_that(client: Client) -> None:
    for kind in water_kinds():
        add(client, kind, kind)
    client.made("/api/pots", pot())
    page = client.get("/api/water")
    assert {w["ec25_uS_cm"] for w in page["waters"]} == {None}
    for w in page["waters"]:
        assert w["usual"]["low_uS_cm"] < w["usual"]["usual_uS_cm"] < w["usual"]["high_uS_cm"]
        assert w["amounts"].startswith("Not measured; ")
    assert {v["amount"] for v in page["verdicts"]} == {"not measured"}
    words = {v["word"] for v in page["verdicts"]}
    assert "no" not in words, "not measured is not unfit"
    assert "yes" not in words, "and not safe"
    working = client.get(f"/api/waters/{page['waters'][0]['id']}/usual")["working"]
    assert any("Nobody measured it" in c for c in working["cautions"])


def test_the_round_takes_the_clean_one_and_never_the_first_because_it_is_first(house: Client) -> None:
    """Rain, then distilled, then the jug; the tap's chloramine is refused for this kind whatever else is missing."""
    ids = {w["name"]: w["id"] for w in house.get("/api/water")["waters"]}
    for name in ("Barrel", "Distilled", "Jug"):
        assert cans(house) == [(name, ["S-01"])]
        house.made(f"/api/log/water/{ids[name]}/archive")
    assert cans(house) == []
    assert "Tap: chloramine, which does not leave on standing" in looks(house)["S-01"]
    house.made(f"/api/log/water/{ids['Jug']}/restore")
    can = house.get("/api/round")["plan"]["cans"][0]
    assert (can["ec_low_uS_cm"], can["ec_high_uS_cm"]) == (0, 800), "not measured: its range is told"


def test_what_is_known_to_harm_is_refused_and_the_pot_is_shown_with_the_way_out(client: Client) -> None:
    add(client, "Softener", "softened")
    client.made("/api/pots", pot(code="S-01", profile_id="stromanthe"))
    assert cans(client) == []
    assert "softened water carries sodium" in looks(client)["S-01"]
    page = client.get("/api/pots/1")
    assert page["pour_water_id"] is None
    assert "Softener: softened water" in page["water_note"]
    add(client, "Distilled", "distilled")
    assert cans(client) == [("Distilled", ["S-01"])]


def test_a_plant_is_not_left_dry_because_its_water_is_hard(client: Client) -> None:
    hose = add(client, "Hose", "borehole")
    client.made(f"/api/waters/{hose}/readings", {"on": "2026-11-20", "value": 640})
    client.made("/api/pots", pot(code="D-01", profile_id="disa", medium_id="sphagnum_live", plain_every=0))
    assert cans(client) == [("Hose", ["D-01"])]
    said = looks(client)["D-01"]
    assert "Hose, 640 of at most 80 µS/cm" in said
    assert "Better than dry, until 30 Nov at most" in said, "over what it bears for weeks: seven days"
    client.made(
        "/api/pours", {"pot_ids": [1], "on": "2026-11-23", "water_id": hose, "volume": 200, "note": "nothing else"}
    )
    later = Client(client.store, TODAY + timedelta(days=9))
    assert "its time ended on 30 Nov: change now" in looks(later)["D-01"]
    assert [c[0] for c in cans(later)] == ["Hose"], "still shown, still not left dry"
    add(later, "Rain", "rain")
    assert cans(later) == [("Rain", ["D-01"])]
    assert "D-01" not in looks(later)


def test_a_pen_of_unknown_scale_is_over_or_within_on_every_scale(client: Client) -> None:
    """Tap 88 is over 100 µS/cm on every scale (126 to 176), osmosis 9 within on every scale; no scale is guessed."""
    for name, kind, shown in (("Tap", "mains", 88), ("Osmosis", "permeate", 9)):
        row = add(client, name, kind, disinfectant="none")
        entry = {"on": "2026-11-20", "value": shown, "unit": "ppm", "scale": "unknown"}
        client.made(f"/api/waters/{row}/readings", entry)
    client.made("/api/pots", pot(code="B-01", profile_id="drosera_tropical", drainage="tray", route="tray"))
    page = client.get("/api/water")
    names = {w["id"]: w["name"] for w in page["waters"]}
    found = {names[v["water_id"]]: v["amount"] for v in page["verdicts"]}
    assert found == {"Tap": "over", "Osmosis": "within"}
    assert cans(client) == [("Osmosis", ["B-01"])]


def test_a_pour_and_a_can_of_it_are_logged_as_not_measured(client: Client) -> None:
    barrel = add(client, "Barrel", "rain")
    client.made("/api/pots", pot())
    poured = client.made("/api/pours", {"pot_ids": [1], "on": "2026-11-23", "water_id": barrel, "volume": 150})
    assert poured["ec_uS_cm"] == 20
    (row,) = client.get("/api/pots/1")["pours"]
    assert row["ec_estimated"] is True
    can = {
        "product_id": 1,
        "water_id": barrel,
        "volume": 2,
        "strength": "nitrogen",
        "value": 40,
        "made_on": "2026-11-23",
    }
    made = client.made("/api/batches", can)
    assert made["predicted_low_uS_cm"] <= made["predicted_uS_cm"] - 39, "the range holds what the rain may be"
    client.made(
        "/api/pours", {"pot_ids": [1], "on": "2026-11-23", "batch_id": made["id"], "volume": 150, "note": "fed"}
    )
    assert [p["ec_estimated"] for p in client.get("/api/pots/1")["pours"]] == [True, True]
    client.made(f"/api/waters/{barrel}/readings", {"on": "2026-11-23", "value": 31})
    again = client.made("/api/pours", {"pot_ids": [1], "on": "2026-11-23", "water_id": barrel, "volume": 150})
    assert again["ec_uS_cm"] == 31
    assert [p["ec_estimated"] for p in client.get("/api/pots/1")["pours"]] == [True, True, False]


def test_hardness_of_a_strip_narrows_what_a_tap_may_read(client: Client) -> None:
    add(client, "Soft tap", "mains", hardness_mg_L_CaCO3=40)
    add(client, "Hard tap", "mains", hardness_mg_L_CaCO3=300)
    client.made("/api/pots", pot())
    soft, hard = (w["usual"] for w in client.get("/api/water")["waters"])
    assert (soft["by"], hard["by"]) == ("its hardness", "its hardness")
    assert soft["high_uS_cm"] < hard["low_uS_cm"]


def test_flush_blend_and_share_out_go_on_without_a_reading(house: Client) -> None:
    ids = {w["name"]: w["id"] for w in house.get("/api/water")["waters"]}
    house.made("/api/pours", {"pot_ids": [1], "on": "2026-11-20", "water_id": ids["Barrel"], "volume": 150})
    assert house.send("/api/pots/1/flush-plan", {"water_id": ids["Barrel"]}).status_code == 200
    assert house.send("/api/water/share-out", method="GET").status_code == 200
    mix = house.get("/api/mix")
    assert {w["usual"] is None for w in mix["waters"]} == {False}
    assert date.fromisoformat(mix["today"]) == TODAY
