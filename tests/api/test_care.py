"""Care over HTTP: holds set aside, schools, seasons, weights, own figures; each refusal names its field."""

from datetime import timedelta
from typing import Any

import pytest

from fenwa.core.library.loader import profiles
from tests.conftest import TODAY, Client, pot, pour


def care(client: Client, pot_id: int = 1) -> Any:
    return client.get(f"/api/pots/{pot_id}/care")


def test_a_hold_is_set_aside_with_a_word_and_taken_back(kept: Client) -> None:
    kept.made("/api/pots/1/phase", {"phase": "rest", "since": "2026-11-10"})
    assert [h["id"] for h in care(kept)["holds"]] == ["resting"]
    refused = kept.refused("/api/pots/1/override", {"hold_id": "resting", "word": " "})
    assert refused["errors"][0]["pointer"] == "/word"
    assert "no open hold" in kept.refused("/api/pots/1/override", {"hold_id": "rot", "word": "x"})["detail"]
    kept.made("/api/pots", pot(code="D-01", profile_id="dionaea"))
    assert (
        "rule of the kind"
        in kept.refused("/api/pots/2/override", {"hold_id": "carnivore roots", "word": "x"})["detail"]
    )
    row = kept.made("/api/pots/1/override", {"hold_id": "resting", "word": "a warm week"})
    assert [h["word"] for h in care(kept)["holds"]] == ["a warm week"]
    assert kept.get("/api/round")["plan"]["looks"] == []
    kept.made(f"/api/log/override/{row['id']}/archive")
    assert [h["word"] for h in care(kept)["holds"]] == [""]


def test_the_first_leaf_ends_the_hold_of_an_arrival(client: Client) -> None:
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    client.made("/api/pots", pot(arrived_on="2026-11-03"))
    assert [h["id"] for h in care(client)["holds"]] == ["just arrived"]
    assert care(client)["phase"] == "active"
    client.made("/api/pots/1/looks", {"on": "2026-11-22", "new_leaf": True})
    assert care(client)["holds"] == []


def test_a_southern_place_turns_the_calendar_round(client: Client) -> None:
    client.made("/api/pots", pot(profile_id="cattleya_alliance", arrived_on="2026-01-01"))
    client.made("/api/pots/1/care", {"phase_school": "calendar"})
    place = client.get("/api/places")[0]
    assert care(client)["phase"] == "rest"
    client.made(f"/api/places/{place['id']}", {"hemisphere": "south"})
    assert care(client)["phase"] == "active"
    client.made(f"/api/places/{place['id']}", {"latitude_deg": 52, "hemisphere": "south"})
    assert care(client)["phase"] == "rest", "a latitude rules"
    assert client.refused(f"/api/places/{place['id']}", {"latitude_deg": 95})["errors"][0]["pointer"] == "/latitude_deg"


def test_a_dry_rest_ends_by_roots_and_not_by_the_date(client: Client) -> None:
    client.made("/api/pots", pot(profile_id="catasetum_group", arrived_on="2025-01-01"))
    place = client.get("/api/places")[0]["id"]
    client.made(f"/api/places/{place}", {"hemisphere": "south"})
    client.made("/api/pots/1/care", {"phase_school": "calendar"})
    found = care(client)
    assert (found["phase"], found["phase_by"]) == ("dormant", "growth gate")
    assert "roots 8 cm" in found["holds"][0]["release"]
    client.made("/api/pots/1/looks", {"on": "2026-11-20", "new_growth": True, "root": 5})
    assert care(client)["phase"] == "dormant"
    client.made("/api/pots/1/looks", {"on": "2026-11-22", "root": 9})
    assert care(client)["phase"] == "active"


