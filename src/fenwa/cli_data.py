"""Commands on the data themselves: backup, restore, export, import."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

if TYPE_CHECKING:
    from fenwa.store.session import Store

data = typer.Typer()
Backed = Annotated[
    Path | None, typer.Option("--backups", envvar="FENWA_BACKUPS", help="Folder of the backups; beside the database.")
]


def data_folder() -> Path:
    from platformdirs import user_data_dir

    from fenwa.store.file import PRIVATE_FOLDER

    folder = Path(user_data_dir("fenwa", appauthor=False))
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(PRIVATE_FOLDER)
    return folder


def refuse(sentence: str) -> typer.Exit:
    typer.echo(sentence, err=True)
    return typer.Exit(2)


Kept = Annotated[Path | None, typer.Option("--database", help="Database file; your data folder by default.")]


@contextmanager
def _held(path: Path) -> Iterator[Store]:
    """The collection, while no server has it; a refusal is one sentence."""
    from fenwa.core.errors import DomainError
    from fenwa.store.file import hold
    from fenwa.store.session import Store

    try:
        held = hold(path)
        try:
            store = Store(path)
            try:
                yield store
            finally:
                store.close()
        finally:
            held.release()
    except DomainError as refused:
        raise refuse(refused.detail) from refused


@data.command()
def backup(database: Kept = None, backups: Backed = None) -> None:
    """Make a backup now, read it back, and thin out older ones. The server may run meanwhile."""
    from fenwa.api.transactions import now
    from fenwa.core.errors import Conflict
    from fenwa.store.backup import Backups
    from fenwa.store.file import check_ours

    path = database or data_folder() / "fenwa.sqlite"
    if not path.is_file():
        raise refuse(f"{path} is not there: there is nothing to back up. Name the database with --database.")
    kept = Backups(path, backups)
    try:
        check_ours(path)
        made = kept.make("by-hand", now())
    except Conflict as refused:
        raise refuse(refused.detail) from refused
    typer.echo(f"{kept.folder / made.name}  {made.bytes / 1e6:.1f} MB, read back and whole")
    if kept.problem:
        typer.echo(kept.problem, err=True)


@data.command()
def restore(
    file: Annotated[Path, typer.Argument(help="A backup: a file of the backups folder.")],
    database: Kept = None,
    backups: Backed = None,
) -> None:
    """Turn the collection back to a backup; checked first, and what stands now is kept as a backup."""
    from fenwa.api.transactions import now
    from fenwa.store.backup import Backups
    from fenwa.store.prepare import prepare_store

    path = database or data_folder() / "fenwa.sqlite"
    if not file.is_file():
        raise refuse(f"{file} is not there. Name a file of the backups folder.")
    with _held(path) as store:
        before = Backups(path, backups).restore(store, file, now(), prepare_store)
        prepare_store(store)
    typer.echo(f"{path} is as {file.name} was. What stood before: {before.name}")


@data.command("export")
def export_(
    file: Annotated[Path, typer.Argument(help="Where to: a .zip (a Frictionless data package) or a .json.")],
    database: Kept = None,
) -> None:
    """Write the whole collection into one file, readable without Fenwa. The server may run meanwhile."""
    from fenwa.api.transactions import now
    from fenwa.archive import carry
    from fenwa.core.errors import DomainError
    from fenwa.store.session import Store

    path = database or data_folder() / "fenwa.sqlite"
    if not path.is_file():
        raise refuse(f"{path} is not there: there is nothing to export. Name the database with --database.")
    if file.suffix not in (".zip", ".json"):
        raise refuse(f"{file.name} ends neither in .zip nor in .json. Choose one.")
    half = file.with_name(f"{file.name}.half")
    try:
        store = Store(path)
        try:
            with half.open("wb") as out:
                if file.suffix == ".zip":
                    carry.export_package(store, out, now())
                else:
                    out.write(carry.export_json(store, now()).encode())
        finally:
            store.close()
        half.replace(file)
    except (DomainError, OSError) as error:
        raise refuse(getattr(error, "detail", f"{file} cannot be written: {error}.")) from error
    finally:
        half.unlink(missing_ok=True)
    typer.echo(f"{file}  {file.stat().st_size / 1e6:.1f} MB")


@data.command("import")
def import_(
    file: Annotated[Path, typer.Argument(help="A file that was exported.")],
    database: Kept = None,
    backups: Backed = None,
    conflicts: Annotated[str, typer.Option(help="Rows in conflict: refuse, mine or theirs.")] = "refuse",
) -> None:
    """Take an exported file in, all or nothing; what stands now is backed up first."""
    from typing import get_args

    from fenwa.api.transactions import now
    from fenwa.archive import carry
    from fenwa.archive.tables import Choice
    from fenwa.store.backup import Backups

    if not file.is_file():
        raise refuse(f"{file} is not there. Name a file that was exported.")
    chosen = next((c for c in get_args(Choice) if c == conflicts), None)
    if chosen is None:
        raise refuse(f"“{conflicts}” is no choice. Say refuse, mine or theirs.")
    path = database or data_folder() / "fenwa.sqlite"
    with _held(path) as store:
        read = carry.read_file(file)
        typer.echo(carry.preview(store, read).sentence)
        typer.echo(carry.take(store, Backups(path, backups), read, chosen, now()).sentence)
