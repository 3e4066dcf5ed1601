"""The listener: live text into the store, minutes when it stops, and everything carried to the settled record."""

import hashlib
import json
import time
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from threading import Event, Thread

import numpy as np
import pytest
from sqlalchemy import select

from nuntius.core.audio.decode import RATE, Samples, load
from nuntius.core.audio.encode import write_flac
from nuntius.core.audio.pcm import to_bytes
from nuntius.core.jobs import Lane
from nuntius.core.live.line import LiveLine
from nuntius.core.speech.diarizer import Span
from nuntius.core.transcript.word import Word, spread
from nuntius.jobs import engines
from nuntius.jobs.follow import Follower
from nuntius.jobs.listener import Listener
from nuntius.store import changes
from nuntius.store.live import add_lines, assign_voices, live_lines
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Meeting, NoteRow, Recording, Room, Speaker, User, now
from nuntius.store.rooms import room_of
from nuntius.store.transcripts import load_transcript, turns_of
from tests.engines import PlannedDiarizer
from tests.help import Desk, tone

SCRIPT = (
    (0.5, 3.0, "Good morning, everybody, let us talk about the slipway."),
    (3.5, 6.0, "The lower rail has moved fourteen millimetres since the spring."),
    (6.5, 9.0, "I'll ring to buy us by Friday and ask for a price."),
)
BETTER = (
    (0.5, 3.0, "Good morning, everybody. Let us talk about the slipway."),
    (3.5, 6.0, "The lower rail has moved 14 millimetres since the spring."),
    (6.5, 9.0, "I'll ring Toby us by Friday and ask for a price."),
)


class BetterRecogniser:
    name = "better"

    def recognise(self, samples: Samples) -> tuple[Word, ...]:
        return tuple(word for start, end, text in BETTER for word in spread(text, start, end))


@dataclass
class Recording10s:
    """A room with ten seconds of sound held, and its follower."""

    desk: Desk
    meeting: str

    @property
    def base(self) -> str:
        return f"/api/meetings/{self.meeting}/room"

    def room(self) -> Room:
        with self.desk.installation.database.read() as session:
            found = room_of(session, self.meeting)
        assert found is not None
        return found

    def send(self, first: int, count: int) -> None:
        for number in range(first, first + count):
            data = to_bytes(tone(0.5))
            headers = {
                "X-CSRF-Token": self.desk.client.token,
                "X-Recorder": "recorder-1",
                "X-Part-SHA256": hashlib.sha256(data).hexdigest(),
            }
            path = f"{self.base}/runs/0/parts/{number}"
            assert self.desk.client.raw.put(path, data=data, headers=headers).status_code == 200

    def stop(self, parts: int) -> None:
        self.desk.client.post(f"{self.base}/runs/0/stop", {"recorder": "recorder-1", "parts": parts})

    def follow(self, end: Event | None = None) -> None:
        Follower(self.desk.installation, self.room().id, self.desk.queue.put, end).run()

    def lines(self) -> list[str]:
        with self.desk.installation.database.read() as session:
            return [line.text for line in live_lines(session, self.meeting)]


@pytest.fixture
def recording(desk: Desk, monkeypatch: pytest.MonkeyPatch) -> Iterator[Recording10s]:
    script = {"turns": [{"start": a, "end": b, "text": text} for a, b, text in SCRIPT]}
    desk.installation.settings.data.mkdir(parents=True, exist_ok=True)
    (desk.installation.settings.data / "live.json").write_text(json.dumps(script))
    monkeypatch.setattr(
        engines, "diarizer", lambda settings: PlannedDiarizer(Span(0.4, 3.2, "Voice A"), Span(3.3, 9.5, "Voice B"))
    )
    monkeypatch.setattr(engines, "recogniser", lambda settings, source: BetterRecogniser())
    body = {"title": "Slipway", "people": ["Tobias Pryce"]}
    meeting = desk.client.post("/api/rooms", body).json["board"]["meeting"]["id"]
    made = Recording10s(desk, meeting)
    desk.client.put(f"{made.base}/announced", {"announced": True})
    desk.client.post(f"{made.base}/runs", {"recorder": "recorder-1", "source": "microphone"})
    yield made