def test_a_school_rules_the_rhythm_and_never_a_carnivores_root_by_default(kept: Client) -> None:
    kept.made("/api/pots/1/care", {"school_id": "pulse"})
    assert "Pulse" in care(kept)["school"]
    assert kept.refused("/api/pots/1/care", {"school_id": "moon"}, 404)["errors"][0]["pointer"] == "/school_id"
    kept.made("/api/pots", pot(code="N-01", profile_id="nepenthes_highland"))
    kept.made("/api/pots", pot(code="D-01", profile_id="dionaea"))
    for pot_id in (2, 3):
        kept.made("/api/pours", pour(pot_ids=[pot_id], on="2026-11-10"))

    def jobs() -> dict[str, str]:
        return {p["code"]: c["job"] for c in tomorrow.get("/api/round")["plan"]["cans"] for p in c["pots"]}

    tomorrow = Client(kept.store, TODAY + timedelta(days=1))  # no feed is due on a pot's first day
    assert jobs()["N-01"] == jobs()["D-01"] == "plain"
    for pot_id in (2, 3):
        kept.made(f"/api/pots/{pot_id}/care", {"school_id": "a_little_at_the_root"})
    kept.made("/api/pours", pour(pot_ids=[2, 3], on="2026-11-11"))
    assert jobs()["D-01"] == "plain", "its kind names no feed at the root"
    assert jobs()["N-01"] == "feed"
    plan = tomorrow.get("/api/round")["plan"]
    nepenthes = next(c for c in plan["cans"] if "N-01" in [p["code"] for p in c["pots"]])
    assert nepenthes["ec_uS_cm"] <= 160
    assert nepenthes["nitrogen_mg_L"] <= 20


def test_a_leaf_spray_is_its_own_bottle_and_does_not_count_as_water(kept: Client) -> None:
    kept.made("/api/pots", pot(code="D-02", profile_id="drosera_tropical"))
    kept.made("/api/pots/2/care", {"school_id": "leaf_before_dark"})

    def spray() -> list[Any]:
        return [c for c in tomorrow.get("/api/round")["plan"]["cans"] if c["job"] == "leaf spray"]

    tomorrow = Client(kept.store, TODAY + timedelta(days=1))  # nothing is sprayed on a pot's first day
    assert [p["code"] for p in spray()[0]["pots"]] == ["D-02"]
    assert spray()[0]["ec_uS_cm"] <= 290
    kept.made("/api/pours", pour(pot_ids=[2], volume=3, route="leaf spray", on="2026-11-22"))
    assert spray() == []
    assert any("D-02" in [p["code"] for p in c["pots"]] for c in kept.get("/api/round")["plan"]["cans"]), (
        "still wants water"
    )


def test_a_pot_on_the_scale_tells_its_water(kept: Client) -> None:
    assert care(kept)["water"] is None
    for on, grams, kind in (("2026-11-18", 850, "drained"), ("2026-11-15", 600, "dry"), ("2026-11-20", 750, "now")):
        kept.made("/api/pots/1/weights", {"on": on, "grams": grams, "kind": kind})
    found = care(kept)["water"]["result"]
    assert (found["left_mL"], found["days_left"]) == (150, pytest.approx(3))
    kept.made("/api/pots/1/weights", {"on": "2026-11-22", "grams": 640, "kind": "now"})
    assert [h["id"] for h in care(kept)["holds"]] == ["bone dry"]
    assert kept.refused("/api/pots/1/weights", {"on": "2026-11-22", "grams": 0})["errors"][0]["pointer"] == "/grams"


def test_a_cold_night_holds_feed_until_it_is_warm(kept: Client) -> None:
    place = kept.get("/api/places")[0]["id"]
    night = {"on": "2026-11-22", "night": 2}
    row = kept.made(f"/api/places/{place}/climate", night)
    assert [h["id"] for h in care(kept)["holds"]] == ["cold"]
    kept.made(f"/api/log/climate/{row['id']}/archive")
    assert care(kept)["holds"] == []
    assert "at least one" in kept.refused(f"/api/places/{place}/climate", {"on": "2026-11-22"})["detail"]


def test_own_figures_stand_before_the_shipped_and_can_be_taken_back(kept: Client) -> None:
    shipped = kept.get("/api/kinds/paphiopedilum")["profile"]
    row = kept.made("/api/kinds/paphiopedilum/own", {"reading_ceiling": 700, "word": "mine burn early"})
    page = kept.get("/api/kinds/paphiopedilum")
    assert (page["profile"]["root_zone"]["ec_ceiling_uS_cm"], page["own_word"]) == (700, "mine burn early")
    assert kept.get("/api/pots")["pots"][0]["ceiling_uS_cm"] == 700
    kept.made("/api/kinds/paphiopedilum/own", {"water_max": 100})
    assert kept.get("/api/kinds/paphiopedilum")["profile"]["root_zone"]["ec_ceiling_uS_cm"] == 700, (
        "what was kept stays"
    )
    refused = kept.refused("/api/kinds/paphiopedilum/own", {"reading_ceiling": 20})
    assert refused["errors"][0]["pointer"].startswith("/figures/root_zone")
    newest = kept.get("/api/kinds/paphiopedilum")["own_id"]
    assert newest != row["id"]
    kept.made(f"/api/log/own figures/{newest}/archive")
    assert kept.get("/api/kinds/paphiopedilum")["profile"] == shipped
    assert "No figure" in kept.refused("/api/kinds/paphiopedilum/own", {})["detail"]


