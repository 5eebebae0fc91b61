"""A large house is laid out while nobody asks yet, so that the first page does not wait for it."""

from __future__ import annotations

import logging
import threading

from fastapi import FastAPI
from fastapi.routing import APIRoute

from fenwa.store.pot_rows import pots_kept
from fenwa.store.session import Store

LARGE = 200  # pots; a smaller house is laid out by its first page in half a second
PAGES = ("/api/stations", "/api/round", "/api/leaves", "/api/flush", "/api/changes")  # each lays out what others use
AFTER_s = 1.0  # whoever opens a page at once comes first
log = logging.getLogger("fenwa")


def is_large(store: Store) -> bool:
    """Whether a house is worth laying out beforehand."""
    with store.reading() as session:
        return pots_kept(session) > LARGE


class Warming:
    """A thread that asks each page once, from within."""

    def __init__(self, app: FastAPI) -> None:
        self._app = app
        self._end = threading.Event()
        self._thread = threading.Thread(target=self._run, name="warming", daemon=True)

    def start(self) -> None:
        """Begin."""
        self._thread.start()

    def stop(self) -> None:
        """End after the page under way."""
        self._end.set()
        self._thread.join(timeout=20)

    def wait(self) -> None:
        """Until every page was asked."""
        self._thread.join()

    def _run(self) -> None:
        store: Store = self._app.state.store
        asked = {r.path: r.endpoint for r in self._app.router.routes if isinstance(r, APIRoute) and r.path in PAGES}
        for page in PAGES:
            if self._end.wait(AFTER_s):
                return
            try:
                with store.reading() as session:
                    asked[page](session=session, today=self._app.state.clock())
            except Exception:  # whoever asks for the page is told
                log.exception("%s could not be laid out beforehand", page)
