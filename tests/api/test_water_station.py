"""The Water station through its API: sources, meters, reports, treatments, tools, files."""

from datetime import date
from typing import Any

import pytest
from sqlalchemy import func, select

from fenwa.store.models import Base, Correction, Finding, Reading
from tests.conftest import Client, pot, reading

REPORT = [
    {"quantity": "Ca", "typed": "100", "unit": "mg/L"},
    {"quantity": "Mg", "typed": "6", "unit": "mg/L"},
    {"quantity": "Na", "typed": "20", "unit": "mg/L"},
    {"quantity": "Cl", "typed": "24.6", "unit": "mg/L"},
    {"quantity": "NO3", "typed": "5.65", "unit": "mg/L N"},
    {"quantity": "SO4", "typed": "45", "unit": "mg/L"},
    {"quantity": "alkalinity", "typed": "4.4", "unit": "mmol/L"},
    {"quantity": "Fe", "typed": "<0.02", "unit": "mg/L"},
]


def rows(client: Client) -> dict[str, int]:
    with client.store.reading() as session:
        return {t.name: session.scalar(select(func.count()).select_from(t)) or 0 for t in Base.metadata.sorted_tables}


def water(client: Client, name: str) -> dict[str, Any]:
    found: dict[str, Any] = next(w for w in client.get("/api/water")["waters"] if w["name"] == name)
    return found


@pytest.fixture
def station(kept: Client) -> Client:
    """Rain of 34 (id 1) and a hard tap of 611 µS/cm with a report (id 2)."""
    tap = kept.made(
        "/api/waters", {"name": "Tap", "kind": "mains", "disinfectant": "chloramine", "price_per_L": "0,002"}
    )["id"]
    kept.made(f"/api/waters/{tap}/readings", reading(value=611))
    kept.made(
        f"/api/waters/{tap}/reports", {"on": "2026-10-01", "laboratory": "Ansa", "reported_uS_cm": 600, "lines": REPORT}
    )
    return kept


def test_a_source_is_changed_and_what_it_said_is_kept(kept: Client) -> None:
    body = {**kept.get("/api/waters/1"), "on_hand_L": "40,5", "capacity_L": 100, "collected_on": "2026-11-20"}
    assert kept.send("/api/waters/1", body, method="PUT").status_code == 200
    assert water(kept, "Rain")["on_hand_L"] == 40.5
    kept.made("/api/pots", pot(code="R-1"))
    poured = {"pot_ids": [1], "on": "2026-11-23", "water_id": 1, "volume": 500, "volume_unit": "mL", "note": "by hand"}
    kept.made("/api/pours", poured)
    shown = kept.get("/api/waters/1")
    assert shown["on_hand_L"] == 40.0, "the form shows what is left"
    assert kept.send("/api/waters/1", {**shown, "name": "Rain"}, method="PUT").status_code == 200
    assert water(kept, "Rain")["on_hand_L"] == 40.0
    assert kept.send("/api/waters/1", {**shown, "on_hand_L": 40.5}, method="PUT").status_code == 200
    assert water(kept, "Rain")["on_hand_L"] == 40.5, "filled up after today's pour, not before it"
    with kept.store.reading() as session:
        before = session.scalars(select(Correction).where(Correction.table_name == "water")).all()[0]
        assert before.before["on_hand_L"] is None
    refused = kept.send("/api/waters/1", {**body, "on_hand_L": 200}, method="PUT").json()
    assert "more than its capacity" in refused["detail"]
    assert refused["errors"][0]["pointer"] == "/on_hand_L"
    assert (
        "lies in the future"
        in kept.send("/api/waters/1", {**body, "collected_on": "2027-01-01"}, method="PUT").json()["detail"]
    )


def test_a_jug_filter_is_not_measured_until_it_is_read(kept: Client) -> None:
    jug = kept.made("/api/waters", {"name": "Jug", "kind": "jug-filtered"})["id"]
    assert water(kept, "Jug")["amounts"] == "Not measured; jug-filtered usually reads 80 to 800 µS/cm."
    kept.made(f"/api/waters/{jug}/readings", reading(value=380))
    assert water(kept, "Jug")["amounts"].startswith("over")


