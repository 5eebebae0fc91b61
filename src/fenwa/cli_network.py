"""Commands for the home network: a certificate."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from fenwa.cli_data import data_folder

network = typer.Typer()
HOW = """Start with:   ./fenwa serve --lan --tls-cert {certificate} --tls-key {key}

On each phone, once:
  1. Open the address that is printed then. The browser warns: go on this once, and sign in.
  2. On the House page, under “The phone at the bench”, download the authority.
  3. Install it as a trusted authority (Android: Security, Install a certificate, CA certificate;
     iPhone: install the profile, then General, About, Certificate Trust Settings).
  4. Open the address again. Add it to the home screen if you like.

The authority can vouch for this machine's names and for private addresses only. Its key stays in
{folder}; delete it there and remove the authority from the phones to take the trust back."""


@network.command()
def certificate(
    folder: Annotated[Path | None, typer.Option(help="Folder of the files; in your data folder by default.")] = None,
    name: Annotated[list[str] | None, typer.Option(help="Another name or address this machine is called by.")] = None,
) -> None:
    """Make a certificate that encrypts the link on the home network, and say how a phone trusts it."""
    from fenwa.api.certificate import make_certificate
    from fenwa.api.door import own_addresses, own_names

    addresses = own_addresses()
    names = sorted(own_names(addresses) - set(addresses))
    made = make_certificate(
        folder or data_folder() / "certificate",
        [*names, "localhost", *addresses, "127.0.0.1", *(name or [])],
    )
    typer.echo(f"Made for {', '.join(made.names)}, until {made.until:%d %B %Y}.")
    if made.again:
        typer.echo("The authority is the one of last time: phones that trust it need nothing.")
    typer.echo(HOW.format(certificate=made.certificate, key=made.key, folder=made.authority.parent))
