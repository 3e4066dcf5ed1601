"""Noting what leaves: which file of which meeting, never its title."""

from nuntius.store import activity
from nuntius.store.activity import What
from nuntius.web.security import asked_from, installation, me


def note_export(of: str, form: str) -> None:
    """Writes down that a file is taken away: of what, by number, and in which form."""
    with installation().database.write() as db:
        activity.note(db, me(), What.EXPORTED, f"{of}: {form}", asked_from())
