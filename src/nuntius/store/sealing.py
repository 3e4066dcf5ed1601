"""Encryption of single values at rest: secrets of accounts, which a copy of the database alone must not give away."""

import base64

from cryptography.fernet import Fernet, InvalidToken
from cryptography.hazmat.primitives.hashes import SHA256
from cryptography.hazmat.primitives.kdf.hkdf import HKDF
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.errors import SealBroken
from nuntius.store.models import User

PURPOSE = b"nuntius: values encrypted in the database"  # HKDF's info: keeps this key apart from that of the sessions
KEY_LENGTH = 32  # bytes, as Fernet wants
SEALED_PREFIX = "gAAAAA"  # of every Fernet token: its version and the zeros of its time stamp


class Seal:
    """Encrypts and decrypts short texts by Fernet (AES-128-CBC with HMAC-SHA256).

    The key is derived by HKDF (RFC 5869) from the installation's secret, a file in the data folder that is never in
    the database.
    """

    def __init__(self, secret: str) -> None:
        key = HKDF(algorithm=SHA256(), length=KEY_LENGTH, salt=None, info=PURPOSE).derive(secret.encode())
        self._fernet = Fernet(base64.urlsafe_b64encode(key))

    def close(self, text: str) -> str:
        """The encrypted text, in ASCII; never the same twice."""
        return self._fernet.encrypt(text.encode()).decode()

    def open(self, sealed: str) -> str:
        """What was encrypted. Raises SealBroken for what was changed or encrypted under another secret."""
        try:
            return self._fernet.decrypt(sealed).decode()
        except InvalidToken as cause:
            raise SealBroken() from cause


def seal_old_keys(session: Session, seal: Seal) -> int:
    """Encrypts keys of second factors that an older version kept as they were; how many."""
    query = select(User).where(User.totp_secret.is_not(None), User.totp_secret.not_like(f"{SEALED_PREFIX}%"))
    users = list(session.scalars(query))
    for user in users:
        user.totp_secret = seal.close(user.totp_secret or "")
    return len(users)
