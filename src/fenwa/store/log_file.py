"""The log beside the database: what went wrong, with its trace, for the owner alone and never large."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from io import TextIOWrapper
from logging import Formatter, getLogger
from logging.handlers import RotatingFileHandler
from pathlib import Path

from fenwa.store.file import PRIVATE_FILE

LOG_BYTES, LOGS_KEPT = 1_000_000, 3


class PrivateLog(RotatingFileHandler):
    """A file that is made when there is something to write, turned over when it is large, read by its owner only."""

    def __init__(self, path: Path) -> None:
        super().__init__(path, maxBytes=LOG_BYTES, backupCount=LOGS_KEPT, encoding="utf-8", delay=True)
        self.setFormatter(Formatter("%(asctime)s %(levelname)s %(message)s"))

    def _open(self) -> TextIOWrapper:
        stream = super()._open()
        Path(self.baseFilename).chmod(PRIVATE_FILE)
        return stream


@contextmanager
def log_beside(database: Path) -> Iterator[None]:
    """Write what goes wrong to a file beside this database, as long as it is served."""
    handler = PrivateLog(database.with_suffix(".log"))
    getLogger("fenwa").addHandler(handler)
    try:
        yield
    finally:
        getLogger("fenwa").removeHandler(handler)
        handler.close()
