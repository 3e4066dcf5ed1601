"""A team in a database: no server, no browser."""

from collections.abc import Iterator
from datetime import UTC, datetime

import pytest
from sqlalchemy.orm import Session

from nuntius.core.rights import Role
from nuntius.store.accounts import create_account, create_workspace
from nuntius.store.installation import Installation
from nuntius.store.meetings import create_meeting
from nuntius.store.models import Meeting, User, Workspace
from tests.help import MAREN, PASSWORD

BEGUN = datetime(2026, 10, 6, 9, 30, tzinfo=UTC)


@pytest.fixture
def session(installation: Installation) -> Iterator[Session]:
    """One transaction, committed at the end of the test."""
    with installation.database.write() as session:
        yield session


@pytest.fixture
def workspace(session: Session) -> Workspace:
    return create_workspace(session, "Saltmarsh Ferry Cooperative", "Europe/London")


@pytest.fixture
def maren(session: Session, workspace: Workspace) -> User:
    """An administrator."""
    return create_account(session, workspace, "Maren Tull", MAREN, PASSWORD, Role.ADMINISTRATOR)


@pytest.fixture
def tobias(session: Session, workspace: Workspace) -> User:
    """A member."""
    return create_account(session, workspace, "Tobias Pryce", "tobias@saltmarsh.example", PASSWORD)


@pytest.fixture
def meeting(session: Session, maren: User) -> Meeting:
    """Maren's meeting with Ines, who has no account."""
    return create_meeting(session, maren, "Crew rota", "committee", BEGUN, "Europe/London", ["Ines Carvell"])
