"""What a server does in a quiet moment, so that nobody who pours just then waits for it.

Python's search for rubbish that refers to itself stops everything: in a house of five thousand pots, some hundred
thousand lasting objects, for a fifth of a second. SQLite's carrying over from the write-ahead log takes as long, and
falls to whoever writes the thousandth page. Where no moment is quiet both come by themselves, but seldom. Files of
photos deleted long ago go in the first one.
"""

from __future__ import annotations

import gc
import logging
import sqlite3
import threading
from collections.abc import Callable

from sqlalchemy.exc import SQLAlchemyError

from fenwa.store.prepare import sweep_photos
from fenwa.store.session import Store

LOOK_EVERY_s = 0.25
YOUNG, MIDDLE = 700, 10  # as Python has them
OLD = 300  # searches of the middle before one of everything, where no moment is quiet; Python's ten is a dozen pours
WORTH_SEARCHING = 10  # searches of the middle
WHOLE_EVERY = 40  # searches: then what was set aside is searched as well, for some of it is rubbish by now
WORTH_CARRYING = 10  # writes
log = logging.getLogger("fenwa")


class Tidying:
    """A thread that tidies when ``asked``, the count of requests so far, stands still and ``busy`` says no."""

    def __init__(self, store: Store, asked: Callable[[], int], busy: Callable[[], bool]) -> None:
        self._store, self._asked, self._busy = store, asked, busy
        self._end = threading.Event()
        self._thread = threading.Thread(target=self._run, name="tidying", daemon=True)
        self._before = -1
        self._carried, self._swept = 0, False
        self.searches = 0

    def start(self) -> None:
        """Begin; the process's own searches become seldom, and leave out what it holds now."""
        gc.set_threshold(YOUNG, MIDDLE, OLD)
        gc.freeze()
        gc.enable()
        self._thread.start()

    def stop(self) -> None:
        """End after what is under way."""
        self._end.set()
        self._thread.join(timeout=20)

    def look(self) -> None:
        """Tidy what is worth it, if nobody asks and nobody has since the last look."""
        before, self._before = self._before, self._asked()
        if before != self._before or self._busy():
            return
        if not self._swept:
            self._swept = True
            self._in_the_log(lambda: sweep_photos(self._store), "Files of deleted photos could not be taken away")
        if gc.get_count()[2] >= WORTH_SEARCHING:
            self._search()
        writes = self._store.changed.writes
        if writes - self._carried >= WORTH_CARRYING:
            self._carried = writes
            self._in_the_log(self._store.carry_over, "The write-ahead log could not be carried over")

    def _search(self) -> None:
        self.searches += 1
        if self.searches % WHOLE_EVERY == 0:
            gc.unfreeze()
        gc.collect()
        gc.freeze()

    @staticmethod
    def _in_the_log(do: Callable[[], None], failed: str) -> None:
        """A full disk: nothing is lost by it, and whoever writes is told."""
        try:
            do()
        except (OSError, SQLAlchemyError, sqlite3.Error) as error:
            log.warning("%s: %s", failed, error)

    def _run(self) -> None:
        while not self._end.wait(LOOK_EVERY_s):
            self.look()
