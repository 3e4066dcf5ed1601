"""The vocabulary of a workspace."""

import pytest
from sqlalchemy.orm import Session

from nuntius.core.transcript.transcript import Transcript
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import Meeting, User
from nuntius.store.transcripts import load_transcript, save_transcript
from nuntius.store.vocabulary import add_term, listened_for, misheard, put_right_everywhere, refuse, terms_of
from tests.help import talk

SAID: Transcript = talk(("Voice A", "We met at the salt marsh office with Inez."), ("Voice B", "Inez was late."))


def test_names_of_those_who_were_there_are_listened_for_and_terms_of_the_workspace(
    session: Session, maren: User, meeting: Meeting
) -> None:
    add_term(session, maren, "Heron", ["hair on"])
    terms = {term.text: (term.heard, term.capitals) for term in listened_for(session, meeting)}
    assert terms == {"Heron": (("hair on",), True), "Ines": ((), False), "Carvell": ((), False)}


def test_a_term_is_kept_once_and_its_forms_add_up(session: Session, maren: User) -> None:
    add_term(session, maren, "Heron", ["herron"])
    add_term(session, maren, "  heron ", ["Herron", "hair on"])
    (row,) = terms_of(session, maren.workspace_id)
    assert (row.text, row.heard) == ("heron", ["herron", "hair on"])
    with pytest.raises(Conflict):
        add_term(session, maren, " ", [])


def test_a_form_is_put_right_at_all_its_places_and_remembered(session: Session, maren: User, meeting: Meeting) -> None:
    save_transcript(session, meeting.id, SAID)
    found = misheard(session, meeting, "Ines", "Inez")
    assert [place.turn for place in found.places] == [0, 1]
    put_right_everywhere(session, maren, meeting, found)
    assert [turn.text for turn in load_transcript(session, meeting.id).turns] == [
        "We met at the salt marsh office with Ines.",
        "Ines was late.",
    ]
    assert [row.heard for row in terms_of(session, maren.workspace_id)] == [["Inez"]]


def test_a_form_that_is_right_is_looked_for_no_more(session: Session, maren: User, meeting: Meeting) -> None:
    save_transcript(session, meeting.id, SAID)
    refuse(session, maren, misheard(session, meeting, "Ines", "Inez"))
    with pytest.raises(NotFound):
        misheard(session, meeting, "Ines", "Inez")
