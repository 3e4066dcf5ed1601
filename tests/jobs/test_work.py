"""Background work: steps, restarts, cancelling, failures; with a scripted recogniser and a made diarizer."""

import shutil
import socket
import subprocess
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path
from threading import Event, Thread

import docx
import numpy as np
import pytest
import redis
from redis.backoff import ConstantBackoff
from redis.retry import Retry
from sqlalchemy import select

from nuntius.core.audio.decode import Samples
from nuntius.core.jobs import JobState, Lane
from nuntius.core.speech import recogniser as stretching
from nuntius.core.speech.diarizer import Span
from nuntius.core.transcript.word import Word
from nuntius.jobs import engines, leases, steps
from nuntius.jobs import work as working
from nuntius.jobs.queue import Queue, storage
from nuntius.jobs.work import JobCancelled, JobLost, Report, work
from nuntius.store import heartbeats
from nuntius.store.errors import StorageFull
from nuntius.store.installation import Installation
from nuntius.store.leases import LEASE, claim, held
from nuntius.store.models import Job, RecognisedStretch, Recording, TurnRow, now
from tests.engines import PlannedDiarizer
from tests.help import Desk, tone, write_wav


class MadeRecogniser:
    """One word a stretch; counts what it was given."""

    name = "made"

    def __init__(self, fail_at: int | None = None) -> None:
        self.calls, self.fail_at = 0, fail_at

    def recognise(self, samples: Samples) -> tuple[Word, ...]:
        self.calls += 1
        if self.calls == self.fail_at:
            raise KeyboardInterrupt  # as abrupt as a killed process: nothing is tidied up
        return (Word(0.2, 0.6, f"We{self.calls}"), Word(0.6, 1.0, "sail."))


@pytest.fixture
def long_wav(tmp_path: Path) -> Path:
    write_wav(tmp_path / "long.wav", tone(20.0), 16_000)
    return tmp_path / "long.wav"


@pytest.fixture(autouse=True)
def made_engines(monkeypatch: pytest.MonkeyPatch) -> MadeRecogniser:
    engine = MadeRecogniser()
    monkeypatch.setattr(stretching, "STRETCH", 6.0)
    monkeypatch.setattr(stretching, "SEEK", 1.0)
    monkeypatch.setattr(engines, "recogniser", lambda settings, source: engine)
    monkeypatch.setattr(
        engines, "diarizer", lambda settings: PlannedDiarizer(Span(0, 5, "Voice A"), Span(5, 60, "Voice B"))
    )
    return engine


def job_of(desk: Desk, meeting: str) -> Job:
    with desk.installation.database.read() as session:
        return session.scalars(select(Job).where(Job.meeting_id == meeting)).one()


