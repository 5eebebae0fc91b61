"""Whatever is sent: an answer or a sentence, never a server error, and every page still answers afterwards."""

import json
import random
import re
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fenwa.store.models import Setting
from fenwa.store.session import Store
from tests.conftest import Client, furnished, pot, pour, reading
from tests.from_schema import HOSTILE, from_schema

PAGES = ("/api/round", "/api/stations", "/api/water", "/api/mix", "/api/pots", "/api/settings", "/api/days")
GOOD: dict[str, dict[str, Any]] = {
    "/api/pots": pot(code="P-77", arrived_on="2026-11-01"),
    "/api/pours": pour(),
    "/api/waters/1/readings": reading(),
    "/api/kinds/paphiopedilum/own": {"water_max": 300, "reading_ceiling": 900, "word": "mine"},
    "/api/skips": {"pot_ids": [1], "on": "2026-11-22"},
    "/api/mix/preview": {
        "product_id": 1,
        "water_id": 1,
        "volume": 2,
        "strength": "nitrogen",
        "value": 50,
        "pot_ids": [1],
    },
    "/api/timers": {"pot_ids": [1], "minutes": 5},
    "/api/people": {"name": "Ada"},
}


def sent(client: Client, verb: str, path: str, body: Any) -> Any:
    """Sends any JSON, half characters and endless numbers included; says what came back if it broke."""
    key = f"hostile-{random.getrandbits(64)}"
    answer = client.http.request(
        verb,
        path,
        content=json.dumps(body).encode(),
        headers={"Idempotency-Key": key, "Content-Type": "application/json"},
    )
    assert answer.status_code < 500, (verb, path, body, answer.text[:300])
    return answer


@pytest.mark.parametrize("path", GOOD)
def test_one_hostile_value_at_a_time_is_refused_or_kept_readable(kept: Client, path: str) -> None:
    good = GOOD[path]
    for field in good:
        for value in HOSTILE:
            sent(kept, "POST", path, {**good, field: value})
            if isinstance(good[field], list):
                sent(kept, "POST", path, {**good, field: [value]})
    for page in PAGES:
        assert kept.http.get(page).status_code == 200, kept.http.get(page).text[:300]


def _bodies(document: dict[str, Any]) -> list[tuple[str, str, dict[str, Any]]]:
    out = []
    for path, verbs in document["paths"].items():
        for verb, row in verbs.items():
            content = row.get("requestBody", {}).get("content", {}).get("application/json")
            if content and not path.startswith("/api/calc"):
                out.append((verb.upper(), re.sub(r"\{[^}]*id\}", "1", path), content["schema"]))
    return out


@pytest.fixture(scope="module")
def spare(tmp_path_factory: pytest.TempPathFactory, empty: Path) -> Iterator[Client]:
    """A furnished house of its own, which may take whatever it takes."""
    path = tmp_path_factory.mktemp("spare") / "fenwa.sqlite"
    shutil.copy(empty, path)
    store = Store(path)
    yield furnished(Client(store))
    store.close()


@given(data=st.data())
@settings(max_examples=6, deadline=None, suppress_health_check=list(HealthCheck))
def test_every_route_takes_or_refuses_what_its_own_schema_allows(spare: Client, data: st.DataObject) -> None:
    document = spare.http.get("/api/openapi.json").json()
    routes = _bodies(document)
    assert len(routes) > 60
    for verb, path, schema in routes:
        sent(spare, verb, path, data.draw(from_schema(schema, document["components"]["schemas"])))
    for page in PAGES:
        assert spare.http.get(page).status_code == 200, spare.http.get(page).text[:300]


