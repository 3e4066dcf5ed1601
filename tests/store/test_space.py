"""Space that recordings take up, and its limits."""

from dataclasses import replace

import pytest
from sqlalchemy.orm import Session

from nuntius.settings import Settings
from nuntius.store.errors import SpaceUsed
from nuntius.store.models import Meeting, Room, Upload, User
from nuntius.store.space import GB, SAMPLE, Space, check_space, own_space, workspace_space


@pytest.fixture
def used(session: Session, maren: User, meeting: Meeting) -> int:
    """Bytes of a file that Maren brought in, and of an hour that she recorded."""
    samples = 3600 * 16_000
    session.add(Upload(user_id=maren.id, name="a.wav", size=GB // 2, part_size=4, fingerprint="f"))
    session.add(Room(meeting_id=meeting.id, held=samples))
    session.flush()
    return GB // 2 + SAMPLE * samples


def test_what_was_brought_in_and_recorded_adds_up(
    session: Session, maren: User, tobias: User, used: int, settings: Settings
) -> None:
    limited = replace(settings, person_gb=2, workspace_gb=0)
    assert own_space(session, maren, limited) == Space(used, 2 * GB)
    assert own_space(session, tobias, limited) == Space(0, 2 * GB)
    assert workspace_space(session, tobias, limited) == Space(used, None)


@pytest.mark.parametrize(("person", "team", "whose"), [(1, 0, "Your"), (0, 1, "your team")])
def test_more_than_the_limit_is_refused_with_the_figures(
    session: Session, maren: User, used: int, settings: Settings, person: int, team: int, whose: str
) -> None:
    limited = replace(settings, person_gb=person, workspace_gb=team)
    check_space(session, maren, limited, GB - used)
    with pytest.raises(SpaceUsed, match=whose):
        check_space(session, maren, limited, GB - used + 1)