def test_tests_without_a_pen_and_as_ranges(kept: Client) -> None:
    kept.made(
        "/api/waters/1/readings",
        {
            "on": "2026-11-21",
            "amounts": [
                {"quantity": "hardness", "typed": "4-7", "unit": "°dH"},
                {"quantity": "free chlorine", "typed": "<0.1"},
                {"quantity": "pH", "typed": "5,6"},
            ],
        },
    )
    found = {t["quantity"]: t for t in water(kept, "Rain")["tests"]}
    assert (found["hardness"]["low"], found["hardness"]["high"]) == pytest.approx((71.4, 124.95))
    assert (found["free chlorine"]["low"], found["free chlorine"]["high"]) == (0, 0.1)
    assert water(kept, "Rain")["ec25_uS_cm"] == 34  # the reading without a conductivity hides none
    before = rows(kept)
    for bad, says in (
        ({"quantity": "hardness", "typed": "about 7"}, "is not a number"),
        ({"quantity": "hardness", "typed": "9-3"}, "runs downwards"),
        ({"quantity": "hardness", "typed": ">20"}, "no upper end"),
        ({"quantity": "Na", "typed": "-3"}, "Sodium -3"),
        ({"quantity": "Na", "typed": "3", "unit": "°dH"}, "not one of sodium"),
        ({"quantity": "gold", "typed": "3"}, "is not a quantity"),
    ):
        assert says in kept.refused("/api/waters/1/readings", {"on": "2026-11-21", "amounts": [bad]})["detail"]
    twice = [{"quantity": "Na", "typed": "3"}] * 2
    assert "given twice" in kept.refused("/api/waters/1/readings", reading(amounts=twice))["detail"]
    assert rows(kept) == before
    archived = kept.get("/api/water")["waters"][0]
    assert archived["tests"]
    with kept.store.reading() as session:
        reading_id = session.scalars(select(Reading.id).where(Reading.value.is_(None))).one()
    kept.made(f"/api/log/reading/{reading_id}/archive")
    assert water(kept, "Rain")["tests"] == []
    kept.made(f"/api/log/reading/{reading_id}/restore")
    assert len(water(kept, "Rain")["tests"]) == 3


def test_a_checked_meter_corrects_what_it_reads_and_keeps_what_it_showed(kept: Client) -> None:
    meter = kept.made("/api/meters", {"name": "Pen", "resolution": 1, "range_uS_cm": 2000, "accuracy_pct_fs": 2})["id"]
    plain = kept.made("/api/waters/1/readings", reading(value=100, meter_id=meter))
    assert (plain["ec25_uS_cm"], plain["half_width_uS_cm"]) == (100, 40)
    for standard, shown in (("84", 79.8), ("1413", 1342.35)):
        out = kept.made(f"/api/meters/{meter}/checks", {"on": "2026-11-21", "standard": standard, "shown": shown})
    assert out["calibration"]["slope"] == pytest.approx(0.95)
    assert out["calibration"]["state"] == "correctable"
    assert not out["check_due"]
    corrected = kept.made("/api/waters/1/readings", reading(value=95, meter_id=meter))
    assert corrected["value"] == 95
    assert corrected["ec25_uS_cm"] == pytest.approx(100, abs=0.01)
    assert corrected["half_width_uS_cm"] < 2
    symbols = {s["symbol"] for s in kept.get(f"/api/readings/{corrected['id']}/working")["steps"]}
    assert "EC_c" in symbols
    assert out["calibration"]["factor"] == pytest.approx(1 / out["calibration"]["slope"])
    assert not corrected["check_overdue"]
    leaflet = {"name": "Pen", "resolution": 1, "range_uS_cm": 2000, "accuracy_pct_fs": 2}
    for days, status in ((0.5, 422), (2, 200)):
        answer = kept.send(f"/api/meters/{meter}", leaflet | {"check_days": days}, method="PUT")
        assert answer.status_code == status
    (listed,) = [m for m in kept.get("/api/meters")["meters"] if m["id"] == meter]
    assert listed["calibration"]["next_check_on"] == "2026-11-23", "two days after the check, as was set"
    late = kept.made("/api/waters/1/readings", reading(value=95, meter_id=meter, on="2026-11-23"))
    assert late["check_overdue"], "a reading with a meter whose check was overdue is marked"
    kept.made(f"/api/log/reading/{late['id']}/archive")
    early = kept.made("/api/waters/1/readings", reading(value=95, meter_id=meter, on="2026-11-20"))
    assert early["ec25_uS_cm"] == 95  # before the check nothing was known
    before = rows(kept)
    assert (
        "cannot be a check" in kept.refused(f"/api/meters/{meter}/checks", {"on": "2026-11-21", "shown": 1.4})["detail"]
    )
    assert (
        "own standard is empty"
        in kept.refused(f"/api/meters/{meter}/checks", {"on": "2026-11-21", "standard": "own", "shown": 90})["detail"]
    )
    assert rows(kept) == before
    assert kept.get(f"/api/meters/{meter}/calibration")["working"]["steps"]


