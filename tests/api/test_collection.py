"""The collection: descent, several plants and growths, changes of many pots at once, files, labels, a death."""

from contextlib import suppress
from datetime import date
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.care.descent import FastAdd, alike_codes, child_codes, read_fast_add, spaced_tags
from fenwa.core.errors import InputError
from fenwa.formats.pots_csv import plants_cell, read_pots
from fenwa.store import models
from tests.conftest import TODAY, Client, pot, pour


def codes(client: Client) -> list[str]:
    return [p["code"] for p in client.get("/api/pots")["pots"]]


def row(client: Client, code: str) -> dict[str, Any]:
    return next(p for p in client.get("/api/pots")["pots"] if p["code"] == code)


@pytest.mark.parametrize(
    ("said", "meant"),
    [
        ("six divisions of P-01", FastAdd(6, "division", "P-01")),
        ("1 Cutting from the old one", FastAdd(1, "cutting", "the old one")),
        ("  12  keikis of D-1 ", FastAdd(12, "offset", "D-1")),
        ("a backbulb of C-3", FastAdd(1, "division", "C-3")),
        ("40 gemmae of DR-2", FastAdd(40, "offset", "DR-2")),
        ("three leaf cuttings of G-01", FastAdd(3, "cutting", "G-01")),
    ],
)
def test_descent_is_understood_as_it_is_said(said: str, meant: FastAdd) -> None:
    assert read_fast_add(said) == meant


@pytest.mark.parametrize(
    ("said", "sentence"),
    [
        ("divide P-01", "Write it like"),
        ("some divisions of P-01", "is not a number"),
        ("0 divisions of P-01", "add 1 to 200"),
        ("201 divisions of P-01", "add 1 to 200"),
        ("six cousins of P-01", "Say divisions, cuttings, offsets"),
        ("", "Write it like"),
    ],
)
def test_descent_that_is_not_understood_is_asked_again(still: Client, said: str, sentence: str) -> None:
    with pytest.raises(InputError, match=sentence):
        read_fast_add(said)
    refused = still.refused("/api/pots/fast-add", {"phrase": said, "on": "2026-11-23"})
    assert sentence in refused["errors"][0]["detail"]
    assert codes(still) == ["P-01"]


@given(st.text(max_size=60))
def test_no_phrase_is_answered_but_in_a_sentence(text: str) -> None:
    with suppress(InputError):
        assert 1 <= read_fast_add(text).count <= 200


def test_codes_of_children_step_over_those_taken() -> None:
    assert alike_codes("P-09", 3, {"P-10"}) == ["P-09", "P-11", "P-12"]
    assert child_codes("P-01", 3, {"P-01/2", "P-02"}) == ["P-01/1", "P-01/3", "P-01/4"]


def test_tags_are_kept_once_and_small() -> None:
    assert spaced_tags([" Show  Bench", "show bench", "", "Gift"]) == ["show bench", "gift"]
    for odd in ("a,b", "x" * 41, "a;b"):
        with pytest.raises(InputError, match="cannot be kept"):
            spaced_tags([odd])


def test_six_divisions_are_six_pots_that_know_their_mother(kept: Client) -> None:
    kept.made(
        "/api/pots/change",
        {
            "pot_ids": [1],
            "add_tags": ["Old stock"],
            "medium_parts": [{"medium_id": "bark_fine", "parts": 2}, {"medium_id": "perlite", "parts": "1"}],
        },
    )
    added = kept.made("/api/pots/fast-add", {"phrase": "six divisions of P-01", "volume": "0,4", "on": "2026-11-20"})
    assert added["codes"] == [f"P-01/{n}" for n in range(1, 7)]
    child = kept.get(f"/api/pots/{added['ids'][0]}")
    assert (child["row"]["phase"], child["pot_volume_L"]) == ("establishing", 0.4)
    assert child["medium"].startswith("2:1 ")
    assert row(kept, "P-01/1")["tags"] == ["old stock"]
    assert kept.get(f"/api/pots/{added['ids'][0]}/plants")[0]["parent"]["code"] == "P-01"
    assert [c["code"] for c in kept.get("/api/pots/1/plants")[0]["children"]] == added["codes"]
    again = kept.made("/api/pots/fast-add", {"phrase": "one cutting of P-01", "on": "2026-11-20"})
    assert again["codes"] == ["P-01/7"]
    assert kept.send("/api/pots/fast-add", {"phrase": "one cutting of P-99", "on": "2026-11-20"}).status_code == 404


