"""The path from a water to a leaf through the API, on an empty store."""

from datetime import date

import pytest

from fenwa.core.library.loader import fertilizers
from tests.conftest import Client, pot, pour, reading


def test_an_empty_collection_answers_on_every_page(client: Client) -> None:
    assert client.get("/api/round")["plan"]["cans"] == []
    assert client.get("/api/water")["waters"] == []
    assert client.get("/api/pots")["pots"] == []
    assert [s["figure"] for s in client.get("/api/stations")][:4] == [
        "0 pots today",
        "no water yet",
        "no can yet",
        "0 pots",
    ]
    assert len(client.get("/api/mix")["products"]) == len(fertilizers())


def test_the_whole_path(client: Client) -> None:
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain"})["id"]
    stored = client.made(f"/api/waters/{water}/readings", reading(value="41,2", temperature=18, compensated=False))
    assert stored["ec25_uS_cm"] == pytest.approx(41.2 / (1 + 0.0191 * -7))
    working = client.get(f"/api/readings/{stored['id']}/working")
    assert working["steps"][-2]["formula"] == "EC_T / (1 + alpha * (T - 25))"
    pot_id = client.made("/api/pots", pot())["id"]
    page = client.get("/api/water")
    assert page["groups"][0]["short"] == "Paphiopedilum"
    assert page["verdicts"][0]["amount"] == "within"
    verdict = client.get(f"/api/waters/{water}/verdict/paphiopedilum")
    assert verdict["working"]["formula_id"] == "water.verdict.water_verdict"

    product = client.get("/api/mix")["products"][0]["id"]
    can = {
        "product_id": product,
        "water_id": water,
        "pot_ids": [pot_id],
        "volume": 2,
        "strength": "nitrogen",
        "value": 40,
    }
    dose = client.made("/api/mix/dose", can)["result"]
    assert dose["headroom_uS_cm"] == pytest.approx(820 - dose["ec_total_uS_cm"])
    batch = client.made("/api/batches", {**can, "made_on": "2026-11-04"})
    assert batch["predicted_uS_cm"] == pytest.approx(dose["ec_total_uS_cm"])
    judged = client.made(f"/api/batches/{batch['id']}/reading", reading(value=round(10 * batch["predicted_uS_cm"])))
    assert judged["check"]["verdict"] == "about ten times"
    assert judged["check"]["rescue_water_L"] > 10
    judged = client.made(f"/api/batches/{batch['id']}/reading", reading(value=round(batch["predicted_uS_cm"])))
    assert judged["batch"]["verdict"] == "fine"
    assert client.get(f"/api/batches/{batch['id']}/working")["title"] == "Dose for this can"

    for day, runoff in (("2026-11-05", None), ("2026-11-11", None), ("2026-11-17", 520)):
        poured = client.made(
            "/api/pours",
            pour(on=day, water_id=None, batch_id=batch["id"], runoff_ec=runoff, runoff_volume=60 if runoff else None),
        )
        assert poured["ec_uS_cm"] == judged["batch"]["measured_uS_cm"]
    page = client.get(f"/api/pots/{pot_id}")
    z = page["root_zone"]
    assert z["reading_low_uS_cm"] < z["reading_uS_cm"] < z["reading_high_uS_cm"]
    assert z["observations"][0]["runoff_ec"] == 520
    assert page["row"]["reading_uS_cm"] == pytest.approx(z["reading_uS_cm"])
    plan = client.made(f"/api/pots/{pot_id}/flush-plan", {"water_id": water, "target_reading": 60})
    assert plan["result"]["rounds"] >= 1

    look = client.made(
        f"/api/pots/{pot_id}/looks",
        {
            "on": "2026-11-22",
            "leaves_count": 5,
            "newest_leaf": "14,5",
            "newest_leaf_unit": "cm",
            "new_leaf": True,
            "marks": ["tip"],
        },
    )
    assert look["newest_leaf_mm"] == 145
    cans = client.get("/api/round")["plan"]["cans"]
    assert [p["code"] for p in cans[0]["pots"]] == ["P-01"]
    assert cans[0]["job"] == "plain"  # three feeds were given: the fourth watering is plain


def test_unknown_scale_is_kept_shown_and_refused(client: Client) -> None:
    water = client.made("/api/waters", {"name": "Tap", "kind": "mains"})["id"]
    stored = client.made(f"/api/waters/{water}/readings", reading(value=60, unit="ppm", scale="unknown"))
    assert stored["ec25_uS_cm"] is None
    assert {k: round(v) for k, v in stored["possible_uS_cm"].items()} == {"0.5": 120, "0.64": 94, "0.7": 86}
    client.made("/api/pots", pot())
    page = client.get("/api/water")["waters"][0]
    assert page["usual"]["sentence"] == "60 ppm on a scale not known: 86 to 120 µS/cm."
    assert page["ec25_uS_cm"] is None, "no scale is guessed"
    can = {"product_id": 1, "water_id": water, "volume": 2, "strength": "nitrogen", "value": 40}
    dose = client.send("/api/mix/dose", can).json()
    assert dose["result"]["ec_high_uS_cm"] - dose["result"]["ec_low_uS_cm"] > 34, "the scale is left open in the range"
    assert any("was not measured" in c for c in dose["working"]["cautions"])


def test_zero_unknown_and_not_measured_stay_apart(client: Client) -> None:
    client.made("/api/pots", pot())
    client.made("/api/pots/1/looks", {"on": "2026-11-20", "leaves_count": 0})
    client.made("/api/pots/1/looks", {"on": "2026-11-21", "unknown": ["leaves_count"]})
    client.made("/api/pots/1/looks", {"on": "2026-11-22", "newest_leaf": 40})
    looks = client.get("/api/pots/1")["looks"]
    assert [(x["leaves_count"], x["unknown"]) for x in looks] == [(0, []), (None, ["leaves_count"]), (None, [])]