def test_a_ppm_pen_must_name_its_scale_and_may_be_told_it_later(kept: Client) -> None:
    assert "ppm scale is empty" in kept.refused("/api/meters", {"name": "Gift", "unit": "ppm"})["detail"]
    gift = kept.made("/api/meters", {"name": "Gift", "unit": "ppm", "scale": "unknown"})["id"]
    listed = next(m for m in kept.get("/api/meters")["meters"] if m["id"] == gift)
    assert "find it first" in listed["problem"]
    guess = f"/api/meters/{gift}/scale-guess"
    assert kept.send(guess, {"shown": "706,5"}).json()["result"]["scale"] == "0.5"
    beside = kept.send(guess, {"against": "another meter", "shown": 706, "other_uS_cm": 1413}).json()["result"]
    assert beside["scale"] == "0.5"
    assert "other meter says is empty" in kept.send(guess, {"against": "another meter", "shown": 700}).json()["detail"]
    assert "can be read two ways" in kept.send(guess, {"shown": "1,413"}).json()["detail"]
    bare = kept.made("/api/meters", {"name": "Old", "unit": "ppm", "scale": "unknown", "compensation": "none"})["id"]
    cold = f"/api/meters/{bare}/scale-guess"
    assert "does not compensate" in kept.send(cold, {"shown": 636}).json()["detail"]
    assert kept.send(cold, {"shown": 636, "temperature": 20}).json()["result"]["scale"] == "0.5"
    refused = kept.refused(f"/api/meters/{gift}/checks", {"on": "2026-11-21", "shown": 700})
    assert "Scale of the ppm reading is not known" in refused["detail"]
    kept.send(f"/api/meters/{gift}", {"name": "Gift", "unit": "ppm", "scale": "0.5"}, method="PUT")
    out = kept.made(f"/api/meters/{gift}/checks", {"on": "2026-11-21", "shown": 700})
    assert out["calibration"]["slope"] == pytest.approx(1400 / 1413)
    got = kept.made("/api/waters/1/readings", reading(value=50, unit="ppm", scale="0.5", meter_id=gift))
    assert got["ec25_uS_cm"] == pytest.approx(100 * 1413 / 1400)


def test_a_report_says_what_it_holds(station: Client) -> None:
    report = station.get("/api/reports")[0]
    review = report["review"]
    assert review["balance"]["verdict"] == "fine"
    assert review["hardness_mg_L_CaCO3"] == pytest.approx(274.4, abs=0.1)
    assert review["computed_uS_cm"] == pytest.approx(611, rel=0.03)
    assert [line["typed"] for line in report["lines"] if line["quantity"] == "Fe"] == ["<0.02"]
    tap = water(station, "Tap")
    assert tap["report_on"] == "2026-10-01"
    assert "boron" in tap["unknown"]
    assert "iron" not in tap["unknown"]
    assert station.get(f"/api/reports/{report['id']}/working")["result"]["sar"] == pytest.approx(review["sar"])
    assert station.get(f"/api/reports/{report['id']}/balance")["working"]["steps"]
    preview = station.send("/api/reports/preview", {"on": "2026-11-01", "lines": REPORT[:2]}).json()
    assert preview["result"]["balance"]["verdict"] == "cannot tell"
    assert (
        "The report is empty" in station.refused("/api/waters/2/reports", {"on": "2026-11-01", "lines": []})["detail"]
    )
    # an unbalanced report is kept, and not built on
    bad = [*REPORT[:-2], {"quantity": "alkalinity", "typed": "1", "unit": "mmol/L"}]
    station.made("/api/waters/2/reports", {"on": "2026-11-02", "lines": bad})
    assert station.get("/api/reports")[0]["review"]["balance"]["verdict"] == "stop"
    both = {"water_ids": [1, 2], "targets": [{"quantity": "ec", "value": 120}]}
    assert station.send("/api/water/blend", both).json()["result"]["method"] == "ions"  # the older, sound one
    station.made(f"/api/log/report/{report['id']}/archive")
    blended = station.send(
        "/api/water/blend", {"water_ids": [1, 2], "targets": [{"quantity": "ec", "value": 120}]}
    ).json()
    assert blended["result"]["method"] == "straight line"


