"""The pen, simulated and on a socket; the inbox; whatever a device may send."""

import json
import socket
import threading
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import func, select

from fenwa.api.app import create_app
from fenwa.core.errors import InputError
from fenwa.devices.link import PenUnplugged, SocketLink
from fenwa.devices.pen import PenReading
from fenwa.devices.pen_session import PenSession
from fenwa.devices.simulated import DEVICE, Dip, SimulatedPen
from fenwa.formats.readings_csv import read_readings
from fenwa.formats.reports_csv import read_reports
from fenwa.formats.senml import parse_senml
from fenwa.store.models import Base
from fenwa.store.prepare import prepare_store
from fenwa.store.session import Store
from tests.conftest import TODAY, Client, pot, pour, reading

NOW = datetime(2026, 11, 23, 12, tzinfo=UTC)
PACK = [
    {"bn": "urn:dev:ops:probe:", "bt": 1_763_000_000, "n": "ec", "u": "S/m", "v": 0.0035},
    {"n": "temperature", "u": "Cel", "v": 9.5},
    {"n": "ph", "u": "pH", "v": 5.9, "t": 0},
]


class Bench:
    """A simulated pen on a clock of its own."""

    def __init__(self, day: date = TODAY) -> None:
        self.seconds = 0.0
        self.pen = SimulatedPen(lambda: self.seconds, lambda: day)
        self.reading = PenReading(self.pen, lambda: NOW + timedelta(seconds=self.seconds))

    def until_settled(self, limit: float = 60) -> float:
        self.reading.begin()
        while self.seconds < limit:
            self.seconds += 0.4
            found = self.reading.poll()
            if found.settled and found.value_uS_cm is not None:
                return found.value_uS_cm
        raise AssertionError("it never settled")


@pytest.mark.parametrize("ec", [3.0, 34.0, 600.0, 2400.0])
def test_the_pen_settles_near_the_truth_with_its_own_error(ec: float) -> None:
    bench = Bench()
    bench.pen.dip(Dip(ec, 18.0, 7.2))
    shown = bench.until_settled()
    assert shown == pytest.approx(ec * bench.pen.gain() + 2.0, rel=0.02, abs=1)
    assert bench.reading.trace[0].ec_uS_cm < bench.reading.trace[-1].ec_uS_cm
    assert bench.reading.device == DEVICE
    assert bench.reading.trace[-1].temperature_C == pytest.approx(18, abs=1)


def test_the_pen_drifts_and_is_heard_only_while_plugged_in() -> None:
    assert Bench(date(2026, 12, 31)).pen.gain() < Bench(date(2026, 2, 1)).pen.gain()
    bench = Bench()
    bench.pen.dip(Dip(600, 18, 7))
    bench.reading.begin()
    bench.seconds = 1.0
    assert not bench.reading.poll().settled
    bench.pen.plug(False)
    assert bench.reading.poll().value_uS_cm is None
    assert "The pen was unplugged. Nothing was kept." in bench.reading.problem
    with pytest.raises(PenUnplugged):
        bench.pen.ask("start")
    bench.pen.plug(True)
    assert bench.until_settled() > 500


def test_a_pen_that_is_stirred_never_settles_and_says_so() -> None:
    bench = Bench()
    bench.reading.begin()
    while bench.seconds < 70 and not bench.reading.problem:
        bench.pen.dip(Dip(100 if int(bench.seconds) % 2 else 900, 18, 7))
        bench.seconds += 0.5
        bench.reading.poll()
    assert "has not settled" in bench.reading.problem


def test_a_pen_on_a_socket_speaks_the_same_line() -> None:
    server = socket.create_server(("127.0.0.1", 0))
    port = server.getsockname()[1]

    def serve() -> None:
        line, _ = server.accept()
        with line:
            assert line.recv(100) == b"start\n"
            for i in range(14):
                pack = [
                    {"bn": "urn:dev:ops:own-pen:", "bt": 1_763_000_000 + 0.25 * i, "n": "ec", "u": "S/m", "v": 0.05}
                ]
                text = json.dumps(pack).encode() + b"\n"
                line.sendall(text[:10])
                line.sendall(text[10:])
            line.recv(10)

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    pen = PenReading(SocketLink("127.0.0.1", port), lambda: NOW)
    pen.begin()
    for _ in range(200):
        found = pen.poll()
        if found.settled:
            break
        threading.Event().wait(0.01)
    assert found.value_uS_cm == pytest.approx(500)
    assert pen.device == "urn:dev:ops:own-pen"
    pen.link.ask("stop")
    thread.join(timeout=5)
    for _ in range(100):
        pen.poll()
        if pen.problem:
            break
        threading.Event().wait(0.01)
    assert "closed its line" in pen.problem
    pen.link.close()
    server.close()
    desk = PenSession(f"127.0.0.1:{port}")
    desk.start()
    assert "No pen answers" in (desk.look()[0] or pen).problem