def test_lines_settle_and_minutes_follow_the_stop(recording: Recording10s) -> None:
    recording.send(0, 20)
    recording.stop(20)
    recording.follow()
    assert recording.lines() == [text for _, _, text in SCRIPT]
    assert recording.room().heard == recording.room().held == 10 * RATE
    with recording.desk.installation.database.read() as session:
        minutes = get_minutes(session, recording.meeting)
        assert minutes is not None and minutes.source == "live"
        assert any(line.kind == "action" and line.due_said for line in minutes.lines)
    ordered = recording.desk.client.post(f"/api/meetings/{recording.meeting}/minutes", {"length": "short"}).json
    assert ordered["job"]["kind"] == "work"  # the better recogniser is still to listen
    recording.desk.work_off(Lane.QUICK)
    again = recording.desk.record(recording.meeting)["minutes"]
    assert (again["source"], again["length"]) == ("live", "short")


def test_a_listener_that_died_goes_on_behind_the_last_line(recording: Recording10s) -> None:
    recording.send(0, 10)
    end = Event()
    thread = Thread(target=recording.follow, args=(end,))
    thread.start()
    patience = time.monotonic() + 20
    while len(recording.lines()) < 1 or recording.room().heard < 5 * RATE:
        assert time.monotonic() < patience
        time.sleep(0.05)
    end.set()
    thread.join()
    recording.send(10, 10)
    recording.stop(20)
    recording.follow()
    assert recording.lines() == [text for _, _, text in SCRIPT]


def test_a_listener_that_lost_its_meeting_writes_nothing_more(recording: Recording10s) -> None:
    recording.send(0, 20)
    recording.stop(20)
    with recording.desk.installation.database.write() as session:
        room = session.get_one(Room, recording.room().id)
        room.listener, room.listener_at = "another process", now()
    recording.follow()
    assert recording.lines() == []
    assert not recording.room().drafted


def test_a_listener_that_ends_lets_another_follow_at_once(recording: Recording10s) -> None:
    recording.send(0, 2)
    listener = Listener(recording.desk.installation, recording.desk.queue.put)
    running = Thread(target=listener.run)
    running.start()
    patience = time.monotonic() + 20
    while recording.room().listener is None:
        assert time.monotonic() < patience
        time.sleep(0.05)
    listener.end()
    running.join()
    listener.stop()
    assert recording.room().listener is None


def test_what_people_did_live_is_carried_to_the_settled_record(recording: Recording10s) -> None:
    recording.send(0, 20)
    recording.stop(20)
    recording.follow()
    store, desk = recording.desk.installation, recording.desk
    with store.database.write() as session:
        room = room_of(session, recording.meeting)
        meeting = session.get_one(Meeting, recording.meeting)
        assert room is not None
        user = session.scalars(select(User)).one()
        # live, the voices bore each other's names; settled, they keep them by time
        assigned = {1: "Voice B", 2: "Voice A", 3: "Voice A"}
        rows = live_lines(session, recording.meeting)
        assign_voices(session, room, {e.number: [(e.line, assigned[e.number])] for e in rows})
        first = session.scalars(select(Speaker).where(Speaker.label == "Voice B")).one()
        changes.name_voice(session, user, meeting, first.id, "Maren Tull")
        changes.correct_live(session, user, meeting, 3, "I'll ring Tobias by Friday and ask for a price.")
        session.add(NoteRow(meeting_id=meeting.id, user_id=user.id, text="Rail: ask two yards", at=5.0, position=1))
        session.add(
            NoteRow(meeting_id=meeting.id, user_id=user.id, text="for me alone", at=5.0, position=2, private=True)
        )
    with store.database.read() as session:
        minutes = get_minutes(session, recording.meeting)
        assert minutes is not None
        action = next(line for line in minutes.lines if line.kind == "action")
    desk.client.put(f"/api/meetings/{recording.meeting}/lines/{action.id}", {"text": "Ring Tobias about the price."})
    desk.client.put(f"/api/meetings/{recording.meeting}/lines/{action.id}/tick", {"checked": True})
    desk.work()
    record = desk.record(recording.meeting)
    assert record["meeting"]["job"]["state"] == "done"
    assert record["minutes"]["source"] == "settled"
    names = {voice["id"]: voice["name"] for voice in record["voices"]}
    assert [names[turn["voice"]] for turn in record["turns"]] == ["Maren Tull", "Voice A"]
    texts = [" ".join(word[0] for word in turn["words"]) for turn in record["turns"]]
    assert texts[0].startswith("Good morning, everybody. Let us")
    assert "14 millimetres" in texts[1] and "ring Tobias by Friday" in texts[1]
    kinds = [(line["kind"], line["text"], line["checked"]) for line in record["minutes"]["lines"]]
    assert ("note", "Rail: ask two yards", False) in kinds
    assert ("action", "Ring Tobias about the price.", True) in kinds
    assert "for me alone" not in str(record)
    assert not list((store.settings.data / "files" / "uploads").glob("run-*"))
    original = desk.client.get(f"/api/meetings/{recording.meeting}/original")
    assert original.data[:4] == b"fLaC"


