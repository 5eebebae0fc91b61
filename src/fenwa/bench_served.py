"""A server of its own for the bench, asked as a client would ask it, and a line of what was found."""

from __future__ import annotations

import http.client
import json
import os
import re
import subprocess
import sys
import time
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

from fenwa.bench_rows import TODAY

SETTLED_ms = 400.0
IDLE_s, IDLE_TICKS = 2.0, 4  # a server with nothing to do looks around a few times a second


@dataclass(frozen=True)
class Line:
    """One figure with its target, as a ratio to a yardstick of the same run, and how the machine was meanwhile."""

    what: str
    found: str
    target: str = ""
    ratio: str = ""
    machine: str = ""


class Served:
    """A server of its own on a database, asked over one kept line."""

    def __init__(self, database: Path) -> None:
        command = [sys.executable, "-m", "fenwa.cli", "serve", "--port", "0", "--today", TODAY.isoformat()]
        begun = time.perf_counter()
        self.process = subprocess.Popen(  # noqa: S603 - our own
            [*command, "--database", str(database)], stdout=subprocess.PIPE, text=True, env=dict(os.environ)
        )
        assert self.process.stdout is not None
        said = re.search(r"https?://\S+:\d+", self.process.stdout.readline())
        assert said, "the server did not say where it answers"
        self.where = urlsplit(said.group())
        self.ask("/api/health")
        self.started_s = time.perf_counter() - begun

    def ask(self, path: str, body: dict[str, Any] | None = None, key: str = "") -> float:
        """Ask once; how long that took. [ms]"""
        line = http.client.HTTPConnection(str(self.where.hostname), self.where.port, timeout=600)
        with closing(line):
            head = {"Content-Type": "application/json", "Idempotency-Key": key} if body else {}
            begun = time.perf_counter()
            line.request("POST" if body else "GET", path, json.dumps(body) if body else None, head)
            answer = line.getresponse()
            said = answer.read()
            took = 1000 * (time.perf_counter() - begun)
        assert answer.status in (200, 201), (path, answer.status, said[:300])
        return took

    def wait_until_laid_out(self) -> None:
        """Until a page is answered twice as fast as a hand and the processor rests: what a start does beside the port
        is done then.
        """
        for _ in range(600):
            if self.ask("/api/changes") < SETTLED_ms and self._is_idle():
                return
            time.sleep(0.5)

    def _is_idle(self) -> bool:
        """Whether it does nothing for a while though nobody asks."""
        before = self._worked()
        time.sleep(IDLE_s)
        return self._worked() - before <= IDLE_TICKS

    def _worked(self) -> int:
        """Time it took of the processors so far, in the kernel's ticks; 0 where none is told."""
        told = Path(f"/proc/{self.process.pid}/stat")
        fields = told.read_text("utf-8").rpartition(")")[2].split() if told.exists() else []
        return sum(map(int, fields[11:13]))  # of its own and of the system for it

    def pour(self, pot_ids: list[int], key: str) -> float:
        """Pour plain water on pots. [ms]"""
        body = {"pot_ids": pot_ids, "on": TODAY.isoformat(), "water_id": 1, "volume": 200, "note": "bench"}
        return self.ask("/api/pours", body, key)

    def memory_MB(self) -> float:
        """The most the server held. [MB]"""
        status = Path(f"/proc/{self.process.pid}/status").read_text("utf-8")
        found = re.search(r"VmHWM:\s+(\d+) kB", status)
        return int(found.group(1)) / 1000 if found else 0.0

    def end(self) -> None:
        """Stop it."""
        self.process.terminate()
        self.process.wait(timeout=60)
        if self.process.stdout is not None:
            self.process.stdout.close()
