"""What is said in a running room is read in the worker before anybody asks."""

from nuntius.jobs.reading_ahead import ReadingAhead
from tests.rooms import RoomDesk


def test_a_room_is_read_once_for_what_is_new(room: RoomDesk) -> None:
    reading = ReadingAhead(room.desk.installation)
    assert reading.read() == 0  # it does not record yet
    room.announce()
    room.begin()
    room.hear((0.0, 2.0, "the slipway needs new rails before the winter"))
    assert reading.read() == 1
    assert reading.read() == 0
    room.hear((2.0, 4.0, "tobias will ask the yard for a price"))
    assert reading.read() == 1
