"""The pen at the desk: one link, one reading at a time, shared by all requests."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from datetime import date

from fenwa.core.water.settle import Settled
from fenwa.devices.link import PenLink, PenUnplugged, SocketLink
from fenwa.devices.pen import PenReading
from fenwa.devices.simulated import SimulatedPen


class PenSession:
    """Whatever pen there is. ``where``: "none", "simulated" or "host:port"."""

    def __init__(self, where: str = "none", today: Callable[[], date] = date.today) -> None:
        self._lock = threading.Lock()
        self.where = where
        self.simulated = SimulatedPen(time.monotonic, today) if where == "simulated" else None
        self._reading: PenReading | None = None

    @property
    def present(self) -> bool:
        """Whether a pen was named when Fenwa was started."""
        return self.where != "none"

    def _link(self) -> PenLink:
        if self.simulated is not None:
            return self.simulated
        host, _, port = self.where.rpartition(":")
        return SocketLink(host, int(port))

    def start(self) -> None:
        """Begin a reading; an earlier one is dropped."""
        with self._lock:
            self._close()
            try:
                self._reading = PenReading(self._link())
                self._reading.begin()
            except PenUnplugged as error:
                self._reading = PenReading(_Gone(str(error)))
                self._reading.begin()

    def look(self) -> tuple[PenReading | None, Settled | None]:
        """The reading under way and whether it has settled."""
        with self._lock:
            return self._reading, self._reading.poll() if self._reading else None

    def _close(self) -> None:
        if self._reading is not None:
            self._reading.link.close()
            self._reading = None


class _Gone:
    """A pen that could not be reached."""

    def __init__(self, reason: str) -> None:
        self._reason = reason

    def lines(self) -> list[str]:
        raise PenUnplugged(self._reason)

    def ask(self, request: str) -> None:
        raise PenUnplugged(self._reason)

    def close(self) -> None:
        return None
