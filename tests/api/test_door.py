"""The home network: nobody without the passphrase, no foreign name or page, ten guesses a minute."""

import re
from datetime import UTC, datetime, timedelta
from functools import cache
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from fenwa.api.app import create_app
from fenwa.api.door import COOKIE, KEPT_S, Door, Throttle, own_addresses, own_names
from fenwa.cli import app as commands
from fenwa.core.errors import InputError
from fenwa.store import passphrase
from fenwa.store.models import Setting
from fenwa.store.session import Store
from tests.conftest import TODAY, Client

HERE = "192.168.7.20"
WORDS = "moss under the bench"


@cache
def the_house(web: Path) -> FastAPI:
    """One application for all tests here: making one takes a second."""
    return create_app(Store(web / "unused.sqlite"), lambda: TODAY, web)


class House:
    """A server on the home network, and phones that ask it."""

    def __init__(self, store: Store, web: Path) -> None:
        self.store, self.now = store, 1000.0
        self.door = Door(store, own_names([HERE]), (f"http://{HERE}:8710/",), False, Throttle(clock=lambda: self.now))
        self.app = the_house(web)
        self.app.state.store, self.app.state.door = store, self.door

    def phone(self, peer: str = "192.168.7.31", host: str = f"{HERE}:8710") -> TestClient:
        return TestClient(self.app, base_url=f"http://{host}", client=(peer, 50_000), follow_redirects=False)

    def signed_in(self) -> TestClient:
        phone = self.phone()
        assert phone.post("/sign-in", data={"passphrase": WORDS}).status_code == 303
        return phone


@pytest.fixture(scope="module")
def web(tmp_path_factory: pytest.TempPathFactory) -> Path:
    web = tmp_path_factory.mktemp("web")
    (web / "assets").mkdir()
    (web / "index.html").write_text("<!doctype html><title>Fenwa</title>")
    (web / "assets" / "a.js").write_text("1")
    return web


@pytest.fixture
def house(store: Store, web: Path) -> House:
    with store.writing() as session:
        passphrase.set_passphrase(session, WORDS)
    return House(store, web)


def test_without_the_passphrase_no_route_answers(house: House) -> None:
    phone = house.phone()
    document = house.app.openapi()["paths"]
    assert len(document) > 100
    for path, verbs in document.items():
        for verb in verbs:
            answer = phone.request(
                verb, re.sub(r"\{[^}]+\}", "1", path), json={}, headers={"Idempotency-Key": "abcdefgh"}
            )
            assert answer.status_code == 401, f"{verb} {path}"
            assert answer.json()["code"] == "sign-in"
    for path in (
        "/",
        "/pots/1",
        "/assets/a.js",
        "/index.html",
        "/sign-in/../assets/a.js",
        "/SIGN-IN",
        "/api/openapi.json",
    ):
        answer = phone.get(path)
        assert answer.status_code == 401, path
        assert "assets" not in answer.text
    page = phone.get("/sign-in")
    assert page.status_code == 200
    assert "<script" not in page.text
    assert "not encrypted" in page.text


