"""Rooms over the API: consent, runs of sound, pauses, cuts, notes, marks, agenda."""

from typing import cast

import pytest

from nuntius.core.audio.decode import RATE
from nuntius.store.live import assign_voices, live_lines
from nuntius.store.models import Meeting, User
from nuntius.store.rooms import room_of
from tests.help import Answer, Desk
from tests.rooms import RoomDesk, sound


class TestConsent:
    def test_nothing_is_recorded_without_it(self, room: RoomDesk) -> None:
        refused = room.begin()
        assert refused.status_code == 409
        assert "announced to all" in refused.json["detail"]
        assert not room.board()["may_record"]

    def test_everybody_ticked_is_enough_and_one_missing_is_not(self, room: RoomDesk) -> None:
        first, second = room.board()["there"]
        room.client.put(f"{room.base}/consents/{first['id']}", {"agreed": True})
        assert room.begin().status_code == 409
        board = room.client.put(f"{room.base}/consents/{second['id']}", {"agreed": True}).json
        assert board["may_record"] and all(person["agreed_at"] for person in board["there"])
        assert room.begin().status_code == 200

    def test_a_workspace_may_do_without(self, room: RoomDesk) -> None:
        room.client.put("/api/workspace", {"announcement": "We record.", "consent_needed": False})
        assert room.begin().status_code == 200
        assert room.board()["announcement"] == "We record."

    def test_an_announcement_stays_in_the_record_once_it_runs(self, room: RoomDesk) -> None:
        room.announce()
        assert room.board()["announced_by"] == "Maren Tull"
        room.begin()
        assert room.client.put(f"{room.base}/announced", {"announced": False}).status_code == 409

    def test_nobody_who_is_not_there_can_be_ticked(self, room: RoomDesk) -> None:
        assert room.client.put(f"{room.base}/consents/999", {"agreed": True}).status_code == 404


