"""Requests by the thousand, made from the OpenAPI document: no server error, nothing undocumented or out of shape.

Half of them keep to the document and half break it; ids are mostly such as are there, so that requests get as far as
the rules. The same seed sends the same requests.
"""

from __future__ import annotations

import argparse
import random
import re
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import date
from pathlib import Path
from typing import Any

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis.errors import Unsatisfiable
from schemathesis.checks import (
    content_type_conformance,
    not_a_server_error,
    response_schema_conformance,
    status_code_conformance,
)
from schemathesis.core.failures import FailureGroup
from schemathesis.generation import GenerationMode

from fenwa.api.app import create_app
from fenwa.demo.database import fill_if_stale
from fenwa.store.prepare import prepare_store
from fenwa.store.session import Store

TODAY = date(2026, 11, 23)
CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
ALL = 20_000
SLOW_S = 120
# what would put another database in the place of the one that is asked
LEFT_OUT = ("/api/backups/restore",)
IDS = 30  # rows of the demonstration that an id is drawn from
PAGES = ("/api/round", "/api/stations", "/api/water", "/api/mix", "/api/pots", "/api/days", "/api/settings")
_ID = re.compile(r"(^|_)(id|ids)$")


@dataclass
class Found:
    """What a run found: answers by status, and each thing that was wrong once."""

    requests: int = 0
    statuses: Counter[int] = field(default_factory=Counter)
    wrong: dict[str, str] = field(default_factory=dict)


def known_ids(value: Any, draw: random.Random, name: str = "") -> Any:
    """The same value with most of its ids such as are there."""
    if isinstance(value, dict):
        return {k: known_ids(v, draw, k) for k, v in value.items()}
    if isinstance(value, list):
        return [known_ids(v, draw, name) for v in value]
    there = isinstance(value, int) and not isinstance(value, bool) and _ID.search(name)
    return draw.randint(1, IDS) if there and draw.random() < 0.8 else value


def operations(app: Any, only: str = "") -> Iterator[Any]:
    """Every operation of the document but those left out."""
    app.openapi()  # made once and kept: it takes longer than is waited for
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers={"Host": "127.0.0.1"})
    for found in schema.get_all_operations():
        operation = found.ok()
        if operation.path not in LEFT_OUT and only in operation.path:
            yield operation


def run(app: Any, requests: int, start: int, only: str = "", say: Any = lambda _: None) -> Found:
    """Send so many requests, as many to each operation; those that have few of a kind leave theirs to the others."""
    found = Found()
    left = [(o, mode) for o in operations(app, only) for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE)]
    turn = start
    while left and found.requests < requests:
        each, again = max(1, (requests - found.requests) // len(left)), []
        for n, (operation, mode) in enumerate(left):
            if turn > start and found.requests >= requests:
                break  # in the first turn each has its own
            if _send(operation, mode, each, turn, found) == each:
                again.append((operation, mode))
            if n % 80 == 79:
                say(f"{found.requests} requests, {len(found.wrong)} findings")
        left, turn = again, turn + 1
    client = _client(app)
    for page in PAGES:
        status = client.get(page).status_code
        if status != 200:
            found.wrong[f"GET {page} afterwards"] = f"answers {status}: what was stored before can no longer be read"
    return found


def _client(app: Any) -> Any:
    from fastapi.testclient import TestClient

    return TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False)


def _send(operation: Any, mode: GenerationMode, count: int, start: int, found: Found) -> int:
    """How many requests it could make of those asked for."""
    before = found.requests
    draw = random.Random(f"{start} {operation.label} {mode.value}")  # noqa: S311 - chance, not secrecy

    @seed(start)
    @given(case=operation.as_strategy(generation_mode=mode))
    @settings(
        max_examples=count,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
        report_multiple_bugs=False,
    )
    def one(case: Any) -> None:
        case.path_parameters = known_ids(case.path_parameters, draw)
        if isinstance(case.query, dict):
            case.query = known_ids(case.query, draw)
        if isinstance(case.body, dict) and mode is GenerationMode.POSITIVE:
            case.body = known_ids(case.body, draw)
        key = f"fuzz-{draw.getrandbits(64):x}"
        answer = case.call(headers={"Idempotency-Key": key, "Host": "127.0.0.1"}, timeout=SLOW_S)
        found.requests += 1
        found.statuses[answer.status_code] += 1
        try:
            case.validate_response(answer, checks=CHECKS)
        except FailureGroup as group:
            for failure in group.exceptions:
                what = f"{operation.label}: {answer.status_code} {type(failure).__name__}"
                found.wrong.setdefault(what, f"{case.as_curl_command()}\n{failure}"[:1500])

    with suppress(Unsatisfiable):  # an operation without anything to get wrong
        one()
    return found.requests - before


def furnished(folder: Path) -> Any:
    """The demonstration on a database of its own."""
    store = Store(folder / "fuzz.sqlite")
    fill_if_stale(store, TODAY)
    prepare_store(store)
    return create_app(store, lambda: TODAY)


def main() -> int:
    """Run, print, and fail if anything was wrong."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--requests", type=int, default=ALL)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--only", default="", help="operations whose path holds this")
    asked = parser.parse_args()
    begun = time.monotonic()
    with tempfile.TemporaryDirectory() as folder:
        found = run(
            furnished(Path(folder)), asked.requests, asked.seed, asked.only, lambda s: print(f"  {s}", flush=True)
        )
    for what, how in found.wrong.items():
        print(f"\n{what}\n{how}")
    errors = sum(n for status, n in found.statuses.items() if status >= 500)
    print(
        f"{found.requests} requests (seed {asked.seed}) in {time.monotonic() - begun:.0f} s: {errors} server errors, "
        f"{len(found.wrong)} findings; answers {dict(sorted(found.statuses.items()))}"
    )
    return 1 if found.wrong else 0


if __name__ == "__main__":
    sys.exit(main())
