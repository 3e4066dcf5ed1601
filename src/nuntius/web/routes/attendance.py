"""Who took part in a meeting, and so may open it."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.rights import Action
from nuntius.store import activity
from nuntius.store.accounts import accounts_of
from nuntius.store.activity import What
from nuntius.store.meetings import add_to_meeting, get_meeting, take_off_meeting
from nuntius.store.models import Meeting
from nuntius.store.rooms import room_of, touch
from nuntius.web import account_schemas as a
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import asked_from, installation, me

api = APIBlueprint(
    "attendance", __name__, url_prefix="/api/meetings/<meeting_id>/people", abp_tags=[Tag(name="meetings")]
)


def _out(db: Session, meeting: Meeting) -> a.AttendeesOut:
    accounts = accounts_of(db, meeting.workspace_id)

    def out(person_id: int, name: str, user_id: int | None) -> a.AttendeeOut:
        user = accounts.get(user_id or 0)
        return a.AttendeeOut(id=person_id, name=name, account=user.email if user else None)

    runner = accounts.get(meeting.runner_id)
    people = sorted(meeting.people, key=lambda person: person.label)
    return a.AttendeesOut(
        people=[out(person.id, person.label, person.user_id) for person in people],
        run_by=runner.person.label if runner else "",
        runner=meeting.runner_id == me().id,
    )


@api.get("", operation_id="getAttendees", responses={200: a.AttendeesOut})
def get_attendees(path: s.MeetingPath) -> Response:
    """Who took part, and with which account each may open the meeting."""
    with installation().database.read() as db:
        return answer(_out(db, get_meeting(db, me(), path.meeting_id)))


@api.post("", operation_id="addAttendee", responses={200: a.AttendeesOut})
def add_attendee(path: s.MeetingPath, body: a.PersonName) -> Response:
    """Somebody took part, too; whoever runs the meeting says so."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        add_to_meeting(db, meeting, body.name)
        _touch(db, meeting)
        return answer(_out(db, meeting))


@api.delete("/<int:person_id>", operation_id="takeOff", responses={200: a.AttendeesOut})
def take_off(path: a.MeetingPersonPath) -> Response:
    """Somebody did not take part: the meeting is closed to them, and what they had ticked goes."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.RUN)
        take_off_meeting(db, meeting, path.person_id)
        activity.note(db, me(), What.TAKEN_OFF, f"person {path.person_id} off meeting {meeting.id}", asked_from())
        _touch(db, meeting)
        return answer(_out(db, meeting))


def _touch(db: Session, meeting: Meeting) -> None:
    """Pages that watch the meeting being recorded see the change."""
    db.flush()
    room = room_of(db, meeting.id)
    if room is not None:
        touch(room)
