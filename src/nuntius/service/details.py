"""What a meeting is called and when it was held, set right afterwards or while it runs."""

from datetime import datetime

from sqlalchemy.orm import Session

from nuntius.core.minutes.choices import UNCHANGED
from nuntius.core.rights import Action
from nuntius.core.times import zone
from nuntius.service.minutes import order_minutes
from nuntius.store.meetings import get_meeting
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Job, Meeting, User
from nuntius.store.rooms import room_of, touch


def change_details(
    session: Session, user: User, meeting_id: str, title: str, starts_at: datetime
) -> tuple[Meeting, Job | None]:
    """Gives a meeting another title or time (without an offset, on its own clock); the job on its minutes where it moved to another day.

    Days that were said (`by Friday`) are counted from the day of the meeting, so its minutes are written again then.
    Raises NotFound, NotAllowed.
    """
    meeting = get_meeting(session, user, meeting_id, Action.RUN)
    day = meeting.begun.date()
    meeting.title = title.strip()
    meeting.starts_at = starts_at if starts_at.tzinfo else starts_at.replace(tzinfo=zone(meeting.time_zone))
    room = room_of(session, meeting_id)
    if room is not None:
        touch(room)
    if meeting.begun.date() == day or get_minutes(session, meeting_id) is None:
        return meeting, None
    return order_minutes(session, user, meeting_id, None, UNCHANGED)
