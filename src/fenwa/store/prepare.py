"""What a store needs before it is served, and what may be done while it is."""

from __future__ import annotations

import logging
import threading
from dataclasses import asdict
from datetime import UTC, datetime, timedelta

from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from fenwa.core.library.loader import fertilizers
from fenwa.store.collection import refresh_stale, stale_summaries
from fenwa.store.mix_rows import library_ids
from fenwa.store.models import Product
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.photo_rows import KEPT_DAYS, gone_before, sweep
from fenwa.store.session import Store
from fenwa.store.summary import refresh_many

WAITED_FOR = 60  # pots folded before the port opens: a small house is whole from its first page on
AT_ONCE = 12  # pots folded in one write while others pour: half a second
PAUSE_s = 0.05  # between two of them: whoever waits to write goes first
log = logging.getLogger("fenwa")


def prepare_store(store: Store) -> None:
    """Bring the shipped library to the shelf and fold what is stale; nothing of the user's is touched."""
    with store.writing() as session:
        _bring_library(session)
        refresh_stale(session)
    sweep_photos(store)


def prepare_to_serve(store: Store) -> Folding | None:
    """The same, but a long fold is left for while the port is open: it is to be started. So are deleted photos."""
    with store.writing() as session:
        _bring_library(session)
        stale = stale_summaries(session)
        if len(stale) <= WAITED_FOR:
            refresh_many(session, stale)
            stale = []
    return Folding(store, stale) if stale else None


def _bring_library(session: Session) -> None:
    known = library_ids(session)
    for item in fertilizers().values():
        if item.id not in known:
            session.add(Product(library_id=item.id, name=item.label.name, label=asdict(item.label)))


def sweep_photos(store: Store) -> None:
    """Take away files of photos that nobody can bring back any more; where there are none, nothing is written."""
    moment = datetime.now(UTC).replace(tzinfo=None, microsecond=0)
    with store.reading() as session:
        if not gone_before(session, moment - timedelta(days=KEPT_DAYS)):
            return
    with store.writing() as session:
        sweep(session, PhotoFolder(store.path), moment)


class Folding:
    """Logs folded anew by new figures, a few pots a write, beside the server. Ended early, the next start goes on."""

    def __init__(self, store: Store, pot_ids: list[int]) -> None:
        self._store, self._pot_ids = store, pot_ids
        self._end = threading.Event()
        self._thread = threading.Thread(target=self._run, name="folding", daemon=True)
        store.folding = (0, len(pot_ids))

    def start(self) -> None:
        """Begin."""
        self._thread.start()

    def stop(self) -> None:
        """End after the pots under way."""
        self._end.set()
        self._thread.join(timeout=20)

    def wait(self) -> None:
        """Until every pot is folded."""
        self._thread.join()

    def _run(self) -> None:
        for i in range(0, len(self._pot_ids), AT_ONCE):
            if self._end.wait(PAUSE_s):
                return
            mine = self._pot_ids[i : i + AT_ONCE]
            try:
                with self._store.writing() as session:
                    still = set(stale_summaries(session))  # a pour has folded its pot already
                    refresh_many(session, [x for x in mine if x in still])
            except SQLAlchemyError:
                log.exception("Logs could not be folded; what is missing is folded at the next start.")
                return
            self._store.folding = (min(i + AT_ONCE, len(self._pot_ids)), len(self._pot_ids))
