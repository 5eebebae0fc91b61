"""The passphrase of the home network: its slow hash and the secret that signs cookies. Never the words themselves."""

from __future__ import annotations

import hashlib
import secrets
from datetime import datetime, timedelta

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from sqlalchemy import delete
from sqlalchemy.orm import Session

from fenwa.core.errors import InputError
from fenwa.store.models import Setting

HASH, SECRET, DEVICE = "lan.hash", "lan.secret", "lan.device."
SHORTEST, LONGEST = 10, 200  # characters

_hasher = PasswordHasher()  # Argon2id with the library's own cost, RFC 9106 low-memory


def _get(session: Session, key: str) -> str | None:
    row = session.get(Setting, key)
    return row.value if row is not None else None


def is_set(session: Session) -> bool:
    """Whether a passphrase was chosen."""
    return _get(session, HASH) is not None


def set_passphrase(session: Session, words: str) -> None:
    """Keep the hash of new words and sign everybody out.

    Raises
    ------
    InputError
        If they are shorter than 10 characters or longer than 200.
    """
    words = words.strip()
    if not SHORTEST <= len(words) <= LONGEST:
        raise InputError(
            f"Passphrase has {len(words)} characters. Take {SHORTEST} to {LONGEST}: four or five words "
            "nobody would guess.",
            pointer="/passphrase",
        )
    session.merge(Setting(key=HASH, value=_hasher.hash(words)))
    sign_out_everywhere(session)


def matches(session: Session, words: str) -> bool:
    """Whether these are the words; takes a tenth of a second on purpose."""
    kept = _get(session, HASH)
    if kept is None or len(words) > LONGEST:
        return False
    try:
        return _hasher.verify(kept, words.strip())
    except (VerifyMismatchError, InvalidHashError):
        return False


def secret(session: Session) -> str | None:
    """What cookies are signed with; None before a passphrase was chosen."""
    return _get(session, SECRET)


def _row_of(device: str) -> str:
    return DEVICE + hashlib.sha256(device.encode()).hexdigest()[:32]


def sign_in(session: Session, now: datetime, kept_s: float) -> str:
    """A new device, known by a name nobody can guess; only its hash is kept. Those whose time is over are forgotten."""
    over = (now - timedelta(seconds=kept_s)).isoformat()
    session.execute(delete(Setting).where(Setting.key.startswith(DEVICE, autoescape=True), Setting.value < over))
    device = secrets.token_hex(16)
    session.add(Setting(key=_row_of(device), value=now.isoformat()))
    return device


def is_in(session: Session, device: str) -> bool:
    """Whether a device is signed in still."""
    return _get(session, _row_of(device)) is not None


def sign_out(session: Session, device: str) -> None:
    """From now on this device is a stranger."""
    session.execute(delete(Setting).where(Setting.key == _row_of(device)))


def sign_out_everywhere(session: Session) -> None:
    """A new secret: every cookie signed with the old one is worthless."""
    session.merge(Setting(key=SECRET, value=secrets.token_hex(32)))
    session.execute(delete(Setting).where(Setting.key.startswith(DEVICE, autoescape=True)))