@pytest.fixture
def at_the_desk(kept: Client) -> Client:
    """A client whose Fenwa was started with the simulated pen."""
    kept.state["pen"] = PenSession("simulated", lambda: TODAY)
    return kept


def test_the_pen_through_the_api(at_the_desk: Client) -> None:
    client = at_the_desk
    client.made("/api/meters", {"name": "Sim", "device": DEVICE})
    client.made("/api/pours", pour())
    assert client.send("/api/pen/simulated", {"water_id": 1}, method="PUT").json()["plugged"]
    assert client.send("/api/pen/start").json()["problem"] == ""
    for _ in range(60):
        threading.Event().wait(0.25)
        state = client.get("/api/pen")
        if state["settled"]:
            break
    assert state["value_uS_cm"] == pytest.approx(34, rel=0.15)
    assert state["meter_id"] == 1
    kept = client.made(
        "/api/waters/1/readings", reading(value=state["value_uS_cm"], meter_id=1, origin="pen", trace=state["trace"])
    )
    assert len(client.get(f"/api/readings/{kept['id']}/trace")) == len(state["trace"])
    assert client.send("/api/pen/simulated", {"pot_id": 1}, method="PUT").status_code == 200
    client.send("/api/pen/simulated", {"plugged": False}, method="PUT")
    assert "unplugged" in client.get("/api/pen")["problem"]
    assert "Plug it in" in client.send("/api/pen/start").json()["problem"]
    fresh = client.made("/api/waters", {"name": "New", "kind": "rain"})["id"]
    assert client.send("/api/pen/simulated", {"water_id": fresh}, method="PUT").status_code == 200, "its usual reading"


def test_without_a_pen_it_says_how_to_get_one(kept: Client) -> None:
    assert not kept.get("/api/pen")["present"]
    assert "--pen simulated" in kept.send("/api/pen/start").json()["detail"]
    assert kept.send("/api/pen/simulated", {"water_id": 1}, method="PUT").status_code == 409


def post(client: Client, text: str | bytes) -> dict[str, object]:
    answer = client.http.post("/api/inbox/senml", content=text, headers={"content-type": "application/senml+json"})
    out: dict[str, object] = answer.json()
    return out | {"http": answer.status_code}


def test_a_logger_posts_and_the_grower_assigns(kept: Client) -> None:
    kept.made("/api/meters", {"name": "Probe", "device": "urn:dev:ops:probe"})
    kept.made("/api/meters/1/checks", {"on": "2025-11-01", "standard": "1413", "shown": 1342.35})
    pack = json.dumps(PACK)
    assert post(kept, pack) == {"stored": 1, "already_there": 0, "http": 201}
    assert post(kept, pack)["already_there"] == 1  # sent twice, stored once
    entry = kept.get("/api/inbox")[0]
    assert (entry["meter"], entry["ec_uS_cm"], entry["temperature_C"], entry["pH"]) == ("Probe", 35, 9.5, 5.9)
    made = kept.made(f"/api/inbox/{entry['id']}/keep", {"water_id": 1})
    assert made["origin"] == "inbox"
    assert made["ec25_uS_cm"] == pytest.approx(35 / 0.95)
    assert kept.get("/api/inbox") == []
    assert kept.send(f"/api/inbox/{entry['id']}/keep", {"water_id": 1}).status_code == 409
    kept.made(f"/api/log/reading/{made['id']}/archive")
    assert len(kept.get("/api/inbox")) == 1  # taken back: it waits again


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "begins with “[”"),
        ("{}", "Line 1, record 0"),
        ("[]", "the pack is empty"),
        ('[\n{"n":"a:b","u":"S/m","v":1}\n{"n":"c"}]', "Line 3, record 1: a comma"),
        ('[{"n":"a:b","u":"S/m","v":1}] x', "after the closing"),
        ('[{"n":"a:b","u":"S/m","v":NaN}]', "not valid JSON"),
        ('[{"n":"a:b","u":"S/m","v":1e400}]', "“v” must be a number"),
        ('[{"n":"a:b","u":"S/m","v":true}]', "“v” must be a number"),
        ('[{"n":"a:b","u":"S/m","v":1,"v":2}]', "label “v” stands twice"),
        ('[{"n":"a:b","u":"S/m","vs":"salty"}]', "“vs” is not taken"),
        ('[{"n":"a:b","u":"lx","v":1}]', "unit “lx” is not taken"),
        ('[{"n":"a:b","u":"S/m","v":-1}]', "cannot be"),
        ('[{"n":"ä","u":"S/m","v":1}]', "is not a SenML name"),
        ('[{"n":"a:b","u":"S/m","v":1,"new_":3}]', "must be understood"),
        ('[{"bver":11,"n":"a:b","u":"S/m","v":1}]', "newer than 10"),
        ('[{"n":"a:b","u":"S/m","v":1,"t":4e9}]', "lies in the future"),
        ('[{"n":"a:b","u":"S/m","v":1,"t":-1e299}]', "cannot be"),
        ('[{"bn":"a:"}]', "holds no value"),
        ('[{"n":"a:b","u":"S/m","v":0.003},\n{"n":"a:c","u":"pH","v":99}]', "Line 2, record 2: pH 99"),
        (b"\xff\xfe", "not UTF-8"),
    ],
)
def test_a_malformed_pack_is_refused_with_its_line(still: Client, text: str | bytes, says: str) -> None:
    answer = post(still, text)
    assert answer["http"] == 422
    assert says in str(answer["detail"])
    assert still.get("/api/inbox") == []