def test_a_second_plant_makes_the_pot_as_strict_as_its_strictest(kept: Client) -> None:
    before = row(kept, "P-01")["ceiling_uS_cm"]
    plant = kept.made(
        "/api/pots/1/plants",
        {"profile_id": "masdevallia", "label": "stray seedling", "count": 2, "parent_code": "P-01"},
    )["id"]
    first, second = kept.get("/api/pots/1/plants")
    assert (first["leads"], second["leads"], second["count"]) == (True, False, 2)
    assert second["parent"]["relation"] == "division"
    strict = row(kept, "P-01")["ceiling_uS_cm"]
    assert strict < before
    gone = kept.made("/api/pots/1/died", {"on": "2026-11-22", "cause": "rot", "plant_id": plant})
    assert gone == {"plant_ids": [plant], "pot_archived": False}
    assert row(kept, "P-01")["ceiling_uS_cm"] == before
    kept.made(f"/api/log/plant/{plant}/restore")
    assert row(kept, "P-01")["ceiling_uS_cm"] == strict, "Undo brings it back to life"
    kept.made(f"/api/log/plant/{plant}/archive")
    last = kept.send(f"/api/log/plant/{first['id']}/archive")
    assert "Archive the pot" in last.json()["detail"]


def test_a_death_is_archived_with_its_cause_and_undone_whole(kept: Client) -> None:
    done = kept.made("/api/pots/1/died", {"on": "2026-11-22", "cause": "dried out"})
    assert done["pot_archived"]
    assert codes(kept) == []
    with kept.store.reading() as session:
        plant = session.get_one(models.Plant, done["plant_ids"][0])
        assert (plant.died_on, plant.death_cause) == (date(2026, 11, 22), "dried out")
    kept.made("/api/log/pot/1/restore")
    assert codes(kept) == ["P-01"]
    with kept.store.reading() as session:
        assert session.get_one(models.Plant, done["plant_ids"][0]).died_on is None
    assert kept.refused("/api/pots/1/died", {"on": "2026-11-22", "cause": "bad luck"})
    assert codes(kept) == ["P-01"]


def test_the_leading_growth_rules_the_pot(kept: Client) -> None:
    plant = kept.get("/api/pots/1/plants")[0]
    kept.made("/api/pots/1/phase", {"phase": "rest", "since": "2026-11-01"})
    assert row(kept, "P-01")["phase"] == "rest"
    old = plant["growths"][0]["id"]
    kept.made(f"/api/plants/{plant['id']}/growths", {"name": "new bulb, left"})
    assert row(kept, "P-01")["phase"] == "active"
    assert [g["leads"] for g in kept.get("/api/pots/1/plants")[0]["growths"]] == [False, True]
    kept.made(f"/api/growths/{old}/lead")
    assert row(kept, "P-01")["phase"] == "rest"
    assert "Name is empty" in kept.refused(f"/api/plants/{plant['id']}/growths", {"name": " "})["detail"]


def test_many_pots_are_changed_in_one_go_or_not_at_all(kept: Client) -> None:
    for n in (2, 3):
        kept.made("/api/pots", pot(code=f"P-0{n}"))
    kept.made(
        "/api/pots/change",
        {"pot_ids": [1, 3], "place": "Winter garden", "interval_days": "9", "add_tags": ["gift"], "isolated": True},
    )
    told = {p["code"]: (p["place"], p["isolated"], p["tags"]) for p in kept.get("/api/pots")["pots"]}
    assert told == {
        "P-01": ("Winter garden", True, ["gift"]),
        "P-02": ("Home", False, []),
        "P-03": ("Winter garden", True, ["gift"]),
    }
    kept.made(
        "/api/pots/change",
        {
            "pot_ids": [3],
            "code": "Q-03",
            "name": "the late one",
            "top_cm": 14,
            "height_cm": 12,
            "isolated": False,
            "remove_tags": ["gift"],
        },
    )
    page = kept.get("/api/pots/3")
    assert (page["row"]["code"], page["row"]["tags"], page["row"]["isolated"]) == ("Q-03", [], False)
    assert 1.0 < page["pot_volume_L"] < 1.6
    before = kept.get("/api/pots")
    for body, sentence in (
        ({"pot_ids": [1, 99], "interval_days": 5}, "Pot 99 is not there"),
        ({"pot_ids": [1, 2], "code": "X"}, "belong to one pot"),
        ({"pot_ids": [1], "code": "P-02"}, "is taken by another pot"),
        ({"pot_ids": [1], "code": " "}, "Code is empty"),
        ({"pot_ids": []}, "No pot is chosen"),
        ({"pot_ids": [1], "interval_days": 0}, "Days between waterings"),
        ({"pot_ids": [1, 2], "school_id": "none such"}, "There is no school"),
        ({"pot_ids": [1], "behind": "P-77"}, "No other pot has the code"),
        ({"pot_ids": [1], "medium_parts": [{"medium_id": "perlite", "parts": 0}]}, "Parts"),
        ({"pot_ids": [1], "medium_id": "gravel of the moon"}, "medium"),
        ({"pot_ids": [1], "volume": -1}, "Volume"),
    ):
        answer = kept.send("/api/pots/change", body)
        assert answer.status_code in (404, 409, 422), body
        assert sentence in answer.json()["detail"]
    assert kept.get("/api/pots") == before


