"""The certificate of the home network: trusted by who trusts its authority, for this machine's names and no others."""

import ssl
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from cryptography import x509
from cryptography.x509.verification import PolicyBuilder, Store, VerificationError
from typer.testing import CliRunner

from fenwa.api import certificate
from fenwa.api.certificate import SERVER_DAYS, make_certificate
from fenwa.api.door import Door
from fenwa.cli import app
from fenwa.store import passphrase
from tests.conftest import Client

NAMES = ["greenhouse", "greenhouse.local", "192.168.7.20", "127.0.0.1"]


def read(path: Path) -> x509.Certificate:
    return x509.load_pem_x509_certificate(path.read_bytes())


def test_it_names_this_machine_and_is_vouched_for(tmp_path: Path) -> None:
    made = make_certificate(tmp_path / "c", NAMES)
    server, authority = read(made.certificate), read(made.authority)
    server.verify_directly_issued_by(authority)
    found = server.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert found.get_values_for_type(x509.DNSName) == NAMES[:2]
    assert [str(a) for a in found.get_values_for_type(x509.IPAddress)] == NAMES[2:]
    assert server.not_valid_after_utc - server.not_valid_before_utc <= timedelta(days=398)
    PolicyBuilder().store(Store([authority])).build_server_verifier(x509.DNSName("greenhouse.local")).verify(server, [])


def test_an_address_that_is_not_private_spoils_no_other_name(tmp_path: Path) -> None:
    first = make_certificate(tmp_path / "c", NAMES)
    made = make_certificate(tmp_path / "c", [*NAMES, "203.0.113.9"])
    assert (first.again, made.again) == (False, False), "the authority of before may not vouch for it"
    policy = PolicyBuilder().store(Store([read(made.authority)]))
    policy.build_server_verifier(x509.DNSName("greenhouse")).verify(read(made.certificate), [])
    assert make_certificate(tmp_path / "c", [*NAMES, "203.0.113.9"]).again


def test_its_authority_cannot_vouch_for_another_site(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    authority = read(make_certificate(tmp_path / "c", NAMES).authority)
    assert authority.extensions.get_extension_for_class(x509.NameConstraints).critical
    # the key of the authority in somebody else's hands: what it signs for another name is not believed
    kept = certificate._kept
    monkeypatch.setattr(certificate, "_kept", lambda folder, _names, now: kept(folder, NAMES, now))
    forged = read(make_certificate(tmp_path / "c", ["bank.example"]).certificate)
    verifier = PolicyBuilder().store(Store([authority])).build_server_verifier(x509.DNSName("bank.example"))
    with pytest.raises(VerificationError):
        verifier.verify(forged, [])


def test_a_new_one_keeps_the_authority_that_phones_trust(tmp_path: Path) -> None:
    first = make_certificate(tmp_path / "c", NAMES)
    authority = first.authority.read_bytes()
    moved = make_certificate(tmp_path / "c", [*NAMES[:2], "192.168.9.1"])
    assert (first.again, moved.again) == (False, True)
    assert moved.authority.read_bytes() == authority
    renamed = make_certificate(tmp_path / "c", ["shed"])
    assert not renamed.again
    assert renamed.authority.read_bytes() != authority


def test_an_authority_about_to_end_or_cut_short_is_made_anew(tmp_path: Path) -> None:
    old = datetime.now(UTC) - timedelta(days=3650 - SERVER_DAYS + 2)
    make_certificate(tmp_path / "c", NAMES, old)
    assert not make_certificate(tmp_path / "c", NAMES).again
    (tmp_path / "c" / "authority-key.pem").write_text("cut")
    assert not make_certificate(tmp_path / "c", NAMES).again


def test_keys_are_for_their_owner_only(tmp_path: Path) -> None:
    made = make_certificate(tmp_path / "c", NAMES)
    assert made.key.stat().st_mode & 0o777 == 0o600
    assert (tmp_path / "c" / "authority-key.pem").stat().st_mode & 0o777 == 0o600
    assert (tmp_path / "c").stat().st_mode & 0o777 == 0o700
    ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER).load_cert_chain(made.certificate, made.key)  # the key is its own


def test_the_command_says_how_a_phone_trusts_it(tmp_path: Path) -> None:
    ran = CliRunner().invoke(app, ["certificate", "--folder", str(tmp_path / "c"), "--name", "10.1.2.3"])
    assert "10.1.2.3" in ran.output
    assert f"--tls-cert {tmp_path / 'c' / 'cert.pem'}" in ran.output
    assert "CA certificate" in ran.output


def test_the_house_page_hands_the_authority_to_a_phone(client: Client) -> None:
    assert client.get("/api/lan")["authority"] is False
    assert client.http.get("/api/lan/authority.crt").status_code == 404
    with client.store.writing() as session:
        passphrase.set_passphrase(session, "moss under the bench")
    client.state["door"] = Door(client.store, frozenset(), ("https://10.0.0.2:1/",), False, authority=b"pem")
    assert client.http.get("/api/lan").status_code == 401
    words = {"passphrase": "moss under the bench"}
    assert client.http.post("/sign-in", data=words, follow_redirects=False).status_code == 303
    assert client.get("/api/lan")["authority"] is True
    got = client.http.get("/api/lan/authority.crt")
    assert (got.content, got.headers["content-type"]) == (b"pem", "application/x-x509-ca-cert")