def test_a_recording_becomes_a_record(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    assert desk.record(meeting)["meeting"]["job"]["state"] == "waiting"
    desk.work()
    record = desk.record(meeting)
    assert record["meeting"]["job"]["state"] == "done"
    assert record["meeting"]["job"]["progress"] == 1
    assert [v["label"] for v in record["voices"]] == ["Voice A", "Voice B"]
    assert record["turns"][0]["words"][0][0] == "We1"
    assert record["recording"]["duration"] == pytest.approx(20.0)
    assert record["minutes"] is not None


def test_a_killed_worker_goes_on_behind_the_last_stretch(
    desk: Desk, long_wav: Path, made_engines: MadeRecogniser
) -> None:
    meeting = desk.bring_in(long_wav)
    made_engines.fail_at = 3
    with pytest.raises(KeyboardInterrupt):
        work(desk.installation, job_of(desk, meeting).id)
    job = job_of(desk, meeting)
    assert (job.state, job.done_steps) == ("working", ["sound"])
    _pretend_dead(desk.installation, job.id)
    made_engines.fail_at = None
    desk.queue.lanes[Lane.LONG].flush()
    assert desk.queue.recover() == 1
    desk.work()
    assert job_of(desk, meeting).state == "done"
    assert made_engines.calls == 3 + 2  # two done before, one lost, two left (four stretches in all)
    with desk.installation.database.read() as session:
        texts = [word[0] for row in session.scalars(select(TurnRow).order_by(TurnRow.number)) for word in row.words]
        assert [t for t in texts if t.startswith("We")] == ["We1", "We2", "We4", "We5"]
        assert session.query(RecognisedStretch).count() == 0
        assert session.query(Recording).count() == 1


def _pretend_dead(installation: Installation, job_id: str) -> None:
    """Lets the job look as if its worker had given no sign of life for longer than its lease."""
    with installation.database.write() as session:
        session.get_one(Job, job_id).beat_at = now() - 2 * LEASE


def test_a_job_of_a_living_worker_is_not_taken(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    job = job_of(desk, meeting)
    with desk.installation.database.write() as session:
        row = session.get_one(Job, job.id)
        row.state, row.worker, row.beat_at = JobState.WORKING, "another/1", now()
    desk.queue.lanes[Lane.LONG].flush()
    assert desk.queue.recover() == 0
    work(desk.installation, job.id)
    assert job_of(desk, meeting).state == "working"


def test_cancelling_stops_and_going_on_finishes(desk: Desk, long_wav: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    meeting = desk.bring_in(long_wav)
    listen = steps.listen

    def cancelled_meanwhile(task: steps.Task, progress: steps.Progress) -> None:
        assert desk.client.post(f"/api/meetings/{meeting}/cancel").status_code == 200
        listen(task, progress)

    from nuntius.jobs import work as module

    plan = tuple(
        module.Step(s.name, cancelled_meanwhile if s.name == "listen" else s.run, s.share) for s in module.SOUND_STEPS
    )
    monkeypatch.setattr(module, "SOUND_STEPS", plan)
    desk.work()
    assert job_of(desk, meeting).state == "cancelled"
    monkeypatch.undo()
    assert desk.client.post(f"/api/meetings/{meeting}/cancel").status_code == 409


@pytest.mark.parametrize("failing", ["recognise", "diarize"])
def test_what_one_half_of_listening_raises_is_what_is_reported(
    failing: str, desk: Desk, monkeypatch: pytest.MonkeyPatch
) -> None:
    begun = Event()

    def fails(task: steps.Task, progress: steps.Progress) -> None:
        begun.set()
        raise JobCancelled()

    def goes_on(task: steps.Task, progress: steps.Progress) -> None:
        assert begun.wait(10)
        while True:
            progress(0.5)

    for name in ("recognise", "diarize"):
        monkeypatch.setattr(steps, name, fails if name == failing else goes_on)
    with pytest.raises(JobCancelled):
        steps.listen(steps.Task(desk.installation, "m", None), lambda _: None)


def test_a_waiting_job_is_cancelled_at_once_and_tried_again(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    assert desk.client.post(f"/api/meetings/{meeting}/cancel").json["job"]["state"] == "cancelled"
    desk.work()
    assert job_of(desk, meeting).state == "cancelled"
    assert desk.client.post(f"/api/meetings/{meeting}/retry").json["job"]["state"] == "waiting"
    desk.work()
    assert job_of(desk, meeting).state == "done"


def test_a_failure_keeps_its_sentence_and_the_recording(desk: Desk, tmp_path: Path) -> None:
    write_wav(tmp_path / "silent.wav", np.zeros(32_000, np.float32), 16_000)
    meeting = desk.bring_in(tmp_path / "silent.wav")
    desk.work()
    job = desk.record(meeting)["meeting"]["job"]
    assert job["state"] == "failed"
    assert "silent throughout" in job["error"]
    assert desk.client.get(f"/api/meetings/{meeting}/original").data == (tmp_path / "silent.wav").read_bytes()


def test_an_unforeseen_failure_says_so_without_details(
    desk: Desk, long_wav: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(engines, "diarizer", lambda settings: 1 / 0)
    meeting = desk.bring_in(long_wav)
    desk.work()
    job = desk.record(meeting)["meeting"]["job"]
    assert (job["state"], "our side" in job["error"], "division" in job["error"]) == ("failed", True, False)


def test_progress_is_noted_and_a_wish_to_cancel_is_heard(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    job = job_of(desk, meeting)
    with desk.installation.database.write() as session:
        claimed = claim(session, Job, job.id)
        assert claimed is not None and claimed.worker is not None
    report = Report(desk.installation, job.id, claimed.worker)
    report("listen", 0.4, force=True)
    report("listen", 0.3, force=True)
    assert job_of(desk, meeting).progress == 0.4  # never backwards
    with desk.installation.database.write() as session:
        session.get_one(Job, job.id).cancel_asked = True
    with pytest.raises(JobCancelled):
        report("listen", 0.5, force=True)


def test_who_lost_a_job_neither_reports_nor_ends_it(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    job = job_of(desk, meeting)
    with desk.installation.database.write() as session:
        first = claim(session, Job, job.id)
        assert first is not None and first.worker is not None
    _pretend_dead(desk.installation, job.id)
    with desk.installation.database.write() as session:
        second = claim(session, Job, job.id)
        assert second is not None and second.worker != first.worker
    with pytest.raises(JobLost):
        Report(desk.installation, job.id, first.worker)("listen", 0.5, force=True)
    working._end(desk.installation, job.id, first.worker, JobState.FAILED, "nonsense")
    assert (job_of(desk, meeting).state, job_of(desk, meeting).error) == ("working", None)


def test_cancelling_work_without_a_sign_of_life_ends_it(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    job = job_of(desk, meeting)
    with desk.installation.database.write() as session:
        claim(session, Job, job.id)
    working_still = desk.client.post(f"/api/meetings/{meeting}/cancel").json["job"]["state"]
    _pretend_dead(desk.installation, job.id)
    assert working_still == "working"  # its worker is alive and ends it itself
    assert desk.client.post(f"/api/meetings/{meeting}/cancel").json["job"]["state"] == "cancelled"


def test_a_wish_to_cancel_outlives_the_worker(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    job = job_of(desk, meeting)
    with desk.installation.database.write() as session:
        claim(session, Job, job.id)
    desk.client.post(f"/api/meetings/{meeting}/cancel")
    _pretend_dead(desk.installation, job.id)
    desk.queue.recover()
    assert job_of(desk, meeting).state == "cancelled"


def test_a_process_number_that_is_used_again_keeps_no_job_alive(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    with desk.installation.database.write() as session:
        row = session.get_one(Job, job_of(desk, meeting).id)
        row.state, row.beat_at = JobState.WORKING, now() - 2 * LEASE
        row.worker = f"{socket.gethostname()}:1"  # process 1 always lives
    desk.queue.lanes[Lane.LONG].flush()
    assert desk.queue.recover() == 1
    desk.work()
    assert job_of(desk, meeting).state == "done"


def test_an_end_that_cannot_be_written_is_written_when_there_is_room(
    desk: Desk, long_wav: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    meeting, full = desk.bring_in(long_wav), [3]
    still_held = held

    def held_unless_full(*given: object) -> Job | None:
        if full[0]:
            full[0] -= 1
            raise StorageFull()
        return still_held(*given)  # type: ignore[arg-type]

    monkeypatch.setattr(leases, "END_TRIES", (0.0, 0.0, 0.0, 0.0))

    def run_out(report: object, *_: object) -> None:
        monkeypatch.setattr(leases, "held", held_unless_full)
        raise StorageFull()

    monkeypatch.setattr(working, "_run", run_out)
    desk.work()
    job = job_of(desk, meeting)
    assert (job.state, full) == ("failed", [0])
    assert "make room" in (job.error or "")


def queue_at(desk: Desk, url: str) -> Queue:
    """The desk's jobs in the storage at an address; in files where it is ""."""
    return Queue(desk.installation, lambda settings, lane: storage(replace(settings, queue_url=url), lane))


class QueueContract:
    """What holds for every storage of the queue."""

    url = ""

    def queue(self, desk: Desk) -> Queue:
        return queue_at(desk, self.url)

    def test_what_is_put_in_comes_out_once(self, desk: Desk, long_wav: Path) -> None:
        queue = self.queue(desk)
        huey = queue.lanes[Lane.LONG]
        huey.flush()
        meeting = desk.bring_in(long_wav)
        queue.put(job_of(desk, meeting).id)
        task = huey.dequeue()
        assert task is not None
        huey.execute(task)
        assert job_of(desk, meeting).state == "done"
        assert huey.dequeue() is None

    def test_a_waiting_job_that_the_storage_lost_is_put_in_again_once(self, desk: Desk, long_wav: Path) -> None:
        queue = self.queue(desk)
        huey = queue.lanes[Lane.LONG]
        desk.bring_in(long_wav)
        huey.flush()
        assert (queue.recover(), queue.recover(), huey.pending_count()) == (1, 0, 1)

    def test_it_says_whether_it_answers(self, desk: Desk) -> None:
        assert self.queue(desk).answers()

    def test_a_text_does_not_wait_behind_recordings(self, desk: Desk, wav: Path, tmp_path: Path) -> None:
        queue = self.queue(desk)
        for lane in queue.lanes.values():
            lane.flush()
        (tmp_path / "talk.txt").write_text("Maren: We paint the boat on Friday.\n")
        made = [desk.bring_in(wav, title=f"Rota {number}") for number in range(3)]
        made.append(desk.bring_in(tmp_path / "talk.txt", title="Pasted"))
        for meeting in made:
            queue.put(job_of(desk, meeting).id)
        assert [desk.record(meeting)["meeting"]["job"]["ahead"] for meeting in made] == [0, 1, 2, 0]
        assert {lane: n for lane, each in queue.lanes.items() if (n := each.pending_count())} == {
            Lane.LONG: 3,
            Lane.QUICK: 1,
        }


class TestSqliteQueue(QueueContract):
    pass


class TestRedisQueue(QueueContract):
    """On a Redis server of its own, where the machine has one."""

    @pytest.fixture(autouse=True)
    def server(self, tmp_path: Path) -> Iterator[None]:
        program = shutil.which("redis-server")
        if program is None:
            pytest.skip("redis-server is not installed")
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        process = subprocess.Popen(
            [program, "--port", str(port), "--dir", str(tmp_path), "--save", ""], stdout=subprocess.DEVNULL
        )
        self.url = f"redis://127.0.0.1:{port}/0"
        client = redis.Redis.from_url(self.url, retry=Retry(ConstantBackoff(0.05), 100))
        client.ping()
        yield
        client.close()
        process.terminate()
        process.wait()


def test_a_queue_that_is_away_loses_no_job(desk: Desk, long_wav: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    away = queue_at(desk, "redis://127.0.0.1:9/0")
    assert not away.answers()
    monkeypatch.setitem(desk.app.extensions, "nuntius_queue", away)
    meeting = desk.bring_in(long_wav)  # begin answers 200
    assert job_of(desk, meeting).state == "waiting"
    assert desk.queue.recover() == 1  # another one, that is there again, finds it
    desk.work()
    assert job_of(desk, meeting).state == "done"


def test_the_watch_takes_over_while_the_worker_is_busy(desk: Desk, long_wav: Path) -> None:
    meeting = desk.bring_in(long_wav)
    desk.queue.lanes[Lane.LONG].flush()
    ended = Event()
    watch = Thread(target=desk.queue._watch, args=(ended,))
    watch.start()
    while desk.queue.lanes[Lane.LONG].pending_count() == 0:
        assert watch.is_alive()
    ended.set()
    watch.join()
    with desk.installation.database.read() as session:
        assert "worker" not in heartbeats.missing(session)
    desk.work()
    assert job_of(desk, meeting).state == "done"


class TestTranscriptBeside:
    """A transcript that came with its recording."""

    def test_without_times_it_gets_those_at_which_its_words_are_heard(
        self, desk: Desk, long_wav: Path, tmp_path: Path, made_engines: MadeRecogniser
    ) -> None:
        (tmp_path / "talk.txt").write_text("Maren: We1 sail. We2 sail.\nInes: We3 shall sail.\n")
        meeting = desk.bring_in(long_wav, beside={tmp_path / "talk.txt": "transcript"})
        desk.work()
        record = desk.record(meeting)
        assert record["meeting"]["job"]["state"] == "done", record["meeting"]["job"]
        turns = [{w[0]: w[1] for w in turn["words"]} for turn in record["turns"]]
        assert made_engines.calls == 4
        assert turns[0]["We1"] == 0.2
        assert turns[0]["We2"] == pytest.approx(6, abs=0.5)  # where its stretch begins
        assert turns[1]["We3"] == pytest.approx(12, abs=0.9)
        assert list(turns[1]) == ["We3", "shall", "sail."]
        with desk.installation.database.read() as session:
            assert session.scalars(select(RecognisedStretch)).all() == []

    @pytest.mark.parametrize(("first", "timed"), [("Maren: We1 sail.", False), ("[0:03] Maren: We1 sail.", True)])
    def test_a_word_processor_document_is_asked_for_its_times_like_any_other(
        self, desk: Desk, long_wav: Path, tmp_path: Path, made_engines: MadeRecogniser, first: str, timed: bool
    ) -> None:
        document = docx.Document()
        for line in (first, "Ines: We2 sail."):
            document.add_paragraph(line)
        document.save(str(tmp_path / "talk.docx"))
        meeting = desk.bring_in(long_wav, beside={tmp_path / "talk.docx": "transcript"})
        desk.work()
        assert desk.record(meeting)["turns"][0]["words"][0][1] == (3.0 if timed else 0.2)
        assert made_engines.calls == (0 if timed else 4)

    def test_without_names_its_voices_are_told_apart_by_the_sound(
        self, desk: Desk, long_wav: Path, tmp_path: Path, made_engines: MadeRecogniser
    ) -> None:
        cues = "00:00:01.000 --> 00:00:03.000\nGood morning all.\n\n00:00:07.000 --> 00:00:09.000\nThe lifts cost 750 pounds.\n"
        (tmp_path / "talk.vtt").write_text(f"WEBVTT\n\n{cues}")
        meeting = desk.bring_in(long_wav, beside={tmp_path / "talk.vtt": "transcript"})
        desk.work()
        record = desk.record(meeting)
        names = {voice["id"]: voice["name"] for voice in record["voices"]}
        assert [(names[t["voice"]], t["words"][0][0]) for t in record["turns"]] == [
            ("Voice A", "Good"),
            ("Voice B", "The"),
        ]
        assert made_engines.calls == 0  # the transcript's own words are taken


class TestLanes:
    def test_the_place_in_the_line_moves_on(self, desk: Desk, wav: Path) -> None:
        first, second, third = (desk.bring_in(wav, title=f"Rota {number}") for number in range(3))
        assert desk.client.post(f"/api/meetings/{second}/cancel").status_code == 200
        assert desk.record(third)["meeting"]["job"]["ahead"] == 1
        with desk.installation.database.write() as session:
            session.get_one(Job, desk.record(first)["meeting"]["job"]["id"]).state = JobState.WORKING
        assert desk.record(third)["meeting"]["job"]["ahead"] == 1
        assert desk.record(first)["meeting"]["job"]["ahead"] is None


class TestPutAway:
    def test_work_that_was_stopped_is_not_being_worked_on_and_can_be_put_away(self, desk: Desk, wav: Path) -> None:
        meeting = desk.bring_in(wav)

        def today() -> dict[str, int]:
            return {name: page["total"] for name, page in desk.client.get("/api/meetings/today").json.items()}

        def put_away(away: bool) -> int:
            return desk.client.put(f"/api/meetings/{meeting}/put-away", {"put_away": away}).status_code

        assert (today(), put_away(True)) == ({"on": 0, "busy": 1, "not_done": 0, "check": 0}, 409)
        desk.client.post(f"/api/meetings/{meeting}/cancel")
        assert today() == {"on": 0, "busy": 0, "not_done": 1, "check": 0}
        assert (put_away(True), today()["not_done"]) == (200, 0)
        assert [m["id"] for m in desk.client.get("/api/meetings").json["meetings"]] == [meeting]
        assert (put_away(False), today()["not_done"]) == (200, 1)
        put_away(True)
        assert desk.client.post(f"/api/meetings/{meeting}/retry").status_code == 200
        assert today() == {"on": 0, "busy": 1, "not_done": 0, "check": 0}
