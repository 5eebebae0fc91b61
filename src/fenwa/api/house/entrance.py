"""What stands at the door to the home network: who is asked to sign in, and addresses as codes."""

from __future__ import annotations

import io

import segno
from fastapi import Request, Response
from fastapi.responses import HTMLResponse

from fenwa.api.door import NOT_ENCRYPTED, Door
from fenwa.api.sign_in_page import sign_in_page


def door_of(request: Request) -> Door | None:
    """The door to the network, or None where this server answers its own machine only."""
    door: Door | None = getattr(request.app.state, "door", None)
    return door


def note_of(door: Door) -> str:
    """What to mind of the link."""
    return "The link is encrypted." if door.encrypted else NOT_ENCRYPTED


def refuse_entry(request: Request, door: Door) -> Response:
    """What a device that has not signed in is answered: the sign-in page, and nothing else."""
    return HTMLResponse(sign_in_page(note_of(door)), 401)


def qr_svg(text: str) -> Response:
    """A QR code (ISO/IEC 18004) as a picture, dark on white whatever the theme, for cameras want it so."""
    out = io.BytesIO()
    segno.make(text, error="m", micro=False).save(out, kind="svg", scale=4, border=4, light="white")
    return Response(out.getvalue(), media_type="image/svg+xml")
