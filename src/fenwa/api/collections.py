"""Which collection a browser works on: the grower's own, or the demonstration beside it."""

from __future__ import annotations

from typing import Protocol

from fastapi import Request, Response

from fenwa.store.backup import Backups
from fenwa.store.session import Store


class Demonstration(Protocol):
    """A demonstration that is made when it is first asked for."""

    def store(self) -> Store:
        """Its database."""

    def close(self) -> None:
        """Let go of it."""


def cookie_of(request: Request) -> str:
    """Cookies know no port: each server names its own."""
    return f"fenwa_look_{request.url.port or ''}"


def demonstration_of(request: Request) -> Demonstration | None:
    """The demonstration of this server; None: it has none beside its collection."""
    found: Demonstration | None = request.app.state.demonstration
    return found


def looks_around(request: Request) -> bool:
    """Whether this browser looks around in the demonstration."""
    return demonstration_of(request) is not None and cookie_of(request) in request.cookies


def look(request: Request, response: Response) -> None:
    """This browser works on the demonstration from now on, until it goes back or is closed."""
    response.set_cookie(cookie_of(request), "demonstration", samesite="strict")


def back(request: Request, response: Response) -> None:
    """This browser works on its own collection again."""
    response.delete_cookie(cookie_of(request), samesite="strict")


def store_of(request: Request) -> Store:
    """The database this browser works on."""
    shown = demonstration_of(request)
    own: Store = request.app.state.store
    return shown.store() if shown is not None and looks_around(request) else own


def backups_of(request: Request) -> Backups:
    """The backups of the database this browser works on; those of the demonstration lie in its own folder."""
    own: Backups = request.app.state.backups
    return Backups(store_of(request).path) if looks_around(request) else own