def test_a_treatment_is_judged_and_alters_what_is_known(station: Client) -> None:
    assert any(v["limiting"] for v in station.get("/api/water")["verdicts"] if v["water_id"] == 2)
    step = station.made("/api/waters/2/treatments", {"on": "2026-11-20", "kind": "conditioner"})["id"]
    kinds = station.get("/api/waters/2/verdict/paphiopedilum")["result"]["kinds"]
    assert next(k for k in kinds if k["agent"] == "disinfectant")["reason"] == "conditioner takes it out"
    station.made(f"/api/log/treatment/{step}/archive")
    station.made("/api/waters/2/treatments", {"on": "2026-11-21", "kind": "boiled", "before": 611, "after": 350})
    tap = water(station, "Tap")
    assert tap["treatments"][0]["effect"]["removed_pct"] == pytest.approx(42.7, abs=0.1)
    assert "alkalinity" not in {t["quantity"] for t in tap["tests"]}  # measured before it was boiled
    assert station.get(f"/api/treatments/{tap['treatments'][0]['id']}/effect")["working"]["steps"]
    assert (
        "Reading after is missing"
        in station.refused("/api/waters/2/treatments", {"on": "2026-11-21", "kind": "carbon", "before": 600})["detail"]
    )


def test_blend_by_stored_waters(station: Client) -> None:
    body = {"water_ids": [1, 2], "volume": "10", "targets": [{"quantity": "ec", "value": 120}]}
    result = station.send("/api/water/blend", body).json()["result"]
    assert result["method"] == "ions"
    assert sum(p["litres"] for p in result["parts"]) == pytest.approx(10)
    assert result["straight_line_ec_uS_cm"] < 120
    station.send("/api/waters/1", {**station.get("/api/waters/1"), "on_hand_L": 4}, method="PUT")
    short = station.send("/api/water/blend", body).json()
    assert "with the litres on hand" in short["detail"]
    assert station.send("/api/water/blend", {**body, "mind_stock": False}).status_code == 200
    scarce = station.send("/api/water/blend", {**body, "objective": "least of the scarce"}).json()
    assert "which of the chosen waters is scarce" in scarce["detail"]
    gallons = station.send("/api/water/blend", {**body, "mind_stock": False, "volume_unit": "US gal"}).json()["result"]
    assert sum(p["litres"] for p in gallons["parts"]) == pytest.approx(37.85, abs=0.01)
    dry = station.made("/api/waters", {"name": "New", "kind": "rain"})["id"]
    near = {**body, "mind_stock": False, "water_ids": [1, dry], "targets": [{"quantity": "ec", "value": 23}]}
    assert station.send("/api/water/blend", near).status_code == 200, "one nobody measured stands at its usual reading"


def test_share_out_remedies_and_watch(station: Client) -> None:
    page = station.get("/api/water/share-out")
    assert page["not_entered"] == ["Rain"]
    assert page["answer"]["result"]["short_L"] > 0
    station.send("/api/waters/1", {**station.get("/api/waters/1"), "on_hand_L": 50}, method="PUT")
    page = station.get("/api/water/share-out?blend=false")
    assert page["not_entered"] == []
    assert page["answer"]["result"]["short_L"] == pytest.approx(0)
    remedies = station.get("/api/waters/2/remedies")
    assert remedies[0]["remedy"]["action"] in ("blend", "use another")
    assert station.get(f"/api/waters/2/remedies/{remedies[0]['profile_id']}")["working"]["steps"]
    assert station.get("/api/waters/2/remedies/disa")["result"]["sentence"]  # a single plant that is not kept
    assert station.get("/api/waters/1/watch")["result"]["retest_on"] == "2026-12-20"


def test_boil_and_chlorine(station: Client) -> None:
    boiled = station.send("/api/water/boil", {"water_id": 2, "volume": 5}).json()["result"]
    assert boiled["worth_it"]
    assert "Calcium or alkalinity" in station.send("/api/water/boil", {"water_id": 1, "volume": 5}).json()["detail"]
    dose = station.send("/api/water/dechlorinate", {"volume": 10, "free": "0,2", "total": 2}).json()["result"]
    assert dose["thiosulfate_mg"] == pytest.approx(140)
    swapped = station.send("/api/water/dechlorinate", {"volume": 10, "free": 2, "total": 1})
    assert swapped.status_code == 422


