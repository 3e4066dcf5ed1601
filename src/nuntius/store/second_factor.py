"""The second factor: codes that change every half minute (TOTP, RFC 6238), and recovery codes for a lost device."""

import secrets

import pyotp

from nuntius.store.errors import WrongCode
from nuntius.store.models import User, now
from nuntius.store.sealing import Seal
from nuntius.store.sessions import digest

STEP = 30  # seconds of one code, RFC 6238's default
DRIFT = 1  # steps that the device's clock may be off
RECOVERY = 10  # codes, of 25 letters each: 123 bits, so that a plain hash is enough (NIST SP 800-63B, 5.1.2.2)
ALPHABET = "abcdefghjkmnpqrstuvwxyz23456789"  # without letters and digits that are easily confused


def new_secret() -> str:
    """A secret for a device, in base 32."""
    return pyotp.random_base32()


def address(user: User, secret: str) -> str:
    """What the device reads (as a QR code): issuer, account, secret."""
    return pyotp.TOTP(secret).provisioning_uri(name=user.email, issuer_name="Nuntius")


def turn_on(user: User, seal: Seal, secret: str, code: str) -> list[str]:
    """Asks for codes from now on; the recovery codes, which are shown once. Raises WrongCode."""
    step = _step_of(secret, code)
    if step is None:
        raise WrongCode()
    user.totp_secret, user.totp_step = seal.close(secret), step
    return new_recovery(user)


def new_recovery(user: User) -> list[str]:
    """New recovery codes; the old ones are good for nothing any more."""
    codes = ["-".join("".join(secrets.choice(ALPHABET) for _ in range(5)) for _ in range(5)) for _ in range(RECOVERY)]
    user.recovery_hashes = [digest(code) for code in codes]
    return codes


def turn_off(user: User) -> None:
    user.totp_secret, user.totp_step, user.recovery_hashes = None, 0, []


def check(user: User, seal: Seal, code: str) -> None:
    """Takes a code of the device, or a recovery code, each once. Raises WrongCode, SealBroken."""
    code = "".join(code.split()).lower()
    if digest(code) in user.recovery_hashes:  # looked at first: these help where the key cannot be read any more
        user.recovery_hashes = [each for each in user.recovery_hashes if each != digest(code)]
        return
    step = _step_of(seal.open(user.totp_secret), code) if user.totp_secret else None
    if step is not None and step > user.totp_step:
        user.totp_step = step
        return
    raise WrongCode()


def _step_of(secret: str, code: str) -> int | None:
    """The time step of which this is the code; None for a wrong one."""
    if not (code.isascii() and code.isdigit()):
        return None
    present = int(now().timestamp()) // STEP
    totp = pyotp.TOTP(secret, interval=STEP)
    near = range(present - DRIFT, present + DRIFT + 1)
    return next((step for step in near if secrets.compare_digest(totp.generate_otp(step), code)), None)
