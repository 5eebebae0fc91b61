"""A certificate for the home network: an authority of one's own that may vouch for this machine only."""

from __future__ import annotations

import ipaddress
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from fenwa.store.file import PRIVATE_FOLDER

AUTHORITY_DAYS, SERVER_DAYS = 3650, 397  # phones refuse a server's certificate of more than 398 days
AUTHORITY, AUTHORITY_KEY, SERVER, SERVER_KEY = "authority.pem", "authority-key.pem", "cert.pem", "key.pem"
PRIVATE_FILE = 0o600
PRIVATE = [
    ipaddress.ip_network(n) for n in ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8")
]


@dataclass(frozen=True)
class Made:
    """The files of a certificate, what it names, and its last day. ``again``: phones trust its authority already."""

    authority: Path
    certificate: Path
    key: Path
    names: tuple[str, ...]
    until: datetime
    again: bool


def _named(words: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, words)])


def _general(names: list[str]) -> list[x509.GeneralName]:
    out: list[x509.GeneralName] = []
    for name in names:
        try:
            out.append(x509.IPAddress(ipaddress.ip_address(name)))
        except ValueError:
            out.append(x509.DNSName(name))
    return out


def _only_at_home(names: list[str]) -> x509.NameConstraints:
    """An authority a phone trusts must not vouch for a bank: this machine's names and addresses, and private ones."""
    own = [n if isinstance(n, x509.DNSName) else x509.IPAddress(ipaddress.ip_network(n.value)) for n in _general(names)]
    return x509.NameConstraints([*own, *(x509.IPAddress(n) for n in PRIVATE)], None)


def _covers(allowed: list[x509.GeneralName], name: x509.GeneralName) -> bool:
    """Whether an authority may vouch for a name: one it does not cover would spoil the whole certificate."""
    if isinstance(name, x509.DNSName):
        return name in allowed
    nets = [n.value for n in allowed if isinstance(n.value, ipaddress.IPv4Network | ipaddress.IPv6Network)]
    return any(name.value in net for net in nets)


def _private(path: Path, key: ec.EllipticCurvePrivateKey) -> None:
    path.touch(PRIVATE_FILE)
    path.chmod(PRIVATE_FILE)
    plain = serialization.NoEncryption()
    path.write_bytes(key.private_bytes(serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, plain))


def _authority(folder: Path, names: list[str], now: datetime) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    key = ec.generate_private_key(ec.SECP256R1())
    name = _named(f"Fenwa of {names[0]}")
    made = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now + timedelta(days=AUTHORITY_DAYS))
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_key_usage(signs=True), critical=True)
        .add_extension(_only_at_home(names), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    _private(folder / AUTHORITY_KEY, key)
    (folder / AUTHORITY).write_bytes(made.public_bytes(serialization.Encoding.PEM))
    return made, key


def _key_usage(signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=True,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        key_cert_sign=signs,
        crl_sign=signs,
        encipher_only=False,
        decipher_only=False,
    )


def _kept(folder: Path, names: list[str], now: datetime) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey] | None:
    """The authority of last time, if it is whole, vouches for these names and outlives a new certificate."""
    try:
        made = x509.load_pem_x509_certificate((folder / AUTHORITY).read_bytes())
        key = serialization.load_pem_private_key((folder / AUTHORITY_KEY).read_bytes(), None)
        allowed = made.extensions.get_extension_for_class(x509.NameConstraints).value.permitted_subtrees or []
    except (OSError, ValueError, x509.ExtensionNotFound):
        return None
    outlives = made.not_valid_after_utc >= now + timedelta(days=SERVER_DAYS)
    covered = all(_covers(allowed, n) for n in _general(names))
    if not isinstance(key, ec.EllipticCurvePrivateKey) or not outlives or not covered:
        return None
    return made, key


def make_certificate(folder: Path, names: list[str], now: datetime | None = None) -> Made:
    """A server's certificate for these names and addresses, with the authority that vouches for it.

    The authority is kept for next time: a phone that trusts it is not asked again. Keys are readable by their owner
    only. The first name is the machine's own.
    """
    now = now or datetime.now(UTC)
    folder.mkdir(parents=True, exist_ok=True)
    folder.chmod(PRIVATE_FOLDER)
    kept = _kept(folder, names, now)
    authority, signing = kept or _authority(folder, names, now)
    key = ec.generate_private_key(ec.SECP256R1())
    until = now + timedelta(days=SERVER_DAYS)
    made = (
        x509.CertificateBuilder()
        .subject_name(_named(names[0]))
        .issuer_name(authority.subject)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(until)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_key_usage(signs=False), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.SubjectAlternativeName(_general(names)), critical=False)
        .add_extension(
            x509.AuthorityKeyIdentifier.from_issuer_public_key(authority.public_key()),  # type: ignore[arg-type]
            critical=False,
        )
        .sign(signing, hashes.SHA256())
    )
    _private(folder / SERVER_KEY, key)
    (folder / SERVER).write_bytes(made.public_bytes(serialization.Encoding.PEM))
    return Made(folder / AUTHORITY, folder / SERVER, folder / SERVER_KEY, tuple(names), until, kept is not None)