def test_relative_times_and_bases_are_resolved() -> None:
    values = parse_senml(
        '[{"bn":"urn:dev:x:","bu":"mS/m","bv":3,"n":"ec","v":0.5,"t":-60},{"n":"t2","u":"Cel","v":9}]', NOW
    )
    assert values[0].value == pytest.approx(35)
    assert values[0].at == NOW - timedelta(seconds=60)
    assert (values[1].quantity, values[1].value) == ("temperature", 12)


@pytest.fixture(scope="module")
def target(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Client]:
    """One store for all examples: nothing malformed may change it."""
    store = Store(Path(tmp_path_factory.mktemp("fuzz")) / "fuzz.sqlite")
    prepare_store(store)
    client = Client(store)
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    client.made("/api/pots", pot())
    assert create_app
    yield client
    store.close()


def total(client: Client) -> int:
    with client.store.reading() as session:
        return sum(session.scalar(select(func.count()).select_from(t)) or 0 for t in Base.metadata.sorted_tables)


VALID = {
    "senml": json.dumps(PACK, indent=1),
    "readings": "water,date,value,unit,scale,note,pH\n"
    "Rain,2026-11-01,35,µS/cm,,first,5.8\nRain,2026-11-02,36,mS/cm,,,\n",
    "reports": "water,date,EC (µS/cm),Ca (mg/L),alkalinity (mmol/L)\nRain,2026-09-01,35,1.5,0.1\n",
}


@st.composite
def damaged(draw: st.DrawFn, what: str) -> str:
    """A valid file with a piece cut out, put in or doubled; or any text at all."""
    text = VALID[what]
    if draw(st.integers(0, 3)) == 0:
        return draw(st.text(max_size=120))
    at = draw(st.integers(0, len(text)))
    to = draw(st.integers(at, min(len(text), at + 12)))
    junk = draw(
        st.sampled_from(
            ["", ",", '"', "{", "}", "[", "]", "null", "1e999", "-7", "\n", "\x00", ";", "ä", "<", "999999999"]
        )
    )
    return text[:at] + junk + text[to:]


FUZZ = settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])


@FUZZ
@given(text=damaged("senml"))
def test_any_pack_is_taken_whole_or_refused_with_line_and_reason(target: Client, text: str) -> None:
    before = total(target)
    answer = post(target, text.encode("utf-8", "surrogatepass"))
    if answer["http"] == 201:
        assert total(target) == before + int(str(answer["stored"]))
        return
    assert answer["http"] == 422
    assert str(answer["detail"]).startswith("Line ")
    assert total(target) == before


@pytest.mark.parametrize("what", ["readings", "reports"])
@FUZZ
@given(data=st.data())
def test_any_file_is_taken_whole_or_refused_with_row_and_reason(target: Client, what: str, data: st.DataObject) -> None:
    text = data.draw(damaged(what))
    text = text.encode("utf-8", "ignore").decode()
    before = total(target)
    answer = target.send(f"/api/{what}/import", {"text": text})
    if answer.status_code == 201:
        return
    assert answer.status_code == 422
    assert answer.json()["detail"].startswith("Row ")
    assert total(target) == before


@settings(max_examples=200, deadline=None)
@given(text=st.one_of(st.text(), damaged("senml"), damaged("readings"), damaged("reports")))
def test_readers_refuse_in_words_and_never_break(text: str) -> None:
    for read in (lambda t: parse_senml(t, NOW), lambda t: read_readings(t, TODAY), lambda t: read_reports(t, TODAY)):
        try:
            read(text)
        except InputError as error:
            assert error.detail.startswith(("Row ", "Line "))  # noqa: PT017
            assert error.facts["line"] >= 1  # noqa: PT017
