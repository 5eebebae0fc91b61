"""The line to a pen: what any pen, simulated or real, has to offer."""

from __future__ import annotations

import select
import socket
from typing import Protocol


class PenUnplugged(Exception):
    """The pen does not answer."""


class PenLink(Protocol):
    """A pen sends lines, each a SenML pack (RFC 8428) of conductivity in S/m, temperature and pH."""

    def lines(self) -> list[str]:
        """Lines sent since the last call, oldest first; raises PenUnplugged when the pen is gone."""

    def ask(self, request: str) -> None:
        """Send the pen a line, for example ``start``; raises PenUnplugged when it is gone."""

    def close(self) -> None:
        """Let go of the pen."""


class SocketLink:
    """A pen on the network or behind a serial-to-TCP bridge."""

    def __init__(self, host: str, port: int, timeout_s: float = 1.0) -> None:
        try:
            self._socket = socket.create_connection((host, port), timeout=timeout_s)
        except OSError as error:
            raise PenUnplugged(f"No pen answers at {host}:{port}.") from error
        self._rest = b""

    def lines(self) -> list[str]:
        """Whole lines received so far."""
        while select.select([self._socket], [], [], 0)[0]:
            try:
                got = self._socket.recv(65_536)
            except OSError as error:
                raise PenUnplugged("The pen's line broke.") from error
            if not got:
                raise PenUnplugged("The pen closed its line.")
            self._rest += got
        *whole, self._rest = self._rest.split(b"\n")
        return [line.decode("utf-8", "replace") for line in whole]

    def ask(self, request: str) -> None:
        """Send one line."""
        try:
            self._socket.sendall(request.encode() + b"\n")
        except OSError as error:
            raise PenUnplugged("The pen's line broke.") from error

    def close(self) -> None:
        """Close the line."""
        self._socket.close()
