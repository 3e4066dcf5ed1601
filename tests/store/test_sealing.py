"""Values that are encrypted in the database."""

import pyotp
import pytest
from sqlalchemy import select, update

from nuntius.store import second_factor
from nuntius.store.errors import SealBroken
from nuntius.store.models import User
from nuntius.store.recovery import recover_keys
from nuntius.store.sealing import Seal
from nuntius.store.sessions import digest
from tests.help import Desk


def test_what_is_sealed_is_read_with_the_same_secret_alone() -> None:
    sealed = Seal("one").close("JBSWY3DPEHPK3PXP")
    assert "JBSWY3DPEHPK3PXP" not in sealed
    assert Seal("one").open(sealed) == "JBSWY3DPEHPK3PXP"
    with pytest.raises(SealBroken, match="secret"):
        Seal("another").open(sealed)
    with pytest.raises(SealBroken):
        Seal("one").open(sealed[:-4] + "AAAA")


def test_keys_that_an_older_version_kept_readable_are_encrypted_at_the_start(desk: Desk) -> None:
    key = pyotp.random_base32()
    with desk.installation.database.write() as session:
        session.execute(update(User).values(totp_secret=key))
    assert recover_keys(desk.installation) == 1
    with desk.installation.database.read() as session:
        sealed = session.scalars(select(User.totp_secret)).one()
    assert sealed is not None and desk.installation.seal.open(sealed) == key
    assert recover_keys(desk.installation) == 0  # what is sealed stays as it is


def test_a_recovery_code_is_good_where_the_key_cannot_be_read_any_more() -> None:
    user = User(totp_secret=Seal("lost").close("JBSWY3DPEHPK3PXP"), totp_step=0, recovery_hashes=[digest("abcde")])
    with pytest.raises(SealBroken):
        second_factor.check(user, Seal("another"), "123456")
    second_factor.check(user, Seal("another"), "abcde")
    assert user.recovery_hashes == []
