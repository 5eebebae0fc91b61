"""The passphrase of the home network: its slow hash and the secret that signs cookies. Never the words themselves."""

from __future__ import annotations

import secrets

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from sqlalchemy.orm import Session

from fenwa.core.errors import InputError
from fenwa.store.models import Setting

HASH, SECRET = "lan.hash", "lan.secret"
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


def sign_out_everywhere(session: Session) -> None:
    """A new secret: every cookie signed with the old one is worthless."""
    session.merge(Setting(key=SECRET, value=secrets.token_hex(32)))
