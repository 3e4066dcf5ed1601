"""Sending what waits to be sent, through SMTP (RFC 5321)."""

import logging
import smtplib
import ssl
from email.message import EmailMessage
from email.utils import formatdate, make_msgid
from urllib.parse import unquote, urlsplit

from nuntius.settings import Settings
from nuntius.store import mail
from nuntius.store.installation import Installation

log = logging.getLogger(__name__)

PATIENCE = 20.0  # seconds that the mail server may take to answer
PORTS = {"smtp": 25, "smtps": 465}


def send_due(installation: Installation) -> int:
    """Sends the messages whose time has come; how many have left. The network is never used inside a transaction."""
    if not installation.settings.smtp:
        return 0
    with installation.database.read() as session:
        waiting = [(row.id, row.recipient, row.subject, row.text) for row in mail.due(session)]
    count = 0
    for number, recipient, subject, text in waiting:
        try:
            send(installation.settings, recipient, subject, text)
        except (OSError, smtplib.SMTPException) as cause:
            for_good = isinstance(cause, smtplib.SMTPRecipientsRefused)
            log.warning("mail not sent", extra={"mail": number, "why": type(cause).__name__})
            with installation.database.write() as session:
                mail.refused(session, number, str(cause), for_good)
            continue
        with installation.database.write() as session:
            mail.sent(session, number)
        count += 1
    return count


def send(settings: Settings, recipient: str, subject: str, text: str) -> None:
    """Hands one message to the mail server. Raises OSError, SMTPException."""
    address = urlsplit(settings.smtp)
    host, port = address.hostname or "localhost", address.port or PORTS[address.scheme]
    if address.scheme == "smtps":
        server: smtplib.SMTP = smtplib.SMTP_SSL(host, port, timeout=PATIENCE, context=ssl.create_default_context())
    else:
        server = smtplib.SMTP(host, port, timeout=PATIENCE)
    with server:
        if address.scheme == "smtp" and address.username:
            server.starttls(context=ssl.create_default_context())  # a password never goes over an open line
        if address.username:
            server.login(unquote(address.username), unquote(address.password or ""))
        server.send_message(message(settings.mail_from, recipient, subject, text))


def message(sender: str, recipient: str, subject: str, text: str) -> EmailMessage:
    """A message of plain text (RFC 5322)."""
    made = EmailMessage()
    made["From"], made["To"], made["Subject"] = sender, recipient, subject
    made["Date"] = formatdate()
    made["Message-ID"] = make_msgid(domain=sender.rpartition("@")[2] or "localhost")
    made["Auto-Submitted"] = "auto-generated"
    made.set_content(text)
    return made
