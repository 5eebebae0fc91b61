"""The door to the home network: who is let in, for how long, and how often may be guessed."""

from __future__ import annotations

import contextlib
import socket
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from threading import Lock

from fastapi import Request, Response
from itsdangerous import BadSignature, TimestampSigner
from sqlalchemy.orm import Session

from fenwa.store import passphrase
from fenwa.store.session import Store

COOKIE = "fenwa_door"
KEPT_S = 30 * 86_400  # a month, then the phone is asked again
GUESSES, WINDOW_S = 10, 60.0
LOOPBACK = ("127.0.0.1", "localhost", "::1")
FORWARDED = ("forwarded", "via", "x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "x-real-ip")
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
    """At most so many wrong answers in a sliding window, of each address by itself: who guesses keeps nobody else out.

    A place is taken before an answer is looked at and given back if it was right, so that guesses sent side by side
    count too.
    """

    def __init__(
        self, most: int = GUESSES, window_s: float = WINDOW_S, clock: Callable[[], float] = time.monotonic
    ) -> None:
        self._most, self._window, self._clock = most, window_s, clock
        self._at: dict[str, deque[float]] = {}
        self._lock = Lock()

    def take(self, address: str) -> float:
        """Count a guess from an address; 0 if it may be made, else the seconds to wait."""
        with self._lock:
            now = self._clock()
            for known in list(self._at):
                times = self._at[known]
                while times and now - times[0] >= self._window:
                    times.popleft()
                if not times:
                    del self._at[known]
            mine = self._at.get(address, deque())
            if len(mine) >= self._most:
                return self._window - (now - mine[0])
            mine.append(now)
            self._at[address] = mine
            return 0.0

    def give_back(self, address: str) -> None:
        """The guess was right: it does not count."""
        with self._lock:
            if self._at.get(address):
                self._at[address].pop()


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
        """Whether the request comes with a cookie this server signed within the month, of a device still signed in."""
        with self.store.reading() as session:
            device = self._device(session, request)
            return device is not None and passphrase.is_in(session, device)

    def _device(self, session: Session, request: Request) -> str | None:
        cookie, secret = request.cookies.get(COOKIE), passphrase.secret(session)
        if cookie is None or secret is None:
            return None
        try:
            return TimestampSigner(secret, salt=COOKIE).unsign(cookie, max_age=KEPT_S).decode()
        except (BadSignature, UnicodeDecodeError):
            return None

    def open_for(self, request: Request, response: Response) -> None:
        """Give the browser a signed cookie of its own; no other site's page can make it sent. The one it had ends."""
        with self.store.writing() as session:
            before = self._device(session, request)
            if before is not None:
                passphrase.sign_out(session, before)
            device = passphrase.sign_in(session, datetime.now(UTC), KEPT_S)
            secret = passphrase.secret(session) or ""
        value = TimestampSigner(secret, salt=COOKIE).sign(device).decode()
        secure = self.encrypted or request.url.scheme == "https"
        response.set_cookie(COOKIE, value, max_age=KEPT_S, httponly=True, samesite="strict", secure=secure)

    def close_for(self, session: Session, request: Request) -> None:
        """Sign one device out: its cookie opens nothing any more, whoever kept a copy of it."""
        device = self._device(session, request)
        if device is not None:
            passphrase.sign_out(session, device)


def was_forwarded(request: Request) -> bool:
    """Whether somebody in between says so: a proxy or a tunnel on this machine looks like this machine itself."""
    return any(name in request.headers for name in FORWARDED)


def at_home(request: Request, host: str | None) -> bool:
    """Whether the request was made on this machine under its own name, by nobody in between."""
    peer = request.client.host if request.client else ""
    return host is not None and is_loopback(host) and is_loopback(peer) and not was_forwarded(request)