def test_a_stretch_removed_from_the_record_is_gone_for_good(recording: Recording10s, tmp_path: Path) -> None:
    desk, base = recording.desk, f"/api/meetings/{recording.meeting}"
    recording.send(0, 20)
    recording.stop(20)
    recording.follow()
    assert desk.client.post(f"{base}/cut", {"start": 3.2, "end": 6.2}).status_code == 409  # work is still to be done
    desk.work()
    record = desk.record(recording.meeting)
    rail = next(turn for turn in record["turns"] if "rail" in str(turn["words"]))
    text = " ".join(word[0] for word in rail["words"])
    desk.client.put(f"{base}/turns/{rail['number']}", {"text": text.replace("rail", "walrus")})
    about = [line for line in record["minutes"]["lines"] if "rail" in str(line["evidence"])]
    assert about
    desk.client.put(f"{base}/lines/{about[0]['id']}", {"text": "The walrus moved."})
    held = {path for path in (desk.installation.settings.data / "files").rglob("*") if path.is_file()}
    assert desk.client.post(f"{base}/cut", {"start": 3.2, "end": 6.2}).status_code == 200
    assert desk.client.get(f"{base}/sound").status_code == 404
    desk.work()
    record = desk.record(recording.meeting)
    assert record["meeting"]["job"]["state"] == "done"
    assert "walrus" not in str(record) and "rail" not in str(record)
    assert "ask for a price" in str([[word[0] for word in turn["words"]] for turn in record["turns"]]).replace(
        "', '", " "
    )
    assert [(b["kind"], b["at"], b["by"]) for b in record["breaks"]] == [("cut", 3.2, "Maren Tull")]
    assert all(b <= 3.2 or a >= 6.2 for a, b, _ in record["spans"])
    for path in (desk.installation.settings.data / "nuntius.db", desk.installation.settings.data / "nuntius.db-wal"):
        assert b"walrus" not in path.read_bytes() and b"millimetres" not in path.read_bytes(), path.name
    (tmp_path / "original.flac").write_bytes(desk.client.get(f"{base}/original").data)
    (tmp_path / "sound.ogg").write_bytes(desk.client.get(f"{base}/sound").data)
    original, sound = load(tmp_path / "original.flac"), load(tmp_path / "sound.ogg")
    assert not original[round(3.2 * RATE) : round(6.2 * RATE)].any() and original[: 3 * RATE].any()
    assert np.abs(sound[round(3.4 * RATE) : round(6.0 * RATE)]).max() < 0.01 < np.abs(sound[: 3 * RATE]).max()
    now_held = {path for path in (desk.installation.settings.data / "files").rglob("*") if path.is_file()}
    assert not held & now_held, "a file from before the cut is left"


def test_only_a_stretch_of_the_record_can_be_removed_and_only_by_its_runner(recording: Recording10s) -> None:
    desk, base = recording.desk, f"/api/meetings/{recording.meeting}"
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    recording.send(0, 20)
    recording.stop(20)
    desk.work()
    assert desk.client.post(f"{base}/cut", {"start": 6, "end": 3}).status_code == 409
    assert desk.client.post(f"{base}/cut", {"start": 60, "end": 70}).status_code == 409
    assert tobias.post(f"{base}/cut", {"start": 1, "end": 2}).status_code == 403


