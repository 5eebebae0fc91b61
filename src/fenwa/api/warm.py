"""A large house is laid out while nobody asks yet: at the start, and again when a day begins, so that the first page of
a morning does not wait for it. Tomorrow's round as well, the coming day that is asked for most.
"""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from datetime import date, timedelta
from functools import partial

from fastapi import FastAPI
from fastapi.routing import APIRoute

from fenwa.store.pot_rows import pots_kept
from fenwa.store.session import Store

LARGE = 200  # pots; a smaller house is laid out by its first page in half a second
ROUND = "/api/round"
PAGES = ("/api/stations", ROUND, "/api/leaves", "/api/flush", "/api/changes")  # each lays out what others use
AFTER_s = 1.0  # whoever opens a page at once comes first
LOOK_EVERY_s = 30.0  # whether a day has begun, or the house has grown
log = logging.getLogger("fenwa")


def is_large(store: Store) -> bool:
    """Whether a house is worth laying out beforehand."""
    with store.reading() as session:
        return pots_kept(session) > LARGE


class Warming:
    """A thread that asks each page once a day, from within."""

    def __init__(self, app: FastAPI) -> None:
        self._app = app
        self._end, self._laid_out = threading.Event(), threading.Event()
        self._thread = threading.Thread(target=self._run, name="warming", daemon=True)
        self._day: date | None = None  # laid out last

    def start(self) -> None:
        """Begin."""
        self._thread.start()

    def stop(self) -> None:
        """End after the page under way."""
        self._end.set()
        self._thread.join(timeout=20)

    def wait(self) -> None:
        """Until the house was laid out once."""
        self._laid_out.wait()

    def _run(self) -> None:
        told = False
        while not self._end.is_set():
            try:
                self.look()
                told = False
            except Exception:  # whoever asks for a page is told; the log is, once
                if not told:
                    log.exception("The house could not be laid out beforehand")
                told = True
            self._end.wait(LOOK_EVERY_s)

    def look(self) -> None:
        """Lay a large house out if it was not yet on this day."""
        store: Store = self._app.state.store
        today: date = self._app.state.clock()
        if today == self._day or not is_large(store):
            return
        if self._day is not None:
            store.forget()  # of a day gone by: both at once would not fit the memory of a small machine
        for page, ask in self._asked(today):
            if self._end.wait(AFTER_s):
                return
            try:
                with store.reading() as session:
                    ask(session=session)
            except Exception:
                log.exception("%s could not be laid out beforehand", page)
        self._day = today
        self._laid_out.set()

    def _asked(self, today: date) -> list[tuple[str, Callable[..., object]]]:
        """Pages of today, and the round of tomorrow."""
        ways = {r.path: r.endpoint for r in self._app.router.routes if isinstance(r, APIRoute) and r.path in PAGES}
        tomorrow = today + timedelta(days=1)
        coming = partial(ways[ROUND], today=today, on=tomorrow)
        return [*((page, partial(ways[page], today=today)) for page in PAGES), (f"{ROUND}?on={tomorrow}", coming)]
