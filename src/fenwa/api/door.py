"""The door to the home network: who is let in, for how long, and how often may be guessed."""

from __future__ import annotations

import contextlib
import socket
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Lock

from fastapi import Request, Response
from itsdangerous import BadSignature, TimestampSigner

from fenwa.store import passphrase
from fenwa.store.session import Store

COOKIE = "fenwa_door"
KEPT_S = 30 * 86_400  # a month, then the phone is asked again
GUESSES, WINDOW_S = 10, 60.0
LOOPBACK = ("127.0.0.1", "localhost", "::1")
NOT_ENCRYPTED = (
    "The link is not encrypted: whoever is on this network can read along, the passphrase too. "
    "./fenwa certificate makes what encrypts it."
)


def is_loopback(address: str) -> bool:
    """Is this a name of this very machine?"""
    return address in LOOPBACK


def own_addresses() -> list[str]:
    """IPv4 addresses of this machine on its networks, the one of the default route first; no packet is sent."""
    found: list[str] = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe, contextlib.suppress(OSError):
        probe.connect(("192.0.2.1", 9))  # RFC 5737; connecting a datagram socket only picks a route
        found.append(probe.getsockname()[0])
    with contextlib.suppress(OSError):
        found += [str(a[4][0]) for a in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)]
    return [a for a in dict.fromkeys(found) if not a.startswith("127.")]


def own_names(addresses: list[str]) -> frozenset[str]:
    """Names this machine may be called by on its network."""
    host = socket.gethostname().lower().removesuffix(".local")
    return frozenset([*addresses, host, f"{host}.local"])


class Throttle:
    """At most so many guesses in a sliding window, from all devices together."""

    def __init__(
        self, most: int = GUESSES, window_s: float = WINDOW_S, clock: Callable[[], float] = time.monotonic
    ) -> None:
        self._most, self._window, self._clock = most, window_s, clock
        self._at: deque[float] = deque()
        self._lock = Lock()

    def take(self) -> float:
        """Count a guess; 0 if it may be made, else the seconds to wait."""
        with self._lock:
            now = self._clock()
            while self._at and now - self._at[0] >= self._window:
                self._at.popleft()
            if len(self._at) >= self._most:
                return self._window - (now - self._at[0])
            self._at.append(now)
            return 0.0


@dataclass
class Door:
    """A server that answers the home network: its names, its addresses, and whether the link is encrypted.

    ``authority``: who vouches for its certificate, for phones to trust; None: it is not at hand.
    """

    store: Store
    names: frozenset[str]
    addresses: tuple[str, ...]
    encrypted: bool
    throttle: Throttle = field(default_factory=Throttle)
    authority: bytes | None = None

    def lets_in(self, request: Request) -> bool:
        """Whether the request comes with a cookie this server signed within the month."""
        cookie = request.cookies.get(COOKIE)
        if cookie is None:
            return False
        with self.store.reading() as session:
            secret = passphrase.secret(session)
        if secret is None:
            return False
        try:
            return TimestampSigner(secret, salt=COOKIE).unsign(cookie, max_age=KEPT_S) == b"in"
        except BadSignature:
            return False

    def open_for(self, response: Response) -> None:
        """Give the browser a signed cookie; no other site's page can make it sent."""
        with self.store.reading() as session:
            secret = passphrase.secret(session) or ""
        value = TimestampSigner(secret, salt=COOKIE).sign("in").decode()
        response.set_cookie(COOKIE, value, max_age=KEPT_S, httponly=True, samesite="strict", secure=self.encrypted)


def at_home(request: Request, host: str | None) -> bool:
    """Whether the request was made on this machine under its own name; only then is no passphrase asked for."""
    peer = request.client.host if request.client else ""
    return host is not None and is_loopback(host) and is_loopback(peer)