def test_turns_put_right_before_the_better_recogniser_is_done_stay_right(recording: Recording10s) -> None:
    recording.send(0, 20)
    recording.stop(20)
    recording.follow()
    text = " ".join(text for _, _, text in SCRIPT).replace("to buy us", "Tobias")
    assert recording.desk.client.put(f"/api/meetings/{recording.meeting}/turns/0", {"text": text}).status_code == 200
    recording.desk.work()
    record = recording.desk.record(recording.meeting)
    assert "ring Tobias by Friday" in str([[word[0] for word in turn["words"]] for turn in record["turns"]]).replace(
        "', '", " "
    )


def test_a_long_silence_ends_the_recording(recording: Recording10s) -> None:
    recording.desk.client.put(f"{recording.base}/choices", {"silence_stop": 4, "floor_limit": 0})
    recording.send(0, 30)
    recording.follow()
    assert recording.room().state == "stopped"
    recording.desk.work()
    assert recording.desk.record(recording.meeting)["meeting"]["job"]["state"] == "done"


def test_a_recording_in_which_nobody_speaks_ends_calmly(recording: Recording10s) -> None:
    (recording.desk.installation.settings.data / "live.json").write_text('{"turns": []}')
    recording.send(0, 4)
    recording.stop(4)
    recording.follow()
    assert recording.room().drafted
    with recording.desk.installation.database.read() as session:
        assert turns_of(session, recording.meeting) == []
        assert load_transcript(session, recording.meeting).turns == ()


def test_the_listener_follows_every_room_once_and_leaves_others_to_their_own(recording: Recording10s) -> None:
    recording.send(0, 20)
    recording.stop(20)
    listener = Listener(recording.desk.installation, recording.desk.queue.put)
    thread = Thread(target=listener.run)
    thread.start()
    patience = time.monotonic() + 30
    while not recording.room().drafted:
        assert time.monotonic() < patience
        time.sleep(0.05)
    listener.stop()
    thread.join()
    assert recording.lines() == [text for _, _, text in SCRIPT]
    with recording.desk.installation.database.write() as session:
        room = session.get_one(Room, recording.room().id)
        room.drafted, room.listener, room.listener_at = False, "another-host:1", now()
    assert Listener(recording.desk.installation, recording.desk.queue.put)._unfollowed() == []


def test_a_removed_room_ends_its_follower(recording: Recording10s) -> None:
    recording.send(0, 4)
    follower = Follower(recording.desk.installation, recording.room().id, recording.desk.queue.put)
    thread = Thread(target=follower.run)
    thread.start()
    recording.desk.client.send("DELETE", f"/api/meetings/{recording.meeting}")
    thread.join(timeout=20)
    assert not thread.is_alive()


def test_lines_written_after_a_cut_are_cut_too(recording: Recording10s) -> None:
    recording.send(0, 20)
    recording.desk.client.post(f"{recording.base}/cut", {"start": 3.0, "end": 6.2})
    recording.stop(20)
    recording.follow()
    assert not any("rail" in line for line in recording.lines())
    with recording.desk.installation.database.write() as session:
        room = room_of(session, recording.meeting)
        assert room is not None
        add_lines(session, room, [LiveLine(3.1, 6.0, "the rail again")])
    assert not any("rail" in line for line in recording.lines())


def test_flac_keeps_every_sample(tmp_path: Path, rng: np.random.Generator) -> None:
    samples = rng.integers(-32768, 32767, 50_001, dtype=np.int16)
    parts = [samples[i : i + 8000].tobytes() for i in range(0, len(samples), 8000)]
    path = tmp_path / "x.flac"
    write_flac(iter(parts), path)
    assert np.array_equal(np.round(load(path) * 32768).astype(np.int16), samples)


def test_a_recordings_steps_begin_with_gathering(recording: Recording10s) -> None:
    recording.send(0, 2)
    recording.stop(2)
    with recording.desk.installation.database.read() as session:
        assert session.scalars(select(Recording)).one().digest == ""
    assert recording.desk.client.get(f"/api/meetings/{recording.meeting}/original").status_code == 404
