"""A look around in the demonstration, in the same server and beside the grower's own data."""

from __future__ import annotations

from fastapi import Request, Response

from fenwa.api.collections import back, demonstration_of, look, looks_around
from fenwa.api.model import Model
from fenwa.api.ways import Ways
from fenwa.core.errors import Conflict

router = Ways(prefix="/api/demonstration", tags=["start"])


class Shown(Model):
    """Which collection this browser works on. ``can_look``: whether there is a demonstration beside it."""

    demonstration: bool
    can_look: bool


@router.get("")
def shown(request: Request) -> Shown:
    """Whether this browser shows the demonstration."""
    return Shown(demonstration=looks_around(request), can_look=demonstration_of(request) is not None)


@router.post("")
def look_around(request: Request, response: Response) -> Shown:
    """Show the demonstration in this browser; the own collection stays as it is."""
    beside = demonstration_of(request)
    if beside is None:
        raise Conflict("This is the demonstration. Start with ./fenwa serve for a collection of your own.")
    beside.store()
    look(request, response)
    return Shown(demonstration=True, can_look=True)


@router.delete("")
def leave(request: Request, response: Response) -> Shown:
    """Show the own collection again."""
    back(request, response)
    return Shown(demonstration=False, can_look=demonstration_of(request) is not None)