@pytest.mark.parametrize(
    "path", ["/api/pots/99999999999999999999", "/api/pots?place=99999999999999999999", "/api/batches/" + "9" * 400]
)
def test_an_address_with_an_endless_number_is_refused(client: Client, path: str) -> None:
    answer = client.http.get(path)
    assert answer.status_code == 422
    assert "too large a number" in answer.json()["detail"]


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ({"volume": [1]}, "Volume must be one number"),
        ({"note": "\ud800"}, "Note holds half a character"),
        ({"water_id": 2**63}, "beyond anything measured"),
        ({"volume": 1e308}, "beyond anything measured"),
        ({"on": "9999-12-31"}, "On 9999-12-31 is no day of a log. Use a year from 1900 to 2200"),
        ({"water_id": "9" * 30}, "too many digits"),
    ],
)
def test_each_cause_has_its_sentence(kept: Client, body: dict[str, Any], says: str) -> None:
    answer = sent(kept, "POST", "/api/pours", pour(**body))
    assert answer.status_code == 422
    assert says in answer.json()["detail"]
    assert kept.get("/api/pots/1")["pours"] == []


def test_nested_and_broken_json_is_refused(kept: Client) -> None:
    deep = b'{"note":' * 5000 + b"1" + b"}" * 5000
    for content in (deep, b"{", b"\xff\xfe", b"[" * 100_000):
        answer = kept.http.post(
            "/api/pours", content=content, headers={"Idempotency-Key": "abcdefgh2", "Content-Type": "application/json"}
        )
        assert answer.status_code in (400, 422), answer.text[:200]


def test_a_body_is_bounded_while_it_is_read(kept: Client) -> None:
    """A chunked body with a small promised length: no more than the limit is taken in, signed in or not."""
    asked = 0

    def endless() -> Any:
        nonlocal asked
        for _ in range(300):
            asked += 1
            yield b"x" * 100_000

    for path in ("/api/pours", "/api/inbox/senml", "/sign-in", "/"):
        answer = kept.http.post(
            path, content=endless(), headers={"Content-Length": "2", "Idempotency-Key": "abcdefgh3"}
        )
        assert answer.status_code == 413, path


def test_the_smallest_scale_step_reads_back_and_every_page_answers(kept: Client) -> None:
    """1e-05 was stored and refused on reading: settings, round and mix answered with an error for good."""
    chosen = kept.send("/api/settings", {"scale_step_g": 0.00001, "syringe_step_mL": "0,001"}, method="PUT")
    assert chosen.status_code == 200
    assert kept.get("/api/settings")["scale_step_g"] == 0.00001
    assert kept.get("/api/settings")["fallen_back"] == []
    for page in PAGES:
        assert kept.http.get(page).status_code == 200


@pytest.mark.parametrize(
    ("key", "bad"), [("scale_step_g", "1e-05"), ("scale_step_g", "-3"), ("theme", "neon"), ("hemisphere", "")]
)
def test_a_bad_stored_setting_falls_back_and_says_so(kept: Client, key: str, bad: str) -> None:
    with kept.store.writing() as session:
        session.merge(Setting(key=key, value=bad))
    found = kept.get("/api/settings")
    assert found[key] == {"scale_step_g": 0.1, "theme": "system", "hemisphere": "north"}[key]
    (sentence,) = found["fallen_back"]
    assert f"“{bad}” cannot be used" in sentence
    for page in PAGES:
        assert kept.http.get(page).status_code == 200


@pytest.mark.parametrize(
    ("path", "body", "says"),
    [
        ("/api/kinds/paphiopedilum/own", {"reading_ceiling": 1e14}, "Ceiling of the reading"),
        ("/api/kinds/paphiopedilum/own", {"water_max": 1e14}, "EC of the water"),
        (
            "/api/measures",
            {"name": "drop", "kind": "dropper", "product_id": 1, "weighings": [1]},
            "Drops in a millilitre 1 1",
        ),
        (
            "/api/measures",
            {"name": "spoon", "product_id": 1, "weighings": [50, 50, 50], "volume_mL": 5},
            "Bulk density",
        ),
    ],
)
def test_what_a_later_page_could_not_read_is_not_written(
    kept: Client, path: str, body: dict[str, Any], says: str
) -> None:
    assert says in kept.refused(path, body)["detail"]
    for page in PAGES:
        assert kept.http.get(page).status_code == 200