def test_one_pour_for_several_pots_and_one_repeat(kept: Client) -> None:
    kept.made("/api/pots", pot(code="P-02"))
    poured = kept.made("/api/pours", pour(pot_ids=[1, 2, 1]))
    assert len(poured["pour_ids"]) == 2
    assert all(p["last_pour_on"] == "2026-11-22" for p in kept.get("/api/pots")["pots"])


def test_holds_and_ceilings_want_a_word_first(kept: Client) -> None:
    kept.made("/api/pots", pot(code="S-01", profile_id="sarracenia", drainage="tray", route="tray"))
    kept.made("/api/pots/1/phase", {"phase": "dormant", "since": "2026-11-01"})
    refused = kept.refused("/api/pours", pour(), 409)
    assert "Dormant since 1 Nov" in refused["detail"]
    assert refused["errors"][0]["pointer"] == "/note"
    assert kept.get("/api/pots/1")["pours"] == []
    kept.made("/api/pours", pour(note="wilting"))
    hard = kept.made("/api/waters", {"name": "Bore", "kind": "borehole"})["id"]
    kept.made(f"/api/waters/{hard}/readings", reading(value=740))
    assert "takes at most 120" in kept.refused("/api/pours", pour(pot_ids=[2], water_id=hard), 409)["detail"]


def test_corrections_keep_what_stood_before(kept: Client) -> None:
    pour_id = kept.made("/api/pours", pour())["pour_ids"][0]
    before = kept.get("/api/pots/1")["root_zone"]["reading_uS_cm"]
    kept.made(f"/api/log/pour/{pour_id}/correct", {"ec_uS_cm": 900})
    page = kept.get("/api/pots/1")
    assert page["pours"][0]["corrected"]
    assert page["root_zone"]["reading_uS_cm"] > before
    with kept.store.reading() as session:
        from fenwa.store.models import Correction

        row = session.query(Correction).one()
        assert (row.before, row.after) == ({"ec_uS_cm": 34.0}, {"ec_uS_cm": 900.0})


def test_taking_back_is_archiving_and_can_be_undone(kept: Client) -> None:
    pour_id = kept.made("/api/pours", pour())["pour_ids"][0]
    kept.made(f"/api/log/pour/{pour_id}/archive")
    assert kept.get("/api/pots/1")["pours"] == []
    assert kept.get("/api/pots")["pots"][0]["last_pour_on"] is None
    kept.made(f"/api/log/pour/{pour_id}/restore")
    assert len(kept.get("/api/pots/1")["pours"]) == 1
    kept.made("/api/log/pot/1/archive")
    assert kept.get("/api/pots")["pots"] == []
    assert kept.http.get("/api/pots/1").status_code == 404
    kept.made("/api/log/pot/1/restore")
    assert len(kept.get("/api/pots")["pots"]) == 1


def test_recipes_are_versioned_when_the_label_or_strength_changes(kept: Client) -> None:
    can = {"product_id": 1, "water_id": 1, "volume": 2, "strength": "nitrogen", "value": 40, "made_on": "2026-11-22"}
    for value in (40, 40, 60):
        kept.made("/api/batches", {**can, "value": value})
    with kept.store.reading() as session:
        from fenwa.store.models import RecipeVersion

        assert [(v.version, v.value) for v in session.query(RecipeVersion).order_by(RecipeVersion.id)] == [
            (1, 40),
            (2, 60),
        ]


def test_settings_change_units_and_scale(kept: Client) -> None:
    kept.send("/api/settings", {"ec_unit": "mS/cm", "temperature_unit": "°F", "scale_step_g": "0,01"}, method="PUT")
    settings = kept.get("/api/settings")
    assert settings["display"]["ec"] == {"unit": "mS/cm", "factor": 0.001, "offset": 0.0, "digits": 3}
    assert settings["scale_step_g"] == 0.01
    stored = kept.made("/api/waters/1/readings", reading(temperature=64.4, temperature_unit="°F", compensated=False))
    assert stored["temperature_C"] == pytest.approx(18)


def test_demo_tells_its_stories(demo: Client) -> None:
    rows = {p["code"]: p for p in demo.get("/api/pots")["pots"]}
    assert len(rows) == 24
    assert rows["D-09"]["holds"][0]["id"] == "resting"
    assert rows["C-08"]["holds"][0]["id"] == "just arrived"
    salted = demo.get(f"/api/pots/{rows['P-06']['id']}")
    peak = max(p["reading"] for p in salted["root_zone"]["history"])
    assert peak > 2 * rows["P-06"]["reading_uS_cm"]
    assert any(p["job"] == "flush" for p in salted["pours"])
    membrane = next(w for w in demo.get("/api/water")["waters"] if w["name"] == "RO unit")
    assert membrane["history"][0]["ec25_uS_cm"] > 1.5 * membrane["history"][-1]["ec25_uS_cm"]
    plan = demo.get("/api/round")["plan"]
    assert {"plain", "feed", "flush"} <= {c["job"] for c in plan["cans"]}
    assert date.fromisoformat(salted["pours"][0]["on"]) < date(2025, 10, 1)


def test_demo_working_is_at_every_pot(demo: Client) -> None:
    for row in demo.get("/api/pots")["pots"]:
        working = demo.get(f"/api/pots/{row['id']}/root-zone")
        shown = {s["symbol"]: s["value"] for s in working["steps"]}
        assert shown["reading"] == pytest.approx(row["reading_uS_cm"], rel=1e-9)
