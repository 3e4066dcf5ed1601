"""Telling the owner of an account what has been changed in it."""

from sqlalchemy.orm import Session

from nuntius.settings import Settings
from nuntius.store import mail
from nuntius.store.activity import What
from nuntius.store.models import User

CHANGES = {
    What.ADDRESS_CHANGED: "its e-mail address was changed",
    What.PASSWORD_CHANGED: "its password was changed",
    What.SECOND_FACTOR_ON: "its second factor was set up again",
    What.SECOND_FACTOR_OFF: "its second factor was turned off",
}
TEXT = (
    "{name}, in your account on Nuntius {change}{detail}.\n\nIf it was you, nothing needs to be done. If it was not, "
    "open {address}, choose another password at once, and write to whoever administers Nuntius for you."
)


def notify_owner(
    session: Session, settings: Settings, user: User, what: What, detail: str = "", recipient: str = ""
) -> None:
    """Puts a message to the owner into the outbox, to the account's address unless `recipient` is given.

    Nothing is sent where no mail server is set. Source: OWASP ASVS 4.0.3, 2.2.3.
    """
    if settings.smtp:
        change = CHANGES[what]
        text = TEXT.format(
            name=user.person.name, change=change, detail=f" ({detail})" if detail else "", address=settings.address
        )
        mail.put(session, recipient or user.email, "A change of your account on Nuntius", text)
