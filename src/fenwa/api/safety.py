"""The server's doors: known hosts and origins, the passphrase of the home network, a body limit, a strict content
policy.
"""

from __future__ import annotations

from urllib.parse import urlsplit

from fastapi import FastAPI, Request, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import MutableHeaders
from starlette.middleware.gzip import GZipMiddleware
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fenwa.api.door import is_loopback, was_forwarded
from fenwa.api.house.entrance import door_of, refuse_entry
from fenwa.api.intake import Intake, body_limit, too_large
from fenwa.api.kept_answers import KeptAnswers
from fenwa.api.outlet import Outlet
from fenwa.api.problems import problem, unexpected

SIGN_IN = "/sign-in"
WORTH_PACKING = 1_000  # bytes; a smaller answer fits one packet anyway
# Emotion writes style elements at run time, hence 'unsafe-inline' for styles only
POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; "
    "frame-ancestors 'none'"
)
HEADERS = {
    "Content-Security-Policy": POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def _host_of(header: str) -> str | None:
    try:
        return urlsplit(f"//{header}").hostname
    except ValueError:
        return None


def _refused(request: Request) -> Response | None:
    host = _host_of(request.headers.get("host", ""))
    door = door_of(request)
    if host is None or not (is_loopback(host) or (door is not None and host in door.names)):
        where = f"open {door.addresses[0]}" if door and door.addresses else "open http://127.0.0.1"
        return problem(403, "Request refused", f"This Fenwa does not answer to that name: {where}.", "host")
    origin = request.headers.get("origin")
    if origin is not None and urlsplit(origin).netloc != request.headers.get("host"):
        return problem(403, "Request refused", "The request comes from another site's page.", "origin")
    if request.headers.get("sec-fetch-site") == "cross-site" and request.method not in ("GET", "HEAD"):
        return problem(403, "Request refused", "The request comes from another site's page.", "origin")
    if "transfer-encoding" in request.headers and "content-length" not in request.headers:
        return problem(411, "Request refused", "Send the length of the body.", "length")
    length = request.headers.get("content-length", "0")
    if not length.isdigit() or int(length) > body_limit(request.url.path):
        return too_large(request.url.path)
    if door is None and was_forwarded(request):
        told = (
            "A proxy or tunnel stands before this Fenwa, and so may the world: start it with --lan and --behind-proxy."
        )
        return problem(403, "Request refused", told, "forwarded")
    if door is not None and request.url.path != SIGN_IN and not door.lets_in(request):
        if request.url.path.startswith("/api"):
            return problem(401, "Sign in first", f"Open {SIGN_IN} and give the passphrase of this house.", "sign-in")
        return refuse_entry(request, door)
    return None


class Doors:
    """Lets in or refuses, and gives every answer its headers, errors among them."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer with a refusal, or with what is behind."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        request, begun = Request(scope), False

        async def out(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                headers = MutableHeaders(scope=message)
                headers.update(HEADERS)
                if scope["path"].startswith("/api"):
                    headers["Cache-Control"] = "no-store"
                    headers["Fenwa-Interface"] = request.app.state.interface
            await send(message)

        closed = door_of(request) is None
        refused = _refused(request) if closed else await run_in_threadpool(_refused, request)
        try:
            await (refused or self._app)(scope, receive, out)
        except Exception as error:  # here and no further out: this answer carries the headers too
            if begun:
                raise
            await unexpected(request, error)(scope, receive, out)


def install(app: FastAPI) -> None:
    """Put the doors on the application; what the doors let in is read by the intake behind them."""
    app.add_middleware(Outlet)
    app.add_middleware(KeptAnswers)
    app.add_middleware(Intake)
    app.add_middleware(GZipMiddleware, minimum_size=WORTH_PACKING, compresslevel=5)

    app.add_middleware(Doors)
