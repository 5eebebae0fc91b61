"""The command line: serve, demo, calc, openapi, bench. A thin way into core, store and api."""

from __future__ import annotations

import json
import sqlite3
import sys
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from fenwa.cli_data import Backed, data, data_folder, refuse
from fenwa.cli_network import network

if TYPE_CHECKING:
    import socket

    import uvicorn

    from fenwa.api.door import Door
    from fenwa.devices.simulated_logger import SimulatedLogger
    from fenwa.store.session import Store

app = typer.Typer(
    add_completion=False,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    help="Fenwa: the way of salt from water to leaf.",
)

app.registered_commands += [*data.registered_commands, *network.registered_commands]
INSTALLED = Path(__file__).resolve().parent / "interface"  # of the wheel
WEB = INSTALLED if INSTALLED.exists() else Path(__file__).resolve().parents[2] / "web" / "dist"

SHARE_s = 0.0001  # an entry asks the database a hundred times, and behind a page being worked out waits as often

Day = Annotated[str | None, typer.Option("--today", help="Fix the day, for example 2026-11-23.")]
Port = Annotated[int, typer.Option(help="Port; 0 takes a free one.")]
Host = Annotated[str, typer.Option(help="Address to answer on. Only this machine's own, for now.")]
Open = Annotated[bool, typer.Option("--open", help="Open a browser.")]
Pen = Annotated[str, typer.Option(help="Pen at the desk: none, simulated, or HOST:PORT of one that sends SenML lines.")]


def _day(text: str | None) -> date | None:
    if text is None:
        return None
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise typer.BadParameter(f"{text!r} is not a date. Write it as 2026-11-23.") from error


@dataclass(frozen=True)
class _Lan:
    """Answer the home network, with a certificate and its key if there are."""

    certificate: Path | None = None
    key: Path | None = None
    proxy_name: str = ""  # what a proxy on this machine is called outside; it alone is believed who asks


def _checked(host: str, pen: str, lan: _Lan | None) -> None:
    from fenwa.api.door import is_loopback

    if pen not in ("none", "simulated") and not (":" in pen and pen.rpartition(":")[2].isdigit()):
        raise refuse(f"Pen “{pen}” is not known. Say none, simulated, or HOST:PORT.")
    if not is_loopback(host):
        raise refuse(
            f"Refused: {host} is not this machine's own address. Without a passphrase Fenwa answers on "
            "127.0.0.1 only; for your phone choose one and start with --lan."
        )
    if lan is not None and (lan.certificate is None) != (lan.key is None):
        raise refuse("A certificate and its key go together: give both --tls-cert and --tls-key, or neither.")
    for file in (lan.certificate, lan.key) if lan else ():
        if file is not None and not file.is_file():
            raise refuse(f"{file} is not there. Give the path of a PEM file.")


def _need_passphrase(store: Store) -> None:
    from fenwa.store import passphrase

    with store.reading() as session:
        chosen = passphrase.is_set(session)
    if not chosen:
        raise refuse("Choose a passphrase first: ./fenwa passphrase. Then start again with --lan.")


def _door(store: Store, lan: _Lan, port: int) -> Door:
    """The door to the network, under this machine's own names."""
    from fenwa.api.door import Door, own_addresses, own_names

    if lan.proxy_name:
        return Door(store, frozenset([lan.proxy_name]), (f"https://{lan.proxy_name}/",), True)
    found, scheme = own_addresses(), "https" if lan.certificate else "http"
    addresses = tuple(f"{scheme}://{a}:{port}/" for a in found)
    beside = lan.certificate.with_name("authority.pem") if lan.certificate else None
    authority = beside.read_bytes() if beside and beside.is_file() else None
    return Door(store, own_names(found), addresses, lan.certificate is not None, authority=authority)


def _announce(door: Door) -> None:
    import segno

    from fenwa.api.door import NOT_ENCRYPTED

    if not door.addresses:
        typer.echo("This machine is on no network now. Join one and start again.")
        return
    typer.echo(f"On the home network: {'  '.join(door.addresses)}")
    segno.make(door.addresses[0], error="m", micro=False).terminal(out=sys.stdout, compact=True)
    typer.echo(
        "Every device is asked for the passphrase. " + ("The link is encrypted." if door.encrypted else NOT_ENCRYPTED)
    )


def _run(
    database: Path,
    host: str,
    port: int,
    fixed: date | None,
    open_browser: bool,
    demo: bool,
    pen: str,
    lan: _Lan | None = None,
    backups: Path | None = None,
) -> None:
    _checked(host, pen, lan)
    import gc

    gc.disable()  # thousands of lasting objects are made while loading: looking through them again and again is slow
    from sqlalchemy.exc import SQLAlchemyError

    from fenwa.core.errors import Conflict
    from fenwa.store.file import hold
    from fenwa.store.log_file import log_beside
    from fenwa.store.session import Store

    try:
        held = hold(database)
        store = Store(database, lambda told: typer.echo(told, err=True))
    except Conflict as refused:
        raise refuse(refused.detail) from refused
    except (OSError, SQLAlchemyError, sqlite3.Error) as error:
        raise _in_the_way(error, database) from error
    try:
        with log_beside(database):
            _serve_store(store, host, port, fixed, open_browser, demo, pen, lan, backups)
    except (OSError, SQLAlchemyError, sqlite3.Error) as error:
        raise _in_the_way(error, database) from error
    finally:
        store.close()
        held.release()