def test_the_right_words_open_every_page_and_the_cookie_is_hard_to_steal(house: House) -> None:
    phone = house.phone()
    answer = phone.post("/sign-in", data={"passphrase": f" {WORDS} "}, headers={"Origin": f"http://{HERE}:8710"})
    assert answer.status_code == 303
    cookie = answer.headers["set-cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=strict" in cookie
    assert f"Max-Age={KEPT_S}" in cookie
    assert "Secure" not in cookie, "the link is not encrypted here"
    assert phone.get("/").status_code == phone.get("/api/health").status_code == 200
    assert phone.get("/api/lan").json()["here"] is False


def test_an_encrypted_link_marks_its_cookie(house: House) -> None:
    house.door.encrypted = True
    answer = house.phone().post("/sign-in", data={"passphrase": WORDS})
    assert "Secure" in answer.headers["set-cookie"]
    assert "The link is encrypted." in house.phone().get("/sign-in").text


@pytest.mark.parametrize(
    "cookie", ["", "in", "in.AAAA.BBBB", "in." + "A" * 40, "\u00e9".encode("latin-1").decode("latin-1")]
)
def test_a_made_up_cookie_opens_nothing(house: House, cookie: str) -> None:
    answer = house.phone().get("/api/health", headers={"Cookie": f"{COOKIE}={cookie}".encode("latin-1")})
    assert answer.status_code == 401


def test_the_eleventh_guess_in_a_minute_is_refused_even_if_right_and_keeps_nobody_else_out(house: House) -> None:
    guesser, owner = house.phone("192.168.7.66"), house.phone()
    for n in range(10):
        answer = guesser.post("/sign-in", data={"passphrase": f"guess number {n}"})
        assert answer.status_code == 401
        assert "That is not the passphrase" in answer.text
    answer = guesser.post("/sign-in", data={"passphrase": WORDS})
    assert answer.status_code == 429
    assert answer.headers["Retry-After"] == "60"
    assert guesser.get("/api/health").status_code == 401
    for _ in range(12):
        assert owner.post("/sign-in", data={"passphrase": WORDS}).status_code == 303, "what is right does not count"
    house.now += 60
    assert guesser.post("/sign-in", data={"passphrase": WORDS}).status_code == 303


def test_guesses_sent_side_by_side_count_before_they_are_looked_at() -> None:
    throttle = Throttle(clock=lambda: 7.0)
    assert [throttle.take("a") for _ in range(11)] == [0.0] * 10 + [60.0]
    throttle.give_back("a")
    assert [throttle.take("a"), throttle.take("a")] == [0.0, 60.0]
    throttle.give_back("b")
    assert throttle.take("b") == 0.0


@pytest.mark.parametrize("host", ["evil.example", "192.168.7.99:8710", "fenwa.example:8710", ""])
def test_a_foreign_name_is_refused_signed_in_or_not(house: House, host: str) -> None:
    phone = house.signed_in()
    assert phone.get("/api/health", headers={"Host": host}).status_code == 403
    assert house.phone().get("/sign-in", headers={"Host": host}).status_code == 403


def test_a_foreign_page_is_refused_signed_in_or_not(house: House) -> None:
    phone = house.signed_in()
    for headers in ({"Origin": "http://evil.example"}, {"Origin": "null"}, {"Sec-Fetch-Site": "cross-site"}):
        answer = phone.post("/api/people", json={"name": "Mallory"}, headers={"Idempotency-Key": "abcdefgh", **headers})
        assert answer.status_code == 403
        assert house.phone().post("/sign-in", data={"passphrase": WORDS}, headers=headers).status_code == 403
    assert phone.get("/api/people").json() == []


def test_this_machine_is_asked_too_once_the_network_is_served(house: House) -> None:
    """A tunnel that says nothing of itself looks like this machine."""
    for peer, host in (("127.0.0.1", "127.0.0.1:8710"), ("127.0.0.1", f"{HERE}:8710"), ("192.168.7.31", "localhost")):
        assert house.phone(peer, host).get("/api/health").status_code == 401
    desk = house.phone("127.0.0.1", "127.0.0.1:8710")
    assert desk.post("/sign-in", data={"passphrase": WORDS}).status_code == 303
    assert desk.get("/api/lan").json()["here"] is True
    forwarded = {"X-Forwarded-For": "127.0.0.1"}
    assert desk.get("/api/lan", headers=forwarded).json()["here"] is False, "somebody stands in between"


@pytest.mark.parametrize("header", ["Forwarded", "Via", "X-Forwarded-For", "X-Forwarded-Host", "X-Real-IP"])
def test_a_proxy_before_a_server_without_a_door_is_refused(kept: Client, header: str) -> None:
    answer = kept.http.get("/api/health", headers={header: "127.0.0.1"})
    assert answer.status_code == 403
    assert "--behind-proxy" in answer.json()["detail"]


def test_a_copied_cookie_is_worth_nothing_once_its_device_is_signed_out(house: House) -> None:
    phone = house.signed_in()
    stolen = phone.cookies[COOKIE]
    thief = house.phone("192.168.7.66")
    thief.cookies.set(COOKIE, stolen)
    assert thief.get("/api/health").status_code == 200
    assert phone.post("/api/lan/sign-out", headers={"Idempotency-Key": "leave-one"}).status_code == 200
    assert thief.get("/api/health").status_code == 401


def test_signing_in_again_gives_another_cookie_and_ends_the_one_before(house: House) -> None:
    phone = house.signed_in()
    before = phone.cookies[COOKIE]
    assert phone.post("/sign-in", data={"passphrase": WORDS}).status_code == 303
    assert phone.cookies[COOKIE] != before
    old = house.phone()
    old.cookies.set(COOKIE, before)
    assert old.get("/api/health").status_code == 401
    with house.store.reading() as session:
        kept = [r.key for r in session.query(Setting) if r.key.startswith(passphrase.DEVICE)]
    assert len(kept) == 1
    assert before not in str(kept), "only a hash of the device's name is kept"


def test_devices_whose_month_is_over_are_forgotten(store: Store) -> None:
    begun = datetime(2026, 1, 1, tzinfo=UTC)
    with store.writing() as session:
        passphrase.set_passphrase(session, WORDS)
        old = passphrase.sign_in(session, begun, KEPT_S)
        new = passphrase.sign_in(session, begun + timedelta(seconds=KEPT_S + 1), KEPT_S)
        assert (passphrase.is_in(session, old), passphrase.is_in(session, new)) == (False, True)


def test_signing_out_here_everywhere_and_by_new_words(house: House) -> None:
    first, second = house.signed_in(), house.signed_in()
    assert first.post("/api/lan/sign-out", headers={"Idempotency-Key": "leave-one"}).status_code == 200
    assert first.get("/api/health").status_code == 401
    assert second.get("/api/health").status_code == 200
    third = house.signed_in()
    assert third.post("/api/lan/sign-out-everywhere", headers={"Idempotency-Key": "leave-all"}).status_code == 200
    assert {second.get("/api/health").status_code, third.get("/api/health").status_code} == {401}
    fourth = house.signed_in()
    assert fourth.post("/api/lan/passphrase", json={"passphrase": "taken over by a phone"}).status_code == 409
    desk = house.phone("127.0.0.1", "127.0.0.1:8710")
    assert desk.post("/sign-in", data={"passphrase": WORDS}).status_code == 303
    assert desk.post("/api/lan/passphrase", json={"passphrase": "short"}).status_code == 422
    assert fourth.get("/api/health").status_code == 200, "a refused change signs nobody out"
    assert desk.post("/api/lan/passphrase", json={"passphrase": "ferns above the stove"}).status_code == 200
    assert fourth.get("/api/health").status_code == 401
    assert house.phone().post("/sign-in", data={"passphrase": WORDS}).status_code == 401


def test_the_words_themselves_are_nowhere_in_the_file(house: House) -> None:
    with house.store.reading() as session:
        kept = [row.value for row in session.query(Setting)]
    assert any(v.startswith("$argon2id$") for v in kept)
    assert all(WORDS not in v for v in kept)
    assert WORDS.encode() not in house.store.path.read_bytes()


def test_the_address_is_shown_with_its_code(house: House) -> None:
    desk = house.phone("127.0.0.1", "127.0.0.1:8710")
    assert desk.post("/sign-in", data={"passphrase": WORDS}).status_code == 303
    told = desk.get("/api/lan").json()
    assert (told["open"], told["addresses"], told["here"]) == (True, [f"http://{HERE}:8710/"], True)
    assert "not encrypted" in told["sentence"]
    picture = house.signed_in().get("/api/lan/qr.svg")
    assert picture.headers["content-type"] == "image/svg+xml"
    assert picture.text.count("<path") >= 1


@pytest.mark.parametrize(("words", "count"), [("short", 5), ("x" * 201, 201), ("   ab    ", 2)])
def test_weak_or_endless_words_are_refused(store: Store, words: str, count: int) -> None:
    with pytest.raises(InputError, match=f"has {count} characters"), store.writing() as session:
        passphrase.set_passphrase(session, words)
    with store.reading() as session:
        assert not passphrase.is_set(session)
        assert not passphrase.matches(session, words)


def test_the_command_line_asks_for_the_words_first(tmp_path: Path) -> None:
    database = str(tmp_path / "own.sqlite")
    run = CliRunner().invoke
    refused = run(commands, ["serve", "--lan", "--port", "0", "--database", database])
    assert refused.exit_code == 2
    assert "./fenwa passphrase" in refused.output
    assert run(commands, ["passphrase", "--database", database], input="one\none\n").exit_code == 2
    assert run(commands, ["passphrase", "--database", database], input=f"{WORDS}\n{WORDS}\n").exit_code == 0
    lone = run(commands, ["serve", "--lan", "--tls-cert", "cert.pem", "--database", database])
    assert "give both" in lone.output
    missing = run(commands, ["serve", "--lan", "--tls-cert", "c.pem", "--tls-key", "k.pem", "--database", database])
    assert "is not there" in missing.output
    assert "belong to --lan" in run(commands, ["serve", "--tls-cert", "cert.pem"]).output


def test_own_addresses_are_no_loopback_and_names_are_lower_case() -> None:
    assert all(not a.startswith("127.") for a in own_addresses())
    assert all(n == n.lower() for n in own_names(["10.0.0.5"]))
    assert "10.0.0.5" in own_names(["10.0.0.5"])
