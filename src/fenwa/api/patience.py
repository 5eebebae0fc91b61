"""How long is waited for a request that does not come whole."""

from __future__ import annotations

from asyncio import TimerHandle, Transport
from typing import Any

from uvicorn.protocols.http.h11_impl import H11Protocol

PATIENCE_S = 10.0  # without a byte of a request that was begun; a phone at the end of the garden takes a second or two


class Patient(H11Protocol):
    """Ends a connection on which a request was begun, or none was, and nothing whole came for a while.

    A body that stops half way is met by ``intake``, which can still answer.
    """

    _waiting: TimerHandle | None = None

    def connection_made(self, transport: Transport) -> None:  # type: ignore[override]
        """A connection was opened: the first line is waited for."""
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        """Bytes came: a request is at work now, or its head is waited for still."""
        self._stop()
        super().data_received(data)
        if not self._at_work():
            self._wait()

    def connection_lost(self, exc: Exception | None) -> None:
        """The connection is gone."""
        self._stop()
        super().connection_lost(exc)

    def _at_work(self) -> bool:
        cycle: Any = self.cycle
        return cycle is not None and not cycle.response_complete

    def _wait(self) -> None:
        self._waiting = self.loop.call_later(PATIENCE_S, self._end)

    def _stop(self) -> None:
        if self._waiting is not None:
            self._waiting.cancel()
            self._waiting = None

    def _end(self) -> None:
        if not self._at_work() and not self.transport.is_closing():
            self.transport.close()