def test_acids_are_locked_until_their_lines_were_read(station: Client) -> None:
    body = {"water_id": 2, "volume": 100, "acid": "nitric", "strength_pct": 38, "value": 60}
    locked = station.send("/api/water/acidify", body)
    assert locked.status_code == 409
    assert "Acids are locked" in locked.json()["detail"]
    assert station.get("/api/water/acids")["read_on"] is None
    station.made("/api/water/acids/read")
    assert station.get("/api/water/acids")["read_on"] == "2026-11-23"
    result = station.send("/api/water/acidify", body).json()["result"]
    assert result["amount"] == pytest.approx(42.9, rel=0.02)
    assert "Add acid to water, never water to acid." in result["safety"]
    assert (
        "Alkalinity of this water is not known"
        in station.send("/api/water/acidify", {**body, "water_id": 1}).json()["detail"]
    )
    assert station.get("/api/settings")["ec_unit"] == "µS/cm"  # the note of having read is no setting of the forms


def test_membrane_pairs(kept: Client) -> None:
    unit = kept.made("/api/waters", {"name": "RO", "kind": "permeate"})["id"]
    assert kept.get(f"/api/water/membrane/{unit}")["answer"] is None
    for month, permeate in (("08", 20), ("09", 26), ("10", 33), ("11", 41)):
        page = kept.made(
            f"/api/water/membrane/{unit}/pairs", {"on": f"2026-{month}-01", "feed": 400, "permeate": permeate}
        )
    assert page["answer"]["result"]["state"] == "below the floor"
    kept.send(f"/api/water/membrane/{unit}/floor", {"floor_pct": 80}, method="PUT")
    page = kept.get(f"/api/water/membrane/{unit}")
    assert page["answer"]["result"]["below_floor_on"] > "2026-11-23"
    before = rows(kept)
    swapped = kept.refused(f"/api/water/membrane/{unit}/pairs", {"on": "2026-11-02", "feed": 20, "permeate": 400})
    assert "whether the two are swapped" in swapped["detail"]
    half = {"on": "2026-11-02", "feed": 400, "permeate": 20, "permeate_L": 4}
    assert "needs both volumes" in kept.refused(f"/api/water/membrane/{unit}/pairs", half)["detail"]
    assert rows(kept) == before
    kept.made(f"/api/log/membrane pair/{page['pairs'][0]['id']}/archive")
    assert len(kept.get(f"/api/water/membrane/{unit}")["pairs"]) == 3


CSV = (
    "water,date,value,unit,scale,temperature (°C),compensated,note,alkalinity (°dKH),pH\n"
    'Rain,2026-11-01,"35,5",µS/cm,,12,yes,"after rain, first",<1,5.8\n'
    "Rain,2026-11-05,,,,,,strip,3-6,\n"
    "Rain,2026-11-06,17,ppm,0.5,,yes,=SUM(A1),,\n"
)


def test_readings_come_in_and_go_out_as_csv(kept: Client) -> None:
    assert kept.made("/api/readings/import", {"text": CSV}) == {"stored": 3, "already_there": 0}
    assert kept.made("/api/readings/import", {"text": CSV}) == {"stored": 0, "already_there": 3}
    text = kept.http.get("/api/readings.csv").text
    assert "'=SUM(A1)" in text  # no spreadsheet runs it
    other = rows(kept)
    assert kept.made("/api/readings/import", {"text": text})["stored"] == 0
    assert rows(kept)["reading"] == other["reading"]
    with kept.store.reading() as session:
        rain = session.scalars(
            select(Finding).where(Finding.quantity == "alkalinity", Finding.on == date(2026, 11, 5))
        ).one()
        assert (rain.low, rain.high, rain.typed) == (pytest.approx(53.55), pytest.approx(107.1), "3-6")


REPORTS = (
    "water;date;laboratory;EC (µS/cm);Ca (mg/L);Mg (mmol/L);Na (mg/L);NO3 (mg/L N);alkalinity (mmol/L);B (µg/L)\n"
    "Rain;2026-09-01;Ansa;35;1,5;0.02;2;0,1;0.1;<20\n"
)


def test_reports_come_in_and_go_out_as_csv(kept: Client) -> None:
    assert kept.made("/api/reports/import", {"text": REPORTS})["stored"] == 1
    assert kept.made("/api/reports/import", {"text": REPORTS})["already_there"] == 1
    text = kept.http.get("/api/reports.csv").text
    assert "Mg (mmol/L)" in text
    assert kept.made("/api/reports/import", {"text": text})["already_there"] == 1
    lines = {line["quantity"]: line for line in kept.get("/api/reports")[0]["lines"]}
    assert lines["Mg"]["low"] == pytest.approx(0.4861)
    assert (lines["B"]["low"], lines["B"]["high"]) == (0, 0.02)