def test_pots_are_set_behind_another_on_the_shelf(kept: Client) -> None:
    for n in (2, 3, 4):
        kept.made("/api/pots", pot(code=f"P-0{n}"))
    kept.made("/api/pots/change", {"pot_ids": [1, 2], "behind": "P-03"})
    assert codes(kept) == ["P-03", "P-01", "P-02", "P-04"]
    kept.made("/api/pots/change", {"pot_ids": [4], "behind": ""})
    assert codes(kept) == ["P-04", "P-03", "P-01", "P-02"]


def test_a_school_for_a_place_is_a_change_of_its_pots(kept: Client) -> None:
    kept.made("/api/pots", pot(code="P-02"))
    school = kept.get("/api/mix")["schools"][0]["school"]["id"]
    kept.made(
        "/api/pots/change",
        {"pot_ids": [1, 2], "school_id": school, "phase_school": "calendar", "interval_by": "learnt"},
    )
    for i in (1, 2):
        care = kept.get(f"/api/pots/{i}/care")
        assert (care["school_id"], care["phase_school"], care["interval_by"]) == (school, "calendar", "learnt")
    kept.made("/api/pots/change", {"pot_ids": [1], "school_id": ""})
    assert kept.get("/api/pots/1/care")["school_id"] is None


def exported(client: Client) -> str:
    answer = client.http.get("/api/pots.csv")
    assert answer.headers["content-type"].startswith("text/csv")
    return str(answer.text)


def test_the_collection_goes_out_and_comes_back_the_same(kept: Client, client: Client, demo: Client) -> None:
    text = exported(demo)
    assert kept.made("/api/pots/import", {"text": text.replace("P-01,", "P-99,")})["added"] == 24
    assert kept.made("/api/pots/import", {"text": exported(kept), "known": "change"}) == {"added": 0, "changed": 25}
    assert exported(kept) == exported(kept)
    lines = {line.split(",")[0]: line for line in exported(kept).splitlines()}
    for line in text.splitlines():
        code = line.split(",")[0].replace("P-01", "P-99")
        assert lines[code] == line.replace("P-01,", "P-99,")


def test_a_file_changes_only_what_it_names(kept: Client) -> None:
    kept.made("/api/pots/change", {"pot_ids": [1], "add_tags": ["gift", "old"], "spot": "shelf 1"})
    text = "code,interval (days),tags\r\nP-01,11,gift; new\r\nP-02,4,\r\n"
    refused = kept.refused("/api/pots/import", {"text": text, "known": "change"})
    assert refused["detail"].startswith("Row 3, column “volume (L)”: Volume is empty")
    assert row(kept, "P-01")["tags"] == ["gift", "old"], "a bad row leaves the good one untaken"
    kept.made("/api/pots/import", {"text": text[: text.index("P-02")], "known": "change"})
    assert row(kept, "P-01")["tags"] == ["gift", "new"]
    assert row(kept, "P-01")["spot"] == "shelf 1"
    assert kept.get("/api/pots/1")["interval_days"] == 11


