"""What the build packed is sent to whoever can read it, and nobody else."""

from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from fenwa.api.app import create_app
from fenwa.store.session import Store
from tests.conftest import TODAY


@pytest.fixture
def browser(store: Store, tmp_path: Path) -> TestClient:
    web = tmp_path / "web"
    (web / "assets").mkdir(parents=True)
    (web / "index.html").write_text("<!doctype html><title>Fenwa</title>")
    (web / "assets" / "a.js").write_bytes(b"plain " * 200)
    (web / "assets" / "a.js.br").write_bytes(b"packed")
    (web / "assets" / "b.js").write_bytes(b"not packed " * 200)
    return TestClient(create_app(store, lambda: TODAY, web), base_url="http://127.0.0.1", client=("127.0.0.1", 50_000))


@pytest.mark.parametrize("accepts", ["gzip, deflate, br, zstd", "br", "gzip;q=0.5, br;q=0.9", "br ; q=1"])
def test_a_script_goes_packed_to_whoever_reads_it(browser: TestClient, accepts: str) -> None:
    with browser.stream("GET", "/assets/a.js", headers={"accept-encoding": accepts}) as answer:
        assert answer.headers["content-encoding"] == "br"
        assert answer.headers["content-type"].startswith("text/javascript")
        assert answer.headers["vary"] == "Accept-Encoding"
        assert "immutable" in answer.headers["cache-control"]
        assert b"".join(answer.iter_raw()) == b"packed"


@pytest.mark.parametrize("accepts", ["identity", "gzip", "br;q=0", "br;q=0.0, gzip", "brotli", ""])
def test_others_get_it_as_it_is(browser: TestClient, accepts: str) -> None:
    answer = browser.get("/assets/a.js", headers={"accept-encoding": accepts})
    assert answer.headers.get("content-encoding", "gzip") == "gzip"
    assert "Accept-Encoding" in answer.headers["vary"]
    assert answer.content == b"plain " * 200


def test_what_was_not_packed_is_sent_all_the_same(browser: TestClient) -> None:
    answer = browser.get("/assets/b.js", headers={"accept-encoding": "gzip, br"})
    assert answer.content == b"not packed " * 200


def test_a_packed_script_is_not_sent_twice(browser: TestClient) -> None:
    with browser.stream("GET", "/assets/a.js", headers={"accept-encoding": "br"}) as first:
        mark = first.headers["etag"]
    known = {"accept-encoding": "br", "if-none-match": mark}
    assert browser.get("/assets/a.js", headers=known).status_code == 304
    assert browser.get("/assets/a.js", headers={**known, "accept-encoding": "gzip"}).status_code == 200


@pytest.mark.parametrize("path", ["/assets/../index.html.br", "/assets/%2e%2e/%2e%2e/etc/passwd", "/assets/none.js"])
def test_there_is_no_way_out_of_the_folder(browser: TestClient, path: str) -> None:
    answer = browser.get(path, headers={"accept-encoding": "br"})
    assert "content-encoding" not in answer.headers
    assert answer.status_code == 404 or b"<title>Fenwa" in answer.content