@pytest.mark.parametrize(
    ("path", "text", "says"),
    [
        ("reports", REPORTS.replace("0.02;2", "0.02;two"), "Row 2, column “Na (mg/L)”: Sodium “two” is not a number"),
        ("reports", REPORTS.replace("Mg (mmol/L)", "Mg (furlong)"), "Row 1, column “Mg (furlong)”: is not known"),
        (
            "reports",
            REPORTS.replace("Rain;2026", "Well;2026"),
            "Row 2, column “water”: there is no source named “Well”",
        ),
        ("reports", REPORTS.replace("2026-09-01", "2026-13-01"), "Row 2, column “date”: “2026-13-01” is not a day"),
        ("reports", REPORTS.split("\n")[0], "Row 2: is missing"),
        ("reports", "", "Row 1: is empty"),
        ("readings", CSV.replace("ppm,0.5", "ppm,"), "Row 4, column “scale”: is empty. A ppm has a scale"),
        ("readings", CSV.replace("2026-11-05", "2027-11-05"), "Row 3, column “date”: 5 Nov 2027 lies in the future"),
        ("readings", CSV.replace("3-6", ""), "Row 3, column “value”: is empty, and nothing else was measured"),
        ("readings", CSV + "Rain,2026-11-07,-4,µS/cm,,,,,,\n", "Row 5, column “value”: Reading -4"),
        ("readings", CSV + 'Rain,2026-11-07,"4\n', "Row 5: is not CSV"),
        ("readings", CSV + "Rain,2026-11-07,4,µS/cm,,,,,,,,,\n", "Row 5: has 13 cells, the header 10"),
        ("readings", CSV.replace("water,date", "water,water"), "stands twice in the header"),
        ("readings", CSV.replace("12,yes", "12,maybe"), "Row 2, column “compensated”: “maybe” is neither yes nor no"),
    ],
)
def test_one_bad_cell_stores_nothing(still: Client, path: str, text: str, says: str) -> None:
    before = rows(still)
    refused = still.refused(f"/api/{path}/import", {"text": text})
    assert says in refused["detail"]
    assert rows(still) == before


def test_the_water_page_names_what_is_not_known(demo: Client) -> None:
    waters = {w["name"]: w for w in demo.get("/api/water")["waters"]}
    assert waters["Dehumidifier"]["watch"]["too_old"]
    assert waters["RO unit"]["watch"]["rising"]
    assert waters["Town water"]["treatments"][0]["effect"]["sentence"].startswith("4 %: it changes taste")
    assert {"fluoride", "hardness"} <= set(waters["House tap"]["unknown"])
    assert demo.get("/api/water/membrane/2")["answer"]["result"]["state"] == "ageing"
    kinds = {k["value"]: k for k in demo.get("/api/water-kinds")}
    assert "softener" not in kinds["soft"]["label"]
    assert kinds["borehole"]["runs"]


def test_a_can_read_with_a_known_meter_is_corrected(kept: Client) -> None:
    meter = kept.made("/api/meters", {"name": "Pen"})["id"]
    kept.made(f"/api/meters/{meter}/checks", {"on": "2026-11-20", "standard": "1413", "shown": 1342.35})
    batch = kept.made(
        "/api/batches",
        {
            "pot_ids": [1],
            "product_id": 2,
            "water_id": 1,
            "volume": 2,
            "strength": "nitrogen",
            "value": 40,
            "made_on": "2026-11-22",
            "name": "Feed",
        },
    )["id"]
    judged = kept.made(f"/api/batches/{batch}/reading", {"on": "2026-11-22", "value": 285, "meter_id": meter})
    assert judged["batch"]["measured_uS_cm"] == pytest.approx(300)
    empty = kept.refused(f"/api/batches/{batch}/reading", {"on": "2026-11-22"})
    assert "Measured EC is empty" in empty["detail"]
    assert pot()["code"] == "P-01"


def test_a_source_archived_while_the_page_is_made_breaks_nothing(kept: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    """What is left of the sources is asked after they were judged: a write between the two leaves one without."""
    made = kept.made("/api/waters", {"name": "Barrel", "kind": "rain", "on_hand_L": "20"})["id"]
    monkeypatch.setattr("fenwa.api.water.sources.waters_today", lambda *_: [])
    rows = {w["id"]: w["on_hand_L"] for w in kept.get("/api/water")["waters"]}
    assert rows[made] == 20
