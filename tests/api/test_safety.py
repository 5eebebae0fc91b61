"""The local server's doors, and the calculations behind them."""

import json
import subprocess
import sys
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from fenwa.api.app import create_app
from fenwa.cli import app as commands
from fenwa.core.calculations import list_calculations
from fenwa.store.session import Store
from tests.conftest import TODAY, Client, pour


@pytest.mark.parametrize("host", ["evil.example", "192.168.1.9:8710", "fenwa.local", ""])
def test_foreign_hosts_are_refused(client: Client, host: str) -> None:
    assert client.http.get("/api/health", headers={"Host": host}).status_code == 403


@pytest.mark.parametrize("host", ["127.0.0.1", "localhost:8710", "[::1]:8710"])
def test_loopback_names_are_answered(client: Client, host: str) -> None:
    assert client.http.get("/api/health", headers={"Host": host}).status_code == 200


def test_foreign_origins_and_large_bodies_are_refused(kept: Client) -> None:
    key = {"Idempotency-Key": "abcdefgh1"}
    for headers in (
        {"Origin": "http://evil.example"},
        {"Origin": "null"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Origin": "http://127.0.0.1:9"},
    ):
        assert kept.http.post("/api/pours", json=pour(), headers={**key, **headers}).status_code == 403
    assert kept.http.post("/api/pours", content=b"x" * 1_000_001, headers=key).status_code == 413
    assert kept.http.post("/api/pours", content=iter([b"{}"]), headers=key).status_code == 411
    assert kept.get("/api/pots/1")["pours"] == []


def test_every_answer_carries_the_strict_policy(client: Client, tmp_path: Path) -> None:
    (tmp_path / "index.html").write_text("<!doctype html>")
    app = TestClient(create_app(client.store, lambda: TODAY, tmp_path), base_url="http://127.0.0.1")
    for path in ("/", "/pots/3", "/api/health", "/api/none"):
        policy = app.get(path).headers["content-security-policy"]
        assert "default-src 'self'" in policy
        assert "script-src 'self';" in policy
        assert "http:" not in policy
    assert app.get("/pots/3").status_code == 200
    assert app.get("/assets/none.js").status_code == 404
    assert app.get("/api/none").status_code == 404


@pytest.mark.parametrize("command", ["serve", "demo"])
@pytest.mark.parametrize("host", ["0.0.0.0", "192.168.1.9", "example.org"])
def test_no_other_address_is_bound(command: str, host: str) -> None:
    result = CliRunner().invoke(commands, [command, "--host", host])
    assert result.exit_code == 2
    assert "not this machine's own address" in result.output


def test_each_calculation_has_a_route_and_a_command(client: Client) -> None:
    for entry in list_calculations():
        assert client.http.post(f"/api/calc/{entry.name}", json={}).status_code == 422
    listed = json.loads(CliRunner().invoke(commands, ["calc", "--list"]).output)
    assert [c["name"] for c in listed] == [c.name for c in list_calculations()]
    assert all(c["input_schema"]["properties"] for c in listed)
    assert client.get("/api/calc") == listed


def test_route_and_command_give_the_same_answer(client: Client) -> None:
    inputs = {"value": 412, "temperature_C": 18, "compensated": False}
    by_route = client.http.post("/api/calc/ec-at-25", json=inputs).json()
    by_word = json.loads(CliRunner().invoke(commands, ["calc", "ec-at-25", json.dumps(inputs)]).output)
    by_stdin = json.loads(CliRunner().invoke(commands, ["calc", "ec-at-25", "-"], input=json.dumps(inputs)).output)
    assert by_route == by_word == by_stdin
    assert round(by_route["result"]["ec25_uS_cm"], 1) == 475.6


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["ec-at-25", "{"], "not valid JSON"),
        (["ec-at-25", "{}"], "Value is missing"),
        (["ec-at-25", '{"value": -1}'], "cannot be"),
        (["nonsense", "{}"], "no calculation named"),
    ],
)
def test_command_refuses_in_plain_words(arguments: list[str], says: str) -> None:
    result = CliRunner().invoke(commands, ["calc", *arguments])
    assert result.exit_code == 2
    assert says in result.output


def test_a_wrong_day_is_refused() -> None:
    result = CliRunner().invoke(commands, ["demo", "--today", "tomorrow"])
    assert result.exit_code == 2
    assert "2026-11-23" in result.output


def test_start_loads_neither_alembic_nor_the_optimiser(tmp_path: Path) -> None:
    database = tmp_path / "fenwa.sqlite"
    Store(database).close()
    code = (
        "import sys; from pathlib import Path; from datetime import date\n"
        "from fenwa.api.app import create_app; from fenwa.store.prepare import prepare_store\n"
        "from fenwa.store.session import Store\n"
        f"s = Store(Path({str(database)!r})); create_app(s, date.today)\n"
        "print([m for m in ('alembic', 'scipy.optimize', 'scipy.stats') if m in sys.modules])"
    )
    out = subprocess.run(
        [sys.executable, "-c", code], capture_output=True, text=True, check=True, env={"PYTHONPATH": "src"}
    )
    assert out.stdout.strip() == "[]"


def test_every_answer_says_which_interface_is_shipped(store: Store, tmp_path: Path) -> None:
    """Pages kept open over an upgrade compare it: an answer kept from before and a refusal say it too."""
    web = tmp_path / "web"
    web.mkdir()
    said = []
    for words in ("one", "two"):
        (web / "index.html").write_text(f"<!doctype html><title>{words}</title>")
        http = TestClient(
            create_app(store, lambda: TODAY, web), base_url="http://127.0.0.1", client=("127.0.0.1", 50_000)
        )
        paths = ("/api/stations", "/api/stations", "/api/pots/999")
        said.append({http.get(path).headers["fenwa-interface"] for path in paths})
    assert [len(s) for s in said] == [1, 1]
    assert said[0] != said[1]
