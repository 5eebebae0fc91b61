"""Backups by themselves: one at every start, then one a day."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from contextlib import suppress
from datetime import datetime

from fenwa.core.errors import Conflict
from fenwa.store.backup import DAILY, Backups

LOOK_EVERY_s = 600.0
AFTER_START_s = 5.0  # the first page comes before the first backup: on a small board both take a while
log = logging.getLogger("fenwa")


class BackupKeeper:
    """A thread beside the server; it never stands in the way of a start or an end."""

    def __init__(
        self,
        backups: Backups,
        now: Callable[[], datetime],
        every_s: float = LOOK_EVERY_s,
        after_s: float = AFTER_START_s,
    ) -> None:
        self._backups, self._now, self._every_s, self._after_s = backups, now, every_s, after_s
        self._end = threading.Event()
        self._thread = threading.Thread(target=self._run, name="backups", daemon=True)

    def start(self) -> None:
        """Begin with a backup of the start, as soon as the first page had its time."""
        self._thread.start()

    def stop(self) -> None:
        """End; a backup under way is finished first, for a while."""
        self._end.set()
        self._thread.join(timeout=20)

    def _run(self) -> None:
        if self._end.wait(self._after_s):
            return
        self._once("start")
        while not self._end.wait(self._every_s):
            self.look()

    def look(self) -> None:
        """Make a backup if the newest is a day old; a failed one is tried again at the next look."""
        made = self._backups.listed()
        if not made or self._now() - made[0].at >= DAILY:
            self._once("daily")

    def _once(self, why: str) -> None:
        with suppress(Conflict):  # told on the house page until one was made
            self._backups.make(why, self._now())
            return
        log.warning("%s", self._backups.problem)
