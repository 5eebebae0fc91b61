"""Answers in the reader's units: sentences are written out on the way, data and the grower's own words stay."""

import json
import re
from typing import Any

import pytest

from fenwa.api.outlet import LISTED, SPOKEN, _prefixes, spoken
from fenwa.core.writing import Reader
from tests.conftest import Client

FAR = {
    "ec_unit": "ppm",
    "ppm_scale": "0.7",
    "temperature_unit": "°F",
    "volume_unit": "US gal",
    "mass_unit": "oz",
    "length_unit": "in",
    "date_order": "month first",
}
OLD = re.compile(r"\d (µS/cm|°C|cm|mm|L|g)(?![\w/²])|\d{4}-\d{2}-\d{2}|\b\d{1,2} (Jan|Feb|Mar|Sep|Oct|Nov|Dec)\b")
PAGES = [
    "/api/round",
    "/api/water",
    "/api/mix",
    "/api/pots",
    "/api/pots/6",
    "/api/pots/6/care",
    "/api/pots/6/answers",
    "/api/pots/13/wrong",
    "/api/pots/21/seasons",
    "/api/pots/6/passport",
    "/api/kinds/disa",
    "/api/kinds/sarracenia",
    "/api/days",
    "/api/flush",
    "/api/changes",
    "/api/trials",
    "/api/meters",
    "/api/away?leaving=2026-12-01&back=2026-12-20",
]


def sentences(node: Any, key: str = "") -> list[str]:
    """Every sentence of an answer, wherever it stands."""
    if isinstance(node, dict):
        return [s for k, v in node.items() for s in sentences(v, k)]
    if isinstance(node, list):
        return [s for v in node for s in sentences(v, key)]
    return [node] if isinstance(node, str) and key in (*SPOKEN, *LISTED) else []


@pytest.fixture(scope="module")
def far(demo: Client) -> Any:
    before = demo.get("/api/settings")
    settings = {k: v for k, v in before.items() if k not in ("display", "fallen_back")}
    assert demo.send("/api/settings", settings | FAR, method="PUT").status_code == 200
    yield demo
    demo.send("/api/settings", settings, method="PUT")


@pytest.mark.parametrize("page", PAGES)
def test_no_sentence_of_a_page_shows_an_old_unit(far: Client, page: str) -> None:
    found = sentences(far.get(page))
    assert [s for s in found if OLD.search(s)] == []


def test_every_field_named_a_sentence_is_written_out(demo: Client) -> None:
    schemas = demo.get("/api/openapi.json")["components"]["schemas"]
    names = {name for s in schemas.values() for name in s.get("properties", {})}
    told = {n for n in names if n.endswith(("sentence", "sentences", "_line", "_refusal"))}
    assert told - {*SPOKEN, *LISTED} == set()


def chosen(client: Client) -> None:
    settings = {k: v for k, v in client.get("/api/settings").items() if k not in ("display", "fallen_back")}
    assert client.send("/api/settings", settings | FAR, method="PUT").status_code == 200


def test_sentences_follow_the_choice_at_once_and_data_does_not(kept: Client) -> None:
    def told() -> Any:
        return kept.http.post("/api/sums/water", json={"water": {"value": 500}}).json()["water"]

    before = told()
    assert before["sentence"] == "500 µS/cm at 25 °C."
    chosen(kept)
    assert told()["sentence"] == "350 ppm (0.7 scale) at 77 °F."
    assert told()["middle_uS_cm"] == before["middle_uS_cm"] == 500
    assert kept.get("/api/water")["today"] == "2026-11-23"


def test_a_refusal_names_its_figure_in_the_readers_units(kept: Client) -> None:
    chosen(kept)
    answer = kept.send(
        "/api/pours", {"pot_ids": [1], "on": "2026-11-23", "water_id": 1, "volume": 300, "volume_unit": "L"}
    )
    assert "US gal" in answer.json()["detail"]


