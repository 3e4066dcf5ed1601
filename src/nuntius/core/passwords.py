"""How good a password is: its length, and how soon it would be guessed."""

import re
from collections.abc import Sequence

from zxcvbn import zxcvbn

from nuntius.core.errors import PasswordWeak

SHORTEST = 12  # characters; OWASP ASVS 4.0.3, 2.1.1
LONGEST = 128  # characters; the same, 2.1.2
READ = 72  # characters that the estimate looks at: its time grows with the square of the length
LEAST_SCORE = 3  # of 0 to 4: "safely unguessable: moderate protection from offline slow-hash scenario", as zxcvbn says


def _guesses(known: Sequence[str]) -> list[str]:
    """What an attacker makes of names and addresses: their words, and the words written together."""
    words = [re.findall(r"\w+", each) for each in known]
    return [*known, *(word for each in words for word in each), *("".join(each) for each in words)]


def check_password(password: str, known: Sequence[str] = ()) -> None:
    """Raises PasswordWeak for one that is too short, too long, among those of known breaches, or soon guessed.

    `known` are words that an attacker would try first: name, address, workspace. The lists of passwords from breaches
    are those that the package zxcvbn carries.
    """
    if len(password) < SHORTEST:
        raise PasswordWeak(f"it has fewer than {SHORTEST} characters")
    if len(password) > LONGEST:
        raise PasswordWeak(f"it has more than {LONGEST} characters")
    found = zxcvbn(password[:READ], user_inputs=_guesses(known))
    if found["score"] < LEAST_SCORE:
        warning = str(found["feedback"]["warning"]).rstrip(".")
        raise PasswordWeak(warning[:1].lower() + warning[1:] if warning else "it would soon be guessed")
