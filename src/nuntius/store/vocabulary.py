"""The vocabulary of a workspace: its terms and the forms that were heard for them."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.vocabulary import Mishearing, Term, mishearings
from nuntius.store.changes import put_term_right
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import Change, Meeting, TermRow, User
from nuntius.store.rights import check_shared
from nuntius.store.transcripts import load_transcript

MOST_TERMS = 2000
LONGEST_TERM = 80  # characters
SHORTEST_NAME = 3  # letters of a person's name that is listened for


def terms_of(session: Session, workspace_id: int) -> list[TermRow]:
    """The terms by name."""
    query = select(TermRow).where(TermRow.workspace_id == workspace_id).order_by(func.lower(TermRow.text))
    return list(session.scalars(query))


def add_term(session: Session, user: User, text: str, heard: list[str]) -> TermRow:
    """Adds a term, or forms heard for one that is there. Raises Conflict when empty, too long or too many."""
    text = " ".join(text.split())
    if not text or len(text) > LONGEST_TERM:
        raise Conflict(f"A term has between one and {LONGEST_TERM} characters.")
    rows = terms_of(session, user.workspace_id)
    row = next((each for each in rows if each.text.lower() == text.lower()), None)
    if row is None:
        if len(rows) >= MOST_TERMS:
            raise Conflict(f"The vocabulary holds {MOST_TERMS:,} terms already. Remove some first.")
        row = TermRow(workspace_id=user.workspace_id, text=text, heard=[], refused=[], made_by=user.id)
        session.add(row)
    row.text = text
    row.heard = _with(row.heard, heard)
    session.flush()
    return row


def remove_term(session: Session, user: User, term_id: int) -> None:
    """Takes a term out of the vocabulary. Raises NotFound, NotAllowed for one of others."""
    row = session.get(TermRow, term_id)
    if row is None:
        raise NotFound()
    check_shared(user, row.workspace_id, row.made_by)
    session.delete(row)


def listened_for(session: Session, meeting: Meeting) -> list[Term]:
    """What may have been misheard in a meeting: terms of the vocabulary and names of those who were there."""
    rows = terms_of(session, meeting.workspace_id)
    terms = [Term(row.text, tuple(row.heard), tuple(row.refused), capitals=True) for row in rows]
    known = {term.text.lower() for term in terms}
    names = dict.fromkeys(part for person in meeting.people for part in person.name.split())
    return [*terms, *(Term(name) for name in names if name.lower() not in known and len(name) >= SHORTEST_NAME)]


def misheard(session: Session, meeting: Meeting, term: str, heard: str) -> Mishearing:
    """A form of a meeting that may be this term. Raises NotFound."""
    there = mishearings(load_transcript(session, meeting.id), listened_for(session, meeting), heard)
    found = next((each for each in there if each.term == term), None)
    if found is None:
        raise NotFound()
    return found


def put_right_everywhere(session: Session, user: User, meeting: Meeting, found: Mishearing) -> Change:
    """Puts a term right wherever it was misheard like this in the meeting; the form is remembered.

    Raises Conflict where the words there are others by now.
    """
    add_term(session, user, found.term, [found.heard])
    return put_term_right(session, user, meeting, found.term, found.heard, list(found.places))


def refuse(session: Session, user: User, found: Mishearing) -> None:
    """Remembers that a form is right as it is, and not this term."""
    row = add_term(session, user, found.term, [])
    row.refused = _with(row.refused, [found.heard])
    row.heard = [form for form in row.heard if form.lower() != found.heard.lower()]


def _with(forms: list[str], more: list[str]) -> list[str]:
    known = {form.lower() for form in forms}
    return [*forms, *(form for form in more if form.lower() not in known)]