def test_why_of_a_can_is_said_and_why_of_a_decision_is_typed() -> None:
    raw, far = b'{"why":"Up to 500 \xc2\xb5S/cm."}', Reader(ec="mS/cm")
    assert b"0.5 mS/cm" in spoken(raw, far, "/api/round")
    assert spoken(raw, far, "/api/pots/1/decisions") == raw


def test_what_a_grower_typed_stays_as_it_was(kept: Client) -> None:
    chosen(kept)
    kept.made("/api/waters", {"name": "Barrel of 20 L", "kind": "rain"})
    assert "Barrel of 20 L" in [w["name"] for w in kept.get("/api/water")["waters"]]


def test_a_body_keeps_every_other_byte() -> None:
    body = {
        "name": "5 L",
        "sentence": "Pour 3.8 L “now” \\ on 2026-11-23.",
        "n": 3.8,
        "cautions": ["Below 0 °C", "a, b"],
    }
    raw = json.dumps(body, ensure_ascii=False).encode()
    far = Reader(volume="US gal", temperature="°F", dates="month first")
    assert json.loads(spoken(raw, far)) == body | {
        "sentence": "Pour 1 US gal “now” \\ on Nov 23, 2026.",
        "cautions": ["Below 32 °F", "a, b"],
    }
    assert spoken(raw, Reader(dates="ISO")) == raw


@pytest.mark.parametrize("name", SPOKEN)
def test_each_spoken_name_is_found_and_no_other_that_begins_or_ends_like_it(name: str) -> None:
    """Names are looked for by their beginnings: “word” stands in “words”, “read” in “read_sentence”."""
    said, written = "Reads 412 µS/cm.", "Reads 0.412 mS/cm."
    reader = Reader(ec="mS/cm")

    def of(field: str, value: object) -> object:
        return json.loads(spoken(json.dumps({field: value}, ensure_ascii=False).encode(), reader))[field]

    assert of(name, said) == written
    for other in {f"{name}_", f"x{name}", name[:-1], name.upper()} - {*SPOKEN, *LISTED}:
        assert of(other, said) == said, other
    assert of(name, None) is None
    if name not in LISTED:
        assert of(name, [said]) == [said], "a list is another field's"


@pytest.mark.parametrize("name", LISTED)
def test_each_list_of_sentences_is_found(name: str) -> None:
    body = json.dumps({name: ["Reads 412 µS/cm.", "As it was.", 'Say "1000 µS/cm".']}, ensure_ascii=False).encode()
    assert json.loads(spoken(body, Reader(ec="mS/cm")))[name] == [
        "Reads 0.412 mS/cm.",
        "As it was.",
        'Say "1 mS/cm".',
    ]
    empty = json.dumps({name: [], "n": 1}).encode()
    assert spoken(empty, Reader(ec="mS/cm")) == empty


@pytest.mark.parametrize(
    "words", [("a",), ("word", "words"), ("then", "the", "thus", "other"), ("x", "xy", "xyz"), SPOKEN]
)
def test_a_pattern_of_beginnings_matches_its_words_and_nothing_else(words: tuple[str, ...]) -> None:
    found = re.compile(_prefixes(words))
    assert all(found.fullmatch(w) for w in words)
    near = {w + "s" for w in words} | {w[:-1] for w in words} | {w[1:] for w in words} | {""}
    assert not [w for w in near - set(words) if found.fullmatch(w)]


# beside “24 mg/L”, which is nobody’s choice, “over 20” says all
BARE = re.compile(
    r"(?<!mg/L, )(?:over|under|ceiling|at most|until|margin|below) (?:about )?\d{2,}(?:\.\d+)?(?=[.,;:)]|$| of\b)"
)


@pytest.mark.parametrize("page", PAGES)
def test_no_figure_of_a_sentence_is_left_without_its_unit(far: Client, page: str) -> None:
    """A number that kept its old value beside numbers in the reader's unit is wrong by their ratio."""
    assert [s for s in sentences(far.get(page)) if BARE.search(s)] == []