def test_every_kind_shows_source_and_confidence(demo: Client) -> None:
    rows = demo.get("/api/kinds")
    assert len(rows) == len(profiles())
    assert all(r["source"] and r["confidence"] in ("high", "medium", "low") for r in rows)
    assert sum(r["pots"] for r in rows) == len(demo.get("/api/pots")["pots"])
    for r in rows:
        profile = demo.get(f"/api/kinds/{r['id']}")["profile"]
        assert all(profile[part]["confidence"] for part in ("source_water", "root_zone", "feeding", "hazard"))


@pytest.mark.parametrize("kind", ["rose", "unknown plant"])
def test_a_kind_that_is_not_there_is_said(demo: Client, kind: str) -> None:
    assert demo.http.get(f"/api/kinds/{kind}").status_code == 404


def test_plants_that_share_a_pot_are_judged_by_the_strictest(kept: Client) -> None:
    from fenwa.store import models

    before = kept.get("/api/pots")["pots"][0]["ceiling_uS_cm"]
    with kept.store.writing() as session:
        session.add(models.Plant(pot_id=1, profile_id="dionaea"))
        session.info["touched_pots"] = {1}
    row = kept.get("/api/pots")["pots"][0]
    assert row["ceiling_uS_cm"] == 200 < before
    assert "carnivore roots" in [h["id"] for h in row["holds"]]


def test_one_plant_has_figures_of_its_own_and_the_others_keep_theirs(kept: Client) -> None:
    kept.made("/api/pots", pot(code="P-02"))
    plant = kept.get("/api/pots/2/plants")[0]["id"]
    kept.made("/api/kinds/paphiopedilum/own", {"reading_ceiling": 900})
    kept.made("/api/kinds/paphiopedilum/own", {"reading_high": "310", "word": "burns early", "plant_id": plant})
    first, second = kept.get("/api/pots")["pots"]
    assert (first["ceiling_uS_cm"], second["ceiling_uS_cm"]) == (900, 900)
    assert first["ideal_high_uS_cm"] > 310
    assert second["ideal_high_uS_cm"] == 310
    kept.made("/api/kinds/paphiopedilum/own", {"reading_ceiling": 500, "plant_id": plant})
    first, second = kept.get("/api/pots")["pots"]
    assert (first["ceiling_uS_cm"], second["ceiling_uS_cm"], second["ideal_high_uS_cm"]) == (900, 500, 310)
    assert "not of the kind" in kept.refused("/api/kinds/disa/own", {"water_max": 30, "plant_id": plant})["detail"]
    assert "No figure is changed" in kept.refused("/api/kinds/disa/own", {"word": "none"})["detail"]


def test_the_seasons_of_the_settings_reach_the_places(kept: Client) -> None:
    """They were asked and went nowhere: a southern grower was given northern seasons."""

    def halves() -> dict[str, str]:
        return {p["name"]: p["hemisphere"] for p in kept.get("/api/places")}

    kept.made("/api/pots", pot(code="P-02", place="Annex"))
    kept.made(
        f"/api/places/{next(p['id'] for p in kept.get('/api/places') if p['name'] == 'Annex')}", {"latitude_deg": 52}
    )
    assert kept.send("/api/settings", {"hemisphere": "south"}, method="PUT").status_code == 200
    kept.made("/api/pots", pot(code="P-03", place="Porch"))
    assert halves()["Home"] == halves()["Porch"] == "south"
    assert halves()["Annex"] == "north", "its latitude decides"
    assert kept.send("/api/settings", {"hemisphere": "no seasons"}, method="PUT").status_code == 200
    assert halves()["Home"] == "none"