def _in_the_way(error: BaseException, database: Path) -> BaseException:
    """A plain sentence for the terminal where the disk or another program stands in the way; else the error."""
    from fenwa.store.trouble import said_at_start

    said = said_at_start(error, database)
    return refuse(said) if said else error


def _serve_store(
    store: Store,
    host: str,
    port: int,
    fixed: date | None,
    open_browser: bool,
    demo: bool,
    pen: str,
    lan: _Lan | None,
    folder: Path | None,
) -> None:
    import socket

    import uvicorn

    from fenwa.api.app import create_app
    from fenwa.api.patience import Patient
    from fenwa.api.quiet import Tidying
    from fenwa.api.transactions import now
    from fenwa.api.warm import Warming
    from fenwa.core.errors import Conflict
    from fenwa.demo.beside import Beside
    from fenwa.store.backup import Backups
    from fenwa.store.backup_keeper import BackupKeeper
    from fenwa.store.prepare import prepare_to_serve

    if demo:
        from fenwa.demo.database import fill_if_stale

        try:
            fill_if_stale(store, fixed or date.today())
        except Conflict as refused:
            raise refuse(refused.detail) from refused
    if lan:
        _need_passphrase(store)
    folding = prepare_to_serve(store)
    # the protocol is named so that answers are sent at once: asyncio switches Nagle's algorithm off only on TCP's own
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listener = socket.socket(family, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind(("0.0.0.0" if lan and not lan.proxy_name else host, port))  # noqa: S104 - asked for with --lan, behind the passphrase
    except OSError as error:
        typer.echo(f"Port {port} is taken by another program. Try --port 0.", err=True)
        raise typer.Exit(1) from error
    listener.listen(128)  # whoever reads the address below may come at once
    taken = listener.getsockname()[1]
    door = _door(store, lan, taken) if lan else None
    backups = Backups(store.path, folder)
    clock = (lambda: fixed) if fixed else date.today
    beside = None if demo else Beside(clock)
    server_app = create_app(store, clock, WEB if WEB.exists() else None, pen, door, backups, beside)
    scheme = "https" if lan and lan.certificate else "http"
    address = f"{scheme}://{host if ':' not in host else f'[{host}]'}:{taken}/"
    typer.echo(f"Fenwa answers at {address}  (stop with Ctrl+C)")
    if door:
        _announce(door)
    sys.stdout.flush()
    if open_browser:
        import webbrowser

        webbrowser.open(address)
    logger = _logger_beside(address) if demo and not lan and fixed is None else None
    keeper = BackupKeeper(backups, now)
    keeper.start()
    sys.setswitchinterval(SHARE_s)
    config = uvicorn.Config(
        server_app,
        http=Patient,
        log_level="warning",
        access_log=False,
        server_header=False,
        proxy_headers=bool(lan and lan.proxy_name),
        forwarded_allow_ips=["127.0.0.1", "::1"],
        ssl_certfile=lan.certificate if lan else None,
        ssl_keyfile=lan.key if lan else None,
    )
    server = uvicorn.Server(config)
    heard = server.server_state
    tidying = Tidying(store, lambda: heard.total_requests, lambda: bool(heard.tasks))
    beside_it = [x for x in (folding, Warming(server_app), tidying) if x]
    for work in beside_it:
        work.start()
    try:
        _run_until_stopped(server, listener)
    finally:
        keeper.stop()
        for work in beside_it:
            work.stop()
        if logger:
            logger.stop()
        if beside:
            beside.close()


def _logger_beside(address: str) -> SimulatedLogger:
    """The simulated logger of the demonstration: it posts to the inbox as a real one would."""
    from datetime import datetime

    from fenwa.devices.simulated_logger import SimulatedLogger

    logger = SimulatedLogger(f"{address}api/inbox/senml", datetime.now)
    logger.start()
    return logger


def _run_until_stopped(server: uvicorn.Server, listener: socket.socket) -> None:
    """Serve until Ctrl+C or SIGTERM; both end in order, so that whoever opened the store can close it."""
    import contextlib
    import signal

    def stopped(_signal: int, _frame: object) -> None:
        raise SystemExit(0)

    # uvicorn puts these back when it has shut down and raises the signal again: the default would end the process
    signal.signal(signal.SIGTERM, stopped)
    with contextlib.suppress(KeyboardInterrupt):
        server.run(sockets=[listener])


@app.command()
def serve(
    host: Host = "127.0.0.1",
    port: Port = 8710,
    today: Day = None,
    open_: Open = False,
    pen: Pen = "none",
    database: Annotated[Path | None, typer.Option(help="Database file; your data folder by default.")] = None,
    lan: Annotated[bool, typer.Option("--lan", help="Answer the home network too, behind the passphrase.")] = False,
    behind_proxy: Annotated[
        str | None,
        typer.Option(help="Name under which a proxy on this machine is reached from outside; with --lan."),
    ] = None,
    tls_cert: Annotated[Path | None, typer.Option(help="Certificate (PEM) that encrypts the link; with --lan.")] = None,
    tls_key: Annotated[Path | None, typer.Option(help="Private key (PEM) of the certificate.")] = None,
    backups: Backed = None,
) -> None:
    """Start Fenwa on your own collection."""
    if behind_proxy and (not lan or tls_cert):
        raise refuse("--behind-proxy goes with --lan and without a certificate: the proxy encrypts the link.")
    if not lan and (tls_cert or tls_key):
        raise refuse("--tls-cert and --tls-key belong to --lan. On this machine alone nothing is sent over a network.")
    _run(
        database or data_folder() / "fenwa.sqlite",
        host,
        port,
        _day(today),
        open_,
        demo=False,
        pen=pen,
        lan=_Lan(tls_cert, tls_key, (behind_proxy or "").lower()) if lan else None,
        backups=backups,
    )


@app.command("passphrase")
def choose_passphrase(
    database: Annotated[Path | None, typer.Option(help="Database file; your data folder by default.")] = None,
) -> None:
    """Choose the passphrase that --lan asks every device for; whoever was signed in is signed out."""
    from fenwa.core.errors import Conflict, InputError
    from fenwa.store import passphrase
    from fenwa.store.session import Store

    words: str = typer.prompt("Passphrase, four or five words", hide_input=True, confirmation_prompt="Once more")
    try:
        store = Store(database or data_folder() / "fenwa.sqlite")
    except Conflict as refused:
        raise refuse(refused.detail) from refused
    try:
        with store.writing() as session:
            passphrase.set_passphrase(session, words)
    except InputError as refused:
        raise refuse(refused.detail) from refused
    finally:
        store.close()
    typer.echo("Kept, as a hash. Start with ./fenwa serve --lan.")


@app.command()
def demo(
    host: Host = "127.0.0.1",
    port: Port = 8711,
    today: Day = None,
    open_: Open = False,
    pen: Pen = "simulated",
    database: Annotated[Path | None, typer.Option(help="Database file of the demonstration.")] = None,
    backups: Backed = None,
) -> None:
    """Start Fenwa on the invented Ansa Orangery; your own data is never touched."""
    _run(database or data_folder() / "demo.sqlite", host, port, _day(today), open_, True, pen, backups=backups)


@app.command()
def calc(
    name: Annotated[str | None, typer.Argument(help="Name of a calculation.")] = None,
    inputs: Annotated[str, typer.Argument(help="Inputs as JSON, or - for standard input.")] = "{}",
    list_: Annotated[bool, typer.Option("--list", help="List all with their JSON schema.")] = False,
) -> None:
    """Run one calculation and print its result and working as JSON."""
    from pydantic import ValidationError

    from fenwa.api.calc.calculations import describe, run_calculation
    from fenwa.api.problems import sentence
    from fenwa.core.calculations import list_calculations
    from fenwa.core.errors import DomainError

    if list_ or name is None:
        typer.echo(json.dumps([describe(c) for c in list_calculations()], ensure_ascii=False, indent=2))
        return
    try:
        answer = run_calculation(name, json.loads(sys.stdin.read() if inputs == "-" else inputs))
    except json.JSONDecodeError as error:
        typer.echo(f"The inputs are not valid JSON: {error}.", err=True)
        raise typer.Exit(2) from error
    except ValidationError as error:
        typer.echo("\n".join(sentence(dict(item)).detail for item in error.errors()), err=True)
        raise typer.Exit(2) from error
    except DomainError as error:
        typer.echo(error.detail, err=True)
        raise typer.Exit(2) from error
    typer.echo(json.dumps(answer, ensure_ascii=False, indent=2))


@app.command()
def openapi(
    interface: Annotated[
        bool, typer.Option(help="Only what the interface calls: its types are made from this.")
    ] = False,
) -> None:
    """Print the OpenAPI document."""
    import tempfile

    from fenwa.api.app import openapi_document
    from fenwa.api.document import for_interface

    with tempfile.TemporaryDirectory() as folder:
        document = openapi_document(Path(folder) / "empty.sqlite")
    typer.echo(json.dumps(for_interface(document) if interface else document, ensure_ascii=False, indent=1))


@app.command()
def bench(
    large: Annotated[bool, typer.Option("--large", help="Over 5,000 pots and a million rows.")] = False,
) -> None:
    """Measure what targets were set for."""
    if large:
        from fenwa.bench_large import large as run_large

        run_large()
        return
    from fenwa.bench import run

    run(WEB)


if __name__ == "__main__":
    app()