class TestParts:
    @pytest.fixture(autouse=True)
    def _running(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()

    def test_parts_may_come_twice_and_out_of_order(self, room: RoomDesk) -> None:
        for number in (1, 0, 0, 2):
            assert room.put(number, sound(number)).status_code == 200
        assert room.put(4, sound(4)).json["held"] == 3
        assert room.held().tobytes() == b"".join(sound(n) for n in range(3))

    def test_other_sound_under_the_same_number_is_refused(self, room: RoomDesk) -> None:
        room.send(1)
        assert room.put(0, sound(5)).status_code == 409

    @pytest.mark.parametrize("data", [b"", b"x", b"\0" * (20 * RATE * 2 + 2)], ids=["empty", "half a sample", "huge"])
    def test_what_is_no_part_is_refused(self, room: RoomDesk, data: bytes) -> None:
        assert room.put(0, data).status_code in (413, 422)
        assert len(room.held()) == 0

    def test_a_damaged_part_is_refused(self, room: RoomDesk) -> None:
        assert room.put(0, sound(0), digest="0" * 64).status_code == 422

    def test_another_page_cannot_send(self, room: RoomDesk) -> None:
        stranger = RoomDesk(room.desk, room.client, room.meeting, "recorder-of-another")
        assert stranger.put(0, sound(0)).status_code == 409
        refused = stranger.begin()
        assert refused.status_code == 409 and "Maren Tull is recording" in refused.json["detail"]
        assert room.put(0, sound(0)).status_code == 200

    def test_a_take_over_ends_the_other_page_and_marks_the_gap(self, room: RoomDesk) -> None:
        room.send(4)
        other = RoomDesk(room.desk, room.client, room.meeting, "recorder-of-another")
        assert other.begin(take_over=True).status_code == 200
        assert room.put(4, sound(4)).status_code == 410
        other.send(1)
        ((kind, at, seconds),) = room.breaks()
        assert (kind, at) == ("gap", 2.0) and seconds is not None

    def test_the_same_page_goes_on_after_a_crash_with_the_gap_measured_by_its_clock(self, room: RoomDesk) -> None:
        room.send(4, begun=1000.0)
        room.begin()
        room.send(2, begun=1009.5)
        assert room.breaks() == [("gap", 2.0, pytest.approx(7.5))]
        assert room.board()["state"] == "recording"

    def test_a_run_that_joins_on_without_a_gap_leaves_none(self, room: RoomDesk) -> None:
        room.send(4, begun=1000.0)
        room.begin()
        room.send(1, begun=1002.01)
        assert room.breaks() == []


class TestPause:
    @pytest.fixture(autouse=True)
    def _running(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()
        room.send(4)

    def test_what_is_said_meanwhile_is_not_kept(self, room: RoomDesk) -> None:
        assert room.end("pause", 4).json["state"] == "paused"
        refused = room.put(4, sound(4))
        assert refused.status_code == 410 and "not kept" in refused.json["detail"]
        assert len(room.held()) == 2 * RATE

    def test_its_length_is_reported_when_the_recording_goes_on(self, room: RoomDesk) -> None:
        room.end("pause", 4)
        assert room.breaks() == [("pause", 2.0, None)]
        room.begin()
        room.send(1, begun=1602.0)
        assert room.breaks() == [("pause", 2.0, pytest.approx(600.0))]

    def test_parts_from_before_it_may_still_come(self, room: RoomDesk) -> None:
        room.end("pause", 6)
        assert room.begin().status_code == 409
        room.run = 0
        room.send(2, first=4)
        assert room.breaks() == [("pause", 3.0, None)]
        assert room.begin().status_code == 200

    def test_a_page_that_missed_the_answers_may_ask_again(self, room: RoomDesk) -> None:
        """As after a connection that broke while the server was answering: one pause, and one run behind it."""
        assert [room.end("pause", 4).status_code for _ in range(2)] == [200, 200]
        assert [room.begin().json["number"] for _ in range(2)] == [1, 1]
        room.send(2, begun=1010.0)
        assert room.breaks() == [("pause", 2.0, pytest.approx(8.0))]
        assert room.begin().json["number"] == 2  # with sound in it, a run is not begun again

    def test_pause_and_going_on_may_be_heard_of_long_after_they_happened(self, room: RoomDesk) -> None:
        """As from a page whose network was away: the sound is in its place, and the pause as long as it was."""
        room.send(2, first=4)
        assert room.end("pause", 6).status_code == 200
        room.begin()
        room.send(3, begun=1000.0 + 3.0 + 20.0)
        assert room.breaks() == [("pause", 3.0, pytest.approx(20.0))]
        assert len(room.held()) == 4.5 * RATE

    def test_a_pause_is_not_moved(self, room: RoomDesk) -> None:
        room.end("pause", 4)
        assert room.end("pause", 3).status_code == 409


class TestStop:
    def test_it_waits_for_the_parts_on_their_way(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()
        room.send(2)
        assert room.end("stop", 3).json["state"] == "stopping"
        assert room.put(2, sound(2)).json["state"] == "stopped"
        assert room.board()["meeting"]["job"]["steps"][0] == "gather"
        assert room.begin().status_code == 409

    def test_it_can_be_finished_with_what_is_here(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()
        room.send(2)
        assert room.client.post(f"{room.base}/finish").json["state"] == "stopped"
        assert room.client.post(f"{room.base}/finish").json["state"] == "stopped"
        assert room.put(2, sound(2)).status_code == 410

    def test_a_recording_without_a_sound_is_as_if_it_had_not_begun(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()
        assert room.end("stop", 0).json["state"] == "ready"
        assert room.begin().status_code == 200


class TestCut:
    @pytest.fixture(autouse=True)
    def _running(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()
        room.send(8)
        room.hear((0.0, 1.0, "good morning"), (1.0, 3.0, "this is walrus talk"), (3.0, 4.0, "and on"))

    def test_sound_and_words_go_and_a_mark_stays(self, room: RoomDesk) -> None:
        cut = room.client.post(f"{room.base}/cut", {"start": 1.0, "end": 2.9}).json
        assert [line["text"] for line in cut["lines"]] == ["good morning", "", "and on"]
        assert not room.held()[RATE : round(2.9 * RATE)].any()
        assert room.held()[: RATE - 1].any() and room.held()[3 * RATE :].any()
        ((kind, at, seconds),) = room.breaks()
        assert (kind, at, seconds) == ("cut", 1.0, pytest.approx(1.9))
        assert room.board()["breaks"][0]["by"] == "Maren Tull"

    def test_a_line_that_settles_later_does_not_bring_the_words_back(self, room: RoomDesk) -> None:
        room.client.post(f"{room.base}/cut", {"start": 3.5, "end": 4.0})
        room.hear((3.0, 4.0, "one two three secret"))
        assert "secret" not in str(room.client.get(room.base).json["lines"])

    def test_no_old_word_is_left_in_the_database(self, room: RoomDesk) -> None:
        room.client.put(f"{room.base}/lines/2", {"text": "this is very walrus talk"})
        room.client.post(f"{room.base}/cut", {"start": 0.9, "end": 3.1})
        data = room.desk.installation.settings.data
        for path in (data / "nuntius.db", data / "nuntius.db-wal"):
            assert b"walrus" not in path.read_bytes(), path.name
        assert "walrus" not in str(room.client.get(room.base).json)
        assert room.client.post(f"/api/meetings/{room.meeting}/undo").status_code == 409

    def test_the_same_part_may_be_sent_again_afterwards(self, room: RoomDesk) -> None:
        room.client.post(f"{room.base}/cut", {"start": 0.0, "end": 4.0})
        assert room.put(0, sound(0)).status_code == 200
        assert not room.held().any()

    @pytest.mark.parametrize(("start", "end"), [(2.0, 1.0), (9.0, 12.0)])
    def test_a_stretch_that_is_none_is_refused(self, room: RoomDesk, start: float, end: float) -> None:
        assert room.client.post(f"{room.base}/cut", {"start": start, "end": end}).status_code == 409


class TestNotesAndMarks:
    def test_notes_are_the_writers_own(self, room: RoomDesk) -> None:
        ines = room.desk.account("Ines Carvell", "ines@saltmarsh.example")
        path = f"{room.base}/notes/note-of-maren"
        assert room.client.put(path, {"text": "mine", "at": 3.5, "position": 1}).status_code == 200
        with room.desk.installation.database.write() as session:
            meeting = session.get_one(Meeting, room.meeting)
            user = session.query(User).filter_by(email="ines@saltmarsh.example").one()
            meeting.people.append(user.person)
        assert ines.get(room.base).json["board"]["notes"] == []
        assert ines.put(path, {"text": "hers", "at": 0, "position": 1}).status_code == 404
        assert ines.send("DELETE", path).status_code == 200
        assert [n["text"] for n in room.board()["notes"]] == ["mine"]

    def test_a_note_keeps_the_moment_it_was_begun(self, room: RoomDesk) -> None:
        path = f"{room.base}/notes/note-of-maren"
        room.client.put(path, {"text": "a", "at": 3.5, "position": 1})
        room.client.put(path, {"text": "a longer one", "at": 99, "position": 1})
        (note,) = room.board()["notes"]
        assert (note["at"], note["text"]) == (3.5, "a longer one")

    def test_a_note_that_is_far_too_long_is_refused(self, room: RoomDesk) -> None:
        answer = room.client.put(f"{room.base}/notes/note-of-maren", {"text": "x" * 4001, "at": 0, "position": 1})
        assert answer.status_code == 422

    def test_a_mark_begins_with_the_turn_being_spoken(self, room: RoomDesk) -> None:
        room.hear((0.0, 2.0, "good morning"), (2.1, 4.0, "three things"), (9.0, 11.0, "now the rota"))
        with room.desk.installation.database.write() as session:
            found = room_of(session, room.meeting)
            assert found is not None
            assigned = dict(zip((1, 2, 3), ("Voice A", "Voice A", "Voice B"), strict=True))
            rows = live_lines(session, room.meeting)
            assign_voices(session, found, {e.number: [(e.line, assigned[e.number])] for e in rows})
        board = room.client.put(f"{room.base}/marks/mark-of-maren", {"label": "decided", "start": 3.5, "end": 3.5}).json
        (mark,) = board["marks"]
        assert (mark["start"], mark["end"], mark["mine"]) == (0.0, 3.5, True)
        words = {"label": "decided", "start": 0.0, "end": 3.5, "text": "boats"}
        (again,) = room.client.put(f"{room.base}/marks/mark-of-maren", words).json["marks"]
        assert (again["text"], again["start"], again["end"]) == ("boats", 0.0, 3.5)
        assert room.client.send("DELETE", f"{room.base}/marks/mark-of-maren").json["marks"] == []

    def test_a_live_line_can_be_corrected_and_the_correction_taken_back(self, room: RoomDesk) -> None:
        room.hear((0.0, 2.0, "to buy us could you"))
        line = room.client.put(f"{room.base}/lines/1", {"text": "Tobias, could you"}).json["lines"][0]
        assert (line["text"], line["heard"]) == ("Tobias, could you", "to buy us could you")
        room.client.post(f"/api/meetings/{room.meeting}/undo")
        assert room.client.get(room.base).json["lines"][0]["text"] == "to buy us could you"
        assert room.client.put(f"{room.base}/lines/1", {"text": "  "}).status_code == 409
        assert room.client.put(f"{room.base}/lines/9", {"text": "x"}).status_code == 404


class TestAgenda:
    def test_the_first_item_is_on_when_the_recording_begins(self, room: RoomDesk) -> None:
        room.announce()
        room.begin()
        assert [item["begun"] for item in room.board()["agenda"]] == [0.0, None]

    def test_turning_to_another_item_ends_the_one_that_was_on(self, room: RoomDesk) -> None:
        room.client.put(f"{room.base}/agenda/on", {"number": 0, "at": 5})
        items = room.client.put(f"{room.base}/agenda/on", {"number": 1, "at": 65}).json["agenda"]
        assert [(i["begun"], i["ended"]) for i in items] == [(5.0, 65.0), (65.0, None)]
        again = room.client.put(f"{room.base}/agenda/on", {"number": 0, "at": 90}).json["agenda"]
        assert [(i["begun"], i["ended"]) for i in again] == [(5.0, None), (65.0, 90.0)]
        assert room.client.put(f"{room.base}/agenda/on", {"number": 7, "at": 90}).status_code == 404

    def test_items_keep_their_times_when_the_agenda_is_written_again(self, room: RoomDesk) -> None:
        room.client.put(f"{room.base}/agenda/on", {"number": 0, "at": 5})
        body = {"items": [{"title": "Money"}, {"title": "Rota", "planned": 300}]}
        items = room.client.put(f"{room.base}/agenda", body).json["agenda"]
        assert [(i["title"], i["begun"]) for i in items] == [("Money", None), ("Rota", 5.0)]


def test_a_silent_recording_is_kept_on_when_somebody_says_so(room: RoomDesk) -> None:
    room.announce()
    room.begin()
    board = room.client.put(f"{room.base}/choices", {"silence_stop": 120, "floor_limit": 0}).json
    assert (board["silence_stop"], board["floor_limit"]) == (120, 0)
    assert room.client.post(f"{room.base}/keep-on").status_code == 200
    assert room.client.put(f"{room.base}/choices", {"silence_stop": -1, "floor_limit": 0}).status_code == 422


def test_still_pictures_are_kept_only_while_it_runs(room: RoomDesk) -> None:
    jpeg = b"\xff\xd8\xff\xe0" + b"0" * 50

    def send(data: bytes) -> Answer:
        headers = {"X-CSRF-Token": room.client.token, "X-At": "1.5", "Content-Type": "application/octet-stream"}
        return cast(Answer, room.client.raw.post(f"{room.base}/pictures", data=data, headers=headers))

    assert send(jpeg).status_code == 409
    room.announce()
    room.begin()
    picture = send(jpeg).json
    assert picture["at"] == 1.5
    assert send(b"GIF89a").status_code == 409
    path = f"/api/meetings/{room.meeting}/pictures/{picture['id']}"
    assert room.client.get(path).data == jpeg
    room.client.post(f"{room.base}/cut", {"start": 0.0, "end": 2.0})  # nothing is held yet
    room.send(4)
    assert room.client.post(f"{room.base}/cut", {"start": 1.0, "end": 2.0}).status_code == 200
    assert room.client.get(path).status_code == 404


def test_a_brief_before_anything_is_said_gives_the_rule(room: RoomDesk) -> None:
    assigned = room.desk.ask(f"{room.base}/brief")
    assert not assigned["ready"] and "45 seconds" in assigned["least"]
    assert not room.desk.ask(f"{room.base}/inquiry", "Who has the log book?")["found"]


def test_the_demo_meeting_is_played_only_in_the_demo(desk: Desk) -> None:
    assert desk.client.post("/api/rooms/demo").status_code == 404


def test_removing_a_meeting_removes_its_sound(room: RoomDesk) -> None:
    room.announce()
    room.begin()
    room.send(2)
    folder = room.desk.installation.settings.data / "files" / "uploads"
    assert list(folder.glob("run-*/*"))
    assert room.client.send("DELETE", f"/api/meetings/{room.meeting}").status_code == 200
    assert not list(folder.glob("run-*"))
