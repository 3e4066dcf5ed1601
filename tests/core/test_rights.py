"""Who may do what: every action for every kind of account, written out."""

import pytest

from nuntius.core.rights import Action, Actor, MeetingThing, Role, WorkspaceThing, may

RUNNER = Actor(1, 11, 100, Role.MEMBER)
PRESENT = Actor(2, 12, 100, Role.MEMBER)
ABSENT = Actor(3, 13, 100, Role.MEMBER)
ADMINISTRATOR = Actor(4, 14, 100, Role.ADMINISTRATOR)
STRANGER = Actor(5, 12, 200, Role.ADMINISTRATOR)  # of another workspace, whose numbers happen to be the same
EVERYBODY = {
    "runner": RUNNER,
    "present": PRESENT,
    "absent": ABSENT,
    "administrator": ADMINISTRATOR,
    "stranger": STRANGER,
}

MEETING = MeetingThing(100, runner=1, people=frozenset({12}))
EXCERPT = MeetingThing(100, runner=1, people=frozenset({12}), owner=2)
WORKSPACE = WorkspaceThing(100)
SHARED = WorkspaceThing(100, owner=2)


@pytest.mark.parametrize(
    ("action", "thing", "allowed"),
    [
        (Action.READ, MEETING, "runner present"),
        (Action.EDIT, MEETING, "runner present"),
        (Action.RECORD, MEETING, "runner present"),
        (Action.RUN, MEETING, "runner"),
        (Action.CHANGE_EXCERPT, EXCERPT, "runner present"),
        (Action.CHANGE_EXCERPT, MEETING, "runner"),
        (Action.MANAGE_PEOPLE, MEETING, ""),
        (Action.MANAGE_PEOPLE, WORKSPACE, "administrator"),
        (Action.CHANGE_WORKSPACE, WORKSPACE, "administrator"),
        (Action.SEE_ACTIVITY, WORKSPACE, "administrator"),
        (Action.CHANGE_SHARED, SHARED, "present administrator"),
        (Action.CHANGE_SHARED, WORKSPACE, "administrator"),
        (Action.READ, WORKSPACE, ""),
    ],
)
def test_who_may(action: Action, thing: MeetingThing | WorkspaceThing, allowed: str) -> None:
    assert {name for name, actor in EVERYBODY.items() if may(actor, action, thing)} == set(allowed.split())


def test_an_excerpt_of_a_meeting_that_is_closed_to_its_owner_is_theirs_no_more() -> None:
    closed = MeetingThing(100, runner=1, people=frozenset(), owner=2)
    assert not may(PRESENT, Action.CHANGE_EXCERPT, closed)
