"""``--lan --behind-proxy NAME`` behind proxies that run: the standard library's, and nginx where it is installed."""

import http.client
import json
import shutil
import socket
import ssl
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

from tests.browser.server import OWN_CERTIFICATE, ROOT, running
from tests.browser.test_phone import CERTIFICATE, WORDS, choose

NAME = "plants.example"
ELSEWHERE = "127.0.0.2"  # stands for an address that is not this machine's own
NGINX = """
daemon off; pid {folder}/nginx.pid; error_log {folder}/error.log;
events {{}}
http {{
  access_log off; client_body_temp_path {folder}/body; proxy_temp_path {folder}/proxy; fastcgi_temp_path {folder}/f;
  uwsgi_temp_path {folder}/u; scgi_temp_path {folder}/s;
  server {{
    listen 127.0.0.1:{port} ssl;
    ssl_certificate {certificate}/cert.pem; ssl_certificate_key {certificate}/key.pem;
    location / {{
      proxy_pass http://127.0.0.1:{target};
      proxy_set_header Host $host;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
      proxy_set_header X-Forwarded-Proto https;
    }}
  }}
}}
"""
Ask = Callable[..., http.client.HTTPResponse]


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port: int = s.getsockname()[1]
    return port


def command_of(proxy: str, folder: Path, port: int, target: int) -> list[str]:
    if proxy == "nginx":
        said = NGINX.format(folder=folder, port=port, target=target, certificate=CERTIFICATE)
        (folder / "nginx.conf").write_text(said, "utf-8")
        return ["nginx", "-e", str(folder / "error.log"), "-c", str(folder / "nginx.conf")]
    pem, key = CERTIFICATE / "cert.pem", CERTIFICATE / "key.pem"
    return [sys.executable, "-m", "tests.project.passing_on", str(port), str(target), str(pem), str(key)]


@pytest.fixture(scope="module")
def chosen(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A new collection whose passphrase was chosen."""
    database = tmp_path_factory.mktemp("chosen") / "own.sqlite"
    choose(database)
    return database


@pytest.fixture(params=["standard library", "nginx"])
def ask(request: pytest.FixtureRequest, chosen: Path, tmp_path: Path) -> Iterator[Ask]:
    """Ask the house through a proxy that ends the encrypted link."""
    if request.param == "nginx" and shutil.which("nginx") is None:
        pytest.skip("nginx is not installed here")
    database = tmp_path / "own.sqlite"
    shutil.copy(chosen, database)
    with running("serve", database, 0, "--lan", "--behind-proxy", NAME) as address:
        target = int(address.rsplit(":", 1)[1].strip("/"))
        port = free_port()
        proxy = subprocess.Popen(command_of(request.param, tmp_path, port, target), cwd=ROOT, stdout=subprocess.PIPE)
        try:
            _wait_for(port)

            def asked(path: str, body: str | None = None, host: str = NAME, **head: str) -> http.client.HTTPResponse:
                line = http.client.HTTPSConnection(
                    "127.0.0.1", port, context=OWN_CERTIFICATE, timeout=20, source_address=(ELSEWHERE, 0)
                )
                headers = {"Host": host, **{k.replace("_", "-"): v for k, v in head.items()}}
                line.request("GET" if body is None else "POST", path, body, headers)
                answer = line.getresponse()
                answer.whole = answer.read().decode()  # type: ignore[attr-defined]
                line.close()
                return answer

            yield asked
        finally:
            proxy.terminate()
            proxy.communicate(timeout=20)


def _wait_for(port: int) -> None:
    for _ in range(200):
        try:
            with socket.create_connection(("127.0.0.1", port), 1) as raw, OWN_CERTIFICATE.wrap_socket(raw):
                return
        except (OSError, ssl.SSLError):
            time.sleep(0.1)
    raise AssertionError("the proxy does not answer")


def guess(ask: Ask, words: str, **head: str) -> http.client.HTTPResponse:
    kind = "application/x-www-form-urlencoded"
    return ask("/sign-in", "passphrase=" + words.replace(" ", "+"), Content_Type=kind, **head)


def test_the_world_behind_a_proxy_is_asked_and_counted_by_its_own_address(ask: Ask) -> None:
    assert ask("/api/health").status == 401
    assert ask("/", host=NAME).status in (303, 401)
    assert ask("/api/health", host="evil.example").status == 403

    signed = guess(ask, WORDS)
    cookie = signed.headers["Set-Cookie"]
    assert signed.status == 303
    assert {"Secure", "HttpOnly", "SameSite=strict"} <= set(cookie.split("; "))
    mine = cookie.split(";")[0]
    assert ask("/api/health", Cookie=mine).status == 200
    lan = ask("/api/lan", Cookie=mine)
    assert json.loads(lan.whole)["here"] is False  # type: ignore[attr-defined]  # nobody is at this machine itself

    origin = f"https://{NAME}"
    made = ask(
        "/api/people",
        '{"name": "Ada"}',
        Cookie=mine,
        Content_Type="application/json",
        Idempotency_Key="abcdefgh",
        Origin=origin,
    )
    assert made.status == 201, "a page served under the proxy's name may write"


def test_who_says_to_be_somebody_else_guesses_no_more_often_for_it(ask: Ask) -> None:
    """What a caller writes into X-Forwarded-For is not believed: only what the proxy itself adds is."""
    seen = [guess(ask, f"guess {n}", X_Forwarded_For=f"203.0.113.{n}").status for n in range(12)]
    assert seen == [401] * 10 + [429] * 2
