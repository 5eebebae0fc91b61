"""The phone at the bench: signing in over the home network, the address to open, signing out everywhere."""

from __future__ import annotations

import math
from urllib.parse import parse_qs

from fastapi import Request, Response
from fastapi.responses import HTMLResponse, RedirectResponse
from starlette.concurrency import run_in_threadpool

from fenwa.api.collections import looks_around, store_of
from fenwa.api.door import COOKIE, GUESSES, at_home
from fenwa.api.house.entrance import door_of, note_of, qr_svg
from fenwa.api.model import Model
from fenwa.api.sign_in_page import sign_in_page
from fenwa.api.transactions import OneWrite, ReadSession
from fenwa.api.ways import Ways
from fenwa.core.errors import Conflict, InputError, NotFound
from fenwa.store import passphrase

router = Ways(tags=["lan"])


@router.get("/sign-in", include_in_schema=False)
def show_sign_in(request: Request) -> Response:
    """The sign-in page; where the network is not served there is nothing to sign in to."""
    door = door_of(request)
    if door is None:
        return RedirectResponse("/", 303)
    return HTMLResponse(sign_in_page(note_of(door)))


@router.post("/sign-in", include_in_schema=False)
async def sign_in(request: Request) -> Response:
    """Take the passphrase; a signed cookie if it is right."""
    door = door_of(request)
    if door is None:
        return RedirectResponse("/", 303)
    address = request.client.host if request.client else ""
    wait = door.throttle.take(address)
    if wait > 0:
        text = f"{GUESSES} wrong guesses in a minute. Wait {math.ceil(wait)} seconds and try again."
        return HTMLResponse(sign_in_page(note_of(door), text), 429, headers={"Retry-After": str(math.ceil(wait))})
    words = parse_qs((await request.body()).decode("utf-8", "replace")).get("passphrase", [""])[0]

    def right() -> bool:
        with door.store.reading() as session:
            return passphrase.matches(session, words)

    if not await run_in_threadpool(right):
        text = "That is not the passphrase. It was chosen on the machine Fenwa runs on, and can be changed there."
        return HTMLResponse(sign_in_page(note_of(door), text), 401)
    door.throttle.give_back(address)
    response = RedirectResponse("/", 303)
    await run_in_threadpool(door.open_for, request, response)
    return response


class LanOut(Model):
    """How this server answers the home network."""

    open: bool
    addresses: list[str]
    encrypted: bool
    sentence: str
    passphrase_set: bool
    here: bool
    authority: bool


@router.get("/api/lan")
def lan(request: Request, session: ReadSession) -> LanOut:
    """Whether the phone can come in, where, and what to mind. ``here``: asked from this very machine."""
    door, chosen = door_of(request), passphrase.is_set(session)
    if door is not None:
        sentence = note_of(door)
    elif chosen:
        sentence = "Start Fenwa with ./fenwa serve --lan and this page shows the address for your phone."
    else:
        sentence = "Choose a passphrase, then start Fenwa with ./fenwa serve --lan."
    return LanOut(
        open=door is not None,
        addresses=list(door.addresses) if door else [],
        encrypted=bool(door and door.encrypted),
        sentence=sentence,
        passphrase_set=chosen,
        here=at_home(request, request.url.hostname),
        authority=bool(door and door.authority),
    )


@router.get("/api/lan/qr.svg", response_class=Response)
def lan_qr(request: Request) -> Response:
    """The address as a QR code for the phone's camera."""
    door = door_of(request)
    if door is None or not door.addresses:
        raise NotFound("This Fenwa does not answer the home network. Start it with --lan.")
    return qr_svg(door.addresses[0])


@router.get("/api/lan/authority.crt", response_class=Response)
def lan_authority(request: Request) -> Response:
    """Who vouches for the certificate of this server, as a phone installs it."""
    door = door_of(request)
    if door is None or door.authority is None:
        raise NotFound("No authority lies beside the certificate. Make both with ./fenwa certificate.")
    return Response(door.authority, media_type="application/x-x509-ca-cert")


class PassphraseIn(Model):
    """New words."""

    passphrase: str


@router.post("/api/lan/passphrase")
def choose_passphrase(body: PassphraseIn, request: Request) -> LanOut:
    """Choose the passphrase, on this machine only; whoever was signed in is signed out.

    Not kept by submission key: the record of a submission holds a quick hash of what was sent.
    """
    if not at_home(request, request.url.hostname):
        raise Conflict("The passphrase is changed on the machine Fenwa runs on. Open Fenwa there.")
    if looks_around(request):
        raise Conflict("This is the demonstration. Go back to your collection to choose its passphrase.")
    if not body.passphrase.strip():
        raise InputError("Passphrase is empty. Take four or five words nobody would guess.", pointer="/passphrase")
    store = store_of(request)
    with store.writing() as session:
        passphrase.set_passphrase(session, body.passphrase)
    with store.reading() as session:
        return lan(request, session)


class SignedOut(Model):
    """Done."""

    signed_out: bool = True


@router.post("/api/lan/sign-out")
def sign_out(request: Request, response: Response, writer: OneWrite) -> SignedOut:
    """Sign this device out: its cookie opens nothing any more."""
    door = door_of(request)
    response.delete_cookie(COOKIE, httponly=True, samesite="strict")

    def write(session: ReadSession) -> dict[str, bool]:
        if door is not None:
            door.close_for(session, request)
        return {"signed_out": True}

    return SignedOut(**writer.once(None, write))


@router.post("/api/lan/sign-out-everywhere")
def everybody_out(writer: OneWrite) -> SignedOut:
    """Sign every device out: what their cookies were signed with is no more."""

    def write(session: ReadSession) -> dict[str, bool]:
        passphrase.sign_out_everywhere(session)
        return {"signed_out": True}

    return SignedOut(**writer.once(None, write))
