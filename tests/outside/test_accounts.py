"""Accounts held against published standards."""

from datetime import UTC, datetime

import pyotp
import pytest

from nuntius.core.errors import PasswordWeak
from nuntius.core.passwords import check_password
from nuntius.store import second_factor
from nuntius.store.models import User
from nuntius.store.sealing import Seal

# RFC 6238, appendix B: the SHA-1 rows of the table of test vectors (8 digits), secret "12345678901234567890".
# Six digits, as devices show them, are the last six of eight (RFC 4226, section 5.3: the number modulo 10^digits).
RFC_6238 = [(59, "94287082"), (1111111109, "07081804"), (1111111111, "14050471"), (1234567890, "89005924"), (2000000000, "69279037"), (20000000000, "65353130")]  # fmt: skip
SECRET = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"  # the same in base 32


@pytest.mark.outside
@pytest.mark.parametrize(("moment", "code"), RFC_6238)
def test_codes_are_those_of_rfc_6238(moment: int, code: str, monkeypatch: pytest.MonkeyPatch) -> None:
    assert pyotp.TOTP(SECRET, digits=8).at(moment) == code
    monkeypatch.setattr(second_factor, "now", lambda: datetime.fromtimestamp(moment, UTC))
    seal = Seal("of the test")
    user = User(totp_secret=seal.close(SECRET), totp_step=0, recovery_hashes=[])
    second_factor.check(user, seal, code[-6:])
    assert user.totp_step == moment // 30


# NIST SP 800-63B, 5.1.1.2: verifiers compare chosen passwords with lists of commonly used, expected, or compromised
# values, e.g. from previous breaches, dictionary words, repetitive or sequential characters ('aaaaaa', '1234abcd'),
# and context-specific words such as the name of the service and the user's name. The examples in quotes are the
# standard's; the others are from memory of its kinds.
@pytest.mark.outside
@pytest.mark.parametrize("listed", ["aaaaaaaaaa", "1234abcd1234", "password1234", "administrator", "nuntiusnuntius"])
def test_passwords_that_nist_refuses(listed: str) -> None:
    with pytest.raises(PasswordWeak):
        check_password(listed, ["nuntius"])
