"""The news of rooms: `speech` (seconds, words being spoken), `lines` (those that changed) and `board` events."""

import json
import time
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.live import live_rows
from nuntius.store.meetings import readers_of
from nuntius.store.models import LiveLineRow, Meeting, Room
from nuntius.web.room_shapes import boards_out, line_out, speech_out, voice_ids
from nuntius.web.streams import Subscription

BOARD = 0.5  # seconds between two boards of a room, at least


@dataclass
class _Watched:
    """A room that somebody listens to, as it was sent last."""

    version: int = -1  # of which all was sent
    lines_version: int = -1
    rows: dict[int, LiveLineRow] = field(default_factory=dict)
    board_at: float = 0.0

    def sorted(self) -> list[LiveLineRow]:
        return sorted(self.rows.values(), key=lambda row: (row.start, row.number))


class RoomFeed:
    """Sends what happens in rooms to those who watch them; what all of them see is made once."""

    def __init__(self) -> None:
        self._watched: dict[str, _Watched] = {}

    def look(self, session: Session, listeners: Sequence[Subscription]) -> bool:
        """Two statements, and a fixed number for each room that has changed."""
        by_meeting: dict[str, list[Subscription]] = defaultdict(list)
        for listener in listeners:
            by_meeting[listener.topic].append(listener)
        self._watched = {key: self._watched.get(key, _Watched()) for key in by_meeting}
        if not by_meeting:
            return False
        rooms = {room.meeting_id: room for room in session.scalars(select(Room).where(Room.meeting_id.in_(by_meeting)))}
        readers = readers_of(session, set(by_meeting))
        again = False
        for meeting_id, watchers in by_meeting.items():
            there = [each for each in watchers if meeting_id in rooms and each.user.id in readers[meeting_id]]
            for each in watchers:
                if each not in there:
                    each.end()
            if there:
                again |= self._news(session, rooms[meeting_id], there)
        return again

    def _news(self, session: Session, room: Room, watchers: Sequence[Subscription]) -> bool:
        """Sends what is new of one room; whether its board is still to be sent."""
        watched = self._watched[room.meeting_id]
        fresh = [each for each in watchers if each.fresh]
        if room.version == watched.version and not fresh:
            return False
        _offer(watchers, "speech", speech_out(room).model_dump_json())
        self._send_lines(session, room, watchers)
        if not fresh and time.monotonic() - watched.board_at < BOARD:
            return True
        watched.board_at, watched.version = time.monotonic(), room.version
        meeting = session.get_one(Meeting, room.meeting_id)
        users = {each.user.id: each.user for each in watchers}
        boards = boards_out(session, meeting, room, list(users.values()), watched.sorted())
        texts = {user: board.model_dump_json() for user, board in zip(users, boards, strict=True)}
        for each in watchers:
            _offer([each], "board", texts[each.user.id])
            each.fresh = False
        return False

    def _send_lines(self, session: Session, room: Room, watchers: Sequence[Subscription]) -> None:
        """The lines that changed to those who have the others, all of them to those who are new."""
        watched = self._watched[room.meeting_id]
        changed = live_rows(session, room.meeting_id, watched.lines_version)
        watched.rows.update({row.number: row for row in changed})
        watched.lines_version = room.version
        voices = voice_ids(session, room.meeting_id) if watched.rows else {}
        for rows, fresh in ((changed, False), (watched.sorted(), True)):
            those = [each for each in watchers if each.fresh == fresh]
            if rows and those:
                text = json.dumps([line_out(row, voices).model_dump() for row in rows])
                for each in those:
                    each.offer("lines", text)


def _offer(watchers: Sequence[Subscription], event: str, text: str) -> None:
    """Sends an event to those who did not get just this one last."""
    for each in watchers:
        if each.sent.get(event) != text:
            each.sent[event] = text
            each.offer(event, text)
