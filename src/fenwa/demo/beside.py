"""The demonstration beside a grower's own collection, in the same server: made when somebody looks, gone at the end."""

from __future__ import annotations

import tempfile
import threading
from collections.abc import Callable
from datetime import date
from pathlib import Path

from fenwa.store.prepare import prepare_store
from fenwa.store.session import Store


class Beside:
    """A demonstration of its own file, in a folder that is removed when the server stops."""

    def __init__(self, clock: Callable[[], date]) -> None:
        self._clock, self._lock = clock, threading.Lock()
        self._folder: tempfile.TemporaryDirectory[str] | None = None
        self._store: Store | None = None

    def store(self) -> Store:
        """Its database; made the first time, which takes some seconds."""
        from fenwa.demo.database import fill_if_stale  # with its year of entries: no start waits for it

        with self._lock:
            if self._store is None:
                self._folder = tempfile.TemporaryDirectory(prefix="fenwa-demonstration-")
                made = Store(Path(self._folder.name) / "demonstration.sqlite")
                fill_if_stale(made, self._clock())
                prepare_store(made)
                self._store = made
            return self._store

    def close(self) -> None:
        """Let go of it; what was entered there is gone."""
        with self._lock:
            if self._store is not None:
                self._store.close()
            if self._folder is not None:
                self._folder.cleanup()
            self._store = self._folder = None