@pytest.mark.parametrize(
    ("text", "where"),
    [
        ("", "Row 1: is empty"),
        ("name\nx", "Row 1, column “code”: is missing"),
        ("code,colour\nA,red", "Row 1, column “colour”: is not known"),
        ("code,volume (L)\n,1", "Row 2, column “code”: is empty"),
        ("code,volume (L)\nA,1\nA,1", "Row 3, column “code”: A stands in row 2 too"),
        ("code,volume (L)\nA,a lot", "Row 2, column “volume (L)”"),
        ("code,volume (L)\nA,1\nB,0", "Row 3, column “volume (L)”: Volume"),
        ("code,volume (L),plants\nA,1,Moon flower", "Row 2, column “plants”"),
        ("code,volume (L),plants\nA,1,moonflower", "Row 2, column “plants”"),
        ("code,volume (L),plants\nA,1,disa x0", "Row 2, column “plants”"),
        ("code,volume (L),medium\nA,1,gravel", "Row 2, column “medium”"),
        ("code,volume (L),medium\nA,1,2 bark_fine + perlite", "Row 2, column “medium”"),
        ("code,volume (L),drainage\nA,1,maybe", "Row 2, column “drainage”"),
        ("code,volume (L),isolated\nA,1,perhaps", "Row 2, column “isolated”"),
        ("code,volume (L),arrived\nA,1,2026-11-24", "Row 2, column “arrived”"),
        ("code,volume (L),school\nA,1,none such", "Row 2, column “school”"),
        ("code,volume (L),interval (days)\nA,1,0", "Row 2, column “interval (days)”"),
        ('code,volume (L),tags\nA,1,"a,b"', "Row 2, column “tags”"),
        ("code,volume (L)\nP-01,1", "Row 2, column “code”: P-01 is kept already"),
    ],
)
def test_a_file_is_refused_whole_with_row_and_reason(still: Client, text: str, where: str) -> None:
    assert still.refused("/api/pots/import", {"text": text})["detail"].startswith(where)
    assert codes(still) == ["P-01"]


KINDS = st.sampled_from(["disa", "masdevallia", "unknown"])
LABELS = st.text(st.characters(exclude_characters=";\r\n\x00", exclude_categories=["C", "Z"]), max_size=20)


@given(st.lists(st.tuples(KINDS, LABELS, st.integers(1, 99_999)), min_size=1, max_size=4))
def test_plants_of_a_pot_survive_their_cell(plants: list[tuple[str, str, int]]) -> None:
    cell = '"' + plants_cell(plants).replace('"', '""') + '"'
    (found,) = read_pots(f"code,plants\nA,{cell}", TODAY)
    first, *others = plants
    fields = found.fields
    assert (fields["profile_id"], fields["count"]) == (first[0], first[2])
    assert [(o["profile_id"], o["count"]) for o in fields["others"]] == [(k, n) for k, _, n in others]


def test_a_label_carries_the_way_to_its_pot(kept: Client) -> None:
    picture = kept.http.get("/api/pots/1/qr.svg")
    assert picture.headers["content-type"] == "image/svg+xml"
    assert kept.http.get("/api/pots/9/qr.svg").status_code == 404
    kept.made("/api/pours", pour())


def test_a_mixture_shows_what_it_holds_before_it_is_kept(still: Client) -> None:
    parts = [{"medium_id": "sphagnum_loose", "parts": 2}, {"medium_id": "perlite", "parts": "1"}]
    told = still.made("/api/media/mixture", {"parts": parts})["result"]
    one = still.made("/api/media/mixture", {"parts": parts[:1]})["result"]
    other = still.made("/api/media/mixture", {"parts": parts[1:]})["result"]
    assert told["holds_mL_L"] == pytest.approx((2 * one["holds_mL_L"] + other["holds_mL_L"]) / 3)
    assert "1 to 8 parts" in still.refused("/api/media/mixture", {"parts": []})["detail"]


def test_several_alike_pots_are_entered_at_once_or_not_at_all(client: Client) -> None:
    client.made("/api/pots", pot(code="S-03"))
    client.made("/api/pots", pot(code="S-01", alike=3))
    codes = [p["code"] for p in client.get("/api/pots")["pots"]]
    assert sorted(codes) == ["S-01", "S-02", "S-03", "S-04"]
    assert "taken" in client.refused("/api/pots", pot(code="S-02", alike=5), 409)["detail"]
    assert len(client.get("/api/pots")["pots"]) == 4
