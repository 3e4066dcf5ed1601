"""Where passages are taken from."""

import pytest
from sqlalchemy.orm import Session

from nuntius.store.clips import LONGEST_CAPTION, check_sound, source_of
from nuntius.store.errors import Conflict
from nuntius.store.installation import Installation
from nuntius.store.models import Meeting, Recording, User
from nuntius.store.transcripts import save_transcript
from tests.help import talk


@pytest.fixture
def heard(session: Session, meeting: Meeting) -> Meeting:
    """The meeting with a recording and four turns, two words a second."""
    session.add(Recording(meeting_id=meeting.id, name="a.wav", digest="1" * 64, working_digest="2" * 64))
    long = " ".join(["word"] * 40)
    rows = (("Voice A", "We begin."), ("Voice B", "Good."), ("Voice A", f"{long}. {long}."), ("Voice B", "Fine."))
    save_transcript(session, meeting.id, talk(*rows, pace=2.0, gap=0.0))
    session.flush()
    return meeting


def test_captions_hold_one_voice_and_break_where_they_grow_long(
    session: Session, installation: Installation, maren: User, heard: Meeting
) -> None:
    source = source_of(session, installation.files, maren, heard.id)
    assert source is not None
    clip = source.clip("The beginning", 0.0, 1000.0)
    assert clip.source == "Crew rota, 6 October 2026, 0:00"
    assert [clip.said[0].text, clip.said[1].text, clip.said[-1].text] == ["We begin.", "Good.", "Fine."]
    assert all(len(each.text) <= LONGEST_CAPTION for each in clip.said)
    assert all(a.end <= b.start + 1e-6 for a, b in zip(clip.said, clip.said[1:], strict=False))


def test_times_of_captions_count_from_the_passage(
    session: Session, installation: Installation, maren: User, heard: Meeting
) -> None:
    source = source_of(session, installation.files, maren, heard.id)
    assert source is not None
    (caption,) = source.clip("A reply", 1.0, 1.5).said
    assert (caption.text, caption.speaker, caption.start, caption.end) == ("Good.", "Voice B", 0.0, 0.5)


def test_what_is_not_open_to_somebody_is_no_source(
    session: Session, installation: Installation, tobias: User, heard: Meeting
) -> None:
    assert source_of(session, installation.files, tobias, heard.id) is None


def test_a_written_transcript_has_no_sound(session: Session, meeting: Meeting) -> None:
    with pytest.raises(Conflict, match="has no sound"):
        check_sound(session, meeting)
